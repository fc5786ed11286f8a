package store

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a kill leaves half done goes at the next start, and nothing of a program that still runs.
func TestWhatAKillLeavesGoesAtTheNextStart(t *testing.T) {
	t.Setenv("TMPDIR", t.TempDir())
	dir := t.TempDir()
	path := filepath.Join(dir, "house [1].db")
	other, err := Open(t.Context(), filepath.Join(dir, "other.db"))
	require.NoError(t, err)
	defer other.Close()
	others, err := other.Scratch()
	require.NoError(t, err)

	s, err := Open(t.Context(), path)
	require.NoError(t, err)
	left, err := s.Scratch()
	require.NoError(t, err)
	half := []string{
		filepath.Join(left, "sent.db"), path + ".restoring", path + ".restoring-2", path + ".restoring-wal",
	}
	kept := []string{path + ".before-restore", path + ".form2", filepath.Join(dir, "house 1.db.restoring")}
	for _, name := range append(half, kept...) {
		require.NoError(t, os.WriteFile(name, []byte("half"), 0o600))
	}
	second, err := Open(t.Context(), path)
	require.NoError(t, err)
	for _, name := range half {
		assert.FileExists(t, name, "another program may be at it")
	}
	require.NoError(t, second.Close())
	require.NoError(t, s.Close())

	s, err = Open(t.Context(), path)
	require.NoError(t, err)
	defer s.Close()
	for _, name := range half {
		assert.NoFileExists(t, name)
	}
	assert.NoDirExists(t, left)
	assert.DirExists(t, others, "that is another data file's")
	for _, name := range kept {
		assert.FileExists(t, name)
	}
}
