package oracle

import (
	"math"
	"math/rand/v2"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
)

// Board is a true slab, uncut: x from its hinge edge, which is straight, y down from its top hinge
// corner. No slab is quite a rectangle.
type Board struct {
	Width, Length float64 // at its top, on its hinge edge
	Taper, Bow    float64 // of its lock edge: wider at its bottom, and in the middle
	Rise          float64 // of its top's lock corner above square
	Drop          float64 // of its bottom's lock corner below square
}

// NewBoard draws a slab with the errors of a machine. Assumed.
func NewBoard(width, length float64, rng *rand.Rand) Board {
	return Board{
		Width: width + rng.NormFloat64()*0.5, Length: length + rng.NormFloat64()*0.5,
		Taper: rng.NormFloat64() * 0.5, Bow: rng.NormFloat64() * 0.25, Rise: rng.NormFloat64() * 0.5,
		Drop: rng.NormFloat64() * 0.5,
	}
}

func (b Board) lock(y float64) float64 {
	f := y / b.Length
	return b.Width + b.Taper*f + b.Bow*arc(f)
}
func (b Board) top(x float64) float64    { return -b.Rise * x / b.Width }
func (b Board) bottom(x float64) float64 { return b.Length + b.Drop*x/b.Width }

// Errors of measuring a slab on trestles by tape, and its squareness by its diagonals, in mm (σ). Assumed.
const (
	tapeNoise = 0.4
	rodNoise  = 0.15
)

// Measured is the slab as one instrument reads it, at every measured place: the tape of the opening too, or rods that
// are carried to it.
func (b Board) Measured(h Hands, with string, tape float64, rng *rand.Rand) slab.Slab {
	square := func(v float64) measure.Length {
		return measure.FromMM(v+rng.NormFloat64()*tapeNoise).Round(measure.FromMM(tape), measure.Nearest)
	}
	read := func(v float64) measure.Length { return square(v + h.Bias[with]) }
	if with != "tape" { // carried there, from corner to corner too: nothing is read between
		square = func(v float64) measure.Length { return measure.FromMM(v + rng.NormFloat64()*rodNoise) }
		read = func(v float64) measure.Length { return measure.FromMM(v + h.Bias[with]) }
	}
	return slab.Slab{
		Width: read(b.lock(0)), WidthMid: read(b.lock(b.Length / 2)), WidthFoot: read(b.lock(b.Length)),
		Length: read(b.Length), LengthLock: read(b.bottom(b.Width) - b.top(b.Width)), Square: square(b.Rise),
		Thickness: 40 * measure.Millimetre, Construction: "flush",
	}
}

// Offer is the slab as an offer, by Measured.
func Offer(id string, s slab.Slab, old bool) survey.Offer {
	square := s.Square
	return survey.Offer{
		ID: id, Name: id, Old: old, Width: s.Width, WidthMid: s.WidthMid, WidthFoot: s.WidthFoot,
		Length: s.Length, LengthLock: s.LengthLock, Square: &square,
	}
}

// Stands is the slab on wedges in an opening, its bottom hinge corner at a place, its top leaning by a slope toward the
// hinge jamb.
func (b Board) Stands(o Opening, u, v, lean float64) Gap {
	turn := math.Atan(lean)
	sin, cos := math.Sincos(turn)
	// at is a place of the slab, from its bottom hinge corner.
	at := func(x, up float64) (float64, float64) { return u + x*cos - up*sin, v + x*sin + up*cos }
	return func(side frame.Side, place float64) float64 {
		switch side {
		case frame.Hinge:
			x, y := at(0, place)
			return x - o.Sides[frame.Hinge](y)
		case frame.Lock:
			x, y := at(b.lock(b.Length-place), place)
			return o.Sides[frame.Lock](y) - x
		case frame.Head:
			x, y := at(place, b.Length-b.top(place))
			return o.Sides[frame.Head](x) - y
		}
		x, y := at(place, b.Length-b.bottom(place))
		return y - o.Sides[frame.Foot](x)
	}
}
