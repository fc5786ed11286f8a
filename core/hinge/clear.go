package hinge

import (
	"slices"

	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Span is an occupied part of an edge: an old recess, a latch's recess, the joint of a rail. Both ends are measured
// down the same edge.
type Span struct {
	What     message.Message
	Old      bool // an old pocket
	From, To measure.Length
}

// Blocks is the first span that is nearer than wood to a leaf at a place; ok is false where the leaf is clear.
func Blocks(taken []Span, top, leaf, wood measure.Length) (s Span, ok bool) {
	i := slices.IndexFunc(taken, func(s Span) bool { return top < s.To+wood && s.From < top+leaf+wood })
	if i < 0 {
		return Span{}, false
	}
	return taken[i], true
}

// Need is the clearance that a leaf needs.
type Need struct {
	Leaf, Wood measure.Length // its length, and the wood on either side of it
	Edge       measure.Length // how long the edge is that it lies on
}

// Clear are the nearest places, up and down from a given one, at which a leaf is clear of every span; nil where there
// is none that way.
func Clear(taken []Span, top measure.Length, n Need) (up, down *measure.Length) {
	look := func(step func(Span) measure.Length) *measure.Length {
		at := top
		for range len(taken) + 1 {
			s, blocked := Blocks(taken, at, n.Leaf, n.Wood)
			if !blocked {
				return &at
			}
			if at = step(s); at < 0 || at+n.Leaf > n.Edge {
				return nil
			}
		}
		return nil
	}
	up = look(func(s Span) measure.Length { return s.From - n.Wood - n.Leaf })
	down = look(func(s Span) measure.Length { return s.To + n.Wood })
	return up, down
}
