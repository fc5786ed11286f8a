package oracle

import (
	"math"
	"math/rand/v2"

	"kindmargin/core/measure"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Hands are the errors of the tools, in mm or mm a metre, by the instrument's ID.
type Hands struct{ Bias map[string]float64 }

// NewHands draws a tool's error for each instrument, by core/trade.
func NewHands(rng *rand.Rand) Hands {
	h := Hands{map[string]float64{}}
	for _, i := range trade.Instruments {
		h.Bias[i.ID] = rng.NormFloat64() * i.Bias
	}
	return h
}

// depthSpread is the standard deviation of a reading's depth in the wall, in mm. Assumed.
const depthSpread = 6.0

// Taking is the circumstances of a reading.
type Taking struct {
	Kit   survey.Kit
	Hands Hands
	Tape  float64 // its mark, mm
	Gap   Gap     // answers for a slab that stands there; may be nil
}

// Read takes a reading.
func (o Opening) Read(r survey.Reading, by Taking, rng *rand.Rand) survey.Reading {
	h := by.Hands
	_, id := by.Kit.Tool(r)
	i, _ := trade.InstrumentByID(id)
	reads, _ := i.Of(string(r.Kind))
	apart := 1.0 // metres between its places, for what is so much a metre
	switch r.Kind {
	case survey.Plumb, survey.Level:
		apart = (r.At - r.From).MM() / 1000
	case survey.Square:
		apart = r.At.MM() / 1000
	case survey.Straight:
		apart = (r.To - r.From).MM() / 1000
	}
	sigma, bias := reads.Sigma, h.Bias[id]
	if reads.PerMetre {
		sigma *= math.Abs(apart)
	}
	if i.PerMetre {
		bias *= apart
	}
	if r.Turned {
		bias = -bias
	}
	v := o.Truth(r, rng.NormFloat64()*depthSpread, by.Gap) + rng.NormFloat64()*sigma + bias
	r.Value = measure.FromMM(v).Round(measure.FromMM(by.Tape), measure.Nearest)
	return r
}
