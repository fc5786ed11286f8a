package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"path/filepath"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/thorough"
)

// client saves in a program over HTTP.
type client struct {
	url string
	key string // of its changes, as an entry that waits has one; may be empty
}

// waiting is a change that was sent and never acknowledged: it waits in the browser, and is
// handed in when the program is there again.
type waiting struct{ key, tag, body string }

func (c client) send(t *testing.T, method, path, etag, body string, into any) (tag string, err error) {
	req, err := http.NewRequestWithContext(t.Context(), method, c.url+path, strings.NewReader(body))
	if err != nil {
		return "", err
	}
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("If-Match", etag)
	if c.key != "" {
		req.Header.Set("Idempotency-Key", c.key)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return "", err
	}
	defer res.Body.Close()
	if res.StatusCode != http.StatusOK {
		return "", fmt.Errorf("%s %s: %s", method, path, res.Status)
	}
	return res.Header.Get("ETag"), json.NewDecoder(res.Body).Decode(into)
}

// clears takes all readings of a door away.
const clears = `[{"op": "replace", "path": "/readings", "value": []}]`

// then is how many readings a door has after a change.
func then(kept int, w waiting) int {
	if w.body == clears {
		return 0
	}
	return kept + 1
}

type view struct{ Opening job.Opening }

// Killing the program in streams of saves, eight people at once, loses nothing that it had
// acknowledged, time after time; and what was on its way is handed in after it, and made once.
func TestKillsLoseNoAcknowledgedReading(t *testing.T) {
	t.Parallel()
	const people = 8
	kills := thorough.Count(12, 10_000)
	data := filepath.Join(t.TempDir(), "kill.db")
	p, err := Start(t.Context(), bin, "serve", data)
	require.NoError(t, err)
	var head struct{ ID string }
	_, err = client{url: p.URL}.send(t, "POST", "/api/jobs", "", `{"name": "House", "unit": "mm"}`, &head)
	require.NoError(t, err)
	doors, kept, queue := make([]string, people), make([]int, people), make([]*waiting, people)
	for i := range doors {
		var v view
		_, err = client{url: p.URL}.send(t, "POST", "/api/jobs/"+head.ID+"/openings", "", `{"name": "Study"}`, &v)
		require.NoError(t, err)
		doors[i] = "/api/jobs/" + head.ID + "/openings/" + v.Opening.ID
	}
	saves := 0
	for round := range kills {
		c := client{url: p.URL}
		var acknowledged atomic.Int64
		enough := make(chan struct{})
		after := int64(8 + round%25) // some when hardly anything is under way, some in the thick of it
		var wg sync.WaitGroup
		for i, door := range doors {
			wg.Go(func() {
				var now view
				tag, err := c.send(t, "GET", door, "", "", &now)
				for k := 0; err == nil; k++ {
					w := waiting{fmt.Sprintf("%d %d", round, k), tag, fmt.Sprintf(
						`[{"op": "add", "path": "/readings/-", "value": {"kind": "width", "at": %d, "value": "826"}}]`,
						100+kept[i],
					)}
					if kept[i] >= 40 { // more would only be slower: begin again
						w.body = clears
					}
					if tag, err = (client{p.URL, w.key}).send(t, "PATCH", door, tag, w.body, &now); err != nil {
						queue[i] = &w
						return
					}
					kept[i] = then(kept[i], w)
					if acknowledged.Add(1) == after {
						close(enough)
					}
				}
			})
		}
		stopped := make(chan struct{})
		go func() { wg.Wait(); close(stopped) }()
		select {
		case <-enough:
		case <-stopped:
			require.Fail(t, "every save failed before the kill")
		}
		require.NoError(t, p.Kill())
		wg.Wait()
		saves += int(acknowledged.Load())

		p, err = Start(t.Context(), bin, "serve", data)
		require.NoError(t, err, "it starts again, and finds its file sound")
		for i, door := range doors {
			var now view
			if w := queue[i]; w != nil {
				for range 2 { // twice, as from a page whose network blinks again
					_, err = client{p.URL, w.key}.send(t, "PATCH", door, w.tag, w.body, &now)
					require.NoError(t, err, "kill %d: what waited is handed in", round)
				}
				kept[i], queue[i] = then(kept[i], *w), nil
			}
			_, err = client{url: p.URL}.send(t, "GET", door, "", "", &now)
			require.NoError(t, err)
			require.Len(
				t, now.Opening.Readings, kept[i], "kill %d: every acknowledged reading is there, and what waited once",
				round,
			)
			for n, r := range now.Opening.Readings {
				require.Equal(t, float64(100+n), r.At.MM(), "in order, none half-written")
			}
		}
	}
	t.Logf("%d kills, %d acknowledged saves, none lost", kills, saves)
	assert.NoError(t, p.Stop())
}

// A demo never clears a file that is not a demo's, whatever it is pointed at, nor
// one that another demo is running on; and a backup made while serving is whole.
func TestRealWorkIsNotClearedByADemo(t *testing.T) {
	t.Parallel()
	data := filepath.Join(t.TempDir(), "real.db")
	p, err := Start(t.Context(), bin, "serve", data)
	require.NoError(t, err)
	var head struct{ ID string }
	_, err = client{url: p.URL}.send(t, "POST", "/api/jobs", "", `{"name": "Real work", "unit": "mm"}`, &head)
	require.NoError(t, err)

	backup := filepath.Join(t.TempDir(), "backup.db")
	out, err := command(t, "backup", "--data", data, backup)
	require.NoError(t, err, out)
	assert.Contains(t, out, "1 job, 0 doors, 0 changes")
	require.NoError(t, p.Stop(), "it ends on a signal, with no error")

	_, err = Start(t.Context(), bin, "demo", data)
	assert.Error(t, err)
	out, err = command(t, "check", "--data", data)
	require.NoError(t, err, out)
	assert.Contains(t, out, "is sound: 1 job")

	demo := filepath.Join(t.TempDir(), "demo.db")
	one, err := Start(t.Context(), bin, "demo", demo)
	require.NoError(t, err)
	_, err = Start(t.Context(), bin, "demo", demo)
	assert.Error(t, err, "another demo is running on it")
	_, err = client{url: one.URL}.send(t, "POST", "/api/jobs", "", `{"name": "Kept", "unit": "mm"}`, &head)
	require.NoError(t, err)
	require.NoError(t, one.Stop())
	out, err = command(t, "check", "--data", demo)
	require.NoError(t, err, out)
	assert.Contains(t, out, "3 jobs")

	out, err = command(t, "serve", "--addr", "0.0.0.0:0", "--data", data)
	assert.Error(t, err)
	assert.Contains(t, out, "other machines")
	out, err = command(t, "--version")
	require.NoError(t, err)
	assert.Contains(t, out, "Kind Margin")
}
