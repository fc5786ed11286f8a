package survey

import (
	"cmp"
	"math"
	"slices"
)

// suspectAt is the leave-one-out score from which a reading is a suspect: about one sound reading in five thousand
// reaches it.
const suspectAt = 3.7

// equally is the largest difference in the remaining misfit (χ²) of two readings left out, at which both explain a
// clash equally well: odds of twenty to one.
const equally = 6.0

// mostInGroup is the largest number of readings named for one clash.
const mostInGroup = 6

// swappedAt is the drop of the misfit from which two readings count as swapped; chance reaches it once in three
// thousand pairs.
const swappedAt = 16.0

// mostOdd is how many readings are compared for a swap.
const mostOdd = 40

// Suspect is a reading that the others contradict.
type Suspect struct {
	Reading   Reading
	Predicted float64 // what the other readings say it should be, mm
	Sigma     float64 // of reading less prediction, mm
	Score     float64 // how many sigmas it is off
	// Or are readings that would explain the clash as well if they were wrong: another reading is needed to decide; see
	// Split.
	Or []Reading
	// Swapped is a reading of the same kind that this one was swapped with; nil where there is none.
	Swapped *Reading
	// Bump is whether a bump in the side, at a knot or a hinge, would explain it as well; a second reading beside it
	// decides. See Beside.
	Bump bool

	index, other int         // of Reading and Swapped among the readings given
	without      [][]float64 // S⁻¹r with the reading, or each of Or, left out
	members      []int
}

// clash is S⁻¹ and S⁻¹r of a survey from which readings are removed one by one.
type clash struct {
	n     int
	inv   []float64 // n × n
	alpha []float64
	gone  []bool
}

// mostSuspects is the largest number of suspects: nobody corrects more before reading again.
const mostSuspects = 100

// Suspects lists the readings that the rest contradict, worst first, at most mostSuspects. A bad reading throws doubt
// on sound ones beside it, so each next suspect is found with the ones before it left out.
//
// A reading is scored against all the others by leave-one-out in closed form: e = [S⁻¹r]ᵢ/[S⁻¹]ᵢᵢ, σ = 1/√[S⁻¹]ᵢᵢ
// (Rasmussen and Williams, eqs. 5.10–5.12, from memory); leaving it out takes (e/σ)² off the misfit χ² = rᵀS⁻¹r.
func (s *Shape) Suspects() []Suspect { return s.suspects() }

func (s *Shape) findSuspects() (list []Suspect) {
	n := len(s.rows)
	misfit := 0.0
	for i, r := range s.resid {
		misfit += r * s.alpha[i]
	}
	if misfit <= suspectAt*suspectAt { // nothing left out takes more off than there is
		return nil
	}
	c := clash{n, s.inverse(), s.alpha, make([]bool, n)}
	for {
		x, ok := s.worst(&c)
		if !ok || len(list) == mostSuspects {
			return list
		}
		if len(list) == 0 { // the shape keeps its own
			c.inv = slices.Clone(c.inv)
		}
		list = append(list, x)
		c.take(x.index)
		if x.Swapped != nil {
			c.take(x.other)
		}
	}
}

// gain is the drop of χ² with a reading left out.
func (c *clash) gain(i int) float64 { return c.alpha[i] * c.alpha[i] / c.inv[i*c.n+i] }

// without is S⁻¹r with reading k left out.
func (c *clash) without(k int) []float64 {
	out := make([]float64, c.n)
	f := c.alpha[k] / c.inv[k*c.n+k]
	for i := range out {
		out[i] = c.alpha[i] - c.inv[i*c.n+k]*f
	}
	out[k] = 0
	return out
}

// take removes reading k: S⁻¹ is downdated by one row and column.
func (c *clash) take(k int) {
	c.alpha = c.without(k)
	c.gone[k] = true
	row := slices.Clone(c.inv[k*c.n : (k+1)*c.n])
	for i := range c.n {
		if c.gone[i] && i != k || row[i] == 0 {
			continue
		}
		f := row[i] / row[k]
		own := c.inv[i*c.n : (i+1)*c.n]
		for j := range own {
			own[j] -= f * row[j]
		}
	}
}

func (s *Shape) worst(c *clash) (x Suspect, ok bool) {
	best, at := 0.0, -1
	for i := range s.given {
		if !c.gone[i] && !s.borneOut(i) {
			if g := c.gain(i); g > best {
				best, at = g, i
			}
		}
	}
	if at < 0 {
		return x, false
	}
	i, j, swap := s.swapped(c)
	if swap > swappedAt && swap > best-equally/3 { // two wrong readings must explain it hardly worse than one
		x = s.suspect(c, i)
		other := s.given[j]
		x.Swapped, x.other, x.Score = &other, j, math.Sqrt(swap)
		return x, true
	}
	if best <= suspectAt*suspectAt {
		return x, false
	}
	// The reading whose error looks like a slip comes before those that explain the clash equally well.
	group := []int{at}
	for k := range s.given {
		if k != at && !c.gone[k] && len(group) < mostInGroup && c.gain(k) > max(best-equally, suspectAt*suspectAt/2) {
			group = append(group, k)
		}
	}
	slices.SortStableFunc(group, func(a, b int) int {
		slip := func(k int) int {
			if s.suspect(c, k).Slip() != "" {
				return 0
			}
			return 1
		}
		return slip(a) - slip(b)
	})
	x = s.suspect(c, group[0])
	if _, told := s.beside(x.index); len(group) == 1 && !told { // a second one beside it was read: no bump
		x.Bump = x.bump()
	}
	for _, k := range group[1:] {
		x.Or = append(x.Or, s.given[k])
	}
	if len(group) > 1 {
		x.members = group
		for _, k := range group {
			x.without = append(x.without, c.without(k))
		}
	}
	return x, true
}

func (s *Shape) suspect(c *clash, i int) Suspect {
	precision := c.inv[i*c.n+i]
	miss := c.alpha[i] / precision
	return Suspect{
		Reading: s.given[i], Predicted: s.given[i].seen() - miss, Sigma: 1 / math.Sqrt(precision),
		Score: math.Abs(c.alpha[i]) / math.Sqrt(precision), index: i,
	}
}

// bumpSpread is the standard deviation of a bump of a side at one place, in mm. Assumed.
const bumpSpread = 3.0

// bump reports whether a bump at the reading's place brings it within two sigmas, and no slip does.
func (x Suspect) bump() bool {
	_, ok := x.Beside()
	return ok && x.Slip() == "" && x.Score*x.Sigma < 2*math.Hypot(x.Sigma, bumpSpread)
}

// besideBy is the distance of a second reading beside a suspect: a bump is as wide, a slip has no width.
const besideBy = 60 * millimetre

// Beside is the reading that tells a bump from a slip: the same beside the first; ok is false for a reading that is not
// at one place of one side.
func (x Suspect) Beside() (r Reading, ok bool) {
	r = x.Reading
	r.ID, r.Value = "", 0
	switch r.Kind {
	case Width, Height, Plumb, Straight, Gap:
		r.At -= besideBy
		if r.At < besideBy || (r.Kind == Plumb || r.Kind == Straight) && r.At <= r.From+besideBy {
			r.At += 2 * besideBy
		}
		return r, true
	}
	return r, false
}

// beside finds the reading nearest to another, of its kind and side, about besideBy away; ok is false where there is
// none.
func (s *Shape) beside(i int) (at int, ok bool) {
	r := s.given[i]
	if _, ok := (Suspect{Reading: r}).Beside(); !ok {
		return 0, false
	}
	nearest := 2*besideBy + 1
	for k := range s.given {
		o := &s.given[k]
		if k == i || o.Kind != r.Kind || o.Side != r.Side || o.Offer != r.Offer {
			continue
		}
		if d := (o.At - r.At).Abs(); d >= besideBy/2 && d < nearest {
			nearest, at, ok = d, k, true
		}
	}
	return at, ok
}

// borneOut reports whether the reading beside one agrees with it: then there is a bump, and no slip.
func (s *Shape) borneOut(i int) bool {
	at, ok := s.beside(i)
	return ok && !s.prior.first && math.Abs(s.given[i].seen()-s.given[at].seen()) <= 3*math.Sqrt2*math.Sqrt(s.noise[i])
}

// swapped finds the two readings of one kind whose exchange would take most off the misfit: with d the difference of
// the two,
//
// χ² falls by −2d(αᵢ − αⱼ) − d²·([S⁻¹]ᵢᵢ − 2[S⁻¹]ᵢⱼ + [S⁻¹]ⱼⱼ)
func (s *Shape) swapped(c *clash) (first, second int, most float64) {
	var odd []int // each of a swapped pair is off by two sigmas or more
	for i := range s.given {
		if !c.gone[i] && c.gain(i) > 4 {
			odd = append(odd, i)
		}
	}
	if len(odd) > mostOdd { // in so wild a survey the wildest are looked at
		slices.SortFunc(odd, func(i, j int) int { return cmp.Compare(c.gain(j), c.gain(i)) })
		odd = odd[:mostOdd]
	}
	for k, i := range odd {
		a, value := s.given[i], s.given[i].seen()
		for _, j := range odd[k+1:] {
			b := &s.given[j]
			if a.Kind != b.Kind || a.Side.Upright() != b.Side.Upright() || a.Offer != b.Offer {
				continue
			}
			d := b.seen() - value
			falls := -2*d*(c.alpha[i]-c.alpha[j]) - d*d*(c.inv[i*c.n+i]-2*c.inv[i*c.n+j]+c.inv[j*c.n+j])
			if falls > most {
				first, second, most = i, j, falls
			}
		}
	}
	return first, second, most
}

// Split is the reading that would best decide which of a suspect's group is wrong: one of them read again, or one of
// the candidates. Each reading of the group, left out, predicts other values; the largest spread of those predictions
// against the noise decides best. ok is false where there is no group.
func (s *Shape) Split(x Suspect, candidates []Reading) (best Reading, ok bool) {
	if len(x.members) < 2 {
		return best, false
	}
	most := 0.0
	try := func(r Reading, row Row) {
		foretold := make([]float64, len(x.without))
		for i, known := range s.rows {
			cov := s.prior.covOf(known, row)
			for k, alpha := range x.without {
				foretold[k] += cov * alpha[i]
			}
		}
		tells, sigma := 0.0, math.Sqrt(s.prior.noise(r))
		for k := range foretold {
			for l := range k {
				tells += min(math.Abs(foretold[k]-foretold[l])/(4*sigma), 1)
			}
		}
		if tells > 1.05*most { // what was read already is read again before something new
			best, most, ok = r, tells, true
		}
	}
	for _, k := range x.members {
		try(s.given[k], s.rows[k])
	}
	for _, r := range candidates {
		if row, _, err := s.rowOf(r); err == nil {
			try(r, row)
		}
	}
	return best, ok
}
