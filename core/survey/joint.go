package survey

import (
	"math"

	"gonum.org/v1/gonum/blas"
	"gonum.org/v1/gonum/blas/blas64"
	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
)

// Joint returns the mean of each figure (length n) and their covariance
// (n × n), in mm and mm².
func (s *Shape) Joint(figures []Row) (mean []float64, cov *mat.SymDense) {
	n := len(figures)
	if n == 0 {
		return nil, new(mat.SymDense)
	}
	own, half := s.spread(figures)
	mean = make([]float64, n)
	for j, f := range figures {
		mean[j] = s.prior.meanOf(f)
		for i, a := range s.alpha {
			mean[j] += half.Data[i*n+j] * a
		}
	}
	// K Aᵀ S⁻¹ A K = HᵀH with H = U⁻ᵀ A K.
	blas64.Trsm(blas.Left, blas.Trans, 1, s.chol, half)
	blas64.Syrk(blas.Trans, -1, half, 1, own)
	cov = new(mat.SymDense)
	cov.SetRawSymmetric(own)
	return mean, cov
}

// spread gives the prior covariance of some figures, n × n with only the upper triangle set, and that of each reading
// (by rows) with each of them, in mm².
func (s *Shape) spread(figures []Row) (own blas64.Symmetric, told blas64.General) {
	n, f := len(figures), placesOf(figures)
	own = blas64.Symmetric{N: n, Stride: n, Data: make([]float64, n*n), Uplo: blas.Upper}
	with := make([]float64, len(f.at))
	table := f.own(&s.prior)
	for i := range figures {
		f.with(i, table, with)
		for j := i; j < n; j++ {
			own.Data[i*n+j] = f.dot(j, with)
		}
	}
	return own, s.told(f)
}

// told is the prior covariance of each reading (by rows) with each of the rows of some places, in mm².
func (s *Shape) told(f places) blas64.General {
	n := len(f.rows)
	told := blas64.General{Rows: len(s.rows), Cols: n, Stride: n, Data: make([]float64, len(s.rows)*n)}
	with := make([]float64, len(f.at))
	across, at := s.prior.across(s.places, f)
	for i := range s.rows {
		clear(with)
		for _, t := range s.places.rows[i] {
			a := at[t.place]
			floats.AddScaled(with[a.from:a.to], t.by, a.in(across))
		}
		for j := range n {
			told.Data[i*n+j] = f.dot(j, with)
		}
	}
	return told
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
	told := make([]float64, len(s.places.at)) // by all readings, at each of their places
	for i, a := range s.alpha {
		for _, t := range s.places.rows[i] {
			told[t.place] += t.by * a
		}
	}
	mean := make([]float64, len(figures))
	for j, f := range figures {
		mean[j] = s.prior.meanOf(f)
		for _, t := range f {
			of := s.prior.of(t.Of)
			from, to := s.places.of(t.Of)
			for k, a := range s.places.at[from:to] {
				mean[j] += t.By * told[from+k] * of.cov(a.At, t.At)
			}
		}
	}
	return mean
}
