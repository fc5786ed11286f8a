package plan_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/oracle"
	"kindmargin/core/plan"
	"kindmargin/core/survey"
)

// A slab that is stood against its opening, the frame pencilled on it, is cut by marks from its own edges. A tape that
// reads it 3 mm too wide and too long spoils nothing, nor does a corner that is out of square: by plain geometry every
// margin comes out as wanted. And no reading of the tape is needed for a layout.
func TestAnOfferedSlabIsCutByItsOwnEdges(t *testing.T) {
	tried := 0
	for seed := range uint64(60) {
		s := newHidden(oracle.Houses[1], plainKit, measure.HalfMillimetre, rand.New(rand.NewPCG(seed, 61)))
		wide := func(v float64) float64 { return s.truth.Sides[frame.Lock](v) - s.truth.Sides[frame.Hinge](v) }
		high := func(u float64) float64 { return s.truth.Sides[frame.Head](u) - s.truth.Sides[frame.Foot](u) }
		if math.Abs(wide(2000)-wide(0)) > 5 || math.Abs(high(800)-high(0)) > 4 {
			continue // the next size up would cover it by more than a pencil is asked for
		}
		tried++
		s.board = oracle.NewBoard(wide(1000)+10, high(400)+10, s.rng)
		wrong := 3.0
		s.door.Slab.Width = measure.FromMM(s.board.Width + wrong)
		s.door.Slab.Length = measure.FromMM(s.board.Length + wrong)
		s.door.Slab.WidthMid, s.door.Slab.WidthFoot, s.door.Slab.LengthLock = 0, 0, 0
		s.door.Measuring = job.OfferedUp
		s.door.Cut.LeaveOn, s.door.Cut.Knowing = job.ToLine, true
		s.door.Offers = []survey.Offer{{ID: "slab", Width: s.door.Slab.Width, Length: s.door.Slab.Length}}
		stands := s.board.Stands(s.truth, -5, -6, 0.001)
		asked := 0
		for ; asked < 40; asked++ {
			p := plan.Solve(s.job, s.door)
			if len(p.ToRead) == 0 || p.ToRead[0].Reading.Kind != survey.Gap {
				break
			}
			r := p.ToRead[0].Reading
			r.ID, r.Value = fmt.Sprint(asked), measure.FromMM(stands(r.Side, r.At.MM()))
			s.door.Readings = append(s.door.Readings, r)
		}
		assert.Equal(t, 16, asked, "once round it")
		p := plan.Solve(s.job, s.door)
		require.Empty(t, p.Clashes)
		l := p.Leaves[0]
		require.NotNil(t, l.Cut, "%v", p.Findings)
		assert.Less(t, l.Sure[frame.Lock], 0.9, "no error of the tape is left in it")
		// Laid as it stood, each cut is past its line by the margin, but for what an edge that stays straight gives and takes.
		stood := s.door
		stood.Cut.Registration = fit.AsOffered
		for side, wanted := range map[frame.Side]float64{frame.Head: 3, frame.Lock: 3} {
			pencils := plan.Solve(s.job, stood).Leaves[0].Cut.Edges[side].Pencils
			assert.NotEmpty(t, pencils, side)
			sum := 0.0
			for _, m := range pencils {
				sum += m.Past.MM() / float64(len(pencils))
			}
			assert.InDelta(t, wanted, sum, 1.5, "%v: %v", side, pencils)
		}

		s.rng = rand.New(rand.NewPCG(seed, 62))
		hung := s.truth.Hang(s.board, l, s.door.Hinges.Leaf.MM(), s.door.Margins.Least.MM(), s.rng)
		for _, side := range []frame.Side{frame.Lock, frame.Head, frame.Foot} {
			// Cuts stray by 0.3 at each end, marks are rounded to half a millimetre, and a side may have what no gap told.
			assert.InDelta(t, 0, s.truth.Excess(hung, side), 1.6, "%d, %v", seed, side)
		}
	}
	assert.Greater(t, tried, 4)
}

// What is proposed follows the tools: with a tape, a level and a square the slab itself tells of its opening sooner than
// reading on; with rods and a lath reading on does. Where nothing that it told would be used, it is not proposed.
func TestTheSlabIsOfferedUpWhereThatIsSooner(t *testing.T) {
	mm := measure.FromMM
	good := survey.Kit{
		{ID: "rods", Instrument: "rods"},
		{ID: "lath", Instrument: "straightedge"},
		{ID: "level", Instrument: "level"},
		{ID: "square", Instrument: "square"},
	}
	plain := survey.Kit{
		{ID: "tape", Instrument: "tape"}, {ID: "level", Instrument: "level"}, {ID: "square", Instrument: "square"},
	}
	for what, c := range map[string]struct {
		kit  survey.Kit
		more func(o *job.Opening)
		says message.ID
	}{
		"what people own":          {plain, nil, "worth.offer-up"},
		"no slab is chosen":        {plain, func(o *job.Opening) { o.Slab.Width, o.Slab.Length = 0, 0 }, "worth.offer-later"},
		"rods and a lath":          {good, nil, ""},
		"3 mm stay on in any case": {plain, func(o *job.Opening) { o.Cut.LeaveOn = job.Always3 }, ""},
		"it stands there already": {plain, func(o *job.Opening) {
			o.Offers = []survey.Offer{{ID: "s", Width: mm(838), Length: mm(2040)}}
		}, ""},
		"two leaves": {plain, func(o *job.Opening) { o.Pair = &job.Pair{Meeting: mm(3)} }, ""},
	} {
		j, o := job.NewJob("h", "House", measure.Millimetres), job.NewOpening("o", "Study", measure.Millimetres)
		j.Kit.Tools = c.kit
		o.Slab.Width, o.Slab.Length, o.Slab.Thickness, o.Slab.Construction = mm(838), mm(2040), mm(40), "flush"
		o.Readings = []survey.Reading{
			{ID: "w", Kind: survey.Width, At: mm(1800), Value: mm(826)},
			{ID: "h", Kind: survey.Height, At: mm(50), Value: mm(2030)},
		}
		if c.more != nil {
			c.more(&o)
		}
		assert.Equal(t, c.says, plan.Solve(j, o).OfferUp.ID, what)
	}
}
