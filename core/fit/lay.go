package fit

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/slab"
)

// Registration is how the outline is laid on the slab: which edge stays as
// it is.
type Registration string

// The registrations across the slab.
const (
	KeepLock   Registration = "keep lock edge"  // all the width off the hinge edge
	KeepHinge  Registration = "keep hinge edge" // all the width off the lock edge
	EvenStiles Registration = "even stiles"     // the same off both, so that the stiles look alike
)

// ShareWidth and ShareLength take as near the same off both edges as what may
// come off each allows. They are not among Registrations and AllEnds: they are
// weighed where no other way keeps to the limits.
const (
	ShareWidth  Registration = "as the limits share it"
	ShareLength Ends         = "as the limits share it"
)

// MeetStrike takes as much off the head as brings a bore that is there to the
// strike that is there. It needs Outline.Strike.
const MeetStrike Ends = "bore to the strike"

// AsOffered cuts the slab as it stood in the opening when its gaps were read.
// It is not among Registrations: it needs Outline.Offer.
const AsOffered Registration = "as offered up"

// Registrations lists them.
var Registrations = []Registration{KeepLock, KeepHinge, EvenStiles}

// Ends is how the outline is laid along the slab: which end stays as it is, as
// far as its shape allows.
type Ends string

// The ways to share what comes off the length.
const (
	KeepHead Ends = "keep head" // the head takes only what its shape needs
	EvenEnds Ends = "even ends" // the same off both, so that rails look alike and a bore keeps its height
	KeepFoot Ends = "keep foot" // the foot takes only what its shape needs
)

// AllEnds lists them.
var AllEnds = []Ends{KeepHead, EvenEnds, KeepFoot}

// Laying is a registration across and along the slab.
type Laying struct {
	Across Registration
	Along  Ends
}

// Layings lists all of them.
func Layings() (list []Laying) {
	for _, r := range Registrations {
		for _, e := range AllEnds {
			list = append(list, Laying{r, e})
		}
	}
	return list
}

// Cut is what comes off one edge of the slab at one place. Its parts add up:
//
//	long edges:  Depth = slab's width − Opening + NearGap + FarGap − OtherCut − Left
//	foot:        Depth = slab's length − Opening + NearGap + FarGap − OtherCut − Left
//	head:        Depth = Opening + NearGap + Shared − Left
//
// The slab's width and length are those at the mark.
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
	Shared   float64 // on the head: what it takes of the length beside its own shape
	Whole    float64 // the slab's own width or length here
}

// Short is a place where the slab does not reach the outline.
type Short struct {
	Side frame.Side
	At   float64 // as Cut.At
	By   float64 // mm
}

// Laid is an outline laid on a slab.
type Laid struct {
	Laying
	Cuts  frame.Each[[]Cut]
	Short []Short // at most one an edge, the worst
	Left  frame.Each[float64]
	// Width and Length of the slab after the first cut, at head, middle and
	// foot, and at the hinge edge, middle and lock edge, mm.
	Width, Length [3]float64
	// Top is the distance from the uncut slab's top to the cut head at the
	// hinge edge and at the lock edge, mm.
	Top [2]float64
	// Final is the same at the lock edge once what is left on is planed off, mm.
	Final float64
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
func Lay(o Outline, leave frame.Each[float64], s slab.Slab, r Laying) Laid {
	final := lay(o, frame.Each[float64]{}, s, r)
	if r.Across == AsOffered { // it stays where it stood; nothing is shifted to leave more on
		first := lay(o, leave, s, r)
		first.Short = final.Short
		return first
	}
	spare := final
	if r.Along != KeepHead {
		spare = lay(o, frame.Each[float64]{}, s, Laying{r.Across, KeepHead})
	}
	across, along := math.Inf(1), math.Inf(1)
	for i, c := range final.Cuts[frame.Hinge] {
		across = min(across, c.Depth+final.Cuts[frame.Lock][i].Depth)
	}
	for _, c := range spare.Cuts[frame.Foot] {
		along = min(along, c.Depth)
	}
	across, along = max(across, 0), max(along, 0)
	leave[frame.Lock] = min(leave[frame.Lock], across)
	// What is left on at the head's lock corner beyond what comes off there is
	// gained by taking as much off the rest of the head, out of the length.
	atLock := spare.Cuts[frame.Head][len(spare.Cuts[frame.Head])-1].Depth
	leave[frame.Head] = min(leave[frame.Head], atLock+along)
	leave[frame.Foot] = min(leave[frame.Foot], along-max(leave[frame.Head]-atLock, 0))
	if leave == (frame.Each[float64]{}) {
		return final
	}
	first := lay(o, leave, s, r)
	first.Short = final.Short
	return first
}

var opposite = frame.Each[frame.Side]{frame.Head: frame.Foot, frame.Foot: frame.Head, frame.Hinge: frame.Lock, frame.Lock: frame.Hinge}

func lay(o Outline, leave frame.Each[float64], s slab.Slab, r Laying) Laid {
	width, length := s.Width.MM(), s.Length.MM()
	widthAt := func(y float64) float64 { return s.WidthAt(y / length) }
	c := o.CornersWith(leave)

	// The slab's long axis, turned by rake from the line of the pins.
	rake := math.Atan2(c[topLock].X-c[footLock].X, c[topLock].Y-c[footLock].Y)
	switch r.Across {
	case KeepHinge:
		rake = 0
	case EvenStiles, ShareWidth:
		rake /= 2
	case AsOffered:
		rake = math.Atan(o.offered.lean)
	}
	sin, cos := math.Sincos(rake)
	// What is left on is planed off again: even is what is even without it.
	line := o.Corners()
	for i := range c {
		p, q := c[i], line[i]
		c[i] = Corner{p.X*cos - p.Y*sin, p.X*sin + p.Y*cos}
		line[i] = Corner{q.X*cos - q.Y*sin, q.X*sin + q.Y*cos}
	}
	var shift float64
	// Where each lock corner of the slab stands, about: its own width there.
	atHead, atFoot := widthAt(0), widthAt(length)
	switch r.Across {
	case KeepLock:
		shift = min(atHead-c[topLock].X, atFoot-c[footLock].X)
	case KeepHinge:
		shift = -min(c[topHinge].X, c[footHinge].X)
	default:
		shift = (atHead+atFoot)/4 - (line[topLock].X+line[footLock].X+line[topHinge].X+line[footHinge].X)/4
		// No further than leaves the slab what is to be left on its lock edge.
		shift = min(shift, max(atHead-c[topLock].X, atFoot-c[footLock].X))
	}
	if r.Across == ShareWidth {
		hinge := max(line[topHinge].X, line[footHinge].X) + shift - s.Most(frame.Hinge).MM()
		lock := max(atHead-line[topLock].X, atFoot-line[footLock].X) - shift - s.Most(frame.Lock).MM()
		shift += max(lock, 0) - max(hinge, 0)
	}
	top := max(c[topHinge].Y, c[topLock].Y)
	if r.Across == AsOffered {
		shift = -(o.offered.x*cos - o.offered.y*sin)
		top = o.offered.x*sin + o.offered.y*cos + length
	}
	for i := range c { // the slab's own frame: x from its hinge edge, y down from its top
		c[i].X, line[i].X = c[i].X+shift, line[i].X+shift
		c[i].Y, line[i].Y = top-c[i].Y, top-line[i].Y
	}

	laid := Laid{Laying: r, Left: leave}
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
		if e := o.Edges[side]; e.Scribed {
			return gapAt(e.straight, at)
		}
		return o.Edges[side].GapAt(at)
	}
	headLeft := func(x float64) float64 {
		return leave[frame.Head] * (x - c[topHinge].X) / (c[topLock].X - c[topHinge].X)
	}
	// The head takes only what its shape needs: the slab's top is where the
	// line of the head, run out to the slab's own corners, is highest.
	part := func(x float64) float64 { return x / width }
	highest, base := 0.0, headAt(0)-s.HeadAt(0)
	if d := headAt(width) - s.HeadAt(1); d < base {
		highest, base = width, d
	}
	lower := func(by float64) {
		for i := range c {
			c[i].Y += by
			line[i].Y += by
		}
		top += by
	}
	shared := base
	if r.Across != AsOffered {
		lower(-base)
		shared = 0
	}
	if r.Across != AsOffered && r.Along != KeepHead {
		spare := max(min(s.FootAt(0)-footAt(0), s.FootAt(1)-footAt(width)), 0)
		final := max(min(s.FootAt(0)-down(line[footHinge], line[footLock], 0), s.FootAt(1)-down(line[footHinge], line[footLock], width)), 0)
		shared = spare
		switch r.Along {
		case EvenEnds:
			shared = min(final/2, spare)
		case ShareLength:
			own := max(c[topHinge].Y, c[topLock].Y) // what the head's own shape takes
			over := max(s.FootAt(0)-footAt(0), s.FootAt(1)-footAt(width)) - s.Most(frame.Foot).MM()
			shared = min(max(min(final/2, s.Most(frame.Head).MM()-own), over, 0), spare)
		case MeetStrike:
			shared = min(max(s.Handle.MM()-o.strike-line[topLock].Y, 0), spare)
		}
		lower(shared)
	}

	for _, side := range frame.Sides {
		laid.Cuts[side] = make([]Cut, 0, 5)
	}
	// Marks at the ends, the middle and the quarters of the slab.
	for i := range 5 {
		part := float64(i) / 4
		for _, edge := range [2]frame.Side{frame.Hinge, frame.Lock} {
			at, from := length*part, 0.0
			if edge == frame.Lock { // whose length may be another
				from = s.HeadAt(1)
				at = (s.FootAt(1) - from) * part
			}
			y := from + at
			whole := widthAt(y)
			cutH, cutL := hingeAt(y), whole-lockAt(y)
			gh, gl := gap(frame.Hinge, y), gap(frame.Lock, y)
			left := leave[frame.Lock] + leave[frame.Hinge]
			cut := Cut{At: at, Depth: cutH, Opening: whole - cutH - cutL + gh + gl - left, NearGap: gh, FarGap: gl, OtherCut: cutL, Left: left, Whole: whole}
			if edge == frame.Lock {
				cut.Depth, cut.OtherCut, cut.NearGap, cut.FarGap = cutL, cutH, gl, gh
			}
			laid.Cuts[edge] = append(laid.Cuts[edge], cut)
		}
	}
	for i := range 6 {
		side, x := frame.Head, width*float64(i/2)/2
		if i%2 == 1 { // the foot may be narrower
			side, x = frame.Foot, widthAt(length)*float64(i/2)/2
		}
		cutT, cutF := headAt(x)-s.HeadAt(part(x)), s.FootAt(part(x))-footAt(x)
		whole := s.FootAt(part(x)) - s.HeadAt(part(x))
		left := headLeft(x) - headLeft(highest)
		more := gap(frame.Head, x) - gap(frame.Head, highest)
		if side == frame.Head {
			laid.Cuts[side] = append(laid.Cuts[side], Cut{
				At: x, Depth: cutT, Opening: cutT - shared - more + left, NearGap: more, Left: left, Shared: shared, Whole: whole,
			})
			continue
		}
		gt, gf := gap(frame.Head, x), gap(frame.Foot, x)
		leftLong := leave[frame.Foot] + headLeft(x)
		opening := whole - cutT - cutF + gt + gf - leftLong
		laid.Cuts[frame.Foot] = append(laid.Cuts[frame.Foot], Cut{At: x, Depth: cutF, Opening: opening, NearGap: gf, FarGap: gt, OtherCut: cutT, Left: leftLong, Whole: whole})
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
	// A scribed edge is marked along its side, where there is wood to mark.
	for _, side := range frame.Sides {
		for i := range laid.Cuts[side] {
			cut := &laid.Cuts[side][i]
			place := cut.At - shift
			if side.Upright() {
				place = top - cut.At
			}
			by := o.Edges[side].scribe(place)
			cut.Depth += by
			cut.NearGap += by
			other := &laid.Cuts[opposite[side]][i]
			if side != frame.Foot { // the head's figures do not name the foot's
				other.FarGap += by
				other.OtherCut += by
			}
		}
	}
	for i, y := range [3]float64{c[topHinge].Y, length / 2, min(c[footHinge].Y, length)} {
		laid.Width[i] = min(lockAt(y), widthAt(y)) - max(hingeAt(y), 0)
	}
	for i, x := range [3]float64{c[topHinge].X, width / 2, c[topLock].X} {
		laid.Length[i] = min(footAt(x), s.FootAt(part(x))) - max(headAt(x), s.HeadAt(part(x)))
	}
	laid.Top = [2]float64{c[topHinge].Y, c[topLock].Y}
	laid.Final = line[topLock].Y
	laid.LockEdge = [2]float64{widthAt(c[topLock].Y) - c[topLock].X, widthAt(c[footLock].Y) - c[footLock].X}
	return laid
}
