package trade

import (
	"math"

	"kindmargin/core/message"
)

// Jig is something that is made once and guides the tools at every door of a kind.
type Jig struct {
	ID            string
	Step          string  // the step at which it is used
	Make          float64 // minutes
	ByHand, ByJig float64 // minutes for each piece of hardware, or each recess of a hinge leaf
	Source        string
}

// Name is the name of the jig.
func (j Jig) Name() message.ID { return "jig." + message.ID(j.ID) }

// Saves is how many minutes it saves at a door with so many pieces.
func (j Jig) Saves(pieces int) float64 { return float64(pieces) * (j.ByHand - j.ByJig) }

// PaysFrom is the number of doors with so many pieces from which it saves more than it takes.
func (j Jig) PaysFrom(pieces int) int { return int(math.Ceil(j.Make / j.Saves(pieces))) }

// Jigs: a board for a cased lock, a block for bored ones, a rail for all hinge leaves of a jamb and a slab. Minutes are
// assumed, so that a jig pays from about three doors of a kind (common practice).
var Jigs = []Jig{
	{ID: "case", Step: "lock", Make: 40, ByHand: 28, ByJig: 14, Source: workGuess},
	{ID: "block", Step: "lock", Make: 20, ByHand: 14, ByJig: 7, Source: workGuess},
	{ID: "rail", Step: "hinges", Make: 40, ByHand: 7, ByJig: 3.5, Source: workGuess},
}

// JigByID finds a jig; ok is false for an unknown ID.
func JigByID(id string) (j Jig, ok bool) {
	for _, j := range Jigs {
		if j.ID == id {
			return j, true
		}
	}
	return Jig{}, false
}

// HoleSawDeep is how deep a common hole saw's cup cuts: 1 1/2 in, from memory.
const HoleSawDeep = 38 * mm

// Minutes of fitting hardware. Assumed, so that a tubular latch takes what Works gives for bores and strike.
const (
	markMinutes    = 4.0  // to square the line round and mark the centres
	bothMinutes    = 5.0  // a hole bored from both faces
	oneMinutes     = 3.0  // from one
	boreMinutes    = 5.0  // the bore in the edge
	slotMinutes    = 16.0 // a slot for a case
	plateMinutes   = 8.0  // a faceplate let in
	strikeMinutes  = 14.0 // a strike let in, with its hole
	pressedMinutes = 4.0  // a receiver pressed into a bore
	FittedMinutes  = 10.0 // a case and its handles in a slab that came bored
)

// BoringMinutes is how long its bores and its faceplate take.
func (d Hardware) BoringMinutes() float64 {
	minutes := markMinutes
	for _, h := range d.Holes {
		if h.From == FromBoth {
			minutes += bothMinutes
		} else {
			minutes += oneMinutes
		}
	}
	switch {
	case d.Edge.Long > 0:
		minutes += slotMinutes
	case d.Edge.Bore > 0:
		minutes += boreMinutes
	}
	if d.Plate.Long > 0 {
		minutes += plateMinutes
	}
	return minutes
}

// StrikeMinutes is how long its strike takes.
func (d Hardware) StrikeMinutes() float64 {
	switch {
	case d.Strike.Pressed:
		return pressedMinutes
	case d.Strike.Plate.Long > 0:
		return strikeMinutes
	}
	return 0
}

// SparesBoring is a latch of the list that does the same and needs less boring; ok is false where there is none.
func SparesBoring(d Hardware) (other Hardware, ok bool) {
	minutes := func(h Hardware) float64 { return h.BoringMinutes() + h.StrikeMinutes() }
	for _, o := range AllHardware {
		if o.Kind == d.Kind && o.Kind == "latch" && minutes(o) < minutes(d) {
			return o, true
		}
	}
	return Hardware{}, false
}
