package simulate

import (
	"math/rand/v2"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
)

// kit is the tools for a house, its tape, and the ID of the trade.Marking by which hinge marks are carried over.
type kit struct {
	tools   survey.Kit
	tape    measure.Tape
	marking string
	offered bool // the slab itself is stood against the opening
}

// plain is what people own: gaps are read with packers.
func (h hands) plain() survey.Kit {
	return survey.Kit{
		{ID: "tape", Instrument: "tape"}, {ID: "level", Instrument: "level"}, {ID: "square", Instrument: "square"},
	}
}

// gauges are those with feelers for the gaps.
func (h hands) gauges() survey.Kit {
	return append(h.plain(), survey.Tool{ID: "gauges", Instrument: "feelers"})
}

// sticks are those with two battens that slide on one another and a straight lath, as they come.
func (h hands) sticks() survey.Kit {
	return survey.Kit{
		{ID: "rods", Instrument: "rods"},
		{ID: "feelers", Instrument: "straightedge"},
		{ID: "level", Instrument: "level"},
		{ID: "square", Instrument: "square"},
		{ID: "gauges", Instrument: "feelers"},
	}
}

// proved is a kit of rods and feelers with a proved level and square: the level turned end for end over 1.6 m, the
// square against a better one of 600 mm, true to 0.1 mm a metre, four readings each way.
func (h hands) proved(rng *rand.Rand) survey.Kit {
	k := append(h.sticks(), survey.Tool{
		ID: "true", Instrument: "square", Proved: &survey.Proved{Sure: 0.1, Readings: 8},
	})
	times := func(value, sigma float64) (list []measure.Length) {
		for range 4 {
			list = append(
				list, measure.FromMM(value+rng.NormFloat64()*sigma).Round(measure.Millimetre/2, measure.Nearest),
			)
		}
		return list
	}
	prove := func(i int, p survey.Proof) {
		got, err := k.Prove(k[i].ID, p, 0.5)
		if err != nil {
			panic(err)
		}
		k[i].Proved = &got
	}
	span, lean := 1.6, rng.NormFloat64()*4
	prove(2, survey.Proof{
		Kind: survey.Plumb, Span: measure.FromMM(1000 * span),
		Own: times(lean+h.bias["level"]*span, 0.5), Better: times(lean-h.bias["level"]*span, 0.5),
	})
	blade := 0.6
	prove(3, survey.Proof{
		Kind: survey.Square, Span: measure.FromMM(1000 * blade), Against: "true",
		Own: times(h.bias["square"]*blade, 0.5), Better: times(rng.NormFloat64()*0.1*blade, 0.5),
	})
	return k[:5]
}

// openingFor is an opening with default choices and no readings, and a slab large enough for any; its edges stay
// straight, since it is judged by straight edges.
func openingFor() job.Opening {
	mm := measure.FromMM
	o := job.NewOpening("o", "Door", measure.Millimetres)
	o.Cut.LockEdge, o.Cut.Head = job.Straight, job.Straight
	much := mm(150)
	o.Slab = slab.Slab{
		Width: mm(width + 100), Length: mm(height + 100), Thickness: mm(thick), Construction: "flush",
		Limits: slab.Limits{Head: &much, Hinge: &much, Lock: &much, Foot: &much},
	}
	return o
}
