package plan

import (
	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// Hanging is how the marks come to the jamb and the slab to its hinges.
type Hanging struct {
	Head   [2]figure.Figure // packers at the head, hinge corner and lock corner
	Shut   figure.Figure    // wedge under the free corner with the door shut
	Open   figure.Figure    // and standing open at 90°, where the floor is another
	Two    bool             // two people lift it
	Steps  []string         // in words, in their order
	Goes   string           // which leaf goes on the slab, and which way the pin comes out
	Screws []string         // of each leaf, with their pilots, and which for the trial
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
		h.Goes = kind.Goes
		if kind.Handed {
			h.Goes += " It is handed: buy it for hinges on the " + string(handOf(d, b)) + "."
		}
	}
	say := func(f figure.Figure) string { return measure.Fine(f.Value, measure.Nearest, d.unit) }
	h.Steps = []string{
		"Stand the slab in the opening, tight to the hinge jamb: packers of " + d.tape.Show(corners[0].Value) + " and " + d.tape.Show(corners[1].Value) +
			" at the head's hinge and lock corner, wedges under the foot until it touches them (about " + say(h.Shut) + " under the free corner), a wedge in the lock margin. Put one margin right before the next.",
	}
	if d.Hinges.From != hinge.FromPockets {
		h.Steps = append(h.Steps, "Prick top and bottom of each folded leaf on the jamb, or carry the marks over on the rod; they must meet the figures.")
	}
	if d.Hinges.From == hinge.WholeEdge {
		h.Steps = append(h.Steps, "One rebate along the whole edge of the slab and of the jamb, as deep as the leaf; pack the jamb's between its top, its middle and its foot so that the pin is straight.")
	}
	h.Steps = append(
		h.Steps,
		"Pockets: knife round the leaf itself, chop across the grain, pare flat to "+measure.Fine(d.Hinges.Plate, measure.Nearest, d.unit)+" (a router's depth is set from the leaf, battery out). The leaf lies flush, tight in its corners, and true when you look along the edge.",
	)
	if known.Radius > 0 {
		h.Steps = append(h.Steps, "Its corners are round, "+measure.Fine(known.Radius, measure.Nearest, d.unit)+" of radius: leave the cutter's corners, square none.")
	}
	if d.Hinges.Long {
		h.Steps = append(h.Steps, "The lower pockets a hair long, so that it hangs easily.")
	}
	h.Steps = append(
		h.Steps,
		"Pilot on centre, and put in "+trade.Trial(known.Screws)+" of each leaf's screws for the trial; the rest bite fresh wood once it hangs right.",
		"To hang it, stand it open at 90° on a wedge or lever of about "+say(h.Open)+" under the free corner: that floor is another than under the closed door. Top hinge's screw first, kick the foot in, then the bottom one.",
		"Are the stops off, tack a temporary one on: it cannot swing through and tear its hinges.",
	)
	if h.Two {
		h.Steps = append(h.Steps, "About "+Weight(b.slab.Weight(), d.unit)+": one holds, one screws.")
	}
	return &h
}

// screws says what goes into each leaf of a hinge, and what is bored for it; nothing where
// nobody said.
func screws(u measure.Unit, h trade.Hinge) (list []string) {
	if h.Screws == 0 || h.Screw.Long == 0 {
		return nil
	}
	say := func(l measure.Length) string { return measure.Fine(l, measure.Nearest, u) + " " + string(u) }
	list = []string{
		number(h.Screws) + " a leaf, " + h.Screw.Say(u) + "; pilot " + say(h.Screw.Pilot(trade.Soft, u)) + " for softwood, " + say(h.Screw.Pilot(trade.Hard, u)) +
			" for hardwood, as deep as the screw is long",
		"For the trial " + trade.Trial(h.Screws) + "; the others once it hangs right",
	}
	if h.Kind != trade.Continuous {
		list = append(list, "Last, in the top hole of the top hinge's jamb leaf, one of "+say(trade.LongScrew(u))+" into the stud: that hole is pulled hardest")
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
