package plan

import (
	"fmt"
	"reflect"
	"runtime"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/slab"
	"kindmargin/core/stage/cuts"
	"kindmargin/core/stage/slabs"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/words"
)

func mm(v float64) measure.Length { return measure.FromMM(v) }

var house = job.NewJob("h", "House", measure.Millimetres)

// square is an opening 826 by 2032, read well and often enough in a new
// frame that the figures are those of plain geometry.
func square() job.Opening {
	o := job.NewOpening("o", "Study", measure.Millimetres)
	o.Walls = job.New
	o.Slab = slab.Slab{Width: mm(838), Length: mm(2040), Thickness: mm(35)}
	read := func(r survey.Reading) {
		for range 6 {
			r.ID = fmt.Sprintf("r%d", len(o.Readings))
			o.Readings = append(o.Readings, r)
		}
	}
	for _, at := range []float64{200, 600, 1000, 1400, 1800} {
		read(survey.Reading{Kind: survey.Width, At: mm(at), Value: mm(826)})
	}
	read(survey.Reading{Kind: survey.Height, At: mm(50), Value: mm(2032)})
	read(survey.Reading{Kind: survey.Height, At: mm(400), Value: mm(2032)})
	read(survey.Reading{Kind: survey.Height, At: mm(770), Value: mm(2032)})
	read(survey.Reading{Kind: survey.Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200)})
	read(survey.Reading{Kind: survey.Plumb, Side: frame.Lock, At: mm(1800), From: mm(200)})
	read(survey.Reading{Kind: survey.Level, Side: frame.Head, At: mm(770), From: mm(50)})
	read(survey.Reading{Kind: survey.Level, Side: frame.Foot, At: mm(770), From: mm(50)})
	o.Cut = job.Cut{Registration: "keep-lock", Ends: "keep-head", LeaveOn: job.ToLine}
	// The maker lets more come off than is usual.
	most := mm(30)
	o.Slab.Limits = slab.Limits{Head: &most, Hinge: &most, Lock: &most, Foot: &most}
	return o
}

func depths(e cuts.Edge) (mm []float64) {
	for _, m := range e.Marks {
		mm = append(mm, m.Depth.Value.MM())
	}
	return mm
}

// Common practice, by hand: longest width less two margins; floor to head
// less head and foot margins; hinges by rule and 3 mm further down on the
// jamb; latch on the centre of the thickness, spindle at its backset.
func TestSquareOpening(t *testing.T) {
	p := Solve(house, square())
	var order []frame.Side
	for e := range p.Leaves[0].Cut.InOrder() {
		order = append(order, e.Side)
	}
	assert.Equal(t, []frame.Side{frame.Head, frame.Hinge, frame.Lock, frame.Foot}, order, "head first, foot last")
	step := 0.51 // cuts are rounded down to the half millimetre
	assert.InDeltaSlice(t, []float64{0, 0, 0}, depths(p.Leaves[0].Cut.Edges[frame.Head]), 0.01)
	assert.InDeltaSlice(t, []float64{18, 18, 18, 18, 18}, depths(p.Leaves[0].Cut.Edges[frame.Hinge]), step)
	assert.InDeltaSlice(t, []float64{0, 0, 0, 0, 0}, depths(p.Leaves[0].Cut.Edges[frame.Lock]), 0.01)
	assert.InDeltaSlice(t, []float64{17, 17, 17}, depths(p.Leaves[0].Cut.Edges[frame.Foot]), step)
	for _, d := range append(depths(p.Leaves[0].Cut.Edges[frame.Hinge]), depths(p.Leaves[0].Cut.Edges[frame.Foot])...) {
		assert.LessOrEqual(t, d, 18.0, "never more than the line")
	}
	assert.InDelta(t, 820, p.Leaves[0].Finished.Width.Value.MM(), 0.51)
	assert.InDelta(t, 2023, p.Leaves[0].Finished.Length.Value.MM(), 0.51)
	require.Len(t, p.Leaves[0].Hinges, 2)
	assert.Equal(t, mm(150), p.Leaves[0].Hinges[0].Slab.Value)
	assert.Equal(t, mm(153), p.Leaves[0].Hinges[0].Jamb.Value)
	assert.InDelta(t, 2023-225-75, p.Leaves[0].Hinges[1].Slab.Value.MM(), 0.51)
	assert.Equal(t, mm(3), p.Leaves[0].Hinges[1].Jamb.Value-p.Leaves[0].Hinges[1].Slab.Value)
	assert.Zero(t, p.Leaves[0].Hinges[0].Pack.Value)
	require.NotNil(t, p.Leaves[0].Latch)
	assert.InDelta(t, 1032-3, p.Leaves[0].Latch.Slab.Value.MM(), 0.51)
	assert.Equal(t, mm(3), p.Leaves[0].Latch.Jamb.Value-p.Leaves[0].Latch.Slab.Value)
	assert.Equal(t, mm(17.5), p.Leaves[0].Latch.Centre.Value)
	assert.Equal(t, mm(60), p.Leaves[0].Latch.Backset.Value)
	g := p.Leaves[0].Gauges
	assert.Equal(t, [3]measure.Length{mm(2), mm(29), mm(6)}, [3]measure.Length{
		g.Depth.Value, g.Width.Value, g.Setback.Value,
	})
	assert.Empty(t, p.Findings)
	assert.Empty(t, p.ToRead)
	assert.Equal(t, job.StepMeasure, p.Next)
}

// figures finds every figure in a plan, whatever field it hangs on.
func figures(v reflect.Value, path string, visit func(string, figure.Figure)) {
	switch v.Kind() {
	case reflect.Struct:
		if f, ok := v.Interface().(figure.Figure); ok {
			visit(path, f)
			return
		}
		for i := range v.NumField() {
			figures(v.Field(i), path+"."+v.Type().Field(i).Name, visit)
		}
	case reflect.Slice, reflect.Array:
		for i := range v.Len() {
			figures(v.Index(i), fmt.Sprintf("%s[%d]", path, i), visit)
		}
	case reflect.Pointer:
		if !v.IsNil() {
			figures(v.Elem(), path, visit)
		}
	}
}

func drawOpening(t *rapid.T, j job.Job) job.Opening {
	o := job.NewOpening("o", "Any", j.Unit)
	around := func(name string, middle, by float64) measure.Length {
		return mm(middle+by*float64(rapid.IntRange(-20, 20).Draw(t, name))/20).Round(j.Tape.Step(), measure.Nearest)
	}
	w, h := around("w", 800, 150), around("h", 2000, 80)
	for i, r := range []survey.Reading{
		{Kind: survey.Width, At: mm(200), Value: w + around("w1", 0, 6)},
		{Kind: survey.Width, At: mm(1000), Value: w},
		{Kind: survey.Width, At: mm(1800), Value: w + around("w3", 0, 6)},
		{Kind: survey.Height, At: mm(50), Value: h},
		{Kind: survey.Height, At: mm(500), Value: h + around("h2", 0, 6)},
		{Kind: survey.Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200), Value: around("p", 0, 8)},
		{Kind: survey.Level, Side: frame.Head, At: mm(500), From: mm(50), Value: around("l", 0, 5)},
	}[:rapid.IntRange(0, 7).Draw(t, "readings")] {
		r.ID = fmt.Sprint(i)
		o.Readings = append(o.Readings, r)
	}
	o.Slab = slab.Slab{Width: w + around("sw", 15, 25), Length: h + around("sl", 15, 25), Thickness: mm(35)}
	o.Cut.Registration = rapid.SampledFrom(job.Registrations).Draw(t, "registration")
	o.Cut.Ends = rapid.SampledFrom(job.Ends).Draw(t, "ends")
	o.Slab.Construction = rapid.SampledFrom(trade.Constructions).Draw(t, "construction").ID
	o.Cut.LeaveOn = rapid.SampledFrom(job.Habits).Draw(t, "habit")
	if rapid.Bool().Draw(t, "pockets") {
		o.Hinges.From, o.Hinges.Pockets = hinge.FromPockets, []measure.Length{mm(163), mm(1600)}
	}
	if rapid.Bool().Draw(t, "strike") {
		o.Lock.From, o.Lock.Strike = lock.FromStrike, mm(1030)
	}
	return o
}

func TestEveryFigureAddsUpAndNoCutGoesBelowNought(t *testing.T) {
	jobs := []job.Job{house, job.NewJob("i", "Inches", measure.Inches)}
	rapid.Check(t, func(t *rapid.T) {
		j := rapid.SampledFrom(jobs).Draw(t, "job")
		j.Tape = rapid.SampledFrom(measure.Tapes(j.Unit)).Draw(t, "tape")
		o := drawOpening(t, j)
		require.NoError(t, o.Check())
		p := Solve(j, o)
		seen := 0
		figures(reflect.ValueOf(p), "", func(path string, f figure.Figure) {
			if f.Terms == nil && f.Value == 0 {
				return // not worked out: something is missing
			}
			seen++
			var sum measure.Length
			for _, term := range f.Terms {
				sum += term.Value
				if term.Source == figure.Rounding {
					// A cut is rounded from what its terms were before they were shown.
					require.Less(
						t, term.Value.Abs(), j.Tape.Step()+measure.Length(len(f.Terms))*figure.Quantum(j.Unit), path,
					)
				}
			}
			require.Equal(t, f.Value, sum, path)
		})
		require.Positive(t, seen)
		sheet := p.Leaves[0].Cut
		if sheet == nil {
			sheet = &cuts.List{}
		}
		for c := range sheet.InOrder() {
			for _, m := range c.Marks {
				require.GreaterOrEqual(t, m.Depth.Value, measure.Length(0))
				require.Zero(t, m.Depth.Value%j.Tape.Step(), "a cut falls on a mark of the tape")
			}
		}
		if len(p.Leaves[0].Hinges) > 0 {
			m := p.Leaves[0].Hinges[0].Jamb.Value - p.Leaves[0].Hinges[0].Slab.Value
			for _, h := range p.Leaves[0].Hinges {
				require.Equal(t, m, h.Jamb.Value-h.Slab.Value, "slab and jamb marks differ by one margin")
			}
			require.Zero(t, m%j.Tape.Step())
		}
	})
}

// 838 × 2040 × 35 mm at 620 kg/m³ is 37.1 kg (by hand).
func TestWhichToBuy(t *testing.T) {
	o := square()
	o.Slab = slab.Slab{Construction: "flush"}
	list := Buy(house, o, 0)
	require.NotEmpty(t, list)
	var best []slabs.StockFit
	for _, f := range list {
		if f.Best {
			best = append(best, f)
		}
		assert.Equal(t, f.Why.Code == "", f.Fits, "what falls out says why")
	}
	// A slab of 820 by 2023 is wanted. Of the metric sizes 826 × 2040 loses 6
	// and 17; 838 × 2032 loses 18 off the width, 10 from an edge and 8 from the
	// other.
	require.Len(t, best, 1)
	assert.Equal(t, mm(826), best[0].Width)
	assert.Equal(t, mm(2040), best[0].Length)
	assert.True(t, list[0].Best, "the one to buy stands first")
	for _, f := range list {
		switch {
		case f.Width == mm(813):
			assert.Contains(t, text(f.Why), "Too narrow by 7 mm.")
		case f.Width == mm(838) && f.Length == mm(1981):
			assert.Contains(t, text(f.Why), "Too short by 42 mm.")
		case f.Width == mm(914) && f.Length == mm(2032):
			assert.Contains(t, text(f.Why), "would lose 47 mm, 37 mm more than may come off")
		}
	}
	o.Readings = nil
	assert.Empty(t, Buy(house, o, 0), "no answer without readings")
}

// The hinge edge is fitted before the head where that is the school; no figure changes, and no finished step.
func TestTheHingeEdgeMayComeFirst(t *testing.T) {
	o, j := square(), house
	order := func() (sides []frame.Side) {
		for e := range Solve(j, o).Leaves[0].Cut.InOrder() {
			sides = append(sides, e.Side)
		}
		return sides
	}
	assert.Equal(t, []frame.Side{frame.Head, frame.Hinge, frame.Lock, frame.Foot}, order())
	head := Solve(j, o)
	j.Kit.HingeFirst = true
	assert.Equal(t, []frame.Side{frame.Hinge, frame.Head, frame.Lock, frame.Foot}, order())
	hinge := Solve(j, o)
	assert.Equal(t, head.Leaves[0].Cut.Edges, hinge.Leaves[0].Cut.Edges)
	assert.Equal(t, progressOf(t, head, job.StepCut).Mark, progressOf(t, hinge, job.StepCut).Mark)
}

func TestByRuleSaysWhatDecided(t *testing.T) {
	o := square()
	o.Cut.Registration, o.Cut.Ends = job.ByRule, job.ByRule
	o.Slab.Limits, o.Slab.Construction = slab.Limits{}, "hollow"
	p := Solve(house, o)
	assert.Equal(
		t, fit.Laying{Across: fit.EvenStiles, Along: fit.EvenEnds}, p.Leaves[0].Cut.Laying,
		"18 off, and only 10 from either edge, 17 off, and only 15 from either end, before it is open",
	)
	assert.Contains(t, p.Leaves[0].Cut.Rules, message.ID("rule.inserts"))
	o.Cut.Registration, o.Cut.Ends = "keep-lock", "keep-head"
	assert.Empty(t, Solve(house, o).Leaves[0].Cut.Rules, "forced")
}

// The slab itself stood in the opening on wedges, 1 clear of the hinge jamb, 3
// of the lock jamb, 2 of the head and 10 of the floor: what each lacks of its
// margin comes off.
func TestAsOfferedUp(t *testing.T) {
	o := square()
	o.Slab.Width, o.Slab.Length = mm(822), mm(2020)
	o.Offers = []survey.Offer{{ID: "s", Name: "the slab", Width: mm(822), Length: mm(2020)}}
	o.Cut.Registration = fit.AsOffered
	assert.NotNil(t, find(Solve(house, o), site.Stop, "Stand it in the opening and read some"))
	for i, at := range []float64{200, 1000, 1800} {
		o.Readings = append(
			o.Readings,
			survey.Reading{
				ID: fmt.Sprint("h", i), Kind: survey.Gap, Offer: "s", Side: frame.Hinge, At: mm(at), Value: mm(1),
			},
			survey.Reading{
				ID: fmt.Sprint("l", i), Kind: survey.Gap, Offer: "s", Side: frame.Lock, At: mm(at), Value: mm(3),
			},
			survey.Reading{
				ID: fmt.Sprint("t", i), Kind: survey.Gap, Offer: "s", Side: frame.Head, At: mm(at / 3), Value: mm(2),
			},
			survey.Reading{
				ID: fmt.Sprint("f", i), Kind: survey.Gap, Offer: "s", Side: frame.Foot, At: mm(at / 3), Value: mm(10),
			},
		)
	}
	require.NoError(t, o.Check())
	p := Solve(house, o)
	assert.Equal(t, fit.AsOffered, p.Leaves[0].Cut.Laying.Across)
	// head 3 − 2; hinge 3 − 1; lock 3 − 3; foot: 10 clear, 6 wanted
	want := frame.Each[float64]{frame.Head: 1, frame.Hinge: 2}
	for _, side := range frame.Sides {
		assert.InDelta(t, want[side], p.Leaves[0].Cut.Edges[side].Marks[1].Depth.Value.MM(), 0.51, "%v", side)
	}
	assert.Len(t, p.Leaves[0].Cut.Others, 10)
}

// A folding door's pivot, 38 from the hinge edge: 18 come off that edge, so the
// hole goes 20 from it.
func TestThePivotIsDrilledAgain(t *testing.T) {
	o := square()
	o.Slab.Pivot = mm(38)
	f := find(Solve(house, o), site.Care, "offcut of the bottom")
	require.NotNil(t, f)
	assert.Contains(t, text(*f), "20 mm from the finished hinge edge")
}

// Paint of 0.5 goes to head, hinge and lock; a floor of 8 to the foot: 825 − 6
// is 819 wide, less the paint twice; 2032 − 3.5 − 14 long.
func TestWhatIsStillToCome(t *testing.T) {
	o := square()
	o.Margins.Paint, o.Margins.Floor = mm(0.5), mm(8)
	p := Solve(house, o)
	assert.Equal(t, mm(3.5), p.Leaves[0].Wanted[frame.Head].Value)
	assert.Equal(t, mm(14), p.Leaves[0].Wanted[frame.Foot].Value)
	assert.InDelta(t, 819, p.Leaves[0].Finished.Width.Value.MM(), 0.51)
	assert.InDelta(t, 2014.5, p.Leaves[0].Finished.Length.Value.MM(), 0.51)
	// Common practice: first height cut with a sweep, floor to head less 1/2 in.
	o = square()
	o.Margins.Sweep = true
	p = Solve(house, o)
	assert.InDelta(t, 2032-12.7, p.Leaves[0].Finished.Length.Value.MM(), 0.51)
	assert.NotNil(t, find(p, site.Note, "Cut the bottom twice"))
	o.Margins.Paint, o.Margins.Floor = mm(5), mm(-1)
	err := o.Check()
	assert.ErrorContains(t, err, "/margins/paint")
	assert.ErrorContains(t, err, "/margins/floor")
}

// The old door, 815 by 2015, hung with 3 at the hinge, 8 at the lock, 5 at
// head and 12 under: 838 − 815 and 2040 − 2015 come off to copy it; the new
// one should be 5 wider and 8 longer.
func TestCopyTheOldDoor(t *testing.T) {
	o := square()
	o.Readings = nil
	o.Offers = []survey.Offer{{ID: "o1", Name: "the one that hung here", Width: mm(815), Length: mm(2015), Old: true}}
	gap := func(side frame.Side, at, v float64) {
		o.Readings = append(o.Readings, survey.Reading{
			ID: fmt.Sprint(len(o.Readings)), Kind: survey.Gap, Offer: "o1", Side: side, At: mm(at), Value: mm(v),
		})
	}
	for _, at := range []float64{100, 700, 1300, 1900} {
		gap(frame.Hinge, at, 3)
		gap(frame.Lock, at, 8)
	}
	for _, at := range []float64{50, 400, 760} {
		gap(frame.Head, at, 5)
		gap(frame.Foot, at, 12)
	}
	require.NoError(t, o.Check())
	p := Solve(house, o)
	f := find(p, site.Note, "Copying the one that hung here")
	require.NotNil(t, f, "%v", p.Findings)
	assert.Contains(
		t, text(*f),
		"Copying the one that hung here, flush at the top and the lock edge, takes 23 mm off the hinge edge and 25 "+
			"mm off the bottom.",
	)
	assert.Contains(
		t, text(*f),
		"By its gaps the new one should be, at the top, 5 mm wider; at the bottom, 5 mm wider; in length, 8 mm longer.",
	)
	assert.Equal(
		t, mm(1029), p.Leaves[0].Latch.Slab.Value.Round(mm(1), measure.Nearest), "the gaps alone give latch marks",
	)
}

// A pair in 826: 4 between the leaves, 3 at each jamb: 408 each. The slab on
// the hinge jamb loses 2, the other 12, from the edge by its own jamb.
func TestPair(t *testing.T) {
	o := square()
	o.Slab.Width = mm(410)
	o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(4), Fixed: frame.Lock}
	o.Pair.Slab.Width = mm(420)
	require.NoError(t, o.Check())
	p := Solve(house, o)
	require.Len(t, p.Leaves, 2)
	assert.InDelta(t, 408, p.Leaves[0].Finished.Width.Value.MM(), 0.51)
	assert.InDelta(t, 2, p.Leaves[0].Cut.Edges[frame.Hinge].Marks[2].Depth.Value.MM(), 0.51)
	assert.InDelta(t, 12, p.Leaves[1].Cut.Edges[frame.Hinge].Marks[2].Depth.Value.MM(), 0.51)
	assert.NotNil(t, p.Leaves[0].Latch, "the first leaf has the latch")
	assert.Nil(t, p.Leaves[1].Latch, "the bolted one carries the strike")
	assert.Equal(t, p.Leaves[0].Hinges[0].Slab.Value, p.Leaves[1].Hinges[0].Slab.Value)

	o.Pair.Slab.Width = mm(400)
	p = Solve(house, o)
	f := find(p, site.Stop, "too narrow")
	if assert.NotNil(t, f) {
		assert.Equal(t, "/pair/slab/width", f.Pointer)
	}
	assert.Equal(t, message.ID("step-now.wrong"), p.Steps[1].Says, "a step is for both leaves")
	o.Pair.Fixed = frame.Head
	assert.ErrorContains(t, o.Check(), "/pair/fixed")
}

// The three ways of laying the slab take the same off in all, to the tape.
func TestAlternativesTakeTheSameInAll(t *testing.T) {
	o := square()
	o.Cut.Registration = fit.EvenStiles
	o.Cut.Ends = fit.KeepHead
	p := Solve(house, o)
	require.Len(t, p.Leaves[0].Cut.Others, 9)
	for _, a := range p.Leaves[0].Cut.Others {
		assert.InDelta(t, 18, (a.Hinge[0] + a.Lock[0]).MM(), 1.01, "%v", a.Laying)
		assert.InDelta(t, 17, (a.Head + a.Foot).MM(), 1.01, "%v", a.Laying)
		assert.Equal(t, a.Laying == fit.Laying{Across: fit.EvenStiles, Along: fit.KeepHead}, a.Chosen)
	}
	assert.InDelta(
		t, p.Leaves[0].Cut.Edges[frame.Hinge].Marks[2].Depth.Value.MM(),
		p.Leaves[0].Cut.Edges[frame.Lock].Marks[2].Depth.Value.MM(), 0.51, "even",
	)
}

func text(f site.Finding) string { return wordsOf(f, house.Unit, house.Tape) }

// saying is a message in the house's words.
func saying(m message.Message) string {
	return words.In(house.Speaks(), house.Unit, house.Tape).Say(m)
}

// all are messages in words, one after the other.
func all(list []message.Message, between string) string {
	said := make([]string, len(list))
	for i, m := range list {
		said[i] = saying(m)
	}
	return strings.Join(said, between)
}

// wordsOf is a finding in the English that goes with a unit.
func wordsOf(f site.Finding, u measure.Unit, tape measure.Tape) string {
	return words.In(job.Job{Unit: u}.Speaks(), u, tape).Say(f.Message())
}

func find(p Plan, w site.Gravity, says string) *site.Finding {
	for _, f := range p.All() {
		inInches := wordsOf(f, measure.Inches, measure.ThirtySeconds)
		if f.Gravity == w && (strings.Contains(text(f), says) || strings.Contains(inInches, says)) {
			return &f
		}
	}
	return nil
}

func TestWhatIsMissingOrClashesIsSaid(t *testing.T) {
	cases := []struct {
		name    string
		change  func(*job.Opening)
		gravity site.Gravity
		says    string
		pointer string
	}{
		{"no width", func(o *job.Opening) { o.Readings = o.Readings[30:36] }, site.Note, "Take a width first", ""},
		{
			"no height", func(o *job.Opening) { o.Readings = o.Readings[:5] }, site.Note,
			"Take a height from the floor to the head", "",
		},
		{
			"misread width", func(o *job.Opening) { o.Readings[7].Value += mm(10) }, site.Stop,
			"reads 836 mm, but the others say about 826 mm. Perhaps the tape was misread by 10 mm", "/readings/7/value",
		},
		{
			"reading outside", func(o *job.Opening) { o.Readings[7].At = mm(2500) }, site.Stop,
			"lies outside the opening", "/readings/7/at",
		},
		{
			"slab not measured", func(o *job.Opening) { o.Slab = slab.Slab{} }, site.Care,
			"Measure the slab's width, length and thickness.", "/slab/width",
		},
		{"narrow slab", func(o *job.Opening) { o.Slab.Width = mm(813) }, site.Stop, "too narrow", "/slab/width"},
		{"short slab", func(o *job.Opening) { o.Slab.Length = mm(2010) }, site.Stop, "too short", "/slab/length"},
		{
			"no pockets given", func(o *job.Opening) { o.Hinges.From = hinge.FromPockets }, site.Stop, "recesses",
			"/hinges/pockets",
		},
		{
			"no strike given", func(o *job.Opening) { o.Lock.From = lock.FromStrike }, site.Stop,
			"Measure the old keep: from the head to its centre, on the lock jamb.", "/lock/strike",
		},
		{
			"low handle", func(o *job.Opening) { o.Lock.Handle = mm(850) }, site.Note, "850 mm above the floor",
			"/lock/handle",
		},
		{
			"wide bore", func(o *job.Opening) { o.Lock.Bore = mm(28) }, site.Care, "leaves 3.5 mm each side",
			"/lock/bore",
		},
		{
			"wide leaf", func(o *job.Opening) { o.Hinges.Width = mm(34) }, site.Care, "Only 1 mm of wood",
			"/hinges/width",
		},
		{
			"margin under least", func(o *job.Opening) { one := mm(1); o.Margins.Lock = &one }, site.Care,
			"but the least margin is set to", "/margins/least",
		},
		{
			"more than the edge allows", func(o *job.Opening) { o.Slab.Limits = slab.Limits{} }, site.Stop,
			"would lose 18 mm: 8 mm more than may come off", "/slab/limits/hinge",
		},
		{
			"a pocketed edge forced", func(o *job.Opening) { o.Slab.Machined = []frame.Side{frame.Hinge} }, site.Stop,
			"is bored or recessed and would lose", "/slab/machined",
		},
		{
			"rated", func(o *job.Opening) { o.Slab.Construction = "rated" }, site.Stop, "never ready by itself",
			"/slab/construction",
		},
		{
			"hollow past its rail", func(o *job.Opening) { o.Slab.Construction, o.Slab.Length = "hollow", mm(2060) },
			site.Care, "a new piece 778 mm by 30 mm, 29 mm thick", "/cut/ends",
		},
		{
			"a piece that is too wide for its hollow", func(o *job.Opening) {
				o.Slab.Construction, o.Slab.Length, o.Cut.Insert.Width = "hollow", mm(2060), mm(790)
			},
			site.Stop, "An insert 790 mm wide does not go in: there is room for 778 mm.", "/cut/insert/width",
		},
		{
			"a cut into the lock block", func(o *job.Opening) {
				// the block lies from 1800 to 2100 down, and the slab ends at 2023
				o.Slab.Construction, o.Slab.Length, o.Cut.Ends = "hollow", mm(3900), "keep-head"
			},
			site.Care, "goes through the lock block: 223 mm of its 300 mm stays", "/lock/handle",
		},
		{
			"moulding that a deep cut may meet", func(o *job.Opening) {
				o.Slab.Construction, o.Slab.Length = "moulded", mm(2200)
			},
			site.Care, "Measure to the moulding first", "/slab/construction",
		},
		{
			"lock past its block", func(o *job.Opening) { o.Slab.Construction, o.Lock.Handle = "hollow", mm(1130) },
			site.Care, "misses it by", "/lock/handle",
		},
		{"heavy", func(o *job.Opening) { o.Slab.Construction = "solid" }, site.Note, "about 37 kg. Walk it on its corners", "/slab/construction"},
		{"no room", func(o *job.Opening) {
			fifteen := mm(15)
			o.Margins.Lock = &fifteen
			o.Readings = nil
			o.Slab.Width, o.Slab.Length = mm(200), mm(500)
		}, site.Stop, "do not fit an opening 500 mm high", "/hinges/pockets"},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			o := square()
			c.change(&o)
			p := Solve(house, o)
			f := find(p, c.gravity, c.says)
			if assert.NotNil(t, f, "%v", p.Findings) {
				assert.Equal(t, c.pointer, f.Pointer)
			}
			assert.Len(t, p.Steps, len(job.Steps))
			assert.NotEmpty(t, p.Leaves[0].Wanted, "what does not hang on it is still answered")
			assert.Equal(
				t, p.Leaves[0].Drawing == nil,
				c.gravity == site.Note && strings.HasPrefix(c.says, "Take a ") || len(o.Readings) == 0,
				"a door is drawn once a width and a height are read",
			)
		})
	}
}

// Each gets a named finding where one is due, and the best partial answer.
func TestWhatGoesWrongOnSite(t *testing.T) {
	reading := func(o *job.Opening, r survey.Reading) {
		r.ID = fmt.Sprintf("x%d", len(o.Readings))
		o.Readings = append(o.Readings, r)
	}
	cases := []struct {
		name    string
		change  func(*job.Opening)
		gravity site.Gravity
		says    string
	}{
		{"contradictory diagonals", func(o *job.Opening) {
			reading(o, survey.Reading{Kind: survey.Diagonal, Side: frame.Hinge, Value: mm(2193.5)})
			reading(o, survey.Reading{Kind: survey.Diagonal, Side: frame.Lock, Value: mm(2180)})
		}, site.Stop, "diagonal from the bottom of the lock jamb reads 2180 mm, but the others say about 2193.5 mm"},
		{"the same place twice, 15 apart", func(o *job.Opening) {
			o.Walls, o.Readings = job.Old, nil
			reading(o, survey.Reading{Kind: survey.Width, At: mm(1000), Value: mm(826)})
			reading(o, survey.Reading{Kind: survey.Width, At: mm(1000), Value: mm(841)})
			reading(o, survey.Reading{Kind: survey.Height, At: mm(50), Value: mm(2032)})
		}, site.Stop, "Or the width, 1000 mm up (841 mm) could be the wrong one. Read the width, 1000 mm up again"},
		{"all readings at one height", func(o *job.Opening) {
			o.Walls, o.Readings, o.Cut.LeaveOn = job.Old, nil, job.WhenSure
			for range 3 {
				reading(o, survey.Reading{Kind: survey.Width, At: mm(1000), Value: mm(826)})
			}
			reading(o, survey.Reading{Kind: survey.Height, At: mm(50), Value: mm(2032)})
		}, site.Care, "is not measured closely enough yet"},
		{"a slab out of square by more than its trims", func(o *job.Opening) {
			o.Slab.Square, o.Slab.Length, o.Slab.LengthLock = mm(-25), mm(2040), mm(2040)
		}, site.Stop, "too short"},
		{"limits that exclude every way", func(o *job.Opening) {
			none := measure.Length(0)
			o.Slab.Limits = slab.Limits{Hinge: &none, Lock: &none}
			o.Cut.Registration = job.ByRule
		}, site.Stop, "18 mm more than may come off"},
		{"no thickness", func(o *job.Opening) { o.Slab.Thickness = 0 }, site.Care, "Measure the slab's thickness."},
		{"a pair with one width", func(o *job.Opening) {
			o.Walls, o.Readings, o.Cut.LeaveOn = job.Old, nil, job.WhenSure
			reading(o, survey.Reading{Kind: survey.Width, At: mm(1000), Value: mm(826)})
			reading(o, survey.Reading{Kind: survey.Height, At: mm(50), Value: mm(2032)})
			o.Slab.Width = mm(420)
			o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(4), Fixed: frame.Lock}
		}, site.Care, "not measured closely enough"},
	}
	for _, c := range cases {
		t.Run(c.name, func(t *testing.T) {
			o := square()
			c.change(&o)
			require.NoError(t, o.Check())
			p := Solve(house, o)
			assert.NotNil(t, find(p, c.gravity, c.says), "%v", p.Findings)
			assert.NotEmpty(t, p.Leaves[0].Drawing)
			assert.NotZero(t, p.Leaves[0].Finished.Width.Value)
		})
	}
}

// A thousand readings are slow work, not a fault.
func TestAThousandReadings(t *testing.T) {
	o := square()
	for len(o.Readings) < 1000 {
		r := o.Readings[len(o.Readings)%66]
		r.ID = fmt.Sprintf("y%d", len(o.Readings))
		o.Readings = append(o.Readings, r)
	}
	require.NoError(t, o.Check())
	p := Solve(house, o)
	assert.InDelta(t, 820, p.Leaves[0].Finished.Width.Value.MM(), 0.51)
	assert.Empty(t, find(p, site.Stop, ""))
}

func TestTheRod(t *testing.T) {
	o := job.NewOpening("o", "Study", measure.Millimetres)
	p := Solve(house, o)
	states := func(p Plan) (s []State) {
		for _, n := range p.Steps {
			s = append(s, n.State)
		}
		return s
	}
	assert.Equal(t, []State{Open, Open, Waits, Waits, Waits, Waits, Waits, Waits, Waits, Waits}, states(p))
	require.Len(t, p.ToRead, 2)
	assert.True(t, p.ToRead[0].Needed)
	assert.Equal(t, "width, 1800 mm up", saying(p.ToRead[0].Reading.Title()))

	o = square()
	p = Solve(house, o)
	o.Done = map[job.Step]string{}
	for _, n := range p.Steps {
		o.Done[n.Step] = n.Mark
	}
	p = Solve(house, o)
	assert.Equal(t, []State{Done, Done, Done, Done, Done, Done, Done, Done, Done, Waits}, states(p))
	assert.Equal(t, job.StepLog, p.Next, "which waits until it hangs and fits")

	o.Slab.Width += mm(2)
	p = Solve(house, o)
	assert.Equal(
		t, []State{Done, Changed, Done, Changed, Done, Done, Done, Done, Done, Waits}, states(p),
		"a wider slab changes the slab and its cuts",
	)
	assert.Equal(t, job.StepSlab, p.Next)
}

func TestHabitsOfLeavingOn(t *testing.T) {
	o := square()
	o.Readings = append(o.Readings[:1:1], o.Readings[30]) // one width, one height
	o.Walls = job.Old
	sure := func(h job.Habit) Plan { o.Cut.LeaveOn = h; return Solve(house, o) }
	line, three, when := sure(job.ToLine), sure(job.Always3), sure(job.WhenSure)
	assert.Zero(t, line.Leaves[0].Cut.Edges[frame.Hinge].Left.Value)
	assert.Equal(
		t, mm(3), three.Leaves[0].Cut.Edges[frame.Hinge].Left.Value,
		"the lock edge is kept, so it stays on the hinge edge",
	)
	assert.Zero(t, three.Leaves[0].Cut.Edges[frame.Lock].Left.Value)
	assert.Greater(
		t, when.Leaves[0].Cut.Edges[frame.Hinge].Left.Value, mm(3), "one width is not enough to cut near the line",
	)
	assert.NotNil(t, find(when, site.Care, "not measured closely enough"))
	assert.Less(
		t, when.Leaves[0].Cut.Edges[frame.Hinge].Marks[2].Depth.Value,
		line.Leaves[0].Cut.Edges[frame.Hinge].Marks[2].Depth.Value,
	)
}

// benched is the benchmarks' opening with n readings, everything by rule, and
// so that the next reading is worked out as well.
func benched(n int) job.Opening {
	o := square()
	o.Walls = job.Old
	o.Cut = job.Cut{Registration: job.ByRule, Ends: job.ByRule, LeaveOn: job.WhenSure}
	var rs []survey.Reading
	for i := 0; i < len(o.Readings) && len(rs) < n; i += 3 {
		rs = append(rs, o.Readings[i])
	}
	for i := 1; len(rs) < n; i += 3 {
		rs = append(rs, o.Readings[i])
	}
	o.Readings = rs
	return o
}

func benchmarkSolve(b *testing.B, readings int) {
	o := benched(readings)
	require.Len(b, o.Readings, readings)
	b.ReportAllocs()
	for b.Loop() {
		Solve(house, o)
	}
}

func BenchmarkSolve20(b *testing.B) { benchmarkSolve(b, 20) }

// BenchmarkSolvePair is a pair of leaves in the opening of BenchmarkSolve30: less than
// twice a door.
func BenchmarkSolvePair(b *testing.B) {
	o := benched(30)
	o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(3), Fixed: frame.Lock}
	b.ReportAllocs()
	for b.Loop() {
		Solve(house, o)
	}
}

func BenchmarkSolve30(b *testing.B) { benchmarkSolve(b, 30) }

// A thousand openings of thirty readings, on all processors, as the walk of a
// large job would have them.
func BenchmarkThousandOpenings(b *testing.B) {
	o := benched(30)
	b.ReportAllocs()
	for b.Loop() {
		var wg sync.WaitGroup
		for range runtime.GOMAXPROCS(0) {
			wg.Go(func() {
				for range 1000 / runtime.GOMAXPROCS(0) {
					Solve(house, o)
				}
			})
		}
		wg.Wait()
	}
}
