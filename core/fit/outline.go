// Package fit computes the slab's outline from the opening's shape, lays the outline on the slab, and gives the depth
// to cut off each edge.
//
// Beside the elevation frame it uses the hung frame: y runs up the line of the pins along the hinge jamb, x square to
// it toward the lock jamb, both in mm, so that the lean of the whole opening, which no margin shows, cancels.
package fit

import (
	"fmt"
	"math"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/survey"
)

// Targets are the margins wanted, in mm.
type Targets struct {
	Margin frame.Each[float64] // wanted on each side
	Least  float64             // nowhere less than this
	Uneven float64             // how far from wanted an eye accepts
	// Pins are the heights of the top and the bottom hinge, where the recesses hold the slab to the true jamb.
	Pins [2]float64
	// Sure is how sure the head margin at the hinge corner must be not to be too wide, since nothing can be left on
	// there: the slab hangs by it. The zero value asks for nothing.
	Sure Sureness
}

// Gap is one planned margin between a straight edge and the side, square to the edge.
type Gap struct {
	At    float64 // place on the side: v on a jamb, u on head and floor
	Along float64 // the same place in the hung frame: y or x
	Mean  float64
	Sigma float64 // of the margin once the slab is hung to its marks
}

// Edge is one straight edge of the outline.
type Edge struct {
	Line     Line    // in the hung frame: x over y for a jamb, y over x else
	Gaps     []Gap   // from the foot up, or from the hinge jamb across
	Residual float64 // the worst distance of a gap from wanted that straightness costs
	Moved    float64 // how far the edge gave way so that no gap is under the least
	Scribed  bool    // follows its side: the gaps are the wanted margin everywhere
	straight []Gap   // of a scribed edge: the gaps beside its straight line
	excess   []excess
}

// GapAt is the planned margin at a place along the edge in the hung frame, linear between stations.
func (e Edge) GapAt(along float64) float64 { return gapAt(e.Gaps, along) }

// scribe is how much deeper than its straight line a scribed edge is cut at a place, in mm; negative is less deep.
func (e Edge) scribe(along float64) float64 {
	if !e.Scribed {
		return 0
	}
	return gapAt(e.Gaps, along) - gapAt(e.straight, along)
}

func gapAt(g []Gap, along float64) float64 {
	along = min(max(along, g[0].Along), g[len(g)-1].Along)
	return frame.Between(g, func(g Gap) frame.Along { return frame.Along{At: g.Along, Off: g.Mean} }, along)
}

// Outline is the finished slab: four straight edges in the hung frame.
type Outline struct {
	Edges frame.Each[Edge]
	Lean  float64 // of the line of the pins, mm per mm, into the opening
	// Wanted are the margins that decide the outline, as figures of the opening: at both ends and the middle of each
	// side.
	Wanted []WantedMargin

	pins    Line    // of the jamb, u over v
	offered *placed // where the slab stood when it was offered up
	ends    [3]edgeEnds
	// Held is how much tighter the head hangs than a straight edge would need, because it may be less bowed than
	// estimated, in mm.
	Held     float64
	corner   bool       // whether the hinge corner of the head counts among what may be too wide
	atCorner survey.Row // how much wider than the best the margin comes out there
	// from the finished head down the lock edge to where the latch meets the strike, mm; 0 where there is none
	strike float64
}

// Unheld is the outline with Held taken back.
func (o Outline) Unheld() Outline {
	e := o.Edges[frame.Head]
	e.Line.A -= o.Held
	gaps := slices.Clone(e.Gaps)
	for i := range gaps {
		gaps[i].Mean += o.Held
	}
	e.Gaps, o.Held = gaps, 0
	o.Edges[frame.Head] = e
	return o
}

// Uncut is the outline with the foot as on an uncut slab of a given length, square to the hinge edge, so that its
// margins are those that the slab will have.
func (o Outline) Uncut(length float64) Outline {
	e := o.Edges[frame.Foot]
	line := Line{A: o.Corners()[topHinge].Y - length}
	gaps := make([]Gap, len(e.Gaps))
	for i, g := range e.Gaps {
		g.Mean += line.At(g.Along) - e.Line.At(g.Along)
		gaps[i] = g
	}
	e.Line, e.Gaps = line, gaps
	o.Edges[frame.Foot] = e
	return o
}

// Scribe is the outline with one edge scribed to its side, so that the margin is the one wanted, in mm, all along.
func (o Outline) Scribe(side frame.Side, wanted float64) Outline {
	e := o.Edges[side]
	e.Scribed, e.straight = true, e.Gaps
	e.Gaps = make([]Gap, len(e.straight))
	for i, g := range e.straight {
		g.Mean = wanted
		e.Gaps[i] = g
	}
	o.Edges[side] = e
	return o
}

// Hollowed is, for each gap, how much deeper than its straight line a scribed edge is cut; nil where the edge is
// straight.
func (e Edge) Hollowed() (list []float64) {
	if !e.Scribed {
		return nil
	}
	for _, g := range e.Gaps {
		list = append(list, e.scribe(g.Along))
	}
	return list
}

// hollowRamp is the slope of a plane from a recess into the hollow beside it: 1 mm in 100. Common practice.
const hollowRamp = 0.01

// Hollow is the outline with its hinge edge hollowed where the jamb bellies in, so that the margin there is the one
// wanted, in mm. kept are the recesses in the hung frame, which stay on the straight edge, with a ramp of hollowRamp
// beside them. by is the deepest hollow, in mm.
func (o Outline) Hollow(wanted float64, kept [][2]float64) (_ Outline, by float64) {
	e := o.Edges[frame.Hinge]
	straight := slices.Clone(e.Gaps)
	at := func(along float64) {
		i := slices.IndexFunc(straight, func(g Gap) bool { return g.Along >= along })
		if i < 1 || straight[i].Along == along {
			return
		}
		a, b := straight[i-1], straight[i]
		f := (along - a.Along) / (b.Along - a.Along)
		straight = slices.Insert(straight, i, Gap{
			At: a.At + f*(b.At-a.At), Along: along, Mean: a.Mean + f*(b.Mean-a.Mean),
			Sigma: a.Sigma + f*(b.Sigma-a.Sigma),
		})
	}
	for _, k := range kept {
		at(k[0])
		at(k[1])
		at(k[0] - 1/hollowRamp)
		at(k[1] + 1/hollowRamp)
	}
	hollow := slices.Clone(straight)
	for i, g := range hollow {
		deepest := math.Inf(1)
		for _, k := range kept {
			deepest = min(deepest, hollowRamp*max(k[0]-g.Along, g.Along-k[1], 0))
		}
		hollow[i].Mean = max(g.Mean, min(wanted, g.Mean+deepest))
		by = max(by, hollow[i].Mean-g.Mean)
	}
	if by > 0 {
		e.Scribed, e.Gaps, e.straight = true, hollow, straight
		o.Edges[frame.Hinge] = e
	}
	return o, by
}

// placed is where a slab's foot hinge corner stands in the hung frame, and its lean there toward the lock jamb, in mm
// per mm.
type placed struct{ x, y, lean float64 }

// Offer is the outline with the placing of a slab that was offered up, by survey.Shape.Placing, for the registration
// AsOffered.
func (o Outline) Offer(u, v, lean float64) Outline {
	sin, cos := math.Sincos(math.Atan(o.pins.B))
	o.offered = &placed{(u-o.pins.A)*cos - v*sin, (u-o.pins.A)*sin + v*cos, -lean - o.pins.B}
	return o
}

// Strike is the outline with the existing strike, in mm down the lock edge from the finished head, for the laying
// MeetStrike.
func (o Outline) Strike(down float64) Outline {
	o.strike = down
	return o
}

// WantedMargin is a margin as a figure of the opening, up to a constant.
type WantedMargin struct {
	Side  frame.Side
	Where int // 0 foot or hinge corner, 1 middle, 2 head or lock corner
	Row   survey.Row
}

// ErrNoRoom reports an opening in which the wanted margins leave no slab.
type ErrNoRoom struct{ Width, Height float64 }

func (e *ErrNoRoom) Error() string {
	return fmt.Sprintf("no-room %.0f %.0f", e.Width, e.Height)
}
