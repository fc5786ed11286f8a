package api

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/measure"
	"kindmargin/share"
	"kindmargin/store"
)

// shared is a program that other clients reach at 127.0.0.2, and this machine at 127.0.0.1.
type shared struct {
	running        // this machine
	other   string // where others reach it
}

func sharing(t *testing.T, how Share) shared {
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "test.db"))
	require.NoError(t, err)
	how.Plain = share.Plain
	if how.URLs != nil {
		how.Codes, how.QR = share.Code, func(string) [][]bool { return [][]bool{{true, false}} }
	}
	pages := http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { _, _ = io.WriteString(w, "the page") })
	program := New(st, Pages{pages, "one.js"}, slog.New(slog.DiscardHandler), how)
	here := httptest.NewServer(program)
	l, err := net.Listen("tcp", "127.0.0.2:0")
	require.NoError(t, err)
	there := &httptest.Server{Listener: l, Config: &http.Server{Handler: program}}
	there.Start()
	t.Cleanup(func() { program.Close(); here.Close(); there.Close(); _ = st.Close() })
	return shared{running{t, here.URL}, there.URL}
}

// shares lets other clients in.
var shares = Share{URLs: []string{"http://127.0.0.2:8137"}, Hosts: []string{"wren.local"}}

// code asks for a new pairing code at this machine.
func (s shared) code() string {
	s.t.Helper()
	return got[SharingView](s.t, s.do("POST", "/sharing/code", "", nil)).Code
}

// ask asks as another client does, with its pass.
func (s shared) ask(method, path, pass string, in any, set ...string) answer {
	s.t.Helper()
	b, err := json.Marshal(in)
	require.NoError(s.t, err)
	req, err := http.NewRequestWithContext(s.t.Context(), method, s.other+path, bytes.NewReader(b))
	require.NoError(s.t, err)
	req.Header.Set("Content-Type", "application/json")
	for i := 0; i+1 < len(set); i += 2 {
		if set[i] == "Host" {
			req.Host = set[i+1]
		}
		req.Header.Set(set[i], set[i+1])
	}
	if pass != "" {
		req.AddCookie(&http.Cookie{Name: "kindmargin", Value: pass})
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(s.t, err)
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	require.NoError(s.t, err)
	return answer{res.StatusCode, res.Header.Get("ETag"), res.Header, raw}
}

func (s shared) pairs(name string) (pass string, view PassView) {
	s.t.Helper()
	a := s.ask("POST", "/api/sharing/clients", "", Pairing{strings.ToLower(strings.Replace(s.code(), "-", " ", 1)), name})
	require.Equal(s.t, 200, a.status, string(a.raw))
	c, err := http.ParseSetCookie(a.header.Get("Set-Cookie"))
	require.NoError(s.t, err)
	require.NoError(s.t, json.Unmarshal(a.raw, &view))
	return c.Value, view
}

// Nothing of the job is answered without a pass: every route of the contract is walked, with no
// pass, with a made-up one, and with one that was ended; and with one that holds none is shut.
func TestNothingIsAnsweredWithoutAPass(t *testing.T) {
	s := sharing(t, shares)
	_, v, _ := s.begin(measure.Millimetres)
	pass, view := s.pairs("Wren's phone")
	ended, other := s.pairs("an old phone")
	require.Equal(t, 204, s.do("DELETE", "/sharing/clients/"+other.ID, "", nil).status)
	doc, err := OpenAPI()
	require.NoError(t, err)
	var contract struct {
		Paths map[string]map[string]any `json:"paths"`
	}
	require.NoError(t, json.Unmarshal(doc, &contract))
	routes := 0
	fill := strings.NewReplacer(
		"{job}", v.Job.ID, "{opening}", v.Opening.ID, "{tool}", "tape", "{photo}", "none", "{pass}", "none", "{import}",
		"none",
	)
	for path, methods := range contract.Paths {
		for method := range methods {
			method, path := strings.ToUpper(method), fill.Replace(path)
			if path == "/api/sharing/clients" {
				continue // which is how one gets a pass
			}
			routes++
			for _, cookie := range []string{"", "made-up", ended} {
				a := s.ask(method, path, cookie, nil)
				assert.Equal(t, 401, a.status, "%s %s", method, path)
				assert.NotContains(t, string(a.raw), "Study")
				assert.NotContains(t, string(a.raw), v.Opening.ID)
			}
			if path != "/api/events" && path != "/api/restore" {
				assert.NotEqual(t, 401, s.ask(method, path, pass, nil).status, "%s %s", method, path)
			}
		}
	}
	assert.Greater(t, routes, 40)
	assert.Equal(t, 401, s.ask("GET", "/healthz", "", nil).status)
	assert.Equal(t, "the page", string(s.ask("GET", "/pair", "", nil).raw), "the page asks for the code")
	assert.Equal(t, "Wren's phone", view.Name)
	assert.Equal(t, 200, s.do("GET", "/jobs", "", nil).status, "this machine needs no pass")
}

// Without --share no other address is answered, whatever it knows.
func TestNotSharedNobodyIsLetIn(t *testing.T) {
	s := sharing(t, Share{})
	for _, path := range []string{"/", "/api/jobs", "/api/sharing/clients"} {
		assert.Equal(t, 401, s.ask("POST", path, "", Pairing{"", "phone"}).status, path)
	}
}

// Codes are tried ten times a minute from one address, and no answer tells how near one was;
// the right one is let in once the wrong ones are over.
func TestCodesAreTriedATimeOrTen(t *testing.T) {
	s := sharing(t, shares)
	code := s.code()
	tried := map[int]int{}
	for i := range 100 {
		a := s.ask("POST", "/api/sharing/clients", "", Pairing{fmt.Sprintf("7KQM-%04d", i), "phone"})
		tried[a.status]++
		assert.NotContains(t, string(a.raw), code)
		if a.status == 429 {
			assert.NotEmpty(t, a.header.Get("Retry-After"))
			assert.Contains(t, a.trouble(t).Detail, "Wait a minute")
		}
	}
	assert.Equal(t, map[int]int{403: 10, 429: 90}, tried)
	assert.Equal(t, 429, s.ask("POST", "/api/sharing/clients", "", Pairing{code, "phone"}).status, "the right one "+
		"waits as well")
	assert.Equal(t, 200, s.do("GET", "/sharing", "", nil).status, "who works on is not held up")
	fresh := sharing(t, shares)
	held := fresh.code()
	for _, name := range []string{"", " ", strings.Repeat("x", 61), "a\x00b"} {
		assert.Equal(t, 422, fresh.ask("POST", "/api/sharing/clients", "", Pairing{held, name}).status, "%q", name)
	}
}

// Headers, cookies and passes against OWASP ASVS 4.0.3 (from memory), section by section.
func TestPassesAgainstASVS(t *testing.T) {
	for _, tls := range []bool{false, true} {
		how := shares
		how.TLS = tls
		s := sharing(t, how)
		a := s.ask("POST", "/api/sharing/clients", "", Pairing{s.code(), "phone"})
		require.Equal(t, 200, a.status)
		c, err := http.ParseSetCookie(a.header.Get("Set-Cookie"))
		require.NoError(t, err)
		assert.Equal(t, tls, c.Secure, "3.4.1, where there is TLS")
		assert.True(t, c.HttpOnly, "3.4.2")
		assert.Equal(t, http.SameSiteStrictMode, c.SameSite, "3.4.3")
		assert.Equal(t, tls, strings.HasPrefix(c.Name, "__Host-"), "3.4.4")
		assert.Equal(t, "/", c.Path, "3.4.4, 3.4.5")
		assert.Empty(t, c.Domain, "3.4.4")
		assert.GreaterOrEqual(t, len(c.Value)*5, 64, "3.2.2: 64 bits at least; base32 has 5 a letter")
		assert.NotContains(t, string(a.raw), c.Value, "3.1.1, 8.3.1: the pass is in no body and no address")
		assert.Equal(t, tls, a.header.Get("Strict-Transport-Security") != "", "9.1, 14.4.5")
		h := s.ask("GET", "/", "", nil).header
		csp := h.Get("Content-Security-Policy")
		for _, part := range []string{"default-src 'self'", "object-src 'none'", "base-uri 'none'"} {
			assert.Contains(t, csp, part, "14.4.3")
		}
		assert.NotContains(t, csp, "unsafe", "14.4.3")
		assert.Equal(t, "nosniff", h.Get("X-Content-Type-Options"), "14.4.4")
		assert.Equal(t, "no-referrer", h.Get("Referrer-Policy"), "14.4.6")
		assert.Contains(t, csp, "frame-ancestors 'none'", "14.4.7")
		assert.Contains(t, a.header.Get("Content-Type"), "application/json", "14.4.1")
		assert.Contains(
			t, []string{"no-cache", "no-store"}, s.ask("GET", "/api/jobs", "", nil).header.Get("Cache-Control"),
			"8.2.1",
		)
	}
	s := sharing(t, shares)
	pass, _ := s.pairs("phone")
	for says, set := range map[string][]string{
		"a foreign origin":     {"Origin", "http://evil.example"},
		"a foreign site":       {"Sec-Fetch-Site", "cross-site"},
		"another of this host": {"Sec-Fetch-Site", "same-site"},
	} {
		assert.Equal(
			t, 403, s.ask("POST", "/api/jobs", pass, map[string]any{"name": "x", "unit": "mm"}, set...).status,
			"14.5.3, 4.2.2: "+says,
		)
	}
	assert.Equal(
		t, 421, s.ask("GET", "/api/jobs", pass, nil, "Host", "evil.example").status,
		"a name that was turned to this machine",
	)
	assert.Equal(t, 200, s.ask("GET", "/api/jobs", pass, nil, "Host", "wren.local:8137").status)
	assert.Equal(t, 405, s.ask("TRACE", "/api/jobs", pass, nil).status, "14.5.1")
	// 3.3.1: a pass that was ended is no pass, from the next request on.
	p := got[SharingView](t, s.ask("GET", "/api/sharing", pass, nil))
	assert.Empty(t, p.Code, "the code is told on this machine alone")
	assert.Empty(t, p.QR)
	require.Len(t, p.Passes, 1)
	assert.True(t, p.Passes[0].This)
	here := got[SharingView](t, s.do("GET", "/sharing", "", nil))
	assert.Empty(t, here.Code, "it is used up")
	assert.Empty(t, here.QR)
	here = got[SharingView](t, s.do("POST", "/sharing/code", "", nil))
	assert.Len(t, here.Code, 9)
	assert.Equal(t, []string{"# "}, here.QR)
	assert.Equal(t, 204, s.do("DELETE", "/sharing/clients/"+p.Passes[0].ID, "", nil).status)
	assert.Equal(t, 401, s.ask("GET", "/api/jobs", pass, nil).status)
	assert.Equal(t, 404, s.do("DELETE", "/sharing/clients/"+p.Passes[0].ID, "", nil).status)
}

// A change that one client makes is told to every page that listens, with the client's name;
// one whose pass is ended hears no more.
func TestChangesAreTold(t *testing.T) {
	s := sharing(t, shares)
	path, _, tag := s.begin(measure.Millimetres)
	pass, view := s.pairs("Wren's phone")
	hears := func(url, pass string) (lines chan string) {
		req, err := http.NewRequestWithContext(t.Context(), "GET", url+"/api/events", nil)
		require.NoError(t, err)
		if pass != "" {
			req.AddCookie(&http.Cookie{Name: "kindmargin", Value: pass})
		}
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		require.Equal(t, "text/event-stream", res.Header.Get("Content-Type"))
		lines = make(chan string, 100)
		go func() {
			defer res.Body.Close()
			defer close(lines)
			b := make([]byte, 4096)
			for {
				n, err := res.Body.Read(b)
				if n > 0 {
					lines <- string(b[:n])
				}
				if err != nil {
					return
				}
			}
		}()
		return lines
	}
	next := func(lines chan string) string {
		select {
		case l := <-lines:
			return l
		case <-time.After(5 * time.Second):
			return "nothing was heard"
		}
	}
	here, there := hears(s.url, ""), hears(s.other, pass)
	assert.Contains(t, next(here), `"pages": "one.js"`)
	assert.Contains(t, next(there), "event: hello")
	a := s.ask(
		"PATCH", "/api"+path+"?label=width+826&by=Wren", pass, width("1800", "826"), "If-Match", tag, "X-Page",
		"phone-page",
	)
	require.Equal(t, 200, a.status, string(a.raw))
	for _, ear := range []chan string{here, there} {
		line := next(ear)
		for _, part := range []string{
			"event: change", `"label":"width 826"`, `"by":"Wren"`, `"client":"Wren's phone"`, `"from":"phone-page"`,
			`"version":2`,
		} {
			assert.Contains(t, strings.ReplaceAll(line, `\u0027`, "'"), part)
		}
	}
	require.Equal(t, 204, s.do("DELETE", "/sharing/clients/"+view.ID, "", nil).status)
	assert.Contains(t, next(there), "event: ended", "its pages hear why")
	_, open := <-there
	assert.False(t, open, "and no more")
	require.Equal(t, 200, s.do("PATCH", path, a.etag, width("1000", "826")).status)
	host, err := os.Hostname()
	require.NoError(t, err)
	line := next(here)
	assert.Contains(t, line, `"client":"","machine":"`+host+`"`, "this machine has a name of its own for the others")
	assert.Contains(t, line, `"onJob":"House"`)
}

// A change that is sent again with its key, since its answer was lost, is made once.
func TestAChangeSentAgainIsMadeOnce(t *testing.T) {
	s := sharing(t, shares)
	path, _, tag := s.begin(measure.Millimetres)
	pass, _ := s.pairs("phone")
	first := s.ask("PATCH", "/api"+path, pass, width("1800", "826"), "If-Match", tag, "Idempotency-Key", "k1")
	require.Equal(t, 200, first.status)
	again := s.ask("PATCH", "/api"+path, pass, width("1800", "826"), "If-Match", tag, "Idempotency-Key", "k1")
	require.Equal(t, 200, again.status, "from the version that it was made from, a day late")
	assert.Len(t, got[OpeningView](t, again).Opening.Readings, 1)
	other := s.ask("PATCH", "/api"+path, pass, width("1000", "826"), "If-Match", again.etag, "Idempotency-Key", "k2")
	assert.Len(t, got[OpeningView](t, other).Opening.Readings, 2)
}
