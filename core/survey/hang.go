package survey

import (
	"math"

	"kindmargin/core/frame"
)

// Hang is a slab as it hangs on its hinges, beside which gaps are read. Its hinge edge runs along the line of the hinge
// jamb through the two pins, a margin off it; its other edges are relative to that edge and its top corner. All in mm.
type Hang struct {
	ID     string
	Pins   [2]float64 // heights of the top and the bottom hinge's middle
	Margin [2]float64 // as they were set
	Head   float64    // head margin at the hinge corner, as it was set
	Rise   float64    // how far its foot is over the floor, about: places up the slab are so much higher in the opening
	// The slab, by places up it from its foot, or across from its hinge edge.
	Hollow []frame.Along // how far its hinge edge stands back from straight
	Lock   []frame.Along // its width, as its tape reads it
	Top    []frame.Along // how far its head stands above square to its hinge edge's top corner
	Foot   []frame.Along // its length, as its tape reads it
	// Strays are its errors, as indices into Prior.Strays: of the cut, of the hang, and of all that was done since.
	Strays []int
	// Meets is the other leaf of a pair as it hangs, in the other's own frame; nil for a single slab. Far is whether
	// this leaf hangs on the lock jamb, so that it sees the opening, of this width, from there.
	Meets *Hang
	Far   bool
	Width float64
}

// Strays is the kind of an error of a hung slab.
type Strays int

// The errors.
const (
	OfPins Strays = iota // the hinge margin along the hinge edge
	OfHead               // how far the slab hangs below where it was meant to
	OfLockEdge
	OfTop
	OfFoot
	OfSide // a lump or a hollow of a side of the opening
)

// Stray is an error of a hung slab along one of its edges: independent and normal at the two ends of a stretch, and
// linear between; at its second end only; or, where the stretch has no length, constant. One of a side of the opening
// is at a place, From, which counts up the slab or across it, and falls to nothing within half of BumpWidth.
type Stray struct {
	Of       Strays
	Side     frame.Side // of OfSide
	From, To float64    // the stretch, mm
	Sigma    float64    // at each end, mm
	Taper    bool       // nothing at From
	Bow      float64    // of an edge that may have bent besides, mm
}

// firstHung is the part of the first stray.
const firstHung Part = 20000

// at is the coordinate of a place in a stray's stretch: from its middle, about which independent ends are an offset of
// σ/√2 and a lean of √2σ over its length.
func (s Stray) at(place float64) float64 {
	switch {
	case s.From == s.To: // the same everywhere
		return 0
	case s.Taper:
		return place - s.From
	}
	return place - (s.From+s.To)/2
}

func (s Stray) spread() spread {
	long := s.To - s.From
	switch {
	case long == 0:
		return spread{offset: s.Sigma}
	case s.Taper:
		return spread{lean: s.Sigma / long, bow: s.Bow, run: long / 2}
	}
	return spread{offset: s.Sigma / math.Sqrt2, lean: math.Sqrt2 * s.Sigma / long, bow: s.Bow, run: long / 2}
}

// strays adds a hung slab's errors of a kind at a place, times by.
func (h Hang) strays(row Row, p *Prior, of Strays, place, by float64) Row {
	for _, i := range h.Strays {
		if s := p.Strays[i]; s.Of == of {
			row = append(row, Term{firstHung + Part(i), s.at(place), by})
		}
	}
	return row
}

// side is a side of the opening as the leaf sees it, times by; constant is in mm.
func (h Hang) side(side frame.Side, at, by float64) (t Term, constant float64) {
	if !h.Far {
		return Term{Of(side), at, by}, 0
	}
	switch side {
	case frame.Hinge:
		return Term{Of(frame.Lock), at, -by}, by * h.Width
	case frame.Lock:
		return Term{Of(frame.Hinge), at, -by}, by * h.Width
	}
	return Term{Of(side), h.Width - at, by}, 0
}

// sides sums sides of the opening as the leaf sees them.
func (h Hang) sides(terms ...Term) (row Row, constant float64) {
	row = make(Row, 0, len(terms)+2*len(h.Strays)+1)
	for _, t := range terms {
		side, _ := t.Of.Side()
		own, c := h.side(side, t.At, t.By)
		row, constant = append(row, own), constant+c
	}
	return row, constant
}

// edge is the distance of the hinge edge's line at a height from the hinge jamb's plumb frame, as this leaf sees it,
// times by.
func (h Hang) edge(p *Prior, v, by float64) (row Row, constant float64) {
	top, bottom := h.Pins[0], h.Pins[1]
	f := (v - bottom) / (top - bottom)
	row, constant = h.sides(Term{Of(frame.Hinge), bottom, by * (1 - f)}, Term{Of(frame.Hinge), top, by * f})
	return h.strays(row, p, OfPins, v, by), constant + by*(h.Margin[1]+f*(h.Margin[0]-h.Margin[1]))
}

// turn adds how much lower a place across hangs by the lean of the pins, times by.
func (h Hang) turn(row Row, constant float64, p *Prior, u, by float64) (Row, float64) {
	by *= u / (h.Pins[0] - h.Pins[1])
	up, c := h.edge(p, h.Pins[0], by)
	down, d := h.edge(p, h.Pins[1], -by)
	return append(append(row, up...), down...), constant + c + d
}

// A lump or a hollow of a side is about a hand's breadth long, and stands out by a standard deviation of BumpSigma,
// both in mm. Common practice.
const (
	BumpWidth = 150.0
	BumpSigma = 2.0
)

// Gap is the gap between a hung slab and a side, at a place up the slab or across it from its hinge edge, as a linear
// figure of the opening, of the lumps that were found in it, and of the slab's errors; constant is in mm.
func (p *Prior) Gap(h Hang, side frame.Side, at float64) (row Row, constant float64) {
	row, constant = p.gap(h, side, at)
	for _, i := range h.Strays {
		s := p.Strays[i]
		if far := math.Abs(at-s.From) / (BumpWidth / 2); s.Of == OfSide && s.Side == side && far < 1 {
			row = append(row, Term{firstHung + Part(i), 0, (1 + math.Cos(math.Pi*far)) / 2})
		}
	}
	return row, constant
}

// gap is Gap without the lumps.
func (p *Prior) gap(h Hang, side frame.Side, at float64) (row Row, constant float64) {
	switch side {
	case frame.Hinge:
		row, constant = h.edge(p, at+h.Rise, 1)
		jamb, c := h.side(frame.Hinge, at+h.Rise, -1)
		return append(row, jamb), constant + c + frame.OffAt(h.Hollow, at)
	case frame.Lock:
		row, constant = h.lockEdge(p, at, -1)
		if h.Meets != nil {
			// The other leaf's lock edge, which sees the opening from the other jamb.
			other, c := h.Meets.lockEdge(p, at+h.Rise-h.Meets.Rise, -1)
			return append(row, other...), constant + c + h.Width
		}
		jamb, c := h.side(frame.Lock, at+h.Rise, 1)
		return append(row, jamb), constant + c
	case frame.Head:
		row, constant = h.sides(Term{Of(frame.Head), at, 1}, Term{Of(frame.Head), 0, -1})
		row = h.strays(row, p, OfHead, at, 1)
		row = h.strays(row, p, OfTop, at, -1)
		return h.turn(row, constant+h.Head-frame.OffAt(h.Top, at), p, at, 1)
	}
	row, constant = h.sides(Term{Of(frame.Head), 0, 1}, Term{Of(frame.Foot), at, -1})
	row = h.strays(row, p, OfHead, at, -1)
	row = h.strays(row, p, OfFoot, at, -1)
	if long, ok := p.SlabTerm(Height); ok {
		row = append(row, long)
	}
	return h.turn(row, constant-h.Head-frame.OffAt(h.Foot, at), p, at, -1)
}

func (h Hang) lockEdge(p *Prior, at, by float64) (row Row, constant float64) {
	row, constant = h.edge(p, at+h.Rise, by)
	if wide, ok := p.SlabTerm(Width); ok {
		wide.By *= -by
		row = append(row, wide)
	}
	return h.strays(row, p, OfLockEdge, at, by), constant + by*frame.OffAt(h.Lock, at)
}

// HangByID finds a hang; ok is false where there is none of that ID.
func (p *Prior) HangByID(id string) (h Hang, ok bool) {
	for _, h := range p.Hangs {
		if h.ID == id {
			return h, true
		}
	}
	return h, false
}

// StrayAt is stray i at a place, as a linear figure.
func (p *Prior) StrayAt(i int, place float64) Row {
	return Row{{firstHung + Part(i), p.Strays[i].at(place), 1}}
}

// Unread is the variance that the strays from index from on, which no reading observes, give a figure, in mm².
func (p *Prior) Unread(r Row, from int) float64 {
	var own Row
	for _, t := range r {
		if t.Of >= firstHung+Part(from) {
			own = append(own, t)
		}
	}
	return p.covOf(own, own)
}

// Hung is the same estimate with other hangs than its readings refer to.
func (s *Shape) Hung(hangs []Hang, strays []Stray) *Shape {
	t := *s
	t.prior.Hangs, t.prior.Strays = hangs, strays
	return &t
}
