package practice

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/simulate"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Move is one thing that a learner does.
type Move struct {
	Do string `json:"do"` // one of Does
	// Of a reading: what is read, and where. Its value comes from the opening.
	Reading *survey.Reading `json:"reading,omitempty"`
	School  string          `json:"school,omitempty"` // of margins
	Slab    int             `json:"slab,omitempty"`   // which of the exercise's
	Edge    string          `json:"edge,omitempty"`   // that the width comes off: a fit.Registration
	Plan    bool            `json:"plan,omitempty"`   // a cut or a round as the plan has it
	Cut     *Sizes          `json:"cut,omitempty"`
	Adjust  *job.Did        `json:"adjust,omitempty"`
}

// The things that are done, in their order.
const (
	DoRead    = "read"
	DoMargins = "margins"
	DoSlab    = "slab"
	DoEdge    = "edge"
	DoCut     = "cut" // and hang it
	DoAdjust  = "adjust"
	DoDone    = "done"
)

// Sizes are those of a slab after its cuts.
type Sizes struct {
	Head   measure.Length `json:"head"`   // width at the head
	Foot   measure.Length `json:"foot"`   // width at the foot
	Length measure.Length `json:"length"` // on the hinge edge
	HeadUp measure.Length `json:"headUp"` // how much higher the head's lock corner stands than square
	FootUp measure.Length `json:"footUp"` // and the foot's
}

// Taken is a reading as the learner has it.
type Taken struct {
	survey.Reading
	Minutes float64
	Slip    string // what it was misread by; told once all is done
}

// Light is the true light beside the hung slab, at one place, in mm.
type Light struct {
	Side  frame.Side
	Where string
	Gap   float64
}

// State is how an attempt stands.
type State struct {
	Readings []Taken
	School   string
	Slab     int // which; -1 while none is chosen
	Edge     string
	Hung     bool
	GoesIn   bool
	Light    []Light
	Rounds   int
	Trips    int
	Minutes  float64
	Done     bool
	Grade    *Grade // once it is done

	ex     Exercise
	hidden simulate.Hidden
	kit    survey.Kit
	job    job.Job
	door   job.Opening // as the plan would have it, with the learner's readings and choices
	hung   simulate.Hung
	first  simulate.Hung
	made   Sizes
	byPlan bool
}

// mostMoves is how many moves an attempt has.
const mostMoves = 300

// Play does the moves of an attempt one after the other: the same moves give the same. The error names the
// move that cannot be.
func Play(e Exercise, moves []Move) (State, error) {
	s := begin(e)
	if len(moves) > mostMoves {
		return s, fmt.Errorf("%d moves are more than %d", len(moves), mostMoves)
	}
	for i, m := range moves {
		if err := s.step(i, m); err != nil {
			return s, fmt.Errorf("move %d: %w", i+1, err)
		}
	}
	return s, nil
}

// begin is an attempt before its first move.
func begin(e Exercise) State {
	s := State{ex: e, hidden: e.hidden(), kit: simulate.Usual(), Slab: -1}
	s.job = job.NewJob("practice", "Practice", measure.Millimetres)
	s.job.Kit.Tools = s.kit
	s.door = job.NewOpening("door", "Practice", measure.Millimetres)
	s.door.Cut.LockEdge, s.door.Cut.Head = job.Straight, job.Straight
	return s
}

// step does the move that is the i-th; its chances hang on the exercise and on i alone.
func (s *State) step(i int, m Move) error {
	if err := s.move(m, rand.New(rand.NewPCG(s.ex.Seed, uint64(i)))); err != nil {
		return err
	}
	if s.Done {
		g := s.grade()
		s.Grade = &g
	}
	return nil
}

func (s *State) move(m Move, rng *rand.Rand) error {
	if s.Done {
		return fmt.Errorf("it is done: begin another")
	}
	switch m.Do {
	case DoRead:
		return s.read(m.Reading, rng)
	case DoMargins:
		if _, ok := trade.SchoolByID(m.School); !ok {
			return fmt.Errorf("there is no school of margins called %.40q", m.School)
		}
		s.School, s.door.Margins.School = m.School, m.School
	case DoSlab:
		if s.Hung {
			return fmt.Errorf("the slab is cut already: adjust it, or call it done")
		}
		if m.Slab < 0 || m.Slab >= len(s.ex.Slabs) {
			return fmt.Errorf("there is no slab %d: 0 to %d", m.Slab, len(s.ex.Slabs)-1)
		}
		s.Slab = m.Slab
		much := 60 * mm
		z := s.ex.Slabs[m.Slab]
		s.door.Slab = slab.Slab{Width: z[0], Length: z[1], Thickness: 35 * mm, Construction: "flush", Limits: slab.Limits{Head: &much, Hinge: &much, Lock: &much, Foot: &much}}
		if s.ex.Bored { // the hinge edge takes it all; a shaving off the lock edge does no harm
			s.door.Cut.Registration = string(fit.KeepLock)
		}
	case DoEdge:
		if m.Edge != "keep-lock" && m.Edge != "keep-hinge" && m.Edge != "even-stiles" {
			return fmt.Errorf("the width comes off the hinge edge, the lock edge or both, not %.40q", m.Edge)
		}
		s.Edge = m.Edge
	case DoCut:
		return s.cut(m, rng)
	case DoAdjust:
		return s.adjust(m, rng)
	case DoDone:
		if !s.Hung {
			return fmt.Errorf("nothing hangs yet: choose a slab, cut it and hang it first")
		}
		s.Done = true
	default:
		return fmt.Errorf("there is nothing called %.40q to do", m.Do)
	}
	return nil
}

// read takes a reading with the simulated instruments, now and then misread.
func (s *State) read(asked *survey.Reading, rng *rand.Rand) error {
	if asked == nil {
		return fmt.Errorf("say what is read, and where")
	}
	if s.Hung {
		return fmt.Errorf("a slab hangs there: look at its light")
	}
	r := survey.Reading{ID: fmt.Sprintf("r%d", len(s.Readings)+1), Kind: asked.Kind, Side: asked.Side, At: asked.At, From: asked.From, To: asked.To, Turned: asked.Turned}
	for _, t := range s.kit {
		if t.ID == asked.Tool {
			r.Tool = t.ID
		}
	}
	if r.Tool == "" {
		r.Tool, _ = s.kit.Tool(r)
	}
	if r.Kind == survey.Gap || !slices.Contains(survey.Kinds, r.Kind) {
		return fmt.Errorf("there is nothing called %.40q to read here", string(r.Kind))
	}
	across, up := r.Reach()
	if across.MM() > simulate.AboutWidth || up.MM() > simulate.AboutHeight {
		return fmt.Errorf("that is outside the opening, about %.0f mm by %.0f mm", simulate.AboutWidth, simulate.AboutHeight)
	}
	r = s.hidden.Read(r, s.kit, measure.HalfMillimetre, rng)
	if err := r.Check(measure.Millimetres); err != nil {
		return err
	}
	t := Taken{Minutes: s.kit.Minutes(r)}
	l, _ := levelByID(s.ex.Level)
	if rng.Float64() < l.slips {
		r.Value, t.Slip = slipped(r, rng)
	}
	t.Reading = r
	s.Readings = append(s.Readings, t)
	s.Minutes += t.Minutes
	// A place that is read again settles which of the two was misread; where both say about the same, both
	// count.
	misread := func(o survey.Reading) bool {
		return o.Kind == r.Kind && o.Side == r.Side && o.At == r.At && o.From == r.From && o.To == r.To && o.Turned == r.Turned && (o.Value-r.Value).Abs() > 5*mm
	}
	s.door.Readings = append(slices.DeleteFunc(slices.Clone(s.door.Readings), misread), r)
	return nil
}

// slipped is a misreading, as hands make them: ten millimetres out, the sign turned round, or two digits
// changed round.
func slipped(r survey.Reading, rng *rand.Rand) (measure.Length, string) {
	small := r.Value.Abs() < 100*mm
	switch {
	case small && r.Value != 0 && rng.IntN(2) == 0:
		return -r.Value, "its sign turned round"
	case rng.IntN(2) == 0:
		return r.Value + 10*mm, "10 mm too much"
	}
	return r.Value - 10*mm, "10 mm too little"
}

// cut cuts the slab and hangs it, as the learner says or as the plan has it.
func (s *State) cut(m Move, rng *rand.Rand) error {
	switch {
	case s.Hung:
		return fmt.Errorf("it is cut already")
	case s.Slab < 0:
		return fmt.Errorf("choose a slab first")
	case s.School == "":
		return fmt.Errorf("set the margins first")
	}
	z := s.ex.Slabs[s.Slab]
	if m.Plan {
		l, err := s.planned()
		if err != nil {
			return err
		}
		s.byPlan = true
		s.hung = simulate.HangPlanned(s.door.Slab, l, rng)
		w, long := plan.Sizes(*l.Try.Planned)
		made := *l.Try.Planned
		s.made = Sizes{Head: w[0], Foot: w[2], Length: long[0], HeadUp: made.Head[len(made.Head)-1] - made.Head[0]}
		s.door.Tried = []job.Tried{{Made: &made, Hangs: []job.Hang{{ID: "h1"}}}}
	} else {
		if m.Cut == nil {
			return fmt.Errorf("say what it is cut to, or take the plan's")
		}
		if s.Edge == "" {
			return fmt.Errorf("say which edge the width comes off")
		}
		c := *m.Cut
		for _, x := range []struct {
			name  string
			v, at measure.Length
			least measure.Length
		}{{"width at the head", c.Head, z[0], 300 * mm}, {"width at the foot", c.Foot, z[0], 300 * mm}, {"length", c.Length, z[1], 1000 * mm}} {
			if x.v > x.at {
				return fmt.Errorf("a %s of %s cannot be cut from a slab of %s: wood does not go back on", x.name, measure.Say(x.v, "mm"), measure.Say(x.at, "mm"))
			}
			if x.v < x.least {
				return fmt.Errorf("a %s of %s is no door", x.name, measure.Say(x.v, "mm"))
			}
		}
		if c.HeadUp.Abs() > 40*mm || c.FootUp.Abs() > 40*mm {
			return fmt.Errorf("a head or foot 40 mm out of square is none: measure it again")
		}
		s.made = c
		s.hung = simulate.HangCut(simulate.Cut{Top: c.Head.MM(), Foot: c.Foot.MM(), Length: c.Length.MM(), HeadUp: c.HeadUp.MM(), FootUp: c.FootUp.MM()}, rng)
		made := s.recorded()
		s.door.Tried = []job.Tried{{Made: &made, Hangs: []job.Hang{{ID: "h1"}}}}
	}
	s.first, s.Hung = s.hung, true
	s.look()
	return nil
}

// planned is the plan's leaf on the learner's readings and choices.
func (s *State) planned() (plan.Leaf, error) {
	p := plan.Solve(s.job, s.door)
	switch {
	case len(p.Clashes) > 0:
		return plan.Leaf{}, fmt.Errorf("the plan does not cut while readings clash: %s", p.Clashes[0].Finding.Words(measure.Millimetres, measure.HalfMillimetre))
	case p.Leaves[0].Try == nil || p.Leaves[0].Try.Planned == nil || p.Leaves[0].Cut == nil || len(p.Leaves[0].Hinges) == 0:
		return plan.Leaf{}, fmt.Errorf("the plan has no answer yet: a width, a floor-to-head and the slab are the least it needs")
	}
	return p.Leaves[0], nil
}

// recorded is what the learner's cut is recorded as.
func (s *State) recorded() job.Made {
	c := s.made
	h := s.door.Hinges
	up := measure.FromMM(simulate.AboutHeight - simulate.WantedMargin)
	pins := simulate.Pins()
	var hinges []job.MadeHinge
	for _, p := range pins {
		hinges = append(hinges, job.MadeHinge{Down: (up - measure.FromMM(p) - h.Leaf/2).Round(mm/2, measure.Nearest), Slab: h.Plate, Jamb: h.Plate})
	}
	return job.Made{
		Hand: s.door.Hand, Lock: []measure.Length{c.Foot, c.Head}, Head: []measure.Length{0, c.HeadUp}, Foot: []measure.Length{c.Length, c.Length - c.FootUp},
		Hinges: hinges, Margin: measure.FromMM(simulate.WantedMargin),
	}
}

// look is the true light of the slab as it hangs.
func (s *State) look() {
	s.Light, s.GoesIn = nil, s.hidden.GoesIn(s.hung)
	for _, side := range frame.Sides {
		reach := simulate.AboutWidth
		where := []string{"hinge corner", "middle", "lock corner"}
		if side.Upright() {
			reach = simulate.AboutHeight
			where = []string{"foot", "middle", "head"}
		}
		for i, w := range where {
			at := reach * []float64{0.04, 0.5, 0.96}[i]
			s.Light = append(s.Light, Light{side, w, math.Round(s.hidden.Gap(s.hung, side, at)*10) / 10})
		}
	}
}

// adjust does something to the slab that hangs, as the learner says or as the plan has it.
func (s *State) adjust(m Move, rng *rand.Rand) error {
	if !s.Hung {
		return fmt.Errorf("nothing hangs yet")
	}
	var did job.Did
	var minutes float64
	var trips int
	if m.Plan {
		before := s.Minutes
		way, ok := s.advised(rng)
		if !ok {
			s.Minutes = before
			return fmt.Errorf("the plan would do nothing more")
		}
		did, trips, minutes = way.Did, way.Trips, way.Minutes-float64(way.Trips)*s.job.Kit.TripMinutes()
	} else {
		if m.Adjust == nil {
			return fmt.Errorf("say what is done, or take the plan's advice")
		}
		did = *m.Adjust
		for len(did.Pack) < 2 {
			did.Pack = append(did.Pack, 0)
		}
		for _, v := range did.Pack {
			if v > 5*mm || v < -3*mm {
				return fmt.Errorf("a hinge is packed out by 5 mm or let in by 3 mm at most")
			}
		}
		for _, p := range did.Planed {
			for _, v := range p.Off {
				if v < 0 || v > 30*mm {
					return fmt.Errorf("planing takes off nought to 30 mm; wood does not go back on")
				}
			}
			if p.Side == frame.Hinge || p.Side == frame.NoSide {
				return fmt.Errorf("head, lock edge or foot is planed; at the hinge edge the hinges are moved")
			}
		}
		minutes, trips = simulate.Adjusting(did)
	}
	s.hung = s.hung.Adjusted(did, trips > 0, rng)
	hangs := s.door.Tried[0].Hangs
	s.door.Tried[0].Hangs = append(slices.Clone(hangs), job.Hang{ID: fmt.Sprint("h", len(hangs)+1), Did: &did})
	s.Rounds++
	s.Trips += trips
	s.Minutes += minutes
	s.look()
	return nil
}

// advised is what the plan would do next: it reads the gaps that it asks for first, with packers.
func (s *State) advised(rng *rand.Rand) (w plan.TryWay, ok bool) {
	last := &s.door.Tried[0].Hangs[len(s.door.Tried[0].Hangs)-1]
	for range 20 {
		t := plan.Solve(s.job, s.door).Leaves[0].Try
		if t == nil {
			return w, false
		}
		if len(t.ToRead) == 0 {
			if t.Fits || len(t.Ways) == 0 {
				return w, false
			}
			return t.Ways[0], true
		}
		for _, ask := range t.ToRead {
			r := ask.Reading
			r.ID = fmt.Sprint("g", len(last.Gaps)+1)
			noise := s.kit.Sigma(r)
			if !s.GoesIn { // it is held up against the opening
				noise, r.PlusMinus = crude, measure.FromMM(figure.Coverage*crude)
			}
			r.Value = measure.FromMM(s.hidden.Gap(s.hung, r.Side, r.At.MM()) + rng.NormFloat64()*noise)
			last.Gaps = append(last.Gaps, r)
			s.Minutes += s.kit.Minutes(r)
		}
	}
	return w, false
}

// crude is how true gaps are told of a slab that does not go in, in mm; as simulate has it.
const crude = 1.0
