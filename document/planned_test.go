package document

import (
	"context"
	"errors"
	"fmt"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/measure"
)

// A worker that panics does not end the program, nor the work of the others.
func TestAWorkerThatPanics(t *testing.T) {
	var done atomic.Int64
	err := Together(t.Context(), 100, func(i int) {
		if i == 40 {
			panic("no such unit")
		}
		done.Add(1)
	})
	var p *Panicked
	require.ErrorAs(t, err, &p)
	assert.Equal(t, "no such unit", p.Value)
	assert.Contains(t, p.Error(), "planned_test.go", "it says where")
	assert.EqualValues(t, 99, done.Load())
}

// Work that nobody waits for any more ends.
func TestWorkEndsWithItsRequest(t *testing.T) {
	ctx, cancel := context.WithCancel(t.Context())
	var done atomic.Int64
	err := Together(ctx, 1_000_000, func(int) {
		if done.Add(1) == 10 {
			cancel()
		}
	})
	assert.ErrorIs(t, err, context.Canceled)
	assert.Less(t, done.Load(), int64(1000))
}

// Every door is handed on once, in the order of the walk, however many are planned at a time; it ends
// with its request, and with what fails.
func TestEachDoorInOrder(t *testing.T) {
	j := job.NewJob("house", "House", measure.Millimetres)
	for i := range 2*batch + 3 {
		j.Openings = append(j.Openings, job.NewOpening(fmt.Sprint(i), fmt.Sprintf("Door %d", i), j.Unit))
	}
	var got []string
	take := func(d load.Opening) error {
		got = append(got, d.ID)
		assert.NotEmpty(t, d.Plan.ToRead, "it is planned")
		return nil
	}
	require.NoError(t, Each(t.Context(), j, take))
	require.Len(t, got, 2*batch+3)
	for i, id := range got {
		assert.Equal(t, j.Openings[i].ID, id)
	}
	gone := errors.New("the disk is gone")
	assert.ErrorIs(t, Each(t.Context(), j, func(load.Opening) error { return gone }), gone)
	ctx, cancel := context.WithCancel(t.Context())
	seen := 0
	err := Each(ctx, j, func(load.Opening) error {
		seen++
		cancel()
		return nil
	})
	assert.ErrorIs(t, err, context.Canceled)
	assert.Equal(t, 1, seen)
	require.NoError(t, Each(t.Context(), job.Job{}, take))
}
