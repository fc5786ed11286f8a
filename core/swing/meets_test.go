package swing

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/peterstace/simplefeatures/geom"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/thorough"
)

// across mirrors another leaf's parts to where they stand, its pin so far from this one's.
func across(parts [][]Point, pins float64) [][]Point {
	for _, part := range parts {
		for i := range part {
			part[i].X = pins - part[i].X
		}
	}
	return parts
}

// Rebated and rounded leaves against the same brute force as any other, half by half; and
// of rebated ones, that what laps parts at once.
func TestWorkedEdgesAgainstBruteForce(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 3))
	between := func(lo, hi float64) float64 { return lo + (hi-lo)*rng.Float64() }
	passed, touched := 0, 0
	n := thorough.Count(32, 160)
	for range n {
		p := Pin{between(2, 4), between(4, 9)}
		s := Slab{
			Width: between(350, 650), Thickness: between(34, 48), Bevel: between(0, 2), Meets: AllMeets[1+rng.IntN(2)],
			Lip: between(8, 16),
		}
		r := Slab{
			Width: between(350, 650), Thickness: s.Thickness, Bevel: s.Bevel, Meets: s.Meets, Lip: s.Lip, Behind: true,
		}
		parts := s.Outlines(p)
		other := across(r.Outlines(p), p.Margin+s.Width+between(0.1, 2)+r.Width)
		for i := range parts {
			if agrees(t, parts[i], other[i], math.Pi/2) {
				touched++
			} else {
				passed++
			}
		}
		if s.Meets == Rebated {
			for _, angle := range []float64{0.5, 5, 45} {
				d, ok := geom.Distance(shape(t, turn(parts[0], angle*degree)), shape(t, other[1]))
				require.True(t, ok)
				assert.Positive(t, d, "the lip stands off at %g°", angle)
			}
		}
	}
	t.Log(passed, touched)
	assert.Greater(t, passed, n*5/8)
	assert.Greater(t, touched, n/20)
}

// An edge rounded to an arc about the pin passes a square jamb by what it has closed:
// √(451.5² + 6²) is the arc, and its pieces lie outside it by less than 0.01.
func TestARoundedEdgePassesByWhatItHas(t *testing.T) {
	p, s := Pin{3, 6}, Slab{Width: 450, Thickness: 44, Meets: Rounded}
	assert.InDelta(t, 451.5-math.Sqrt(451.5*451.5+6*6-50*50), s.Narrower(p), 1e-9)
	jamb := Jamb{Width: 456, Forward: 40, Deep: 60}.Corners(p)
	clear, _ := NearestOf(s.Outlines(p), [][]Point{jamb}, 0, math.Pi/2)
	assert.InDelta(t, 454.5-math.Hypot(451.5, 6), clear, 0.01)
	s.Meets = Plain
	square, _ := NearestOf(s.Outlines(p), [][]Point{jamb}, 0, math.Pi/2)
	assert.Less(t, square, clear-2, "which square it does not")
}

// The two halves of a rebated leaf make the slab, but for what its lip is longer in front
// than it is shorter behind.
func TestHalvesOfARebate(t *testing.T) {
	p, s := Pin{3, 6}, Slab{Width: 450, Thickness: 40, Meets: Rebated, Lip: 12}
	parts := s.Outlines(p)
	require.Len(t, parts, 2)
	assert.Equal(t, Point{1.5 + 456, -6}, parts[0][LockPull])
	assert.Equal(t, Point{1.5 + 456, -26}, parts[0][LockPush])
	assert.Equal(t, Point{1.5 + 444, -26}, parts[1][LockPull])
	assert.Equal(t, Point{1.5 + 444, -46}, parts[1][LockPush])
	s.Behind = true
	assert.Equal(t, 1.5+444, s.Outlines(p)[0][LockPull].X)
}

// A stop behind the slab, with any play, is never nearer than it is closed: the hinge edge's
// push-face corner leaves it at once.
func TestAStopIsNeverInTheWay(t *testing.T) {
	rng := rand.New(rand.NewPCG(8, 4))
	for range 200 {
		p := Pin{1 + 3*rng.Float64(), 4 + 8*rng.Float64()}
		s := Slab{Width: 700, Thickness: 30 + 18*rng.Float64()}
		play := 0.2 + 2*rng.Float64()
		stop := Stop(p, s.Thickness, 8+12*rng.Float64(), play)
		clear, at := Nearest(s.Corners(p), stop, 0, math.Pi)
		assert.InDelta(t, play, clear, 1e-9)
		assert.Zero(t, at)
		byHandClear, _ := byHand(t, s.Corners(p), stop, math.Pi)
		assert.InDelta(t, byHandClear, clear, 0.02)
	}
}
