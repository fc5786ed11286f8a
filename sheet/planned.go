package sheet

import (
	"runtime"
	"sync"
	"sync/atomic"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/plan"
)

// Planned are all doors of a job with their plans.
func Planned(j job.Job) []load.Door {
	doors := make([]load.Door, len(j.Openings))
	Together(len(doors), func(i int) { doors[i] = load.Door{Opening: j.Openings[i], Plan: plan.Solve(j, j.Openings[i])} })
	return doors
}

// Together does something for 0 to n − 1, on every processor.
func Together(n int, does func(int)) {
	var wg sync.WaitGroup
	var next atomic.Int64
	for range min(n, runtime.GOMAXPROCS(0)) {
		wg.Go(func() {
			for i := int(next.Add(1)) - 1; i < n; i = int(next.Add(1)) - 1 {
				does(i)
			}
		})
	}
	wg.Wait()
}
