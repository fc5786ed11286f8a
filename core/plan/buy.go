package plan

import (
	"kindmargin/core/job"
	"kindmargin/core/site"
	"kindmargin/core/stage/slabs"
)

// Buy checks every stock size of the job's unit against a leaf (0, or 1 for the other leaf of a pair), as a slab of
// that leaf's construction and limits. It is empty while the opening has no answer, and panics for a leaf that does not
// exist.
func Buy(j job.Job, o job.Opening, leaf int) []slabs.StockFit {
	d := site.New(j, o)
	begun, _ := begin(d)
	if begun.drawn == nil {
		return nil
	}
	return slabs.Stocks(d, begun.bays[leaf].Slab, begun.drawn[leaf])
}
