package plan

import (
	"slices"
	"strings"

	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Stops is where the stops of one leaf go, and how.
type Stops struct {
	lock.StopPlan
	Steps []string // in words, in their order
}

// stops places the stops that the shut slab lands on; nil while its thickness is not known.
func stops(d door, b bay) (*Stops, findings) {
	var said findings
	if b.slab.Thickness == 0 {
		return nil, nil
	}
	v := Stops{StopPlan: d.Stops.PlaceStops(b.slab.Thickness)}
	legs := "then the hinge leg, then the lock leg"
	if b.meets { // across from its hinges it meets the other leaf
		legs = "then the hinge leg"
		v.Moves = slices.DeleteFunc(v.Moves, func(m lock.StopMove) bool {
			lockSide := m.Stop == "lock leg" || m.End == "lock end"
			return lockSide != b.second
		})
		for i, m := range v.Moves {
			if b.second {
				v.Moves[i].Stop, v.Moves[i].End = strings.Replace(m.Stop, "lock", "hinge", 1), strings.Replace(m.End, "lock", "hinge", 1)
			}
		}
	}
	say := func(l measure.Length) string { return measure.Fine(l, measure.Nearest, d.unit) + " " + string(d.unit) }
	v.Steps = []string{
		"Shut the door and latch it: it is held by the latch, not by the stops.",
		"Head stop first, " + legs + ": each with a card of " + say(v.From.Value-b.slab.Thickness) + " between it and the slab; " + say(v.From.Value) + " from the jamb's pull-side arris, where slab and jamb are flush.",
		"Cut the paint in the corners before an old one comes off; ease it a little at a time, and pull its nails back through.",
		"Two pins in each at first, heads proud; open and shut: it clicks, and neither rattles nor springs. Then the rest.",
	}
	for _, m := range v.Moves {
		if m.By.Value < 0 && m.By.Value+d.playWanted() < 0 {
			said.say(Care, job.StepStops, "/stops/stand", StopHolds, Args{"stop": m.Stop, "end": m.End, "by": message.Exact(-m.By.Value)})
		}
	}
	if cross := v.Cross.Value.Abs(); cross > trade.MostCross {
		said.say(Care, job.StepStops, "/stops/stand", JambsCross, Args{"by": message.Exact(cross), "each": message.Exact(cross / 4)})
	}
	return &v, said
}

func (d door) playWanted() measure.Length {
	if d.Stops.Play > 0 {
		return d.Stops.Play
	}
	return trade.StopPlay
}
