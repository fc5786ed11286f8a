package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// A slab that rubs at the top and is called done asks for care at its sign-off; one that fits does not. Only where a gap
// was read a margin counts as found.
func TestASignOffUnderTheLeastAsksForCare(t *testing.T) {
	o := square()
	p := Solve(house, o)
	hang := job.Hang{ID: "h1", Fits: true}
	gap := func(id string, side frame.Side, at, value float64) {
		hang.Gaps = append(hang.Gaps, survey.Reading{
			ID: id, Kind: survey.Gap, Side: side, At: mm(at), Value: measure.FromMM(value), Offer: "h1",
		})
	}
	gap("a", frame.Head, 100, 0.5)
	gap("b", frame.Head, 720, 0.5)
	o.Tried = []job.Tried{{Made: p.Leaves[0].Try.Planned, Hangs: []job.Hang{hang}}}
	left := Solve(house, o)
	found := find(left, site.Care, "under your least")
	if assert.NotNil(t, found) {
		assert.Equal(t, job.StepLog, found.Step)
	}
	got := left.Leaves[0].Try
	assert.True(t, got.Read(frame.Head, 0))
	assert.True(t, got.Read(frame.Head, 2))
	assert.False(t, got.Read(frame.Head, 1))
	assert.False(t, got.Read(frame.Lock, 1))
	o.Tried[0].Hangs[0].Fits = false
	assert.Nil(t, find(Solve(house, o), site.Care, "under your least"), "it is not done yet")
}
