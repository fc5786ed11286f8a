package cuts

import (
	"math"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// moulding is the least distance of a cut from moulded skins. Common practice.
const moulding = measure.Inch

// mostMiss is how far a latch may be off its strike, in mm: more than a strike's hole allows. Common practice.
const mostMiss = 1.5

// hardly is a depth, in mm, that no bore or recess notices.
const hardly = 0.25

// limits reports where the chosen cuts break the slab's limits, and the consequences.
func limits(d site.Opening, b site.Bay, way fit.Judged, laid fit.Laid, o fit.Outline) (said site.Findings) {
	slab := b.Slab
	if weight := slab.Weight(); slab.Construction != "" && weight > trade.TwoPeople {
		code, gravity := site.TwoPeople, site.Note
		if weight > trade.MostAlone {
			code, gravity = site.TwoHang, site.Care
		}
		said.Say(gravity, job.StepSlab, b.At+"/construction", code, message.Args{"weight": message.Mass(weight)})
	}
	if slab.Construction == "rated" {
		said.Say(site.Stop, job.StepCut, b.At+"/construction", site.Rated, nil)
	}
	said = append(said, over(d, b, way)...)
	said = append(said, machining(b, way)...)
	if b.Meets {
		said.Say(site.Note, job.StepCut, "", site.MeetingEdges, message.Args{"off": message.Exact(trade.MeetingOff)})
	}
	said = append(said, copied(d, o)...)
	said = append(said, mouldings(b, way)...)
	said = append(said, pivots(b, way)...)
	return append(said, closed(d, b, laid)...)
}

// over reports edges that would lose more than they may.
func over(d site.Opening, b site.Bay, way fit.Judged) (said site.Findings) {
	kind, _ := trade.ConstructionByID(b.Slab.Construction)
	for _, side := range frame.Sides {
		by := way.Over[side]
		if by == 0 {
			continue
		}
		off := measure.FromMM(way.Deepest[side]).Round(d.Tape.Step(), measure.Nearest)
		if b.Slab.IsMachined(side) {
			said.Say(site.Stop, job.StepCut, b.At+"/machined", site.CutsMachining, message.Args{
				"edge": message.Edge(side), "off": off,
			})
			continue
		}
		// As the two are shown, so that the sum adds up; less than the tape tells is told as it is.
		more := off - b.Slab.Most(side)
		if more <= 0 {
			more = measure.FromMM(by)
		}
		said.Say(site.Stop, job.StepCut, b.At+"/limits/"+side.String(), site.OverLimit, message.Args{
			"edge": message.Edge(side), "off": off, "more": message.Fine(more),
			"construction": kind.Name(), "most": message.Exact(b.Slab.Most(side)),
		})
	}
	return said
}

// machining reports what becomes of an existing bore.
func machining(b site.Bay, way fit.Judged) (said site.Findings) {
	if way.Handle > 0 {
		said.Say(site.Care, job.StepCut, b.At+"/handle", site.HandleOut, message.Args{
			"by": measure.FromMM(way.Handle), "least": trade.HandleHeight.Least, "most": trade.HandleHeight.Most,
		})
	}
	if math.Abs(way.Strike) > mostMiss {
		code := site.BoreBelowStrike
		if way.Strike < 0 {
			code = site.BoreAboveStrike
		}
		said.Say(site.Stop, job.StepCut, "/lock/strike", code, message.Args{"by": measure.FromMM(math.Abs(way.Strike))})
	}
	if b.Slab.IsMachined(frame.Lock) && b.Slab.Handle > 0 && way.Deepest[frame.Lock] > hardly {
		said.Say(site.Care, job.StepCut, b.At+"/machined", site.BacksetShrinks, message.Args{
			"by": measure.FromMM(way.Deepest[frame.Lock]),
		})
	}
	return said
}

// pivots reports pivot holes that are cut off and have to be drilled again.
func pivots(b site.Bay, way fit.Judged) (said site.Findings) {
	if b.Slab.Pivot == 0 {
		return nil
	}
	cuts := way.Cuts[frame.Hinge]
	for _, end := range []frame.Side{frame.Head, frame.Foot} {
		if way.Deepest[end] <= hardly {
			continue
		}
		off := cuts[0].Depth
		if end == frame.Foot {
			off = cuts[len(cuts)-1].Depth
		}
		from := b.Slab.Pivot - measure.FromMM(off)
		if from < trade.PivotWood {
			said.Say(site.Stop, job.StepCut, b.At+"/pivot", site.PivotAtEdge, message.Args{
				"end": message.Edge(end), "from": max(from, 0), "least": trade.PivotWood,
			})
			continue
		}
		said.Say(site.Care, job.StepCut, b.At+"/pivot", site.PivotAgain, message.Args{
			"end": message.Edge(end), "from": from,
		})
	}
	return said
}

// copied reports what a copy of the old door would cut, laid flush at head and lock edge, and where its gaps ask for
// something else.
func copied(d site.Opening, o fit.Outline) (said site.Findings) {
	for _, f := range d.Offers {
		if !f.Old {
			continue
		}
		c := o.Corners()
		said.Say(site.Note, job.StepCut, "", site.OldCopied, message.Args{
			"name": f.Name, "hinge": max(d.Slab.Width-f.Width, 0), "foot": max(d.Slab.Length-f.Length, 0),
			"head": message.Change{
				By: measure.FromMM(c[1].X-c[0].X) - f.Width, More: "way.wider", Less: "way.narrower",
			},
			"atFoot": message.Change{
				By: measure.FromMM(c[2].X-c[3].X) - f.Width, More: "way.wider", Less: "way.narrower",
			},
			"length": message.Change{
				By: measure.FromMM(o.Size().HingeEdge) - f.Length, More: "way.longer", Less: "way.shorter",
			},
		})
		break
	}
	return said
}
