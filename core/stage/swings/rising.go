package swings

import (
	"math"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/swing"
)

// riseOf is how far a rising hinge lifts the slab in 90°, in mm; 0 for any other.
func riseOf(d site.Opening) float64 {
	h, _ := d.Kit.Hinge(d.Hinges.Size)
	return h.Rise.MM()
}

// overHead is the clearance of a rising slab's top from the head, in mm.
const overHead = 1

// risingHead is how far the push side of a rising slab's head is eased: a place of it at a distance x from the pin
// leaves the opening where x sin φ − (k + t) cos φ = −k, and has risen in proportion to φ by then.
func risingHead(d site.Opening, s swing.Slab, p swing.Pin, o fit.Outline) (said site.Findings) {
	rise := riseOf(d)
	if rise == 0 {
		return nil
	}
	back := p.Out + s.Thickness
	needs := func(x float64) float64 {
		r := math.Hypot(x, back)
		leaves := math.Atan2(back, x) - math.Asin(min(p.Out/r, 1))
		return rise*leaves/(math.Pi/2) + overHead - o.Edges[frame.Head].GapAt(x-p.Margin/2)
	}
	const step = 5
	by, along := needs(p.Margin/2), 0.0
	for x := p.Margin / 2; x < s.Width && needs(x) > 0; x += step {
		along = x
	}
	if by > 0 {
		said.Say(site.Care, job.StepSwing, "/hinges/size", site.RisingHead, message.Args{
			"by": measure.FromMM(by), "along": measure.FromMM(along),
		})
	}
	return said
}
