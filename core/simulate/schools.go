package simulate

import (
	"math"
	"math/rand/v2"
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// The schools judge by what they read, and do what the trade's table of cures says.

// widths are where the schools with a tape read the width; heights are read beside both jambs.
var widths = []float64{200, 1000, 1800}

// stands is a reading that stands out from another of its kind by more than this, in mm: both are taken again. Common
// practice.
const stands = 8.0

// thumb is the rule of thumb: the widest width less two margins, square head and foot, the shortest floor to head less
// its margins; and so much left on all round, to be shaved. The slab is marked with the tape that read the opening.
func thumb(more float64) func(opening, hands, *rand.Rand) (hung, error) {
	return func(o opening, h hands, rng *rand.Rand) (hung, error) {
		k := h.plain()
		out := hung{}
		all := func(kind survey.Kind, at ...float64) (values []float64) {
			for range 3 {
				values = nil
				for _, at := range at {
					r := survey.Reading{Kind: kind, At: measure.FromMM(at)}
					out.readings++
					out.spent.Reading += k.Minutes(r)
					values = append(values, slipped(o.read(r, k, h, measure.HalfMillimetre, rng), rng).Value.MM())
				}
				if slices.Max(values)-slices.Min(values) <= stands {
					break
				}
			}
			return values
		}
		widest, lowest := slices.Max(all(survey.Width, widths...)), slices.Min(all(survey.Height, 50, width-50))
		w, long := widest-2*margin+more-h.bias["tape"], lowest-margin-under+more-h.bias["tape"]
		out.slab = hungSlab{
			pin: [2]float64{margin, margin}, top: w, foot: w, length: long, headGap: margin, bevel: usualBevel,
		}.cut(rng).marked(trade.Markings[0], rng)
		return out.tried(o, rng), nil
	}
}

// usualBevel is the bevel of a slab of 40 mm at about 3.5°, in mm. Common practice: 1/8 in in 2 in.
const usualBevel = 2.5

// Offering up and scribing, common practice: the slab is first cut to height, which costs a trip; it is stood on wedges
// twice, for head and hinge edge and for lock edge and foot; a packer and a pencil are true to half a millimetre at
// each of three places, and the pencil's line is left on.
const (
	scribeNoise  = 0.5
	pencil       = 0.5
	scribeTrips  = 1
	scribeMinute = 1.0 // of sliding the packer along an edge
)

func scribe(o opening, h hands, rng *rand.Rand) (hung, error) {
	out := hung{trips: scribeTrips, readings: 12}
	out.spent.Reading = 2*trade.Placing + 4*scribeMinute
	// As if hung to the margins of a slab of no size: the gaps are the opening's.
	d := hungSlab{
		pin: [2]float64{margin + rng.NormFloat64()*gapNoise, margin + rng.NormFloat64()*gapNoise}, headGap: margin,
		bevel: usualBevel,
	}
	g := o.gaps(d)
	marks := func(s frame.Side) (list []fit.Point) {
		n := len(g[s])
		for _, i := range []int{0, n / 2, n - 1} {
			p := g[s][i]
			p.Off += rng.NormFloat64() * scribeNoise
			list = append(list, p)
		}
		return list
	}
	line := func(s frame.Side) (at func(float64) float64) {
		l, _, _ := fit.Minimax(marks(s))
		return func(v float64) float64 { return l.At(v) - d.wanted(s) + pencil }
	}
	lock, head, foot := line(frame.Lock), line(frame.Head), line(frame.Foot)
	d.foot, d.top = lock(0), lock(height)
	d.headUp, d.length = head(width)-head(0), foot(0)
	d.footUp = foot(0) - foot(width)
	// Its hinge edge is scribed to the jamb: hollow where that bellies in.
	m := marks(frame.Hinge)
	if belly := (m[0].Off+m[2].Off)/2 - m[1].Off; belly > 0 {
		d.hollow = []frame.Along{{At: 0}, {At: height / 2, Off: belly}, {At: height}}
	}
	out.slab = d.cut(rng).marked(trade.Markings[0], rng)
	return out.tried(o, rng), nil
}

// tried is a school's slab from its first hang on.
func (h hung) tried(o opening, rng *rand.Rand) hung {
	h.first = h.slab
	var packed [2]float64
	for h.rounds = 1; ; h.rounds++ {
		seen := o.seen(&h, rng)
		if !o.cure(&h, seen, &packed, rng) {
			if seen.fits() {
				h.called = calledFit
			}
			return h
		}
		if h.rounds == mostRounds {
			h.endless = true
			return h
		}
	}
}

// sight is what a school sees of a hung slab: three gaps a side, and the lines through them.
type sight struct {
	sides frame.Each[side]
	ticks bool // it does not go in
}

func (o opening) seen(h *hung, rng *rand.Rand) (x sight) {
	sigma, step := gapNoise, stepOf(nil, survey.Reading{Kind: survey.Gap})
	if !o.goesIn(h.slab) { // it is ticked, as the program has it done
		sigma, step, x.ticks = trade.TickSigma, 0, true
	}
	for _, s := range frame.Sides {
		var read []fit.Point
		for _, f := range []float64{0.06, 0.5, 0.94} {
			at := f * reach(s)
			read = append(read, fit.Point{S: at, Off: gap(o.gapAt(h.slab, s, at), sigma, step, rng)})
			h.gaps++
			h.spent.Gaps += trade.GapMinutes
		}
		x.sides[s] = o.sideOf(h.slab, s, read)
	}
	return x
}

func (x sight) fits() bool {
	for _, s := range frame.Sides {
		if j := x.sides[s]; j.narrowest() < least || j.off() > within {
			return false
		}
	}
	return true
}

// cure does what is seen to be wanted, hinges first; false is nothing.
func (o opening) cure(h *hung, x sight, packed *[2]float64, rng *rand.Rand) (did bool) {
	r := hand{rng}
	lock := x.sides[frame.Lock]
	ends := [2]float64{reach(frame.Lock), 0} // beside the top and the bottom hinge
	var moved [2]float64
	for i := range ends {
		wide := lock.line.At(ends[i]) - lock.wanted
		room := trade.MostOut.MM() - packed[i]
		// Wide at the lock: that hinge is packed out by half of it; bound at the hinges: by what lacks.
		by := max(0, least-x.sides[frame.Hinge].narrowest())
		if wide > within {
			by = max(by, wide/2)
		}
		if by = min(math.Round(by*4)/4, room); by >= 0.25 && !x.ticks {
			moved[i] = by + r.stray(trade.Repacked)
			packed[i] += by
			h.slab.pin[i] += moved[i]
			h.spent.Hinges += trade.PackMinutes
			did = true
		}
	}
	planed, trip := 0, false
	for _, s := range judged {
		j := x.sides[s]
		if s == frame.Lock { // as the hinges now hold it
			j.line.A -= moved[1]
			j.line.B -= (moved[0] - moved[1]) / height
		}
		first, last := j.line.At(0), j.line.At(reach(s))
		tight := j.narrowest() < least || min(first, last) < j.wanted-within
		if s == frame.Lock && did {
			tight = min(first, last) < j.wanted-within
		}
		touches := x.ticks && slices.ContainsFunc(o.gaps(h.slab)[s], func(p fit.Point) bool { return p.Off < 0 })
		if !tight && !touches {
			continue
		}
		atLeast, more := 0.0, 0.0
		if x.ticks {
			more = trade.TickSigma // is left on
		}
		if touches {
			atLeast = trade.TickSigma
		}
		var off [2]float64
		for end, at := range [2]float64{0, reach(s)} {
			if by := max(j.wanted-more-j.line.At(at), atLeast); by >= trade.LeastPlaned.MM() {
				off[end] = max(by+r.stray(cutNoise), 0)
			}
		}
		if off == [2]float64{} {
			continue
		}
		did, planed = true, planed+1
		h.edges++
		h.slab = h.slab.planed(s, off)
		h.spent.Planing += trade.PlaneMinutes + planing(s, off[0], off[1])
		if s != frame.Lock || max(off[0], off[1]) > trade.MostHanging.MM() {
			trip = true
		}
	}
	switch {
	case trip:
		h.trips++
	case planed > 0:
		h.spent.Planing += trade.AwkwardMore
	}
	return did
}
