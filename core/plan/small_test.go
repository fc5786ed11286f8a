package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// A handle at the middle of the slab: half of the finished lock edge, from its finished top; on a rail: the rail's middle
// less what comes off the top. Each term adds up.
func TestAHandleWhereTheSlabSays(t *testing.T) {
	o := square()
	o.Lock.From = lock.FromMiddle
	p := Solve(house, o)
	l := p.Leaves[0]
	require.NotNil(t, l.Latch)
	long := l.Cut.Length[2].Value.MM() - l.Cut.Edges[frame.Foot].Left.Value.MM()
	long -= l.Cut.Edges[frame.Head].Left.Value.MM()
	assert.InDelta(t, long/2, l.Latch.Slab.Value.MM(), 0.6)
	assert.Equal(t, l.Latch.Jamb.Value, l.Latch.Slab.Value+l.Wanted[frame.Head].Value, "the keep is the top margin lower")

	o.Lock.From, o.Lock.Line = lock.FromLine, mm(1010)
	l = Solve(house, o).Leaves[0]
	require.NotNil(t, l.Latch)
	off := l.Cut.Edges[frame.Head].Marks[2].Depth.Value.MM()
	assert.InDelta(t, 1010-off, l.Latch.Slab.Value.MM(), 1.1)
	o.Lock.Line = 0
	assert.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.NoLatch), 1, "no line was measured")
	o.Lock.From = "knee"
	assert.ErrorContains(t, o.Check(), "/lock/from")
}

// A gasket of 6 when shut takes the place of the card: the stop stands 35 and 6 from the jamb's edge.
func TestAGasketInTheStop(t *testing.T) {
	o := square()
	o.Slab.Thickness = mm(35)
	o.Stops.Gasket = mm(6)
	s := Solve(house, o).Leaves[0].Stops
	require.NotNil(t, s)
	assert.Equal(t, mm(41), s.From.Value)
	assert.Contains(t, ids(s.Steps), message.ID("stops.gasket"))
	o.Stops.Gasket = mm(20)
	assert.ErrorContains(t, o.Check(), "/stops/gasket")
}

// A seal that drops 5 does not close a gap of 6 over the floor; one of 9 does. Of a hollow slab's bottom rail of 30 and
// less, too little is left over a slot of 30.
func TestADropSeal(t *testing.T) {
	o := square()
	o.Margins.Seal = mm(5)
	assert.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.SealShort), 1)
	o.Margins.Seal = mm(9)
	o.Slab.Construction = "solid"
	p := Solve(house, o)
	assert.Empty(t, ofCode(p.Leaves[0].Findings, site.SealShort))
	assert.Empty(t, ofCode(p.Leaves[0].Findings, site.SealRail))
	says := p.Leaves[0].Cut.Edges[frame.Foot].Says
	assert.Equal(t, message.ID("cut.seal"), says[len(says)-1].ID)
	o.Slab.Construction = "hollow"
	assert.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.SealRail), 1)
}

// What is there already is cleared of paint before the first reading; in a new frame there is nothing.
func TestPaintComesOutFirst(t *testing.T) {
	o := job.NewOpening("o", "Door", measure.Millimetres)
	assert.Empty(t, ofCode(Solve(house, o).Findings, site.PaintFirst))
	o.Seen.Strike = frame.Right
	assert.Len(t, ofCode(Solve(house, o).Findings, site.PaintFirst), 1)
	o.Walls = job.New
	assert.Empty(t, ofCode(Solve(house, o).Findings, site.PaintFirst))
	o.Walls, o.Readings = job.Old, square().Readings
	assert.Empty(t, ofCode(Solve(house, o).Findings, site.PaintFirst), "it is read already")
	o.Hinges.From = hinge.FromPockets
	assert.Len(t, ofCode(Solve(house, o).Findings, site.PaintFirst), 1, "its recesses are not")
}

// With the architrave on, a router does not lie flat on the lining. A moulded skin is eased before it is planed, and
// taped where it is bored.
func TestArchitraveAndSkins(t *testing.T) {
	o := square()
	assert.NotContains(t, ids(Solve(house, o).Leaves[0].Hanging.Steps), message.ID("hang.casing"))
	o.Swing.Casing = mm(18)
	h := Solve(house, o).Leaves[0].Hanging
	assert.Contains(t, ids(h.Steps), message.ID("hang.casing"))
	o.Slab.Construction, o.Lock.Hardware = "moulded", "latch-22"
	l := Solve(house, o).Leaves[0]
	skins := 0
	for e := range l.Cut.InOrder() {
		for _, m := range e.Says {
			if m.ID == "cut.skin" {
				skins++
				assert.Positive(t, e.Deepest())
			}
		}
	}
	assert.Equal(t, 1, skins, "said once")
	var bored []message.ID
	for _, s := range l.Hardware[0].Steps {
		bored = append(bored, s[0].ID)
	}
	assert.Contains(t, bored, message.ID("bore.tape-skin"))
}

// A snap-in latch has no forend to let in, and its receiver is pressed into a bore of 25.
func TestASnapInLatch(t *testing.T) {
	o := square()
	o.Slab.Thickness = mm(40)
	o.Lock.Hardware = "latch-snap"
	l := Solve(house, o).Leaves[0]
	require.Len(t, l.Hardware, 1)
	assert.Nil(t, l.Hardware[0].Plate)
	assert.Contains(t, ids(l.Strikes), message.ID("strike.pressed"))
	assert.NotContains(t, ids(l.Strikes), message.ID("strike.plate"))
	assert.Equal(t, 25*measure.Millimetre, l.Hardware[0].Strike.Hole)
}

// ADA Standards 2010, 404.2.7 and 309.4 (from memory): hardware is worked without tight grasping or turning of the
// wrist, so that an accessible door has a lever or a pull, and no knob.
func TestHandlesOfAnAccessibleDoor(t *testing.T) {
	o := square()
	o.Slab.Thickness = mm(44)
	o.Lock.Hardware, o.Lock.Backset = "knob-54", mm(60)
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.KnobToGrasp), "no rule was chosen")
	o.Lock.Reach = trade.ReachRules[0].ID
	assert.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.KnobToGrasp), 1)
	o.Lock.Hardware = "lever-rose"
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.KnobToGrasp))
}
