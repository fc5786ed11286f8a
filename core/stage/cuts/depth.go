package cuts

import (
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
)

// carries is the side whose leave-on is on an edge: that of the lock margin is on whichever long edge is cut.
func carries(edge frame.Side, r fit.Registration) frame.Side {
	switch {
	case edge == frame.Hinge && r == fit.KeepLock:
		return frame.Lock
	case edge == frame.Lock && r == fit.KeepLock:
		return frame.NoSide
	}
	return edge
}

// laidOut is an outline laid on a bay's slab.
type laidOut struct {
	site.Opening
	bay     site.Bay
	outline fit.Outline
	laid    fit.Laid
}

// mark marks one edge. left is what stays on for now, in mm; across are the marks of the opposite edge, where those
// come first.
func (o laidOut) mark(side frame.Side, left float64, across []site.Mark) Edge {
	e := Edge{Side: side, Left: figure.Sum(
		0, figure.Term{Label: leftLabel[o.Habit()], Value: o.Estimate(left), Source: figure.Rule},
	).Rounded(o.Tape, measure.Nearest)}
	reach := o.reach(side)
	for k, c := range o.laid.Cuts[side] {
		if across != nil {
			c.OtherCut = across[k].Depth.Value.MM()
		}
		sigma := sigmaAt(o.outline, side, c.At/reach)
		m := site.Mark{
			At: measure.FromMM(c.At).Round(o.Tape.Step(), measure.Nearest), Depth: depth(o.Opening, o.bay, side, c, sigma),
		}
		e.Marks = append(e.Marks, m)
	}
	return e
}

// sigmaAt is the standard deviation of the cut at a share of an edge (from its head, or from its hinge corner): that of
// the margin there.
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

// depth is the figure of one mark, with its terms.
func depth(d site.Opening, b site.Bay, side frame.Side, c fit.Cut, sigma float64) figure.Figure {
	terms := make([]figure.Term, 0, 7)
	exact := 0.0
	add := func(label message.ID, mm float64, from figure.Source, sd float64) {
		exact += mm
		if v := d.Estimate(mm); v != 0 || from == figure.Reading {
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
		own("term.slab-length-here", b.Reads[1])
		add("term.opening-long-here", -c.Opening, figure.Estimate, sigma)
		add("term.head-margin-here", c.FarGap, figure.Choice, 0)
		add("term.foot-margin-here", c.NearGap, figure.Choice, 0)
		add("term.off-head-here", -c.OtherCut, figure.Estimate, 0)
	default:
		own("term.slab-width-here", b.Reads[0])
		add("term.opening-wide-here", -c.Opening, figure.Estimate, sigma)
		near, far, off := message.ID("term.hinge-margin-here-cut"), message.ID("term.lock-margin-here-cut"), message.ID(
			"term.off-lock-here",
		)
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
	if d.Rules == site.Rules1 {
		return f.Rounded(d.Tape, measure.Down)
	}
	return f.Within(d.Tape, measure.FromMM(max(exact, 0)))
}

// checks are the slab's own sizes less the marks on both sides, as its tape reads them.
func checks(d site.Opening, b site.Bay, edges frame.Each[Edge], laid fit.Laid) (width, length [3]figure.Figure) {
	marked := func(side frame.Side, k int) measure.Length {
		return edges[side].Marks[k].Depth.Value
	}
	for i, label := range []message.ID{"term.slab-width-head", "term.slab-width-middle", "term.slab-width-foot"} {
		k := 2 * i
		own := d.Estimate(laid.Cuts[frame.Hinge][k].Whole + b.Reads[0])
		width[i] = figure.Sum(
			0,
			figure.Term{Label: label, Value: own, Source: figure.Reading},
			figure.Term{Label: "term.marked-hinge", Value: -marked(frame.Hinge, k), Source: figure.Choice},
			figure.Term{Label: "term.marked-lock", Value: -marked(frame.Lock, k), Source: figure.Choice},
		)
	}
	for i, label := range []message.ID{"term.slab-length-hinge", "term.slab-length-middle", "term.slab-length-lock"} {
		own := d.Estimate(laid.Cuts[frame.Head][i].Whole + b.Reads[1])
		length[i] = figure.Sum(
			0,
			figure.Term{Label: label, Value: own, Source: figure.Reading},
			figure.Term{Label: "term.marked-head", Value: -marked(frame.Head, i), Source: figure.Choice},
			figure.Term{Label: "term.marked-foot", Value: -marked(frame.Foot, i), Source: figure.Choice},
		)
	}
	return width, length
}
