package simulate

import (
	"math"
	"math/rand/v2"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/plan"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// hungSlab is a hung slab: the pins' margins at the top and the bottom hinge, its width at head and foot, how far its
// head and foot rise toward the lock edge, and its length on the hinge edge. All in mm.
type hungSlab struct {
	pin            [2]float64
	top, foot      float64 // width
	headUp, footUp float64
	length         float64
	headGap        float64       // at the hinge corner, set by the hinges
	raised         float64       // how much more the foot margin is, so that the foot clears the floor as it swings
	hollow         []frame.Along // how far the hinge edge stands back from straight, up the slab
	bevel          float64       // how much narrower the push face is at the lock edge
}

// hand is the errors of the hand that cuts and hangs; nil makes none.
type hand struct{ rng *rand.Rand }

// stray is a normal error of a standard deviation.
func (h hand) stray(sigma float64) float64 {
	if h.rng == nil {
		return 0
	}
	return h.rng.NormFloat64() * sigma
}

// cut adds the errors of saw and plane at each end of each edge; the head's are relative to its hinge corner, which the
// hinges are measured from.
func (d hungSlab) cut(rng *rand.Rand) hungSlab {
	h := hand{rng}
	d.top += h.stray(cutNoise)
	d.foot += h.stray(cutNoise)
	d.headUp += h.stray(cutNoise)
	hinge, lock := h.stray(cutNoise), h.stray(cutNoise)
	d.length += hinge
	d.footUp += hinge - lock
	return d
}

// marked adds how far each hinge hangs off its mark: in its margin, and both along the jamb.
func (d hungSlab) marked(by trade.Marking, rng *rand.Rand) hungSlab {
	h := hand{rng}
	for end := range d.pin {
		d.pin[end] += h.stray(by.Sigma)
	}
	d.headGap += h.stray(by.Sigma)
	return d
}

// planed is a slab with one edge planed, at its foot or hinge corner and at its head or lock corner.
func (d hungSlab) planed(s frame.Side, by [2]float64) hungSlab {
	switch s {
	case frame.Lock:
		d.foot -= by[0]
		d.top -= by[1]
	case frame.Head: // the pockets are cut, so the slab stays where it hangs
		d.headUp += by[0] - by[1]
		d.headGap += by[0]
		d.length -= by[0]
	case frame.Foot:
		d.length -= by[0]
		d.footUp += by[1] - by[0]
	}
	return d
}

// adjusted is a slab after a way, each part of it with the error of its kind of work; off says whether it came off its
// hinges for it.
func (d hungSlab) adjusted(did job.Did, off bool, h hand) hungSlab {
	last := len(did.Pack) - 1
	for end, i := range [2]int{0, last} {
		if m := did.Pack[i].MM(); m != 0 {
			d.pin[end] += m + h.stray(trade.Repacked)
		}
		if off {
			d.pin[end] += h.stray(trade.Rehung)
		}
	}
	if did.Up != 0 {
		d.headGap -= did.Up.MM() + h.stray(trade.HungPin)
	}
	for _, p := range did.Planed {
		var by [2]float64
		for end := range by {
			if mm := p.Off[2*end].MM(); mm > 0 {
				by[end] = max(mm+h.stray(cutNoise), 0)
			}
		}
		if p.Deeper { // the recesses are let in by as much, so that the hinge margin stays
			for end := range d.pin {
				d.pin[end] -= h.stray(trade.Repacked)
			}
			d.foot, d.top = d.foot-by[0], d.top-by[1]
			continue
		}
		d = d.planed(p.Side, by)
	}
	return d
}

// slabOf is the slab that a plan's marks make, hung to its marks.
func slabOf(s slab.Slab, l plan.Leaf) hungSlab {
	w, long := s.Width.MM(), s.Length.MM()
	off := func(edge frame.Side, mark int) float64 { return l.Cut.Edges[edge].Marks[mark].Depth.Value.MM() }
	const head, hinge, lock, foot = frame.Head, frame.Hinge, frame.Lock, frame.Foot
	// Lines in the slab: x from its hinge edge, y down from its head.
	up := func(x0, x1 float64) fit.Line { return fit.Line{A: x0, B: (x1 - x0) / long} }
	along := func(y0, y1 float64) fit.Line { return fit.Line{A: y0, B: (y1 - y0) / w} }
	h, k := up(off(hinge, 0), off(hinge, 4)), up(w-off(lock, 0), w-off(lock, 4))
	t, b := along(off(head, 0), off(head, 2)), along(long-off(foot, 0), long-off(foot, 2))
	corner := func(up, along fit.Line) (x, y float64) {
		y = (along.A + along.B*up.A) / (1 - along.B*up.B)
		return up.At(y), y
	}
	thx, thy := corner(h, t)
	tlx, tly := corner(k, t)
	fhx, fhy := corner(h, b)
	flx, fly := corner(k, b)
	length := math.Hypot(fhx-thx, fhy-thy)
	ux, uy := (fhx-thx)/length, (fhy-thy)/length // down the hinge edge
	across := func(x, y float64) float64 { return x*uy - y*ux }
	down := func(x, y float64) float64 { return x*ux + y*uy }
	d := hungSlab{
		pin: [2]float64{margin + l.Hinges[0].Pack.Value.MM(), margin + l.Hinges[len(l.Hinges)-1].Pack.Value.MM()},
		top: across(tlx-thx, tly-thy), foot: across(flx-fhx, fly-fhy),
		headUp: -down(tlx-thx, tly-thy), footUp: -down(flx-fhx, fly-fhy), length: length,
		headGap: (l.Hinges[0].Jamb.Value - l.Hinges[0].Slab.Value).MM(),
		raised:  l.Wanted[frame.Foot].Value.MM() - under,
	}
	for i := 4; i >= 0; i-- { // its marks run down, the slab's places up
		m := l.Cut.Edges[hinge].Marks[i]
		d.hollow = append(d.hollow, frame.Along{
			At: height * (1 - m.At.MM()/long), Off: m.Depth.Value.MM() - h.At(m.At.MM()),
		})
	}
	if l.Swing != nil {
		d.bevel = l.Swing.Bevel.Value.MM()
	}
	return d
}
