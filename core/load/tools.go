package load

import (
	"fmt"

	"kindmargin/core/frame"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
)

// tool adds a tool that does for every door.
func (c *Counter) tool(name, note string, l leaf) { c.need(Tools, name, note, 0, l) }

// tools adds the tools for what is still to be done to a leaf. All common practice, but for
// the bits, which are what its devices are bored with.
func (c *Counter) tools(l leaf) {
	if l.Signed != nil {
		return
	}
	if !l.cut && l.n == 0 {
		for _, r := range l.Plan.ToRead {
			c.tool(r.Tool, "to read on", l)
		}
	}
	c.tool("pencil, knife, tape, square", "", l)
	c.tool("driver and spare battery", "", l)
	c.tool("packers and feelers for the gaps", "", l)
	c.tool("hand plane", "", l)
	c.tool("eyes, ears, dust mask, extraction", "", l)
	if !l.cut && l.Cut != nil {
		c.cutters(l)
	}
	if !l.hung {
		c.tool("stand or trestles", "a loose slab is never leaned", l)
		c.tool("marking gauges, two", "each set once", l)
		c.tool("chisels and mallet", "", l)
		if h, ok := c.job.Kit.Hinge(l.Opening.Hinges.Size); ok && h.Screw.Long > 0 {
			c.tool("pilot bit, "+c.say(h.Screw.Pilot(wood(l), c.job.Unit)), "for "+h.Screw.Say(c.job.Unit), l)
		}
	}
	if !l.locked {
		for _, d := range l.Devices {
			c.bits(l, d.Work)
		}
	}
}

// wood is what a leaf's screws go into.
func wood(l leaf) string {
	if l.slab.Construction == "solid" || l.slab.Construction == "planked" {
		return trade.Hard
	}
	return trade.Soft
}

// cutters adds what each edge of a slab is brought down with.
func (c *Counter) cutters(l leaf) {
	for _, e := range l.Cut.Edges {
		switch deep := deepest(e); {
		case deep >= trade.SawFrom:
			blade := "fine-toothed saw blade"
			if e.Side == frame.Head || e.Side == frame.Foot {
				blade = "fine-toothed cross-cut blade"
			}
			c.tool("saw and guide", "", l)
			c.tool(blade, "", l)
		case deep > trade.PlaneTo:
			c.tool("power plane", "", l)
		}
	}
	if l.Swing != nil && l.Swing.Bevel.Value > 0 {
		c.tool("bevel gauge", "for the lock edge", l)
	}
}

// bits adds what a device is bored and let in with.
func (c *Counter) bits(l leaf, w lock.Work) {
	bit := func(size measure.Length) {
		switch {
		case size == 0:
		case size > trade.WidestBit:
			c.tool("hole saw, "+c.say(size), "", l)
		default:
			c.tool("bit, "+c.say(size), "", l)
		}
	}
	c.tool("pilot bit, "+c.say(trade.PilotDia), "right through, before any other", l)
	for _, h := range w.Holes {
		bit(h.Bit)
		if h.Bit == 0 {
			c.open(l.name, "no bit of "+c.say(h.Dia)+" is in the kit, for the "+h.What)
		}
	}
	if w.Edge != nil {
		bit(w.Edge.Bit)
	}
	if w.Strike != nil {
		bit(w.Strike.Hole)
	}
	if len(w.Lengths) > 0 {
		c.tool("hacksaw and file", "for what is cut to the slab's thickness", l)
	}
}

// settings adds what is set for a leaf.
func (c *Counter) settings(l leaf) {
	if l.Signed != nil {
		return
	}
	if !l.hung && len(l.Leaf.Hinges) > 0 {
		c.set("Marking gauge, and a router's depth: hinge pockets", c.say(l.Gauges.Depth.Value)+" deep", l)
		c.set("Marking gauge: hinge pockets, from the pull face", c.say(l.Gauges.Width.Value)+" wide", l)
	}
	if !l.cut && l.Swing != nil && l.Swing.Bevel.Value > 0 {
		c.set("Bevel gauge: lock edge", c.say(l.Swing.Bevel.Value)+" in "+c.say(l.slab.Thickness), l)
	}
	if l.locked {
		return
	}
	for _, d := range l.Devices {
		w := d.Work
		c.set("Gauge: centre of the lock edge, from both faces", c.say(w.Gauge.Value), l)
		if w.Edge != nil {
			c.set("Depth stop: "+w.Device.Name, c.say(w.Edge.Deep.Value), l)
		}
		if w.Plate != nil {
			c.routed("faceplate", w.Plate.Plate, l)
		}
		if w.Strike != nil {
			c.routed("strike", w.Strike.Plate, l)
		}
	}
}

// routed adds a template for a plate, with the usual cutter and bush.
func (c *Counter) routed(what string, p trade.Plate, l leaf) {
	if p.Long == 0 {
		return
	}
	r := lock.UsualRouter // sold in millimetres
	c.set(
		fmt.Sprintf("Router: %s of %s × %s, %.0f mm cutter in a %.0f mm bush", what, c.bare(p.Wide), c.say(p.Long), r.Cutter.MM(), r.Bush.MM()),
		c.say(p.Thick)+" deep, template's hole "+c.bare(r.Opening(p.Wide))+" × "+c.say(r.Opening(p.Long)), l,
	)
}

// rod is a story rod, and which doors share it.
type rod struct {
	Setting
	marks []plan.RodMark
}

// rodOf adds a door to those that share a story rod: the first whose marks lie within half a
// mark of the tape of this one's, or one of its own.
func (c *Counter) rodOf(d Door) {
	l := leaves(d)[0]
	if l.hung || len(l.Rod) == 0 {
		return
	}
	for i, r := range c.rods {
		if plan.SameRod(r.marks, l.Rod, c.job.Tape.Step()/2) {
			c.rods[i].Doors = append(r.Doors, d.Name)
			return
		}
	}
	c.rods = append(c.rods, rod{Setting{"Story rod", "marked from " + l.name, []string{d.Name}}, l.Rod})
}
