package survey_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/oracle"
	"kindmargin/core/survey"
)

// A knot that stands 5.5 mm proud over a hand's width is no slip: the reading on it is not called wrong before a
// second one is taken beside it, and with that one nothing is, unless the knot ends between the two.
func TestABumpIsNotCalledASlip(t *testing.T) {
	asked, settled := 0, 0
	const openings = 40
	for seed := range uint64(openings) {
		rng := rand.New(rand.NewPCG(seed, 12))
		o := oracle.Houses[0].Draw(rng)
		flat := o.Sides[frame.Lock]
		o.Sides[frame.Lock] = func(v float64) float64 { // a plateau of 200 mm, eased at its ends
			return flat(v) - 5.5*max(0, min(1, 3-abs(v-o.Height*0.3)/50))
		}
		hands := oracle.NewHands(rng)
		read := func(r survey.Reading, id int) survey.Reading {
			r.ID = fmt.Sprint(id)
			return o.Read(r, nil, hands, 0.5, nil, rng)
		}
		var rs []survey.Reading
		for i, r := range schools[0].readings(o.Width, o.Height) {
			if r.Kind == survey.Straight { // which would show it
				continue
			}
			rs = append(rs, read(r, i))
		}
		p := survey.NewFrame(o.Width, o.Height)
		p.Tape = 0.5
		s, err := survey.Learn(rs, nil, p)
		require.NoError(t, err)
		list := s.Suspects()
		if len(list) == 0 {
			continue
		}
		assert.Equal(t, survey.Width, list[0].Reading.Kind)
		beside, ok := list[0].Beside()
		require.True(t, ok)
		assert.Equal(t, 60*measure.Millimetre, (beside.At - list[0].Reading.At).Abs())
		if !list[0].Bump {
			continue
		}
		asked++
		s, err = survey.Learn(append(rs, read(beside, 90)), nil, p)
		require.NoError(t, err)
		if len(s.Suspects()) == 0 {
			settled++
		}
	}
	t.Logf("of %d openings %d ask for a reading beside it, and %d are settled by it", openings, asked, settled)
	assert.Positive(t, asked)
	assert.GreaterOrEqual(t, float64(settled), 0.8*float64(asked))
}

func abs(v float64) float64 { return max(v, -v) }
