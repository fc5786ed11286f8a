package store

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A data file of the seventh form, from before other devices were let in, opens.
func TestADataFileOfTheSeventhFormOpens(t *testing.T) {
	b, err := os.ReadFile(filepath.Join("testdata", "form7.db"))
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "house.db")
	require.NoError(t, os.WriteFile(path, b, 0o600))
	s := open(t, path)
	heads, err := s.Jobs(t.Context())
	require.NoError(t, err)
	assert.Equal(t, "Dunlin House", heads[0].Name)
	assert.NotNil(t, heads[0].Usual.Lock)
	list, err := s.Passes(t.Context())
	require.NoError(t, err)
	assert.Empty(t, list)
}

// Of a pass only a hash is kept; it holds until it is ended, and no backup brings it back.
func TestPasses(t *testing.T) {
	s, path := fresh(t)
	study(t, s)
	p, secret, err := s.AddPass(t.Context(), "Wren's phone")
	require.NoError(t, err)
	same, err := s.PassOf(t.Context(), secret)
	require.NoError(t, err)
	assert.Equal(t, p, same)
	_, err = s.PassOf(t.Context(), secret+"x")
	assert.ErrorIs(t, err, ErrNotFound)
	backup := filepath.Join(t.TempDir(), "backup.db")
	_, err = s.Backup(t.Context(), backup)
	require.NoError(t, err)
	for _, file := range []string{path, path + "-wal", backup} {
		b, err := os.ReadFile(file)
		require.NoError(t, err)
		assert.NotContains(t, string(b), secret, "what a device holds stands nowhere: %s", file)
	}
	require.NoError(t, s.EndPass(t.Context(), p.ID))
	assert.ErrorIs(t, s.EndPass(t.Context(), p.ID), ErrNotFound)
	later, kept, err := s.AddPass(t.Context(), "another")
	require.NoError(t, err)
	_, err = s.Restore(t.Context(), backup)
	require.NoError(t, err)
	_, err = s.PassOf(t.Context(), secret)
	assert.ErrorIs(t, err, ErrNotFound, "a pass that was ended stays so")
	same, err = s.PassOf(t.Context(), kept)
	require.NoError(t, err)
	assert.Equal(t, later, same, "and one that holds goes on")
	for range mostPasses - 1 {
		_, _, err = s.AddPass(t.Context(), "more")
		require.NoError(t, err)
	}
	_, _, err = s.AddPass(t.Context(), "one too many")
	assert.ErrorIs(t, err, ErrPasses)
}
