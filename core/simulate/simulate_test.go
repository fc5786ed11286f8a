package simulate

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/thorough"
)

// plumbOpening is square, true and exactly of the nominal size.
func plumbOpening() (o opening) {
	for _, s := range frame.Sides {
		v := map[frame.Side]float64{frame.Lock: width, frame.Head: height}[s]
		o.side[s] = []float64{v, v, v}
	}
	return o
}

func plumbDoor() hungSlab {
	return hungSlab{pin: [2]float64{3, 3}, top: width - 6, foot: width - 6, length: height - 9, headGap: 3}
}

func TestGapsByHand(t *testing.T) {
	d := plumbDoor()
	g := plumbOpening().gaps(d)
	for _, s := range judged {
		for _, p := range g[s] {
			assert.InDelta(t, d.wanted(s), p.Off, 1e-9, "%v", s)
		}
	}
	assert.Empty(t, plumbOpening().small(d))
	assert.True(t, plumbOpening().fits(d))
	assert.InDelta(t, 0, plumbOpening().uneven(d), 1e-9)
	d.top -= 2
	assert.Equal(t, []frame.Side{frame.Lock}, plumbOpening().small(d), "2 mm too narrow at the head")
	assert.False(t, plumbOpening().fits(d))
	assert.InDelta(t, 2, plumbOpening().uneven(d), 1e-9)
	d = plumbDoor()
	d.footUp = -0.9
	assert.True(t, plumbOpening().fits(d), "within a millimetre of the best")
	d.footUp = 1.1
	assert.False(t, plumbOpening().fits(d))
}

// The light is even beside a plumb door; a lump of 2 mm over a hand's breadth between two gaps is seen at its place,
// and so is a hollow; one of half a millimetre is not.
func TestALumpIsSeenWhereItIs(t *testing.T) {
	var gaps []survey.Reading
	for _, s := range frame.Sides {
		for _, f := range []float64{0.05, 0.5, 0.95} {
			gaps = append(gaps, survey.Reading{Kind: survey.Gap, Side: s, At: measure.FromMM(f * reach(s))})
		}
	}
	rng := rand.New(rand.NewPCG(29, 1))
	assert.Empty(t, plumbOpening().lumps(plumbDoor(), gaps, rng))
	for _, by := range []float64{-2, 2, 0.5} {
		o := plumbOpening()
		o.side[frame.Lock] = make([]float64, fine)
		for i := range o.side[frame.Lock] {
			o.side[frame.Lock][i] = width
		}
		o.side[frame.Lock][30] += by // 30 of 112 parts of 2030 up is 543.75
		seen := o.lumps(plumbDoor(), gaps, rng)
		if math.Abs(by) < 1 {
			assert.Empty(t, seen)
			continue
		}
		require.Len(t, seen, 1)
		assert.Equal(t, frame.Lock, seen[0].Side)
		assert.InDelta(t, 543.75, seen[0].At.MM(), 6)
		assert.True(t, seen[0].Local)
	}
}

// A school goes by what it reads: a slab that does not go in is ticked, planed and hung again, one that is too wide at
// the lock is packed, and one that is right is left alone after twelve gaps.
func TestASchoolGoesByWhatItReads(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	fits, trips, left := 0, 0, 0
	const n = 300
	for range n {
		d := plumbDoor()
		d.top, d.foot = width-2, width-2 // a millimetre too wide
		h := hung{slab: d}.tried(plumbOpening(), rng)
		trips += h.trips
		if plumbOpening().fits(h.slab) {
			fits++
		}
		if h = (hung{slab: plumbDoor()}).tried(plumbOpening(), rng); h.rounds == 1 {
			left++
			assert.InDelta(t, 12*trade.GapMinutes, h.spent.Gaps, 1e-9, "twelve gaps looked at")
		}
	}
	t.Logf("of %d: %d fit, %.2f trips; %d left alone", n, fits, float64(trips)/n, left)
	assert.InDelta(t, 1, float64(trips)/n, 0.35, "once to the trestles, where 4 mm come off")
	assert.Greater(t, fits, n*3/4)
	// One gap of three that is misread by a millimetre moves its line by half of it or less: it is left alone all the
	// same, but for the ends of a line.
	assert.Greater(t, left, n*9/10)
}

// How a slab passes, latches and sweeps its floor, by hand: 40 thick on pins 5 in front, its push-face corner reaches
// √(821.5² + 45²) − 821.5 = 1.23 further than its edge stands from the pins.
func TestPassesLatchesAndSweepsByHand(t *testing.T) {
	o := plumbOpening()
	at := func(gap float64) (hungSlab, []fit.Point) {
		d := plumbDoor()
		d.top, d.foot = width-3-gap, width-3-gap
		return d, o.gaps(d)[frame.Lock]
	}
	assert.True(t, o.passes(at(1.25)))
	assert.False(t, o.passes(at(1.21)))
	d, lock := at(1.21)
	d.bevel = 1
	assert.True(t, o.passes(d, lock), "bevelled it passes")
	_, lock = at(6.1)
	assert.False(t, o.latches(lock))
	_, lock = at(5.9)
	assert.True(t, o.latches(lock))

	d = plumbDoor()
	assert.True(t, o.sweeps(d))
	for i := range o.side[frame.Foot] { // the floor falls by 7.5 over 826 toward the lock: open, it is 7.5 higher
		o.side[frame.Foot][i] = -7.5 * float64(i) / 2
	}
	d.footUp = -7.5
	assert.InDelta(t, 6, o.gapAt(d, frame.Foot, width), 1e-9, "6 under it shut, as everywhere")
	assert.False(t, o.sweeps(d))
	d.length -= 2
	assert.True(t, o.sweeps(d), "2 shorter it clears by half a millimetre")
}

// Half of the houses have sides of explicit forms, and the doors of a house are read with the same tools; hands slip as
// often as they are said to.
func TestTheSimulationIsHonest(t *testing.T) {
	formed := 0
	for i := range 12 {
		h := newHouse(9, i)
		if h.form != nil {
			formed++
			o := h.draw(rand.New(rand.NewPCG(1, 1)))
			require.Len(t, o.side[frame.Lock], fine)
		}
	}
	assert.Equal(t, 6, formed)
	assert.Equal(t, newHouse(9, 3).hands, newHouse(9, 3).hands)
	assert.NotEqual(t, newHouse(9, 3).hands, newHouse(9, 4).hands)

	rng := rand.New(rand.NewPCG(2, 2))
	slips, misread := 0, 0
	const n = 20000
	for range n {
		if r := slipped(survey.Reading{Kind: survey.Width, Value: mm(800)}, rng); r.Value != mm(800) {
			slips++
		}
		if v := gap(3, 0.05, 1, rng); math.Abs(v-3) > 0.5 {
			misread++
		}
	}
	assert.InDelta(t, 1.0/50, float64(slips)/n, 0.004)
	assert.InDelta(t, 1.0/30, float64(misread)/n, 0.005)
	d := plumbDoor()
	var sum float64
	for range n {
		by := d.marked(trade.Markings[2], rng).pin[0] - d.pin[0]
		sum += by * by / n
	}
	assert.InDelta(t, 0.5, math.Sqrt(sum), 0.02, "hinges marked by tape")
	assert.Equal(t, d, d.cut(nil).marked(trade.Markings[2], nil), "no hand, no error")
}

// The drawn openings are as crooked as the prior says: the lean of a jamb over
// its height has the deviation 4 mm per metre, plus its bow's part.
func TestTheDrawIsAsCrookedAsThePrior(t *testing.T) {
	_, err := Run(0, 1)
	require.Error(t, err)
	d := newDrawer(crookeder(1))
	rng := rand.New(rand.NewPCG(5, 6))
	var sum float64
	const n = 800
	for range n {
		o := d.draw(rng)
		lean := o.at(frame.Lock, height) - o.at(frame.Lock, 0)
		sum += lean * lean
	}
	// var = (0.004·2030)² + 2·1.5²·(1 − exp(−½(2030/700)²))
	want := math.Sqrt(math.Pow(0.004*height, 2) + 2*1.5*1.5*(1-math.Exp(-0.5*math.Pow(height/700, 2))))
	assert.InDelta(t, want, math.Sqrt(sum/n), 0.03*want)
}

// With perfect readings, cut to the line, a slab comes out as straight edges can: what
// is left is the tape's rounding of marks and packers.
func TestAPerfectlyReadOpeningIsFitted(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 1))
	for range 5 {
		o := newDrawer(crookeder(0.5)).draw(rng)
		j := job.NewJob("s", "S", measure.Millimetres)
		j.Kit.Tools = survey.TrueKit()
		door := openingFor()
		door.Cut.LeaveOn = job.ToLine
		for _, r := range everywhere() {
			r.Value, r.PlusMinus = measure.FromMM(o.truth(r)), measure.FromMM(0.1)
			door.Readings = append(door.Readings, r)
		}
		p := plan.Solve(j, door)
		require.Empty(t, p.Clashes)
		d := slabOf(door.Slab, p.Leaves[0])
		for s, g := range o.gaps(d) {
			for _, x := range g {
				assert.InDelta(
					t, d.wanted(frame.Side(s)), x.Off, 2.2, "%v: a bow of a millimetre, and two roundings",
					frame.Side(s),
				)
			}
		}
	}
}

// everywhere are readings of every kind at a dozen places, noise apart.
func everywhere() (rs []survey.Reading) {
	mm := measure.FromMM
	add := func(r survey.Reading) {
		r.ID = "r" + string(rune('A'+len(rs)))
		rs = append(rs, r)
	}
	for v := 50.0; v < height; v += 200 {
		add(survey.Reading{Kind: survey.Width, At: mm(v)})
	}
	for u := 50.0; u < width; u += 120 {
		add(survey.Reading{Kind: survey.Height, At: mm(u)})
		if u > 150 {
			add(survey.Reading{Kind: survey.Level, Side: frame.Head, At: mm(u), From: mm(50)})
		}
	}
	for v := 400.0; v < height; v += 200 {
		add(survey.Reading{Kind: survey.Plumb, Side: frame.Hinge, At: mm(v), From: mm(50)})
	}
	return rs
}

// The chance of another trip that the program predicts, against plain simulation: over
// houses straighter than the prior says, in groups by what was predicted, never more than
// 3 in 100 too hopeful. That it is within 3 in 100 where the crookedness is known,
// core/fit tests.
func TestTheChanceOfAnotherTripIsForetold(t *testing.T) {
	type group struct{ foretold, came, n float64 }
	groups := map[int]*group{}
	kits := []survey.Kit{nil, {
		{ID: "r", Instrument: "rods"},
		{ID: "f", Instrument: "straightedge"},
		{ID: "l", Instrument: "level", Proved: &survey.Proved{Sure: 0.1}},
		{ID: "s", Instrument: "square", Proved: &survey.Proved{Sure: 0.1}},
	}}
	const n = 800
	for i := range n {
		rng := rand.New(rand.NewPCG(17, uint64(i)))
		o := newDrawer(crookeder(0.25 + 0.75*rng.Float64())).draw(rng)
		h := newHands(rng)
		h.bias["level"], h.bias["square"] = rng.NormFloat64()*0.1, rng.NormFloat64()*0.1
		j := job.NewJob("s", "S", measure.Millimetres)
		j.Kit.Tools = kits[1]
		door := openingFor()
		all := everywhere()
		rng.Shuffle(len(all), func(a, b int) { all[a], all[b] = all[b], all[a] })
		for range 1 + i%3 {
			for _, r := range all[:12+rng.IntN(len(all)-12)] {
				r.ID += string(rune('a' + len(door.Readings)/30))
				r = o.read(r, j.Kit.Tools, h, j.Tape, rng)
				r.ID += string(rune('0' + len(door.Readings)%10))
				door.Readings = append(door.Readings, r)
			}
		}
		p := plan.Solve(j, door)
		if len(p.Clashes) > 0 || p.Leaves[0].Cut == nil {
			continue
		}
		g := groups[int(p.Trip*4)]
		if g == nil {
			g = &group{}
			groups[int(p.Trip*4)] = g
		}
		g.n++
		g.foretold += p.Trip
		if !o.fits(slabOf(door.Slab, p.Leaves[0]).cut(rng)) {
			g.came++
		}
	}
	for k, g := range groups {
		foretold, came := g.foretold/g.n, g.came/g.n
		t.Logf("%d: foretold %.3f, came %.3f, of %.0f", k, foretold, came, g.n)
		if g.n < 40 || foretold < 0.1 || foretold > 0.9 {
			continue
		}
		chance := 2.5 * math.Sqrt(foretold*(1-foretold)/g.n)
		assert.Less(t, came, foretold+0.03+chance)
		assert.Greater(t, came, foretold-0.12-chance, "on the safe side, but not by far")
	}
}

// What a founder claims of a kit: figures for thousands of openings stand in docs/simulation.md.
func TestTheProgramAgainstTheSchools(t *testing.T) {
	n := thorough.Count(24, 240)
	r, err := Run(n, 2)
	require.NoError(t, err)
	require.Len(t, r.Ways, 8)
	by := map[string]Tally{}
	for _, w := range r.Ways {
		by[w.ID] = w
		assert.InDelta(t, w.MinutesMean, w.Spent.sum(), 1e-6, w.ID)
		assert.Zero(t, w.Endless, w.ID)
	}
	plain, sticks, rods := by["plain"], by["sticks"], by["rods"]
	for _, w := range []Tally{plain, by["feelers"], sticks, rods} {
		// Half a percent is the bound that is worked to; hundreds of openings tell no nearer.
		assert.LessOrEqual(t, w.TooSmall, 0.015+thorough.Chance(0.015, n), w.ID)
		// Two in a hundred that were said to fit, of a part of the openings.
		assert.LessOrEqual(t, w.Called*w.CalledFalse, 0.02+thorough.Chance(0.02, n), w.ID)
		assert.Greater(t, w.OneTrip, plain.OneTrip-1e-9-thorough.Chance(0.3, n), w.ID)
	}
	assert.Greater(t, rods.Fits, 0.35-thorough.Chance(0.4, n), "two in five at the first hang")
	assert.Greater(t, rods.Finished, 0.78-thorough.Chance(0.8, n), "four in five")
	assert.Greater(t, rods.GoesIn, 0.95-thorough.Chance(0.95, n))
	assert.Less(t, rods.TripsMean, 0.6+thorough.Chance(0.4, n))
	assert.Less(t, rods.MinutesMean, plain.MinutesMean)
	for _, id := range []string{"longest", "leave-3", "scribe"} {
		assert.Less(t, rods.MinutesMean, by[id].MinutesMean, id)
		assert.Less(t, sticks.MinutesMean, by[id].MinutesMean, id)
		assert.Less(t, plain.TooSmall, by[id].TooSmall, id)
		assert.Greater(t, plain.Finished, by[id].Finished, id)
	}
	again, err := Run(6, 2)
	require.NoError(t, err)
	same, err := Run(6, 2, "scribe", "rods")
	require.NoError(t, err)
	assert.Equal(t, []Tally{again.Ways[3], again.Ways[7]}, same.Ways, "seeded, and each way by itself")
	_, err = Run(6, 2, "guess")
	require.Error(t, err)
}
