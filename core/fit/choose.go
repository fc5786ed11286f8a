package fit

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// Weighed is one way of laying the outline on a slab, cut to the line, and
// what speaks against it.
type Weighed struct {
	Laid
	Deepest frame.Each[float64] // most that comes off each edge, mm
	Over    frame.Each[float64] // by how much that passes the edge's limit, mm
	Handle  float64             // how far a bore that is there ends up outside the usual handle heights, mm
	Strike  float64             // how far it ends up below the strike that is there (above is negative), mm
	Uneven  float64             // how unlike stiles and rails end up, mm
	Edges   float64             // long edges that are cut
}

// Weigh lays the outline in each of the ways given and weighs them.
func Weigh(o Outline, s slab.Slab, ways []Laying) []Weighed {
	list := make([]Weighed, len(ways))
	usual := trade.HandleHeight
	for i, way := range ways {
		w := Weighed{Laid: lay(o, frame.Each[float64]{}, s, way)}
		var mean frame.Each[float64]
		for _, side := range frame.Sides {
			for _, c := range w.Cuts[side] {
				w.Deepest[side] = max(w.Deepest[side], c.Depth)
				mean[side] += max(c.Depth, 0) / float64(len(w.Cuts[side]))
			}
			if most := s.Most(side).MM(); w.Deepest[side] > most+overBy {
				w.Over[side] = w.Deepest[side] - most
			}
			if side.Upright() && w.Deepest[side] > 0.25 {
				w.Edges++
			}
		}
		if s.Handle > 0 {
			// The bore's height above the floor once the slab hangs.
			up := w.Length[2] - (s.Handle.MM() - w.Top[1]) + o.Edges[frame.Foot].GapAt(math.Inf(1))
			w.Handle = max(usual.Least.MM()-up, up-usual.Most.MM(), 0)
			if o.strike > 0 {
				w.Strike, w.Handle = s.Handle.MM()-w.Final-o.strike, 0
			}
		}
		w.Uneven = math.Abs(mean[frame.Hinge]-mean[frame.Lock]) + 0.1*math.Abs(mean[frame.Head]-mean[frame.Foot])
		list[i] = w
	}
	return list
}

// overBy is what no saw tells: a limit passed by less is kept to.
const overBy = 0.25

// rule is one thing that decides between ways of laying the slab, in order.
type rule struct {
	says string
	of   func(Weighed, slab.Slab) float64
	near float64 // as good as equal within this
}

func sum(e frame.Each[float64]) (t float64) {
	for _, v := range e {
		t += v
	}
	return t
}

var rules = []rule{
	{"no other way is the slab big enough", func(w Weighed, _ slab.Slab) (short float64) {
		for _, s := range w.Short {
			short += s.By
		}
		return short
	}, 0.05},
	{"a machined edge is never cut", func(w Weighed, s slab.Slab) (cut float64) {
		for _, side := range frame.Sides {
			if s.IsMachined(side) {
				cut += w.Over[side]
			}
		}
		return cut
	}, 0.05},
	{"what may come off each edge is kept to", func(w Weighed, _ slab.Slab) float64 { return sum(w.Over) }, 0.05},
	{"the bore that is there meets the strike that is there", func(w Weighed, _ slab.Slab) float64 { return math.Abs(w.Strike) }, 0.5},
	{"the handle that is bored stays at a usable height", func(w Weighed, _ slab.Slab) float64 { return w.Handle }, 1},
	{"stiles and rails that show stay alike", func(w Weighed, s slab.Slab) float64 {
		if c, _ := trade.ConstructionByID(s.Construction); c.Framed {
			return w.Uneven
		}
		return 0
	}, 0.5},
	{"one long edge is less work than two", func(w Weighed, _ slab.Slab) float64 { return w.Edges }, 0.5},
}

// Choose picks among weighed ways: a machined edge first, then limits, then
// the height of a bore that is there, then look, then least planing; where
// nothing decides, the first in the list, which for Layings is to cut the
// hinge edge, least seen, and the foot. It returns the index and the rules
// that decided, in order. It panics with no ways.
func Choose(ways []Weighed, s slab.Slab) (best int, why []string) {
	left := make([]int, len(ways))
	for i := range left {
		left[i] = i
	}
	for _, r := range rules {
		least := math.Inf(1)
		for _, i := range left {
			least = min(least, r.of(ways[i], s))
		}
		var next []int
		for _, i := range left {
			if r.of(ways[i], s) <= least+r.near {
				next = append(next, i)
			}
		}
		if len(next) < len(left) {
			why = append(why, r.says)
			left = next
		}
	}
	return left[0], why
}

// Ways lists the ways of laying a slab that are worth weighing: all Layings, and
// where a bore is to meet a strike those that bring it there.
func Ways(o Outline, s slab.Slab) []Laying {
	ways := Layings()
	if o.strike > 0 && s.Handle > 0 {
		for _, r := range Registrations {
			ways = append(ways, Laying{r, MeetStrike})
		}
	}
	return ways
}

// Shared lists the ways that share what comes off as the limits allow, beside
// the usual ones: for a slab that every usual way takes too much off.
func Shared(s slab.Slab) (ways []Laying) {
	for _, r := range append([]Registration{ShareWidth}, Registrations...) {
		ways = append(ways, Laying{r, ShareLength})
	}
	for _, e := range AllEnds {
		ways = append(ways, Laying{ShareWidth, e})
	}
	return ways
}

// Keeps reports whether a way is big enough for the outline and keeps to what
// may come off each edge.
func (w Weighed) Keeps() bool { return len(w.Short) == 0 && sum(w.Over) == 0 }

// Pass is one pass of the plane, between two places along the edge, taking off
// Bite, all in mm.
type Pass struct{ From, To, Bite float64 }

// Passes gives the passes of a plane that takes off bite at most at a time, for
// a straight cut from depth first at 0 to depth last at length: the n passes take
// off the same, so that they add up to the depth, and pass i of n covers where
// more than (n−i) of them must come off, so that a taper's passes lengthen from
// its deep end.
func Passes(first, last, length, bite float64) []Pass {
	n := int(math.Ceil(max(first, last)/bite - 1e-9))
	if n > 0 {
		bite = max(first, last) / float64(n)
	}
	list := make([]Pass, 0, n)
	for i := 1; i <= n; i++ {
		over := float64(n-i) * bite
		p := Pass{0, length, bite}
		if first != last {
			at := length * (over - first) / (last - first) // where the depth is just over
			if first > last {
				p.To = min(max(at, 0), length)
			} else {
				p.From = min(max(at, 0), length)
			}
		}
		list = append(list, p)
	}
	return list
}

// Insert is the piece that closes the end of a hollow slab whose rail was cut
// away: as wide as the space between the stiles, as thick as that between the
// skins.
type Insert struct {
	End              frame.Side
	Width, Thickness measure.Length
	Deep             measure.Length // how far to push the core back, and the insert's own depth
	Left             measure.Length // of the rail; nought where it is gone
}

// weakRail is the rail that is still worth keeping: half of one. Common
// practice.
const weakRail = 15 * measure.Millimetre

// Inserts lists the ends of a hollow slab that need one after the cuts.
func (l Laid) Inserts(s slab.Slab) (list []Insert) {
	c, _ := trade.ConstructionByID(s.Construction)
	if c.Rail == 0 {
		return nil
	}
	for _, end := range []frame.Side{frame.Head, frame.Foot} {
		var off float64
		for _, cut := range l.Cuts[end] {
			off = max(off, cut.Depth)
		}
		left := c.Rail - measure.FromMM(off)
		if left < weakRail {
			list = append(list, Insert{end, s.Width - 2*c.Stile, s.Thickness - 2*c.Skin, c.Rail, max(left, 0)})
		}
	}
	return list
}
