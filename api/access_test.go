package api

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/measure"
	"kindmargin/share"
	"kindmargin/store"
)

// A code lets one client in, for ten minutes, and not past the end of any pass (OWASP ASVS 4.0.3, 2.7.2 and 2.7.3:
// a code out of band ends after ten minutes and is used once; from memory).
func TestAPairingCodeIsUsedUp(t *testing.T) {
	s := sharing(t, shares)
	pair := func(code string) int { return s.ask("POST", "/api/sharing/clients", "", Pairing{code, "phone"}).status }
	assert.Equal(t, 403, pair(""), "none is shown yet")
	first := s.code()
	second := s.code()
	assert.Equal(t, 403, pair(first), "a new one puts the one before it out of use")
	assert.Equal(t, 200, pair(second))
	assert.Equal(t, 403, pair(second), "used up")
	third := s.code()
	p := got[SharingView](t, s.do("GET", "/sharing", "", nil))
	assert.Equal(t, third, p.Code)
	until, err := time.Parse(time.RFC3339, p.Until)
	require.NoError(t, err)
	assert.InDelta(t, 10, time.Until(until).Minutes(), 0.2)
	require.Equal(t, 204, s.do("DELETE", "/sharing/clients/"+p.Passes[0].ID, "", nil).status)
	assert.Empty(t, got[SharingView](t, s.do("GET", "/sharing", "", nil)).Code)
	assert.Equal(t, 403, pair(third), "out of use since a pass was ended")

	now := time.Date(2026, 11, 30, 9, 0, 0, 0, time.UTC)
	c := codes{make: share.Code, plain: share.Plain, now: func() time.Time { return now }}
	code, _ := c.renew()
	now = now.Add(codeLasts - time.Second)
	assert.True(t, c.is(code))
	now = now.Add(time.Second)
	assert.False(t, c.is(code))
	assert.False(t, c.spend(code))
	shown, _ := c.show()
	assert.Empty(t, shown)
	assert.False(t, c.is(""), "nothing is no code")
	newer, _ := c.renew()
	assert.False(t, c.spend(code), "one that was put out of use spends no other")
	assert.True(t, c.spend(newer))
	assert.False(t, c.spend(newer), "it lets in one device")
}

// A code is asked for at this machine, and so is who runs the house; a client reads and enters until then (OWASP ASVS
// 4.0.3, 4.1.3, from memory: no more than is needed).
func TestAClientReadsAndEntersUntilItIsRaised(t *testing.T) {
	s := sharing(t, shares)
	path, v, tag := s.begin(measure.Millimetres)
	pass, view := s.pairs("phone")
	_, other := s.pairs("tablet")
	assert.False(t, view.Runs)
	assert.Equal(t, 200, s.ask("GET", "/api/jobs/"+v.Job.ID, pass, nil).status)
	assert.Equal(t, 200, s.ask("PATCH", "/api"+path, pass, width("1800", "826"), "If-Match", tag).status)
	head := got[Walk](t, s.do("GET", "/jobs/"+v.Job.ID, "", nil)).Job
	house := map[string]func() answer{
		"a backup":       func() answer { return s.ask("GET", "/api/backup", pass, nil) },
		"a restore":      func() answer { return s.ask("POST", "/api/restore", pass, "no backup") },
		"another's pass": func() answer { return s.ask("DELETE", "/api/sharing/clients/"+other.ID, pass, nil) },
		"taking off": func() answer {
			return s.ask("DELETE", "/api/jobs/"+head.ID, pass, nil, "If-Match", etag(head.Version))
		},
		"putting back": func() answer {
			return s.ask("POST", "/api/jobs/"+head.ID+"/restore", pass, nil, "If-Match", etag(head.Version))
		},
	}
	for what, ask := range house {
		a := ask()
		assert.Equal(t, 403, a.status, what)
		assert.Contains(t, a.trouble(t).Detail, "a device that may run the house", what)
	}
	own := func(method, path string, in any) int { return s.ask(method, "/api"+path, pass, in).status }
	assert.Equal(t, 403, own("POST", "/sharing/code", nil), "a code is shown at this machine alone")
	assert.Equal(t, 403, own("PUT", "/sharing/clients/"+view.ID, Raising{true}), "nobody raises itself")
	require.Equal(t, 204, s.do("PUT", "/sharing/clients/"+view.ID, "", Raising{true}).status)
	assert.True(t, got[SharingView](t, s.ask("GET", "/api/sharing", pass, nil)).Runs)
	for what, ask := range house {
		assert.NotContains(t, []int{401, 403}, ask().status, what)
	}
	assert.Equal(t, 403, own("PUT", "/sharing/clients/"+other.ID, Raising{true}), "not even then")
	require.Equal(t, 204, s.do("PUT", "/sharing/clients/"+view.ID, "", Raising{false}).status)
	assert.Equal(t, 403, own("GET", "/backup", nil))
	assert.Equal(t, 204, own("DELETE", "/sharing/clients/"+view.ID, nil), "it may put itself out")
	assert.Equal(t, 401, own("GET", "/jobs", nil))
	assert.Equal(t, 404, s.do("PUT", "/sharing/clients/"+view.ID, "", Raising{true}).status)
}

// What is under way for a client ends with its pass: a restore that it sends is not made once its pass was ended
// (OWASP ASVS 4.0.3, 3.3.1, from memory).
func TestAnEndedPassEndsWhatIsUnderWay(t *testing.T) {
	s := sharing(t, shares)
	path, _, _ := s.begin(measure.Millimetres)
	pass, view := s.pairs("phone")
	require.Equal(t, 204, s.do("PUT", "/sharing/clients/"+view.ID, "", Raising{true}).status)
	backup := s.do("GET", "/backup", "", nil)
	require.Equal(t, 200, backup.status)
	later := got[JobHead](t, s.do("POST", "/jobs", "", map[string]any{"name": "Later", "unit": "mm"}))

	body, send := io.Pipe()
	req, err := http.NewRequestWithContext(t.Context(), "POST", s.other+"/api/restore", body)
	require.NoError(t, err)
	req.AddCookie(&http.Cookie{Name: "kindmargin", Value: pass})
	answered := make(chan int, 1)
	go func() {
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			answered <- 0
			return
		}
		_ = res.Body.Close()
		answered <- res.StatusCode
	}()
	half := len(backup.raw) / 2
	_, err = send.Write(backup.raw[:half])
	require.NoError(t, err)
	ended := make(chan int, 1)
	go func() { ended <- s.do("DELETE", "/sharing/clients/"+view.ID, "", nil).status }()
	require.Eventually(
		t, func() bool { return s.ask("GET", "/api/jobs", pass, nil).status == 401 }, 10*time.Second,
		5*time.Millisecond,
	)
	_, _ = send.Write(backup.raw[half:]) // the rest comes late
	_ = send.Close()
	assert.NotEqual(t, 200, <-answered)
	assert.Equal(t, 204, <-ended)
	list := got[[]JobHead](t, s.do("GET", "/jobs", "", nil))
	assert.Len(t, list, 2, "nothing was restored")
	assert.Equal(t, later.ID, list[1].ID)
	assert.Equal(t, 200, s.do("GET", path, "", nil).status)
	// One that was let in a moment before its pass was ended is not begun.
	u := newUnderway()
	u.end(t.Context(), "x")
	_, _, ok := u.begin(t.Context(), "x")
	assert.False(t, ok)
}

// A client that was let in is told on every page and in the log, and so is a code that was refused, with its
// address (OWASP ASVS 4.0.3, 2.2.3 and 7.1.3, from memory: who is let in is told, what is let in and what is not is
// logged).
func TestWhoIsLetInIsTold(t *testing.T) {
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "test.db"))
	require.NoError(t, err)
	var log bytes.Buffer
	how := shares
	how.Codes, how.Plain, how.QR = share.Code, share.Plain, func(string) [][]bool { return nil }
	program := New(st, Pages{}, slog.New(slog.NewTextHandler(&log, nil)), how)
	srv := httptest.NewServer(program)
	s := running{t, srv.URL}
	ctx, leave := context.WithCancel(t.Context())
	req, err := http.NewRequestWithContext(ctx, "GET", s.url+"/api/events", nil)
	require.NoError(t, err)
	events, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	code := program.NewCode()
	assert.Equal(t, 403, s.do("POST", "/sharing/clients", "", Pairing{"0000-0000", "a stranger"}).status)
	require.Equal(t, 200, s.do("POST", "/sharing/clients", "", Pairing{code, "Wren's phone"}).status)
	heard := make([]byte, 4096)
	n := 0
	for !bytes.Contains(heard[:n], []byte("event: client")) {
		more, err := events.Body.Read(heard[n:])
		require.NoError(t, err)
		n += more
	}
	assert.Contains(t, string(heard[:n]), `"name":"Wren's phone"`)
	leave()
	_ = events.Body.Close()
	program.Close()
	srv.Close() // the log is whole
	require.NoError(t, st.Close())
	assert.Contains(t, log.String(), "a client was let in")
	assert.Contains(t, log.String(), "Wren's phone")
	assert.Contains(t, log.String(), "a pairing code was refused")
	assert.Contains(t, log.String(), "address=127.0.0.1:")
	assert.NotContains(t, log.String(), code, "7.1.1: no code stands in the log")
}

// Whoever tries codes holds up his own network alone (OWASP ASVS 4.0.3, 2.2.1 and 11.1.4, from memory).
func TestTryingCodesHoldsUpNobodyElse(t *testing.T) {
	for host, want := range map[string]string{
		"192.168.1.9": "192.168.1.9", "::ffff:192.168.1.9": "192.168.1.9", "2001:db8:1:2:3:4:5:6": "2001:db8:1:2::/64",
		"fe80::1%eth0": "fe80::/64", "not an address": "not an address",
	} {
		assert.Equal(t, want, network(host), host)
	}
	served := 0
	limited := tries(http.HandlerFunc(func(http.ResponseWriter, *http.Request) { served++ }))
	try := func(from string) int {
		r := httptest.NewRequest("POST", "/api/sharing/clients", nil)
		r.RemoteAddr = from
		w := httptest.NewRecorder()
		limited.ServeHTTP(w, r)
		return w.Code
	}
	for i := range 400 {
		try(fmt.Sprintf("[2001:db8::%x]:5000", i+1))
		try(fmt.Sprintf("192.168.1.%d:5000", 1+i%40))
	}
	assert.LessOrEqual(t, served, 10+40*10, "each network ten times")
	assert.Equal(t, 429, try("[2001:db8::ffff]:5000"))
	assert.Equal(t, 200, try("192.168.1.200:5000"), "who comes after them is let try")
}

// What a client has seen is not shown from its caches once its pass was ended: photographs are asked for again, and
// the answer that it is out clears what it holds (OWASP ASVS 4.0.3, 8.2.1, from memory).
func TestNothingIsKeptPastAPass(t *testing.T) {
	s := sharing(t, shares)
	path, _, _ := s.begin(measure.Millimetres)
	photo := got[PhotoView](t, s.do("POST", path+"/photos?step=try", "", jpegOf(t, 20, 20)))
	pass, view := s.pairs("phone")
	a := s.ask("GET", "/api"+path+"/photos/"+photo.ID, pass, nil)
	require.Equal(t, 200, a.status)
	assert.Equal(t, "private, no-cache", a.header.Get("Cache-Control"))
	require.NotEmpty(t, a.etag)
	again := s.ask("GET", "/api"+path+"/photos/"+photo.ID, pass, nil, "If-None-Match", a.etag)
	assert.Equal(t, http.StatusNotModified, again.status)
	assert.Empty(t, again.raw)
	require.Equal(t, 204, s.do("DELETE", "/sharing/clients/"+view.ID, "", nil).status)
	out := s.ask("GET", "/api"+path+"/photos/"+photo.ID, pass, nil, "If-None-Match", a.etag)
	assert.Equal(t, 401, out.status)
	assert.Equal(t, `"cache"`, out.header.Get("Clear-Site-Data"))
}
