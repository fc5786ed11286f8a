package load

import (
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
)

// tool adds a tool that serves all openings.
func (c *Counter) tool(name message.Message, note []message.Message, l leaf) {
	c.need(Tools, name, note, 0, l)
}

// tools adds the tools for a leaf's remaining work. All common practice, but for the bits, which its hardware asks for.
func (c *Counter) tools(l leaf) {
	if l.Signed != nil {
		return
	}
	if !l.cut && l.n == 0 {
		for _, r := range l.Plan.ToRead {
			c.tool(r.Tool, noted("load.to-read"), l)
		}
	}
	c.uses(l)
	if !l.cut && l.Cut != nil {
		c.blades(l)
	}
	if !l.hung && l.Set() == nil {
		if h, ok := c.job.Kit.Hinge(l.Opening.Hinges.Size); ok && h.Screw.Long > 0 {
			c.tool(
				text("load.pilot", message.Args{"dia": message.Near(h.Screw.Pilot(wood(l), c.job.Unit))}),
				[]message.Message{text("load.for-screw", message.Args{"screw": h.Screw.Message()})}, l,
			)
		}
	}
	if !l.locked {
		for _, d := range l.Hardware {
			for _, h := range d.Holes {
				if h.Bit == 0 {
					c.open(l.name, text("load.no-bit", message.Args{"dia": message.Near(h.Dia), "hole": h.Title()}))
				}
			}
		}
	}
}

// wood is the wood that a leaf's screws go into.
func wood(l leaf) string {
	if l.slab.Construction == "solid" || l.slab.Construction == "planked" {
		return trade.Hard
	}
	return trade.Soft
}

// blades adds the blade by which each edge of a slab is sawn.
func (c *Counter) blades(l leaf) {
	for e := range l.Cut.InOrder() {
		switch {
		case !e.Means.Saws():
		case e.Side.Upright():
			c.tool(text("load.blade"), nil, l)
		default:
			c.tool(text("load.cross-blade"), nil, l)
		}
	}
}

// settings adds the settings for a leaf.
func (c *Counter) settings(l leaf) {
	if l.Signed != nil {
		return
	}
	if !l.hung && len(l.Leaf.Hinges) > 0 && l.Set() == nil {
		c.set(text("load.set-depth"), text("load.deep", message.Args{"by": message.Near(l.Gauges.Depth.Value)}), l)
		c.set(text("load.set-width"), text("load.wide", message.Args{"by": message.Near(l.Gauges.Width.Value)}), l)
	}
	if !l.cut && l.Swing != nil && l.Swing.Bevel.Value > 0 {
		c.set(text("load.set-bevel"), text("load.in-thickness", message.Args{
			"by": message.Near(l.Swing.Bevel.Value), "thickness": message.Near(l.slab.Thickness),
		}), l)
	}
	if l.locked {
		return
	}
	for _, d := range l.Hardware {
		w := d.Work
		c.set(text("load.set-centre"), text("load.at", message.Args{"by": message.Near(w.Gauge.Value)}), l)
		if w.Edge != nil {
			c.set(
				text("load.set-stop", message.Args{"hardware": w.Hardware.Title()}),
				text("load.at", message.Args{"by": message.Near(w.Edge.Deep.Value)}), l,
			)
		}
		if w.Plate != nil {
			c.routed("load.faceplate", w.Plate.Plate, l)
		}
		if w.Strike != nil {
			c.routed("load.strike", w.Strike.Plate, l)
		}
	}
}

// routed adds the template for a plate, with the usual cutter and guide bush.
func (c *Counter) routed(what message.ID, p trade.Plate, l leaf) {
	if p.Long == 0 {
		return
	}
	r := c.job.Kit.Router()
	c.set(
		text("load.set-router", message.Args{
			"what": what, "size": message.Size{p.Wide, p.Long}, "cutter": message.Near(r.Cutter),
			"bush": message.Near(r.Bush),
		}),
		text("load.routed", message.Args{
			"deep": message.Near(p.Thick), "size": message.Size{r.Opening(p.Wide), r.Opening(p.Long)},
		}), l,
	)
}

// rod is a story rod, and the openings that share it.
type rod struct {
	Setting
	marks []plan.RodMark
}

// rodOf adds an opening to a shared story rod: the first whose marks are within half a mark of the tape of its own, or
// a new one.
func (c *Counter) rodOf(d Opening) {
	l := leaves(d)[0]
	if l.hung || len(l.Rod) == 0 || l.Set() != nil {
		return
	}
	for i, r := range c.rods {
		if plan.SameRod(r.marks, l.Rod, c.job.Tape.Step()/2) {
			c.rods[i].Openings = append(r.Openings, d.Name)
			return
		}
	}
	c.rods = append(c.rods, rod{
		Setting{text("load.story-rod"), text("load.marked-from", message.Args{"door": l.name}), []string{d.Name}},
		l.Rod,
	})
}
