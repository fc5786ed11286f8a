package fit

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/integrate/quad"
	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
	"kindmargin/core/survey"
)

// After the first hang a slab fits when every margin is at least the least, and within a tolerance of the best straight
// edge's in the true opening. That edge and the one that was cut are two straight lines, so they differ most at an end:
// to first order by the straight line through the errors of the edge's estimate. The two ends of an edge are two normal
// figures, which the leave-on shifts.

// tripEdges are the edges whose margins are judged; the hinge edge follows the pins.
var tripEdges = [3]frame.Side{frame.Lock, frame.Head, frame.Foot}

// edgeEnds are the two ends of an edge as figures of the opening.
type edgeEnds struct {
	rows  [2]survey.Row // how much wider than the best the margin comes out there
	share [2]float64    // of what is left on
	// least is how much wider the margin must be at either end to reach the least there, in mm, usually negative;
	// within is the same at the most critical place between them, a share of way along.
	least [2]float64
	way   float64
	// waves is an additional variance of either end, in mm²: errors of more than one bow turn the best line further
	// than half the sagitta does.
	waves  float64
	within float64
	// wanted is the margin that the edge was drawn for; narrower by as much, it touches.
	wanted float64
}

// endsOf gives an edge's ends from the rows of its stations' margins and their covariance, with the margin wanted and
// the least, in mm.
func endsOf(side frame.Side, e Edge, m margins, wanted, least float64) edgeEnds {
	rows, cov := m.rows, m.cov
	last := len(e.Gaps) - 1
	out := edgeEnds{share: [2]float64{1, 1}, wanted: max(wanted-e.Residual, 0), way: 0.5, within: math.Inf(-1)}
	line := lineOf(e.Gaps)
	for i, g := range e.Gaps {
		// What a straight edge costs here is allowed for at the first hang, as is the deviation of the side from the
		// line through its errors, by the least of about three independent ones (on average −0.85 σ).
		off := stray(i, line, cov)
		out.waves = max(out.waves, wavy*off)
		lack := min(least-g.Mean+0.85*math.Sqrt(off), 0)
		switch i {
		case 0:
			out.least[0] = lack
		case last:
			out.least[1] = lack
		default:
			if lack > out.within {
				out.within = lack
				out.way = (g.Along - e.Gaps[0].Along) / (e.Gaps[last].Along - e.Gaps[0].Along)
			}
		}
	}
	ends := [2]int{0, last}
	if side == frame.Head {
		out.share[0] = 0 // the hinge corner is cut to its mark
		out.rows[0], ends[0] = rows[0], -1
	}
	for end, at := range ends {
		if at < 0 {
			continue
		}
		for i, weight := range line(at) {
			for _, t := range rows[i] {
				k := slices.IndexFunc(out.rows[end], func(x survey.Term) bool { return x.Of == t.Of && x.At == t.At })
				if k < 0 {
					out.rows[end] = append(out.rows[end], survey.Term{Of: t.Of, At: t.At, By: weight * t.By})
				} else {
					out.rows[end][k].By += weight * t.By
				}
			}
		}
	}
	return out
}

// wavy is the share of the variance off the line that its ends have in addition, found by drawing openings of the usual
// crookedness.
const wavy = 0.25

// lineOf gives, for each station, the weights of all stations' values in the straight line nearest to them (minimax):
// for a bow, which most errors along a side are, half the sagitta off the chord of its ends.
func lineOf(gaps []Gap) func(at int) []float64 {
	last := len(gaps) - 1
	middle := last / 2
	share := func(i int) float64 {
		return (gaps[i].Along - gaps[0].Along) / (gaps[last].Along - gaps[0].Along)
	}
	return func(at int) []float64 {
		weights := make([]float64, len(gaps))
		weights[middle] = 0.5
		weights[0] += 1 - share(at) - 0.5*(1-share(middle))
		weights[last] += share(at) - 0.5*share(middle)
		return weights
	}
}

// stray is the variance of a station's error off the line through all of them.
func stray(at int, line func(int) []float64, cov mat.Symmetric) (v float64) {
	weights := line(at)
	for i := range weights {
		weights[i] = -weights[i]
	}
	weights[at]++
	for i, a := range weights {
		if a == 0 {
			continue
		}
		for j, b := range weights {
			v += a * b * cov.At(i, j)
		}
	}
	return max(v, 0)
}

// Ends are the six figures of the opening that another trip depends on, two for each of lock edge, head and foot.
func (o Outline) Ends() (rows []survey.Row) {
	for _, e := range o.ends {
		rows = append(rows, e.rows[0], e.rows[1])
	}
	return rows
}

// Trip is what the probability of another trip to the trestles depends on.
type Trip struct {
	Sureness
	Fits   float64 // how far from the best a margin may be and still fit, mm
	ByRule bool    // what is left on falls with what the readings leave unsure
	Round  float64 // a mark of the tape, mm: by half of it more stays on than was meant
}

// Chance is the probability of another trip after the first hang, with leave left on each edge, where the ends have the
// covariance cov (6 × 6 by rows, mm²). Where the leave-on follows the rule and was computed at the covariance before,
// it is scaled down with the ends' sigma; before may be nil.
func (o Outline) Chance(t Trip, leave frame.Each[float64], cov, before []float64) float64 {
	fits := 1.0
	for k, e := range o.ends {
		i, j := 2*k, 2*k+1
		left, cut := t.left(leave[tripEdges[k]], cov, before, i), t.marked()
		fits *= box(
			bivariate{
				[2]float64{-left * e.share[0], -left * e.share[1]},
				[3]float64{cov[i*6+i] + cut + e.waves, cov[i*6+j], cov[j*6+j] + cut + e.waves},
			},
			[2]float64{max(-t.Fits, e.least[0]), max(-t.Fits, e.least[1])}, t.Fits, e.way, e.within,
		)
	}
	return 1 - fits
}

// Nearness is about the log of the probability that the slab fits at the first hang, taking the ends as independent: it
// ranks readings also where another trip is nearly certain.
func (o Outline) Nearness(t Trip, leave frame.Each[float64], cov, before []float64) float64 {
	fits := 1.0
	for k, e := range o.ends {
		left := t.left(leave[tripEdges[k]], cov, before, 2*k)
		for end, share := range e.share {
			sigma, shift := t.sigma(e, cov, 2*k+end), left*share
			fits *= max(phi((t.Fits+shift)/sigma)-phi((max(-t.Fits, e.least[end])+shift)/sigma), hopeless)
		}
	}
	return math.Log(fits)
}

// GoesIn is about the log of the probability that the slab goes in at all, taking the ends as independent. One that
// does not shows hardly any of its gaps, and costs another trip.
func (o Outline) GoesIn(t Trip, leave frame.Each[float64], cov, before []float64) float64 {
	in := 1.0
	for k, e := range o.ends {
		left := t.left(leave[tripEdges[k]], cov, before, 2*k)
		for end, share := range e.share {
			in *= max(phi((e.wanted-left*share)/t.sigma(e, cov, 2*k+end)), hopeless)
		}
	}
	return math.Log(in)
}

// LeftOn is about the leave-on of lock edge, head and foot, in mm, once the ends' covariance has fallen from before to
// cov.
func (t Trip) LeftOn(leave frame.Each[float64], cov, before []float64) (left [3]float64) {
	for k, side := range tripEdges {
		left[k] = t.left(leave[side], cov, before, 2*k)
	}
	return left
}

// hopeless is the smallest log probability of an end: the product over six ends is still a float64 above 0.
const hopeless = 1e-50

// sigma is the standard deviation of end i of an edge as it is cut, mm.
func (t Trip) sigma(e edgeEnds, cov []float64, i int) float64 {
	return math.Sqrt(cov[i*6+i] + t.marked() + e.waves)
}

// left is the leave-on of an edge with ends i and i+1: by the rule, scaled with the normal deviate of the ends; and
// half a mark of the tape more, by rounding.
func (t Trip) left(left float64, cov, before []float64, i int) float64 {
	half := t.Round / 2
	if before == nil || !t.ByRule || left == 0 {
		return left + half
	}
	return max((left+half)*min(t.leaves(cov, i)/max(t.leaves(before, i), 1e-6), 1), half)
}

// leaves is about the rule's leave-on for an edge with ends i and i+1.
func (t Trip) leaves(cov []float64, i int) float64 {
	return max(usualDeviate*math.Sqrt(max(cov[i*6+i], cov[i*6+6+i+1])+t.marked())-t.Tolerance[tripEdges[i/2]], 0)
}

// usualDeviate is about the normal deviate that either end passes with the risk of one edge. Only its change with the
// readings matters, so it need be no nearer.
const usualDeviate = 3.14

// bivariate is a bivariate normal distribution: means, and v = (σ₁², σ₁₂, σ₂²).
type bivariate struct {
	mean [2]float64
	v    [3]float64
}

// box is the probability that both normal figures lie between their lo and hi, and that the straight line through them
// is over within at a share of the way: Gauss–Legendre over the first, closed form for the second given it.
func box(n bivariate, lo [2]float64, hi, share, within float64) float64 {
	mean, v := n.mean, n.v
	s1 := math.Sqrt(v[0])
	slope := v[1] / v[0]
	s2 := math.Sqrt(max(v[2]-v[1]*slope, 1e-12))
	from, to := max(lo[0], mean[0]-6*s1), min(hi, mean[0]+6*s1)
	if from >= to {
		return 0
	}
	half, middle := (to-from)/2, (to+from)/2
	var sum float64
	for i, place := range legendre.at {
		at := middle + half*place
		z := (at - mean[0]) / s1
		given := mean[1] + slope*(at-mean[0])
		least := max(lo[1], (within-(1-share)*at)/share)
		if least < hi {
			sum += legendre.weight[i] * math.Exp(-z*z/2) * (phi((hi-given)/s2) - phi((least-given)/s2))
		}
	}
	return min(sum*half/(s1*math.Sqrt(2*math.Pi)), 1)
}

// legendre are the nodes and weights of the Gauss–Legendre rule with 16 points on [−1, 1].
var legendre = func() (rule struct{ at, weight [16]float64 }) {
	quad.Legendre{}.FixedLocations(rule.at[:], rule.weight[:], -1, 1)
	return rule
}()
