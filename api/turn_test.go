package api

import (
	"context"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sync/semaphore"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/store"
)

// No more doors are planned at once than a full job has; whoever waits for a turn can go, and every turn ends.
func TestNoMoreDoorsThanAFullJobArePlannedAtOnce(t *testing.T) {
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "house.db"))
	require.NoError(t, err)
	defer st.Close()
	j := job.NewJob("", "House", measure.Millimetres)
	j.Openings = append(j.Openings, job.NewOpening("a", "Bath", measure.Millimetres), job.NewOpening("b", "Hall", measure.Millimetres))
	head, err := st.AddJob(t.Context(), j, store.Once{})
	require.NoError(t, err)
	s := server{store: st, plans: semaphore.NewWeighted(job.MostOpenings)}

	_, doors, end, err := s.planned(t.Context(), head.ID, nil)
	require.NoError(t, err)
	require.Len(t, doors, 2)
	require.True(t, s.plans.TryAcquire(job.MostOpenings-2), "the rest is for others")
	assert.False(t, s.plans.TryAcquire(1), "and no more than that")

	gone, leave := context.WithCancel(t.Context())
	left := make(chan error)
	go func() {
		_, _, end, err := s.planned(gone, head.ID, []string{doors[0].ID})
		end()
		left <- err
	}()
	leave()
	require.ErrorIs(t, <-left, context.Canceled)
	end()
	s.plans.Release(job.MostOpenings - 2)

	in := &DoorsIn{JobPath: JobPath{Job: head.ID}}
	_, err = s.load(t.Context(), in)
	require.NoError(t, err)
	_, err = s.load(t.Context(), &DoorsIn{JobPath: in.JobPath, Doors: []string{"nowhere"}})
	require.Error(t, err)
	_, err = s.load(gone, in)
	require.Error(t, err)
	end, err = s.turn(t.Context(), 10*job.MostOpenings)
	require.NoError(t, err, "a job that holds more comes to its turn too")
	end()
	assert.True(t, s.plans.TryAcquire(job.MostOpenings), "every turn has ended")
}
