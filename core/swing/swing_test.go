package swing

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/peterstace/simplefeatures/geom"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/spatial/r3"

	"kindmargin/thorough"
)

const degree = math.Pi / 180

// shape is a polygon for simplefeatures, an independent geometry library.
func shape(t require.TestingT, corners []Point) geom.Geometry {
	var flat []float64
	for _, c := range append(corners[:len(corners):len(corners)], corners[0]) {
		flat = append(flat, c.X, c.Z)
	}
	p := geom.NewPolygon([]geom.LineString{geom.NewLineString(geom.NewSequence(flat, geom.DimXY))})
	require.NoError(t, p.Validate())
	return p.AsGeometry()
}

// byHand turns a slab in small steps against an obstacle, and finds how near it comes and
// where it first touches; touch is infinite where it does not.
func byHand(t require.TestingT, slab, obstacle []Point, to float64) (clear, touch float64) {
	clear, touch = math.Inf(1), math.Inf(1)
	still := shape(t, obstacle)
	away := func(angle float64) float64 {
		d, ok := geom.Distance(shape(t, turn(slab, angle)), still)
		require.True(t, ok)
		return d
	}
	const steps = 300
	step := to / steps
	var seen [steps + 1]float64
	for i := range seen {
		seen[i] = away(float64(i) * step)
		clear = min(clear, seen[i])
	}
	for i := range seen {
		lo, hi := max(float64(i-1), 0)*step, min(float64(i+1), steps)*step
		if i > 0 && seen[i-1] < seen[i] || i < steps && seen[i+1] < seen[i] {
			continue
		}
		at := float64(i) * step
		for range 40 { // the least between two steps lies in two of the three thirds
			third := (hi - lo) / 3
			a, b := away(lo+third), away(hi-third)
			if a < b {
				hi -= third
			} else {
				lo += third
			}
			if d := min(a, b); d < seen[i] {
				seen[i], at = d, lo+third
				if a < b {
					at = hi - third
				}
			}
			if a == 0 || b == 0 {
				break
			}
		}
		clear = min(clear, seen[i])
		if seen[i] > 0 {
			continue
		}
		for _, touching := range []float64{at, lo, hi, (lo + hi) / 2} {
			if away(touching) == 0 {
				at = touching
			}
		}
		lo = max(float64(i-1), 0) * step
		for range 40 {
			if mid := (lo + at) / 2; away(mid) == 0 {
				at = mid
			} else {
				lo = mid
			}
		}
		return 0, at
	}
	return clear, touch
}

// agrees holds Nearest to the brute force, and reports whether they touch.
func agrees(t *testing.T, slab, obstacle []Point, to float64) (touch bool) {
	wantClear, wantTouch := byHand(t, slab, obstacle, to)
	clear, at := Nearest(slab, obstacle, 0, to)
	assert.InDelta(t, wantClear, clear, 0.02, "%v %v", slab, obstacle)
	if math.IsInf(wantTouch, 1) {
		return false
	}
	return assert.InDelta(t, wantTouch, at, 1e-6)
}

// Against brute force by an independent library: how near, to 0.02 mm, and where it
// touches, over random slabs, jambs, casings and furniture.
func TestSwingAgainstBruteForce(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 1))
	between := func(lo, hi float64) float64 { return lo + (hi-lo)*rng.Float64() }
	passed, touched := 0, 0
	n := thorough.Count(300, 1500)
	for range n {
		p := Pin{between(1, 5), between(2, 14)}
		s := Slab{Width: between(500, 950), Thickness: between(30, 50), Bevel: between(0, 4), Relief: between(0, 2)}
		slab := s.Corners(p)
		var obstacle []Point
		to := between(60, 180) * degree
		if rng.IntN(2) == 0 {
			obstacle = Jamb{
				p.Margin + s.Width + between(0.2, 4), between(-0.05, 0.05), between(-3, 25), between(50, 150),
			}.Corners(p)
		} else { // a box about the room, or a casing beside the hinges
			x, z := between(-700, 900), between(-p.Out+1, 700)
			w, d, turned := between(5, 200), between(5, 80), between(0, 6)
			for _, c := range []Point{{0, 0}, {w, 0}, {w, d}, {0, d}} {
				c = c.turned(turned)
				obstacle = append(obstacle, Point{x + c.X, z + c.Z})
			}
		}
		if away, _ := geom.Distance(shape(t, slab), shape(t, obstacle)); away < 0.05 {
			continue
		}
		if agrees(t, slab, obstacle, to) {
			touched++
		} else {
			passed++
		}
	}
	t.Log(passed, touched)
	assert.Greater(t, passed, n*4/15)
	assert.Greater(t, touched, n*4/15)
}

// fixed is a jamb that no bevel changes.
func fixed(j Jamb, p Pin) func(float64) [][]Point {
	corners := [][]Point{j.Corners(p)}
	return func(float64) [][]Point { return corners }
}

// The closed formula for a square jamb that reaches far in front, where the corner passes
// at its full reach.
func TestLeastBevelOfASquareJamb(t *testing.T) {
	for _, c := range []struct{ width, thick, out, margin, lock, clear float64 }{
		{762, 35, 7.5, 3, 3, 2}, {838, 44, 6, 3, 2.5, 1.5}, {610, 40, 5, 2, 3, 2.5},
	} {
		p, s := Pin{c.margin, c.out}, Slab{Width: c.width, Thickness: c.thick}
		w := c.margin + c.width + c.lock
		got, ok := LeastBevel(s, p, fixed(Jamb{Width: w, Forward: 60, Deep: 100}, p), c.clear, 20)
		require.True(t, ok)
		a, px := c.margin/2+c.width, c.margin/2
		back := c.thick + c.out
		want := a - math.Sqrt((w-px-c.clear)*(w-px-c.clear)-back*back)
		assert.InDelta(t, max(want, 0), got, 1e-3)
	}
}

// A jamb face out of square to the wall: 762 × 35, 2 clear. Worked by hand: the corner
// passes at the foot of the perpendicular from the pin to the jamb's face.
func TestATwistedJambAsksForMoreBevel(t *testing.T) {
	p, s := Pin{3, 7.5}, Slab{Width: 762, Thickness: 35}
	for twist, want := range map[float64]float64{0: 0.30, 2: 0.63, 3: 1.37} {
		got, ok := LeastBevel(s, p, fixed(Jamb{768, math.Tan(twist * degree), 60, 100}, p), 2, 20)
		require.True(t, ok)
		face := (768-1.5)*math.Cos(twist*degree) + 7.5*math.Sin(twist*degree) - 2
		byHand := 1.5 + 762 - math.Sqrt(face*face-42.5*42.5)
		assert.InDelta(t, byHand, got, 1e-3)
		assert.InDelta(t, want, math.Atan(got/35)/degree, 0.01)
	}
	assert.InDelta(
		t, 766.5-math.Hypot(763.5, 7.5), Passing(s.Corners(p)[LockPull], Jamb{768, 0, 60, 100}.Corners(p), 0, 2), 1e-9,
	)
}

// The published bevel, 1/8 in in 2 in (from memory): it clears an ordinary slab well.
func TestTheUsualBevelIsEnough(t *testing.T) {
	const inch = 25.4
	s := Slab{Width: 36 * inch, Thickness: 1.75 * inch}
	p := Pin{inch / 8, 0.3 * inch}
	least, ok := LeastBevel(
		s, p, fixed(Jamb{Width: 36.25 * inch, Forward: 0.75 * inch, Deep: 4 * inch}, p), inch/16, 20,
	)
	require.True(t, ok)
	assert.Less(t, least, s.Thickness/16)
}

// The pull face meets a casing's corner q where −q_x sin φ + q_z cos φ = −k.
func TestWhereTheSlabMeetsTheCasing(t *testing.T) {
	p, s := Pin{3, 6}, Slab{Width: 762, Thickness: 35}
	q := Point{-1.5 - 8, 20 - p.Out} // a casing 20 thick, 8 back from the jamb's edge
	casing := []Point{q, {q.X - 60, q.Z}, {q.X - 60, -p.Out}, {q.X, -p.Out}}
	at, ok := Touches(s.Corners(p), casing, 0, math.Pi)
	require.True(t, ok)
	assert.Greater(t, at, math.Pi/2)
	assert.InDelta(t, -p.Out, -q.X*math.Sin(at)+q.Z*math.Cos(at), 1e-9)
	flush := []Point{{q.X, -p.Out}, {q.X - 60, -p.Out}, {q.X - 60, -p.Out - 30}, {q.X, -p.Out - 30}}
	_, ok = Touches(s.Corners(p), flush, 0, 179*degree)
	assert.False(t, ok, "a flush casing is no obstacle")
}

// Against a rotation in space by gonum's quaternions, and the first-order formula.
func TestRiseAgainstARotationInSpace(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 3))
	for range 3000 {
		l := Lean{rng.NormFloat64() * 0.006, rng.NormFloat64() * 0.006}
		at := Point{rng.Float64() * 900, -rng.Float64() * 60}
		angle := rng.Float64() * math.Pi
		axis := r3.Vec{X: l.Side, Y: 1, Z: l.Out}
		// r3 turns from z toward x about y: the other way.
		rotated := r3.NewRotation(-angle, axis).Rotate(r3.Vec{X: at.X, Z: at.Z})
		assert.InDelta(t, rotated.Y, l.Rise(at, angle), 1e-6)
		to := at.turned(angle)
		assert.InDelta(t, l.Side*(at.X-to.X)+l.Out*(at.Z-to.Z), l.Rise(at, angle), 0.05)
		h := 1e-5
		assert.InDelta(t, (l.Rise(at, angle+h)-l.Rise(at, angle-h))/(2*h), l.Slope(at, angle), 1e-5)
	}
}

// An axis that leans 4 mm a metre toward the lock jamb opens a closed door of 25 kg a
// little and shuts it firmly from 45°.
func TestDriftOfALeaningDoor(t *testing.T) {
	l, at := Lean{Side: 0.004}, Point{1.5 + 381, -6 - 17.5}
	assert.Less(t, l.Turning(25, at, 0), 0.0)
	assert.Greater(t, l.Turning(25, at, 0), -0.05)
	// m·g·e·x·sin 45°, by hand.
	assert.InDelta(t, 25*9.81*0.004*0.3825*math.Sin(math.Pi/4), l.Turning(25, at, math.Pi/4), 0.02)
	rest := l.Rests(25, at, math.Pi/2, math.Pi, 0)
	assert.InDelta(t, math.Atan(23.5/382.5), rest, 0.01, "where its weight is lowest, a hand from shut")
	assert.Equal(t, math.Pi/2, l.Rests(25, at, math.Pi/2, math.Pi, 0.5), "stiff hinges hold it")
	assert.Equal(t, math.Pi, Lean{Side: -0.004}.Rests(25, at, math.Pi/2, math.Pi, 0))
	assert.Zero(t, Lean{Out: -0.004}.Rests(25, at, math.Pi/3, math.Pi, 0), "leaning back, it shuts")
}

// Two square leaves 44 thick do not pass one another with 2 between them: the corner's
// reach, √(601.5² + 50²), is 603.6, and the other stands at 603.5. Bevelled they do.
func TestAPairPasses(t *testing.T) {
	p := Pin{3, 6}
	s := Slab{Width: 600, Thickness: 44}
	other := func(bevel float64) []Point { // closed, seen from the first leaf's pin
		mirrored := Slab{Width: 600, Thickness: 44, Bevel: bevel}.Corners(p)
		for i := range mirrored {
			mirrored[i].X = 3 + 600 + 2 + 600 + 3 - p.Margin - mirrored[i].X
		}
		return mirrored
	}
	_, touches := Touches(s.Corners(p), other(0), 0, math.Pi/2)
	assert.True(t, touches)
	s.Bevel = 4
	_, touches = Touches(s.Corners(p), other(4), 0, math.Pi/2)
	assert.False(t, touches)
}

// The leaves of a pair against the same brute force: each past the other, which stands shut
// or open at an angle of its own.
func TestPairsAgainstBruteForce(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 2))
	between := func(lo, hi float64) float64 { return lo + (hi-lo)*rng.Float64() }
	passed, touched := 0, 0
	n := thorough.Count(100, 500)
	for range n {
		p, q := Pin{between(2, 4), between(4, 9)}, Pin{between(2, 4), between(4, 9)}
		leaf := func() Slab {
			return Slab{Width: between(350, 650), Thickness: between(30, 48), Bevel: between(0, 4)}
		}
		s, r := leaf(), leaf()
		across := p.Margin/2 + s.Width + between(0.1, 4) + r.Width + q.Margin/2
		stands := 0.0
		if rng.IntN(3) == 0 {
			stands = between(0, 100) * degree
		}
		other := turn(r.Corners(q), stands)
		for i := range other {
			other[i].X = across - other[i].X
			other[i].Z += q.Out - p.Out // the faces stand flush, whatever the pins
		}
		slab := s.Corners(p)
		if away, _ := geom.Distance(shape(t, slab), shape(t, other)); away < 0.05 {
			continue
		}
		if agrees(t, slab, other, math.Pi/2) {
			touched++
		} else {
			passed++
		}
	}
	t.Log(passed, touched)
	assert.Greater(t, passed, n/5)
	assert.Greater(t, touched, n*2/25)
}

func BenchmarkNearest(b *testing.B) {
	p := Pin{3, 6}
	slab, jamb := Slab{Width: 762, Thickness: 35, Bevel: 1}.Corners(p), Jamb{768, 0, 0, 100}.Corners(p)
	for b.Loop() {
		Nearest(slab, jamb, 0, math.Pi/2)
	}
}

func BenchmarkLeastBevel(b *testing.B) {
	for b.Loop() {
		LeastBevel(Slab{Width: 762, Thickness: 44}, Pin{3, 7}, fixed(Jamb{768, 0.02, 0, 100}, Pin{3, 7}), 2, 10)
	}
}
