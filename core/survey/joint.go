package survey

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/blas"
	"gonum.org/v1/gonum/blas/blas64"
	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
)

// Joint returns the mean of each figure (length n) and their covariance
// (n × n), in mm and mm².
func (s *Shape) Joint(figures []Row) (mean []float64, cov *mat.SymDense) {
	n := len(figures)
	prior, half := s.spread(figures)
	mean = make([]float64, n)
	for j, f := range figures {
		mean[j] = s.prior.meanOf(f)
		for i, a := range s.alpha {
			mean[j] += half.Data[i*n+j] * a
		}
	}
	// K Aᵀ S⁻¹ A K = HᵀH with H = U⁻ᵀ A K.
	blas64.Trsm(blas.Left, blas.Trans, 1, s.chol, half)
	cov = mat.NewSymDense(n, nil)
	for i := range figures {
		for j := i; j < n; j++ {
			cov.SetSym(i, j, prior(i, j))
		}
	}
	blas64.Syrk(blas.Trans, -1, half, 1, cov.RawSymmetric())
	return mean, cov
}

// spread gives the prior covariance of some figures, two by two, and that of
// each reading (by rows) with each of them, in mm².
func (s *Shape) spread(figures []Row) (prior func(i, j int) float64, told blas64.General) {
	// Figures share most of their places (the hinges stand in nearly all), so
	// the prior is worked out once for each place.
	n := len(figures)
	places := make([]Term, 0, 2*n)
	index, all := make([][]int, n), make([]int, 0, 4*n)
	for j, f := range figures {
		from := len(all)
		for _, t := range f {
			k := slices.IndexFunc(places, func(p Term) bool { return p.Of == t.Of && p.At == t.At })
			if k < 0 {
				k = len(places)
				places = append(places, Term{t.Of, t.At, 1})
			}
			all = append(all, k)
		}
		index[j] = all[from:len(all):len(all)]
	}
	q := len(places)
	own := make([]float64, q*q)
	for k, here := range places {
		for l, there := range places[:k+1] {
			if here.Of == there.Of {
				c := s.prior.Cov(here.Of, here.At, there.At)
				own[k*q+l], own[l*q+k] = c, c
			}
		}
	}
	told = blas64.General{Rows: len(s.rows), Cols: n, Stride: n, Data: make([]float64, len(s.rows)*n)}
	at := make([]float64, q) // of one reading with each place
	for i, r := range s.rows {
		clear(at)
		for _, t := range r {
			for k, there := range places {
				if t.Of == there.Of {
					at[k] += t.By * s.prior.Cov(t.Of, t.At, there.At)
				}
			}
		}
		for j, f := range figures {
			var c float64
			for a, t := range f {
				c += t.By * at[index[j][a]]
			}
			told.Data[i*n+j] = c
		}
	}
	return pairwise(figures, index, own, q), told
}

// pairwise gives the covariance of two figures: index are the places of each one's terms,
// own the covariance of the q places, by rows.
func pairwise(figures []Row, index [][]int, own []float64, q int) func(i, j int) float64 {
	with := make([]float64, len(figures)*q) // of each figure with each place
	for j, f := range figures {
		row := with[j*q : (j+1)*q]
		for a, t := range f {
			for k, c := range own[index[j][a]*q : (index[j][a]+1)*q] {
				row[k] += t.By * c
			}
		}
	}
	return func(i, j int) (c float64) {
		row := with[i*q : (i+1)*q]
		for b, u := range figures[j] {
			c += u.By * row[index[j][b]]
		}
		return c
	}
}

// At returns a side's coordinate at one place and its standard deviation.
func (s *Shape) At(side frame.Side, at float64) (mean, sigma float64) {
	return s.Of(Row{{Of(side), at, 1}})
}

// Of returns one figure and its standard deviation.
func (s *Shape) Of(figure Row) (mean, sigma float64) {
	m, c := s.Joint([]Row{figure})
	return m[0], math.Sqrt(max(c.At(0, 0), 0))
}

// Means returns the mean of each figure, in mm, without the cost of their
// covariance.
func (s *Shape) Means(figures []Row) []float64 {
	mean := make([]float64, len(figures))
	for j, f := range figures {
		mean[j] = s.prior.meanOf(f)
		for i, r := range s.rows {
			mean[j] += s.prior.covOf(r, f) * s.alpha[i]
		}
	}
	return mean
}
