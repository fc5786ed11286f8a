// Package frame names the sides of an opening and the two drawings in which everything is placed.
//
// Elevation, seen from the pull face: u runs from the hinge jamb to the lock jamb, v up from the floor, in millimetres.
// The frame is plumb and level, its origin at the foot of the hinge jamb. Hand does not enter the mathematics: a
// left-handed opening is drawn mirrored.
package frame

import (
	"fmt"
	"strconv"
)

// Side is one of the four sides of an opening, or the edge of the slab that
// meets it.
type Side uint16

// The sides in the order in which a slab is cut: head first, because every other mark on the hinge edge is measured
// from it; foot last. NoSide, the zero value, is for quantities without a side, such as a width.
const (
	NoSide Side = iota
	Head
	Hinge
	Lock
	Foot
)

// Each holds one value for each side, indexed by Side.
type Each[T any] [5]T

// Sides lists all four in the order of cutting.
var Sides = [...]Side{Head, Hinge, Lock, Foot}

var names = [...]string{NoSide: "", Head: "head", Hinge: "hinge", Lock: "lock", Foot: "foot"}

func (s Side) String() string {
	if int(s) < len(names) {
		return names[s]
	}
	return fmt.Sprintf("side %d", uint16(s))
}

// Upright reports whether the side is a jamb, with places by height v; on head and floor places are by distance u from
// the hinge jamb.
func (s Side) Upright() bool { return s == Hinge || s == Lock }

// Wall is the side's ID as a part of the opening: "hinge jamb", "head", "floor".
func (s Side) Wall() string {
	switch s {
	case Head:
		return "head"
	case Foot:
		return "floor"
	}
	return s.String() + " jamb"
}

// Edge is the side's ID as a part of the slab: "hinge edge", "head", "foot".
func (s Side) Edge() string {
	if s.Upright() {
		return s.String() + " edge"
	}
	return s.String()
}

// MarshalText encodes the side's name.
func (s Side) MarshalText() ([]byte, error) {
	if int(s) >= len(names) {
		return nil, NoSuchSide(strconv.Itoa(int(s)))
	}
	return []byte(names[s]), nil
}

// UnmarshalText decodes a side's name; it fails with NoSuchSide.
func (s *Side) UnmarshalText(b []byte) error {
	for i, n := range names {
		if n == string(b) {
			*s = Side(i)
			return nil
		}
	}
	return NoSuchSide(fmt.Sprintf("%.40s", b))
}

// NoSuchSide reports a text that names no side.
type NoSuchSide string

func (e NoSuchSide) Error() string { return fmt.Sprintf("no side %q", string(e)) }

// Hand is the side of the hinges, seen from the pull face.
type Hand string

// The two hands.
const (
	Left  Hand = "left"
	Right Hand = "right"
)

// Other is the other hand.
func (h Hand) Other() Hand {
	if h == Left {
		return Right
	}
	return Left
}
