package plan

import (
	"math"
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// cut lays the outline on the slab, with what is wanted left on, and says what comes off
// each edge. The sheet
// is nil while the slab is not measured. ask are the readings without which it is not to be cut.
func cut(d door, s surveyed, b bay, o fit.Outline, wanted frame.Each[float64], corners [2]figure.Figure) (sheet *CutSheet, laid *fit.Laid, ask []Suggestion, said findings) {
	if missing := b.slab.Missing(); len(missing) > 0 {
		said.say(Care, job.StepSlab, b.at+"/"+missing[0], SlabUnmeasured, Args{"missing": sizeNames(missing)})
		ask, _ = doubts(d, s, o, wanted) // asked for with the other readings, not once the slab is there
		return nil, nil, ask, said
	}
	as := b // as the slab is, whatever its tape reads long
	as.slab, as.reads = b.slab.Less(s.reads[0], s.reads[1]), s.reads
	way, said := lay(d, s, as, o, corners[1])
	first := fit.Lay(way.outline, wanted, as.slab, way.chosen.Laying)
	kept := first.Left
	for side := range kept {
		kept[side] = min(kept[side], wanted[side])
	}
	ask, more := doubts(d, s, o, kept)
	said = append(said, more...)
	said = append(said, lacks(d, wanted, first)...)

	sheet = &CutSheet{
		Laying: way.chosen.Laying, Rules: way.rules, Others: way.ways,
		Weight: b.slab.Weight(), Inserts: first.Inserts(b.slab),
	}
	said = append(said, limits(d, b, way.chosen, first, o)...)
	said = append(said, shorts(d, b, first)...)
	for _, side := range frame.Sides {
		left := first.Left[carries(side, first.Across)]
		// Lock edge and foot are marked with what is really marked off across from them.
		var across []Mark
		switch side {
		case frame.Lock:
			across = sheet.Edges[1].Marks
		case frame.Foot:
			across = sheet.Edges[0].Marks
		}
		edge := edgeCut(d, as, o, side, first, left, across)
		sheet.Edges = append(sheet.Edges, edge)
		if d.leaveOn() == job.WhenSure && first.Left[side] > mostSure {
			said.say(Care, job.StepCut, "", HardlySure, Args{"edge": message.Edge(side), "wall": message.Wall(side), "left": measure.FromMM(first.Left[side])})
		}
	}
	sheet.Width, sheet.Length = checks(d, as, sheet.Edges, first)
	return sheet, &first, ask, said
}

// mostSure is the leave-on, in mm, past which a cut is hardly one near the line.
const mostSure = 6

// leaveOn is what is to be left on each edge at the first cut, in mm. By the rule it is
// less half a mark of the tape, since each cut is rounded so that on average so much
// more stays on.
func leaveOn(d door, o fit.Outline) (leave frame.Each[float64]) {
	switch d.leaveOn() {
	case job.WhenSure:
		for side, mm := range o.LeaveOn(d.cutting()) {
			leave[side] = max(mm-d.rounded(frame.Side(side)), 0)
		}
	case job.Always3:
		three := measure.FromMM(3).Round(d.tape.Step(), measure.Up).MM()
		leave[frame.Lock], leave[frame.Foot] = three, three
	}
	return leave
}

// rounded is what stays on an edge on average because its cuts are rounded to the tape, mm. The head keeps
// nothing by it: it is hung by its finished hinge corner, so what rounding leaves on there is lost at the
// lock corner.
func (d door) rounded(side frame.Side) float64 {
	if side == frame.Head && d.rules > rules1 {
		return 0
	}
	return d.tape.Step().MM() / 2
}

// cutting is the usual sureness with a tape: a cut strays from its line, its line
// from the figure by the tape's rounding, and the packers or the head's mark that it is
// hung to by as much (uniform errors; JCGM 100:2008, 4.3.7); and the slab from its own sizes.
func (d door) cutting() fit.Sureness {
	s, step := fit.Common, d.tape.Step().MM()
	if d.rules == rules1 {
		s.Risk = fit.Risk1
	}
	s.Cut = math.Sqrt(s.Cut*s.Cut + 2*step*step/12)
	if d.rules > rules1 {
		s.Slab = d.slabRead()
	}
	return s
}

// slabRead is how sure the slab's own size and squareness are, a standard deviation in mm; nought where
// what read the opening is carried to it.
func (d door) slabRead() float64 {
	_, sigma := d.kit.Tools.OnSlab()
	if sigma == 0 {
		return 0
	}
	return math.Hypot(sigma, d.tape.Step().MM()/math.Sqrt(12))
}

// lacks says where less can be left on than should be.
func lacks(d door, wanted frame.Each[float64], laid fit.Laid) (said findings) {
	if len(laid.Short) > 0 {
		return nil
	}
	for _, side := range frame.Sides {
		if lack := wanted[side] - laid.Left[side]; lack > d.tape.Step().MM()/2 {
			said.say(Care, job.StepCut, "", NoLeaveOn, Args{
				"edge": message.Edge(side), "wanted": measure.FromMM(wanted[side]),
				"left": measure.FromMM(laid.Left[side]), "lack": measure.FromMM(lack),
			})
		}
	}
	return said
}

// leaveOn is what is left on at the first cut: nothing of a slab that its frame is made to.
func (d door) leaveOn() job.Habit {
	if d.Framed() != nil {
		return job.ToLine
	}
	return d.Cut.LeaveOn
}

// mostWide is how much wider than the slab asks a frame may stand: what fits a margin. Common practice.
const mostWide = measure.Millimetre

// shorts says where the slab does not reach the outline.
func shorts(d door, b bay, laid fit.Laid) (said findings) {
	for _, x := range laid.Short {
		if d.Framed() != nil && !x.Side.Upright() {
			continue // its feet are cut or packed: see stands
		}
		if d.Framed() != nil { // a frame can still be moved
			gravity := Note
			if measure.FromMM(x.By) > mostWide {
				gravity = Stop
			}
			said.say(gravity, job.StepMeasure, "/lining", FrameWide, Args{"side": message.Margin(x.Side), "edge": message.Edge(x.Side), "at": measure.FromMM(x.At), "by": message.Fine(measure.FromMM(x.By))})
			continue
		}
		field, code := "/length", TooShort
		if x.Side.Upright() {
			field, code = "/width", TooNarrow
		}
		said.say(Stop, job.StepSlab, b.at+field, code, Args{"side": message.Margin(x.Side), "edge": message.Edge(x.Side), "at": measure.FromMM(x.At), "by": measure.FromMM(x.By)})
	}
	return said
}

// carries is the side whose leave-on is found on an edge: what is left on
// for the lock margin stays on whichever long edge is cut.
func carries(edge frame.Side, r fit.Registration) frame.Side {
	switch {
	case edge == frame.Hinge && r == fit.KeepLock:
		return frame.Lock
	case edge == frame.Lock && r == fit.KeepLock:
		return frame.NoSide
	}
	return edge
}

// mostPlaned is how much a plane takes off in passes; past it a saw goes first.
// Common practice.
const mostPlaned = 6 * measure.Millimetre

// edgeCut marks one edge; left is what stays on there for now, in mm; across are the
// marks of the edge across from it, where those come first.
func edgeCut(d door, b bay, o fit.Outline, side frame.Side, laid fit.Laid, left float64, across []Mark) EdgeCut {
	e := EdgeCut{Side: side, Left: figure.Sum(
		0, figure.Term{Label: leftLabel[d.leaveOn()], Value: d.est(left), Source: figure.Rule},
	).Rounded(d.tape, measure.Nearest)}
	reach := b.slab.Width
	if side.Upright() {
		reach = b.slab.Length
	}
	var deepest measure.Length
	for k, c := range laid.Cuts[side] {
		if across != nil {
			c.OtherCut = across[k].Depth.Value.MM()
		}
		sigma := sigmaAt(o, side, c.At/reach.MM())
		m := Mark{measure.FromMM(c.At).Round(d.tape.Step(), measure.Nearest), depth(d, b, side, c, sigma)}
		deepest = max(deepest, m.Depth.Value)
		e.Marks = append(e.Marks, m)
	}
	scribed := o.Edges[side].Scribed
	e.Method = trade.Method(deepest)
	e.Says = advice(e, deepest, scribed)
	if n := len(e.Marks); deepest > 0 && deepest < mostPlaned && !scribed {
		e.Passes = fit.Passes(e.Marks[0].Depth.Value.MM(), e.Marks[n-1].Depth.Value.MM(), reach.MM(), 1)
	}
	return e
}

// sigmaAt is how sure the cut at a share of an edge (from its head, or from its
// hinge corner) is: as sure as the margin that it makes.
func sigmaAt(o fit.Outline, side frame.Side, share float64) float64 {
	of := side
	if side == frame.Hinge {
		of = frame.Lock // the width is judged at the lock margin
	}
	gaps := o.Edges[of].Gaps
	if side.Upright() {
		share = 1 - share
	}
	return gaps[int(math.Round(min(max(share, 0), 1)*float64(len(gaps)-1)))].Sigma
}

// depth is the figure of one mark with its terms.
func depth(d door, b bay, side frame.Side, c fit.Cut, sigma float64) figure.Figure {
	terms := make([]figure.Term, 0, 7)
	exact := 0.0
	add := func(label message.ID, mm float64, from figure.Source, sd float64) {
		exact += mm
		if v := d.est(mm); v != 0 || from == figure.Reading {
			terms = append(terms, figure.Term{Label: label, Value: v, Source: from, Sigma: sd})
		}
	}
	own := func(label message.ID, long float64) {
		add(label, c.Whole+long, figure.Reading, 0)
		wrong := message.ID("term.reads-long")
		if long < 0 {
			wrong = "term.reads-short"
		}
		add(wrong, -long, figure.Estimate, 0)
	}
	switch side {
	case frame.Head:
		add("term.head-falls", c.Opening, figure.Estimate, sigma)
		add("term.margin-here-there", c.NearGap, figure.Estimate, 0)
		add("term.shared", c.Shared, figure.Choice, 0)
	case frame.Foot:
		own("term.slab-length-here", b.reads[1])
		add("term.opening-long-here", -c.Opening, figure.Estimate, sigma)
		add("term.head-margin-here", c.FarGap, figure.Choice, 0)
		add("term.foot-margin-here", c.NearGap, figure.Choice, 0)
		add("term.off-head-here", -c.OtherCut, figure.Estimate, 0)
	default:
		own("term.slab-width-here", b.reads[0])
		add("term.opening-wide-here", -c.Opening, figure.Estimate, sigma)
		near, far, off := message.ID("term.hinge-margin-here-cut"), message.ID("term.lock-margin-here-cut"), message.ID("term.off-lock-here")
		if side == frame.Lock {
			near, far, off = far, near, "term.off-hinge-here"
		}
		add(near, c.NearGap, figure.Choice, 0)
		add(far, c.FarGap, figure.Choice, 0)
		add(off, -c.OtherCut, figure.Estimate, 0)
	}
	add("term.left-on", -c.Left, figure.Rule, 0)
	f := figure.Sum(sigma, terms...)
	if f.Value < 0 {
		f.Terms = append(f.Terms, figure.Term{Label: "term.nothing-off", Value: -f.Value, Source: figure.Rule})
		f.Value = 0
	}
	if d.rules == rules1 {
		return f.Rounded(d.tape, measure.Down)
	}
	return f.Within(d.tape, measure.FromMM(max(exact, 0)))
}

// checks are the slab's own sizes less the marks on both sides of it, as what measured it reads them.
func checks(d door, b bay, edges []EdgeCut, laid fit.Laid) (width, length [3]figure.Figure) {
	marked := func(side frame.Side, k int) measure.Length {
		return edges[slices.Index(frame.Sides[:], side)].Marks[k].Depth.Value
	}
	for i, label := range []message.ID{"term.slab-width-head", "term.slab-width-middle", "term.slab-width-foot"} {
		k := 2 * i
		own := d.est(laid.Cuts[frame.Hinge][k].Whole + b.reads[0])
		width[i] = figure.Sum(
			0,
			figure.Term{Label: label, Value: own, Source: figure.Reading},
			figure.Term{Label: "term.marked-hinge", Value: -marked(frame.Hinge, k), Source: figure.Choice},
			figure.Term{Label: "term.marked-lock", Value: -marked(frame.Lock, k), Source: figure.Choice},
		)
	}
	for i, label := range []message.ID{"term.slab-length-hinge", "term.slab-length-middle", "term.slab-length-lock"} {
		own := d.est(laid.Cuts[frame.Head][i].Whole + b.reads[1])
		length[i] = figure.Sum(
			0,
			figure.Term{Label: label, Value: own, Source: figure.Reading},
			figure.Term{Label: "term.marked-head", Value: -marked(frame.Head, i), Source: figure.Choice},
			figure.Term{Label: "term.marked-foot", Value: -marked(frame.Foot, i), Source: figure.Choice},
		)
	}
	return width, length
}

// bevel says how the lock edge is bevelled once it is down to its line.
func (c *CutSheet) bevel(d door, bevel figure.Figure) {
	if bevel.Value == 0 {
		return
	}
	e := &c.Edges[slices.IndexFunc(c.Edges, func(e EdgeCut) bool { return e.Side == frame.Lock })]
	e.Bevel = bevel
	e.Says = append(e.Says, message.Message{ID: "cut.bevel", Args: Args{"by": bevel.Value}})
}

// sizeNames are sizes of a slab by the names of their fields.
func sizeNames(fields []string) (list message.And) {
	for _, f := range fields {
		list = append(list, message.ID("slab-size."+f))
	}
	return list
}
