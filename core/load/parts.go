package load

import (
	"kindmargin/core/hinge"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
)

// slab counts the slab of a leaf that is not cut yet: as it was measured, or the stock size that its opening takes.
func (c *Counter) slab(l leaf) {
	if l.cut {
		return
	}
	known, _ := trade.ConstructionByID(l.slab.Construction)
	put := func(width, length, thickness measure.Length, note []message.Message, weight float64) {
		if weight > trade.TwoPeople {
			note = append(note, text("load.two-people", message.Args{"weight": message.Mass(weight)}))
		}
		name := message.ID("load.slab")
		if l.Set() != nil {
			name = "load.set"
		}
		c.need(Slabs, text(name, message.Args{
			"construction": known.Name(), "size": message.Size{width, length, thickness},
		}), note, 1, l)
	}
	if len(l.slab.Missing()) == 0 {
		put(l.slab.Width, l.slab.Length, l.slab.Thickness, nil, l.slab.Weight())
		return
	}
	stock := plan.Buy(c.job, l.Opening.Opening, l.n)
	switch {
	case len(stock) == 0:
		c.open(l.name, text("load.slab-waits"))
	case !stock[0].Best:
		c.open(l.name, text("load.no-stock"))
	default:
		put(stock[0].Width, stock[0].Length, stock[0].Thickness, noted("load.stock"), stock[0].Weight)
	}
}

// hinges counts the hinges and screws of a leaf that is not hung yet.
func (c *Counter) hinges(l leaf) {
	if l.hung {
		return
	}
	if l.Set() != nil { // it hangs in its frame; behind the top hinge and through the keep it is screwed to the studs
		c.need(
			Screws, trade.Screw{No: trade.FrameScrew, Long: trade.LongScrew(c.job.Unit)}.Message(), noted("load.into-studs"),
			2, l,
		)
		return
	}
	choice := l.Opening.Hinges
	whole := choice.From == hinge.WholeEdge
	h, known := c.job.Kit.Hinge(choice.Size)
	name := h.Title()
	if !known {
		name = text("load.hinge-of", message.Args{"leaf": message.Size{choice.Leaf, choice.Width}})
	}
	if kind, ok := trade.HingeKindByID(h.Kind); ok && kind.Handed {
		name = handed(name, l)
	}
	n, note := choice.Number(), []message.Message(nil)
	if whole {
		n, note = 1, noted("load.cut-to-length")
	}
	c.need(Hinges, name, note, n, l)
	if h.Screws == 0 || h.Screw.Long == 0 {
		c.open(l.name, text("load.screws-unknown"))
		return
	}
	screws := 2 * n * h.Screws
	if !whole { // one of the top leaf's gives way to a long one into the stud
		screws--
		c.need(
			Screws, trade.Screw{No: h.Screw.No, Long: trade.LongScrew(c.job.Unit)}.Message(), noted("load.into-stud"),
			1, l,
		)
	}
	c.need(Screws, h.Screw.Message(), nil, screws, l)
}

// handed is an item that is made for a hand.
func handed(name message.Message, l leaf) message.Message {
	return text("load.for-hand", message.Args{"name": name, "hand": l.hand})
}

// lock counts the hardware of a leaf whose lock is not done.
func (c *Counter) lock(l leaf) {
	if l.locked {
		return
	}
	put := func(id string, count int, note []message.Message) {
		if d, ok := c.job.Kit.HardwareByID(id); ok {
			name := d.Title()
			if d.Handed != "" {
				name = handed(name, l)
			}
			c.need(Locks, name, note, count, l)
		}
	}
	if l.bolted {
		if n := l.Pair.Holds.Count(); n > 0 {
			put(l.Pair.Bolts, n, noted("load.bolts"))
		}
		return
	}
	if !l.Strike { // a folding leaf
		return
	}
	choice := l.Opening.Lock
	backset := message.Args{"backset": message.Near(choice.Backset)}
	if choice.Hardware == "" {
		c.need(Locks, text("load.latch", backset), noted("load.with-strike"), 1, l)
	}
	put(choice.Hardware, 1, []message.Message{text("load.backset", backset)})
	put(choice.Second, 1, nil)
}

// inserts counts the inserts for a hollow slab's cut ends, and what fills old holes.
func (c *Counter) inserts(l leaf) {
	if l.Cut != nil && !l.cut {
		for _, i := range l.Cut.Inserts {
			if i.Freed && !l.Opening.Cut.Insert.New { // its own rail
				continue
			}
			c.need(
				Inserts, text("load.insert", message.Args{"size": message.Size{i.Width, i.Deep, i.Thickness}}),
				noted("load.insert-note"), len(i.Ends), l,
			)
		}
	}
	if l.n > 0 || l.locked {
		return
	}
	for _, o := range l.Opening.Lock.Old {
		name := message.ID("load.block")
		if o.Dia <= trade.Dowelled {
			name = "load.dowel"
		}
		c.need(Inserts, text(name, message.Args{"dia": message.Near(o.Dia)}), noted("load.old-hole"), 1, l)
		c.need(Inserts, text("load.glue"), noted("load.glued"), 0, l)
	}
}

// packers counts what holds a slab while it is fitted, and the packers behind its hinge leaves. Two at the head, two
// wedges at the foot and one in the lock margin are common practice.
func (c *Counter) packers(l leaf) {
	if l.hung || l.Set() != nil {
		return
	}
	if l.Hanging != nil {
		for _, f := range l.Hanging.Head {
			c.need(
				Packers, text("load.packer", message.Args{"thick": message.At(f.Value)}), noted("load.at-head"), 1, l,
			)
		}
	}
	c.need(Packers, text("load.wedge"), noted("load.wedge-note"), 3, l)
	for _, h := range l.Leaf.Hinges {
		if h.Pack.Value > measure.Millimetre/5 { // less is not seen
			c.need(
				Packers, text("load.card", message.Args{"thick": message.Near(h.Pack.Value)}), noted("load.card-note"),
				1, l,
			)
		}
	}
}

// cuttingOf adds a slab that is not cut yet to the cutting list.
func (c *Counter) cuttingOf(l leaf) {
	if l.cut || l.Cut == nil || len(l.Plan.Clashes) > 0 || l.Set() != nil {
		return
	}
	cut := Cut{Opening: l.name, Slab: message.Size{l.slab.Width, l.slab.Length, l.slab.Thickness}}
	for e := range l.Cut.InOrder() {
		cut.Off[e.Side] = e.Deepest()
		cut.Left = cut.Left || e.Left.Value > 0
	}
	for i := range 3 {
		cut.Width, cut.Length = max(cut.Width, l.Cut.Width[i].Value), max(cut.Length, l.Cut.Length[i].Value)
	}
	c.list.Cutting = append(c.list.Cutting, cut)
}
