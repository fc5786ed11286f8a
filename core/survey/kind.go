package survey

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Kind is what a reading measures.
type Kind string

// The kinds of reading; KindOf has the properties of each. All values are lengths; signs and places are:
//
// - Width: lock jamb less hinge jamb, across, at height At.
//
// - Height: floor to head, at distance At from the hinge jamb.
//
// - Plumb, of jamb Side: how much further into the opening the jamb stands at height At than at height From (the upper
// leaning in is positive).
//
// - Level, of Head or Foot: how much higher it is at distance At from the hinge jamb than at From (rising toward the
// lock jamb is positive).
//
// - Straight, of any side: with a straightedge laid on it between From and To, the gap under it at At; negative where
// the side stands proud of the edge's ends.
//
// - Diagonal: from the foot of jamb Side to the head's far corner.
//
// - Gap, at Side of a slab offered up or hung: the gap between slab and side, At from the slab's foot or its hinge
// edge; Offer names the placing. Blocked is a gap through which nothing passes.
//
// - Square, in the head corner of jamb Side: with the stock of a square held to the jamb, the gap between blade and
// head at the blade's end, a distance At from the corner; negative is a gap in the corner itself.
const (
	Width    Kind = "width"
	Height   Kind = "height"
	Plumb    Kind = "plumb"
	Level    Kind = "level"
	Square   Kind = "square"
	Straight Kind = "straight"
	Diagonal Kind = "diagonal"
	Gap      Kind = "gap"
)

// Kinds lists the kinds, the commonest first.
var Kinds = func() (list []Kind) {
	for _, k := range kinds {
		list = append(list, k.Kind)
	}
	return list
}()

// Labelled is a label on an upright side, and on a level one; a kind that is read at no side has one of them.
type Labelled struct{ Up, Across message.ID }

// Valued is the message of a reading with its value.
type Valued Reading

// Example is an example of a value, in each unit.
type Example struct{ Millimetres, Inches string }

// KindOf is the properties of one kind of reading. The catalogue has more under the kind's ID: "kind." names it in a
// list, "noun." in a sentence, "asks." says what its value is.
type KindOf struct {
	Kind
	Sides []frame.Side // at which it can be read; empty for none
	// At, From and To label its places; empty where it has none.
	At, From, To Labelled
	Signed       bool // its value may be under nought
	Example      Example
	Least, Most  measure.Length
}

const (
	millimetre = measure.Millimetre
	metre      = measure.Metre
	inJamb     = message.ID("label.above-floor")
	inHead     = message.ID("label.from-hinge-jamb")
)

var (
	jambs = []frame.Side{frame.Hinge, frame.Lock}
	flats = []frame.Side{frame.Head, frame.Foot}
	every = []frame.Side{frame.Hinge, frame.Lock, frame.Head, frame.Foot}
)

var kinds = []KindOf{
	{
		Kind: Width,
		At:   Labelled{inJamb, ""}, Example: Example{"777.5", "30 5/8"}, Least: 300 * millimetre, Most: 3 * metre,
	},
	{
		Kind: Height,
		// a cupboard under the stairs
		At: Labelled{"", inHead}, Example: Example{"2032", "80 1/4"}, Least: 500 * millimetre, Most: 4 * metre,
	},
	{
		Kind:  Plumb,
		Sides: jambs, At: Labelled{"label.upper-place", ""}, From: Labelled{"label.lower-place", ""},
		Signed: true, Example: Example{"-1.5", "-1/16"}, Least: -100 * millimetre, Most: 100 * millimetre,
	},
	{
		Kind:  Level,
		Sides: flats, At: Labelled{"", inHead}, From: Labelled{"", "label.against-place"},
		Signed: true, Example: Example{"-1.5", "-1/16"}, Least: -100 * millimetre, Most: 100 * millimetre,
	},
	{
		Kind:  Square,
		Sides: jambs, At: Labelled{"label.blade", ""},
		Signed: true, Example: Example{"-1.5", "-1/16"}, Least: -60 * millimetre, Most: 60 * millimetre,
	},
	{
		Kind:   Straight,
		Sides:  every,
		At:     Labelled{"label.light-above-floor", "label.light-from-hinge-jamb"},
		From:   Labelled{"label.edge-above-floor", "label.edge-from-hinge-jamb"},
		To:     Labelled{"label.edge-to", "label.edge-to"},
		Signed: true, Example: Example{"-1.5", "-1/16"}, Least: -40 * millimetre, Most: 40 * millimetre,
	},
	{
		Kind:  Diagonal,
		Sides: jambs, Example: Example{"2190", "86 1/4"}, Least: 600 * millimetre, Most: 5 * metre,
	},
	{
		Kind:  Gap,
		Sides: every, At: Labelled{"label.up-slab", "label.across-slab"},
		// negative where the slab overlaps the side
		Signed: true, Example: Example{"3", "1/8"}, Least: -20 * millimetre, Most: 80 * millimetre,
	},
}

// KindsOf lists the properties of every kind.
func KindsOf() []KindOf { return kinds }

// Of is the properties of a kind; ok is false for an unknown one.
func (k Kind) Of() (known *KindOf, ok bool) {
	for i := range kinds {
		if kinds[i].Kind == k {
			return &kinds[i], true
		}
	}
	return nil, false
}

// sigma is the standard deviation of a kind with its usual instrument, in mm.
func (k Kind) sigma() float64 {
	return Kit(nil).Sigma(Reading{Kind: k})
}

// Title names the reading by what and where, for findings and reasons.
func (r Reading) Title() message.Message {
	id := "reading." + message.ID(r.Kind)
	if r.Kind == Gap && !r.Side.Upright() {
		id += "-across"
	}
	return message.Message{ID: id, Args: r.places()}
}

// How is one sentence on how a reading is taken.
func (r Reading) How() message.Message {
	return message.Message{ID: "how." + message.ID(r.Kind), Args: r.places()}
}

func (r Reading) places() message.Args {
	corner := message.End{Side: frame.Head}
	if r.Side == frame.Lock {
		corner.Place = 2
	}
	return message.Args{
		"at": message.Exact(r.At), "from": message.Exact(r.From), "to": message.Exact(r.To),
		"edge": message.Edge(r.Side), "wall": message.Wall(r.Side), "corner": corner,
	}
}
