package api

import (
	"context"
	"encoding/json"
	"fmt"
	"math"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/practice"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/document"
	"kindmargin/store"
	"kindmargin/words"
)

// Practice is the record of practice, and what to practise next.
type Practice struct {
	Levels []Named        `json:"levels"`
	Drills []PracticeKind `json:"drills"`
	Runs   []PracticeRun  `json:"runs" doc:"The newest first, 60 at most."`
	Next   string         `json:"next" doc:"What to practise next: a drill's ID, or opening."`
	Why    string         `json:"why"`
}

// PracticeKind is a kind of drill with its results.
type PracticeKind struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Tried int    `json:"tried"`
	Right int    `json:"right"`
}

// PracticeRun is one result.
type PracticeRun struct {
	At    string `json:"at"`
	By    string `json:"by"`
	Kind  string `json:"kind"`
	Name  string `json:"name"`
	Right bool   `json:"right"`
	Says  string `json:"says"`
	Learn string `json:"learn"`
}

// Playing is an attempt at an exercise: drawn from a seed, or from a file.
type Playing struct {
	Seed  uint64          `json:"seed,omitempty"`
	Level string          `json:"level,omitempty"`
	File  string          `json:"file,omitempty" doc:"An exercise as it was handed out; goes before seed and level."`
	Moves []practice.Move `json:"moves"`
	By    string          `json:"by,omitempty"`
	Keep  bool            `json:"keep,omitempty" doc:"Keep what it came to, once it is done."`
}

// Played is the state of an attempt. The true opening is included once it is done.
type Played struct {
	Class    bool            `json:"class" doc:"Of a class: it ends with the cut, and its teacher grades it."`
	Name     string          `json:"name"`
	Level    string          `json:"level"`
	Bored    bool            `json:"bored" doc:"The slabs are bored on their lock edge."`
	Slabs    []document.Text `json:"slabs"`
	Readings []PlayedRead    `json:"readings"`
	Minutes  float64         `json:"minutes"`
	School   string          `json:"school"`
	Slab     int             `json:"slab" doc:"Which; below nought while none is chosen."`
	Edge     string          `json:"edge"`
	Hung     bool            `json:"hung"`
	GoesIn   bool            `json:"goesIn"`
	Light    []PlayedLight   `json:"light" doc:"Beside the hung slab, as it truly is."`
	Rounds   int             `json:"rounds"`
	Trips    int             `json:"trips"`
	Done     bool            `json:"done"`
	Grade    *PracticeGrade  `json:"grade,omitempty"`
	Attempt  string          `json:"attempt" doc:"The exercise with these moves, as a file."`
}

// PlayedRead is a reading as the learner sees it.
type PlayedRead struct {
	Name   string        `json:"name"`
	Kind   survey.Kind   `json:"kind"`
	Side   frame.Side    `json:"side,omitempty"`
	At     float64       `json:"at" doc:"In mm."`
	Text   document.Text `json:"text"`
	Struck bool          `json:"struck,omitempty" doc:"Another reading of the place said otherwise."`
}

// PlayedLight is the gap at one place.
type PlayedLight struct {
	Side  frame.Side      `json:"side"`
	Place string          `json:"place" doc:"As in a plan."`
	Where string          `json:"where" doc:"The same in words."`
	Gap   document.Length `json:"gap"`
	Rubs  bool            `json:"rubs" doc:"So tight that it rubs."`
}

// PracticeGrade is the result of an attempt, with reasons.
type PracticeGrade struct {
	Fits      bool           `json:"fits"`
	First     bool           `json:"first"`
	Trips     int            `json:"trips"`
	Minutes   float64        `json:"minutes"`
	Readings  int            `json:"readings"`
	Uneven    document.Text  `json:"uneven"`
	Waste     int            `json:"waste" doc:"cm² of slab that went under the saw."`
	Least     int            `json:"least" doc:"cm² that would have, from the right slab."`
	Said      []PracticeSaid `json:"said"`
	Unchecked []string       `json:"unchecked"`
	Learn     string         `json:"learn"`
	Plan      PracticeWould  `json:"plan" doc:"What the plan would have done with the same readings."`
}

// PracticeSaid is one judgement.
type PracticeSaid struct {
	Good bool   `json:"good"`
	Text string `json:"text"`
}

// PracticeWould is what the plan would have done.
type PracticeWould struct {
	Answers bool          `json:"answers"`
	Fits    bool          `json:"fits"`
	Trips   int           `json:"trips"`
	Minutes float64       `json:"minutes"`
	Head    document.Text `json:"head"`
	Foot    document.Text `json:"foot"`
	Length  document.Text `json:"length"`
	Uneven  document.Text `json:"uneven"`
	Why     []string      `json:"why"`
}

// practice answers with the record of practice.
func (s server) practice(ctx context.Context, _ *struct{}) (*body[Practice], error) {
	list, err := s.store.Practised(ctx)
	if err != nil {
		return nil, problem(ctx, err)
	}
	v, voice := Practice{Runs: []PracticeRun{}}, s.practised(ctx)
	for _, l := range practice.Levels {
		v.Levels = append(v.Levels, Named{l.ID, voice.Text(l.Name()), voice.Text(l.Why())})
	}
	var runs []practice.Run
	tried, right := map[string]int{}, map[string]int{}
	for _, p := range list {
		runs = append(runs, practice.Run{Kind: p.Kind, Right: p.Right, Learn: p.Learn})
		tried[p.Kind]++
		if p.Right {
			right[p.Kind]++
		}
	}
	for i := len(list) - 1; i >= 0 && len(v.Runs) < 60; i-- {
		p := list[i]
		v.Runs = append(v.Runs, PracticeRun{
			At: p.At, By: p.By, Kind: p.Kind, Name: p.Name, Right: p.Right, Says: p.Says, Learn: p.Learn,
		})
	}
	for _, d := range practice.Drills {
		v.Drills = append(v.Drills, PracticeKind{d.ID, voice.Text(d.Name()), tried[d.ID], right[d.ID]})
	}
	next, why := practice.Next(runs)
	v.Next, v.Why = next, voice.Say(why)
	return &body[Practice]{Body: v}, nil
}

// ExerciseIn is an exercise by its seed.
type ExerciseIn struct {
	Seed  uint64 `query:"seed"`
	Level string `query:"level"`
}

// exercise sends an exercise as a file, for a class.
func (s server) exercise(ctx context.Context, in *ExerciseIn) (*sheetOut, error) {
	e, err := practice.New(in.Seed, in.Level)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &sheetOut{
		"application/json", fmt.Sprintf(`attachment; filename="%s-%d.exercise.json"`, e.Level, e.Seed), e.Write(),
	}, nil
}

// practised is the voice of practice: the client's language, in millimetres.
func (s server) practised(ctx context.Context) words.Voice {
	return s.voice(ctx).Measured(measure.Millimetres, measure.HalfMillimetre)
}

// play applies the moves of an attempt.
func (s server) play(ctx context.Context, in *struct {
	Once
	raw
},
) (*body[Played], error) {
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	asked, err := read[Playing](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if err := byHand(asked.By, ""); err != nil {
		return nil, err
	}
	var e practice.Exercise
	if asked.File != "" {
		e, err = practice.Read([]byte(asked.File))
	} else {
		e, err = practice.New(asked.Seed, asked.Level)
	}
	if err != nil {
		return nil, problem(ctx, field.Error{Pointer: "/file", Problem: problemOf(err)})
	}
	st, err := practice.Play(e, asked.Moves)
	if err != nil {
		return nil, problem(ctx, field.Error{
			Pointer: fmt.Sprintf("/moves/%d", max(len(asked.Moves)-1, 0)), Problem: problemOf(err),
		})
	}
	e.Moves = asked.Moves
	voice := s.practised(ctx)
	v := playedView(voice, e, st)
	if g := st.Grade; g != nil && asked.Keep {
		p := store.Practised{
			By: asked.By, Kind: "opening", Name: voice.Say(e.Title()), Right: g.Fits && len(g.Small) == 0,
			Says: voice.Say(g.Said[0].Text), Learn: voice.Say(g.Learn), Doc: string(e.Write()),
		}
		if err := s.store.AddPractised(ctx, p, once); err != nil {
			return nil, problem(ctx, err)
		}
	}
	return &body[Played]{Body: v}, nil
}

func playedView(voice words.Voice, e practice.Exercise, st practice.State) Played {
	v := Played{
		Class: e.Sealed != "", Name: voice.Say(e.Title()), Level: e.Level, Bored: e.Bored, Slabs: []document.Text{},
		Readings: []PlayedRead{}, Minutes: st.Spent(), School: st.School, Slab: st.Slab, Edge: st.Edge,
		Hung: st.Hung, GoesIn: st.GoesIn, Light: []PlayedLight{}, Rounds: st.Rounds, Trips: st.Trips, Done: st.Done,
	}
	for _, z := range e.Slabs {
		w, l := document.Fine(z[0]), document.Fine(z[1])
		v.Slabs = append(v.Slabs, document.Text{MM: w.MM + " × " + l.MM, In: w.In + " × " + l.In})
	}
	for _, r := range st.Readings {
		v.Readings = append(v.Readings, PlayedRead{
			Name: voice.Word(r.Reading), Kind: r.Kind, Side: r.Side, At: r.At.MM(), Text: document.Fine(r.Value),
			Struck: r.Struck,
		})
	}
	for _, l := range st.Light {
		gap := measure.FromMM(l.Gap)
		v.Light = append(v.Light, PlayedLight{
			Side: l.At.Side, Place: l.At.ID(), Where: voice.Word(l.At), Gap: document.Length{MM: l.Gap, Text: document.Fine(gap)},
			Rubs: l.Gap < trade.Rubs.MM(),
		})
	}
	if st.Done {
		v.Attempt = string(e.Write())
	}
	if g := st.Grade; g != nil {
		p := g.Plan
		why := []string{}
		for _, c := range p.Cuts {
			why = append(why, voice.Word(c))
		}
		v.Grade = &PracticeGrade{
			Fits: g.Fits, First: g.First, Trips: g.Trips, Minutes: g.Minutes, Readings: g.Readings,
			Uneven: document.Fine(measure.FromMM(g.Uneven)),
			Waste:  int(math.Round(g.Waste)), Least: int(math.Round(g.Least)), // as the command line has them
			Said: []PracticeSaid{}, Unchecked: inWords(voice, g.Unchecked), Learn: voice.Say(g.Learn),
			Plan: PracticeWould{
				Answers: p.Answers, Fits: p.Fits, Trips: p.Trips, Minutes: p.Minutes, Head: document.Fine(p.Head),
				Foot: document.Fine(p.Foot), Length: document.Fine(p.Length),
				Uneven: document.Fine(measure.FromMM(p.Uneven)), Why: append(why, inWords(voice, p.Why)...),
			},
		}
		for _, x := range g.Said {
			v.Grade.Said = append(v.Grade.Said, PracticeSaid{x.Good, voice.Say(x.Text)})
		}
	}
	return v
}

// DrillIn is a drill by its kind and seed.
type DrillIn struct {
	Kind string `path:"kind"`
	Seed uint64 `query:"seed"`
}

// Drilled is a drill, without its answer.
type Drilled struct {
	Kind    string   `json:"kind"`
	Name    string   `json:"name"`
	Asks    string   `json:"asks"`
	Answers []string `json:"answers"`
}

// Answered is an answer to a drill.
type Answered struct {
	Answer int    `json:"answer" doc:"In its answers."`
	By     string `json:"by,omitempty"`
}

// DrillTold is whether it was right.
type DrillTold struct {
	Right  bool   `json:"right"`
	Answer int    `json:"answer" doc:"The right one."`
	Why    string `json:"why"`
}

func drillOf(in DrillIn) (d practice.Drill, name message.ID, err error) {
	if d, err = practice.Ask(in.Kind, in.Seed); err != nil {
		return d, "", err
	}
	for _, k := range practice.Drills {
		if k.ID == in.Kind {
			name = k.Name()
		}
	}
	return d, name, nil
}

func (s server) drill(ctx context.Context, in *DrillIn) (*body[Drilled], error) {
	d, name, err := drillOf(*in)
	if err != nil {
		return nil, problem(ctx, err)
	}
	voice := s.practised(ctx)
	return &body[Drilled]{Body: Drilled{d.Kind, voice.Text(name), voice.Say(d.Asks), inWords(voice, d.Answers)}}, nil
}

// answer checks an answer, and records the result.
func (s server) answer(ctx context.Context, in *struct {
	DrillIn
	Once
	raw
},
) (*body[DrillTold], error) {
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	asked, err := read[Answered](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	d, name, err := drillOf(in.DrillIn)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if asked.Answer < 0 || asked.Answer >= len(d.Answers) || byHand(asked.By, "") != nil {
		return nil, refusalOf(422, "api.which-answer", message.Args{"most": message.Number(len(d.Answers))})
	}
	doc, err := json.Marshal(map[string]any{"seed": in.Seed, "answer": asked.Answer})
	if err != nil {
		return nil, problem(ctx, err)
	}
	right, voice := asked.Answer == d.Right, s.practised(ctx)
	if err := s.store.AddPractised(ctx, store.Practised{
		By: asked.By, Kind: d.Kind, Name: voice.Text(name), Right: right, Says: voice.Say(d.Answers[asked.Answer]),
		Doc: string(doc),
	}, once); err != nil {
		return nil, problem(ctx, err)
	}
	return &body[DrillTold]{Body: DrillTold{right, d.Right, voice.Word(d.Why)}}, nil
}
