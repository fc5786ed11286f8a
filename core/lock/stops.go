package lock

import (
	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Stops is what is chosen, or read, for the stops that the slab closes on.
type Stops struct {
	Play  measure.Length `json:"play,omitempty"`  // wanted between slab and stop; nought trade.StopPlay, a card
	Paint measure.Length `json:"paint,omitempty"` // film still to come on the slab's face and the stop, together
	// Gasket is how thick a gasket in the stop is when the door is shut on it; it takes the place of the play.
	Gasket measure.Length `json:"gasket,omitempty"`
	// Stand is how far the push face of the shut and latched slab is off the existing stops, at the four corners;
	// negative is sprung onto them.
	Stand *Stand `json:"stand,omitempty"`
}

// Stand is read at the four corners.
type Stand struct {
	HingeHead measure.Length `json:"hingeHead"`
	LockHead  measure.Length `json:"lockHead"`
	HingeFoot measure.Length `json:"hingeFoot"`
	LockFoot  measure.Length `json:"lockFoot"`
}

// Check reports the first invalid field, as a field.Error.
func (s Stops) Check() error {
	const mm = measure.Millimetre
	list := []field.Range{
		{Pointer: "/play", Is: "size.play-at-the-doorstops", Value: s.Play, Most: 6 * mm},
		{Pointer: "/paint", Is: "size.coat-of-paint", Value: s.Paint, Most: 3 * mm},
		{Pointer: "/gasket", Is: "size.thickness-of-a-gasket", Value: s.Gasket, Most: 12 * mm},
	}
	if s.Stand != nil {
		for at, v := range map[string]measure.Length{
			"/stand/hingeHead": s.Stand.HingeHead, "/stand/lockHead": s.Stand.LockHead,
			"/stand/hingeFoot": s.Stand.HingeFoot, "/stand/lockFoot": s.Stand.LockFoot,
		} {
			list = append(list, field.Range{
				Pointer: at, Is: "size.gap-between-door-and-doorstop", Value: v, Least: -20 * mm, Most: 40 * mm,
			})
		}
	}
	return field.First(list...)
}

// Wanted is what lies between slab and stop: the gasket, or the play.
func (s Stops) Wanted() measure.Length {
	switch {
	case s.Gasket > 0:
		return s.Gasket
	case s.Play > 0:
		return s.Play
	}
	return trade.StopPlay
}

// StopPlan is the places of the stops.
type StopPlan struct {
	// From is the distance from the jamb's pull-side arris to the stop's face, with the slab closing flush.
	From figure.Figure
	// Moves are how far each end of the existing stops goes toward the slab; negative is away from it, or planed. Nil
	// where they were not read.
	Moves []StopMove
	Cross figure.Figure // how far the four corners are out of one plane; no terms where they were not read
}

// StopMove is one end of a stop.
type StopMove struct {
	Stop frame.Side // frame.Head, or the leg at the hinge or the lock jamb
	End  frame.Side // at which of its ends: of the head's toward which jamb, of a leg at head or foot
	By   figure.Figure
}

// StopName is the ID of the stop, EndName that of its end.
func (m StopMove) StopName() message.ID { return "stop." + message.ID(m.Stop.String()) }
func (m StopMove) EndName() message.ID  { return "stop-end." + message.ID(m.End.String()) }

// PlaceStops gives the stops of a slab of a given thickness.
func (s Stops) PlaceStops(thickness measure.Length) StopPlan {
	play, label := s.Wanted(), message.ID("term.play")
	if s.Gasket > 0 {
		label = "term.gasket"
	}
	p := StopPlan{From: figure.Sum(
		0,
		figure.Term{Label: "term.thickness", Value: thickness, Source: figure.Reading},
		figure.Term{Label: label, Value: play, Source: figure.Choice},
		figure.Term{Label: "term.paint-both", Value: s.Paint, Source: figure.Choice},
	)}
	if s.Stand == nil {
		return p
	}
	move := func(stop, end frame.Side, stands measure.Length) {
		p.Moves = append(p.Moves, StopMove{stop, end, figure.Sum(
			0,
			figure.Term{Label: "term.stands-off", Value: stands, Source: figure.Reading},
			figure.Term{Label: "term.play-wanted", Value: -play - s.Paint, Source: figure.Choice},
		)})
	}
	move(frame.Head, frame.Hinge, s.Stand.HingeHead)
	move(frame.Head, frame.Lock, s.Stand.LockHead)
	move(frame.Hinge, frame.Head, s.Stand.HingeHead)
	move(frame.Hinge, frame.Foot, s.Stand.HingeFoot)
	move(frame.Lock, frame.Head, s.Stand.LockHead)
	move(frame.Lock, frame.Foot, s.Stand.LockFoot)
	p.Cross = figure.Sum(
		0,
		figure.Term{Label: "term.stand-hinge-head", Value: s.Stand.HingeHead, Source: figure.Reading},
		figure.Term{Label: "term.stand-lock-foot", Value: s.Stand.LockFoot, Source: figure.Reading},
		figure.Term{Label: "term.less-lock-head", Value: -s.Stand.LockHead, Source: figure.Reading},
		figure.Term{Label: "term.less-hinge-foot", Value: -s.Stand.HingeFoot, Source: figure.Reading},
	)
	return p
}
