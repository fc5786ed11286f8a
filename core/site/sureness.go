package site

import (
	"math"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
)

// Rounded is what stays on an edge on average, in mm, because its cuts are rounded to the tape. The head keeps nothing
// by it: it is hung by its finished hinge corner, so what rounding leaves on there is lost at the lock corner.
func (d Opening) Rounded(side frame.Side) float64 {
	if side == frame.Head && d.Rules > Rules1 {
		return 0
	}
	return d.Tape.Step().MM() / 2
}

// Sureness is how well a cut by tape keeps to its figure, standard deviations in mm: a cut strays from its line, its
// line from the figure by the tape's rounding, and the packers or the head's mark that it is hung to by as much
// (uniform errors; JCGM 100:2008, 4.3.7); and the slab from its own sizes.
func (d Opening) Sureness() fit.Sureness {
	s, step := fit.Common, d.Tape.Step().MM()
	if d.Rules == Rules1 {
		s.Risk = fit.Risk1
	}
	s.Cut = math.Sqrt(s.Cut*s.Cut + 2*step*step/12)
	if d.Rules > Rules1 {
		s.Slab = d.slabRead()
	}
	return s
}

// slabRead is how sure the slab's own size and squareness are, a standard deviation in mm; nought where
// what read the opening is carried to it.
func (d Opening) slabRead() float64 {
	_, sigma := d.Kit.Tools.OnSlab()
	if sigma == 0 {
		return 0
	}
	return math.Hypot(sigma, d.Tape.Step().MM()/math.Sqrt(12))
}
