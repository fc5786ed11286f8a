package fit

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/survey"
)

// How many stations stand along a jamb, and along head or floor. Sides bend over 400 to 700 mm (the prior's length
// scale), so these miss less of a bow than a tape does.
const (
	jambStations = 7
	headStations = 5
)

// Draw fits the outline: the straight edges whose margins differ least from those wanted (minimax), with no margin
// under the least.
//
// The sigma of a margin is that of the gap once the slab hangs: the pins follow the jamb at the two hinges, and the
// head margin is set to its mark at the hinge corner, so that only the difference between the rest of the opening and
// its estimate remains.
func Draw(shape *survey.Shape, want Targets) (Outline, error) {
	p := shape.Prior()
	return draw(bay{shape, p.Width, p.Height, nil}, want)
}

func draw(b bay, want Targets) (Outline, error) {
	var o Outline
	top, bottom := want.Pins[0], want.Pins[1]
	if top <= bottom {
		return o, field.Fault("/hinges", "refused.hinges-order", nil)
	}
	all, first := stations(b)
	gaps := make([]survey.Row, len(all))
	sides := make([]survey.Row, len(all))
	slab := b.slabTerms()
	for i, s := range all {
		gaps[i] = append(s.gapRow(top, bottom), slab[s.side]...)
		sides[i] = survey.Row{{Of: survey.Of(s.side), At: s.at, By: 1}}
	}
	gaps, cov := b.joint(gaps)
	mean := b.means(sides)

	// The line of the pins, and the mean shape rotated exactly to it.
	jamb := make([]Point, jambStations)
	for i := range jamb {
		k := first[frame.Hinge] + i
		jamb[i] = Point{all[k].at, mean[k]}
	}
	o.pins, _, _ = Minimax(jamb)
	o.Lean = o.pins.B
	for _, side := range frame.Sides {
		from, to := first[side], first[side]+sideStations(side)
		o.drawEdge(side, want, margins{
			o.hung(all[from:to], mean[from:to]), all[from:to], gaps[from:to], cov.SliceSym(from, to),
		})
	}

	c := o.CornersWith(frame.Each[float64]{})
	w := min(c[topLock].X-c[topHinge].X, c[footLock].X-c[footHinge].X)
	h := min(c[topHinge].Y-c[footHinge].Y, c[topLock].Y-c[footLock].Y)
	if w < 100 || h < 300 {
		return o, &ErrNoRoom{w, h}
	}
	return o, nil
}

// station is a place on a side where the margin is computed: v on a jamb, u on head and floor, in mm.
type station struct {
	side frame.Side
	at   float64
}

func sideStations(side frame.Side) int {
	if side.Upright() {
		return jambStations
	}
	return headStations
}

// stations are those of all sides, for one joint estimate, and the index where each side begins.
func stations(b bay) ([]station, frame.Each[int]) {
	var all []station
	var first frame.Each[int]
	for _, side := range frame.Sides {
		first[side] = len(all)
		n, reach := sideStations(side), b.width
		if side.Upright() {
			reach = b.height
		}
		for i := range n {
			all = append(all, station{side, reach * float64(i) / float64(n-1)})
		}
	}
	return all, first
}

// slabTerms add the error of the slab's own width and length, by which a tape reads it too large, to the margins of
// lock edge and foot: the marks leave the slab smaller by as much.
func (b bay) slabTerms() (rows frame.Each[survey.Row]) {
	p := b.shape.Prior()
	if wide, ok := p.SlabTerm(survey.Width); ok {
		rows[frame.Lock] = survey.Row{wide}
	}
	if long, ok := p.SlabTerm(survey.Height); ok {
		rows[frame.Foot] = survey.Row{long}
	}
	return rows
}

// gapRow is the margin at a station of a slab hung on pins at two heights, as a row over the sides, to first order in
// the leans.
func (s station) gapRow(top, bottom float64) survey.Row {
	span := top - bottom
	// The line of the pins at height v: h(b)·(1−f) + h(t)·f.
	f := (s.at - bottom) / span
	switch s.side {
	case frame.Hinge:
		return survey.Row{
			{Of: survey.Of(frame.Hinge), At: bottom, By: 1 - f},
			{Of: survey.Of(frame.Hinge), At: top, By: f},
			{Of: survey.Of(frame.Hinge), At: s.at, By: -1},
		}
	case frame.Lock:
		return survey.Row{
			{Of: survey.Of(frame.Lock), At: s.at, By: 1},
			{Of: survey.Of(frame.Hinge), At: bottom, By: f - 1},
			{Of: survey.Of(frame.Hinge), At: top, By: -f},
		}
	case frame.Head:
		return survey.Row{
			{Of: survey.Of(frame.Head), At: s.at, By: 1},
			{Of: survey.Of(frame.Head), At: 0, By: -1},
			{Of: survey.Of(frame.Hinge), At: top, By: s.at / span},
			{Of: survey.Of(frame.Hinge), At: bottom, By: -s.at / span},
		}
	}
	return survey.Row{ // the foot
		{Of: survey.Of(frame.Head), At: 0, By: 1},
		{Of: survey.Of(frame.Foot), At: s.at, By: -1},
		{Of: survey.Of(frame.Hinge), At: top, By: -s.at / span},
		{Of: survey.Of(frame.Hinge), At: bottom, By: s.at / span},
	}
}

// hung transforms one side's stations, at given means, to the hung frame.
func (o *Outline) hung(side []station, mean []float64) []Point {
	sin, cos := math.Sincos(math.Atan(o.pins.B))
	points := make([]Point, len(side))
	for i, s := range side {
		u, v := s.at, mean[i]
		if s.side.Upright() {
			u, v = v, u
		}
		x, y := (u-o.pins.A)*cos-v*sin, (u-o.pins.A)*sin+v*cos
		points[i] = Point{x, y}
		if s.side.Upright() {
			points[i] = Point{y, x}
		}
	}
	return points
}

// margins are the margins of one side at its stations, whose points are in the hung frame.
type margins struct {
	points []Point
	at     []station
	rows   []survey.Row
	cov    mat.Symmetric
}

// drawEdge fits the edge of one side.
func (o *Outline) drawEdge(side frame.Side, want Targets, m margins) {
	points, at, rows, cov := m.points, m.at, m.rows, m.cov
	out := 1.0 // where the opening lies at the greater coordinate
	if side == frame.Hinge || side == frame.Foot {
		out = -1
	}
	line, worst, _ := Minimax(points)
	e := Edge{Line: line, Residual: worst, Gaps: make([]Gap, len(points))}
	e.Line.A -= out * want.Margin[side]
	if least := want.Margin[side] - worst; least < want.Least {
		e.Moved = want.Least - least
		e.Line.A -= out * e.Moved
	}
	for i, pt := range points {
		e.Gaps[i] = Gap{
			At:    at[i].at,
			Along: pt.S,
			Mean:  out * (pt.Off - e.Line.At(pt.S)),
			Sigma: math.Sqrt(max(cov.At(i, i), 0)),
		}
	}
	if side != frame.Hinge { // the pins are set to the hinge jamb itself
		e.excess = excessOf(side, e.Gaps, want.Margin[side]+e.Moved, cov)
	}
	if side == frame.Head && want.Sure.Risk > 0 {
		o.corner = true
		o.Held = held(e.excess, want.Sure)
		e.Line.A += o.Held
		for i := range e.Gaps {
			e.Gaps[i].Mean -= o.Held
			for k := range e.excess[i].bounds {
				e.excess[i].bounds[k].mean -= o.Held
			}
		}
	}
	if side != frame.Hinge {
		o.ends[slices.Index(tripEdges[:], side)] = endsOf(side, e, m, want.Margin[side]+e.Moved, want.Least)
	}
	if side == frame.Head {
		o.atCorner = cornerRow(e.Gaps, rows)
	}
	o.Edges[side] = e
	for where, i := range [3]int{0, len(rows) / 2, len(rows) - 1} {
		o.Wanted = append(o.Wanted, WantedMargin{side, where, rows[i]})
	}
}
