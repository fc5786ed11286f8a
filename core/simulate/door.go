package simulate

import (
	"math"
	"math/rand/v2"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
)

// door is a slab as it hangs: the pins' margins at the top and the bottom
// hinge, its width at head and foot, how far its head and foot run up toward
// the lock edge, and its length on the hinge edge.
type door struct {
	pin            [2]float64
	top, foot      float64 // width
	headUp, footUp float64
	length         float64
	headGap        float64 // at the hinge corner, set by the hinges
	raised         float64 // by how much more the foot margin wanted is, so that the foot clears the floor as it swings
}

// gaps are the true margins of a hung door at places along lock, head and
// foot.
func (o opening) gaps(d door) (g frame.Each[[]fit.Point]) {
	bottom := o.at(frame.Hinge, pins[1]) + d.pin[1]
	lean := (o.at(frame.Hinge, pins[0]) + d.pin[0] - bottom) / (pins[0] - pins[1])
	edge := func(v float64) float64 { return bottom + lean*(v-pins[1]) }
	const n = 13
	for i := range n {
		f := float64(i) / (n - 1)
		v, u := height*f, width*f
		g[frame.Lock] = append(g[frame.Lock], fit.Point{S: v, Off: o.at(frame.Lock, v) - edge(v) - (d.foot + (d.top-d.foot)*f)})
		headAt := o.at(frame.Head, 0) - d.headGap
		g[frame.Head] = append(g[frame.Head], fit.Point{S: u, Off: o.at(frame.Head, u) - (headAt + d.headUp*f - lean*u)})
		g[frame.Foot] = append(g[frame.Foot], fit.Point{S: u, Off: headAt - d.length + d.footUp*f - lean*u - o.at(frame.Foot, u)})
	}
	return g
}

var judged = []frame.Side{frame.Lock, frame.Head, frame.Foot}

func (d door) wanted(s frame.Side) float64 {
	if s == frame.Foot {
		return under + d.raised
	}
	return margin
}

// small lists the edges that stand more than a millimetre further from
// their side somewhere than the best straight edge would.
func (o opening) small(d door) (list []frame.Side) {
	g := o.gaps(d)
	for _, s := range judged {
		_, best, _ := fit.Minimax(g[s])
		widest := math.Inf(-1)
		for _, p := range g[s] {
			widest = max(widest, p.Off)
		}
		moved := max(least-(d.wanted(s)-best), 0) // a straight edge gives way to the least margin
		if widest > d.wanted(s)+best+moved+tooSmall {
			list = append(list, s)
		}
	}
	return list
}

// fits reports whether a hung door needs no more: every margin at least the least, and
// each edge within a millimetre of the best straight one all along. Two straight lines
// differ most at an end.
func (o opening) fits(d door) bool {
	g := o.gaps(d)
	for _, s := range judged {
		line, best, _ := fit.Minimax(g[s])
		moved := max(least-(d.wanted(s)-best), 0)
		for _, p := range g[s] {
			if p.Off < least || math.Abs(line.At(p.S)-d.wanted(s)-moved) > within {
				return false
			}
		}
	}
	return true
}

func (o opening) uneven(d door) (worst float64) {
	g := o.gaps(d)
	for _, s := range []frame.Side{frame.Lock, frame.Head} {
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, p := range g[s] {
			lo, hi = min(lo, p.Off), max(hi, p.Off)
		}
		worst = max(worst, hi-lo)
	}
	return worst
}

// crude is how true gaps are told of a slab that does not go in, in mm.
const crude = 1.0

// returns hangs a door, reads its gaps, and while it does not fit takes it back to the
// trestles and planes each edge that stands too near its side to the straight line that
// the gaps ask for. It never puts wood back: an edge that stands too far stays so, and is
// no reason for a trip.
func (o opening) returns(d door, rng *rand.Rand) (trips int, last door) {
	for trips < mostReturns {
		g := o.gaps(d)
		tight, noise := false, gapNoise
		for _, s := range judged { // one that does not go in shows hardly more than where it touches
			for _, p := range g[s] {
				if p.Off < 0 {
					noise = crude
				}
			}
		}
		for _, s := range judged {
			_, best, _ := fit.Minimax(g[s])
			moved := max(least-(d.wanted(s)-best), 0)
			line, _, _ := fit.Minimax(g[s])
			near := false
			for i := range g[s] {
				near = near || g[s][i].Off < least || line.At(g[s][i].S) < d.wanted(s)+moved-within
				g[s][i].Off += rng.NormFloat64() * noise
			}
			if !near {
				continue
			}
			tight = true
			line, best, _ = fit.Minimax(g[s])
			line.A -= max(best-(d.wanted(s)-least), 0) // keep the least in the tightest place
			if noise == crude {
				line.A += crude // and more is left on
			}
			lack := func(at float64) float64 { return max(max(d.wanted(s)-line.At(at), 0)+rng.NormFloat64()*cutNoise, 0) }
			switch s {
			case frame.Lock:
				d.foot -= lack(0)
				d.top -= lack(height)
			case frame.Head:
				// The pockets are cut, so the slab stays where it hangs.
				a, b := lack(0), lack(width)
				d.headUp += a - b
				d.headGap += a
				d.length -= a
			default:
				a, b := lack(0), lack(width)
				d.length -= a
				d.footUp += b - a
			}
		}
		if !tight {
			break
		}
		trips++
	}
	return trips, d
}

// cut adds the saw's and plane's own noise, at each end of each edge; the head's is
// told against its hinge corner, which the hinges are measured from.
func (d door) cut(rng *rand.Rand) door {
	stray := func() float64 { return rng.NormFloat64() * cutNoise }
	d.top += stray()
	d.foot += stray()
	d.headUp += stray()
	hinge, lock := stray(), stray()
	d.length += hinge
	d.footUp += hinge - lock
	return d
}
