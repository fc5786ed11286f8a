package plan

import (
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/site"
	"kindmargin/core/stage/hinges"
)

// HingeWays checks the hinges of a job's kit and of core/trade against one leaf's slab, in their order; nil for a leaf
// that does not exist.
func HingeWays(j job.Job, o job.Opening, leaf int) []hinges.Way {
	d := site.New(j, o)
	bays := site.Bays(d)
	if leaf >= len(bays) {
		return nil
	}
	return hinges.Ways(d, bays[leaf], Solve(j, o).Leaves[leaf].Wanted[frame.Hinge].Value)
}
