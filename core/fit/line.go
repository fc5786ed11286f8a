package fit

import (
	"math"
	"slices"
)

// Point is a place on a side: S along it, Off square to it, in mm.
type Point struct{ S, Off float64 }

// Line is the straight line off = A + B·s, in mm.
type Line struct{ A, B float64 }

// At is the line's offset at s.
func (l Line) At(s float64) float64 { return l.A + l.B*s }

// Minimax returns the straight line with the smallest greatest distance |off − line(s)| to the points, that distance,
// and the three points that attain it: two on one side of the line and the one between them on the other (three times
// the same index for a single point). It panics without points.
//
// The vertical width of a set of points, as a function of the slope, is convex and piecewise linear, with breaks only
// at the slopes of the edges of the convex hull, so the best line is parallel to one of them. Time O(n·h), n points, h
// on the hull.
func Minimax(points []Point) (line Line, worst float64, touch [3]int) {
	order := make([]int, len(points))
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(i, j int) int {
		switch {
		case points[i].S < points[j].S:
			return -1
		case points[i].S > points[j].S:
			return 1
		}
		return 0
	})
	// At one slope: the line midway between the highest and the lowest parallel.
	at := func(slope float64) (Line, float64, int, int) {
		lo, hi := 0, 0
		for i, p := range points {
			r := p.Off - slope*p.S
			if r < points[lo].Off-slope*points[lo].S {
				lo = i
			}
			if r > points[hi].Off-slope*points[hi].S {
				hi = i
			}
		}
		bottom := points[lo].Off - slope*points[lo].S
		top := points[hi].Off - slope*points[hi].S
		return Line{(bottom + top) / 2, slope}, (top - bottom) / 2, lo, hi
	}
	line, worst, lo, hi := at(0)
	touch = [3]int{lo, hi, lo}
	if points[order[0]].S == points[order[len(order)-1]].S {
		return line, worst, touch // all at one place: any slope does, so none
	}
	worst = math.Inf(1)
	for _, sign := range []float64{1, -1} { // upper hull, then lower
		hull := hullOf(points, order, sign)
		for i := range len(hull) - 1 {
			a, b := hull[i], hull[i+1]
			l, w, lo, hi := at((points[b].Off - points[a].Off) / (points[b].S - points[a].S))
			if w < worst {
				far := lo
				if sign < 0 {
					far = hi
				}
				line, worst, touch = l, w, [3]int{a, b, far}
			}
		}
	}
	return line, worst, touch
}

// hullOf returns the upper (sign 1) or lower (sign −1) chain of the convex
// hull, left to right, by Andrew's monotone chain.
func hullOf(points []Point, order []int, sign float64) []int {
	var hull []int
	for _, i := range order {
		p := points[i]
		if n := len(hull); n > 0 && points[hull[n-1]].S == p.S {
			if sign*points[hull[n-1]].Off >= sign*p.Off {
				continue
			}
			hull = hull[:n-1]
		}
		for len(hull) >= 2 {
			a, b := points[hull[len(hull)-2]], points[hull[len(hull)-1]]
			if sign*((b.S-a.S)*(p.Off-a.Off)-(b.Off-a.Off)*(p.S-a.S)) < 0 {
				break
			}
			hull = hull[:len(hull)-1]
		}
		hull = append(hull, i)
	}
	return hull
}
