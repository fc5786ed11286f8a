package plan

import (
	"fmt"
	"runtime"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// A threshold set by hand rules instead of minutes.
func TestAThresholdByHandRules(t *testing.T) {
	o := careful()
	o.PlusMinus = mm(10)
	assert.Empty(t, Solve(house, o).ToRead)
	o.PlusMinus = mm(0.3)
	p := Solve(house, o)
	require.NotEmpty(t, p.ToRead)
	assert.Zero(t, p.ToRead[0].Worth.Minutes)
	assert.Contains(t, all(p.ToRead[0].Brings, " "), "±")
}

// A dear trip makes more readings worth their time; a reading says with what, and a
// kit asks only for what its tools read.
func TestADearTripIsWorthMoreReadings(t *testing.T) {
	o := careful()
	j := house
	j.Kit.Trip = 1
	cheap := 0.0
	for _, r := range Solve(j, o).ToRead {
		cheap = max(cheap, r.Worth.Minutes)
	}
	assert.LessOrEqual(t, cheap, 1+trade.MissedFirst, "at most what the trip and the work after it cost")
	j.Kit.Trip = 240
	j.Kit.Tools = survey.Kit{{ID: "r", Instrument: "rods", Name: "the long rods"}}
	dear := Solve(j, o)
	require.NotEmpty(t, dear.ToRead)
	for _, r := range dear.ToRead {
		assert.Equal(t, message.Own("the long rods"), r.Tool)
		assert.Contains(t, []survey.Kind{survey.Width, survey.Height, survey.Diagonal}, r.Reading.Kind)
	}
	assert.Equal(t, message.ID("worth.minutes"), dear.ToRead[0].Brings[0].ID)
	assert.Greater(t, dear.ToRead[0].Worth.Minutes, cheap)
	assert.Less(t, dear.ToRead[0].Worth.To, dear.ToRead[0].Worth.From)
	assert.InDelta(t, dear.Trip, dear.ToRead[0].Worth.From, 1e-9)
}

// What a plan allocates grows with its readings' square at most: eight times as many,
// with five tools, each with its error, take some 64 times as much, not 500.
func TestAThousandReadingsWithFiveBiases(t *testing.T) {
	j := house
	for i := range 5 {
		j.Kit.Tools = append(j.Kit.Tools, survey.Tool{ID: fmt.Sprint("t", i), Instrument: "tape"})
	}
	allocated := func(n int) uint64 {
		o := careful()
		o.Readings = nil
		for i := range n {
			o.Readings = append(o.Readings, survey.Reading{
				ID: fmt.Sprint("r", i), Kind: survey.Width, At: mm(float64(i) * 2000 / float64(n)),
				Value: mm(826 + float64(i%3)/2), Tool: fmt.Sprint("t", i%5),
			})
		}
		o.Readings[0].Kind, o.Readings[0].At, o.Readings[0].Value = survey.Height, mm(50), mm(2032)
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		p := Solve(j, o)
		runtime.ReadMemStats(&after)
		require.NotNil(t, p.Leaves[0].Drawing)
		return after.TotalAlloc - before.TotalAlloc
	}
	few, many := allocated(125), allocated(1000)
	t.Log(few, many)
	assert.Less(t, many, 80*few)
}

// Gaps that no rigid slab shows are said, and nothing is lost.
func TestGapsThatNoRigidSlabShows(t *testing.T) {
	o := job.NewOpening("o", "Dairy", measure.Millimetres)
	o.Offers = []survey.Offer{{ID: "s", Name: "the slab", Width: mm(815), Length: mm(2015)}}
	add := func(side frame.Side, at, gap float64) {
		o.Readings = append(o.Readings, survey.Reading{
			ID: fmt.Sprint("r", len(o.Readings)), Kind: survey.Gap, Side: side, At: mm(at), Value: mm(gap), Offer: "s",
		})
	}
	for _, at := range []float64{250, 1000, 1750} {
		add(frame.Hinge, at, 3)
		add(frame.Lock, at, 8)
	}
	for _, at := range []float64{100, 400, 700} {
		add(frame.Head, at, 5)
		add(frame.Foot, at, 12)
	}
	require.Empty(t, Solve(house, o).Clashes)
	o.Readings[3].Value = mm(40) // midway down the lock edge
	p := Solve(house, o)
	require.NotEmpty(t, p.Clashes)
	assert.Equal(t, "r3", p.Clashes[0].Reading.ID)
	assert.Len(t, p.Without, len(p.Clashes[0].Or)+1)
}
