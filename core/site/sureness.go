package site

import (
	"math"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/trade"
)

// Rounded is what rounding to the tape leaves on an edge on average, in mm. The head keeps nothing: it hangs by its
// finished hinge corner, so what rounding leaves on there is lost at the lock corner.
func (d Opening) Rounded(side frame.Side) float64 {
	if side == frame.Head && d.Rules > Rules1 {
		return 0
	}
	return d.Tape.Step().MM() / 2
}

// Sureness is the accuracy of a cut by tape, as standard deviations in mm: of the cut from its line, of the line from
// its figure by the tape's rounding, and of the packers or the head's mark that it is hung to (uniform errors; JCGM
// 100:2008, 4.3.7); and of the slab's own size.
func (d Opening) Sureness() fit.Sureness {
	s, step := fit.Common, d.Tape.Step().MM()
	if d.Rules == Rules1 {
		s.Risk = fit.Risk1
	}
	if d.Rules < Rules5 {
		s.Tolerance = fit.AsCut
	}
	s.Cut = math.Sqrt(s.Cut*s.Cut + 2*step*step/12)
	if d.Rules > Rules1 {
		s.Slab = d.slabRead()
	}
	return s
}

// slabRead is the standard deviation of the slab's own size and squareness, in mm; 0 where the tool that read the
// opening is carried to it.
func (d Opening) slabRead() float64 {
	_, sigma := d.Kit.Tools.OnSlab()
	if sigma == 0 {
		return 0
	}
	return math.Hypot(sigma, d.Tape.Step().MM()/math.Sqrt(12))
}

// HungOff is how far each hinge of a slab that is hung first lies off its mark, in its margin and along the jamb: a
// standard deviation in mm.
func (d Opening) HungOff() float64 {
	if d.Rules < Rules5 || d.Service != nil { // nobody knows how a door in use was marked
		return trade.HungPin
	}
	m, _ := trade.MarkingByID(d.Kit.Marking)
	return m.Sigma
}
