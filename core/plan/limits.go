package plan

import (
	"math"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// moulding is how far a cut keeps from moulded skins. Common practice.
const moulding = measure.Inch

// mostMiss is how far a latch may lie off its strike, in mm: more than the play
// that a strike's hole leaves. Common practice.
const mostMiss = 1.5

// hardly is a depth, in mm, that no machining misses.
const hardly = 0.25

// limits says what the chosen cuts do that the slab does not allow, and what
// follows from them.
func limits(d door, b bay, way fit.Judged, laid fit.Laid, o fit.Outline) (said findings) {
	slab := b.slab
	if weight := slab.Weight(); slab.Construction != "" && weight > trade.TwoPeople {
		said.say(Care, job.StepSlab, "", TwoPeople, Args{"weight": message.Mass(weight)})
	}
	if slab.Construction == "rated" {
		said.say(Stop, job.StepCut, b.at+"/construction", Rated, nil)
	}
	said = append(said, over(b, way)...)
	said = append(said, machining(b, way)...)
	if b.meets {
		said.say(Note, job.StepCut, "", MeetingEdges, Args{"off": message.Exact(trade.MeetingOff)})
	}
	said = append(said, copied(d, o)...)
	if slab.Construction == "moulded" {
		said.say(Note, job.StepCut, "", KeepFromMoulding, Args{"by": moulding})
	}
	said = append(said, pivots(b, way)...)
	for _, in := range laid.Inserts(slab) {
		code := RailWeak
		if in.Left == 0 {
			code = RailGone
		}
		said.say(Care, job.StepCut, "", code, Args{
			"end": message.Edge(in.End), "left": in.Left, "width": in.Width, "thickness": in.Thickness, "deep": in.Deep,
		})
	}
	return said
}

// over says which edges would lose more than they may.
func over(b bay, way fit.Judged) (said findings) {
	kind, _ := trade.ConstructionByID(b.slab.Construction)
	for _, side := range frame.Sides {
		by := way.Over[side]
		if by == 0 {
			continue
		}
		off := measure.FromMM(way.Deepest[side])
		if b.slab.IsMachined(side) {
			said.say(Stop, job.StepCut, b.at+"/machined", CutsMachining, Args{"edge": message.Edge(side), "off": off})
			continue
		}
		said.say(Stop, job.StepCut, b.at+"/limits/"+side.String(), OverLimit, Args{
			"edge": message.Edge(side), "off": off, "more": message.Fine(measure.FromMM(by)), "construction": kind.Name(), "most": message.Exact(b.slab.Most(side)),
		})
	}
	return said
}

// machining says what becomes of a bore that is there.
func machining(b bay, way fit.Judged) (said findings) {
	if way.Handle > 0 {
		said.say(Care, job.StepCut, b.at+"/handle", HandleOut, Args{
			"by": measure.FromMM(way.Handle), "least": trade.HandleHeight.Least, "most": trade.HandleHeight.Most,
		})
	}
	if math.Abs(way.Strike) > mostMiss {
		code := BoreBelowStrike
		if way.Strike < 0 {
			code = BoreAboveStrike
		}
		said.say(Stop, job.StepCut, "/lock/strike", code, Args{"by": measure.FromMM(math.Abs(way.Strike))})
	}
	if b.slab.IsMachined(frame.Lock) && b.slab.Handle > 0 && way.Deepest[frame.Lock] > hardly {
		said.say(Care, job.StepCut, b.at+"/machined", BacksetShrinks, Args{"by": measure.FromMM(way.Deepest[frame.Lock])})
	}
	return said
}

// pivots says where pivot holes that go with an offcut are drilled again.
func pivots(b bay, way fit.Judged) (said findings) {
	if b.slab.Pivot == 0 {
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
		from := b.slab.Pivot - measure.FromMM(off)
		if from < trade.PivotWood {
			said.say(Stop, job.StepCut, b.at+"/pivot", PivotAtEdge, Args{"end": message.Edge(end), "from": max(from, 0), "least": trade.PivotWood})
			continue
		}
		said.say(Care, job.StepCut, b.at+"/pivot", PivotAgain, Args{"end": message.Edge(end), "from": from})
	}
	return said
}

// copied says what copying the old door would cut, laid flush at head and lock
// edge, and what its gaps say should be different.
func copied(d door, o fit.Outline) (said findings) {
	for _, f := range d.Offers {
		if !f.Old {
			continue
		}
		c := o.Corners()
		said.say(Note, job.StepCut, "", OldCopied, Args{
			"name": f.Name, "hinge": max(d.Slab.Width-f.Width, 0), "foot": max(d.Slab.Length-f.Length, 0),
			"head":   message.Change{By: measure.FromMM(c[1].X-c[0].X) - f.Width, More: "way.wider", Less: "way.narrower"},
			"atFoot": message.Change{By: measure.FromMM(c[2].X-c[3].X) - f.Width, More: "way.wider", Less: "way.narrower"},
			"length": message.Change{By: measure.FromMM(o.Size().HingeEdge) - f.Length, More: "way.longer", Less: "way.shorter"},
		})
		break
	}
	return said
}
