package locks

import (
	"kindmargin/core/lock"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// steps collects the steps of some work.
type steps []message.Sentences

func (s *steps) put(id message.ID, args message.Args) {
	*s = append(*s, message.Sentences{{ID: id, Args: args}})
}

// more adds a sentence to the last step.
func (s *steps) more(id message.ID, args message.Args) {
	last := len(*s) - 1
	(*s)[last] = append((*s)[last], message.Message{ID: id, Args: args})
}

// boring is the work of a piece of hardware on the slab, in the order in which it is done.
func boring(d site.Opening, b site.Bay, w lock.Work) steps {
	kind, _ := trade.HardwareKindByID(w.Hardware.Kind)
	var s steps
	switch {
	case b.Slab.Construction == "steel":
		s.put("bore.steel", nil)
	case bored(b):
		s.put("bore.there", nil)
	case d.Lock.When == lock.First && w.LeftOn > 0:
		s.put("bore.first-left", message.Args{"left": message.Near(w.LeftOn)})
	case d.Lock.When == lock.First:
		s.put("bore.first", nil)
	case d.Lock.From == lock.FromStrike && !w.Hardware.Surface():
		s.put("bore.hung-strike", nil)
	default:
		s.put("bore.hung", nil)
	}
	made := bored(b) || b.Slab.Construction == "steel" // nothing is bored or chopped in it
	if !made {
		switch c, _ := trade.ConstructionByID(b.Slab.Construction); {
		case c.Surface == trade.OfSkin:
			s.put("bore.tape-skin", nil)
		case trade.Veneered(b.Slab.Construction):
			s.put("bore.tape", nil)
		}
		s.put("bore.line", nil)
		s.holes(w, kind)
	}
	if w.Hardware.Surface() {
		s.onFace(w)
	}
	for _, l := range w.Lengths {
		s.put("bore.length", message.Args{"what": l.Part, "long": message.Near(l.Cut.Value)})
	}
	if w.Plate != nil && !made && !w.Hardware.Surface() {
		s.plate(w)
	}
	s.put("bore.together", nil)
	if kind.Spindle {
		s.more("bore.levers", message.Args{"backset": message.Near(d.Lock.Backset)})
	}
	if kind.ID != "" {
		s.more(kind.Note(), nil)
	}
	switch {
	case kind.ID == "code":
		s.put("bore.code", nil)
	case w.Hardware.Surface():
		s.put("surface.tried", nil)
	default:
		s.put("bore.tried", nil)
	}
	return s
}

// bored reports whether a slab came bored for its lock.
func bored(b site.Bay) bool { return b.Slab.CameBored() }

// holes are bored in the edge and in the faces, in the order of the kind.
func (s *steps) holes(w lock.Work, kind trade.HardwareKind) {
	if w.Edge != nil {
		s.put("bore.middle", message.Args{"gauge": message.Near(w.Gauge.Value)})
		if kind.EdgeFirst {
			s.edge(*w.Edge)
		}
	}
	for _, h := range w.Holes {
		*s = append(*s, hole(h))
	}
	if w.Edge != nil && !kind.EdgeFirst {
		s.edge(*w.Edge)
	}
}

// edge bores the edge, or cuts its slot.
func (s *steps) edge(e lock.EdgeCut) {
	args := message.Args{"wide": message.Near(e.Wide), "deep": message.Near(e.Deep.Value)}
	if e.Long > 0 {
		args["long"], args["down"] = message.Near(e.Long), message.At(e.Down.Value)
		args["bit"] = message.Near(e.Bit)
		s.put("bore.slot", args)
		return
	}
	args["wall"] = message.Near(e.Wall.Value)
	s.put("bore.edge", args)
	if e.Square > 0 {
		s.more("bore.square", message.Args{"high": message.Near(e.Square)})
	}
}

// plate lets the faceplate in, once the edge is down to its line.
func (s *steps) plate(w lock.Work) {
	if w.LeftOn > 0 {
		s.put("bore.plate-waits", message.Args{"left": message.Near(w.LeftOn)})
	}
	r := w.Plate
	args := message.Args{
		"long": message.Near(r.Plate.Long), "wide": message.Near(r.Plate.Wide),
		"thick": message.Near(r.Plate.Thick), "top": message.At(r.Top.Value),
	}
	if r.Plate.Radius > 0 {
		args["radius"] = message.Near(r.Plate.Radius)
		s.put("bore.plate-round", args)
	} else {
		s.put("bore.plate", args)
	}
	s.more("bore.pilots", message.Args{"pilot": message.Near(trade.PlatePilot)})
}

// onFace fixes a surface lock to the pull face and lets its case into the edge.
func (s *steps) onFace(w lock.Work) {
	if lip := w.Hardware.Case.Lip; lip > 0 {
		s.put("surface.plate", message.Args{"lip": message.Near(lip)})
	}
	if r := w.Plate; r != nil {
		s.put("surface.edge", message.Args{"long": message.Near(r.Plate.Long), "thick": message.Near(r.Plate.Thick)})
	}
}

// hole is how a hole in a face is bored, and the nearest bit where its own is not at hand.
func hole(h lock.Hole) message.Sentences {
	bit := h.Bit
	if bit == 0 {
		bit = h.Dia
	}
	args := message.Args{
		"what": h.Title(), "down": message.At(h.Down.Value), "in": message.At(h.In.Value), "bit": message.Near(bit),
	}
	id := message.ID("hole.deep")
	switch {
	case h.From == trade.FromBoth && h.Deep == 0:
		id, args["pilot"] = "hole.both", message.Near(trade.PilotDia)
	case h.Deep == 0:
		id, args["pilot"], args["face"] = "hole.through", message.Near(trade.PilotDia), message.ID("face."+h.From)
	default:
		args["deep"], args["face"] = message.Near(h.Deep), message.ID("face."+h.From)
	}
	list := message.Sentences{{ID: id, Args: args}}
	if bit > trade.WidestBit {
		list = append(list, message.Message{ID: "hole.slow"})
	}
	if bit != h.Dia {
		list = append(list, message.Message{ID: "hole.nearest", Args: message.Args{"dia": message.Near(h.Dia)}})
	}
	return list
}
