package survey

import (
	"math"

	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Proof is one span read several times with a tool and with a better one, or with a level and then with the level
// turned end for end.
type Proof struct {
	Kind    Kind             `json:"kind"`           // what was read
	Span    measure.Length   `json:"span,omitempty"` // between the two places, for a tool that is wrong by the metre
	Own     []measure.Length `json:"own"`            // with the tool
	Better  []measure.Length `json:"better"`         // with the better one, or with the tool turned
	Against string           `json:"against"`        // ID of the better tool; empty for the tool turned end for end
}

// Bounds on a proof.
const (
	leastReadings = 2
	mostReadings  = 20
	// priorReadings is the weight of an instrument's usual sigma, in readings.
	priorReadings = 4
)

// mostApart is the largest spread of the readings of one span.
const mostApart = 20 * millimetre

// Prove works out the error of a tool of the kit. The sigma of each mean pools its readings with the instrument's usual
// one (as four readings more); the difference, less the better tool's own bias, is combined with the instrument's prior
// bias (Bayes' rule for normal figures). Lengths are rounded to a tape of step mm. It fails with a field.Error for a
// proof that proves nothing.
func (k Kit) Prove(id string, p Proof, step float64) (Proved, error) {
	own, ok := k.tool(id, p.Kind)
	if !ok {
		return Proved{}, field.Fault("/kind", "refused.proof-kind", nil)
	}
	turned := p.Against == ""
	better := own
	if turned && p.Kind != Plumb && p.Kind != Level {
		return Proved{}, field.Fault("/against", "refused.proof-against", nil)
	}
	if !turned {
		if p.Against == id {
			return Proved{}, field.Fault("/against", "refused.proof-itself", nil)
		}
		if better, ok = k.tool(p.Against, p.Kind); !ok {
			return Proved{}, field.Fault("/against", "refused.proof-other-kind", nil)
		}
	}
	reading := Reading{Kind: p.Kind, At: p.Span}
	if p.Kind == Straight {
		reading.To = p.Span
	}
	lever := own.lever(reading)
	if math.Abs(lever) < 0.2 {
		return Proved{}, field.Fault("/span", "refused.proof-span", message.Args{
			"least": message.Exact(200 * millimetre),
		})
	}
	for at, list := range map[string][]measure.Length{"/own": p.Own, "/better": p.Better} {
		if err := agree(at, list); err != nil {
			return Proved{}, err
		}
	}
	a, va, sigma := average(p.Own, own.sigma(reading), step)
	b, vb, _ := average(p.Better, better.sigma(reading), step)
	found, spread := a-b, va+vb
	if turned { // the error stands in both, with either sign
		found, spread = found/2, spread/4
	} else {
		other := better.lever(reading)
		found += better.mean * other
		spread += better.spread * better.spread * other * other
	}
	found, spread = found/lever, spread/(lever*lever)
	known, _ := trade.InstrumentByID(own.instrument)
	usual := known.Bias * known.Bias
	share := usual / (usual + spread)
	return Proved{
		Bias: round(found * share), Sure: max(round(math.Sqrt(spread*share)), 0.01), Sigma: round(sigma),
		Readings: len(p.Own) + len(p.Better), Against: p.Against,
	}, nil
}

// tool is a tool of the kit for a kind.
func (k Kit) tool(id string, kind Kind) (t inHand, ok bool) {
	for i := range k {
		if k[i].ID == id {
			return k.hand(i, kind)
		}
	}
	return t, false
}

func agree(at string, list []measure.Length) error {
	if len(list) < leastReadings || len(list) > mostReadings {
		return field.Fault(at, "refused.proof-times", message.Args{
			"least": message.Number(leastReadings), "most": message.Number(mostReadings),
		})
	}
	least, most := list[0], list[0]
	for _, l := range list {
		least, most = min(least, l), max(most, l)
	}
	if most-least > mostApart {
		return field.Fault(at, "refused.proof-apart", message.Args{"by": message.Exact(most - least)})
	}
	return nil
}

// average is the mean of readings of one span in mm, its variance, and the standard deviation of one reading; usual is
// the instrument's.
func average(list []measure.Length, usual, step float64) (mean, variance, sigma float64) {
	n := float64(len(list))
	for _, l := range list {
		mean += l.MM() / n
	}
	squares := priorReadings * (usual*usual + step*step/12)
	for _, l := range list {
		d := l.MM() - mean
		squares += d * d
	}
	one := squares / (priorReadings + n - 1)
	return mean, one / n, math.Sqrt(one)
}

// round rounds to a hundredth of a millimetre: finer than any proof.
func round(v float64) float64 { return math.Round(v*100) / 100 }
