package cuts

import (
	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// stays leaves the slab of a set as it came, and reports where its frame stands too tight: the frame is moved instead.
func stays(sheet *List) (said site.Findings) {
	for side := range sheet.Edges {
		e := &sheet.Edges[side]
		by := e.Deepest()
		for k := range e.Marks {
			f := &e.Marks[k].Depth
			if f.Value > 0 {
				f.Terms = append(f.Terms, figure.Term{Label: "term.set-stays", Value: -f.Value, Source: figure.Rule})
				f.Value = 0
			}
		}
		if by > trade.FrameTold && len(e.Marks) > 0 {
			gravity := site.Note
			if by > trade.FrameWide {
				gravity = site.Stop
			}
			said.Say(gravity, job.StepMeasure, "/lining", site.SetStays, message.Args{
				"side": message.Margin(frame.Side(side)), "wall": message.Wall(frame.Side(side)), "by": message.Fine(by),
			})
		}
	}
	return said
}
