// Package stops is the stage in which the stops are placed, with the door shut.
package stops

import (
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Stops is the places of one leaf's stops, and how they are fixed.
type Stops struct {
	lock.StopPlan
	Steps []message.Message // in their order
}

// Place is the places of the stops for the shut slab; nil while its thickness is not known.
func Place(d site.Opening, b site.Bay) (*Stops, site.Findings) {
	var said site.Findings
	if b.Slab.Thickness == 0 {
		return nil, nil
	}
	v := Stops{StopPlan: d.Stops.PlaceStops(b.Slab.Thickness)}
	order, sealed := message.ID("stops.in-order"), d.Stops.Gasket > 0
	if sealed {
		order = "stops.in-order-gasket"
	}
	if b.Meets { // across from its hinges it meets the other leaf
		if order = "stops.in-order-pair"; sealed {
			order = "stops.in-order-pair-gasket"
		}
		v.Moves = slices.DeleteFunc(v.Moves, func(m lock.StopMove) bool {
			return (m.Stop == frame.Lock || m.End == frame.Lock) != b.Second
		})
		for i, m := range v.Moves {
			if b.Second { // its own hinges are on the lock jamb
				v.Moves[i].Stop, v.Moves[i].End = own(m.Stop), own(m.End)
			}
		}
	}
	v.Steps = []message.Message{
		{ID: "stops.shut"},
		{ID: order, Args: message.Args{
			"card": message.Near(v.From.Value - b.Slab.Thickness),
			"from": v.From.Value.Round(d.Tape.Step(), measure.Up),
		}},
		{ID: "stops.old"},
		{ID: "stops.pin"},
	}
	if sealed {
		v.Steps = append(v.Steps, message.Message{ID: "stops.gasket", Args: message.Args{
			"thick": message.Near(d.Stops.Gasket),
		}})
	}
	if d.Rebated() > 0 { // the frame's own
		v.Steps = []message.Message{{ID: "stops.shut"}, {ID: "stops.rebate", Args: message.Args{
			"card": message.Near(v.From.Value - b.Slab.Thickness),
		}}}
	}
	for _, m := range v.Moves {
		if m.By.Value < 0 && m.By.Value+d.Stops.Wanted() < 0 {
			said.Say(site.Care, job.StepStops, "/stops/stand", site.StopHolds, message.Args{
				"stop": m.StopName(), "end": m.EndName(), "by": message.Exact(-m.By.Value),
			})
		}
	}
	if cross := v.Cross.Value.Abs(); cross > trade.MostCross {
		said.Say(site.Care, job.StepStops, "/stops/stand", site.JambsCross, message.Args{
			"by": message.Exact(cross), "each": message.Exact(cross / 4),
		})
	}
	return &v, said
}

// own is a side as the second leaf of a pair names it, which hangs on the lock jamb.
func own(side frame.Side) frame.Side {
	if side == frame.Lock {
		return frame.Hinge
	}
	return side
}
