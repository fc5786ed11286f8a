package hangs

import (
	"kindmargin/core/figure"
	"kindmargin/core/hinge"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Hanging is how the marks are carried to the jamb, and the slab to its hinges.
type Hanging struct {
	Head   [2]figure.Figure  // packers at the head, hinge corner and lock corner
	Shut   figure.Figure     // wedge under the free corner with the door shut
	Open   figure.Figure     // and standing open at 90°, where the floor is another
	Two    bool              // two people lift it
	Steps  []message.Message // in their order
	Goes   message.Sentences // which leaf goes on the slab, and which way the pin comes out
	Screws []message.Message // of each leaf, with their pilots, and which for the trial
}

// Lift is how the marks are carried over and the leaf is lifted to its hinges. corners are the head margins at the
// hinge corner and at the lock corner; shut and open are the heights of its free corner over the floor, shut and at
// 90°.
func Lift(d site.Opening, b site.Bay, corners [2]figure.Figure, shut, open figure.Figure) *Hanging {
	h := Hanging{Head: corners, Shut: shut, Open: open, Two: b.Slab.Weight() > trade.TwoPeople}
	known, _ := d.Kit.Hinge(d.Hinges.Size)
	h.Screws = screws(d.Unit, known)
	if kind, ok := trade.HingeKindByID(known.Kind); ok {
		h.Goes = message.Sentences{{ID: kind.Goes()}}
		if kind.Handed {
			h.Goes = append(h.Goes, message.Message{ID: "hinge-handed." + message.ID(d.HandOf(b))})
		}
	}
	put := func(id message.ID, args message.Args) { h.Steps = append(h.Steps, message.Message{ID: id, Args: args}) }
	if at, end := corners[0].Value, corners[1].Value; at.Round(d.Tape.Step(), measure.Nearest) == end.Round(
		d.Tape.Step(), measure.Nearest,
	) {
		put("hang.stand-even", message.Args{"by": at, "wedge": h.Shut.Value})
	} else {
		put("hang.stand", message.Args{"hinge": at, "lock": end, "wedge": h.Shut.Value})
	}
	if d.Hinges.From != hinge.FromPockets {
		put("hang.marks", nil)
	}
	if d.Hinges.From == hinge.WholeEdge {
		put("hang.whole-edge", nil)
	}
	if b.Slab.Construction == "steel" {
		put("hang.steel", nil)
	} else {
		put("hang.pockets", message.Args{"deep": message.Near(d.Hinges.Plate)})
		if known.Radius > 0 {
			put("hang.round", message.Args{"radius": message.Near(known.Radius)})
		}
		if d.Hinges.Long {
			put("hang.long", nil)
		}
		put("hang.arris", nil)
	}
	if d.Swing.Casing > 0 && b.Slab.Construction != "steel" {
		put("hang.casing", message.Args{"thick": message.Exact(d.Swing.Casing)})
	}
	put("hang.trial", message.Args{"trial": trade.Trial(known.Screws)})
	put(onto(known.Kind), message.Args{"wedge": h.Open.Value})
	put("hang.stop", nil)
	switch {
	case b.Slab.Weight() > trade.MostAlone:
		put("hang.hold-two", message.Args{"weight": message.Mass(b.Slab.Weight())})
	case h.Two:
		put("hang.hold", message.Args{"weight": message.Mass(b.Slab.Weight())})
	}
	return &h
}

// onto is how the slab comes onto its hinges, by their kind.
func onto(kind string) message.ID {
	switch kind {
	case trade.LoosePin:
		return "hang.pins"
	case trade.LiftOff, trade.Rising:
		return "hang.drop"
	case trade.Continuous:
		return "hang.continuous"
	}
	return "hang.lift"
}

// screws are the screws of each leaf of a hinge and their pilots; empty where they are not known.
func screws(u measure.Unit, h trade.Hinge) []message.Message {
	if h.Screws == 0 || h.Screw.Long == 0 {
		return nil
	}
	list := []message.Message{
		{ID: "screws.each", Args: message.Args{
			"count": message.Number(h.Screws), "screw": h.Screw.Message(),
			"soft": message.Near(h.Screw.Pilot(trade.Soft, u)), "hard": message.Near(h.Screw.Pilot(trade.Hard, u)),
		}},
		{ID: "screws.centring"},
		{ID: "screws.trial", Args: message.Args{"trial": trade.Trial(h.Screws)}},
	}
	if h.Kind != trade.Continuous {
		list = append(list, message.Message{
			ID: "screws.long", Args: message.Args{"long": message.Near(trade.LongScrew(u))},
		})
	}
	return append(list, message.Message{ID: "screws.brass"})
}
