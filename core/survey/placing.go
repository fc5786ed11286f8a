package survey

import (
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// Each offer has unknowns of its own, after the sides: the place of its foot at the hinge edge from the frame's origin
// along u and v, its rotation (positive where its head leans toward the hinge jamb), and how far its lock edge, head
// and foot are off the rectangle of its first width and length, seen from its hinge edge. A slab that was trimmed to
// its opening is no rectangle.
const (
	across = iota
	up
	turn
	oldLock // of the old door
	oldHead
	oldFoot
	newLock // of the slab that is to be cut
	newHead
	newFoot
	unknowns // of one offer
)

// The parts: sides, then the biases of tools, then the unknowns of offers.
const (
	firstBias   Part = 16
	firstPlaced Part = 64
)

const (
	shiftSpread = 50.0 // mm
	turnSpread  = 0.02 // mm per mm
	mostOffers  = 1000 // that a Part can number
)

// shapes is the prior of a slab's own edges: offset and bow in mm, lean in mm per mm. An old door was planed to its
// opening; a new slab comes from a machine. Common practice.
var shapes = [2]spread{
	{offset: 30, lean: 0.003, bow: 0.5, run: 700},
	{offset: 30, lean: 0.0007, bow: 0.25, run: 700},
}

// unknown is one of the unknowns of offer number k; shape is that of its edges.
func unknown(k, which int) Part { return firstPlaced + Part(unknowns*k+which) }

func shape(k int, of Offer, side frame.Side) Part {
	which := map[frame.Side]int{frame.Lock: oldLock, frame.Head: oldHead, frame.Foot: oldFoot}[side]
	if !of.Old {
		which += newLock - oldLock
	}
	return unknown(k, which)
}

// gapRow is a gap beside offer number k as a linear figure, and the part of its value from the slab's own size.
func gapRow(r Reading, k int, of Offer) (row Row, constant float64) {
	at := r.At.MM()
	switch r.Side {
	case frame.Hinge: // slab's edge at u = across − turn·v
		return Row{{unknown(k, across), 0, 1}, {unknown(k, turn), 0, -at}, {Of(frame.Hinge), at, -1}}, 0
	case frame.Lock:
		return Row{
			{Of(frame.Lock), at, 1},
			{unknown(k, across), 0, -1},
			{unknown(k, turn), 0, at},
			{shape(k, of, frame.Lock), at, -1},
		}, -of.Width.MM()
	case frame.Head: // slab's edge at v = up + length + turn·u
		return Row{
			{Of(frame.Head), at, 1},
			{unknown(k, up), 0, -1},
			{unknown(k, turn), 0, -at},
			{shape(k, of, frame.Head), at, -1},
		}, -of.Length.MM()
	}
	return Row{
		{unknown(k, up), 0, 1}, {unknown(k, turn), 0, at}, {shape(k, of, frame.Foot), at, 1}, {Of(frame.Foot), at, -1},
	}, 0
}

// ownRow is a measurement of an offer's own edges, as a row with its value, relative to a rectangle, and variance.
type ownRow struct {
	Row
	value, noise float64
	field        string         // of the Offer; empty for its origin
	read         measure.Length // as it was measured
}

// ownKinds are the instrument's figures for each measurement of a slab by tape.
var ownKinds = map[string]Kind{
	"width": Width, "widthMid": Width, "widthFoot": Width, "length": Height, "lengthLock": Height,
}

// own are the rows of width at head, middle and foot, length on both edges, and squareness of its head. The foot's
// corner at the hinge edge is its origin.
func (of Offer) own(k int) (rows []ownRow) {
	lock, head, foot := shape(k, of, frame.Lock), shape(k, of, frame.Head), shape(k, of, frame.Foot)
	width, length := of.Width.MM(), of.Length.MM()
	add := func(field string, read measure.Length, less, sigma float64, row ...Term) {
		rows = append(rows, ownRow{Row: row, value: read.MM() - less, noise: sigma * sigma, field: field, read: read})
	}
	sigma := Width.sigma()
	add("width", of.Width, width, sigma, Term{lock, length, 1})
	if of.WidthMid > 0 {
		add("widthMid", of.WidthMid, width, sigma, Term{lock, length / 2, 1})
	}
	if of.WidthFoot > 0 {
		add("widthFoot", of.WidthFoot, width, sigma, Term{lock, 0, 1})
	}
	add("length", of.Length, length, sigma, Term{head, 0, 1})
	add("", 0, 0, 0, Term{foot, 0, 1})
	if of.LengthLock > 0 {
		add("lengthLock", of.LengthLock, length, sigma, Term{head, width, 1}, Term{foot, width, -1})
	}
	if of.Square != nil {
		add("square", *of.Square, 0, Square.sigma(), Term{head, width, 1}, Term{head, 0, -1})
	}
	return rows
}

// ownEdge is the standard deviation of a slab's sizes where its own edges are what is marked from, in mm.
const ownEdge = 0.05

// Whole is an offer with the sizes that were not measured taken as square.
func (of Offer) Whole() Offer {
	if of.WidthFoot == 0 {
		of.WidthFoot = of.Width
	}
	if of.WidthMid == 0 {
		of.WidthMid = (of.Width + of.WidthFoot) / 2
	}
	if of.LengthLock == 0 {
		of.LengthLock = of.Length
	}
	if of.Square == nil {
		of.Square = new(measure.Length)
	}
	return of
}

// Placing is where an offer stood: its foot corner at the hinge edge, along u and v in mm, and its rotation, positive
// where its head leans toward the hinge jamb. ok is false for an unknown offer.
func (s *Shape) Placing(offer string) (u, v, lean float64, ok bool) {
	k := slices.IndexFunc(s.offers, func(o Offer) bool { return o.ID == offer })
	if k < 0 {
		return 0, 0, 0, false
	}
	m := s.Means([]Row{
		{{unknown(k, across), 0, 1}}, {{unknown(k, up), 0, 1}}, {{unknown(k, turn), 0, 1}},
	})
	return m[0], m[1], m[2], true
}

// Offering is the estimate with another slab stood against the opening, none of whose gaps is read yet.
func (s *Shape) Offering(of Offer) (*Shape, error) {
	return Estimate(s.given, append(slices.Clone(s.offers), of), s.prior)
}
