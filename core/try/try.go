// Package try finds the least work that brings every margin of a slab on its trial screws in: hinges packed out or let
// in, all hinges up or down, edges planed.
//
// A move of m at the top hinge and of n at the bottom one, in mm out of the jamb, shifts and rotates the whole slab: at
// height v the line of the pins moves by n + (m − n)·(v − bottom)/span, which widens the hinge margin and narrows the
// lock margin by as much; at a place u across, the head margin widens and the foot margin narrows by u·(m − n)/span.
// Moves are of a millimetre or so, so that the second order is under a hundredth.
package try

import (
	"math"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/trade"
)

// Margin is the margin at one place of a side, in mm.
type Margin struct {
	At    float64 // v on a jamb, u on head and floor
	Mean  float64
	Sigma float64
}

// Hung is a hung slab, all in mm.
type Hung struct {
	Margins frame.Each[[]Margin] // at three places of each side or more, along it
	// Ends are the sigmas of the straight line through a side's margins at its two ends: less than a margin's own
	// there, since the side bows as well.
	Ends   frame.Each[[2]float64]
	Wanted frame.Each[float64]
	Least  float64          // nowhere less than this
	Within float64          // how far from the best a straight edge's margin may be
	Pins   []float64        // heights of the hinges' middles, up the slab, top first
	Out    []float64        // what each was packed out by since the slab was first hung; below nought let in
	Step   float64          // the thinnest card
	Bent   frame.Each[bool] // edges that are no longer straight: their middle is planed by itself
	// Fixed are edges that may not be planed: machined, or of a rated slab.
	Fixed frame.Each[bool]
	Bored *Bored   // nil where the lock edge may come down as far as it must
	Cut   float64  // standard deviation of a planed edge from its line
	Risk  Sureness // what a planed edge keeps on
	// Sure is how many sigmas inside Within a margin must be, before nothing is done about it.
	Sure  float64
	Trip  float64 // minutes
	Again float64 // minutes of another round, where a margin comes out other than predicted
	With  Means   // what may be done
}

// Sureness is that of a planed edge: how far too wide a margin may come out, and how many sigmas make a wider one rare
// enough.
type Sureness struct{ Tolerance, Deviates float64 }

// Usual is half a percent, shared by three edges, over a millimetre.
var Usual = Sureness{1, 2.93}

// Means are what may be done to a hung slab.
type Means uint16

// The means; Hinge(i) is hinge i's.
const (
	AllUp Means = 1 << iota
	PlaneHead
	PlaneLock
	PlaneFoot
	PlaneHinge
	hingeMeans
	Anything Means = 0xffff
)

// Hinge is packing or letting in hinge i, the top one being 0.
func Hinge(i int) Means { return hingeMeans << i }

// Plane is planing an edge; the hinge edge with its recesses let in by as much, so that the slab comes nearer to its jamb.
func Plane(side frame.Side) Means {
	return frame.Each[Means]{
		frame.Head: PlaneHead, frame.Lock: PlaneLock, frame.Foot: PlaneFoot, frame.Hinge: PlaneHinge,
	}[side]
}

// Way is one way to bring the margins in.
type Way struct {
	Uses    Means
	Moves   []float64 // of each hinge, out of the jamb, mm
	Up      float64   // of all hinges
	Planed  []Planed  // in the order of cutting
	Minutes float64
	Likely  float64 // minutes, with those of the rounds that may follow
	Trips   int     // to the trestles: 1 where anything must come off for it
	Hanging bool    // the lock edge is planed as it hangs
	Stays   []Stays
	Margins frame.Each[[]Margin] // as they come out
}

// Planed is what comes off one edge: at its foot or hinge corner, its middle, and its head or lock corner, linear
// between, in mm.
type Planed struct {
	Side frame.Side
	Off  [3]float64
}

// Stays is an end of an edge that stays out, and by how much, in mm; positive is too wide.
type Stays struct {
	Side frame.Side
	End  int // 0 foot or hinge corner, 1 between, 2 head or lock corner
	By   float64
}

// judged is a side's margins against those wanted.
type judged struct {
	side   frame.Side
	found  []Margin
	ends   [2]float64 // by how much the line lies over what is wanted, first and last
	sigma  [2]float64
	least  float64 // with what it is unsure by
	length float64
	wanted float64 // with what the least asks for
}

// judge compares a side's margins with the best straight edge's.
func (h *Hung) judge(side frame.Side, m []Margin) (j judged) {
	j.side, j.found = side, m
	points := make([]fit.Point, len(m))
	for i, g := range m {
		points[i] = fit.Point{S: g.At, Off: g.Mean}
	}
	line, rest, _ := fit.Minimax(points)
	j.sigma = h.Ends[side]
	j.least = h.Least + h.Sure*max(j.sigma[0], j.sigma[1])
	j.wanted = h.Wanted[side] + max(j.least-(h.Wanted[side]-rest), 0)
	for end, i := range [2]int{0, len(m) - 1} {
		j.ends[end] = line.At(m[i].At) - j.wanted
	}
	j.length = m[len(m)-1].At - m[0].At
	return j
}

// stays reports what of a side is out, with its line moved by shift at either end. A planed edge may be tight by its
// leave-on.
func (h *Hung) stays(j judged, shift [2]float64, planed bool, tell func(Stays)) {
	side, m := j.side, j.found
	tight := false
	for end, off := range j.ends {
		off += shift[end]
		half := max(h.Within-h.Sure*j.sigma[end], h.Within/2)
		if planed && off < 0 {
			half = max(half, h.leave(j.sigma[end])+0.01)
		}
		if past := math.Abs(off) - half; past > 1e-9 {
			tell(Stays{side, 2 * end, math.Copysign(past, off)})
			tight = tight || off < 0
		}
	}
	for _, g := range m {
		f := (g.At - m[0].At) / j.length
		by := shift[0] + f*(shift[1]-shift[0])
		lack := j.least - g.Mean - by
		if h.Bent[side] && !planed { // a swollen stile is not straight: no line through it tells
			lack = max(lack, h.Wanted[side]-h.Within+h.Sure*g.Sigma-g.Mean-by)
		}
		if lack > 1e-9 && !tight {
			tell(Stays{side, 1, -lack})
			tight = true
		}
	}
}

// Fits reports whether every margin is in as it is, and a lock that is bored has its backset.
func (h *Hung) Fits() bool { return h.Down() && len(h.Now().Stays) == 0 }

// Off is by how much a side's margins are wider than wanted, at its two ends.
func (h *Hung) Off(side frame.Side) [2]float64 { return h.judge(side, h.Margins[side]).ends }

// shifts is the effect of moves on a side's line, at its first and last place.
func (h *Hung) shifts(side frame.Side, pins [2]float64, up float64) (by [2]float64) {
	m, top, bottom := h.Margins[side], pins[0], pins[1]
	span := h.Pins[0] - h.Pins[len(h.Pins)-1]
	for end, i := range [2]int{0, len(m) - 1} {
		at := m[i].At
		switch side {
		case frame.Hinge:
			by[end] = bottom + (top-bottom)*(at-h.Pins[len(h.Pins)-1])/span
		case frame.Lock:
			by[end] = -bottom - (top-bottom)*(at-h.Pins[len(h.Pins)-1])/span
		case frame.Head:
			by[end] = at*(top-bottom)/span - up
		default:
			by[end] = -at*(top-bottom)/span + up
		}
	}
	return by
}

// leave is the leave-on of a planed edge at an end, so that it is hardly ever too far.
func (h *Hung) leave(sigma float64) float64 {
	return max(h.Risk.Deviates*math.Hypot(sigma, h.Cut)-h.Risk.Tolerance, 0)
}

// plane is what comes off a side, with its line moved by shift, so that it is down to its line where it was above it.
func (h *Hung) plane(side frame.Side, j judged, shift [2]float64) (off [3]float64) {
	m := h.Margins[side]
	for end := range j.ends {
		off[2*end] = max(-j.ends[end]-shift[end]-h.leave(j.sigma[end]), 0)
	}
	off[1] = (off[0] + off[2]) / 2
	if !h.Bent[side] {
		return off
	}
	// Middle first: each third by itself, down to what is wanted.
	for k := range off {
		off[k] = 0
		for _, g := range m {
			f := (g.At - m[0].At) / j.length
			if int(math.Round(2*f)) == k {
				by := shift[0] + f*(shift[1]-shift[0])
				off[k] = max(off[k], h.Wanted[side]-g.Mean-by-h.leave(g.Sigma))
			}
		}
	}
	return off
}

// wood is the minutes of planing an edge.
func wood(off [3]float64, length float64) float64 {
	return trade.WoodMinutes * (off[0] + 2*off[1] + off[2]) / 4 * length / 1000
}

// hangs reports whether so little comes off the lock edge that it is planed with the slab hanging. Common practice.
func hangs(off [3]float64) bool {
	return max(off[0], off[1], off[2]) <= trade.MostHanging.MM()
}
