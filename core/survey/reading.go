package survey

import (
	"fmt"
	"unicode/utf8"

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
//   - Straight, of any side: with a straightedge laid on it between From and
//     To, the light under it at At; where the side stands proud of the edge's
//     ends the light is negative.
//   - Diagonal: from the foot of jamb Side to the head's far corner.
//   - Gap, at Side of a slab offered up or hung: the light between slab and
//     side, At from the slab's foot or its hinge edge; Offer names the placing.
//     Blocked is a gap through which nothing passes.
//   - Square, in the head corner of jamb Side: with the stock of a square
//     held to the jamb, the light between blade and head at the blade's end,
//     a distance At from the corner; light in the corner itself is negative.
const (
	Width  Kind = "width"
	Height Kind = "height"
	Plumb  Kind = "plumb"
	Level  Kind = "level"
	Square Kind = "square"

	Straight Kind = "straight"
	Diagonal Kind = "diagonal"
	Gap      Kind = "gap"
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

	Offer   string         `json:"offer,omitempty"`  // for a gap: the ID of an Offer
	Blocked bool           `json:"blocked,omitzero"` // for a gap: the thinnest packer will not enter
	Sure    measure.Length `json:"sure,omitzero"`    // standard deviation, where it is not the usual one
	Struck  string         `json:"struck,omitempty"` // why it was struck out; kept, but not used
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

// usual is the standard deviation of a reading by its kind, in millimetres:
// what careful work with an ordinary tape, level or square gives.
// Common practice.
var usual = map[Kind]float64{
	Width:  0.8,
	Height: 0.8,
	Plumb:  0.5,
	Level:  0.5,
	Square: 0.5,

	Straight: 0.3,
	Diagonal: 1.2,
	Gap:      0.3,
}

// Sigma is the reading's standard deviation in millimetres. That nothing
// passes says less than a packer that does.
func (r Reading) Sigma() float64 {
	switch {
	case r.Sure > 0:
		return r.Sure.MM()
	case r.Blocked:
		return 2 * usual[Gap]
	}
	return usual[r.Kind]
}

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
		return fmt.Sprintf("level of the %s, %s along against %s along", sideName(r.Side), at, from)
	case Square:
		return fmt.Sprintf("square in the %v corner of the head, blade %s", r.Side, at)
	}
	switch r.Kind {
	case Straight:
		return fmt.Sprintf("straightness of the %s at %s, edge from %s to %s", sideName(r.Side), at, from, measure.Say(r.To, u))
	case Diagonal:
		return fmt.Sprintf("diagonal from the foot of the %v jamb", r.Side)
	case Gap:
		if r.Side.Upright() {
			return fmt.Sprintf("gap at the %v edge, %s up the slab", r.Side, at)
		}
		return fmt.Sprintf("gap at the %v, %s from the slab's hinge edge", r.Side, at)
	}
	return string(r.Kind)
}

func sideName(s frame.Side) string {
	switch s {
	case frame.Head:
		return "head"
	case frame.Foot:
		return "floor"
	}
	return s.String() + " jamb"
}

// rangeOf is what a reading of each kind can be on any real opening, in the
// unit of the reading itself.
var rangeOf = map[Kind]struct{ least, most measure.Length }{
	Width:  {300 * measure.Millimetre, 3 * measure.Metre},
	Height: {500 * measure.Millimetre, 4 * measure.Metre}, // a cupboard under the stairs
	Plumb:  {-100 * measure.Millimetre, 100 * measure.Millimetre},
	Level:  {-100 * measure.Millimetre, 100 * measure.Millimetre},
	Square: {-60 * measure.Millimetre, 60 * measure.Millimetre},

	Straight: {-40 * measure.Millimetre, 40 * measure.Millimetre},
	Diagonal: {600 * measure.Millimetre, 5 * measure.Metre},
	Gap:      {0, 80 * measure.Millimetre},
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
	case r.Sure < 0 || r.Sure > 50*measure.Millimetre:
		return fail("sure", "A reading is sure to something between nothing and %v, not %v.", 50*measure.Millimetre, r.Sure)
	case utf8.RuneCountInString(r.Struck) > 200:
		return fail("struck", "Keep the reason under 200 letters.")
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
	case Straight:
		if r.From < 0 || r.To > rangeOf[Height].most || r.To-r.From < 200*measure.Millimetre {
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

var nouns = map[Kind]string{
	Width: "width", Height: "floor-to-head height", Plumb: "lean", Level: "fall", Square: "gap at a square",
	Straight: "light under a straightedge", Diagonal: "diagonal", Gap: "gap beside a slab",
}
