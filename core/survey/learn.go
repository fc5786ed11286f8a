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
	believe = [...]float64{0.11, 0.2, 0.32, 0.23, 0.14}
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
		level := slices.ContainsFunc(row, func(t Term) bool { return t.Of == Of(frame.Head) || t.Of == Of(frame.Foot) })
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

// leanOf is a side's lean from plumb or slope from level; nought for what is no
// side.
func (p *Prior) leanOf(of Part) float64 {
	switch side, ok := of.Side(); {
	case !ok:
		return 0
	case side.Upright():
		return p.Lean
	}
	return p.Slope
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
	none, bowed := prior(0, 0), prior(0, 1)
	stays, bows := s.cov(&none, rows), s.cov(&bowed, rows)
	for k := range stays {
		bows[k] -= stays[k]
	}
	// The part of lean has rank two, a column u for each of the two sides: its
	// levels cost no factorisation of their own (Woodbury's identity and the matrix
	// determinant lemma). With LLᵀ the rest of S, w = L⁻¹r and V = L⁻¹u,
	//
	//	log|S| = log|LLᵀ| + log|I + l²VᵀV|;  rᵀS⁻¹r = wᵀw − l²(Vᵀw)ᵀ(I + l²VᵀV)⁻¹(Vᵀw)
	v := s.leanColumns(rows, none, prior(1, 0))
	resid := make([]float64, n)
	for a, i := range rows {
		resid[a] = s.resid[i]
		stays[a*n+a] += s.noise[i]
	}
	var logs [len(levels)][len(levels)]float64
	most := math.Inf(-1)
	work, w, v0, v1 := make([]float64, n*n), make([]float64, n), make([]float64, n), make([]float64, n)
	for j, b := range levels {
		for k := range work {
			work[k] = stays[k] + b*b*bows[k]
		}
		copy(w, resid)
		copy(v0, v[0])
		copy(v1, v[1])
		det, ok := factor(work, w, v0, v1)
		var ww, g00, g01, g11, c0, c1 float64
		for k := range w {
			ww += w[k] * w[k]
			g00, g01, g11 = g00+v0[k]*v0[k], g01+v0[k]*v1[k], g11+v1[k]*v1[k]
			c0, c1 = c0+v0[k]*w[k], c1+v1[k]*w[k]
		}
		for i, l := range levels {
			if !ok {
				logs[i][j] = math.Inf(-1)
				continue
			}
			ll := l * l
			p, q, r := 1+ll*g00, ll*g01, 1+ll*g11
			d := p*r - q*q
			misfit := ww - ll*(c0*c0*r-2*c0*c1*q+c1*c1*p)/d
			logs[i][j] = math.Log(believe[i]*believe[j]/(det*math.Sqrt(d))) - misfit/2
			most = max(most, logs[i][j])
		}
	}
	return meanLevels(&logs, most)
}

// leanColumns are what a lean of the one and of the other side of a pair does
// to some rows. The other two sides lean the same in both priors.
func (s *Shape) leanColumns(rows []int, none, one Prior) [2][]float64 {
	v := [2][]float64{make([]float64, len(rows)), make([]float64, len(rows))}
	for a, i := range rows {
		for _, t := range s.rows[i] {
			u := t.By * t.At * (one.leanOf(t.Of) - none.leanOf(t.Of))
			switch t.Of {
			case Of(frame.Hinge), Of(frame.Head):
				v[0][a] += u
			case Of(frame.Lock), Of(frame.Foot):
				v[1][a] += u
			}
		}
	}
	return v
}

// meanLevels is the root mean square of the levels, weighed by the logarithms
// of their evidence, of which most is the greatest.
func meanLevels(logs *[len(levels)][len(levels)]float64, most float64) (lean, bow float64) {
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

// factor puts L of S = LLᵀ in place of the lower triangle of S, n × n in rows, and
// L⁻¹x in place of each x; det is |L|. ok is false where S is not positive definite.
func factor(s []float64, xs ...[]float64) (det float64, ok bool) {
	n := len(xs[0])
	det = 1 // sixty roots of a few centimetres are far from overflowing
	for i := range n {
		row := s[i*n : i*n+i+1]
		d := row[i]
		for j := range i {
			other := s[j*n : j*n+j+1]
			sum, have := row[j], row[:j]
			for k, c := range other[:len(have)] {
				sum -= have[k] * c
			}
			sum /= other[j]
			row[j] = sum
			d -= sum * sum
		}
		if d <= 0 {
			return 0, false
		}
		root := math.Sqrt(d)
		row[i] = root
		det *= root
		for _, x := range xs {
			v := x[i]
			for k, c := range row[:i] {
				v -= c * x[k]
			}
			x[i] = v / root
		}
	}
	return det, true
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
	s, err := usual.under(usual.learn(doubted))
	if err != nil || len(doubted) == 0 || len(s.Suspects()) > 0 {
		return s, err
	}
	return usual.under(usual.learn(nil))
}
