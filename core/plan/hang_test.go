package plan

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/stage/readings"
	"kindmargin/core/survey"
)

// bowed is an opening whose hinge jamb bellies in by so much at mid-height, read closely
// by straightedge over its whole length and by widths.
func bowed(belly float64) job.Opening {
	o := job.NewOpening("o", "Boot room", measure.Millimetres)
	o.Slab = square().Slab
	o.Slab.Limits = square().Slab.Limits
	o.Hinges.Count = 3
	in := func(v float64) float64 { return belly * (1 - (v-1016)*(v-1016)/(1016*1016)) }
	read := func(r survey.Reading, value float64) {
		for range 3 {
			r.ID, r.Value = fmt.Sprintf("r%d", len(o.Readings)), mm(value)
			o.Readings = append(o.Readings, r)
		}
	}
	for _, v := range []float64{100, 400, 700, 1000, 1300, 1600, 1900} {
		read(survey.Reading{Kind: survey.Width, At: mm(v)}, 826-in(v))
		read(survey.Reading{Kind: survey.Plumb, Side: frame.Hinge, At: mm(v + 60), From: mm(60)}, in(v+60)-in(60))
	}
	for _, u := range []float64{50, 400, 770} {
		read(survey.Reading{Kind: survey.Height, At: mm(u)}, 2032)
	}
	return o
}

// A straight line fitted by least squares to the pins, as the packers set them on the jamb
// as it is, lies within 0.1 of each: the packers are rounded to a tenth.
func TestThePackersBringThePinsToOneLine(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 5))
	for _, belly := range []float64{3, 5, -4, 2 * rng.Float64(), -5 * rng.Float64()} {
		o := bowed(belly)
		p := Solve(house, o)
		l := p.Leaves[0]
		require.Len(t, l.Hinges, 3)
		s := readShapeOf(o)
		var up, out []float64
		for _, h := range l.Hinges {
			v := s.Height - h.Jamb.Value.MM() - o.Hinges.Leaf.MM()/2
			jamb, _ := s.Shape.At(frame.Hinge, v)
			up = append(up, v)
			out = append(out, jamb+l.Gauges.Flush.Value.MM()/2+h.Pack.Value.MM())
		}
		a, b := stat.LinearRegression(up, out, nil, false)
		for i := range up {
			assert.InDelta(t, a+b*up[i], out[i], 0.1, "belly %.1f", belly)
		}
		if math.Abs(belly) >= 3 {
			packs := []float64{l.Hinges[0].Pack.Value.MM(), l.Hinges[1].Pack.Value.MM()}
			assert.InDelta(
				t, belly*math.Pow((1827-1016)/1016.0, 2), packs[0]-packs[1], 0.6,
				"the outer ones are packed out by what the belly stands in front of them",
			)
		}
	}
}

func readShapeOf(o job.Opening) site.Survey {
	s, _, _ := readings.Read(site.New(house, o), nil)
	return s
}

// An old latch recess of 80 begins 10 below the top of a third hinge set midway: up, its
// leaf of 75 and 12 of wood end there 77 higher; down it would be 102.
func TestAThirdHingeIsMovedClear(t *testing.T) {
	o := square()
	o.Hinges.Count = 3
	before := Solve(house, o).Leaves[0].Hinges[1]
	assert.InDelta(t, 935, before.Slab.Value.MM(), 2)
	o.Hinges.Avoid = []hinge.Avoid{{What: "latch recess", At: before.Jamb.Value + mm(10), Long: mm(80)}}
	p := Solve(house, o)
	l := p.Leaves[0]
	assert.Equal(t, before.Slab.Value-mm(77), l.Hinges[1].Slab.Value, "10 − 12 − 75: up")
	said := ofCode(l.Findings, site.HingeMoved)
	require.Len(t, said, 1)
	assert.Equal(
		t, "The middle hinge moves up by 77 mm, clear of the latch recess.",
		wordsOf(said[0], measure.Millimetres, house.Tape),
	)

	o.Hinges.Avoid[0].At = l.Hinges[0].Jamb.Value + mm(20)
	said = ofCode(Solve(house, o).Leaves[0].Findings, site.HingeInTheWay)
	require.Len(t, said, 1, "the top hinge stays where the rule has it, and is refused")
	assert.Equal(t, site.Stop, said[0].Gravity)
	assert.Contains(
		t, wordsOf(said[0], measure.Millimetres, house.Tape), "It stands clear if moved up to 83 mm or down to 262 mm.",
		"150 + 20 − 12 − 75, and 150 + 20 + 80 + 12",
	)
	o.Hinges.From, o.Hinges.Places = hinge.OwnPlaces, []measure.Length{mm(262), mm(1700)}
	p = Solve(house, o)
	assert.Empty(t, ofCode(p.Leaves[0].Findings, site.HingeInTheWay))
	assert.Equal(t, mm(262), p.Leaves[0].Hinges[0].Slab.Value)
	assert.Equal(t, mm(265), p.Leaves[0].Hinges[0].Jamb.Value)
}

// New 100 mm hinges by rule over old 75 mm pockets: one that the leaf covers wholly is no
// trouble, one that it half covers is; filled, it is none.
func TestOldPocketsInTheWay(t *testing.T) {
	o := square()
	o.Hinges.Leaf = mm(100)
	o.Hinges.Pockets = []measure.Length{mm(160), mm(1650)}
	o.Hinges.Old = []hinge.Pocket{{Long: mm(75)}, {Long: mm(75)}}
	l := Solve(house, o).Leaves[0]
	said := ofCode(l.Findings, site.HingeInTheWay)
	require.Len(t, said, 1, "153 to 253 in the jamb covers 160 to 235; the lower one is in the way")
	assert.Equal(t, message.ID("hinge.bottom"), said[0].Args["name"])
	o.Hinges.Old[1].Filled = true
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.HingeInTheWay))
}

func TestOldPocketsAndTheirHinges(t *testing.T) {
	o := square()
	o.Hinges.From = hinge.FromPockets
	o.Hinges.Pockets = []measure.Length{mm(163), mm(1700)}
	plain := Solve(house, o).Leaves[0].Hinges
	o.Hinges.Old = []hinge.Pocket{
		{Long: mm(70), Wide: mm(32), Deep: mm(3), Faults: []string{"loose", "split"}}, {Long: mm(75.4)},
	}
	require.NoError(t, o.Check())
	l := Solve(house, o).Leaves[0]
	assert.Equal(
		t, plain[0].Pack.Value+mm(1), l.Hinges[0].Pack.Value, "a pocket 3 deep for a leaf of 2 is packed up by 1",
	)
	assert.Equal(t, plain[1].Pack.Value, l.Hinges[1].Pack.Value)
	assert.Len(t, ofCode(l.Findings, site.OldHinge), 2)
	assert.Len(t, ofCode(l.Findings, site.PocketCutOn), 1, "5 too short")
	assert.Len(t, ofCode(l.Findings, site.PocketFill), 1, "3 too wide")
	assert.Contains(
		t, wordsOf(ofCode(l.Findings, site.OldHinge)[0], measure.Millimetres, house.Tape),
		"Old top hinge: it is loose.",
	)
	o.Hinges.Old = append(o.Hinges.Old, hinge.Pocket{})
	assert.ErrorContains(t, o.Check(), "refused.pockets-described given=3 pockets=2")
}

func TestWhatHingesCarry(t *testing.T) {
	o := square()
	o.Hinges.Size = "lift-100"
	said := ofCode(Solve(house, o).Leaves[0].Findings, site.HingeTooLight)
	require.Len(t, said, 1, "35.9 kg on two that carry 35")
	o.Hinges.Count = 3
	p := Solve(house, o)
	assert.Empty(t, ofCode(p.Leaves[0].Findings, site.HingeTooLight), "three carry 52")
	// 35.9 kg × 419 over the leaves' distance, 2023 − 225 − 75 − 150.
	assert.InDelta(t, 35.9*419/1573, p.Leaves[0].Gauges.Pull.Load, 0.05)
	o.Hinges.Third = hinge.MoveUp
	assert.Equal(t, mm(150+75+200), Solve(house, o).Leaves[0].Hinges[1].Slab.Value)
}

func TestTheUsualHinge(t *testing.T) {
	o := square()
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.HingeShort), "75 for 35 thick")
	o.Slab.Thickness = mm(44)
	require.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.HingeShort), 1)
	assert.Contains(
		t, wordsOf(ofCode(Solve(house, o).Leaves[0].Findings, site.HingeShort)[0], measure.Millimetres, house.Tape),
		"Hinges of 100 mm are usual for a slab 44 mm thick and 838 mm wide. These are 75 mm.",
	)
	inches := house
	inches.Unit, inches.Tape = measure.Inches, measure.ThirtySeconds
	for _, j := range []job.Job{house, inches} { // the same rule
		o.Hinges.Count = 2
		require.Len(t, ofCode(Solve(j, o).Leaves[0].Findings, site.HingesUsual), 1, "three for 80 in and 45 kg")
		o.Hinges.Count = 3
		assert.Empty(t, ofCode(Solve(j, o).Leaves[0].Findings, site.HingesUsual))
		light := o
		light.Hinges.Count, light.Slab.Construction, light.Slab.Thickness = 2, "hollow", mm(35)
		assert.Empty(t, ofCode(Solve(j, light).Leaves[0].Findings, site.HingesUsual), "two carry 13 kg")
	}
}

// How a slab comes onto its hinges goes by their kind: common practice.
func TestEachHingeHangsInItsWay(t *testing.T) {
	for size, step := range map[string]message.ID{
		"butt-75": "hang.lift", "loose-100": "hang.pins", "lift-100": "hang.drop", "rising-100": "hang.drop",
		"continuous-32": "hang.continuous",
	} {
		o := square()
		h, ok := house.Kit.Hinge(size)
		require.True(t, ok, size)
		o.Hinges.Size, o.Hinges.Leaf, o.Hinges.Width = h.ID, h.Leaf, h.Width
		l := Solve(house, o).Leaves[0]
		require.NotNil(t, l.Hanging, size)
		var ids []message.ID
		for _, s := range l.Hanging.Steps {
			ids = append(ids, s.ID)
		}
		assert.Contains(t, ids, step, size)
		assert.Contains(t, ids, message.ID("hang.arris"))
	}
}
