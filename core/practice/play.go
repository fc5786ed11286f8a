package practice

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"kindmargin/core/field"
	"kindmargin/core/fit"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/simulate"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Move is one move of the learner's.
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

// The moves, in their order.
const (
	DoRead    = "read"
	DoMargins = "margins"
	DoSlab    = "slab"
	DoEdge    = "edge"
	DoCut     = "cut" // and hang it
	DoAdjust  = "adjust"
	DoDone    = "done"
)

// Sizes are the sizes of a slab after its cuts.
type Sizes struct {
	Head   measure.Length `json:"head"`   // width at the head
	Foot   measure.Length `json:"foot"`   // width at the foot
	Length measure.Length `json:"length"` // on the hinge edge
	HeadUp measure.Length `json:"headUp"` // how much higher the head's lock corner stands than square
	FootUp measure.Length `json:"footUp"` // and the foot's
}

// Taken is a reading as the learner sees it.
type Taken struct {
	survey.Reading
	Minutes float64
	Slip    string // the ID of what it was misread by; told once all is done
	Struck  bool   // another reading of the place said otherwise
}

// Light is the true gap beside the hung slab at one place, in mm.
type Light struct {
	At  message.End
	Gap float64
}

// State is the state of an attempt.
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
	Grade    *Grade // once it is done; a class's is graded by its teacher

	ex      Exercise
	hidden  simulate.Hidden
	kit     survey.Kit
	job     job.Job
	opening job.Opening // as the plan would have it, with the learner's readings and choices
	hung    simulate.Hung
	first   simulate.Hung
	made    Sizes
	byPlan  bool
}

// Spent is the minutes of the attempt so far, trips to the trestles included; of one that is graded those of its grade.
func (s State) Spent() float64 {
	if s.Grade != nil {
		return s.Grade.Minutes
	}
	return s.Minutes + job.UsualTrip*float64(s.Trips)
}

// mostMoves is the largest number of moves of an attempt.
const mostMoves = 300

// Play applies the moves of an attempt, deterministically. The error names the first invalid move.
func Play(e Exercise, moves []Move) (State, error) {
	s := begin(e)
	if len(moves) > mostMoves {
		return s, refuse(
			"refused.too-many-moves-played", "given", message.Number(len(moves)), "most", message.Number(mostMoves),
		)
	}
	for i, m := range moves {
		if err := s.step(i, m); err != nil {
			return s, inMove(i, err)
		}
	}
	return s, nil
}

// refuse is the error of an invalid move; args are names and values by turns.
func refuse(id message.ID, args ...any) error {
	return field.Error{Problem: message.With(id, args...)}
}

// inMove adds the move's index to an error.
func inMove(i int, err error) error {
	m, ok := message.Of(err)
	if !ok {
		return err
	}
	return refuse("refused.move", "move", message.Number(i+1), "problem", m)
}

// begin is the state before the first move.
func begin(e Exercise) State {
	s := State{ex: e, hidden: e.hidden(), kit: simulate.Usual(), Slab: -1}
	s.job = job.NewJob("practice", "Practice", measure.Millimetres)
	s.job.Kit.Tools = s.kit
	s.opening = job.NewOpening("door", "Practice", measure.Millimetres)
	s.opening.Cut.LockEdge, s.opening.Cut.Head = job.Straight, job.Straight
	return s
}

// step applies the i-th move; its random numbers depend on the exercise and on i alone.
func (s *State) step(i int, m Move) error {
	if err := s.move(m, rand.New(rand.NewPCG(s.ex.Seed, uint64(i)))); err != nil {
		return err
	}
	if s.Done && s.ex.Sealed == "" {
		g := s.grade()
		s.Grade = &g
	}
	return nil
}

func (s *State) move(m Move, rng *rand.Rand) error {
	if s.Done {
		return refuse("refused.exercise-done")
	}
	switch m.Do {
	case DoRead:
		return s.read(m.Reading, rng)
	case DoMargins:
		if _, ok := trade.SchoolByID(m.School); !ok {
			return refuse("refused.no-margins-school", "given", message.Quote(m.School))
		}
		s.School, s.opening.Margins.School = m.School, m.School
	case DoSlab:
		if s.Hung {
			return refuse("refused.slab-cut")
		}
		if m.Slab < 0 || m.Slab >= len(s.ex.Slabs) {
			return refuse("refused.no-slab", "given", message.Number(m.Slab), "most", message.Number(len(s.ex.Slabs)-1))
		}
		s.Slab = m.Slab
		much := 60 * mm
		z := s.ex.Slabs[m.Slab]
		s.opening.Slab = slab.Slab{
			Width: z[0], Length: z[1], Thickness: 35 * mm, Construction: "flush",
			Limits: slab.Limits{Head: &much, Hinge: &much, Lock: &much, Foot: &much},
		}
		if s.ex.Bored { // the hinge edge takes it all; a shaving off the lock edge does no harm
			s.opening.Cut.Registration = fit.KeepLock
		}
	case DoEdge:
		if m.Edge != "keep-lock" && m.Edge != "keep-hinge" && m.Edge != "even-stiles" {
			return refuse("refused.exercise-edge", "given", message.Quote(m.Edge))
		}
		s.Edge = m.Edge
	case DoCut:
		return s.cut(m, rng)
	case DoAdjust:
		return s.adjust(m, rng)
	case DoDone:
		if !s.Hung {
			return refuse("refused.hang-first")
		}
		s.Done = true
	default:
		return refuse("refused.no-move", "given", message.Quote(m.Do))
	}
	return nil
}

// read takes a reading with the simulated instruments, sometimes with a slip.
func (s *State) read(asked *survey.Reading, rng *rand.Rand) error {
	if asked == nil {
		return refuse("refused.say-reading")
	}
	if s.Hung {
		return refuse("refused.slab-hangs")
	}
	r := survey.Reading{
		ID: fmt.Sprintf("r%d", len(s.Readings)+1), Kind: asked.Kind, Side: asked.Side, At: asked.At, From: asked.From,
		To: asked.To, Turned: asked.Turned,
	}
	for _, t := range s.kit {
		if t.ID == asked.Tool {
			r.Tool = t.ID
		}
	}
	if r.Tool == "" {
		r.Tool, _ = s.kit.Tool(r)
	}
	if r.Kind == survey.Gap || !slices.Contains(survey.Kinds, r.Kind) {
		return refuse("refused.nothing-to-read", "given", message.Quote(r.Kind))
	}
	across, up := r.Reach()
	if across.MM() > simulate.AboutWidth || up.MM() > simulate.AboutHeight {
		return refuse(
			"refused.outside-opening", "width", message.Exact(measure.FromMM(simulate.AboutWidth)), "height",
			message.Exact(measure.FromMM(simulate.AboutHeight)),
		)
	}
	t := Taken{Minutes: s.kit.Minutes(r)}
	if len(s.ex.Drawn) > 0 {
		var err error
		if r.Value, t.Slip, err = s.drawn(r); err != nil {
			return err
		}
	} else {
		r = s.hidden.Read(r, s.kit, measure.HalfMillimetre, rng)
		l, _ := levelByID(s.ex.Level)
		if rng.Float64() < l.slips {
			r.Value, t.Slip = slipped(r, rng)
		}
	}
	if err := r.Check(); err != nil {
		return err
	}
	t.Reading = r
	s.Readings = append(s.Readings, t)
	s.Minutes += t.Minutes
	// Another reading of the place settles which of the two was misread; where both agree, both count.
	misread := func(o survey.Reading) bool { return same(o, r) && (o.Value-r.Value).Abs() > 5*mm }
	for i := range s.Readings {
		s.Readings[i].Struck = s.Readings[i].Struck || misread(s.Readings[i].Reading)
	}
	s.opening.Readings = append(slices.DeleteFunc(slices.Clone(s.opening.Readings), misread), r)
	return nil
}

// slipped is a reading with a slip: ten millimetres off, a flipped sign, or two digits swapped.
func slipped(r survey.Reading, rng *rand.Rand) (measure.Length, string) {
	small := r.Value.Abs() < 100*mm
	switch {
	case small && r.Value != 0 && rng.IntN(2) == 0:
		return -r.Value, "sign"
	case rng.IntN(2) == 0:
		return r.Value + 10*mm, "much"
	}
	return r.Value - 10*mm, "little"
}

// slips3 maps the words of files of version 3 to slips.
var slips3 = map[string]string{"its sign turned round": "sign", "10 mm too much": "much", "10 mm too little": "little"}

// slipOf is the message ID of a reading's slip.
func slipOf(id string) message.ID {
	if now, ok := slips3[id]; ok {
		id = now
	}
	return "misread." + message.ID(id)
}
