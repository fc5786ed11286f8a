// Package swing rotates the slab about its pins: its clearances, how far it opens, how its free corner rises or sinks,
// and where it comes to rest.
//
// Beside the elevation frame of package frame it uses the plan, looking down: x from the pin toward the lock jamb, z
// from the pin toward the viewer on the pull side, in mm. The slab opens by turning from x toward z; angles are in
// radians from closed.
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

// Pin is the place of the hinges' pins.
type Pin struct {
	Margin float64 // the hinge margin, mm; a pin stands in the middle of it
	Out    float64 // in front of the pull face, mm
}

// Slab is a closed slab in plan. A bevelled edge has the narrower push face.
type Slab struct {
	Width     float64 // of the pull face, hinge edge to lock edge, mm
	Thickness float64 // mm
	Bevel     float64 // how much narrower the push face is at the lock edge, mm; of a rebated edge, each half
	Relief    float64 // and at the hinge edge, mm
	Meets     Meets   // how its lock edge is worked where it meets another leaf
	Lip       float64 // of a rebated edge: how far the two leaves lap, mm
	Behind    bool    // of a rebated edge: its lip is on the push side, behind the other leaf's
}

// Meets is the shape of two leaves' lock edges where they meet.
type Meets string

// The shapes of meeting edges.
const (
	Plain   Meets = ""        // square, or bevelled so far as they need it
	Rebated Meets = "rebated" // one laps the other by half the thickness
	Rounded Meets = "rounded" // to an arc about the pins
)

// AllMeets lists the shapes.
var AllMeets = []Meets{Plain, Rebated, Rounded}

// Halves are a rebated slab's two halves, the pull side's first, each with its own pin; of any other slab there is one,
// the whole.
func (s Slab) Halves(p Pin) ([]Slab, []Pin) {
	if s.Meets != Rebated {
		return []Slab{s}, []Pin{p}
	}
	front := Slab{Width: s.Width + s.Lip/2, Thickness: s.Thickness / 2, Bevel: s.Bevel}
	back := Slab{Width: s.Width - s.Lip/2, Thickness: s.Thickness / 2, Bevel: s.Bevel, Relief: s.Relief}
	if s.Behind {
		front.Width, back.Width = back.Width, front.Width
	}
	return []Slab{front, back}, []Pin{p, {p.Margin, p.Out + s.Thickness/2}}
}

// arcSteps is the number of straight pieces of a rounded edge: they are tangents of its arc, off it by under 0.01 mm.
const arcSteps = 6

// Outlines are the closed slab in plan as convex outlines: one, or a rebated slab's two halves.
func (s Slab) Outlines(p Pin) (list [][]Point) {
	if s.Meets == Rounded {
		c := s.Corners(p)
		out := []Point{c[HingePull]}
		reach := c[LockPull].reach()
		for i := range arcSteps + 1 {
			z := -p.Out - s.Thickness*float64(i)/arcSteps
			out = append(out, Point{math.Sqrt(reach*reach - z*z), z})
		}
		return [][]Point{append(out, c[HingePush])}
	}
	halves, pins := s.Halves(p)
	for i, h := range halves {
		list = append(list, h.Corners(pins[i]))
	}
	return list
}

// Narrower is how much narrower the push face is of a slab that is rounded to an arc about its pin.
func (s Slab) Narrower(p Pin) float64 {
	far, back := p.Margin/2+s.Width, p.Out+s.Thickness
	return far - math.Sqrt(far*far+p.Out*p.Out-back*back)
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

// Jamb is the lock jamb, or another slab's edge in its place, in plan.
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

// HingeJamb is the hinge jamb as a convex obstacle: its face closes in by closing for each mm toward the push face,
// from the pull face to a depth.
func HingeJamb(p Pin, closing, deep float64) []Point {
	face := -p.Margin / 2
	far := face - 50
	back := face + closing*deep
	return []Point{{face, -p.Out}, {back, -p.Out - deep}, {min(far, back-50), -p.Out - deep}, {far, -p.Out}}
}

// Stop is a stop, or the back of a rebate, on the hinge jamb behind the slab as a convex obstacle: its distance off the
// jamb's face, and of its face behind the push face.
func Stop(p Pin, thickness, off, play float64) []Point {
	face, front := -p.Margin/2, -p.Out-thickness-play
	return []Point{{face, front}, {face, front - 12}, {face + off, front - 12}, {face + off, front}}
}

// LeastBevel is the least bevel, as how much narrower the push face is, from 0 to most, that leaves the lock edge the
// required clearance, in mm, from closed to a right angle; ok is false where none does. The obstacle may be a leaf with
// the same bevel; one with a rebated edge is two halves.
//
// For a square jamb that ends far in front it is a − √((w − pₓ − c)² − (t + k)²), with a from the pin to the lock edge
// and t + k to the push face behind it.
func LeastBevel(s Slab, p Pin, beside func(bevel float64) [][]Point, clear, most float64) (narrower float64, ok bool) {
	passes := func(narrower float64) bool {
		s.Bevel = narrower
		halves, pins := s.Halves(p)
		for i, o := range beside(narrower) {
			h := min(i, len(halves)-1)
			if Passing(halves[h].Corners(pins[h])[LockPush], o, 0, math.Pi/2) < clear {
				return false
			}
		}
		return true
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
