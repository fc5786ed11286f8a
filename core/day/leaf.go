package day

import (
	"math"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// leaf lists the tasks of one leaf.
type leaf struct {
	*listing
	opening   Opening
	plan      plan.Leaf
	slab      slab.Slab
	n         int        // of the opening's leaves
	name      message.ID // of a pair's leaf; empty for a single slab
	cut, hung bool
}

func (l *listing) leafOf(d Opening, n int) *leaf {
	v := leaf{listing: l, opening: d, plan: d.Plan.Leaves[n], slab: d.SlabOf(n), n: n}
	if d.Pair != nil {
		v.name = []message.ID{"day.leaf-on-hinge-jamb", "day.leaf-on-lock-jamb"}[n]
	}
	var tried job.Tried
	if n < len(d.Tried) {
		tried = d.Tried[n]
	}
	v.cut, v.hung = tried.Made != nil || d.Plan.Done(job.StepCut), len(tried.Hangs) > 0
	return &v
}

// add adds a task of the leaf: its work, how many times what is counted in it is done, its setting, whether the slab is
// handled for it, and the tasks that it waits for.
func (l *leaf) add(work string, each int, set Setting, handled bool, after ...[]int) []int {
	p := piece{id: work, work: work, each: each, set: set}
	if l.n == 1 {
		p.id += "-lock-leaf"
	}
	if handled {
		p.lifts = l.slab.Weight()
	}
	got := l.listing.add(l.opening, p, slices.Concat(after...))
	if t := &l.all[got[0]]; l.name != "" {
		t.Name = message.Message{ID: l.name, Args: message.Args{"work": t.Name}}
	}
	return got
}

// tasks lists the tasks of the leaf before its paint, and returns the last ones; ok is false where its slab has to
// acclimatise in the room for longer than is planned, or its hanging waits for a second person.
func (l *leaf) tasks(measured []int) (last []int, ok bool) {
	if c := l.opening.Framed(); c != nil && !c.Stands && l.n == 0 {
		work := "frame"
		if l.opening.Set() != nil {
			work = "set"
		}
		measured = l.add(work, 0, Setting{}, work == "set", measured)
	}
	shaped := measured
	if !l.cut && l.opening.Set() == nil {
		if shaped, ok = l.shaping(measured); !ok {
			return nil, false
		}
	}
	ready := [][]int{shaped}
	if !l.cut && l.opening.Set() == nil {
		ready = append(ready, l.add("seal", 0, settingOf("brush", "sealer"), false, shaped))
	}
	if !l.hung && !l.opening.Plan.Done(job.StepHinges) {
		ready = append(ready, l.hinges(measured, shaped)...)
	}
	var bored []int
	if l.locks() && l.boredFirst() {
		bored = l.bore(shaped)
		ready = append(ready, bored)
	}
	var hangs, fits []int
	if !l.hung {
		if weight := l.slab.Weight(); !l.two && weight > trade.MostAlone {
			l.held = append(l.held, Held{l.opening.Name, message.Message{
				ID: "day.waits-second", Args: message.Args{"weight": message.Mass(weight)},
			}})
			return nil, false
		}
		if hangs = slices.Concat(ready...); l.opening.Set() == nil {
			hangs = l.add("hang", len(l.plan.Hinges), Setting{}, true, ready...)
		}
	}
	if !l.opening.Plan.Done(job.StepTry) {
		fits = l.add("try", 0, Setting{}, true, hangs)
		l.all[fits[0]].Minutes += int(math.Round(l.opening.Plan.Trip * l.job.Kit.TripMinutes()))
		last = fits
	}
	if l.locks() {
		if !l.boredFirst() {
			bored = l.bore(fits, hangs)
			l.all[bored[0]].Place = trade.AtOpening
		}
		set := l.hardware("bush", l.opening.Lock.Hardware)
		last = l.add("strike", max(len(l.plan.Hardware), 1), set, false, fits, hangs, bored)
	}
	if !l.opening.Plan.Done(job.StepStops) {
		last = l.add("stops", 0, Setting{}, false, fits, hangs, last)
	}
	return last, true
}

// locks reports whether its lock is still to go in.
func (l *leaf) locks() bool { return l.plan.Strike && !l.opening.Plan.Done(job.StepLock) }

// came reports whether it came bored: then only its case is fitted.
func (l *leaf) came() bool { return l.slab.CameBored() }

// boredFirst reports whether its lock is bored on the trestles, before it hangs.
func (l *leaf) boredFirst() bool { return l.opening.Lock.When == lock.First && !l.came() }

// bore bores for its hardware, or fits the case of a slab that came bored.
func (l *leaf) bore(after ...[]int) []int {
	work := "bores"
	if l.came() {
		work = "case"
	}
	return l.add(work, max(len(l.plan.Hardware), 1), l.hardware("drill", l.opening.Lock.Hardware), false, after...)
}

// shaping lists the tasks that cut the slab to its outline, and returns the last ones; ok is as for tasks.
func (l *leaf) shaping(measured []int) (shaped []int, ok bool) {
	lain := measured
	if v := l.plan; v.Season != nil && v.Season.Lie > 0 {
		lain = l.add("lie", 0, Setting{}, true)
		k := &l.all[lain[0]]
		k.Dries = v.Season.Lie * dayMinutes
		if k.Dries > LongestWait {
			l.held = append(l.held, Held{
				l.opening.Name,
				message.Message{ID: "day.lies", Args: message.Args{"days": message.Count(v.Season.Lie)}},
			})
			k.Dries = 0
			return nil, false
		}
	}
	edges, tool := edgesCut(l.plan)
	shaped = l.add("cut", edges, tool, true, measured, lain)
	open := 0
	if c := l.plan.Cut; c != nil {
		for _, in := range c.Inserts {
			open += len(in.Ends)
		}
	}
	if open > 0 {
		shaped = l.add("insert", open, settingOf("glue", "insert"), false, shaped)
		if l.Clamps {
			l.all[shaped[0]].Dries = trade.ClampMinutes
		}
	}
	return shaped, true
}

// hinges lists the tasks that let in the leaf's hinges, on slab and jamb.
func (l *leaf) hinges(measured, shaped []int) (ready [][]int) {
	d, v := l.opening, l.plan
	count := max(len(v.Hinges), d.Hinges.Count)
	var depth measure.Length
	if v.Gauges.Depth.Value > 0 {
		depth = v.Gauges.Depth.Value
	}
	tool := Setting{
		"router", depth.String(), message.Message{ID: "sets.router", Args: message.Args{"deep": message.Exact(depth)}},
	}
	fills := 0
	for _, f := range v.Findings {
		if f.Code == site.PocketFill {
			fills++
		}
	}
	var filled []int
	if fills > 0 {
		filled = l.add("fill", fills, settingOf("filler", "wood"), false, measured)
		ready = append(ready, filled)
	}
	if d.Set() != nil { // it hangs in its frame
		return ready
	}
	if !l.slab.IsMachined(frame.Hinge) {
		ready = append(ready, l.add("pockets", count, tool, false, shaped))
	}
	if d.Hinges.From != hinge.FromPockets || fills > 0 {
		ready = append(ready, l.add("jamb", count, tool, false, measured, filled))
	}
	return ready
}

// edgesCut is the number of edges of a leaf that are cut, and the tool for it.
func edgesCut(v plan.Leaf) (edges int, tool Setting) {
	if v.Cut == nil {
		return 4, settingOf("saw", "guide")
	}
	tool = settingOf("plane", "power")
	for e := range v.Cut.InOrder() {
		if e.Deepest() > 0 {
			edges++
		}
		if e.Means.Saws() {
			tool = settingOf("saw", "guide")
		}
	}
	return edges, tool
}
