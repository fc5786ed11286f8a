package fit

import "math"

// phi is the standard normal distribution to 1e-10, from a table: a plan needs some
// thousands of them. It is the Taylor series about the nearest place of the table, to the
// third order; from 7 on it is nought or one, to 1.3e-12.
func phi(z float64) float64 {
	x := math.Abs(z)
	if x >= phiReach {
		if z < 0 {
			return 0
		}
		return 1
	}
	k := int(x*phiSteps + 0.5)
	at := float64(k) * (1.0 / phiSteps)
	h, t := x-at, &phis[k]
	tail := t.tail - t.density*h*(1-h*(at/2-h*(at*at-1)/6))
	if z < 0 {
		return tail
	}
	return 1 - tail
}

const (
	phiSteps = 64 // to one
	phiReach = 7
)

// phis are, from nought up, what lies past each place, and the density there.
var phis = func() (t [phiSteps*phiReach + 1]struct{ tail, density float64 }) {
	for k := range t {
		x := float64(k) / phiSteps
		t[k].tail = 0.5 * math.Erfc(x/math.Sqrt2)
		t[k].density = math.Exp(-x*x/2) / math.Sqrt(2*math.Pi)
	}
	return t
}()
