package hangs

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/try"
)

// way is a way, with the work and the margins that it leaves out, and its prediction.
func (h *tries) way(d site.Opening, w try.Way, names []message.ID) TryWay {
	v := TryWay{Way: w}
	fine := func(mm float64) measure.Length {
		return measure.FromMM(mm).Round(d.Finest().Step(), measure.Nearest)
	}
	does := func(id message.ID, args message.Args) { v.Does = append(v.Does, message.Message{ID: id, Args: args}) }
	for i, m := range w.Moves {
		by := measure.FromMM(m)
		v.Did.Pack = append(v.Did.Pack, by)
		switch { // of a card, exactly
		case m > 0:
			does("do.hinge-out", message.Args{"name": names[i], "by": message.Exact(by)})
		case m < 0:
			does("do.hinge-in", message.Args{"name": names[i], "by": message.Exact(-by)})
		}
	}
	if w.Up != 0 {
		v.Did.Up = measure.FromMM(w.Up)
		does("do.hinges-along", message.Args{
			"way": message.Way(w.Up, "up", "down"), "by": message.Near(v.Did.Up.Abs()),
		})
	}
	length := edgeReach(*h.tried.Made, frame.Hinge)
	for _, p := range w.Planed {
		off := job.Planed{Side: p.Side, Deeper: p.Side == frame.Hinge}
		for i, mm := range p.Off {
			off.Off[i] = fine(mm)
		}
		v.Did.Planed = append(v.Did.Planed, off)
		reach := length
		if !p.Side.Upright() {
			reach = edgeReach(*h.tried.Made, frame.Head)
		}
		if off.Deeper {
			does("do.leaves-off", nil)
		}
		v.Does = append(v.Does, planes(off, len(p.Passes(reach)), w.Hanging))
		if off.Deeper {
			does("do.recesses-deeper", nil)
		}
	}
	v.Costs = costs(w)
	v.Out = outOf(d, w.Stays)
	h.foretell(&v)
	return v
}

// outOf describes margins that are out, by the figures that they are judged by.
func outOf(d site.Opening, list []try.Stays) (out []message.Message) {
	for _, s := range list {
		if measure.FromMM(math.Abs(s.By)) < leastSaid {
			continue
		}
		id, args := message.ID("margin-stays.end"), message.Args{
			"side": message.Margin(s.Side), "gap": message.Fine(measure.FromMM(max(s.Gap, 0))),
			"wanted": message.Fine(measure.FromMM(s.Wanted)), "at": message.End{Side: s.Side, Place: s.End},
		}
		if s.End == 1 {
			id, args["at"] = "margin-stays.between", placeOf(d, s.Side, s.At)
		}
		out = append(out, message.Message{ID: id, Args: args})
	}
	return out
}

// placeOf is a place along a side, to the hand's breadth.
func placeOf(d site.Opening, side frame.Side, at float64) message.Message {
	id := message.ID("place.across")
	if side.Upright() {
		id = "place.up"
	}
	step := 10 * measure.Millimetre
	if d.Unit == measure.Inches {
		step = measure.Inch / 2
	}
	return message.Message{ID: id, Args: message.Args{
		"at": message.Exact(measure.FromMM(at).Round(step, measure.Nearest)),
	}}
}

// nearest says that a slab hangs as near as it gets: what is out, how likely it is that all is in, and what would do
// better.
func nearest(d site.Opening, now try.Way, ways []TryWay) (list message.Sentences) {
	if out := outOf(d, now.Stays); len(out) > 0 {
		list = append(append(list, message.Message{ID: "near.out"}), out...)
	} else {
		list = append(list, message.Message{ID: "near.in", Args: message.Args{"in": message.Chance(now.In)}})
	}
	if len(ways) > 0 {
		list = append(list, message.Message{ID: "near.better", Args: message.Args{"costs": ways[0].Costs}})
	} else {
		list = append(list, message.Message{ID: "near.else"})
	}
	return list
}

// leastSaid is the smallest deviation by which a margin counts as out.
const leastSaid = measure.Millimetre / 20

// costs gives a way's costs.
func costs(w try.Way) message.Message {
	trip := message.ID("trip.none")
	switch {
	case w.Hanging:
		trip = "trip.hanging"
	case w.Trips > 0:
		trip = "trip.once"
	}
	return message.Message{
		ID: "costs", Args: message.Args{"minutes": message.Count(math.Round(w.Minutes)), "trip": trip},
	}
}

// foretell adds the errors of a way's work to its predicted margins.
func (h *tries) foretell(v *TryWay) {
	p := h.prior
	p.Hangs, p.Strays = h.model.hangs(h.tried, &v.Did)
	last := p.Hangs[len(p.Hangs)-1]
	for _, side := range frame.Sides {
		for i, m := range v.Margins[side] {
			row, _ := p.Gap(last, side, m.At)
			v.Margins[side][i].Sigma = math.Sqrt(m.Sigma*m.Sigma + p.Unread(row, len(h.prior.Strays)))
		}
	}
}

// planes is what to plane off an edge, and where that is done.
func planes(p job.Planed, passes int, hanging bool) message.Message {
	a, m, b := p.Off[0], p.Off[1], p.Off[2]
	where := message.ID("plane-where.ends")
	switch {
	case p.Side == frame.Lock && hanging:
		where = "plane-where.hanging"
	case p.Side.Upright():
		where = "plane-where.edge"
	}
	args := message.Args{"edge": message.Edge(p.Side), "passes": message.Count(passes), "where": where}
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

// didSays describes what was done to a slab.
func didSays(did *job.Did, names []message.ID) (list []message.Message) {
	if did == nil {
		return nil
	}
	put := func(id message.ID, args message.Args) { list = append(list, message.Message{ID: id, Args: args}) }
	for i, m := range did.Pack {
		switch by := message.Exact(m.Abs()); {
		case i >= len(names) || m == 0:
		case m > 0:
			put("did.hinge-out", message.Args{"name": names[i], "by": by})
		default:
			put("did.hinge-in", message.Args{"name": names[i], "by": by})
		}
	}
	for i, m := range did.Fore {
		if m != 0 && i < len(names) {
			put("did.hinge-fore", message.Args{
				"name": names[i], "by": message.Exact(m.Abs()), "way": message.Way(m.MM(), "toward", "away-from"),
			})
		}
	}
	if did.Up != 0 {
		put("did.hinges-along", message.Args{
			"way": message.Way(did.Up.MM(), "up", "down"), "by": message.Near(did.Up.Abs()),
		})
	}
	for _, p := range did.Planed {
		args := message.Args{"edge": message.Edge(p.Side), "by": message.Near(p.Off[0])}
		if p.Deeper {
			put("did.recesses-deeper", nil)
		}
		if p.Off[0] == p.Off[2] && p.Off[1] <= p.Off[0] {
			put("did.planed", args)
			continue
		}
		args["start"], args["end"], args["endBy"] = message.End{Side: p.Side}, message.End{
			Side: p.Side, Place: 2,
		}, message.Near(p.Off[2])
		if p.Off[1] > max(p.Off[0], p.Off[2]) {
			args["middle"] = message.Near(p.Off[1])
			put("did.planed-middle", args)
			continue
		}
		put("did.planed-taper", args)
	}
	return list
}

// Uses are the IDs of the means that a way uses.
func Uses(m try.Means) []string {
	list := []string{}
	for _, k := range TryMeans {
		if m&k.Means != 0 {
			list = append(list, k.ID)
		}
	}
	return list
}

// Done reports whether a leaf's tries are over: every margin is in and no gap is worth reading, or it was called done
// by hand.
func (v *Try) Done() bool {
	return v != nil && len(v.Hangs) > 0 && (v.Fits && len(v.ToRead) == 0 || v.Hangs[len(v.Hangs)-1].Fits)
}

// May are the means that may be used on a leaf, by ID.
type May struct {
	ID   string
	Name message.Message
}

// MayBe are the means that may be used on a leaf with hinges of some names.
func MayBe(names []message.ID) (list []May) {
	if len(names) == 0 {
		return nil
	}
	for i, k := range TryMeans {
		switch {
		case i < len(names):
			list = append(list, May{k.ID, message.Message{ID: "may.hinge", Args: message.Args{"hinge": names[i]}}})
		case k.Means >= try.Hinge(0): // there is no such hinge
		default:
			list = append(list, May{k.ID, message.Message{ID: "may." + message.ID(k.ID)}})
		}
	}
	return list
}
