package readings

import (
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Asked is what is read next.
type Asked struct {
	Readings []site.Suggestion
	// Trip is the probability of another trip to the trestles as the readings stand; 1 while there is no answer.
	Trip float64
	// OfferUp says that the slab itself is stood against the opening instead, and what that saves; the zero Message
	// where it is not.
	OfferUp message.Message
}

// Next is what is worth reading next: first one width and one height, without which there is no answer; then what saves
// most minutes, or with a target accuracy what helps most until every margin meets it. drawn is empty while there is no
// answer.
func Next(d site.Opening, s site.Survey, drawn []fit.Outline, leave []frame.Each[float64]) (n Asked) {
	t := tripsOf(d, drawn, leave)
	n.Trip = 1
	if n.Readings = roundSlab(d, s); len(n.Readings) > 0 {
		return n
	}
	at, edge := first(d, s)
	if s.Widths == 0 {
		n.Readings = append(n.Readings, d.Suggest(survey.Reading{Kind: survey.Width, At: at}, noAnswerWidth, true))
	}
	if s.Heights == 0 {
		n.Readings = append(n.Readings, d.Suggest(survey.Reading{Kind: survey.Height, At: edge}, noAnswerHeight, true))
	}
	switch {
	case len(t.drawn) == 0:
		return n
	case d.PlusMinus > 0:
		t.before = s.Shape.Search(t.rows(), nil).Now()
		return Asked{Readings: surest(d, s, t.drawn), Trip: t.chance(t.before)}
	}
	if n = worthwhile(d, s, t); len(n.Readings) == 0 {
		n.Readings = swings(d, s)
	}
	if cut(d, len(drawn)) { // its gaps tell the rest
		n.Readings, n.OfferUp = nil, message.Message{}
	}
	return n
}

// cut reports whether every leaf is cut: readings spare nothing then.
func cut(d site.Opening, leaves int) bool {
	return len(d.Tried) >= leaves &&
		!slices.ContainsFunc(d.Tried[:leaves], func(t job.Tried) bool { return t.Made == nil })
}

// swings is the reading of how the hinge jamb leans, where the foot might meet the floor as it swings for all that is
// known of it: only the shape of an opening decides how a slab fits, and its lean how it swings.
func swings(d site.Opening, s site.Survey) []site.Suggestion {
	if d.Margins.Sweep || d.Rules < site.Rules5 || d.Framed() != nil {
		return nil
	}
	high, low := 0.9*s.Height, 0.1*s.Height
	by := s.Width / (high - low) // the free corner's rise, shut to square
	rises := survey.Row{
		{Of: survey.Of(frame.Hinge), At: high, By: by}, {Of: survey.Of(frame.Hinge), At: low, By: -by},
	}
	if _, sigma := s.Shape.Of(rises); figure.Coverage*sigma <= trade.UnderFoot.MM() {
		return nil
	}
	plumbs := slices.DeleteFunc(slices.Clone(s.Could), func(r survey.Reading) bool {
		return r.Kind != survey.Plumb || r.Side != frame.Hinge
	})
	gains := s.Shape.Best([]survey.Row{rises}, plumbs)
	if len(gains) == 0 { // no tool of the kit tells
		return nil
	}
	return []site.Suggestion{d.Suggest(gains[0].Reading, tellsSwing, false)}
}

// surest lists the readings that help the least certain margins most, until every margin meets the target accuracy.
func surest(d site.Opening, s site.Survey, drawn []fit.Outline) (list []site.Suggestion) {
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
	for i, g := range s.Shape.Best(rows, s.Could) {
		if i == site.MostOffered || g.Worth < 0.01 {
			break
		}
		w := wanted[g.Figure]
		list = append(list, d.Suggest(g.Reading, site.Brings(w.Side, w.Where, g), false))
	}
	return list
}

// candidates are the readings that the kit can take next, without repeats of a place by the same tool, which hardly add
// information.
func candidates(d site.Opening, s site.Survey) (list []survey.Reading) {
	all := survey.Candidates(measure.FromMM(s.Width), measure.FromMM(s.Height), d.Unit)
	list = make([]survey.Reading, 0, len(all)+8) // a level is turned
	for r := range d.Kit.Tools.Each(all) {
		if !read(s.Readings, d.Kit.Tools, &r) {
			list = append(list, r)
		}
	}
	return list
}

// read reports whether one of some readings is of the same place as another, with the same tool.
func read(readings []survey.Reading, kit survey.Kit, r *survey.Reading) bool {
	for i := range readings {
		x := &readings[i]
		if x.At != r.At || x.From != r.From || x.To != r.To || x.Turned != r.Turned || x.Side != r.Side ||
			x.Kind != r.Kind {
			continue
		}
		with, _ := kit.Tool(*r)
		if tool, _ := kit.Tool(*x); tool == with {
			return true
		}
	}
	return false
}

// first is the place of the first width (at the top hinge's height) and of the first height (beside the hinge jamb).
func first(d site.Opening, s site.Survey) (up, across measure.Length) {
	high, step := measure.FromMM(0.9*s.Height), 50*measure.Millimetre
	up, across = 1800*measure.Millimetre, 50*measure.Millimetre
	if d.Unit == measure.Inches {
		up, across, step = 70*measure.Inch, 2*measure.Inch, 2*measure.Inch
	}
	return min(up, high.Round(step, measure.Down)), across
}

// The reasons of a reading that is needed.
var (
	noAnswerWidth  = message.Sentences{{ID: "brings.no-width"}}
	noAnswerHeight = message.Sentences{{ID: "brings.no-height"}}
	tellsSwing     = message.Sentences{{ID: "brings.swing"}}
	tellsClash     = message.Sentences{{ID: "brings.clash"}}
	// roundTheSlab is the reason of a place round a slab that stands in the opening, thenWorth that of a reading that
	// follows another.
	roundTheSlab = message.Sentences{{ID: "brings.round"}}
	thenWorth    = message.Sentences{{ID: "brings.then"}}
)
