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
		{
			"nothing decides but the work",
			slab.Slab{Width: mm(826), Length: mm(2032), Thickness: mm(35)},
			KeepLock,
			KeepHead, "rule.one-edge",
		},
		{
			"a bored lock edge",
			slab.Slab{Width: mm(826), Length: mm(2032), Thickness: mm(35), Machined: []frame.Side{frame.Lock}},
			KeepLock, KeepHead, "rule.machined",
		},
		{
			"pockets in the hinge edge",
			slab.Slab{Width: mm(826), Length: mm(2032), Thickness: mm(35), Machined: []frame.Side{frame.Hinge}},
			KeepHinge, KeepHead, "rule.machined",
		},
		{
			"more off than one edge allows",
			slab.Slab{Width: mm(838), Length: mm(2040), Thickness: mm(35), Construction: "hollow", Closes: true},
			EvenStiles, EvenEnds, "rule.inserts", // 18 and 17: neither edge nor end is cut open
		},
		{"stiles that show", slab.Slab{
			Width: mm(826), Length: mm(2040), Thickness: mm(35), Construction: "solid",
			Limits: slab.Limits{Head: limit(20)},
		}, EvenStiles, EvenEnds, "rule.alike"},
		{"a bore that would end too low", slab.Slab{
			Width: mm(826), Length: mm(2110), Thickness: mm(35), Handle: mm(1140), Machined: []frame.Side{frame.Lock},
			Limits: slab.Limits{Head: limit(100), Foot: limit(100)},
		}, KeepLock, EvenEnds, "rule.handle"},
	}
	for _, c := range cases {
		ways := Judge(o, c.s, Layings())
		best, why := Choose(ways, c.s)
		assert.Equal(t, c.across, ways[best].Across, c.name)
		assert.Equal(t, c.along, ways[best].Along, c.name)
		if assert.NotEmpty(t, why, c.name) {
			all := ""
			for _, w := range why {
				all += string(w) + "; "
			}
			assert.Contains(t, all, c.why, c.name)
		}
	}
}

func TestLimitsThatExcludeEveryWayStillGiveTheBest(t *testing.T) {
	o, err := Draw(rigid(t, 826, 2032, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	s := slab.Slab{Width: mm(838), Length: mm(2040), Thickness: mm(44), Construction: "rated"}
	ways := Judge(o, s, Layings())
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
	assert.Equal(t, Pass{400, 800, 1}, p[0])
	assert.Equal(t, Pass{0, 800, 1}, p[1])
	p = Passes(2.5, 2.5, 800, 1)
	require.Len(t, p, 3)
	assert.InDelta(t, 2.5, p[0].Bite+p[1].Bite+p[2].Bite, 1e-9, "the passes add up to the depth, and no more")
	assert.Len(t, Passes(2, 2, 800, 1), 2, "even: full length each time")
	assert.Empty(t, Passes(0, 0, 800, 1))
}

// Common practice: the insert is as wide as between the stiles and as thick
// as between the skins: 762 − 2·30 by 35 − 2·3.
func TestInsertsByHand(t *testing.T) {
	o, err := Draw(rigid(t, 768, 1900, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	s := slab.Slab{Width: mm(762), Length: mm(1981), Thickness: mm(35), Construction: "hollow", Closes: true}
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

// Three hollow slabs cut down, by hand; rail and stile are 30, skins 3 (common practice). Up to half the length or width may
// go, one end is opened rather than two, and none where neither has to be.
func TestHollowSlabsCutDownByHand(t *testing.T) {
	hollow := func(width, length float64) slab.Slab {
		return slab.Slab{
			Width: mm(width), Length: mm(length), Thickness: mm(35), Construction: "hollow", Closes: true,
		}
	}
	ends := func(list []Insert) (e []frame.Side) {
		for _, in := range list {
			e = append(e, in.End)
		}
		return e
	}
	for _, c := range []struct {
		name          string
		width, height float64 // of the opening
		s             slab.Slab
		ends          []frame.Side
	}{
		{"18 too long: 9 off each end leaves 21 of 30", 768, 1972, hollow(762, 1981), nil},
		{"90 too long: the foot, and its rail comes off whole", 768, 1900, hollow(762, 1981), []frame.Side{frame.Foot}},
		{"180 too wide: a long edge, past its stile", 588, 1990, hollow(762, 1981), []frame.Side{frame.Hinge}},
	} {
		o, err := Draw(rigid(t, c.width, c.height, 0, 0, 0, 0), wanted)
		require.NoError(t, err)
		ways := Judge(o, c.s, Layings())
		best, _ := Choose(ways, c.s)
		assert.True(t, ways[best].Keeps(), c.name)
		assert.Equal(t, c.ends, ends(ways[best].Inserts(c.s)), c.name)
		for _, in := range ways[best].Inserts(c.s) {
			assert.True(t, in.Freed, c.name)
			assert.Equal(t, mm(29), in.Thickness, "35 − 2·3")
			want := mm(702) // 762 − 2·30
			if in.End.Upright() {
				want = mm(1921) // 1981 − 2·30
			}
			assert.Equal(t, want, in.Width, c.name)
		}
	}
	s := hollow(762, 1981)
	assert.Equal(t, [2]measure.Length{mm(990.5), mm(381)}, [2]measure.Length{s.Most(frame.Foot), s.Most(frame.Lock)})
	forty := mm(40)
	s.Limits.Foot = &forty
	assert.Equal(t, mm(40), s.Most(frame.Foot), "what is typed holds")
	s.Closes = false
	assert.Equal(t, mm(20), s.Most(frame.Head), "a slab cut by earlier rules")
}

// 30 mm too long, 8 allowed at the head and 22 at the foot: none of the usual
// ways keeps to both, sharing it does. And the same across.
func TestWhatIsSpareIsSharedAsTheLimitsAllow(t *testing.T) {
	o, err := Draw(rigid(t, 768, 1960, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	size := o.Size()
	limit := func(v float64) *measure.Length { l := mm(v); return &l }
	s := slab.Slab{
		Width: mm(size.Width), Length: mm(size.Length + 30), Thickness: mm(35),
		Limits: slab.Limits{Head: limit(8), Foot: limit(22), Hinge: limit(5), Lock: limit(5)},
	}
	usual := Judge(o, s, Layings())
	for _, w := range usual {
		assert.False(t, w.Keeps(), "%v: 30, 15 and 15, or 30 at one end", w.Laying)
	}
	ways := Judge(o, s, Shared(s))
	best, _ := Choose(ways, s)
	require.True(t, ways[best].Keeps())
	assert.InDelta(t, 8, ways[best].Deepest[frame.Head], 0.2)
	assert.InDelta(t, 22, ways[best].Deepest[frame.Foot], 0.2)

	s = slab.Slab{
		Width: mm(size.Width + 30), Length: mm(size.Length), Thickness: mm(35),
		Limits: slab.Limits{Head: limit(5), Foot: limit(5), Hinge: limit(22), Lock: limit(8)},
	}
	ways = Judge(o, s, Shared(s))
	best, _ = Choose(ways, s)
	require.True(t, ways[best].Keeps())
	assert.InDelta(t, 22, ways[best].Deepest[frame.Hinge], 0.2)
	assert.InDelta(t, 8, ways[best].Deepest[frame.Lock], 0.2)
}

// Even stiles are even once what was left on is planed off: 12 mm to come off,
// 2 of them left on the lock edge for now, are 6 at the hinge edge and 4 now.
func TestEvenStilesAreEvenOnceTheLeaveOnIsPlaned(t *testing.T) {
	o, err := Draw(rigid(t, 768, 1990, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	size := o.Size()
	s := slab.Slab{Width: mm(size.Width + 12), Length: mm(size.Length + 10), Thickness: mm(35)}
	laid := Lay(o, frame.Each[float64]{frame.Lock: 2}, s, Laying{EvenStiles, KeepHead})
	assert.InDelta(t, 6, laid.Cuts[frame.Hinge][2].Depth, 0.05)
	assert.InDelta(t, 4, laid.Cuts[frame.Lock][2].Depth, 0.05)
}

// A bore 970 below the slab's top, and a strike that the latch meets 937 below
// the finished one: 33 mm come off the head.
func TestTheBoreIsBroughtToTheStrike(t *testing.T) {
	o, err := Draw(rigid(t, 768, 1960, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	size := o.Size()
	s := slab.Slab{Width: mm(size.Width), Length: mm(size.Length + 50), Thickness: mm(35), Handle: mm(970)}
	o = o.Strike(937)
	ways := Judge(o, s, Ways(o, s))
	met := 0
	for _, w := range ways {
		if w.Along == MeetStrike {
			met++
			assert.InDelta(t, 33, w.Deepest[frame.Head], 0.1)
			assert.InDelta(t, 17, w.Deepest[frame.Foot], 0.1)
			assert.InDelta(t, 0, w.Strike, 0.1)
		}
	}
	assert.Equal(t, 3, met, "with each way across")
	most := mm(60)
	s.Limits = slab.Limits{Head: &most, Hinge: &most, Lock: &most, Foot: &most}
	ways = Judge(o, s, Ways(o, s))
	best, _ := Choose(ways, s)
	assert.Equal(t, MeetStrike, ways[best].Along, "where the limits let it, the bore decides")
}

// A slab narrower at its foot has no foot mark past its own corner.
func TestNoMarkLiesBeyondTheSlab(t *testing.T) {
	o, err := Draw(rigid(t, 768, 1960, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	s := slab.Slab{Width: mm(790), WidthFoot: mm(776), Length: mm(1981), LengthLock: mm(1975), Thickness: mm(35)}
	laid := Lay(o, frame.Each[float64]{}, s, Laying{KeepLock, KeepHead})
	assert.InDelta(t, 776, laid.Cuts[frame.Foot][2].At, 1e-9)
	assert.InDelta(t, 790, laid.Cuts[frame.Head][2].At, 1e-9)
	assert.InDelta(t, 1975, laid.Cuts[frame.Lock][4].At, 1e-9)
	assert.InDelta(t, 1981, laid.Cuts[frame.Hinge][4].At, 1e-9)
}

// Cut as it stood, a slab that is to keep 2 mm on loses 2 mm less at its lock
// edge: what is left on is not forgotten because it was offered up.
func TestAsOfferedUpKeepsWhatIsLeftOn(t *testing.T) {
	o, err := Draw(rigid(t, 768, 1990, 0, 0, 0, 0), wanted)
	require.NoError(t, err)
	size := o.Size()
	s := slab.Slab{Width: mm(size.Width + 12), Length: mm(size.Length + 10), Thickness: mm(35)}
	stood := o.Offer(-3, 2, 0)
	line := Lay(stood, frame.Each[float64]{}, s, Laying{Across: AsOffered})
	kept := Lay(stood, frame.Each[float64]{frame.Lock: 2}, s, Laying{Across: AsOffered})
	for i := range line.Cuts[frame.Lock] {
		assert.InDelta(t, line.Cuts[frame.Lock][i].Depth-2, kept.Cuts[frame.Lock][i].Depth, 0.01)
		assert.InDelta(t, line.Cuts[frame.Hinge][i].Depth, kept.Cuts[frame.Hinge][i].Depth, 0.01)
	}
	assert.Equal(t, 2.0, kept.Left[frame.Lock])
}
