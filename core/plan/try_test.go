package plan

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/peterstace/simplefeatures/geom"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/slab"
	"kindmargin/core/stage/hangs"
	"kindmargin/core/survey"
	"kindmargin/core/try"
)

// hungDoor is a square opening whose slab was cut and hangs, nothing read beside it.
func hungDoor(t *testing.T) job.Opening {
	t.Helper()
	return hungOnce(t, square())
}

// hungOnce is an opening with its slab cut as planned and hung once.
func hungOnce(t *testing.T, o job.Opening) job.Opening {
	t.Helper()
	p := Solve(house, o)
	require.NotNil(t, p.Leaves[0].Try)
	made := *p.Leaves[0].Try.Planned
	o.Tried = []job.Tried{{Made: &made, Hangs: []job.Hang{{ID: "h1", Gaps: []survey.Reading{}}}}}
	return o
}

// gap adds a gap to the last hang of the first leaf.
func gap(o *job.Opening, side frame.Side, at, value float64) {
	h := &o.Tried[0].Hangs[len(o.Tried[0].Hangs)-1]
	h.Gaps = append(h.Gaps, survey.Reading{
		ID: fmt.Sprint("g", len(h.Gaps)), Kind: survey.Gap, Offer: h.ID, Side: side, At: mm(at), Value: mm(value),
	})
}

// The slab as it was cut, by hand: the square opening is 826 by 2032, its margins 3, 3, 3 and
// 6, and what is left on stays on.
func TestWhatIsRecordedIsWhatTheMarksCut(t *testing.T) {
	o := square()
	o.Cut.LeaveOn = job.ToLine
	p := Solve(house, o)
	l := p.Leaves[0]
	m := l.Try.Planned
	require.NotNil(t, m)
	width, length := hangs.Sizes(*m)
	for i, f := range l.Cut.Width {
		assert.InDelta(t, f.Value.MM(), width[i].MM(), 0.02, "%d", i)
	}
	assert.InDelta(t, l.Cut.Length[0].Value.MM(), length[0].MM(), 0.02)
	assert.InDelta(t, l.Cut.Length[2].Value.MM(), length[1].MM(), 0.02)
	assert.Equal(t, mm(0), m.Head[0])
	for _, h := range m.Hinges {
		assert.Equal(t, o.Hinges.Closed-h.Slab-h.Jamb+h.Pack, mm(3), "the margin that it hangs with")
	}
}

func progressOf(t *testing.T, p Plan, step job.Step) Progress {
	t.Helper()
	i := slices.IndexFunc(p.Steps, func(n Progress) bool { return n.Step == step })
	require.GreaterOrEqual(t, i, 0)
	return p.Steps[i]
}

// With gaps as predicted it fits once they were read, and the program stops asking.
func TestItFitsAndNothingMoreIsAsked(t *testing.T) {
	o := hungDoor(t)
	o.Cut.LeaveOn = job.ToLine
	made := *Solve(house, func() job.Opening { o := o; o.Tried = nil; return o }()).Leaves[0].Try.Planned
	o.Tried[0].Made = &made
	assert.Equal(t, Open, progressOf(t, Solve(house, o), job.StepTry).State)
	for range 40 {
		v := Solve(house, o).Leaves[0].Try
		if len(v.ToRead) == 0 {
			break
		}
		r := v.ToRead[0].Reading
		wanted := map[frame.Side]float64{frame.Head: 3, frame.Hinge: 3, frame.Lock: 3, frame.Foot: 6}
		gap(&o, r.Side, r.At.MM(), wanted[r.Side])
	}
	v := Solve(house, o).Leaves[0].Try
	assert.False(t, v.Fits, "a bump may hide between two gaps")
	assert.True(t, v.Look, "the light is looked along first")
	assert.False(t, v.Slide)
	assert.Empty(t, v.Ways)
	o.Tried[0].Hangs[0].Looked = true
	v = Solve(house, o).Leaves[0].Try
	assert.False(t, v.Look)
	assert.True(t, v.Slide, "a packer is slid all round next")
	assert.Empty(t, v.Ways)
	bound := o
	bound.Tried = []job.Tried{{Made: &made, Hangs: []job.Hang{o.Tried[0].Hangs[0]}}}
	bound.Tried[0].Hangs[0].Bound = true
	assert.True(t, Solve(house, bound).Leaves[0].Try.Slide, "the gap where it bound was taken away: once more")
	gap(&bound, frame.Lock, 1250, 1.5)
	last := &bound.Tried[0].Hangs[0]
	last.Gaps = slices.Clone(last.Gaps)
	last.Gaps[len(last.Gaps)-1].Local = true
	assert.False(t, Solve(house, bound).Leaves[0].Try.Slide, "it is read")

	o.Tried[0].Hangs[0].Slid = true
	p := Solve(house, o)
	v = p.Leaves[0].Try
	assert.True(t, v.Fits)
	assert.Empty(t, v.ToRead)
	assert.Empty(t, v.Ways)
	assert.LessOrEqual(t, len(v.Hangs[0].Gaps), 16, "in so square an opening")
	assert.True(t, progressOf(t, p, job.StepTry).Ready)
	assert.Equal(t, job.StepLog, p.Steps[9].Step)
	assert.True(t, p.Steps[9].Ready)
}

// A lump or a hollow that was read stands for its own place: beside it the light is as it was read. The lock edge is
// straight and its gaps are 3; a lump of 2.2 leaves 0.8 there and binds, a hollow of 2.6 leaves 5.6, so that the best
// straight edge would stand 1.3 nearer.
func TestALumpStandsForItsPlaceAlone(t *testing.T) {
	for _, lump := range []float64{0.8, 5.6} {
		o := hungDoor(t)
		o.Cut.LeaveOn = job.ToLine
		made := *Solve(house, func() job.Opening { o := o; o.Tried = nil; return o }()).Leaves[0].Try.Planned
		o.Tried[0].Made = &made
		for _, ask := range Solve(house, o).Leaves[0].Try.ToRead {
			r := ask.Reading
			gap(&o, r.Side, r.At.MM(), map[bool]float64{true: 6, false: 3}[r.Side == frame.Foot])
		}
		gap(&o, frame.Lock, 1250, lump)
		h := &o.Tried[0].Hangs[0]
		h.Gaps[len(h.Gaps)-1].Local, h.Looked = true, true
		v := Solve(house, o).Leaves[0].Try
		found := false
		for _, m := range v.Margins[frame.Lock] {
			if m.At == 1250 {
				found = true
				assert.InDelta(t, lump, m.Mean, 0.15)
				assert.Less(t, m.Sigma, 0.35, "a packer's 0.3, and little else")
				continue
			}
			assert.InDelta(t, 3, m.Mean, 0.15, "at %.0f", m.At)
		}
		assert.True(t, found)
		assert.False(t, v.Look)
		assert.False(t, v.Fits)
		assert.NotEmpty(t, v.Ways)
	}
}

// A lump of the frame can be pared off; one of the floor is the floor's.
func TestALumpIsParedOffTheFrameAlone(t *testing.T) {
	for side, cause := range map[frame.Side]message.ID{
		frame.Lock: "cause.margin-tight-middle.lump", frame.Foot: "cause.margin-tight-middle.foot",
	} {
		low := square() // its foot as close as the rest
		low.Margins.Foot = length(3)
		o := hungOnce(t, low)
		for _, ask := range Solve(house, o).Leaves[0].Try.ToRead {
			r := ask.Reading
			gap(&o, r.Side, r.At.MM(), 3)
		}
		at := map[bool]float64{true: 1250, false: 550}[side == frame.Lock]
		gap(&o, side, at, 0.5)
		h := &o.Tried[0].Hangs[0]
		h.Gaps[len(h.Gaps)-1].Local, h.Looked = true, true
		var said []any
		for _, f := range Solve(house, o).Leaves[0].Findings {
			if f.Code == site.MarginMiddle {
				said = append(said, f.Args["cause"])
			}
		}
		assert.Equal(t, []any{cause}, said, side)
	}
}

func TestBadInputAtTheTry(t *testing.T) {
	fresh := func() job.Opening { return hungDoor(t) }
	for _, c := range []struct {
		name   string
		change func(o *job.Opening)
		says   string
	}{
		{"a try before any cut", func(o *job.Opening) { o.Tried[0].Made = nil }, "refused.not-cut-yet"},
		{"a rub and a gap at one place", func(o *job.Opening) {
			gap(o, frame.Lock, 500, 2)
			gap(o, frame.Lock, 500, 0)
			o.Tried[0].Hangs[0].Gaps[1].Sight = "rubs"
		}, "refused.rubs-and-gap"},
		{"a gap past the slab", func(o *job.Opening) { gap(o, frame.Head, 1900, 2) }, "refused.gap-past-slab"},
		{"a gap of another hang", func(o *job.Opening) {
			gap(o, frame.Head, 100, 2)
			o.Tried[0].Hangs[0].Gaps[0].Offer = "h9"
		}, "refused.gap-hang"},
		{"a hinge moved past its screws", func(o *job.Opening) {
			for i := range 3 {
				o.Tried[0].Hangs = append(o.Tried[0].Hangs, job.Hang{
					ID: fmt.Sprint("n", i), Did: &job.Did{Pack: []measure.Length{mm(2), 0}},
				})
			}
		}, "what=size.move-of-a-hinge-in-all"},
		{"wood planed back on", func(o *job.Opening) {
			o.Tried[0].Hangs = append(o.Tried[0].Hangs, job.Hang{
				ID: "n", Did: &job.Did{Planed: []job.Planed{{Side: frame.Lock, Off: [3]measure.Length{mm(-1), 0, 0}}}},
			})
		}, "what=size.depth-to-plane-off"},
		{
			"nobody signs a second time", func(o *job.Opening) { o.Reopened = []job.Reopened{{Why: "again"}} },
			"refused.who-signs",
		},
		{
			"two hangs of one name",
			func(o *job.Opening) { o.Tried[0].Hangs = append(o.Tried[0].Hangs, job.Hang{ID: "h1"}) }, "refused.hang-id",
		},
		{"no such hinge", func(o *job.Opening) { o.Tried[0].Hangs[0].Proud = []int{4} }, "refused.no-hinge given=4"},
		{
			"a reason of nothing",
			func(o *job.Opening) { o.Reopened = []job.Reopened{{Was: job.Signed{By: "W"}, Why: " "}} },
			"refused.reopen-why",
		},
		{"nobody signs", func(o *job.Opening) { o.Signed = &job.Signed{On: "today"} }, "refused.who-signs"},
	} {
		t.Run(c.name, func(t *testing.T) {
			o := fresh()
			require.NoError(t, o.Check())
			c.change(&o)
			assert.ErrorContains(t, o.Check(), c.says)
		})
	}
	o := fresh()
	gap(&o, frame.Lock, 500, 2)
	o.Hand = o.Hand.Other()
	assert.NotNil(t, find(Solve(house, o), site.Stop, "Was the slab turned over?"), "the places are others then")
}

// A gap that no rigid door could show is named, and the others stand.
func TestAGapThatNoRigidDoorShows(t *testing.T) {
	o := hungDoor(t)
	for _, at := range []float64{100, 500, 1500, 1850} {
		gap(&o, frame.Lock, at, 1.5)
		gap(&o, frame.Hinge, at, 3)
	}
	gap(&o, frame.Lock, 1000, 9)
	p := Solve(house, o)
	f := find(p, site.Care, "but the other gaps say about")
	require.NotNil(t, f)
	assert.Equal(t, "/tried/0/hangs/0/gaps/8/value", f.Pointer)
	for _, g := range p.Leaves[0].Try.Hangs[0].Gaps {
		assert.Equal(t, g.ID == "g8", g.Clash, g.ID)
	}
}

// Gaps that speak against one thing that was done name it.
func TestWhatBrokeIsNamed(t *testing.T) {
	o := hungDoor(t)
	read := func(change func(side frame.Side, at float64) float64) {
		base := Solve(house, o).Leaves[0].Try.Margins
		for side, m := range base {
			for i, g := range m {
				if i%2 == 0 && g.At > 40 {
					gap(&o, frame.Side(side), math.Round(g.At), g.Mean+change(frame.Side(side), g.At))
				}
			}
		}
	}
	read(func(frame.Side, float64) float64 { return 0 })
	o.Tried[0].Hangs = append(o.Tried[0].Hangs, job.Hang{ID: "h2", Did: &job.Did{
		Pack:   []measure.Length{mm(0.5), 0},
		Planed: []job.Planed{{Side: frame.Lock, Off: [3]measure.Length{mm(1), mm(1), mm(1)}}},
	}})
	kept := o.Tried[0].Hangs
	// The top hinge stands 1.5 mm too far out: the slab turns about the bottom one.
	read(func(side frame.Side, at float64) float64 {
		v := 1.5 * (at - 262) / 1550
		switch side {
		case frame.Hinge:
			return v
		case frame.Lock:
			return -v
		case frame.Head:
			return 1.5 * at / 1550
		}
		return -1.5 * at / 1550
	})
	assert.NotNil(
		t, find(Solve(house, o), site.Care, "The top hinge stands 1."), "%v", Solve(house, o).Leaves[0].Findings,
	)
	o.Tried[0].Hangs = append([]job.Hang{kept[0]}, job.Hang{ID: "h2", Did: kept[1].Did})
	// The lock edge was planed 2.5 mm short at its foot.
	read(func(side frame.Side, at float64) float64 {
		if side == frame.Lock {
			return -2.5 * (1 - at/2000)
		}
		return 0
	})
	assert.NotNil(
		t, find(Solve(house, o), site.Care, "The lock edge was cut 2."), "%v", Solve(house, o).Leaves[0].Findings,
	)
	assert.NotNil(t, find(Solve(house, o), site.Care, "proud of its line at its bottom"))
}

// A slab that came bored is never planed on that edge: what is too wide comes off its hinge edge, or its hinges go in. The
// same for a machined foot, whose door goes up and is planed at the head. Common practice.
func TestAMachinedEdgeIsNeverPlaned(t *testing.T) {
	o := square()
	o.Slab.Machined, o.Slab.Handle = []frame.Side{frame.Lock}, mm(1035)
	o = hungOnce(t, o)
	read := func(lock, foot float64) {
		o.Tried[0].Hangs[0].Gaps = nil
		for _, at := range []float64{100, 1000, 1850} {
			gap(&o, frame.Lock, at, lock)
			gap(&o, frame.Hinge, at, 3)
		}
		for _, at := range []float64{50, 400, 750} {
			gap(&o, frame.Head, at, 3)
			gap(&o, frame.Foot, at, foot)
		}
	}
	uses := func() (list []string) {
		for _, w := range Solve(house, o).Leaves[0].Try.Ways {
			list = append(list, hangs.Uses(w.Uses)...)
		}
		return list
	}
	read(0.5, 6)
	v := Solve(house, o).Leaves[0].Try
	require.NotEmpty(t, v.Ways)
	assert.Empty(t, v.Ways[0].Out)
	assert.Contains(t, uses(), "plane-hinge")
	assert.NotContains(t, uses(), "plane-lock")
	for _, w := range v.Ways {
		for _, p := range w.Did.Planed {
			assert.Equal(t, p.Side == frame.Hinge, p.Deeper)
		}
	}
	read(2, 6) // nearly right: the hinges are let in first
	assert.Equal(t, []string{"hinge-0", "hinge-1"}, hangs.Uses(Solve(house, o).Leaves[0].Try.Ways[0].Uses))

	o.Slab.Machined = []frame.Side{frame.Hinge, frame.Lock, frame.Head, frame.Foot}
	read(0.5, 6)
	for _, id := range uses() {
		assert.NotContains(t, id, "plane", "every edge is machined")
	}
	p := Solve(house, o)
	assert.NotEmpty(t, p.Leaves[0].Try.Ways[0].Out, "the hinges alone")
	for len(p.Leaves[0].Try.ToRead) > 0 {
		r := p.Leaves[0].Try.ToRead[0].Reading
		gap(&o, r.Side, r.At.MM(), map[frame.Side]float64{frame.Head: 3, frame.Hinge: 3, frame.Lock: 0.5, frame.Foot: 6}[r.Side])
		p = Solve(house, o)
	}
	assert.Len(t, ofCode(p.Leaves[0].Findings, site.NothingBringsIn), 1)

	o.Slab.Machined, o.Slab.Handle = []frame.Side{frame.Foot}, 0
	read(3, 4)
	assert.NotContains(t, uses(), "plane-foot")
	assert.Contains(t, uses(), "all-up")
	assert.Contains(t, uses(), "plane-head")
}

// Bored on the trestles with 2 mm left on the lock edge, its backset is right to half a millimetre after every way that is
// offered, however it then hangs; until the edge is down it does not fit.
func TestABoredEdgeEndsAtItsBackset(t *testing.T) {
	rng := rand.New(rand.NewPCG(26, 2))
	offered := 0
	for range 40 {
		o := square()
		o.Lock.When, o.Cut.LeaveOn = lock.First, job.ToLine
		o = hungOnce(t, o)
		made := o.Tried[0].Made
		for i := range made.Lock {
			made.Lock[i] += mm(2)
		}
		o.Cut.LeaveOn = job.Always3 // so that it is bored from an edge with 3 on, and was cut 1 closer
		off := rng.NormFloat64() * 1.5
		for _, at := range []float64{100, 1000, 1850} {
			gap(&o, frame.Lock, at, max(1+off+rng.NormFloat64()*0.3, 0.2))
			gap(&o, frame.Hinge, at, 3)
		}
		for _, at := range []float64{50, 400, 750} {
			gap(&o, frame.Head, at, 3)
			gap(&o, frame.Foot, at, 6)
		}
		l := Solve(house, o).Leaves[0]
		assert.False(t, l.Try.Fits)
		_, length := hangs.Sizes(*made)
		bore := (length[1] - l.Latch.Slab.Value).MM() / length[0].MM()
		for _, w := range l.Try.Ways {
			offered++
			assert.InDelta(t, 2, at3(planedOff(w.Way, frame.Lock), bore), 0.5+0.03, "%v", w.Planed)
		}
	}
	assert.Greater(t, offered, 40)
}

// at3 is what is off at a share of an edge, linear between its ends and its middle.
func at3(off [3]float64, f float64) float64 {
	if f < 0.5 {
		return off[0] + 2*f*(off[1]-off[0])
	}
	return off[1] + (2*f-1)*(off[2]-off[1])
}

// What a way predicts against the slab's polygon turned and moved as a rigid body in an
// independent geometry library (simplefeatures): to 0.01 mm.
func TestTheRigidBodyAgainstPolygons(t *testing.T) {
	rng := rand.New(rand.NewPCG(10, 3))
	compared, narrowed := 0, 0
	for n := range 90 {
		o := square()
		if n%3 == 2 { // the hinge edge is planed, and the slab follows its hinges
			o.Slab.Machined, o.Cut.LeaveOn = []frame.Side{frame.Lock}, job.Always3
		}
		o = hungOnce(t, o)
		for _, r := range []struct {
			side frame.Side
			at   float64
		}{
			{frame.Lock, 100},
			{frame.Lock, 1850},
			{frame.Head, 50},
			{frame.Head, 750},
			{frame.Foot, 50},
			{frame.Foot, 750},
			{frame.Hinge, 200},
			{frame.Hinge, 1800},
		} {
			base := map[frame.Side]float64{frame.Lock: 3, frame.Head: 3, frame.Foot: 6, frame.Hinge: 3}[r.side]
			gap(&o, r.side, r.at, base+rng.NormFloat64()*1.2)
		}
		v := Solve(house, o).Leaves[0].Try
		made := *o.Tried[0].Made
		for _, w := range v.Ways {
			pins := [2]float64{0, 0}
			for i, k := range []int{0, len(made.Hinges) - 1} {
				pins[i] = 2032 - made.Margin.MM() - made.Hinges[k].Down.MM() - o.Hinges.Leaf.MM()/2
			}
			hinge := planedOff(w.Way, frame.Hinge)
			before := polygon(made, [3]float64{}, [3]float64{}, [3]float64{}, [3]float64{})
			after := polygon(
				made, planedOff(w.Way, frame.Lock), planedOff(w.Way, frame.Head), planedOff(w.Way, frame.Foot), hinge,
			)
			// As it hangs: its hinge edge upright at u = 3, its head's corner 3 under the head.
			m, n := w.Moves[0], w.Moves[len(w.Moves)-1]
			if hinge != [3]float64{} { // recesses let in by as much as was planed off beside them
				narrowed++
				length := made.Foot[0].MM()
				let := func(pin float64) float64 { return hinge[0] + (hinge[2]-hinge[0])*(pin-6)/length }
				m, n = m-let(pins[0]), n-let(pins[1])
			}
			turn := math.Atan((m - n) / (pins[0] - pins[1]))
			sin, cos := math.Sincos(turn)
			moved := after.TransformXY(func(p geom.XY) geom.XY {
				// About the bottom pin, clockwise where the top goes further out.
				x, y := p.X-3, p.Y-pins[1]
				return geom.XY{X: 3 + n + x*cos + y*sin, Y: pins[1] - x*sin + y*cos + w.Up}
			})
			for _, side := range frame.Sides {
				for i, g := range w.Margins[side] {
					if i == 0 || i == len(w.Margins[side])-1 {
						continue // beyond the pins' corners a line meets nothing of one of them
					}
					then := lightOf(t, moved, side, g.At)
					if then < 0.1 { // it touches
						continue
					}
					want := then - lightOf(t, before, side, g.At)
					assert.InDelta(
						t, want, g.Mean-v.Margins[side][i].Mean, 0.01, "%v at %g, %v %v", side, g.At, w.Moves, w.Planed,
					)
					compared++
				}
			}
		}
	}
	assert.Greater(t, compared, 1000)
	assert.Greater(t, narrowed, 30, "ways that plane the hinge edge")
}

// polygon is a made slab as it hangs in the square opening, so much planed off each edge.
func polygon(m job.Made, lock, head, foot, hinge [3]float64) geom.Geometry {
	const n = 8 // each place that an edge is told at is one of them
	top := 2032 - m.Margin.MM()
	even := func(list []measure.Length, f float64) float64 {
		i := min(int(f*float64(len(list)-1)), len(list)-2)
		g := f*float64(len(list)-1) - float64(i)
		return list[i].MM() + g*(list[i+1]-list[i]).MM()
	}
	off := func(o [3]float64, f float64) float64 {
		if f < 0.5 {
			return o[0] + 2*f*(o[1]-o[0])
		}
		return o[1] + (2*f-1)*(o[2]-o[1])
	}
	var flat []float64
	add := func(x, y float64) {
		if k := len(flat); k == 0 || math.Hypot(flat[k-2]-3-x, flat[k-1]-y) > 1e-6 { // edges share their corners
			flat = append(flat, 3+x, y)
		}
	}
	wide := m.Lock[len(m.Lock)-1].MM()
	long := m.Foot[0].MM()
	left := func(f, corner float64) float64 { // the corner at the hinge edge goes with it
		if f == 0 {
			return corner
		}
		return f * wide
	}
	for i := range n + 1 { // the head, from the hinge edge
		f := float64(i) / n
		add(left(f, hinge[2]), top+even(m.Head, f)-off(head, f))
	}
	for i := range n + 1 { // down the lock edge
		f := 1 - float64(i)/n
		add(even(m.Lock, f)-off(lock, f), top-long+f*long)
	}
	for i := range n + 1 { // back along the foot
		f := 1 - float64(i)/n
		add(left(f, hinge[0]), top-even(m.Foot, f)+off(foot, f))
	}
	flat = append(flat, flat[0], flat[1])
	p := geom.NewPolygon([]geom.LineString{geom.NewLineString(geom.NewSequence(flat, geom.DimXY))})
	return p.AsGeometry()
}

// lightOf is from a place on a side of an opening of 826 by 2032 to a polygon: square to the
// edge or along the place, which differ by less than a micrometre.
func lightOf(t *testing.T, p geom.Geometry, side frame.Side, at float64) float64 {
	t.Helper()
	up := at + 6 // the slab's foot is 6 over the floor
	place := map[frame.Side]geom.XY{
		frame.Hinge: {X: 0, Y: up}, frame.Lock: {X: 826, Y: up}, frame.Head: {X: at + 3, Y: 2032},
		frame.Foot: {X: at + 3, Y: 0},
	}[side]
	d, ok := geom.Distance(p, geom.NewPoint(geom.Coordinates{XY: place}).AsGeometry())
	require.True(t, ok)
	return d
}

func planedOff(w try.Way, side frame.Side) [3]float64 {
	for _, p := range w.Planed {
		if p.Side == side {
			return p.Off
		}
	}
	return [3]float64{}
}

// Looked at again, it says what moved, and where rails hold the ends the middle is planed
// first: common practice.
func TestARevisitSaysWhatMoved(t *testing.T) {
	o := hungDoor(t)
	o.Slab.Construction = "engineered"
	o.Cut.LeaveOn = job.ToLine
	free := o
	free.Tried = nil
	o.Tried[0].Made = Solve(house, free).Leaves[0].Try.Planned
	read := func(swollen float64) {
		for _, at := range []float64{100, 500, 1000, 1500, 1850} {
			gap(&o, frame.Lock, at, 3-swollen*(1-math.Pow((at-1000)/1000, 2)))
			gap(&o, frame.Hinge, at, 3)
		}
		for _, at := range []float64{50, 400, 750} {
			gap(&o, frame.Head, at, 3)
			gap(&o, frame.Foot, at, 6)
		}
	}
	read(0)
	o.Tried[0].Hangs = append(o.Tried[0].Hangs, job.Hang{ID: "h2", Revisit: "first damp autumn"})
	read(1.4)
	p := Solve(house, o)
	f := find(p, site.Note, "Since you left it, the gap at the lock side has closed by 1.")
	require.NotNil(t, f, "%v", p.Leaves[0].Findings)
	assert.Contains(
		t, wordsOf(*f, measure.Millimetres, measure.HalfMillimetre),
		"Since you left it, the gap at the lock side has closed by 1.3 mm at the middle.",
	)
	ways := p.Leaves[0].Try.Ways
	require.NotEmpty(t, ways)
	require.Len(t, ways[0].Planed, 1)
	off := ways[0].Planed[0].Off
	assert.InDelta(t, 1.2, off[1], 0.35, "to the line, or a little above it")
	assert.Less(t, off[0], off[1])
	assert.Less(t, off[2], off[1])
	assert.Contains(t, saying(ways[0].Does[0]), "The middle first")
}

// What may be done is forced, and worked out the same way.
func TestOnlyWhatIsAllowedIsTouched(t *testing.T) {
	o := hungDoor(t)
	for _, at := range []float64{100, 500, 1000, 1500, 1850} {
		gap(&o, frame.Lock, at, 1.2)
		gap(&o, frame.Hinge, at, 3)
	}
	for _, at := range []float64{50, 400, 750} {
		gap(&o, frame.Head, at, 3)
		gap(&o, frame.Foot, at, 6)
	}
	assert.Equal(
		t, []string{"plane-lock"}, hangs.Uses(Solve(house, o).Leaves[0].Try.Ways[0].Uses), "an even rub is planed",
	)
	o.Tried[0].Hangs[0].With = []string{"hinge-0", "hinge-1"}
	for _, w := range Solve(house, o).Leaves[0].Try.Ways {
		assert.Empty(t, w.Planed)
		assert.NotEmpty(t, w.Did.Pack)
	}
	o.Tried[0].Hangs[0].With = nil
	o.Tried[0].Hangs[0].Springs, o.Tried[0].Hangs[0].Proud, o.Tried[0].Hangs[0].Drags, o.Tried[0].Hangs[0].Drifts = true, []int{
		1,
	}, []int{40}, job.DriftsShut
	p := Solve(house, o)
	for _, says := range []string{"hinge-bound", "behind the leaf of the bottom hinge", "drags at 40°", "drifts shut"} {
		assert.NotNil(t, find(p, site.Care, says), says)
	}
}

func BenchmarkSolveTry(b *testing.B) {
	o := square()
	made := *Solve(house, o).Leaves[0].Try.Planned
	o.Tried = []job.Tried{{Made: &made, Hangs: []job.Hang{{ID: "h1"}}}}
	for k := range 3 {
		for _, at := range []float64{100, 500, 1000, 1500, 1850} {
			gap(&o, frame.Lock, at, 1.2+float64(k)/2)
			gap(&o, frame.Hinge, at, 3)
		}
		for _, at := range []float64{50, 400, 750} {
			gap(&o, frame.Head, at, 3)
			gap(&o, frame.Foot, at, 6)
		}
		if k < 2 {
			o.Tried[0].Hangs = append(o.Tried[0].Hangs, job.Hang{
				ID: fmt.Sprint("h", k+2), Did: &job.Did{Pack: []measure.Length{mm(0.25), 0}},
			})
		}
	}
	b.ReportAllocs()
	for b.Loop() {
		Solve(house, o)
	}
}

// Twist is split by half: the lock side touches at its head and stands 6 off at its foot, so
// the hinges go 1.5 each, opposite ways, and the stops take the rest; then the strike.
func TestFlushThenTheLatch(t *testing.T) {
	o := hungDoor(t)
	assert.Empty(t, Solve(house, o).Leaves[0].Try.After)
	o.Stops.Stand = &lock.Stand{HingeHead: mm(1), LockHead: 0, HingeFoot: mm(1), LockFoot: mm(6)}
	o.Lock.Missed = &lock.Missed{Up: mm(2), In: mm(-1)}
	var list []string
	for _, m := range Solve(house, o).Leaves[0].Try.After {
		list = append(list, saying(m))
	}
	assert.Equal(t, []string{
		"Flush: move the top hinge 1.5 mm toward you and the bottom hinge as much away from you. The doorstops take " +
			"up the other half. 8 minutes, no trip.",
		"Doorstops: move the lock end of the head stop 1 mm away from the slab, the top of the lock leg 1 mm away " +
			"from the slab and the bottom of the lock leg 5 mm toward the slab. 6 minutes, no trip.",
		"Latch: move the keep, not the latch: 2 mm up and 1 mm away from the doorstop. 8 minutes, no trip.",
	}, list)
}

// Of a rated slab nothing is planed that its certificate does not allow: hinges alone.
func TestARatedSlabIsNotPlaned(t *testing.T) {
	o := hungDoor(t)
	for _, at := range []float64{100, 500, 1000, 1500, 1850} {
		gap(&o, frame.Lock, at, 1.2)
		gap(&o, frame.Hinge, at, 3)
	}
	o.Slab.Construction, o.Slab.Limits = "rated", slab.Limits{}
	for _, w := range Solve(house, o).Leaves[0].Try.Ways {
		assert.Empty(t, w.Planed)
	}
	few := measure.FromMM(3)
	o.Slab.Limits.Lock = &few
	assert.Contains(
		t, hangs.Uses(Solve(house, o).Leaves[0].Try.Ways[0].Uses), "plane-lock", "what the certificate allows",
	)
}

// Light behind a leaf makes what is predicted beside it unsure, that time alone.
func TestALeafThatIsNotHomeIsNotTrusted(t *testing.T) {
	o := hungDoor(t)
	gap(&o, frame.Head, 100, 3)
	at := func(v *hangs.Try, side frame.Side, end int) float64 {
		m := v.Was[side]
		return m[end*(len(m)-1)].Sigma
	}
	sure := Solve(house, o).Leaves[0].Try
	o.Tried[0].Hangs[0].Proud = []int{0}
	unsure := Solve(house, o).Leaves[0].Try
	// Half a millimetre at the pin, and one more: by hand, a little more beyond it.
	assert.Greater(t, at(unsure, frame.Hinge, 1), 2*at(sure, frame.Hinge, 1)*0.9)
	assert.InDelta(t, at(sure, frame.Hinge, 0), at(unsure, frame.Hinge, 0), 0.05, "the bottom hinge stays as sure")
	o.Tried[0].Hangs = append(o.Tried[0].Hangs, job.Hang{ID: "h2"})
	home := Solve(house, o).Leaves[0].Try
	assert.InDelta(t, at(sure, frame.Hinge, 1), at(home, frame.Hinge, 1), 0.05, "screwed home, it is as before")
}
