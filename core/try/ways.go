package try

import (
	"cmp"
	"math"
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/trade"
)

// edges are those that are planed once the slab hangs.
var edges = [...]frame.Side{frame.Head, frame.Lock, frame.Foot}

// MostWays is the largest number of ways returned.
const MostWays = 5

// Ways are the ways that leave the door fewer minutes than it takes as it hangs, the fewest first: the best of each
// combination of means, without those that another beats in minutes, trips and what stays out. The first is there even
// where to leave the slab as it hangs is better; there is none where it fits.
//
// Packers are of a few thicknesses, so every pair of moves at the two outer hinges is tried; for each, the planing of
// the edges follows directly.
func (h *Hung) Ways() []Way {
	if h.Fits() {
		return nil
	}
	s := search{Hung: h, best: map[Means]tally{}, aims: map[[2]float64]float64{}}
	for _, side := range frame.Sides {
		s.sides[side] = h.judge(side, h.Margins[side])
	}
	bottom := len(h.Pins) - 1
	all := func(up float64) {
		for _, m := range h.moves(0) {
			for _, n := range h.moves(bottom) {
				if moves, ok := h.follow(m, n); ok {
					s.plan(moves, up)
				}
			}
		}
	}
	all(0)
	if s.wantsUp() {
		for up := trade.UpStep; up <= trade.MostUp; up += trade.UpStep {
			all(up.MM())
			all(-up.MM())
		}
	}
	var list []tally
	for uses, t := range s.best {
		if uses != 0 {
			list = append(list, t)
		}
	}
	slices.SortFunc(list, func(a, b tally) int {
		return cmp.Or(cmp.Compare(a.likely, b.likely), cmp.Compare(a.uses, b.uses))
	})
	var ways []Way
	leave := h.AsIs()
	for i, t := range list {
		beaten := slices.ContainsFunc(list[:i], func(k tally) bool {
			return k.minutes <= t.minutes && k.trips <= t.trips && k.out <= t.out+leastOut && k.far <= t.far+leastOut &&
				k.in >= t.in-leastIn
		})
		if len(ways) > 0 && t.likely >= leave { // to leave it beats that
			break
		}
		if !beaten && len(ways) < MostWays {
			ways = append(ways, h.with(t))
		}
	}
	return ways
}

// What one way must have over another to be no worse, in mm that stay out and in probability.
const (
	leastOut = 0.05
	leastIn  = 0.02
)

// search is the search for the best way of each combination of means.
type search struct {
	*Hung
	sides frame.Each[judged] // as the slab hangs
	best  map[Means]tally
	aims  map[[2]float64]float64 // of planed ends, by their sigma and slack
}

// keep keeps, of each combination, the way that likely costs least.
func (s *search) keep(t tally) {
	t.likely = t.minutes + s.price(t.state)
	if old, known := s.best[t.uses]; !known || t.likely < old.likely {
		s.best[t.uses] = t
	}
}

// tally is one way during the search.
type tally struct {
	state
	uses    Means
	moves   []float64
	up      float64
	pins    [2]float64             // by how much the top and the bottom hinge move the slab, mm
	hinge   [3]float64             // planed off the hinge edge, with its recesses let in by as much
	off     [len(edges)][3]float64 // planed
	minutes float64
	likely  float64
	trips   int
	hanging bool
}

// wantsUp reports whether new holes for all hinges are considered: they are dear, so only where everything cheaper
// leaves the door more minutes than they take.
func (s *search) wantsUp() bool {
	if s.With&AllUp == 0 {
		return false
	}
	for uses, t := range s.best {
		if uses != 0 && t.likely <= trade.UpMinutes+s.Trip {
			return false
		}
	}
	return true
}

// moves are those of hinge i that its recess, packing and screws allow.
func (h *Hung) moves(i int) []float64 {
	list := []float64{0}
	if h.With&Hinge(i) == 0 {
		return list
	}
	from := math.Ceil((-trade.MostLetIn.MM()-h.Out[i])/h.Step - 1e-6)
	to := math.Floor((trade.MostOut.MM()-h.Out[i])/h.Step + 1e-6)
	for k := from; k <= to; k++ {
		if k != 0 {
			list = append(list, k*h.Step)
		}
	}
	return list
}

// follow gives every hinge's move, the ones between on the line of the outer two. ok is false where one of them may not
// move.
func (h *Hung) follow(top, bottom float64) (moves []float64, ok bool) {
	last := len(h.Pins) - 1
	moves = make([]float64, last+1)
	for i, at := range h.Pins {
		f := (at - h.Pins[last]) / (h.Pins[0] - h.Pins[last])
		moves[i] = math.Round((bottom+f*(top-bottom))/h.Step) * h.Step
		if moves[i] != 0 && h.With&Hinge(i) == 0 {
			return nil, false
		}
	}
	return moves, true
}

// plan tries some moves with each set of edges planed, the hinge edge too where the lock edge may not come down.
func (s *search) plan(moves []float64, up float64) {
	last := len(moves) - 1
	bare := tally{state: state{in: 1}, moves: moves, up: up, pins: [2]float64{moves[0], moves[last]}}
	unsure := 0.0
	for i, m := range moves {
		switch {
		case m > 0:
			bare.minutes += trade.PackMinutes
		case m < 0:
			bare.minutes += trade.LetInMinutes
		default:
			continue
		}
		bare.uses |= Hinge(i)
		unsure += trade.Repacked * trade.Repacked / float64(len(moves))
	}
	if up != 0 {
		bare.uses |= AllUp
		bare.minutes += trade.UpMinutes
		bare.trips = 1
	}
	bare.add(s.edge(&bare, frame.Hinge, unsure, [3]float64{}))
	s.each(bare, unsure)
	if narrow, ok := s.narrowed(bare, unsure); ok {
		s.each(narrow, unsure+trade.Repacked*trade.Repacked)
	}
}

// each tries each set of edges planed.
func (s *search) each(bare tally, unsure float64) {
	var as [len(edges)][2]edge // each as it is, and planed
	for i, side := range edges {
		as[i][0] = s.edge(&bare, side, unsure, [3]float64{})
		if s.With&Plane(side) == 0 || s.Fixed[side] {
			continue
		}
		off := s.plane(side, &s.sides[side], s.shifts(side, bare.pins, bare.up), unsure)
		if side == frame.Lock {
			off = s.bored(off)
		}
		if off != [3]float64{} {
			as[i][1] = s.edge(&bare, side, unsure, off)
		}
	}
	for set := range 1 << len(edges) {
		t, ok := bare, true
		for i, side := range edges {
			planed := set >> i & 1
			e := as[i][planed]
			ok = ok && (planed == 0 || e.off != [3]float64{}) && (planed == 1 || side != frame.Lock || s.Down())
			t.add(e)
			if planed == 1 {
				t.uses |= Plane(side)
				t.off[i] = e.off
				if side != frame.Lock || !hangs(e.off) {
					t.trips = 1
				}
			}
		}
		if !ok {
			continue
		}
		if t.hanging = t.uses&PlaneLock != 0 && t.trips == 0; t.hanging {
			t.minutes += trade.AwkwardMore
		}
		t.minutes += float64(t.trips) * s.Trip
		s.keep(t)
	}
}

// edge is one edge, as it is or planed, after some moves.
type edge struct {
	state
	off     [3]float64
	minutes float64
}

func (t *tally) add(e edge) {
	t.minutes += e.minutes
	t.and(e.state)
}

// moved is how a side's line moves by a way: with the pins, but for the hinge edge, which is planed by as much as its
// recesses are let in.
func (s *search) moved(t *tally, side frame.Side) [2]float64 {
	if side == frame.Hinge {
		return s.shifts(side, [2]float64{t.moves[0], t.moves[len(t.moves)-1]}, t.up)
	}
	return s.shifts(side, t.pins, t.up)
}

// edge works out one edge with so much planed off; unsure is the variance of the moves.
func (s *search) edge(t *tally, side frame.Side, unsure float64, off [3]float64) (e edge) {
	j, shift, planed := &s.sides[side], s.moved(t, side), off != [3]float64{}
	if e.off = off; planed {
		e.minutes = trade.PlaneMinutes + wood(side, off, j.length)
		unsure += s.Cut * s.Cut
		if s.Bent[side] {
			after := s.judge(side, s.planed(side, off, shift))
			j, shift = &after, [2]float64{}
		} else { // a straight edge stays straight
			shift[0], shift[1] = shift[0]+off[0], shift[1]+off[2]
		}
	}
	if s.Bent[side] && !planed { // what swelled is cured where it swelled: it shrinks again
		shift[0], shift[1] = min(shift[0], 0), min(shift[1], 0)
	}
	e.state = s.state(j, shift, unsure, planed || side == frame.Lock && t.uses&PlaneHinge != 0)
	return e
}

// planed are a side's margins once its line is moved by shift and planed.
func (h *Hung) planed(side frame.Side, off [3]float64, shift [2]float64) []Margin {
	m := slices.Clone(h.Margins[side])
	first, long := m[0].At, m[len(m)-1].At-m[0].At
	for i := range m {
		f := (m[i].At - first) / long
		m[i].Mean += shift[0] + f*(shift[1]-shift[0]) + offAt(off, f)
	}
	return m
}

// offAt is what is planed off at a share of an edge.
func offAt(off [3]float64, f float64) float64 {
	if f < 0.5 {
		return off[0] + 2*f*(off[1]-off[0])
	}
	return off[1] + (2*f-1)*(off[2]-off[1])
}

// Now is the slab as it is.
func (h *Hung) Now() Way { return h.with(tally{moves: make([]float64, len(h.Pins))}) }

// with is the slab after a way.
func (h *Hung) with(t tally) Way {
	w := Way{
		Uses: t.uses, Moves: t.moves, Up: t.up, Minutes: t.minutes, In: t.in, Likely: t.likely, Trips: t.trips,
		Hanging: t.hanging,
	}
	if t.uses&PlaneHinge != 0 {
		w.Planed = append(w.Planed, Planed{frame.Hinge, t.hinge})
	}
	for i, side := range edges {
		if t.uses&Plane(side) != 0 {
			w.Planed = append(w.Planed, Planed{side, t.off[i]})
		}
	}
	s := search{Hung: h}
	for _, side := range frame.Sides {
		var off [3]float64
		for i, edge := range edges {
			if edge == side {
				off = t.off[i]
			}
		}
		m := h.planed(side, off, s.moved(&t, side))
		w.Margins[side] = m
		planed := t.uses&Plane(side) != 0 || side == frame.Lock && t.uses&PlaneHinge != 0
		h.stays(h.judge(side, m), [2]float64{}, planed && side != frame.Hinge, func(x Stays) {
			w.Stays = append(w.Stays, x)
		})
	}
	return w
}

// Passes are those of the plane down a planed edge, half a millimetre at a time, from its foot or hinge corner, over a
// length in mm; from the middle outward where that is deepest.
func (p Planed) Passes(length float64) []fit.Pass {
	const bite = 0.5
	if p.Off[1] <= (p.Off[0]+p.Off[2])/2+1e-9 {
		return fit.Passes(p.Off[0], p.Off[2], length, bite)
	}
	first := fit.Passes(p.Off[0], p.Off[1], length/2, bite)
	second := fit.Passes(p.Off[1], p.Off[2], length/2, bite)
	var list []fit.Pass
	for i := range max(len(first), len(second)) {
		pass := fit.Pass{From: length / 2, To: length / 2}
		if k := i - (max(len(first), len(second)) - len(first)); k >= 0 {
			pass.From, pass.Bite = first[k].From, first[k].Bite
		}
		if k := i - (max(len(first), len(second)) - len(second)); k >= 0 {
			pass.To, pass.Bite = length/2+second[k].To, second[k].Bite
		}
		list = append(list, pass)
	}
	return list
}
