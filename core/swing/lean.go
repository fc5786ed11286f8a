package swing

import "math"

// Lean is the lean of the line of the pins out of plumb, in mm per mm of height.
type Lean struct {
	Side float64 // toward the lock jamb
	Out  float64 // toward the viewer
}

// Rise is how much higher a place of the slab is at an angle than closed, in mm. At is that place from the pin at its
// own height, closed.
//
// It is Rodrigues' rotation about the leaning line: with its unit vector d and v from it, v cos φ − (d × v) sin φ + d
// (d·v)(1 − cos φ). To first order it is e₁·(x − x(φ)) + e₂·(z − z(φ)).
func (l Lean) Rise(at Point, angle float64) float64 {
	turns, along := l.parts(at)
	sin, cos := math.Sincos(angle)
	return turns*sin + along*(1-cos)
}

// Slope is the derivative of Rise, in mm a radian.
func (l Lean) Slope(at Point, angle float64) float64 {
	turns, along := l.parts(at)
	sin, cos := math.Sincos(angle)
	return turns*cos + along*sin
}

func (l Lean) parts(at Point) (turns, along float64) {
	n := math.Sqrt(1 + l.Side*l.Side + l.Out*l.Out)
	x, y, z := l.Side/n, 1/n, l.Out/n
	return x*at.Z - z*at.X, y * (x*at.X + z*at.Z)
}

// Gravity is the weight of a kilogram, N.
const Gravity = 9.81

// Turning is the closing moment about the pins of a slab of a mass in kg at an angle, in N·m; negative opens it. At is
// its centre of mass, closed.
func (l Lean) Turning(mass float64, at Point, angle float64) float64 {
	return mass * Gravity * l.Slope(at, angle) / 1000
}

// Rests is the angle between closed and open at which a slab left at an angle comes to rest, where the friction of its
// hinges, in N·m, balances its own moment or it can turn no further.
func (l Lean) Rests(mass float64, at Point, from, open, rubs float64) float64 {
	const steps = 360
	step := open / steps
	for range steps {
		m := l.Turning(mass, at, from)
		if math.Abs(m) <= rubs {
			return from
		}
		next := from - math.Copysign(step, m)
		if next <= 0 || next >= open {
			return min(max(next, 0), open)
		}
		if l.Turning(mass, at, next)*m < 0 { // the bottom of its fall lies between
			return (from + next) / 2
		}
		from = next
	}
	return from
}
