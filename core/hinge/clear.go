package hinge

import (
	"slices"

	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Span is a part of an edge that is taken: an old pocket, a latch recess, the joint of a
// rail. Both places are measured down the same edge.
type Span struct {
	What     message.Message
	Old      bool // an old pocket
	From, To measure.Length
}

// Blocks is what leaves a leaf too little wood at a place: the first of the spans nearer to
// it than wood; ok is false where it stands clear.
func Blocks(taken []Span, top, leaf, wood measure.Length) (s Span, ok bool) {
	i := slices.IndexFunc(taken, func(s Span) bool { return top < s.To+wood && s.From < top+leaf+wood })
	if i < 0 {
		return Span{}, false
	}
	return taken[i], true
}

// Clear are the nearest places, up and down from one, at which a leaf stands clear of all
// that is taken, with so much wood between, within an edge that ends at least and most;
// nil where there is none that way.
func Clear(taken []Span, top, leaf, wood, least, most measure.Length) (up, down *measure.Length) {
	look := func(step func(Span) measure.Length) *measure.Length {
		at := top
		for range len(taken) + 1 {
			s, blocked := Blocks(taken, at, leaf, wood)
			if !blocked {
				return &at
			}
			if at = step(s); at < least || at+leaf > most {
				return nil
			}
		}
		return nil
	}
	up = look(func(s Span) measure.Length { return s.From - wood - leaf })
	down = look(func(s Span) measure.Length { return s.To + wood })
	return up, down
}
