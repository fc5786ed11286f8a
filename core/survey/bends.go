package survey

import (
	"math"
)

// bends is how much the bow at one place of a side says of the bow at another,
// exp(−½((s−s')/ℓ)²), for all places that some rows touch. It does not hang on how
// crooked the side is, so it is worked out once for every level that is weighed.
type bends struct {
	places []Term
	share  []float64 // place by place; nought between sides
	rows   [][]touch
}

// touch is a row's part at a place.
type touch struct {
	place int
	by    float64
}

// mostBends is how many rows a table is worth its room for.
const mostBends = 150

func newBends(p *Prior, rows []Row) *bends {
	b := &bends{places: make([]Term, 0, 2*len(rows)), rows: make([][]touch, len(rows))}
	all := make([]touch, 0, 3*len(rows))
	for i, row := range rows {
		from := len(all)
		for _, t := range row {
			k := 0
			for k < len(b.places) && (b.places[k].Of != t.Of || b.places[k].At != t.At) {
				k++
			}
			if k == len(b.places) {
				b.places = append(b.places, Term{t.Of, t.At, 1})
			}
			all = append(all, touch{k, t.By})
		}
		b.rows[i] = all[from:len(all):len(all)]
	}
	n := len(b.places)
	b.share = make([]float64, n*n)
	for i, s := range b.places {
		for j, t := range b.places[:i+1] {
			if s.Of == t.Of {
				v := p.bend(s.Of, s.At, t.At)
				b.share[i*n+j], b.share[j*n+i] = v, v
			}
		}
	}
	return b
}

// cov is the prior covariance of two of the rows.
func (b *bends) cov(p *Prior, i, j int) (c float64) {
	n := len(b.places)
	for _, x := range b.rows[i] {
		s := &b.places[x.place]
		for _, y := range b.rows[j] {
			if t := &b.places[y.place]; t.Of == s.Of {
				c += x.by * y.by * p.covBent(s.Of, s.At, t.At, b.share[x.place*n+y.place])
			}
		}
	}
	return c
}

func (p *Prior) bend(of Part, s, t float64) float64 {
	_, _, _, run := p.of(of)
	if run == 0 {
		return 0
	}
	return bell((s - t) / run)
}

// covBent is Cov where the bend between the two places is known.
func (p *Prior) covBent(of Part, s, t, bend float64) float64 {
	offset, lean, bow, _ := p.of(of)
	return offset*offset + lean*lean*s*t + bow*bow*bend
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
