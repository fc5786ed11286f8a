package fit

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/message"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// Judged is one way of laying the outline on a slab, cut to the line, with what speaks against it.
type Judged struct {
	Laid
	Deepest frame.Each[float64] // most that comes off each edge, mm
	Over    frame.Each[float64] // by how much that passes the edge's limit, mm
	Handle  float64             // how far a bore that is there ends up outside the usual handle heights, mm
	Strike  float64             // how far it ends up below the strike that is there (above is negative), mm
	Uneven  float64             // how unlike stiles and rails end up, mm
	Edges   float64             // long edges that are cut
}

// Judge lays the outline in each of the given ways and judges it.
func Judge(o Outline, s slab.Slab, ways []Laying) []Judged {
	list := make([]Judged, len(ways))
	usual := trade.HandleHeight
	for i, way := range ways {
		w := Judged{Laid: lay(o, frame.Each[float64]{}, s, way)}
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
			// The height of the bore above the floor once the slab hangs.
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

// overBy is the tolerance of a limit, under what a saw resolves.
const overBy = 0.25

// rule is one criterion for a way of laying the slab; rules are applied in order.
type rule struct {
	id   message.ID
	of   func(Judged, slab.Slab) float64
	near float64 // as good as equal within this
}

func sum(e frame.Each[float64]) (t float64) {
	for _, v := range e {
		t += v
	}
	return t
}

var rules = []rule{
	{"rule.big-enough", func(w Judged, _ slab.Slab) (short float64) {
		for _, s := range w.Short {
			short += s.By
		}
		return short
	}, 0.05},
	{"rule.machined", func(w Judged, s slab.Slab) (cut float64) {
		for _, side := range frame.Sides {
			if s.IsMachined(side) {
				cut += w.Over[side]
			}
		}
		return cut
	}, 0.05},
	{"rule.limits", func(w Judged, _ slab.Slab) float64 { return sum(w.Over) }, 0.05},
	{"rule.strike", func(w Judged, _ slab.Slab) float64 { return math.Abs(w.Strike) }, 0.5},
	{"rule.handle", func(w Judged, _ slab.Slab) float64 { return w.Handle }, 1},
	{"rule.inserts", func(w Judged, s slab.Slab) float64 {
		if !s.Closes {
			return 0
		}
		return float64(len(w.Inserts(s)))
	}, 0.5},
	{"rule.alike", func(w Judged, s slab.Slab) float64 {
		if c, _ := trade.ConstructionByID(s.Construction); c.Framed {
			return w.Uneven
		}
		return 0
	}, 0.5},
	{"rule.one-edge", func(w Judged, _ slab.Slab) float64 { return w.Edges }, 0.5},
}

// Choose picks one of the judged ways: first by machined edges, then limits, the height of an existing bore, inserts, looks,
// and least planing. Where nothing decides, the first in the list wins, which for Layings cuts the hinge edge, where it is
// least seen, and the foot. It returns the index and the rules that decided, in order. It panics on an empty list.
func Choose(ways []Judged, s slab.Slab) (best int, why []message.ID) {
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
			why = append(why, r.id)
			left = next
		}
	}
	return left[0], why
}

// Keeps reports whether a way is large enough for the outline and within every edge's limit.
func (w Judged) Keeps() bool { return len(w.Short) == 0 && sum(w.Over) == 0 }
