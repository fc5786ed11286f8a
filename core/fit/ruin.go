package fit

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
)

// Ruin is the chance that a finished margin comes out more than the tolerance wider than the best
// straight edge could make it, at any of the six ends that Ends lists, where the opening is wider there by
// shift than the readings say (mm; nil for nowhere), left is what stays on each edge, and cov the
// covariance of the ends, mm².
func (o Outline) Ruin(s Sureness, left frame.Each[float64], cov mat.Symmetric, shift []float64) float64 {
	sound := 1.0
	for i := range 2 * len(o.ends) {
		e, end := o.ends[i/2], i%2
		room := s.Tolerance + left[tripEdges[i/2]]*e.share[end]
		if shift != nil {
			room -= shift[i]
		}
		sound *= 1 - phi(-room/math.Sqrt(cov.At(i, i)+s.Cut*s.Cut+e.waves))
	}
	return 1 - sound
}
