package fit

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/slab"
)

// onSlab is an outline rotated and shifted into the slab's frame: x from its hinge edge, y down from its top, in mm.
type onSlab struct {
	outline *Outline
	slab    slab.Slab
	leave   frame.Each[float64]
	laying  Laying

	width, length float64 // the uncut slab's

	cut, line [4]Corner // of the first cut, with what is left on, and of the line itself
	shift     float64   // from the hung frame's x to the slab's
	top       float64   // the hung frame's height of the slab's top

	// What the head takes of the length beyond its own shape, and the place along the slab's top where that shape takes
	// least.
	shared, highest float64
}

// place rotates the outline from the line of the pins to the slab's long axis, and shifts it across as the laying says;
// along the slab its highest corner is at the slab's top.
func place(o *Outline, leave frame.Each[float64], s slab.Slab, r Laying) onSlab {
	k := onSlab{outline: o, slab: s, leave: leave, laying: r, width: s.Width.MM(), length: s.Length.MM()}
	c, line := o.CornersWith(leave), o.Corners()
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
	for i := range c {
		p, q := c[i], line[i]
		c[i] = Corner{p.X*cos - p.Y*sin, p.X*sin + p.Y*cos}
		line[i] = Corner{q.X*cos - q.Y*sin, q.X*sin + q.Y*cos}
	}
	k.cut, k.line = c, line
	if r.Across == AsOffered {
		k.shift = -(o.offered.x*cos - o.offered.y*sin)
		k.top = o.offered.x*sin + o.offered.y*cos + k.length
	} else {
		k.shift = k.shiftAcross()
		k.top = max(c[topHinge].Y, c[topLock].Y)
	}
	for i := range c {
		k.cut[i] = Corner{c[i].X + k.shift, k.top - c[i].Y}
		k.line[i] = Corner{line[i].X + k.shift, k.top - line[i].Y}
	}
	return k
}

// shiftAcross is how far the rotated outline is moved across the slab. Leave-on is planed off later, so even means even
// without it.
func (k *onSlab) shiftAcross() float64 {
	c, line := &k.cut, &k.line
	// About where each lock corner of the slab is: its own width there.
	atHead, atFoot := k.widthAt(0), k.widthAt(k.length)
	switch k.laying.Across {
	case KeepLock:
		return min(atHead-c[topLock].X, atFoot-c[footLock].X)
	case KeepHinge:
		return -min(c[topHinge].X, c[footHinge].X)
	}
	shift := (atHead+atFoot)/4 - (line[topLock].X+line[footLock].X+line[topHinge].X+line[footHinge].X)/4
	// Limited by what is to be left on the slab's lock edge.
	shift = min(shift, max(atHead-c[topLock].X, atFoot-c[footLock].X))
	if k.laying.Across == ShareWidth {
		hinge := max(line[topHinge].X, line[footHinge].X) + shift - k.slab.Most(frame.Hinge).MM()
		lock := max(atHead-line[topLock].X, atFoot-line[footLock].X) - shift - k.slab.Most(frame.Lock).MM()
		shift += max(lock, 0) - max(hinge, 0)
	}
	return shift
}

// shareLength moves the outline along the slab. The head takes only what its shape needs: the slab's top is where the
// line of the head, extended to the slab's corners, is highest. Beyond that it takes what the laying says.
func (k *onSlab) shareLength() {
	base := k.headAt(0) - k.slab.HeadAt(0)
	if d := k.headAt(k.width) - k.slab.HeadAt(1); d < base {
		k.highest, base = k.width, d
	}
	if k.laying.Across == AsOffered {
		k.shared = base
		return
	}
	k.lower(-base)
	if k.laying.Along == KeepHead {
		return
	}
	// The least and the most surplus at the foot's two corners, and the least once the leave-on is planed off.
	hinge, lock := k.slab.FootAt(0)-k.footAt(0), k.slab.FootAt(1)-k.footAt(k.width)
	spare := max(min(hinge, lock), 0)
	footLine := func(x float64) float64 { return down(k.line[footHinge], k.line[footLock], x) }
	final := max(min(k.slab.FootAt(0)-footLine(0), k.slab.FootAt(1)-footLine(k.width)), 0)
	k.shared = spare
	switch k.laying.Along {
	case EvenEnds:
		k.shared = min(final/2, spare)
	case ShareLength:
		own := max(k.cut[topHinge].Y, k.cut[topLock].Y) // what the head's own shape takes
		over := max(hinge, lock) - k.slab.Most(frame.Foot).MM()
		k.shared = min(max(min(final/2, k.slab.Most(frame.Head).MM()-own), over, 0), spare)
	case MeetStrike:
		k.shared = min(max(k.slab.Handle.MM()-k.outline.strike-k.line[topLock].Y, 0), spare)
	}
	k.lower(k.shared)
}

// lower moves the outline down the slab.
func (k *onSlab) lower(by float64) {
	for i := range k.cut {
		k.cut[i].Y += by
		k.line[i].Y += by
	}
	k.top += by
}

// across is the height on the line through two corners, at a place across the slab.
func across(a, b Corner, y float64) float64 { return a.X + (b.X-a.X)*(y-a.Y)/(b.Y-a.Y) }
func down(a, b Corner, x float64) float64   { return a.Y + (b.Y-a.Y)*(x-a.X)/(b.X-a.X) }

func (k *onSlab) hingeAt(y float64) float64 { return across(k.cut[topHinge], k.cut[footHinge], y) }
func (k *onSlab) lockAt(y float64) float64  { return across(k.cut[topLock], k.cut[footLock], y) }
func (k *onSlab) headAt(x float64) float64  { return down(k.cut[topHinge], k.cut[topLock], x) }
func (k *onSlab) footAt(x float64) float64  { return down(k.cut[footHinge], k.cut[footLock], x) }

// widthAt is the uncut slab's own width.
func (k *onSlab) widthAt(y float64) float64 { return k.slab.WidthAt(y / k.length) }

// gap is the margin at a place of the slab. Margins are looked up by place in the hung frame; the rake moves a place by
// hundredths of a millimetre, which does not change a margin.
func (k *onSlab) gap(side frame.Side, at float64) float64 {
	if side.Upright() {
		at = k.top - at
	} else {
		at -= k.shift
	}
	if e := &k.outline.Edges[side]; e.Scribed {
		return gapAt(e.straight, at)
	}
	return k.outline.Edges[side].GapAt(at)
}

// headLeft is the leave-on at the head, all of it at the lock corner.
func (k *onSlab) headLeft(x float64) float64 {
	return k.leave[frame.Head] * (x - k.cut[topHinge].X) / (k.cut[topLock].X - k.cut[topHinge].X)
}
