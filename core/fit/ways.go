package fit

import (
	"kindmargin/core/slab"
)

// Registration is how the outline is laid across the slab: which edge stays as it is.
type Registration string

// The registrations across the slab.
const (
	KeepLock   Registration = "keep-lock"   // all the width off the hinge edge
	KeepHinge  Registration = "keep-hinge"  // all the width off the lock edge
	EvenStiles Registration = "even-stiles" // the same off both, so that the stiles look alike
)

// ShareWidth and ShareLength share the surplus as evenly between both edges as their limits allow. They are not among
// Registrations and AllEnds: they are judged only where no other way keeps to the limits.
const (
	ShareWidth  Registration = "share-width"
	ShareLength Ends         = "share-length"
)

// MeetStrike takes as much off the head as brings an existing bore to the existing strike. It needs Outline.Strike.
const MeetStrike Ends = "bore-to-strike"

// AsOffered cuts the slab as it stood in the opening when its gaps were read. It is not among Registrations, and needs
// Outline.Offer.
const AsOffered Registration = "as-offered"

// Registrations lists the registrations.
var Registrations = []Registration{KeepLock, KeepHinge, EvenStiles}

// Ends is how the outline is laid along the slab: which end stays as it is, as far as its shape allows.
type Ends string

// The ways to share what comes off the length.
const (
	KeepHead Ends = "keep-head" // the head takes only what its shape needs
	EvenEnds Ends = "even-ends" // the same off both, so that rails look alike and a bore keeps its height
	KeepFoot Ends = "keep-foot" // the foot takes only what its shape needs
)

// AllEnds lists the ways along the slab.
var AllEnds = []Ends{KeepHead, EvenEnds, KeepFoot}

// Laying is a registration across and along the slab.
type Laying struct {
	Across Registration
	Along  Ends
}

// Layings lists all combinations.
func Layings() (list []Laying) {
	for _, r := range Registrations {
		for _, e := range AllEnds {
			list = append(list, Laying{r, e})
		}
	}
	return list
}

// Ways lists the ways of laying a slab that are worth judging: all Layings, and for an existing bore and strike those
// that bring the two together.
func Ways(o Outline, s slab.Slab) []Laying {
	ways := Layings()
	if o.strike > 0 && s.Handle > 0 {
		for _, r := range Registrations {
			ways = append(ways, Laying{r, MeetStrike})
		}
	}
	return ways
}

// Shared lists the ways that share the surplus within the limits, beside the usual ones: for a slab from which every
// usual way would cut too much.
func Shared(s slab.Slab) (ways []Laying) {
	for _, r := range append([]Registration{ShareWidth}, Registrations...) {
		ways = append(ways, Laying{r, ShareLength})
	}
	for _, e := range AllEnds {
		ways = append(ways, Laying{ShareWidth, e})
	}
	return ways
}
