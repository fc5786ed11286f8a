package plan

import (
	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Hanging is how the marks come to the jamb and the slab to its hinges.
type Hanging struct {
	Head   [2]figure.Figure  // packers at the head, hinge corner and lock corner
	Shut   figure.Figure     // wedge under the free corner with the door shut
	Open   figure.Figure     // and standing open at 90°, where the floor is another
	Two    bool              // two people lift it
	Steps  []message.Message // in their order
	Goes   message.Sentences // which leaf goes on the slab, and which way the pin comes out
	Screws []message.Message // of each leaf, with their pilots, and which for the trial
}

// hanging tells the transfer and the hanging of a leaf; nil while there is no hinge.
func hanging(d door, b bay, l Leaf, corners [2]figure.Figure) *Hanging {
	if len(l.Hinges) == 0 || l.Swing == nil {
		return nil
	}
	h := Hanging{Head: corners, Shut: l.Swing.Shut, Open: l.Swing.Open, Two: b.slab.Weight() > trade.TwoPeople}
	known, _ := d.kit.Hinge(d.Hinges.Size)
	h.Screws = screws(d.unit, known)
	if kind, ok := trade.HingeKindByID(known.Kind); ok {
		h.Goes = message.Sentences{{ID: kind.Goes()}}
		if kind.Handed {
			h.Goes = append(h.Goes, message.Message{ID: "hinge-handed." + message.ID(handOf(d, b))})
		}
	}
	put := func(id message.ID, args Args) { h.Steps = append(h.Steps, message.Message{ID: id, Args: args}) }
	if at, end := corners[0].Value, corners[1].Value; at.Round(d.tape.Step(), measure.Nearest) == end.Round(d.tape.Step(), measure.Nearest) {
		put("hang.stand-even", Args{"by": at, "wedge": h.Shut.Value})
	} else {
		put("hang.stand", Args{"hinge": at, "lock": end, "wedge": h.Shut.Value})
	}
	if d.Hinges.From != hinge.FromPockets {
		put("hang.marks", nil)
	}
	if d.Hinges.From == hinge.WholeEdge {
		put("hang.whole-edge", nil)
	}
	put("hang.pockets", Args{"deep": message.Near(d.Hinges.Plate)})
	if known.Radius > 0 {
		put("hang.round", Args{"radius": message.Near(known.Radius)})
	}
	if d.Hinges.Long {
		put("hang.long", nil)
	}
	put("hang.trial", Args{"trial": trade.Trial(known.Screws)})
	put("hang.lift", Args{"wedge": h.Open.Value})
	put("hang.stop", nil)
	if h.Two {
		put("hang.hold", Args{"weight": message.Mass(b.slab.Weight())})
	}
	return &h
}

// screws says what goes into each leaf of a hinge, and what is drilled for it; nothing where
// nobody said.
func screws(u measure.Unit, h trade.Hinge) []message.Message {
	if h.Screws == 0 || h.Screw.Long == 0 {
		return nil
	}
	list := []message.Message{
		{ID: "screws.each", Args: Args{
			"count": message.Number(h.Screws), "screw": h.Screw.Message(),
			"soft": message.Near(h.Screw.Pilot(trade.Soft, u)), "hard": message.Near(h.Screw.Pilot(trade.Hard, u)),
		}},
		{ID: "screws.trial", Args: Args{"trial": trade.Trial(h.Screws)}},
	}
	if h.Kind != trade.Continuous {
		list = append(list, message.Message{ID: "screws.long", Args: Args{"long": message.Near(trade.LongScrew(u))}})
	}
	return list
}

// handOf is the hand of a bay's leaf.
func handOf(d door, b bay) frame.Hand {
	if b.second {
		return d.Hand.Other()
	}
	return d.Hand
}
