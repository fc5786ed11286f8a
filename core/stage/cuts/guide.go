package cuts

import (
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// before reports whether one edge is cut before another.
func (c List) before(side, than frame.Side) bool {
	for e := range c.InOrder() {
		switch e.Side {
		case than:
			return false
		case side:
			return true
		}
	}
	return false
}

// uncut is an edge of the slab as it was measured.
func (o laidOut) uncut(side frame.Side) [2]fit.Corner {
	s := o.bay.Slab
	width, foot, length := s.WidthAt(0), s.WidthAt(1), s.Length.MM()
	topHinge, footHinge := fit.Corner{}, fit.Corner{X: 0, Y: length}
	topLock := fit.Corner{X: width, Y: s.HeadAt(1)}
	footLock := fit.Corner{X: foot, Y: s.FootAt(foot / width)}
	return frame.Each[[2]fit.Corner]{
		frame.Head: {topHinge, topLock}, frame.Hinge: {topHinge, footHinge}, frame.Lock: {topLock, footLock},
		frame.Foot: {footHinge, footLock},
	}[side]
}

// line is the line through an edge's first and last mark, so much off it.
func (o laidOut) line(e Edge, off measure.Length) (line [2]fit.Corner) {
	s := o.bay.Slab
	for i, k := range [2]int{0, len(e.Marks) - 1} {
		at := o.laid.Cuts[e.Side][k].At
		depth := (e.Marks[k].Depth.Value - off).MM()
		switch e.Side {
		case frame.Head:
			line[i] = fit.Corner{X: at, Y: s.HeadAt(at/s.Width.MM()) + depth}
		case frame.Foot:
			line[i] = fit.Corner{X: at, Y: s.FootAt(at/s.Width.MM()) - depth}
		case frame.Hinge:
			line[i] = fit.Corner{X: depth, Y: at}
		default:
			at += s.HeadAt(1)
			line[i] = fit.Corner{X: s.WidthAt(at/s.Length.MM()) - depth, Y: at}
		}
	}
	return line
}

// reach is the length of an edge, in mm.
func (o laidOut) reach(side frame.Side) float64 {
	if side.Upright() {
		return o.bay.Slab.Length.MM()
	}
	return o.bay.Slab.Width.MM()
}
