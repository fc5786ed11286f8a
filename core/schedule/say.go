package schedule

import (
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Say is an opening as a row of an exported schedule, by column: text, a number, a measure.Length, or a message.Message
// that names it; unknown values are left out. Read gives the same opening back, as far as a schedule holds one.
func Say(j job.Job, o job.Opening) map[string]any {
	out := map[string]any{"name": o.Name, "hand": string(o.Hand), "hinges": o.Hinges.Number()}
	text := func(id, s string) {
		if s != "" {
			out[id] = s
		}
	}
	length := func(id string, l measure.Length) {
		if l != 0 {
			out[id] = l
		}
	}
	named := func(id string, m message.Message) { out[id] = m }
	text("room", o.Room)
	if c, ok := trade.ConstructionByID(o.Slab.Construction); ok && o.Slab.Construction != "" {
		named("construction", message.Message{ID: c.Name()})
	}
	length("width", o.Slab.Width)
	length("length", o.Slab.Length)
	length("thickness", o.Slab.Thickness)
	if s, ok := trade.SchoolByID(o.Margins.School); ok {
		named("school", message.Message{ID: s.Name()})
	}
	h, ok := j.Kit.Hinge(o.Hinges.Size)
	if ok {
		named("hinge", h.Title())
	}
	// Measures that no list has: of a hinge of one's own, or taken from the one in hand.
	c := o.Hinges
	if t, listed := trade.HingeByID(c.Size); !listed || c.Leaf != t.Leaf || c.Width != t.Width || c.Plate != t.Plate ||
		c.Closed != t.Closed {
		length("hinge-leaf", c.Leaf)
		length("hinge-width", c.Width)
		length("hinge-plate", c.Plate)
		length("hinge-closed", c.Closed)
	}
	if d, ok := j.Kit.HardwareByID(o.Lock.Hardware); ok {
		named("lock", d.Title())
	}
	length("backset", o.Lock.Backset)
	if o.Lock.From == lock.FromHandle {
		length("handle", o.Lock.Handle)
	}
	for p, value := range eachPlaced(o) {
		length(p.ID, value)
	}
	if len(o.Notes) > 0 {
		text("note", o.Notes[0].Text)
	}
	if o.Pair != nil {
		text("leaf", leaves[0])
		length("meeting", o.Pair.Meeting)
		text("fixed", o.Pair.Fixed.String())
	}
	return out
}

// leaves are the two leaves of a pair as a schedule has them: the one on the hinge jamb, and the other.
var leaves = [2]string{"1/2", "2/2"}

// SaySecond is the second leaf of a pair as a row of its own, which Read puts to the one before; nil for a single slab.
func SaySecond(j job.Job, o job.Opening) map[string]any {
	if o.Pair == nil {
		return nil
	}
	all := Say(j, job.Opening{Name: o.Name, Room: o.Room, Hand: o.Hand.Other(), Slab: o.Pair.Slab})
	out := map[string]any{"leaf": leaves[1]}
	for _, id := range []string{"name", "room", "hand", "construction", "width", "length", "thickness"} {
		if v, ok := all[id]; ok {
			out[id] = v
		}
	}
	return out
}
