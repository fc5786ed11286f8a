package plan

import (
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/hinge"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// Hanging is how the marks come to the jamb and the slab to its hinges.
type Hanging struct {
	Head   [2]figure.Figure // packers at the head, hinge corner and lock corner
	Shut   float64          // wedge under the free corner with the door shut, mm
	Open   float64          // and standing open at 90°, where the floor is another
	Two    bool             // two people lift it
	Steps  []string         // in words, in their order
	Screws string           // of the hinge chosen; empty where it is one's own
}

// hanging tells the transfer and the hanging of a leaf; nil while there is no hinge.
func hanging(d door, b bay, l Leaf, corners [2]figure.Figure) *Hanging {
	if len(l.Hinges) == 0 || l.Swing == nil {
		return nil
	}
	h := Hanging{Head: corners, Two: b.slab.Weight() > trade.TwoPeople}
	known, ok := trade.HingeByID(d.Hinges.Size)
	if ok {
		h.Screws = number(known.Screws) + " of " + known.Gauge
	}
	for _, f := range l.Swing.Foot {
		if f.Angle == 0 {
			h.Shut = f.Clear
		}
		if math.Abs(f.Angle-rightAngle) <= l.Swing.Opens/sweepSteps/2+1e-9 {
			h.Open = f.Clear
		}
	}
	if l.Swing.Opens < rightAngle {
		h.Open = l.Swing.Foot[len(l.Swing.Foot)-1].Clear
	}
	say := func(mm float64) string { return measure.Fine(measure.FromMM(mm), measure.Nearest, d.unit) }
	h.Steps = []string{
		"Stand the slab in the opening, tight to the hinge jamb: packers of " + d.tape.Show(corners[0].Value) + " and " + d.tape.Show(corners[1].Value) +
			" at the head's hinge and lock corner, wedges under the foot until it touches them (about " + say(h.Shut) + " under the free corner), a wedge in the lock margin. Put one margin right before the next.",
	}
	if d.Hinges.From != hinge.FromPockets {
		h.Steps = append(h.Steps, "Prick top and bottom of each folded leaf on the jamb, or carry the marks over on the rod; they must meet the figures.")
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
		"Pilot on centre, one or two screws a leaf for the trial; the rest bite fresh wood once it hangs right.",
		"To hang it, stand it open at 90° on a wedge or lever of about "+say(h.Open)+" under the free corner: that floor is another than under the closed door. Top hinge's screw first, kick the foot in, then the bottom one.",
		"Are the stops off, tack a temporary one on: it cannot swing through and tear its hinges.",
	)
	if h.Two {
		h.Steps = append(h.Steps, "About "+Weight(b.slab.Weight(), d.unit)+": one holds, one screws.")
	}
	return &h
}
