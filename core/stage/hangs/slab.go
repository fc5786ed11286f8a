package hangs

import (
	"math"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/site"
)

// placesMade is the number of places of an edge of a cut slab: its ends, its middle, and on the long edges its
// quarters.
const (
	placesLong = 5
	placesEnd  = 3
)

// Made is a leaf as its marks cut it and its hinges hang it, from its finished hinge edge and its head's corner there.
// margin is the gap between that corner and the head.
func Made(
	d site.Opening, b site.Bay, marks frame.Each[[]site.Mark], hinges []job.MadeHinge, margin measure.Length,
) *job.Made {
	m := job.Made{Hand: d.HandOf(b), Margin: margin, Hinges: hinges}
	if d.Rules > site.Rules1 {
		m.Rules = int(d.Rules)
	}
	head, hingeEdge, lock, foot := marks[frame.Head], marks[frame.Hinge], marks[frame.Lock], marks[frame.Foot]

	// In the uncut slab: x from its hinge edge, y down from its top.
	whole, wide := b.Slab.Length.MM(), b.Slab.Width.MM()
	first, last := hingeEdge[0], hingeEdge[len(hingeEdge)-1]
	lean := (last.Depth.Value - first.Depth.Value).MM() / (last.At - first.At).MM()
	at0 := first.Depth.Value.MM() - lean*first.At.MM() // the hinge edge at y = 0
	headAt := make([]frame.Along, len(head))
	for i, k := range head {
		headAt[i] = frame.Along{At: k.At.MM(), Off: b.Slab.HeadAt(k.At.MM()/wide) + k.Depth.Value.MM()}
	}
	cornerX := at0
	for range 3 { // where head and hinge edge meet
		cornerX = at0 + lean*frame.OffAt(headAt, cornerX)
	}
	cornerY := frame.OffAt(headAt, cornerX)
	norm := math.Hypot(1, lean)
	// Down the finished hinge edge from its head's corner, and across from it.
	from := func(x, y float64) (down, across float64) {
		x, y = x-cornerX, y-cornerY
		return (lean*x + y) / norm, (x - lean*y) / norm
	}
	var top, bottom, width []frame.Along
	for _, k := range headAt {
		down, across := from(k.At, k.Off)
		top = append(top, frame.Along{At: across, Off: -down})
	}
	for _, k := range foot {
		down, across := from(k.At.MM(), b.Slab.FootAt(k.At.MM()/wide)-k.Depth.Value.MM())
		bottom = append(bottom, frame.Along{At: across, Off: down})
	}
	length := frame.OffAt(bottom, 0)
	for i := range lock {
		k := lock[len(lock)-1-i] // from the foot up
		y := b.Slab.HeadAt(1) + k.At.MM()
		down, across := from(b.Slab.WidthAt(y/whole)-k.Depth.Value.MM(), y)
		width = append(width, frame.Along{At: length - down, Off: across})
	}
	even := func(list []frame.Along, n int, reach float64) (out []measure.Length) {
		for i := range n {
			out = append(out, d.Estimate(frame.OffAt(list, reach*float64(i)/float64(n-1))))
		}
		return out
	}
	long := placesEnd
	if scribed(d, lock) {
		long = placesLong
	}
	m.Lock = even(width, long, length)
	m.Head = even(top, placesEnd, frame.OffAt(width, length))
	m.Foot = even(bottom, placesEnd, frame.OffAt(width, 0))
	m.Hollow = hollowOf(d, hingeEdge)
	return &m
}

// hollowOf is how far inside the straight line through its ends an edge's marks are, from the foot up; nil where none
// is.
func hollowOf(d site.Opening, marks []site.Mark) []measure.Length {
	first, last := marks[0], marks[len(marks)-1]
	lean := (last.Depth.Value - first.Depth.Value).MM() / (last.At - first.At).MM()
	list := make([]measure.Length, len(marks))
	for i, k := range marks {
		list[len(marks)-1-i] = d.Estimate((k.Depth.Value - first.Depth.Value).MM() - lean*(k.At-first.At).MM())
	}
	if slices.Max(list) <= 0 {
		return nil
	}
	return list
}

// scribed reports whether an edge's marks are off one straight line by more than a mark of the tape.
func scribed(d site.Opening, e []site.Mark) bool {
	first, last := e[0].Depth.Value, e[len(e)-1].Depth.Value
	for i, k := range e {
		line := first + (last-first)*measure.Length(i)/measure.Length(len(e)-1)
		if (k.Depth.Value - line).Abs() > d.Tape.Step() {
			return true
		}
	}
	return false
}

// Sizes of a leaf as it was made: its width at head, middle and foot, and its length on the hinge edge and on the lock
// edge.
func Sizes(m job.Made) (width [3]measure.Length, length [2]measure.Length) {
	n := len(m.Lock) - 1
	return [3]measure.Length{m.Lock[n], m.Lock[n/2], m.Lock[0]}, [2]measure.Length{
		m.Foot[0], m.Foot[len(m.Foot)-1] + m.Head[len(m.Head)-1],
	}
}

// along are evenly spaced places of an edge over a reach, in mm.
func along(list []measure.Length, reach float64) []frame.Along {
	out := make([]frame.Along, len(list))
	for i, v := range list {
		out[i] = frame.Along{At: reach * float64(i) / float64(len(list)-1), Off: v.MM()}
	}
	return out
}

// edgeReach is an edge's length on a made slab, in mm.
func edgeReach(m job.Made, side frame.Side) float64 {
	if side.Upright() {
		return m.Foot[0].MM()
	}
	return m.Lock[len(m.Lock)-1].MM()
}
