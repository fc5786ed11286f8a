package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// aSet is a slab of 762 × 1981 that comes hung in a frame of 28, 830 over all, with legs of 2010 below its head; the
// floor is 4 higher under the lock jamb.
func aSet(change func(*job.Opening)) job.Opening {
	return toFrame(func(o *job.Opening) {
		up, none := mm(4), mm(0)
		o.Lining.Comes, o.Lining.Board = lining.AsSet, 0
		o.Lining.Wall = [6]measure.Length{}
		o.Lining.Leg, o.Lining.Outer, o.Lining.Floor, o.Lining.High = mm(2010), mm(830), &up, &none
		if change != nil {
			change(o)
		}
	})
}

func ids(list []message.Message) (out []message.ID) {
	for _, m := range list {
		out = append(out, m.ID)
	}
	return out
}

// By hand: the head stands over the highest floor, 4, by 6 at the foot, the slab of 1981 and 3.5 at the head: 1994.5 from
// the floor under the hinge jamb. The hinge leg of 2010 loses 15.5, the lock leg, on a floor 4 higher, 19.5. A rough
// opening of 838 leaves (838 − 830) / 2 = 4 a side.
func TestTheFeetOfASet(t *testing.T) {
	o := aSet(nil)
	require.NoError(t, o.Check())
	p := Solve(house, o)
	l := p.Lining
	require.NotNil(t, l)
	assert.Equal(t, mm(1994.5), l.Jamb[frame.Hinge])
	assert.Equal(t, mm(1990.5), l.Jamb[frame.Lock])
	assert.Equal(t, mm(15.5), l.Feet[frame.Hinge])
	assert.Equal(t, mm(19.5), l.Feet[frame.Lock])
	assert.Equal(t, mm(4), l.Pack[1])
	assert.Len(t, l.Parts, 2, "its legs: nothing else is cut")
	assert.Equal(t, []message.ID{
		"set.check", "set.feet", "set.stand", "set.hinge-side", "set.lock-side", "set.screws", "set.stop", "set.read",
	}, ids(l.Steps))
	assert.Equal(t, mm(36), l.Steps[6].Args["sum"], "35 and a card of 1")
	assert.Nil(t, p.Leaves[0].Hanging, "it hangs in its frame")

	short := Solve(house, aSet(func(o *job.Opening) { o.Lining.Leg = mm(1990) }))
	f := ofCode(short.Findings, site.SetShort)
	require.Len(t, f, 1)
	assert.Equal(t, mm(4.5), f[0].Args["by"], "1994.5 less 1990")

	unread := Solve(house, aSet(func(o *job.Opening) { o.Lining.Floor = nil }))
	assert.Len(t, ofCode(unread.Findings, site.FrameFloorUnread), 1, "no foot is cut before its floor is read")
}

// A set of 838 does not go into a rough opening of 838 with packing of 2 a side: it is 4 too wide.
func TestASetThatIsTooWide(t *testing.T) {
	p := Solve(house, aSet(func(o *job.Opening) { o.Lining.Outer = mm(838) }))
	f := ofCode(p.Findings, site.SetWide)
	require.Len(t, f, 1)
	assert.Equal(t, site.Stop, f[0].Gravity)
	assert.Equal(t, mm(4), f[0].Args["short"])
	assert.Empty(t, ofCode(p.Findings, site.RoughNarrow))
	assert.Empty(t, p.Lining.Packs)
}

// Once it stands, a gap that is too small moves the frame: nothing ever comes off the slab of a set.
func TestTheSlabOfASetStays(t *testing.T) {
	o := aSet(func(o *job.Opening) {
		o.Lining.Stands = true
		o.Readings = []survey.Reading{
			{ID: "a", Kind: survey.Width, At: mm(100), Value: mm(767)},
			{ID: "b", Kind: survey.Width, At: mm(1000), Value: mm(767)},
			{ID: "c", Kind: survey.Width, At: mm(1900), Value: mm(767)},
			{ID: "h", Kind: survey.Height, At: mm(50), Value: mm(1994.5)},
		}
	})
	p := Solve(house, o)
	for e := range p.Leaves[0].Cut.InOrder() {
		assert.Zero(t, e.Deepest(), e.Side)
		assert.Equal(t, trade.Untouched, e.Means)
		for _, m := range e.Marks {
			var sum measure.Length
			for _, term := range m.Depth.Terms {
				sum += term.Value
			}
			assert.Equal(t, m.Depth.Value, sum, "it adds up")
		}
	}
	assert.NotEmpty(t, ofCode(p.Leaves[0].Findings, site.SetStays), "2 too tight: 769 are wanted")
	assert.Zero(t, p.Leaves[0].Cut.Edges[frame.Lock].Bevel.Value)
}

// Made up of bought jambs: nothing is ripped, both legs are marked once. A frame's own rebate takes no planted stop, and
// is held to the slab and a card: 35 and 1 in 36; 5 less stands proud by 5.
func TestBoughtJambsAndARebate(t *testing.T) {
	o := toFrame(func(o *job.Opening) {
		none := mm(0)
		o.Lining.Comes, o.Lining.Floor, o.Lining.High, o.Lining.Rebate = lining.OfJambs, &none, &none, mm(36)
	})
	p := Solve(house, o)
	assert.Contains(t, ids(p.Lining.Steps), message.ID("lining.together"))
	assert.NotContains(t, ids(p.Lining.Steps), message.ID("lining.rip"))
	for _, part := range p.Lining.Parts {
		assert.NotEqual(t, message.ID("lining-part.leg-stop"), part.Name)
	}
	assert.Equal(t, []message.ID{"stops.shut", "stops.rebate"}, ids(p.Leaves[0].Stops.Steps))
	assert.Empty(t, ofCode(p.Findings, site.RebateShallow))
	o.Lining.Rebate = mm(31)
	f := ofCode(Solve(house, o).Findings, site.RebateShallow)
	require.Len(t, f, 1)
	assert.Equal(t, mm(5), f[0].Args["by"])
	o.Lining.Rebate = mm(40)
	assert.Len(t, ofCode(Solve(house, o).Findings, site.RebateDeep), 1)
	o.Lining.Comes = "string"
	assert.ErrorContains(t, o.Check(), "/lining/comes")
}

// Tried in its frame, a set whose lock gap is 1 is brought in at its hinges or by its frame: no way planes it, and its
// steps have no cut and no recesses.
func TestASetIsNeverPlaned(t *testing.T) {
	o := aSet(func(o *job.Opening) {
		o.Lining.Stands = true
		for i, at := range []float64{100, 1000, 1900} {
			o.Readings = append(o.Readings, survey.Reading{
				ID: string(rune('a' + i)), Kind: survey.Width, At: mm(at), Value: mm(769),
			})
		}
		o.Readings = append(o.Readings, survey.Reading{ID: "h", Kind: survey.Height, At: mm(50), Value: mm(1994.5)})
	})
	p := Solve(house, o)
	for _, s := range p.Steps {
		assert.NotContains(t, []job.Step{job.StepCut, job.StepHinges}, s.Step)
	}
	assert.Empty(t, ofCode(p.Leaves[0].Findings, site.HingesUsual), "its maker chose its hinges")
	made := p.Leaves[0].Try.Planned
	require.NotNil(t, made)
	hang := job.Hang{ID: "h1"}
	for i, at := range []float64{100, 1000, 1900} {
		hang.Gaps = append(hang.Gaps, survey.Reading{
			ID: string(rune('p' + i)), Kind: survey.Gap, Side: frame.Lock, At: mm(at), Value: mm(1), Offer: "h1",
		})
	}
	o.Tried = []job.Tried{{Made: made, Hangs: []job.Hang{hang}}}
	ways := Solve(house, o).Leaves[0].Try.Ways
	require.NotEmpty(t, ways)
	for _, w := range ways {
		assert.Empty(t, w.Planed)
	}
	o.Lining.Comes = lining.OfBoards
	planed := 0
	for _, w := range Solve(house, o).Leaves[0].Try.Ways {
		planed += len(w.Planed)
	}
	assert.Positive(t, planed, "a slab with a frame of its own making is")
}
