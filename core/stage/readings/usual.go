package readings

import (
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// Usual lists the readings that an opening usually gets, in the order of the work, as far as the kit can take them and
// they were not taken yet: what is asked next where no plan can say, without signal. Common practice.
func Usual(d site.Opening) (list []site.Suggestion) {
	if d.Measuring != job.AsItComes && d.Measuring != job.ByTape {
		return nil
	}
	size := func(kind survey.Kind, usual float64) measure.Length {
		for _, r := range slices.Backward(d.Readings) {
			if r.Kind == kind && r.Struck == "" {
				return r.Value
			}
		}
		return measure.FromMM(usual)
	}
	width, height := size(survey.Width, usualWidth), size(survey.Height, usualHeight)
	up, across := first(d, site.Survey{Width: width.MM(), Height: height.MM()})
	round := func(l measure.Length) measure.Length {
		if d.Unit == measure.Inches {
			return l.Round(2*measure.Inch, measure.Nearest)
		}
		return l.Round(50*measure.Millimetre, measure.Nearest)
	}
	low, high, far := round(height/10), round(height*9/10), round(width*15/16)
	all := []survey.Reading{
		{Kind: survey.Width, At: up},
		{Kind: survey.Width, At: round(height / 2)},
		{Kind: survey.Width, At: round(height / 20)},
		{Kind: survey.Height, At: across},
		{Kind: survey.Height, At: far},
		{Kind: survey.Plumb, Side: frame.Hinge, At: high, From: low},
		{Kind: survey.Plumb, Side: frame.Lock, At: high, From: low},
		{Kind: survey.Level, Side: frame.Head, At: far, From: across},
		{Kind: survey.Straight, Side: frame.Hinge, At: round(height / 2), From: low, To: high},
		{Kind: survey.Straight, Side: frame.Lock, At: round(height / 2), From: low, To: high},
		{Kind: survey.Diagonal, Side: frame.Hinge},
		{Kind: survey.Diagonal, Side: frame.Lock},
	}
	for r := range d.Kit.Tools.Each(all) { // the first tool that reads it
		if r.Turned || read(d.Readings, d.Kit.Tools, &r) || slices.ContainsFunc(list, func(s site.Suggestion) bool {
			x := s.Reading
			return x.Kind == r.Kind && x.Side == r.Side && x.At == r.At
		}) {
			continue
		}
		list = append(list, d.Suggest(r, message.Sentences{{ID: "brings.usual"}}, false))
	}
	return list
}
