package swings

import (
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// OpensWhy is why a slab opens as far as it does: the obstacles, in order.
func (w Swing) OpensWhy() (list []message.Message) {
	for _, m := range w.Meets {
		list = append(list, message.Message{
			ID: "why.meets", Args: message.Args{"thing": m.Thing, "angle": message.Degrees(m.Angle)},
		})
	}
	if w.Opens == 180 {
		list = append(list, message.Message{ID: "why.folds-back"})
	}
	return list
}

// leastLean is the smallest lean of the hinge line, in a metre, that is reported: a level does not show less.
const leastLean = measure.Millimetre / 2

// RestsWhy is why a slab comes to rest where it does.
func (w Swing) RestsWhy() []message.Message {
	side, out, turns, turn := message.ID("why.leans-to-lock"), message.ID(
		"why.leans-to-you",
	), w.Drift.Shuts, message.ID("why.shuts")
	if w.Drift.Side < 0 {
		side = "why.leans-from-lock"
	}
	if w.Drift.Out < 0 {
		out = "why.leans-from-you"
	}
	if turns < 0 {
		turns, turn = -turns, "why.opens"
	}
	var why []message.Message
	for _, lean := range []struct {
		id message.ID
		by measure.Length
	}{{side, w.Drift.Side.Abs()}, {out, w.Drift.Out.Abs()}} {
		if lean.by >= leastLean {
			why = append(why, message.Message{ID: lean.id, Args: message.Args{"by": message.Slope(lean.by)}})
		}
	}
	if why == nil {
		why = []message.Message{{ID: "why.plumb"}}
	}
	return append(why,
		message.Message{ID: turn, Args: message.Args{
			"weight": message.Mass(w.Weight), "turns": message.Torque(turns), "angle": message.Degrees(letGo),
		}},
		message.Message{ID: "why.rubs", Args: message.Args{"rubs": message.Torque(w.Drift.Rubs)}},
	)
}
