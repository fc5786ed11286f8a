package trade

import "math"

// Slip is a common mistake in reading or writing down a length. Common practice.
type Slip struct {
	ID     string
	Signed bool // only where a reading may be under nought
	// Meant and Meant2 are what was meant where a length was read, in mm: a slip may have either sign.
	Meant, Meant2 func(read float64) float64
}

// Swapped is the slip of two values that were swapped when written down.
const Swapped = "swapped"

// Slips are those of one reading.
var Slips = []Slip{
	{"10mm", false, plus(10), plus(-10)},
	{"1in", false, plus(25.4), plus(-25.4)},
	{"100mm", false, plus(100), plus(-100)},
	{"tenfold", false, times(10), times(0.1)},
	{"sign", true, times(-1), none},
}

func plus(by float64) func(float64) float64 { return func(read float64) float64 { return read + by } }

func times(by float64) func(float64) float64 { return func(read float64) float64 { return read * by } }
func none(float64) float64                   { return math.NaN() }

// What makes a slip dangerous: undone, it moves the end of a cut toward too small by at least so much, in mm, and
// raises the probability of a ruined slab by so much; its likelihood beside the reading as it stands is at least so
// much, and so is the product of the two. Found by planting slips in hidden surveys.
const (
	SlipMoves  = 0.6
	SlipRaises = 0.02
	SlipHides  = 0.007
)

// How often hands slip: a reading is written down wrong, and a gap is taken for the next packer. Assumed.
const (
	Slipped = 1.0 / 50
	Misread = 1.0 / 30
)
