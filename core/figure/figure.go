// Package figure has lengths that can be explained: a value with the terms that add up to it, in order.
package figure

import (
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Coverage is the coverage factor: ± is so many standard deviations wherever it is shown, typed or kept (k = 2; JCGM
// 100:2008, 6.3.3, from memory). 19 times in 20 the true value lies inside.
const Coverage = 2

// Source is the origin of a term.
type Source string

// The sources of a term.
const (
	Reading  Source = "reading"  // read off the opening or the slab
	Estimate Source = "estimate" // worked out from all the readings
	Choice   Source = "choice"   // chosen for this opening
	Rule     Source = "rule"     // a rule of the trade
	Rounding Source = "rounding" // to the tape in use
)

// Term is one summand of a figure.
type Term struct {
	Label  message.ID
	Args   message.Args   // that its label asks for
	Value  measure.Length // signed: terms add up
	Source Source
	Sigma  float64 // mm; 0 where it is exact
}

// Message is the term's label.
func (t Term) Message() message.Message { return message.Message{ID: t.Label, Args: t.Args} }

// Figure is a length with the terms that add up to it.
type Figure struct {
	Value measure.Length
	Sigma float64 // mm
	Terms []Term
}

// Sum is the figure with the given terms, whose values it adds, and the given sigma.
func Sum(sigma float64, terms ...Term) Figure {
	f := Figure{Sigma: sigma, Terms: terms}
	for _, t := range terms {
		f.Value += t.Value
	}
	return f
}

// Quantum is the rounding of an estimate that becomes a term, so that a sum can be checked by hand: 0.01 mm, or 0.001
// in.
func Quantum(u measure.Unit) measure.Length {
	if u == measure.Inches {
		return measure.Inch / 1000
	}
	return 10 * measure.Micrometre
}

// slack is a tolerance under any tape's resolution: a figure this near to a mark is on it.
const slack = 50 * measure.Micrometre

// Within rounds the figure down to the last mark of the tape that its exact value reaches, and adds the difference as a
// term, so that a cut never passes its line by the rounding of its terms.
func (f Figure) Within(tape measure.Tape, exact measure.Length) Figure {
	return f.to((exact+shown).Round(tape.Step(), measure.Down), "term.rounded-less")
}

// shown is the precision, in mm, to which terms are shown.
const shown = 10 * measure.Micrometre

// Rounded rounds the figure to the tape, and adds the difference as a term.
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

// to sets the figure's value, and adds the difference as a term.
func (f Figure) to(to measure.Length, label message.ID) Figure {
	if to == f.Value {
		return f
	}
	terms := append(append(make([]Term, 0, len(f.Terms)+1), f.Terms...), Term{
		Label: label, Value: to - f.Value, Source: Rounding,
	})
	return Figure{Value: to, Sigma: f.Sigma, Terms: terms}
}

// Safe is a depth in mm rounded to the tape so that more wood is left on; never negative.
func Safe(depth float64, tape measure.Tape) measure.Length {
	return Figure{Value: max(measure.FromMM(depth), 0)}.Rounded(tape, measure.Down).Value
}
