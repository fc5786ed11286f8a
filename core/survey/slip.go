package survey

import (
	"math"

	"kindmargin/core/message"
)

// Slip is the slip that would best explain a suspect; it is empty where none brings the reading within two sigmas of
// the prediction by the others.
func (x Suspect) Slip() message.ID {
	y, r := x.Reading.seen(), x.Reading
	type guess struct {
		value float64
		id    message.ID
	}
	guesses := []guess{
		{y - 10, "slip.10mm"},
		{y + 10, "slip.10mm"},
		{y - 100, "slip.100mm"},
		{y + 100, "slip.100mm"},
		{y - 25.4, "slip.1in"},
		{y + 25.4, "slip.1in"},
		{y * 10, "slip.centimetres"},
		{y / 10, "slip.tenths"},
		{y * 25.4, "slip.inches"},
		{y - 100, "slip.held-at-100"},
	}
	switch r.Kind {
	case Plumb:
		guesses = append(guesses, guess{-y, "slip.in-and-out"})
	case Level:
		guesses = append(guesses, guess{-y, "slip.ends"})
	case Square, Straight:
		guesses = append(guesses, guess{-y, "slip.light"})
	}
	best := guess{}
	off := 2 * x.Sigma
	for _, g := range guesses {
		if d := math.Abs(g.value - x.Predicted); d < off {
			best, off = g, d
		}
	}
	return best.id
}
