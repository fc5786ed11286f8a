package survey

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/blas"
	"gonum.org/v1/gonum/blas/blas64"
	"gonum.org/v1/gonum/floats"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// Gain is what one more reading would bring.
type Gain struct {
	Reading Reading // without a value
	Figure  int     // which of the wanted figures it helps most
	From    float64 // that figure's sigma now, mm
	To      float64 // and after, mm
	Worth   float64 // what it takes off them all, weighted to the worst; the order of the list
}

// Best ranks candidate readings by what each would take off the standard deviations of the wanted figures, most first:
//
// Δ = (B P aᵀ)(B P aᵀ)ᵀ / (a P aᵀ + σ²)
//
// for a reading's row a with noise σ². The remaining deviations are summed to the fourth power, so that the least
// certain figures count most. Invalid candidates are skipped.
func (s *Shape) Best(wanted []Row, candidates []Reading) []Gain {
	q := s.Search(wanted, candidates)
	n := len(wanted)
	var now float64
	for i := range n {
		now += q.own[i*n+i] * q.own[i*n+i]
	}
	var list []Gain
	for k, c := range q.Candidates {
		g := Gain{Reading: c}
		var after, most float64
		for i := range n {
			v, p := q.own[i*n+i], q.across[k*n+i]
			left := max(v-p*p/(q.sure[k]+q.noise[k]), 0)
			after += left * left
			if d := math.Sqrt(v) - math.Sqrt(left); d > most {
				most, g.Figure, g.From, g.To = d, i, math.Sqrt(v), math.Sqrt(left)
			}
		}
		g.Worth = math.Pow(now, 0.25) - math.Pow(after, 0.25)
		list = append(list, g)
	}
	slices.SortStableFunc(list, func(a, b Gain) int { return cmp.Compare(b.Worth, a.Worth) })
	return list
}

// Search predicts the covariance of some figures after candidate readings. It is not safe for concurrent use.
type Search struct {
	Candidates []Reading // those that can be
	n          int
	own        []float64    // covariance of the n figures, mm²
	across     []float64    // of each candidate (by rows) with each figure
	sure       []float64    // variance of each candidate now, its noise left out
	noise      []float64    // of each candidate, mm²
	taken      []float64    // what each one taken took off: covariances are less by the products of a row
	first      [3][]float64 // own, across and sure before any was taken

	// The basis of the covariances: the places of figures and candidates, their prior covariance, and the reduction by
	// the readings, a row for each reading.
	f     places
	table []float64
	half  blas64.General
	with  []float64 // room for one row's covariances with each place, and with each row
	row   []float64
}

// Search prepares a search; invalid candidates are skipped.
func (s *Shape) Search(figures []Row, candidates []Reading) *Search {
	q := &Search{n: len(figures), Candidates: candidates, noise: make([]float64, len(candidates))}
	rows := append(make([]Row, 0, len(figures)+len(candidates)), figures...)
	for i, r := range candidates {
		row, _, err := s.rowOf(r)
		if err != nil {
			return s.Search(figures, slices.DeleteFunc(
				slices.Clone(candidates), func(r Reading) bool { _, _, err := s.rowOf(r); return err != nil },
			))
		}
		rows, q.noise[i] = append(rows, row), s.prior.noise(r)
	}
	q.f = placesOf(rows)
	q.table, q.with, q.row = q.f.own(&s.prior), make([]float64, len(q.f.at)), make([]float64, len(rows))
	q.half = s.told(q.f)
	blas64.Trsm(blas.Left, blas.Trans, 1, s.chol, q.half)
	n, c := q.n, len(q.Candidates)
	q.own, q.across, q.sure = make([]float64, n*n), make([]float64, n*c), make([]float64, c)
	for i := range n {
		cov := q.given(i, 0)
		copy(q.own[i*n:(i+1)*n], cov)
		q.own[i*n+i] = max(q.own[i*n+i], 0)
		for k, v := range cov[n:] {
			q.across[k*n+i] = v
		}
	}
	for k := range c {
		q.f.with(n+k, q.table, q.with)
		q.sure[k] = q.f.dot(n+k, q.with)
	}
	for i := range q.half.Rows {
		for k, v := range q.half.Data[i*q.half.Stride+n : (i+1)*q.half.Stride] {
			q.sure[k] -= v * v
		}
	}
	q.taken = make([]float64, 0, 8*c)
	q.first = [3][]float64{slices.Clone(q.own), slices.Clone(q.across), slices.Clone(q.sure)}
	return q
}

// Reset undoes every Take.
func (q *Search) Reset() {
	q.taken = q.taken[:0]
	copy(q.own, q.first[0])
	copy(q.across, q.first[1])
	copy(q.sure, q.first[2])
}

// given is the covariance of a row with every row from an index on, given the readings; it is valid until the next
// call.
func (q *Search) given(row, from int) []float64 {
	q.f.with(row, q.table, q.with)
	cov := q.row[from:]
	for j := range cov {
		cov[j] = q.f.dot(from+j, q.with)
	}
	for i := range q.half.Rows {
		half := q.half.Data[i*q.half.Stride : (i+1)*q.half.Stride]
		floats.AddScaled(cov, -half[row], half[from:])
	}
	return cov
}

// Now is the present covariance of the figures, n × n by rows, in mm².
func (q *Search) Now() []float64 { return slices.Clone(q.own) }

// After writes to cov the covariance once candidate k is read:
//
// P′ = P − (P aᵀ)(P aᵀ)ᵀ / (a P aᵀ + σ²)
func (q *Search) After(cov []float64, k int) {
	n := q.n
	col, by := q.across[k*n:(k+1)*n], 1/(q.sure[k]+q.noise[k])
	for i, x := range col {
		x *= by
		for j, y := range col {
			cov[i*n+j] = q.own[i*n+j] - x*y
		}
	}
}

// Take conditions on candidate k, for all that follows.
func (q *Search) Take(k int) {
	n, c := q.n, len(q.Candidates)
	at := len(q.taken)
	q.taken = append(q.taken, q.given(n+k, n)...)
	row := q.taken[at:]
	for before := 0; before < at; before += c {
		g := q.taken[before : before+c]
		floats.AddScaled(row, -g[k], g)
	}
	by := math.Sqrt(1 / (q.sure[k] + q.noise[k]))
	col := make([]float64, n)
	for j, y := range q.across[k*n : (k+1)*n] {
		col[j] = by * y
	}
	for i, x := range col {
		for j, y := range col {
			q.own[i*n+j] -= x * y
		}
	}
	for i := range row {
		row[i] *= by
		q.sure[i] -= row[i] * row[i]
		for j, y := range col {
			q.across[i*n+j] -= row[i] * y
		}
	}
}

// Candidates are the readings that a person could sensibly take in an opening of a size, at round places in the unit of
// the job.
func Candidates(width, height measure.Length, u measure.Unit) (list []Reading) {
	mm := func(v measure.Length) measure.Length {
		step := 50 * measure.Millimetre
		if u == measure.Inches {
			step = 2 * measure.Inch
		}
		return v.Round(step, measure.Nearest)
	}
	list = make([]Reading, 0, 44)
	low, high := mm(height/10), mm(height*9/10)
	near, far := mm(width/16), mm(width*15/16)
	list = append(list, Reading{Kind: Width, At: mm(height / 20)}, Reading{Kind: Width, At: mm(height * 19 / 20)})
	for i := range measure.Length(7) {
		list = append(list, Reading{Kind: Width, At: mm(height * (i*2 + 2) / 16)})
	}
	for _, at := range []measure.Length{near, mm(width / 4), mm(width / 2), mm(width * 3 / 4), far} {
		list = append(list, Reading{Kind: Height, At: at})
	}
	for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
		list = append(
			list,
			Reading{Kind: Plumb, Side: side, At: high, From: low},
			Reading{Kind: Plumb, Side: side, At: mm(height / 2), From: low},
			Reading{Kind: Straight, Side: side, At: mm(height / 2), From: low, To: high},
			Reading{Kind: Straight, Side: side, At: mm(height * 5 / 16), From: low, To: high},
			Reading{Kind: Straight, Side: side, At: mm(height * 11 / 16), From: low, To: high},
			Reading{Kind: Straight, Side: side, At: mm(height * 13 / 64), From: low, To: high},
			Reading{Kind: Straight, Side: side, At: mm(height * 26 / 64), From: low, To: high},
			Reading{Kind: Straight, Side: side, At: mm(height * 38 / 64), From: low, To: high},
			Reading{Kind: Straight, Side: side, At: mm(height * 51 / 64), From: low, To: high},
			Reading{Kind: Square, Side: side, At: mm(width * 3 / 4)},
			Reading{Kind: Diagonal, Side: side},
		)
	}
	for _, side := range []frame.Side{frame.Head, frame.Foot} {
		list = append(
			list,
			Reading{Kind: Level, Side: side, At: far, From: near},
			Reading{Kind: Straight, Side: side, At: mm(width / 2), From: near, To: far},
		)
	}
	list = append(
		list,
		Reading{Kind: Straight, Side: frame.Head, At: mm(width / 4), From: near, To: far},
		Reading{Kind: Straight, Side: frame.Head, At: mm(width * 3 / 4), From: near, To: far},
	)
	return list
}
