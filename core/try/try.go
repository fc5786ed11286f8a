// Package try decides what is done next to a slab on its trial screws: hinges packed out or let in, all hinges up or
// down, edges planed, or nothing more, by the minutes that the door will then still take.
//
// A move of m at the top hinge and of n at the bottom one, in mm out of the jamb, shifts and rotates the whole slab: at
// height v the line of the pins moves by n + (m − n)·(v − bottom)/span, which widens the hinge margin and narrows the
// lock margin by as much; at a place u across, the head margin widens and the foot margin narrows by u·(m − n)/span.
// Moves are of a millimetre or so, so that the second order is under a hundredth.
package try

import (
	"cmp"
	"math"
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// Margin is the margin at one place of a side, in mm.
type Margin struct {
	At    float64 // v on a jamb, u on head and floor
	Mean  float64
	Sigma float64
}

// Middle is the margin nearest to the middle of a side.
func Middle(m []Margin) Margin {
	half := (m[0].At + m[len(m)-1].At) / 2
	return slices.MinFunc(m, func(a, b Margin) int {
		return cmp.Compare(math.Abs(a.At-half), math.Abs(b.At-half))
	})
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
	Bored *Bored  // nil where the lock edge may come down as far as it must
	Cut   float64 // standard deviation of a planed edge from its line
	Trip  float64 // minutes
	With  Means   // what may be done
	// Slid says that a packer of the least margin was slid all round and passed everywhere.
	Slid bool
	// Bound says that it bound somewhere, where the gap was read.
	Bound bool
	// Outside says that it does not go in: what overlaps comes off, whatever else is in doubt.
	Outside bool
}

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
	In      float64 // probability that every margin is in after it
	Likely  float64 // minutes that the door still takes with it: its own, and those of what may be out then
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
	At   float64 // the place, of one between
	Gap  float64 // what it is judged by: the margin there, or at an end the straight line through the side's margins
	// Wanted is what a straight edge would have there: the margin wanted, or more where the least asks for it; between the
	// ends it is the least.
	Wanted float64
}

// judged is a side's margins against those wanted.
type judged struct {
	side   frame.Side
	found  []Margin
	ends   [2]float64 // by how much the line lies over what is wanted, first and last
	sigma  [2]float64
	least  float64 // no place may be less
	wanted float64 // or more, where the least asks for it
	slack  float64 // by how much the line may come nearer before the narrowest place is at the least
	length float64
}

// judge compares a side's margins with the best straight edge's.
func (h *Hung) judge(side frame.Side, m []Margin) (j judged) {
	j.side, j.found, j.least, j.sigma = side, m, h.Least, h.Ends[side]
	points := make([]fit.Point, len(m))
	for i, g := range m {
		points[i] = fit.Point{S: g.At, Off: g.Mean}
	}
	line, rest, _ := fit.Minimax(points)
	wanted := h.Wanted[side] + max(h.Least-(h.Wanted[side]-rest), 0) // a straight edge gives way to the least margin
	j.wanted, j.slack = wanted, wanted-rest-h.Least
	for end, i := range [2]int{0, len(m) - 1} {
		j.ends[end] = line.At(m[i].At) - wanted
	}
	j.length = m[len(m)-1].At - m[0].At
	return j
}

// state is a side as it hangs, or after a way.
type state struct {
	in  float64 // probability that it is in: both ends within tolerance, and no place under the least
	out float64 // by how much its means are out, mm, in all
	far float64 // as much of that as is over trade.FarOut at a place
}

// stands adds a place whose mean is out by so much, in mm.
func (x *state) stands(out float64) {
	x.out, x.far = x.out+out, x.far+max(out-trade.FarOut, 0)
}

// and adds the state of another side.
func (x *state) and(s state) { x.in, x.out, x.far = x.in*s.in, x.out+s.out, x.far+s.far }

// state judges a side with its line moved by shift at either end; more is the variance that the moves add, in mm².
func (h *Hung) state(j *judged, shift [2]float64, more float64, planed bool) (x state) {
	x.in = 1
	for end, off := range j.ends {
		off += shift[end]
		sigma := math.Sqrt(j.sigma[end]*j.sigma[end] + more)
		x.in *= 1 - tail((h.Within-off)/sigma) - tail((h.Within+off)/sigma)
		x.stands(max(math.Abs(off)-h.Within, 0))
	}
	near, lack := math.Inf(1), 0.0
	for i := range j.found {
		g := &j.found[i]
		least := j.least
		if h.Bent[j.side] && !planed { // a swollen stile is not straight: no line through it tells
			least = max(least, h.Wanted[j.side]-h.Within)
		}
		f := (g.At - j.found[0].At) / j.length
		over := g.Mean + shift[0] + f*(shift[1]-shift[0]) - least
		near = min(near, over/math.Sqrt(g.Sigma*g.Sigma+more+1e-9))
		lack = max(lack, -over)
	}
	if !h.Slid || shift != [2]float64{} {
		x.in *= 1 - tail(near)
	}
	x.stands(lack)
	return x
}

// tail is the probability that a standard normal figure is over z.
func tail(z float64) float64 { return math.Erfc(z/math.Sqrt2) / 2 }

// price is the minutes that what may be out then still takes: another look, the work, now and then a call back. The
// same price decides what to do and when to stop, or nobody ever would.
func (h *Hung) price(x state) float64 {
	return trade.MissMinutes*(1-x.in) + trade.OutMinutes*x.out + trade.FarMinutes*x.far
}

// now is the slab as it hangs, all sides together.
func (h *Hung) now() (x state) {
	x.in = 1
	for _, side := range frame.Sides {
		j := h.judge(side, h.Margins[side])
		x.and(h.state(&j, [2]float64{}, 0, false))
	}
	return x
}

// stays reports what of a side is out, with its line moved by shift at either end.
func (h *Hung) stays(j judged, shift [2]float64, planed bool, tell func(Stays)) {
	side, m := j.side, j.found
	tight := 0.0 // by how much an end is
	for end, off := range j.ends {
		off += shift[end]
		if past := math.Abs(off) - h.Within; past > 1e-9 {
			x := Stays{Side: side, End: 2 * end, By: math.Copysign(past, off), Gap: j.wanted + off, Wanted: j.wanted}
			if own := m[end*(len(m)-1)].Mean + shift[end]; (own-j.wanted)*off > h.Within*math.Abs(off) {
				x.Gap = own // the margin there is out as well, and is what is seen
			}
			tell(x)
			tight = max(tight, -off-h.Within)
		}
	}
	least := j.least
	if h.Bent[side] && !planed {
		least = max(least, h.Wanted[side]-h.Within)
	}
	worst := Stays{Side: side, End: 1, Wanted: least}
	for _, g := range m {
		f := (g.At - m[0].At) / j.length
		if gap := g.Mean + shift[0] + f*(shift[1]-shift[0]); gap-least < worst.By {
			worst.By, worst.At, worst.Gap = gap-least, g.At, gap
		}
	}
	if -worst.By > max(tight, 1e-9) { // the tightest place is the one that is named
		tell(worst)
	}
}

// Fits reports whether the slab is said to fit: so likely in that hardly ever anybody is called back, and a lock that is
// bored has its backset.
func (h *Hung) Fits() bool { return h.Down() && 1-h.now().in < trade.FitsDoubt }

// Slide reports whether a packer of the least margin is slid all round: gaps read a foot apart do not tell of a bump
// between them. It is worth its minute where a bump is much of what is in doubt. fits is whether it is all of it, so that
// the slab is said to fit once the packer passes.
func (h *Hung) Slide() (worth, fits bool) {
	slid := *h
	slid.Slid = true
	if h.Slid || h.Bound || !h.Down() {
		return false, false
	}
	fits = slid.Fits()
	return fits || h.AsIs()-slid.AsIs() > trade.SlideSpares, fits
}

// Near reports whether none of some ways is worth its minutes: the slab hangs as near as it gets.
func (h *Hung) Near(ways []Way) bool {
	if !h.Down() || h.Outside {
		return len(ways) == 0
	}
	x := h.now()
	return !slices.ContainsFunc(ways, func(w Way) bool { return w.Likely+trade.LookMinutes < h.price(x) })
}

// AsIs is the minutes that what may be out still takes as the slab hangs.
func (h *Hung) AsIs() float64 { return h.price(h.now()) }

// Chance is the probability that every margin is in as the slab hangs.
func (h *Hung) Chance() float64 { return h.now().in }

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

// aim is how far over its line a planed edge's end is aimed, in mm: between −Within and Within, where the chance that it
// comes out too far, which spoils the slab, and the chance that it stays too near cost least together.
func (h *Hung) aim(sigma, slack float64) (best float64) {
	low, least := -min(h.Within, max(slack, 0)), math.Inf(1)
	for a := -h.Within; a <= h.Within+1e-9; a += aimStep {
		cost := trade.SpoilMinutes*tail((h.Within-a)/sigma) + trade.NearMinutes*tail((a-low)/sigma)
		if cost < least {
			best, least = a, cost
		}
	}
	return best
}

// aimed is aim, worked out once for each end and number of hinges moved.
func (s *search) aimed(sigma, slack float64) float64 {
	key := [2]float64{sigma, slack}
	a, known := s.aims[key]
	if !known {
		a = s.aim(sigma, slack)
		s.aims[key] = a
	}
	return a
}

// aimStep is the fineness of an aim, in mm.
const aimStep = 0.01

// plane is what comes off a side whose line is moved by shift; more is the variance that the moves add, in mm².
func (s *search) plane(side frame.Side, j *judged, shift [2]float64, more float64) (off [3]float64) {
	h, m := s.Hung, s.Margins[side]
	more += h.Cut * h.Cut
	for end := range j.ends {
		aim := s.aimed(math.Sqrt(j.sigma[end]*j.sigma[end]+more), j.slack)
		off[2*end] = aim - j.ends[end] - shift[end]
	}
	if h.Outside {
		overlaps := 0.0
		for _, g := range m {
			f := (g.At - m[0].At) / j.length
			gap := g.Mean + shift[0] + off[0] + f*(shift[1]+off[2]-shift[0]-off[0])
			overlaps = max(overlaps, trade.GoesIn.MM()-gap)
		}
		off[0], off[2] = off[0]+overlaps, off[2]+overlaps
	}
	off[1] = (off[0] + off[2]) / 2
	if h.Bent[side] { // middle first: each third by itself, down to what is wanted
		off = [3]float64{}
		for _, g := range m {
			f := (g.At - m[0].At) / j.length
			k := int(math.Round(2 * f))
			aim := s.aimed(math.Sqrt(g.Sigma*g.Sigma+more), h.Wanted[side]-h.Least)
			off[k] = max(off[k], h.Wanted[side]+aim-g.Mean-shift[0]-f*(shift[1]-shift[0]))
		}
	}
	for i := range off {
		if off[i] < trade.LeastPlaned.MM() {
			off[i] = 0
		}
	}
	if !h.Bent[side] {
		off[1] = (off[0] + off[2]) / 2
	}
	return off
}

// wood is the minutes of planing so much off an edge.
func wood(side frame.Side, off [3]float64, length float64) float64 {
	mean, deepest := (off[0]+2*off[1]+off[2])/4, max(off[0], off[1], off[2])
	return trade.PlaningMinutes(side, measure.FromMM(mean), measure.FromMM(deepest), length)
}

// hangs reports whether so little comes off the lock edge that it is planed with the slab hanging. Common practice.
func hangs(off [3]float64) bool {
	return max(off[0], off[1], off[2]) <= trade.MostHanging.MM()
}
