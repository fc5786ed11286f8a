package plan_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/oracle"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// An opening that only a tape read is told wider ± than it need be, because nothing says that its sides are
// straight; the plan says so, and what it names does narrow it.
func TestItSaysWhyAnOpeningIsUnsure(t *testing.T) {
	mm := measure.FromMM
	says := func(p plan.Plan, code site.Code) bool {
		return slices.ContainsFunc(p.Findings, func(f site.Finding) bool {
			return f.Code == code && f.Gravity == site.Note
		})
	}
	widest := func(p plan.Plan) (sigma float64) {
		for _, l := range p.Leaves[0].Light {
			sigma = max(sigma, l.Margin.Sigma)
		}
		return sigma
	}
	s := newHidden(oracle.Houses[1], plainKit, measure.HalfMillimetre, rand.New(rand.NewPCG(7, 7)))
	for _, at := range []float64{200, 600, 1000, 1400, 1800} {
		s.read(survey.Reading{Kind: survey.Width, At: mm(at)})
	}
	for _, at := range []float64{50, 400, 750} {
		s.read(survey.Reading{Kind: survey.Height, At: mm(at)})
	}
	tape := plan.Solve(s.job, s.door)
	require.True(t, says(tape, site.SizesOnly))
	read := s.door.Readings
	for _, at := range []float64{100, 800, 1200, 1900} {
		s.read(survey.Reading{Kind: survey.Width, At: mm(at)})
	}
	widths := plan.Solve(s.job, s.door)
	assert.True(t, says(widths, site.SizesOnly), "more of the same tells no more")
	s.door.Readings = slices.Clone(read)
	for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
		s.read(survey.Reading{Kind: survey.Plumb, Side: side, At: mm(1800), From: mm(200)})
		s.read(survey.Reading{Kind: survey.Plumb, Side: side, At: mm(1000), From: mm(200)})
	}
	level := plan.Solve(s.job, s.door)
	assert.False(t, says(level, site.SizesOnly), "now something tells")
	assert.Less(t, widest(level), 0.8*widest(widths), "four of a level do more than four of a tape")

	old := newHidden(oracle.Houses[1], plainKit, measure.HalfMillimetre, rand.New(rand.NewPCG(7, 7)))
	b := oracle.NewBoard(old.truth.Width-16, old.truth.Height-20, old.rng)
	old.door.Offers = []survey.Offer{oracle.Offer("old", b.Measured(old.hands, "tape", 0.5, old.rng), true)}
	stands := b.Stands(old.truth, 8, 10, 0)
	for _, side := range frame.Sides {
		for _, at := range []float64{100, 400, 700} {
			r := survey.Reading{
				ID: side.String() + mm(at).String(), Kind: survey.Gap, Side: side, At: mm(at), Offer: "old",
			}
			r.Value = mm(stands(side, at)).Round(measure.Millimetre/2, measure.Nearest)
			old.door.Readings = append(old.door.Readings, r)
		}
	}
	assert.True(t, says(plan.Solve(old.job, old.door), site.GapsOnly))
}
