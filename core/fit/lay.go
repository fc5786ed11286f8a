package fit

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/slab"
)

// Registration is how the outline is laid on the slab: which edge stays as
// it is.
type Registration string

// The registrations. Each takes from the head only what its shape needs, and
// the rest of the length from the foot.
const (
	KeepLock   Registration = "keep lock edge"  // all the width off the hinge edge
	KeepHinge  Registration = "keep hinge edge" // all the width off the lock edge
	EvenStiles Registration = "even stiles"     // the same off both, so that the stiles look alike
)

// Registrations lists them.
var Registrations = []Registration{KeepLock, KeepHinge, EvenStiles}

// Cut is what comes off one edge of the slab at one place. Its parts add up:
//
//	long edges:  Depth = slab's width − Opening + NearGap + FarGap − OtherCut − Left
//	foot:        Depth = slab's length − Opening + NearGap + FarGap − OtherCut − Left
//	head:        Depth = Opening + NearGap − Left
//
// In the last, Opening is how far the head of the opening falls here below
// its highest place, and NearGap the margin here less the margin there.
type Cut struct {
	At    float64 // mm along the edge of the uncut slab: from its top, or across from its hinge edge
	Depth float64 // mm; below nought where the slab is short

	Opening  float64 // the opening here, square to the slab
	NearGap  float64 // the margin at this edge
	FarGap   float64 // the margin at the opposite edge
	OtherCut float64 // what comes off the opposite edge here
	Left     float64 // what is left on for now
}

// Short is a place where the slab does not reach the outline.
type Short struct {
	Side frame.Side
	At   float64 // as Cut.At
	By   float64 // mm
}

// Laid is an outline laid on a slab.
type Laid struct {
	Registration Registration
	Cuts         frame.Each[[]Cut]
	Short        []Short // at most one an edge, the worst
	Left         frame.Each[float64]
	// Width and Length of the slab after the first cut, at head, middle and
	// foot, and at the hinge edge, middle and lock edge, mm.
	Width, Length [3]float64
	// Top is the distance from the uncut slab's top to the cut head at the
	// hinge edge and at the lock edge, mm.
	Top [2]float64
	// LockEdge is the distance from the uncut slab's lock edge to the cut
	// one, at head and foot, mm.
	LockEdge [2]float64
}

// shortBy is the least lack that is worth a word: under it a slab is as good
// as on the line.
const shortBy = 0.05

// Lay puts the outline on a slab, with leave left on each edge for now as far
// as the slab has it to leave: a slab that is just big enough is cut to the
// line, and only one that does not reach the line itself is short.
func Lay(o Outline, leave frame.Each[float64], s slab.Slab, r Registration) Laid {
	final := lay(o, frame.Each[float64]{}, s, r)
	across, along := math.Inf(1), math.Inf(1)
	for i, c := range final.Cuts[frame.Hinge] {
		across = min(across, c.Depth+final.Cuts[frame.Lock][i].Depth)
	}
	for _, c := range final.Cuts[frame.Foot] {
		along = min(along, c.Depth)
	}
	across, along = max(across, 0), max(along, 0)
	leave[frame.Lock] = min(leave[frame.Lock], across)
	// What is left on at the head's lock corner beyond what comes off there is
	// gained by taking as much off the rest of the head, out of the length.
	atLock := final.Cuts[frame.Head][len(final.Cuts[frame.Head])-1].Depth
	leave[frame.Head] = min(leave[frame.Head], atLock+along)
	leave[frame.Foot] = min(leave[frame.Foot], along-max(leave[frame.Head]-atLock, 0))
	if leave == (frame.Each[float64]{}) {
		return final
	}
	first := lay(o, leave, s, r)
	first.Short = final.Short
	return first
}

func lay(o Outline, leave frame.Each[float64], s slab.Slab, r Registration) Laid {
	width, length := s.Width.MM(), s.Length.MM()
	c := o.corners(leave)

	// The slab's long axis, turned by rake from the line of the pins.
	rake := math.Atan2(c[topLock].X-c[footLock].X, c[topLock].Y-c[footLock].Y)
	switch r {
	case KeepHinge:
		rake = 0
	case EvenStiles:
		rake /= 2
	}
	sin, cos := math.Sincos(rake)
	for i, p := range c {
		c[i] = Corner{p.X*cos - p.Y*sin, p.X*sin + p.Y*cos}
	}
	var shift float64
	switch r {
	case KeepLock:
		shift = width - max(c[topLock].X, c[footLock].X)
	case KeepHinge:
		shift = -min(c[topHinge].X, c[footHinge].X)
	default:
		shift = width/2 - (c[topLock].X+c[footLock].X+c[topHinge].X+c[footHinge].X)/4
	}
	top := max(c[topHinge].Y, c[topLock].Y)
	for i := range c { // the slab's own frame: x from its hinge edge, y down from its top
		c[i].X += shift
		c[i].Y = top - c[i].Y
	}

	laid := Laid{Registration: r, Left: leave}
	across := func(a, b Corner, y float64) float64 { return a.X + (b.X-a.X)*(y-a.Y)/(b.Y-a.Y) }
	down := func(a, b Corner, x float64) float64 { return a.Y + (b.Y-a.Y)*(x-a.X)/(b.X-a.X) }
	hingeAt := func(y float64) float64 { return across(c[topHinge], c[footHinge], y) }
	lockAt := func(y float64) float64 { return across(c[topLock], c[footLock], y) }
	headAt := func(x float64) float64 { return down(c[topHinge], c[topLock], x) }
	footAt := func(x float64) float64 { return down(c[footHinge], c[footLock], x) }
	// Margins are looked up by place in the hung frame; the rake moves a
	// place by hundredths of a millimetre, which no margin feels.
	gap := func(side frame.Side, at float64) float64 {
		if side.Upright() {
			at = top - at
		} else {
			at -= shift
		}
		return o.Edges[side].GapAt(at)
	}
	headLeft := func(x float64) float64 {
		return leave[frame.Head] * (x - c[topHinge].X) / (c[topLock].X - c[topHinge].X)
	}
	// The head takes only what its shape needs: the slab's top is where the
	// line of the head, run out to the slab's own corners, is highest.
	highest, base := 0.0, headAt(0)
	if headAt(width) < base {
		highest, base = width, headAt(width)
	}
	for i := range c {
		c[i].Y -= base
	}
	top -= base

	// Marks at the ends, the middle and the quarters of the slab.
	for i := range 5 {
		y := length * float64(i) / 4
		cutH, cutL := hingeAt(y), width-lockAt(y)
		gh, gl := gap(frame.Hinge, y), gap(frame.Lock, y)
		left := leave[frame.Lock] + leave[frame.Hinge]
		opening := width - cutH - cutL + gh + gl - left
		laid.Cuts[frame.Hinge] = append(laid.Cuts[frame.Hinge], Cut{y, cutH, opening, gh, gl, cutL, left})
		laid.Cuts[frame.Lock] = append(laid.Cuts[frame.Lock], Cut{y, cutL, opening, gl, gh, cutH, left})
	}
	for i := range 3 {
		x := width * float64(i) / 2
		cutT, cutF := headAt(x), length-footAt(x)
		left := headLeft(x) - headLeft(highest)
		more := gap(frame.Head, x) - gap(frame.Head, highest)
		laid.Cuts[frame.Head] = append(laid.Cuts[frame.Head], Cut{
			At: x, Depth: cutT, Opening: cutT - more + left, NearGap: more, Left: left,
		})
		gt, gf := gap(frame.Head, x), gap(frame.Foot, x)
		leftLong := leave[frame.Foot] + headLeft(x)
		opening := length - cutT - cutF + gt + gf - leftLong
		laid.Cuts[frame.Foot] = append(laid.Cuts[frame.Foot], Cut{x, cutF, opening, gf, gt, cutT, leftLong})
	}
	for _, side := range frame.Sides {
		worst := Short{Side: side}
		for _, cut := range laid.Cuts[side] {
			if -cut.Depth > worst.By {
				worst.At, worst.By = cut.At, -cut.Depth
			}
		}
		if worst.By > shortBy {
			laid.Short = append(laid.Short, worst)
		}
	}
	for i, y := range [3]float64{c[topHinge].Y, length / 2, min(c[footHinge].Y, length)} {
		laid.Width[i] = min(lockAt(y), width) - max(hingeAt(y), 0)
	}
	for i, x := range [3]float64{c[topHinge].X, width / 2, c[topLock].X} {
		laid.Length[i] = min(footAt(x), length) - max(headAt(x), 0)
	}
	laid.Top = [2]float64{c[topHinge].Y, c[topLock].Y}
	laid.LockEdge = [2]float64{width - c[topLock].X, width - c[footLock].X}
	return laid
}
