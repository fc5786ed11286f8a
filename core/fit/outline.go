// Package fit takes an opening's shape to the slab's outline, lays the
// outline on the slab, and says what comes off which edge.
//
// Beside the elevation frame it uses the hung frame: y runs up the line of
// the pins along the hinge jamb, x square to it toward the lock jamb, both in
// mm, so that how the opening leans as a whole, which no margin shows, drops
// out.
package fit

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
	"kindmargin/core/survey"
)

// Targets is what is wanted of the margins, all in mm.
type Targets struct {
	Margin frame.Each[float64] // wanted on each side
	Least  float64             // nowhere less than this
	Uneven float64             // how far from wanted an eye accepts
	// Pins are the heights of the top and the bottom hinge: there the
	// pockets hold the slab to the jamb as it really is.
	Pins [2]float64
}

// Gap is one planned margin: the light between a straight edge and the side,
// square to the edge.
type Gap struct {
	At    float64 // place on the side: v on a jamb, u on head and floor
	Along float64 // the same place in the hung frame: y or x
	Mean  float64
	Sigma float64 // of the margin once the slab is hung to its marks
}

// Edge is one straight edge of the outline.
type Edge struct {
	Line     Line    // in the hung frame: x over y for a jamb, y over x else
	Gaps     []Gap   // from the foot up, or from the hinge jamb across
	Residual float64 // the worst distance of a gap from wanted that straightness costs
	Moved    float64 // how far the edge gave way so that no gap is under the least
	Scribed  bool    // follows its side: the gaps are the wanted margin everywhere
	straight []Gap   // of a scribed edge: the gaps beside its straight line
	excess   []excess
}

// GapAt is the planned margin at a place along the edge in the hung frame,
// straight between stations.
func (e Edge) GapAt(along float64) float64 { return gapAt(e.Gaps, along) }

// scribe is how much deeper than its straight line a scribed edge is cut at a
// place; below nought it is cut less.
func (e Edge) scribe(along float64) float64 {
	if !e.Scribed {
		return 0
	}
	return gapAt(e.Gaps, along) - gapAt(e.straight, along)
}

func gapAt(g []Gap, along float64) float64 {
	i := 1
	for i < len(g)-1 && g[i].Along < along {
		i++
	}
	a, b := g[i-1], g[i]
	f := (along - a.Along) / (b.Along - a.Along)
	f = min(max(f, 0), 1)
	return a.Mean + f*(b.Mean-a.Mean)
}

// Scribe gives the outline with one edge scribed to its side, so that the light
// there is the margin wanted, in mm, all along.
func (o Outline) Scribe(side frame.Side, wanted float64) Outline {
	e := o.Edges[side]
	e.Scribed, e.straight = true, e.Gaps
	e.Gaps = make([]Gap, len(e.straight))
	for i, g := range e.straight {
		g.Mean = wanted
		e.Gaps[i] = g
	}
	o.Edges[side] = e
	return o
}

// Outline is the finished slab: four straight edges in the hung frame.
type Outline struct {
	Edges frame.Each[Edge]
	Lean  float64 // of the line of the pins, mm per mm, into the opening
	// Wanted are the margins that decide, as figures of the opening: at both
	// ends and the middle of each side.
	Wanted []WantedMargin

	pins    Line    // of the jamb, u over v
	offered *placed // where the slab stood when it was offered up
	strike  float64 // from the finished head down the lock edge to where the latch meets the strike, mm; 0 where none is there
}

// placed is where a slab's foot hinge corner stands in the hung frame, and how
// much its head leans toward the lock jamb there, mm per mm.
type placed struct{ x, y, lean float64 }

// Offer gives the outline with the place of a slab that was offered up, as
// survey.Shape.Placing tells it, for the registration AsOffered.
func (o Outline) Offer(u, v, lean float64) Outline {
	sin, cos := math.Sincos(math.Atan(o.pins.B))
	o.offered = &placed{(u-o.pins.A)*cos - v*sin, (u-o.pins.A)*sin + v*cos, -lean - o.pins.B}
	return o
}

// Strike gives the outline with the strike that is there, in mm down the lock
// edge from the finished head, for the laying MeetStrike.
func (o Outline) Strike(down float64) Outline {
	o.strike = down
	return o
}

// WantedMargin is a margin as a figure of the opening, up to a constant.
type WantedMargin struct {
	Side  frame.Side
	Where int // 0 foot or hinge corner, 1 middle, 2 head or lock corner
	Row   survey.Row
}

// Stations along a jamb and along head or floor. A side bends over ℓ (400 to
// 700 mm), so that these miss less of a bow than a tape does.
const (
	jambStations = 7
	headStations = 5
)

// ErrNoRoom is an opening that the wanted margins leave nothing of.
type ErrNoRoom struct{ Width, Height float64 }

func (e *ErrNoRoom) Error() string {
	return fmt.Sprintf("The margins leave a slab of %.0f by %.0f mm: ask for smaller margins or read the opening again.", e.Width, e.Height)
}

// bay is the room that one leaf hangs in: the whole opening, or one half of a
// pair. It gives each side of the bay, as its leaf sees it, as a figure of the
// opening; the constant parts are in mm.
type bay struct {
	shape         *survey.Shape
	width, height float64
	term          func(survey.Term) (row survey.Row, constant float64)
}

func (b bay) rows(rows []survey.Row) (out []survey.Row, constants []float64) {
	out, constants = make([]survey.Row, len(rows)), make([]float64, len(rows))
	for i, r := range rows {
		out[i] = make(survey.Row, 0, 2*len(r))
		for _, t := range r {
			row, c := b.term(t)
			for _, u := range row {
				u.By *= t.By
				out[i] = append(out[i], u)
			}
			constants[i] += c * t.By
		}
	}
	return out, constants
}

func (b bay) joint(rows []survey.Row) ([]survey.Row, *mat.SymDense) {
	out, _ := b.rows(rows)
	_, cov := b.shape.Joint(out)
	return out, cov
}

func (b bay) means(rows []survey.Row) []float64 {
	out, constants := b.rows(rows)
	mean := b.shape.Means(out)
	for i, c := range constants {
		mean[i] += c
	}
	return mean
}

// Meeting is how the two leaves of a pair share an opening. The meeting line
// runs midway between the jambs, moved by Offset mm toward the lock jamb; each
// leaf sees it as its lock jamb.
type Meeting struct{ Offset float64 }

// DrawPair gives the outlines of a pair's two leaves: the one on the hinge
// jamb, and the one on the lock jamb, which is drawn as its own hinge jamb
// (mirrored). The lock margin wanted is half the margin between the leaves.
func DrawPair(shape *survey.Shape, want Targets, m Meeting) (pair [2]Outline, err error) {
	p := shape.Prior()
	half := p.Width/2 + m.Offset
	meet := func(v, by float64) survey.Row {
		return survey.Row{{Side: frame.Hinge, At: v, By: by / 2}, {Side: frame.Lock, At: v, By: by / 2}}
	}
	pair[0], err = draw(bay{shape, half, p.Height, func(t survey.Term) (survey.Row, float64) {
		if t.Side == frame.Lock {
			return meet(t.At, 1), m.Offset
		}
		return survey.Row{{Side: t.Side, At: t.At, By: 1}}, 0
	}}, want)
	if err != nil {
		return pair, err
	}
	pair[1], err = draw(bay{shape, p.Width - half, p.Height, func(t survey.Term) (survey.Row, float64) {
		switch t.Side { // u runs the other way, from the lock jamb
		case frame.Hinge:
			return survey.Row{{Side: frame.Lock, At: t.At, By: -1}}, p.Width
		case frame.Lock:
			return meet(t.At, -1), p.Width - m.Offset
		}
		return survey.Row{{Side: t.Side, At: p.Width - t.At, By: 1}}, 0
	}}, want)
	return pair, err
}

// Draw gives the outline that keeps every margin as near as a straight edge
// can to the one wanted, and none under the least.
//
// A margin's sigma is that of the gap once the slab hangs: the pins are set
// to the jamb as it is at the two hinges, and the head margin to its mark at
// the hinge corner, so what is left is how far the rest of the opening may
// differ from its estimate.
func Draw(shape *survey.Shape, want Targets) (Outline, error) {
	p := shape.Prior()
	return draw(bay{shape, p.Width, p.Height, func(t survey.Term) (survey.Row, float64) {
		return survey.Row{{Side: t.Side, At: t.At, By: 1}}, 0
	}}, want)
}

func draw(b bay, want Targets) (Outline, error) {
	var o Outline

	// Stations, side by side, in one joint estimate.
	type station struct {
		side frame.Side
		at   float64
	}
	var stations []station
	var first frame.Each[int]
	for _, side := range frame.Sides {
		first[side] = len(stations)
		n, reach := headStations, b.width
		if side.Upright() {
			n, reach = jambStations, b.height
		}
		for i := range n {
			stations = append(stations, station{side, reach * float64(i) / float64(n-1)})
		}
	}
	// Each gap's row over the sides, to first order in the leans.
	top, bottom := want.Pins[0], want.Pins[1]
	span := top - bottom
	if span <= 0 {
		return o, fmt.Errorf("the top hinge at %.0f mm is not above the bottom one at %.0f mm", top, bottom)
	}
	rows := make([]survey.Row, len(stations))
	for i, s := range stations {
		// The line of the pins at height v: h(b)·(1−f) + h(t)·f.
		f := (s.at - bottom) / span
		switch s.side {
		case frame.Hinge:
			rows[i] = survey.Row{{Side: frame.Hinge, At: bottom, By: 1 - f}, {Side: frame.Hinge, At: top, By: f}, {Side: frame.Hinge, At: s.at, By: -1}}
		case frame.Lock:
			rows[i] = survey.Row{{Side: frame.Lock, At: s.at, By: 1}, {Side: frame.Hinge, At: bottom, By: f - 1}, {Side: frame.Hinge, At: top, By: -f}}
		case frame.Head:
			rows[i] = survey.Row{
				{Side: frame.Head, At: s.at, By: 1},
				{Side: frame.Head, At: 0, By: -1},
				{Side: frame.Hinge, At: top, By: s.at / span},
				{Side: frame.Hinge, At: bottom, By: -s.at / span},
			}
		case frame.Foot:
			rows[i] = survey.Row{
				{Side: frame.Head, At: 0, By: 1},
				{Side: frame.Foot, At: s.at, By: -1},
				{Side: frame.Hinge, At: top, By: -s.at / span},
				{Side: frame.Hinge, At: bottom, By: s.at / span},
			}
		}
	}
	rows, cov := b.joint(rows)

	// The mean shape in the hung frame, turned exactly.
	where := make([]survey.Row, len(stations))
	for i, s := range stations {
		where[i] = survey.Row{{Side: s.side, At: s.at, By: 1}}
	}
	mean := b.means(where)
	jamb := make([]Point, jambStations)
	for i := range jamb {
		k := first[frame.Hinge] + i
		jamb[i] = Point{stations[k].at, mean[k]}
	}
	pins, _, _ := Minimax(jamb)
	o.Lean, o.pins = pins.B, pins
	sin, cos := math.Sincos(math.Atan(pins.B))
	turned := func(u, v float64) (x, y float64) {
		return (u-pins.A)*cos - v*sin, (u-pins.A)*sin + v*cos
	}

	for _, side := range frame.Sides {
		n := headStations
		if side.Upright() {
			n = jambStations
		}
		// out is +1 where the opening lies at the greater coordinate.
		out := 1.0
		if side == frame.Hinge || side == frame.Foot {
			out = -1
		}
		points := make([]Point, n)
		for i := range points {
			k := first[side] + i
			u, v := stations[k].at, mean[k]
			if side.Upright() {
				u, v = v, u
			}
			x, y := turned(u, v)
			if side.Upright() {
				points[i] = Point{y, x}
			} else {
				points[i] = Point{x, y}
			}
		}
		line, worst, _ := Minimax(points)
		e := Edge{Line: line, Residual: worst, Gaps: make([]Gap, 0, n)}
		e.Line.A -= out * want.Margin[side]
		least := want.Margin[side] - worst
		if least < want.Least {
			e.Moved = want.Least - least
			e.Line.A -= out * e.Moved
		}
		block := first[side]
		for i, pt := range points {
			e.Gaps = append(e.Gaps, Gap{
				At:    stations[block+i].at,
				Along: pt.S,
				Mean:  out * (pt.Off - e.Line.At(pt.S)),
				Sigma: math.Sqrt(max(cov.At(block+i, block+i), 0)),
			})
		}
		if side != frame.Hinge { // the pins are set to the hinge jamb itself
			e.excess = excessOf(side, e.Gaps, want.Margin[side]+e.Moved, cov.SliceSym(block, block+n))
		}
		o.Edges[side] = e
		for where, i := range [3]int{0, n / 2, n - 1} {
			o.Wanted = append(o.Wanted, WantedMargin{side, where, rows[block+i]})
		}
	}
	c := o.CornersWith(frame.Each[float64]{})
	w := min(c[topLock].X-c[topHinge].X, c[footLock].X-c[footHinge].X)
	h := min(c[topHinge].Y-c[footHinge].Y, c[topLock].Y-c[footLock].Y)
	if w < 100 || h < 300 {
		return o, &ErrNoRoom{w, h}
	}
	return o, nil
}

// excess bounds, at one station, by how much a finished margin may be wider
// than the best that any straight edge could give in the true opening. Each
// bound is normal, with mean and σ in mm, and holds whatever the opening is, so
// the kindest of them does. A leave-on of d lessens it by d·share.
type excess struct {
	bounds []bound
	share  float64
}

type bound struct{ mean, sigma float64 }

// over is a bound above the chance that the excess passes limit with left
// left on.
func (x excess) over(limit, left float64) float64 {
	far := math.Inf(-1)
	for _, b := range x.bounds {
		far = max(far, (limit+left*x.share-b.mean)/b.sigma)
	}
	return 0.5 * math.Erfc(far/math.Sqrt2)
}

// strayed is the excess with a cut that strays by a normal error of its own.
func (x excess) strayed(cut float64) excess {
	bounds := make([]bound, len(x.bounds))
	for i, b := range x.bounds {
		bounds[i] = bound{b.mean, math.Sqrt(b.sigma*b.sigma + cut*cut + 1e-18)}
	}
	return excess{bounds, x.share}
}

// excessOf gives the bounds at each station of an edge with the given gaps
// and their covariance. wanted is the margin that the edge was drawn for.
//
// The best straight edge's residual is at least half the sagitta, either way,
// of any three points, because a sagitta does not feel a straight line. So
// for each three (the ends and one between them), and each way,
//
//	excess ≤ gap − wanted ∓ ½·(gap_k − (1−f)·gap_first − f·gap_last)
//
// which is linear in the opening, and so normal.
func excessOf(side frame.Side, gaps []Gap, wanted float64, cov mat.Symmetric) []excess {
	last := len(gaps) - 1
	list := make([]excess, len(gaps))
	for i, g := range gaps {
		x := excess{share: 1, bounds: make([]bound, 0, 2*last)}
		if side == frame.Head {
			x.share = g.At / gaps[last].At // the hinge corner is cut to its mark
		}
		for k := 1; k < last; k++ {
			f := (gaps[k].Along - gaps[0].Along) / (gaps[last].Along - gaps[0].Along)
			for _, half := range [2]float64{0.5, -0.5} {
				at := [4]int{i, k, 0, last}
				by := [4]float64{1, -half, half * (1 - f), half * f}
				b := bound{mean: -wanted}
				var variance float64
				for p, c := range by {
					b.mean += c * gaps[at[p]].Mean
					for q, d := range by {
						variance += c * d * cov.At(at[p], at[q])
					}
				}
				b.sigma = math.Sqrt(max(variance, 0))
				x.bounds = append(x.bounds, b)
			}
		}
		list[i] = x
	}
	return list
}

// Sureness is what "never too far" means in figures.
type Sureness struct {
	Tolerance float64 // a finished margin may be this much too wide, mm
	Risk      float64 // accepted chance of more than that anywhere on the slab
	Cut       float64 // standard deviation of a cut from its line, mm
}

// Common is the usual sureness: 1 mm, one slab in two hundred, cuts true to
// 0.3 mm.
var Common = Sureness{Tolerance: 1, Risk: 0.005, Cut: 0.3}

// LeaveOn is the least amount, in mm, to leave on each edge at the first cut
// so that the risk is kept. On the head it is what to leave at the lock
// corner, tapering to nothing at the hinge corner; the hinge edge needs none,
// since the pins are set to the jamb itself and the width is settled at the
// lock edge. The risk is shared by the three edges; the chance "anywhere on the
// edge" is bounded by the sum of the chances at the stations (Boole's
// inequality).
func (o Outline) LeaveOn(s Sureness) frame.Each[float64] {
	var leave frame.Each[float64]
	edges := []frame.Side{frame.Head, frame.Lock, frame.Foot}
	for _, side := range edges {
		var list []excess
		for _, x := range o.Edges[side].excess {
			if x.share > 0 { // where nothing can be left on, the slab is hung to its mark
				list = append(list, x.strayed(s.Cut))
			}
		}
		chance := func(left float64) (p float64) {
			for _, x := range list {
				p += x.over(s.Tolerance, left)
			}
			return p
		}
		risk := s.Risk / float64(len(edges))
		if chance(0) <= risk {
			continue
		}
		lo, hi := 0.0, 1.0
		for chance(hi) > risk && hi < 1024 {
			lo, hi = hi, 2*hi
		}
		for range 12 {
			if mid := (lo + hi) / 2; chance(mid) > risk {
				lo = mid
			} else {
				hi = mid
			}
		}
		leave[side] = hi
	}
	return leave
}

// Corner is a corner of the outline in the hung frame, mm.
type Corner struct{ X, Y float64 }

// The four corners of an outline or a slab.
const (
	topHinge = iota
	topLock
	footLock
	footHinge
)

// CornersWith gives the corners of the outline in the hung frame, each edge moved outward by what
// is left on it (the head only at its lock corner).
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
	return [4]Corner{topHinge: meet(hinge, head), topLock: meet(lock, head), footLock: meet(lock, foot), footHinge: meet(hinge, foot)}
}

// meet is where x = up(y) and y = across(x).
func meet(up, across Line) Corner {
	y := (across.A + across.B*up.A) / (1 - across.B*up.B)
	return Corner{up.At(y), y}
}

// Corners of the finished slab: top hinge, top lock, foot lock, foot hinge.
func (o Outline) Corners() [4]Corner { return o.CornersWith(frame.Each[float64]{}) }

// Size of the finished slab and the margins where it is greatest, mm.
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
