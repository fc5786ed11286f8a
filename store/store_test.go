package store

import (
	"context"
	"os"
	"path/filepath"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/demo"
)

func open(t *testing.T, path string) *Store {
	s, err := Open(t.Context(), path)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

// ofForm opens a data file that an earlier program made.
func ofForm(t *testing.T, form string) *Store {
	b, err := os.ReadFile(filepath.Join("testdata", form+".db"))
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "house.db")
	require.NoError(t, os.WriteFile(path, b, 0o600))
	return open(t, path)
}

func fresh(t *testing.T) (*Store, string) {
	path := filepath.Join(t.TempDir(), "a house & garden?.db")
	return open(t, path), path
}

func study(t *testing.T, s *Store) Kept {
	h, err := s.AddJob(t.Context(), job.NewJob("", "House", measure.Millimetres), Once{})
	require.NoError(t, err)
	k, err := s.AddOpening(t.Context(), h.ID, job.NewOpening("", "Study", measure.Millimetres), Once{})
	require.NoError(t, err)
	return k
}

func TestDemoComesBackByteForByte(t *testing.T) {
	s, path := fresh(t)
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	for _, j := range jobs {
		_, err := s.AddJob(t.Context(), j, Once{})
		require.NoError(t, err)
	}
	require.NoError(t, s.Close())
	s = open(t, path)
	heads, err := s.Jobs(t.Context())
	require.NoError(t, err)
	require.Len(t, heads, 2)
	for i, j := range jobs {
		head, kept, _, err := s.Job(t.Context(), heads[i].ID)
		require.NoError(t, err)
		back := head.Job()
		for _, k := range kept {
			back.Openings = append(back.Openings, k.Opening)
		}
		want, err := job.Encode(j)
		require.NoError(t, err)
		got, err := job.Encode(back)
		require.NoError(t, err)
		assert.Equal(t, string(want), string(got))
	}
	again, err := s.AddJob(t.Context(), jobs[0], Once{})
	require.NoError(t, err)
	assert.NotEqual(t, jobs[0].ID, again.ID, "a second copy gets an ID of its own")
}

func TestUndoAndRedoAcrossRestarts(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	jobID, id := k.Job.ID, k.Opening.ID
	assert.Empty(t, k.Undo, "nothing to take back yet")
	rename := func(name string) {
		o := k.Opening
		o.Name = name
		var err error
		k, _, err = s.Save(t.Context(), k, "named "+name, o)
		require.NoError(t, err)
	}
	step := func(f func(context.Context, string, string, int64, Once) (Kept, error), want string) {
		var err error
		k, err = f(t.Context(), jobID, id, k.Version, Once{})
		require.NoError(t, err)
		assert.Equal(t, want, k.Opening.Name)
	}
	rename("A")
	rename("B")
	assert.Equal(t, "named B", k.Undo)
	require.NoError(t, s.Close())

	s = open(t, path)
	step(s.Undo, "A")
	step(s.Undo, "Study")
	_, err := s.Undo(t.Context(), jobID, id, k.Version, Once{})
	assert.ErrorIs(t, err, ErrNothing)
	require.NoError(t, s.Close())

	s = open(t, path)
	assert.Equal(t, "named A", k.Redo)
	step(s.Redo, "A")
	rename("C") // from A: redo now leads to C, and B is still in the history
	step(s.Undo, "A")
	step(s.Redo, "C")
	_, err = s.Redo(t.Context(), jobID, id, k.Version, Once{})
	assert.ErrorIs(t, err, ErrNothing)
	var n int
	require.NoError(t, s.write.QueryRow(`SELECT count(*) FROM changes`).Scan(&n))
	assert.Equal(t, 4, n, "no change was ever taken away")
}

func TestAStaleSaveIsRefused(t *testing.T) {
	s, _ := fresh(t)
	k := study(t, s)
	first, _, err := s.Save(t.Context(), k, "one", k.Opening)
	require.NoError(t, err)
	_, _, err = s.Save(t.Context(), k, "two", k.Opening)
	assert.ErrorIs(t, err, ErrStale)
	now, err := s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err)
	assert.Equal(t, first.Version, now.Version)
	assert.Equal(t, "one", now.Undo)
	_, err = s.Undo(t.Context(), k.Job.ID, k.Opening.ID, k.Version, Once{})
	assert.ErrorIs(t, err, ErrStale)
	h := k.Job
	h.Name = "New name"
	h.Presets = []job.Preset{{Name: "Ours", Margins: k.Opening.Margins}}
	h2, err := s.SetHead(t.Context(), h, h.Version, Once{})
	require.NoError(t, err)
	assert.Equal(t, "New name", h2.Name)
	assert.Equal(t, h.Presets, h2.Presets)
	_, err = s.SetHead(t.Context(), h, h.Version, Once{})
	assert.ErrorIs(t, err, ErrStale)
}

func TestOneOfManySavesAtOnceWins(t *testing.T) {
	s, _ := fresh(t)
	k := study(t, s)
	var wg sync.WaitGroup
	won := make(chan bool, 8)
	for range cap(won) {
		wg.Go(func() {
			_, _, err := s.Save(context.Background(), k, "race", k.Opening)
			if err != nil {
				assert.ErrorIs(t, err, ErrStale)
			}
			won <- err == nil
		})
	}
	wg.Wait()
	close(won)
	wins := 0
	for w := range won {
		if w {
			wins++
		}
	}
	assert.Equal(t, 1, wins)
}

func TestRemoveAndPutBack(t *testing.T) {
	s, _ := fresh(t)
	k := study(t, s)
	assert.ErrorIs(t, s.Remove(t.Context(), k.Job.ID, k.Opening.ID, k.Version+1), ErrStale)
	require.NoError(t, s.Remove(t.Context(), k.Job.ID, k.Opening.ID, k.Version))
	_, err := s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	assert.ErrorIs(t, err, ErrNotFound)
	_, list, off, err := s.Job(t.Context(), k.Job.ID)
	require.NoError(t, err)
	assert.Empty(t, list)
	require.Len(t, off, 1)
	assert.Equal(t, "Study", off[0].Opening.Name)
	require.NoError(t, s.PutBack(t.Context(), k.Job.ID, k.Opening.ID))
	back, err := s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err)
	assert.Equal(t, k.Opening, back.Opening)
	assert.ErrorIs(t, s.Remove(t.Context(), k.Job.ID, "none", 1), ErrNotFound)
	_, _, _, err = s.Job(t.Context(), "none")
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestADiskThatCannotBeWritten(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	// A full disk, as SQLite sees it: no page may be added.
	var pages int
	require.NoError(t, s.write.QueryRow(`PRAGMA page_count`).Scan(&pages))
	_, err := s.write.Exec(`PRAGMA max_page_count = 1`) // clamps to the present count
	require.NoError(t, err)
	big := k.Opening
	for i := range 200 {
		big.Readings = append(big.Readings, job.NewOpening("", "", "").Readings...)
		big.Room += "a long, long, long name for a small room " + string(rune('a'+i%26))
	}
	_, _, err = s.Save(t.Context(), k, "too much", big)
	require.ErrorIs(t, err, ErrDisk)
	now, err := s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err)
	assert.Equal(t, k, now, "nothing half-written")
	require.NoError(t, s.Close())

	_, err = Open(t.Context(), filepath.Join(path, "no", "such", "folder.db"))
	assert.ErrorIs(t, err, ErrDisk)
	junk := filepath.Join(t.TempDir(), "junk.db")
	require.NoError(
		t, os.WriteFile(junk, []byte("this is no data file, only a long enough line of text to be looked at"), 0o600),
	)
	_, err = Open(t.Context(), junk)
	assert.ErrorContains(t, err, "cannot be used")
}

func TestANewerDataFileIsRefused(t *testing.T) {
	s, path := fresh(t)
	_, err := s.write.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	_, err = Open(t.Context(), path)
	assert.ErrorContains(t, err, "update the program")
}

// A data file of the fourteenth form, from before a job had a language, opens, and one is kept from then on.
func TestADataFileOfTheFourteenthFormOpens(t *testing.T) {
	s := ofForm(t, "form14")
	heads, err := s.Jobs(t.Context())
	require.NoError(t, err)
	require.Equal(t, "Plover House", heads[0].Name)
	assert.Empty(t, heads[0].Language)
	h := heads[0]
	h.Language = job.British
	h, err = s.SetHead(t.Context(), h, h.Version, Once{})
	require.NoError(t, err)
	assert.Equal(t, job.British, h.Language)
	_, walk, _, err := s.Job(t.Context(), h.ID)
	require.NoError(t, err)
	assert.Len(t, walk, 1)
	copied, err := s.AddJob(t.Context(), h.Job(), Once{})
	require.NoError(t, err)
	assert.Equal(t, job.British, copied.Language)
}

// A data file of the fifteenth form, which kept latches and locks as devices and a day's openings as doors, opens with
// all of them; what somebody wrote that looks like such a name stays as it was written.
func TestADataFileOfTheFifteenthFormOpens(t *testing.T) {
	s := ofForm(t, "form15")
	heads, err := s.Jobs(t.Context())
	require.NoError(t, err)
	h := heads[0]
	require.Len(t, h.Kit.Hardware, 1)
	assert.Equal(t, `a "device": of ours`, h.Kit.Hardware[0].Name)
	require.NotNil(t, h.Usual.Lock)
	assert.Equal(t, "own-1", h.Usual.Lock.Hardware)
	_, walk, _, err := s.Job(t.Context(), h.ID)
	require.NoError(t, err)
	require.Len(t, walk, 1)
	assert.Equal(t, `The "device":"x" room`, walk[0].Opening.Name)
	assert.Equal(t, "own-1", walk[0].Opening.Lock.Hardware)
	d, _, err := s.Day(t.Context(), h.ID)
	require.NoError(t, err)
	assert.Equal(t, []string{walk[0].Opening.ID}, d.Openings)
}
