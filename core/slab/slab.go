// Package slab describes the bare slab that is to be fitted, and the limits of its construction.
package slab

import (
	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Slab is a slab on the trestles, before anything is cut. Of the measurements after the first three, 0 means the same
// as the first, or square.
type Slab struct {
	Width     measure.Length `json:"width"`  // at the head
	Length    measure.Length `json:"length"` // on the hinge edge
	Thickness measure.Length `json:"thickness"`

	WidthMid   measure.Length `json:"widthMid,omitempty"`
	WidthFoot  measure.Length `json:"widthFoot,omitempty"`
	LengthLock measure.Length `json:"lengthLock,omitempty"` // on the lock edge
	// Square is how far the lock corner of the head is above square to the hinge edge; negative is below.
	Square measure.Length `json:"square,omitempty"`

	Construction string         `json:"construction,omitempty"` // ID of a trade.Construction
	Machined     []frame.Side   `json:"machined,omitempty"`     // edges with bores or pockets: not to be cut
	Limits       Limits         `json:"limits" required:"false"`
	Pivot        measure.Length `json:"pivot,omitempty"` // of a folding slab's pivot holes: from the hinge edge
	// width of its lock stile, to the moulding, glass or core; 0 is not read
	Stile  measure.Length `json:"stile,omitempty"`
	Handle measure.Length `json:"handle,omitempty"` // of a bore that is there: down from the slab's top

	// hand that it was bored, recessed or bevelled for; empty for either
	Made frame.Hand `json:"made,omitempty"`
	// edge with a hollow slab's lock block, as the slab lies: hinge or lock
	Block   frame.Side `json:"block,omitzero"`
	TopDown bool       `json:"topDown,omitempty"` // the end marked as its top lies at the foot

	// Closes reports whether an insert closes what is cut open of it, by the rules that it is planned by.
	Closes bool `json:"-"`
}

// Limits are the greatest depths that may come off each edge, by the maker or the certificate; nil for the
// construction's usual ones.
type Limits struct {
	Head  *measure.Length `json:"head,omitempty"`
	Hinge *measure.Length `json:"hinge,omitempty"`
	Lock  *measure.Length `json:"lock,omitempty"`
	Foot  *measure.Length `json:"foot,omitempty"`
}

// Most is the greatest depth that may come off an edge; 0 where it is machined. A hollow slab may lose half its length or
// width, since an insert closes it again. Common practice.
func (s Slab) Most(side frame.Side) measure.Length {
	c, _ := trade.ConstructionByID(s.Construction)
	if !s.Closes || c.Rail == 0 || s.IsMachined(side) || s.own(side) != nil {
		return s.Plain(side)
	}
	return max(s.Plain(side), s.across(side)/2)
}

// Plain is the greatest depth that may come off an edge without an insert; 0 where it is machined.
func (s Slab) Plain(side frame.Side) measure.Length {
	if s.IsMachined(side) {
		return 0
	}
	if own := s.own(side); own != nil {
		return *own
	}
	c, _ := trade.ConstructionByID(s.Construction)
	return c.Most[side]
}

// own is the limit that was given for an edge; nil for the construction's.
func (s Slab) own(side frame.Side) *measure.Length {
	return frame.Each[*measure.Length]{
		frame.Head: s.Limits.Head, frame.Hinge: s.Limits.Hinge, frame.Lock: s.Limits.Lock, frame.Foot: s.Limits.Foot,
	}[side]
}

// across is the slab's own size square to an edge.
func (s Slab) across(side frame.Side) measure.Length {
	if side.Upright() {
		return s.Width
	}
	return s.Length
}

// IsMachined reports whether an edge has bores or recesses.
func (s Slab) IsMachined(side frame.Side) bool {
	for _, m := range s.Machined {
		if m == side {
			return true
		}
	}
	return false
}

// CameBored reports whether it came bored for its lock.
func (s Slab) CameBored() bool { return s.Handle > 0 && s.IsMachined(frame.Lock) }

// WidthAt is the slab's width in mm at a share of its length, 0 at the head to 1 at the foot, linear between the three
// measured places.
func (s Slab) WidthAt(part float64) float64 {
	head := s.Width.MM()
	mid, foot := or(s.WidthMid, s.Width).MM(), or(s.WidthFoot, s.Width).MM()
	if s.WidthMid == 0 {
		mid = (head + foot) / 2
	}
	if part <= 0.5 {
		return head + (mid-head)*2*part
	}
	return mid + (foot-mid)*(2*part-1)
}

// HeadAt and FootAt are how far head and foot are below the slab's top hinge corner, square to the hinge edge, at a
// share of its width, 0 at the hinge edge to 1 at the lock edge; in mm.
func (s Slab) HeadAt(part float64) float64 { return -s.Square.MM() * part }

// FootAt is described with HeadAt.
func (s Slab) FootAt(part float64) float64 {
	lock := or(s.LengthLock, s.Length) - s.Square
	return s.Length.MM() + (lock-s.Length).MM()*part
}

// Less is a slab narrower and shorter than read by so much, in mm.
func (s Slab) Less(width, length float64) Slab {
	less := func(by float64, sizes ...*measure.Length) {
		for _, v := range sizes {
			if *v > 0 { // it was read
				*v -= measure.FromMM(by)
			}
		}
	}
	less(width, &s.Width, &s.WidthMid, &s.WidthFoot)
	less(length, &s.Length, &s.LengthLock)
	return s
}

func or(v, otherwise measure.Length) measure.Length {
	if v == 0 {
		return otherwise
	}
	return v
}

// Weight is about the slab's weight, in kilograms.
func (s Slab) Weight() float64 {
	c, _ := trade.ConstructionByID(s.Construction)
	return s.Width.MM() * s.Length.MM() * s.Thickness.MM() / 1e9 * c.Density
}

// Check reports the first measurement that no slab has, as a field.Error. A measurement of 0 is not given yet.
func (s Slab) Check() error {
	if s.Made != "" && s.Made != frame.Left && s.Made != frame.Right {
		return field.Fault("/made", "refused.slab-made", message.Args{"given": string(s.Made)})
	}
	if s.Block != frame.NoSide && !s.Block.Upright() {
		return field.Fault("/block", "refused.slab-block", nil)
	}
	const mm = measure.Millimetre
	for _, r := range []field.Range{
		{Pointer: "/width", Is: "size.width-of-a-slab", Value: s.Width, Least: 200 * mm, Most: 2000 * mm},
		{Pointer: "/widthMid", Is: "size.width-of-a-slab", Value: s.WidthMid, Least: 200 * mm, Most: 2000 * mm},
		{Pointer: "/widthFoot", Is: "size.width-of-a-slab", Value: s.WidthFoot, Least: 200 * mm, Most: 2000 * mm},
		{Pointer: "/length", Is: "size.length-of-a-slab", Value: s.Length, Least: 500 * mm, Most: 4000 * mm},
		{Pointer: "/lengthLock", Is: "size.length-of-a-slab", Value: s.LengthLock, Least: 500 * mm, Most: 4000 * mm},
		{Pointer: "/thickness", Is: "size.thickness-of-a-slab", Value: s.Thickness, Least: 15 * mm, Most: 120 * mm},
		{
			Pointer: "/square", Is: "size.amount-a-slab-is-out-of-square", Value: s.Square, Least: -30 * mm,
			Most: 30 * mm,
		},
		{Pointer: "/handle", Is: "size.height-of-a-slabs-bore", Value: s.Handle, Least: 300 * mm, Most: 2000 * mm},
		{Pointer: "/stile", Is: "size.width-of-a-stile", Value: s.Stile, Least: 15 * mm, Most: 400 * mm},
		{Pointer: "/pivot", Is: "size.depth-of-a-pivot-hole", Value: s.Pivot, Least: 5 * mm, Most: 200 * mm},
	} {
		if r.Value == 0 {
			continue
		}
		if err := r.Check(); err != nil {
			return err
		}
	}
	if _, ok := trade.ConstructionByID(s.Construction); !ok {
		return field.Fault("/construction", "refused.no-construction", message.Args{
			"given": message.Quote(s.Construction),
		})
	}
	for _, side := range frame.Sides {
		most := 300 * mm
		if own := s.across(side); own > 0 {
			most = own
		}
		if m := s.Most(side); m < 0 || m > most {
			return field.Fault("/limits/"+side.String(), "refused.edge-limit", message.Args{
				"value": message.Exact(m), "edge": message.Edge(side), "most": message.Exact(most),
			})
		}
	}
	return nil
}

// Missing lists the measurements that are not given yet.
func (s Slab) Missing() (fields []string) {
	for _, m := range []struct {
		field string
		v     measure.Length
	}{{"width", s.Width}, {"length", s.Length}, {"thickness", s.Thickness}} {
		if m.v == 0 {
			fields = append(fields, m.field)
		}
	}
	return fields
}
