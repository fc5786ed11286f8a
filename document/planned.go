package document

import (
	"context"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/plan"
)

// batch is how many doors are planned at once; no more of their plans are held.
const batch = 32

// Each plans the doors of a job, some at once on every processor, and hands them on in the order
// of the walk. It fails as Together does, or with what does fails with.
func Each(ctx context.Context, j job.Job, does func(load.Opening) error) error {
	for from := 0; from < len(j.Openings); from += batch {
		some := j.Openings[from:min(from+batch, len(j.Openings))]
		doors := make([]load.Opening, len(some))
		if err := Together(ctx, len(some), func(i int) { doors[i] = planned(j, some[i]) }); err != nil {
			return err
		}
		for _, d := range doors {
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

// Planned are all doors of a job with their plans, for a job of few. It fails as Together does.
func Planned(ctx context.Context, j job.Job) (doors []load.Opening, err error) {
	err = Each(ctx, j, func(d load.Opening) error {
		doors = append(doors, d)
		return nil
	})
	return doors, err
}
