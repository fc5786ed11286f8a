package survey

import (
	"unicode/utf8"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// Reading is one thing measured in the opening, as it was read.
type Reading struct {
	ID    string         `json:"id"`
	Kind  Kind           `json:"kind"`
	Side  frame.Side     `json:"side,omitzero"` // for plumb, level and square
	At    measure.Length `json:"at"`
	From  measure.Length `json:"from,omitzero"` // for plumb, level and straight
	To    measure.Length `json:"to,omitzero"`   // for straight
	Value measure.Length `json:"value"`

	Offer   string `json:"offer,omitempty"`  // for a gap: the ID of an Offer
	Blocked bool   `json:"blocked,omitzero"` // for a gap: the thinnest packer will not enter
	// PlusMinus is how sure the reading is where that is not as usual: 19 times in 20 the
	// truth lies inside (two standard deviations). OneSigma is that as files before
	// version 2 kept it, one standard deviation; see Normalise.
	PlusMinus measure.Length `json:"plusMinus,omitzero"`
	OneSigma  measure.Length `json:"sure,omitzero"`
	Tool      string         `json:"tool,omitempty"`   // ID of the tool in the job's kit; empty for the usual one of its kind
	Turned    bool           `json:"turned,omitzero"`  // for plumb and level: with the level turned end for end, so that its error is the other way round
	Struck    string         `json:"struck,omitempty"` // why it was struck out; kept, but not used
	Sight     string         `json:"sight,omitempty"`  // for a gap beside a hung slab: ID of a trade.Sight that was seen instead of a figure
}

// seen is the value that a reading is taken for, in mm.
func (r Reading) seen() float64 {
	if s, ok := trade.SightByID(r.Sight); ok {
		return s.Gap.MM()
	}
	return r.Value.MM()
}

// Offer is one placing of a slab in the opening: a slab stood on wedges, or
// the old door as it hung. Where it stood, and how it leaned, is unknown; all
// gaps read in one placing share that.
type Offer struct {
	ID     string         `json:"id"`
	Name   string         `json:"name"`
	Width  measure.Length `json:"width"`        // at its head
	Length measure.Length `json:"length"`       // on its hinge edge
	Old    bool           `json:"old,omitzero"` // the old door, as it hung; else the slab that is to be cut

	// What else was measured of it; nought or nil where it was not.
	WidthMid   measure.Length  `json:"widthMid,omitzero"`
	WidthFoot  measure.Length  `json:"widthFoot,omitzero"`
	LengthLock measure.Length  `json:"lengthLock,omitzero"` // on its lock edge
	Square     *measure.Length `json:"square,omitempty"`    // the head's lock corner above square to the hinge edge
}

// tallest is the furthest place that a reading is taken at.
const tallest = 4 * metre

// Reach is how far from the hinge jamb, and how far up, a reading was taken.
func (r Reading) Reach() (across, up measure.Length) {
	at := max(r.At, r.From)
	switch r.Kind {
	case Height, Level:
		return at, 0
	case Square:
		return at, at
	case Diagonal:
		return 0, 0
	case Straight, Gap:
		at = max(r.At, r.To)
		if !r.Side.Upright() {
			return at, 0
		}
	}
	return 0, at
}

// Check reports the first thing that cannot be in a reading taken by itself,
// as a field.Error worded in the unit of the job.
func (r Reading) Check(u measure.Unit) error {
	fail := faultIn(u)
	known, ok := r.Kind.Of()
	if !ok {
		return fail("kind", "There is no reading called %.40q: use width, height, plumb, level, square, straight, diagonal or gap.", r.Kind)
	}
	switch {
	case r.Kind == Plumb && !r.Side.Upright():
		return fail("side", "Plumb is read on a jamb: choose hinge or lock.")
	case r.Kind == Level && r.Side.Upright():
		return fail("side", "Level is read on the head or the floor: choose head or foot.")
	case r.Kind == Square && !r.Side.Upright():
		return fail("side", "Square is read in a head corner: choose the hinge or the lock side.")
	}
	switch {
	case r.Kind == Diagonal && !r.Side.Upright():
		return fail("side", "A diagonal starts at the foot of a jamb: choose hinge or lock.")
	case (r.Kind == Straight || r.Kind == Gap) && r.Side == frame.NoSide:
		return fail("side", "Say at which side it was read: head, hinge, lock or foot.")
	case r.Kind == Gap && r.Offer == "":
		return fail("offer", "Say which placing of the slab the gap was read in.")
	case r.Turned && r.Kind != Plumb && r.Kind != Level:
		return fail("turned", "Only a level is turned end for end.")
	case r.PlusMinus < 0 || r.PlusMinus > 100*measure.Millimetre:
		return fail("plusMinus", "A reading is sure to something between nothing and %v, not %v.", 100*measure.Millimetre, r.PlusMinus)
	case utf8.RuneCountInString(r.Struck) > 200:
		return fail("struck", "Keep the reason under 200 letters.")
	}
	if r.Value < known.Least || r.Value > known.Most {
		return fail("value", "%v is no %s of a door opening (%v to %v): read it again, and look at the unit.",
			r.Value, known.Noun, known.Least, known.Most)
	}
	return r.checkPlaces(fail)
}

// faultIn words a fault with its lengths in a unit.
func faultIn(u measure.Unit) func(at, format string, a ...any) error {
	return func(at, format string, a ...any) error {
		for i, x := range a {
			if l, ok := x.(measure.Length); ok {
				a[i] = measure.Say(l, u)
			}
		}
		return field.Fault("/"+at, format, a...)
	}
}

// checkPlaces reports the first place of the reading that cannot be.
func (r Reading) checkPlaces(fail func(at, format string, a ...any) error) error {
	if r.At < 0 || r.At > tallest {
		return fail("at", "%v is not a place in the opening: measure it from the floor or from the hinge jamb.", r.At)
	}
	switch r.Kind {
	case Plumb, Level:
		if r.From < 0 || r.From > tallest {
			return fail("from", "%v is not a place in the opening: measure it from the floor or from the hinge jamb.", r.From)
		}
		if (r.At - r.From).Abs() < 50*measure.Millimetre {
			return fail("at", "The two places, %v and %v, are too close to tell a lean: take them further apart.", r.From, r.At)
		}
	case Straight:
		if r.From < 0 || r.To > tallest || r.To-r.From < 200*measure.Millimetre {
			return fail("to", "The straightedge lies between two places at least %v apart, not from %v to %v.", 200*measure.Millimetre, r.From, r.To)
		}
		if r.At <= r.From || r.At >= r.To {
			return fail("at", "The light is read between the ends of the straightedge, %v and %v, not at %v.", r.From, r.To, r.At)
		}
	case Square:
		if r.At < 100*measure.Millimetre || r.At > 1500*measure.Millimetre {
			return fail("at", "A square's blade is %v to %v long, not %v: give the blade's length.",
				100*measure.Millimetre, 1500*measure.Millimetre, r.At)
		}
	}
	return nil
}
