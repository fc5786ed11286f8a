// Package swing turns the slab about its pins: what it passes and by how much, how far
// it opens, how its free corner rises or sinks, and where it comes to rest.
//
// Beside the elevation frame of package frame it uses the plan, looking down: x from the
// pin toward the lock jamb, z from the pin toward the viewer on the pull side, in mm. The
// door opens by turning from x toward z; angles are in radians from closed.
package swing

import "math"

// Point is a place in the plan, from the pin.
type Point struct{ X, Z float64 }

func (p Point) turned(angle float64) Point {
	sin, cos := math.Sincos(angle)
	return Point{p.X*cos - p.Z*sin, p.X*sin + p.Z*cos}
}

func (p Point) reach() float64 { return math.Hypot(p.X, p.Z) }
func (p Point) angle() float64 { return math.Atan2(p.Z, p.X) }

// Pin is where the hinges' pins stand.
type Pin struct {
	Margin float64 // the hinge margin, mm; a pin stands in the middle of it
	Out    float64 // in front of the pull face, mm
}

// Slab is a closed slab in plan. Edges that are bevelled have their push face the
// narrower one.
type Slab struct {
	Width     float64 // of the pull face, hinge edge to lock edge, mm
	Thickness float64 // mm
	Bevel     float64 // how much narrower the push face is at the lock edge, mm
	Relief    float64 // and at the hinge edge, mm
}

// The corners of a slab in the order of Corners.
const (
	HingePull = iota
	LockPull
	LockPush
	HingePush
)

// Corners are the slab's four corners in plan, closed.
func (s Slab) Corners(p Pin) []Point {
	near, far, front, back := p.Margin/2, p.Margin/2+s.Width, -p.Out, -p.Out-s.Thickness
	return []Point{
		HingePull: {near, front}, LockPull: {far, front},
		LockPush: {far - s.Bevel, back}, HingePush: {near + s.Relief, back},
	}
}

// Jamb is the lock jamb, or another slab's edge that stands in its place, in plan.
type Jamb struct {
	Width   float64 // from the hinge jamb, at the pull face, mm
	Closing float64 // how far its face closes in, mm for each mm toward the push face
	Forward float64 // how far it reaches in front of the pull face, mm
	Deep    float64 // and behind it
}

// Corners are the jamb as a convex obstacle.
func (j Jamb) Corners(p Pin) []Point {
	at := func(z float64) Point { return Point{j.Width - p.Margin/2 + z*j.Closing, z - p.Out} }
	front, back := at(j.Forward), at(-j.Deep)
	far := max(front.X, back.X) + 50
	return []Point{front, back, {far, back.Z}, {far, front.Z}}
}

// HingeJamb is the jamb that a door hangs on, as a convex obstacle: its face closes in by so
// much for each mm toward the push face, from the pull face to so deep.
func HingeJamb(p Pin, closing, deep float64) []Point {
	face := -p.Margin / 2
	far := face - 50
	back := face + closing*deep
	return []Point{{face, -p.Out}, {back, -p.Out - deep}, {min(far, back-50), -p.Out - deep}, {far, -p.Out}}
}

// LeastBevel is how much narrower than the pull face, from nought to most, the push face
// must be for the lock edge to pass what stands beside it by clear, in mm, from closed to
// a right angle; ok is false where no such bevel does. What stands there may be a leaf
// with the same bevel.
//
// For a square jamb that ends far in front it is a − √((w − pₓ − c)² − (t + k)²), with a
// from the pin to the lock edge and t + k to the push face behind it.
func LeastBevel(s Slab, p Pin, beside func(bevel float64) []Point, clear, most float64) (narrower float64, ok bool) {
	passes := func(narrower float64) bool {
		s.Bevel = narrower
		return Passing(s.Corners(p)[LockPush], beside(narrower), 0, math.Pi/2) >= clear
	}
	if passes(0) {
		return 0, true
	}
	lo, hi := 0.0, most
	if !passes(hi) {
		return 0, false
	}
	for range 16 {
		if mid := (lo + hi) / 2; passes(mid) {
			hi = mid
		} else {
			lo = mid
		}
	}
	return hi, true
}
