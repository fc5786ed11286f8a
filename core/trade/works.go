package trade

// Place is where work is done.
type Place string

// The places. What makes dust or noise is done outside where there is a way.
const (
	AtOpening  Place = "opening"
	AtTrestles Place = "trestles"
	Outside    Place = "outside"
)

// PlaceOf is a place in words.
type PlaceOf struct {
	ID   Place
	Name string
}

// Places lists them.
var Places = []PlaceOf{{AtOpening, "at the opening"}, {AtTrestles, "at the trestles"}, {Outside, "outside"}}

// Work is a kind of work at a door, and what it takes.
type Work struct {
	ID      string
	Name    string // what is done, in a few words
	Step    string // the step that its time is counted on
	Minutes float64
	Each    float64 // more for each hinge, edge or device that it is done to
	Place   Place
	Tool    string // whose setting it shares with others; empty for none
	Lifts   bool   // the slab is lifted: by two where it is heavy
	Dries   int    // minutes that what comes after it waits
	Source  string
}

const workGuess = "common practice; minutes are assumed"

// Works, in trade order.
var Works = []Work{
	{"measure", "Measure the opening", "measure", 4, 1, AtOpening, "", false, 0, workGuess},
	{"lie", "Lay the slab in its room on battens", "slab", 5, 0, AtOpening, "", true, 0, workGuess},
	{"fill", "Patch and fill the old pockets", "hinges", 6, 4, AtOpening, "filler", false, 60, workGuess},
	{"cut", "Cut and plane the edges", "cut", 6, 5, Outside, "saw", true, 0, workGuess},
	{"insert", "Glue the insert in", "cut", 10, 10, AtTrestles, "glue", false, 20, "common practice: 20 minutes to handle under tape, a night in clamps"},
	{"seal", "Ease the arrises, seal the cut edges", "cut", 8, 0, AtTrestles, "brush", false, 30, workGuess},
	{"pockets", "Cut the slab's hinge pockets", "hinges", 3, 7, AtTrestles, "router", false, 0, workGuess},
	{"bores", "Bore for the lock and let in its faceplate", "lock", 8, 14, AtTrestles, "drill", false, 0, workGuess},
	{"jamb", "Cut the jamb's hinge pockets", "hinges", 4, 8, AtOpening, "router", false, 0, workGuess},
	{"hang", "Hang it on its trial screws", "hinges", 8, 2, AtOpening, "", true, 0, workGuess},
	{"try", "Read the gaps, bring them in", "try", 20, 0, AtOpening, "", true, 0, workGuess},
	{"strike", "Let the strike in", "lock", 4, 10, AtOpening, "bush", false, 0, workGuess},
	{"stops", "Move the stops up, drive all the screws", "stops", 18, 0, AtOpening, "", false, 0, workGuess},
	{"coat", "Coat of paint", "log", 14, 0, AtOpening, "brush", false, 240, workGuess},
	{"sign", "Look it over, sign it off", "log", 4, 0, AtOpening, "", false, 0, workGuess},
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
