package linings

import (
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// feet reports a set whose legs are too short for the floor: its gap at the foot comes out smaller by as much, or its
// feet are packed up.
func (l *Lining) feet(d site.Opening) (said site.Findings) {
	if d.Set() == nil || d.Set().Leg == 0 {
		return nil
	}
	if short := -min(l.Feet[frame.Hinge], l.Feet[frame.Lock]); short > 0 {
		said.Say(site.Care, job.StepMeasure, "/lining/leg", site.SetShort, message.Args{
			"leg": message.Exact(d.Set().Leg), "by": short,
		})
	}
	return said
}

// rebate reports a frame's own rebate that does not suit the slab: it takes the slab's thickness and a card of play.
func rebate(d site.Opening) (said site.Findings) {
	deep := d.Rebated()
	if deep == 0 || d.Slab.Thickness == 0 {
		return nil
	}
	wanted := d.Slab.Thickness + d.Stops.Wanted()
	code, by := site.RebateShallow, wanted-deep
	if by < 0 {
		code, by = site.RebateDeep, -by
	}
	if by > trade.RebateOff {
		said.Say(site.Care, job.StepMeasure, "/lining/rebate", code, message.Args{
			"rebate": message.Exact(deep), "thickness": message.Exact(d.Slab.Thickness), "wanted": wanted, "by": by,
		})
	}
	return said
}

// setSteps are the steps of setting a frame that comes with its slab: the frame moves, not the slab. Common practice.
func (l *Lining) setSteps(d site.Opening) {
	say := func(id message.ID, args message.Args) { l.Steps = append(l.Steps, message.Message{ID: id, Args: args}) }
	say("set.check", nil)
	hinge, lock := l.Feet[frame.Hinge], l.Feet[frame.Lock]
	switch {
	case d.Set().Leg == 0:
		say("set.feet-to", message.Args{"hinge": l.Jamb[frame.Hinge], "lock": l.Jamb[frame.Lock]})
	case hinge <= 0 && lock <= 0: // nothing is cut
	default:
		say("set.feet", message.Args{"hinge": message.At(max(hinge, 0)), "lock": message.At(max(lock, 0))})
	}
	say("set.stand", message.Args{"packing": max(l.Pack[1], trade.Packing)})
	say("set.hinge-side", nil)
	say("set.lock-side", nil)
	say("set.screws", nil)
	if d.Rebated() > 0 {
		say("set.rebate", nil)
	} else {
		say("set.stop", message.Args{
			"sum": d.Slab.Thickness + d.Stops.Wanted(), "thickness": message.Exact(d.Slab.Thickness),
			"card": message.Near(d.Stops.Wanted()),
		})
	}
	say("set.read", nil)
}
