package simulate

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/stage/hangs"
	"kindmargin/core/survey"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
	"kindmargin/core/try"
)

// pins are the heights of the two hinges by the usual rule, in mm.
var pins = [2]float64{height - 187.5, 262.5}

// mostRead is the largest number of readings of one opening.
const mostRead = 60

// ours takes the readings that the program asks for, cuts by its sheet, and does what it says until it calls the door
// done.
func ours(o opening, h hands, in kit, rng *rand.Rand) (hung, error) {
	k := in.tools
	j := job.NewJob("s", "Simulated", measure.Millimetres)
	j.Tape, j.Kit.Tools, j.Kit.Marking = in.tape, k, in.marking
	opening := openingFor()
	opening.Slab.Width, opening.Slab.Length = o.nextSize()
	o.sweep(&opening, rng)
	out := hung{}
	out.spent.Reading += float64(len(opening.Swing.Floor)) * sweepMinutes
	whole := h.slab(opening.Slab, k, rng) // as it truly is
	var stands placed
	offerUp := func() {
		opening.Measuring = job.OfferedUp
		opening.Offers = []survey.Offer{{ID: "slab", Width: opening.Slab.Width, Length: opening.Slab.Length}}
		stands = o.stand(whole, rng)
		out.spent.Reading += trade.Placing
	}
	if in.offered {
		offerUp()
	}
	read := func(r survey.Reading) survey.Reading {
		out.readings++
		if r.Kind == survey.Gap {
			out.spent.Reading += trade.TickMinutes
			r.Value = measure.FromMM(gap(o.beside(stands, r.Side, r.At.MM()), trade.TickSigma, 0, rng))
			return slipped(r, rng)
		}
		out.spent.Reading += k.Minutes(r)
		return slipped(o.read(r, k, h, in.tape, rng), rng)
	}
	again := map[string]bool{}
	for {
		p := plan.Solve(j, opening)
		if i := doubted(p, opening.Readings, again); i >= 0 && out.readings < mostRead { // it is read again
			r := opening.Readings[i]
			again[r.ID] = true
			opening.Readings[i] = read(r)
			continue
		}
		if len(p.Clashes) > 0 && p.Clashes[0].Again.ID == "" && out.readings < mostRead { // what tells them apart
			r := p.Clashes[0].Again
			r.ID = fmt.Sprint(out.readings)
			opening.Readings = append(opening.Readings, read(r))
			continue
		}
		if p.OfferUp.ID != "" {
			offerUp()
			continue
		}
		if len(p.ToRead) == 0 || out.readings >= mostRead {
			marking, _ := trade.MarkingByID(in.marking)
			d := slabOf(whole, p.Leaves[0]).cut(rng).marked(marking, rng)
			out.first, out.slab = d, d
			o.finish(j, opening, p.Leaves[0], &out, rng)
			return out, nil
		}
		r := p.ToRead[0].Reading
		r.ID = fmt.Sprint(out.readings)
		opening.Readings = append(opening.Readings, read(r))
	}
}

// sweepMinutes is that of a place of the floor, read through the swing.
const sweepMinutes = 0.5

// sweep reads the floor in the slab's swing, under its free corner, with a level and a packer.
func (o opening) sweep(door *job.Opening, rng *rand.Rand) {
	slope := (o.at(frame.Foot, width) - o.at(frame.Foot, 0)) / width
	for _, angle := range []int{45, 90} {
		x := width * math.Cos(float64(angle)*math.Pi/180)
		up := slope*(x-width) + rng.NormFloat64()*sweepNoise
		door.Swing.Floor = append(door.Swing.Floor, swing.Floor{
			At: measure.FromMM(width), Angle: angle, Up: measure.FromMM(up).Round(measure.Millimetre/2, measure.Nearest),
		})
	}
}

// sweepNoise is the standard deviation of such a reading, in mm, as of a level.
const sweepNoise = 0.5

// doubted is the place among some readings of the one to take again: the one that the others contradict, or, where it
// was taken again and stands, the next that may be wrong instead; −1 for none.
func doubted(p plan.Plan, list []survey.Reading, again map[string]bool) int {
	if len(p.Clashes) == 0 {
		return -1
	}
	c := p.Clashes[0]
	for _, r := range append([]survey.Reading{c.Reading}, c.Or...) {
		if i := slices.IndexFunc(list, func(x survey.Reading) bool { return x.ID == r.ID }); i >= 0 && !again[r.ID] {
			return i
		}
	}
	return -1
}

// finish hangs a slab, reads what the program asks for, takes its first way, and repeats until the program says that it
// fits, that it is as near as it gets, or has no way. out is the outcome so far.
func (o opening) finish(j job.Job, opening job.Opening, l plan.Leaf, out *hung, rng *rand.Rand) {
	opening.Tried = []job.Tried{{Made: l.Try.Planned, Hangs: []job.Hang{{ID: "h0"}}}}
	for out.rounds = 1; ; out.rounds++ {
		t := o.look(j, &opening, out, rng)
		out.chance = t.Chance
		hung := opening.Tried[0].Hangs
		switch {
		case t.Fits:
			out.called = calledFit
			return
		case len(t.Near) > 0, len(t.Ways) == 0:
			return
		case out.rounds == mostRounds:
			out.endless = true
			return
		}
		w := t.Ways[0]
		if out.rounds == 1 {
			out.worked, out.right = true, o.fits(out.slab.adjusted(w.Did, w.Trips > 0, hand{}))
		}
		out.spend(w.Way, j.Kit.TripMinutes())
		out.slab = out.slab.adjusted(w.Did, w.Trips > 0, hand{rng})
		opening.Tried[0].Hangs = append(hung, job.Hang{ID: fmt.Sprint("h", len(hung)), Did: &w.Did})
	}
}

// spend adds the work of a way.
func (h *hung) spend(w try.Way, trip float64) {
	h.trips += w.Trips
	planing := w.Minutes - float64(w.Trips)*trip
	for _, m := range w.Moves {
		switch {
		case m > 0:
			h.spent.Hinges, planing = h.spent.Hinges+trade.PackMinutes, planing-trade.PackMinutes
		case m < 0:
			h.spent.Hinges, planing = h.spent.Hinges+trade.LetInMinutes, planing-trade.LetInMinutes
		}
	}
	if w.Up != 0 {
		h.spent.Hinges, planing = h.spent.Hinges+trade.UpMinutes, planing-trade.UpMinutes
	}
	h.edges += len(w.Planed)
	h.spent.Planing += planing
}

// slideNoise is how far from its thickness a packer binds, in mm.
const slideNoise = 0.1

// look reads the gaps that the program asks for, and once more each that the others contradict.
func (o opening) look(j job.Job, opening *job.Opening, out *hung, rng *rand.Rand) *hangs.Try {
	last := &opening.Tried[0].Hangs[len(opening.Tried[0].Hangs)-1]
	last.Outside = !o.goesIn(out.slab)
	read := func(r survey.Reading) survey.Reading {
		sigma, step, minutes := j.Kit.Tools.Sigma(r), stepOf(j.Kit.Tools, r), j.Kit.Tools.Minutes(r)
		if last.Outside {
			sigma, step, minutes = trade.TickSigma, 0, trade.TickMinutes
		}
		r.PlusMinus = 0
		r.Value = measure.FromMM(gap(o.gapAt(out.slab, r.Side, r.At.MM()), sigma, step, rng))
		out.gaps++
		out.spent.Gaps += minutes
		return r
	}
	again := map[string]bool{}
	for {
		t := plan.Solve(j, *opening).Leaves[0].Try
		doubted := false
		for i, g := range t.Hangs[len(t.Hangs)-1].Gaps {
			if g.Clash && !again[g.ID] {
				again[g.ID], doubted = true, true
				last.Gaps[i] = read(g.Reading)
				break
			}
		}
		if doubted {
			continue
		}
		if t.Look {
			last.Looked = true
			out.spent.Gaps += trade.LightMinutes
			for _, r := range o.lumps(out.slab, last.Gaps, rng) {
				r.ID, r.Offer = fmt.Sprint("g", len(last.Gaps)), last.ID
				last.Gaps = append(last.Gaps, read(r))
			}
			continue
		}
		if len(t.ToRead) == 0 && t.Slide {
			out.spent.Gaps += trade.SlideMinutes
			side, at, gap := o.tightest(out.slab)
			last.Slid = gap+rng.NormFloat64()*slideNoise >= least+trade.SlideMore
			if last.Bound = !last.Slid; last.Bound {
				last.Gaps = append(last.Gaps, read(survey.Reading{
					ID: fmt.Sprint("g", len(last.Gaps)), Kind: survey.Gap, Side: side, At: measure.FromMM(at), Offer: last.ID,
					Local: true,
				}))
			}
			continue
		}
		if len(t.ToRead) == 0 {
			return t
		}
		for _, s := range t.ToRead {
			r := s.Reading
			r.ID = fmt.Sprint("g", len(last.Gaps))
			last.Gaps = append(last.Gaps, read(r))
		}
	}
}

// seenNoise is how much an eye strays in telling two gaps apart, a standard deviation in mm.
const seenNoise = 0.25

// lumps are the places where the light beside a hung slab is seen to swing between two gaps that were read: the
// furthest place of each stretch, to a centimetre.
func (o opening) lumps(d hungSlab, gaps []survey.Reading, rng *rand.Rand) (list []survey.Reading) {
	for _, side := range frame.Sides {
		var places []float64
		for _, g := range gaps {
			if g.Side == side {
				places = append(places, g.At.MM())
			}
		}
		slices.Sort(places)
		for i := 1; i < len(places); i++ {
			from, to := places[i-1], places[i]
			light := []frame.Along{{At: from, Off: o.gapAt(d, side, from)}, {At: to, Off: o.gapAt(d, side, to)}}
			most, at := 0.0, 0.0
			for place := from; place <= to; place += 10 {
				if swings := math.Abs(o.gapAt(d, side, place) - frame.OffAt(light, place)); swings > most {
					most, at = swings, place
				}
			}
			if most+rng.NormFloat64()*seenNoise > trade.LightSeen {
				list = append(list, survey.Reading{
					Kind: survey.Gap, Side: side, Local: true,
					At: measure.FromMM(at).Round(10*measure.Millimetre, measure.Nearest),
				})
			}
		}
	}
	return list
}
