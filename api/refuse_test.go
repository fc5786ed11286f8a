package api

import (
	"bufio"
	"encoding/json"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"net/url"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/measure"
	"kindmargin/store"
)

// A body that is cut off, or whose pieces are not what they say, is a request that cannot be read (RFC 9112, 7.1 and
// 8), and changes nothing; OWASP ASVS 4.0.3, 13.1.1 (from memory): no fault of one's own is told.
func TestABodyThatIsCutOff(t *testing.T) {
	s := run(t)
	path, _, tag := s.begin(measure.Millimetres)
	at, err := url.Parse(s.url)
	require.NoError(t, err)
	raw := func(head, body string) int {
		c, err := net.Dial("tcp", at.Host)
		require.NoError(t, err)
		defer c.Close()
		_, err = fmt.Fprintf(c, "%s\r\nHost: %s\r\nContent-Type: application/json\r\n%s", head, at.Host, body)
		require.NoError(t, err)
		require.NoError(t, c.(*net.TCPConn).CloseWrite())
		res, err := http.ReadResponse(bufio.NewReader(c), nil)
		require.NoError(t, err)
		defer res.Body.Close()
		return res.StatusCode
	}
	for _, method := range []string{
		"PATCH /api" + path + " HTTP/1.1\r\nIf-Match: " + tag, "POST /api/jobs HTTP/1.1",
		"POST /api/jobs/file HTTP/1.1", "POST /api" + path + "/photos?step=try HTTP/1.1",
		"POST /api/restore HTTP/1.1", "POST /api/imports HTTP/1.1",
	} {
		assert.Equal(t, 400, raw(method, "Content-Length: 500\r\n\r\n{\"name\": \"X"), "cut off: %s", method)
		assert.Equal(
			t, 400, raw(method, "Transfer-Encoding: chunked\r\n\r\nno length\r\n{}\r\n0\r\n\r\n"), "a bad chunk: %s",
			method,
		)
		assert.Equal(t, 400, raw(method, "Transfer-Encoding: chunked\r\n\r\nff\r\n{}"), "half a chunk: %s", method)
	}
	assert.Len(t, got[[]JobHead](t, s.do("GET", "/jobs", "", nil)), 1)
}

// A body that does not say that it is JSON is not read as such (OWASP ASVS 4.0.3, 13.2.5, from memory).
func TestABodySaysWhatItIs(t *testing.T) {
	s := run(t)
	path, _, tag := s.begin(measure.Millimetres)
	for kind, want := range map[string]int{
		"application/json": 200, "application/json; charset=utf-8": 200, "application/json-patch+json": 200,
		"text/plain": 415, "application/x-www-form-urlencoded": 415, "multipart/form-data; boundary=x": 415,
		"application/octet-stream": 415, "json": 415, "": 415,
	} {
		if kind == "" { // it says nothing
			req, err := http.NewRequestWithContext(t.Context(), "PATCH", s.url+"/api"+path, strings.NewReader("[]"))
			require.NoError(t, err)
			res, err := http.DefaultClient.Do(req)
			require.NoError(t, err)
			_ = res.Body.Close()
			assert.Equal(t, want, res.StatusCode)
			continue
		}
		a := s.doWith("PATCH", path, width("1800", "826"), "If-Match", tag, "Content-Type", kind)
		assert.Equal(t, want, a.status, kind)
		if a.status == 200 {
			tag = a.etag
		}
	}
}

// A page is read and takes nothing.
func TestAPageTakesNothing(t *testing.T) {
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "test.db"))
	require.NoError(t, err)
	pages := Pages{
		Handler: http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { _, _ = w.Write([]byte("the page")) }),
	}
	srv := httptest.NewServer(New(st, pages, slog.New(slog.DiscardHandler), Share{}))
	t.Cleanup(func() { srv.Close(); _ = st.Close() })
	for method, want := range map[string]int{
		"GET": 200, "HEAD": 200, "PUT": 405, "DELETE": 405, "POST": 405, "PATCH": 405, "OPTIONS": 405,
	} {
		for _, path := range []string{"/", "/j/house", "/assets/x.js"} {
			req, err := http.NewRequestWithContext(t.Context(), method, srv.URL+path, nil)
			require.NoError(t, err)
			res, err := http.DefaultClient.Do(req)
			require.NoError(t, err)
			_ = res.Body.Close()
			assert.Equal(t, want, res.StatusCode, "%s %s", method, path)
			if want == 405 {
				assert.Equal(t, "GET, HEAD", res.Header.Get("Allow"))
			}
		}
	}
}

// Whatever a hand is called, and whatever is said of a thing, stands on one line and has an end.
func TestWhatIsSaidIsBounded(t *testing.T) {
	s := run(t)
	path, _, tag := s.begin(measure.Millimetres)
	jobPath := path[:len("/jobs/")+10]
	for _, odd := range []string{strings.Repeat("x", 300), "a\nb", "a\x00b", "a\x1b[2Jb", "a\x7fb"} {
		q := url.QueryEscape(odd)
		for what, status := range map[string]int{
			"a change's name":  s.do("PATCH", path+"?by="+q, tag, width("1800", "826")).status,
			"a change's label": s.do("PATCH", path+"?label="+q, tag, width("1800", "826")).status,
			"a caption":        s.do("POST", path+"/photos?step=try&caption="+q, "", jpegOf(t, 20, 20)).status,
			"a photographer":   s.do("POST", path+"/photos?step=try&by="+q, "", jpegOf(t, 20, 20)).status,
			"who brings in":    s.do("POST", jobPath+"/schedule?by="+q, "", []byte("Door,Hand\nA,left\n")).status,
			"who copies":       s.do("POST", jobPath+"/copy", "", CopyChoices{By: odd, Parts: nil}).status,
			"who practises": s.do("POST", "/practice/play", "", map[string]any{
				"seed": 1, "level": "usual", "by": odd, "moves": []any{},
			}).status,
			"who answers drills": s.do("POST", "/practice/drills/hand?seed=1", "", Answered{Answer: 0, By: odd}).status,
		} {
			assert.Equal(t, 422, status, "%s: %q", what, odd)
		}
	}
}

// The contract says of each answer what type it really has.
func TestTheContractSaysWhatIsSent(t *testing.T) {
	s := run(t)
	head := s.bring()
	door := "/jobs/" + head.ID + "/openings/linen"
	photo := got[PhotoView](t, s.do("POST", door+"/photos?step=try", "", jpegOf(t, 20, 20)))
	var doc struct {
		Paths map[string]map[string]struct {
			OperationID string
			Responses   map[string]struct{ Content map[string]any }
		}
	}
	b, err := OpenAPI()
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(b, &doc))
	types := map[string]map[string]any{}
	for _, methods := range doc.Paths {
		for _, o := range methods {
			types[o.OperationID] = o.Responses["200"].Content
		}
	}
	assert.Contains(t, types["day-calendar"], "text/calendar; charset=utf-8")
	for id, path := range map[string][]string{
		"export-bundle":   {"/jobs/" + head.ID + "/bundle"},
		"paper":           {"/jobs/" + head.ID + "/paper?kind=load"},
		"export-schedule": {"/jobs/" + head.ID + "/schedule", "/jobs/" + head.ID + "/schedule?format=csv"},
		"template": {
			door + "/template?template=rod", door + "/template?template=rod&format=svg",
			door + "/template?template=rod&format=dxf", door + "/template?template=hinge&format=stl",
		},
		"photo":      {door + "/photos/" + photo.ID},
		"backup":     {"/backup"},
		"everything": {"/everything"},
		"walk":       {"/jobs/" + head.ID},
		"export-job": {"/jobs/" + head.ID + "/file"},
	} {
		for _, p := range path {
			a := s.do("GET", p, "", nil)
			require.Equal(t, 200, a.status, "%s: %s", p, a.raw[:min(len(a.raw), 200)])
			assert.Contains(t, types[id], a.header.Get("Content-Type"), id)
			assert.Len(t, types[id], len(path), "%s: and of no other", id)
		}
	}
}
