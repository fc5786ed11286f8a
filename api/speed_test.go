package api

import (
	"database/sql"
	"encoding/json"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/store"
)

// thirty is an old opening with thirty readings, everything by rule.
func thirty(id string) job.Opening {
	mm := measure.FromMM
	o := job.NewOpening(id, "Door "+id, measure.Millimetres)
	o.Slab = slab.Slab{Width: mm(838), Length: mm(2040), Thickness: mm(40), Construction: "planked"}
	for i := range 30 {
		r := survey.Reading{
			ID: fmt.Sprintf("r%d", i), Kind: survey.Width, At: mm(float64(200 + 60*i)), Value: mm(826 + float64(i%3)/2),
		}
		switch i % 5 {
		case 1:
			r.Kind, r.At, r.Value = survey.Height, mm(float64(50+20*i)), mm(2032)
		case 2:
			r.Kind, r.Side, r.At, r.From, r.Value = survey.Plumb, frame.Lock, mm(1800), mm(200), mm(-1)
		case 3:
			r.Kind, r.Side, r.At, r.From, r.Value = survey.Level, frame.Head, mm(770), mm(50), mm(0.5)
		}
		o.Readings = append(o.Readings, r)
	}
	return o
}

type bench struct {
	tb  testing.TB
	url string
}

func serving(tb testing.TB, openings int) bench {
	st, err := store.Open(tb.Context(), filepath.Join(tb.TempDir(), "speed.db"))
	require.NoError(tb, err)
	j := job.NewJob("works", "Works", measure.Millimetres)
	for i := range openings {
		j.Openings = append(j.Openings, thirty(fmt.Sprintf("d%d", i)))
	}
	_, err = st.AddJob(tb.Context(), j, store.Once{})
	require.NoError(tb, err)
	srv := httptest.NewServer(New(st, Pages{}, slog.New(slog.DiscardHandler), Share{}))
	tb.Cleanup(func() { srv.Close(); _ = st.Close() })
	return bench{tb, srv.URL}
}

func (s bench) ask(method, path, tag, body string) (status int, etag string) {
	req, err := http.NewRequestWithContext(s.tb.Context(), method, s.url+path, strings.NewReader(body))
	require.NoError(s.tb, err)
	if tag != "" {
		req.Header.Set("If-Match", tag)
	}
	if body != "" {
		req.Header.Set("Content-Type", "application/json-patch+json")
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(s.tb, err)
	defer res.Body.Close()
	_, err = io.Copy(io.Discard, res.Body)
	require.NoError(s.tb, err)
	return res.StatusCode, res.Header.Get("ETag")
}

func median(took []time.Duration, at float64) time.Duration {
	slices.Sort(took)
	return took[int(float64(len(took)-1)*at)]
}

// BenchmarkSave is a reading of a door with thirty changed over HTTP, on the disk
// and its plan worked out and answered, against a bare durable insert of the same
// size: medians, and their ratio.
func BenchmarkSave(b *testing.B) {
	s := serving(b, 1)
	door := "/api/jobs/works/openings/d0"
	_, tag := s.ask("GET", door, "", "")

	db, err := sql.Open(
		"sqlite", filepath.Join(b.TempDir(), "bare.db")+"?_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)",
	)
	require.NoError(b, err)
	defer db.Close()
	db.SetMaxOpenConns(1)
	_, err = db.Exec(`CREATE TABLE t (id INTEGER PRIMARY KEY, doc TEXT)`)
	require.NoError(b, err)
	doc, err := json.Marshal(thirty("d0"))
	require.NoError(b, err)

	var saves, bare []time.Duration
	n := 0
	for b.Loop() {
		n++
		start := time.Now()
		var status int
		status, tag = s.ask(
			"PATCH", door, tag,
			fmt.Sprintf(`[{"op": "replace", "path": "/readings/0/value", "value": %d.5}]`, 820+n%10),
		)
		saves = append(saves, time.Since(start))
		require.Equal(b, 200, status)
		start = time.Now()
		_, err := db.Exec(`INSERT INTO t (doc) VALUES (?)`, string(doc))
		require.NoError(b, err)
		bare = append(bare, time.Since(start))
	}
	save, insert := median(saves, 0.5), median(bare, 0.5)
	b.ReportMetric(float64(save.Microseconds()), "save-µs")
	b.ReportMetric(float64(insert.Microseconds()), "bare-µs")
	b.ReportMetric(float64(save)/float64(insert), "bare-inserts/save")
}

// BenchmarkSavesAtOnce is 32 people saving in doors of their own: the 99th
// percentile.
func BenchmarkSavesAtOnce(b *testing.B) {
	const people = 32
	s := serving(b, people)
	var all []time.Duration
	var mu sync.Mutex
	for b.Loop() {
		var wg sync.WaitGroup
		for p := range people {
			wg.Go(func() {
				door := fmt.Sprintf("/api/jobs/works/openings/d%d", p)
				_, tag := s.ask("GET", door, "", "")
				for k := range 20 {
					start := time.Now()
					status, next := s.ask(
						"PATCH", door, tag,
						fmt.Sprintf(`[{"op": "replace", "path": "/readings/0/value", "value": %d.5}]`, 810+k),
					)
					took := time.Since(start)
					if status != 200 {
						b.Errorf("a save was answered %d", status)
					}
					tag = next
					mu.Lock()
					all = append(all, took)
					mu.Unlock()
				}
			})
		}
		wg.Wait()
	}
	b.ReportMetric(float64(median(all, 0.99).Milliseconds()), "p99-ms")
}

// BenchmarkWalk is the walk of a thousand doors, read again with one door
// changed since.
func BenchmarkWalk(b *testing.B) {
	s := serving(b, 1000)
	s.ask("GET", "/api/jobs/works", "", "")
	door := "/api/jobs/works/openings/d7"
	_, tag := s.ask("GET", door, "", "")
	n := 0
	for b.Loop() {
		b.StopTimer()
		n++
		_, tag = s.ask(
			"PATCH", door, tag,
			fmt.Sprintf(`[{"op": "replace", "path": "/readings/0/value", "value": %d.5}]`, 820+n%10),
		)
		b.StartTimer()
		status, _ := s.ask("GET", "/api/jobs/works", "", "")
		require.Equal(b, 200, status)
	}
}
