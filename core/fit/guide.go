package fit

import "math"

// Guided is a straight saw cut along one edge of a slab, in the slab's frame: x from its hinge edge, y down from its
// top, in mm.
type Guided struct {
	Edge   [2]Corner    // the edge as it is, from its first end to its last
	Beside [2][2]Corner // the edges beside it as they are by then, at its first and at its last end
	Cut    [2]Corner    // two points of the cut, on the side of the wood that stays
	In     float64      // how far the guide's edge lies from the cut, into the slab; below nought outside it
}

// Clamps are where the guide's edge crosses the two edges beside the cut: how far along each from the corner where it
// meets the sawn edge, in mm.
func (g Guided) Clamps() (along [2]float64) {
	ux, uy := g.Cut[1].X-g.Cut[0].X, g.Cut[1].Y-g.Cut[0].Y
	long := math.Hypot(ux, uy)
	nx, ny := -uy/long, ux/long
	// Into the slab is where the edges beside go on from the sawn one.
	far := farther(g.Beside[0], g.Cut[0])
	if nx*(far.X-g.Cut[0].X)+ny*(far.Y-g.Cut[0].Y) < 0 {
		nx, ny = -nx, -ny
	}
	guide := g.Cut
	for i := range guide {
		guide[i].X += nx * g.In
		guide[i].Y += ny * g.In
	}
	for i, beside := range g.Beside {
		corner, mark := crossing(g.Edge, beside), crossing(guide, beside)
		along[i] = math.Hypot(mark.X-corner.X, mark.Y-corner.Y)
	}
	return along
}

// farther is the end of a line that is farther from a point.
func farther(line [2]Corner, from Corner) Corner {
	if math.Hypot(line[0].X-from.X, line[0].Y-from.Y) > math.Hypot(line[1].X-from.X, line[1].Y-from.Y) {
		return line[0]
	}
	return line[1]
}

// crossing is where two lines cross, which are not parallel.
func crossing(a, b [2]Corner) Corner {
	ax, ay, bx, by := a[1].X-a[0].X, a[1].Y-a[0].Y, b[1].X-b[0].X, b[1].Y-b[0].Y
	t := ((b[0].X-a[0].X)*by - (b[0].Y-a[0].Y)*bx) / (ax*by - ay*bx)
	return Corner{a[0].X + t*ax, a[0].Y + t*ay}
}
