package plan

import (
	"os"
	"path/filepath"
	"strconv"
	"strings"
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
	"kindmargin/core/survey"
)

// careful is an old opening read as a careful person would: five widths, three
// heights, plumb, level (the head's both ways round), straight, a diagonal, and square in both corners.
func careful() job.Opening {
	o := square()
	o.Walls, o.Readings, o.Cut.LeaveOn = job.Old, nil, job.WhenSure
	o.Cut.Registration, o.Cut.Ends = job.ByRule, job.ByRule
	for i, r := range []survey.Reading{
		{Kind: survey.Width, At: mm(200), Value: mm(826)},
		{Kind: survey.Width, At: mm(600), Value: mm(826.5)},
		{Kind: survey.Width, At: mm(1000), Value: mm(827)},
		{Kind: survey.Width, At: mm(1400), Value: mm(827)},
		{Kind: survey.Width, At: mm(1800), Value: mm(827.5)},
		{Kind: survey.Height, At: mm(50), Value: mm(2032)},
		{Kind: survey.Height, At: mm(770), Value: mm(2031)},
		{Kind: survey.Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200), Value: mm(1)},
		{Kind: survey.Plumb, Side: frame.Lock, At: mm(1800), From: mm(200), Value: mm(-2.5)},
		{Kind: survey.Level, Side: frame.Head, At: mm(770), From: mm(50), Value: mm(-1)},
		{Kind: survey.Level, Side: frame.Foot, At: mm(770), From: mm(50), Value: mm(0)},
		{Kind: survey.Straight, Side: frame.Hinge, At: mm(1000), From: mm(200), To: mm(1800), Value: mm(0.5)},
		{Kind: survey.Straight, Side: frame.Lock, At: mm(1000), From: mm(200), To: mm(1800), Value: mm(0)},
		{Kind: survey.Square, Side: frame.Hinge, At: mm(600), Value: mm(-0.5)},
		{Kind: survey.Height, At: mm(400), Value: mm(2031.5)},
		{Kind: survey.Square, Side: frame.Lock, At: mm(600), Value: mm(0)},
		{Kind: survey.Level, Side: frame.Head, At: mm(770), From: mm(50), Turned: true, Value: mm(-1)},
		{Kind: survey.Diagonal, Side: frame.Lock, Value: mm(2193)},
		{Kind: survey.Diagonal, Side: frame.Hinge, Value: mm(2193)},
		{Kind: survey.Straight, Side: frame.Hinge, At: mm(1400), From: mm(200), To: mm(1850)},
	} {
		r.ID = "r" + string(rune('a'+i))
		o.Readings = append(o.Readings, r)
	}
	return o
}

func stateOf(p Plan, s job.Step) Progress {
	for _, n := range p.Steps {
		if n.Step == s {
			return n
		}
	}
	return Progress{}
}

func said(p Plan, w site.Gravity, text string) bool {
	return find(p, w, text) != nil
}

func TestWhileReadingsClashNothingIsReady(t *testing.T) {
	o := careful()
	sound := Solve(house, o)
	require.Empty(t, sound.Clashes)
	require.Equal(t, message.ID("step-open.cut"), stateOf(sound, job.StepCut).Says, "%v", sound.Findings)

	o.Readings[2].Value += mm(10)
	p := Solve(house, o)
	require.Len(t, p.Clashes, 1)
	assert.Equal(t, o.Readings[2].ID, p.Clashes[0].Reading.ID)
	assert.Contains(t, text(p.Clashes[0].Finding), "misread by 10 mm")
	for _, step := range job.Steps[1:] {
		n := stateOf(p, step)
		assert.Equal(t, Waits, n.State, "%v", step)
		assert.Equal(t, message.ID("step-now.clash"), n.Says)
	}
	assert.Equal(t, job.StepMeasure, p.Next)

	// The plan without it stands beside, ready, and is nearly that of the sound one.
	require.Len(t, p.Without, 1)
	without := p.Without[0]
	assert.Equal(t, o.Readings[2].ID, without.Reading.ID)
	assert.Equal(t, message.ID("step-open.cut"), stateOf(*without.Plan, job.StepCut).Says)
	for c := range without.Plan.Leaves[0].Cut.InOrder() {
		for k, m := range c.Marks {
			assert.InDelta(
				t, sound.Leaves[0].Cut.Edges[c.Side].Marks[k].Depth.Value.MM(), m.Depth.Value.MM(), 1.5, "%v", c.Side,
			)
		}
	}
}

func TestTwoValuesChangedRoundAreSettledByChangingThemBack(t *testing.T) {
	o := careful()
	o.Readings[0].Value, o.Readings[4].Value = mm(820), mm(834)
	o.Readings[1].Value, o.Readings[2].Value, o.Readings[3].Value = mm(823.5), mm(827), mm(830.5)
	o.Readings[8].Value = mm(-13)
	require.Empty(t, Solve(house, o).Clashes)
	o.Readings[0].Value, o.Readings[4].Value = o.Readings[4].Value, o.Readings[0].Value
	p := Solve(house, o)
	require.NotEmpty(t, p.Clashes)
	require.NotNil(t, p.Clashes[0].Swapped, "%v", text(p.Clashes[0].Finding))
	assert.Contains(
		t, text(p.Clashes[0].Finding), "The width, 200 mm up (834 mm) and the width, 1800 mm up (820 mm) look swapped.",
	)
	assert.Empty(t, p.Without[0].Plan.Clashes)
}

func TestAHeadThatNobodyHeldASquareToIsNotCut(t *testing.T) {
	o := careful()
	var few []survey.Reading
	for _, r := range o.Readings {
		if r.Kind == survey.Width || r.Kind == survey.Height {
			few = append(few, r)
		}
	}
	o.Readings = few
	p := Solve(house, o)
	require.True(t, said(p, site.Stop, " before you cut"), "%v", p.Findings)
	assert.Equal(t, message.ID("step-now.wrong"), stateOf(p, job.StepCut).Says)
	require.NotEmpty(t, p.ToRead)
	waits := find(p, site.Stop, "at the lock corner. That leaves").Args["reading"].(survey.Reading)
	assert.Contains(t, []survey.Kind{survey.Square, survey.Level, survey.Plumb}, waits.Kind)

	o.Cut.Knowing = true
	p = Solve(house, o)
	assert.False(t, said(p, site.Stop, " before you cut"))
	assert.True(t, said(p, site.Care, "You are cutting without the "))
	assert.Equal(t, message.ID("step-open.cut"), stateOf(p, job.StepCut).Says)

	o.Cut.Knowing = false
	for n := 1; said(p, site.Stop, "at the lock corner. That leaves") || n == 1; n++ {
		require.LessOrEqual(t, n, 3, "two or three readings settle it: %v", p.Findings)
		waits.ID = "asked" + strconv.Itoa(n)
		o.Readings = append(o.Readings, waits)
		p = Solve(house, o)
		if f := find(p, site.Stop, "at the lock corner. That leaves"); f != nil {
			waits = f.Args["reading"].(survey.Reading)
		}
	}
}

func TestTheFootsLeaveOnIsNotGivenAwayUnsaid(t *testing.T) {
	o := careful()
	o.Slab.Length = mm(2025) // hardly longer than the finished slab
	p := Solve(house, o)
	require.NotNil(t, p.Leaves[0].Cut)
	assert.True(
		t, said(p, site.Care, " on at the bottom: ") || said(p, site.Care, " on at the top: "), "%v", p.Findings,
	)
}

// A bore 965 below the slab's top and a strike 1041 below the head: the latch is
// marked where the hole is, or the slab is laid so that they meet, or it stops.
func TestABoreThatIsThereRules(t *testing.T) {
	o := square()
	o.Slab.Length, o.Slab.Handle, o.Slab.Machined = mm(2060), mm(1020), []frame.Side{frame.Lock}
	o.Lock.From, o.Lock.Strike = lock.FromStrike, mm(1000)
	o.Cut.Registration, o.Cut.Ends = job.ByRule, job.ByRule
	p := Solve(house, o)
	require.NotNil(t, p.Leaves[0].Latch)
	// 3 of margin: the latch lies 997 below the finished head, 23 come off it.
	assert.InDelta(t, 23, p.Leaves[0].Cut.Edges[frame.Head].Marks[2].Depth.Value.MM(), 0.6)
	assert.InDelta(t, p.Leaves[0].Latch.Jamb.Value.MM(), p.Leaves[0].Latch.Slab.Value.MM()+3, 0.6)
	assert.False(t, said(p, site.Stop, "so the latch would miss it"))

	o.Slab.Handle = mm(900) // above the strike: nothing that comes off brings it down
	p = Solve(house, o)
	assert.True(t, said(p, site.Stop, "above the keep that is there, so the latch would miss it"), "%v", p.Findings)

	o.Lock.From = lock.FromHandle
	o.Slab.Handle = mm(1020)
	p = Solve(house, o)
	require.NotNil(t, p.Leaves[0].Latch)
	final := 1020 - p.Leaves[0].Cut.Edges[frame.Head].Marks[2].Depth.Value.MM()
	assert.InDelta(
		t, final, p.Leaves[0].Latch.Slab.Value.MM(), 0.6, "where the hole is, whatever handle height was chosen",
	)
	assert.InDelta(t, final+3, p.Leaves[0].Latch.Jamb.Value.MM(), 0.6)
}

func TestMarksAndChecksAgree(t *testing.T) {
	for _, tape := range []measure.Tape{measure.HalfMillimetre, measure.Sixteenths} {
		j := house
		j.Unit, j.Tape = tape.Unit(), tape
		for _, edge := range []job.Shape{job.Straight, job.Scribed} {
			o := careful()
			o.Slab.Width = 33 * measure.Inch
			o.Readings[2].Value, o.Readings[12].Value = mm(830.5), mm(3) // the lock jamb bellies out
			o.Cut.LockEdge = edge
			p := Solve(j, o)
			require.NotNil(t, p.Leaves[0].Cut)
			for i, k := range []int{0, 2, 4} {
				hinge, lock := p.Leaves[0].Cut.Edges[frame.Hinge].Marks[k].Depth.Value, p.Leaves[0].Cut.Edges[frame.Lock].Marks[k].Depth.Value
				assert.Equal(
					t, o.Slab.Width-hinge-lock, p.Leaves[0].Cut.Width[i].Value,
					"%v %s: cut to the check, it is cut to the marks", tape, edge,
				)
			}
		}
	}
}

func TestPivotsHingesAndWeights(t *testing.T) {
	o := square()
	o.Slab.Pivot = mm(20)
	p := Solve(house, o) // 18 come off the hinge edge
	assert.True(t, said(p, site.Stop, "the wood splits"), "%v", p.Findings)
	o.Slab.Pivot = mm(45)
	assert.True(t, said(Solve(house, o), site.Care, "27 mm from the finished hinge edge"))

	o = square()
	o.Slab.Construction, o.Slab.Thickness = "solid", mm(73) // 838 × 2040 × 73 mm of 620 kg/m³
	o.Hinges.Count = 3
	assert.True(t, said(Solve(house, o), site.Care, "about 77 kg, over 60 kg"))
	j := house
	j.Unit, j.Tape = measure.Inches, measure.Sixteenths
	p = Solve(j, o)
	assert.True(t, said(p, site.Care, "about 171 lb, over 132 lb"), "77.4/0.45359")
	for _, f := range p.Findings {
		assert.NotContains(t, wordsOf(f, measure.Inches, measure.ThirtySeconds), " mm", "an inch job speaks in inches")
		assert.NotContains(t, wordsOf(f, measure.Inches, measure.ThirtySeconds), " kg:")
	}

	o = square()
	o.Hinges = hinge.Choice{
		From: hinge.FromPockets, Pockets: []measure.Length{mm(163), mm(1700)}, Count: 3, Leaf: mm(75), Width: mm(29),
		Plate: mm(2), Closed: mm(7),
	}
	assert.True(t, said(Solve(house, o), site.Care, "3 hinges are asked for, and the jamb has 2 recesses"))
}

// A cupboard door 43 in high is a door.
func TestALowDoorIsTaken(t *testing.T) {
	o := job.NewOpening("o", "Meter cupboard", measure.Inches)
	j := job.NewJob("j", "House", measure.Inches)
	in := func(n, d int64) measure.Length { return measure.Inch * measure.Length(n) / measure.Length(d) }
	o.Readings = []survey.Reading{
		{ID: "a", Kind: survey.Height, At: in(2, 1), Value: in(43, 1)},
	}
	require.NoError(t, o.Check())
	p := Solve(j, o)
	require.NotEmpty(t, p.ToRead)
	assert.Less(t, p.ToRead[0].Reading.At, in(43, 1), "the width is asked for inside it")
	o.Readings = append(o.Readings, survey.Reading{
		ID: "b", Kind: survey.Width, At: p.ToRead[0].Reading.At, Value: in(219, 8),
	})
	assert.NotEmpty(t, Solve(j, o).Leaves[0].Hinges)
}

// The job files that the program wrote before this form open, with the figures
// that nothing since has changed: what was read off the jamb, and the margins.
func TestJobFilesOfBeforeOpen(t *testing.T) {
	for file, want := range map[string]struct {
		doors, door int
		jamb        []measure.Length
		strike      measure.Length
		width       float64
	}{
		"tern-house-v1.job.json":    {6, 1, []measure.Length{mm(174), mm(1718)}, mm(1041), 825},
		"alder-cottage-v1.job.json": {1, 0, nil, 0, 0},
	} {
		b, err := os.ReadFile(filepath.Join("..", "job", "testdata", file))
		require.NoError(t, err)
		j, err := job.Decode(b)
		require.NoError(t, err, file)
		require.Len(t, j.Openings, want.doors)
		again, err := job.Encode(j)
		require.NoError(t, err)
		newest, err := os.ReadFile(filepath.Join("..", "job", "testdata", strings.Replace(file, "v1", "v4", 1)))
		require.NoError(t, err)
		assert.True(t, string(newest) == string(again), "written again in the newest form")
		same, err := job.Decode(newest)
		require.NoError(t, err)
		assert.Equal(t, j, same, "and read from it")
		p := Solve(j, j.Openings[want.door])
		for i, v := range want.jamb {
			assert.Equal(t, v, p.Leaves[0].Hinges[i].Jamb.Value)
		}
		if want.strike > 0 {
			assert.Equal(t, want.strike, p.Leaves[0].Latch.Jamb.Value)
			assert.InDelta(t, want.width, p.Leaves[0].Finished.Width.Value.MM(), 1.5, "within the ± of before")
			assert.Equal(t, mm(6), p.Leaves[0].Wanted[frame.Foot].Value)
			assert.Equal(
				t, Done, stateOf(Solve(j, j.Openings[1]), job.StepMeasure).State, "what was finished stays finished",
			)
		}
	}
}

func TestEachMarkFollowsWhatItHangsOn(t *testing.T) {
	o := careful()
	mark := func(o job.Opening, s job.Step) string { return stateOf(Solve(house, o), s).Mark }
	with := o
	with.Offers = []survey.Offer{{ID: "d", Name: "old door", Width: mm(820), Length: mm(2020), Old: true}}
	assert.NotEqual(t, mark(o, job.StepMeasure), mark(with, job.StepMeasure), "a placing")
	with = o
	with.Walls = job.New
	assert.NotEqual(t, mark(o, job.StepMeasure), mark(with, job.StepMeasure), "what is believed of the opening")
	limits := o.Slab.Limits
	one, other := *limits.Head, *limits.Head
	a, b := o, o
	a.Slab.Limits.Head, b.Slab.Limits.Head = &one, &other
	assert.Equal(t, mark(a, job.StepSlab), mark(b, job.StepSlab), "the same limits, read twice")
}

// Two figures that read alike never stand against each other: what is too much is
// said to more places than the tape has.
func TestWhatIsTooMuchIsNeverSaidAgainstItself(t *testing.T) {
	j := house
	j.Unit, j.Tape = measure.Inches, measure.ThirtySeconds
	o := square()
	o.Cut.Registration, o.Cut.Ends = job.ByRule, job.ByRule
	ten := mm(10.1) // 13/32 in, and so is 10.4
	none := measure.Length(0)
	o.Slab.Width = mm(830.4)
	o.Slab.Limits.Hinge, o.Slab.Limits.Lock = &ten, &none
	p := Solve(j, o)
	assert.True(t, said(p, site.Stop, "1/64 in more than may come off"), "%v", p.Findings)
	o.Hinges.Plate = mm(2.3)
	assert.Equal(t, mm(2.3), Solve(house, o).Leaves[0].Gauges.Depth.Value, "a gauge is set to the leaf, never deeper")
}
