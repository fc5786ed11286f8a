package api

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sync/semaphore"

	"kindmargin/core/job"
	"kindmargin/document"
	"kindmargin/store"
	"kindmargin/words"
)

// house brings in a job with so many doors.
func (s running) house(doors int) JobHead {
	s.t.Helper()
	file, err := job.Encode(doorsOf(doors))
	require.NoError(s.t, err)
	a := s.do("POST", "/jobs/file", "", file)
	require.Equal(s.t, 200, a.status, string(a.raw))
	return got[JobHead](s.t, a)
}

// made asks for a file, and waits until it is made, or is not.
func (s running) made(in NewExport) (v Export) {
	s.t.Helper()
	a := s.do("POST", "/exports", "", in)
	require.Equal(s.t, http.StatusAccepted, a.status, string(a.raw))
	return s.madeOf(got[Export](s.t, a).ID)
}

func (s running) madeOf(id string) (v Export) {
	s.t.Helper()
	require.Eventually(s.t, func() bool {
		v = got[Export](s.t, s.do("GET", "/exports/"+id, "", nil))
		return v.State != exportWaiting && v.State != exportMaking
	}, time.Minute, 5*time.Millisecond)
	return v
}

// All that plans more doors than can be waited for is refused where it would be waited for, and made as an export,
// which says how far it is; the file is what fewer doors would have got at once.
func TestManyDoorsAreAnExport(t *testing.T) {
	s := run(t)
	many, few, booked := s.house(mostAtOnce+1), s.house(mostAtOnce), s.house(mostBooked)
	at := func(head JobHead, what string) string {
		switch what {
		case "card", "book", "order", "load":
			return "/jobs/" + head.ID + "/paper?kind=" + what
		case exportTables:
			return "/jobs/" + head.ID + "/schedule"
		case exportLoad:
			return "/jobs/" + head.ID + "/load"
		case exportEverything:
			return "/everything"
		}
		return "/jobs/" + head.ID + "/schedule?format=csv&table=" + what
	}
	for _, what := range []string{
		"card", "book", "order", "load", exportTables, "schedule", "measured", "slabs", "hardware", "margins",
		exportLoad, exportEverything,
	} {
		a := s.do("GET", at(many, what), "", nil)
		assert.Equal(t, 422, a.status, what)
		assert.Contains(t, string(a.raw), "more doors than are given out at once", what)
		v := s.made(NewExport{What: what, Job: many.ID})
		require.Equal(t, exportDone, v.State, "%s: %s", what, v.Problem)
		assert.Equal(t, v.Of, v.Done, what)
		assert.GreaterOrEqual(t, v.Of, mostAtOnce+1, what)
		file := s.do("GET", "/exports/"+v.ID+"/file", "", nil)
		assert.Equal(t, 200, file.status)
		assert.Contains(t, file.header.Get("Content-Disposition"), v.File)
		assert.Equal(t, fmt.Sprint(len(file.raw)), file.header.Get("Content-Length"))
		if what == exportEverything {
			_, err := zip.NewReader(bytes.NewReader(file.raw), int64(len(file.raw)))
			assert.NoError(t, err)
			continue
		}
		if what == exportBook {
			require.Equal(t, 422, s.do("GET", at(few, what), "", nil).status)
			few = booked
		}
		now := s.do("GET", at(few, what), "", nil)
		require.Equal(t, 200, now.status, what)
		assert.Equal(t, now.header.Get("Content-Type"), file.header.Get("Content-Type"), what)
		v = s.made(NewExport{What: what, Job: few.ID})
		file = s.do("GET", "/exports/"+v.ID+"/file", "", nil)
		if what == exportLoad || now.header.Get("Content-Type") == typeCSV { // the others hold the time
			assert.Equal(t, string(bytes.TrimSpace(now.raw)), string(bytes.TrimSpace(file.raw)), what)
		}
	}
	assert.Equal(t, 422, s.do("GET", "/jobs/"+many.ID+"/openings/d0/rod", "", nil).status)
	v := s.made(NewExport{What: exportRod, Job: many.ID, From: "d0"})
	assert.Equal(t, exportFailed, v.State)
	assert.Contains(t, v.Problem, "its hinges wait for readings")
	one := s.made(NewExport{What: "card", Job: many.ID, Openings: []string{"d3"}, Paper: "a3"})
	assert.Equal(t, "house-door-3-card.pdf", one.File)
	assert.Equal(t, 1, one.Of)
}

// A job file, and one with its photographs, that is made on its own is the one that is given at once.
func TestFilesAreMade(t *testing.T) {
	s := run(t)
	head := s.bring()
	require.Less(
		t, s.do("POST", "/jobs/"+head.ID+"/openings/linen/photos?step=try&by=Wren", "", jpegOf(t, 60, 40)).status, 300,
	)
	for _, what := range []string{exportFile, exportBundle} {
		now := s.do("GET", "/jobs/"+head.ID+"/"+what, "", nil)
		v := s.made(NewExport{What: what, Job: head.ID})
		require.Equal(t, exportDone, v.State, v.Problem)
		file := s.do("GET", "/exports/"+v.ID+"/file", "", nil)
		assert.Equal(t, now.header.Get("Content-Disposition"), file.header.Get("Content-Disposition"))
		assert.True(t, bytes.Equal(now.raw, file.raw), what)
		assert.Equal(t, importDone, s.imports(file.raw, "").State)
	}
}

// Photographs take their time: a book with more than a few is not waited for.
func TestABookOfManyPhotographsIsAnExport(t *testing.T) {
	s := run(t)
	head := s.house(2)
	at := "/jobs/" + head.ID + "/paper?kind=book"
	for n := range mostPictured + 1 {
		require.Equal(t, 200, s.do("GET", at, "", nil).status, "%d photographs", n)
		require.Less(
			t, s.do("POST", "/jobs/"+head.ID+"/openings/d1/photos?step=try", "", jpegOf(t, 60, 40)).status, 300,
		)
	}
	assert.Equal(t, 422, s.do("GET", at, "", nil).status)
	assert.Equal(t, 200, s.do("GET", "/jobs/"+head.ID+"/paper?kind=card", "", nil).status)
	assert.Equal(t, exportDone, s.made(NewExport{What: exportBook, Job: head.ID}).State)
}

// A rod of the demo's house, made on its own, is the rod that is given at once.
func TestARodIsMade(t *testing.T) {
	s := run(t)
	head := s.bring()
	now := got[document.StoryRod](t, s.do("GET", "/jobs/"+head.ID+"/openings/chart/rod", "", nil))
	v := s.made(NewExport{What: exportRod, Job: head.ID, From: "chart"})
	require.Equal(t, exportDone, v.State, v.Problem)
	var made document.StoryRod
	require.NoError(t, json.Unmarshal(s.do("GET", "/exports/"+v.ID+"/file", "", nil).raw, &made))
	assert.Equal(t, now, made)
	assert.NotEmpty(t, made.Openings)
}

// One is made at a time, the others wait; each can be stopped; sent again with its key it is the same one; the files
// of those that are told of no more go from the disk.
func TestAnExportIsMadeOnceAndCanBeStopped(t *testing.T) {
	dir := t.TempDir()
	t.Setenv("TMPDIR", dir)
	st, err := store.Open(t.Context(), filepath.Join(dir, "house.db"))
	require.NoError(t, err)
	defer st.Close()
	head, err := st.AddJob(t.Context(), doorsOf(3), store.Once{})
	require.NoError(t, err)
	s := server{
		store: st, exports: newExports(), making: semaphore.NewWeighted(1), underway: newUnderway(),
		logs: slog.New(slog.DiscardHandler),
	}
	ctx := context.WithValue(t.Context(), clientKey{}, client{id: "phone"})
	ask := func(ctx context.Context, key, what string) (Export, error) {
		asked, err := json.Marshal(NewExport{What: what, Job: head.ID})
		require.NoError(t, err)
		in := &struct {
			Once
			raw
		}{}
		in.Key, in.RawBody = key, asked
		out, err := s.makeExport(ctx, in)
		if err != nil {
			return Export{}, err
		}
		return out.Body, nil
	}
	state := func(e Export) string {
		_, v := s.exports.find(e.ID)
		return v.State
	}
	ends := func(e Export, as string) {
		require.Eventually(t, func() bool { return state(e) == as }, time.Minute, time.Millisecond)
	}

	require.NoError(t, s.making.Acquire(t.Context(), 1)) // another is made meanwhile
	first, err := ask(ctx, "k1", "card")
	require.NoError(t, err)
	again, err := ask(ctx, "k1", "card")
	require.NoError(t, err)
	assert.Equal(t, first.ID, again.ID)
	_, err = ask(ctx, "k1", "load")
	assert.ErrorContains(t, err, "api.key-used")
	second, err := ask(ctx, "k2", "book")
	require.NoError(t, err)
	here, err := ask(t.Context(), "k3", "order")
	require.NoError(t, err)
	for _, e := range []Export{first, second, here} {
		assert.Equal(t, exportWaiting, state(e))
	}
	_, err = s.sendExport(ctx, &struct {
		ExportPath
		Large
	}{ExportPath: ExportPath{first.ID}})
	assert.ErrorContains(t, err, "api.not-made-yet")
	_, err = s.stopExport(ctx, &ExportPath{first.ID})
	require.NoError(t, err)
	ends(first, exportStopped)
	s.underway.end(ctx, "phone")
	s.exports.endPass("phone")
	ends(second, exportStopped)
	late, err := ask(ctx, "", "card")
	require.NoError(t, err)
	ends(late, exportStopped)
	s.making.Release(1)
	ends(here, exportDone)
	files := func() (n int) {
		require.NoError(t, filepath.WalkDir(dir, func(path string, d os.DirEntry, err error) error {
			if err == nil && d.Name() == "file" {
				n++
			}
			return err
		}))
		return n
	}
	assert.Equal(t, 1, files(), "what was stopped leaves nothing")
	var last Export
	for range 2 * s.exports.kept {
		last, err = ask(t.Context(), "", "order")
		require.NoError(t, err)
		ends(last, exportDone)
	}
	assert.LessOrEqual(t, files(), s.exports.kept+1)
	gone, _ := s.exports.find(here.ID)
	assert.Nil(t, gone)

	require.NoError(t, s.making.Acquire(t.Context(), 1))
	for range s.exports.most {
		_, err = ask(t.Context(), "", "order")
		require.NoError(t, err)
	}
	_, err = ask(t.Context(), "", "order")
	assert.ErrorContains(t, err, "api.exports-busy")
	s.exports.close()
	s.making.Release(1)
	assert.Zero(t, files())
}

// What cannot be made is refused when it is asked for, or says why it failed; a panic is one export's failure.
func TestExportsThatFail(t *testing.T) {
	s := run(t)
	head := s.house(2)
	for name, c := range map[string]struct {
		in     NewExport
		status int
	}{
		"nothing of that name": {NewExport{What: "poem", Job: head.ID}, 422},
		"no job":               {NewExport{What: "card", Job: "none"}, 404},
		"no such door":         {NewExport{What: "card", Job: head.ID, Openings: []string{"gone"}}, 404},
	} {
		assert.Equal(t, c.status, s.do("POST", "/exports", "", c.in).status, name)
	}
	for _, path := range []string{"/exports/none", "/exports/none/file"} {
		assert.Equal(t, 404, s.do("GET", path, "", nil).status)
	}
	assert.Equal(t, 404, s.do("DELETE", "/exports/none", "", nil).status)
	assert.Contains(
		t, s.made(NewExport{What: "card", Job: head.ID, Openings: []string{"d0", "gone"}}).Problem, "It is not here",
	)
	v := s.made(NewExport{What: "card", Job: head.ID, Paper: "b5"})
	assert.Equal(t, exportFailed, v.State)
	assert.Contains(t, v.Problem, "There is no paper")
	assert.Equal(t, 409, s.do("GET", "/exports/"+v.ID+"/file", "", nil).status)
	empty := got[JobHead](t, s.do("POST", "/jobs", "", map[string]any{"name": "Empty", "unit": "mm"}))
	assert.Contains(t, s.made(NewExport{What: "card", Job: empty.ID}).Problem, "There is no door")

	var log bytes.Buffer
	srv := server{
		exports: newExports(), making: semaphore.NewWeighted(1), logs: slog.New(slog.NewTextHandler(&log, nil)),
	}
	e := &task[Export]{id: "e", stop: func() {}, view: Export{ID: "e", path: filepath.Join(t.TempDir(), "file")}}
	srv.exports.tasks = append(srv.exports.tasks, e)
	srv.writeExport(t.Context(), e, made{
		write: func(context.Context, io.Writer, func()) error { panic("no such unit") },
	})
	_, v = srv.exports.find("e")
	assert.Equal(t, exportFailed, v.State)
	assert.Equal(t, words.Voice{}.Text(wentWrong), v.Problem)
	assert.Contains(t, log.String(), "no such unit")
	assert.True(t, srv.making.TryAcquire(1), "the next comes to its turn")
}
