// Package frame names the sides of an opening and the two drawings in which
// everything is placed.
//
// Elevation, seen from the pull face: u runs from the hinge jamb to the lock
// jamb, v up from the floor, in millimetres. The frame is plumb and level,
// its origin at the foot of the hinge jamb. Hand never enters the
// mathematics: a left-handed door is drawn mirrored.
package frame

import (
	"fmt"
	"strconv"
)

// Side is one of the four sides of an opening, or the edge of the slab that
// meets it.
type Side uint16

// The sides in the order in which a slab is cut: head first, because every
// other mark is measured from it on the hinge edge; foot last. NoSide, the
// zero value, is for what has no side, such as a width.
const (
	NoSide Side = iota
	Head
	Hinge
	Lock
	Foot
)

// Each holds one value a side, indexed by Side.
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

// Upright reports whether the side is a jamb, placed by height v; head and
// foot are placed by distance u from the hinge jamb.
func (s Side) Upright() bool { return s == Hinge || s == Lock }

// Wall names the side as a part of the opening: "hinge jamb", "head", "floor".
func (s Side) Wall() string {
	switch s {
	case Head:
		return "head"
	case Foot:
		return "floor"
	}
	return s.String() + " jamb"
}

// Edge names the side as a part of the slab: "hinge edge", "head", "foot".
func (s Side) Edge() string {
	if s.Upright() {
		return s.String() + " edge"
	}
	return s.String()
}

// MarshalText writes the side's name.
func (s Side) MarshalText() ([]byte, error) {
	if int(s) >= len(names) {
		return nil, NoSuchSide(strconv.Itoa(int(s)))
	}
	return []byte(names[s]), nil
}

// UnmarshalText reads a side's name.
func (s *Side) UnmarshalText(b []byte) error {
	for i, n := range names {
		if n == string(b) {
			*s = Side(i)
			return nil
		}
	}
	return NoSuchSide(fmt.Sprintf("%.40s", b))
}

// NoSuchSide is a text that names no side.
type NoSuchSide string

func (e NoSuchSide) Error() string { return fmt.Sprintf("no side %q", string(e)) }

// Hand is the side the hinges are on, seen from the pull face.
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
