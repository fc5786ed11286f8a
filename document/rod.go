package document

import (
	"context"
	"slices"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/plan"
)

// StoryRod is one rod for the openings of a job. One end is held past the slab's top by the head margin, or against the
// head of the opening.
type StoryRod struct {
	Of       string       `json:"of" doc:"The opening whose marks it carries."`
	Marks    []RodMark    `json:"marks"`
	Openings []RodOpening `json:"openings" doc:"The other openings: how each differs from the rod."`
}

// RodOpening is how an opening differs from the rod.
type RodOpening struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	Leaf    int      `json:"leaf" doc:"Of a pair, 1 or 2."`
	Meets   bool     `json:"meets" doc:"It has every mark where the rod has it."`
	Off     []RodOff `json:"off"`
	Missing string   `json:"missing" doc:"Why it cannot be marked from this rod; empty where it can."`
}

// RodOff is a mark that is elsewhere in an opening.
type RodOff struct {
	Name string `json:"name"`
	Jamb Length `json:"jamb" doc:"So much lower in the jamb than the rod has it; below nought higher."`
	Slab Length `json:"slab"`
}

// Rod is a story rod from one opening of a job, compared with the others; it calls told after each. ok is false where
// that opening does not exist, or has no hinges yet. It fails as Each does.
func Rod(ctx context.Context, j job.Job, from string, told func()) (v StoryRod, ok bool, err error) {
	i := slices.IndexFunc(j.Openings, func(o job.Opening) bool { return o.ID == from })
	if i < 0 {
		return v, false, nil
	}
	r, ok := plan.StoryRod(planned(j, j.Openings[i]))
	if !ok {
		return v, false, nil
	}
	if err := Each(ctx, j, func(d load.Opening) error {
		r.Compare(d, j.Tape.Step()/2)
		told()
		return nil
	}); err != nil {
		return v, true, err
	}
	p := newPrinter(j)
	v = StoryRod{Of: r.Of, Marks: p.rodMarks(r.Marks), Openings: []RodOpening{}}
	for _, d := range r.Openings {
		opening := RodOpening{
			ID: d.ID, Name: d.Name, Leaf: d.Leaf, Meets: d.Missing.ID == "" && len(d.Off) == 0, Off: []RodOff{},
			Missing: p.maybe(d.Missing),
		}
		for _, o := range d.Off {
			opening.Off = append(opening.Off, RodOff{p.voice.Say(o.Name), p.length(o.Jamb), p.length(o.Slab)})
		}
		v.Openings = append(v.Openings, opening)
	}
	return v, true, nil
}

func (p printer) rodMarks(list []plan.RodMark) []RodMark {
	out := make([]RodMark, len(list))
	for i, m := range list {
		out[i] = RodMark{m.ID, p.voice.Say(m.Name), p.figure(m.Jamb), p.figure(m.Slab)}
	}
	return out
}
