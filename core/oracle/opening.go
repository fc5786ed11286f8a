// Package oracle has true openings that no prior of this program draws: each side an explicit form (sine, raised
// cosine, arc, settled corner), read, offered up and hung in by plain geometry. Tests judge the program by it; nothing
// here uses an estimate.
//
// All lengths are float64 millimetres in the elevation frame of package frame; angles are slopes, in mm per mm.
package oracle

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/survey"
)

// Side is a side's coordinate at a place along it: u of a jamb at a height, v of head or floor at a
// distance from the hinge jamb.
type Side func(at float64) float64

// Opening is a true opening.
type Opening struct {
	Width, Height float64 // about
	Sides         frame.Each[Side]
	// Twist is how much wider the opening is at a height for each mm further into the wall: its jambs are not in one
	// plane. Nil is none.
	Twist Side
}

// Gap is the gap between a slab at a place and a side, in mm.
type Gap func(side frame.Side, at float64) float64

// corner is the intersection of a jamb with head or floor.
func (o Opening) corner(jamb, end frame.Side) (u, v float64) {
	for range 20 {
		u, v = o.Sides[jamb](v), o.Sides[end](u)
	}
	return u, v
}

// Truth is a reading without any error, at a depth in the wall; gap gives the gap of a slab that stands or hangs there,
// and may be nil where none is read.
func (o Opening) Truth(r survey.Reading, deep float64, gap Gap) float64 {
	at, from, to := r.At.MM(), r.From.MM(), r.To.MM()
	s := o.Sides
	switch r.Kind {
	case survey.Width:
		w := s[frame.Lock](at) - s[frame.Hinge](at)
		if o.Twist != nil {
			w += o.Twist(at) * deep
		}
		return w
	case survey.Height:
		return s[frame.Head](at) - s[frame.Foot](at)
	case survey.Plumb:
		in := s[r.Side](at) - s[r.Side](from)
		if r.Side == frame.Lock {
			in = -in
		}
		return in
	case survey.Level:
		return s[r.Side](at) - s[r.Side](from)
	case survey.Straight:
		f := (at - from) / (to - from)
		light := s[r.Side](at) - (1-f)*s[r.Side](from) - f*s[r.Side](to)
		if r.Side == frame.Hinge || r.Side == frame.Foot {
			light = -light
		}
		return light
	case survey.Square:
		return o.square(r.Side, at)
	case survey.Diagonal:
		far := frame.Lock
		if r.Side == frame.Lock {
			far = frame.Hinge
		}
		au, av := o.corner(r.Side, frame.Foot)
		bu, bv := o.corner(far, frame.Head)
		return math.Hypot(bu-au, bv-av)
	}
	return gap(r.Side, at)
}

// square is the gap at the end of a square's blade, whose stock, as long as the blade, lies on the jamb from the head
// corner down.
func (o Opening) square(jamb frame.Side, blade float64) float64 {
	u, v := o.corner(jamb, frame.Head)
	tilt := math.Atan((o.Sides[jamb](v) - o.Sides[jamb](v-blade)) / blade)
	sin, cos := math.Sincos(tilt)
	if jamb == frame.Hinge {
		return o.Sides[frame.Head](u+blade*cos) - (v - blade*sin)
	}
	return o.Sides[frame.Head](u-blade*cos) - (v + blade*sin)
}
