package survey

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/blas"
	"gonum.org/v1/gonum/blas/blas64"
	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/lapack/lapack64"
	"gonum.org/v1/gonum/mat"

	"kindmargin/core/trade"
)

// Undetected slips (W. Baarda, A Testing Procedure for Use in Geodetic Networks, 1968: external reliability; from
// memory). A slip ∇ in the readings, 0 except in one of them or in two that were swapped, is undone by subtracting it.
// With α = S⁻¹r, that raises the misfit by
//
// Δχ² = ∇ᵀS⁻¹∇ − 2∇ᵀα
//
// and moves figures b by −b·K·Aᵀ·S⁻¹·∇. A slip that moves a figure far and hardly raises the misfit cannot be detected
// by the readings.

// Slip is a mistake that may stand in the readings.
type Slip struct {
	ID      string  // of a trade.Slip
	Reading Reading // that may be wrong
	Swapped *Reading
	// Offer is the slab that was offered up, and Field its measurement, where one of those may be wrong; Reading is
	// empty then.
	Offer *Offer
	Field string
	By    float64 // how far too much it reads, mm
	// Misfit is Δχ², Shift how far each figure moves when the slip is undone, in mm. Shift is valid until the next slip
	// is yielded.
	Misfit float64
	Shift  []float64

	first, second int // the rows that are wrong; second is −1 for one reading
}

// Doubts are common slips, with their effects on some figures and the readings that would reveal them.
type Doubts struct {
	s       *Shape
	inverse []float64 // S⁻¹, n × n
	moves   []float64 // of each row (by rows), the figures it moves for each mm
	figures int
	Cov     *mat.SymDense // of the figures, mm²
}

// Doubts prepares the search for slips in some figures.
func (s *Shape) Doubts(figures []Row) *Doubts {
	own, told := s.spread(figures)
	n, m := len(s.rows), len(figures)
	d := &Doubts{s: s, inverse: s.inverse(), moves: make([]float64, m*n), figures: m, Cov: new(mat.SymDense)}
	each := make([]float64, n)
	for j := range m {
		for i := range each {
			each[i] = told.Data[i*m+j]
		}
		for i := range n {
			d.moves[i*m+j] = floats.Dot(d.inverse[i*n:(i+1)*n], each)
		}
	}
	moves := told
	moves.Data = d.moves
	blas64.Syr2k(blas.Trans, -0.5, told, moves, 1, own)
	d.Cov.SetRawSymmetric(own)
	return d
}

// invert gives S⁻¹, both triangles.
func (s *Shape) invert() []float64 {
	n := len(s.rows)
	t := s.chol
	t.Data = slices.Clone(t.Data)
	inv, _ := lapack64.Potri(t) // of a factor that has no nought on its diagonal
	for i := range n {
		for j := range i {
			inv.Data[i*n+j] = inv.Data[j*n+i]
		}
	}
	return inv.Data
}

// Each yields each slip that may stand in the readings, and in the measurements of a slab that was offered up, whose
// corrected reading would be valid.
func (d *Doubts) Each(f func(*Slip)) {
	s := d.s
	x := Slip{Shift: make([]float64, d.figures)}
	for i, r := range s.given {
		known, ok := r.Kind.Of()
		if !ok || r.Sight != "" || r.Blocked { // seen, not read
			continue
		}
		x.Reading, x.Swapped, x.first, x.second = r, nil, i, -1
		d.slips(&x, r.Value.MM(), known, f)
		for j := range i {
			other := &s.given[j]
			if !alike(r, *other) || other.Value == r.Value {
				continue
			}
			x.ID, x.By, x.Swapped, x.second = trade.Swapped, (r.Value - other.Value).MM(), other, j
			d.weigh(&x)
			f(&x)
		}
	}
	for _, o := range s.owned {
		kind, ok := ownKinds[o.field]
		if !ok {
			kind = Square
		}
		known, _ := kind.Of()
		x.Reading, x.Swapped, x.first, x.second, x.Offer, x.Field = Reading{}, nil, o.row, -1, &s.offers[o.offer], o.field
		d.slips(&x, o.read.MM(), known, f)
	}
}

// slips gives the slips of one value.
func (d *Doubts) slips(x *Slip, read float64, known *KindOf, f func(*Slip)) {
	for _, slip := range trade.Slips {
		if slip.Signed && !known.Signed {
			continue
		}
		for _, meant := range [2]float64{slip.Meant(read), slip.Meant2(read)} {
			if meant == read || math.IsNaN(meant) || meant < known.Least.MM() || meant > known.Most.MM() {
				continue
			}
			x.ID, x.By = slip.ID, read-meant
			d.weigh(x)
			f(x)
		}
	}
}

// alike reports whether two readings can be swapped when written down.
func alike(a, b Reading) bool {
	return a.Kind == b.Kind && a.Side.Upright() == b.Side.Upright() && a.Offer == b.Offer && a.Sight == "" &&
		b.Sight == "" && !a.Blocked && !b.Blocked
}

func (d *Doubts) weigh(x *Slip) {
	n, by := len(d.s.rows), x.By
	i, k := x.first, x.second
	quadratic, linear := d.inverse[i*n+i], d.s.alpha[i]
	own := d.moves[i*d.figures : (i+1)*d.figures]
	if k < 0 {
		for j, m := range own {
			x.Shift[j] = -by * m
		}
	} else { // the other reads as much too little
		quadratic += d.inverse[k*n+k] - 2*d.inverse[i*n+k]
		linear -= d.s.alpha[k]
		other := d.moves[k*d.figures : (k+1)*d.figures]
		for j, m := range own {
			x.Shift[j] = -by * (m - other[j])
		}
	}
	x.Misfit = by*by*quadratic - 2*by*linear
}

// Telling is how much another reading would raise the misfit of each of some slips, if it were one: each predicts
// another value of it, and the squared difference over its variance is Δχ². It is 0 throughout for invalid candidates.
func (d *Doubts) Telling(slips []Slip, candidates []Reading) (tells [][]float64) {
	s, n := d.s, len(d.s.rows)
	tells = make([][]float64, len(candidates))
	rows := make([]Row, 0, len(candidates))
	at := make([]int, 0, len(candidates))
	for c, r := range candidates {
		tells[c] = make([]float64, len(slips))
		if row, _, err := s.rowOf(r); err == nil {
			rows, at = append(rows, row), append(at, c)
		}
	}
	m := len(rows)
	if m == 0 {
		return tells
	}
	own, told := s.spread(rows)
	half := blas64.General{Rows: n, Cols: m, Stride: m, Data: slices.Clone(told.Data)}
	blas64.Trsm(blas.Left, blas.Trans, 1, s.chol, half)
	sure := make([]float64, m)
	for j := range m {
		sure[j] = own.Data[j*m+j] + s.prior.noise(candidates[at[j]])
	}
	for i := range n {
		for j, v := range half.Data[i*m : (i+1)*m] {
			sure[j] -= v * v
		}
	}
	weights, apart := make([]float64, n), make([]float64, m)
	for k, x := range slips {
		for i := range weights { // S⁻¹∇
			weights[i] = x.By * d.inverse[x.first*n+i]
			if x.second >= 0 {
				weights[i] -= x.By * d.inverse[x.second*n+i]
			}
		}
		clear(apart)
		for i, w := range weights {
			floats.AddScaled(apart, w, told.Data[i*m:(i+1)*m])
		}
		for j, v := range apart {
			tells[at[j]][k] = v * v / sure[j]
		}
	}
	return tells
}

// Again is the doubtful reading, to be read once more: of two that may be swapped, the one that moves the figures more.
// ok is false for a measurement of a slab.
func (d *Doubts) Again(x Slip) (r Reading, ok bool) {
	r = x.Reading
	if x.Swapped != nil && d.most(x.second) > d.most(x.first) {
		r = *x.Swapped
	}
	r.ID, r.Value = "", 0
	return r, x.Offer == nil
}

// most is the largest move of any figure by a row, per mm.
func (d *Doubts) most(row int) (most float64) {
	for _, m := range d.moves[row*d.figures : (row+1)*d.figures] {
		most = max(most, math.Abs(m))
	}
	return most
}
