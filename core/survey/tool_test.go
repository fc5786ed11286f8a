package survey

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// Against a direct least-squares adjustment by QR, the biases of the tools being
// parameters like the sides: the prior is so many observations more.
func TestBiasesAgainstLeastSquares(t *testing.T) {
	p := OldOpening(828, 2030)
	p.Kit = Kit{
		{ID: "old", Instrument: "tape", Proved: &Proved{Bias: -0.8, Sure: 0.2}},
		{ID: "lev", Instrument: "level"},
	}
	rs := leaning()
	for i := range rs {
		if rs[i].Kind == Width {
			rs[i].Tool = "old"
		}
	}
	s, err := Estimate(rs, nil, p)
	require.NoError(t, err)

	var places []Term
	index := func(x Term) int {
		for i, y := range places {
			if x.Of == y.Of && x.At == y.At {
				return i
			}
		}
		places = append(places, Term{x.Of, x.At, 1})
		return len(places) - 1
	}
	wanted := []Term{{Of(frame.Lock), 1500, 1}, {Of(frame.Head), 300, 1}, {Of(frame.Hinge), 2030, 1}}
	for _, w := range wanted {
		index(w)
	}
	for _, row := range s.rows {
		for _, x := range row {
			index(x)
		}
	}
	n, m := len(places), len(s.rows)
	spreads := map[Part]float64{} // by hand: the proved tape, the level and the square as they come
	for i, tool := range []float64{0.2, 0.5} {
		spreads[firstBias+Part(i)] = tool
	}
	cov := mat.NewSymDense(n, nil)
	for i, a := range places {
		for j := i; j < n; j++ {
			b := places[j]
			v := 0.0
			if side, ok := a.Of.Side(); a.Of == b.Of && ok {
				bow, run, ripple, wave := 1.5, 700.0, 1.25, 300.0
				switch side {
				case frame.Head:
					bow, run, ripple, wave = 0.8, 400, 1.9, 200
				case frame.Foot:
					bow, run, ripple, wave = 0.8, 400, 0.6, 200
				}
				d, e := (a.At-b.At)/run, (a.At-b.At)/wave
				v = 2500 + 16e-6*a.At*b.At + bow*bow*math.Exp(-d*d/2) + ripple*ripple*math.Exp(-e*e/2)
			} else if a.Of == b.Of {
				spread, known := spreads[a.Of]
				if !known {
					spread = 0.5 // the usual square
				}
				if a.Of == firstBias+mostTools { // the usual tape, which is the first instrument
					spread = 0.6
				}
				v = spread * spread
			}
			if i == j {
				v += 1e-9
			}
			cov.SetSym(i, j, v)
		}
	}
	var chol mat.Cholesky
	require.True(t, chol.Factorize(cov))
	var l, inv mat.TriDense
	chol.LTo(&l)
	require.NoError(t, inv.InverseTri(&l))
	a, y := mat.NewDense(n+m, n, nil), mat.NewVecDense(n+m, nil)
	for i := range n {
		for j := range n {
			a.Set(i, j, inv.At(i, j))
		}
		for j, pl := range places {
			mean := 0.0
			switch pl.Of {
			case Of(frame.Lock):
				mean = 828
			case Of(frame.Head):
				mean = 2030
			case firstBias:
				mean = -0.8
			}
			y.SetVec(i, y.AtVec(i)+inv.At(i, j)*mean)
		}
	}
	for k, row := range s.rows {
		sigma, value := 1e-4, 0.0 // the two pins
		if k < len(rs) {
			value = rs[k].Value.MM()
			switch rs[k].Kind {
			case Width, Height:
				sigma = 0.8
			default:
				sigma = 0.5
			}
		}
		for _, x := range row {
			a.Set(n+k, index(x), a.At(n+k, index(x))+x.By/sigma)
		}
		y.SetVec(n+k, value/sigma)
	}
	var qr mat.QR
	qr.Factorize(a)
	var z mat.VecDense
	require.NoError(t, qr.SolveVecTo(&z, false, y))
	for _, w := range wanted {
		got, _ := s.Of(Row{w})
		assert.InDelta(t, z.AtVec(index(w)), got, 1e-3, "%v", w)
	}
	side, at := frame.Lock, 1500.0
	with, _ := s.At(side, at)
	p.Kit[0].Proved.Bias = 0
	plain, err := Estimate(rs, nil, p)
	require.NoError(t, err)
	without, _ := plain.At(side, at)
	assert.InDelta(t, 0.8, with-without, 0.15, "a tape that reads 0.8 short makes the opening wider by that")
}

// Five widths with one bent hook are not five opinions; one width by sliding rods pays
// for itself; a level turned end for end cancels its own error.
func TestReadingsWithOneToolShareItsError(t *testing.T) {
	p := OldOpening(826, 2030)
	p.Lean, p.Slope, p.JambBow, p.HeadBow = 1e-5, 1e-5, 1e-4, 1e-4 // a true frame, so that all widths are one
	p.JambRipple = 1e-4
	width := Row{{Of(frame.Lock), 1000, 1}, {Of(frame.Hinge), 1000, -1}}
	sure := func(rs ...Reading) float64 {
		s, err := Estimate(rs, nil, p)
		require.NoError(t, err)
		_, sd := s.Of(width)
		return sd
	}
	var many []Reading
	for i := range 40 {
		many = append(many, Reading{Kind: Width, At: mm(float64(100 + 45*i)), Value: mm(826)})
	}
	assert.InDelta(
		t, math.Hypot(0.6, 0.8/math.Sqrt(40)), sure(many...), 0.02, "by hand: the hook, and the mean of forty",
	)
	p.Kit = Kit{{ID: "rods", Instrument: "rods"}}
	assert.InDelta(
		t, math.Hypot(0.1, 0.3), sure(Reading{Kind: Width, At: mm(1000), Value: mm(826), Tool: "rods"}), 0.02,
	)

	p = OldOpening(826, 2030)
	lean := Row{{Of(frame.Hinge), 1800, 1}, {Of(frame.Hinge), 200, -1}}
	plumb := Reading{Kind: Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200), Value: mm(3)}
	turned := plumb
	turned.Turned, turned.Value = true, mm(1)
	once, err := Estimate([]Reading{plumb, plumb}, nil, p)
	require.NoError(t, err)
	both, err := Estimate([]Reading{plumb, turned}, nil, p)
	require.NoError(t, err)
	_, sd := once.Of(lean)
	mean, better := both.Of(lean)
	assert.Less(t, better, 0.55*sd)
	assert.InDelta(t, 2, mean, 0.03, "midway between the two")
}

func TestAProofFindsTheBentHook(t *testing.T) {
	kit := Kit{{ID: "t", Instrument: "tape"}, {ID: "r", Instrument: "rods"}, {ID: "l", Instrument: "level"}}
	list := func(v ...float64) (out []measure.Length) {
		for _, x := range v {
			out = append(out, mm(x))
		}
		return out
	}
	got, err := kit.Prove(
		"t", Proof{Kind: Width, Against: "r", Own: list(827, 826.5, 827, 826.5), Better: list(826, 826, 826)}, 0.5,
	)
	require.NoError(t, err)
	// By hand: the tape's mean to 0.104 (four usual readings and four of these), the rods'
	// to 0.024 and their own 0.01; beside the usual 0.36.
	assert.InDelta(t, 0.75*0.36/(0.36+0.104+0.024+0.01), got.Bias, 0.01, "three quarters, drawn toward nothing")
	assert.InDelta(t, math.Sqrt(0.138*0.36/0.498), got.Sure, 0.01)
	assert.Equal(t, 7, got.Readings)

	// A level that reads 4 mm one way and 2 mm turned, over 1600: 1 mm in 1.6 m.
	got, err = kit.Prove("l", Proof{Kind: Plumb, Span: mm(1600), Own: list(4, 4, 4), Better: list(2, 2, 2)}, 0.5)
	require.NoError(t, err)
	assert.InDelta(t, 1/1.6, got.Bias, 0.1)

	for name, c := range map[string]struct {
		tool string
		p    Proof
		at   string
	}{
		"one reading": {"t", Proof{Kind: Width, Against: "r", Own: list(827), Better: list(826, 826)}, "/own"},
		"against itself": {
			"t", Proof{Kind: Width, Against: "t", Own: list(827, 827), Better: list(826, 826)}, "/against",
		},
		"a tape turned":   {"t", Proof{Kind: Width, Own: list(827, 827), Better: list(826, 826)}, "/against"},
		"of another kind": {"t", Proof{Kind: Plumb, Against: "r", Own: list(1, 1), Better: list(1, 1)}, "/kind"},
		"far apart": {
			"t", Proof{Kind: Width, Against: "r", Own: list(827, 897), Better: list(826, 826)}, "/own",
		},
		"no span":      {"l", Proof{Kind: Plumb, Own: list(1, 1), Better: list(1, 1)}, "/span"},
		"no such tool": {"x", Proof{Kind: Width, Against: "r", Own: list(1, 1), Better: list(1, 1)}, "/kind"},
		"by what reads none": {
			"t", Proof{Kind: Width, Against: "l", Own: list(827, 827), Better: list(826, 826)}, "/against",
		},
	} {
		_, err := kit.Prove(c.tool, c.p, 0.5)
		var bad field.Error
		if assert.ErrorAs(t, err, &bad, name) {
			assert.Equal(t, c.at, bad.Pointer, name)
		}
	}
}

// Over tools as wrong as they usually are, what is proved is as sure as it says: 2σ
// holds the truth 19 times in 20.
func TestProofsAreAsSureAsTheySay(t *testing.T) {
	kit := Kit{{ID: "t", Instrument: "tape"}, {ID: "r", Instrument: "rods"}}
	rng := rand.New(rand.NewPCG(3, 8))
	in, unproved, left := 0, 0.0, 0.0
	const n = 4000
	for range n {
		bias, other := rng.NormFloat64()*0.5, rng.NormFloat64()*0.1
		read := func(sigma, bias float64) (out []measure.Length) {
			for range 3 {
				out = append(out, mm(826.2+bias+sigma*rng.NormFloat64()).Round(mm(0.5), measure.Nearest))
			}
			return out
		}
		got, err := kit.Prove(
			"t", Proof{Kind: Width, Against: "r", Own: read(0.8, bias), Better: read(0.3, other)}, 0.5,
		)
		require.NoError(t, err)
		if math.Abs(got.Bias-bias) <= 2*got.Sure {
			in++
		}
		unproved, left = unproved+bias*bias/n, left+(got.Bias-bias)*(got.Bias-bias)/n
	}
	assert.InDelta(t, 0.95, float64(in)/n, 0.02)
	assert.InDelta(t, 0.26/(0.25+0.26), left/unproved, 0.05, "by hand: 0.64/3 + 0.09/3 + 0.01 beside 0.25")
}

// The table reads every kind, the usual instrument of each first, and says where its
// figures come from.
func TestEveryKindHasAnInstrument(t *testing.T) {
	for _, k := range Kinds {
		hand, ok := Kit(nil).with(Reading{Kind: k})
		require.True(t, ok, k)
		assert.Positive(t, hand.reads.Minutes, k)
		assert.Less(t, hand.number-mostTools, usualInstruments, "%s: the usual ones stand first", k)
	}
	for _, i := range trade.Instruments {
		assert.NotEmpty(t, i.Source, i.ID)
		for _, r := range i.Reads {
			assert.Contains(t, Kinds, Kind(r.Kind), i.ID)
			assert.Positive(t, r.Sigma)
		}
	}
	assert.LessOrEqual(
		t, int(firstBias)+mostTools+len(trade.Instruments), int(firstPlaced), "each bias is a part of its own",
	)
}

// A slab is measured with what can be laid on it: the first such tool of the kit, a usual tape where none is.
func TestWhatMeasuresASlab(t *testing.T) {
	for _, c := range []struct {
		kit  Kit
		with string
	}{
		{nil, "tape"},
		{Kit{{ID: "a", Instrument: "laser"}, {ID: "b", Instrument: "rods"}, {ID: "c", Instrument: "tape"}}, "rods"},
		{Kit{{ID: "a", Instrument: "laser"}, {ID: "b", Instrument: "level"}}, "tape"},
	} {
		with, sigma := c.kit.OnSlab()
		assert.Equal(t, c.with, with)
		assert.Equal(t, with == "rods", sigma == 0, "rods are carried, and not read")
	}
}
