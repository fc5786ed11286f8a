package e2e

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/thorough"
)

// house is a house of so many old openings, thirty readings each.
func house(doors int) job.Job {
	mm := measure.FromMM
	j := job.NewJob("works", "Works", measure.Millimetres)
	for n := range doors {
		o := job.NewOpening(fmt.Sprintf("d%d", n), fmt.Sprintf("Door %d", n+1), measure.Millimetres)
		o.Room = []string{"Hall", "Landing", "Cellar", "Attic"}[n%4]
		o.Slab = slab.Slab{Width: mm(838), Length: mm(2040), Thickness: mm(40), Construction: "planked"}
		for i := range 30 {
			r := survey.Reading{
				ID: fmt.Sprintf("r%d", i), Kind: survey.Width, At: mm(float64(200 + 60*i)),
				Value: mm(826 + float64((i+n)%3)/2),
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
		j.Openings = append(j.Openings, o)
	}
	return j
}

// like is how many openings a search finds: those in whose name, room or size all of its words stand.
func like(openings []job.Opening, search string) (n int) {
	for _, o := range openings {
		text := strings.ToLower(o.Name + " " + o.Room + " 838 × 2040")
		if !slices.ContainsFunc(strings.Fields(strings.ToLower(search)), func(w string) bool {
			return !strings.Contains(text, w)
		}) {
			n++
		}
	}
	return n
}

// timed asks for an address and gives how long the whole answer took.
func timed(t *testing.T, url string) (took time.Duration, body []byte) {
	t.Helper()
	start := time.Now()
	res, err := http.Get(url)
	require.NoError(t, err)
	defer res.Body.Close()
	body, err = io.ReadAll(res.Body)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, res.StatusCode, string(body))
	return time.Since(start), body
}

// resident is a program's memory in MB, and the most that it ever was.
func resident(t *testing.T, pid int) (now, most float64) {
	b, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
	require.NoError(t, err)
	for _, line := range strings.Split(string(b), "\n") {
		f := strings.Fields(line)
		if len(f) < 2 || f[0] != "VmRSS:" && f[0] != "VmHWM:" {
			continue
		}
		kb, err := strconv.ParseFloat(f[1], 64)
		require.NoError(t, err)
		if f[0] == "VmRSS:" {
			now = kb / 1024
		} else {
			most = kb / 1024
		}
	}
	return now, most
}

// The list of a thousand doors, or of a fifth: its first answer from a program that was just started, and again; the
// list in the browser, and a search. make thousand prints the figures, the best of three, since the machine has other
// work.
func TestAThousandDoors(t *testing.T) {
	t.Parallel()
	doors, times := thorough.Count(200, 1000), thorough.Count(1, 3)
	works := house(doors)
	data := filepath.Join(t.TempDir(), "thousand.db")
	file, err := job.Encode(works)
	require.NoError(t, err)
	p, err := Start(t.Context(), bin, "serve", data)
	require.NoError(t, err)
	res, err := http.Post(p.URL+"/api/jobs/file", "application/json", strings.NewReader(string(file)))
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, res.StatusCode)
	require.NoError(t, res.Body.Close())
	var cold, warm, whole, paint, search []time.Duration
	var now, most float64
	for range times {
		require.NoError(t, p.Stop())
		p, err = Start(t.Context(), bin, "serve", data)
		require.NoError(t, err)
		start := time.Now()
		took, body := timed(t, p.URL+"/api/jobs/works")
		cold = append(cold, took)
		for {
			var w struct {
				Working  int
				Openings []struct{ Name string }
			}
			require.NoError(t, json.Unmarshal(body, &w))
			require.Len(t, w.Openings, doors, "every door is in every answer")
			if w.Working == 0 {
				break
			}
			_, body = timed(t, p.URL+"/api/jobs/works")
		}
		whole = append(whole, time.Since(start))
		for range 5 {
			took, _ := timed(t, p.URL+"/api/jobs/works")
			warm = append(warm, took)
		}
	}
	t.Cleanup(func() { _ = p.Stop() })
	u := at(t, p)
	// When the first doors of the list were painted, since the address was entered.
	u.before(`new MutationObserver((_, me) => {
		if (!document.querySelector('[data-door]')) return;
		me.disconnect();
		requestAnimationFrame(() => requestAnimationFrame(() => { window.painted_ = performance.now(); }));
	}).observe(document, { childList: true, subtree: true })`)
	for range times {
		u.do(chromedp.Navigate(p.URL + "/j/works"))
		u.until("the list is painted", `window.painted_`)
		paint = append(paint, u.took(`window.painted_`))
	}
	u.until("only what is seen is drawn", `document.querySelector('[data-list]').dataset.list === '`+
		strconv.Itoa(doors)+`' && document.querySelectorAll('[data-door]').length < 40`)
	u.until("its light too", `document.querySelector('[data-door] svg[role=img]')`)
	for _, word := range []string{"Door 77", "cellar", fmt.Sprint("attic door ", doors-1)} {
		search = append(search, u.took(fmt.Sprintf(`(async () => {
			const box = document.querySelector('[data-field=search]');
			Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(box, %q);
			const before = document.querySelector('[data-list]').dataset.list;
			const start = performance.now();
			box.dispatchEvent(new Event('input', { bubbles: true }));
			while (document.querySelector('[data-list]').dataset.list === before) await new Promise((r) => requestAnimationFrame(r));
			return performance.now() - start;
		})()`, word)))
		u.until(
			word+" is found",
			fmt.Sprintf(`document.querySelector('[data-list]').dataset.list === '%d'`, like(works.Openings, word)),
		)
	}
	now, most = resident(t, p.PID())
	t.Logf("list of %d doors: first answer %v, all plans %v, again %v; list painted %v; search %v; server %.0f MB, "+
		"%.0f at most",
		doors, slices.Min(cold), slices.Min(whole), slices.Min(warm), slices.Min(paint), slices.Min(search), now, most)
	assert.Less(t, most, 100.0)
	papersOfAll(u, doors)
}

// What takes a while of many doors says how far it is, can be stopped, and comes; a list on a page likewise.
func papersOfAll(u person, doors int) {
	u.do(chromedp.Navigate(u.p.URL+"/papers/works"), chromedp.WaitVisible("[data-paper=book]"))
	for stopped := false; !stopped; { // a machine that stood still meanwhile may have made it by then
		u.click("[data-paper=book]")
		u.until(
			"it says how far it is",
			`/^[1-9][0-9]? %$/.test(document.querySelector('[data-on-paper] [data-made]')?.innerText)`,
		)
		u.js(`(document.querySelector('[data-on-paper] [data-stop]')?.click(), '')`)
		u.until(
			"it is stopped, and says so, or made",
			`document.querySelector('[data-on-paper] [role=status]')?.innerText === 'Stopped.' ||
				document.querySelector('[data-made-file]')`,
		)
		stopped = u.js(`document.querySelector('[data-on-paper] [role=status]')?.innerText ?? ''`) == "Stopped."
	}
	u.click("[data-table=slabs]")
	u.until("it is made", `document.querySelector('[data-made-file]')`)
	csv := string(u.get(u.js(`document.querySelector('[data-made-file]').getAttribute('href')`)))
	assert.Contains(u.t, csv, fmt.Sprintf("838 × 2040 × 40 mm\",%d,\"Door 1, Door 2,", doors))
	assert.Contains(u.t, csv, fmt.Sprintf("Door 60 and %d more", doors-60))
	u.do(chromedp.Navigate(u.p.URL + "/load/works"))
	u.until(
		"what to load for all",
		`document.querySelector('[data-load-for]')?.innerText.startsWith('For all `+strconv.Itoa(doors)+` doors')`,
	)
}

// took is what a piece of script says that it took, in ms.
func (u person) took(js string) time.Duration {
	u.t.Helper()
	u.js(`(window.took_ = null, Promise.resolve(` + js + `).then((v) => { window.took_ = v }), '')`)
	u.until("it was timed", `window.took_ !== null`)
	ms, err := strconv.ParseFloat(u.js(`String(window.took_)`), 64)
	require.NoError(u.t, err)
	return time.Duration(ms * float64(time.Millisecond))
}
