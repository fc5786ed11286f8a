package plan

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
	"kindmargin/core/try"
)

// way puts a way in words, with what would be foretold of it.
func (h *tries) way(d door, w try.Way, names []string) TryWay {
	v := TryWay{Way: w}
	fine := func(mm float64) measure.Length {
		return measure.FromMM(mm).Round(measure.Tapes(d.unit)[0].Step(), measure.Nearest)
	}
	say := func(l measure.Length) string { return measure.Fine(l, measure.Nearest, d.unit) + " " + string(d.unit) }
	for i, m := range w.Moves {
		by := measure.FromMM(m)
		say := func(l measure.Length) string { return measure.Say(l, d.unit) } // of a card, exactly
		v.Did.Pack = append(v.Did.Pack, by)
		switch {
		case m > 0:
			v.Does = append(v.Does, "Pack the "+names[i]+" out by "+say(by)+": wedge the foot, draw its jamb leaf's screws, card behind the leaf, screws home.")
		case m < 0:
			v.Does = append(v.Does, "Let the "+names[i]+" in by "+say(-by)+": take out its packing, or pare its jamb pocket so much deeper, flat.")
		}
	}
	if w.Up != 0 {
		v.Did.Up = measure.FromMM(w.Up)
		v.Does = append(v.Does, "All hinges "+either(w.Up, "up", "down")+" by "+say(v.Did.Up.Abs())+": plug the old holes with glued wood, pilot new ones.")
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
		v.Does = append(v.Does, planes(p, off, len(p.Passes(reach)), w.Hanging, say))
	}
	v.Costs = fmt.Sprintf("%.0f minutes, ", w.Minutes) + either(float64(w.Trips)-0.5, "one trip to the trestles", "no trip")
	if w.Hanging {
		v.Costs += ", planed as it hangs"
	}
	for _, s := range w.Stays {
		by := measure.FromMM(math.Abs(s.By))
		v.Out = append(v.Out, "the "+s.Side.String()+" margin stays "+say(by)+" too "+either(s.By, "wide", "tight")+" at its "+ends[s.Side][s.End])
	}
	h.foretell(d, &v)
	return v
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

// planes says what comes off an edge.
func planes(p try.Planed, off job.Planed, passes int, hanging bool, say func(measure.Length) string) string {
	where := ends[p.Side]
	a, m, b := off.Off[0], off.Off[1], off.Off[2]
	text := "Plane the " + p.Side.Edge() + ": "
	switch {
	case m > max(a, b):
		text += say(m) + " in the middle, running out to " + none(a, say) + " at the " + where[0] + " and " + none(b, say) + " at the " + where[2] + "; the middle first"
	case a == b:
		text += say(a) + " all along"
	case a < b:
		text += say(b) + " at the " + where[2] + " to " + none(a, say) + " at the " + where[0] + "; start at the " + where[2] + " and lengthen each pass"
	default:
		text += say(a) + " at the " + where[0] + " to " + none(b, say) + " at the " + where[2] + "; start at the " + where[0] + " and lengthen each pass"
	}
	text += fmt.Sprintf(", %d passes", passes)
	if passes == 1 {
		text = strings.TrimSuffix(text, "es")
	}
	switch {
	case p.Side == frame.Lock && hanging:
		text += ". It can stay on its hinges: open, its foot wedged."
	case p.Side == frame.Lock:
		text += ". On the trestles, clamped on edge."
	default:
		text += ". On the trestles, in from both ends."
	}
	return text + " Ease the arris and seal it."
}

// way is the word for one way or the other, by whether by is over nought.
func way(by float64, over, under string) message.ID {
	return message.ID("way." + either(by, over, under))
}

func none(l measure.Length, say func(measure.Length) string) string {
	if l == 0 {
		return "nothing"
	}
	return say(l)
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
		args := Args{"side": message.Margin(side), "wanted": measure.FromMM(t.Wanted[side])}
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
		said.say(Care, job.StepTry, at, NothingBringsIn, Args{"out": join(v.Ways[0].Out)})
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
func sights(d door, at string, h job.Hang, names []string) (said findings) {
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
func after(d door, l Leaf, names []string) (list []string) {
	say := func(v measure.Length) string { return measure.Fine(v, measure.Nearest, d.unit) + " " + string(d.unit) }
	costs := func(minutes float64) string { return fmt.Sprintf(" %.0f minutes, no trip.", minutes) }
	if l.Stops != nil && len(l.Stops.Moves) > 0 {
		if cross := l.Stops.Cross.Value; cross.Abs() > trade.MostCross {
			// Over nought the lock side stands off at its foot and touches at its head: the pins'
			// head comes toward you, so that the lock side's does.
			list = append(list, "Flush: move the "+names[0]+" by "+say((cross/4).Abs())+" "+either(cross.MM(), "toward you", "away from you")+" and the "+names[len(names)-1]+
				" as much "+either(cross.MM(), "away from you", "toward you")+"; the stops take up the other half."+costs(2*trade.PackMinutes))
		}
		var moves []string
		for _, m := range l.Stops.Moves {
			if m.By.Value.Abs() >= measure.Millimetre/2 {
				moves = append(moves, "the "+m.Stop+"'s "+m.End+" "+say(m.By.Value.Abs())+either(m.By.Value.MM(), " toward the slab", " away from it"))
			}
		}
		if len(moves) > 0 {
			list = append(list, "Stops: move "+join(moves)+"."+costs(trade.StopMinutes))
		}
	}
	if m := d.Lock.Missed; m != nil && (m.Up != 0 || m.In != 0) {
		var by []string
		if m.Up != 0 {
			by = append(by, say(m.Up.Abs())+either(m.Up.MM(), " up", " down"))
		}
		if m.In != 0 {
			by = append(by, say(m.In.Abs())+either(m.In.MM(), " toward the stop", " away from the stop"))
		}
		list = append(list, "Latch: move the strike "+join(by)+"; not the latch."+costs(trade.StrikeMove))
	}
	return list
}

// didSays says what was done to a slab, each thing in a few words.
func didSays(d door, did *job.Did, names []string) (list []string) {
	if did == nil {
		return nil
	}
	say := func(l measure.Length) string { return measure.Fine(l, measure.Nearest, d.unit) + " " + string(d.unit) }
	for i, m := range did.Pack {
		if m != 0 && i < len(names) {
			list = append(list, names[i]+either(m.MM(), " packed out by ", " let in by ")+measure.Say(m.Abs(), d.unit))
		}
	}
	for i, m := range did.Fore {
		if m != 0 && i < len(names) {
			list = append(list, names[i]+" moved by "+measure.Say(m.Abs(), d.unit)+either(m.MM(), " toward you", " away from you"))
		}
	}
	if did.Up != 0 {
		list = append(list, "all hinges "+either(did.Up.MM(), "up", "down")+" by "+say(did.Up.Abs()))
	}
	for _, p := range did.Planed {
		where := ends[p.Side]
		what := p.Side.Edge() + " planed by " + none(p.Off[0], say)
		if p.Off[0] != p.Off[2] || p.Off[1] > p.Off[0] {
			what += " at the " + where[0]
			if p.Off[1] > max(p.Off[0], p.Off[2]) {
				what += ", " + say(p.Off[1]) + " in the middle"
			}
			what += ", " + none(p.Off[2], say) + " at the " + where[2]
		}
		list = append(list, what)
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

// May are what may be done to a leaf on hinges of some names, as choices.
func May(names []string) (list []Choice[string]) {
	if len(names) == 0 {
		return nil
	}
	for i, k := range TryMeans {
		switch {
		case i < len(names):
			list = append(list, Choice[string]{k.ID, names[i] + " packed or let in", ""})
		case k.Means >= try.Hinge(0): // there is no such hinge
		default:
			list = append(list, Choice[string]{k.ID, k.Name, ""})
		}
	}
	return list
}

// EndName is what a place of a side is called: 0 at its foot or hinge corner, 1 its middle, 2
// at its head or lock corner.
func EndName(side frame.Side, where int) string { return ends[side][where] }
