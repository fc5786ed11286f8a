package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/survey"
	"kindmargin/thorough"
)

// How long a reading takes from Enter to the figure painted, with thirty readings, and what it is made of: to the request,
// the answer, its size, and the paint. Figures for the log; they are to be under 40 ms at the median on a quiet machine.
func TestFromEnterToPainted(t *testing.T) {
	u := sit(t, "serve")
	u.opens(job.NewJob("speed", "Speed", measure.Millimetres), read30())
	u.open("/j/speed/door/measure")
	u.until("the readings", `document.querySelector('[data-field="/readings/0/value"]')`)
	u.timesEnter(`[data-field="/readings/0/value"]`, func(i int) string { return fmt.Sprintf("82%d.5", i%10) }, nil)
}

// The last of sixteen gaps of a hung slab: from Enter until the way that follows from it is painted.
func TestFromEnterToPaintedOnTry(t *testing.T) {
	u := sit(t, "serve")
	j, o := job.NewJob("speed", "Speed", measure.Millimetres), read30()
	o.Tried = []job.Tried{{Made: plan.Solve(j, o).Leaves[0].Try.Planned, Hangs: []job.Hang{{ID: "h"}}}}
	gaps := plan.Solve(j, o).Leaves[0].Try.ToRead
	for i, g := range gaps[:len(gaps)-1] {
		r := g.Reading
		r.ID, r.Value = fmt.Sprint("g", i), measure.FromMM(3+float64(i%3)/2)
		o.Tried[0].Hangs[0].Gaps = append(o.Tried[0].Hangs[0].Gaps, r)
	}
	u.opens(j, o)
	u.open("/j/speed/door/try")
	asked := `document.querySelector('[data-field="next-gap"]')?.value === '' && !document.querySelector('[data-enough]')`
	u.until("the last gap is asked for", asked)
	u.timesEnter(`[data-field="next-gap"]`, func(i int) string { return fmt.Sprintf("2.%d5", i%10) }, func() {
		u.ctrl("z")
		u.until("it is asked for again", asked)
	})
}

// read30 is an opening with thirty readings and its slab.
func read30() job.Opening {
	o := job.NewOpening("door", "Door", measure.Millimetres)
	for i := range 30 {
		r := survey.Reading{
			ID: fmt.Sprint("r", i), Kind: survey.Width, At: measure.FromMM(float64(100 + 60*i)), Value: measure.FromMM(826),
		}
		if i%3 == 1 {
			r.Kind, r.At, r.Value = survey.Height, measure.FromMM(float64(50+20*i)), measure.FromMM(2032)
		}
		o.Readings = append(o.Readings, r)
	}
	o.Slab.Width, o.Slab.Length, o.Slab.Thickness = measure.FromMM(838), measure.FromMM(2040), measure.FromMM(40)
	return o
}

// opens puts an opening into a new job.
func (u person) opens(j job.Job, o job.Opening) {
	u.t.Helper()
	j.Openings = append(j.Openings, o)
	file, err := job.Encode(j)
	require.NoError(u.t, err)
	res, err := http.Post(u.p.URL+"/api/jobs/file", "application/json", strings.NewReader(string(file)))
	require.NoError(u.t, err)
	require.Equal(u.t, http.StatusOK, res.StatusCode)
	require.NoError(u.t, res.Body.Close())
}

// timesEnter types values into an entry, and logs how long it takes from Enter until the answer is painted; after, if
// any, makes way for the next value.
func (u person) timesEnter(entry string, value func(i int) string, after func()) {
	u.t.Helper()
	u.js(`(() => {
		document.addEventListener('keydown', (e) => { if (e.key === 'Enter') window.from_ = performance.now(); }, true);
		window.took_ = [];
		window.paints_ = (value) => {
			window.painted_ = 0;
			const seen = () => {
				const shown = [...document.querySelectorAll('[data-undo]')].some((e) => e.title.includes(value));
				if (!shown) return requestAnimationFrame(seen);
				// A message that a frame posts is delivered once the frame is laid out and painted.
				const { port1, port2 } = new MessageChannel();
				port1.onmessage = () => { window.painted_ = performance.now(); };
				port2.postMessage('');
			};
			requestAnimationFrame(seen);
		};
		return '';
	})()`)
	for i := range thorough.Count(6, 30) {
		value := value(i)
		u.do(chromedp.Focus(entry))
		u.js(fmt.Sprintf(`(document.activeElement.select(), performance.clearResourceTimings(), window.paints_(%q), '')`, value))
		u.keys(value, "\r")
		u.until("painted", `window.painted_`)
		u.js(`(() => {
			const r = performance.getEntriesByType('resource').find((e) => e.name.includes('/openings/door'));
			window.took_.push({
				request: r.startTime - window.from_, answer: r.responseEnd - r.startTime, kB: r.encodedBodySize / 1024,
				paint: window.painted_ - r.responseEnd, all: window.painted_ - window.from_,
			});
			return '';
		})()`)
		if after != nil {
			after()
		}
	}
	var took []map[string]float64
	require.NoError(u.t, json.Unmarshal([]byte(u.js(`JSON.stringify(window.took_)`)), &took))
	at := func(part string, share float64) float64 {
		list := make([]float64, len(took))
		for i, x := range took {
			list[i] = x[part]
		}
		return quantile(list, share)
	}
	u.t.Logf("from Enter to painted: %.0f ms, 95 in 100 under %.0f: to the request %.1f, the answer %.0f (%.0f kB), the paint %.0f",
		at("all", 0.5), at("all", 0.95), at("request", 0.5), at("answer", 0.5), at("kB", 0.5), at("paint", 0.5))
}
