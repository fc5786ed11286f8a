package sheet

import (
	"context"
	"fmt"
	"runtime"
	"runtime/debug"
	"sync"
	"sync/atomic"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/plan"
)

// batch is how many doors are planned at once; no more of their plans are held.
const batch = 32

// Each plans the doors of a job, some at once on every processor, and hands them on in the order
// of the walk. It fails as Together does, or with what does fails with.
func Each(ctx context.Context, j job.Job, does func(load.Door) error) error {
	for from := 0; from < len(j.Openings); from += batch {
		some := j.Openings[from:min(from+batch, len(j.Openings))]
		doors := make([]load.Door, len(some))
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

func planned(j job.Job, o job.Opening) load.Door {
	return load.Door{Opening: o, Plan: plan.Solve(j, o)}
}

// Planned are all doors of a job with their plans, for a job of few. It fails as Together does.
func Planned(ctx context.Context, j job.Job) (doors []load.Door, err error) {
	err = Each(ctx, j, func(d load.Door) error {
		doors = append(doors, d)
		return nil
	})
	return doors, err
}

// Panicked is a worker that panicked: what it said, and where.
type Panicked struct {
	Value any
	Stack []byte
}

func (p *Panicked) Error() string { return fmt.Sprintf("panic: %v\n%s", p.Value, p.Stack) }

// Together does something for 0 to n − 1, on every processor, until it is done or the context is. It fails with
// the context's error, or, once the others are done, with a *Panicked for the first that panicked.
func Together(ctx context.Context, n int, does func(int)) error {
	var wg sync.WaitGroup
	var next atomic.Int64
	var panicked atomic.Pointer[Panicked]
	one := func(i int) {
		defer func() {
			if p := recover(); p != nil {
				panicked.CompareAndSwap(nil, &Panicked{p, debug.Stack()})
			}
		}()
		does(i)
	}
	for range min(n, runtime.GOMAXPROCS(0)) {
		wg.Go(func() {
			for i := int(next.Add(1)) - 1; i < n && ctx.Err() == nil; i = int(next.Add(1)) - 1 {
				one(i)
			}
		})
	}
	wg.Wait()
	if p := panicked.Load(); p != nil {
		return p
	}
	return ctx.Err()
}
