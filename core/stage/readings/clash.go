package readings

import (
	"slices"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// Clash is a reading that the others contradict, with its finding.
type Clash struct {
	site.Finding
	Reading survey.Reading
	Or      []survey.Reading // would explain it as well
	Swapped *survey.Reading  // was written down for it, and the other way round
	// to read next: the reading itself, or the most informative one; without an ID where it is new
	Again survey.Reading
}

// clashes reports readings that the others contradict, and what would settle each.
func clashes(d site.Opening, s site.Survey) (list []Clash) {
	for _, x := range s.Shape.Suspects() {
		c := Clash{Reading: x.Reading, Or: x.Or, Swapped: x.Swapped, Again: x.Reading}
		args := message.Args{
			"reading": x.Reading, "value": message.Exact(x.Reading.Value),
			"about": measure.FromMM(x.Predicted), "slip": x.Slip(),
		}
		code := site.Contradicted
		switch {
		case x.Swapped != nil:
			code = site.ChangedRound
			args = message.Args{
				"reading": x.Reading, "value": args["value"], "other": *x.Swapped,
				"otherValue": message.Exact(x.Swapped.Value),
			}
		case x.Bump:
			c.Again, _ = x.Beside()
			code, args["next"] = site.OrBump, c.Again
		case len(x.Or) > 0:
			code, args["others"] = site.OneOf, eitherOf(x.Or)
			if r, ok := s.Shape.Split(
				x, survey.Candidates(measure.FromMM(s.Width), measure.FromMM(s.Height), d.Unit),
			); ok {
				c.Again = r
				code, args["next"] = site.OneOfSplit, r
				if r.ID != "" {
					code = site.OneOfAgain
				}
			}
		}
		if other, ok := slipped[code]; ok && args["slip"] != message.ID("") {
			code = other
		}
		i := slices.IndexFunc(d.Readings, func(r survey.Reading) bool { return r.ID == x.Reading.ID })
		c.Finding = site.Finding{
			Gravity: site.Stop, Step: job.StepMeasure, Pointer: site.ReadingAt(i, "value"), Code: code, Args: args,
		}
		list = append(list, c)
	}
	return list
}

// slipped is the code that also names the slip.
var slipped = map[site.Code]site.Code{
	site.Contradicted: site.ContradictedBySlip, site.OneOf: site.OneOfBySlip, site.OneOfSplit: site.OneOfSplitBySlip,
	site.OneOfAgain: site.OneOfAgainBySlip,
}

// Settle is the opening with a clash settled: r struck out, or the two values swapped back.
func Settle(o job.Opening, c Clash, r survey.Reading) job.Opening {
	o.Readings = slices.Clone(o.Readings)
	for i := range o.Readings {
		own := &o.Readings[i]
		switch {
		case c.Swapped != nil && own.ID == r.ID:
			own.Value = c.Swapped.Value
		case c.Swapped != nil && own.ID == c.Swapped.ID:
			own.Value = r.Value
		case own.ID == r.ID:
			own.Struck = "clash"
		}
	}
	return o
}

// eitherOf are readings of which any one could be wrong, with their values.
func eitherOf(list []survey.Reading) (or message.Or) {
	for _, r := range list {
		or = append(or, survey.Valued(r))
	}
	return or
}

// Suggest is the reading that settles a clash, as a suggestion.
func (c Clash) Suggest() site.Suggestion {
	return site.Suggestion{Reading: c.Again, Brings: tellsClash}
}
