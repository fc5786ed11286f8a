package fit

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
)

// The opening takes a slab of 820 by 2023.
func TestChoose(t *testing.T) {
	o, err := Draw(rigid(t, 826, 2032, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	limit := func(v float64) *measure.Length { l := mm(v); return &l }
	cases := []struct {
		name   string
		s      slab.Slab
		across Registration
		along  Ends
		why    string
	}{
		{"nothing decides but the work", slab.Slab{Width: mm(826), Length: mm(2032), Thickness: mm(35)}, KeepLock, KeepHead, "less work"},
		{"a bored lock edge", slab.Slab{Width: mm(826), Length: mm(2032), Thickness: mm(35), Machined: []frame.Side{frame.Lock}}, KeepLock, KeepHead, "machined"},
		{"pockets in the hinge edge", slab.Slab{Width: mm(826), Length: mm(2032), Thickness: mm(35), Machined: []frame.Side{frame.Hinge}}, KeepHinge, KeepHead, "machined"},
		{"more off than one edge allows", slab.Slab{Width: mm(838), Length: mm(2040), Thickness: mm(35), Construction: "hollow"}, EvenStiles, KeepHead, "may come off"},
		{"stiles that show", slab.Slab{Width: mm(826), Length: mm(2040), Thickness: mm(35), Construction: "solid", Limits: slab.Limits{Head: limit(20)}}, EvenStiles, EvenEnds, "alike"},
		{"a bore that would end too low", slab.Slab{Width: mm(826), Length: mm(2110), Thickness: mm(35), Handle: mm(1140), Machined: []frame.Side{frame.Lock}, Limits: slab.Limits{Head: limit(100), Foot: limit(100)}}, KeepLock, EvenEnds, "usable height"},
	}
	for _, c := range cases {
		ways := Weigh(o, c.s, Layings())
		best, why := Choose(ways, c.s)
		assert.Equal(t, c.across, ways[best].Across, c.name)
		assert.Equal(t, c.along, ways[best].Along, c.name)
		if assert.NotEmpty(t, why, c.name) {
			all := ""
			for _, w := range why {
				all += w + "; "
			}
			assert.Contains(t, all, c.why, c.name)
		}
	}
}

func TestLimitsThatExcludeEveryWayStillGiveTheBest(t *testing.T) {
	o, err := Draw(rigid(t, 826, 2032, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	s := slab.Slab{Width: mm(838), Length: mm(2040), Thickness: mm(44), Construction: "rated"}
	ways := Weigh(o, s, Layings())
	best, _ := Choose(ways, s)
	assert.InDelta(t, 18+17, sum(ways[best].Over), 0.3, "all of it is over a limit of nothing")
}

// A taper of 3 at the top to 0 over 2000, a millimetre a pass: the first pass
// where more than 2 must come off, 0 to 667, then 0 to 1333, then all.
func TestPassesByHand(t *testing.T) {
	p := Passes(3, 0, 2000, 1)
	require.Len(t, p, 3)
	for i, to := range []float64{2000.0 / 3, 4000.0 / 3, 2000} {
		assert.Equal(t, 0.0, p[i].From)
		assert.InDelta(t, to, p[i].To, 1e-9)
	}
	p = Passes(0, 2, 800, 1)
	require.Len(t, p, 2)
	assert.Equal(t, Pass{400, 800}, p[0])
	assert.Equal(t, Pass{0, 800}, p[1])
	assert.Len(t, Passes(2, 2, 800, 1), 2, "even: full length each time")
	assert.Empty(t, Passes(0, 0, 800, 1))
}

// Common practice: the insert is as wide as between the stiles and as thick
// as between the skins: 762 − 2·30 by 35 − 2·3.
func TestInsertsByHand(t *testing.T) {
	o, err := Draw(rigid(t, 768, 1900, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	s := slab.Slab{Width: mm(762), Length: mm(1981), Thickness: mm(35), Construction: "hollow"}
	both := Lay(o, frame.Each[float64]{}, s, Laying{KeepLock, EvenEnds}).Inserts(s)
	require.Len(t, both, 2, "1981 − 1891 = 90, 45 off each end, more than the rail")
	for _, in := range both {
		assert.Equal(t, mm(702), in.Width)
		assert.Equal(t, mm(29), in.Thickness)
		assert.Zero(t, in.Left)
	}
	one := Lay(o, frame.Each[float64]{}, s, Laying{KeepLock, KeepHead}).Inserts(s)
	require.Len(t, one, 1)
	assert.Equal(t, frame.Foot, one[0].End)
	s.Construction = "solid"
	assert.Empty(t, Lay(o, frame.Each[float64]{}, s, Laying{KeepLock, KeepHead}).Inserts(s))
}
