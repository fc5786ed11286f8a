package cuts

import (
	"cmp"
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Sawing is how an edge is sawn before it is planed to its line.
type Sawing struct {
	// Clamps are the marks for the guide's edge, at the edge's first and last end; none for a table saw.
	Clamps []Clamp
	Fence  figure.Figure // of a table saw: from the blade
	Steps  []message.Message
}

// Figures are those that guide or fence is set to.
func (s Sawing) Figures() (list []figure.Figure) {
	for _, c := range s.Clamps {
		list = append(list, c.Along)
	}
	if len(s.Clamps) == 0 {
		list = append(list, s.Fence)
	}
	return list
}

// sawCut is a saw cut, with what decides whether it is made.
type sawCut struct {
	Sawing
	means trade.Means
	off   [2]measure.Length // what the saw takes at the edge's first and last end
	fixed float64           // minutes before the saw runs
}

// Clamp is one mark for a guide: along the edge beside the cut, from the corner as it is by then.
type Clamp struct {
	Along figure.Figure
	End   frame.Side // head or foot: with Edge the corner
	Edge  frame.Side // hinge or lock
	On    frame.Side // the edge that it is measured along
}

// Corner is the name of the corner.
func (c Clamp) Corner() message.ID {
	return "corner." + message.ID(c.End.String()) + "-" + message.ID(c.Edge.String())
}

// EdgeWay is a means for an edge, and the minutes that it takes beside those of every edge.
type EdgeWay struct {
	Means   trade.Means
	Minutes float64
}

// Named is a way in a few words: a taper that is planed says in how many passes.
func (e Edge) Named(w EdgeWay) message.Message {
	first, last := e.ends()
	passes := fit.Passes(first.MM(), last.MM(), 1, 1)
	if w.Means.Saws() || first == last || len(passes) < 2 {
		return message.Message{ID: w.Means.Name()}
	}
	id := message.ID("method.power-plane-taper")
	if w.Means == trade.ByHandPlane {
		id = "method.hand-plane-taper"
	}
	return message.Message{ID: id, Args: message.Args{"passes": message.Count(len(passes))}}
}

// decide chooses how an edge is cut: as a hand chose, otherwise by the fewer minutes.
func (o laidOut) decide(sheet *List, e *Edge) (said site.Findings) {
	scribed := o.outline.Edges[e.Side].Scribed
	defer func() { e.Says = advice(*e, scribed) }()
	asked := o.Cut.Means.Of(e.Side)
	deepest := e.Deepest()
	if deepest == 0 {
		e.Means = trade.Untouched
		return nil
	}
	long, mean := o.reach(e.Side), e.mean()
	plane := EdgeWay{trade.PlaneFor(deepest), trade.PlaningMinutes(e.Side, mean, deepest, long)}
	e.Ways = []EdgeWay{plane}
	s, refused := o.saw(sheet, *e)
	if s == nil {
		if asked == trade.BySaw {
			said.Say(site.Stop, job.StepCut, "/cut/means/"+e.Side.String(), refused.code, refused.args)
		}
	} else {
		left, most := e.leftBy(*s)
		e.Ways = append(e.Ways, EdgeWay{
			s.means, s.fixed + trade.SawMinutes*long/1000 + trade.PlaningMinutes(e.Side, left, most, long),
		})
	}
	slices.SortStableFunc(e.Ways, func(a, b EdgeWay) int { return cmp.Compare(a.Minutes, b.Minutes) })
	chosen := e.Ways[0]
	for _, w := range e.Ways {
		if asked != "" && w.Means.Saws() == asked.Saws() {
			chosen = w
		}
	}
	e.Means = chosen.Means
	if s != nil && chosen.Means.Saws() {
		e.Sawing = &s.Sawing
	}
	if first, last := e.ends(); e.Sawing == nil && !scribed {
		e.Passes = fit.Passes(first.MM(), last.MM(), long, 1)
	}
	return said
}

// refusal is why an edge cannot be sawn.
type refusal struct {
	code site.Code
	args message.Args
}

// saw is how an edge is sawn with the kit's saw; nil with a refusal where it cannot be.
func (o laidOut) saw(sheet *List, e Edge) (*sawCut, refusal) {
	saw := o.Kit.Saw
	through := o.bay.Slab.Thickness + trade.BladeThrough
	if g := saw.Guided(); !g.Offset {
		through += trade.GuideUnder // the saw rides on it
	}
	table := saw.Table && e.Side.Upright()
	if saw.Depth > 0 && saw.Depth < through && !table {
		return nil, refusal{site.SawShallow, message.Args{
			"depth": message.Exact(saw.Depth), "wanted": message.Exact(through),
		}}
	}
	if table {
		if s := o.ripped(sheet, e); s != nil {
			return s, refusal{}
		}
	}
	s := o.guided(sheet, e)
	if least := min(s.off[0], s.off[1]); least < saw.Kerf() {
		end := 0
		if s.off[1] < s.off[0] {
			end = 2
		}
		code := site.SawKerf
		if least <= 0 {
			code = site.SawNothing
		}
		return nil, refusal{code, message.Args{
			"edge": message.Edge(e.Side), "kerf": message.Near(saw.Kerf()), "off": message.Near(max(least, 0)),
			"end": endOf(e.Side, end),
		}}
	}
	return s, refusal{}
}

// guided is a straight cut along a clamped guide, off the line by trade.SawKeep, and past no mark of the edge.
func (o laidOut) guided(sheet *List, e Edge) *sawCut {
	saw := o.Kit.Saw
	first, last := e.ends()
	past := e.past(first, last)
	keep := trade.SawKeep(o.Unit) + past
	s := &sawCut{
		means: trade.BySaw, off: [2]measure.Length{first - keep, last - keep},
		fixed: saw.Guided().Minutes + trade.ScoreMinutes*float64(o.prepared(e.Side)),
	}
	near, far := saw.Sides()
	in, outside := near, saw.Outside && min(s.off[0], s.off[1])-far >= trade.ClampRoom
	if outside {
		in = -far
	}
	g := fit.Guided{Edge: o.uncut(e.Side), Cut: o.line(e, keep), In: in.MM()}
	beside := [2]frame.Side{frame.Head, frame.Foot}
	if !e.Side.Upright() {
		beside = [2]frame.Side{frame.Hinge, frame.Lock}
	}
	for i, side := range beside {
		g.Beside[i] = o.uncut(side)
		if sheet.before(side, e.Side) {
			g.Beside[i] = o.line(sheet.Edges[side], 0)
		}
	}
	for i, along := range g.Clamps() {
		at := figure.Sum(
			0,
			figure.Term{Label: "term.saw-depth-here", Value: o.Estimate(along) + keep - in, Source: figure.Estimate},
			figure.Term{Label: "term.saw-off-line", Value: past - keep, Source: figure.Rule},
		)
		if past > 0 {
			at.Terms = append(at.Terms, figure.Term{Label: "term.saw-past", Value: -past, Source: figure.Rule})
			at.Value -= past
		}
		if in != 0 {
			label := message.ID("term.saw-near")
			if outside {
				label = "term.saw-far"
			}
			at.Terms = append(at.Terms, figure.Term{Label: label, Value: in, Source: figure.Choice})
			at.Value += in
		}
		c := Clamp{Along: at.Within(o.Tape, measure.FromMM(along)), On: beside[i], End: e.Side, Edge: beside[i]}
		if e.Side.Upright() {
			c.End, c.Edge = c.Edge, c.End
		}
		s.Clamps = append(s.Clamps, c)
	}
	s.Steps = o.sawSteps(e, *s, outside)
	return s
}

// ripped is a cut on a table saw, parallel to the edge across; nil where the edge tapers too far for it.
func (o laidOut) ripped(sheet *List, e Edge) *sawCut {
	across := frame.Lock
	if e.Side == frame.Lock {
		across = frame.Hinge
	}
	keep := trade.SawKeep(o.Unit)
	stands := func(k int) measure.Length { // the width before this cut
		w := o.Estimate(o.laid.Cuts[e.Side][k].Whole + o.bay.Reads[0])
		if sheet.before(across, e.Side) {
			w -= sheet.Edges[across].Marks[k].Depth.Value
		}
		return w
	}
	widest := 0
	for k := range e.Marks {
		if stands(k)-e.Marks[k].Depth.Value > stands(widest)-e.Marks[widest].Depth.Value {
			widest = k
		}
	}
	fence := figure.Sum(
		0,
		figure.Term{Label: "term.slab-stands", Value: stands(widest), Source: figure.Reading},
		figure.Term{Label: "term.saw-depth-here", Value: -e.Marks[widest].Depth.Value, Source: figure.Estimate},
		figure.Term{Label: "term.saw-off-line", Value: keep, Source: figure.Rule},
	).Rounded(o.Tape, measure.Up)
	last := len(e.Marks) - 1
	s := &sawCut{
		Sawing: Sawing{Fence: fence}, means: trade.ByTableSaw, fixed: trade.TableMinutes,
		off: [2]measure.Length{stands(0) - fence.Value, stands(last) - fence.Value},
	}
	for k := range e.Marks {
		if stands(k)-fence.Value < o.Kit.Saw.Kerf() {
			return nil
		}
	}
	s.Steps = o.sawSteps(e, *s, false)
	return s
}

// ends are the depths at the first and the last mark.
func (e Edge) ends() (first, last measure.Length) {
	return e.Marks[0].Depth.Value, e.Marks[len(e.Marks)-1].Depth.Value
}

// Deepest is the most that comes off the edge.
func (e Edge) Deepest() (deepest measure.Length) {
	for _, m := range e.Marks {
		deepest = max(deepest, m.Depth.Value)
	}
	return deepest
}

// past is how far a straight line between two depths at the ends goes past the marks between them.
func (e Edge) past(first, last measure.Length) (by measure.Length) {
	n := measure.Length(len(e.Marks) - 1)
	for k, m := range e.Marks {
		by = max(by, first+(last-first)*measure.Length(k)/n-m.Depth.Value)
	}
	return by
}

// mean is the mean depth along the edge, whose marks stand evenly.
func (e Edge) mean() (sum measure.Length) {
	for k := range e.Marks[1:] {
		sum += (e.Marks[k].Depth.Value + e.Marks[k+1].Depth.Value) / 2
	}
	return sum / measure.Length(len(e.Marks)-1)
}

// leftBy is what a saw leaves for the plane: the mean, and the most.
func (e Edge) leftBy(s sawCut) (mean, most measure.Length) {
	n := measure.Length(len(e.Marks) - 1)
	for k, m := range e.Marks {
		most = max(most, m.Depth.Value-s.off[0]-(s.off[1]-s.off[0])*measure.Length(k)/n)
	}
	return e.mean() - (s.off[0]+s.off[1])/2, most
}
