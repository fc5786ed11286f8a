package survey

import (
	"math"
	"slices"
	"sync"

	"gonum.org/v1/gonum/blas"
	"gonum.org/v1/gonum/blas/blas64"
	"gonum.org/v1/gonum/lapack/lapack64"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// Shape is an estimate of an opening. Its methods are safe for concurrent
// use.
type Shape struct {
	prior  Prior
	offers []Offer
	corner func(frame.Side, float64) float64 // the places that diagonals are linear about
	given  []Reading
	rows   []Row             // the readings', then the two pins, then what was measured of the offers
	resid  []float64         // y − Aμ
	noise  []float64         // variances, mm²
	owned  []owned           // the rows of what was measured of the offers
	places places            // that the rows touch
	bends  bends             // between the places; none where they are too many
	chol   blas64.Triangular // U of S = UᵀU
	alpha  []float64         // S⁻¹(y − Aμ)

	// Computed on first use.
	suspects func() []Suspect
	inverse  func() []float64 // S⁻¹, n × n
}

// owned is the index, among an estimate's rows, of one measurement of an offer.
type owned struct {
	row, offer int
	field      string
	read       measure.Length
}

// Estimate conditions the prior on the readings, and on the frame's two pins h(0) = 0 and f(0) = 0; struck readings are
// skipped. It fails with a field.Error for an invalid reading, and for a gap beside a slab that is not among the
// offers. An estimate without readings is valid, with the prior's uncertainty.
//
// Diagonals are linearised about the present shape, and the estimate is iterated until no corner moves by more than a
// micrometre, five times at most.
func Estimate(readings []Reading, offers []Offer, p Prior) (*Shape, error) {
	s, err := estimate(readings, offers, p, func(side frame.Side, _ float64) float64 { return p.mean(Of(side)) })
	if err != nil || !slices.ContainsFunc(s.given, func(r Reading) bool { return r.Kind == Diagonal }) {
		return s, err
	}
	corners := []Row{
		{{Of(frame.Hinge), p.Height, 1}},
		{{Of(frame.Lock), 0, 1}},
		{{Of(frame.Lock), p.Height, 1}},
		{{Of(frame.Head), 0, 1}},
		{{Of(frame.Head), p.Width, 1}},
		{{Of(frame.Foot), p.Width, 1}},
	}
	before := s.Means(corners)
	for range 5 {
		last := s
		s, err = estimate(readings, offers, p, func(side frame.Side, at float64) float64 {
			return last.Means([]Row{{{Of(side), at, 1}}})[0]
		})
		if err != nil {
			return nil, err
		}
		now := s.Means(corners)
		moved := 0.0
		for i := range now {
			moved = max(moved, math.Abs(now[i]-before[i]))
		}
		if before = now; moved < 1e-3 {
			break
		}
	}
	return s, nil
}

func estimate(readings []Reading, offers []Offer, p Prior, corner func(frame.Side, float64) float64) (*Shape, error) {
	n := len(readings) + 2
	s := &Shape{
		prior: p, offers: offers, corner: corner, given: make([]Reading, 0, n),
		rows: make([]Row, 0, n), resid: make([]float64, 0, n), noise: make([]float64, 0, n),
	}
	for _, r := range readings {
		if r.Struck != "" {
			continue
		}
		if err := r.Check(); err != nil {
			return nil, err
		}
		row, constant, err := s.rowOf(r)
		if err != nil {
			return nil, err
		}
		s.given = append(s.given, r)
		s.rows = append(s.rows, row)
		s.resid = append(s.resid, r.seen()-constant-p.meanOf(row))
		s.noise = append(s.noise, p.noise(r))
	}
	for _, side := range []frame.Side{frame.Hinge, frame.Foot} {
		s.rows = append(s.rows, Row{{Of(side), 0, 1}})
		s.resid = append(s.resid, 0)
		s.noise = append(s.noise, 0)
	}
	for k, of := range offers {
		gaps := slices.ContainsFunc(s.given, func(r Reading) bool { return r.Kind == Gap && r.Offer == of.ID })
		if !gaps && (of.Old || !p.OwnEdges) { // it tells nothing
			continue
		}
		for _, own := range of.own(k) {
			itself := p.OwnEdges && !of.Old
			if itself {
				own.noise = ownEdge * ownEdge
			}
			if own.field != "" && !itself {
				s.owned = append(s.owned, owned{len(s.rows), k, own.field, own.read})
			}
			if kind, ok := ownKinds[own.field]; ok {
				if bias, ok := p.SlabTerm(kind); ok {
					own.Row = append(own.Row, bias)
				}
			}
			s.rows, s.resid, s.noise = append(s.rows, own.Row), append(s.resid, own.value), append(s.noise, own.noise)
		}
	}
	if s.places = placesOf(s.rows); s.places.cells <= mostCells {
		s.bends = s.places.bends(&p)
	}
	return s, s.condition()
}

// under is the estimate of the same readings by a prior of another crookedness.
func (s *Shape) under(p Prior) (*Shape, error) {
	if slices.ContainsFunc(s.given, func(r Reading) bool { return r.Kind == Diagonal }) {
		return Estimate(s.given, s.offers, p) // diagonals are linear about the shape itself
	}
	t := &Shape{
		prior: p, offers: s.offers, corner: s.corner, given: s.given, rows: s.rows, resid: s.resid, noise: s.noise,
		owned: s.owned, places: s.places, bends: s.bends,
	}
	return t, t.condition()
}

// condition factors S and solves for the weights of the readings.
func (s *Shape) condition() error {
	n := len(s.rows)
	all := make([]int, n)
	for i := range all {
		all[i] = i
	}
	cov := blas64.Symmetric{N: n, Stride: n, Data: s.cov(&s.prior, all), Uplo: blas.Upper}
	for i, v := range s.noise {
		cov.Data[i*n+i] += v
	}
	var ok bool
	if s.chol, ok = lapack64.Potrf(cov); !ok {
		return field.Fault("/readings", "refused.not-combined", nil)
	}
	s.alpha = slices.Clone(s.resid)
	alpha := blas64.Vector{N: n, Inc: 1, Data: s.alpha}
	blas64.Trsv(blas.Trans, s.chol, alpha)
	blas64.Trsv(blas.NoTrans, s.chol, alpha)
	s.suspects, s.inverse = sync.OnceValue(s.findSuspects), sync.OnceValue(s.invert)
	return nil
}

// Prior returns the prior that the estimate was made with.
func (s *Shape) Prior() Prior { return s.prior }
