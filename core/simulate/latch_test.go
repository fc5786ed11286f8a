package simulate

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// In openings as crooked as the prior says, read with a tape, a level and a square, the slab
// is cut to the line and hung to its marks on the true geometry: its latch comes to the
// strike within the ± claimed in 93 to 97 of 100, and where that ± is over half a millimetre
// the plan says to mark the strike from the latch.
func TestTheLatchMeetsTheStrikeAsClaimed(t *testing.T) {
	rng := rand.New(rand.NewPCG(9, 1))
	drawn := newDrawer(survey.OldOpening(width, height))
	met, told := 0, 0
	const openings = 600
	for n := range openings {
		o := drawn.draw(rng)
		h := newHands(rng)
		j := job.NewJob("s", "Simulated", measure.Millimetres)
		j.Kit.Tools = h.plain()
		d := openingFor()
		d.Cut.LeaveOn, d.Cut.Knowing = job.ToLine, true
		for _, r := range []survey.Reading{
			{Kind: survey.Width, At: mm(200)},
			{Kind: survey.Width, At: mm(1000)},
			{Kind: survey.Width, At: mm(1800)},
			{Kind: survey.Height, At: mm(50)},
			{Kind: survey.Height, At: mm(770)},
			{Kind: survey.Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200)},
			{Kind: survey.Level, Side: frame.Head, At: mm(770), From: mm(50)},
			{Kind: survey.Square, Side: frame.Hinge, At: mm(600)},
		} {
			r.ID = fmt.Sprint(len(d.Readings))
			d.Readings = append(d.Readings, o.read(r, j.Kit.Tools, h, j.Tape, rng))
		}
		p := plan.Solve(j, d)
		l := p.Leaves[0]
		require.NotNil(t, l.Latch, "%d: %v", n, p.Findings)
		head := o.gaps(slabOf(d.Slab, l))[frame.Head]
		// The strike stands below the true head as it was marked; the latch below the slab's top,
		// which hangs so far below it.
		misses := head[len(head)-1].Off + l.Latch.Slab.Value.MM() - l.Latch.Jamb.Value.MM()
		if math.Abs(misses) <= figure.Coverage*l.Latch.Slab.Sigma {
			met++
		}
		for _, f := range l.Findings {
			if f.Code == site.StrikeFromLatch {
				told++
			}
		}
	}
	t.Log(met, told)
	// These openings have one bend a side and no ripple, so it holds oftener than it says.
	assert.GreaterOrEqual(t, float64(met)/openings, 0.93)
	assert.LessOrEqual(t, float64(met)/openings, 0.995)
	assert.Equal(t, openings, told, "with these tools it is never surer than half a millimetre")
}

func mm(v float64) measure.Length { return measure.FromMM(v) }
