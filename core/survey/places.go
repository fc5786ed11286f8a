package survey

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/floats"
)

// places are all places that some rows touch, each once and in the order of their parts, so
// that what the prior says of two of them is worked out once and not for each two rows that
// meet there.
type places struct {
	at   []Term // of 1
	rows [][]touch
}

// touch is a row's part at a place.
type touch struct {
	place int
	by    float64
}

func placesOf(rows []Row) places {
	p := places{at: make([]Term, 0, 2*len(rows)), rows: make([][]touch, len(rows))}
	for _, row := range rows {
		for _, t := range row {
			if !slices.ContainsFunc(p.at, func(a Term) bool { return a.At == t.At && a.Of == t.Of }) {
				p.at = append(p.at, Term{t.Of, t.At, 1})
			}
		}
	}
	slices.SortFunc(p.at, func(a, b Term) int { return cmp.Or(cmp.Compare(a.Of, b.Of), cmp.Compare(a.At, b.At)) })
	all := make([]touch, 0, 3*len(rows))
	for i, row := range rows {
		from := len(all)
		for _, t := range row {
			k, _ := slices.BinarySearchFunc(p.at, t, func(a, b Term) int { return cmp.Or(cmp.Compare(a.Of, b.Of), cmp.Compare(a.At, b.At)) })
			all = append(all, touch{k, t.By})
		}
		p.rows[i] = all[from:len(all):len(all)]
	}
	return p
}

// of are the places of a part.
func (p places) of(part Part) (from, to int) {
	for from < len(p.at) && p.at[from].Of != part {
		from++
	}
	for to = from; to < len(p.at) && p.at[to].Of == part; to++ {
	}
	return from, to
}

// dot is the covariance with one of the rows of what has so much with each place.
func (p places) dot(row int, with []float64) (c float64) {
	for _, t := range p.rows[row] {
		c += t.by * with[t.place]
	}
	return c
}

// bends is how much the bow at one place of a side says of the bow at another,
// exp(−½((s−s')/ℓ)²), for each two places, by rows; nought between sides. It does not hang
// on how crooked the side is, so it is worked out once for every level that is weighed.
func (p places) bends(prior *Prior) []float64 {
	n := len(p.at)
	share := make([]float64, n*n)
	for i, s := range p.at {
		run := prior.of(s.Of).run
		if run == 0 {
			continue
		}
		for j, t := range p.at[:i+1] {
			if s.Of == t.Of {
				v := bell((s.At - t.At) / run)
				share[i*n+j], share[j*n+i] = v, v
			}
		}
	}
	return share
}

// own is the prior covariance of each two places, by rows, in mm².
func (p places) own(prior *Prior, bends []float64) []float64 {
	n := len(p.at)
	c := make([]float64, n*n)
	for i, s := range p.at {
		of := prior.of(s.Of)
		offset, lean, bow := of.offset*of.offset, of.lean*of.lean*s.At, of.bow*of.bow
		for j, t := range p.at[:i+1] {
			if s.Of == t.Of {
				v := offset + lean*t.At + bow*bends[i*n+j]
				c[i*n+j], c[j*n+i] = v, v
			}
		}
	}
	return c
}

// mostPlaces is how many places a table of each two is worth its room for.
const mostPlaces = 400

// cov is the prior covariance of some of an estimate's rows, two by two, by rows, in mm².
func (s *Shape) cov(p *Prior, rows []int) []float64 {
	n := len(rows)
	c := make([]float64, n*n)
	if s.bends == nil {
		for a, i := range rows {
			for b, j := range rows[:a+1] {
				v := p.covOf(s.rows[i], s.rows[j])
				c[a*n+b], c[b*n+a] = v, v
			}
		}
		return c
	}
	own, with := s.places.own(p, s.bends), make([]float64, len(s.places.at))
	for a, i := range rows {
		clear(with)
		for _, t := range s.places.rows[i] {
			floats.AddScaled(with, t.by, own[t.place*len(with):(t.place+1)*len(with)])
		}
		for b, j := range rows[:a+1] {
			v := s.places.dot(j, with)
			c[a*n+b], c[b*n+a] = v, v
		}
	}
	return c
}

// bell is exp(−x²/2) to 1e-9, from a table: a plan needs ten thousand of them. It is
// the Taylor series about the nearest place of the table, to the third order; from
// 7 on, where exp(−x²/2) is under 3e-11, it is nought.
func bell(x float64) float64 {
	x = math.Abs(x)
	if x >= bellReach {
		return 0
	}
	k := int(x*bellSteps + 0.5)
	at := float64(k) * (1.0 / bellSteps)
	h := x - at
	return bells[k] * (1 + h*(-at+h*((at*at-1)/2+h*at*(3-at*at)/6)))
}

const (
	bellSteps = 64 // to one
	bellReach = 7
)

var bells = func() (t [bellSteps*bellReach + 1]float64) {
	for k := range t {
		x := float64(k) / bellSteps
		t[k] = math.Exp(-x * x / 2)
	}
	return t
}()
