package survey_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/oracle"
	"kindmargin/core/survey"
	"kindmargin/thorough"
)

// A school of reading an opening of a size.
type school struct {
	name     string
	thin     bool // too little is read for ± to be near: judged by its median
	readings func(w, h float64) []survey.Reading
	// slab is what is stood in the opening, or the old door; gaps are read beside it.
	slab bool
	old  bool
}

func at(v float64) measure.Length {
	return measure.FromMM(v).Round(10*measure.Millimetre, measure.Nearest)
}

func widths(h float64, places ...float64) (list []survey.Reading) {
	for _, f := range places {
		list = append(list, survey.Reading{Kind: survey.Width, At: at(f * h)})
	}
	return list
}

func heights(w float64, places ...float64) (list []survey.Reading) {
	for _, f := range places {
		list = append(list, survey.Reading{Kind: survey.Height, At: at(f * w)})
	}
	return list
}

func plumbs(h float64) []survey.Reading {
	return []survey.Reading{
		{Kind: survey.Plumb, Side: frame.Hinge, At: at(0.9 * h), From: at(0.1 * h)},
		{Kind: survey.Plumb, Side: frame.Lock, At: at(0.9 * h), From: at(0.1 * h)},
	}
}

func levels(w float64) []survey.Reading {
	return []survey.Reading{
		{Kind: survey.Level, Side: frame.Head, At: at(0.94 * w), From: at(0.06 * w)},
		{Kind: survey.Level, Side: frame.Foot, At: at(0.94 * w), From: at(0.06 * w)},
	}
}

func straights(w, h float64) []survey.Reading {
	return []survey.Reading{
		{Kind: survey.Straight, Side: frame.Hinge, At: at(0.5 * h), From: at(0.1 * h), To: at(0.9 * h)},
		{Kind: survey.Straight, Side: frame.Lock, At: at(0.5 * h), From: at(0.1 * h), To: at(0.9 * h)},
		{Kind: survey.Straight, Side: frame.Head, At: at(0.5 * w), From: at(0.06 * w), To: at(0.94 * w)},
	}
}

func squares(w float64) []survey.Reading {
	return []survey.Reading{
		{Kind: survey.Square, Side: frame.Hinge, At: at(0.73 * w)},
		{Kind: survey.Square, Side: frame.Lock, At: at(0.73 * w)},
	}
}

func gaps(w, h float64) (list []survey.Reading) {
	for _, f := range []float64{0.1, 0.5, 0.9} {
		for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
			list = append(list, survey.Reading{Kind: survey.Gap, Side: side, At: at(f * h), Offer: "s"})
		}
	}
	for _, f := range []float64{0.06, 0.5, 0.9} {
		for _, side := range []frame.Side{frame.Head, frame.Foot} {
			list = append(list, survey.Reading{Kind: survey.Gap, Side: side, At: at(f * w), Offer: "s"})
		}
	}
	return list
}

var schools = []school{
	{name: "full", readings: func(w, h float64) []survey.Reading {
		return slices.Concat(
			widths(h, 0.1, 0.3, 0.5, 0.7, 0.9), heights(w, 0.06, 0.5, 0.94), plumbs(h), levels(w), straights(w, h),
			squares(w),
		)
	}},
	{name: "no straightedge", readings: func(w, h float64) []survey.Reading {
		return slices.Concat(
			widths(h, 0.1, 0.3, 0.5, 0.7, 0.9), heights(w, 0.06, 0.5, 0.94), plumbs(h), levels(w), squares(w),
		)
	}},
	{name: "level", thin: true, readings: func(w, h float64) []survey.Reading {
		return slices.Concat(widths(h, 0.1, 0.5, 0.9), heights(w, 0.06, 0.5, 0.94), plumbs(h), levels(w))
	}},
	{name: "tape", thin: true, readings: func(w, h float64) []survey.Reading {
		return slices.Concat(widths(h, 0.1, 0.5, 0.9), heights(w, 0.06, 0.5, 0.94), []survey.Reading{
			{Kind: survey.Diagonal, Side: frame.Hinge}, {Kind: survey.Diagonal, Side: frame.Lock},
		})
	}},
	{name: "tape and square", thin: true, readings: func(w, h float64) []survey.Reading {
		return slices.Concat(widths(h, 0.1, 0.5, 0.9), heights(w, 0.06, 0.94), squares(w)[:1])
	}},
	{name: "offered up", thin: true, slab: true, readings: gaps},
	{name: "old door", thin: true, slab: true, old: true, readings: gaps},
}

// What is behind a survey's kit: a hook that is bent, and what is known of it.
type kit struct {
	name string
	kit  survey.Kit
	hook float64 // mm that the tape's hook is bent; NaN for as tapes come
}

var kits = []kit{
	{"as it comes", nil, math.NaN()},
	{"hook 0.8", nil, 0.8},
	{"hook 0.8 proved", append(
		survey.Kit{{ID: "tape", Instrument: "tape", Proved: &survey.Proved{Bias: 0.75, Sure: 0.1, Readings: 8}}},
		survey.TrueKit()[1:]...,
	), 0.8},
}

var tapes = []float64{0.5, 1, 25.4 / 32, 25.4 / 16}

// surveyed is a house read by a school: with what was believed, and the truth.
type surveyed struct {
	readings []survey.Reading
	offers   []survey.Offer
	prior    survey.Prior
	truth    oracle.Opening
}

func (s school) read(h oracle.House, k kit, tape float64, rng *rand.Rand) surveyed {
	o := h.Draw(rng)
	out := surveyed{truth: o, prior: survey.OldOpening(o.Width, o.Height)}
	if h.New {
		out.prior = survey.NewFrame(o.Width, o.Height)
	}
	out.prior.Tape, out.prior.Kit = tape, k.kit
	hands := oracle.NewHands(rng)
	if !math.IsNaN(k.hook) {
		hands.Bias["tape"] = k.hook
	}
	if k.kit != nil { // true tools but for the tape
		for id := range hands.Bias {
			if id != "tape" {
				hands.Bias[id] = 0
			}
		}
	}
	var gap oracle.Gap
	if s.slab {
		b := oracle.NewBoard(o.Width-30, o.Height-40, rng) // it goes in however crooked the opening
		// it was planed to its opening: a taper, a head out of square
		if s.old {
			b.Taper, b.Rise, b.Drop = rng.NormFloat64()*4, rng.NormFloat64()*3, rng.NormFloat64()*3
			b.Bow = rng.NormFloat64() * 0.5
		}
		out.offers = []survey.Offer{oracle.Offer("s", b.Measured(hands, "tape", tape, rng), s.old)}
		gap = b.Stands(o, 15+rng.NormFloat64()*2, 20+rng.NormFloat64()*2, rng.NormFloat64()*0.002)
	}
	for i, r := range s.readings(o.Width, o.Height) {
		r.ID = fmt.Sprint(i)
		r = o.Read(r, oracle.Taking{Kit: k.kit, Hands: hands, Tape: tape, Gap: gap}, rng)
		if r.Check() != nil { // so crooked that the slab does not stand in it
			return s.read(h, k, tape, rng)
		}
		out.readings = append(out.readings, r)
	}
	return out
}

// edges are the margins of a slab hung on the hinge jamb, as figures of the opening: in the frame of
// the line through the jamb at the two pins.
func edges(w, h float64) (rows []survey.Row, sides []frame.Side) {
	top, bottom := h-190, 262.0
	term := func(s frame.Side, at, by float64) survey.Term { return survey.Term{Of: survey.Of(s), At: at, By: by} }
	add := func(side frame.Side, terms ...survey.Term) { rows, sides = append(rows, terms), append(sides, side) }
	for i := range 7 {
		v := h * float64(i) / 6
		f := (v - bottom) / (top - bottom)
		low, high := term(frame.Hinge, bottom, f-1), term(frame.Hinge, top, -f)
		add(frame.Lock, low, high, term(frame.Lock, v, 1))
		add(frame.Hinge, low, high, term(frame.Hinge, v, 1))
	}
	for i := range 5 {
		u := w * float64(i) / 4
		turn := u / (top - bottom)
		add(
			frame.Head, term(frame.Head, u, 1), term(frame.Head, 0, -1), term(frame.Hinge, top, turn),
			term(frame.Hinge, bottom, -turn),
		)
		add(
			frame.Foot, term(frame.Head, 0, 1), term(frame.Foot, u, -1), term(frame.Hinge, top, -turn),
			term(frame.Hinge, bottom, turn),
		)
	}
	return rows, sides
}

// held counts how often ±2σ holds the truth.
type held struct {
	in, all frame.Each[int]
	sigmas  []float64
	z2      float64
	surveys int
	accused int
}

func (c *held) add(d held) {
	for _, s := range frame.Sides {
		c.in[s] += d.in[s]
		c.all[s] += d.all[s]
	}
	c.sigmas = append(c.sigmas, d.sigmas...)
	c.z2, c.surveys, c.accused = c.z2+d.z2, c.surveys+d.surveys, c.accused+d.accused
}

func (c *held) rate() (rate float64, n int, worst float64, worstN int) {
	in := 0
	worst = 1
	for _, s := range frame.Sides {
		in, n = in+c.in[s], n+c.all[s]
		if r := float64(c.in[s]) / float64(c.all[s]); r < worst {
			worst, worstN = r, c.all[s]
		}
	}
	return float64(in) / float64(n), n, worst, worstN
}

// edges is the rate of each edge, in words.
func (c *held) edges() (says string) {
	for _, s := range frame.Sides {
		says += fmt.Sprintf(" %v %.3f", s, float64(c.in[s])/float64(c.all[s]))
	}
	return says
}

func judge(x surveyed) (c held, err error) {
	s, err := survey.Learn(x.readings, x.offers, x.prior)
	if err != nil {
		return c, err
	}
	rows, sides := edges(x.truth.Width, x.truth.Height)
	mean, cov := s.Joint(rows)
	for i, row := range rows {
		sd := math.Sqrt(max(cov.At(i, i), 0))
		if sd < 0.02 { // where the pins hold the slab to the jamb itself
			continue
		}
		var want float64
		for _, t := range row {
			side, _ := t.Of.Side()
			want += t.By * x.truth.Sides[side](t.At)
		}
		c.all[sides[i]]++
		if math.Abs(want-mean[i]) <= 2*sd {
			c.in[sides[i]]++
		}
		c.z2 += (want - mean[i]) * (want - mean[i]) / (sd * sd)
		c.sigmas = append(c.sigmas, sd)
	}
	c.surveys = 1
	if len(s.Suspects()) > 0 {
		c.accused = 1
	}
	return c, nil
}

// all runs n trials on every processor and adds up what they find.
func all(n int, trial func(i int) (held, error)) (sum held, err error) {
	var mu sync.Mutex
	var wg sync.WaitGroup
	workers := runtime.GOMAXPROCS(0)
	for w := range workers {
		wg.Go(func() {
			for i := w; i < n; i += workers {
				c, e := trial(i)
				mu.Lock()
				sum.add(c)
				if e != nil {
					err = e
				}
				mu.Unlock()
			}
		})
	}
	wg.Wait()
	return sum, err
}

// Two standard deviations hold the truth 93 times in 100 in every house and by every school, and 90 on
// every edge, on every tape, with a hook that is bent, proved or not; and no more than 98.5 over all full
// surveys. Thin surveys, which know little of how crooked the opening is, are held by how wide ± is in
// the middle. Sound readings are hardly ever accused. The openings are the oracle's.
func TestSurenessHoldsInOpeningsOfEveryForm(t *testing.T) {
	n := thorough.Count(24, 400)
	var full held
	for _, h := range oracle.Houses {
		for _, s := range schools {
			for _, k := range kits {
				if k.kit != nil && s.slab || !math.IsNaN(k.hook) && s.slab {
					continue // no tape is read
				}
				c, err := all(n*len(tapes), func(i int) (held, error) {
					rng := rand.New(rand.NewPCG(uint64(i), 41))
					return judge(s.read(h, k, tapes[i%len(tapes)], rng))
				})
				require.NoError(t, err)
				rate, figures, worst, of := c.rate()
				slices.Sort(c.sigmas)
				median := c.sigmas[len(c.sigmas)/2]
				accused := float64(c.accused) / float64(c.surveys)
				t.Logf(
					"%-21s %-16s %-16s inside %.3f, worst edge %.3f (%s), z %.2f, median σ %.2f, accused %.3f", h.Name,
					s.name, k.name, rate, worst, c.edges()[1:], math.Sqrt(c.z2/float64(figures)), median, accused,
				)
				name := fmt.Sprintf("%s, %s, %s", h.Name, s.name, k.name)
				// The figures of one survey go together: about four of them are independent.
				assert.GreaterOrEqual(t, rate, 0.93-thorough.Chance(0.93, 4*c.surveys), name)
				assert.GreaterOrEqual(t, worst, 0.90-thorough.Chance(0.90, of/4), name)
				most := 0.01
				if h.Crooked {
					most = 0.02
				}
				assert.LessOrEqual(t, accused, most+thorough.Chance(most, c.surveys), name)
				if s.name == "full" {
					full.add(c)
				}
				if h.Name == "old" && math.IsNaN(k.hook) {
					switch s.name {
					case "level":
						assert.LessOrEqual(t, median, 1.35, name)
					case "tape":
						assert.LessOrEqual(t, median, 1.55, name)
					}
				}
			}
		}
	}
	rate, figures, _, _ := full.rate()
	t.Logf("all full surveys: inside %.4f of %d figures", rate, figures)
	assert.LessOrEqual(t, rate, 0.985)
}
