package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
)

// Killing the program in a stream of saves loses no reading that it had
// acknowledged.
func TestKillLosesNoAcknowledgedReading(t *testing.T) {
	data := filepath.Join(t.TempDir(), "kill.db")
	p, err := Start(t.Context(), bin, "serve", data)
	require.NoError(t, err)
	send := func(method, path, etag, body string, into any) (string, error) {
		req, err := http.NewRequestWithContext(t.Context(), method, p.URL+path, strings.NewReader(body))
		if err != nil {
			return "", err
		}
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("If-Match", etag)
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
	var head struct{ ID string }
	_, err = send("POST", "/api/jobs", "", `{"name": "House", "unit": "mm"}`, &head)
	require.NoError(t, err)
	type view struct{ Opening job.Opening }
	var v view
	etag, err := send("POST", "/api/jobs/"+head.ID+"/openings", "", `{"name": "Study"}`, &v)
	require.NoError(t, err)
	door := "/api/jobs/" + head.ID + "/openings/" + v.Opening.ID

	// One person saves as fast as it goes; when some readings are in, the
	// power goes.
	acknowledged := make(chan int, 1000)
	go func() {
		defer close(acknowledged)
		for n := range cap(acknowledged) {
			var now view
			body := fmt.Sprintf(`[{"op": "add", "path": "/readings/-", "value": {"kind": "width", "at": %d, "value": "826"}}]`, 100+n)
			if etag, err = send("PATCH", door, etag, body, &now); err != nil {
				return
			}
			acknowledged <- n
		}
	}()
	kept, deadline := 0, time.After(time.Minute)
	for kept < 25 {
		select {
		case _, ok := <-acknowledged:
			require.True(t, ok, "saves failed before the kill")
			kept++
		case <-deadline:
			require.Fail(t, "too few saves in a minute")
		}
	}
	require.NoError(t, p.Kill())
	for range acknowledged {
		kept++
	}

	p, err = Start(t.Context(), bin, "serve", data)
	require.NoError(t, err)
	defer func() { _ = p.Stop() }()
	var after view
	_, err = send("GET", door, "", "", &after)
	require.NoError(t, err)
	got := len(after.Opening.Readings)
	assert.GreaterOrEqual(t, got, kept, "every acknowledged reading is there")
	assert.LessOrEqual(t, got, kept+1, "and at most the one that was on its way")
	for n, r := range after.Opening.Readings {
		assert.Equal(t, float64(100+n), r.At.MM(), "in order, none half-written")
	}
}
