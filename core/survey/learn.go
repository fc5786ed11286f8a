package survey

import (
	"math"
	"slices"

	"kindmargin/core/frame"
)

// How crooked an opening is, is learnt from its readings. The prior's lean and
// bow of the jambs, and its slope and bow of head and floor, are each taken times
// one of a few levels; each pair of levels is weighed by its evidence, the
// density that it gives the readings,
//
//	log p(y | levels) = −½ rᵀS⁻¹r − ½ log|S| + const,
//
// times what is believed of it beforehand (Rasmussen and Williams, eq. 2.30,
// from memory), and the variances are summed by those weights into one prior.
// Nobody reads the belly of a head or a floor: both are taken to be as crooked
// as the jambs, and then what their own readings say. The levels and what is
// believed of them are chosen so that ± holds from square frames to houses half
// again as crooked as usual; TestSurenessIsHonest keeps them to it.
var (
	levels  = [...]float64{0.25, 0.5, 1, 2, 4}
	believe = [...]float64{0.12, 0.22, 0.33, 0.21, 0.12}
)

// mostLearnt is how many readings are enough to learn from: more are thinned
// evenly.
const mostLearnt = 60

// crookedness is the four parts of a prior that are learnt.
type crookedness struct{ lean, bow, slope, headBow float64 }

func (p Prior) crookeder(by crookedness) Prior {
	p.Lean, p.JambBow = p.Lean*by.lean, p.JambBow*by.bow
	p.Slope, p.HeadBow = p.Slope*by.slope, p.HeadBow*by.headBow
	return p
}

// learn returns the prior as crooked as the readings say, but for those doubted
// (by their place among the readings given).
func (s *Shape) learn(doubted map[int]bool) Prior {
	p := s.prior
	var jambs, heads []int
	for i, row := range s.rows[:len(s.given)] {
		if doubted[i] {
			continue
		}
		level := slices.ContainsFunc(row, func(t Term) bool { return t.Side == frame.Head || t.Side == frame.Foot })
		if !level {
			jambs = append(jambs, i)
		}
		// How square a head is hangs on how plumb its jamb is.
		if level || s.given[i].Kind == Plumb {
			heads = append(heads, i)
		}
	}
	hinge := len(s.given) // the row of the pin h(0) = 0; that of f(0) = 0 follows
	var offers []int
	for i := hinge + 2; i < len(s.rows); i++ {
		offers = append(offers, i)
	}
	lean, bow := s.weigh(append(append(thin(jambs), hinge), offers...), func(lean, bow float64) Prior {
		return p.crookeder(crookedness{lean, bow, 1, 1})
	})
	both := math.Sqrt(lean * bow)
	p = p.crookeder(crookedness{lean, bow, both, both})
	slope, headBow := s.weigh(append(append(thin(heads), hinge, hinge+1), offers...), func(slope, bow float64) Prior {
		return p.crookeder(crookedness{1, 1, slope, bow})
	})
	return p.crookeder(crookedness{1, 1, slope, headBow})
}

func thin(rows []int) []int {
	if len(rows) <= mostLearnt {
		return rows
	}
	out := make([]int, mostLearnt)
	for i := range out {
		out[i] = rows[i*len(rows)/mostLearnt]
	}
	return out
}

// weigh gives the root mean square of the levels of lean and bow by the evidence
// of some rows; prior is the prior at a level of each.
func (s *Shape) weigh(rows []int, prior func(lean, bow float64) Prior) (lean, bow float64) {
	n := len(rows)
	// S is a sum of three parts: what stays, and the parts of lean and bow, which
	// go with the squares of their levels.
	part := func(p Prior) []float64 {
		c := make([]float64, n*n)
		for a, i := range rows {
			for b := range a + 1 {
				c[a*n+b] = p.covOf(s.rows[i], s.rows[rows[b]])
			}
		}
		return c
	}
	stays, leans, bows := part(prior(0, 0)), part(prior(1, 0)), part(prior(0, 1))
	for k := range stays {
		leans[k] -= stays[k]
		bows[k] -= stays[k]
	}
	resid := make([]float64, n)
	for a, i := range rows {
		resid[a] = s.resid[i]
		stays[a*n+a] += s.noise[i]
	}
	var logs [len(levels)][len(levels)]float64
	most := math.Inf(-1)
	work, x := make([]float64, n*n), make([]float64, n)
	for i, l := range levels {
		for j, b := range levels {
			for k := range work {
				work[k] = stays[k] + l*l*leans[k] + b*b*bows[k]
			}
			logs[i][j] = math.Log(believe[i]*believe[j]) + evidence(work, resid, x)
			most = max(most, logs[i][j])
		}
	}
	var sum float64
	for i, l := range levels {
		for j, b := range levels {
			w := math.Exp(logs[i][j] - most)
			sum += w
			lean += w * l * l
			bow += w * b * b
		}
	}
	return math.Sqrt(lean / sum), math.Sqrt(bow / sum)
}

// evidence is −½ rᵀS⁻¹r − ½ log|S| by Cholesky, in place, of the lower triangle
// of S, n × n in rows; x is room for n numbers. It is −∞ where S is not positive
// definite.
func evidence(s, r, x []float64) float64 {
	n := len(r)
	var misfit float64
	det := 1.0 // of L: sixty roots of a few centimetres are far from overflowing
	for i := range n {
		row := s[i*n : i*n+i+1]
		v, d := r[i], row[i]
		for j := range i {
			other := s[j*n : j*n+j+1]
			sum, have := row[j], row[:j]
			for k, c := range other[:len(have)] {
				sum -= have[k] * c
			}
			sum /= other[j]
			row[j] = sum
			v -= sum * x[j]
			d -= sum * sum
		}
		if d <= 0 {
			return math.Inf(-1)
		}
		root := math.Sqrt(d)
		row[i] = root
		x[i] = v / root
		misfit += x[i] * x[i]
		det *= root
	}
	return -misfit/2 - math.Log(det)
}

// Learn is the estimate with a prior as crooked as the readings themselves say
// that the opening is. A slip would pass for crookedness, so what is a suspect
// in a usual opening is not learnt from; in an opening found crooked enough
// without it, it may then be no suspect.
func Learn(readings []Reading, offers []Offer, p Prior) (*Shape, error) {
	usual, err := Estimate(readings, offers, p)
	if err != nil || len(usual.given) < 3 {
		return usual, err
	}
	doubted := map[int]bool{}
	for _, x := range usual.Suspects() {
		doubted[x.index] = true
		if x.Swapped != nil {
			doubted[x.other] = true
		}
	}
	s, err := Estimate(readings, offers, usual.learn(doubted))
	if err != nil || len(doubted) == 0 || len(s.Suspects()) > 0 {
		return s, err
	}
	return Estimate(readings, offers, usual.learn(nil))
}
