package survey

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/floats"
)

// places are all places that some rows touch, without duplicates and grouped by part, so that the prior covariance of
// two of them is computed once and not for each pair of rows that meet there.
type places struct {
	at    []Term // of 1
	rows  [][]touch
	like  []like // of each place
	cells int    // of a table of each place with its likes
}

// like are the places from (inclusive) to to (exclusive) of one part, and the offset of one of their rows in a table.
type like struct{ from, to, row int }

func (l like) in(table []float64) []float64 { return table[l.row : l.row+l.to-l.from] }

// touch is a row's part at a place.
type touch struct {
	place int
	by    float64
}

func placesOf(rows []Row) places {
	p := places{rows: make([][]touch, len(rows))}
	touches := 0
	for _, row := range rows {
		touches += len(row)
	}
	all := make([]touch, 0, touches)
	at, of := make([]float64, 0, 2*len(rows)), make([]Part, 0, 2*len(rows))
	for i, row := range rows {
		from := len(all)
		for _, t := range row {
			k := 0
			for k < len(at) && (at[k] != t.At || of[k] != t.Of) {
				k++
			}
			if k == len(at) {
				at, of = append(at, t.At), append(of, t.Of)
			}
			all = append(all, touch{k, t.By})
		}
		p.rows[i] = all[from:len(all):len(all)]
	}
	p.at = make([]Term, 0, len(at))
	goes := make([]int, len(at))
	for i, first := range of {
		if slices.Contains(of[:i], first) {
			continue // with the first of its part
		}
		for k := i; k < len(of); k++ {
			if of[k] == first {
				goes[k] = len(p.at)
				p.at = append(p.at, Term{first, at[k], 1})
			}
		}
	}
	for _, row := range p.rows {
		for k := range row {
			row[k].place = goes[row[k].place]
		}
	}
	p.like = make([]like, len(p.at))
	for k, t := range p.at {
		from, to := p.of(t.Of)
		p.like[k] = like{from, to, p.cells}
		p.cells += to - from
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

// with is the covariance of a row with each place, from a table of each two.
func (p places) with(row int, own, into []float64) {
	clear(into)
	for _, t := range p.rows[row] {
		l := p.like[t.place]
		floats.AddScaled(into[l.from:l.to], t.by, l.in(own))
	}
}

// dot is the covariance of one row with something, given its covariance with each place.
func (p places) dot(row int, with []float64) (c float64) {
	for _, t := range p.rows[row] {
		c += t.by * with[t.place]
	}
	return c
}

// bends are tables of the correlation of the bow, and of the ripple, at two places of a side, exp(−½((s−s')/ℓ)²). They
// do not depend on how crooked the side is, so they are computed once for all levels.
type bends struct{ bow, ripple []float64 }

func (p places) bends(prior *Prior) bends {
	return bends{
		p.bells(func(of Part) float64 { return prior.of(of).run }),
		p.bells(func(of Part) float64 { return prior.of(of).wave }),
	}
}

// bells is one of the two tables; run is a part's length scale, 0 where it has none.
func (p places) bells(length func(Part) float64) []float64 {
	table := make([]float64, p.cells)
	for i, s := range p.at {
		run := length(s.Of)
		if run == 0 {
			continue
		}
		l, inverse := p.like[i], 1/run
		row := l.in(table)
		for j, t := range p.at[l.from : i+1] {
			v := bell((s.At - t.At) * inverse)
			row[j] = v
			p.like[l.from+j].in(table)[i-l.from] = v
		}
	}
	return table
}

// own is the prior covariance of the places of one part, as a table, in mm².
func (p places) own(prior *Prior) []float64 {
	table := make([]float64, p.cells)
	for i, s := range p.at {
		of, l := prior.of(s.Of), p.like[i]
		row := l.in(table)
		for j, t := range p.at[l.from : i+1] {
			v := of.cov(s.At, t.At)
			row[j] = v
			p.like[l.from+j].in(table)[i-l.from] = v
		}
	}
	return table
}

// bent is the same by a prior, from bends computed before.
func (p places) bent(prior *Prior, bends bends) []float64 {
	table := make([]float64, p.cells)
	for i, s := range p.at {
		of, l := prior.of(s.Of), p.like[i]
		offset, lean, bow, ripple := of.offset*of.offset, of.lean*of.lean*s.At, of.bow*of.bow, of.ripple*of.ripple
		row, bend, rippled := l.in(table), l.in(bends.bow), l.in(bends.ripple)
		for j, t := range p.at[l.from:l.to] {
			row[j] = offset + lean*t.At + bow*bend[j] + ripple*rippled[j]
		}
	}
	return table
}

// across is the prior covariance of places with others of the same part, in mm², and the offset of each one's row.
func (p *Prior) across(these, those places) (table []float64, at []like) {
	at = make([]like, len(these.at))
	cells := 0
	for i, s := range these.at {
		from, to := those.of(s.Of)
		at[i] = like{from, to, cells}
		cells += to - from
	}
	table = make([]float64, cells)
	for i, s := range these.at {
		of, row := p.of(s.Of), at[i].in(table)
		for j, t := range those.at[at[i].from:at[i].to] {
			row[j] = of.cov(s.At, t.At)
		}
	}
	return table, at
}

// mostCells is the largest table that is kept.
const mostCells = 100_000

// cov is the prior covariance of each two of an estimate's rows, by rows, in mm².
func (s *Shape) cov(p *Prior, rows []int) []float64 {
	n := len(rows)
	c := make([]float64, n*n)
	if s.bends.bow == nil {
		for a, i := range rows {
			for b, j := range rows[:a+1] {
				v := p.covOf(s.rows[i], s.rows[j])
				c[a*n+b], c[b*n+a] = v, v
			}
		}
		return c
	}
	own, with := s.places.bent(p, s.bends), make([]float64, len(s.places.at))
	for a, i := range rows {
		s.places.with(i, own, with)
		for b, j := range rows[:a+1] {
			v := s.places.dot(j, with)
			c[a*n+b], c[b*n+a] = v, v
		}
	}
	return c
}

// bell is exp(−x²/2) to 1e-9, from a table, since a plan needs ten thousand values: the Taylor series about the nearest
// entry, to third order; from 7 on, where exp(−x²/2) is under 3e-11, it is 0.
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
