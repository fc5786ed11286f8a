package survey

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distmv"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

func mm(v float64) measure.Length { return measure.FromMM(v) }

// leaning is a full tape survey of an opening whose lock jamb leans.
func leaning() []Reading {
	return []Reading{
		{Kind: Width, At: mm(200), Value: mm(826)},
		{Kind: Width, At: mm(1000), Value: mm(828.5)},
		{Kind: Width, At: mm(1800), Value: mm(831)},
		{Kind: Height, At: mm(30), Value: mm(2032)},
		{Kind: Height, At: mm(800), Value: mm(2026)},
		{Kind: Plumb, Side: frame.Hinge, At: mm(1900), From: mm(100), Value: mm(1.5)},
		{Kind: Plumb, Side: frame.Lock, At: mm(1900), From: mm(100), Value: mm(-4)},
		{Kind: Level, Side: frame.Head, At: mm(800), From: mm(30), Value: mm(-4)},
		{Kind: Level, Side: frame.Foot, At: mm(800), From: mm(30), Value: mm(2)},
		{Kind: Square, Side: frame.Hinge, At: mm(600), Value: mm(-2.5)},
		{Kind: Square, Side: frame.Lock, At: mm(600), Value: mm(1)},
	}
}

// TestEstimateAgainstConditionNormal checks the estimate against gonum's
// stat/distmv Normal.ConditionNormal. The joint normal of stations and
// readings is built here entry by entry from the formula of the prior, not by
// the code under test.
func TestEstimateAgainstConditionNormal(t *testing.T) {
	p := OldOpening(828, 2030)
	type station struct {
		side frame.Side
		at   float64
	}
	var stations []station
	for _, v := range []float64{0, 150, 700, 1430, 2030} {
		stations = append(stations, station{frame.Hinge, v}, station{frame.Lock, v})
	}
	for _, u := range []float64{0, 228, 400, 830} {
		stations = append(stations, station{frame.Head, u}, station{frame.Foot, u})
	}
	wanted := len(stations)
	readings := leaning()

	// Every place that a reading touches is a station as well, with the
	// reading's coefficients written out by hand.
	type coef struct {
		at int
		by float64
	}
	place := func(side frame.Side, at float64) int {
		stations = append(stations, station{side, at})
		return len(stations) - 1
	}
	var rows [][]coef
	for _, r := range readings {
		at, from := r.At.MM(), r.From.MM()
		switch {
		case r.Kind == Width:
			rows = append(rows, []coef{{place(frame.Lock, at), 1}, {place(frame.Hinge, at), -1}})
		case r.Kind == Height:
			rows = append(rows, []coef{{place(frame.Head, at), 1}, {place(frame.Foot, at), -1}})
		case r.Kind == Plumb && r.Side == frame.Hinge, r.Kind == Level:
			rows = append(rows, []coef{{place(r.Side, at), 1}, {place(r.Side, from), -1}})
		case r.Kind == Plumb:
			rows = append(rows, []coef{{place(r.Side, at), -1}, {place(r.Side, from), 1}})
		case r.Side == frame.Hinge:
			rows = append(rows, []coef{
				{place(frame.Head, at), 1},
				{place(frame.Head, 0), -1},
				{place(frame.Hinge, 2030), 1},
				{place(frame.Hinge, 2030-at), -1},
			})
		default:
			rows = append(rows, []coef{
				{place(frame.Head, 828-at), 1},
				{place(frame.Head, 828), -1},
				{place(frame.Lock, 2030), -1},
				{place(frame.Lock, 2030-at), 1},
			})
		}
	}
	// Each reading holds its tool's bias too: tape, level and square, 0.5 mm or 0.5 mm a
	// metre of what lies between its places.
	const tape, level, square = frame.Side(100), frame.Side(101), frame.Side(102)
	bias := map[frame.Side]int{}
	for _, tool := range []frame.Side{tape, level, square} {
		bias[tool] = place(tool, 0)
	}
	for i, r := range readings {
		switch r.Kind {
		case Width, Height:
			rows[i] = append(rows[i], coef{bias[tape], 1})
		case Plumb, Level:
			rows[i] = append(rows[i], coef{bias[level], (r.At - r.From).MM() / 1000})
		case Square:
			rows[i] = append(rows[i], coef{bias[square], r.At.MM() / 1000})
		}
	}
	rows = append(rows, []coef{{place(frame.Hinge, 0), 1}}, []coef{{place(frame.Foot, 0), 1}})

	nominal := map[frame.Side]float64{frame.Lock: 828, frame.Head: 2030}
	bow := map[frame.Side]float64{frame.Hinge: 1.5, frame.Lock: 1.5, frame.Head: 0.8, frame.Foot: 0.8}
	run := map[frame.Side]float64{frame.Hinge: 700, frame.Lock: 700, frame.Head: 400, frame.Foot: 400}
	ripple := map[frame.Side]float64{frame.Hinge: 1.25, frame.Lock: 1.25, frame.Head: 1.9, frame.Foot: 0.6}
	wave := map[frame.Side]float64{frame.Hinge: 300, frame.Lock: 300, frame.Head: 200, frame.Foot: 200}
	n, m := len(stations), len(rows)
	prior := func(i, j int) float64 {
		a, b := stations[i], stations[j]
		if a.side != b.side {
			return 0
		}
		switch a.side {
		case tape:
			return 0.6 * 0.6
		case level, square:
			return 0.5 * 0.5
		}
		d, e := (a.at-b.at)/run[a.side], (a.at-b.at)/wave[a.side]
		return 50*50 + 0.004*0.004*a.at*b.at + bow[a.side]*bow[a.side]*math.Exp(-d*d/2) +
			ripple[a.side]*ripple[a.side]*math.Exp(-e*e/2)
	}
	mu := make([]float64, n+m)
	big := mat.NewSymDense(n+m, nil)
	for i := range n {
		mu[i] = nominal[stations[i].side]
		for j := i; j < n; j++ {
			big.SetSym(i, j, prior(i, j))
		}
	}
	values := make([]float64, m)
	for k, row := range rows {
		if k < len(readings) {
			values[k] = readings[k].Value.MM()
		}
		for _, c := range row {
			mu[n+k] += c.by * mu[c.at]
		}
		for i := range n {
			var s float64
			for _, c := range row {
				s += c.by * prior(i, c.at)
			}
			big.SetSym(i, n+k, s)
		}
		for l := k; l < m; l++ {
			var s float64
			for _, a := range row {
				for _, b := range rows[l] {
					s += a.by * b.by * prior(a.at, b.at)
				}
			}
			if l == k && k < len(readings) {
				s += map[Kind]float64{Width: 0.64, Height: 0.64}[readings[k].Kind]
				if kind := readings[k].Kind; kind != Width && kind != Height {
					s += 0.25
				}
			}
			big.SetSym(n+k, n+l, s)
		}
	}
	// Stations that repeat one another make the joint singular: gonum wants
	// it positive definite, so keep the wanted stations and the readings.
	// A pinned place is itself a reading: leave it out of the wanted ones.
	var keep []int
	for i := range wanted {
		if !(stations[i].at == 0 && (stations[i].side == frame.Hinge || stations[i].side == frame.Foot)) {
			keep = append(keep, i)
		}
	}
	w := len(keep)
	idx := append([]int{}, keep...)
	for k := range m {
		idx = append(idx, n+k)
	}
	sub, subMu := mat.NewSymDense(w+m, nil), make([]float64, w+m)
	for i, a := range idx {
		subMu[i] = mu[a]
		for j := i; j < len(idx); j++ {
			sub.SetSym(i, j, big.At(a, idx[j]))
		}
	}
	joint, ok := distmv.NewNormal(subMu, sub, nil)
	require.True(t, ok)
	observed := make([]int, m)
	for k := range m {
		observed[k] = w + k
	}
	want, ok := joint.ConditionNormal(observed, values, nil)
	require.True(t, ok)

	shape, err := Estimate(readings, nil, p)
	require.NoError(t, err)
	figures := make([]Row, w)
	for i, a := range keep {
		figures[i] = Row{{Of(stations[a].side), stations[a].at, 1}}
	}
	mean, cov := shape.Joint(figures)
	wantCov := mat.NewSymDense(w, nil)
	want.CovarianceMatrix(wantCov)
	for i, m := range want.Mean(nil) {
		assert.InDelta(t, m, mean[i], 1e-6, "mean of %v at %v", stations[keep[i]].side, stations[keep[i]].at)
		for j := range w {
			assert.InDelta(t, wantCov.At(i, j), cov.At(i, j), 1e-6)
		}
	}
}

func TestTheFrameIsPinned(t *testing.T) {
	s, err := Estimate(leaning(), nil, OldOpening(828, 2030))
	require.NoError(t, err)
	for _, side := range []frame.Side{frame.Hinge, frame.Foot} {
		m, sd := s.At(side, 0)
		assert.InDelta(t, 0, m, 1e-9)
		assert.InDelta(t, 0, sd, 1e-4)
	}
}

// In a rigid prior (no bow) with good readings the shape is plain geometry,
// worked out here by hand.
func TestSignsByHand(t *testing.T) {
	p := OldOpening(800, 2000)
	p.JambBow, p.HeadBow, p.Kit = 1e-3, 1e-3, TrueKit()
	read := func(rs ...Reading) *Shape {
		s, err := Estimate(rs, nil, p)
		require.NoError(t, err)
		return s
	}
	base := []Reading{
		{Kind: Width, At: mm(0), Value: mm(800)},
		{Kind: Height, At: mm(0), Value: mm(2000)},
	}
	// Each lean is read twenty times so that the prior no longer pulls.
	many := func(r Reading) []Reading {
		out := base
		for range 400 {
			out = append(out, r)
		}
		return out
	}
	u := func(s *Shape, side frame.Side, at float64) float64 { m, _ := s.At(side, at); return m }

	s := read(many(Reading{Kind: Plumb, Side: frame.Hinge, At: mm(2000), Value: mm(6)})...)
	assert.InDelta(t, 6, u(s, frame.Hinge, 2000), 0.05, "hinge jamb leans in: toward the lock jamb")
	s = read(many(Reading{Kind: Plumb, Side: frame.Lock, At: mm(2000), Value: mm(6)})...)
	assert.InDelta(t, 794, u(s, frame.Lock, 2000), 0.9, "lock jamb leans in: toward the hinge jamb")
	s = read(many(Reading{Kind: Level, Side: frame.Head, At: mm(800), Value: mm(4)})...)
	assert.InDelta(t, 4, u(s, frame.Head, 800)-u(s, frame.Head, 0), 0.05)

	// Plumb hinge jamb, head rising 6 in 600: light of 6 at the blade's end.
	// Head level, hinge jamb leaning in 3 over 600: the blade's end drops 3.
	square := Row(Reading{Kind: Square, Side: frame.Hinge, At: mm(600)}.Row(p))
	value := func(h, tt func(float64) float64) float64 {
		var sum float64
		for _, c := range square {
			switch frame.Side(c.Of) {
			case frame.Hinge:
				sum += c.By * h(c.At)
			case frame.Head:
				sum += c.By * tt(c.At)
			}
		}
		return sum
	}
	flat := func(float64) float64 { return 0 }
	assert.InDelta(t, 6, value(flat, func(u float64) float64 { return 0.01 * u }), 1e-9)
	assert.InDelta(t, 3, value(func(v float64) float64 { return 0.005 * v }, flat), 1e-9)
}

func TestMoreReadingsNeverMakeItLessSure(t *testing.T) {
	p := OldOpening(828, 2030)
	all := leaning()
	figure := Row{{Of(frame.Lock), 1000, 1}, {Of(frame.Hinge), 1000, -1}}
	last := math.Inf(1)
	for n := range len(all) + 1 {
		s, err := Estimate(all[:n], nil, p)
		require.NoError(t, err)
		_, sd := s.Of(figure)
		assert.LessOrEqual(t, sd, last+1e-9)
		last = sd
	}
	assert.Less(
		t, last, math.Hypot(0.8, 0.6), "three widths and a square agree better than one width, its hook counted",
	)
}

func TestAMisreadWidthIsNamed(t *testing.T) {
	rs := leaning()
	rs[1].Value += 10 * measure.Millimetre
	s, err := Estimate(rs, nil, OldOpening(828, 2030))
	require.NoError(t, err)
	suspects := s.Suspects()
	require.Len(t, suspects, 1, "the sound readings beside it are not accused")
	assert.Equal(t, rs[1], suspects[0].Reading)
	assert.InDelta(t, 828.5, suspects[0].Predicted, 2)

	s, err = Estimate(leaning(), nil, OldOpening(828, 2030))
	require.NoError(t, err)
	assert.Empty(t, s.Suspects())
}

func TestCheckNamesTheField(t *testing.T) {
	cases := []struct {
		r     Reading
		field string
		says  string
	}{
		{Reading{Kind: "depth", Value: mm(3)}, "kind", "no-reading-kind"},
		{Reading{Kind: Width, At: mm(200), Value: mm(60)}, "value", "reading-value"},
		{Reading{Kind: Width, At: mm(200), Value: mm(-800)}, "value", "reading-value"},
		{Reading{Kind: Height, Value: mm(203)}, "value", "reading-value"},
		{Reading{Kind: Width, At: mm(-1), Value: mm(800)}, "at", "reading-place"},
		{Reading{Kind: Plumb, Side: frame.Head, At: mm(1900), Value: mm(3)}, "side", "plumb-side"},
		{Reading{Kind: Level, Side: frame.Lock, At: mm(800), Value: mm(3)}, "side", "level-side"},
		{Reading{Kind: Plumb, Side: frame.Hinge, At: mm(120), From: mm(100), Value: mm(3)}, "at", "places-close"},
		{Reading{Kind: Plumb, Side: frame.Hinge, At: mm(1900), From: mm(-100), Value: mm(3)}, "from", "reading-place"},
		{Reading{Kind: Square, Side: frame.Hinge, At: mm(20), Value: mm(3)}, "at", "blade"},
		{Reading{Kind: Square, Side: frame.Foot, At: mm(600), Value: mm(3)}, "side", "square-side"},
	}
	for _, c := range cases {
		err := c.r.Check()
		var re field.Error
		if assert.ErrorAs(t, err, &re, "%v", c.r) {
			assert.Equal(t, "/"+c.field, re.Pointer)
			assert.Equal(t, "refused."+c.says, string(re.Problem.ID))
		}
		_, err = Estimate([]Reading{c.r}, nil, OldOpening(800, 2000))
		assert.Error(t, err)
	}
}

func TestAReadingIsNamedByItsPlaces(t *testing.T) {
	r := Reading{Kind: Width, At: 40 * measure.Inch, Value: 3 * measure.Inch}
	assert.Equal(t, "reading.width", string(r.Title().ID))
	assert.Equal(t, message.Exact(40*measure.Inch), r.Title().Args["at"])
	gap := Reading{Kind: Gap, Side: frame.Head, At: mm(20)}
	assert.Equal(t, "reading.gap-across", string(gap.Title().ID))
	square := Reading{Kind: Square, Side: frame.Lock, At: mm(600)}
	assert.Equal(t, "lock-corner", square.Title().Args["corner"].(message.End).ID())
	assert.ErrorContains(t, r.Check(), "refused.reading-value")
}

func BenchmarkEstimate20(b *testing.B) {
	var rs []Reading
	for len(rs) < 20 {
		rs = append(rs, leaning()...)
	}
	rs = rs[:20]
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Estimate(rs, nil, OldOpening(828, 2030)); err != nil {
			b.Fatal(err)
		}
	}
}

// Against the standard library's exponential, between the places of the table and
// past its end.
func TestBellIsExponential(t *testing.T) {
	for x := -9.0; x < 9; x += 0.00037 {
		require.InDelta(t, math.Exp(-x*x/2), bell(x), 1e-9, "at %v", x)
	}
}
