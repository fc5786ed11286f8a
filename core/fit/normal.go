package fit

import "math"

// phi is the standard normal distribution function to 1e-10, from a table, since a plan needs some thousands of values:
// the Taylor series about the nearest entry, to third order; past ±7 it is 0 or 1, within 1.3e-12.
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

// phis are the upper tail and the density at each entry, from 0 up.
var phis = func() (t [phiSteps*phiReach + 1]struct{ tail, density float64 }) {
	for k := range t {
		x := float64(k) / phiSteps
		t[k].tail = 0.5 * math.Erfc(x/math.Sqrt2)
		t[k].density = math.Exp(-x*x/2) / math.Sqrt(2*math.Pi)
	}
	return t
}()
