package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
)

// heads are the names of the jobs that a program lists.
func heads(t *testing.T, p *Program) (names []string) {
	t.Helper()
	res, err := http.Get(p.URL + "/api/jobs")
	require.NoError(t, err)
	defer res.Body.Close()
	var list []struct{ Name string }
	require.NoError(t, json.NewDecoder(res.Body).Decode(&list))
	for _, h := range list {
		names = append(names, h.Name)
	}
	return names
}

// sends posts a file on its own, and tells the status once it is answered: nought where it never is.
func sends(p *Program, path string, file []byte) (answered chan int) {
	answered = make(chan int, 1)
	go func() {
		res, err := http.Post(p.URL+path, "application/octet-stream", bytes.NewReader(file))
		if err != nil {
			answered <- 0
			return
		}
		_, _ = io.Copy(io.Discard, res.Body)
		_ = res.Body.Close()
		answered <- res.StatusCode
	}()
	return answered
}

// many is a job file with so many doors.
func many(t *testing.T, name string, n int) []byte {
	j := job.NewJob("", name, measure.Millimetres)
	for i := range n {
		j.Openings = append(
			j.Openings, job.NewOpening(fmt.Sprintf("d%d", i), fmt.Sprintf("Door %d", i), measure.Millimetres),
		)
	}
	b, err := job.Encode(j)
	require.NoError(t, err)
	return b
}

// brought is a program on a fresh data file, with one job of so many doors.
func brought(t *testing.T, data, name string, doors int) *Program {
	t.Helper()
	p, err := Start(t.Context(), bin, "serve", data)
	require.NoError(t, err)
	res, err := http.Post(p.URL+"/api/jobs/file", "application/json", bytes.NewReader(many(t, name, doors)))
	require.NoError(t, err)
	_ = res.Body.Close()
	require.Equal(t, 200, res.StatusCode)
	return p
}

// appears waits until a file is there whose name a pattern fits.
func appears(t *testing.T, pattern string) {
	t.Helper()
	require.Eventually(t, func() bool {
		found, err := filepath.Glob(pattern)
		return err == nil && len(found) > 0
	}, time.Minute, time.Millisecond)
}

// A program that is killed in the middle of a restore, an import or a migration starts again, with all of what was
// there before or all of what came, and a sound file.
func TestKillsInTheMiddle(t *testing.T) {
	t.Parallel()
	sound := func(data string) {
		out, err := command(t, "check", "--data", data)
		require.NoError(t, err, out)
	}
	dir := t.TempDir()
	backup := filepath.Join(dir, "backup.db")
	{
		p := brought(t, filepath.Join(dir, "other.db"), "Other", 1500)
		out, err := command(t, "backup", "--data", p.Data, backup)
		require.NoError(t, err, out)
		require.NoError(t, p.Stop())
	}
	whole, err := os.ReadFile(backup)
	require.NoError(t, err)
	for round, stage := range []string{".restoring*", ".before-restore*", "answered"} {
		data := filepath.Join(dir, fmt.Sprintf("restored%d.db", round))
		p := brought(t, data, "Live", 5)
		answered := sends(p, "/api/restore", whole)
		status := 0
		if stage == "answered" {
			status = <-answered
			require.Equal(t, 200, status)
		} else {
			appears(t, data+stage)
		}
		require.NoError(t, p.Kill())
		p, err = Start(t.Context(), bin, "serve", data)
		require.NoError(t, err, "it starts after a kill at %s", stage)
		left, err := filepath.Glob(data + ".restoring*")
		require.NoError(t, err)
		assert.Empty(t, left, "what was half done is gone")
		now := heads(t, p)
		if status == 200 {
			assert.Equal(t, []string{"Other"}, now, "what was acknowledged is there")
		} else {
			assert.Contains(t, [][]string{{"Live"}, {"Other"}}, now, "at %s", stage)
		}
		require.NoError(t, p.Stop())
		sound(data)
	}

	old, err := os.ReadFile(filepath.Join("..", "store", "testdata", "form2.db"))
	require.NoError(t, err)
	for round := range 4 {
		data := filepath.Join(dir, fmt.Sprintf("old%d.db", round))
		require.NoError(t, os.WriteFile(data, old, 0o600))
		ctx, stop := context.WithCancel(t.Context())
		started := make(chan struct{})
		go func() {
			defer close(started)
			if p, err := Start(ctx, bin, "serve", data); err == nil {
				_ = p.Kill()
			}
		}()
		for _, stage := range []string{".lock", ".form2", "-wal"}[:min(round, 3)] { // some at once, some further on
			appears(t, data+stage)
		}
		stop()
		<-started
		p, err := Start(t.Context(), bin, "serve", data)
		require.NoError(t, err, "it starts after a kill in its migration, round %d", round)
		assert.Len(t, heads(t, p), 2)
		require.NoError(t, p.Stop())
		sound(data)
	}

	for round := range 2 {
		data := filepath.Join(dir, fmt.Sprintf("imported%d.db", round))
		p := brought(t, data, "Live", 2)
		answered := sends(p, "/api/imports", many(t, "Came", 2500))
		require.Equal(t, http.StatusAccepted, <-answered)
		if round == 1 {
			appears(t, data+"-wal")
		}
		require.NoError(t, p.Kill())
		p, err = Start(t.Context(), bin, "serve", data)
		require.NoError(t, err)
		if now := heads(t, p); len(now) == 2 {
			res, err := http.Get(p.URL + "/api/jobs")
			require.NoError(t, err)
			var list []struct{ Openings int }
			require.NoError(t, json.NewDecoder(res.Body).Decode(&list))
			_ = res.Body.Close()
			assert.Equal(t, 2500, list[1].Openings, "all of it came in")
		} else {
			assert.Equal(t, []string{"Live"}, now)
		}
		require.NoError(t, p.Stop())
		sound(data)
	}
}
