package survey

import (
	"math"
	"slices"

	"kindmargin/core/frame"
)

// belief is the prior on how crooked an opening is, which is learnt from its readings. The prior's lean, bow and ripple
// of the jambs, and its slope, bow and ripple of head and floor, are scaled by one of a few levels each; every triple
// of levels is weighted by its evidence, the density of the readings,
//
// log p(y | levels) = −½ rᵀS⁻¹r − ½ log|S| + const,
//
// times its prior weight (Rasmussen and Williams, eq. 2.30, from memory), and the variances are averaged by those
// weights into one prior. The belly of a head or a floor is seldom read: both are taken to be as crooked as the jambs,
// corrected by their own readings. Levels and weights are chosen so that ± holds from square frames to houses one and a
// half times as crooked as usual, and for jambs with an S, a bump or a settled corner;
// TestSurenessHoldsInOpeningsOfEveryForm holds them to it.
type belief struct{ level, share float64 }

var (
	leans   = []belief{{0.25, 0.11}, {0.5, 0.2}, {1, 0.32}, {2, 0.23}, {4, 0.14}}
	bows    = []belief{{0.25, 0.15}, {0.5, 0.32}, {1, 0.4}, {2, 0.13}}
	ripples = []belief{{0.5, 0.37}, {1.1, 0.42}, {2.2, 0.21}}
	// The levels of version 1, without a ripple.
	bows1    = leans
	ripples1 = []belief{{0, 1}}
)

// beliefs are those of bow and ripple that go with a prior.
func (p Prior) beliefs() (bow, ripple []belief) {
	if p.first {
		return bows1, ripples1
	}
	return bows, ripples
}

// mostLearnt is how many readings are enough to learn from; more are thinned evenly.
const mostLearnt = 60

// crookedness is the learnt parts of a prior, as multiples: of the jambs, and of head and floor.
type crookedness struct{ lean, bow, ripple, slope, flatBow, flatRipple float64 }

func (p Prior) crookeder(by crookedness) Prior {
	p.Lean, p.JambBow, p.JambRipple = p.Lean*by.lean, p.JambBow*by.bow, p.JambRipple*by.ripple
	p.Slope, p.HeadBow = p.Slope*by.slope, p.HeadBow*by.flatBow
	p.HeadRipple, p.FloorRipple = p.HeadRipple*by.flatRipple, p.FloorRipple*by.flatRipple
	return p
}

// learn scales the prior by the readings, without the doubted ones (by their index among the readings given).
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
		// The slope of a head by a square depends on the plumb of its jamb.
		if level || s.given[i].Kind == Plumb {
			heads = append(heads, i)
		}
	}
	hinge := len(s.given) // the row of the pin h(0) = 0; that of f(0) = 0 follows
	var offers []int
	for i := hinge + 2; i < len(s.rows); i++ {
		offers = append(offers, i)
	}
	jamb := s.weigh(append(append(thin(jambs), hinge), offers...), func(x levels) Prior {
		return p.crookeder(crookedness{
			lean: x.lean, bow: x.bow, ripple: x.ripple, slope: 1, flatBow: 1, flatRipple: 1,
		})
	})
	both := math.Sqrt(jamb.lean * jamb.bow)
	p = p.crookeder(crookedness{
		lean: jamb.lean, bow: jamb.bow, ripple: jamb.ripple, slope: both, flatBow: both, flatRipple: jamb.ripple,
	})
	flat := s.weigh(append(append(thin(heads), hinge, hinge+1), offers...), func(x levels) Prior {
		return p.crookeder(crookedness{
			lean: 1, bow: 1, ripple: 1, slope: x.lean, flatBow: x.bow, flatRipple: x.ripple,
		})
	})
	return p.crookeder(crookedness{
		lean: 1, bow: 1, ripple: 1, slope: flat.lean, flatBow: flat.bow, flatRipple: flat.ripple,
	})
}

// leanOf is a side's lean from plumb or slope from level; 0 for a part that is no side.
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

// levels are a level of lean, of bow and of ripple.
type levels struct{ lean, bow, ripple float64 }

// weigh gives the root mean square of the levels of lean, bow and ripple, weighted by the evidence of some rows; prior
// is the prior at a level of each.
func (s *Shape) weigh(rows []int, prior func(levels) Prior) levels {
	n := len(rows)
	// S is a sum of four parts: a constant one, and those of lean, bow and ripple, which scale with the squares of
	// their levels.
	none, bowed, rippled := prior(levels{}), prior(levels{bow: 1}), prior(levels{ripple: 1})
	stays, bow, ripple := s.cov(&none, rows), s.cov(&bowed, rows), s.cov(&rippled, rows)
	for k := range stays {
		bow[k] -= stays[k]
		ripple[k] -= stays[k]
	}
	// The part of lean has rank two, a column u for each of the two sides: its levels cost no factorisation of their
	// own (Woodbury's identity and the matrix determinant lemma). With LLᵀ the rest of S, w = L⁻¹r and V = L⁻¹u,
	//
	// log|S| = log|LLᵀ| + log|I + l²VᵀV|; rᵀS⁻¹r = wᵀw − l²(Vᵀw)ᵀ(I + l²VᵀV)⁻¹(Vᵀw)
	v := s.leanColumns(rows, none, prior(levels{lean: 1}))
	resid := make([]float64, n)
	for a, i := range rows {
		resid[a] = s.resid[i]
		stays[a*n+a] += s.noise[i]
	}
	bows, ripples := s.prior.beliefs()
	var found evidence
	// S, r, the two u, and a zero row; for an odd number of readings one more without information.
	even := n + n%2
	work, inverse := make([]float64, (even+4)*even), make([]float64, even)
	row := func(i int) []float64 { return work[i*even : i*even+n] }
	w, v0, v1 := row(even), row(even+1), row(even+2)
	if even > n {
		work[even*even-1] = 1
	}
	for _, b := range bows {
		for _, r := range ripples {
			bb, rr := b.level*b.level, r.level*r.level
			for i := range n { // the lower triangle is all that is factored
				for k, v := range stays[i*n : i*n+i+1] {
					work[i*even+k] = v + bb*bow[i*n+k] + rr*ripple[i*n+k]
				}
			}
			copy(w, resid)
			copy(v0, v[0])
			copy(v1, v[1])
			det, ok := factor(work, even, inverse)
			if !ok {
				continue
			}
			var ww, g00, g01, g11, c0, c1 float64
			for k := range w {
				ww += w[k] * w[k]
				g00, g01, g11 = g00+v0[k]*v0[k], g01+v0[k]*v1[k], g11+v1[k]*v1[k]
				c0, c1 = c0+v0[k]*w[k], c1+v1[k]*w[k]
			}
			for _, l := range leans {
				ll := l.level * l.level
				p, q, s := 1+ll*g00, ll*g01, 1+ll*g11
				d := p*s - q*q
				misfit := ww - ll*(c0*c0*s-2*c0*c1*q+c1*c1*p)/d
				found.add(math.Log(l.share*b.share*r.share/(det*math.Sqrt(d)))-misfit/2, levels{ll, bb, rr})
			}
		}
	}
	return found.levels()
}

// evidence sums squares of levels, weighted by the exponentials of logarithms; the greatest so far is factored out, so
// that none overflows.
type evidence struct {
	most, sum float64
	squares   levels
}

func (e *evidence) add(log float64, squares levels) {
	if e.sum == 0 || log > e.most {
		by := math.Exp(e.most - log)
		if e.sum == 0 {
			by = 0
		}
		e.most, e.sum = log, e.sum*by
		e.squares = levels{e.squares.lean * by, e.squares.bow * by, e.squares.ripple * by}
	}
	w := math.Exp(log - e.most)
	e.sum += w
	e.squares.lean += w * squares.lean
	e.squares.bow += w * squares.bow
	e.squares.ripple += w * squares.ripple
}

// levels is the root mean square.
func (e *evidence) levels() levels {
	return levels{
		math.Sqrt(e.squares.lean / e.sum), math.Sqrt(e.squares.bow / e.sum), math.Sqrt(e.squares.ripple / e.sum),
	}
}

// leanColumns are the effects of a lean of the one and of the other side of a pair on some rows. The other two sides
// lean the same in both priors.
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

// factor overwrites the lower triangle of S, n × n in rows, with L of S = LLᵀ, and each row x that follows with L⁻¹x.
// There is an even number of either, processed two by two, so that earlier rows are read half as often. inverse takes
// the inverted diagonal of L; det is |L|. ok is false where S is not positive definite.
func factor(rows []float64, n int, inverse []float64) (det float64, ok bool) {
	det = 1 // sixty roots of a few centimetres are far from overflowing
	pivot := func(i int, v float64) bool {
		root := math.Sqrt(v)
		det *= root
		inverse[i] = 1 / root
		return v > 0
	}
	for i := 0; i*n < len(rows); i += 2 {
		a, b := rows[i*n:(i+1)*n], rows[(i+1)*n:(i+2)*n]
		var aa, ab, bb float64
		for j := 0; j < min(i, n); j += 2 {
			x, y := rows[j*n:j*n+j], rows[(j+1)*n:(j+1)*n+j+1]
			ax, ay, bx, by := dots(a[:j], b[:j], x, y[:j])
			a0, b0 := (a[j]-ax)*inverse[j], (b[j]-bx)*inverse[j]
			a1, b1 := (a[j+1]-ay-a0*y[j])*inverse[j+1], (b[j+1]-by-b0*y[j])*inverse[j+1]
			a[j], a[j+1], b[j], b[j+1] = a0, a1, b0, b1
			aa, ab, bb = aa+a0*a0+a1*a1, ab+a0*b0+a1*b1, bb+b0*b0+b1*b1
		}
		if i >= n {
			continue
		}
		if !pivot(i, a[i]-aa) {
			return 0, false
		}
		b[i] = (b[i] - ab) * inverse[i]
		if !pivot(i+1, b[i+1]-bb-b[i]*b[i]) {
			return 0, false
		}
	}
	return det, true
}

// dots are the dot products of a and of b with x and with y, all of one length.
func dots(a, b, x, y []float64) (ax, ay, bx, by float64) {
	b, x, y = b[:len(a)], x[:len(a)], y[:len(a)]
	for k, v := range a {
		ax += v * x[k]
		ay += v * y[k]
		bx += b[k] * x[k]
		by += b[k] * y[k]
	}
	return ax, ay, bx, by
}

// Learn is the estimate with a prior scaled to the crookedness that the readings show. A slip would pass for
// crookedness, so suspects under the usual prior are not learnt from; under the learnt prior they may no longer be
// suspects.
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
