package plan_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/oracle"
	"kindmargin/core/plan"
	"kindmargin/core/survey"
	"kindmargin/thorough"
)

// kits are what is in the van.
var kits = []survey.Kit{
	nil, // one usual instrument of each kind
	plainKit,
	{
		{ID: "rods", Instrument: "rods"},
		{ID: "edge", Instrument: "straightedge"},
		{ID: "level", Instrument: "level"},
		{ID: "square", Instrument: "square"},
	},
	{{ID: "laser", Instrument: "laser"}, {ID: "tape", Instrument: "tape"}, {ID: "digital", Instrument: "digital"}},
	{{ID: "tape", Instrument: "tape"}},
}

// byHand are the readings that a hand takes first, in an order of its own, by one of the schools.
func (s *hiddenDoor) byHand() {
	w, h := s.truth.Width, s.truth.Height
	at := func(v float64) measure.Length {
		return measure.FromMM(v).Round(10*measure.Millimetre, measure.Nearest)
	}
	var list []survey.Reading
	add := func(r ...survey.Reading) { list = append(list, r...) }
	for _, f := range [][]float64{{0.1, 0.5, 0.9}, {0.1, 0.3, 0.5, 0.7, 0.9}, {0.2, 0.8}}[s.rng.IntN(3)] {
		add(survey.Reading{Kind: survey.Width, At: at(f * h)})
	}
	for _, f := range [][]float64{{0.06, 0.94}, {0.06, 0.5, 0.94}}[s.rng.IntN(2)] {
		add(survey.Reading{Kind: survey.Height, At: at(f * w)})
	}
	reads := func(k survey.Kind) bool {
		return len(s.job.Kit.Tools) == 0 ||
			slices.Collect(s.job.Kit.Tools.Each([]survey.Reading{{Kind: k, Side: frame.Hinge}})) != nil
	}
	for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
		if reads(survey.Plumb) && s.rng.IntN(3) > 0 {
			add(survey.Reading{Kind: survey.Plumb, Side: side, At: at(0.9 * h), From: at(0.1 * h)})
		}
		if reads(survey.Diagonal) && s.rng.IntN(2) > 0 {
			add(survey.Reading{Kind: survey.Diagonal, Side: side})
		}
		if reads(survey.Square) && s.rng.IntN(2) > 0 {
			add(survey.Reading{Kind: survey.Square, Side: side, At: at(0.7 * w)})
		}
	}
	for _, side := range []frame.Side{frame.Head, frame.Foot} {
		if reads(survey.Level) && s.rng.IntN(2) > 0 {
			add(survey.Reading{Kind: survey.Level, Side: side, At: at(0.94 * w), From: at(0.06 * w)})
		}
	}
	s.rng.Shuffle(len(list), func(i, j int) { list[i], list[j] = list[j], list[i] })
	for _, r := range list {
		s.read(r)
	}
}

// slip is a mistake in one reading, or in it and another, as it would stand written; ok is false where it
// changes nothing or is refused outright.
type slip struct {
	name  string
	write func(rs []survey.Reading, i, j int) (ok bool)
}

var slipsMade = []slip{
	{"10 mm more", func(rs []survey.Reading, i, _ int) bool { return by(rs, i, 10) }},
	{"10 mm less", func(rs []survey.Reading, i, _ int) bool { return by(rs, i, -10) }},
	{"1 in more", func(rs []survey.Reading, i, _ int) bool { return by(rs, i, 25.4) }},
	{"1 in less", func(rs []survey.Reading, i, _ int) bool { return by(rs, i, -25.4) }},
	{"100 mm more", func(rs []survey.Reading, i, _ int) bool { return by(rs, i, 100) }},
	{"100 mm less", func(rs []survey.Reading, i, _ int) bool { return by(rs, i, -100) }},
	{"tenfold", func(rs []survey.Reading, i, _ int) bool { return by(rs, i, 9*rs[i].Value.MM()) }},
	{"a tenth", func(rs []survey.Reading, i, _ int) bool { return by(rs, i, -0.9*rs[i].Value.MM()) }},
	{"sign", func(rs []survey.Reading, i, _ int) bool {
		k, _ := rs[i].Kind.Of()
		return k.Signed && by(rs, i, -2*rs[i].Value.MM())
	}},
	{"swapped", func(rs []survey.Reading, i, j int) bool {
		if rs[i].Kind != rs[j].Kind || rs[i].Side.Upright() != rs[j].Side.Upright() || rs[i].Value == rs[j].Value {
			return false
		}
		rs[i].Value, rs[j].Value = rs[j].Value, rs[i].Value
		return true
	}},
}

func by(rs []survey.Reading, i int, mm float64) bool {
	rs[i].Value += measure.FromMM(mm)
	return mm != 0 && rs[i].Check() == nil
}

// Each slip that people make, planted in each reading of surveys in any order and with several kits, read on
// until the program calls them ready: of plans called ready, at most one in a thousand is ruined by the slip
// alone, and at most three in a thousand more than without it.
func TestNoSlipRuinsASlabThatIsCalledReady(t *testing.T) {
	n := thorough.Count(8, 3000)
	type count struct{ planted, ready, ruined, alone, before int }
	counts := make([]count, n)
	each(n, func(i int) {
		rng := rand.New(rand.NewPCG(uint64(i), 23))
		s := newHidden(oracle.Houses[1+i%(len(oracle.Houses)-1)], kits[i%len(kits)], tapes[rng.IntN(len(tapes))], rng)
		s.byHand()
		p, _ := s.asked(45)
		if !ready(p) {
			return
		}
		c := &counts[i]
		noise := rng.Uint64()
		judged := func(p plan.Plan) bool {
			s.rng = rand.New(rand.NewPCG(noise, 1))
			return s.tooSmall(p) > 1
		}
		sound := judged(p)
		rs := s.door.Readings
		for k := range rs {
			for _, x := range slipsMade {
				for other := range k {
					if x.name != "swapped" && other > 0 {
						break
					}
					s.door.Readings = slices.Clone(rs)
					if !x.write(s.door.Readings, k, other) {
						continue
					}
					c.planted++
					p := plan.Solve(s.job, s.door)
					if len(p.Clashes) > 0 || !ready(p) {
						continue
					}
					c.ready++
					if sound {
						c.before++
					}
					if judged(p) {
						c.ruined++
						if !sound {
							c.alone++
						}
					}
				}
			}
		}
	})
	var sum count
	surveys := 0
	for _, c := range counts {
		sum.planted, sum.ready, sum.ruined, sum.alone, sum.before = sum.planted+c.planted, sum.ready+
			c.ready, sum.ruined+c.ruined, sum.alone+c.alone, sum.before+c.before
		if c.planted > 0 {
			surveys++
		}
	}
	t.Logf(
		"%d surveys ready, %d slips planted, %d still called ready, %d of them ruined by the slip alone, %d ruined "+
			"in all, %d without it",
		surveys, sum.planted, sum.ready, sum.alone, sum.ruined, sum.before,
	)
	few := 0.0 // what chance adds to a count of a few: three deviations of a Poisson count of about one
	if !thorough.On() {
		few = 3
	}
	assert.Greater(t, surveys, n/2)
	assert.LessOrEqual(t, float64(sum.alone), 0.001*float64(sum.ready)+few, "of plans that are called ready")
	assert.LessOrEqual(t, float64(sum.ruined-sum.before), 0.003*float64(sum.ready)+few)
}
