package plan

import (
	"slices"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// Clash is a reading that the others contradict; its finding says so.
type Clash struct {
	Finding
	Reading survey.Reading
	Or      []survey.Reading // would explain it as well
	Swapped *survey.Reading  // was written down for it, and the other way round
	Again   survey.Reading   // to read next: the reading itself, or what tells most; without an ID where it is a new one
}

// Settled is the plan with a clash settled one way: a reading struck out, or two
// values changed round.
type Settled struct {
	Reading survey.Reading
	Swapped *survey.Reading
	Plan    *Plan
}

// clashes says which readings the others contradict, and what would settle it.
func clashes(d door, s surveyed) (list []Clash) {
	for _, x := range s.shape.Suspects() {
		c := Clash{Reading: x.Reading, Or: x.Or, Swapped: x.Swapped, Again: x.Reading}
		args := Args{
			"reading": x.Reading, "value": message.Exact(x.Reading.Value),
			"about": measure.FromMM(x.Predicted), "slip": x.Slip(),
		}
		code := Contradicted
		switch {
		case x.Swapped != nil:
			code = ChangedRound
			args = Args{"reading": x.Reading, "value": args["value"], "other": *x.Swapped, "otherValue": message.Exact(x.Swapped.Value)}
		case x.Bump:
			c.Again, _ = x.Beside()
			code, args["next"] = OrBump, c.Again
		case len(x.Or) > 0:
			code, args["others"] = OneOf, eitherOf(x.Or)
			if r, ok := s.shape.Split(x, survey.Candidates(measure.FromMM(s.width), measure.FromMM(s.height), d.unit)); ok {
				c.Again = r
				code, args["next"] = OneOfSplit, r
				if r.ID != "" {
					code = OneOfAgain
				}
			}
		}
		if other, ok := slipped[code]; ok && args["slip"] != message.ID("") {
			code = other
		}
		i := slices.IndexFunc(d.Readings, func(r survey.Reading) bool { return r.ID == x.Reading.ID })
		c.Finding = Finding{Stop, job.StepMeasure, pointerTo(i, "value"), code, args}
		list = append(list, c)
	}
	return list
}

// slipped is the code that also names the slip with the tape.
var slipped = map[Code]Code{
	Contradicted: ContradictedBySlip, OneOf: OneOfBySlip, OneOfSplit: OneOfSplitBySlip, OneOfAgain: OneOfAgainBySlip,
}

// settled is the opening with the clash settled by leaving r out, or by changing
// the two values back.
func settled(o job.Opening, c Clash, r survey.Reading) job.Opening {
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

// eitherOf are readings of which any one could be meant, with their values.
func eitherOf(list []survey.Reading) (or message.Or) {
	for _, r := range list {
		or = append(or, survey.Valued(r))
	}
	return or
}
