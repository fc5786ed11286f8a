package hangs

import (
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/site"
	"kindmargin/core/trade"
	"kindmargin/core/try"
)

// mostStill is the greatest change of a margin, in mm, that is not reported.
const mostStill = 0.5

// tryOrder is the order in which margins are reported and cured: head and foot, then the two long ones.
var tryOrder = []frame.Side{frame.Head, frame.Foot, frame.Lock, frame.Hinge}

// seen reports what is wrong with the margins of a hung slab, and why, in the order in which it is cured.
func seen(d site.Opening, at string, t *try.Hung, v Try) (said site.Findings) {
	now := t.Now()
	for _, side := range tryOrder {
		var tight, wide []int
		var stays [3]try.Stays // by End
		for _, s := range now.Stays {
			if s.Side != side {
				continue
			}
			stays[s.End] = s
			switch {
			case s.By > 0:
				wide = append(wide, s.End)
			case s.End == 1: // the tightest place is the one that is named
				tight = []int{1}
			default:
				tight = append(tight, s.End)
			}
		}
		end := func(place int) message.End { return message.End{Side: side, Place: place} }
		mm := func(end int) message.Fine { return message.Fine(max(measure.FromMM(stays[end].Gap), 0)) }
		args := message.Args{"edge": message.Edge(side), "side": message.Margin(side)}
		for _, s := range stays {
			if s.By != 0 && s.End != 1 {
				args["wanted"] = message.Fine(measure.FromMM(s.Wanted))
			}
		}
		code := site.Code("")
		switch {
		case len(tight) == 1 && tight[0] == 1:
			code = site.MarginMiddle
			args["tight"], args["least"] = mm(1), message.Fine(measure.FromMM(stays[1].Wanted))
			args["at"] = placeOf(d, side, stays[1].At)
		case len(tight) > 0 && len(wide) > 0:
			code = site.MarginLeans
			args["tight"], args["at"], args["wide"], args["other"] = mm(tight[0]), end(tight[0]), mm(wide[0]), end(
				wide[0],
			)
		case len(tight) == 2:
			code = site.MarginTight
			args["tight"], args["other"] = mm(tight[0]), mm(tight[1])
		case len(tight) == 1:
			code = site.MarginTightAt
			args["tight"], args["at"] = mm(tight[0]), end(tight[0])
		case len(wide) == 2:
			code = site.MarginWide
			args["wide"], args["other"] = mm(wide[0]), mm(wide[1])
		case len(wide) == 1:
			code = site.MarginWideAt
			args["wide"], args["at"] = mm(wide[0]), end(wide[0])
		default:
			continue
		}
		args["cause"] = v.cause(d, code, side, stays[1].At)
		said.Say(site.Care, job.StepTry, at, code, args)
	}
	if t.Bored != nil && !t.Down() {
		said.Say(site.Care, job.StepTry, at, site.BoredHigh, message.Args{
			"left": message.Fine(measure.FromMM(t.Bored.Left)),
		})
	}
	if len(v.Near) == 0 && len(v.ToRead) == 0 && len(v.Ways) > 0 && len(v.Ways[0].Out) > 0 {
		said.Say(site.Care, job.StepTry, at, site.NothingBringsIn, message.Args{
			"out": message.Sentences(v.Ways[0].Out),
		})
	}
	return said
}

// sinceLeft reports margins that changed since the sign-off, at a revisit.
func sinceLeft(at string, v Try) (said site.Findings) {
	for _, side := range tryOrder {
		was, now := v.Was[side], v.Margins[side]
		worst, where := 0.0, 0
		for place := range 3 {
			i := place * (len(now) - 1) / 2
			if by := now[i].Mean - was[i].Mean; math.Abs(by) > math.Abs(worst) {
				worst, where = by, place
			}
		}
		if math.Abs(worst) > mostStill {
			said.Say(site.Note, job.StepTry, at, site.Moved, message.Args{
				"side": message.Margin(side), "by": message.Fine(measure.FromMM(math.Abs(worst))),
				"way": message.Way(worst, "opened", "closed"), "where": message.End{Side: side, Place: where},
			})
		}
	}
	return said
}

// sights reports what else was seen of a hung slab, with its cure.
func sights(d site.Opening, at string, h job.Hang, names []message.ID) (said site.Findings) {
	for _, a := range h.Drags {
		said.Say(site.Care, job.StepTry, at, site.Drags, message.Args{"angle": message.Degrees(a)})
	}
	if h.Springs {
		said.Say(site.Care, job.StepTry, at, site.Springs, nil)
	}
	if h.Drifts != "" {
		said.Say(site.Care, job.StepTry, at, site.Drifts, message.Args{
			"way": message.ID("way." + h.Drifts),
			"to":  map[job.Drift]message.ID{job.DriftsOpen: "way.away-from", job.DriftsShut: "way.toward"}[h.Drifts],
		})
	}
	for _, p := range h.Proud {
		if p < len(names) {
			said.Say(site.Care, job.StepTry, at, site.LeafProud, message.Args{"name": names[p]})
		}
	}
	if h.Rattles {
		said.Say(site.Note, job.StepTry, at, site.Rattles, nil)
	}
	if h.Did != nil {
		for i, m := range h.Did.Pack {
			if i < len(names) && (m > trade.MostOut || m < -trade.MostLetIn) {
				said.Say(site.Care, job.StepTry, at, site.MovedFar, message.Args{
					"name": names[i], "by": message.Fine(m.Abs()), "out": message.Exact(trade.MostOut),
					"in": message.Exact(trade.MostLetIn),
				})
			}
		}
	}
	return said
}

// after is what follows the margins: jambs that are not in one plane, half of it taken up by the hinges (the top one a
// quarter one way, the bottom one the other) and half by the stops; then the latch. Common practice.
func after(d site.Opening, stops *lock.StopPlan, names []message.ID) (list []message.Message) {
	put := func(id message.ID, minutes float64, args message.Args) {
		args["minutes"] = message.Count(math.Round(minutes))
		list = append(list, message.Message{ID: id, Args: args})
	}
	if stops != nil && len(stops.Moves) > 0 {
		if cross := stops.Cross.Value; cross.Abs() > trade.MostCross {
			// Positive: the lock side stands off at its foot and touches at its head, so the pins' head, and with it
			// the lock side's, comes toward you.
			put("after.flush", 2*trade.PackMinutes, message.Args{
				"top": names[0], "by": message.Near((cross / 4).Abs()),
				"way":    message.Way(cross.MM(), "toward", "away-from"),
				"bottom": names[len(names)-1], "other": message.Way(cross.MM(), "away-from", "toward"),
			})
		}
		var moves message.And
		for _, m := range stops.Moves {
			if m.By.Value.Abs() >= measure.Millimetre/2 {
				moves = append(moves, message.Message{ID: "after.stop", Args: message.Args{
					"stop": m.StopName(), "end": m.EndName(), "by": message.Near(m.By.Value.Abs()),
					"way": message.Way(m.By.Value.MM(), "toward", "away-from"),
				}})
			}
		}
		if len(moves) > 0 {
			put("after.stops", trade.StopMinutes, message.Args{"moves": moves})
		}
	}
	if m := d.Lock.Missed; m != nil && (m.Up != 0 || m.In != 0) {
		var by message.And
		if m.Up != 0 {
			by = append(by, message.Message{
				ID:   "after.strike-along",
				Args: message.Args{"by": message.Near(m.Up.Abs()), "way": message.Way(m.Up.MM(), "up", "down")},
			})
		}
		if m.In != 0 {
			by = append(by, message.Message{
				ID: "after.strike-across",
				Args: message.Args{
					"by": message.Near(m.In.Abs()), "way": message.Way(m.In.MM(), "toward", "away-from"),
				},
			})
		}
		put("after.latch", trade.StrikeMove, message.Args{"moves": by})
	}
	return list
}

// sinceForetold compares the change of the lock margin since the sign-off with its prediction.
func sinceForetold(at string, by *season.Since, v Try) (said site.Findings) {
	if by == nil {
		return nil
	}
	closed := by.Closed
	was, now := try.Middle(v.Was[frame.Lock]), try.Middle(v.Margins[frame.Lock])
	found := was.Mean - now.Mean
	// The uncertainty of the coefficients, and of the gaps then and now. (was.Sigma belongs to the prediction without
	// the season.)
	unsure := figure.Coverage * math.Hypot(trade.MoveUnsure*closed, math.Sqrt2*now.Sigma)
	code := site.SeasonAgrees
	if math.Abs(found-closed) > max(unsure, mostStill) {
		code = site.SeasonDisagrees
	}
	said.Say(site.Note, job.StepTry, at, code, message.Args{
		"moisture": message.Percent(by.Is), "was": message.Percent(by.Was),
		"way": message.Way(closed, "closed", "opened"), "foretold": message.Fine(measure.FromMM(math.Abs(closed))),
		"went": message.Way(found, "closed", "opened"), "found": message.Fine(measure.FromMM(math.Abs(found))),
	})
	return said
}
