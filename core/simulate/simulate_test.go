package simulate

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/survey"
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

func TestATightDoorGoesBackUntilItFits(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	d := plumbDoor()
	d.top = width - 2 // it touches at the head: 1 mm too wide
	h := hung{slab: d}.tried(plumbOpening(), rng)
	assert.InDelta(t, 1.5, h.trips, 0.6, "once more where it would not go in")
	assert.True(t, plumbOpening().fits(h.slab))
	h = hung{slab: plumbDoor()}.tried(plumbOpening(), rng)
	assert.Zero(t, h.trips)
	assert.InDelta(t, 1.2, h.minutes, 1e-9, "six gaps looked at")
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

// What a founder claims of a kit: figures for 2,000 openings stand in
// docs/simulation.md.
func TestTheProgramAgainstTheSchools(t *testing.T) {
	n := thorough.Count(24, 120)
	r, err := Run(n, 2)
	require.NoError(t, err)
	require.Len(t, r.Ways, 5)
	plain, proved, schools := r.Ways[0], r.Ways[1], r.Ways[2:]
	assert.Zero(t, plain.CutTooSmall)
	assert.Zero(t, proved.CutTooSmall)
	// A slab is measured no better than an opening; what is planed off a hung one is not yet held to the risk of
	// a cut, so that some end too small.
	assert.LessOrEqual(t, plain.TooSmall, 0.05+thorough.Chance(0.05, n), "one in twenty")
	assert.LessOrEqual(t, proved.TooSmall, 0.02+thorough.Chance(0.02, n))
	// A side may ripple between any two readings, so more is left on than these openings, of one bend a side,
	// ask for: two in three fitted before that was believed, one in three does now.
	assert.Greater(t, proved.Fits, max(0, 0.2-thorough.Chance(0.33, n)), "one in three; of a few at least one")
	assert.Less(t, proved.TripsMean, 0.6)
	assert.Greater(t, proved.Finished, 0.88-thorough.Chance(0.95, n), "nineteen in twenty")
	assert.Zero(t, proved.TripsMedian)
	assert.LessOrEqual(t, proved.Trips95, 2.0)
	assert.LessOrEqual(t, plain.TripsMedian, 2.0)
	assert.Less(t, proved.OffWorst, 1.6)
	for _, s := range schools {
		most := s.MinutesMean
		if s.ID == "scribe" {
			most *= 1.15 // it reads no figure, and leaves as little on as its pencil: about as quick
		}
		assert.Less(t, proved.MinutesMean, most, s.ID)
		assert.Less(t, plain.TooSmall, s.TooSmall, s.ID)
		assert.Less(t, proved.TripsMean, s.TripsMean, s.ID)
	}
	again, err := Run(6, 2)
	require.NoError(t, err)
	same, err := Run(6, 2, "scribe", "rods")
	require.NoError(t, err)
	assert.Equal(t, []Tally{again.Ways[1], again.Ways[4]}, same.Ways, "seeded, and each way by itself")
	_, err = Run(6, 2, "guess")
	require.Error(t, err)
}
