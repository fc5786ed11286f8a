package oracle

import (
	"math"
	"math/rand/v2"

	"kindmargin/core/frame"
)

// form is a bow of height 1 along a side, at a share of it from 0 to 1.
type form func(f float64) float64

// The forms of sides.
func sine(f float64) float64  { return math.Sin(math.Pi * f) }
func arc(f float64) float64   { return 4 * f * (1 - f) }
func sForm(f float64) float64 { return math.Sin(2 * math.Pi * f) }

// bump is a raised cosine of a width about a place.
func bump(place, width float64) form {
	return func(f float64) float64 {
		if d := math.Abs(f-place) / (width / 2); d < 1 {
			return (1 + math.Cos(math.Pi*d)) / 2
		}
		return 0
	}
}

// settled is a side whose end drops from a place on.
func settled(from float64) form {
	return func(f float64) float64 { return max(f-from, 0) / (1 - from) }
}

// anyForm draws one of the forms.
func anyForm(rng *rand.Rand) form {
	place := 0.3 + 0.4*rng.Float64()
	return []form{
		sine, arc, func(f float64) float64 { return 0.7 * sForm(f) }, bump(place, 0.7), settled(place),
	}[rng.IntN(5)]
}

// House draws openings of one kind. All are invented; how crooked houses are is common practice.
type House struct {
	Name          string
	Width, Height float64
	New           bool // a frame set by a careful hand
	Crooked       bool // half again as crooked as usual, or of a form of its own
	lean          float64
	jamb, head    float64 // belly, mm: up to a third more than this, either way
	own           func(o *Opening, rng *rand.Rand)
	turns         bool // its jambs are not in one plane
}

// Turns reports whether the jambs of its openings are not in one plane.
func (h House) Turns() bool { return h.turns }

// The size of an opening, in mm.
const (
	usualWidth  = 826
	usualHeight = 2030
)

// Houses are the kinds of houses that the estimate is judged in.
var Houses = []House{
	{Name: "square", New: true, lean: 0.3, jamb: 0.3, head: 0.2},
	{Name: "old", lean: 4, jamb: 2, head: 1},
	{Name: "half-again-as-crooked", Crooked: true, lean: 6, jamb: 3.5, head: 1.8},
	{Name: "s-shaped-jambs", Crooked: true, lean: 4, head: 1, own: func(o *Opening, rng *rand.Rand) {
		for _, s := range jambs {
			o.add(s, sForm, either(rng)*(1.5+rng.Float64()))
		}
	}},
	{Name: "bumped-jambs", lean: 4, jamb: 1, head: 1, own: func(o *Opening, rng *rand.Rand) {
		for _, s := range jambs {
			o.add(s, bump(0.15+0.7*rng.Float64(), 150/o.Height), either(rng)*2)
		}
	}},
	{Name: "bowed-head", lean: 4, jamb: 2, own: func(o *Opening, rng *rand.Rand) {
		o.add(frame.Head, arc, 2+2*rng.Float64())
	}},
	{Name: "settled-corner", Crooked: true, lean: 4, jamb: 1.5, own: func(o *Opening, rng *rand.Rand) {
		o.add(frame.Head, settled(0.5+0.3*rng.Float64()), -2-3*rng.Float64())
	}},
	{Name: "twisted", lean: 4, jamb: 2, head: 1, turns: true, own: func(o *Opening, rng *rand.Rand) {
		foot, top := rng.NormFloat64()*0.03, rng.NormFloat64()*0.03 // 1.7° out of square to the wall
		o.Twist = func(v float64) float64 { return foot + (top-foot)*v/o.Height }
	}},
	{Name: "cupboard", Width: 450, Height: 1900, lean: 4, jamb: 2, head: 1},
	{Name: "hall", Width: 1100, Height: 2700, lean: 4, jamb: 2, head: 1},
}

var jambs = []frame.Side{frame.Hinge, frame.Lock}

func either(rng *rand.Rand) float64 { return float64(1 - 2*rng.IntN(2)) }

// reach is about a side's length.
func (o Opening) reach(s frame.Side) float64 {
	if s.Upright() {
		return o.Height
	}
	return o.Width
}

// add adds a bow of a form and height to a side.
func (o *Opening) add(s frame.Side, f form, by float64) {
	was, long := o.Sides[s], o.reach(s)
	o.Sides[s] = func(at float64) float64 { return was(at) + by*f(at/long) }
}

// Draw draws an opening.
func (h House) Draw(rng *rand.Rand) Opening {
	o := Opening{Width: usualWidth, Height: usualHeight}
	if h.Width > 0 {
		o.Width, o.Height = h.Width, h.Height
	}
	wide, high := o.Width+rng.NormFloat64()*5, o.Height+rng.NormFloat64()*5
	nominal := frame.Each[float64]{frame.Lock: wide, frame.Head: high}
	for _, s := range frame.Sides {
		lean, belly := rng.NormFloat64()*h.lean/1000, h.head
		if s.Upright() {
			belly = h.jamb
		}
		from := nominal[s]
		o.Sides[s] = func(at float64) float64 { return from + lean*at }
		o.add(s, anyForm(rng), belly*(2*rng.Float64()-1)*4/3)
	}
	if h.own != nil {
		h.own(&o, rng)
	}
	for _, s := range []frame.Side{frame.Hinge, frame.Foot} { // the frame is pinned at the foot of the hinge jamb
		side, at0 := o.Sides[s], o.Sides[s](0)
		o.Sides[s] = func(at float64) float64 { return side(at) - at0 }
	}
	return o
}
