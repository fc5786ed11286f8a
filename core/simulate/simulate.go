// Package simulate hangs slabs in random openings, by our plan and by the
// rule of thumb, to see how often each cuts too far and how often a slab goes
// back to the trestles. Nothing here is used to plan a door.
package simulate

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"gonum.org/v1/gonum/mat"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
)

// What is simulated, in mm: a margin of 3 all round and 6 at the foot, cuts
// true to 0.3 (standard deviation at each end of a cut), gaps read with
// packers to 0.3.
const (
	width, height = 826.0, 2030.0
	margin, under = 3.0, 6.0
	least         = 1.5
	cutNoise      = 0.3
	gapNoise      = 0.3
	tooSmall      = 1.0
	mostReturns   = 10
	grid          = 29 // places at which a true side is drawn; straight between
)

var pins = [2]float64{height - 190, 262}

// opening is a true opening: each side's coordinate at places along it.
type opening struct{ side frame.Each[[]float64] }

func reach(s frame.Side) float64 {
	if s.Upright() {
		return height
	}
	return width
}

func (o opening) at(s frame.Side, place float64) float64 {
	v := o.side[s]
	f := min(max(place/reach(s), 0), 1) * float64(len(v)-1)
	i := min(int(f), len(v)-2)
	return v[i] + (f-float64(i))*(v[i+1]-v[i])
}

// drawer draws true openings as crooked as the prior says, from the Cholesky
// factor of its covariance.
type drawer struct {
	prior  survey.Prior
	factor frame.Each[*mat.TriDense]
}

func newDrawer(p survey.Prior) *drawer {
	d := &drawer{prior: p}
	flat := p
	flat.Offset = 1 // the size is drawn apart
	for _, s := range frame.Sides {
		cov := mat.NewSymDense(grid, nil)
		for i := range grid {
			for j := i; j < grid; j++ {
				a, b := reach(s)*float64(i)/(grid-1), reach(s)*float64(j)/(grid-1)
				cov.SetSym(i, j, flat.Cov(s, a, b))
			}
			cov.SetSym(i, i, cov.At(i, i)+1e-6)
		}
		var chol mat.Cholesky
		if !chol.Factorize(cov) {
			panic("the prior's covariance is not positive definite")
		}
		d.factor[s] = new(mat.TriDense)
		chol.LTo(d.factor[s])
	}
	return d
}

func (d *drawer) draw(rng *rand.Rand) (o opening) {
	for _, s := range frame.Sides {
		z := make([]float64, grid)
		for i := range z {
			z[i] = rng.NormFloat64()
		}
		var v mat.VecDense
		v.MulVec(d.factor[s], mat.NewVecDense(grid, z))
		side := v.RawVector().Data
		nominal := 0.0
		switch s {
		case frame.Lock:
			nominal = width + rng.NormFloat64()*5
		case frame.Head:
			nominal = height + rng.NormFloat64()*5
		default:
			nominal = -side[0] // the frame is pinned at the foot of the hinge jamb
		}
		for i := range side {
			side[i] += nominal
		}
		o.side[s] = side
	}
	return o
}

// usual are the readings of a full tape survey.
func usual() []survey.Reading {
	mm := measure.FromMM
	rs := []survey.Reading{
		{Kind: survey.Height, At: mm(50)},
		{Kind: survey.Height, At: mm(770)},
		{Kind: survey.Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200)},
		{Kind: survey.Plumb, Side: frame.Lock, At: mm(1800), From: mm(200)},
		{Kind: survey.Straight, Side: frame.Hinge, At: mm(1000), From: mm(200), To: mm(1800)},
		{Kind: survey.Straight, Side: frame.Lock, At: mm(1000), From: mm(200), To: mm(1800)},
		{Kind: survey.Level, Side: frame.Head, At: mm(770), From: mm(50)},
		{Kind: survey.Level, Side: frame.Foot, At: mm(770), From: mm(50)},
	}
	for _, at := range widths {
		rs = append(rs, survey.Reading{Kind: survey.Width, At: mm(at)})
	}
	for i := range rs {
		rs[i].ID = fmt.Sprint(i)
	}
	return rs
}

var widths = []float64{200, 600, 1000, 1400, 1800}

// read takes a reading of a true opening, with its noise, to the half
// millimetre.
func (o opening) read(r survey.Reading, rng *rand.Rand) survey.Reading {
	var v float64
	for _, t := range r.Row(survey.Prior{Width: width, Height: height}) {
		v += t.By * o.at(t.Side, t.At)
	}
	v += rng.NormFloat64() * r.Sigma()
	r.Value = measure.FromMM(v).Round(measure.Millimetre/2, measure.Nearest)
	return r
}

// door is a slab as it hangs: the pins' margins at the top and the bottom
// hinge, its width at head and foot, how far its head and foot run up toward
// the lock edge, and its length on the hinge edge.
type door struct {
	pin            [2]float64
	top, foot      float64 // width
	headUp, footUp float64
	length         float64
	headGap        float64 // at the hinge corner, set by the hinges
}

// gaps are the true margins of a hung door at places along lock, head and
// foot.
func (o opening) gaps(d door) (g frame.Each[[]fit.Point]) {
	bottom := o.at(frame.Hinge, pins[1]) + d.pin[1]
	lean := (o.at(frame.Hinge, pins[0]) + d.pin[0] - bottom) / (pins[0] - pins[1])
	edge := func(v float64) float64 { return bottom + lean*(v-pins[1]) }
	const n = 13
	for i := range n {
		f := float64(i) / (n - 1)
		v, u := height*f, width*f
		g[frame.Lock] = append(g[frame.Lock], fit.Point{S: v, Off: o.at(frame.Lock, v) - edge(v) - (d.foot + (d.top-d.foot)*f)})
		headAt := o.at(frame.Head, 0) - d.headGap
		g[frame.Head] = append(g[frame.Head], fit.Point{S: u, Off: o.at(frame.Head, u) - (headAt + d.headUp*f - lean*u)})
		g[frame.Foot] = append(g[frame.Foot], fit.Point{S: u, Off: headAt - d.length + d.footUp*f - lean*u - o.at(frame.Foot, u)})
	}
	return g
}

var judged = []frame.Side{frame.Lock, frame.Head, frame.Foot}

func wanted(s frame.Side) float64 {
	if s == frame.Foot {
		return under
	}
	return margin
}

// small lists the edges that stand more than a millimetre further from
// their side somewhere than the best straight edge would.
func (o opening) small(d door) (list []frame.Side) {
	g := o.gaps(d)
	for _, s := range judged {
		_, best, _ := fit.Minimax(g[s])
		widest := math.Inf(-1)
		for _, p := range g[s] {
			widest = max(widest, p.Off)
		}
		moved := max(least-(wanted(s)-best), 0) // a straight edge gives way to the least margin
		if widest > wanted(s)+best+moved+tooSmall {
			list = append(list, s)
		}
	}
	return list
}

func (o opening) uneven(d door) (worst float64) {
	g := o.gaps(d)
	for _, s := range []frame.Side{frame.Lock, frame.Head} {
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, p := range g[s] {
			lo, hi = min(lo, p.Off), max(hi, p.Off)
		}
		worst = max(worst, hi-lo)
	}
	return worst
}

// returns hangs a door, reads its gaps, and while one is under the least takes
// it back to the trestles and planes each tight edge to the straight line that
// the gaps ask for; it never puts wood back.
func (o opening) returns(d door, rng *rand.Rand) (trips int, last door) {
	for trips < mostReturns {
		g := o.gaps(d)
		tight := false
		for _, s := range judged {
			lo := math.Inf(1)
			for i := range g[s] {
				lo = min(lo, g[s][i].Off)
				g[s][i].Off += rng.NormFloat64() * gapNoise
			}
			if lo >= least {
				continue
			}
			tight = true
			line, best, _ := fit.Minimax(g[s])
			line.A += max(best-(wanted(s)-least), 0) * -1 // keep the least in the tightest place
			lack := func(at float64) float64 { return max(wanted(s)-line.At(at), 0) + rng.NormFloat64()*cutNoise }
			switch s {
			case frame.Lock:
				d.foot -= max(lack(0), 0)
				d.top -= max(lack(height), 0)
			case frame.Head:
				// Planed at either corner; the hinges keep the hinge corner's gap,
				// so wood off there lets the slab up.
				a, b := max(lack(0), 0), max(lack(width), 0)
				d.headUp += a - b
				d.length -= a
			default:
				a, b := max(lack(0), 0), max(lack(width), 0)
				d.length -= a
				d.footUp += b - a
			}
		}
		if !tight {
			break
		}
		trips++
	}
	return trips, d
}

// ours plans a door from its readings; the outline it was cut by is given too.
func ours(rs []survey.Reading, p survey.Prior, rng *rand.Rand) (door, fit.Outline, error) {
	shape, err := survey.Learn(rs, nil, p)
	if err != nil {
		return door{}, fit.Outline{}, err
	}
	want := fit.Targets{Least: least, Uneven: 0.5, Pins: pins}
	for _, s := range frame.Sides {
		want.Margin[s] = margin
	}
	want.Margin[frame.Foot] = under
	o, err := fit.Draw(shape, want)
	if err != nil {
		return door{}, fit.Outline{}, err
	}
	leave := o.LeaveOn(fit.Common)
	c := o.CornersWith(leave)
	hinge := o.Edges[frame.Hinge]
	d := door{
		pin:     [2]float64{hinge.GapAt(pins[0]), hinge.GapAt(pins[1])},
		top:     c[1].X - c[0].X,
		foot:    c[2].X - c[3].X,
		headUp:  c[1].Y - c[0].Y,
		footUp:  c[2].Y - c[3].Y,
		length:  c[0].Y - c[3].Y,
		headGap: o.Edges[frame.Head].Gaps[0].Mean,
	}
	return d.cut(rng), o, nil
}

// thumb is the rule: longest width less two margins, square head; the
// shortest floor to head less its margins.
func thumb(rs []survey.Reading, rng *rand.Rand) door {
	widest, lowest := 0.0, math.Inf(1)
	for _, r := range rs {
		switch r.Kind {
		case survey.Width:
			widest = max(widest, r.Value.MM())
		case survey.Height:
			lowest = min(lowest, r.Value.MM())
		}
	}
	w := widest - 2*margin
	d := door{pin: [2]float64{margin, margin}, top: w, foot: w, length: lowest - margin - under, headGap: margin}
	return d.cut(rng)
}

// cut adds the saw's and plane's own noise.
func (d door) cut(rng *rand.Rand) door {
	d.top += rng.NormFloat64() * cutNoise
	d.foot += rng.NormFloat64() * cutNoise
	d.headUp += rng.NormFloat64() * cutNoise
	d.footUp += rng.NormFloat64() * cutNoise
	d.length += rng.NormFloat64() * cutNoise
	return d
}

// Tally is what came of one way of planning.
type Tally struct {
	TooSmall                   float64 // share of slabs cut too small by over 1 mm somewhere, at the first cut
	TooNarrow                  float64 // of these, at the lock edge: the share of all slabs
	UnevenMedian, Uneven95     float64 // mm, at the first hang: greatest less least margin along lock edge or head
	ReturnsMean, ReturnsMedian float64
	Returns95                  float64
}

// Result compares the two ways over the same openings.
type Result struct {
	Openings    int
	Ours, Thumb Tally
}

// Run hangs so many random openings each way. The same seed gives the same
// result.
func Run(openings int, seed uint64) (Result, error) {
	if openings < 1 {
		return Result{}, fmt.Errorf("there is nothing to simulate in %d openings", openings)
	}
	p := survey.OldOpening(width, height)
	d := newDrawer(p)
	rng := rand.New(rand.NewPCG(seed, 1))
	var a, b counts
	for range openings {
		o := d.draw(rng)
		rs := usual()
		for i := range rs {
			rs[i] = o.read(rs[i], rng)
		}
		mine, _, err := ours(rs, p, rng)
		if err != nil {
			return Result{}, err
		}
		a.add(o, mine, rng)
		b.add(o, thumb(rs, rng), rng)
	}
	return Result{openings, a.tally(), b.tally()}, nil
}

type counts struct {
	small   int
	narrow  int
	uneven  []float64
	returns []float64
}

func (c *counts) add(o opening, d door, rng *rand.Rand) {
	small := o.small(d)
	if len(small) > 0 {
		c.small++
	}
	if slices.Contains(small, frame.Lock) {
		c.narrow++
	}
	c.uneven = append(c.uneven, o.uneven(d))
	trips, _ := o.returns(d, rng)
	c.returns = append(c.returns, float64(trips))
}

func (c *counts) tally() Tally {
	slices.Sort(c.uneven)
	slices.Sort(c.returns)
	n := len(c.uneven)
	mean := 0.0
	for _, r := range c.returns {
		mean += r / float64(n)
	}
	return Tally{
		TooSmall:     float64(c.small) / float64(n),
		TooNarrow:    float64(c.narrow) / float64(n),
		UnevenMedian: c.uneven[n/2], Uneven95: c.uneven[n*95/100],
		ReturnsMean: mean, ReturnsMedian: c.returns[n/2], Returns95: c.returns[n*95/100],
	}
}
