package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// soaks is how long the program is worked at: some seconds in the tests, an hour by make soak.
func soaks(t *testing.T) time.Duration {
	text := os.Getenv("KINDMARGIN_SOAK")
	if text == "" {
		return 3 * time.Second
	}
	d, err := time.ParseDuration(text)
	require.NoError(t, err)
	return d
}

// descriptors is how many files a process has open: those of its data file, and others.
func descriptors(t *testing.T, pid int, data string) (own, others int) {
	t.Helper()
	at := "/proc/" + strconv.Itoa(pid) + "/fd"
	list, err := os.ReadDir(at)
	require.NoError(t, err)
	for _, e := range list {
		switch to, _ := os.Readlink(filepath.Join(at, e.Name())); to {
		case data, data + "-wal", data + "-shm":
			own++
		default: // closed since it was listed, among others
			others++
		}
	}
	return own, others
}

// Saves, files that come in, papers, backups, restores and a hundred pages that listen, all at once and for a long
// time: memory stays where it is, and no file is left open.
func TestASoak(t *testing.T) {
	t.Parallel()
	data := filepath.Join(t.TempDir(), "soak.db")
	p, err := Start(t.Context(), bin, "demo", data)
	require.NoError(t, err)
	t.Cleanup(func() { _ = p.Stop() })
	get := func(path string) []byte {
		res, err := http.Get(p.URL + path)
		if err != nil {
			return nil
		}
		defer res.Body.Close()
		b, _ := io.ReadAll(res.Body)
		return b
	}
	post := func(path string, body []byte) int {
		res, err := http.Post(p.URL+path, "application/octet-stream", bytes.NewReader(body))
		if err != nil {
			return 0
		}
		defer res.Body.Close()
		_, _ = io.Copy(io.Discard, res.Body)
		return res.StatusCode
	}
	bundle, backup := get("/api/jobs/tern-house/bundle"), get("/api/backup")
	require.NotEmpty(t, bundle)
	require.NotEmpty(t, backup)
	http.DefaultClient.CloseIdleConnections()
	_, before := descriptors(t, p.PID(), data)

	end := time.Now().Add(soaks(t))
	var counts sync.Map
	var wg sync.WaitGroup
	over := func() bool { return !time.Now().Before(end) }
	does := func(what string, work func(n int) bool) {
		var done atomic.Int64
		counts.Store(what, &done)
		wg.Go(func() {
			for n := 0; !over(); n++ {
				if work(n) {
					done.Add(1)
				}
			}
		})
	}
	for i, door := range []string{"linen", "chart", "beam", "galley"} {
		c, at := client{url: p.URL}, "/api/jobs/tern-house/openings/"+door
		does(fmt.Sprintf("saves %d", i), func(n int) bool { // a restore may have come between
			var now view
			tag, err := c.send(t, "GET", at, "", "", &now)
			if err == nil {
				_, err = c.send(
					t, "PATCH", at, tag, fmt.Sprintf(`[{"op": "replace", "path": "/room", "value": "Room %d"}]`, n),
					&now,
				)
			}
			return err == nil
		})
	}
	does("imports", func(int) bool { return post("/api/imports", bundle) == http.StatusAccepted })
	does("papers", func(n int) bool {
		return len(get("/api/jobs/tern-house/paper?kind="+[]string{"book", "card", "load", "order"}[n%4])) > 1000
	})
	does("tables", func(n int) bool {
		return len(get("/api/jobs/tern-house/schedule")) > 1000
	})
	does("exports", func(n int) bool {
		return export(p.URL, []string{"everything", "book", "tables", "bundle"}[n%4])
	})
	does("restores", func(int) bool { return post("/api/restore", backup) == http.StatusOK })
	does("backups", func(int) bool { return len(get("/api/backup")) > 1000 })
	var listening []io.Closer
	for range 100 {
		res, err := http.Get(p.URL + "/api/events")
		require.NoError(t, err)
		listening = append(listening, res.Body)
		go func() { _, _ = io.Copy(io.Discard, res.Body) }()
	}
	var memory []float64
	tick := time.NewTicker(max(soaks(t)/200, 50*time.Millisecond))
	for range tick.C {
		mb, _ := resident(t, p.PID())
		if memory = append(memory, mb); over() {
			break
		}
	}
	tick.Stop()
	wg.Wait()
	for _, l := range listening {
		require.NoError(t, l.Close())
	}
	counts.Range(func(what, n any) bool {
		t.Logf("%s: %d", what, n.(*atomic.Int64).Load())
		assert.Positive(t, n.(*atomic.Int64).Load(), what)
		return true
	})
	// What is left of it is what an idle program has open. It keeps one connection to write and two a core to read, opened
	// as they are wanted: the data file and its log for each, the file once more where SQLite waits to close it until
	// nothing has it locked, and what they share.
	connections := 1 + 2*runtime.GOMAXPROCS(0)
	var own, after int
	assert.Eventually(t, func() bool {
		http.DefaultClient.CloseIdleConnections()
		own, after = descriptors(t, p.PID(), data)
		return after <= before+4 && own <= 3*connections+1
	}, time.Minute, 100*time.Millisecond, "no file is left open")
	third := len(memory) / 3
	middle, last := mean(memory[third:2*third]), mean(memory[2*third:])
	t.Logf(
		"memory in the middle third %.0f MB, in the last %.0f, at most %.0f; %d files open before, %d after, and %d "+
			"of the data",
		middle, last, greatest(memory), before, after, own,
	)
	if soaks(t) >= 5*time.Minute { // it takes a while until the heap has its size
		assert.Less(t, last, 1.1*middle)
	}
	assert.Less(t, greatest(memory), 512.0)
}

// export has a file made, and reads it.
func export(url, what string) bool {
	var e struct{ ID, State string }
	asks := func(method, path, body string) []byte {
		req, err := http.NewRequest(method, url+path, strings.NewReader(body))
		if err != nil {
			return nil
		}
		req.Header.Set("Content-Type", "application/json")
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			return nil
		}
		defer res.Body.Close()
		b, _ := io.ReadAll(res.Body)
		_ = json.Unmarshal(b, &e)
		return b
	}
	asks("POST", "/api/exports", fmt.Sprintf(`{"what": %q, "job": "tern-house"}`, what))
	for e.State == "waiting" || e.State == "making" {
		asks("GET", "/api/exports/"+e.ID, "")
	}
	return e.State == "done" && len(asks("GET", "/api/exports/"+e.ID+"/file", "")) > 1000
}

func mean(list []float64) (m float64) {
	for _, v := range list {
		m += v / float64(len(list))
	}
	return m
}

func greatest(list []float64) (m float64) {
	for _, v := range list {
		m = max(m, v)
	}
	return m
}
