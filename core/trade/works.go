package trade

import "kindmargin/core/message"

// Place is where work is done.
type Place string

// The places. What makes dust or noise is done outside where there is a way.
const (
	AtOpening  Place = "opening"
	AtTrestles Place = "trestles"
	Outside    Place = "outside"
)

// Places lists them.
var Places = []Place{AtOpening, AtTrestles, Outside}

// Name says where it is.
func (p Place) Name() message.ID { return "work-place." + message.ID(p) }

// Work is a kind of work at a door, and what it takes.
type Work struct {
	ID      string
	Step    string // the step that its time is counted on
	Minutes float64
	Each    float64 // more for each hinge, edge or device that it is done to
	Place   Place
	Tool    string // whose setting it shares with others; empty for none
	Lifts   bool   // the slab is lifted: by two where it is heavy
	Dries   int    // minutes that what comes after it waits
	Source  string
}

// Name is what is done, in a few words.
func (w Work) Name() message.ID { return "work." + message.ID(w.ID) }

const workGuess = "common practice; minutes are assumed"

// Works, in trade order.
var Works = []Work{
	{"measure", "measure", 4, 1, AtOpening, "", false, 0, workGuess},
	{"lie", "slab", 5, 0, AtOpening, "", true, 0, workGuess},
	{"fill", "hinges", 6, 4, AtOpening, "filler", false, 60, workGuess},
	{"cut", "cut", 6, 5, Outside, "saw", true, 0, workGuess},
	{"insert", "cut", 10, 10, AtTrestles, "glue", false, 20, "common practice: 20 minutes to handle under tape, a night in clamps"},
	{"seal", "cut", 8, 0, AtTrestles, "brush", false, 30, workGuess},
	{"pockets", "hinges", 3, 7, AtTrestles, "router", false, 0, workGuess},
	{"bores", "lock", 8, 14, AtTrestles, "drill", false, 0, workGuess},
	{"jamb", "hinges", 4, 8, AtOpening, "router", false, 0, workGuess},
	{"hang", "hinges", 8, 2, AtOpening, "", true, 0, workGuess},
	{"try", "try", 20, 0, AtOpening, "", true, 0, workGuess},
	{"strike", "lock", 4, 10, AtOpening, "bush", false, 0, workGuess},
	{"stops", "stops", 18, 0, AtOpening, "", false, 0, workGuess},
	{"coat", "log", 14, 0, AtOpening, "brush", false, 240, workGuess},
	{"sign", "log", 4, 0, AtOpening, "", false, 0, workGuess},
}

// WorkByID finds a work; ok is false where there is none of that name.
func WorkByID(id string) (w Work, ok bool) {
	for _, w := range Works {
		if w.ID == id {
			return w, true
		}
	}
	return Work{}, false
}

// What a day is planned with. Assumed.
const (
	SetUpMinutes = 5       // to set a tool otherwise
	WalkMinutes  = 2       // from one place or door to another
	ClampMinutes = 12 * 60 // in clamps: over night. Common practice.
)

// What a frame is made and set with. Common practice; StopWide, FlushWithin, the least and the most
// are assumed.
const (
	Packing      = 6 * mm  // a side
	LeastPacking = 2 * mm  // a side: wedges still go in
	MostPacking  = 20 * mm // a side: past it, a board is nailed to the stud first
	StopWide     = 32 * mm
	StopThick    = 12 * mm
	BraceWide    = 45 * mm
	BraceThick   = 19 * mm
	FlushWithin  = 3 * mm / 2 // that a lining may stand proud of the wall's plaster: the casing covers it
)
