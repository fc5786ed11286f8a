package store

import (
	"bytes"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The power goes: of what was written since the last save was acknowledged, a disk may keep all, a part, or nothing
// but noise. What was acknowledged is there, nothing is half there, and the file is sound. (The driver has no file
// system of one's own that can be written to, so the journal is cut by hand, as SQLite's file format, 4.1, has it.)
func TestWhatWasAcknowledgedOutlivesThePower(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	_, err := s.write.Exec(`PRAGMA wal_checkpoint(TRUNCATE)`)
	require.NoError(t, err)
	journal := func() int64 {
		at, err := os.Stat(path + "-wal")
		require.NoError(t, err)
		return at.Size()
	}
	var sizes []int64
	for n := range 25 {
		o := k.Opening
		o.Name = fmt.Sprintf("Study %d", n)
		k, _, err = s.Save(t.Context(), k, "renamed", o)
		require.NoError(t, err)
		sizes = append(sizes, journal())
	}
	file, err := os.ReadFile(path)
	require.NoError(t, err)
	wal, err := os.ReadFile(path + "-wal")
	require.NoError(t, err)
	rng := rand.New(rand.NewPCG(22, 1))
	noise := func(n int64) []byte {
		b := make([]byte, n)
		for i := range b {
			b[i] = byte(rng.UintN(256))
		}
		return b
	}
	for n := range len(sizes) - 1 {
		kept, next := sizes[n], sizes[n+1]
		require.Less(t, kept, next, "the journal grows")
		some := kept + rng.Int64N(next-kept)
		for what, left := range map[string][]byte{
			"nothing of the next": wal[:kept],
			"a part of it":        wal[:some],
			"all but a byte":      wal[:next-1],
			"a part, and nought":  append(bytes.Clone(wal[:some]), make([]byte, next-some)...),
			"noise in its place":  append(bytes.Clone(wal[:kept]), noise(next-kept)...),
			"its end without its begin": append(
				append(bytes.Clone(wal[:kept]), make([]byte, (next-kept)/2)...), wal[kept+(next-kept)/2:next]...,
			),
		} {
			after := filepath.Join(t.TempDir(), "after.db")
			require.NoError(t, os.WriteFile(after, file, 0o600))
			require.NoError(t, os.WriteFile(after+"-wal", left, 0o600))
			x, err := Open(t.Context(), after)
			require.NoError(t, err, "%s, save %d", what, n)
			o, err := x.Opening(t.Context(), k.Job.ID, k.Opening.ID)
			require.NoError(t, err)
			assert.Equal(t, fmt.Sprintf("Study %d", n), o.Opening.Name, what)
			require.NoError(t, x.Close())
			_, err = Check(t.Context(), after)
			assert.NoError(t, err, "%s, save %d", what, n)
		}
	}
}
