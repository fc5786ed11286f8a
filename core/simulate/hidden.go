package simulate

import (
	"math"
	"math/rand/v2"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Hidden is a true opening for practice: each side's coordinate at even places along it, in mm in the elevation frame,
// and the errors of its instruments.
type Hidden struct {
	Sides  frame.Each[[]float64]
	Biases map[string]float64
	// Taped says that the slab too is measured with those instruments.
	Taped bool
}

// The margins of every hidden opening, in mm: of a slab still to be painted.
const (
	WantedMargin = margin
	WantedFoot   = under
	LeastMargin  = least
	AboutWidth   = width
	AboutHeight  = height
)

// Draw draws an opening so many times as crooked as an old one usually is, with typical tool errors, or none.
func Draw(rng *rand.Rand, crooked float64, trueTools bool) Hidden {
	o := newDrawer(crookeder(crooked)).draw(rng)
	h := newHands(rng)
	if trueTools {
		h.bias = map[string]float64{}
	}
	return Hidden{o.side, h.bias, true}
}

// Whole reports whether all four sides are there.
func (h Hidden) Whole() bool {
	for _, s := range frame.Sides {
		if len(h.Sides[s]) < 2 ||
			slices.ContainsFunc(h.Sides[s], func(v float64) bool { return math.IsNaN(v) || math.Abs(v) > 5000 }) {
			return false
		}
	}
	return true
}

func (h Hidden) opening() opening { return opening{h.Sides} }

// Read takes a reading with a kit, to a mark of the tape.
func (h Hidden) Read(r survey.Reading, k survey.Kit, tape measure.Tape, rng *rand.Rand) survey.Reading {
	return h.opening().read(r, k, hands{h.Biases}, tape, rng)
}

// Hung is a hung slab in a hidden opening.
type Hung struct{ d hungSlab }

// Cut is a slab's size as cut by hand, in mm: width at head and foot, length on the hinge edge, how far the head's and
// the foot's lock corner are above square.
type Cut struct{ Top, Foot, Length, HeadUp, FootUp float64 }

// HangCut hangs a slab of that size on pins set to the wanted margin; cuts have the errors of saw and plane, and sizes
// those of the kit.
func (h Hidden) HangCut(c Cut, k survey.Kit, rng *rand.Rand) Hung {
	d := hungSlab{
		pin: [2]float64{margin, margin}, top: c.Top - h.onSlab(k), foot: c.Foot - h.onSlab(k),
		length: c.Length - h.onSlab(k),
		headUp: c.HeadUp, footUp: c.FootUp, headGap: margin,
	}
	return Hung{d.cut(rng).marked(trade.Markings[0], rng)}
}

// HangPlanned hangs a slab that was cut by a plan's marks.
func (h Hidden) HangPlanned(s slab.Slab, l plan.Leaf, k survey.Kit, rng *rand.Rand) Hung {
	return Hung{slabOf(s.Less(h.onSlab(k), h.onSlab(k)), l).cut(rng).marked(trade.Markings[0], rng)}
}

// onSlab is by how much a kit overreads a slab, in mm.
func (h Hidden) onSlab(k survey.Kit) float64 {
	if !h.Taped {
		return 0
	}
	with, _ := k.OnSlab()
	return h.Biases[with]
}

// Adjusted is a slab after a way; off says whether it came off its hinges for it.
func (u Hung) Adjusted(did job.Did, off bool, rng *rand.Rand) Hung {
	return Hung{u.d.adjusted(did, off, hand{rng})}
}

// Size is the slab's true width at head and foot, and its length.
func (u Hung) Size() (top, foot, length float64) { return u.d.top, u.d.foot, u.d.length }

// Gap is the true gap beside a hung slab at a place of a side, in mm.
func (h Hidden) Gap(u Hung, side frame.Side, at float64) float64 {
	return h.opening().gapAt(u.d, side, at)
}

// Slides slides a packer round a hung slab, a card more than the least margin: passes is false where it binds, which is
// then at the side and place.
func (h Hidden) Slides(u Hung) (side frame.Side, at measure.Length, passes bool) {
	side, place, gap := h.opening().tightest(u.d)
	return side, measure.FromMM(place), gap >= least+trade.SlideMore
}

// Lumps are the places where the light beside a hung slab is seen to swing between two gaps that were read.
func (h Hidden) Lumps(u Hung, gaps []survey.Reading, rng *rand.Rand) []survey.Reading {
	return h.opening().lumps(u.d, gaps, rng)
}

// GoesIn reports whether a slab goes in at all, Fits whether it fits: every margin at least the least, and each edge
// within a millimetre of the best straight one. Small are the edges that are more than a millimetre further from their
// side than the best; Uneven is the greatest less the least margin along lock edge or head.
func (h Hidden) GoesIn(u Hung) bool { return h.opening().goesIn(u.d) }

// Fits is described with GoesIn.
func (h Hidden) Fits(u Hung) bool { return h.opening().fits(u.d) }

// Small is described with GoesIn.
func (h Hidden) Small(u Hung) []frame.Side { return h.opening().small(u.d) }

// Uneven is described with GoesIn.
func (h Hidden) Uneven(u Hung) float64 { return h.opening().uneven(u.d) }

// BoughtAgain is the cost of a slab that is too small, in minutes.
const BoughtAgain = boughtAgain

// Usual is a kit of tape, level and square.
func Usual() survey.Kit { return hands{}.plain() }

// Pins are the heights of the two hinges' pins by the usual rule, top one first, in mm.
func Pins() [2]float64 { return pins }

// Adjusting is the minutes of a way, without trips: each hinge touched, each edge planed; and how many trips it takes.
func Adjusting(did job.Did) (minutes float64, trips int) {
	for _, m := range did.Pack {
		switch {
		case m > 0:
			minutes += trade.PackMinutes
		case m < 0:
			minutes += trade.LetInMinutes
		}
	}
	for _, p := range did.Planed {
		deepest := max(p.Off[0], p.Off[2])
		if deepest <= 0 {
			continue
		}
		minutes += trade.PlaneMinutes + planing(p.Side, p.Off[0].MM(), p.Off[2].MM())
		if p.Side != frame.Lock || deepest > trade.MostHanging {
			trips = 1
		}
	}
	return minutes, trips
}

// planing is the minutes of planing a taper off an edge, its depth at either end in mm.
func planing(s frame.Side, first, last float64) float64 {
	return trade.PlaningMinutes(s, measure.FromMM((first+last)/2), measure.FromMM(max(first, last)), reach(s))
}
