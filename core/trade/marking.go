package trade

import "kindmargin/core/message"

// Marking is a way of carrying the hinges' marks from the slab to the jamb.
type Marking struct {
	ID     string
	Sigma  float64 // how far a hinge then lies off its mark, in its margin and along the jamb: a standard deviation, mm
	Source string
}

// Name is the name of a way of marking.
func (m Marking) Name() message.ID { return "marking." + message.ID(m.ID) }

// Markings lists them, the usual one first.
var Markings = []Marking{
	{ID: "folded", Sigma: 0.3, Source: assumed}, // by the leaf on the slab, held at its head margin on packers
	{ID: "rod", Sigma: 0.2, Source: assumed},    // by a story rod, or pricked through
	{ID: "tape", Sigma: 0.5, Source: assumed},
}

// MarkingByID finds a way of marking, the usual one for an empty ID; ok is false for an unknown ID.
func MarkingByID(id string) (m Marking, ok bool) {
	if id == "" {
		return Markings[0], true
	}
	for _, m := range Markings {
		if m.ID == id {
			return m, true
		}
	}
	return m, false
}
