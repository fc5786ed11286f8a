package site

import (
	"strconv"

	"kindmargin/core/figure"
	"kindmargin/core/survey"
)

// Survey is the estimate of an opening from its readings.
type Survey struct {
	Shape           *survey.Shape
	Readings        []survey.Reading // those that can be and were not struck out
	Inside          []survey.Reading // those of them that lie in the opening
	Offers          []survey.Offer   // as they are estimated with
	Usual           survey.Prior     // before anything was learnt
	Widths, Heights int              // how often each was read
	Width, Height   float64          // about, mm
	Could           []survey.Reading // that could be read next
	Reads           [2]float64       // by how much too much a slab's width and length are read, mm
}

// Answers reports whether a width and a height are known, without which nothing can be planned.
func (s Survey) Answers() bool { return s.Widths > 0 && s.Heights > 0 }

// ReadingAt is the JSON pointer to a field of the i-th reading.
func ReadingAt(reading int, field string) string {
	return "/readings/" + strconv.Itoa(reading) + "/" + field
}

// Clear is the clear size that a frame made to a slab must leave, with its terms.
type Clear struct{ Width, Height figure.Figure }
