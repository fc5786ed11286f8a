package survey

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// Slip names the mistake with the tape that would best explain a suspect, in
// words that follow "perhaps"; it is empty when none brings the reading within
// two sigmas of what the others predict.
func (x Suspect) Slip() string {
	y, r := x.Reading.Value.MM(), x.Reading
	type guess struct {
		value float64
		words string
	}
	guesses := []guess{
		{y - 10, "the tape was misread by 10 mm"},
		{y + 10, "the tape was misread by 10 mm"},
		{y - 100, "the tape was misread by 100 mm"},
		{y + 100, "the tape was misread by 100 mm"},
		{y - 25.4, "the tape was misread by an inch"},
		{y + 25.4, "the tape was misread by an inch"},
		{y * 10, "it was read in centimetres"},
		{y / 10, "it was written in tenths of a millimetre"},
		{y * 25.4, "it was read in inches"},
		{y - 100, "the tape was held at its 100 mm mark"},
	}
	switch r.Kind {
	case Plumb:
		guesses = append(guesses, guess{-y, "in and out were swapped"})
	case Level:
		guesses = append(guesses, guess{-y, "the two ends were swapped"})
	case Square, Straight:
		guesses = append(guesses, guess{-y, "the light was at the other end"})
	}
	best := guess{}
	off := 2 * x.Sigma
	for _, g := range guesses {
		if d := math.Abs(g.value - x.Predicted); d < off {
			best, off = g, d
		}
	}
	return best.words
}

// Gain is what one more reading would bring.
type Gain struct {
	Reading Reading // without a value
	Figure  int     // which of the wanted figures it helps most
	From    float64 // that figure's sigma now, mm
	To      float64 // and after, mm
	Worth   float64 // what it takes off them all, weighted to the worst; the order of the list
}

// Best ranks readings that could be taken next by what each would take off
// the standard deviations of the wanted figures, most first:
//
//	Δ = (B P aᵀ)(B P aᵀ)ᵀ / (a P aᵀ + σ²)
//
// for a reading's row a with noise σ². What is left is weighed by the fourth
// power, so that the least sure figures count most. A candidate that cannot be
// is passed over.
func (s *Shape) Best(wanted []Row, candidates []Reading) []Gain {
	var rows []Row
	var fit []Reading
	for _, c := range candidates {
		if row, _, err := s.rowOf(c); err == nil {
			rows = append(rows, row)
			fit = append(fit, c)
		}
	}
	own, across, each := s.strip(wanted, rows)
	var now float64
	for _, v := range own {
		now += v * v
	}
	var list []Gain
	for k, c := range fit {
		noise := each[k] + s.prior.noise(c)
		g := Gain{Reading: c}
		var after, most float64
		for i, v := range own {
			p := across[i*len(rows)+k]
			left := max(v-p*p/noise, 0)
			after += left * left
			if d := math.Sqrt(v) - math.Sqrt(left); d > most {
				most, g.Figure, g.From, g.To = d, i, math.Sqrt(v), math.Sqrt(left)
			}
		}
		g.Worth = math.Pow(now, 0.25) - math.Pow(after, 0.25)
		list = append(list, g)
	}
	slices.SortStableFunc(list, func(a, b Gain) int { return cmp.Compare(b.Worth, a.Worth) })
	return list
}

// Candidates are the readings that a person could sensibly take next in an
// opening of a size, at round places in the unit of the job.
func Candidates(width, height measure.Length, u measure.Unit) (list []Reading) {
	mm := func(v measure.Length) measure.Length {
		step := 50 * measure.Millimetre
		if u == measure.Inches {
			step = 2 * measure.Inch
		}
		return v.Round(step, measure.Nearest)
	}
	low, high := mm(height/10), mm(height*9/10)
	near, far := mm(width/16), mm(width*15/16)
	for i := range measure.Length(7) {
		list = append(list, Reading{Kind: Width, At: mm(height * (i*2 + 2) / 16)})
	}
	for _, at := range []measure.Length{near, mm(width / 2), far} {
		list = append(list, Reading{Kind: Height, At: at})
	}
	for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
		list = append(
			list,
			Reading{Kind: Plumb, Side: side, At: high, From: low},
			Reading{Kind: Straight, Side: side, At: mm(height / 2), From: low, To: high},
			Reading{Kind: Square, Side: side, At: mm(width * 3 / 4)},
			Reading{Kind: Diagonal, Side: side},
		)
	}
	for _, side := range []frame.Side{frame.Head, frame.Foot} {
		list = append(list, Reading{Kind: Level, Side: side, At: far, From: near})
	}
	return list
}

// How says how a reading is taken, in a sentence.
func (r Reading) How(u measure.Unit) string {
	switch r.Kind {
	case Width:
		return "Tape across, jamb face to jamb face."
	case Height:
		return "Tape up, floor to head."
	case Plumb:
		return "Long level on the jamb: how far further in does it stand at the upper place? Out is minus."
	case Level:
		return "Level from end to end: how much higher is the lock side? Lower is minus."
	case Square:
		return "Stock on the jamb, blade along the head: the light at the blade's end. Light in the corner is minus."
	case Straight:
		return fmt.Sprintf("Straightedge on it from %s to %s: the light under it. Where it rocks on the middle, minus.", measure.Say(r.From, u), measure.Say(r.To, u))
	case Diagonal:
		return "Tape from this foot to the head's far corner."
	case Gap:
		return "Packers between slab and side until one just passes."
	}
	return ""
}
