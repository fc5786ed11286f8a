package swing

import "math"

// Two convex polygons, one of which rotates about the pin, are nearest where a corner of one passes a corner of the
// other or the foot of a perpendicular, in line with the pin, or at the ends of the rotation; they first touch where a
// corner of one crosses an edge of the other. All of these angles have a closed form.

// Nearest is the least distance of a slab's corners from a convex obstacle while it rotates from one angle to another,
// in mm, and its angle; 0 where they touch.
func Nearest(slab, obstacle []Point, from, to float64) (clear, at float64) {
	if touch, ok := Touches(slab, obstacle, from, to); ok {
		return 0, touch
	}
	clear, at = apart(turn(slab, from), obstacle), from
	look := func(d, angle float64) {
		if angle = into(angle, from, to); angle <= to && d < clear {
			clear, at = d, angle
		}
	}
	if d := apart(turn(slab, to), obstacle); d < clear {
		clear, at = d, to
	}
	for _, v := range slab {
		for i, q := range obstacle {
			look(math.Abs(q.reach()-v.reach()), q.angle()-v.angle())
			if foot, ok := footOf(q, obstacle[(i+1)%len(obstacle)]); ok {
				look(math.Abs(foot.reach()-v.reach()), foot.angle()-v.angle())
			}
		}
	}
	for i, v := range slab {
		foot, ok := footOf(v, slab[(i+1)%len(slab)])
		if !ok {
			continue
		}
		for _, q := range obstacle {
			look(math.Abs(q.reach()-foot.reach()), q.angle()-foot.angle())
		}
	}
	return clear, at
}

// NearestOf is Nearest for a slab and an obstacle in convex parts. The halves of two rebated edges pass front by front
// and back by back: where one laps the other they part at once.
func NearestOf(slab, beside [][]Point, from, to float64) (clear, at float64) {
	clear = math.Inf(1)
	for i, s := range slab {
		for j, o := range beside {
			if len(slab) == len(beside) && i != j {
				continue
			}
			if d, angle := Nearest(s, o, from, to); d < clear {
				clear, at = d, angle
			}
		}
	}
	return clear, at
}

// Passing is the least clearance of one corner from an obstacle from one angle to another; negative is by how much it
// is too far from the pin to pass.
func Passing(v Point, obstacle []Point, from, to float64) float64 {
	start := v.turned(from)
	clear := math.Inf(1)
	for i, q := range obstacle {
		next := obstacle[(i+1)%len(obstacle)]
		if d := segment(start, q, next); d < clear {
			clear = d
		}
		for _, n := range []Point{q, nearestOf(q, next)} {
			if angle := into(n.angle()-v.angle(), from, to); angle <= to {
				clear = min(clear, n.reach()-v.reach())
			}
		}
	}
	if inside(start, obstacle) {
		return -clear
	}
	return clear
}

// Touches is the first angle after from at which a slab touches a convex obstacle; ok is false where it does not up to
// to. Touching at from does not count unless they overlap.
func Touches(slab, obstacle []Point, from, to float64) (angle float64, ok bool) {
	const hardly = 1e-9
	if overlap(turn(slab, from), obstacle) {
		return from, true
	}
	first := math.Inf(1)
	look := func(a float64) {
		if a = into(a, from, to); a > from+hardly && a < first {
			first = a
		}
	}
	for _, v := range slab {
		for i, q := range obstacle {
			crossings(v.reach(), q, obstacle[(i+1)%len(obstacle)], func(c Point) { look(c.angle() - v.angle()) })
		}
	}
	for _, q := range obstacle {
		for i, v := range slab {
			crossings(q.reach(), v, slab[(i+1)%len(slab)], func(c Point) { look(q.angle() - c.angle()) })
		}
	}
	return first, first <= to
}

// into normalises an angle to from … from + 2π.
func into(angle, from, to float64) float64 {
	for angle < from {
		angle += 2 * math.Pi
	}
	for angle > to && angle-2*math.Pi >= from {
		angle -= 2 * math.Pi
	}
	return angle
}

func turn(list []Point, angle float64) []Point {
	out := make([]Point, len(list))
	for i, p := range list {
		out[i] = p.turned(angle)
	}
	return out
}

// nearestOf is the point of a segment nearest to the pin.
func nearestOf(a, b Point) Point {
	dx, dz := b.X-a.X, b.Z-a.Z
	f := -(a.X*dx + a.Z*dz) / (dx*dx + dz*dz)
	f = min(max(f, 0), 1)
	return Point{a.X + f*dx, a.Z + f*dz}
}

// footOf is the foot of the perpendicular from the pin; ok is false where it is outside the segment.
func footOf(a, b Point) (foot Point, ok bool) {
	n := nearestOf(a, b)
	return n, n != a && n != b
}

// crossings are the intersections of a circle about the pin with a segment.
func crossings(r float64, a, b Point, f func(Point)) {
	dx, dz := b.X-a.X, b.Z-a.Z
	l := dx*dx + dz*dz
	h := (a.X*dx + a.Z*dz) / l
	d := h*h - (a.X*a.X+a.Z*a.Z-r*r)/l
	if d < 0 {
		return
	}
	d = math.Sqrt(d)
	for _, t := range [2]float64{-h - d, -h + d} {
		if t >= 0 && t <= 1 {
			f(Point{a.X + t*dx, a.Z + t*dz})
		}
	}
}

// segment is the distance of a point from a segment.
func segment(p, a, b Point) float64 {
	n := nearestOf(Point{a.X - p.X, a.Z - p.Z}, Point{b.X - p.X, b.Z - p.Z})
	return n.reach()
}

// apart is the distance of two polygons that do not overlap.
func apart(a, b []Point) float64 {
	d := math.Inf(1)
	for i, p := range a {
		for j, q := range b {
			d = min(d, segment(p, q, b[(j+1)%len(b)]), segment(q, p, a[(i+1)%len(a)]))
		}
	}
	return d
}

// inside reports whether a point is in a convex polygon.
func inside(p Point, polygon []Point) bool {
	var sign float64
	for i, a := range polygon {
		b := polygon[(i+1)%len(polygon)]
		c := (b.X-a.X)*(p.Z-a.Z) - (b.Z-a.Z)*(p.X-a.X)
		if c*sign < 0 {
			return false
		}
		if c != 0 {
			sign = c
		}
	}
	return true
}

// overlap reports whether the interiors of two convex polygons meet (separating axes).
func overlap(a, b []Point) bool {
	return !parted(a, b) && !parted(b, a)
}

func parted(a, b []Point) bool {
	var area float64
	for i, p := range a {
		q := a[(i+1)%len(a)]
		area += p.X*q.Z - p.Z*q.X
	}
	for i, p := range a {
		q := a[(i+1)%len(a)]
		out := true
		for _, v := range b {
			c := (q.X-p.X)*(v.Z-p.Z) - (q.Z-p.Z)*(v.X-p.X)
			if area < 0 {
				c = -c
			}
			if c > 1e-9 {
				out = false
				break
			}
		}
		if out {
			return true
		}
	}
	return false
}
