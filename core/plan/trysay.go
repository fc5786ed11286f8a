package plan

import (
	"math"
	"strconv"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
	"kindmargin/core/try"
)

// way is a way with what is done and what stays out, and with what would be foretold of it.
func (h *tries) way(d door, w try.Way, names []message.ID) TryWay {
	v := TryWay{Way: w}
	fine := func(mm float64) measure.Length {
		return measure.FromMM(mm).Round(measure.Tapes(d.unit)[0].Step(), measure.Nearest)
	}
	does := func(id message.ID, args Args) { v.Does = append(v.Does, message.Message{ID: id, Args: args}) }
	for i, m := range w.Moves {
		by := measure.FromMM(m)
		v.Did.Pack = append(v.Did.Pack, by)
		switch { // of a card, exactly
		case m > 0:
			does("do.hinge-out", Args{"name": names[i], "by": message.Exact(by)})
		case m < 0:
			does("do.hinge-in", Args{"name": names[i], "by": message.Exact(-by)})
		}
	}
	if w.Up != 0 {
		v.Did.Up = measure.FromMM(w.Up)
		does("do.hinges-along", Args{"way": way(w.Up, "up", "down"), "by": message.Near(v.Did.Up.Abs())})
	}
	length := edgeReach(*h.tried.Made, frame.Hinge)
	for _, p := range w.Planed {
		off := job.Planed{Side: p.Side}
		for i, mm := range p.Off {
			off.Off[i] = fine(mm)
		}
		v.Did.Planed = append(v.Did.Planed, off)
		reach := length
		if !p.Side.Upright() {
			reach = edgeReach(*h.tried.Made, frame.Head)
		}
		v.Does = append(v.Does, planes(off, len(p.Passes(reach)), w.Hanging))
	}
	v.Costs = costs(w)
	for _, s := range w.Stays {
		if by := measure.FromMM(math.Abs(s.By)); by >= leastSaid {
			v.Out = append(v.Out, message.Message{ID: "margin-stays." + message.ID(either(s.By, "wide", "tight")), Args: Args{
				"side": message.Margin(s.Side), "by": message.Near(by), "at": message.End{Side: s.Side, Place: s.End},
			}})
		}
	}
	h.foretell(d, &v)
	return v
}

// leastSaid is the least by which a margin is said to stay out.
const leastSaid = measure.Millimetre / 20

// costs says what a way costs.
func costs(w try.Way) message.Message {
	trip := message.ID("trip.none")
	switch {
	case w.Hanging:
		trip = "trip.hanging"
	case w.Trips > 0:
		trip = "trip.once"
	}
	return message.Message{ID: "costs", Args: Args{"minutes": message.Count(math.Round(w.Minutes)), "trip": trip}}
}

// foretell adds to a way's margins what its work is unsure by.
func (h *tries) foretell(d door, v *TryWay) {
	p := h.prior
	p.Hangs, p.Strays = hungOf(d, h.bay, h.tried, h.survey.width, h.survey.height, h.beside, h.known, &v.Did)
	last := p.Hangs[len(p.Hangs)-1]
	for _, side := range frame.Sides {
		for i, m := range v.Margins[side] {
			row, _ := p.Gap(last, side, m.At)
			v.Margins[side][i].Sigma = math.Sqrt(m.Sigma*m.Sigma + p.Unread(row, len(h.prior.Strays)))
		}
	}
}

// planes says what comes off an edge, and where it is done.
func planes(p job.Planed, passes int, hanging bool) message.Message {
	a, m, b := p.Off[0], p.Off[1], p.Off[2]
	where := message.ID("plane-where.ends")
	switch {
	case p.Side == frame.Lock && hanging:
		where = "plane-where.hanging"
	case p.Side == frame.Lock:
		where = "plane-where.edge"
	}
	args := Args{"edge": message.Edge(p.Side), "passes": message.Count(passes), "where": where}
	end := func(name string, place int, by measure.Length) {
		args[name], args[name+"By"] = message.End{Side: p.Side, Place: place}, message.Near(by)
	}
	switch {
	case m > max(a, b):
		args["by"] = message.Near(m)
		end("start", 0, a)
		end("end", 2, b)
		return message.Message{ID: "plane.middle", Args: args}
	case a == b:
		args["by"] = message.Near(a)
		return message.Message{ID: "plane.even", Args: args}
	case a < b:
		end("start", 2, b)
		end("end", 0, a)
	default:
		end("start", 0, a)
		end("end", 2, b)
	}
	return message.Message{ID: "plane.taper", Args: args}
}

// way is the word for one way or the other, by whether by is over nought.
func way(by float64, over, under string) message.ID {
	return message.ID("way." + either(by, over, under))
}

func either(by float64, over, under string) string {
	if by > 0 {
		return over
	}
	return under
}

// tryOrder is the order in which what is found is told and cured: head and foot, then the
// two long margins.
var tryOrder = []frame.Side{frame.Head, frame.Foot, frame.Lock, frame.Hinge}

// seen says what is wrong with the margins of a hung slab, and why, in the order in which it
// is put right.
func seen(d door, at string, t *try.Hung, v Try) (said findings) {
	now := t.Now()
	for _, side := range tryOrder {
		var tight, wide []int
		for _, s := range now.Stays {
			if s.Side != side {
				continue
			}
			if s.By < 0 {
				tight = append(tight, s.End)
			} else {
				wide = append(wide, s.End)
			}
		}
		m := v.Margins[side]
		end := func(place int) message.End { return message.End{Side: side, Place: place} }
		mm := func(end int) message.Fine { return message.Fine(max(measure.FromMM(m[end*(len(m)-1)/2].Mean), 0)) }
		args := Args{"edge": message.Edge(side), "side": message.Margin(side), "wanted": measure.FromMM(t.Wanted[side])}
		code := Code("")
		switch {
		case len(tight) > 0 && len(wide) > 0:
			code = MarginLeans
			args["tight"], args["at"], args["wide"], args["other"] = mm(tight[0]), end(tight[0]), mm(wide[0]), end(wide[0])
		case len(tight) == 2:
			code = MarginTight
			args["tight"], args["other"] = mm(tight[0]), mm(tight[1])
		case len(tight) == 1 && tight[0] == 1:
			code = MarginMiddle
			args["tight"] = mm(1)
		case len(tight) == 1:
			code = MarginTightAt
			args["tight"], args["at"] = mm(tight[0]), end(tight[0])
		case len(wide) == 2:
			code = MarginWide
			args["wide"], args["other"] = mm(wide[0]), mm(wide[1])
		case len(wide) == 1:
			code = MarginWideAt
			args["wide"], args["at"] = mm(wide[0]), end(wide[0])
		default:
			continue
		}
		args["cause"] = message.ID("cause." + string(code) + "." + side.String())
		said.say(Care, job.StepTry, at, code, args)
	}
	if len(v.ToRead) == 0 && len(v.Ways) > 0 && len(v.Ways[0].Out) > 0 {
		said.say(Care, job.StepTry, at, NothingBringsIn, Args{"out": message.Sentences(v.Ways[0].Out)})
	}
	return said
}

// mostStill is how far a margin may seem to have moved, in mm, and nobody would say so.
const mostStill = 0.5

// sinceLeft says which margins are other than they were left, of a door that is looked at again.
func sinceLeft(at string, v Try) (said findings) {
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
			said.say(Note, job.StepTry, at, Moved, Args{
				"side": message.Margin(side), "by": message.Fine(measure.FromMM(math.Abs(worst))), "way": way(worst, "opened", "closed"), "where": message.End{Side: side, Place: where},
			})
		}
	}
	return said
}

// sights says what else was seen of a hung slab, and its cure.
func sights(d door, at string, h job.Hang, names []message.ID) (said findings) {
	for _, a := range h.Drags {
		said.say(Care, job.StepTry, at, Drags, Args{"angle": message.Degrees(a)})
	}
	if h.Springs {
		said.say(Care, job.StepTry, at, Springs, nil)
	}
	if h.Drifts != "" {
		said.say(Care, job.StepTry, at, Drifts, Args{"way": message.ID("way." + h.Drifts), "to": map[string]message.ID{job.DriftsOpen: "way.away-from", job.DriftsShut: "way.toward"}[h.Drifts]})
	}
	for _, p := range h.Proud {
		if p < len(names) {
			said.say(Care, job.StepTry, at, LeafProud, Args{"name": names[p]})
		}
	}
	if h.Rattles {
		said.say(Note, job.StepTry, at, Rattles, nil)
	}
	if h.Did != nil {
		for i, m := range h.Did.Pack {
			if i < len(names) && (m > trade.MostOut || m < -trade.MostLetIn) {
				said.say(Care, job.StepTry, at, MovedFar, Args{"name": names[i], "by": message.Fine(m.Abs()), "out": message.Exact(trade.MostOut), "in": message.Exact(trade.MostLetIn)})
			}
		}
	}
	return said
}

// after is what follows the margins: where the jambs are not in one plane, half is taken up by
// the hinges, the top one a quarter one way and the bottom one the other, and half by the
// stops; then the latch. Common practice.
func after(d door, l Leaf, names []message.ID) (list []message.Message) {
	put := func(id message.ID, minutes float64, args Args) {
		args["minutes"] = message.Count(math.Round(minutes))
		list = append(list, message.Message{ID: id, Args: args})
	}
	if l.Stops != nil && len(l.Stops.Moves) > 0 {
		if cross := l.Stops.Cross.Value; cross.Abs() > trade.MostCross {
			// Over nought the lock side stands off at its foot and touches at its head: the pins'
			// head comes toward you, so that the lock side's does.
			put("after.flush", 2*trade.PackMinutes, Args{
				"top": names[0], "by": message.Near((cross / 4).Abs()), "way": way(cross.MM(), "toward", "away-from"),
				"bottom": names[len(names)-1], "other": way(cross.MM(), "away-from", "toward"),
			})
		}
		var moves message.And
		for _, m := range l.Stops.Moves {
			if m.By.Value.Abs() >= measure.Millimetre/2 {
				moves = append(moves, message.Message{ID: "after.stop", Args: Args{
					"stop": m.StopName(), "end": m.EndName(), "by": message.Near(m.By.Value.Abs()), "way": way(m.By.Value.MM(), "toward", "away-from"),
				}})
			}
		}
		if len(moves) > 0 {
			put("after.stops", trade.StopMinutes, Args{"moves": moves})
		}
	}
	if m := d.Lock.Missed; m != nil && (m.Up != 0 || m.In != 0) {
		var by message.And
		if m.Up != 0 {
			by = append(by, message.Message{ID: "after.strike-along", Args: Args{"by": message.Near(m.Up.Abs()), "way": way(m.Up.MM(), "up", "down")}})
		}
		if m.In != 0 {
			by = append(by, message.Message{ID: "after.strike-across", Args: Args{"by": message.Near(m.In.Abs()), "way": way(m.In.MM(), "toward", "away-from")}})
		}
		put("after.latch", trade.StrikeMove, Args{"moves": by})
	}
	return list
}

// didSays says what was done to a slab, each thing in a few words.
func didSays(did *job.Did, names []message.ID) (list []message.Message) {
	if did == nil {
		return nil
	}
	put := func(id message.ID, args Args) { list = append(list, message.Message{ID: id, Args: args}) }
	for i, m := range did.Pack {
		switch by := message.Exact(m.Abs()); {
		case i >= len(names) || m == 0:
		case m > 0:
			put("did.hinge-out", Args{"name": names[i], "by": by})
		default:
			put("did.hinge-in", Args{"name": names[i], "by": by})
		}
	}
	for i, m := range did.Fore {
		if m != 0 && i < len(names) {
			put("did.hinge-fore", Args{"name": names[i], "by": message.Exact(m.Abs()), "way": way(m.MM(), "toward", "away-from")})
		}
	}
	if did.Up != 0 {
		put("did.hinges-along", Args{"way": way(did.Up.MM(), "up", "down"), "by": message.Near(did.Up.Abs())})
	}
	for _, p := range did.Planed {
		args := Args{"edge": message.Edge(p.Side), "by": message.Near(p.Off[0])}
		if p.Off[0] == p.Off[2] && p.Off[1] <= p.Off[0] {
			put("did.planed", args)
			continue
		}
		args["start"], args["end"], args["endBy"] = message.End{Side: p.Side}, message.End{Side: p.Side, Place: 2}, message.Near(p.Off[2])
		if p.Off[1] > max(p.Off[0], p.Off[2]) {
			args["middle"] = message.Near(p.Off[1])
			put("did.planed-middle", args)
			continue
		}
		put("did.planed-taper", args)
	}
	return list
}

// Uses are the IDs of what a way touches.
func Uses(m try.Means) []string {
	list := []string{}
	for _, k := range TryMeans {
		if m&k.Means != 0 {
			list = append(list, k.ID)
		}
	}
	return list
}

// tries prints what a leaf's tries came to.
func (m *marker) tries(v *Try) {
	if v == nil || len(v.Hangs) == 0 {
		return
	}
	h := v.Hangs[len(v.Hangs)-1]
	m.print(strconv.Itoa(len(v.Hangs)), h.ID, v.Fits, h.Fits)
	for _, g := range h.Gaps {
		m.print(g.Side, int64(g.At), int64(g.Value), g.Sight, g.Struck != "")
	}
}

// Done reports whether a leaf's tries are over: every margin is in and no gap is worth
// reading, or it was called done.
func (v *Try) Done() bool {
	return v != nil && len(v.Hangs) > 0 && (v.Fits && len(v.ToRead) == 0 || v.Hangs[len(v.Hangs)-1].Fits)
}

// May is what may be done to a leaf, by its ID.
type May struct {
	ID   string
	Name message.Message
}

// MayBe are what may be done to a leaf on hinges of some names.
func MayBe(names []message.ID) (list []May) {
	if len(names) == 0 {
		return nil
	}
	for i, k := range TryMeans {
		switch {
		case i < len(names):
			list = append(list, May{k.ID, message.Message{ID: "may.hinge", Args: Args{"hinge": names[i]}}})
		case k.Means >= try.Hinge(0): // there is no such hinge
		default:
			list = append(list, May{k.ID, message.Message{ID: "may." + message.ID(k.ID)}})
		}
	}
	return list
}
