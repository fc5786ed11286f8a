package oracle

import (
	"math"
	"math/rand/v2"

	"kindmargin/core/frame"
	"kindmargin/core/plan"
)

// Wanted are the margins that a hung slab is judged by, in mm.
type Wanted struct {
	Margin frame.Each[float64]
	Least  float64
}

// Hung is a slab that was cut and hung: its edges as points in the slab's frame (x from its finished hinge edge, y down
// from its finished top hinge corner), and that frame's place in the opening.
type Hung struct {
	edges  frame.Each[[]point]
	u, v   float64 // of the top hinge corner
	lean   float64 // of the hinge edge from plumb, radians: its top toward the lock jamb is positive
	wanted Wanted
}

type point struct{ x, y float64 }

// stations is the number of places at which an edge is judged.
const stations = 33

// CutNoise and HingeNoise are the standard deviations of a cut at each end of an edge, and of a hinge from its mark, in
// mm. Common practice.
const (
	CutNoise   = 0.3
	HingeNoise = 0.0 // the slab hangs to its marks; a later judge may say otherwise
)

// line is linear between the depths at its two ends, over a reach.
type line struct{ a, b, reach float64 }

func (l line) at(s float64) float64 { return l.a + (l.b-l.a)*s/l.reach }

// Hang cuts a board by a leaf's marks, with normal errors at each end of each cut, and hangs it by its hinge marks on
// the hinge jamb. leafLength is a hinge leaf's length, in mm.
func (o Opening) Hang(b Board, l plan.Leaf, leafLength, least float64, rng *rand.Rand) Hung {
	var off frame.Each[line]
	for e := range l.Cut.InOrder() {
		first, last := e.Marks[0], e.Marks[len(e.Marks)-1]
		c := line{first.Depth.Value.MM(), last.Depth.Value.MM(), b.Length}
		if !e.Side.Upright() {
			c.reach = b.Width
		}
		if c.a > 0 || c.b > 0 {
			c.a, c.b = max(c.a+rng.NormFloat64()*CutNoise, 0), max(c.b+rng.NormFloat64()*CutNoise, 0)
		}
		off[e.Side] = c
	}
	// The finished edges in the uncut slab; wood is only removed.
	hinge := off[frame.Hinge].at
	lock := func(y float64) float64 {
		c := off[frame.Lock]
		if c.a == 0 && c.b == 0 {
			return b.lock(y)
		}
		ends := line{b.lock(0) - c.a, b.lock(b.Length) - c.b, b.Length}
		return min(ends.at(y), b.lock(y))
	}
	top := func(x float64) float64 {
		c := off[frame.Head]
		return max(line{b.top(0) + c.a, b.top(b.Width) + c.b, b.Width}.at(x), b.top(x))
	}
	bottom := func(x float64) float64 {
		c := off[frame.Foot]
		return min(line{b.bottom(0) - c.a, b.bottom(b.Width) - c.b, b.Width}.at(x), b.bottom(x))
	}
	// The finished hinge edge is the slab frame's y axis.
	th := meet(hinge, top, 0)
	fh := meet(hinge, bottom, b.Length)
	long := math.Hypot(fh.x-th.x, fh.y-th.y)
	sin, cos := (fh.x-th.x)/long, (fh.y-th.y)/long
	own := func(x, y float64) point {
		dx, dy := x-th.x, y-th.y
		return point{dx*cos - dy*sin, dx*sin + dy*cos}
	}
	h := Hung{wanted: Wanted{Least: least}}
	for _, s := range frame.Sides {
		h.wanted.Margin[s] = l.Wanted[s].Value.MM()
	}
	tl, fl := meet(lock, top, 0), meet(lock, bottom, b.Length)
	for i := range stations {
		f := float64(i) / (stations - 1)
		y := tl.y + f*(fl.y-tl.y)
		h.edges[frame.Lock] = append(h.edges[frame.Lock], own(lock(y), y))
		x := th.x + f*(tl.x-th.x)
		h.edges[frame.Head] = append(h.edges[frame.Head], own(x, top(x)))
		x = fh.x + f*(fl.x-fh.x)
		h.edges[frame.Foot] = append(h.edges[frame.Foot], own(x, bottom(x)))
	}
	o.place(&h, l, leafLength, rng)
	return h
}

// meet is the intersection of an upright edge x(y) and a level one y(x), near a height.
func meet(up, along func(float64) float64, y float64) point {
	x := up(y)
	for range 20 {
		y = along(x)
		x = up(y)
	}
	return point{x, y}
}

// place hangs the slab: each hinge at its mark below the head on the jamb, with its pin the planned margin off the jamb
// there.
func (o Opening) place(h *Hung, l plan.Leaf, leafLength float64, rng *rand.Rand) {
	_, head := o.corner(frame.Hinge, frame.Head)
	first, last := l.Hinges[0], l.Hinges[len(l.Hinges)-1]
	pin := func(jamb, pack float64) (u, v float64) {
		v = head - jamb - leafLength/2
		return o.Sides[frame.Hinge](v) + h.wanted.Margin[frame.Hinge] + pack + rng.NormFloat64()*HingeNoise, v
	}
	u1, v1 := pin(first.Jamb.Value.MM(), first.Pack.Value.MM())
	u2, v2 := pin(last.Jamb.Value.MM(), last.Pack.Value.MM())
	h.lean = math.Atan((u1 - u2) / (v1 - v2))
	down := first.Slab.Value.MM() + leafLength/2 // of the top hinge's middle, along the hinge edge
	sin, cos := math.Sincos(h.lean)
	h.u, h.v = u1+down*sin, v1+down*cos
}

// opening transforms a place of the slab to the opening's frame; slab is its inverse.
func (h Hung) opening(p point) (u, v float64) {
	sin, cos := math.Sincos(h.lean)
	return h.u + p.x*cos - p.y*sin, h.v - p.x*sin - p.y*cos
}

func (h Hung) slab(u, v float64) point {
	sin, cos := math.Sincos(h.lean)
	du, dv := u-h.u, v-h.v
	return point{du*cos - dv*sin, -du*sin - dv*cos}
}

// Gaps are the true margins along one edge: places along it in the slab, and the margin square to the slab there, in
// mm.
func (o Opening) Gaps(h Hung, side frame.Side) (at, gap []float64) {
	for _, p := range h.edges[side] {
		u, v := h.opening(p)
		if side.Upright() {
			at, gap = append(at, p.y), append(gap, h.slab(o.Sides[side](v), v).x-p.x)
			continue
		}
		light := h.slab(u, o.Sides[side](u)).y - p.y
		if side == frame.Head {
			light = -light
		}
		at, gap = append(at, p.x), append(gap, light)
	}
	return at, gap
}

// Excess is by how much the widest margin of an edge is wider than that of the best straight edge on the same pins, in
// mm; negative is narrower.
func (o Opening) Excess(h Hung, side frame.Side) float64 {
	at, gap := o.Gaps(h, side)
	wide, along := math.Inf(-1), make([]float64, len(gap))
	for i, p := range h.edges[side] {
		wide = max(wide, gap[i])
		along[i] = gap[i] + p.x // the side itself, from the slab's frame
		if !side.Upright() {
			along[i] = gap[i] - p.y
			if side == frame.Foot {
				along[i] = gap[i] + p.y
			}
		}
	}
	worst := straightest(at, along)
	wanted := h.wanted.Margin[side]
	moved := max(h.wanted.Least-(wanted-worst), 0) // a straight edge gives way to the least margin
	return wide - (wanted + worst + moved)
}

// TooSmall is by how much a finished slab is too far from its sides at its worst edge, in mm.
func (o Opening) TooSmall(h Hung) (worst float64) {
	worst = math.Inf(-1)
	for _, s := range []frame.Side{frame.Lock, frame.Head, frame.Foot} {
		worst = max(worst, o.Excess(h, s))
	}
	return worst
}

// straightest is the greatest distance of points from the straight line nearest to all: half the width of the narrowest
// band of parallel lines, which is unimodal in their slope.
func straightest(at, off []float64) float64 {
	band := func(slope float64) float64 {
		lo, hi := math.Inf(1), math.Inf(-1)
		for i := range at {
			r := off[i] - slope*at[i]
			lo, hi = min(lo, r), max(hi, r)
		}
		return (hi - lo) / 2
	}
	from, to := -0.1, 0.1
	for range 60 {
		a, b := from+(to-from)/3, to-(to-from)/3
		if band(a) < band(b) {
			to = b
		} else {
			from = a
		}
	}
	return band((from + to) / 2)
}
