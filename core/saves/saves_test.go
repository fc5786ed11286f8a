package saves_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/saves"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// house are so many doors of a kind, with a tubular latch, hinged by the rule.
func house(n int) (list []plan.Opening) {
	mm := measure.FromMM
	j := job.NewJob("h", "House", measure.Millimetres)
	for i := range n {
		o := job.NewOpening(string(rune(97+i)), fmt.Sprint("Door ", i+1), j.Unit)
		o.Lock.Hardware = "latch-22"
		o.Hinges.Size = "butt-75"
		o.Slab = slab.Slab{Width: mm(762), Length: mm(1981), Thickness: mm(35), Construction: "hollow"}
		o.Readings = []survey.Reading{
			{ID: "w", Kind: survey.Width, At: mm(1000), Value: mm(764)},
			{ID: "h", Kind: survey.Height, At: mm(400), Value: mm(1986)},
		}
		list = append(list, plan.Opening{Opening: o, Plan: plan.Solve(j, o)})
	}
	return list
}

func counted(t *testing.T, list []plan.Opening, log saves.Log) map[string]saves.Saving {
	c := saves.NewCounter(log)
	for _, o := range list {
		c.Add(o, 0, saves.State{})
	}
	by := map[string]saves.Saving{}
	for _, s := range c.List() {
		_, twice := by[s.ID]
		require.False(t, twice, s.ID)
		by[s.ID] = s
	}
	return by
}

// Common practice: a jig pays from about three doors of a kind. By hand, for two hinges: four recesses of 3.5 minutes less
// each, 14 a door, and 40 to make the rail; a boring block saves 7 a door and takes 20.
func TestAJigPaysFromAboutThreeDoors(t *testing.T) {
	for doors, want := range map[int]struct{ rail, block float64 }{
		1: {14 - 40, 7 - 20}, 2: {28 - 40, 14 - 20}, 3: {42 - 40, 21 - 20}, 6: {84 - 40, 42 - 20},
	} {
		got := counted(t, house(doors), nil)
		assert.InDelta(t, want.rail, got["rail"].Minutes, 1e-9, "%d doors", doors)
		assert.InDelta(t, want.block, got["block"].Minutes, 1e-9, "%d doors", doors)
		assert.Len(t, got["rail"].Openings, doors)
	}
	for _, j := range trade.Jigs {
		pieces := 1
		if j.ID == "rail" {
			pieces = 4
		}
		assert.Equal(t, 3, j.PaysFrom(pieces), j.ID)
	}
}

// A latch of 22 takes 4 to mark, 5 for the spindle from both faces, 5 for the edge and 8 for the forend, 14 for the
// keep: 36, as trade.Works has for bores and strike. The snap-in one takes 4, 5, 5 and 4: 18. In a slab that came bored,
// 10 instead of 22. A house that is twice as slow at the lock saves twice as much.
func TestWhatALatchTakes(t *testing.T) {
	latch, _ := trade.HardwareByID("latch-22")
	bores, _ := trade.WorkByID("bores")
	strike, _ := trade.WorkByID("strike")
	assert.Equal(t, bores.Minutes+bores.Each, latch.BoringMinutes())
	assert.Equal(t, strike.Minutes+strike.Each, latch.StrikeMinutes())
	got := counted(t, house(4), nil)
	assert.InDelta(t, 4*18, got["latch"].Minutes, 1e-9)
	assert.InDelta(t, 4*12, got["bored"].Minutes, 1e-9)
	var usual float64 // at the lock, for a usual opening
	for _, w := range trade.Works {
		if w.Step == "lock" && !w.Some {
			usual += w.Minutes + 2*w.Each
		}
	}
	slow := counted(t, house(4), saves.Log{job.StepLock: 2 * usual})
	assert.InDelta(t, 2*4*18, slow["latch"].Minutes, 1e-9)
	assert.InDelta(t, 2*4*7-20, slow["block"].Minutes, 1e-9, "the block takes as long to make")
	assert.Equal(t, got["rail"].Minutes, slow["rail"].Minutes, "its hinges are no slower")
}

// Doors that differ share no jig; a slab that came bored, a steel one and a door that hangs need none.
func TestDoorsThatDifferShareNoJig(t *testing.T) {
	list := house(3)
	list[1].Opening.Slab.Thickness = 44 * measure.Millimetre
	c := saves.NewCounter(nil)
	for _, o := range list {
		c.Add(o, 0, saves.State{Cut: true, Hung: true})
	}
	for _, s := range c.List() {
		assert.NotEqual(t, "rail", s.ID, "they hang")
		assert.NotEqual(t, "bored", s.ID, "their slabs are cut: none is bought")
		if s.ID == "block" {
			assert.Len(t, s.Openings, 3, "each is named once")
			assert.Equal(t, message.Number(2), s.Says.Args["alike"], "two are alike, of another thickness is the third")
			assert.InDelta(t, 3*7-2*20, s.Minutes, 1e-9, "two blocks")
		}
	}
	steel := house(1)
	steel[0].Opening.Slab.Construction = "steel"
	for _, j := range saves.Jigs(steel[0].Opening, steel[0].Plan.Leaves[0], 0) {
		assert.NotEqual(t, "rail", j.ID)
	}
}
