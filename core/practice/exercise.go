// Package practice is learning to hang a slab without spoiling one: hidden openings, which are read with instruments as
// wrong as real ones, cut to, hung in and graded; and short drills. A hang is judged by the same oracle as the
// simulation (package simulate).
package practice

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/simulate"
)

// The format of an exercise's file, and of an attempt's.
const (
	Format  = "kindmargin exercise"
	Version = 3
)

// The versions since which the slab is measured with the exercise's tape, and since which an exercise can be for a
// class.
const (
	taped   = 2
	classes = 3
)

// Level is a level of difficulty.
type Level struct {
	ID      string
	crooked float64 // times as crooked as an old opening usually is
	slips   float64 // share of readings that are misread
	tools   bool    // tools are as wrong as tools are
}

// Name is the name of the level.
func (l Level) Name() message.ID { return "level." + message.ID(l.ID) }

// Why describes the level.
func (l Level) Why() message.ID { return "level-why." + message.ID(l.ID) }

// Levels lists the levels, the easiest first.
var Levels = []Level{
	{"even", 0.3, 0, false},
	{"usual", 1, 0.06, true},
	{"crooked", 1.7, 0.12, true},
}

func levelByID(id string) (Level, bool) {
	i := slices.IndexFunc(Levels, func(l Level) bool { return l.ID == id })
	if i < 0 {
		return Level{}, false
	}
	return Levels[i], true
}

// Exercise is one hidden opening, with the slabs that it may be hung with.
type Exercise struct {
	Format  string               `json:"format"`
	Version int                  `json:"version"`
	Name    string               `json:"name"`
	Seed    uint64               `json:"seed"`
	Level   string               `json:"level"`
	Bored   bool                 `json:"bored"` // the slabs are bored on their lock edge
	Sides   map[string][]float64 `json:"sides"` // the true opening, mm
	Biases  map[string]float64   `json:"biases"`
	Slabs   [][2]measure.Length  `json:"slabs"`
	Drawn   []Drawn              `json:"drawn,omitempty"` // of one for a class: what is read of it
	// the whole exercise for the teacher's key; nothing true is beside it then
	Sealed string `json:"sealed,omitempty"`
	Moves  []Move `json:"moves,omitempty"` // of an attempt at it
	Check  string `json:"check"`           // of all but the moves: it tells an altered file
}

// slabs are the sizes at hand; picking one is part of the exercise.
var slabs = [][2]measure.Length{
	{762 * mm, 1981 * mm},
	{813 * mm, 2032 * mm},
	{838 * mm, 1981 * mm},
	{838 * mm, 2040 * mm},
	{864 * mm, 2083 * mm},
	{914 * mm, 2083 * mm},
}

const mm = measure.Millimetre

// mostSeed is the greatest integer that every JSON reader keeps exactly (2⁵³ − 1; RFC 8259, 6).
const mostSeed = 1<<53 - 1

// New draws an exercise, the same for the same seed and level.
func New(seed uint64, level string) (Exercise, error) {
	l, ok := levelByID(level)
	if !ok {
		return Exercise{}, field.Fault("/level", "refused.no-level", message.Args{"given": message.Quote(level)})
	}
	if seed > mostSeed {
		return Exercise{}, field.Fault("/seed", "refused.seed", message.Args{"most": message.Number(mostSeed)})
	}
	rng := rand.New(rand.NewPCG(seed, 0x6b6d))
	h := simulate.Draw(rng, l.crooked, !l.tools)
	e := Exercise{
		Format: Format, Version: taped, Name: fmt.Sprintf("%s-%d", level, seed), Seed: seed, Level: level,
		Bored: rng.IntN(2) == 0, Sides: map[string][]float64{}, Biases: h.Biases, Slabs: slabs,
	}
	for _, s := range frame.Sides {
		for _, v := range h.Sides[s] {
			e.Sides[s.String()] = append(e.Sides[s.String()], math.Round(v*1000)/1000)
		}
	}
	for k, v := range e.Biases {
		e.Biases[k] = math.Round(v*1000) / 1000
	}
	e.Check = e.sum()
	return e, nil
}

// Title is the name of the exercise: its level and number, or its file's title.
func (e Exercise) Title() message.Message {
	l, ok := levelByID(e.Level)
	if !ok || e.Sealed != "" {
		return message.Own(e.Name)
	}
	return message.With("practice.exercise", "level", l.Name(), "no", message.Number(e.Seed))
}

// sum is a checksum that detects an altered exercise.
func (e Exercise) sum() string {
	e.Moves, e.Check = nil, ""
	b, err := json.Marshal(e)
	if err != nil {
		panic(err) // it holds finite numbers alone
	}
	s := sha256.Sum256(b)
	return hex.EncodeToString(s[:8])
}

// hidden is the opening of an exercise.
func (e Exercise) hidden() simulate.Hidden {
	h := simulate.Hidden{Biases: e.Biases, Taped: e.Version >= taped}
	for _, s := range frame.Sides {
		h.Sides[s] = e.Sides[s.String()]
	}
	return h
}

// mostFile is the largest file that is read, in bytes.
const mostFile = 1 << 20

// Read decodes an exercise or an attempt. The error says what is wrong, and what would be accepted.
func Read(b []byte) (e Exercise, err error) {
	if len(b) > mostFile {
		return e, field.Fault("/file", "refused.exercise-long", message.Args{
			"most": message.Number(mostFile), "given": message.Number(len(b)),
		})
	}
	var head struct {
		Format  string
		Version int
	}
	if err := json.Unmarshal(b, &head); err != nil || head.Format != Format {
		return e, field.Fault("/file", "refused.exercise-format", message.Args{"format": Format})
	}
	if head.Version > Version {
		return e, field.Fault("/file", "refused.exercise-newer", message.Args{
			"version": message.Number(head.Version), "most": message.Number(Version),
		})
	}
	d := json.NewDecoder(bytes.NewReader(b))
	d.DisallowUnknownFields()
	if err := d.Decode(&e); err != nil {
		return e, field.Fault("/file", "refused.exercise-altered", nil)
	}
	_, ok := levelByID(e.Level)
	whole := e.hidden().Whole()
	if e.Sealed != "" {
		whole = e.Sides == nil && len(e.Drawn) > 0 &&
			!slices.ContainsFunc(e.Drawn, func(d Drawn) bool { return len(d.Values) == 0 || len(d.Values) > 100 })
	}
	if !ok || !whole || e.sum() != e.Check {
		return e, field.Fault("/file", "refused.exercise-altered", nil)
	}
	return e, nil
}

// Write encodes an exercise or an attempt.
func (e Exercise) Write() []byte {
	b, err := json.MarshalIndent(e, "", "  ")
	if err != nil {
		panic(err) // it holds finite numbers alone
	}
	return append(b, '\n')
}
