// Package document writes plans: as JSON for other programs (docs/planjson.md), and as text in the order of the work.
package document

import (
	"kindmargin/core/figure"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/words"
)

// Text is a length as it is shown, in either unit, without the unit.
type Text struct {
	MM string `json:"mm"`
	In string `json:"in"`
}

// Of is the text in a unit.
func (t Text) Of(u measure.Unit) string {
	if u == measure.Inches {
		return t.In
	}
	return t.MM
}

// Length is a length with its texts.
type Length struct {
	MM   float64 `json:"mm"`
	Text Text    `json:"text"`
}

// Figure is a length with its ± and terms.
type Figure struct {
	MM        float64 `json:"mm"`
	Text      Text    `json:"text"`
	PlusMinus Text    `json:"plusMinus" doc:"Two standard deviations (coverage factor 2): 19 times in 20 the truth lies inside. Empty where the figure is exact."`
	Terms     []Term  `json:"terms" doc:"Added up by hand they give the figure."`
}

// Term is one summand of a figure.
type Term struct {
	Label     string        `json:"label"`
	Text      Text          `json:"text"`
	PlusMinus Text          `json:"plusMinus"`
	Source    figure.Source `json:"source"`
}

// printer formats lengths for one job.
type printer struct {
	unit  measure.Unit
	tape  measure.Tape
	voice words.Voice
}

// newPrinter returns the printer of a job.
func newPrinter(j job.Job) printer { return printer{j.Unit, j.Tape, Voice(j)} }

// Voice is the voice of a job.
func Voice(j job.Job) words.Voice { return words.In(j.Speaks(), j.Unit, j.Tape) }

// both is a length in each unit, by the same rule.
func both(show func(measure.Unit) string) Text {
	return Text{show(measure.Millimetres), show(measure.Inches)}
}

// marked rounds a length to the tape of each unit.
func (p printer) marked(l measure.Length) Text {
	return both(func(u measure.Unit) string { return p.tape.In(u).Show(l) })
}

// markedUp rounds a length up to the tape, so that what goes within it is not tight.
func (p printer) markedUp(l measure.Length) Text {
	return both(func(u measure.Unit) string {
		t := p.tape.In(u)
		return t.Show(l.Round(t.Step(), measure.Up))
	})
}

// given rounds a length to the tape, but shows it as typed in the job's unit.
func (p printer) given(l measure.Length) Text {
	t := p.marked(l)
	return p.exactly(t, l)
}

func (p printer) exactly(t Text, l measure.Length) Text {
	if p.unit == measure.Inches {
		t.In = measure.Exact(l, p.unit)
	} else {
		t.MM = measure.Exact(l, p.unit)
	}
	return t
}

// Fine shows a length to a tenth of a millimetre, or a 64th of an inch.
func Fine(l measure.Length) Text {
	return both(func(u measure.Unit) string { return measure.Fine(l, measure.Nearest, u) })
}

// plusMinus shows a standard deviation in mm as ±, rounded up; empty for 0.
func plusMinus(sigma float64) Text {
	if sigma < 0.005 {
		return Text{}
	}
	l := measure.FromMM(min(figure.Coverage*sigma, 999))
	return both(func(u measure.Unit) string { return measure.Fine(l, measure.Up, u) })
}

func (p printer) view(f figure.Figure, text Text) Figure {
	v := Figure{MM: f.Value.MM(), Text: text, PlusMinus: plusMinus(f.Sigma), Terms: make([]Term, len(f.Terms))}
	for i, t := range f.Terms {
		v.Terms[i] = Term{
			Label:     p.voice.Say(t.Message()),
			Text:      both(func(u measure.Unit) string { return measure.Decimal(t.Value, u) }),
			PlusMinus: plusMinus(t.Sigma),
			Source:    t.Source,
		}
	}
	return v
}

// figure shows a figure rounded to the tape; one of readings, choices and rules alone is exact.
func (p printer) figure(f figure.Figure) Figure {
	for _, t := range f.Terms {
		if t.Source == figure.Estimate {
			return p.view(f, p.marked(f.Value))
		}
	}
	return p.view(f, p.given(f.Value))
}

func (p printer) fine(f figure.Figure) Figure { return p.view(f, Fine(f.Value)) }

func (p printer) figures(list []figure.Figure) []Figure {
	out := make([]Figure, len(list))
	for i, f := range list {
		out[i] = p.figure(f)
	}
	return out
}

func (p printer) length(l measure.Length) Length { return Length{l.MM(), p.marked(l)} }

// exact shows a length as typed: a gauge is set to the leaf, never deeper.
func (p printer) exact(l measure.Length) Length { return Length{l.MM(), p.given(l)} }
