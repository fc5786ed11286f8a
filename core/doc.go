// Package core gathers the rules and computation of hanging a door, with no
// interface, clock, file, network or log. It holds no code of its own: see
// the packages under it, which stand in trade order.
package core
