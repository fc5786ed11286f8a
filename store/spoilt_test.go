package store

import (
	"math/rand/v2"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/thorough"
)

// spoil changes a file as a bad disk or a bad hand does: bytes, a page that is another's or none, its end.
func spoil(b []byte, rng *rand.Rand) []byte {
	const page = 4096
	out := append([]byte{}, b...)
	pages := len(out) / page
	one := func() []byte {
		n := rng.IntN(pages)
		return out[n*page : (n+1)*page]
	}
	for range 1 + rng.IntN(4) {
		switch rng.IntN(6) {
		case 0, 1:
			out[rng.IntN(len(out))] ^= byte(1 + rng.IntN(255))
		case 2: // where a page says what it is, and where its cells begin
			p := one()
			p[rng.IntN(16)] = byte(rng.UintN(256))
		case 3:
			copy(one(), one())
		case 4:
			clear(one())
		case 5:
			out[rng.IntN(100)] = byte(rng.UintN(256)) // the file's own head
		}
	}
	if rng.IntN(8) == 0 {
		out = out[:rng.IntN(len(out))]
	}
	return out
}

// Whatever a data file holds, it is read or refused, and nothing panics: by check, as a backup, and as the file that
// is served. What a check refuses is not restored.
func TestSpoiltDataFiles(t *testing.T) {
	rounds := thorough.Count(120, 6000)
	s, _ := fresh(t)
	k := study(t, s)
	_, err := s.AddJob(t.Context(), job.NewJob("", "Another", measure.Inches), Once{Key: "k"})
	require.NoError(t, err)
	backup := filepath.Join(t.TempDir(), "backup.db")
	_, err = s.Backup(t.Context(), backup)
	require.NoError(t, err)
	var files [][]byte
	for _, path := range []string{backup, filepath.Join("testdata", "form2.db")} {
		b, err := os.ReadFile(path)
		require.NoError(t, err)
		files = append(files, b)
	}
	dir := t.TempDir()
	sound, refused := 0, 0
	for round := range rounds {
		rng := rand.New(rand.NewPCG(uint64(round), 22))
		file := filepath.Join(dir, "x.db")
		require.NoError(t, os.WriteFile(file, spoil(files[round%2], rng), 0o600))
		_, checked := Check(t.Context(), file)
		if checked != nil {
			refused++
			_, err := s.Restore(t.Context(), file)
			require.Error(t, err, "round %d: what a check refuses, %v, is restored", round, checked)
		}
		x, err := Open(t.Context(), file)
		if err == nil {
			sound++
			_, _ = x.Jobs(t.Context())
			_, _, _, _ = x.Job(t.Context(), k.Job.ID)
			_, _ = x.Passes(t.Context())
			require.NoError(t, x.Close())
		}
		left, err := filepath.Glob(file + "*")
		require.NoError(t, err)
		for _, f := range left {
			require.NoError(t, os.Remove(f))
		}
	}
	require.Positive(t, sound, "some hardly matter")
	require.Positive(t, refused)
	_, err = s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err, "all is as it was")
}
