package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/site"
)

func TestTheHandAgainstWhatIsKnown(t *testing.T) {
	o := square() // hinges on the left
	assert.Empty(t, Solve(house, o).Findings)
	o.Seen = job.Seen{Strike: frame.Right, Pockets: frame.Left}
	assert.Empty(t, Solve(house, o).Findings, "strike across from the pockets, as it should be")
	o.Hand = frame.Right
	p := Solve(house, o)
	require.Len(t, ofCode(p.Findings, site.StrikeAtHinges), 1)
	require.Len(t, ofCode(p.Findings, site.PocketsAcross), 1)
	assert.Contains(
		t, wordsOf(ofCode(p.Findings, site.PocketsAcross)[0], measure.Millimetres, house.Tape),
		"The hinges are said to be on the right, but the old recesses are in the left jamb.",
	)
	assert.False(t, p.Steps[0].Ready, "nothing is cut to a door that turns the other way")
	o.Seen.Strike = "up"
	assert.ErrorContains(t, o.Check(), "/seen/strike")
}

func TestASlabOrderedOrTurnedTheWrongWay(t *testing.T) {
	o := square()
	o.Slab.Made = frame.Right
	require.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.MadeForOtherHand), 1)
	o.Slab.Made, o.Slab.Block = frame.Left, frame.Lock
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.BlockAtHinges))
	o.Slab.Block = frame.Hinge
	require.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.BlockAtHinges), 1)
	o.Slab.TopDown = true
	require.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.TurnEndForEnd), 1, "one turn mends both")
	o.Slab.Block = frame.NoSide
	l := Solve(house, o).Leaves[0]
	require.Len(t, ofCode(l.Findings, site.TopIsDown), 1)
	o.Slab.Block = frame.Head
	assert.ErrorContains(t, o.Check(), "/slab/block")

	// The second leaf of a pair hangs on the other jamb, so its hand is the other.
	o = square()
	o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(3), Fixed: frame.Lock}
	o.Slab.Made, o.Pair.Slab.Made = frame.Left, frame.Right
	for _, l := range Solve(house, o).Leaves {
		assert.Empty(t, ofCode(l.Findings, site.MadeForOtherHand))
	}
}
