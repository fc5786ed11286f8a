// Package slab describes the bare door that is to be fitted.
package slab

import (
	"fmt"

	"kindmargin/core/measure"
)

// Slab is a slab as it stands on the trestles, before anything is cut.
type Slab struct {
	Width     measure.Length `json:"width"`
	Length    measure.Length `json:"length"`
	Thickness measure.Length `json:"thickness"`
}

// Error says which measurement of a slab cannot be, and what to do.
type Error struct {
	Field   string // "width", "length" or "thickness"
	Problem string // a sentence
}

func (e *Error) Error() string { return e.Problem }

var ranges = []struct {
	field       string
	of          func(Slab) measure.Length
	least, most measure.Length
}{
	{"width", func(s Slab) measure.Length { return s.Width }, 200 * measure.Millimetre, 2 * measure.Metre},
	{"length", func(s Slab) measure.Length { return s.Length }, 500 * measure.Millimetre, 4 * measure.Metre},
	{"thickness", func(s Slab) measure.Length { return s.Thickness }, 15 * measure.Millimetre, 120 * measure.Millimetre},
}

// Check reports the first measurement given that no door slab has, as an
// *Error worded in the unit of the job. A measurement of nought is one not
// given yet.
func (s Slab) Check(u measure.Unit) error {
	for _, r := range ranges {
		if v := r.of(s); v != 0 && (v < r.least || v > r.most) {
			return &Error{r.field, fmt.Sprintf("%s is no door slab's %s (%s to %s): measure it again, and look at the unit.",
				measure.Say(v, u), r.field, measure.Say(r.least, u), measure.Say(r.most, u))}
		}
	}
	return nil
}

// Missing lists the measurements that are not given yet.
func (s Slab) Missing() (fields []string) {
	for _, r := range ranges {
		if r.of(s) == 0 {
			fields = append(fields, r.field)
		}
	}
	return fields
}
