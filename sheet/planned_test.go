package sheet

import (
	"context"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
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
