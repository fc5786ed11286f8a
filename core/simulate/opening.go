package simulate

import (
	"math/rand/v2"

	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
	"kindmargin/core/survey"
)

// The margins simulated, in mm: 3 all round and 6 at the foot; cuts true to 0.3 (σ at each end of a cut), gaps read
// with packers to 0.3.
const (
	width, height = 826.0, 2030.0
	margin, under = 3.0, 6.0
	least         = 1.5
	cutNoise      = 0.3
	gapNoise      = 0.3
	tooSmall      = 1.0
	within        = 1.0 // of the best, and it fits
	mostRounds    = 12  // how often anybody hangs one slab
	grid          = 29  // places at which a true side is drawn; straight between
)

// opening is a true opening: each side's coordinate at places along it.
type opening struct{ side frame.Each[[]float64] }

func reach(s frame.Side) float64 {
	if s.Upright() {
		return height
	}
	return width
}

func (o opening) at(s frame.Side, place float64) float64 {
	v := o.side[s]
	f := min(max(place/reach(s), 0), 1) * float64(len(v)-1)
	i := min(int(f), len(v)-2)
	return v[i] + (f-float64(i))*(v[i+1]-v[i])
}

// drawer draws true openings from the prior, by the Cholesky factor of its covariance.
type drawer struct {
	prior  survey.Prior
	factor frame.Each[*mat.TriDense]
}

func newDrawer(p survey.Prior) *drawer {
	d := &drawer{prior: p}
	flat := p
	flat.Offset = 1 // the size is drawn apart
	for _, s := range frame.Sides {
		cov := mat.NewSymDense(grid, nil)
		for i := range grid {
			for j := i; j < grid; j++ {
				a, b := reach(s)*float64(i)/(grid-1), reach(s)*float64(j)/(grid-1)
				cov.SetSym(i, j, flat.Cov(survey.Of(s), a, b))
			}
			cov.SetSym(i, i, cov.At(i, i)+1e-6)
		}
		var chol mat.Cholesky
		if !chol.Factorize(cov) {
			panic("the prior's covariance is not positive definite")
		}
		d.factor[s] = new(mat.TriDense)
		chol.LTo(d.factor[s])
	}
	return d
}

func (d *drawer) draw(rng *rand.Rand) (o opening) {
	for _, s := range frame.Sides {
		z := make([]float64, grid)
		for i := range z {
			z[i] = rng.NormFloat64()
		}
		var v mat.VecDense
		v.MulVec(d.factor[s], mat.NewVecDense(grid, z))
		side := v.RawVector().Data
		nominal := 0.0
		switch s {
		case frame.Lock:
			nominal = width + rng.NormFloat64()*5
		case frame.Head:
			nominal = height + rng.NormFloat64()*5
		default:
			nominal = -side[0] // the frame is pinned at the foot of the hinge jamb
		}
		for i := range side {
			side[i] += nominal
		}
		o.side[s] = side
	}
	return o
}
