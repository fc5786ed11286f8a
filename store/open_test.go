package store

import (
	"database/sql"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
)

// copied is a data file of the second form, as the program made it before files
// bore a mark: two jobs, and one reading added to the linen room.
func copied(t *testing.T) string {
	b, err := os.ReadFile(filepath.Join("testdata", "form2.db"))
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "house.db")
	require.NoError(t, os.WriteFile(path, b, 0o600))
	return path
}

func TestADataFileOfTheSecondFormOpens(t *testing.T) {
	path := copied(t)
	s := open(t, path)
	heads, err := s.Jobs(t.Context())
	require.NoError(t, err)
	require.Len(t, heads, 2)
	assert.Equal(t, "Tern House", heads[0].Name)
	assert.False(t, heads[0].Removed)
	k, err := s.Opening(t.Context(), "tern-house", "linen")
	require.NoError(t, err)
	assert.Equal(t, "width 725", k.Undo)
	assert.Len(t, k.Opening.Readings, 10)
	assert.Equal(t, measure.FromMM(1984.5), k.Opening.Readings[4].Value)
	assert.Equal(t, job.Old, k.Opening.Walls, "what was kept as words is kept as an ID")
	assert.NoError(t, k.Opening.Check())
	k, err = s.Undo(t.Context(), "tern-house", "linen", k.Version, Once{})
	require.NoError(t, err)
	assert.Len(t, k.Opening.Readings, 9)

	// The file as it was stands beside it.
	before, err := Check(t.Context(), path+".form2")
	require.NoError(t, err)
	assert.Equal(t, Report{Jobs: 2, Openings: 7, Changes: 8}, before)
	id, _, err := header(path + ".form2")
	require.NoError(t, err)
	assert.Zero(t, id, "the copy is not brought to the newest form")
}

func TestABackupMadeWhileServingIsWhole(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s) // in the journal, not yet in the file itself
	for range 5 {
		var err error
		k, _, err = s.Save(t.Context(), k, "again", k.Opening)
		require.NoError(t, err)
	}
	to := filepath.Join(t.TempDir(), "backup.db")
	r, err := Backup(t.Context(), path, to)
	require.NoError(t, err)
	assert.Equal(t, Report{Jobs: 1, Openings: 1, Changes: 6}, r)
	_, err = Backup(t.Context(), path, to)
	assert.ErrorContains(t, err, "never overwrites")
	info, err := os.Stat(to)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm(), "only its owner reads it")
	back := open(t, to)
	again, err := back.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err)
	assert.Equal(t, k.Version, again.Version)
	info, err = os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
}

func TestADamagedFileIsFoundAtStartAndNamed(t *testing.T) {
	path := copied(t)
	b, err := os.ReadFile(path)
	require.NoError(t, err)
	for i := 3 * 4096; i < 7*4096; i++ { // four pages lost
		b[i] = 0xAA
	}
	require.NoError(t, os.WriteFile(path, b, 0o600))
	_, err = Open(t.Context(), path)
	assert.ErrorIs(t, err, ErrDamaged)
	assert.ErrorContains(t, err, "house.db")
	assert.ErrorContains(t, err, "backup")
	_, err = Check(t.Context(), path)
	assert.ErrorIs(t, err, ErrDamaged)
	now, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.Equal(t, b, now, "it is left as it was found")
}

func TestOneDoorThatCannotBeReadLeavesTheOthers(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	two, err := s.AddOpening(t.Context(), k.Job.ID, job.NewOpening("", "Pantry", measure.Millimetres), Once{})
	require.NoError(t, err)
	_, err = s.write.Exec(`UPDATE changes SET doc = '{"name": 3' WHERE id = ?`, k.Version)
	require.NoError(t, err)
	_, walk, _, err := s.Job(t.Context(), k.Job.ID)
	require.NoError(t, err)
	require.Len(t, walk, 2)
	assert.ErrorIs(t, walk[0].Broken, ErrDamaged)
	assert.Equal(t, two.Opening, walk[1].Opening)
	_, err = s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	assert.ErrorIs(t, err, ErrDamaged)
	_, err = Check(t.Context(), path)
	assert.ErrorContains(t, err, "row 1 of changes")
}

func TestReadingWaitsForNoWriter(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	other, err := sql.Open("sqlite", "file:"+strings.ReplaceAll(path, "?", "%3f")+"?_txlock=immediate")
	require.NoError(t, err)
	defer other.Close()
	tx, err := other.Begin() // another program holds the lock to write
	require.NoError(t, err)
	_, err = s.Opening(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err, "one that needed the lock would be told that it is held")
	_, _, _, err = s.Job(t.Context(), k.Job.ID)
	require.NoError(t, err)
	_, err = s.write.Exec(`PRAGMA busy_timeout = 50`)
	require.NoError(t, err)
	_, _, err = s.Save(t.Context(), k, "held", k.Opening)
	assert.ErrorIs(t, err, ErrBusy)
	require.NoError(t, tx.Rollback())
	_, _, err = s.Save(t.Context(), k, "free", k.Opening)
	assert.NoError(t, err)
}

func TestTheSameRequestSentAgainMakesOneThing(t *testing.T) {
	s, _ := fresh(t)
	j := job.NewJob("", "House", measure.Millimetres)
	one, err := s.AddJob(t.Context(), j, Once{Key: "k1"})
	require.NoError(t, err)
	again, err := s.AddJob(t.Context(), j, Once{Key: "k1"})
	require.NoError(t, err)
	assert.Equal(t, one, again)
	o := job.NewOpening("", "Study", measure.Millimetres)
	a, err := s.AddOpening(t.Context(), one.ID, o, Once{Key: "k2"})
	require.NoError(t, err)
	b, err := s.AddOpening(t.Context(), one.ID, o, Once{Key: "k2"})
	require.NoError(t, err)
	assert.Equal(t, a, b)
	// A key is that of one kind of thing in one place: used for another, it is another.
	other, err := s.AddJob(t.Context(), j, Once{Key: "k2"})
	require.NoError(t, err)
	assert.NotEqual(t, one.ID, other.ID)
	c, err := s.AddOpening(t.Context(), other.ID, o, Once{Key: "k2"})
	require.NoError(t, err)
	assert.NotEqual(t, a.Opening.ID, c.Opening.ID)
	heads, err := s.Jobs(t.Context())
	require.NoError(t, err)
	require.Len(t, heads, 2)
	assert.Equal(t, 1, heads[0].Openings)
	assert.Equal(t, 1, heads[1].Openings)
}

func TestAJobIsTakenOffAndPutBack(t *testing.T) {
	s, _ := fresh(t)
	k := study(t, s)
	_, err := s.SetJobRemoved(t.Context(), k.Job.ID, 9, true, Once{})
	assert.ErrorIs(t, err, ErrStale)
	h, err := s.SetJobRemoved(t.Context(), k.Job.ID, 1, true, Once{})
	require.NoError(t, err)
	assert.True(t, h.Removed)
	h, err = s.SetJobRemoved(t.Context(), k.Job.ID, h.Version, false, Once{})
	require.NoError(t, err)
	assert.False(t, h.Removed)
	assert.Equal(t, 1, h.Openings, "with its doors")
}

func TestTheDemoPutsOnlyItsOwnFileAside(t *testing.T) {
	real, path := fresh(t)
	study(t, real)
	require.NoError(t, real.Close())
	assert.ErrorContains(t, Fresh(path), "may hold real work")
	_, err := Check(t.Context(), path)
	require.NoError(t, err, "it is left where it was")

	path = filepath.Join(t.TempDir(), "demo.db")
	require.NoError(t, Fresh(path), "there is nothing to put aside")
	s := open(t, path)
	require.NoError(t, s.MarkDemo(t.Context()))
	k := study(t, s)
	assert.ErrorContains(t, Fresh(path), "in use by another Kind Margin")
	_, _, err = s.Save(t.Context(), k, "still there", k.Opening)
	require.NoError(t, err)
	require.NoError(t, s.Close())
	require.NoError(t, Fresh(path))
	r, err := Check(t.Context(), path+".before")
	require.NoError(t, err)
	assert.Equal(t, 2, r.Changes, "put aside, not deleted")
	_, err = os.Stat(path)
	assert.ErrorIs(t, err, os.ErrNotExist)
}

// Bringing in a large house must not take a time that grows with its square: what runs once a door finds its
// rows by an index, never by going through all.
func TestFiveThousandDoorsAreBroughtInAtOnce(t *testing.T) {
	s, _ := fresh(t)
	j := job.NewJob("", "Works", measure.Millimetres)
	for i := range MostOpenings {
		j.Openings = append(j.Openings, job.NewOpening(fmt.Sprint("d", i), "Door", measure.Millimetres))
	}
	h, err := s.AddJob(t.Context(), j, Once{})
	require.NoError(t, err)
	for _, query := range []string{addOpeningQuery, oneQuery, moveQuery, walkQuery} {
		rows, err := s.read.QueryContext(
			t.Context(), "EXPLAIN QUERY PLAN "+query, slices.Repeat([]any{"x"}, strings.Count(query, "?"))...,
		)
		require.NoError(t, err, query)
		for rows.Next() {
			var id, parent, unused int
			var detail string
			require.NoError(t, rows.Scan(&id, &parent, &unused, &detail))
			assert.NotRegexp(t, `^SCAN (openings|changes|jobs|o|c|j)\b`, detail, "%s", query)
		}
		require.NoError(t, rows.Close())
	}
	_, err = s.AddOpening(t.Context(), h.ID, job.NewOpening("", "One more", measure.Millimetres), Once{})
	assert.ErrorIs(t, err, ErrFull)
}
