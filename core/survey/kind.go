package survey

import (
	"strings"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// Kind is what a reading measures.
type Kind string

// The kinds of reading; KindOf has what is known of each. All values are lengths;
// signs and places are:
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
	Width    Kind = "width"
	Height   Kind = "height"
	Plumb    Kind = "plumb"
	Level    Kind = "level"
	Square   Kind = "square"
	Straight Kind = "straight"
	Diagonal Kind = "diagonal"
	Gap      Kind = "gap"
)

// Kinds lists them, the commonest first.
var Kinds = func() (list []Kind) {
	for _, k := range kinds {
		list = append(list, k.Kind)
	}
	return list
}()

// Labelled is a label on an upright side, and on a level one; a kind that is read
// at no side has one of them.
type Labelled struct{ Up, Across string }

// of picks the label for a side.
func (l Labelled) of(side frame.Side) string {
	if side.Upright() || l.Across == "" {
		return l.Up
	}
	return l.Across
}

// Valued is a reading that is said with its value.
type Valued Reading

// Example is a value as it could be typed, in each unit.
type Example struct{ Millimetres, Inches string }

// KindOf is what is known of one kind of reading.
type KindOf struct {
	Kind
	Name  string       // in a list of kinds
	Noun  string       // in a sentence: "is no … of a door opening"
	Title Labelled     // of a reading, its places in braces
	How   string       // how it is taken, its places in braces
	Asks  string       // what its value is, beside an entry
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
	inJamb     = "Height above the floor"
	inHead     = "Distance from the hinge jamb"
)

var (
	jambs = []frame.Side{frame.Hinge, frame.Lock}
	flats = []frame.Side{frame.Head, frame.Foot}
	every = []frame.Side{frame.Hinge, frame.Lock, frame.Head, frame.Foot}
)

var kinds = []KindOf{
	{
		Kind: Width, Name: "Width", Noun: "width", Title: Labelled{"width, {at} up", ""},
		How: "Across, jamb face to jamb face.", Asks: "Jamb face to jamb face",
		At: Labelled{inJamb, ""}, Example: Example{"777.5", "30 5/8"}, Least: 300 * millimetre, Most: 3 * metre,
	},
	{
		Kind: Height, Name: "Floor to head", Noun: "floor-to-head height", Title: Labelled{"floor to head, {at} from the hinge jamb", ""},
		How: "Up, floor to head.", Asks: "Floor to head",
		At: Labelled{"", inHead}, Example: Example{"2032", "80 1/4"}, Least: 500 * millimetre, Most: 4 * metre, // a cupboard under the stairs
	},
	{
		Kind: Plumb, Name: "Plumb of a jamb", Noun: "lean", Title: Labelled{"plumb of the {side}, {at} up against {from} up", ""},
		How:   "Long level on the jamb: how far further in does it stand at the upper place? Out is minus.",
		Asks:  "How far further into the opening it stands at the upper place; out is minus",
		Sides: jambs, At: Labelled{"Upper place, above the floor", ""}, From: Labelled{"Against the lower place, above the floor", ""},
		Signed: true, Example: Example{"-1.5", "-1/16"}, Least: -100 * millimetre, Most: 100 * millimetre,
	},
	{
		Kind: Level, Name: "Level of head or floor", Noun: "fall", Title: Labelled{"", "level of the {side}, {at} along against {from} along"},
		How:   "Level from end to end: how much higher is the lock side? Lower is minus.",
		Asks:  "How much higher it is there; lower is minus",
		Sides: flats, At: Labelled{"", inHead}, From: Labelled{"", "Against the place, from the hinge jamb"},
		Signed: true, Example: Example{"-1.5", "-1/16"}, Least: -100 * millimetre, Most: 100 * millimetre,
	},
	{
		Kind: Square, Name: "Square in a head corner", Noun: "gap at a square", Title: Labelled{"square in the {edge} corner of the head, blade {at}", ""},
		How:   "Stock on the jamb, blade along the head: the light at the blade's end. Light in the corner is minus.",
		Asks:  "Light at the blade's end; light in the corner is minus",
		Sides: jambs, At: Labelled{"Length of the blade", ""},
		Signed: true, Example: Example{"-1.5", "-1/16"}, Least: -60 * millimetre, Most: 60 * millimetre,
	},
	{
		Kind: Straight, Name: "Straight: light under a straightedge", Noun: "light under a straightedge",
		Title: Labelled{"straightness of the {side} at {at}, edge from {from} to {to}", ""},
		How:   "Straightedge on it from {from} to {to}: the light under it. Where it rocks on the middle, minus.",
		Asks:  "Light under the straightedge; where it rocks on the middle, minus",
		Sides: every,
		At:    Labelled{"Where the light is read, above the floor", "Where the light is read, from the hinge jamb"},
		From:  Labelled{"Straightedge from, above the floor", "Straightedge from, from the hinge jamb"}, To: Labelled{"to", "to"},
		Signed: true, Example: Example{"-1.5", "-1/16"}, Least: -40 * millimetre, Most: 40 * millimetre,
	},
	{
		Kind: Diagonal, Name: "Diagonal", Noun: "diagonal", Title: Labelled{"diagonal from the foot of the {side}", ""},
		How: "From this foot to the head's far corner.", Asks: "To the head's far corner",
		Sides: jambs, Example: Example{"2190", "86 1/4"}, Least: 600 * millimetre, Most: 5 * metre,
	},
	{
		Kind: Gap, Name: "Gap beside a slab offered up, or the old door", Noun: "gap beside a slab",
		Title: Labelled{"gap at the {edge} edge, {at} up the slab", "gap at the {edge}, {at} from the slab's hinge edge"},
		How:   "Packers between slab and side until one just passes.", Asks: "The packer that just passes",
		Sides: every, At: Labelled{"Up the slab, from its foot", "From the slab's hinge edge"},
		Signed: true, Example: Example{"3", "1/8"}, Least: -20 * millimetre, Most: 80 * millimetre, // minus where the slab overlaps the side
	},
}

// KindsOf lists what is known of every kind.
func KindsOf() []KindOf { return kinds }

// Of is what is known of a kind; ok is false where there is none of that name.
func (k Kind) Of() (known *KindOf, ok bool) {
	for i := range kinds {
		if kinds[i].Kind == k {
			return &kinds[i], true
		}
	}
	return nil, false
}

// sigma is the standard deviation of a kind with its usual instrument, mm.
func (k Kind) sigma() float64 {
	return Kit(nil).Sigma(Reading{Kind: k})
}

// Title names the reading by what and where, for findings and reasons, in the
// unit of the job.
func (r Reading) Title(u measure.Unit) string {
	known, ok := r.Kind.Of()
	if !ok {
		return string(r.Kind)
	}
	return r.fill(known.Title.of(r.Side), u)
}

// How says how a reading is taken, in a sentence.
func (r Reading) How(u measure.Unit) string {
	known, ok := r.Kind.Of()
	if !ok {
		return ""
	}
	return r.fill(known.How, u)
}

func (r Reading) fill(text string, u measure.Unit) string {
	for _, place := range [...]struct {
		name string
		at   measure.Length
	}{{"{at}", r.At}, {"{from}", r.From}, {"{to}", r.To}} {
		if strings.Contains(text, place.name) {
			text = strings.ReplaceAll(text, place.name, measure.Say(place.at, u))
		}
	}
	text = strings.ReplaceAll(text, "{edge}", r.Side.String())
	return strings.ReplaceAll(text, "{side}", r.Side.Wall())
}
