package plan_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/core/slab"
	"kindmargin/core/stage/cuts"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/demo"
)

// point is a place on the slab: x from its hinge edge, y down from its top.
type point struct{ x, y float64 }

// straight is a line in Hesse's normal form: n·p = d, n of length 1.
type straight struct{ nx, ny, d float64 }

func through(a, b point) straight {
	long := math.Hypot(b.x-a.x, b.y-a.y)
	s := straight{nx: (b.y - a.y) / long, ny: (a.x - b.x) / long}
	s.d = s.nx*a.x + s.ny*a.y
	return s
}

// cut is where two lines cross, by Cramer's rule.
func (s straight) cut(o straight) point {
	det := s.nx*o.ny - s.ny*o.nx
	return point{(s.d*o.ny - o.d*s.ny) / det, (s.nx*o.d - o.nx*s.d) / det}
}

func (s straight) from(p point) float64 { return math.Abs(s.nx*p.x + s.ny*p.y - s.d) }

// sine is that of the angle between two lines.
func (s straight) sine(o straight) float64 { return math.Abs(s.nx*o.ny - s.ny*o.nx) }

// board are the four edges of a slab as they are by now, in mm.
type board frame.Each[straight]

func newBoard(s slab.Slab) board {
	w, wf, l := s.Width.MM(), s.WidthFoot.MM(), s.Length.MM()
	topLock := point{w, -s.Square.MM()}
	footLock := point{wf, l + (s.LengthLock-s.Length-s.Square).MM()*wf/w}
	return board{
		frame.Head: through(point{}, topLock), frame.Hinge: through(point{}, point{0, l}),
		frame.Lock: through(topLock, footLock), frame.Foot: through(point{0, l}, footLock),
	}
}

// marked is the line through an edge's first and last mark, less off.
func marked(s slab.Slab, e cuts.Edge, off float64) straight {
	w, l := s.Width.MM(), s.Length.MM()
	spot := func(k int, at float64) point {
		deep := e.Marks[k].Depth.Value.MM() - off
		switch e.Side {
		case frame.Head:
			return point{at, -s.Square.MM()*at/w + deep}
		case frame.Foot:
			return point{at, l + (s.LengthLock-s.Length-s.Square).MM()*at/w - deep}
		case frame.Hinge:
			return point{deep, at}
		}
		at -= s.Square.MM()
		return point{w + (s.WidthFoot.MM()-w)*at/l - deep, at}
	}
	n := len(e.Marks) - 1
	reach := map[bool]float64{true: l, false: w}[e.Side.Upright()]
	if e.Side == frame.Lock {
		reach = s.LengthLock.MM()
	}
	if e.Side == frame.Foot {
		reach = s.WidthFoot.MM()
	}
	return through(spot(0, 0), spot(n, reach))
}

// Clamp marks by another formula: the guide's distance from the corner, square to the cut, over the sine of the angle
// between the cut and the edge that is measured along (plane geometry). Tapers on all four edges, slabs out of square,
// either hand, either order of fitting, a guide on either side of the cut.
func TestTheGuideIsClampedOnTheLine(t *testing.T) {
	seen := map[frame.Side]int{}
	outside := 0
	for n := range 60 {
		rng := rand.New(rand.NewPCG(uint64(n), 27))
		mm := func(v float64) measure.Length { return measure.FromMM(math.Round(v*2) / 2) }
		j := job.NewJob("s", "Sawn", measure.Millimetres)
		j.Tape = measure.HalfMillimetre
		j.Kit.HingeFirst = n%3 == 0
		j.Kit.Saw = job.Saw{Guide: "batten", Near: mm(120 + 20*rng.Float64()), Outside: n%2 == 0}
		j.Kit.Saw.Far = j.Kit.Saw.Near + mm(2+rng.Float64())
		length := 2130.0
		if n%4 == 0 { // a narrow sole and a long slab, so that the guide has room on what comes off
			j.Kit.Saw.Near, j.Kit.Saw.Far, length = mm(30), mm(32.5), 2190
		}
		o := job.NewOpening("o", "Door", measure.Millimetres)
		o.Hand = []frame.Hand{frame.Left, frame.Right}[n%2]
		o.Slab = slab.Slab{
			Width: mm(830), WidthFoot: mm(830 + 6*rng.NormFloat64()), Length: mm(length), Thickness: mm(40),
			LengthLock: mm(length + 5*rng.NormFloat64()), Square: mm(3 * rng.NormFloat64()), Construction: "flush",
		}
		o.Slab.WidthMid = (o.Slab.Width + o.Slab.WidthFoot) / 2
		much := mm(200)
		o.Slab.Limits = slab.Limits{Head: &much, Hinge: &much, Lock: &much, Foot: &much}
		o.Cut.Registration, o.Cut.Ends, o.Cut.Knowing = "even-stiles", "even-ends", true
		o.Cut.Means = job.Means{Head: trade.BySaw, Hinge: trade.BySaw, Lock: trade.BySaw, Foot: trade.BySaw}
		for i, at := range []float64{100, 1000, 1950} {
			o.Readings = append(o.Readings, survey.Reading{
				ID: string(rune('a' + i)), Kind: survey.Width, At: mm(at), Value: mm(780 + float64(i)*9*(rng.Float64()-0.5)),
			})
		}
		o.Readings = append(
			o.Readings,
			survey.Reading{ID: "h", Kind: survey.Height, At: mm(50), Value: mm(1960 + 8*rng.Float64())},
			survey.Reading{ID: "k", Kind: survey.Height, At: mm(730), Value: mm(1952 + 8*rng.Float64())},
			survey.Reading{ID: "p", Kind: survey.Plumb, Side: frame.Hinge, From: mm(100), At: mm(1900), Value: mm(6 * rng.NormFloat64())},
		)
		sheet := plan.Solve(j, o).Leaves[0].Cut
		require.NotNil(t, sheet)
		b := newBoard(o.Slab)
		for e := range sheet.InOrder() {
			if s := e.Sawing; s != nil {
				seen[e.Side]++
				mostly := marked(o.Slab, e, 0)
				for i, c := range s.Clamps {
					corner := b[e.Side].cut(b[c.On])
					// The saw is kept off the line, and off any mark that the line would pass.
					off := 1 + past(e)
					deep := mostly.from(corner) - off*mostly.sine(through(point{}, acrossOf(e.Side)))
					guide := deep + j.Kit.Saw.Near.MM()
					if c.Along.Value.MM() < deep { // it lies on what comes off
						guide = deep - j.Kit.Saw.Far.MM()
						outside++
						assert.True(t, j.Kit.Saw.Outside)
						assert.Greater(t, guide, 55.0, "room to clamp it")
					}
					along := guide / mostly.sine(b[c.On])
					// Down to the tape's half millimetre, but for what the tape does not tell.
					assert.InDelta(t, along-0.25, c.Along.Value.MM(), 0.3, "%d %v end %d: %v", n, e.Side, i, along)
					assert.LessOrEqual(t, c.Along.Value.MM(), along+0.06, "no more than the line")
				}
			}
			b[e.Side] = marked(o.Slab, e, 0)
		}
	}
	for _, side := range frame.Sides {
		assert.Greater(t, seen[side], 40, side)
	}
	assert.Greater(t, outside, 10)
}

// sawn is a door of the demo with a saw and with choices of means.
func sawn(t *testing.T, id string, saw job.Saw, m job.Means) (plan.Plan, *cuts.List) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	for _, o := range jobs[0].Openings {
		if o.ID == id {
			jobs[0].Kit.Saw, o.Cut.Means = saw, m
			p := plan.Solve(jobs[0], o)
			return p, p.Leaves[0].Cut
		}
	}
	t.Fatal("no door " + id)
	return plan.Plan{}, nil
}

// A table saw cuts parallel to the edge across, so that its fence is the finished width and a millimetre from the blade:
// an opening 800 wide with margins of 3 leaves 794 of a slab of 826, all off the lock edge.
func TestATableSawRips(t *testing.T) {
	sheet := parallel(826, job.Saw{Table: true})
	lock := sheet.Edges[frame.Lock]
	assert.Equal(t, trade.ByTableSaw, lock.Means)
	assert.InDelta(t, 795, lock.Sawing.Fence.Value.MM(), 0.51)
	assert.Empty(t, lock.Sawing.Clamps)
	assert.Equal(t, message.ID("saw.face-up"), lock.Sawing.Steps[0].ID, "its teeth come down into the upper face")
	assert.Equal(t, trade.BySaw, sheet.Edges[frame.Foot].Means, "an end is not ripped")

	// The chart room's lock edge is narrower at its foot than the fence would stand: it is sawn along a guide.
	_, sheet = sawn(t, "chart", job.Saw{Table: true}, job.Means{Lock: trade.BySaw})
	assert.Equal(t, trade.BySaw, sheet.Edges[frame.Lock].Means)
}

// parallel is the cut sheet of a slab in an opening of 800 with parallel sides: what is more than 794 comes off its lock
// edge, and 44 off its bottom.
func parallel(width float64, saw job.Saw) *cuts.List {
	mm := measure.FromMM
	j := job.NewJob("s", "Sawn", measure.Millimetres)
	j.Kit.Saw = saw
	o := job.NewOpening("o", "Door", measure.Millimetres)
	o.Slab = slab.Slab{Width: mm(width), Length: mm(2025), Thickness: mm(40), Construction: "flush"}
	o.Cut.Registration, o.Cut.LeaveOn, o.Cut.Knowing = "keep-hinge", job.ToLine, true
	for _, at := range []float64{100, 1000, 1900} {
		o.Readings = append(o.Readings, survey.Reading{
			ID: fmt.Sprint(at), Kind: survey.Width, At: mm(at), Value: mm(800),
		})
	}
	o.Readings = append(o.Readings, survey.Reading{ID: "h", Kind: survey.Height, At: mm(50), Value: mm(1990)})
	return plan.Solve(j, o).Leaves[0].Cut
}

// What the saw cannot do is refused, with what would work.
func TestASawThatCannot(t *testing.T) {
	// 4.5 comes off the chart room's lock edge at its top: 3.5 and no more by the saw, and its kerf is 5.
	p, sheet := sawn(t, "chart", job.Saw{Far: 5 * measure.Millimetre}, job.Means{Lock: trade.BySaw})
	f := codes(p, site.SawKerf)
	require.Len(t, f, 1)
	assert.Equal(t, "/cut/means/lock", f[0].Pointer)
	assert.Equal(t, site.Stop, f[0].Gravity)
	assert.Nil(t, sheet.Edges[frame.Lock].Sawing)
	p, sheet = sawn(t, "chart", job.Saw{Far: 5 * measure.Millimetre}, job.Means{})
	assert.Empty(t, codes(p, site.SawKerf), "by rule it is planed, and nothing is refused")
	assert.Equal(t, trade.ByPowerPlane, sheet.Edges[frame.Lock].Means)

	// 40 thick, 3 through, and the guide's 6 that the saw rides on.
	p, _ = sawn(t, "chart", job.Saw{Depth: 48 * measure.Millimetre}, job.Means{Foot: trade.BySaw})
	require.Len(t, codes(p, site.SawShallow), 1)
	p, sheet = sawn(t, "chart", job.Saw{Depth: 49 * measure.Millimetre}, job.Means{Foot: trade.BySaw})
	assert.Empty(t, codes(p, site.SawShallow))
	assert.NotNil(t, sheet.Edges[frame.Foot].Sawing)
}

func codes(p plan.Plan, c site.Code) (list []site.Finding) {
	for _, f := range append(p.Findings, p.Leaves[0].Findings...) {
		if f.Code == c {
			list = append(list, f)
		}
	}
	return list
}

// Saw or plane by minutes (trade.PlaningMinutes), worked out by hand for even cuts of a 2 m edge, and for a taper.
func TestSawOrPlane(t *testing.T) {
	for _, c := range []struct {
		name                   string
		mean, deepest, minutes float64
		side                   frame.Side
		long                   float64
	}{
		{"1 mm by hand: 3 × 1 × 2", 1, 1, 6, frame.Lock, 2000},
		{"5 mm: 3 to set up, 1 × 5 × 2", 5, 5, 13, frame.Lock, 2000},
		{"a taper of 0 to 10", 5, 10, 13, frame.Lock, 2000},
		{"an end, from both ends: 3 and 1.5 × 4 × 0.8", 4, 4, 7.8, frame.Foot, 800},
	} {
		got := trade.PlaningMinutes(c.side, measure.FromMM(c.mean), measure.FromMM(c.deepest), c.long)
		assert.InDelta(t, c.minutes, got, 1e-9, c.name)
	}
	// Setting the guide takes as long as planing a millimetre or two of a long edge by hand: common practice.
	for _, g := range trade.SawGuides {
		assert.GreaterOrEqual(t, 2*trade.PlaningMinutes(frame.Lock, trade.PlaneTo, trade.PlaneTo, 2000), g.Minutes)
		assert.LessOrEqual(t, trade.PlaningMinutes(frame.Lock, measure.Millimetre/2, measure.Millimetre/2, 2000), g.Minutes)
	}
	// 6 mm or more off a long edge by saw, less by power plane, a millimetre or so by hand: common practice.
	for off, want := range map[float64]trade.Means{
		1: trade.ByHandPlane, 3: trade.ByPowerPlane, 5: trade.ByPowerPlane, 6.5: trade.BySaw, 12: trade.BySaw,
	} {
		assert.Equal(t, want, parallel(794+off, job.Saw{}).Edges[frame.Lock].Means, "%v mm", off)
	}
	// 70 mm off an end is sawn, whatever the plane would take; a choice of the plane holds.
	_, sheet := sawn(t, "beam", job.Saw{}, job.Means{})
	assert.Equal(t, trade.BySaw, sheet.Edges[frame.Head].Means)
	_, sheet = sawn(t, "chart", job.Saw{}, job.Means{Foot: trade.ByPlane})
	assert.Equal(t, trade.ByPowerPlane, sheet.Edges[frame.Foot].Means)
	assert.NotEmpty(t, sheet.Edges[frame.Foot].Passes)
}

// acrossOf is the direction in which an edge's depths are measured.
func acrossOf(side frame.Side) point {
	if side.Upright() {
		return point{1, 0}
	}
	return point{0, 1}
}

// past is how far the chord of an edge's marks lies beyond one of them.
func past(e cuts.Edge) (by float64) {
	n := len(e.Marks) - 1
	a, z := e.Marks[0].Depth.Value.MM(), e.Marks[n].Depth.Value.MM()
	for k, m := range e.Marks {
		by = max(by, a+(z-a)*float64(k)/float64(n)-m.Depth.Value.MM())
	}
	return by
}
