package simulate

import (
	"fmt"
	"math/rand/v2"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
)

// gapAt is the true gap beside a hung slab at one place.
func (o opening) gapAt(d hungSlab, side frame.Side, at float64) float64 {
	bottom := o.at(frame.Hinge, pins[1]) + d.pin[1]
	lean := (o.at(frame.Hinge, pins[0]) + d.pin[0] - bottom) / (pins[0] - pins[1])
	edge := bottom + lean*(at-pins[1])
	head := o.at(frame.Head, 0) - d.headGap
	switch side {
	case frame.Hinge:
		return edge - o.at(frame.Hinge, at)
	case frame.Lock:
		return o.at(frame.Lock, at) - edge - (d.foot + (d.top-d.foot)*at/height)
	case frame.Head:
		return o.at(frame.Head, at) - (head + d.headUp*at/width - lean*at)
	}
	return head - d.length + d.footUp*at/width - lean*at - o.at(frame.Foot, at)
}

// goesIn reports whether a slab goes into its opening at all.
func (o opening) goesIn(d hungSlab) bool {
	g := o.gaps(d)
	for _, s := range judged {
		for _, p := range g[s] {
			if p.Off < 0 {
				return false
			}
		}
	}
	return true
}

// finish hangs a slab, reads what the program asks for, takes its first way, and repeats until the program says that it
// fits, or has no way. out is the outcome so far.
func (o opening) finish(j job.Job, opening job.Opening, l plan.Leaf, out *hung, rng *rand.Rand) {
	hang := job.Hang{ID: "h0"}
	opening.Tried = []job.Tried{{Made: l.Try.Planned, Hangs: []job.Hang{hang}}}
	for range mostRounds {
		hangs := opening.Tried[0].Hangs
		last := &hangs[len(hangs)-1]
		in := o.goesIn(out.slab)
		t := plan.Solve(j, opening).Leaves[0].Try
		for ; len(t.ToRead) > 0; t = plan.Solve(j, opening).Leaves[0].Try {
			for _, s := range t.ToRead {
				r := s.Reading
				r.ID = fmt.Sprint("g", len(last.Gaps))
				noise := j.Kit.Tools.Sigma(r)
				if !in { // it is held up against the opening
					noise, r.PlusMinus = Crude, measure.FromMM(figure.Coverage*Crude)
				}
				r.Value = measure.FromMM(o.gapAt(out.slab, r.Side, r.At.MM()) + rng.NormFloat64()*noise)
				last.Gaps = append(last.Gaps, r)
				out.minutes += j.Kit.Tools.Minutes(r)
			}
		}
		if t.Fits || len(t.Ways) == 0 {
			return
		}
		w := t.Ways[0]
		out.minutes += w.Minutes - float64(w.Trips)*j.Kit.TripMinutes()
		out.trips += w.Trips
		out.slab = out.slab.adjusted(w.Did, w.Trips > 0, rng)
		opening.Tried[0].Hangs = append(hangs, job.Hang{ID: fmt.Sprint("h", len(hangs)), Did: &w.Did})
	}
}

// adjusted is a slab after a way, each part of it with the error of its kind of work.
func (d hungSlab) adjusted(did job.Did, off bool, rng *rand.Rand) hungSlab {
	last := len(did.Pack) - 1
	for end, i := range [2]int{0, last} {
		if m := did.Pack[i].MM(); m != 0 {
			d.pin[end] += m + rng.NormFloat64()*trade.Repacked
		}
		if off {
			d.pin[end] += rng.NormFloat64() * trade.Rehung
		}
	}
	if did.Up != 0 {
		d.headGap -= did.Up.MM() + rng.NormFloat64()*trade.HungPin
	}
	for _, p := range did.Planed {
		var by [2]float64
		for end := range by {
			if mm := p.Off[2*end].MM(); mm > 0 {
				by[end] = max(mm+rng.NormFloat64()*cutNoise, 0)
			}
		}
		if p.Deeper { // the slab follows its hinges
			for end := range d.pin {
				d.pin[end] -= by[0] + (by[1]-by[0])*Pins()[end]/reach(frame.Hinge) + rng.NormFloat64()*trade.Repacked
			}
			continue
		}
		d = d.planed(p.Side, by)
	}
	return d
}
