package practice

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/simulate"
	"kindmargin/core/stage/hangs"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// cut cuts the slab and hangs it, by the learner's figures or the plan's; for a class the attempt ends there.
func (s *State) cut(m Move, rng *rand.Rand) error {
	switch {
	case s.Hung:
		return refuse("refused.cut-already")
	case s.Slab < 0:
		return refuse("refused.slab-first")
	case s.School == "":
		return refuse("refused.margins-first")
	}
	z := s.ex.Slabs[s.Slab]
	var hang func() simulate.Hung
	if m.Plan {
		l, err := s.planned()
		if err != nil {
			return err
		}
		s.byPlan = true
		hang = func() simulate.Hung { return s.hidden.HangPlanned(s.opening.Slab, l, s.kit, rng) }
		w, long := hangs.Sizes(*l.Try.Planned)
		made := *l.Try.Planned
		s.made = Sizes{Head: w[0], Foot: w[2], Length: long[0], HeadUp: made.Head[len(made.Head)-1] - made.Head[0]}
		s.opening.Tried = []job.Tried{{Made: &made, Hangs: []job.Hang{{ID: "h1"}}}}
	} else {
		if m.Cut == nil {
			return refuse("refused.say-cut")
		}
		if s.Edge == "" {
			return refuse("refused.say-edge")
		}
		c := *m.Cut
		for _, x := range []struct {
			what  message.ID
			v, at measure.Length
			least measure.Length
		}{
			{"practice.width-head", c.Head, z[0], 300 * mm},
			{"practice.width-foot", c.Foot, z[0], 300 * mm},
			{"practice.length", c.Length, z[1], 1000 * mm},
		} {
			if x.v > x.at {
				return refuse(
					"refused.cut-too-big", "what", x.what, "value", message.Exact(x.v), "slab", message.Exact(x.at),
				)
			}
			if x.v < x.least {
				return refuse("refused.cut-too-small", "what", x.what, "value", message.Exact(x.v))
			}
		}
		if c.HeadUp.Abs() > 40*mm || c.FootUp.Abs() > 40*mm {
			return refuse("refused.cut-out-of-square", "most", message.Exact(40*mm))
		}
		s.made = c
		hang = func() simulate.Hung {
			return s.hidden.HangCut(simulate.Cut{
				Top: c.Head.MM(), Foot: c.Foot.MM(), Length: c.Length.MM(), HeadUp: c.HeadUp.MM(),
				FootUp: c.FootUp.MM(),
			}, s.kit, rng)
		}
		made := s.recorded()
		s.opening.Tried = []job.Tried{{Made: &made, Hangs: []job.Hang{{ID: "h1"}}}}
	}
	if s.ex.Sealed != "" { // it is handed in: how it hangs is the teacher's to see
		s.Done = true
		return nil
	}
	s.hung = hang()
	s.first, s.Hung = s.hung, true
	s.look()
	return nil
}

// planned is the plan's leaf for the learner's readings and choices.
func (s *State) planned() (plan.Leaf, error) {
	p := plan.Solve(s.job, s.opening)
	switch {
	case len(p.Clashes) > 0:
		return plan.Leaf{}, refuse("refused.plan-clash")
	case p.Leaves[0].Try == nil || p.Leaves[0].Try.Planned == nil || p.Leaves[0].Cut == nil ||
		len(p.Leaves[0].Hinges) == 0:
		return plan.Leaf{}, refuse("refused.plan-no-answer")
	}
	return p.Leaves[0], nil
}

// recorded is the record of the learner's cut.
func (s *State) recorded() job.Made {
	c := s.made
	h := s.opening.Hinges
	up := measure.FromMM(simulate.AboutHeight - simulate.WantedMargin)
	pins := simulate.Pins()
	var hinges []job.MadeHinge
	for _, p := range pins {
		hinges = append(hinges, job.MadeHinge{
			Down: (up - measure.FromMM(p) - h.Leaf/2).Round(mm/2, measure.Nearest), Slab: h.Plate, Jamb: h.Plate,
		})
	}
	return job.Made{
		Hand: s.opening.Hand, Lock: []measure.Length{c.Foot, c.Head}, Head: []measure.Length{0, c.HeadUp},
		Foot:   []measure.Length{c.Length, c.Length - c.FootUp},
		Hinges: hinges, Margin: measure.FromMM(simulate.WantedMargin),
	}
}

// look is the true gaps of the hung slab.
func (s *State) look() {
	s.Light, s.GoesIn = nil, s.hidden.GoesIn(s.hung)
	for _, side := range frame.Sides {
		reach := simulate.AboutWidth
		if side.Upright() {
			reach = simulate.AboutHeight
		}
		for i, share := range []float64{0.04, 0.5, 0.96} {
			at := reach * share
			s.Light = append(s.Light, Light{
				message.End{Side: side, Place: i}, math.Round(s.hidden.Gap(s.hung, side, at)*10) / 10,
			})
		}
	}
}

// adjust changes the hung slab, by the learner's figures or the plan's.
func (s *State) adjust(m Move, rng *rand.Rand) error {
	if !s.Hung {
		return refuse("refused.nothing-hangs")
	}
	var did job.Did
	var minutes float64
	var trips int
	if m.Plan {
		before := s.Minutes
		way, ok := s.advised(rng)
		if !ok {
			s.Minutes = before
			return refuse("refused.plan-nothing")
		}
		did, trips, minutes = way.Did, way.Trips, way.Minutes-float64(way.Trips)*s.job.Kit.TripMinutes()
	} else {
		if m.Adjust == nil {
			return refuse("refused.say-done")
		}
		did = *m.Adjust
		for len(did.Pack) < 2 {
			did.Pack = append(did.Pack, 0)
		}
		for _, v := range did.Pack {
			if v > 5*mm || v < -3*mm {
				return refuse("refused.packed-far", "out", message.Exact(5*mm), "in", message.Exact(3*mm))
			}
		}
		for _, p := range did.Planed {
			for _, v := range p.Off {
				if v < 0 || v > 30*mm {
					return refuse("refused.planed-far", "most", message.Exact(30*mm))
				}
			}
			if p.Side == frame.Hinge || p.Side == frame.NoSide {
				return refuse("refused.planed-edge")
			}
		}
		minutes, trips = simulate.Adjusting(did)
	}
	s.hung = s.hung.Adjusted(did, trips > 0, rng)
	hangs := s.opening.Tried[0].Hangs
	s.opening.Tried[0].Hangs = append(slices.Clone(hangs), job.Hang{ID: fmt.Sprint("h", len(hangs)+1), Did: &did})
	s.Rounds++
	s.Trips += trips
	s.Minutes += minutes
	s.look()
	return nil
}

// advised is the plan's next step: first it reads the gaps that it asks for, with packers.
func (s *State) advised(rng *rand.Rand) (w hangs.TryWay, ok bool) {
	last := &s.opening.Tried[0].Hangs[len(s.opening.Tried[0].Hangs)-1]
	last.Outside = !s.GoesIn
	take := func(r survey.Reading) {
		r.ID = fmt.Sprint("g", len(last.Gaps)+1)
		sigma, minutes := s.kit.Sigma(r), s.kit.Minutes(r)
		if last.Outside {
			sigma, minutes = trade.TickSigma, trade.TickMinutes
		}
		r.Value = measure.FromMM(s.hidden.Gap(s.hung, r.Side, r.At.MM()) + rng.NormFloat64()*sigma)
		last.Gaps = append(last.Gaps, r)
		s.Minutes += minutes
	}
	for range 20 {
		t := plan.Solve(s.job, s.opening).Leaves[0].Try
		if t == nil {
			return w, false
		}
		if t.Look {
			s.Minutes += trade.LightMinutes
			last.Looked = true
			for _, r := range s.hidden.Lumps(s.hung, last.Gaps, rng) {
				r.Offer = last.ID
				take(r)
			}
			continue
		}
		if t.Slide && len(t.ToRead) == 0 {
			s.Minutes += trade.SlideMinutes
			side, at, passes := s.hidden.Slides(s.hung)
			last.Slid, last.Bound = passes, !passes
			if last.Bound {
				take(survey.Reading{Kind: survey.Gap, Side: side, At: at, Offer: last.ID, Local: true})
			}
			continue
		}
		if len(t.ToRead) == 0 {
			if t.Fits || len(t.Near) > 0 || len(t.Ways) == 0 {
				return w, false
			}
			return t.Ways[0], true
		}
		for _, ask := range t.ToRead {
			take(ask.Reading)
		}
	}
	return w, false
}
