// Package survey turns readings of an opening, taken by any school, into one
// estimate of its shape, with how sure each part of it is.
//
// Each side of the opening is a Gaussian process, known before any reading
// only as roughly straight and roughly plumb or level:
//
//	side(s) = nominal + offset + lean·s + bow(s)
//	cov(s,s') = σ_offset² + σ_lean²·s·s' + σ_bow²·exp(−½((s−s')/ℓ)²)
//
// and each reading is a linear row over the sides, y = A z + ε, ε ~ N(0, R).
// The estimate is the conditional of the joint normal:
//
//	S = A K Aᵀ + R;   z̄ = μ + K Aᵀ S⁻¹ (y − Aμ);   P = K − K Aᵀ S⁻¹ A K
//
// (Rasmussen and Williams, Gaussian Processes for Machine Learning, 2006,
// eqs. 2.22–2.24, from memory.) All numbers in this package are float64
// millimetres in the elevation frame of package frame.
package survey

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// Prior is what is believed of an opening before it is measured. Standard
// deviations, in millimetres; leans in millimetres per millimetre.
type Prior struct {
	Width, Height     float64 // nominal size
	Offset            float64 // of each side from its nominal place
	Lean              float64 // of a jamb from plumb, of head and floor from level
	JambBow, HeadBow  float64 // HeadBow is for head and floor
	JambRun, FloorRun float64 // ℓ: the length over which a side bends
	HeadRun           float64
}

// OldOpening is an opening in a house that has settled. Common practice.
func OldOpening(width, height float64) Prior {
	return Prior{
		Width: width, Height: height, Offset: 50,
		Lean: 0.004, JambBow: 1.5, HeadBow: 0.8,
		JambRun: 700, FloorRun: 700, HeadRun: 400,
	}
}

// NewFrame is a frame set by a careful hand: a quarter of OldOpening's
// crookedness. Common practice.
func NewFrame(width, height float64) Prior {
	p := OldOpening(width, height)
	p.Lean, p.JambBow, p.HeadBow = p.Lean/4, p.JambBow/4, p.HeadBow/4
	return p
}

func (p Prior) mean(s frame.Side) float64 {
	switch s {
	case frame.Lock:
		return p.Width
	case frame.Head:
		return p.Height
	}
	return 0
}

// cov is the prior covariance of one side at two places. Different sides are
// independent.
func (p Prior) cov(side frame.Side, s, t float64) float64 {
	bow, run := p.JambBow, p.JambRun
	switch side {
	case frame.Head:
		bow, run = p.HeadBow, p.HeadRun
	case frame.Foot:
		bow, run = p.HeadBow, p.FloorRun
	}
	d := (s - t) / run
	return p.Offset*p.Offset + p.Lean*p.Lean*s*t + bow*bow*math.Exp(-0.5*d*d)
}

// Term is a multiple of one side's coordinate at one place: u of a jamb at
// height At, v of head or floor at distance At from the hinge jamb.
type Term struct {
	Side frame.Side
	At   float64
	By   float64
}

// Row is a linear figure of the opening: the sum of its terms.
type Row []Term

func (p Prior) meanOf(r Row) float64 {
	var m float64
	for _, t := range r {
		m += t.By * p.mean(t.Side)
	}
	return m
}

func (p Prior) covOf(a, b Row) float64 {
	var c float64
	for _, s := range a {
		for _, t := range b {
			if s.Side == t.Side {
				c += s.By * t.By * p.cov(s.Side, s.At, t.At)
			}
		}
	}
	return c
}

// Row is the reading as a linear figure of the opening, given the prior's
// nominal size (which places the corners).
func (r Reading) Row(p Prior) Row {
	at, from := r.At.MM(), r.From.MM()
	switch r.Kind {
	case Width:
		return Row{{frame.Lock, at, 1}, {frame.Hinge, at, -1}}
	case Height:
		return Row{{frame.Head, at, 1}, {frame.Foot, at, -1}}
	case Plumb:
		in := 1.0
		if r.Side == frame.Lock {
			in = -1 // into the opening is toward the hinge jamb
		}
		return Row{{r.Side, at, in}, {r.Side, from, -in}}
	case Level:
		return Row{{r.Side, at, 1}, {r.Side, from, -1}}
	case Square:
		// The blade stands square to the jamb, so a jamb that leans into the
		// opening carries the blade's end down and opens the light.
		if r.Side == frame.Hinge {
			return Row{
				{frame.Head, at, 1},
				{frame.Head, 0, -1},
				{frame.Hinge, p.Height, 1},
				{frame.Hinge, p.Height - at, -1},
			}
		}
		return Row{
			{frame.Head, p.Width - at, 1},
			{frame.Head, p.Width, -1},
			{frame.Lock, p.Height, -1},
			{frame.Lock, p.Height - at, 1},
		}
	}
	return nil
}

// Shape is an estimate of an opening. Its methods are safe for concurrent
// use.
type Shape struct {
	prior Prior
	given []Reading
	rows  []Row        // the readings', then the two pins
	resid []float64    // y − Aμ
	chol  mat.Cholesky // of S
	alpha mat.VecDense // S⁻¹(y − Aμ)
}

// Estimate conditions the prior on the readings, and on the frame's two pins
// h(0) = 0 and f(0) = 0. It fails with a *ReadingError for a reading that
// cannot be. No readings at all is a valid, very unsure, estimate.
func Estimate(readings []Reading, p Prior) (*Shape, error) {
	s := &Shape{prior: p, given: slices.Clone(readings)}
	noise := make([]float64, 0, len(readings)+2)
	for _, r := range readings {
		if err := r.Check(measure.Millimetres); err != nil {
			return nil, err
		}
		row := r.Row(p)
		s.rows = append(s.rows, row)
		s.resid = append(s.resid, r.Value.MM()-p.meanOf(row))
		noise = append(noise, r.Sigma()*r.Sigma())
	}
	for _, side := range []frame.Side{frame.Hinge, frame.Foot} {
		s.rows = append(s.rows, Row{{side, 0, 1}})
		s.resid = append(s.resid, 0)
		noise = append(noise, 0)
	}
	n := len(s.rows)
	cov := mat.NewSymDense(n, nil)
	for i := range n {
		for j := i; j < n; j++ {
			cov.SetSym(i, j, p.covOf(s.rows[i], s.rows[j]))
		}
		cov.SetSym(i, i, cov.At(i, i)+noise[i])
	}
	if !s.chol.Factorize(cov) {
		return nil, fmt.Errorf("the readings cannot be combined: the opening's prior has no spread")
	}
	if err := s.chol.SolveVecTo(&s.alpha, mat.NewVecDense(n, s.resid)); err != nil {
		return nil, fmt.Errorf("combining %d readings: %w", len(readings), err)
	}
	return s, nil
}

// Prior returns the prior that the estimate was made with.
func (s *Shape) Prior() Prior { return s.prior }

// Joint returns the mean of each figure (length n) and their covariance
// (n × n), in mm and mm².
func (s *Shape) Joint(figures []Row) (mean []float64, cov *mat.SymDense) {
	n, m := len(figures), len(s.rows)
	// Figures share most of their places (the hinges stand in nearly all), so
	// the prior is worked out once for each place.
	var places []Term
	index := make([][]int, n)
	for j, f := range figures {
		for _, t := range f {
			k := slices.IndexFunc(places, func(p Term) bool { return p.Side == t.Side && p.At == t.At })
			if k < 0 {
				k = len(places)
				places = append(places, Term{t.Side, t.At, 1})
			}
			index[j] = append(index[j], k)
		}
	}
	own := make([]float64, len(places)*len(places))
	told := make([]float64, m*len(places))
	for k := range places {
		here := places[k : k+1]
		for l := k; l < len(places); l++ {
			c := s.prior.covOf(here, places[l:l+1])
			own[k*len(places)+l], own[l*len(places)+k] = c, c
		}
		for i, r := range s.rows {
			told[i*len(places)+k] = s.prior.covOf(r, here)
		}
	}
	cross := mat.NewDense(m, n, nil) // cov(reading, figure)
	for j, f := range figures {
		for i := range m {
			var c float64
			for a, t := range f {
				c += t.By * told[i*len(places)+index[j][a]]
			}
			cross.Set(i, j, c)
		}
	}
	mean = make([]float64, n)
	for j, f := range figures {
		mean[j] = s.prior.meanOf(f) + mat.Dot(cross.ColView(j), &s.alpha)
	}
	var gain, known mat.Dense
	// The factorisation succeeded, so an error here can only warn of a large
	// condition number; the figures are still the best there are.
	_ = s.chol.SolveTo(&gain, cross)
	known.Mul(cross.T(), &gain)
	cov = mat.NewSymDense(n, nil)
	for i, f := range figures {
		for j := i; j < n; j++ {
			var c float64
			for a, t := range f {
				for b, u := range figures[j] {
					c += t.By * u.By * own[index[i][a]*len(places)+index[j][b]]
				}
			}
			cov.SetSym(i, j, c-known.At(i, j))
		}
	}
	return mean, cov
}

// At returns a side's coordinate at one place and its standard deviation.
func (s *Shape) At(side frame.Side, at float64) (mean, sigma float64) {
	return s.Of(Row{{side, at, 1}})
}

// Of returns one figure and its standard deviation.
func (s *Shape) Of(figure Row) (mean, sigma float64) {
	m, c := s.Joint([]Row{figure})
	return m[0], math.Sqrt(max(c.At(0, 0), 0))
}

// suspectAt is the leave-one-out score from which a reading is called in
// question: about one sound reading in two thousand.
const suspectAt = 3.5

// Suspect is a reading that the others contradict.
type Suspect struct {
	Reading   Reading
	Predicted float64 // what the other readings say it should be, mm
	Sigma     float64 // of reading less prediction, mm
	Score     float64 // how many sigmas it is off
}

// Suspects lists the readings that the rest contradict, worst first. A bad
// reading throws doubt on sound ones beside it, so each next suspect is sought
// with the ones before it left out.
func (s *Shape) Suspects() (list []Suspect) {
	for rest := s; len(rest.given) > 0; {
		worst, i := rest.worst()
		if worst.Score <= suspectAt {
			break
		}
		list = append(list, worst)
		var err error
		if rest, err = Estimate(slices.Delete(slices.Clone(rest.given), i, i+1), s.prior); err != nil {
			break
		}
	}
	return list
}

// worst scores each reading against all the others, by leave-one-out in
// closed form: e = [S⁻¹r]ᵢ/[S⁻¹]ᵢᵢ, σ = 1/√[S⁻¹]ᵢᵢ (Rasmussen and Williams,
// eqs. 5.10–5.12, from memory), and returns the worst.
func (s *Shape) worst() (worst Suspect, index int) {
	var inv mat.SymDense
	if err := s.chol.InverseTo(&inv); err != nil {
		return worst, 0
	}
	for i, r := range s.given {
		sigma := 1 / math.Sqrt(inv.At(i, i))
		miss := s.alpha.AtVec(i) / inv.At(i, i)
		if score := math.Abs(miss) / sigma; score > worst.Score {
			worst, index = Suspect{r, r.Value.MM() - miss, sigma, score}, i
		}
	}
	return worst, index
}

// Means returns the mean of each figure, in mm, without the cost of their
// covariance.
func (s *Shape) Means(figures []Row) []float64 {
	mean := make([]float64, len(figures))
	for j, f := range figures {
		mean[j] = s.prior.meanOf(f)
		for i, r := range s.rows {
			mean[j] += s.prior.covOf(r, f) * s.alpha.AtVec(i)
		}
	}
	return mean
}
