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
	"sync"

	"gonum.org/v1/gonum/blas"
	"gonum.org/v1/gonum/blas/blas64"
	"gonum.org/v1/gonum/lapack/lapack64"
	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// Prior is what is believed of an opening before it is measured. Standard
// deviations, in millimetres; leans in millimetres per millimetre.
type Prior struct {
	Width, Height     float64 // nominal size
	Offset            float64 // of each side from its nominal place
	Lean              float64 // of a jamb from plumb
	Slope             float64 // of head and floor from level
	JambBow, HeadBow  float64 // HeadBow is for head and floor
	JambRun, FloorRun float64 // ℓ: the length over which a side bends
	HeadRun           float64
	// Tape is the distance between two marks of the tape: what is read is rounded
	// to it, which adds Tape²/12 to each reading's variance (a uniform error;
	// JCGM 100:2008, 4.3.7). Nought where readings are not rounded.
	Tape float64
}

// OldOpening is an opening in a house that has settled. Common practice.
func OldOpening(width, height float64) Prior {
	return Prior{
		Width: width, Height: height, Offset: 50,
		Lean: 0.004, Slope: 0.004, JambBow: 1.5, HeadBow: 0.8,
		JambRun: 700, FloorRun: 400, HeadRun: 400,
	}
}

// NewFrame is a frame set by a careful hand: a quarter of OldOpening's
// crookedness. Common practice.
func NewFrame(width, height float64) Prior {
	p := OldOpening(width, height)
	return p.crookeder(crookedness{0.25, 0.25, 0.25, 0.25})
}

// Each offer has unknowns of its own, after the sides: how far its foot at the
// hinge edge stands from the frame's origin along u and v, its turn (positive
// where its head leans toward the hinge jamb), and by how much its lock edge,
// head and foot stand off the rectangle of its first width and length, seen from
// its hinge edge. A door that was trimmed to its opening is no rectangle.
const (
	placed = frame.Side(16)

	across = iota - 1
	up
	turn
	oldLock // of the old door
	oldHead
	oldFoot
	newLock // of the slab that is to be cut
	newHead
	newFoot
	unknowns

	shiftSpread = 50.0 // mm
	turnSpread  = 0.02 // mm per mm
	mostOffers  = 60   // that a Side can number
)

// shapes is what is believed of a door's own edges: offset and bow in mm, lean
// in mm per mm. An old door was planed to its opening; a new slab comes from a
// machine. Common practice.
var shapes = [2]struct{ offset, lean, bow, run float64 }{
	{30, 0.003, 0.5, 700},
	{30, 0.0007, 0.25, 700},
}

// unknown is one of an offer's unknowns; shape those of its edges.
func unknown(k, which int) frame.Side { return placed + frame.Side(unknowns*k+which) }

func shape(k int, of Offer, side frame.Side) frame.Side {
	which := map[frame.Side]int{frame.Lock: oldLock, frame.Head: oldHead, frame.Foot: oldFoot}[side]
	if !of.Old {
		which += newLock - oldLock
	}
	return unknown(k, which)
}

// noise is the variance of a reading, mm²: its own and its rounding to the tape.
// Where it was said how sure a reading is, that is the whole of it.
func (p *Prior) noise(r Reading) float64 {
	sigma := r.Sigma()
	if r.Sure > 0 {
		return sigma * sigma
	}
	return sigma*sigma + p.Tape*p.Tape/12
}

func (p *Prior) mean(s frame.Side) float64 {
	switch s {
	case frame.Lock:
		return p.Width
	case frame.Head:
		return p.Height
	}
	return 0
}

// Cov is the prior covariance of one side at two places, in mm². Different sides are
// independent.
func (p *Prior) Cov(side frame.Side, s, t float64) float64 {
	offset, lean, bow, run := p.of(side)
	v := offset*offset + lean*lean*s*t
	if bow != 0 {
		d := (s - t) / run
		v += bow * bow * math.Exp(-0.5*d*d)
	}
	return v
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

func (p *Prior) meanOf(r Row) float64 {
	var m float64
	for _, t := range r {
		m += t.By * p.mean(t.Side)
	}
	return m
}

func (p *Prior) covOf(a, b Row) float64 {
	var c float64
	for _, s := range a {
		for _, t := range b {
			if s.Side == t.Side {
				c += s.By * t.By * p.Cov(s.Side, s.At, t.At)
			}
		}
	}
	return c
}

// covRows is the prior covariance of two rows of an estimate.
func (p *Prior) covRows(s *Shape, i, j int) float64 {
	if s.bends != nil {
		return s.bends.cov(p, i, j)
	}
	return p.covOf(s.rows[i], s.rows[j])
}

// Row is the reading as a linear figure of the opening, given the prior's
// nominal size (which places the corners). A gap needs its offer, and a
// diagonal a shape to be linear about: see Estimate.
func (r Reading) Row(p Prior) Row {
	at, from := r.At.MM(), r.From.MM()
	switch r.Kind {
	case Straight:
		// Light is where the side stands back from the straightedge.
		back := 1.0
		if r.Side == frame.Hinge || r.Side == frame.Foot {
			back = -1
		}
		f := (at - from) / (r.To.MM() - from)
		return Row{{r.Side, at, back}, {r.Side, from, -back * (1 - f)}, {r.Side, r.To.MM(), -back * f}}
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

// gapRow is a gap beside offer number k as a linear figure, and the part of
// its value that the slab's own size makes.
func gapRow(r Reading, k int, of Offer) (row Row, constant float64) {
	at := r.At.MM()
	switch r.Side {
	case frame.Hinge: // slab's edge at u = across − turn·v
		return Row{{unknown(k, across), 0, 1}, {unknown(k, turn), 0, -at}, {frame.Hinge, at, -1}}, 0
	case frame.Lock:
		return Row{{frame.Lock, at, 1}, {unknown(k, across), 0, -1}, {unknown(k, turn), 0, at}, {shape(k, of, frame.Lock), at, -1}}, -of.Width.MM()
	case frame.Head: // slab's edge at v = up + length + turn·u
		return Row{{frame.Head, at, 1}, {unknown(k, up), 0, -1}, {unknown(k, turn), 0, -at}, {shape(k, of, frame.Head), at, -1}}, -of.Length.MM()
	}
	return Row{{unknown(k, up), 0, 1}, {unknown(k, turn), 0, at}, {shape(k, of, frame.Foot), at, 1}, {frame.Foot, at, -1}}, 0
}

// own is what was measured of an offer's own edges, as rows with their values
// and variances: width at head, middle and foot, length on both edges, and how
// square its head is. The foot's corner at the hinge edge is its origin.
func (of Offer) own(k int) (rows []Row, values, noise []float64) {
	add := func(value, sigma float64, row ...Term) {
		rows, values, noise = append(rows, row), append(values, value), append(noise, sigma*sigma)
	}
	lock, head, foot := shape(k, of, frame.Lock), shape(k, of, frame.Head), shape(k, of, frame.Foot)
	width, length := of.Width.MM(), of.Length.MM()
	sigma := usual[Width]
	add(0, sigma, Term{lock, length, 1})
	if of.WidthMid > 0 {
		add(of.WidthMid.MM()-width, sigma, Term{lock, length / 2, 1})
	}
	if of.WidthFoot > 0 {
		add(of.WidthFoot.MM()-width, sigma, Term{lock, 0, 1})
	}
	add(0, sigma, Term{head, 0, 1})
	add(0, 0, Term{foot, 0, 1})
	if of.LengthLock > 0 {
		add(of.LengthLock.MM()-length, sigma, Term{head, width, 1}, Term{foot, width, -1})
	}
	if of.Square != nil {
		add(of.Square.MM(), usual[Square], Term{head, width, 1}, Term{head, 0, -1})
	}
	return rows, values, noise
}

// diagonalRow is a diagonal as a linear figure about the corners' present
// places: the unit vector along it, times the difference of its ends.
func diagonalRow(side frame.Side, p Prior, corner func(frame.Side, float64) float64) (row Row, constant float64) {
	far := frame.Lock
	from, to := 0.0, p.Width
	if side == frame.Lock {
		far, from, to = frame.Hinge, p.Width, 0
	}
	du := corner(far, p.Height) - corner(side, 0)
	dv := corner(frame.Head, to) - corner(frame.Foot, from)
	d := math.Hypot(du, dv)
	row = Row{{far, p.Height, du / d}, {side, 0, -du / d}, {frame.Head, to, dv / d}, {frame.Foot, from, -dv / d}}
	// d is homogeneous in its ends, so the linear part is the whole of it.
	return row, 0
}

// OfferError is a gap whose placing is not told.
type OfferError struct {
	Reading Reading
	Problem string // a sentence
}

func (e *OfferError) Error() string { return e.Problem }

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
	bends  *bends            // of the rows; nil where they are too many
	chol   blas64.Triangular // U of S = UᵀU
	alpha  []float64         // S⁻¹(y − Aμ)

	suspects func() []Suspect // worked out when first asked for
}

// Estimate conditions the prior on the readings, and on the frame's two pins
// h(0) = 0 and f(0) = 0; readings that were struck out are passed over. It
// fails with a *ReadingError for a reading that cannot be, and an *OfferError
// for a gap beside a slab that is not among the offers. No readings at all is
// a valid, very unsure, estimate.
//
// Diagonals are made linear about the present shape and the estimate repeated
// until no corner moves by more than a micrometre, five times at most.
func Estimate(readings []Reading, offers []Offer, p Prior) (*Shape, error) {
	s, err := estimate(readings, offers, p, func(side frame.Side, _ float64) float64 { return p.mean(side) })
	if err != nil || !slices.ContainsFunc(s.given, func(r Reading) bool { return r.Kind == Diagonal }) {
		return s, err
	}
	corners := []Row{
		{{frame.Hinge, p.Height, 1}},
		{{frame.Lock, 0, 1}},
		{{frame.Lock, p.Height, 1}},
		{{frame.Head, 0, 1}},
		{{frame.Head, p.Width, 1}},
		{{frame.Foot, p.Width, 1}},
	}
	before := s.Means(corners)
	for range 5 {
		last := s
		s, err = estimate(readings, offers, p, func(side frame.Side, at float64) float64 {
			return last.Means([]Row{{{side, at, 1}}})[0]
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
	s := &Shape{prior: p, offers: offers, corner: corner}
	for _, r := range readings {
		if r.Struck != "" {
			continue
		}
		if err := r.Check(measure.Millimetres); err != nil {
			return nil, err
		}
		row, constant, err := s.rowOf(r)
		if err != nil {
			return nil, err
		}
		s.given = append(s.given, r)
		s.rows = append(s.rows, row)
		s.resid = append(s.resid, r.Value.MM()-constant-p.meanOf(row))
		s.noise = append(s.noise, p.noise(r))
	}
	for _, side := range []frame.Side{frame.Hinge, frame.Foot} {
		s.rows = append(s.rows, Row{{side, 0, 1}})
		s.resid = append(s.resid, 0)
		s.noise = append(s.noise, 0)
	}
	for k, of := range offers {
		if !slices.ContainsFunc(s.given, func(r Reading) bool { return r.Kind == Gap && r.Offer == of.ID }) {
			continue
		}
		rows, values, noise := of.own(k)
		s.rows, s.resid, s.noise = append(s.rows, rows...), append(s.resid, values...), append(s.noise, noise...)
	}
	if len(s.rows) <= mostBends {
		s.bends = newBends(&p, s.rows)
	}
	return s, s.condition()
}

// under is the same readings of the same opening by a prior that is crooked by
// another measure.
func (s *Shape) under(p Prior) (*Shape, error) {
	if slices.ContainsFunc(s.given, func(r Reading) bool { return r.Kind == Diagonal }) {
		return Estimate(s.given, s.offers, p) // diagonals are linear about the shape itself
	}
	t := &Shape{prior: p, offers: s.offers, corner: s.corner, given: s.given, rows: s.rows, resid: s.resid, noise: s.noise, bends: s.bends}
	return t, t.condition()
}

// condition factors S and weighs the readings.
func (s *Shape) condition() error {
	p, n := &s.prior, len(s.rows)
	cov := blas64.Symmetric{N: n, Stride: n, Data: make([]float64, n*n), Uplo: blas.Upper}
	for i := range n {
		for j := i; j < n; j++ {
			cov.Data[i*n+j] = p.covRows(s, i, j)
		}
		cov.Data[i*n+i] += s.noise[i]
	}
	var ok bool
	if s.chol, ok = lapack64.Potrf(cov); !ok {
		return fmt.Errorf("the readings cannot be combined: the opening's prior has no spread")
	}
	s.alpha = slices.Clone(s.resid)
	lapack64.Potrs(s.chol, blas64.General{Rows: n, Cols: 1, Stride: 1, Data: s.alpha})
	s.suspects = sync.OnceValue(s.findSuspects)
	return nil
}

// rowOf is a reading as a linear figure with its constant part.
func (s *Shape) rowOf(r Reading) (row Row, constant float64, err error) {
	switch r.Kind {
	case Gap:
		k := slices.IndexFunc(s.offers, func(o Offer) bool { return o.ID == r.Offer })
		if k < 0 || k >= mostOffers {
			return nil, 0, &OfferError{r, fmt.Sprintf("There is no placing %q: say which slab stood there.", r.Offer)}
		}
		row, constant = gapRow(r, k, s.offers[k])
	case Diagonal:
		row, constant = diagonalRow(r.Side, s.prior, s.corner)
	default:
		row = r.Row(s.prior)
	}
	return row, constant, nil
}

// Placing is where an offer stood: its foot corner at the hinge edge, along u
// and v in mm, and its turn, positive where its head leans toward the hinge
// jamb. ok is false for an offer that is not known.
func (s *Shape) Placing(offer string) (u, v, lean float64, ok bool) {
	k := slices.IndexFunc(s.offers, func(o Offer) bool { return o.ID == offer })
	if k < 0 {
		return 0, 0, 0, false
	}
	m := s.Means([]Row{
		{{unknown(k, across), 0, 1}}, {{unknown(k, up), 0, 1}}, {{unknown(k, turn), 0, 1}},
	})
	return m[0], m[1], m[2], true
}

// Prior returns the prior that the estimate was made with.
func (s *Shape) Prior() Prior { return s.prior }

// Joint returns the mean of each figure (length n) and their covariance
// (n × n), in mm and mm².
func (s *Shape) Joint(figures []Row) (mean []float64, cov *mat.SymDense) {
	n, m := len(figures), len(s.rows)
	// Figures share most of their places (the hinges stand in nearly all), so
	// the prior is worked out once for each place.
	places := make([]Term, 0, 2*n)
	index := make([][]int, n)
	for j, f := range figures {
		index[j] = make([]int, 0, len(f))
		for _, t := range f {
			k := slices.IndexFunc(places, func(p Term) bool { return p.Side == t.Side && p.At == t.At })
			if k < 0 {
				k = len(places)
				places = append(places, Term{t.Side, t.At, 1})
			}
			index[j] = append(index[j], k)
		}
	}
	// across(k, j) is the prior covariance of place k and figure j, told(i, j) that
	// of reading i and figure j.
	at := make([]float64, len(places)) // of one place, or one reading, and each place
	across := make([]float64, len(places)*n)
	own := make([]float64, len(places)*len(places))
	spread := func(row []float64) { // from places to figures
		for j, f := range figures {
			var c float64
			for a, t := range f {
				c += t.By * at[index[j][a]]
			}
			row[j] = c
		}
	}
	for k, here := range places {
		for l, there := range places[:k+1] {
			if here.Side == there.Side {
				c := s.prior.Cov(here.Side, here.At, there.At)
				own[k*len(places)+l], own[l*len(places)+k] = c, c
			}
		}
	}
	for k := range places {
		copy(at, own[k*len(places):(k+1)*len(places)])
		spread(across[k*n : (k+1)*n])
	}
	cross := make([]float64, m*n)
	for i, r := range s.rows {
		for k, there := range places {
			at[k] = 0
			for _, t := range r {
				if t.Side == there.Side {
					at[k] += t.By * s.prior.Cov(t.Side, t.At, there.At)
				}
			}
		}
		spread(cross[i*n : (i+1)*n])
	}
	mean = make([]float64, n)
	for j, f := range figures {
		mean[j] = s.prior.meanOf(f)
		for i, a := range s.alpha {
			mean[j] += cross[i*n+j] * a
		}
	}
	// K Aᵀ S⁻¹ A K = HᵀH with H = U⁻ᵀ A K.
	half := blas64.General{Rows: m, Cols: n, Stride: n, Data: cross}
	blas64.Trsm(blas.Left, blas.Trans, 1, s.chol, half)
	cov = mat.NewSymDense(n, nil)
	for i, f := range figures {
		for j := i; j < n; j++ {
			var c float64
			for a, t := range f {
				c += t.By * across[index[i][a]*n+j]
			}
			cov.SetSym(i, j, c)
		}
	}
	blas64.Syrk(blas.Trans, -1, half, 1, cov.RawSymmetric())
	return mean, cov
}

// strip gives the variances of some figures and of others (candidates), and the
// covariance of each figure with each candidate, figures by rows, in mm²: the part
// of Joint that a search needs.
func (s *Shape) strip(figures, candidates []Row) (own, across, each []float64) {
	m, n, c := len(s.rows), len(figures), len(candidates)
	half := blas64.General{Rows: m, Cols: n + c, Stride: n + c, Data: make([]float64, m*(n+c))}
	for i, known := range s.rows {
		for j, f := range figures {
			half.Data[i*(n+c)+j] = s.prior.covOf(known, f)
		}
		for k, f := range candidates {
			half.Data[i*(n+c)+n+k] = s.prior.covOf(known, f)
		}
	}
	blas64.Trsm(blas.Left, blas.Trans, 1, s.chol, half)
	own, across, each = make([]float64, n), make([]float64, n*c), make([]float64, c)
	for i, f := range figures {
		own[i] = s.prior.covOf(f, f)
		for k, g := range candidates {
			across[i*c+k] = s.prior.covOf(f, g)
		}
	}
	for k, g := range candidates {
		each[k] = s.prior.covOf(g, g)
	}
	for r := range m {
		row := half.Data[r*(n+c) : (r+1)*(n+c)]
		for i, h := range row[:n] {
			own[i] -= h * h
			for k, g := range row[n:] {
				across[i*c+k] -= h * g
			}
		}
		for k, g := range row[n:] {
			each[k] -= g * g
		}
	}
	for i := range own {
		own[i] = max(own[i], 0)
	}
	return own, across, each
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
