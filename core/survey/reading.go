package survey

import (
	"unicode/utf8"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Reading is one measurement of the opening, as it was read.
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
	// PlusMinus is the reading's accuracy where it is not the instrument's: figure.Coverage standard deviations.
	// OneSigma is the same in files before version 2, as one standard deviation; see Normalise.
	PlusMinus measure.Length `json:"plusMinus,omitzero"`
	OneSigma  measure.Length `json:"sure,omitzero"`
	// ID of the tool in the job's kit; empty for the usual one of its kind
	Tool string `json:"tool,omitempty"`
	// for plumb and level: with the level turned end for end, so that its error has the other sign
	Turned bool   `json:"turned,omitzero"`
	Struck string `json:"struck,omitempty"` // why it was struck out; kept, but not used
	// for a gap beside a hung slab: ID of a trade.Sight that was seen instead of a figure
	Sight string `json:"sight,omitempty"`
	// for a gap beside a hung slab: a lump or a hollow is there, a hand's breadth long
	Local bool `json:"local,omitzero"`
}

// seen is the value by which a reading enters the estimate, in mm.
func (r Reading) seen() float64 {
	if s, ok := trade.SightByID(r.Sight); ok {
		return s.Gap.MM()
	}
	return r.Value.MM()
}

// Offer is one placing of a slab in the opening: on wedges, or the old door as it hung. Its place and lean are unknown,
// and shared by all gaps that are read in one placing.
type Offer struct {
	ID     string         `json:"id"`
	Name   string         `json:"name"`
	Width  measure.Length `json:"width"`        // at its head
	Length measure.Length `json:"length"`       // on its hinge edge
	Old    bool           `json:"old,omitzero"` // the old door, as it hung; else the slab that is to be cut

	// Its other measurements; 0 or nil where they were not taken.
	WidthMid   measure.Length  `json:"widthMid,omitzero"`
	WidthFoot  measure.Length  `json:"widthFoot,omitzero"`
	LengthLock measure.Length  `json:"lengthLock,omitzero"` // on its lock edge
	Square     *measure.Length `json:"square,omitempty"`    // the head's lock corner above square to the hinge edge
}

// tallest is the furthest place of a reading.
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

// Check reports the first invalid field of a reading by itself, as a field.Error.
func (r Reading) Check() error {
	fail := func(at string, id message.ID, args message.Args) error { return field.Fault("/"+at, id, args) }
	known, ok := r.Kind.Of()
	if !ok {
		return fail("kind", "refused.no-reading-kind", message.Args{"given": message.Quote(r.Kind)})
	}
	switch {
	case r.Kind == Plumb && !r.Side.Upright():
		return fail("side", "refused.plumb-side", nil)
	case r.Kind == Level && r.Side.Upright():
		return fail("side", "refused.level-side", nil)
	case r.Kind == Square && !r.Side.Upright():
		return fail("side", "refused.square-side", nil)
	}
	switch {
	case r.Kind == Diagonal && !r.Side.Upright():
		return fail("side", "refused.diagonal-side", nil)
	case (r.Kind == Straight || r.Kind == Gap) && r.Side == frame.NoSide:
		return fail("side", "refused.reading-side", nil)
	case r.Kind == Gap && r.Offer == "":
		return fail("offer", "refused.gap-placing", nil)
	case r.Turned && r.Kind != Plumb && r.Kind != Level:
		return fail("turned", "refused.turned", nil)
	case r.PlusMinus < 0 || r.PlusMinus > 100*measure.Millimetre:
		return fail("plusMinus", "refused.reading-sure", message.Args{
			"most": message.Exact(100 * measure.Millimetre), "given": message.Exact(r.PlusMinus),
		})
	case utf8.RuneCountInString(r.Struck) > 200:
		return fail("struck", "refused.struck-why", nil)
	}
	if r.Value < known.Least || r.Value > known.Most {
		return fail("value", "refused.reading-value", message.Args{
			"value": message.Exact(r.Value), "what": message.ID("noun." + r.Kind), "least": message.Exact(known.Least),
			"most": message.Exact(known.Most),
		})
	}
	return r.checkPlaces(fail)
}

// failing is a fault at a field of a reading.
type failing func(at string, id message.ID, args message.Args) error

// checkPlaces reports the first invalid place of the reading.
func (r Reading) checkPlaces(fail failing) error {
	if r.At < 0 || r.At > tallest {
		return fail("at", "refused.reading-place", message.Args{"value": message.Exact(r.At)})
	}
	switch r.Kind {
	case Plumb, Level:
		if r.From < 0 || r.From > tallest {
			return fail("from", "refused.reading-place", message.Args{"value": message.Exact(r.From)})
		}
		if (r.At - r.From).Abs() < 50*measure.Millimetre {
			return fail("at", "refused.places-close", message.Args{
				"from": message.Exact(r.From), "at": message.Exact(r.At),
			})
		}
	case Straight:
		if r.From < 0 || r.To > tallest || r.To-r.From < 200*measure.Millimetre {
			return fail("to", "refused.straightedge-ends", message.Args{
				"least": message.Exact(200 * measure.Millimetre), "from": message.Exact(r.From),
				"to": message.Exact(r.To),
			})
		}
		if r.At <= r.From || r.At >= r.To {
			return fail("at", "refused.straightedge-at", message.Args{
				"from": message.Exact(r.From), "to": message.Exact(r.To), "at": message.Exact(r.At),
			})
		}
	case Square:
		if r.At < 100*measure.Millimetre || r.At > 1500*measure.Millimetre {
			return fail("at", "refused.blade", message.Args{
				"least": message.Exact(100 * measure.Millimetre), "most": message.Exact(1500 * measure.Millimetre),
				"given": message.Exact(r.At),
			})
		}
	}
	return nil
}
