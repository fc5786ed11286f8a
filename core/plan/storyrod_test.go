package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/hinge"
	"kindmargin/core/job"
)

// One rod for three doors: a like one meets it, one with its bottom pocket 12 lower says so,
// one with three hinges cannot be marked from it.
func TestAStoryRodForThreeDoors(t *testing.T) {
	j := job.NewJob("h", "House", house.Unit)
	one := square()
	one.Hinges.From, one.Hinges.Pockets = hinge.FromPockets, nil
	one.Hinges.Pockets = append(one.Hinges.Pockets, mm(163), mm(1700))
	two, three, four := one, one, one
	two.ID, three.ID, four.ID = "two", "three", "four"
	three.Hinges.Pockets = append(three.Hinges.Pockets[:0:0], mm(163), mm(1712))
	four.Hinges.From, four.Hinges.Count = "6and9", 3
	j.Openings = append(j.Openings, one, two, three, four)
	r, ok := StoryRod(Opening{one, Solve(j, one)})
	require.True(t, ok)
	for _, o := range j.Openings {
		r.Compare(Opening{o, Solve(j, o)}, j.Tape.Step()/2)
	}
	require.Len(t, r.Marks, 5, "two leaves' tops and bottoms, and the latch")
	assert.Equal(t, mm(163), r.Marks[0].Jamb.Value)
	assert.Equal(t, mm(160), r.Marks[0].Slab.Value, "past the slab's top by the head margin of 3")
	assert.Equal(t, mm(163+75), r.Marks[1].Jamb.Value)
	require.Len(t, r.Openings, 3)
	assert.Empty(t, r.Openings[0].Off)
	assert.Empty(t, r.Openings[0].Missing)
	require.Len(t, r.Openings[1].Off, 2, "top and bottom of the lower leaf")
	assert.Equal(t, mm(12), r.Openings[1].Off[0].Jamb)
	assert.Equal(t, "it hangs on 3 hinges", saying(r.Openings[2].Missing))
	one.Readings = nil
	_, ok = StoryRod(Opening{one, Solve(j, one)})
	assert.False(t, ok, "nothing is read of it")
}

// The packers at the head are its margins; the wedge for hanging is for the floor at 90°.
func TestHowItIsHung(t *testing.T) {
	o := square()
	h := Solve(house, o).Leaves[0].Hanging
	require.NotNil(t, h)
	assert.Equal(t, mm(3), h.Head[0].Value)
	assert.InDelta(t, 6, h.Shut.Value.MM(), 0.2)
	assert.InDelta(t, 6, h.Open.Value.MM(), 0.3)
	assert.True(t, h.Two, "36 kg")
	o.Swing.Floor = append(o.Swing.Floor, squareFloor(90, 4))
	open := Solve(house, o).Leaves[0].Hanging
	assert.InDelta(t, h.Shut.Value.MM()+1, open.Shut.Value.MM(), 0.3, "the foot went up by 1 for the 3 + 4 there")
	assert.InDelta(t, 3, open.Open.Value.MM(), 0.3, "under the door standing open there are 3")
	o.Hinges.Long = true
	o.Hinges.Size = "radius-100"
	said := ""
	for _, m := range Solve(house, o).Leaves[0].Hanging.Steps {
		said += saying(m) + "\n"
	}
	assert.Contains(t, said, "hair long")
	assert.Contains(t, said, "8 mm of radius")
}
