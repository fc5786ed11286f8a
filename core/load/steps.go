package load

import (
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// steps are the steps of a leaf's work that is not done yet.
func (l leaf) steps() (list []message.Message) {
	put := func(ids ...message.ID) {
		for _, id := range ids {
			list = append(list, message.Message{ID: id})
		}
	}
	if !l.cut && l.Cut != nil && l.Set() == nil {
		for e := range l.Cut.InOrder() {
			put(e.Means.Name())
			list = append(list, e.Says...)
			if e.Sawing != nil {
				list = append(list, e.Sawing.Steps...)
			}
		}
		for _, i := range l.Cut.Inserts {
			list = append(list, i.Steps...)
		}
		put("work.seal")
	}
	if h := l.Hanging; h != nil && !l.hung {
		if l.slab.Construction != "steel" && l.Opening.Hinges.From != hinge.WholeEdge {
			put("work.pockets")
		}
		put("work.jamb")
		list = append(append(append(list, h.Goes...), h.Screws...), h.Steps...)
	}
	if !l.locked {
		for _, d := range l.Hardware {
			for _, s := range d.Steps {
				list = append(list, s...)
			}
		}
		list = append(list, l.Strikes...)
	}
	if l.Stops != nil && !l.Plan.Done(job.StepStops) {
		list = append(list, l.Stops.Steps...)
	}
	if l.n == 0 && l.Plan.Lining != nil && !l.hung {
		list = append(list, l.Plan.Lining.Steps...)
	}
	put("work.try")
	return list
}

// uses adds what the steps of a leaf use.
func (c *Counter) uses(l leaf) {
	for _, m := range l.steps() {
		for _, u := range stepUses[m.ID] {
			var size measure.Length
			if u.size != "" {
				size, _ = message.LengthOf(m.Args[u.size])
			}
			c.use(u.item, size, l)
		}
	}
}

// use adds one tool, or something that is used up.
func (c *Counter) use(item message.ID, size measure.Length, l leaf) {
	name, note, kind := text(item), []message.Message(nil), Tools
	if id, ok := notes[item]; ok {
		note = noted(id)
	}
	switch {
	case usedUp[item]:
		kind = Inserts
	case item == wedges: // counted with the packers
		return
	case item == pilot:
		if size == 0 {
			size = trade.PilotDia
		}
		name = text(item, message.Args{"dia": message.Near(size)})
		if size == trade.PilotDia {
			note = noted("load.pilot-note")
		}
	case item == bitOf && size == 0:
		return
	case item == bitOf && size > trade.WidestBit:
		name, note = text("load.hole-saw", message.Args{"dia": message.Near(size)}), noted("load.hole-saw-note")
	case item == bitOf:
		name = text(item, message.Args{"dia": message.Near(size)})
	}
	c.need(kind, name, note, 0, l)
}
