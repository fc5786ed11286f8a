package plan

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/stage/hangs"
	"kindmargin/core/survey"
	"kindmargin/core/try"
)

// inUse is a door of 820 by 2023 that hangs already, looked at for some reason.
func inUse(wrong ...job.Complaint) job.Opening {
	o := square()
	o.Readings, o.Service = nil, &job.Service{Wrong: wrong}
	o.Slab.Width, o.Slab.Length = mm(820), mm(2023)
	return o
}

// called is a door in use whose gaps are about to be read.
func called(t *testing.T, o job.Opening) job.Opening {
	t.Helper()
	v := Solve(house, o).Leaves[0].Try
	require.NotNil(t, v)
	o.Tried = []job.Tried{{Made: v.Planned, Hangs: []job.Hang{{ID: "h1", Gaps: []survey.Reading{}}}}}
	require.NoError(t, o.Check())
	return o
}

// allRound reads the gaps of a door at its corners and middles.
func allRound(o *job.Opening, gaps frame.Each[[3]float64]) {
	for _, side := range frame.Sides {
		places := [3]float64{50, 400, 750}
		if side.Upright() {
			places = [3]float64{100, 1000, 1850}
		}
		for i, at := range places {
			gap(o, side, at, gaps[side][i])
		}
	}
}

// A door that hangs has no step before its try, and nothing to measure, cut or mark.
func TestADoorThatHangsAlready(t *testing.T) {
	o := inUse(job.Sticks, job.PaintedShut)
	p := Solve(house, o)
	var steps []job.Step
	for _, s := range p.Steps {
		steps = append(steps, s.Step)
	}
	assert.Equal(t, []job.Step{job.StepTry, job.StepLock, job.StepStops, job.StepLog}, steps)
	assert.Equal(t, job.StepTry, p.Next)
	assert.Empty(t, p.ToRead)
	l := p.Leaves[0]
	assert.Nil(t, l.Cut)
	assert.Empty(t, l.Hinges)
	for _, f := range append(p.Findings, l.Findings...) {
		assert.Contains(t, steps, f.Step, "%v", f.Code)
	}
	for _, code := range []site.Code{site.LookFirst, "service-sticks", "service-painted", site.OldPaint} {
		assert.Len(t, ofCode(p.Findings, code), 1, "%v", code)
	}

	o = called(t, o)
	v := Solve(house, o).Leaves[0].Try
	assert.False(t, v.Fits, "no gap was read")
	assert.False(t, v.Done())
	assert.NotEmpty(t, v.ToRead)
	assert.Empty(t, v.Ways)

	o.Slab.Width = 0
	o.Tried = nil
	assert.Len(t, ofCode(Solve(house, o).Findings, site.ServiceSizes), 1)
	o = inUse()
	o.Pair = &job.Pair{Fixed: frame.Lock}
	assert.ErrorContains(t, o.Check(), "refused.service-pair")
	o.Pair, o.Service.Wrong = nil, []job.Complaint{"sings"}
	assert.ErrorContains(t, o.Check(), "refused.complaint")
}

// Its gaps alone say what to do: against every pair of moves of its two hinges, a card of a quarter at a time, with and
// without each edge planed. A way of the hinges comes before one that takes it off.
func TestADoorThatHangsAgainstBruteForce(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 26))
	compared := 0
	for range 25 {
		o := called(t, inUse(job.Sticks))
		tilt, off := rng.NormFloat64()*1.2, rng.NormFloat64()*0.8
		allRound(&o, frame.Each[[3]float64]{
			frame.Head:  {3, 3 + tilt/4, 3 + tilt/2},
			frame.Hinge: {3, 3, 3},
			frame.Lock:  {max(3+off-tilt, 0.3), max(3+off, 0.3), max(3+off+tilt, 0.3)},
			frame.Foot:  {6, 6 - tilt/4, 6 - tilt/2},
		})
		v := Solve(house, o).Leaves[0].Try
		if v.Fits || len(v.Ways) == 0 {
			continue
		}
		best := v.Ways[0]
		out := func(w try.Way) (sum float64) {
			for _, s := range w.Stays {
				sum += max(s.By, -s.By)
			}
			return sum
		}
		// Moves alone, by the rigid body's own formula: the pins' line moves and turns, and the margins with it.
		h := made(o)
		least := 1e9
		for m := -1.0; m <= 1.5; m += 0.25 {
			for n := -1.0; n <= 1.5; n += 0.25 {
				worst := 0.0
				for _, side := range frame.Sides {
					margins := v.Margins[side]
					for _, i := range []int{0, len(margins) - 1} {
						at := margins[i].At
						by := n + (m-n)*(at-h[1])/(h[0]-h[1])
						switch side {
						case frame.Lock:
							by = -by
						case frame.Head:
							by = at * (m - n) / (h[0] - h[1])
						case frame.Foot:
							by = -at * (m - n) / (h[0] - h[1])
						}
						wanted := map[frame.Side]float64{frame.Head: 3, frame.Hinge: 3, frame.Lock: 3, frame.Foot: 6}[side]
						worst = max(worst, max(margins[i].Mean+by-wanted, wanted-margins[i].Mean-by))
					}
				}
				least = min(least, worst)
			}
		}
		compared++
		if least < 0.4 { // the hinges alone bring every margin well in
			assert.Zero(t, best.Trips, "%v", hangs.Uses(best.Uses))
			assert.InDelta(t, 0, out(best.Way), 0.05)
		}
		for _, w := range v.Ways {
			if len(w.Planed) > 0 {
				assert.Equal(t, message.ID("do.service-plane"), w.Does[0].ID, "handles off, with the grain, sealed again")
			}
		}
	}
	assert.Greater(t, compared, 10)
}

// made are the heights of a door's outer pins over the floor of the opening, in mm up the slab.
func made(o job.Opening) (pins [2]float64) {
	m := o.Tried[0].Made
	for i, k := range []int{0, len(m.Hinges) - 1} {
		pins[i] = m.Foot[0].MM() - m.Hinges[k].Down.MM() - o.Hinges.Leaf.MM()/2
	}
	return pins
}

// Nothing is known of the opening but the gaps: where they were read, the margins are those, to a packer.
func TestTheGapsOfADoorThatHangsAreBelieved(t *testing.T) {
	o := called(t, inUse(job.Sticks))
	read := frame.Each[[3]float64]{
		frame.Head: {4.2, 3.8, 3.4}, frame.Hinge: {2, 2.4, 2.8}, frame.Lock: {5.2, 3.8, 1.2}, frame.Foot: {5, 6, 7},
	}
	allRound(&o, read)
	v := Solve(house, o).Leaves[0].Try
	for _, side := range frame.Sides {
		for _, g := range o.Tried[0].Hangs[0].Gaps {
			if g.Side != side {
				continue
			}
			var is []frame.Along
			for _, m := range v.Margins[side] {
				is = append(is, frame.Along{At: m.At, Off: m.Mean})
			}
			at := g.At.MM()
			if side.Upright() {
				at += 6 // the slab's foot is over the floor
			} else {
				at += 3 // and its edge off the jamb
			}
			assert.InDelta(t, g.Value.MM(), frame.OffAt(is, at), 0.6, "%v at %v", side, g.At)
		}
	}
	assert.NotEmpty(t, v.Ways)
}
