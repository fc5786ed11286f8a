package fit

import (
	"kindmargin/core/frame"
)

// Corner is a corner of the outline in the hung frame, mm.
type Corner struct{ X, Y float64 }

// The corners of an outline or a slab.
const (
	topHinge = iota
	topLock
	footLock
	footHinge
)

// CornersWith gives the corners of the outline in the hung frame, with each edge moved outward by what is left on it,
// in mm; on the head only its lock corner moves.
func (o Outline) CornersWith(leave frame.Each[float64]) [4]Corner {
	hinge, lock := o.Edges[frame.Hinge].Line, o.Edges[frame.Lock].Line
	head, foot := o.Edges[frame.Head].Line, o.Edges[frame.Foot].Line
	hinge.A -= leave[frame.Hinge]
	lock.A += leave[frame.Lock]
	foot.A -= leave[frame.Foot]
	if leave[frame.Head] != 0 {
		a, b := meet(hinge, head), meet(lock, head)
		tilt := leave[frame.Head] / (b.X - a.X)
		head.A -= tilt * a.X
		head.B += tilt
	}
	return [4]Corner{
		topHinge: meet(hinge, head), topLock: meet(lock, head), footLock: meet(lock, foot),
		footHinge: meet(hinge, foot),
	}
}

// meet is the intersection of x = up(y) and y = across(x).
func meet(up, across Line) Corner {
	y := (across.A + across.B*up.A) / (1 - across.B*up.B)
	return Corner{up.At(y), y}
}

// Corners are the corners of the finished slab: top hinge, top lock, foot lock, foot hinge.
func (o Outline) Corners() [4]Corner { return o.CornersWith(frame.Each[float64]{}) }

// Size is the finished slab's size, and the margins where it is greatest, in mm.
type Size struct {
	Width, HingeGap, LockGap  float64 // at its widest end
	Length, HeadGap, FootGap  float64 // at its longest edge
	HingeEdge                 float64 // length of the hinge edge
	TopHinge, TopLock, AtFoot float64 // y of the corners; AtFoot on the hinge edge
}

// Size measures the finished slab.
func (o Outline) Size() Size {
	c := o.CornersWith(frame.Each[float64]{})
	s := Size{
		HingeEdge: c[topHinge].Y - c[footHinge].Y,
		TopHinge:  c[topHinge].Y, TopLock: c[topLock].Y, AtFoot: c[footHinge].Y,
	}
	y := c[topLock].Y
	s.Width = c[topLock].X - c[topHinge].X
	if w := c[footLock].X - c[footHinge].X; w > s.Width {
		s.Width, y = w, c[footLock].Y
	}
	s.HingeGap, s.LockGap = o.Edges[frame.Hinge].GapAt(y), o.Edges[frame.Lock].GapAt(y)
	x := c[topHinge].X
	s.Length = s.HingeEdge
	if l := c[topLock].Y - c[footLock].Y; l > s.Length {
		s.Length, x = l, c[topLock].X
	}
	s.HeadGap, s.FootGap = o.Edges[frame.Head].GapAt(x), o.Edges[frame.Foot].GapAt(x)
	return s
}
