package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/site"
)

// living is the square door with a slab that lives in a house with cold winters.
func living(construction string, c season.Choice) job.Opening {
	o := square()
	o.Slab.Construction = construction
	c.Climate = "heated"
	o.Season = c
	return o
}

// At 70 °F wood comes to 6.5 % at 32 % of humidity, to 7.7 at 40 and to 11.0 at 60 (Wood Handbook,
// table 4-2, from memory); a softwood moves by 0.00216 a per cent. By hand, for 838 mm.
func TestTheMarginOfTheSeason(t *testing.T) {
	for _, c := range []struct {
		name             string
		construction     string
		choice           season.Choice
		now, wet, dry    float64 // moisture contents
		rate, per        float64 // mm across, coefficient
		says             site.Code
		wantLie          bool
		least            float64
		tightest, widest string
	}{
		{
			"planks, in January", "planked",
			season.Choice{Month: 1},
			6.5, 11.0, 6.5, 838, 0.00216, site.SeasonTooWide,
			false, 1.5, "July", "January",
		},
		{
			"planks, in August", "planked",
			season.Choice{Month: 8},
			11.0, 11.0, 6.5, 838, 0.00216, site.SeasonTooWide,
			false, 1.5, "July", "January",
		},
		{
			"stiles of a framed slab, by a hygrometer", "solid",
			season.Choice{Air: &season.Air{Celsius: 21, Humidity: 40}},
			7.7, 11.0, 6.5, 220, 0.00216, site.SeasonSeal,
			false, 1.5, "July", "January",
		},
		{
			"veneered", "engineered",
			season.Choice{Month: 1},
			6.5, 11.0, 6.5, 838, 0.0001, "", false, 1.5, "July",
			"January",
		},
		{
			"from a damp yard", "solid",
			season.Choice{Moisture: 14, Air: &season.Air{Celsius: 21, Humidity: 40}},
			14,
			11.0, 6.5, 220, 0.00216, site.SeasonLie, true, 1.5, "July", "January",
		},
	} {
		t.Run(c.name, func(t *testing.T) {
			o := living(c.construction, c.choice)
			p := Solve(house, o)
			l := p.Leaves[0]
			require.NotNil(t, l.Season)
			closes := func(m float64) float64 { return c.rate * c.per * (m - c.now) }
			middle := (closes(c.wet) + closes(c.dry)) / 2
			mean, sure := max(3+middle, c.least+max(closes(c.wet), 0)), c.least+max(closes(c.wet), 0)*(1+1.645*0.25)
			want := max(mean, min(sure, 6+closes(c.dry))) // 6 mm is the widest that looks right
			assert.InDelta(t, want, l.Wanted[frame.Lock].Value.MM(), 0.3)
			assert.InDelta(t, want-closes(c.wet), l.Season.Wettest.Value.MM(), 0.4)
			assert.InDelta(t, want-closes(c.dry), l.Season.Driest.Value.MM(), 0.4)
			assert.GreaterOrEqual(t, l.Season.Wettest.Value.MM(), c.least-0.011)
			assert.Equal(t, c.tightest, l.Season.Wet.String())
			assert.Equal(t, c.widest, l.Season.Dry.String())
			assert.Equal(t, c.wantLie, l.Season.Lie > 0)
			var sum measure.Length
			for _, term := range l.Wanted[frame.Lock].Terms {
				sum += term.Value
			}
			assert.Equal(t, l.Wanted[frame.Lock].Value, sum, "its terms add up")
			if c.says != "" {
				assert.NotEmpty(t, ofCode(l.Findings, c.says), "%v", l.Findings)
			}
			// The slab is cut to it: the lock edge goes where the margin of today wants it.
			for _, m := range l.Light {
				if m.Side == frame.Lock {
					assert.InDelta(t, want, m.Margin.Value.MM(), 0.35)
				}
			}
		})
	}
}

// The rule of thumb stands beside it: from 32 to 60 % it is 2.8 × 0.1 % of 838 mm, 2.35 mm, half of
// it to the middle of the year.
func TestTheRuleOfThumbBesideIt(t *testing.T) {
	o := living("planked", season.Choice{Month: 1})
	l := Solve(house, o).Leaves[0]
	sure := 1.5 + 2.35*(1+1.645*0.25) // the least, kept 19 times in 20, asks for more
	assert.InDelta(t, sure, l.Season.Other.MM(), 0.5)
	o.Season.School = season.ByThumb
	thumb := Solve(house, o).Leaves[0]
	assert.InDelta(t, sure, thumb.Wanted[frame.Lock].Value.MM(), 0.02)
	assert.InDelta(t, l.Wanted[frame.Lock].Value.MM(), thumb.Season.Other.MM(), 0.5)
	assert.Empty(t, ofCode(thumb.Findings, site.SeasonTooWide))
}

// A year that no margin spans says what would work, with the numbers; sealed quarter-sawn oak spans it.
func TestAYearThatNoMarginSpans(t *testing.T) {
	o := living("planked", season.Choice{Month: 1, Wood: "red-oak"})
	said := ofCode(Solve(house, o).Leaves[0].Findings, site.SeasonTooWide)
	require.Len(t, said, 1)
	words := wordsOf(said[0], measure.Millimetres, measure.HalfMillimetre)
	assert.Contains(t, words, "With 1.5 mm kept in July")
	assert.Contains(t, words, "6 mm is the most that looks right.")
	o.Season.Sealed, o.Season.Sawn = true, season.SawnQuarter
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.SeasonTooWide))
}

// Both leaves of a pair move into the one light between them: each sees half of what both do.
func TestAPairMovesTwice(t *testing.T) {
	o := living("planked", season.Choice{Month: 8})
	o.Slab.Width = mm(430)
	o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(6), Fixed: frame.Lock}
	p := Solve(house, o)
	// From 11.0 to the middle of its year, 8.75 %: each leaf shrinks by 430 × 0.00216 × 2.25.
	assert.InDelta(t, 3-430*0.00216*2.25, p.Leaves[0].Wanted[frame.Lock].Value.MM(), 0.15)
}

// Looked at in its wettest month, what the lock margin did is held against what was predicted, and
// a margin that has closed as it should is not planed.
func TestARevisitAgainstWhatWasForetold(t *testing.T) {
	for _, c := range []struct {
		name   string
		closed float64
		says   site.Code
		fits   bool
	}{
		{"as foretold", 1.6, site.SeasonAgrees, true},
		{"not at all", 0, site.SeasonDisagrees, false},
	} {
		t.Run(c.name, func(t *testing.T) {
			o := living("solid", season.Choice{Air: &season.Air{Celsius: 21, Humidity: 40}})
			p := Solve(house, o)
			made := *p.Leaves[0].Try.Planned
			left := p.Leaves[0].Wanted[frame.Lock].Value.MM()
			o.Tried = []job.Tried{{Made: &made, Hangs: []job.Hang{{ID: "h1"}}}}
			read := func(closed float64) {
				for _, at := range []float64{50, 500, 1000, 1500, 1950} {
					gap(&o, frame.Lock, at, left-closed)
					gap(&o, frame.Hinge, at, 3)
				}
				for _, at := range []float64{50, 400, 750} {
					gap(&o, frame.Head, at, 3)
					gap(&o, frame.Foot, at, 6)
				}
			}
			read(0)
			// 60 % at 70 °F is 11.0 %, 40 % is 7.7: two stiles of 110 mm grow by 1.57 mm.
			o.Tried[0].Hangs = append(o.Tried[0].Hangs, job.Hang{
				ID: "h2", Revisit: "August", Air: &season.Air{Celsius: 21, Humidity: 60},
			})
			read(c.closed)
			require.NoError(t, o.Check())
			l := Solve(house, o).Leaves[0]
			said := ofCode(l.Findings, c.says)
			require.Len(t, said, 1, "%v", l.Findings)
			assert.InDelta(t, 1.57, measure.Length(said[0].Args["foretold"].(message.Fine)).MM(), 0.1)
			assert.InDelta(t, left-1.57, l.Try.Wanted[frame.Lock].Value.MM(), 0.1)
			assert.Equal(t, c.fits, l.Try.Fits || len(l.Try.Near) > 0, "nothing is worth doing to it")
		})
	}
}
