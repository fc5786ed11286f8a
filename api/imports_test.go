package api

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/store"
)

// imports brings a file in, and waits until it is in, or is not.
func (s running) imports(file []byte, key string) Import {
	s.t.Helper()
	a := s.keyed("POST", "/imports", key, file)
	require.Equal(s.t, http.StatusAccepted, a.status, string(a.raw))
	return s.ended(got[Import](s.t, a).ID)
}

func (s running) ended(id string) (v Import) {
	s.t.Helper()
	require.Eventually(s.t, func() bool {
		v = got[Import](s.t, s.do("GET", "/imports/"+id, "", nil))
		return v.State != importReading && v.State != importKeeping
	}, time.Minute, 5*time.Millisecond)
	return v
}

// keyed is a request with a key of its own.
func (s running) keyed(method, path, key string, in any) answer {
	s.t.Helper()
	return s.doWith(method, path, in, "Idempotency-Key", key)
}

// bundled is a job with photographs as a zip, its parts as they are given.
func bundled(t *testing.T, j job.Job, list any, files map[string][]byte) []byte {
	t.Helper()
	doc, err := job.Encode(j)
	require.NoError(t, err)
	all := map[string][]byte{bundleJob: doc}
	switch l := list.(type) {
	case nil:
	case []byte:
		all[bundlePhotos] = l
	default:
		all[bundlePhotos], err = json.Marshal(l)
		require.NoError(t, err)
	}
	for name, b := range files {
		all[name] = b
	}
	var buf bytes.Buffer
	z := zip.NewWriter(&buf)
	for name, b := range all {
		w, err := z.CreateHeader(&zip.FileHeader{Name: name}) // not packed, so that a byte of it can be found
		require.NoError(t, err)
		_, err = w.Write(b)
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return buf.Bytes()
}

// doorsOf is a job with so many doors.
func doorsOf(n int) job.Job {
	j := job.NewJob("house", "House", "mm")
	for i := range n {
		j.Openings = append(j.Openings, job.NewOpening(fmt.Sprintf("d%d", i), fmt.Sprintf("Door %d", i), "mm"))
	}
	return j
}

// A job goes out with its pictures as a zip and comes in again.
func TestABundleComesInAgain(t *testing.T) {
	s := run(t)
	head := s.bring()
	require.Less(
		t, s.do("POST", "/jobs/"+head.ID+"/openings/linen/photos?step=try&by=Wren", "", jpegOf(t, 60, 40)).status, 300,
	)
	a := s.do("GET", "/jobs/"+head.ID+"/bundle", "", nil)
	require.Equal(t, 200, a.status)
	z, err := zip.NewReader(bytes.NewReader(a.raw), int64(len(a.raw)))
	require.NoError(t, err)
	var names []string
	for _, f := range z.File {
		names = append(names, f.Name)
	}
	assert.Equal(t, []string{"job.json", "photos/linen-try-1.jpg", "photos.json"}, names)
	in := s.imports(a.raw, "")
	require.Equal(t, importDone, in.State, in.Problem)
	assert.Equal(t, 1, in.Done)
	assert.NotEqual(t, head.ID, in.Job.ID)
	v := got[LogView](t, s.do("GET", "/jobs/"+in.Job.ID+"/openings/linen/log", "", nil))
	require.Len(t, v.Photos, 1)
	assert.Equal(t, "Wren", v.Photos[0].By)
	assert.Equal(t, 60, v.Photos[0].Width)
	// A job file alone comes in the same way.
	file := s.do("GET", "/jobs/"+head.ID+"/file", "", nil)
	assert.Equal(t, importDone, s.imports(file.raw, "").State)
	assert.Equal(t, 422, s.do("POST", "/jobs/file", "", a.raw).status, "a zip takes its time")
}

// Every photograph of a bundle comes in, or none and no job: whatever is damaged is named.
func TestABundleComesInWholeOrNotAtAll(t *testing.T) {
	s := run(t)
	j, pic := doorsOf(40), jpegOf(t, 30, 20)
	var list []BundledPhoto
	for i := range 2200 {
		list = append(list, BundledPhoto{
			File: "photos/a.jpg", Opening: fmt.Sprintf("d%d", i%40), Step: job.StepTry, At: "2026-04-14T10:00:00Z",
			Caption: strings.Repeat("ü", 190),
		})
	}
	in := s.imports(bundled(t, j, list, map[string][]byte{"photos/a.jpg": pic}), "")
	require.Equal(t, importDone, in.State, in.Problem)
	assert.Equal(t, 1, in.Of, "a picture that is named often is read once")
	for _, door := range []string{"d0", "d39"} {
		assert.Len(t, got[LogView](t, s.do("GET", "/jobs/"+in.Job.ID+"/openings/"+door+"/log", "", nil)).Photos, 55)
	}
	list = list[:2]
	whole := bundled(t, j, list, map[string][]byte{"photos/a.jpg": pic})
	flipped := bytes.Clone(whole)
	flipped[bytes.Index(flipped, []byte(`"caption"`))+1] ^= 1
	photo := func(change func(*BundledPhoto)) []byte {
		p := list[0]
		change(&p)
		return bundled(t, j, []BundledPhoto{p}, map[string][]byte{"photos/a.jpg": pic})
	}
	var many []BundledPhoto
	for range store.MostPhotos + 1 {
		many = append(many, list[0])
	}
	for name, c := range map[string]struct {
		file []byte
		says string
	}{
		"a byte of the list":      {flipped, "list of photographs in this zip is damaged"},
		"half of it":              {whole[:len(whole)/2], "not a whole zip"},
		"a list that is none":     {bundled(t, j, []byte("no"), nil), "list of photographs in this zip cannot be read"},
		"a name that is not kept": {bundled(t, j, []byte(`[{"where": "52.1 N"}]`), nil), "cannot be read"},
		"no such file":            {photo(func(p *BundledPhoto) { p.File = "photos/b.jpg" }), "is not in this zip"},
		"no such door":            {photo(func(p *BundledPhoto) { p.Opening = "gone" }), "does not have"},
		"no such step":            {photo(func(p *BundledPhoto) { p.Step = "lunch" }), "no step"},
		"a caption on two lines":  {photo(func(p *BundledPhoto) { p.Caption = "a\nb" }), "on several lines"},
		"a caption too long":      {photo(func(p *BundledPhoto) { p.Caption = strings.Repeat("a", 201) }), "too long"},
		"a time that is none":     {photo(func(p *BundledPhoto) { p.At = "yesterday" }), "no time"},
		"a picture that is none": {
			bundled(t, j, list, map[string][]byte{"photos/a.jpg": []byte("no")}), "damaged, or is not a picture",
		},
		"too many of a door": {bundled(t, j, many, map[string][]byte{"photos/a.jpg": pic}), "More than 60 photographs"},
		"a job that is none": {bundled(t, j, list, map[string][]byte{bundleJob: []byte("no")}), "not a whole job file"},
		"no zip and no file": {[]byte("the lock margin is tight"), "not a whole job file"},
	} {
		in := s.imports(c.file, "")
		assert.Equal(t, importRefused, in.State, name)
		assert.Contains(t, in.Problem, c.says, name)
	}
	assert.Len(t, got[[]JobHead](t, s.do("GET", "/jobs", "", nil)), 1, "nothing came of those")
}

// Sent again with its key, a file comes in once; another file with that key is refused; one that is stopped
// does not come in.
func TestAnImportIsMadeOnceAndCanBeStopped(t *testing.T) {
	s := run(t)
	pic := jpegOf(t, 1000, 1000)
	var list []BundledPhoto
	files := map[string][]byte{}
	for i := range 40 {
		name := fmt.Sprintf("photos/%d.jpg", i)
		list = append(list, BundledPhoto{File: name, Opening: "d0", Step: job.StepTry})
		files[name] = pic
	}
	file := bundled(t, doorsOf(1), list, files)
	first := got[Import](t, s.keyed("POST", "/imports", "k1", file))
	again := got[Import](t, s.keyed("POST", "/imports", "k1", file))
	assert.Equal(t, first.ID, again.ID, "while it is under way")
	assert.Equal(t, 422, s.keyed("POST", "/imports", "k1", bundled(t, doorsOf(2), nil, nil)).status)
	require.Equal(t, importDone, s.ended(first.ID).State)
	assert.Equal(t, first.ID, s.imports(file, "k1").ID, "and when it is in")
	assert.Len(t, got[[]JobHead](t, s.do("GET", "/jobs", "", nil)), 1)

	stopped := got[Import](t, s.keyed("POST", "/imports", "k2", file))
	require.Equal(t, 200, s.do("DELETE", "/imports/"+stopped.ID, "", nil).status)
	v := s.ended(stopped.ID)
	assert.Equal(t, importStopped, v.State)
	assert.Less(t, v.Done, 40)
	assert.Len(t, got[[]JobHead](t, s.do("GET", "/jobs", "", nil)), 1)
	assert.Equal(t, importDone, s.imports(file, "k2").State, "it may be sent again")

	slow := got[Import](t, s.keyed("POST", "/imports", "k3", file))
	other := got[Import](t, s.keyed("POST", "/imports", "k4", file))
	assert.Equal(t, http.StatusTooManyRequests, s.keyed("POST", "/imports", "k5", file).status)
	for _, i := range []Import{slow, other} {
		s.do("DELETE", "/imports/"+i.ID, "", nil)
		s.ended(i.ID)
	}
	for range newImports().kept + 5 {
		assert.Equal(t, importRefused, s.imports([]byte("no"), "").State)
	}
	assert.Equal(t, 404, s.do("GET", "/imports/"+first.ID, "", nil).status, "the oldest is told of no more")
	assert.Equal(t, importDone, s.imports(file, "k1").State)
	assert.Len(t, got[[]JobHead](t, s.do("GET", "/jobs", "", nil)), 2, "but its key is still known")
	assert.Equal(t, 404, s.do("GET", "/imports/none", "", nil).status)
	assert.Equal(t, 404, s.do("DELETE", "/imports/none", "", nil).status)
}

// A file that was still coming in when its client's pass was ended stops, however late it is taken up.
func TestWhatIsSentByAnEndedPassDoesNotComeIn(t *testing.T) {
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "house.db"))
	require.NoError(t, err)
	defer st.Close()
	file, err := job.Encode(job.NewJob("", "House", measure.Millimetres))
	require.NoError(t, err)
	s := server{
		store: st, imports: newImports(), underway: newUnderway(), logs: slog.New(slog.DiscardHandler), hub: newHub(),
		said: &said{},
	}
	comesIn := func(pass string) Import {
		ctx := context.WithValue(t.Context(), clientKey{}, client{id: pass, name: pass})
		out, err := s.bringIn(ctx, &ImportIn{Large: Large{body: bytes.NewReader(file)}})
		require.NoError(t, err)
		var v Import
		require.Eventually(t, func() bool {
			_, v = s.imports.find(out.Body.ID)
			return v.State != importReading && v.State != importKeeping
		}, time.Minute, time.Millisecond)
		return v
	}
	assert.Equal(t, importDone, comesIn("phone").State)
	s.underway.end(t.Context(), "phone")
	s.imports.endPass("phone")
	assert.Equal(t, importStopped, comesIn("phone").State)
	heads, err := st.Jobs(t.Context())
	require.NoError(t, err)
	assert.Len(t, heads, 1)
}
