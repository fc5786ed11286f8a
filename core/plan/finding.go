package plan

import (
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
)

// Gravity says what a finding asks for.
type Gravity string

// A finding stops the work, asks for care, or is worth knowing.
const (
	Stop Gravity = "stop"
	Care Gravity = "care"
	Note Gravity = "note"
)

// Finding is something to say about a door: a code with arguments, which
// Words puts in words.
type Finding struct {
	Gravity Gravity
	Step    job.Step
	Pointer string // JSON pointer to the field it is about; may be empty
	Code    Code
	Args    Args
}

// Code names what was found; its words stand in says.go.
type Code string

// Args are a finding's arguments by name. A measure.Length is said to the tape;
// the types below say otherwise; a string is said as it stands.
type Args map[string]any

// How an argument is said, where it is not a plain string or a length to the
// tape.
type (
	Exact   measure.Length   // as it was given
	Finely  measure.Length   // to a tenth of a millimetre or a 64th, rounded up
	Sure    float64          // a standard deviation in mm, as ± is shown
	Edge    frame.Side       // an edge of the slab: "lock edge"
	Wall    frame.Side       // a side of the opening: "lock jamb", "floor"
	Mass    float64          // kilograms, in the unit that goes with the job's lengths
	Degrees float64          // an angle, to the whole degree
	Any     []survey.Reading // readings with their values: "the … (…) or the … (…)"
)

type findings []Finding

func (f *findings) say(g Gravity, step job.Step, pointer string, code Code, args Args) {
	*f = append(*f, Finding{g, step, pointer, code, args})
}

func (f *findings) add(more findings) { *f = append(*f, more...) }

// Plain is an argument as other programs read it: a length in mm, a reading by its
// ID, an edge or a side by name, a weight in kg, else text.
func Plain(arg any) any {
	switch v := arg.(type) {
	case measure.Length:
		return v.MM()
	case Exact:
		return measure.Length(v).MM()
	case Finely:
		return measure.Length(v).MM()
	case Sure:
		return float64(v)
	case Mass:
		return float64(v)
	case Degrees:
		return float64(v)
	case Edge:
		return frame.Side(v).String()
	case Wall:
		return frame.Side(v).String()
	case survey.Reading:
		return v.ID
	case Any:
		ids := make([]string, len(v))
		for i, r := range v {
			ids[i] = r.ID
		}
		return ids
	case Changed:
		return v.By.MM()
	}
	return arg
}
