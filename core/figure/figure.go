// Package figure is a length that can say why: the terms it was made of, in
// order, which added up by hand give it.
package figure

import (
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Coverage is how many standard deviations stand after ±, wherever one is shown, asked
// or kept (coverage factor 2; JCGM 100:2008, 6.3.3, from memory): 19 times in 20 the
// truth lies inside.
const Coverage = 2

// Source is where a term comes from.
type Source string

// The sources of a term.
const (
	Reading  Source = "reading"  // read off the opening or the slab
	Estimate Source = "estimate" // worked out from all the readings
	Choice   Source = "choice"   // chosen for this door
	Rule     Source = "rule"     // a rule of the trade
	Rounding Source = "rounding" // to the tape in use
)

// Term is one part of a figure.
type Term struct {
	Label  message.ID
	Args   message.Args   // that its label asks for
	Value  measure.Length // signed: terms add up
	Source Source
	Sigma  float64 // mm; 0 where it is exact
}

// Message is the label as it is said.
func (t Term) Message() message.Message { return message.Message{ID: t.Label, Args: t.Args} }

// Figure is a length with its reasons.
type Figure struct {
	Value measure.Length
	Sigma float64 // mm
	Terms []Term
}

// Sum is the figure that the terms add up to, with the sigma given.
func Sum(sigma float64, terms ...Term) Figure {
	f := Figure{Sigma: sigma, Terms: terms}
	for _, t := range terms {
		f.Value += t.Value
	}
	return f
}

// Quantum is what an estimate is rounded to before it becomes a term, so
// that a sum can be checked by hand: 0.01 mm, or a thousandth of an inch.
func Quantum(u measure.Unit) measure.Length {
	if u == measure.Inches {
		return measure.Inch / 1000
	}
	return 10 * measure.Micrometre
}

// slack is what no tape tells apart: a figure this near to a mark is on it,
// whichever way it is rounded.
const slack = 50 * measure.Micrometre

// Within brings the figure to the greatest mark of the tape that its exact value reaches, as a term of its
// own: a cut never goes past its terms by what they are rounded to when they are shown.
func (f Figure) Within(tape measure.Tape, exact measure.Length) Figure {
	return f.to((exact+shown).Round(tape.Step(), measure.Down), "term.rounded-less")
}

// shown is what terms are rounded to when they are shown, in millimetres: no hand sees less.
const shown = 10 * measure.Micrometre

// Rounded brings the figure to the tape, as a term of its own.
func (f Figure) Rounded(tape measure.Tape, way measure.Way) Figure {
	to := f.Value.Round(tape.Step(), measure.Nearest)
	if (to - f.Value).Abs() > slack {
		to = f.Value.Round(tape.Step(), way)
	}
	label := message.ID("term.rounded")
	if way == measure.Down {
		label = "term.rounded-less"
	}
	return f.to(to, label)
}

// to is the figure at another value, the difference a term of its own.
func (f Figure) to(to measure.Length, label message.ID) Figure {
	if to == f.Value {
		return f
	}
	terms := append(append(make([]Term, 0, len(f.Terms)+1), f.Terms...), Term{
		Label: label, Value: to - f.Value, Source: Rounding,
	})
	return Figure{Value: to, Sigma: f.Sigma, Terms: terms}
}

// Safe is a depth in mm to the tape, rounded so that more is left on, and never under nought.
func Safe(depth float64, tape measure.Tape) measure.Length {
	return Figure{Value: max(measure.FromMM(depth), 0)}.Rounded(tape, measure.Down).Value
}
