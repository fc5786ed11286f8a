package survey

import (
	"math"
	"slices"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/message"
)

// Part is the subject of a term: a side of the opening, or another unknown: where a slab stood, how far its edge is off
// its rectangle, the bias of a tool.
type Part uint16

// Of is a side of the opening as a part.
func Of(side frame.Side) Part { return Part(side) }

// Side is the side of a part; ok is false for another unknown.
func (p Part) Side() (side frame.Side, ok bool) { return frame.Side(p), p < firstBias }

// Term is a multiple of one part's coordinate at one place: u of a jamb at height At, v of head or floor at distance At
// from the hinge jamb.
type Term struct {
	Of Part
	At float64
	By float64
}

// Row is a linear figure of the opening: the sum of its terms.
type Row []Term

// row is a row with capacity for one more term, a tool's bias.
func row(terms ...Term) Row { return append(make(Row, 0, len(terms)+1), terms...) }

// Row is the reading as a linear figure of the opening, given the prior's nominal size (which places the corners). A
// gap needs its offer, and a diagonal a shape to be linearised about: see Estimate.
func (r Reading) Row(p Prior) Row {
	at, from := r.At.MM(), r.From.MM()
	switch r.Kind {
	case Straight:
		// The gap is where the side is behind the straightedge.
		back := 1.0
		if r.Side == frame.Hinge || r.Side == frame.Foot {
			back = -1
		}
		f := (at - from) / (r.To.MM() - from)
		return row(Term{Of(r.Side), at, back}, Term{Of(r.Side), from, -back * (1 - f)}, Term{
			Of(r.Side), r.To.MM(), -back * f,
		})
	case Width:
		return row(Term{Of(frame.Lock), at, 1}, Term{Of(frame.Hinge), at, -1})
	case Height:
		return row(Term{Of(frame.Head), at, 1}, Term{Of(frame.Foot), at, -1})
	case Plumb:
		in := 1.0
		if r.Side == frame.Lock {
			in = -1 // into the opening is toward the hinge jamb
		}
		return row(Term{Of(r.Side), at, in}, Term{Of(r.Side), from, -in})
	case Level:
		return row(Term{Of(r.Side), at, 1}, Term{Of(r.Side), from, -1})
	case Square:
		// The blade is square to the jamb, so a jamb that leans into the opening carries the blade's end down and opens
		// the gap.
		if r.Side == frame.Hinge {
			return row(
				Term{Of(frame.Head), at, 1},
				Term{Of(frame.Head), 0, -1},
				Term{Of(frame.Hinge), p.Height, 1},
				Term{Of(frame.Hinge), p.Height - at, -1},
			)
		}
		return row(
			Term{Of(frame.Head), p.Width - at, 1},
			Term{Of(frame.Head), p.Width, -1},
			Term{Of(frame.Lock), p.Height, -1},
			Term{Of(frame.Lock), p.Height - at, 1},
		)
	}
	return nil
}

// diagonalRow is a diagonal linearised about the corners' present places: the unit vector along it, times the
// difference of its ends.
func diagonalRow(side frame.Side, p Prior, corner func(frame.Side, float64) float64) (row Row, constant float64) {
	far := frame.Lock
	from, to := 0.0, p.Width
	if side == frame.Lock {
		far, from, to = frame.Hinge, p.Width, 0
	}
	du := corner(far, p.Height) - corner(side, 0)
	dv := corner(frame.Head, to) - corner(frame.Foot, from)
	d := math.Hypot(du, dv)
	row = Row{
		{Of(far), p.Height, du / d},
		{Of(side), 0, -du / d},
		{Of(frame.Head), to, dv / d},
		{Of(frame.Foot), from, -dv / d},
	}
	// d is homogeneous in its ends, so the linear part is the whole of it.
	return row, 0
}

// rowOf is a reading as a linear figure with its constant part.
func (s *Shape) rowOf(r Reading) (row Row, constant float64, err error) {
	switch r.Kind {
	case Gap:
		if h, ok := s.prior.HangByID(r.Offer); ok {
			row, constant = s.prior.Gap(h, r.Side, r.At.MM())
			break
		}
		k := slices.IndexFunc(s.offers, func(o Offer) bool { return o.ID == r.Offer })
		if k < 0 || k >= mostOffers {
			return nil, 0, field.Fault("/offer", "refused.no-placing", message.Args{"given": message.Quote(r.Offer)})
		}
		row, constant = gapRow(r, k, s.offers[k])
	case Diagonal:
		row, constant = diagonalRow(r.Side, s.prior, s.corner)
	default:
		row = r.Row(s.prior)
	}
	if bias, ok := s.prior.biasTerm(r); ok {
		row = append(row, bias)
	}
	return row, constant, nil
}
