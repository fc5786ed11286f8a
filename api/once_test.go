package api

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
)

// Whatever is sent again with its key is done once and answered as it was; another request with that key is refused,
// and does nothing.
func TestAKeyIsOfOneRequest(t *testing.T) {
	s := run(t)
	ask := func(method, at, tag, key string, in any) answer {
		return s.doWith(method, at, in, "If-Match", tag, "Idempotency-Key", key)
	}
	path, _, tag := s.begin(measure.Millimetres)
	jobPath := path[:len("/jobs/")+10]
	twice := func(method, at, tag, key string, in any) (first answer) {
		first = ask(method, at, tag, key, in)
		require.Less(t, first.status, 300, "%s %s: %s", method, at, first.raw)
		again := ask(method, at, tag, key, in)
		assert.Equal(t, first.status, again.status, at)
		assert.Equal(t, string(first.raw), string(again.raw), "%s %s", method, at)
		return first
	}
	changed := twice("PATCH", path, tag, "change", width("1800", "826"))
	other := ask("PATCH", path, changed.etag, "change", width("1000", "826"))
	assert.Equal(t, http.StatusUnprocessableEntity, other.status)
	assert.Contains(t, other.trouble(t).Detail, "used for another request")
	assert.Len(t, got[OpeningView](t, s.do("GET", path, "", nil)).Opening.Readings, 1)

	undone := twice("POST", path+"/undo", changed.etag, "undo", nil)
	twice("POST", path+"/redo", undone.etag, "redo", nil)
	assert.Len(t, got[OpeningView](t, s.do("GET", path, "", nil)).Opening.Readings, 1)

	twice("POST", path+"/photos?step=try", "", "photo", jpegOf(t, 40, 30))
	twice("POST", path+"/time", "", "time", TimeSpent{"cut", 60})
	v := got[LogView](t, s.do("GET", path+"/log", "", nil))
	assert.Len(t, v.Photos, 1)
	assert.InDelta(t, 1, v.Minutes["cut"], 1e-9)
	assert.Equal(t, 422, ask("POST", path+"/time", "", "time", TimeSpent{"cut", 90}).status)

	in := got[ScheduleImported](
		t, twice("POST", jobPath+"/schedule", "", "schedule", []byte("Door,Room,Hand\nA,Hall,left\nB,Loft,right\n")),
	)
	assert.Len(t, in.Standing, 2)
	walk := s.walk(jobPath)
	assert.Len(t, walk.Openings, 3)
	assert.Equal(
		t, 422, ask("POST", jobPath+"/schedule", "", "schedule", []byte("Door,Room,Hand\nC,Hall,left\n")).status,
	)

	from := walk.Openings[0]
	copied := got[Copied](t, ask("POST", jobPath+"/copy", "", "copy", CopyChoices{
		From: from.ID, To: in.Standing, Parts: []job.Part{job.Parts[0]},
	}))
	assert.Empty(t, copied.Standing, "they have the same")
	twice("POST", jobPath+"/undo", "", "undo", UndoMany{Openings: in.Standing})
	assert.Len(t, s.walk(jobPath).Openings, 1)

	head := s.do("GET", jobPath, "", nil)
	off := twice("DELETE", jobPath, jobTag(t, head), "off", nil)
	twice("POST", jobPath+"/restore", off.etag, "back", nil)
}

// jobTag is the version of a job's head, from its walk.
func jobTag(t *testing.T, a answer) string { return etag(got[Walk](t, a).Job.Version) }
