package plan

import (
	"errors"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// latch marks latch and strike; nil while the slab's thickness is not known, and
// for a leaf that carries none. laid is nil while the slab is not laid yet; corner
// is the head margin at the lock corner.
func latch(d door, s surveyed, b bay, laid *fit.Laid, corner figure.Figure) (*lock.Plan, findings) {
	var said findings
	if b.slab.Thickness == 0 {
		return nil, nil
	}
	if !b.strikes {
		said.say(Note, job.StepLock, "/pair/fixed", Bolted, nil)
		return nil, said
	}
	lockAt := s.width
	if b.meets {
		lockAt = s.width/2 + d.Pair.Offset.MM()
	}
	at, sigma := s.shape.Of(survey.Row{{Of: survey.Of(frame.Head), At: lockAt, By: 1}, {Of: survey.Of(frame.Foot), At: lockAt, By: -1}})
	opening := figure.Figure{Value: d.est(at), Sigma: sigma}
	p, err := lock.Place(d.Lock, opening, corner, bored(d, b, laid), b.slab.Thickness, d.tape)
	var bad field.Error
	if errors.As(err, &bad) {
		said.say(Stop, job.StepLock, "/lock"+bad.Pointer, NoLatch, Args{"problem": bad.Problem})
		return nil, said
	}
	usual := trade.HandleHeight
	if p.Floor.Value < usual.Least || p.Floor.Value > usual.Most {
		said.say(Note, job.StepLock, "/lock/"+d.Lock.From, HandleUnusual, Args{"at": p.Floor.Value, "least": usual.Least, "most": usual.Most})
	}
	if p.Wall.Value < trade.ThinWall && d.Lock.Device == "" {
		said.say(Care, job.StepLock, "/lock/bore", ThinWalls, Args{"bore": d.Lock.Bore, "thickness": b.slab.Thickness, "wall": p.Wall.Value, "least": message.Exact(trade.ThinWall)})
	}
	said.add(heights(d, p))
	said.add(missed(d))
	said.add(agree(d, b, corner))
	if laid == nil {
		return &p, said
	}
	said = append(said, block(d, b, p, *laid)...)
	if left := laid.Left[frame.Head]; left >= d.tape.Step().MM() {
		said.say(Note, job.StepLock, "", HeadLeftOn, Args{"left": measure.FromMM(left)})
	}
	return &p, said
}

// bored is where the bore that is there ends up below the finished head; nil
// where there is none, or the slab is not laid yet.
func bored(d door, b bay, laid *fit.Laid) *figure.Figure {
	if b.slab.Handle == 0 || laid == nil {
		return nil
	}
	f := figure.Sum(
		0,
		figure.Term{Label: "term.slab-top-to-bore", Value: b.slab.Handle, Source: figure.Reading},
		figure.Term{Label: "term.off-head-at-last", Value: -d.est(laid.Final), Source: figure.Estimate},
	)
	return &f
}

// block says where a hollow slab's lock block does not lie behind the lock.
func block(d door, b bay, p lock.Plan, laid fit.Laid) (said findings) {
	kind, _ := trade.ConstructionByID(b.slab.Construction)
	if kind.LockBlock == 0 {
		return nil
	}
	// The block lies about the middle of the uncut slab.
	middle := b.slab.Length/2 - measure.FromMM(laid.Top[1])
	reach := 50 * measure.Millimetre // of a latch and its handles, up and down
	if lack := (p.Slab.Value - middle).Abs() + reach - kind.LockBlock/2; lack > 0 {
		said.say(Care, job.StepLock, "/lock/"+d.Lock.From, BlockMissed, Args{
			"middle": middle, "long": kind.LockBlock, "lock": p.Slab.Value, "by": lack,
			"patch": kind.LockBlock / 2, "thickness": b.slab.Thickness - 2*kind.Skin,
		})
	}
	return said
}
