package trade

import (
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Place is where work is done.
type Place string

// The places. Work with dust or noise is done outside where possible.
const (
	AtOpening  Place = "opening"
	AtTrestles Place = "trestles"
	Outside    Place = "outside"
)

// Places lists the places.
var Places = []Place{AtOpening, AtTrestles, Outside}

// Name is the name of the place.
func (p Place) Name() message.ID { return "work-place." + message.ID(p) }

// Work is a kind of work at an opening, with its minutes and needs.
type Work struct {
	ID      string
	Step    string // the step that its time is counted on
	Minutes float64
	Each    float64 // more for each hinge, edge or hardware that it is done to
	Place   Place
	Tool    string  // whose setting it shares with others; empty for none
	Lifts   bool    // the slab is lifted: by two where it is heavy and two are there
	Alone   float64 // more minutes for one who handles a heavy slab alone
	Dries   int     // minutes that what comes after it waits
	Some    bool    // only some openings have it: it does not count in how long a usual one takes
	Source  string
}

// Name is the work in a few words.
func (w Work) Name() message.ID { return "work." + message.ID(w.ID) }

const workGuess = "common practice; minutes are assumed"

// Works, in trade order.
var Works = []Work{
	{ID: "measure", Step: "measure", Minutes: 4, Each: 1, Place: AtOpening, Source: workGuess},
	{ID: "lie", Some: true, Step: "slab", Minutes: 5, Place: AtOpening, Lifts: true, Alone: 4, Source: workGuess},
	{ID: "frame", Some: true, Step: "measure", Minutes: 120, Place: AtTrestles, Tool: "saw", Source: workGuess},
	{ID: "set", Some: true, Step: "measure", Minutes: 60, Place: AtOpening, Lifts: true, Alone: 15, Source: workGuess},
	{ID: "fill", Some: true, Step: "hinges", Minutes: 6, Each: 4, Place: AtOpening, Tool: "filler", Dries: 60, Source: workGuess},
	{ID: "cut", Step: "cut", Minutes: 6, Each: 5, Place: Outside, Tool: "saw", Lifts: true, Alone: 5, Source: workGuess},
	{
		ID: "insert", Some: true, Step: "cut", Minutes: 10, Each: 10, Place: AtTrestles, Tool: "glue", Dries: TapeMinutes,
		Source: "common practice: 20 minutes to handle under tape, a night in clamps",
	},
	{ID: "seal", Step: "cut", Minutes: 8, Place: AtTrestles, Tool: "brush", Dries: 30, Source: workGuess},
	{ID: "pockets", Step: "hinges", Minutes: 3, Each: 7, Place: AtTrestles, Tool: "router", Source: workGuess},
	{ID: "bores", Step: "lock", Minutes: 8, Each: 14, Place: AtTrestles, Tool: "drill", Source: workGuess},
	{ID: "case", Some: true, Step: "lock", Minutes: 4, Each: 6, Place: AtOpening, Source: workGuess},
	{ID: "jamb", Step: "hinges", Minutes: 4, Each: 8, Place: AtOpening, Tool: "router", Source: workGuess},
	{ID: "hang", Step: "hinges", Minutes: 8, Each: 2, Place: AtOpening, Lifts: true, Alone: 8, Source: workGuess},
	{ID: "try", Step: "try", Minutes: 20, Place: AtOpening, Lifts: true, Alone: 6, Source: workGuess},
	{ID: "service", Some: true, Step: "try", Minutes: 30, Place: AtOpening, Source: workGuess},
	{ID: "strike", Step: "lock", Minutes: 4, Each: 10, Place: AtOpening, Tool: "bush", Source: workGuess},
	{ID: "stops", Step: "stops", Minutes: 18, Place: AtOpening, Source: workGuess},
	{ID: "coat", Some: true, Step: "log", Minutes: 14, Place: AtOpening, Tool: "brush", Dries: 240, Source: workGuess},
	{ID: "sign", Step: "log", Minutes: 4, Place: AtOpening, Source: workGuess},
}

// Lone is how one who is alone does it with a heavy slab.
func (w Work) Lone() message.ID { return "alone." + message.ID(w.ID) }

// WorkByID finds a work; ok is false for an unknown ID.
func WorkByID(id string) (w Work, ok bool) {
	for _, w := range Works {
		if w.ID == id {
			return w, true
		}
	}
	return Work{}, false
}

// Figures for planning a day. Assumed.
const (
	SetUpMinutes = 5       // to set a tool otherwise
	WalkMinutes  = 2       // from one place or opening to another
	ClampMinutes = 12 * 60 // in clamps: over night. Common practice.
	TapeMinutes  = 20      // under tape, to be handled. Common practice.
)

// Figures for making and setting a frame. Common practice; StopWide, FlushWithin, the least and the most are assumed.
const (
	Packing      = 6 * mm  // a side
	LeastPacking = 2 * mm  // a side: wedges still go in
	MostPacking  = 20 * mm // a side: past it, a board is nailed to the stud first
	StopWide     = 32 * mm
	StopThick    = 12 * mm
	BraceWide    = 45 * mm
	BraceThick   = 19 * mm
	SealWide     = 14 * mm // slot of a drop seal in the foot
	SealDeep     = 30 * mm
	SealWood     = 5 * mm     // over it
	FrameTold    = mm / 4     // by which a frame may be off before it is told
	RebateOff    = mm         // that a rebate may be deeper or shallower than the slab and its play
	FlushWithin  = 3 * mm / 2 // that a lining may stand proud of the wall's plaster: the casing covers it
)

// FrameWide is how much wider than its slab needs a frame may stand and still fit. Common practice.
const FrameWide = measure.Millimetre
