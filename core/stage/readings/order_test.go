package readings

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/site"
	"kindmargin/core/stage/cuts"
	"kindmargin/core/stage/margins"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// begun is an opening read a little, with a seeded choice of what was read, and eight
// readings that could follow.
func begun(rng *rand.Rand) (d site.Opening, s site.Survey, drawn []fit.Outline, more []survey.Reading) {
	mm := measure.FromMM
	o := job.NewOpening("o", "Study", measure.Millimetres)
	o.Slab.Width, o.Slab.Length, o.Slab.Thickness, o.Cut.LeaveOn = mm(900), mm(2100), mm(35), job.WhenSure
	for i, r := range []survey.Reading{
		{Kind: survey.Width, At: mm(200), Value: mm(826)},
		{Kind: survey.Width, At: mm(600), Value: mm(826.5)},
		{Kind: survey.Width, At: mm(1000), Value: mm(827)},
		{Kind: survey.Width, At: mm(1400), Value: mm(827)},
		{Kind: survey.Width, At: mm(1800), Value: mm(827.5)},
		{Kind: survey.Height, At: mm(50), Value: mm(2032)},
		{Kind: survey.Height, At: mm(400), Value: mm(2031.5)},
		{Kind: survey.Height, At: mm(770), Value: mm(2031)},
		{Kind: survey.Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200), Value: mm(1)},
		{Kind: survey.Plumb, Side: frame.Lock, At: mm(1800), From: mm(200), Value: mm(-2.5)},
		{Kind: survey.Level, Side: frame.Head, At: mm(770), From: mm(50), Value: mm(-1)},
		{Kind: survey.Level, Side: frame.Foot, At: mm(770), From: mm(50)},
		{Kind: survey.Straight, Side: frame.Hinge, At: mm(1000), From: mm(200), To: mm(1800), Value: mm(0.5)},
		{Kind: survey.Straight, Side: frame.Lock, At: mm(1000), From: mm(200), To: mm(1800)},
		{Kind: survey.Square, Side: frame.Hinge, At: mm(600), Value: mm(-0.5)},
		{Kind: survey.Diagonal, Side: frame.Lock, Value: mm(2193)},
		{Kind: survey.Diagonal, Side: frame.Hinge, Value: mm(2193)},
	} {
		r.ID = fmt.Sprint("r", i)
		o.Readings = append(o.Readings, r)
	}
	rng.Shuffle(len(o.Readings), func(i, j int) { o.Readings[i], o.Readings[j] = o.Readings[j], o.Readings[i] })
	slices.SortStableFunc(o.Readings, func(a, b survey.Reading) int { // a width and a height first
		rank := func(r survey.Reading) int {
			if r.Kind == survey.Width || r.Kind == survey.Height {
				return 0
			}
			return 1
		}
		return rank(a) - rank(b)
	})
	keep := 7 + rng.IntN(5)
	o.Readings = o.Readings[:keep]
	d = site.New(job.NewJob("h", "House", measure.Millimetres), o)
	d.Kit = job.Kit{Tools: survey.Kit{
		{ID: "r", Instrument: "rods"},
		{ID: "f", Instrument: "straightedge"},
		{ID: "l", Instrument: "level"},
		{ID: "s", Instrument: "square"},
	}, Trip: 20 + 20*rng.Float64()}
	s, _, _ = Read(d, nil)
	pins, _ := margins.Pins(d, s.Height)
	_, want, _ := margins.Targets(d, margins.Wanted(d), pins, nil)
	drawn, _ = margins.Outlines(d, s, site.Bays(d), want)
	more = candidates(d, s)
	rng.Shuffle(len(more), func(i, j int) { more[i], more[j] = more[j], more[i] })
	return d, s, drawn, more[:8]
}

// Reading by worth against the best of all choices among eight readings, found by
// trying all 256: never more than a minute dearer at the median.
func TestReadingByWorthAgainstAllOrders(t *testing.T) {
	var dearer []float64
	worthwhile := 0
	for seed := range uint64(30) {
		d, s, drawn, more := begun(rand.New(rand.NewPCG(seed, 5)))
		trips := tripsOf(d, drawn, []frame.Each[float64]{cuts.LeaveOn(d, drawn[0])})
		q := s.Shape.Search(trips.rows(), more)
		trips.before = q.Now()
		before := trips.still(d, s, trips.before)
		best := 0.0
		for set := range 1 << len(more) {
			all := s.Shape.Search(trips.rows(), more)
			minutes := 0.0
			for k, r := range more {
				if set&(1<<k) != 0 {
					all.Take(k)
					minutes += d.Kit.Tools.Minutes(r) + trade.TakeMinutes
				}
			}
			best = max(best, before-trips.still(d, s, all.Now())-minutes)
		}
		_, ours := trips.order(d, s, q)
		require.LessOrEqual(t, ours.Minutes, best+1e-6, "nothing is better than the best")
		dearer = append(dearer, best-ours.Minutes)
		if best > 0 {
			worthwhile++
		}
	}
	slices.Sort(dearer)
	t.Logf(
		"dearer than the best: median %.2f, worst %.2f minutes; %d of 30 worth reading on", dearer[len(dearer)/2],
		dearer[len(dearer)-1], worthwhile,
	)
	assert.LessOrEqual(t, dearer[len(dearer)/2], 1.0)
	assert.Greater(t, worthwhile, 10)
}
