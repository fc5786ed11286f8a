package e2e

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/document"
)

// begins are the begins of a day's tasks, as its calendar has them.
func (u person) begins() map[string]time.Time {
	u.t.Helper()
	res, err := http.Get(u.js(`document.querySelector('[data-calendar]').href`))
	require.NoError(u.t, err)
	defer res.Body.Close()
	b, err := io.ReadAll(res.Body)
	require.NoError(u.t, err)
	c, err := ical.NewDecoder(strings.NewReader(string(b))).Decode()
	require.NoError(u.t, err, "%s", b)
	at := map[string]time.Time{}
	for _, e := range c.Events() {
		uid, err := e.Props.Text(ical.PropUID)
		require.NoError(u.t, err)
		begins, err := e.DateTimeStart(time.UTC)
		require.NoError(u.t, err)
		require.NotContains(u.t, at, uid)
		at[strings.TrimSuffix(uid, "@tern-house.kindmargin")] = begins
	}
	return at
}

// A day of six doors with a glue-up and two coats: it is planned once there are two for the heavy
// slabs, a task runs late and the rest moves, the calendar follows under the same names; what is
// ticked, struck out and put back holds after a reload; what cannot be is said.
func TestADayOfSixDoors(t *testing.T) {
	u := sit(t, "demo")
	// A Thursday, five to eight in the morning, by this client's clock.
	var zone int
	u.open("/")
	_, err := fmt.Sscan(u.js(`String(-new Date().getTimezoneOffset())`), &zone)
	require.NoError(t, err)
	now := time.Now().UTC().Add(time.Duration(zone) * time.Minute)
	days := (int(time.Thursday) - int(now.Weekday()) + 7) % 7
	morning := time.Date(now.Year(), now.Month(), now.Day()+days, 7, 55, 0, 0, time.UTC)
	u.clock(morning.Sub(now))
	thursday := morning.Format(time.DateOnly)

	// One of the demo's six is signed off: another is put on the walk, not measured yet.
	c := client{url: u.p.URL}
	var attic view
	_, err = c.send(t, "POST", "/api/jobs/tern-house/openings", "", `{"name": "Attic"}`, &attic)
	require.NoError(t, err)
	u.open("/j/tern-house")
	u.until("the walk", `document.querySelectorAll('[data-door]').length >= 7`)
	u.click(`[data-to-day]`)
	u.until("one plans it all, and is told once that two are safer", `document.querySelector('[data-now]') &&
		!document.querySelector('[data-problem], [data-held]') && document.querySelectorAll('[data-safer]').length === 1`)
	u.click(`[data-settings] summary`)
	u.click(`[data-another]`)
	u.until("it is planned", `!document.querySelector('[data-problem]') && document.querySelector('[data-now]')`)
	var walk struct {
		Openings []struct {
			ID     string
			Signed bool
		}
	}
	require.NoError(t, json.Unmarshal(u.get("/api/jobs/tern-house"), &walk))
	var six []string
	for _, d := range walk.Openings {
		if !d.Signed {
			six = append(six, d.ID)
		}
	}
	require.Len(t, six, 6)
	u.open("/day/tern-house?doors=" + six[0])
	u.until("one door, as it was chosen", fmt.Sprintf(
		`!location.search && document.querySelector('[data-now]') &&
			[...document.querySelectorAll('[data-task]')].every((e) => e.dataset.task.startsWith(%q))`,
		six[0]+"/",
	))
	u.open("/day/tern-house?openings=" + strings.Join(six, ","))
	u.until("the six", fmt.Sprintf(`!location.search && document.querySelector('[data-task^=%q]')`, six[5]+"/"))
	u.click(`[data-settings] summary`)
	u.do(chromedp.Focus(`[data-field="coats"]`))
	u.js(`(document.activeElement.select(), '')`)
	u.keys("2", kb.Tab)
	u.until("two coats each", `document.querySelectorAll('[data-task$="/coat-2"]').length === 6`)
	u.until("a glue-up", `document.querySelector('[data-task$="/insert"]')`)
	for _, id := range six {
		assert.Contains(
			t, u.js(`[...document.querySelectorAll('[data-task]')].map((e) => e.dataset.task).join(' ')`), id+"/",
		)
	}
	before := u.begins()

	// The first task is begun at eight and runs late.
	first := u.js(`document.querySelector('[data-now]').dataset.now`)
	assert.Equal(
		t, thursday+" 08:00", u.js(fmt.Sprintf(`document.querySelector('[data-task=%q]').dataset.from`, first)),
	)
	end := u.js(`document.querySelector('[data-end]').dataset.end`)
	u.click(fmt.Sprintf(`[data-now=%q] [data-begin]`, first))
	u.until("in hand", fmt.Sprintf(`document.querySelector('[data-now=%q]')?.innerText.includes('In hand')`, first))
	for n := range 4 {
		u.click(fmt.Sprintf(`[data-now=%q] [data-late]`, first))
		u.until(
			"late",
			fmt.Sprintf(`document.querySelector('[data-now=%q]')?.innerText.includes('%d min late')`, first, 15*(n+1)),
		)
	}
	after := u.begins()
	assert.Len(t, after, len(before), "nothing is doubled, nothing lost")
	moved := 0
	for id, was := range before {
		is, ok := after[id]
		require.True(t, ok, id)
		if !is.Equal(was) {
			moved++
		}
	}
	assert.Positive(t, moved, "the rest moves")
	assert.GreaterOrEqual(t, u.js(`document.querySelector('[data-end]').dataset.end`), end)

	u.click(fmt.Sprintf(`[data-now=%q] [data-done-now]`, first))
	u.until(
		"done",
		fmt.Sprintf(`!document.querySelector('[data-now=%q]') && document.querySelector('[data-done="1"]')`, first),
	)
	struck := u.js(`[...document.querySelectorAll('[data-day] [data-task$="/bores"]')][0].dataset.task`)
	u.click(fmt.Sprintf(`[data-strike=%q]`, struck))
	u.until("struck out", `document.querySelector('[data-done="2"]')`)
	u.open("/day/tern-house")
	u.until("it holds", `document.querySelector('[data-done="2"]')`)
	u.click(`[data-done] summary`)
	u.click(fmt.Sprintf(`[data-task=%q] [data-put-back]`, struck))
	u.until("put back", fmt.Sprintf(
		`document.querySelector('[data-done="1"]') && document.querySelector('[data-day] [data-task=%q]')`, struck,
	))

	// Another client sees it at once.
	second := u.js(`document.querySelector('[data-now]').dataset.now`)
	var v document.DayOf
	_, err = c.send(
		t, "POST", "/api/jobs/tern-house/day/marks?now="+thursday+"T08:20", "",
		fmt.Sprintf(`{"task": %q, "done": "%sT08:20"}`, second, thursday), &v,
	)
	require.NoError(t, err)
	u.until("ticked elsewhere", `document.querySelector('[data-done="2"]')`)

	u.click(`[data-settings] summary`)
	u.do(chromedp.Focus(`[data-field="coats"]`))
	u.js(`(document.activeElement.select(), '')`)
	u.keys("9", kb.Tab)
	u.until(
		"nine coats are refused",
		`[...document.querySelectorAll('[role=alert]')].some((e) => e.innerText.includes('0 to 4 coats of paint are possible, not 9.'))`,
	)
	assert.Equal(t, "6", u.js(`String(document.querySelectorAll('[data-task$="/coat-2"]').length)`))
}
