package swings

import (
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
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

// section is a cross-section of a pair's slab at a height, and the other slab's outline.
type section struct {
	slab  swing.Slab
	pin   swing.Pin
	other fit.Outline
	at    float64 // height, mm
}

// otherLeaf is the pair's other leaf, closed, from this one's pin, in convex parts; it has the same bevel.
func otherLeaf(d site.Opening, b site.Bay, on section, bevel float64) [][]swing.Point {
	s, p, other, at := on.slab, on.pin, on.other, on.at
	theirs := swing.Pin{Margin: other.Edges[frame.Hinge].GapAt(at), Out: p.Out}
	thick := d.Slab.Thickness
	if !b.Second {
		thick = d.Pair.Slab.Thickness
	}
	if thick == 0 {
		thick = b.Slab.Thickness
	}
	parts := swing.Slab{
		Width: widthAt(other, at), Thickness: thick.MM(), Bevel: bevel, Meets: s.Meets, Lip: s.Lip, Behind: !s.Behind,
	}.Outlines(theirs)
	across := p.Margin/2 + s.Width + d.Pair.Meeting.MM() + widthAt(other, at) + theirs.Margin/2
	for _, part := range parts {
		for i := range part {
			part[i].X = across - part[i].X
		}
	}
	return parts
}

// edge is a slab's lock edge, what it passes, and the required clearance, in mm.
type edge struct {
	slab   swing.Slab
	pin    swing.Pin
	beside func(bevel float64) [][]swing.Point
	pass   float64
}

// passing is the least clearance between the corners of the slab, or of its halves, and what it passes.
func (e edge) passing(corner int, beside [][]swing.Point) float64 {
	near := math.Inf(1)
	halves, pins := e.slab.Halves(e.pin)
	for i, o := range beside {
		h := min(i, len(halves)-1)
		near = min(near, swing.Passing(halves[h].Corners(pins[h])[corner], o, 0, rightAngle*degree))
	}
	return near
}

// bevel is how much narrower the push face is at the lock edge: set by hand; otherwise the least that leaves the
// required clearance, and on a thick slab at least the usual bevel. An edge rounded to its pins keeps the clearance
// that it has closed.
func (e edge) bevel(d site.Opening, b site.Bay, c swing.Choice) (f figure.Figure, said site.Findings) {
	if e.slab.Meets == swing.Rounded {
		return figure.Sum(0, figure.Term{
			Label: "term.arc", Value: d.Estimate(e.slab.Narrower(e.pin)), Source: figure.Estimate,
		}).Rounded(d.Tape, measure.Up), nil
	}
	if e.slab.Meets == swing.Rebated && e.slab.Behind {
		e.beside = func(float64) [][]swing.Point { return nil } // the other stands open by then
	}
	thick := b.Slab.Thickness
	most := 0.2 * e.slab.Thickness // 11°
	least, possible := swing.LeastBevel(e.slab, e.pin, e.beside, e.pass, most)
	if c.Bevel != nil {
		f = figure.Sum(0, figure.Term{Label: "term.own", Value: *c.Bevel, Source: figure.Choice})
	} else {
		var usual measure.Length
		if thick >= trade.SquareUnder && !b.Slab.IsMachined(frame.Lock) && e.slab.Meets == swing.Plain {
			usual = measure.FromMM(trade.UsualBevel * thick.MM())
		}
		need := measure.FromMM(least).Round(d.Tape.Step(), measure.Up)
		switch {
		case possible && need > usual:
			f = figure.Sum(0, figure.Term{Label: "term.least-bevel", Value: need, Source: figure.Rule})
		default:
			f = figure.Sum(0, figure.Term{
				Label: "term.usual-bevel", Value: usual, Source: figure.Rule,
			}).Rounded(d.Tape, measure.Nearest)
		}
	}
	e.slab.Bevel = f.Value.MM()
	beside := e.beside(e.slab.Bevel)
	const at = "/swing/bevel"
	pass := measure.FromMM(e.pass)
	switch near := e.passing(swing.LockPull, beside); {
	case e.slab.Bevel > most:
		said.Say(site.Stop, job.StepSwing, at, site.BevelTooMuch, message.Args{
			"bevel": f.Value, "thickness": message.Exact(thick), "most": measure.FromMM(most),
		})
	case near < e.pass:
		said.Say(site.Stop, job.StepSwing, "/margins/lock", site.PullFaceTouches, message.Args{
			"passes": message.Fine(measure.FromMM(max(near, 0))), "lack": message.Fine(measure.FromMM(e.pass - near)),
			"pass": pass,
		})
	case !possible:
		said.Say(site.Stop, job.StepSwing, at, site.NoBevelPasses, message.Args{
			"most": measure.FromMM(most), "pass": pass,
		})
	case e.passing(swing.LockPush, beside) < e.pass-0.01:
		said.Say(site.Care, job.StepSwing, at, site.BevelShort, message.Args{
			"needed": message.Fine(measure.FromMM(least)), "pass": pass,
		})
	case !b.Meets && c.Closing == nil &&
		e.passing(swing.LockPush, [][]swing.Point{twisted(c, e.slab, e.pin, beside[0])}) < e.pass/2:
		said.Say(site.Care, job.StepSwing, "/swing/closing", site.TwistUnread, message.Args{
			"over": message.Exact(swing.ClosingOver),
		})
	}
	return f, said
}

// leastBehind is the least distance of the hinge edge's push-face corner from the hinge jamb, in mm: a film of paint.
const leastBehind = 0.5

// relief is how far the hinge edge's push face is planed back where the hinge jamb's face closes in on it; otherwise it
// binds in the last degrees.
func relief(d site.Opening, c swing.Choice, s swing.Slab, p swing.Pin) (f figure.Figure, said site.Findings) {
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
		figure.Term{Label: "term.behind-wanted", Value: measure.FromMM(leastBehind), Source: figure.Rule},
		figure.Term{Label: "term.behind-there", Value: -d.Estimate(near), Source: figure.Estimate},
	).Rounded(d.Tape, measure.Up)
	said.Say(site.Care, job.StepSwing, "/swing/hingeClosing", site.HingeEdgeBinds, message.Args{"by": f.Value})
	return f, said
}

// twisted is a lock jamb that was read as square, with its face closing in by 2°.
func twisted(c swing.Choice, s swing.Slab, p swing.Pin, jamb []swing.Point) []swing.Point {
	face := jamb[0].X + p.Margin/2
	return swing.Jamb{Width: face, Closing: unreadClosing, Forward: c.Forward.MM(), Deep: s.Thickness + 20}.Corners(p)
}

// stopped is the stop on the hinge jamb, or the back of its rebate, behind the slab; it reports where that binds the
// slab before it is shut.
func stopped(c swing.Choice, s swing.Slab, p swing.Pin) (shape []swing.Point, said site.Findings) {
	if c.Stop == 0 {
		return nil, nil
	}
	play := 0.0
	if c.Play != nil {
		play = c.Play.MM()
	}
	shape = swing.Stop(p, s.Thickness, c.Stop.MM(), play)
	if play < 0 {
		// It binds at the stop's end, at that distance from the pins, and holds the lock edge off by the ratio of the
		// distances.
		bears := max(c.Stop.MM()-p.Margin/2, 1)
		said.Say(site.Stop, job.StepSwing, "/swing/play", site.StopSprings, message.Args{
			"by": message.Fine(measure.FromMM(-play)), "off": measure.FromMM(-play * (p.Margin/2 + s.Width) / bears),
		})
	}
	return shape, said
}
