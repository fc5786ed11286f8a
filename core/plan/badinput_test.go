package plan_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/measure"
	"kindmargin/core/oracle"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/thorough"
)

// known is a hiddenDoor in an old opening, read until the program calls it ready.
func known(t *testing.T, h oracle.House, seed uint64) *hiddenDoor {
	t.Helper()
	s := newHidden(h, plainKit, measure.HalfMillimetre, rand.New(rand.NewPCG(seed, 31)))
	p, _ := s.asked(60)
	require.True(t, ready(p), "seed %d: %v", seed, p.Findings)
	return s
}

// with is the plan with the readings changed.
func (s *hiddenDoor) with(change func(rs []survey.Reading) []survey.Reading) plan.Plan {
	door := s.door
	door.Readings = change(slices.Clone(door.Readings))
	return plan.Solve(s.job, door)
}

// neverReadyAndWrong holds that a plan waits, with what to read or what clashes, or is sound.
func (s *hiddenDoor) neverReadyAndWrong(t *testing.T, p plan.Plan, what string) (waits bool) {
	t.Helper()
	if ready(p) {
		assert.LessOrEqual(t, s.tooSmall(p), 1.0, what)
		return false
	}
	assert.True(
		t, len(p.Clashes) > 0 || len(p.ToRead) > 0 || len(p.Leaves[0].Findings) > 0, "%s: it says what to read", what,
	)
	return true
}

// What a tired hand does: a reading struck out and written again as it was, each reading of one tool wrong by
// the same, an opening of an unusual size.
func TestBadInputIsNeverReadyAndWrong(t *testing.T) {
	for seed := range uint64(6) {
		s := known(t, oracle.Houses[1], seed)
		k := slices.IndexFunc(s.door.Readings, func(r survey.Reading) bool { return r.Kind == survey.Width })
		s.neverReadyAndWrong(t, s.with(func(rs []survey.Reading) []survey.Reading {
			rs[k].Value += measure.FromMM(10)
			again := rs[k]
			again.ID = "again"
			rs[k].Struck = "read wrong"
			return append(rs, again)
		}), "struck out, and written again as it was")
		s.neverReadyAndWrong(t, s.with(func(rs []survey.Reading) []survey.Reading {
			for i, r := range rs {
				if id, _ := plainKit.Tool(r); id == "level" {
					rs[i].Value = -r.Value
				}
			}
			return rs
		}), "a level that was read the wrong way round throughout")
	}
	// A tape held at its 10 mm mark throughout reads the slab as wrong as the opening: nothing is cut too far.
	for seed := range uint64(4) {
		rng := rand.New(rand.NewPCG(seed, 37))
		s := newHidden(oracle.Houses[1], plainKit, measure.HalfMillimetre, rng)
		s.hands.Bias["tape"] = -10
		s.door.Slab = s.board.Measured(s.hands, "tape", 0.5, rng)
		much := measure.FromMM(150)
		s.door.Slab.Limits.Head, s.door.Slab.Limits.Hinge, s.door.Slab.Limits.Lock, s.door.Slab.Limits.Foot = &much, &much, &much, &much
		p, _ := s.asked(60)
		s.neverReadyAndWrong(t, p, "each reading of one tape short by 10 mm")
	}
	for _, size := range [][2]float64{{320, 1900}, {2900, 2200}} {
		h := oracle.Houses[1]
		h.Width, h.Height = size[0], size[1]
		for seed := range uint64(3) {
			rng := rand.New(rand.NewPCG(seed, 41))
			s := newHidden(h, plainKit, measure.HalfMillimetre, rng)
			p, _ := s.asked(60)
			if p.Leaves[0].Cut == nil || len(p.Leaves[0].Hinges) == 0 {
				assert.NotEmpty(t, p.All(), "it says why not")
				continue
			}
			s.neverReadyAndWrong(t, p, "an opening of an unusual size")
		}
	}
}

// Two slips that excuse one another, two readings of one kind wrong by the same: what is still called ready is
// hardly ever wrong by it.
func TestTwoSlipsThatExcuseEachOther(t *testing.T) {
	n, ruined, planted := thorough.Count(6, 200), 0, 0
	for seed := range uint64(n) {
		s := known(t, oracle.Houses[1], 100+seed)
		if s.tooSmall(plan.Solve(s.job, s.door)) > 1 {
			continue
		}
		for i := range s.door.Readings {
			for k := range i {
				a, b := s.door.Readings[i], s.door.Readings[k]
				if a.Kind != b.Kind || a.Kind != survey.Width && a.Kind != survey.Height {
					continue
				}
				planted++
				p := s.with(func(rs []survey.Reading) []survey.Reading {
					rs[i].Value -= measure.FromMM(10)
					rs[k].Value -= measure.FromMM(10)
					return rs
				})
				if len(p.Clashes) == 0 && ready(p) && s.tooSmall(p) > 1 {
					ruined++
				}
			}
		}
	}
	t.Logf("of %d openings, %d pairs planted, %d called ready and ruined", n, planted, ruined)
	assert.LessOrEqual(t, float64(ruined)/float64(planted), 0.005+thorough.Chance(0.005, planted))
}

// With a tape alone, and all read that it can read, nothing is left that could tell a slip: it is asked for once
// more, and no plan breaks off.
func TestNothingIsLeftToRead(t *testing.T) {
	kit := survey.Kit{{ID: "tape", Instrument: "tape"}}
	again := 0
	for seed := range uint64(4) {
		s := newHidden(oracle.Houses[1+seed%3], kit, measure.HalfMillimetre, rand.New(rand.NewPCG(seed, 47)))
		s.read(survey.Reading{Kind: survey.Width, At: measure.Metre})
		s.read(survey.Reading{Kind: survey.Height, At: measure.Metre / 10})
		places := survey.Candidates(measure.FromMM(s.truth.Width), measure.FromMM(s.truth.Height), measure.Millimetres)
		for r := range kit.Each(places) {
			s.read(r)
		}
		for i := range s.door.Readings {
			p := s.with(func(rs []survey.Reading) []survey.Reading {
				rs[i].Value += 10 * measure.Millimetre
				return rs
			})
			for _, f := range p.All() {
				if f.Code == site.SlipHides {
					again++
				}
			}
		}
	}
	assert.Positive(t, again, "some could hide, and are asked for once more")
}
