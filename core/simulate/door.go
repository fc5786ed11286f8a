package simulate

import (
	"math"
	"math/rand/v2"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/trade"
)

// hungSlab is a hung slab: the pins' margins at the top and the bottom hinge, its width at head and foot, how far its head
// and foot rise toward the lock edge, and its length on the hinge edge.
type hungSlab struct {
	pin            [2]float64
	top, foot      float64 // width
	headUp, footUp float64
	length         float64
	headGap        float64 // at the hinge corner, set by the hinges
	raised         float64 // by how much more the foot margin wanted is, so that the foot clears the floor as it swings
}

// gaps are the true margins of a hung slab at places along lock, head and foot.
func (o opening) gaps(d hungSlab) (g frame.Each[[]fit.Point]) {
	bottom := o.at(frame.Hinge, pins[1]) + d.pin[1]
	lean := (o.at(frame.Hinge, pins[0]) + d.pin[0] - bottom) / (pins[0] - pins[1])
	edge := func(v float64) float64 { return bottom + lean*(v-pins[1]) }
	const n = 13
	for i := range n {
		f := float64(i) / (n - 1)
		v, u := height*f, width*f
		g[frame.Lock] = append(g[frame.Lock], fit.Point{
			S: v, Off: o.at(frame.Lock, v) - edge(v) - (d.foot + (d.top-d.foot)*f),
		})
		headAt := o.at(frame.Head, 0) - d.headGap
		g[frame.Head] = append(g[frame.Head], fit.Point{
			S: u, Off: o.at(frame.Head, u) - (headAt + d.headUp*f - lean*u),
		})
		g[frame.Foot] = append(g[frame.Foot], fit.Point{
			S: u, Off: headAt - d.length + d.footUp*f - lean*u - o.at(frame.Foot, u),
		})
	}
	return g
}

var judged = []frame.Side{frame.Lock, frame.Head, frame.Foot}

func (d hungSlab) wanted(s frame.Side) float64 {
	if s == frame.Foot {
		return under + d.raised
	}
	return margin
}

// small lists the edges that are anywhere more than a millimetre further from their side than the best straight edge.
func (o opening) small(d hungSlab) (list []frame.Side) {
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

// fits reports whether a hung slab fits: every margin at least the least, and each edge within a millimetre of the best
// straight one all along. Two straight lines differ most at an end.
func (o opening) fits(d hungSlab) bool {
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

// off is the greatest distance of a hung slab's edges, as straight lines, from the best ones.
func (o opening) off(d hungSlab) (worst float64) {
	g := o.gaps(d)
	for _, s := range judged {
		line, best, _ := fit.Minimax(g[s])
		moved := max(least-(d.wanted(s)-best), 0)
		for _, at := range [2]float64{0, reach(s)} {
			worst = max(worst, math.Abs(line.At(at)-d.wanted(s)-moved))
		}
	}
	return worst
}

func (o opening) uneven(d hungSlab) (worst float64) {
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

// Crude is how well gaps are known of a slab that does not go in, in mm (σ).
const Crude = 1.0

// shave is how the schools finish: the slab is hung, its gaps are read, and until it fits each edge that is too near
// its side is planed to the straight line that the gaps ask for. Wood is never put back: an edge that is too far stays
// so. The minutes are those of the program, and a lock edge too is planed with the slab hanging.
func (o opening) shave(h *hung, rng *rand.Rand) {
	for range mostRounds {
		g := o.gaps(h.slab)
		noise := gapNoise
		if !o.goesIn(h.slab) { // it shows hardly more than where it touches
			noise = Crude
		}
		h.minutes += shaveGaps * trade.GapMinutes
		before, off, planed := h.slab, frame.Each[float64]{}, 0
		for _, s := range judged {
			lack, near := o.lacks(s, g[s], h.slab.wanted(s), noise, rng)
			if !near {
				continue
			}
			planed++
			off[s] = max(lack[0], lack[1])
			h.slab = h.slab.planed(s, lack)
			h.minutes += trade.PlaneMinutes + trade.WoodMinutes*(lack[0]+lack[1])/2*reach(s)/1000
		}
		switch {
		case h.slab == before && planed == 0:
			return
		case planed == 1 && off[frame.Lock] > 0 && off[frame.Lock] <= trade.MostHanging.MM():
			h.minutes += trade.AwkwardMore
		default:
			h.trips++
		}
	}
}

// shaveGaps is how many gaps are read each time: the ends of three edges.
const shaveGaps = 6

// lacks is what to plane off an edge at its two ends by the gaps read; near is whether it is too near its side at all.
func (o opening) lacks(
	s frame.Side, g []fit.Point, wanted, noise float64, rng *rand.Rand,
) (lack [2]float64, near bool) {
	line, best, _ := fit.Minimax(g)
	moved := max(least-(wanted-best), 0)
	read := make([]fit.Point, len(g))
	for i, p := range g {
		near = near || p.Off < least || line.At(p.S) < wanted+moved-within
		read[i] = fit.Point{S: p.S, Off: p.Off + rng.NormFloat64()*noise}
	}
	line, best, _ = fit.Minimax(read)
	line.A -= max(best-(wanted-least), 0) // keep the least in the tightest place
	if noise == Crude {
		line.A += Crude // and more is left on
	}
	for end, at := range [2]float64{0, reach(s)} {
		lack[end] = max(max(wanted-line.At(at), 0)+rng.NormFloat64()*cutNoise, 0)
	}
	return lack, near
}

// planed is a slab with one edge planed, at its foot or hinge corner and at its head or lock corner.
func (d hungSlab) planed(s frame.Side, by [2]float64) hungSlab {
	switch s {
	case frame.Lock:
		d.foot -= by[0]
		d.top -= by[1]
	case frame.Head: // the pockets are cut, so the slab stays where it hangs
		d.headUp += by[0] - by[1]
		d.headGap += by[0]
		d.length -= by[0]
	case frame.Foot:
		d.length -= by[0]
		d.footUp += by[1] - by[0]
	}
	return d
}

// cut adds the errors of saw and plane at each end of each edge; the head's are relative to its hinge corner, which the
// hinges are measured from.
func (d hungSlab) cut(rng *rand.Rand) hungSlab {
	stray := func() float64 { return rng.NormFloat64() * cutNoise }
	d.top += stray()
	d.foot += stray()
	d.headUp += stray()
	hinge, lock := stray(), stray()
	d.length += hinge
	d.footUp += hinge - lock
	return d
}
