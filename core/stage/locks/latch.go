// Package locks is the stage in which latch and strike are marked and their hardware let in.
package locks

import (
	"errors"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Edge is the lock edge that a lock is bored from, as it then is, in mm.
type Edge struct {
	Off      float64 // the most that came off it
	Top      float64 // from the uncut slab's top down to where the head then stands, at this edge
	Final    float64 // the same once the head is finished
	HeadLeft float64 // still to come off the head
	Left     float64 // still to come off the lock edge
	Long     float64 // of the slab there, from the head as it then stands to its foot
	FootLeft float64 // still to come off the foot
}

// LeftOn is the wood that is on a lock edge past its finished line while the lock is bored: none once it hangs and fits,
// and none on an edge that came bored.
func (e *Edge) LeftOn(d site.Opening, b site.Bay) measure.Length {
	if e == nil || d.Lock.When != lock.First || bored(b) {
		return 0
	}
	return measure.FromMM(e.Left).Round(d.Tape.Step(), measure.Nearest)
}

// Place marks latch and strike; nil while the slab's thickness is not known, and for a leaf that carries none. edge is
// nil while the slab is not laid yet; corner is the head margin at the lock corner.
func Place(d site.Opening, s site.Survey, b site.Bay, edge *Edge, corner figure.Figure) (*lock.Plan, site.Findings) {
	var said site.Findings
	if b.Slab.Thickness == 0 {
		return nil, nil
	}
	if b.Folds {
		said.Say(site.Note, job.StepLock, b.At+"/pivot", site.Folding, nil)
		return nil, said
	}
	if !b.Strikes {
		held := message.ID("held.both")
		if d.Pair.Holds != job.BothBolts {
			held = "held." + message.ID(d.Pair.Holds)
		}
		said.Say(site.Note, job.StepLock, "/pair/fixed", site.Bolted, message.Args{"held": held})
		return nil, said
	}
	lockAt := s.Width
	if b.Meets {
		lockAt = s.Width/2 + d.Pair.Offset.MM()
	}
	at, sigma := s.Shape.Of(survey.Row{
		{Of: survey.Of(frame.Head), At: lockAt, By: 1}, {Of: survey.Of(frame.Foot), At: lockAt, By: -1},
	})
	opening := figure.Figure{Value: d.Estimate(at), Sigma: sigma}
	room := lock.Room{Opening: opening, Margin: corner, Bored: boredAt(d, b, edge), Thickness: b.Slab.Thickness}
	if edge != nil {
		room.Off = &figure.Figure{Value: d.Estimate(edge.Final)}
		room.Long = &figure.Figure{Value: d.Estimate(edge.Long - edge.HeadLeft - edge.FootLeft)}
	}
	p, err := lock.Place(d.Lock, room, d.Tape)
	var bad field.Error
	if errors.As(err, &bad) {
		said.Say(site.Stop, job.StepLock, "/lock"+bad.Pointer, site.NoLatch, message.Args{"problem": bad.Problem})
		return nil, said
	}
	least, most := trade.HandleHeight.Least, trade.HandleHeight.Most
	if known, _ := d.Kit.HardwareByID(d.Lock.Hardware); known.Surface() {
		least, most = trade.SurfaceHeight.Least, trade.SurfaceHeight.Most
	}
	if p.Floor.Value < least || p.Floor.Value > most {
		said.Say(site.Note, job.StepLock, "/lock/"+string(d.Lock.From), site.HandleUnusual, message.Args{
			"at": p.Floor.Value, "least": least, "most": most,
		})
	}
	if d.Lock.Hardware == "" {
		said.Add(walls(d.Lock.Bore, b.Slab.Thickness, p.Wall.Value, "/lock/bore"))
	}
	said.Add(heights(d, p))
	said.Add(missed(d))
	said.Add(agree(d, b, corner))
	if edge == nil {
		return &p, said
	}
	said = append(said, block(d, b, p, *edge)...)
	if d.Lock.When != lock.First {
		return &p, said
	}
	if left := edge.LeftOn(d, b); left > 0 {
		said.Say(site.Note, job.StepLock, "", site.LockLeftOn, message.Args{"left": left})
	}
	if left := edge.HeadLeft; left >= d.Tape.Step().MM() {
		said.Say(site.Note, job.StepLock, "", site.HeadLeftOn, message.Args{"left": measure.FromMM(left)})
	}
	return &p, said
}

// boredAt is the existing bore's place below the finished head; nil where there is none, or the slab is not laid yet.
func boredAt(d site.Opening, b site.Bay, edge *Edge) *figure.Figure {
	if b.Slab.Handle == 0 || edge == nil {
		return nil
	}
	f := figure.Sum(
		0,
		figure.Term{Label: "term.slab-top-to-bore", Value: b.Slab.Handle, Source: figure.Reading},
		figure.Term{Label: "term.off-head-at-last", Value: -d.Estimate(edge.Final), Source: figure.Estimate},
	)
	return &f
}

// block reports a hollow slab's lock block that is cut through, or not behind the lock.
func block(d site.Opening, b site.Bay, p lock.Plan, edge Edge) (said site.Findings) {
	kind, _ := trade.ConstructionByID(b.Slab.Construction)
	if kind.LockBlock == 0 {
		return nil
	}
	// The block is about the middle of the uncut slab; a deep cut leaves less of it, or none.
	middle, half := b.Slab.Length/2-measure.FromMM(edge.Top), kind.LockBlock/2
	from, to := max(middle-half, 0), min(middle+half, measure.FromMM(edge.Long))
	at := "/lock/" + string(d.Lock.From)
	patch := message.Args{
		"middle": middle, "long": kind.LockBlock, "left": max(to-from, 0), "lock": p.Slab.Value,
		"patch": half, "thickness": b.Slab.Thickness - 2*kind.Skin,
	}
	if to-from < kind.LockBlock {
		said.Say(site.Care, job.StepLock, at, site.BlockCut, patch)
	}
	reach := 50 * measure.Millimetre // of a latch and its handles, up and down
	if lack := max(from+reach-p.Slab.Value, p.Slab.Value+reach-to); lack > 0 {
		patch["by"] = lack
		said.Say(site.Care, job.StepLock, at, site.BlockMissed, patch)
	}
	return said
}
