package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/day"
	"kindmargin/core/job"
)

// A day is kept with its version; what became of tasks is kept apart from how it is planned, so that
// a tick at the opening and a change of the hours at the desk both hold.
func TestADayIsKept(t *testing.T) {
	s, _ := fresh(t)
	k := study(t, s)
	_, version, err := s.Day(t.Context(), k.Job.ID)
	require.NoError(t, err)
	assert.Zero(t, version)
	d := day.Usual("2026-11-26")
	_, _, err = s.SetDay(t.Context(), k.Job.ID, d, 0)
	require.NoError(t, err)
	_, version, err = s.MarkTask(
		t.Context(), k.Job.ID, day.Mark{Task: "study/cut", Done: "2026-11-26T09:00"}, day.Day{},
	)
	require.NoError(t, err)
	d.Coats = 2
	_, _, err = s.SetDay(t.Context(), k.Job.ID, d, version-1)
	assert.ErrorIs(t, err, ErrStale)
	kept, version, err := s.SetDay(t.Context(), k.Job.ID, d, version)
	require.NoError(t, err)
	assert.Equal(t, 2, kept.Coats)
	assert.Len(t, kept.Marks, 1, "the tick is there")
	kept, _, err = s.MarkTask(t.Context(), k.Job.ID, day.Mark{Task: "study/cut"}, day.Day{})
	require.NoError(t, err)
	assert.Empty(t, kept.Marks, "a mark that says nothing is taken away")
	_, _, err = s.MarkTask(t.Context(), k.Job.ID, day.Mark{Task: "study/cut", Done: "soon"}, day.Day{})
	assert.ErrorContains(t, err, "refused.moment given=soon")
	again, now, err := s.Day(t.Context(), k.Job.ID)
	require.NoError(t, err)
	assert.Equal(t, kept.Coats, again.Coats)
	assert.Empty(t, again.Marks)
	assert.Greater(t, now, version)
	_, _, err = s.Day(t.Context(), "nowhere")
	assert.ErrorIs(t, err, ErrNotFound)

	require.NoError(t, s.Spend(t.Context(), k.Job.ID, k.Opening.ID, job.StepCut, 90, Once{}))
	spent, err := s.SpentAll(t.Context(), k.Job.ID)
	require.NoError(t, err)
	assert.Equal(t, map[string]map[job.Step]int{k.Opening.ID: {job.StepCut: 90}}, spent)
}
