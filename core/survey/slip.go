package survey

import (
	"math"
)

// Slip names the mistake with the tape that would best explain a suspect, in
// words that follow "perhaps"; it is empty when none brings the reading within
// two sigmas of what the others predict.
func (x Suspect) Slip() string {
	y, r := x.Reading.seen(), x.Reading
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
