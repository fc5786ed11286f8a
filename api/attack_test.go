package api

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/store"
)

// RFC 6902's own test suite, as the npm package json-patch-test-suite carries
// it: the operations that a change here may hold.
func TestJSONPatchAgainstTheSuiteOfRFC6902(t *testing.T) {
	for _, file := range []string{"tests.json", "spec_tests.json"} {
		b, err := os.ReadFile(filepath.Join("..", "web", "node_modules", "json-patch-test-suite", file))
		require.NoError(t, err)
		var cases []struct {
			Comment  string
			Doc      json.RawMessage
			Patch    []map[string]json.RawMessage
			Expected json.RawMessage
			Error    string
			Disabled bool
		}
		require.NoError(t, json.Unmarshal(b, &cases))
		ran := 0
		for i, c := range cases {
			var ops []op
			ours := !c.Disabled
			for _, o := range c.Patch {
				var one op
				raw, err := json.Marshal(o)
				require.NoError(t, err)
				if json.Unmarshal(raw, &one) != nil || o["path"] == nil || string(o["path"]) == "null" {
					ours = false
					break
				}
				ours = ours && strings.Contains("add remove replace test", one.Op) && one.Op != "" &&
					(one.Op == "remove" || one.Value != nil)
				ops = append(ops, one)
			}
			if !ours || len(ops) == 0 || c.Expected == nil && c.Error == "" {
				continue // moves, copies, malformed operations: refused before this, see readOps
			}
			ran++
			after, err := apply(c.Doc, ops)
			if c.Error != "" {
				assert.Error(t, err, "%s %d: %s", file, i, c.Error)
				continue
			}
			if assert.NoError(t, err, "%s %d: %s", file, i, c.Comment) {
				assert.JSONEq(t, string(c.Expected), string(after), "%s %d: %s", file, i, c.Comment)
			}
		}
		assert.Greater(t, ran, 8, file)
	}
}

func TestAChangeMeetsTheThingThatTheHandSaw(t *testing.T) {
	s := run(t)
	path, _, tag := s.begin(measure.Millimetres)
	for _, v := range []string{"826", "827", "828"} {
		tag = s.do("PATCH", path, tag, width("1800", v)).etag
	}
	away := []Op{{Op: "test", Path: "/readings/1/id", Value: "r2"}, {Op: "remove", Path: "/readings/1"}}
	first := s.do("PATCH", path, tag, away)
	require.Equal(t, 200, first.status)
	again := s.do("PATCH", path, first.etag, away) // the second click, sent from the newer version
	assert.Equal(t, 412, again.status)
	assert.Contains(t, again.trouble(t).Detail, "gone or has moved")
	v := got[OpeningView](t, s.do("GET", path, "", nil))
	require.Len(t, v.Opening.Readings, 2)
	assert.Equal(t, "r3", v.Opening.Readings[1].ID)
}

func TestNothingInAJobFileIsDroppedOrTakenForSomethingElse(t *testing.T) {
	s := run(t)
	whole, err := job.Encode(job.Job{
		ID: "h", Name: "House", Unit: "mm", Tape: "0.5mm",
		Openings: []job.Opening{func() job.Opening { o := job.NewOpening("d1", "Study", "mm"); return o }()},
	})
	require.NoError(t, err)
	file := string(whole)
	swap := func(old, by string) string {
		require.Contains(t, file, old)
		return strings.Replace(file, old, by, 1)
	}
	for name, c := range map[string]struct{ file, says string }{
		"openings twice": {
			strings.TrimSuffix(strings.TrimSpace(file), "}\n}") + `, "openings": []}}`, "is there twice",
		},
		"a name's case":     {swap(`"unit"`, `"Unit"`), "Write “unit”"},
		"not UTF-8":         {swap("Study", "Stu\xffdy"), "UTF-8"},
		"half a character":  {swap("Study", `Stu\ud800dy`), "half a character"},
		"an id not ours":    {swap(`"d1"`, `"../d1"`), "ID of its own"},
		"an unknown name":   {swap(`"unit"`, `"colour": 1, "unit"`), "“colour”"},
		"text for a number": {swap(`"count": 2`, `"count": "two"`), "It should be a whole number, not text"},
		"more after it":     {file + "{}", "more after its end"},
		"cut short":         {file[:len(file)/2], "not a whole job file"},
	} {
		a := s.do("POST", "/jobs/file", "", []byte(c.file))
		assert.Equal(t, 422, a.status, name)
		p := a.trouble(t)
		assert.Contains(t, p.Detail, c.says, name)
		assert.NotContains(t, p.Detail, "json:", name)
	}
	assert.Empty(t, got[[]JobHead](t, s.do("GET", "/jobs", "", nil)))
	assert.Equal(t, 200, s.do("POST", "/jobs/file", "", []byte("\uFEFF"+file)).status, "a byte-order mark is no fault")
	umlauts := got[JobHead](
		t, s.do("POST", "/jobs", "", map[string]any{"name": strings.Repeat("ü", 120), "unit": "mm"}),
	)
	assert.Equal(t, 120, len([]rune(umlauts.Name)), "letters are counted, not bytes")
}

func TestBombsAreRefusedEarly(t *testing.T) {
	s := run(t)
	path, _, tag := s.begin(measure.Millimetres)
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	many := bytes.Repeat(
		[]byte(`{"op":"add","path":"/readings/-","value":{"kind":"width","at":1,"value":"x"}},`), 13000,
	)
	bad := s.do("PATCH", path, tag, append(append([]byte("["), many...), []byte(`{"op":"remove","path":"/pair"}]`)...))
	assert.Equal(t, 422, bad.status)
	assert.Less(t, len(bad.raw), 4000)
	assert.Contains(t, bad.trouble(t).Detail, "1 to 1000 operations")
	fits := append(append([]byte("["), many[:999*79]...), []byte(`{"op":"remove","path":"/pair"}]`)...)
	if a := s.do("PATCH", path, tag, fits); assert.Equal(t, 422, a.status) {
		assert.LessOrEqual(t, len(a.trouble(t).Errors), 20, "no one reads a thousand")
	}
	assert.Equal(t, 413, s.do("PATCH", path, tag, bytes.Repeat([]byte(" "), largestChange+1)).status)
	long := s.do("PATCH", path, tag, patch("/name", strings.Repeat("x", 900_000)))
	assert.Equal(t, 422, long.status)
	assert.Less(t, len(long.raw), 2000, "what was sent is not sent back")

	var file strings.Builder
	file.WriteString(
		`{"format": "kindmargin job", "version": 1, "job": {"id": "x", "name": "X", "unit": "mm", "tape": "1mm", "openings": [`,
	)
	for i := range 60000 {
		if i > 0 {
			file.WriteString(",")
		}
		fmt.Fprintf(&file, `{"id": "d%d", "name": "", "hand": "left", "readings": [{"id":"","kind":"x"}]}`, i)
	}
	file.WriteString(`]}}`)
	p := s.do("POST", "/jobs/file", "", []byte(file.String()))
	assert.Equal(t, 422, p.status)
	assert.Less(t, len(p.raw), 8000)
	runtime.ReadMemStats(&after)
	assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(1<<30))
	assert.Equal(t, 200, s.do("GET", path, "", nil).status)
}

func TestOnlyThisMachinesOwnNamesAreAnswered(t *testing.T) {
	s := run(t)
	ask := func(host string) *http.Response {
		req, err := http.NewRequestWithContext(t.Context(), "GET", s.url+"/api/jobs", nil)
		require.NoError(t, err)
		req.Host = host
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		_ = res.Body.Close()
		return res
	}
	for _, host := range []string{"rebound.example", "rebound.example:8137", "192.168.1.5:8137", "localhost.example"} {
		assert.Equal(t, 421, ask(host).StatusCode, host)
	}
	for _, host := range []string{"localhost:8137", "127.0.0.1:8137", "[::1]:8137", "localhost"} {
		res := ask(host)
		assert.Equal(t, 200, res.StatusCode, host)
		assert.Contains(t, res.Header.Get("Content-Security-Policy"), "frame-ancestors 'none'")
		assert.Equal(t, "nosniff", res.Header.Get("X-Content-Type-Options"))
		assert.Equal(t, "no-referrer", res.Header.Get("Referrer-Policy"))
	}
}

func TestEveryRefusalKeepsTheContract(t *testing.T) {
	s := run(t)
	path, _, tag := s.begin(measure.Millimetres)
	for _, c := range []struct {
		method, path, tag string
		in                any
		status            int
		says              string
	}{
		{"GET", "/nothing", "", nil, 404, "nothing at this address"},
		{"GET", "/jobs/" + strings.Repeat("x", 500), "", nil, 404, "Go back to the walk"},
		{"PUT", "/jobs", "", nil, 405, "does not take PUT"},
		{"POST", "/jobs", "", []byte(`{"name": 3}`), 422, "It should be text, not a number"},
		{"POST", "/jobs", "", []byte(``), 400, "Send it whole"},
		{"POST", "/jobs", "", []byte(`{"name"`), 422, "not whole"},
		{"POST", "/jobs", "", []byte(`{"Name": "X", "unit": "mm"}`), 422, "Write “name”"},
		{"PATCH", path, "W/" + tag, width("1", "2"), 422, "with its quotes"},
		{"PATCH", path, tag, []byte(`[{"op": "move", "path": "/name"}]`), 422, "add, remove, replace or test"},
		{"PATCH", path, tag, []byte(`[{"op": "add", "path": "/name"}]`), 422, "needs a value"},
		{
			"PATCH", path, tag, patch("/readings/-", map[string]any{"kind": "width", "at": 1800, "value": true}), 422,
			"does not belong there",
		},
	} {
		a := s.do(c.method, c.path, c.tag, c.in)
		assert.Equal(t, c.status, a.status, c.path)
		p := a.trouble(t)
		assert.Contains(t, p.Detail, c.says, c.path)
		for _, gos := range []string{
			"json:", "cannot unmarshal", "invalid character", "unexpected", "validation failed",
		} {
			assert.NotContains(t, string(a.raw), gos)
		}
	}
}

func TestWhatWentWrongInsideGoesToTheLogAlone(t *testing.T) {
	path := filepath.Join(t.TempDir(), "test.db")
	st, err := store.Open(t.Context(), path)
	require.NoError(t, err)
	var log bytes.Buffer
	srv := httptest.NewServer(New(st, Pages{}, slog.New(slog.NewTextHandler(&log, nil)), Share{}))
	t.Cleanup(srv.Close)
	s := running{t, srv.URL}
	require.NoError(t, st.Close()) // everything now fails
	a := s.do("GET", "/jobs", "", nil)
	assert.Equal(t, 500, a.status)
	assert.NotContains(t, string(a.raw), "closed")
	id := a.header.Get("X-Request-Id")
	assert.Contains(t, string(a.raw), "/requests/"+id)
	srv.Close() // the log is whole
	assert.Contains(t, log.String(), "request="+id)
	assert.Contains(t, log.String(), "cause=")
	assert.Contains(t, log.String(), "closed")
}

func TestManyHandsAtOnce(t *testing.T) {
	s := run(t)
	path, _, _ := s.begin(measure.Millimetres)
	var wg sync.WaitGroup
	for range 32 {
		wg.Go(func() {
			for range 4 {
				now := s.do("GET", path, "", nil)
				assert.Equal(t, 200, now.status)
				a := s.do("PATCH", path, now.etag, width("1800", "826"))
				assert.Contains(t, []int{200, 412}, a.status, string(a.raw))
			}
		})
	}
	wg.Wait()
}

func TestAWalkReadAgainSaysThatNothingChanged(t *testing.T) {
	s := run(t)
	path, v, tag := s.begin(measure.Millimetres)
	walk := "/jobs/" + v.Job.ID
	first := s.do("GET", walk, "", nil)
	ask := func(tag string) int {
		req, err := http.NewRequestWithContext(t.Context(), "GET", s.url+"/api"+walk, nil)
		require.NoError(t, err)
		req.Header.Set("If-None-Match", tag)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		_, err = io.Copy(io.Discard, res.Body)
		require.NoError(t, err)
		_ = res.Body.Close()
		return res.StatusCode
	}
	assert.Equal(t, 304, ask(first.etag))
	require.Equal(t, 200, s.do("PATCH", path, tag, width("1800", "826")).status)
	assert.Equal(t, 200, ask(first.etag))
}
