package fit

import (
	"math"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"

	"kindmargin/core/frame"
)

// excess bounds, at one station, by how much a finished margin may be wider than the best straight edge's in the true
// opening. Each bound is normal, with mean and σ in mm, and holds for every opening, so the smallest of them does. A
// leave-on of d lowers it by d·share.
type excess struct {
	bounds []bound
	share  float64
	way    float64 // how far along the edge, of the whole
}

type bound struct{ mean, sigma float64 }

// over is an upper bound on the probability that the excess passes limit, with left left on.
func (x excess) over(limit, left float64) float64 {
	far := math.Inf(-1)
	for _, b := range x.bounds {
		far = max(far, (limit+left*x.share-b.mean)/b.sigma)
	}
	return phi(-far)
}

// strayed is the excess with a straight cut whose two ends each have an independent normal error.
func (x excess) strayed(cut float64) excess {
	bounds := make([]bound, len(x.bounds))
	ends := x.way*x.way + (1-x.way)*(1-x.way)
	for i, b := range x.bounds {
		bounds[i] = bound{b.mean, math.Sqrt(b.sigma*b.sigma + cut*cut*ends + 1e-18)}
	}
	return excess{bounds, x.share, x.way}
}

// excessOf gives the bounds at each station of an edge with the given gaps and their covariance. wanted is the margin
// that the edge was drawn for.
//
// The best straight edge's residual is at least half the sagitta, either way, of any three points, because a sagitta is
// invariant to straight lines. So for each three (the ends and one between them), and each way,
//
// excess ≤ gap − wanted ∓ ½·(gap_k − (1−f)·gap_first − f·gap_last)
//
// which is linear in the opening, and so normal.
func excessOf(side frame.Side, gaps []Gap, wanted float64, cov mat.Symmetric) []excess {
	last := len(gaps) - 1
	share := func(i int) float64 { return (gaps[i].Along - gaps[0].Along) / (gaps[last].Along - gaps[0].Along) }
	list, bounds := make([]excess, len(gaps)), 2*(last-1)
	all := make([]bound, len(gaps)*bounds)
	for i, g := range gaps {
		list[i] = excess{bounds: all[i*bounds : (i+1)*bounds], share: 1, way: share(i)}
		if side == frame.Head {
			list[i].share = g.At / gaps[last].At // the hinge corner is cut to its mark
		}
	}
	for k := 1; k < last; k++ {
		f := share(k)
		sagitta := gaps[k].Mean - (1-f)*gaps[0].Mean - f*gaps[last].Mean
		with := func(i int) float64 { // covariance of the sagitta with a gap
			return cov.At(k, i) - (1-f)*cov.At(0, i) - f*cov.At(last, i)
		}
		own := with(k) - (1-f)*with(0) - f*with(last)
		for i, g := range gaps {
			for way, half := range [2]float64{0.5, -0.5} {
				variance := cov.At(i, i) - 2*half*with(i) + half*half*own
				list[i].bounds[2*(k-1)+way] = bound{g.Mean - wanted - half*sagitta, math.Sqrt(max(variance, 0))}
			}
		}
	}
	return list
}

// Sureness is the meaning of "never too far" in figures.
type Sureness struct {
	Tolerance frame.Each[float64] // a finished margin may be this much too wide as it is cut, mm
	Risk      float64             // accepted chance of more than that anywhere on the slab
	Cut       float64             // standard deviation of a cut from its line, mm
	Slab      float64             // how sure the slab's own size and squareness are, a standard deviation, mm
	Tapered   bool                // by rules 2 to 5: the head is held at its hinge corner for that corner alone
}

// Marked is the standard deviation of a finished edge from where it should lie by the readings, in mm.
func (s Sureness) Marked() float64 { return math.Sqrt(s.marked()) }

// marked is the variance of Marked, in mm².
func (s Sureness) marked() float64 { return s.Cut*s.Cut + s.Slab*s.Slab }

// Common is the default sureness: one slab in 200, cuts true to 0.3 mm (σ). Two fifths of that risk are reserved for
// what the estimate cannot know: how crooked an opening is before it is read, and slips too small to notice. Risk1 is
// the risk by version 1 of the rules.
//
// A slab is too small by over a millimetre once it hangs as well as it can: two hinges packed out close a lock margin by
// half a millimetre and more, one of them a head or a foot by a little. Found by package simulate.
var Common = Sureness{
	Tolerance: frame.Each[float64]{frame.Head: 1.1, frame.Lock: 1.6, frame.Foot: 1.3}, Risk: 0.003, Cut: 0.3,
}

// AsCut are the tolerances of rules 1 to 4, by which a slab may be no more than a millimetre too small as it is cut.
var AsCut = frame.Each[float64]{frame.Head: 1, frame.Lock: 1, frame.Foot: 1}

// Risk1 is described with Common, and Risk5 is that of rules 2 to 5.
const (
	Risk1 = 0.004
	Risk5 = 0.0015
)

// held is how much tighter the head hangs at the hinge corner, where its margin is set by the hinges' marks, in mm: so
// much that it is too wide there no more often than the risk of an edge allows; and more where that spares more wood
// along the head, since a taper alone hardly lowers the risk near the corner it begins at.
func held(list []excess, s Sureness) (best float64) {
	most := s.Tolerance[frame.Head] // more is held for a head whose middle nobody read: it is asked for
	z := distuv.UnitNormal.Quantile(1 - s.perEdge(true))
	by := math.Inf(1)
	for _, b := range list[0].strayed(s.Cut).bounds {
		by = min(by, z*b.sigma+b.mean-most)
	}
	if best = min(max(by, 0), most); s.Tapered {
		return best
	}
	var rest []excess
	for _, x := range list[1:] {
		rest = append(rest, x.strayed(s.Marked()))
	}
	least := math.Inf(1)
	for h := best; h <= most; h += heldStep {
		on := 2*h + leaveOf(rest, most+h, s.perEdge(true)) // twice the mean along the head
		if on > least+heldStep {
			break // the taper falls ever less
		}
		if on < least {
			best, least = h, on
		}
	}
	return best
}

// heldStep is the fineness of Held, in mm.
const heldStep = 0.05

// perEdge is the risk of one edge: an equal share among the three that are judged, and the hinge corner of the head
// where that counts.
func (s Sureness) perEdge(corner bool) float64 {
	if corner {
		return s.Risk / 4
	}
	return s.Risk / 3
}

// LeaveOn is the least amount, in mm, to leave on each edge at the first cut so that the risk is kept. For the head it
// is the amount at the lock corner, tapering to nothing at the hinge corner; the hinge edge needs none, since the pins
// follow the jamb itself and the width is corrected at the lock edge. The risk is shared by the three edges; the
// probability "anywhere on the edge" is bounded by the sum of those at the stations (Boole's inequality).
func (o Outline) LeaveOn(s Sureness) frame.Each[float64] {
	var leave frame.Each[float64]
	edges := []frame.Side{frame.Head, frame.Lock, frame.Foot}
	for _, side := range edges {
		var list []excess
		for _, x := range o.Edges[side].excess {
			if x.share > 0 { // where nothing can be left on, the slab is hung to its mark
				list = append(list, x.strayed(s.Marked()))
			}
		}
		leave[side] = leaveOf(list, s.Tolerance[side], s.perEdge(o.corner))
	}
	return leave
}

// leaveOf is the least leave-on, in mm, with which the chance that any of some places is over a tolerance is risk or
// less.
func leaveOf(list []excess, tolerance, risk float64) float64 {
	chance := func(left float64) (p float64) {
		for _, x := range list {
			p += x.over(tolerance, left)
		}
		return p
	}
	if chance(0) <= risk {
		return 0
	}
	lo, hi := 0.0, 1.0
	for chance(hi) > risk && hi < 1024 {
		lo, hi = hi, 2*hi
	}
	for range 12 {
		if mid := (lo + hi) / 2; chance(mid) > risk {
			lo = mid
		} else {
			hi = mid
		}
	}
	return hi
}

// A head is tapered to get leave-on at its lock corner. Where the taper is over MostTaper and the slope's σ over
// SlopeUnread there, both in mm, the slope itself is in doubt: it was not read twice. In hidden crooked openings that
// were read by tape and one square alone, the few that looked straight then were cut too small in 3 of 100.
const (
	MostTaper   = 2.0
	SlopeUnread = 1.5
)
