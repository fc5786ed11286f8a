package try

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/integrate/quad"
	"gonum.org/v1/gonum/stat/distuv"

	"kindmargin/core/frame"
	"kindmargin/core/trade"
	"kindmargin/thorough"
)

// corner is the lock corner of a head or foot whose other corner is right: by how much its gap is over what is wanted,
// as far as it is known, and whether it was planed.
type corner struct {
	off, sigma float64
	planed     bool
}

// The small world: two corners, each of which is planed or left; then the slab is hung and both gaps are read again.
const (
	readAgain = 0.25 // standard deviation of a line's end by the gaps of one hang, mm
	strays    = 0.3  // of a planed end
	nodes     = 7    // of the quadrature over what will be read
)

var worldSides = [2]frame.Side{frame.Head, frame.Foot}

// left is the minutes of leaving it so, by the normal distribution of a library.
func left(c [2]corner) float64 {
	in, out, far, spoiled := 1.0, 0.0, 0.0, 0.0
	for _, x := range c {
		n := distuv.Normal{Mu: x.off, Sigma: x.sigma}
		in *= n.CDF(1) - n.CDF(-1)
		out += max(math.Abs(x.off)-1, 0)
		far += max(math.Abs(x.off)-1-trade.FarOut, 0)
		if x.planed {
			spoiled += 1 - n.CDF(1)
		}
	}
	return trade.MissMinutes*(1-in) + trade.OutMinutes*out + trade.FarMinutes*far + trade.SpoilMinutes*spoiled
}

// work is the minutes of planing so much off either corner, tapering to nothing, and of hanging it again.
func work(off [2]float64) (minutes float64) {
	for i, d := range off {
		if d > 0 {
			minutes += trade.PlaneMinutes + wood(worldSides[i], [3]float64{0, d / 2, d}, 800)
		}
	}
	return minutes + 12 + trade.LookMinutes
}

// planed is a pair of corners after so much was planed off, before they are read again.
func planed(c [2]corner, off [2]float64) [2]corner {
	for i, d := range off {
		if d > 0 {
			c[i] = corner{c[i].off + d, math.Hypot(c[i].sigma, strays), true}
		}
	}
	return c
}

// read is the mean of what follows over all that may be read at the next hang, by Gauss and Hermite.
func read(c [2]corner, then func([2]corner) float64) (mean float64) {
	var at, weight [nodes]float64
	quad.Hermite{}.FixedLocations(at[:], weight[:], math.Inf(-1), math.Inf(1))
	var sure, spread [2]float64
	for i, x := range c {
		v := x.sigma * x.sigma
		after := 1 / (1/v + 1/(readAgain*readAgain))
		sure[i], spread[i] = math.Sqrt(after), math.Sqrt(v-after)
	}
	for a, x := range at {
		for b, y := range at {
			mean += weight[a] * weight[b] / math.Pi * then([2]corner{
				{c[0].off + math.Sqrt2*spread[0]*x, sure[0], c[0].planed},
				{c[1].off + math.Sqrt2*spread[1]*y, sure[1], c[1].planed},
			})
		}
	}
	return mean
}

// depths are what may be planed off a corner: nothing, or down to any fifth of the tolerance.
func depths(c corner) (list []float64) {
	list = []float64{0}
	for aim := -1.0; aim <= 1; aim += 0.2 {
		if d := aim - c.off; d >= trade.LeastPlaned.MM() {
			list = append(list, d)
		}
	}
	return list
}

// expectimax is the least expected minutes with so many rounds of work at most, of every order of work.
func expectimax(c [2]corner, rounds int) float64 {
	best := left(c)
	if rounds == 0 {
		return best
	}
	for _, a := range depths(c[0]) {
		for _, b := range depths(c[1]) {
			off := [2]float64{a, b}
			if off == [2]float64{} || work(off) >= best {
				continue
			}
			after := planed(c, off)
			if rounds == 1 { // nothing follows, so nothing is gained by what is read
				best = min(best, work(off)+left(after))
				continue
			}
			best = min(best, work(off)+read(after, func(c [2]corner) float64 { return expectimax(c, rounds-1) }))
		}
	}
	return best
}

// ours is the expected minutes of doing what this package says, as often.
func ours(t require.TestingT, c [2]corner, rounds int) float64 {
	h := hung()
	h.Least, h.With, h.Cut = 0.2, PlaneHead|PlaneFoot, strays
	for _, side := range frame.Sides {
		h.Ends[side] = [2]float64{0.01, 0.01}
		for i := range h.Margins[side] {
			h.Margins[side][i].Sigma = 0.01
		}
	}
	for i, side := range worldSides {
		h.off(side, 0, c[i].off)
		h.Ends[side][1] = c[i].sigma
		h.Margins[side][len(h.Margins[side])-1].Sigma = c[i].sigma
	}
	ways := h.Ways()
	if rounds == 0 || h.Near(ways) || h.Fits() || len(ways) == 0 {
		return left(c)
	}
	var off [2]float64
	for _, p := range ways[0].Planed {
		for i, side := range worldSides {
			if p.Side == side {
				off[i] = p.Off[2]
				require.Less(t, p.Off[0], 0.5, "the corner that is right is hardly touched")
			}
		}
	}
	return work(off) + read(planed(c, off), func(c [2]corner) float64 { return ours(t, c, rounds-1) })
}

// The way that is shown first, or to stop, against the best of every order of work, by expected minutes.
func TestTheDecisionAgainstExpectimax(t *testing.T) {
	rng := rand.New(rand.NewPCG(28, 3))
	var mine, best float64
	for range thorough.Count(8, 32) {
		var c [2]corner
		for i := range c {
			c[i] = corner{off: 1 - 4*rng.Float64(), sigma: 0.25 + 0.25*rng.Float64()}
		}
		a, b := ours(t, c, 2), expectimax(c, 2)
		t.Logf("%+v: %.1f minutes, the best %.1f", c, a, b)
		mine, best = mine+a, best+b
	}
	t.Logf("%.1f minutes in all, the best %.1f", mine, best)
	assert.LessOrEqual(t, mine, 1.03*best)
}
