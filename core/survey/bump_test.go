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
			return o.Read(r, oracle.Taking{Hands: hands, Tape: 0.5}, rng)
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

// A reading that is 4 mm out, which no slip with a tape explains, may be a bump until one beside it was read;
// where that says otherwise, the reading itself is wrong, and the same place is not asked for again.
func TestOneReadingBesideTellsABumpFromASlip(t *testing.T) {
	mm := measure.FromMM
	p := survey.NewFrame(826, 2030)
	p.Tape = 0.5
	var rs []survey.Reading
	for _, at := range []float64{100, 300, 700, 900, 1100, 1300, 1500, 1700, 1950} {
		rs = append(rs, survey.Reading{ID: fmt.Sprint(at), Kind: survey.Width, At: mm(at), Value: mm(826)})
	}
	rs = append(rs, survey.Reading{ID: "odd", Kind: survey.Width, At: mm(500), Value: mm(822)})
	first := func() survey.Suspect {
		s, err := survey.Learn(rs, nil, p)
		require.NoError(t, err)
		require.NotEmpty(t, s.Suspects())
		require.Equal(t, "odd", s.Suspects()[0].Reading.ID)
		return s.Suspects()[0]
	}
	x := first()
	require.True(t, x.Bump)
	beside, _ := x.Beside()
	beside.ID, beside.Value = "beside", mm(826)
	rs = append(rs, beside)
	assert.False(t, first().Bump)
}
