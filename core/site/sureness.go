package site

import (
	"math"
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/survey"
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
	if s.Tapered = d.Rules < Rules6; s.Tapered {
		s.Risk = fit.Risk5
	}
	if d.Rules == Rules1 {
		s.Risk = fit.Risk1
	}
	if d.Rules < Rules5 {
		s.Tolerance = fit.AsCut
	}
	s.Cut = math.Sqrt(s.Cut*s.Cut + 2*step*step/12)
	if d.Rules > Rules1 && !d.offeredItself() {
		s.Slab = d.slabRead()
	}
	return s
}

// offeredItself reports whether the slab that is cut was offered up, with gaps on every side: its marks are then
// measured from its own edges, and an error of its sizes cancels.
func (d Opening) offeredItself() bool {
	for _, f := range d.Offers {
		if !d.CutsOffered(f) {
			continue
		}
		var seen frame.Each[bool]
		for _, r := range d.Readings {
			seen[r.Side] = seen[r.Side] || r.Kind == survey.Gap && r.Offer == f.ID && r.Struck == ""
		}
		if seen[frame.Hinge] && seen[frame.Lock] && seen[frame.Head] && seen[frame.Foot] {
			return true
		}
	}
	return false
}

// OwnEdges reports whether a slab that is offered up, and is no old door, is the one that is cut, by marks from its own
// edges.
func (d Opening) OwnEdges() bool { return d.Rules >= Rules5 && d.Pair == nil }

// CutsOffered reports whether an offer is that slab.
func (d Opening) CutsOffered(f survey.Offer) bool { return d.OwnEdges() && !f.Old }

// Offered are the opening's offers: the slab that is cut by its own sizes.
func (d Opening) Offered() []survey.Offer {
	list := slices.Clone(d.Offers)
	for i, f := range list {
		if !d.CutsOffered(f) {
			continue
		}
		list[i] = d.Itself(f)
	}
	return list
}

// Itself is an offer with the sizes of the slab that is cut, as far as they are known.
func (d Opening) Itself(f survey.Offer) survey.Offer {
	if s := d.Slab; s.Width > 0 && s.Length > 0 {
		f.Width, f.WidthMid, f.WidthFoot, f.Length, f.LengthLock = s.Width, s.WidthMid, s.WidthFoot, s.Length, s.LengthLock
		f.Square = &s.Square
	}
	return f.Whole()
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
