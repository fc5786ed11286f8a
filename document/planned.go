package document

import (
	"context"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/plan"
)

// batch is how many openings are planned at once, and so how many plans are in memory.
const batch = 32

// Each plans the openings of a job in parallel, and calls does with each in the order of the walk. It fails as Together
// does, or with the error of does.
func Each(ctx context.Context, j job.Job, does func(load.Opening) error) error {
	for from := 0; from < len(j.Openings); from += batch {
		some := j.Openings[from:min(from+batch, len(j.Openings))]
		openings := make([]load.Opening, len(some))
		if err := Together(ctx, len(some), func(i int) { openings[i] = planned(j, some[i]) }); err != nil {
			return err
		}
		for _, d := range openings {
			if err := ctx.Err(); err != nil {
				return err
			}
			if err := does(d); err != nil {
				return err
			}
		}
	}
	return nil
}

func planned(j job.Job, o job.Opening) load.Opening {
	return load.Opening{Opening: o, Plan: plan.Solve(j, o)}
}

// Planned are all openings of a small job with their plans. It fails as Together does.
func Planned(ctx context.Context, j job.Job) (openings []load.Opening, err error) {
	err = Each(ctx, j, func(d load.Opening) error {
		openings = append(openings, d)
		return nil
	})
	return openings, err
}
