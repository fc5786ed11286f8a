package trade

import (
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Hardware is a latch, a lock, a bolt or a pull as it goes into a slab: its bores and cuts, all from one line squared
// round the lock edge at the latch's height. 0 is a part that it lacks.
type Hardware struct {
	ID       string           `json:"id"`
	Kind     string           `json:"kind"`               // ID of a HardwareKind
	Name     string           `json:"name"`               // of one's own
	Backsets []measure.Length `json:"backsets,omitempty"` // that it is made in, the usual first
	Holes    []Hole           `json:"holes,omitempty"`    // in the faces, in the order of boring
	Edge     Edge             `json:"edge,omitzero"`
	Case     Case             `json:"case,omitzero"`
	Plate    Plate            `json:"plate,omitzero"` // faceplate, in the slab's edge
	Strike   Strike           `json:"strike,omitzero"`
	Cuts     []CutTo          `json:"cuts,omitempty"`  // what is cut to the slab's thickness
	Screw    measure.Length   `json:"screw,omitempty"` // length of the screws that go into a face
	// "left" or "right" where it is made for hinges on that side; empty for either
	Handed string         `json:"handed,omitempty"`
	Turns  bool           `json:"turns,omitempty"` // its latch turns round for the other hand
	Above  measure.Length `json:"above,omitempty"` // of a second bolt: how far above the latch, by rule
	Source string         `json:"source,omitempty"`
}

// Hole is a bore square into a face.
type Hole struct {
	Part string         `json:"-"`             // ID of what goes through it, in AllHardware
	What string         `json:"what"`          // in words of one's own
	Off  measure.Length `json:"off,omitempty"` // from the lock edge; nought at the backset
	Up   measure.Length `json:"up,omitempty"`  // above the latch line; below nought under it
	Dia  measure.Length `json:"dia"`
	From Face           `json:"from"`
	Deep measure.Length `json:"deep,omitempty"` // nought right through
}

// Face is what a hole is bored from.
type Face string

// The faces.
const (
	FromBoth Face = "both" // to the middle, so that nothing breaks out
	FromPull Face = "pull"
	FromPush Face = "push"
)

// Edge is the cut in the lock edge, on the centre of its thickness: a bore, or a slot as long and wide as the case and
// its allowance.
type Edge struct {
	Bore measure.Length `json:"bore,omitempty"` // diameter; nought for a slot
	Long measure.Length `json:"long,omitempty"` // of a slot, down the edge
	Wide measure.Length `json:"wide,omitempty"`
	Deep measure.Length `json:"deep,omitempty"`
	Up   measure.Length `json:"up,omitempty"` // its middle above the latch line
}

// Case is the body in the edge.
type Case struct {
	High  measure.Length `json:"high,omitempty"`
	Deep  measure.Length `json:"deep,omitempty"` // into the edge, from its face
	Thick measure.Length `json:"thick,omitempty"`
	Lip   measure.Length `json:"lip,omitempty"` // of a surface lock's case, round the edge of the slab
}

// Plate is a plate that is let in flush.
type Plate struct {
	Long   measure.Length `json:"long,omitempty"`
	Wide   measure.Length `json:"wide,omitempty"`
	Thick  measure.Length `json:"thick,omitempty"`
	Radius measure.Length `json:"radius,omitempty"` // of its corners; half its width for round ends
	Up     measure.Length `json:"up,omitempty"`     // its middle above the latch line
}

// Strike is the plate in the lock jamb and the hole behind it.
type Strike struct {
	Plate Plate          `json:"plate,omitzero"`
	Bolt  measure.Length `json:"bolt,omitempty"` // diameter, or width, of the hole for the bolt
	Deep  measure.Length `json:"deep,omitempty"`
	Box   bool           `json:"box,omitempty"` // a box goes in behind it
	// Pressed is a receiver with no plate: it is pressed into its hole.
	Pressed bool `json:"pressed,omitempty"`
}

// CutTo is a part that is cut to the slab: a length plus its thickness.
type CutTo struct {
	Part string         `json:"-"`    // its ID, in AllHardware
	What string         `json:"what"` // in words of one's own
	Base measure.Length `json:"base"`
}

// Surface reports whether it is a lock that lies on the face of slab and jamb, with nothing bored in the edge.
func (d Hardware) Surface() bool { return d.Kind == surfaceKind }

const surfaceKind = "surface"

// Title is the hardware's name.
func (d Hardware) Title() message.Message { return title(d.Name, "hardware.", d.ID) }

// Title is the name of what goes through the hole.
func (h Hole) Title() message.Message { return title(h.What, "part.", h.Part) }

// Title is the part's name.
func (c CutTo) Title() message.Message { return title(c.What, "part.", c.Part) }

// title is a name of one's own, or one of this package's.
func title(own string, table message.ID, id string) message.Message {
	if own != "" {
		return message.Own(own)
	}
	return message.Message{ID: table + message.ID(id)}
}

// HardwareKind is a kind of hardware.
type HardwareKind struct {
	ID        string
	Fixed     bool // it goes on the leaf of a pair that is bolted
	Surface   bool // it lies on the face
	EdgeFirst bool // the edge is bored before the faces
	Spindle   bool // its handles turn a spindle, and are held on it by a screw
}

// Name is the name of the kind.
func (k HardwareKind) Name() message.ID { return "hardware-kind." + message.ID(k.ID) }

// Note is how it is fitted.
func (k HardwareKind) Note() message.ID { return "hardware-note." + message.ID(k.ID) }

// HardwareKinds of inner doors. Common practice, the order of boring too: a case wants its slot before its cross holes,
// a tubular latch its edge, a knob set its faces first.
var HardwareKinds = []HardwareKind{
	{ID: "latch", EdgeFirst: true},
	{ID: "knob"},
	{ID: "lever-plate", EdgeFirst: true, Spindle: true},
	{ID: "lever-rose", EdgeFirst: true, Spindle: true},
	{ID: "mortise", EdgeFirst: true, Spindle: true},
	{ID: "bathroom", EdgeFirst: true, Spindle: true},
	{ID: "bolt", EdgeFirst: true},
	{ID: "surface", Surface: true},
	{ID: "code", Surface: true, EdgeFirst: true},
	{ID: "flush-bolt", Fixed: true},
	{ID: "surface-bolt", Fixed: true, Surface: true},
	{ID: "catch"},
	{ID: "pull", Surface: true},
}

// HardwareKindByID finds a kind; ok is false for an unknown ID.
func HardwareKindByID(id string) (k HardwareKind, ok bool) {
	for _, k := range HardwareKinds {
		if k.ID == id {
			return k, true
		}
	}
	return HardwareKind{}, false
}

// AllHardware are common pieces with rounded measures: the one at hand, and its template, decide. Cross bore, edge
// bore, faceplate, backsets and lip strike of the knob set are those of BHMA A156.115, from memory; the others are
// common practice.
var AllHardware = []Hardware{
	{
		ID: "latch-22", Kind: "latch", Backsets: []measure.Length{60 * mm, 44 * mm, 57 * mm, 70 * mm},
		Holes: []Hole{{Part: "spindle", Dia: 22 * mm, From: FromBoth}},
		Edge:  Edge{Bore: 22 * mm, Deep: 78 * mm}, Case: Case{Deep: 76 * mm, High: 21 * mm, Thick: 21 * mm},
		Plate:  Plate{Long: 57 * mm, Wide: 25 * mm, Thick: 3 * mm},
		Strike: Strike{Plate: Plate{Long: 57 * mm, Wide: 25 * mm, Thick: 3 * mm / 2}, Bolt: 25 * mm, Deep: 12 * mm},
		Cuts:   []CutTo{{Part: "spindle", Base: 50 * mm}}, Turns: true, Source: CommonPractice,
	},
	{
		ID: "latch-snap", Kind: "latch", Backsets: []measure.Length{60 * mm, 70 * mm},
		Holes:  []Hole{{Part: "spindle", Dia: 22 * mm, From: FromBoth}},
		Edge:   Edge{Bore: 25 * mm, Deep: 78 * mm},
		Case:   Case{Deep: 76 * mm, High: 25 * mm, Thick: 25 * mm},
		Strike: Strike{Bolt: 25 * mm, Deep: 20 * mm, Pressed: true},
		Cuts:   []CutTo{{Part: "spindle", Base: 50 * mm}}, Turns: true, Source: CommonPractice,
	},
	{
		ID: "knob-54", Kind: "knob", Backsets: []measure.Length{19 * inch / 8, 11 * inch / 4},
		Holes: []Hole{{Part: "cross-bore", Dia: 17 * inch / 8, From: FromBoth}},
		Edge:  Edge{Bore: inch, Deep: 7 * inch / 2},
		Case:  Case{Deep: 27 * inch / 8, High: 7 * inch / 8, Thick: 7 * inch / 8},
		Plate: Plate{Long: 9 * inch / 4, Wide: inch, Thick: inch / 8, Radius: inch / 4}, Strike: Strike{
			Plate: Plate{Long: 9 * inch / 4, Wide: 13 * inch / 8, Thick: inch / 16, Radius: inch / 4}, Bolt: inch,
			Deep: inch / 2,
		},
		Turns: true, Source: FromMemory,
	},
	{
		ID: "lever-plate", Kind: "lever-plate", Backsets: []measure.Length{44 * mm, 57 * mm},
		Holes: []Hole{{Part: "spindle", Dia: 16 * mm, From: FromBoth}},
		Edge:  Edge{Bore: 22 * mm, Deep: 66 * mm}, Case: Case{Deep: 64 * mm, High: 21 * mm, Thick: 21 * mm},
		Plate:  Plate{Long: 57 * mm, Wide: 25 * mm, Thick: 3 * mm},
		Strike: Strike{Plate: Plate{Long: 57 * mm, Wide: 25 * mm, Thick: 3 * mm / 2}, Bolt: 25 * mm, Deep: 12 * mm},
		Cuts:   []CutTo{{Part: "spindle", Base: 60 * mm}}, Turns: true, Source: CommonPractice,
	},
	{
		ID: "lever-rose", Kind: "lever-rose", Backsets: []measure.Length{60 * mm, 44 * mm},
		Holes: []Hole{
			{Part: "spindle", Dia: 22 * mm, From: FromBoth}, {
				Part: "upper-bolt", Up: 19 * mm, Dia: 8 * mm, From: FromBoth,
			}, {Part: "lower-bolt", Up: -19 * mm, Dia: 8 * mm, From: FromBoth},
		},
		Edge: Edge{Bore: 22 * mm, Deep: 78 * mm}, Case: Case{Deep: 76 * mm, High: 22 * mm, Thick: 22 * mm},
		Plate: Plate{Long: 60 * mm, Wide: 26 * mm, Thick: 3 * mm, Radius: 13 * mm}, Strike: Strike{
			Plate: Plate{Long: 60 * mm, Wide: 26 * mm, Thick: 2 * mm, Radius: 13 * mm}, Bolt: 25 * mm, Deep: 12 * mm,
		},
		Cuts: []CutTo{{Part: "spindle", Base: 55 * mm}, {Part: "through-bolts", Base: -5 * mm}}, Turns: true,
		Source: CommonPractice,
	},
	{
		ID: "mortise-64", Kind: "mortise", Backsets: []measure.Length{44 * mm},
		Holes: []Hole{
			{Part: "spindle", Dia: 16 * mm, From: FromBoth},
			{Part: "keyhole", Up: -57 * mm, Dia: 10 * mm, From: FromBoth},
		},
		Edge:  Edge{Long: 90 * mm, Wide: 16 * mm, Deep: 66 * mm, Up: -28 * mm},
		Case:  Case{High: 80 * mm, Deep: 64 * mm, Thick: 14 * mm},
		Plate: Plate{Long: 150 * mm, Wide: 22 * mm, Thick: 3 * mm, Up: -28 * mm}, Strike: Strike{
			Plate: Plate{Long: 125 * mm, Wide: 22 * mm, Thick: 2 * mm, Up: -28 * mm}, Bolt: 16 * mm, Deep: 15 * mm,
			Box: true,
		},
		Cuts: []CutTo{{Part: "spindle", Base: 60 * mm}}, Turns: true, Source: CommonPractice,
	},
	{
		ID: "bathroom-64", Kind: "bathroom", Backsets: []measure.Length{44 * mm},
		Holes: []Hole{
			{Part: "spindle", Dia: 16 * mm, From: FromBoth},
			{Part: "turn-and-release", Up: -57 * mm, Dia: 12 * mm, From: FromBoth},
		},
		Edge:  Edge{Long: 90 * mm, Wide: 16 * mm, Deep: 66 * mm, Up: -28 * mm},
		Case:  Case{High: 80 * mm, Deep: 64 * mm, Thick: 14 * mm},
		Plate: Plate{Long: 150 * mm, Wide: 22 * mm, Thick: 3 * mm, Up: -28 * mm}, Strike: Strike{
			Plate: Plate{Long: 125 * mm, Wide: 22 * mm, Thick: 2 * mm, Up: -28 * mm}, Bolt: 16 * mm, Deep: 15 * mm,
			Box: true,
		},
		Cuts: []CutTo{{Part: "spindle", Base: 60 * mm}, {Part: "turn-spindle", Base: 30 * mm}}, Turns: true,
		Source: CommonPractice,
	},
	{
		ID: "bolt-60", Kind: "bolt", Backsets: []measure.Length{60 * mm, 70 * mm}, Above: 150 * mm,
		Holes: []Hole{{Part: "turn", Dia: 32 * mm, From: FromBoth}},
		Edge:  Edge{Bore: 24 * mm, Deep: 78 * mm}, Case: Case{Deep: 76 * mm, High: 22 * mm, Thick: 22 * mm},
		Plate: Plate{Long: 57 * mm, Wide: 25 * mm, Thick: 3 * mm}, Strike: Strike{
			Plate: Plate{Long: 57 * mm, Wide: 25 * mm, Thick: 2 * mm}, Bolt: 25 * mm, Deep: 25 * mm, Box: true,
		},
		Cuts: []CutTo{{Part: "tail-bar", Base: 15 * mm}, {Part: "through-bolts", Base: 5 * mm}}, Turns: true,
		Source: CommonPractice,
	},
	{
		ID: "surface-60", Kind: "surface", Backsets: []measure.Length{60 * mm, 40 * mm},
		Holes:  []Hole{{Part: "cylinder", Dia: 32 * mm, From: FromBoth}},
		Case:   Case{Lip: 8 * mm},
		Plate:  Plate{Long: 65 * mm, Wide: 20 * mm, Thick: 3 * mm},
		Strike: Strike{Plate: Plate{Long: 65 * mm, Wide: 25 * mm, Thick: 7 * mm / 2}},
		Cuts:   []CutTo{{Part: "tail-bar", Base: 15 * mm}, {Part: "cylinder-screws", Base: 10 * mm}},
		Screw:  25 * mm, Above: 400 * mm, Source: CommonPractice,
	},
	{
		ID: "code-6", Kind: "code", Backsets: []measure.Length{60 * mm, 70 * mm},
		Holes: []Hole{
			{Part: "spindle", Dia: 12 * mm, From: FromBoth},
			{Part: "upper-fixing", Up: 62 * mm, Dia: 10 * mm, From: FromBoth},
			{Part: "lower-fixing", Up: -62 * mm, Dia: 10 * mm, From: FromBoth},
			{Part: "code-chamber", Up: 30 * mm, Dia: 16 * mm, From: FromPull, Deep: 15 * mm},
		},
		Edge: Edge{Bore: 24 * mm, Deep: 78 * mm}, Case: Case{Deep: 76 * mm, High: 22 * mm, Thick: 22 * mm},
		Plate:  Plate{Long: 57 * mm, Wide: 25 * mm, Thick: 3 * mm},
		Strike: Strike{Plate: Plate{Long: 57 * mm, Wide: 25 * mm, Thick: 2 * mm}, Bolt: 25 * mm, Deep: 12 * mm},
		Cuts:   []CutTo{{Part: "spindle", Base: 20 * mm}, {Part: "fixing-bolts", Base: 5 * mm}}, Turns: true,
		Source: CommonPractice,
	},
	{
		ID: "flush-bolt-150", Kind: "flush-bolt",
		Edge:   Edge{Long: 150 * mm, Wide: 19 * mm, Deep: 15 * mm},
		Plate:  Plate{Long: 150 * mm, Wide: 19 * mm, Thick: 2 * mm},
		Strike: Strike{Plate: Plate{Long: 40 * mm, Wide: 19 * mm, Thick: 2 * mm}, Bolt: 12 * mm, Deep: 20 * mm},
		Source: CommonPractice,
	},
	{
		ID: "surface-bolt-150", Kind: "surface-bolt",
		Strike: Strike{Plate: Plate{Long: 30 * mm, Wide: 20 * mm, Thick: 2 * mm}, Bolt: 12 * mm, Deep: 20 * mm},
		Source: CommonPractice,
	},
	{
		ID: "flush-pull-50", Kind: "pull", Holes: []Hole{{Part: "cup", Dia: 50 * mm, From: FromPull, Deep: 12 * mm}},
		Backsets: []measure.Length{60 * mm}, Source: CommonPractice,
	},
	{
		ID: "ball-catch", Kind: "catch",
		Edge: Edge{Bore: 13 * mm, Deep: 32 * mm}, Case: Case{Deep: 30 * mm, High: 13 * mm, Thick: 13 * mm},
		Plate:  Plate{Long: 42 * mm, Wide: 18 * mm, Thick: 2 * mm},
		Strike: Strike{Plate: Plate{Long: 42 * mm, Wide: 18 * mm, Thick: 1 * mm}}, Source: CommonPractice,
	},
	{
		ID: "roller-catch", Kind: "catch",
		Edge:   Edge{Long: 36 * mm, Wide: 16 * mm, Deep: 34 * mm},
		Case:   Case{High: 26 * mm, Deep: 32 * mm, Thick: 15 * mm},
		Plate:  Plate{Long: 57 * mm, Wide: 22 * mm, Thick: 2 * mm},
		Strike: Strike{Plate: Plate{Long: 45 * mm, Wide: 22 * mm, Thick: 1 * mm}}, Source: CommonPractice,
	},
	{
		ID: "pull-dummy", Kind: "pull", Backsets: []measure.Length{60 * mm},
		Holes: []Hole{
			{Part: "upper-bolt", Up: 19 * mm, Dia: 8 * mm, From: FromBoth},
			{Part: "lower-bolt", Up: -19 * mm, Dia: 8 * mm, From: FromBoth},
		},
		Cuts: []CutTo{{Part: "through-bolts", Base: -5 * mm}}, Source: CommonPractice,
	},
}

// HardwareByID finds a piece of hardware; ok is false for an unknown ID.
func HardwareByID(id string) (d Hardware, ok bool) {
	for _, d := range AllHardware {
		if d.ID == id {
			return d, true
		}
	}
	return Hardware{}, false
}

// Bits that a carpenter usually has, mm and inches. Common practice.
var Bits = map[measure.Unit][]measure.Length{
	measure.Millimetres: {8 * mm, 10 * mm, 12 * mm, 16 * mm, 22 * mm, 24 * mm, 25 * mm, 32 * mm, 50 * mm, 54 * mm},
	measure.Inches: {
		inch / 4, 5 * inch / 16, 3 * inch / 8, inch / 2, 5 * inch / 8, 7 * inch / 8, inch, 5 * inch / 4, 17 * inch / 8,
	},
}

// WidestBit is the widest bit; above it a hole saw bores. Common practice.
const WidestBit = 32 * mm

// WidestBush is the widest guide bush of a router. Common practice: they are made up to about 40 mm.
const WidestBush = 60 * mm

// UsualRouter is a 12 mm cutter in a 16 mm bush. Common practice.
var UsualRouter = struct{ Bush, Cutter measure.Length }{16 * mm, 12 * mm}

// PencilHalf is half the width of a pencil's line: the tolerance of a centre that is marked from both faces. Common
// practice.
const PencilHalf = mm / 4

// Figures for boring and letting in. Common practice.
const (
	PilotDia = 3 * mm // right through, before any bit
	ThinWall = 5 * mm // beside a bore under which wood splits easily
	// LeastWall is that of the usual 1 in bore in a slab 1 3/8 in thick, 3/16 in (BHMA A156.115, from memory): as thin as
	// sets in use are.
	LeastWall   = 3 * inch / 16
	BitUnder    = mm / 2     // that a bit may be under a hole: a metric one for an inch set
	PlatePilot  = 2 * mm     // for the small screws of a faceplate or a keep
	LeastCover  = 3 * mm / 2 // of a faceplate past its bore, each side
	SlotEnds    = 5 * mm     // that a slot is longer than the case, at each end
	DeeperBy    = 2 * mm     // that a bore is deeper than the case
	Dowelled    = 12 * mm    // the widest old hole that a dowel fills
	HoleApart   = 4 * mm     // least wood between two holes
	StopPlay    = mm         // at the stops: a card
	MostCross   = 3 * mm     // that the stops alone take up where the jambs are not in one plane
	MostFiled   = 3 * mm / 2 // of a strike's opening; past it the strike is moved
	SecondAbove = 6 * inch   // a second bolt above the first
)

// ReachRule is a code's range of handle heights above the floor.
type ReachRule struct {
	ID          string
	Least, Most measure.Length
	Source      string
}

// Name is the name of the rule.
func (r ReachRule) Name() message.ID { return "reach." + message.ID(r.ID) }

// ReachRules are examples; the local code decides.
var ReachRules = []ReachRule{
	{"ada", 34 * inch, 48 * inch, "ADA Standards 2010, 404.2.7; ICC A117.1; from memory"},
	{"uk", 900 * mm, 1100 * mm, "Approved Document M, from memory"},
}

// ReachRuleByID finds a rule; ok is false for an unknown ID.
func ReachRuleByID(id string) (r ReachRule, ok bool) {
	for _, r := range ReachRules {
		if r.ID == id {
			return r, true
		}
	}
	return ReachRule{}, false
}
