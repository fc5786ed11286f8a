package plan

import (
	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// Suggestion is a reading that is worth taking next.
type Suggestion struct {
	Reading survey.Reading    // without a value
	Brings  message.Sentences // what it would make surer, and how far
	Needed  bool              // no answer without it
	Worth   Worth
	Tool    message.Message // with what: the tool's name, or its instrument's
}

func (d door) suggestion(r survey.Reading, brings message.Sentences, needed bool) Suggestion {
	return Suggestion{Reading: r, Brings: brings, Needed: needed, Tool: ToolName(d.kit.Tools, r)}
}

// mostOffered is how many readings are offered at once.
const mostOffered = 4

// next lists the readings worth taking next: first one width and one height, without
// which there is no answer; then those worth most minutes, or, where a threshold was
// set by hand, those that help most until every margin is as sure as that. t has no
// leaf while there is no answer. chance is that of another trip as the readings stand;
// 1 while there is no answer.
func next(d door, s surveyed, t trips) (list []Suggestion, chance float64) {
	if round := roundSlab(d, s); len(round) > 0 {
		return round, 1
	}
	at, edge := first(d, s)
	if s.widths == 0 {
		list = append(list, d.suggestion(survey.Reading{Kind: survey.Width, At: at}, noAnswerWidth, true))
	}
	if s.heights == 0 {
		list = append(list, d.suggestion(survey.Reading{Kind: survey.Height, At: edge}, noAnswerHeight, true))
	}
	switch {
	case len(t.drawn) == 0:
		return list, 1
	case d.PlusMinus > 0:
		t.before = s.shape.Search(t.rows(), nil).Now()
		return surest(d, s, t.drawn), t.chance(t.before)
	}
	return worthwhile(d, s, t)
}

// surest lists the readings that help the least sure margins most, until every margin
// is as sure as was set by hand.
func surest(d door, s surveyed, drawn []fit.Outline) (list []Suggestion) {
	worst := 0.0
	var wanted []fit.WantedMargin
	var rows []survey.Row
	for _, o := range drawn {
		for _, w := range o.Wanted {
			wanted, rows = append(wanted, w), append(rows, w.Row)
		}
		for _, e := range o.Edges {
			for _, g := range e.Gaps {
				worst = max(worst, g.Sigma)
			}
		}
	}
	if worst <= d.PlusMinus.MM()/figure.Coverage {
		return nil
	}
	for i, g := range s.shape.Best(rows, s.could) {
		if i == mostOffered || g.Worth < 0.01 {
			break
		}
		w := wanted[g.Figure]
		list = append(list, d.suggestion(g.Reading, brings(w.Side, w.Where, g), false))
	}
	return list
}

// candidates are the readings that could be taken next with the kit at hand: what was
// read already with the same tool at the same place would hardly tell more.
func candidates(d door, s surveyed) (list []survey.Reading) {
	all := survey.Candidates(measure.FromMM(s.width), measure.FromMM(s.height), d.unit)
	list = make([]survey.Reading, 0, len(all)+8) // a level is turned
	for r := range d.kit.Tools.Each(all) {
		if !read(s.readings, d.kit.Tools, &r) {
			list = append(list, r)
		}
	}
	return list
}

// read reports whether one of some readings is of the same place as another, with the same tool.
func read(readings []survey.Reading, kit survey.Kit, r *survey.Reading) bool {
	for i := range readings {
		x := &readings[i]
		if x.At != r.At || x.From != r.From || x.To != r.To || x.Turned != r.Turned || x.Side != r.Side || x.Kind != r.Kind {
			continue
		}
		with, _ := kit.Tool(*r)
		if tool, _ := kit.Tool(*x); tool == with {
			return true
		}
	}
	return false
}

// first is where the first width (at the top hinge's height) and the first
// height (beside the hinge jamb) are read.
func first(d door, s surveyed) (up, across measure.Length) {
	high, step := measure.FromMM(0.9*s.height), 50*measure.Millimetre
	up, across = 1800*measure.Millimetre, 50*measure.Millimetre
	if d.unit == measure.Inches {
		up, across, step = 70*measure.Inch, 2*measure.Inch, 2*measure.Inch
	}
	return min(up, high.Round(step, measure.Down)), across
}
