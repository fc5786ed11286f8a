package fit

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
	"kindmargin/core/survey"
)

// cornerRow is how much wider than the best straight edge's the margin is at the head's hinge corner, where it is set
// by the hinges' marks: a straight edge stands off a bowed head by half its sagitta, so the row is half of the
// sagitta's error.
func cornerRow(gaps []Gap, rows []survey.Row) (row survey.Row) {
	last := len(gaps) - 1
	middle := last / 2
	half := -0.5
	if gaps[middle].Mean < (gaps[0].Mean+gaps[last].Mean)/2 {
		half = 0.5
	}
	add := func(i int, by float64) {
		for _, t := range rows[i] {
			t.By *= by
			row = append(row, t)
		}
	}
	add(middle, half)
	add(0, -half/2)
	add(last, -half/2)
	return row
}

// Doubted are the figures of the opening that a slip could ruin the slab by: those of Ends, and the head margin at the
// hinge corner.
func (o Outline) Doubted() []survey.Row { return append(o.Ends(), o.atCorner) }

// DoubtedOf is the edge of the i-th of Doubted.
func DoubtedOf(i int) frame.Side {
	if i == 2*len(tripEdges) {
		return frame.Head
	}
	return tripEdges[i/2]
}

// Ruin is the probability that a finished margin is wider than the best straight edge's by more than the tolerance at
// any place of Doubted. shift is how much wider the opening is there than the readings say (mm; nil for nowhere), left
// what stays on each edge, and cov the covariance of those figures, in mm².
func (o Outline) Ruin(s Sureness, left frame.Each[float64], cov mat.Symmetric, shift []float64) float64 {
	sound := 1.0
	for i := range cov.SymmetricDim() {
		room, waves := s.Tolerance[frame.Head]+o.Held, 0.0 // at the corner
		if i < 2*len(o.ends) {
			e := o.ends[i/2]
			room, waves = s.Tolerance[tripEdges[i/2]]+left[tripEdges[i/2]]*e.share[i%2], e.waves
		}
		if shift != nil {
			room -= shift[i]
		}
		sound *= 1 - phi(-room/math.Sqrt(cov.At(i, i)+s.marked()+waves))
	}
	return 1 - sound
}
