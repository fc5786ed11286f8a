package simulate

import (
	"fmt"
	"math"
	"math/rand/v2"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// pins are the heights of the two hinges by the usual rule, in mm.
var pins = [2]float64{height - 187.5, 262.5}

// ways are this program with two kits, and the schools that it competes with.
func ways() []way {
	return []way{
		{"plain", func(o opening, h hands, rng *rand.Rand) (hung, error) {
			return ours(o, h, kit{h.plain(), measure.HalfMillimetre, 0}, rng)
		}},
		{"rods", func(o opening, h hands, rng *rand.Rand) (hung, error) {
			return ours(o, h, kit{h.proved(rng), measure.Tenths, heavy}, rng)
		}},
		{"longest", thumb(0)},
		{"leave-3", thumb(3)},
		{"scribe", scribe},
	}
}

// hands are the errors of tools, by instrument.
type hands struct{ bias map[string]float64 }

func newHands(rng *rand.Rand) hands {
	h := hands{map[string]float64{}}
	for _, i := range trade.Instruments {
		h.bias[i.ID] = rng.NormFloat64() * i.Bias
	}
	return h
}

// read takes a reading of a true opening with a kit, rounded to the tape.
func (o opening) read(r survey.Reading, k survey.Kit, h hands, tape measure.Tape, rng *rand.Rand) survey.Reading {
	_, instrument := k.Tool(r)
	v := o.truth(r) + rng.NormFloat64()*k.Sigma(r) + h.bias[instrument]*k.Lever(r)
	r.Value = measure.FromMM(v).Round(tape.Step(), measure.Nearest)
	return r
}

// slab is a slab's true size, by its size as the tape reads it.
func (h hands) slab(s slab.Slab, k survey.Kit, rng *rand.Rand) slab.Slab {
	with, sigma := k.OnSlab()
	return s.Less(h.bias[with]+rng.NormFloat64()*sigma, h.bias[with]+rng.NormFloat64()*sigma)
}

// truth is a reading without any error, in mm.
func (o opening) truth(r survey.Reading) (v float64) {
	if r.Kind == survey.Diagonal { // whose row hangs on the shape
		return o.diagonal(r.Side)
	}
	for _, t := range r.Row(survey.Prior{Width: width, Height: height}) {
		side, _ := t.Of.Side()
		v += t.By * o.at(side, t.At)
	}
	return v
}

// diagonal is from the foot of a jamb to the head's far corner.
func (o opening) diagonal(from frame.Side) float64 {
	far, start, end := frame.Lock, 0.0, width
	if from == frame.Lock {
		far, start, end = frame.Hinge, width, 0
	}
	return math.Hypot(o.at(far, height)-o.at(from, 0), o.at(frame.Head, end)-o.at(frame.Foot, start))
}

// plain is a kit without proved tools.
func (h hands) plain() survey.Kit {
	return survey.Kit{
		{ID: "tape", Instrument: "tape"}, {ID: "level", Instrument: "level"}, {ID: "square", Instrument: "square"},
	}
}

// proved is a kit of rods and feelers with a proved level and square: the level turned end for end over 1.6 m, the
// square against a better one of 600 mm, true to 0.1 mm a metre, four readings each way.
func (h hands) proved(rng *rand.Rand) survey.Kit {
	k := survey.Kit{
		{ID: "rods", Instrument: "rods"},
		{ID: "feelers", Instrument: "straightedge"},
		{ID: "level", Instrument: "level"},
		{ID: "square", Instrument: "square"},
		{ID: "gauges", Instrument: "feelers"},
		{ID: "true", Instrument: "square", Proved: &survey.Proved{Sure: 0.1, Readings: 8}},
	}
	times := func(value, sigma float64) (list []measure.Length) {
		for range 4 {
			list = append(
				list, measure.FromMM(value+rng.NormFloat64()*sigma).Round(measure.Millimetre/2, measure.Nearest),
			)
		}
		return list
	}
	prove := func(i int, p survey.Proof) {
		got, err := k.Prove(k[i].ID, p, 0.5)
		if err != nil {
			panic(err)
		}
		k[i].Proved = &got
	}
	span, lean := 1.6, rng.NormFloat64()*4
	prove(2, survey.Proof{
		Kind: survey.Plumb, Span: measure.FromMM(1000 * span),
		Own: times(lean+h.bias["level"]*span, 0.5), Better: times(lean-h.bias["level"]*span, 0.5),
	})
	blade := 0.6
	prove(3, survey.Proof{
		Kind: survey.Square, Span: measure.FromMM(1000 * blade), Against: "true",
		Own: times(h.bias["square"]*blade, 0.5), Better: times(rng.NormFloat64()*0.1*blade, 0.5),
	})
	return k[:5]
}

// heavy is the cost of a trip with a heavy slab, or up a flight of stairs, in minutes: the program then takes more
// readings than at 12 minutes.
const heavy = 90

// mostRead is the largest number of readings of one opening.
const mostRead = 60

// openingFor is an opening with default choices and no readings, and a slab large enough for any; its edges stay
// straight, since it is judged by straight edges.
func openingFor() job.Opening {
	mm := measure.FromMM
	o := job.NewOpening("o", "Door", measure.Millimetres)
	o.Cut.LockEdge, o.Cut.Head = job.Straight, job.Straight
	much := mm(150)
	o.Slab = slab.Slab{
		Width: mm(width + 100), Length: mm(height + 100), Thickness: mm(40), Construction: "flush",
		Limits: slab.Limits{Head: &much, Hinge: &much, Lock: &much, Foot: &much},
	}
	return o
}

// kit is the tools for a house, and the cost of a trip to the trestles in minutes; 0 is the default.
type kit struct {
	tools survey.Kit
	tape  measure.Tape
	trip  float64
}

// ours takes the readings that the program asks for, and cuts by its sheet.
func ours(o opening, h hands, in kit, rng *rand.Rand) (hung, error) {
	k, tape, trip := in.tools, in.tape, in.trip
	j := job.NewJob("s", "Simulated", measure.Millimetres)
	j.Tape, j.Kit.Tools, j.Kit.Trip = tape, k, trip
	opening := openingFor()
	out := hung{}
	for {
		p := plan.Solve(j, opening)
		if len(p.Clashes) > 0 { // what seems wrong is read again
			again := p.Clashes[0].Reading
			for i := range opening.Readings {
				if opening.Readings[i].ID == again.ID {
					opening.Readings[i] = o.read(again, k, h, tape, rng)
				}
			}
			out.readings++
			out.minutes += k.Minutes(again)
			if out.readings < mostRead {
				continue
			}
		}
		if len(p.ToRead) == 0 || out.readings >= mostRead {
			out.slab = slabOf(h.slab(opening.Slab, k, rng), p.Leaves[0]).cut(rng)
			out.first = out.slab
			j.Kit.Trip = 0 // what a trip really costs, once the cut was planned
			o.finish(j, opening, p.Leaves[0], &out, rng)
			return out, nil
		}
		r := p.ToRead[0].Reading
		r.ID = fmt.Sprint(out.readings)
		r = o.read(r, k, h, tape, rng)
		opening.Readings = append(opening.Readings, r)
		out.readings++
		out.minutes += k.Minutes(r)
	}
}

// slabOf is the slab that a plan's marks make, hung to its marks.
func slabOf(s slab.Slab, l plan.Leaf) hungSlab {
	w, long := s.Width.MM(), s.Length.MM()
	off := func(edge frame.Side, mark int) float64 { return l.Cut.Edges[edge].Marks[mark].Depth.Value.MM() }
	const head, hinge, lock, foot = frame.Head, frame.Hinge, frame.Lock, frame.Foot
	// Lines in the slab: x from its hinge edge, y down from its head.
	up := func(x0, x1 float64) fit.Line { return fit.Line{A: x0, B: (x1 - x0) / long} }
	along := func(y0, y1 float64) fit.Line { return fit.Line{A: y0, B: (y1 - y0) / w} }
	h, k := up(off(hinge, 0), off(hinge, 4)), up(w-off(lock, 0), w-off(lock, 4))
	t, b := along(off(head, 0), off(head, 2)), along(long-off(foot, 0), long-off(foot, 2))
	corner := func(up, along fit.Line) (x, y float64) {
		y = (along.A + along.B*up.A) / (1 - along.B*up.B)
		return up.At(y), y
	}
	thx, thy := corner(h, t)
	tlx, tly := corner(k, t)
	fhx, fhy := corner(h, b)
	flx, fly := corner(k, b)
	length := math.Hypot(fhx-thx, fhy-thy)
	ux, uy := (fhx-thx)/length, (fhy-thy)/length // down the hinge edge
	across := func(x, y float64) float64 { return x*uy - y*ux }
	down := func(x, y float64) float64 { return x*ux + y*uy }
	return hungSlab{
		pin: [2]float64{margin + l.Hinges[0].Pack.Value.MM(), margin + l.Hinges[len(l.Hinges)-1].Pack.Value.MM()},
		top: across(tlx-thx, tly-thy), foot: across(flx-fhx, fly-fhy),
		headUp: -down(tlx-thx, tly-thy), footUp: -down(flx-fhx, fly-fhy), length: length,
		headGap: (l.Hinges[0].Jamb.Value - l.Hinges[0].Slab.Value).MM(),
		raised:  l.Wanted[frame.Foot].Value.MM() - under,
	}
}

// widths are where the schools with a tape read the width; heights are read beside both jambs.
var widths = []float64{200, 1000, 1800}

// thumb is the rule of thumb: the widest width less two margins, square head and foot, the shortest floor to head less
// its margins; and so much left on all round, to be shaved. The slab is marked with the tape that read the opening.
func thumb(more float64) func(opening, hands, *rand.Rand) (hung, error) {
	return func(o opening, h hands, rng *rand.Rand) (hung, error) {
		k := h.plain()
		out := hung{}
		widest, lowest := 0.0, math.Inf(1)
		take := func(r survey.Reading) float64 {
			out.readings++
			out.minutes += k.Minutes(r)
			return o.read(r, k, h, measure.HalfMillimetre, rng).Value.MM()
		}
		for _, at := range widths {
			widest = max(widest, take(survey.Reading{Kind: survey.Width, At: measure.FromMM(at)}))
		}
		for _, at := range []float64{50, width - 50} {
			lowest = min(lowest, take(survey.Reading{Kind: survey.Height, At: measure.FromMM(at)}))
		}
		w, long := widest-2*margin+more-h.bias["tape"], lowest-margin-under+more-h.bias["tape"]
		out.slab = hungSlab{
			pin: [2]float64{margin, margin}, top: w, foot: w, length: long, headGap: margin,
		}.cut(rng)
		return out.tried(o, rng), nil
	}
}

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
	out := hung{trips: scribeTrips, minutes: 2*trade.Placing + 4*scribeMinute, readings: 12}
	// As if hung to the margins of a slab of no size: the gaps are the opening's.
	d := hungSlab{
		pin: [2]float64{margin + rng.NormFloat64()*gapNoise, margin + rng.NormFloat64()*gapNoise}, headGap: margin,
	}
	g := o.gaps(d)
	line := func(s frame.Side) (at func(float64) float64) {
		n := len(g[s])
		var marks []fit.Point
		for _, i := range []int{0, n / 2, n - 1} {
			p := g[s][i]
			p.Off += rng.NormFloat64() * scribeNoise
			marks = append(marks, p)
		}
		l, _, _ := fit.Minimax(marks)
		return func(v float64) float64 { return l.At(v) - d.wanted(s) + pencil }
	}
	lock, head, foot := line(frame.Lock), line(frame.Head), line(frame.Foot)
	d.foot, d.top = lock(0), lock(height)
	d.headUp, d.length = head(width)-head(0), foot(0)
	d.footUp = foot(0) - foot(width)
	out.slab = d.cut(rng)
	return out.tried(o, rng), nil
}
