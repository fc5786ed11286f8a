package practice

import (
	"math/rand/v2"
	"slices"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/simulate"
	"kindmargin/core/survey"
)

// A class gets an opening whose file holds only what the instruments read: at each place, each time that it is read.
// The true opening is sealed in it for the teacher (package class), so the slab is hung when it is graded.

// Drawn is the readings at one place of a class's opening, in the order in which they are taken.
type Drawn struct {
	Reading survey.Reading   `json:"reading"` // without a value
	Values  []measure.Length `json:"values"`
	Slips   []string         `json:"slips,omitempty"` // what each was misread by, empty for nothing; sealed
}

// timesDrawn is how many readings of a place are drawn; the last one is repeated after that.
const timesDrawn = 6

// placesDrawn are the places that can be read in a class: those that a learner is shown.
func placesDrawn() (list []survey.Reading) {
	for _, at := range []measure.Length{200, 600, 1000, 1400, 1800} {
		list = append(list, survey.Reading{Kind: survey.Width, At: at * mm})
	}
	for _, at := range []measure.Length{50, 413, 776} {
		list = append(list, survey.Reading{Kind: survey.Height, At: at * mm})
	}
	for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
		list = append(
			list,
			survey.Reading{Kind: survey.Plumb, Side: side, At: 1800 * mm, From: 200 * mm},
			survey.Reading{Kind: survey.Diagonal, Side: side},
		)
	}
	for _, side := range []frame.Side{frame.Head, frame.Foot} {
		list = append(list, survey.Reading{Kind: survey.Level, Side: side, At: 770 * mm, From: 50 * mm})
	}
	return append(list, survey.Reading{Kind: survey.Square, Side: frame.Hinge, At: 600 * mm})
}

// same reports whether two readings are of one place.
func same(a, b survey.Reading) bool {
	return a.Kind == b.Kind && a.Side == b.Side && a.At == b.At && a.From == b.From && a.To == b.To &&
		a.Turned == b.Turned
}

// ForClass is an exercise for a class: whole, with the readings at each place and their slips, to be sealed; and open,
// the part that is handed out.
func ForClass(e Exercise) (whole, open Exercise) {
	whole = e
	whole.Version, whole.Drawn = classes, nil
	l, _ := levelByID(e.Level)
	kit, hidden := simulate.Usual(), e.hidden()
	for i, place := range placesDrawn() {
		d := Drawn{Reading: place}
		place.Tool, _ = kit.Tool(place)
		for n := range timesDrawn {
			rng := rand.New(rand.NewPCG(e.Seed^0x636c617373, uint64(i*timesDrawn+n)))
			r, slip := hidden.Read(place, kit, measure.HalfMillimetre, rng), ""
			if rng.Float64() < l.slips {
				r.Value, slip = slipped(r, rng)
			}
			d.Values, d.Slips = append(d.Values, r.Value), append(d.Slips, slip)
		}
		whole.Drawn = append(whole.Drawn, d)
	}
	whole.Check = whole.sum()
	return whole, whole.open("")
}

// open is the part of a class's exercise that is handed out, with the sealed whole.
func (e Exercise) open(sealed string) Exercise {
	e.Seed, e.Sides, e.Biases, e.Moves, e.Sealed = 0, nil, nil, nil, sealed
	e.Drawn = slices.Clone(e.Drawn)
	for i := range e.Drawn {
		e.Drawn[i].Slips = nil
	}
	e.Check = e.sum()
	return e
}

// Seal is a class's exercise from ForClass with its whole sealed in it.
func (e Exercise) Seal(sealed string) Exercise { return e.open(sealed) }

// Opened is an attempt at a class's exercise with the whole that was sealed in it, played to its end, for grading. It
// rejects an attempt whose readings are not those that were handed out.
func (e Exercise) Opened(whole Exercise) (Exercise, error) {
	if whole.Sealed != "" || !whole.hidden().Whole() || whole.open(e.Sealed).sum() != e.Check {
		return e, field.Fault("", "refused.exercise-sealed", nil)
	}
	whole.Moves = e.Moves
	if n := len(whole.Moves); n > 0 && whole.Moves[n-1].Do == DoCut {
		whole.Moves = append(slices.Clone(whole.Moves), Move{Do: DoDone})
	}
	return whole, nil
}

// drawn is the next reading of a place.
func (s *State) drawn(asked survey.Reading) (value measure.Length, slip string, err error) {
	times := 0
	for _, t := range s.Readings {
		if same(t.Reading, asked) {
			times++
		}
	}
	for _, d := range s.ex.Drawn {
		if same(d.Reading, asked) {
			n := min(times, len(d.Values)-1)
			if n < len(d.Slips) {
				slip = d.Slips[n]
			}
			return d.Values[n], slip, nil
		}
	}
	return 0, "", field.Fault("/reading", "refused.place-not-shown", nil)
}
