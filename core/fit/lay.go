package fit

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/slab"
)

// Cut is the depth to take off one edge of the slab at one place. Its parts add up:
//
// long edges: Depth = slab's width − Opening + NearGap + FarGap − OtherCut − Left
//
// foot: Depth = slab's length − Opening + NearGap + FarGap − OtherCut − Left
//
// head: Depth = Opening + NearGap + Shared − Left
//
// The slab's width and length are those at the mark. For the head, Opening is how far the opening's head here is below
// its highest place, and NearGap the margin here less the margin there.
type Cut struct {
	At    float64 // mm along the edge of the uncut slab: from its top, or across from its hinge edge
	Depth float64 // mm; below nought where the slab is short

	Opening  float64 // the opening here, square to the slab
	NearGap  float64 // the margin at this edge
	FarGap   float64 // the margin at the opposite edge
	OtherCut float64 // what comes off the opposite edge here
	Left     float64 // what is left on for now
	Shared   float64 // on the head: what it takes of the length beside its own shape
	Whole    float64 // the slab's own width or length here
}

// Short is a place where the slab does not reach the outline.
type Short struct {
	Side frame.Side
	At   float64 // as Cut.At
	By   float64 // mm
}

// Laid is an outline laid on a slab.
type Laid struct {
	Laying
	Cuts  frame.Each[[]Cut]
	Short []Short // at most one an edge, the worst
	Left  frame.Each[float64]
	// Width and Length are the slab's sizes after the first cut, at head, middle and foot, and at the hinge edge,
	// middle and lock edge, in mm.
	Width, Length [3]float64
	// Top is the distance from the uncut slab's top to the cut head, at the hinge edge and at the lock edge, in mm.
	Top [2]float64
	// Final is Top at the lock edge once what is left on is planed off, in mm.
	Final float64
	// LockEdge is the distance from the uncut slab's lock edge to the cut one, at head and foot, in mm.
	LockEdge [2]float64
}

// shortBy is the smallest shortfall that is reported, in mm; a slab short by less counts as on the line.
const shortBy = 0.05

// Lay puts the outline on a slab. leave is the wood to leave on each edge for now, in mm, reduced to what the slab has:
// a slab that is just large enough is cut to the line, and only one that does not reach the line is short.
func Lay(o Outline, leave frame.Each[float64], s slab.Slab, r Laying) Laid {
	final := lay(o, frame.Each[float64]{}, s, r)
	if r.Across == AsOffered { // it stays where it stood; nothing is shifted to leave more on
		first := lay(o, leave, s, r)
		first.Short = final.Short
		return first
	}
	spare := final
	if r.Along != KeepHead {
		spare = lay(o, frame.Each[float64]{}, s, Laying{r.Across, KeepHead})
	}
	across, along := math.Inf(1), math.Inf(1)
	for i, c := range final.Cuts[frame.Hinge] {
		across = min(across, c.Depth+final.Cuts[frame.Lock][i].Depth)
	}
	for _, c := range spare.Cuts[frame.Foot] {
		along = min(along, c.Depth)
	}
	across, along = max(across, 0), max(along, 0)
	leave[frame.Lock] = min(leave[frame.Lock], across)
	// More leave-on at the head's lock corner than comes off there is made by lowering the rest of the head, which
	// costs length.
	atLock := spare.Cuts[frame.Head][len(spare.Cuts[frame.Head])-1].Depth
	leave[frame.Head] = min(leave[frame.Head], atLock+along)
	leave[frame.Foot] = min(leave[frame.Foot], along-max(leave[frame.Head]-atLock, 0))
	if leave == (frame.Each[float64]{}) {
		return final
	}
	first := lay(o, leave, s, r)
	first.Short = final.Short
	return first
}

var opposite = frame.Each[frame.Side]{
	frame.Head: frame.Foot, frame.Foot: frame.Head, frame.Hinge: frame.Lock, frame.Lock: frame.Hinge,
}

func lay(o Outline, leave frame.Each[float64], s slab.Slab, r Laying) Laid {
	k := place(&o, leave, s, r)
	k.shareLength()
	laid := Laid{Laying: r, Left: leave}
	k.cutLong(&laid)
	k.cutEnds(&laid)
	laid.Short = shorts(&laid.Cuts)
	k.scribe(&laid.Cuts)
	k.sizes(&laid)
	return laid
}

// cutLong gives the depths along the two long edges, at the ends, the middle and the quarters of the slab.
func (k *onSlab) cutLong(laid *Laid) {
	left := k.leave[frame.Lock] + k.leave[frame.Hinge]
	for _, edge := range [2]frame.Side{frame.Hinge, frame.Lock} {
		from, length := 0.0, k.length
		if edge == frame.Lock { // whose length may be another
			from = k.slab.HeadAt(1)
			length = k.slab.FootAt(1) - from
		}
		cuts := make([]Cut, 5)
		for i := range cuts {
			at := length * float64(i) / 4
			y := from + at
			whole := k.widthAt(y)
			hinge, lock := k.hingeAt(y), whole-k.lockAt(y)
			atHinge, atLock := k.gap(frame.Hinge, y), k.gap(frame.Lock, y)
			cut := Cut{
				At: at, Depth: hinge, Opening: whole - hinge - lock + atHinge + atLock - left, NearGap: atHinge,
				FarGap: atLock, OtherCut: lock, Left: left, Whole: whole,
			}
			if edge == frame.Lock {
				cut.Depth, cut.OtherCut, cut.NearGap, cut.FarGap = lock, hinge, atLock, atHinge
			}
			cuts[i] = cut
		}
		laid.Cuts[edge] = cuts
	}
}

// cutEnds gives the depths along the head and the foot, at both ends and the middle of each.
func (k *onSlab) cutEnds(laid *Laid) {
	for _, side := range [2]frame.Side{frame.Head, frame.Foot} {
		width := k.width
		if side == frame.Foot { // which may be narrower
			width = k.widthAt(k.length)
		}
		cuts := make([]Cut, 3)
		for i := range cuts {
			x := width * float64(i) / 2
			from, to := k.slab.HeadAt(x/k.width), k.slab.FootAt(x/k.width)
			head, foot := k.headAt(x)-from, to-k.footAt(x)
			if side == frame.Head {
				left := k.headLeft(x) - k.headLeft(k.highest)
				more := k.gap(frame.Head, x) - k.gap(frame.Head, k.highest)
				cuts[i] = Cut{
					At: x, Depth: head, Opening: head - k.shared - more + left, NearGap: more, Left: left,
					Shared: k.shared, Whole: to - from,
				}
				continue
			}
			left := k.leave[frame.Foot] + k.headLeft(x)
			atHead, atFoot := k.gap(frame.Head, x), k.gap(frame.Foot, x)
			cuts[i] = Cut{
				At: x, Depth: foot, Opening: to - from - head - foot + atHead + atFoot - left, NearGap: atFoot,
				FarGap: atHead, OtherCut: head, Left: left, Whole: to - from,
			}
		}
		laid.Cuts[side] = cuts
	}
}

// shorts are the edges where the slab does not reach the outline, each at its worst place.
func shorts(cuts *frame.Each[[]Cut]) []Short {
	var short []Short
	for _, side := range frame.Sides {
		worst := Short{Side: side}
		for _, cut := range cuts[side] {
			if -cut.Depth > worst.By {
				worst.At, worst.By = cut.At, -cut.Depth
			}
		}
		if worst.By > shortBy {
			short = append(short, worst)
		}
	}
	return short
}

// scribe adds the marks of a scribed edge along its side, where there is wood to mark.
func (k *onSlab) scribe(cuts *frame.Each[[]Cut]) {
	for _, side := range frame.Sides {
		for i := range cuts[side] {
			cut := &cuts[side][i]
			at := cut.At - k.shift
			if side.Upright() {
				at = k.top - cut.At
			}
			by := k.outline.Edges[side].scribe(at)
			cut.Depth += by
			cut.NearGap += by
			if side != frame.Foot { // the head's figures do not name the foot's
				other := &cuts[opposite[side]][i]
				other.FarGap += by
				other.OtherCut += by
			}
		}
	}
}

// sizes are the slab's sizes after the first cut, where it has wood.
func (k *onSlab) sizes(laid *Laid) {
	c := &k.cut
	for i, y := range [3]float64{c[topHinge].Y, k.length / 2, min(c[footHinge].Y, k.length)} {
		laid.Width[i] = min(k.lockAt(y), k.widthAt(y)) - max(k.hingeAt(y), 0)
	}
	for i, x := range [3]float64{c[topHinge].X, k.width / 2, c[topLock].X} {
		laid.Length[i] = min(k.footAt(x), k.slab.FootAt(x/k.width)) - max(k.headAt(x), k.slab.HeadAt(x/k.width))
	}
	laid.Top = [2]float64{c[topHinge].Y, c[topLock].Y}
	laid.Final = k.line[topLock].Y
	laid.LockEdge = [2]float64{k.widthAt(c[topLock].Y) - c[topLock].X, k.widthAt(c[footLock].Y) - c[footLock].X}
}
