package trade

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Means is how wood comes off an edge.
type Means string

// The means. ByPlane is a choice of either plane.
const (
	BySaw        Means = "saw" // along a clamped guide, off the line, then planed to it
	ByTableSaw   Means = "table-saw"
	ByPowerPlane Means = "power-plane"
	ByHandPlane  Means = "hand-plane"
	Untouched    Means = "leave"
	ByPlane      Means = "plane"
)

// Name is the means in a few words.
func (m Means) Name() message.ID { return "method." + message.ID(m) }

// Saws reports whether a saw goes first.
func (m Means) Saws() bool { return m == BySaw || m == ByTableSaw }

// PlaneFor is the plane for a depth: a hand plane up to a millimetre or so. Common practice.
func PlaneFor(depth measure.Length) Means {
	switch {
	case depth > PlaneTo:
		return ByPowerPlane
	case depth > 0:
		return ByHandPlane
	}
	return Untouched
}

// PlaneTo is the greatest depth for a hand plane.
const PlaneTo = 3 * mm / 2

// SawGuide is what a hand-held saw runs along.
type SawGuide struct {
	ID      string
	Offset  bool    // its edge stands off the cut by so much of the saw's sole
	Minutes float64 // to clamp it on its two marks
	Source  string
}

// Name is the name of the guide.
func (g SawGuide) Name() message.ID { return "saw-guide." + message.ID(g.ID) }

// Note is how it is set.
func (g SawGuide) Note() message.ID { return "saw-guide-note." + message.ID(g.ID) }

// SawGuides: one made to the saw, whose edge is the cut; a batten, from which the blade stands off; a track.
var SawGuides = []SawGuide{
	{ID: "made", Minutes: 6, Source: workGuess},
	{ID: "batten", Offset: true, Minutes: 7, Source: workGuess},
	{ID: "track", Minutes: 4, Source: workGuess},
}

// SawGuideByID finds a guide; the empty ID is one made to the saw. ok is false for an unknown ID.
func SawGuideByID(id string) (g SawGuide, ok bool) {
	if id == "" {
		return SawGuides[0], true
	}
	for _, g := range SawGuides {
		if g.ID == id {
			return g, true
		}
	}
	return SawGuide{}, false
}

// Figures of sawing. Common practice.
const (
	UsualKerf    = 5 * mm / 2
	BladeThrough = 3 * mm  // that the blade stands out past the underside
	GuideUnder   = 6 * mm  // of a guide or track that the saw rides on
	ClampRoom    = 60 * mm // that a guide needs to lie on what comes off
	HeldFrom     = 25 * mm // from this width on what comes off is held to the end of the cut
)

// SawKeep is how far off the line a saw is kept, for the plane. Common practice.
func SawKeep(u measure.Unit) measure.Length {
	if u == measure.Inches {
		return inch / 32
	}
	return mm
}

// Minutes of taking wood off an edge, beside those that every edge takes. Assumed, so that setting a guide takes as
// long as planing a millimetre or two off a long edge (common practice).
const (
	SawMinutes   = 1.0 // a metre sawn
	ScoreMinutes = 2.0 // a face scored or taped, or a block clamped behind the cut
	TableMinutes = 5.0 // to set a table saw's fence, and to carry the slab there
	PowerSetUp   = 3.0 // to set a power plane, and to lead its cable
	PowerMinutes = 1.0 // for each square of a millimetre's depth by a metre's length; WoodMinutes by hand
	EndGrain     = 1.5 // times as long on head and foot, which are planed in from both ends
)

// PlaningMinutes is how long a plane takes for a mean depth along an edge long mm; deepest chooses the plane.
func PlaningMinutes(side frame.Side, mean, deepest measure.Length, long float64) (minutes float64) {
	wood := mean.MM() * long / 1000
	if !side.Upright() {
		wood *= EndGrain
	}
	if PlaneFor(deepest) == ByPowerPlane {
		return PowerSetUp + PowerMinutes*wood
	}
	return WoodMinutes * wood
}

// Surface is what a cut breaks out of.
type Surface string

// The surfaces of slabs: a veneer or a hardboard skin, whose grain or paint lifts where a saw crosses it; timber, whose
// stiles break out at an end. Steel has none: it is not sawn.
const (
	OfVeneer Surface = "veneer"
	OfSkin   Surface = "skin"
	OfTimber Surface = "timber"
)
