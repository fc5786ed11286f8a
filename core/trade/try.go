package trade

import (
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Sight is what is seen of a gap that was not read with a packer.
type Sight struct {
	ID   string
	Gap  measure.Length // what it is taken for
	Sure float64        // its standard deviation, mm
}

// Name is the name of the sight.
func (s Sight) Name() message.ID { return "sight." + message.ID(s.ID) }

// Sights of one gap. The thinnest packer is half a millimetre, a rub leaves at most a pencil's mark: common practice.
var Sights = []Sight{
	{"rubs", 150 * measure.Micrometre, 0.15},
	{"nothing", 250 * measure.Micrometre, 0.2},
	{"thinnest", 750 * measure.Micrometre, 0.2},
}

// SightByID finds a sight; ok is false for an unknown ID.
func SightByID(id string) (s Sight, ok bool) {
	for _, s := range Sights {
		if s.ID == id {
			return s, true
		}
	}
	return s, false
}

// Ticks of a slab that does not go in: shut against the frame, whose edge is pencilled on it; each is measured from the
// slab's edge, below nought where the slab overlaps. Sigma is its standard deviation in mm. Common practice.
const (
	TickSigma   = 0.5
	TickMinutes = 0.3
)

// TickSure is the ± of a tick: two standard deviations.
const TickSure = 2 * TickSigma * measure.Millimetre

// Errors of hanging a slab to its marks: standard deviations in mm. Assumed.
const (
	HungPin  = 0.5  // of each hinge at the first hang by rules 1 to 4, and of all hinges moved up or down
	Repacked = 0.15 // of a hinge that was packed or let in, against what was meant
	Rehung   = 0.1  // of each hinge of a slab that was taken off and hung again on the same screws
)

// The greatest total moves of a hinge of a hung slab, and their step. Common practice.
const (
	MostOut   = 3 * measure.Millimetre / 2 // packed: past it the screws hardly hold
	MostLetIn = measure.Millimetre
	MostUp    = 3 * measure.Millimetre
	UpStep    = measure.Millimetre / 2
)

// PackStep is the thinnest card that packs a hinge; a chisel pares as finely.
func PackStep(u measure.Unit) measure.Length {
	if u == measure.Inches {
		return measure.Inch / 64
	}
	return measure.Millimetre / 4
}

// MostHanging is the most that is planed off a lock edge with the slab hanging, its foot wedged; head and foot are end
// grain, out of reach, and need it taken down. Common practice.
const MostHanging = 3 * measure.Millimetre / 2

// Minutes of work on a hung slab. Assumed.
const (
	GapMinutes   = 0.2  // a gap looked at
	LightMinutes = 0.5  // the light looked along, all round
	SlideMinutes = 1.0  // a packer slid all round
	SlideSpares  = 10.0 // by which what is in doubt falls where the packer passes: for less it is not slid
	SlideMore    = 0.15 // mm by which it is thicker than the least margin: a card, so that what passes is not under it
	PackMinutes  = 4.0  // a hinge packed out: wedge the foot, draw the screws, card behind the leaf
	LetInMinutes = 8.0  // a hinge let in deeper
	UpMinutes    = 25.0 // all hinges moved up or down: old holes plugged, new ones bored
	PlaneMinutes = 4.0  // an edge planed: marks, arris, sealing
	WoodMinutes  = 3.0  // for each square of a millimetre's depth by a metre's length
	AwkwardMore  = 2.0  // more, for an edge that is planed hanging
	LookMinutes  = 4.0  // a round by itself: the slab is hung, its gaps are looked at
	StopMinutes  = 6.0  // the stops moved
	StrikeMove   = 8.0  // the strike moved
)

// LightSeen is by how much the light over a hand's breadth must differ from that beside it to be seen, in mm. Common
// practice: two from three is told at arm's length.
const LightSeen = 0.8

// LeastPlaned is the least that a hand planes off an edge: a shaving or two. Common practice.
const LeastPlaned = 200 * measure.Micrometre

// LeastPacked is the thinnest packer behind a hinge, or depth that it is let in: less is not seen. Common practice.
const LeastPacked = 200 * measure.Micrometre

// GoesIn is the gap that a slab is planed to at least where it overlaps its frame: as much as a pencil's mark may be
// off. Common practice.
const GoesIn = 500 * measure.Micrometre

// Rubs is the gap under which a slab rubs: paint and the roughness of its edges touch. Common practice.
const Rubs = 300 * measure.Micrometre

// What may come out wrong has its price, in minutes, by which ways are chosen and by which the work is over. Found by
// package simulate.
const (
	MissMinutes  = 100.0  // of a slab that is not in, times its probability: what another round costs, or a call back
	OutMinutes   = 10.0   // of each mm by which a margin is out
	FarMinutes   = 40.0   // and of each mm over FarOut: anybody sees it, and nobody leaves it so
	FarOut       = 0.5    // mm
	SpoilMinutes = 4000.0 // of an edge planed too far: the half percent that is accepted is a bound, and dear
	NearMinutes  = 70.0   // of an edge planed not far enough, times its probability: it is planed again
	FitsDoubt    = 0.015  // the probability that a margin is out, under which a slab is said to fit
	MissedFirst  = 12.0   // more than a trip, of a first hang that does not fit: it is looked at again, edges are planed
)
