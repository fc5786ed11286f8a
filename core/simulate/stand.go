package simulate

import (
	"math"
	"math/rand/v2"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
)

// placed is a slab that stands against an opening: its size, its bottom hinge corner's place, and its lean toward the
// hinge jamb.
type placed struct{ width, length, u, v, lean float64 }

// nextSize is the next size up of a slab, by its tape: it covers the opening everywhere by some millimetres.
func (o opening) nextSize() (width, length measure.Length) {
	wide, high := 0.0, 0.0
	for i := range stations {
		f := float64(i) / (stations - 1)
		wide = max(wide, o.at(frame.Lock, f*height)-o.at(frame.Hinge, f*height))
		high = max(high, o.at(frame.Head, f*800)-o.at(frame.Foot, f*800))
	}
	return measure.FromMM(wide+12).Round(2*measure.Millimetre, measure.Up),
		measure.FromMM(high+12).Round(2*measure.Millimetre, measure.Up)
}

// stand stands a slab against an opening by eye: to a few millimetres, plumb to as many a metre.
func (o opening) stand(s slab.Slab, rng *rand.Rand) placed {
	w, l := s.Width.MM(), s.Length.MM()
	p := placed{width: w, length: l, lean: rng.NormFloat64() * 0.002}
	p.u = (o.at(frame.Hinge, height/2)+o.at(frame.Lock, height/2)-w)/2 + p.lean*height/2 + rng.NormFloat64()*2
	p.v = (o.at(frame.Foot, width/2)+o.at(frame.Head, width/2)-l)/2 + rng.NormFloat64()*2
	return p
}

// beside is the true gap between a standing slab and a side, at a place up the slab or across it; below nought it
// overlaps.
func (o opening) beside(p placed, side frame.Side, at float64) float64 {
	sin, cos := math.Sincos(math.Atan(p.lean))
	place := func(x, up float64) (u, v float64) { return p.u + x*cos - up*sin, p.v + x*sin + up*cos }
	switch side {
	case frame.Hinge:
		u, v := place(0, at)
		return u - o.at(side, v)
	case frame.Lock:
		u, v := place(p.width, at)
		return o.at(side, v) - u
	case frame.Head:
		u, v := place(at, p.length)
		return o.at(side, u) - v
	}
	u, v := place(at, 0)
	return v - o.at(side, u)
}
