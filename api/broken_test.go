package api

import (
	"archive/zip"
	"bytes"
	"database/sql"
	"log/slog"
	"net/http/httptest"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/store"
)

// A door whose plan panics is told as one that cannot be worked out, in the log too; the others are not touched.
func TestADoorThatPanicsHidesNoOther(t *testing.T) {
	var log bytes.Buffer
	c := newPlanCache(slog.New(slog.NewTextHandler(&log, nil)))
	c.work = func(j job.Job, k store.Kept) met {
		if k.Opening.ID == "d1" {
			panic("index out of range")
		}
		return rowOf(j, k)
	}
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "test.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	_, err = st.AddJob(t.Context(), doorsOf(3), store.Once{})
	require.NoError(t, err)
	_, walk, _, err := st.Walk(t.Context(), "house", func(string, int64) bool { return false })
	require.NoError(t, err)
	doors := c.of(walk, time.Minute)
	require.Len(t, doors, 3)
	assert.Contains(t, doors[1].Stops[0], "cannot be worked out")
	assert.Equal(t, "Door 1", doors[1].Name)
	assert.False(t, doors[1].Working, "it is not waited for")
	for _, i := range []int{0, 2} {
		assert.NotEmpty(t, doors[i].Steps, "the others are worked out")
	}
	assert.Contains(t, log.String(), "opening=d1")
	assert.Contains(t, log.String(), "index out of range")
}

// A data file that was worked on by hand: one job's unit is none. The page lists it as one that cannot be read,
// opens the others, and gives them all out.
func TestABadJobIsListedAsSuch(t *testing.T) {
	path := filepath.Join(t.TempDir(), "test.db")
	st, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	good, err := st.AddJob(t.Context(), doorsOf(2), store.Once{})
	require.NoError(t, err)
	bad, err := st.AddJob(t.Context(), job.NewJob("bad", "Bad", measure.Inches), store.Once{})
	require.NoError(t, err)
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	_, err = db.Exec(`UPDATE jobs SET unit = 'furlong' WHERE id = 'bad'`)
	require.NoError(t, err)
	require.NoError(t, db.Close())
	srv := httptest.NewServer(New(st, Pages{}, slog.New(slog.DiscardHandler), Share{}))
	t.Cleanup(func() { srv.Close(); _ = st.Close() })
	s := running{t, srv.URL}
	list := got[[]JobHead](t, s.do("GET", "/jobs", "", nil))
	require.Len(t, list, 2)
	assert.Empty(t, list[0].Broken)
	assert.Contains(t, list[1].Broken, "cannot be read")
	assert.Len(t, s.walk("/jobs/"+good.ID).Openings, 2)
	a := s.do("GET", "/jobs/"+bad.ID, "", nil)
	assert.Equal(t, 500, a.status)
	assert.Contains(t, a.trouble(t).Detail, "kindmargin check")
	all := s.do("GET", "/everything", "", nil)
	require.Equal(t, 200, all.status)
	z, err := zip.NewReader(bytes.NewReader(all.raw), int64(len(all.raw)))
	require.NoError(t, err)
	var names []string
	for _, f := range z.File {
		names = append(names, f.Name)
	}
	assert.Contains(t, names, "house/job.json")
	assert.Contains(t, names, "READ-ME.txt", "it says what is not there")
}
