package api

import (
	"context"

	"kindmargin/core/job"
	"kindmargin/core/plan"
)

// StepIn is a step of an opening.
type StepIn struct {
	OpeningPath
	Step job.Step `query:"step" doc:"One that was finished."`
}

// ChangedStep is what changed a step since it was finished.
type ChangedStep struct {
	Since   string   `json:"since" doc:"When it was finished, RFC 3339; empty where that is not known any more."`
	Changes []Change `json:"changes" doc:"What changed its inputs since, the first one first."`
}

// mostPast is how many changes are looked back on: each is planned anew.
const mostPast = 100

// changed tells since when a finished step's inputs are other ones, and by which changes.
func (s server) changed(ctx context.Context, in *StepIn) (*body[ChangedStep], error) {
	head, err := s.store.Head(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	past, err := s.store.Past(ctx, in.Job, in.Opening, mostPast)
	if err != nil {
		return nil, problem(ctx, err)
	}
	v := ChangedStep{Changes: []Change{}}
	j, done := head.Job(), past[0].Opening.Done[in.Step]
	if done == "" {
		return &body[ChangedStep]{Body: v}, nil
	}
	last := 0 // the change that finished it
	for last+1 < len(past) && past[last+1].Opening.Done[in.Step] == done {
		last++
	}
	if last+1 < len(past) {
		v.Since = past[last].At
	}
	mark := func(o job.Opening) string {
		for _, p := range plan.Solve(j, o).Steps {
			if p.Step == in.Step {
				return p.Mark
			}
		}
		return ""
	}
	was := mark(past[last].Opening)
	for i := last - 1; i >= 0 && ctx.Err() == nil; i-- {
		if now := mark(past[i].Opening); now != was {
			was = now
			v.Changes = append(v.Changes, Change{past[i].At, past[i].By, past[i].Label})
		}
	}
	return &body[ChangedStep]{Body: v}, ctx.Err()
}
