package load

import (
	"fmt"

	"kindmargin/core/hinge"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
)

// slab counts the slab of a leaf that is not cut yet: as it was measured, or the stock size
// that its opening wants.
func (c *Counter) slab(l leaf) {
	if l.cut {
		return
	}
	known, _ := trade.ConstructionByID(l.slab.Construction)
	put := func(width, length, thickness measure.Length, note string, weight float64) {
		if weight > trade.TwoPeople {
			if note != "" {
				note += "; "
			}
			note += "about " + plan.Weight(weight, c.job.Unit) + " each: two people"
		}
		c.need(Slabs, known.Name+", "+c.size(width, length, thickness), note, 1, l)
	}
	if len(l.slab.Missing()) == 0 {
		put(l.slab.Width, l.slab.Length, l.slab.Thickness, "", l.slab.Weight())
		return
	}
	stock := plan.Buy(c.job, l.Opening, l.n)
	switch {
	case len(stock) == 0:
		c.open(l.name, "its slab waits for a width and a height of the opening")
	case !stock[0].Best:
		c.open(l.name, "no stock size fits its opening: have one made")
	default:
		put(stock[0].Width, stock[0].Length, stock[0].Thickness, "stock size, still to be bought", stock[0].Weight)
	}
}

// hinges counts the hinges and screws of a leaf that does not hang yet.
func (c *Counter) hinges(l leaf) {
	if l.hung {
		return
	}
	choice := l.Opening.Hinges
	whole := choice.From == hinge.WholeEdge
	h, known := c.job.Kit.Hinge(choice.Size)
	name, note := h.Name, ""
	if !known {
		name = fmt.Sprintf("hinge, leaf %s × %s", c.bare(choice.Leaf), c.say(choice.Width))
	}
	if kind, ok := trade.HingeKindByID(h.Kind); ok && kind.Handed {
		name += ", for hinges on the " + string(l.hand)
	}
	n := plan.HingesOf(choice)
	if whole {
		n, note = 1, "cut to length at the foot"
	}
	c.need(Hinges, name, note, n, l)
	if h.Screws == 0 || h.Screw.Long == 0 {
		c.open(l.name, "nobody said which screws its hinges take")
		return
	}
	screws := 2 * n * h.Screws
	if !whole { // one of the top leaf's gives way to a long one into the stud
		screws--
		c.need(Screws, trade.Screw{No: h.Screw.No, Long: trade.LongScrew(c.job.Unit)}.Say(c.job.Unit), "into the stud, top hinge's jamb leaf", 1, l)
	}
	c.need(Screws, h.Screw.Say(c.job.Unit), "", screws, l)
}

// lock counts the devices of a leaf whose lock is not done.
func (c *Counter) lock(l leaf) {
	if l.locked {
		return
	}
	put := func(id string, count int, note string) {
		if d, ok := c.job.Kit.Device(id); ok {
			name := d.Name
			if d.Handed != "" {
				name += ", for hinges on the " + string(l.hand)
			}
			c.need(Locks, name, note, count, l)
		}
	}
	if l.bolted {
		put(l.Pair.Bolts, 2, "top and bottom of the fixed leaf")
		return
	}
	choice := l.Opening.Lock
	if choice.Device == "" {
		c.need(Locks, "latch, backset "+c.say(choice.Backset), "with its strike", 1, l)
	}
	put(choice.Device, 1, "backset "+c.say(choice.Backset))
	put(choice.Second, 1, "")
}

const glue, glued = "wood glue", "with tape, or clamps and battens"

// inserts counts what closes a hollow slab's cut ends, and fills old holes.
func (c *Counter) inserts(l leaf) {
	if l.Cut != nil && !l.cut {
		for _, i := range l.Cut.Inserts {
			c.need(Inserts, "insert, "+c.size(i.Width, i.Deep, i.Thickness), "softwood or MDF, between the stiles and the skins", 1, l)
			c.need(Inserts, glue, glued, 0, l)
		}
		c.need(Inserts, "sealer or primer", "for fresh cuts, the ends most of all", 0, l)
	}
	if l.n > 0 || l.locked {
		return
	}
	for _, o := range l.Opening.Lock.Old {
		name := "block of the same wood, for an old recess of " + c.say(o.Dia)
		if o.Dia <= trade.Dowelled {
			name = "dowel, " + c.say(o.Dia)
		}
		c.need(Inserts, name, "for an old hole", 1, l)
		c.need(Inserts, glue, glued, 0, l)
	}
}

// packers counts what holds a slab while it is fitted, and what goes behind its leaves. Two
// packers at the head, two wedges at the foot and one in the lock margin are common practice.
func (c *Counter) packers(l leaf) {
	if l.hung {
		return
	}
	if l.Hanging != nil {
		for _, f := range l.Hanging.Head {
			c.need(Packers, "packer, "+c.job.Tape.Show(f.Value)+" "+string(c.job.Unit), "at the head", 1, l)
		}
	}
	c.need(Packers, "wedge", "two under the foot, one in the lock margin", 3, l)
	for _, h := range l.Leaf.Hinges {
		if h.Pack.Value > measure.Millimetre/5 { // less is not seen
			c.need(Packers, "card, "+c.say(h.Pack.Value), "behind a jamb leaf", 1, l)
		}
	}
}

// cuttingOf puts a slab that is still to be cut on the cutting list.
func (c *Counter) cuttingOf(l leaf) {
	if l.cut || l.Cut == nil || len(l.Plan.Clashes) > 0 {
		return
	}
	cut := Cut{Door: l.name, Slab: c.size(l.slab.Width, l.slab.Length, l.slab.Thickness)}
	for _, e := range l.Cut.Edges {
		cut.Off[e.Side] = deepest(e)
		cut.Left = cut.Left || e.Left.Value > 0
	}
	for i := range 3 {
		cut.Width, cut.Length = max(cut.Width, l.Cut.Width[i].Value), max(cut.Length, l.Cut.Length[i].Value)
	}
	c.list.Cutting = append(c.list.Cutting, cut)
}

// deepest is the most that comes off an edge.
func deepest(e plan.EdgeCut) (d measure.Length) {
	for _, m := range e.Marks {
		d = max(d, m.Depth.Value)
	}
	return d
}
