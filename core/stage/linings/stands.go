package linings

import (
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Stands reports where a frame leaves the slab too high or too low over the floor's highest place. Its feet are cut or
// packed, whatever the jambs do. wanted is the foot margin.
func Stands(d site.Opening, drawn []fit.Outline, wanted measure.Length) (said site.Findings) {
	if d.Framed() == nil {
		return nil
	}
	for _, o := range drawn {
		gaps := o.Edges[frame.Foot].Gaps
		smallest := gaps[0].Mean - highest(d).MM() // the floor is told from that under the hinge jamb
		for _, g := range gaps {
			smallest = min(smallest, g.Mean)
		}
		gap := measure.FromMM(smallest)
		by := gap - wanted
		gravity := site.Note
		if by.Abs() > trade.FrameWide {
			gravity = site.Stop
		}
		switch {
		case by > trade.FrameTold:
			said.Say(gravity, job.StepMeasure, "/lining", site.FrameHigh, message.Args{
				"edge": message.Edge(frame.Foot), "by": message.Fine(by),
			})
		case by < -trade.FrameTold:
			said.Say(gravity, job.StepMeasure, "/lining", site.FrameLow, message.Args{
				"gap": max(gap, 0), "wanted": wanted, "by": message.Fine(-by),
			})
		default:
			continue
		}
		break
	}
	return said
}
