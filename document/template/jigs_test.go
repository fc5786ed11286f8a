package template

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
)

// cuts are the shapes of a kind that are cut.
func cutShapes(d Draft, k Kind) (list []Shape) {
	for _, s := range d.Shapes {
		if s.Kind == k && s.Layer == CutLayer {
			list = append(list, s)
		}
	}
	return list
}

// The galley's bathroom lock: forend 22 × 150, so a window of 26 × 154 with a 12 mm cutter in a 16 mm bush, and a liner
// 0.3 smaller. Its case wants a slot as it is planned, and four more each way. Its holes stand at the backset of 44 from
// the edge on both cheeks, mirrored, their windows 0.3 wider than the bit.
func TestACaseBoard(t *testing.T) {
	j, o := demoDoor(t, "galley")
	d, err := Make("case", j, o, 0, lock.UsualRouter)
	require.NoError(t, err)
	w := plan.Solve(j, o).Leaves[0].Hardware[0].Work
	rects := cutShapes(d, Rect) // plate, its window, liner, its window, then a cheek and its bay twice
	require.Len(t, rects, 8)
	assert.Equal(t, [2]float64{26, 154}, [2]float64{rects[1].W, rects[1].H})
	assert.InDelta(t, 25.7, rects[2].W, 1e-9)
	assert.InDelta(t, 153.7, rects[2].H, 1e-9)
	assert.InDelta(t, w.Edge.Wide.MM()+4, rects[3].W, 1e-9)
	assert.InDelta(t, w.Edge.Long.MM()+4, rects[3].H, 1e-9)
	assert.Equal(t, 8.0, rects[3].R, "the bush's own radius: it runs into the corner")
	// The case's window lies in the liner where the case lies behind the forend.
	middle := func(s Shape) float64 { return s.Y + s.H/2 }
	forend := w.Plate.Top.Value.MM() + 75
	assert.InDelta(t, w.Edge.Down.Value.MM()-forend, middle(rects[3])-middle(rects[2]), 1e-9)
	pull, push := rects[4], rects[6]
	var holes [2][]Shape
	for _, c := range cutShapes(d, Circle) {
		switch {
		case c.R == jigScrew:
		case c.X < pull.X+pull.W:
			holes[0] = append(holes[0], c)
		default:
			holes[1] = append(holes[1], c)
		}
	}
	require.Len(t, holes[0], len(w.Holes))
	for i, h := range w.Holes {
		assert.InDelta(t, 44, holes[0][i].X-pull.X, 0.01, "from the slab's edge")
		assert.InDelta(t, 44, push.X+push.W-holes[1][i].X, 0.01, "mirrored on the push face")
		assert.InDelta(t, h.Bit.MM()/2+0.15, holes[0][i].R, 1e-9)
		assert.InDelta(t, holes[0][i].Y-pull.Y, holes[1][i].Y-push.Y, 1e-9)
	}
	folds := 0.0
	for _, s := range d.Shapes {
		if s.Layer == FoldLayer {
			folds = s.X - folds
		}
	}
	assert.Equal(t, 40.0, folds, "the cheeks stand the slab's thickness apart")
}

// The rail's windows for leaves of 75 × 29: 79 long and 31 deep from the pull face, two above each leaf's top in the
// jamb; its shoulder is the head margin below its end, so that the same windows are the slab's marks.
func TestAHingeRail(t *testing.T) {
	j, o := demoDoor(t, "beam")
	d, err := Make("rail", j, o, 0, lock.UsualRouter)
	require.NoError(t, err)
	l := plan.Solve(j, o).Leaves[0]
	var tops, bottoms []float64
	shoulder := 0.0
	for _, s := range cutShapes(d, Line) {
		switch {
		case s.H == 0 && s.X == 0 && s.W == 31:
			tops = append(tops, s.Y)
		case s.H == 0 && s.X == 31 && s.W == -31:
			bottoms = append(bottoms, s.Y)
		case s.H == 0 && s.W < -31 && s.X < d.Width:
			shoulder = s.Y
		}
	}
	require.Len(t, tops, 2)
	for i, h := range l.Hinges {
		assert.InDelta(t, h.Jamb.Value.MM()-2, tops[i], 1e-9, "on the jamb, from the head")
		assert.InDelta(t, h.Slab.Value.MM()-2, tops[i]-shoulder, 1e-9, "on the slab, from its top")
		assert.InDelta(t, 79, bottoms[i]-tops[i], 1e-9)
	}
}

// A hole saw's cup of 38 comes 22 into the face through a block that is 12 thick and stands 4 off: a slab of 44 is
// bored from both faces, one of 46 is not.
func TestABlockThatItsHoleSawClears(t *testing.T) {
	j, o := demoDoor(t, "linen")
	o.Lock.Hardware = "knob-54"
	o.Slab.Thickness = 44 * measure.Millimetre
	_, err := Make("block", j, o, 0, lock.UsualRouter)
	require.NoError(t, err)
	o.Slab.Thickness = 46 * measure.Millimetre
	_, err = Make("block", j, o, 0, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.jig-deep")
	_, err = MakeSolid("block", j, o, 0, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.jig-deep")
	o.Slab.Thickness = 44 * measure.Millimetre
	j.Kit.Bits = []measure.Length{10 * measure.Millimetre, 22 * measure.Millimetre}
	_, err = Make("block", j, o, 0, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.jig-no-bit")
	_, err = Make("case", j, o, 0, lock.UsualRouter)
	assert.ErrorContains(t, err, "refused.jig-no-case")
}

// The block for a knob of 54 at a backset of 60 in a slab of 44: its volume by hand. Cheeks: 12 × (60 + 27.15 + 3 + 60 +
// 28) × 104.3, two, less the cups; the wall across: 24 × 52 × 104.3, less the edge bit; the feet: 10 × 4 × 150.15, four,
// and 10 × 4 × 44, two.
func TestTheBlocksVolume(t *testing.T) {
	j, o := demoDoor(t, "linen")
	o.Lock.Hardware = "knob-54"
	o.Lock.Backset = 60 * measure.Millimetre
	o.Slab.Thickness = 44 * measure.Millimetre
	j.Kit.Bits = []measure.Length{25 * measure.Millimetre, 54 * measure.Millimetre}
	s, err := MakeSolid("block", j, o, 0, lock.UsualRouter)
	require.NoError(t, err)
	const pi = 3.14159265
	cup, bit, high := 27.15*27.15*pi, 12.65*12.65*pi, 2*(27.15+25)
	cheek := 12 * ((60+27.15+3+60+28)*high - cup)
	wall := 24 * (52*high - bit)
	feet := 10 * 4 * (4*150.15 + 2*44)
	assert.InEpsilon(t, 2*cheek+wall+feet, s.Volume(), 0.001)
}
