package survey

import (
	"math"

	"kindmargin/core/frame"
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
			for k < len(b.places) && (b.places[k].Side != t.Side || b.places[k].At != t.At) {
				k++
			}
			if k == len(b.places) {
				b.places = append(b.places, Term{t.Side, t.At, 1})
			}
			all = append(all, touch{k, t.By})
		}
		b.rows[i] = all[from:len(all):len(all)]
	}
	n := len(b.places)
	b.share = make([]float64, n*n)
	for i, s := range b.places {
		for j, t := range b.places[:i+1] {
			if s.Side == t.Side {
				v := p.bend(s.Side, s.At, t.At)
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
			if t := &b.places[y.place]; t.Side == s.Side {
				c += x.by * y.by * p.covBent(s.Side, s.At, t.At, b.share[x.place*n+y.place])
			}
		}
	}
	return c
}

// of is a side's offset, lean, bow and run.
func (p *Prior) of(side frame.Side) (offset, lean, bow, run float64) {
	switch side {
	case frame.Hinge, frame.Lock:
		return p.Offset, p.Lean, p.JambBow, p.JambRun
	case frame.Head:
		return p.Offset, p.Slope, p.HeadBow, p.HeadRun
	case frame.Foot:
		return p.Offset, p.Slope, p.HeadBow, p.FloorRun
	}
	switch which := int(side-placed) % unknowns; which {
	case turn:
		return turnSpread, 0, 0, 0
	case across, up:
		return shiftSpread, 0, 0, 0
	default:
		e := shapes[(which-oldLock)/3]
		return e.offset, e.lean, e.bow, e.run
	}
}

func (p *Prior) bend(side frame.Side, s, t float64) float64 {
	_, _, _, run := p.of(side)
	if run == 0 {
		return 0
	}
	d := (s - t) / run
	return math.Exp(-0.5 * d * d)
}

// covBent is Cov where the bend between the two places is known.
func (p *Prior) covBent(side frame.Side, s, t, bend float64) float64 {
	offset, lean, bow, _ := p.of(side)
	return offset*offset + lean*lean*s*t + bow*bow*bend
}
