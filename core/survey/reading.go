package survey

import (
	"fmt"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// Kind is what a reading measures.
type Kind string

// The kinds of reading. All values are lengths; signs and places are:
//
//   - Width: lock jamb less hinge jamb, across, at height At.
//   - Height: floor to head, at distance At from the hinge jamb.
//   - Plumb, of jamb Side: how much further into the opening the jamb stands
//     at height At than at height From (the upper leaning in is positive).
//   - Level, of Head or Foot: how much higher it is at distance At from the
//     hinge jamb than at From (rising toward the lock jamb is positive).
//   - Square, in the head corner of jamb Side: with the stock of a square
//     held to the jamb, the light between blade and head at the blade's end,
//     a distance At from the corner; light in the corner itself is negative.
const (
	Width  Kind = "width"
	Height Kind = "height"
	Plumb  Kind = "plumb"
	Level  Kind = "level"
	Square Kind = "square"
)

// Reading is one thing measured in the opening, as it was read.
type Reading struct {
	ID    string         `json:"id"`
	Kind  Kind           `json:"kind"`
	Side  frame.Side     `json:"side,omitzero"` // for plumb, level and square
	At    measure.Length `json:"at"`
	From  measure.Length `json:"from,omitzero"` // for plumb and level
	Value measure.Length `json:"value"`
}

// usual is the standard deviation of a reading by its kind, in millimetres:
// what careful work with an ordinary tape, level or square gives.
// Common practice.
var usual = map[Kind]float64{
	Width:  0.8,
	Height: 0.8,
	Plumb:  0.5,
	Level:  0.5,
	Square: 0.5,
}

// Sigma is the reading's standard deviation in millimetres.
func (r Reading) Sigma() float64 { return usual[r.Kind] }

// Name names the reading by what and where, for findings and reasons, in the
// unit of the job.
func (r Reading) Name(u measure.Unit) string {
	at, from := measure.Say(r.At, u), measure.Say(r.From, u)
	switch r.Kind {
	case Width:
		return fmt.Sprintf("width, %s up", at)
	case Height:
		return fmt.Sprintf("floor to head, %s from the hinge jamb", at)
	case Plumb:
		return fmt.Sprintf("plumb of the %v jamb, %s up against %s up", r.Side, at, from)
	case Level:
		what := "head"
		if r.Side == frame.Foot {
			what = "floor"
		}
		return fmt.Sprintf("level of the %s, %s along against %s along", what, at, from)
	case Square:
		return fmt.Sprintf("square in the %v corner of the head, blade %s", r.Side, at)
	}
	return string(r.Kind)
}

// rangeOf is what a reading of each kind can be on any real opening, in the
// unit of the reading itself.
var rangeOf = map[Kind]struct{ least, most measure.Length }{
	Width:  {300 * measure.Millimetre, 3 * measure.Metre},
	Height: {1200 * measure.Millimetre, 4 * measure.Metre},
	Plumb:  {-100 * measure.Millimetre, 100 * measure.Millimetre},
	Level:  {-100 * measure.Millimetre, 100 * measure.Millimetre},
	Square: {-60 * measure.Millimetre, 60 * measure.Millimetre},
}

// ReadingError says which part of a reading cannot be, and what to do.
type ReadingError struct {
	Reading Reading
	Field   string // "kind", "side", "at", "from" or "value"
	Problem string // a sentence
}

func (e *ReadingError) Error() string { return e.Problem }

// Check reports the first thing that cannot be in a reading taken by itself,
// as a *ReadingError worded in the unit of the job.
func (r Reading) Check(u measure.Unit) error {
	fail := func(field, format string, a ...any) error {
		for i, x := range a {
			if l, ok := x.(measure.Length); ok {
				a[i] = measure.Say(l, u)
			}
		}
		return &ReadingError{Reading: r, Field: field, Problem: fmt.Sprintf(format, a...)}
	}
	limits, ok := rangeOf[r.Kind]
	if !ok {
		return fail("kind", "There is no reading called %q: use width, height, plumb, level or square.", r.Kind)
	}
	switch {
	case r.Kind == Plumb && !r.Side.Upright():
		return fail("side", "Plumb is read on a jamb: choose hinge or lock.")
	case r.Kind == Level && r.Side.Upright():
		return fail("side", "Level is read on the head or the floor: choose head or foot.")
	case r.Kind == Square && !r.Side.Upright():
		return fail("side", "Square is read in a head corner: choose the hinge or the lock side.")
	}
	if r.Value < limits.least || r.Value > limits.most {
		return fail("value", "%v is no %s of a door opening (%v to %v): read it again, and look at the unit.",
			r.Value, nouns[r.Kind], limits.least, limits.most)
	}
	if r.At < 0 || r.At > rangeOf[Height].most {
		return fail("at", "%v is not a place in the opening: measure it from the floor or from the hinge jamb.", r.At)
	}
	switch r.Kind {
	case Plumb, Level:
		if r.From < 0 || r.From > rangeOf[Height].most {
			return fail("from", "%v is not a place in the opening: measure it from the floor or from the hinge jamb.", r.From)
		}
		if (r.At - r.From).Abs() < 50*measure.Millimetre {
			return fail("at", "The two places, %v and %v, are too close to tell a lean: take them further apart.", r.From, r.At)
		}
	case Square:
		if r.At < 100*measure.Millimetre || r.At > 1500*measure.Millimetre {
			return fail("at", "A square's blade is %v to %v long, not %v: give the blade's length.",
				100*measure.Millimetre, 1500*measure.Millimetre, r.At)
		}
	}
	return nil
}

var nouns = map[Kind]string{
	Width: "width", Height: "floor-to-head height", Plumb: "lean", Level: "fall", Square: "gap at a square",
}
