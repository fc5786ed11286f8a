package store

import (
	"crypto/sha256"
	"net/url"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A data file of the seventh form, from before other devices were let in, opens.
func TestADataFileOfTheSeventhFormOpens(t *testing.T) {
	s := ofForm(t, "form7")
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

// A pass that was not used for 90 days lets nobody in; one that was let in before passes were of two kinds keeps what
// it could do.
func TestPassesOfBefore(t *testing.T) {
	path := filepath.Join(t.TempDir(), "house.db")
	db, err := connect(path, url.Values{})
	require.NoError(t, err)
	require.NoError(t, migrateTo(t.Context(), db, 13))
	hash := func(secret string) []byte {
		h := sha256.Sum256([]byte(secret))
		return h[:]
	}
	for secret, seen := range map[string]string{"used": "-89 days", "unused": "-91 days"} {
		_, err = db.Exec(
			`INSERT INTO passes (id, name, hash, made, seen)
				VALUES (?1, ?1, ?2, '2025-01-01T00:00:00Z', strftime('%Y-%m-%dT%H:%M:%SZ', 'now', ?3))`,
			secret, hash(secret), seen,
		)
		require.NoError(t, err)
	}
	require.NoError(t, db.Close())
	s := open(t, path)
	p, err := s.PassOf(t.Context(), "used")
	require.NoError(t, err)
	assert.True(t, p.Runs, "it could do all, and still can")
	_, err = s.PassOf(t.Context(), "unused")
	assert.ErrorIs(t, err, ErrNotFound)
	list, err := s.Passes(t.Context())
	require.NoError(t, err)
	assert.Len(t, list, 1)
	assert.ErrorIs(t, s.RaisePass(t.Context(), "unused", true), ErrNotFound)
	fresh, _, err := s.AddPass(t.Context(), "new")
	require.NoError(t, err)
	assert.False(t, fresh.Runs, "one that is let in now reads and enters")
	require.NoError(t, s.RaisePass(t.Context(), fresh.ID, true))
	list, err = s.Passes(t.Context())
	require.NoError(t, err)
	assert.True(t, list[1].Runs)
}
