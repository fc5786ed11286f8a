package simulate

import (
	"math"
	"math/rand/v2"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// hands are the errors of tools, by instrument.
type hands struct{ bias map[string]float64 }

func newHands(rng *rand.Rand) hands {
	h := hands{map[string]float64{}}
	for _, i := range trade.Instruments {
		h.bias[i.ID] = rng.NormFloat64() * i.Bias
	}
	return h
}

// read takes a reading of a true opening with a kit, rounded to the tape.
func (o opening) read(r survey.Reading, k survey.Kit, h hands, tape measure.Tape, rng *rand.Rand) survey.Reading {
	_, instrument := k.Tool(r)
	v := o.truth(r) + rng.NormFloat64()*k.Sigma(r) + h.bias[instrument]*k.Lever(r)
	r.Value = measure.FromMM(v).Round(tape.Step(), measure.Nearest)
	return r
}

// slab is a slab's true size, by its size as the tape reads it.
func (h hands) slab(s slab.Slab, k survey.Kit, rng *rand.Rand) slab.Slab {
	with, sigma := k.OnSlab()
	return s.Less(h.bias[with]+rng.NormFloat64()*sigma, h.bias[with]+rng.NormFloat64()*sigma)
}

// truth is a reading without any error, in mm.
func (o opening) truth(r survey.Reading) (v float64) {
	if r.Kind == survey.Diagonal { // whose row hangs on the shape
		return o.diagonal(r.Side)
	}
	for _, t := range r.Row(survey.Prior{Width: width, Height: height}) {
		side, _ := t.Of.Side()
		v += t.By * o.at(side, t.At)
	}
	return v
}

// diagonal is from the foot of a jamb to the head's far corner.
func (o opening) diagonal(from frame.Side) float64 {
	far, start, end := frame.Lock, 0.0, width
	if from == frame.Lock {
		far, start, end = frame.Hinge, width, 0
	}
	return math.Hypot(o.at(far, height)-o.at(from, 0), o.at(frame.Head, end)-o.at(frame.Foot, start))
}

// slipped is a reading as it is written down: one in fifty wrong.
func slipped(r survey.Reading, rng *rand.Rand) survey.Reading {
	if rng.Float64() >= trade.Slipped {
		return r
	}
	s := trade.Slips[rng.IntN(len(trade.Slips))]
	signed := r.Kind != survey.Width && r.Kind != survey.Height && r.Kind != survey.Diagonal
	if s.Signed && !signed {
		s = trade.Slips[0]
	}
	meant := []func(float64) float64{s.Meant, s.Meant2}[rng.IntN(2)]
	if v := meant(r.Value.MM()); !math.IsNaN(v) {
		r.Value = measure.FromMM(v)
	}
	return r
}

// gap is a true gap as a hand reads it with a gauge: one in thirty is taken for the next.
func gap(truth, sigma, step float64, rng *rand.Rand) float64 {
	v := truth + rng.NormFloat64()*sigma
	if rng.Float64() < trade.Misread {
		v += step * float64(1-2*rng.IntN(2))
	}
	return v
}

// stepOf is from one thickness of a gap's gauge to the next, in mm.
func stepOf(k survey.Kit, r survey.Reading) float64 {
	_, id := k.Tool(r)
	if i, ok := trade.InstrumentByID(id); ok {
		return i.Step
	}
	return 0
}
