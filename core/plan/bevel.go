package plan

import (
	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
)

func lockJamb(c swing.Choice, p swing.Pin, s swing.Slab, gap float64) swing.Jamb {
	j := swing.Jamb{Width: p.Margin + s.Width + gap, Forward: c.Forward.MM(), Deep: s.Thickness + 20}
	if c.Closing != nil {
		j.Closing = c.Closing.MM() / swing.ClosingOver.MM()
	}
	return j
}

// otherLeaf is the pair's other leaf, closed, from this one's pin; it has the same bevel.
func otherLeaf(d door, b bay, s swing.Slab, p swing.Pin, other fit.Outline, at, bevel float64) []swing.Point {
	theirs := swing.Pin{Margin: other.Edges[frame.Hinge].GapAt(at), Out: p.Out}
	thick := d.Slab.Thickness
	if !b.second {
		thick = d.Pair.Slab.Thickness
	}
	if thick == 0 {
		thick = b.slab.Thickness
	}
	list := swing.Slab{Width: widthAt(other, at), Thickness: thick.MM(), Bevel: bevel}.Corners(theirs)
	across := p.Margin/2 + s.Width + d.Pair.Meeting.MM() + widthAt(other, at) + theirs.Margin/2
	for i := range list {
		list[i].X = across - list[i].X
	}
	return list
}

// bevel is how much narrower the push face is at the lock edge: as set by hand; else as
// much as it needs to pass by so much, and on a thick slab the usual bevel at least.
func bevel(d door, b bay, c swing.Choice, s swing.Slab, p swing.Pin, beside func(float64) []swing.Point, pass float64) (f figure.Figure, said findings) {
	thick := b.slab.Thickness
	most := 0.2 * s.Thickness // 11°
	least, possible := swing.LeastBevel(s, p, beside, pass, most)
	if c.Bevel != nil {
		f = figure.Sum(0, figure.Term{Label: "set for this door", Value: *c.Bevel, Source: figure.Choice})
	} else {
		var usual measure.Length
		if thick >= trade.SquareUnder && !b.slab.IsMachined(frame.Lock) {
			usual = measure.FromMM(trade.UsualBevel * thick.MM())
		}
		need := measure.FromMM(least).Round(d.tape.Step(), measure.Up)
		switch {
		case possible && need > usual:
			f = figure.Sum(0, figure.Term{Label: "least with which the push face's corner passes", Value: need, Source: figure.Rule})
		default:
			f = figure.Sum(0, figure.Term{Label: "1/8 in in 2 in, from 1 1/2 in thick up", Value: usual, Source: figure.Rule}).Rounded(d.tape, measure.Nearest)
		}
	}
	s.Bevel = f.Value.MM()
	corners := s.Corners(p)
	passing := func(corner int, beside []swing.Point) float64 {
		return swing.Passing(corners[corner], beside, 0, rightAngle*degree)
	}
	const at = "/swing/bevel"
	switch near := passing(swing.LockPull, beside(s.Bevel)); {
	case near < pass:
		said.say(Stop, job.StepSwing, "/margins/lock", PullFaceTouches, Args{"passes": Finely(measure.FromMM(max(near, 0))), "lack": Finely(measure.FromMM(pass - near)), "pass": measure.FromMM(pass)})
	case !possible:
		said.say(Stop, job.StepSwing, at, NoBevelPasses, Args{"most": measure.FromMM(most), "pass": measure.FromMM(pass)})
	case passing(swing.LockPush, beside(s.Bevel)) < pass-0.01:
		said.say(Care, job.StepSwing, at, BevelShort, Args{"needed": Finely(measure.FromMM(least)), "pass": measure.FromMM(pass)})
	case !b.meets && c.Closing == nil && passing(swing.LockPush, twisted(c, s, p, beside(0))) < pass/2:
		said.say(Care, job.StepSwing, "/swing/closing", TwistUnread, Args{"over": Exact(swing.ClosingOver)})
	}
	return f, said
}

// leastBehind is what the hinge edge's push-face corner keeps from the hinge jamb, mm: a
// film of paint and no more.
const leastBehind = 0.5

// relief is how far the hinge edge's push face is planed back where the hinge jamb's face
// closes in on it: else it touches in the last degrees, and the door springs open.
func relief(d door, c swing.Choice, s swing.Slab, p swing.Pin) (f figure.Figure, said findings) {
	if c.HingeClosing == nil {
		return f, nil
	}
	jamb := swing.HingeJamb(p, c.HingeClosing.MM()/swing.ClosingOver.MM(), s.Thickness+20)
	near := swing.Passing(s.Corners(p)[swing.HingePush], jamb, 0, rightAngle*degree)
	if near >= leastBehind {
		return f, nil
	}
	f = figure.Sum(
		0,
		figure.Term{Label: "wanted behind the hinge edge", Value: measure.FromMM(leastBehind), Source: figure.Rule},
		figure.Term{Label: "what is there, by the jamb's face", Value: -d.est(near), Source: figure.Estimate},
	).Rounded(d.tape, measure.Up)
	said.say(Care, job.StepSwing, "/swing/hingeClosing", HingeEdgeBinds, Args{"by": f.Value})
	return f, said
}

// twisted is a lock jamb, square as it was read, were its face to close in by 2°.
func twisted(c swing.Choice, s swing.Slab, p swing.Pin, jamb []swing.Point) []swing.Point {
	face := jamb[0].X + p.Margin/2
	return swing.Jamb{Width: face, Closing: unreadClosing, Forward: c.Forward.MM(), Deep: s.Thickness + 20}.Corners(p)
}
