package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/thorough"
)

var views = []string{
	"/", "/j/tern-house", "/j/tern-house/chart/measure", "/j/tern-house/chart/slab", "/j/tern-house/chart/margins",
	"/j/tern-house/chart/cut", "/j/tern-house/chart/hinges", "/j/tern-house/galley/swing", "/j/tern-house/chart/lock",
	"/j/alder-cottage/pantry/measure",
	"/sharing", "/pair", "/kit/tern-house", "/load/tern-house", "/papers/tern-house", "/cards/tern-house/galley",
	"/rod/tern-house/chart", "/j/tern-house/saloon/margins",
	"/j/tern-house/linen/try", "/j/tern-house/saloon/try", "/cards/tern-house/linen?step=try",
	"/j/tern-house/boots/log", "/j/tern-house/chart/log",
	"/j/tern-house/linen/stops", "/j/tern-house/saloon/hinges", "/j/tern-house/saloon/swing",
	"/j/tern-house/saloon/lock",
	"/day/tern-house", "/practice", "/practice/opening/usual/7", "/practice/opening/usual/8",
	"/practice/opening/usual/9",
}

// What stands at a practice opening: a slab hangs in no. 8, and no. 9 is done.
const hangsThere = `{"do":"read","reading":{"kind":"width","at":"200 mm"}},{"do":"read","reading":{"kind":"height","at":"50 mm"}},{"do":"margins","school":"painted"},{"do":"slab","slab":4},{"do":"edge","edge":"keep-lock"},{"do":"cut","cut":{"head":"819 mm","foot":"819 mm","length":"2020 mm","headUp":0,"footUp":0}}`

// Every view, judged by axe-core against WCAG 2.2 A and AA on a desk by day; on a phone at night, by what
// its width and the other colours may spoil; in make thorough by the whole set, by day and night, on both.
func TestEveryViewAgainstAxe(t *testing.T) {
	axe, err := os.ReadFile(filepath.Join("..", "web", "node_modules", "axe-core", "axe.min.js"))
	require.NoError(t, err)
	for part := range 3 { // beside one another
		t.Run(fmt.Sprint(part), func(t *testing.T) {
			u := sit(t, "demo")
			views := slices.Concat(views, []string{"/j/tern-house/" + u.dayAndFrame() + "/measure"})
			u.do(chromedp.Navigate(u.p.URL + "/icon.svg"))
			u.js(fmt.Sprintf(`(sessionStorage.setItem('play usual 8', %q), sessionStorage.setItem('play usual 9', %q), '')`,
				"["+hangsThere+"]", "["+hangsThere+`,{"do":"done"}]`))
			for i := part; i < len(views); i += 3 {
				u.do(chromedp.EmulateViewport(1280, 800))
				u.open(views[i])
				u.until(
					"the page is whole",
					`document.fonts.status === 'loaded' && !document.querySelector('p[role=status].p-6')`,
				)
				u.js(`(document.querySelector('[data-choosing]')?.click(), document.querySelector('[data-narrow]')?.click(), ` +
					`document.querySelectorAll('main details').forEach((d) => { d.open = true; }), '')`)
				u.js(string(axe) + `;''`)
				u.judged(views[i]+", on a desk", whole)
				if thorough.On() {
					u.theme("night")
					u.judged(views[i]+", on a desk at night", whole)
					u.do(chromedp.EmulateViewport(390, 844))
					u.judged(views[i]+", on a phone at night", whole)
					u.theme("day")
					u.judged(views[i]+", on a phone", whole)
					continue
				}
				u.do(chromedp.EmulateViewport(390, 844))
				u.theme("night")
				u.judged(views[i]+", on a phone at night", narrow)
			}
		})
	}
}

// What axe runs: its whole set; what a narrow page and other colours may spoil.
const (
	whole = `{
		runOnly: { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] },
		rules: { 'target-size': { enabled: true }, 'label-content-name-mismatch': { enabled: true } },
	}`
	narrow = `{
		runOnly: ['color-contrast', 'link-in-text-block', 'target-size', 'scrollable-region-focusable'],
		rules: { 'target-size': { enabled: true } },
	}`
)

// dayAndFrame makes a day for two, and a door whose frame is made to its slab; it returns the door's ID.
func (u person) dayAndFrame() string {
	u.t.Helper()
	c := client{url: u.p.URL}
	var v view
	tag, err := c.send(u.t, "POST", "/api/jobs/tern-house/openings", "", `{"name": "Ice pantry"}`, &v)
	require.NoError(u.t, err)
	_, err = c.send(u.t, "PATCH", "/api/jobs/tern-house/openings/"+v.Opening.ID, tag, `[
		{"op": "add", "path": "/measuring", "value": "frame"},
		{"op": "add", "path": "/slab", "value": {"width": 762, "length": 1981, "thickness": 35}},
		{"op": "add", "path": "/lining", "value": {
			"thick": 28, "wall": [124, 125, 128, 124, 124, 126], "width": [841, 843, 838], "height": [2042, 2040]}}
	]`, &v)
	require.NoError(u.t, err)
	var day any
	_, err = c.send(u.t, "PUT", "/api/jobs/tern-house/day", `"0"`, `{"date": "2026-11-26", "openings": [],
		"carpenters": [{"name": "Wren", "from": 480, "to": 1020}, {"name": "", "from": 480, "to": 720}],
		"own": [{"id": "a", "name": "Sweep", "minutes": 10, "place": "outside"}]}`, &day)
	require.NoError(u.t, err)
	return v.Opening.ID
}

// theme puts the page by day or by night, as it is when a night is kept.
func (u person) theme(name string) {
	u.t.Helper()
	u.js(fmt.Sprintf(`(document.documentElement.dataset.theme = %q, '')`, name))
}

// judged runs axe with some options over the page as it stands.
func (u person) judged(where, options string) {
	u.t.Helper()
	u.js(`(window.found = null, axe.run(document, Object.assign(` + options + `, { resultTypes: ['violations'] }))
		.then((r) => r.violations.map((v) => ({
			id: v.id, nodes: v.nodes.length,
			first: v.nodes[0].html.slice(0, 200), why: v.nodes[0].failureSummary.slice(0, 300),
		})), (e) => [{ id: 'axe itself', first: String(e) }])
		.then((found) => { window.found = JSON.stringify(found); }), '')`)
	u.until("axe is done", `window.found !== null`)
	var found []struct {
		ID, First, Why string
		Nodes          int
	}
	require.NoError(u.t, json.Unmarshal([]byte(u.js(`window.found`)), &found))
	for _, f := range found {
		assert.Fail(u.t, f.ID, "%s: %d nodes, such as %s\n%s", where, f.Nodes, f.First, f.Why)
	}
}

func (u person) alt(key string) {
	u.t.Helper()
	u.do(chromedp.KeyEvent(key, chromedp.KeyModifiers(chromedp.ModifierAlt)))
}

// notLost waits until the focus is on something of the page.
func (u person) notLost(after string) {
	u.t.Helper()
	u.until("the focus is not lost after "+after, `document.activeElement && document.activeElement !== document.body`)
}

// Whatever takes away what had the focus, the focus stays in the page, and each
// thing that a pointer can do has its key.
func TestByKeyboardAlone(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/chart/slab")
	u.press("3")
	u.until("Margins, by its key", `location.pathname.endsWith('/margins')`)
	u.notLost("a step")
	u.do(chromedp.Focus(`[data-undo]`))
	u.press("w")
	assert.Contains(t, u.js(`location.pathname`), "/margins", "a letter on a button is the button's")

	u.open("/j/tern-house/chart/measure")
	u.do(chromedp.Focus(`[data-strike]`))
	u.keys(kb.Enter)
	u.focused("strike-why")
	u.keys(kb.Enter)
	u.until("it is struck out, by keyboard", `document.querySelector('[data-struck]')`)
	u.notLost("striking out")
	u.ctrl("z")
	u.until("and taken back", `!document.querySelector('[data-struck]')`)
	u.notLost("an undo")
	before := u.js(`String(document.querySelectorAll('[data-reading]').length)`)
	u.do(chromedp.Focus(`[data-strike]`))
	u.keys(kb.Enter)
	u.until("the form", `document.querySelector('[data-remove]')`)
	u.do(chromedp.Focus(`[data-remove]`))
	u.keys(kb.Enter)
	u.until("it is gone", fmt.Sprintf(`document.querySelectorAll('[data-reading]').length < %s`, before))
	u.notLost("a removal")

	// Single keys can be switched off.
	u.do(chromedp.Focus(`[data-keys]`))
	u.keys(kb.Enter)
	u.until("the sheet", `document.querySelector('dialog[open] [data-field="single-keys"]')`)
	u.do(chromedp.Focus(`[data-field="single-keys"]`))
	u.keys(" ", kb.Escape)
	u.until("the sheet is closed", `!document.querySelector('dialog[open]')`)
	u.js(`(document.querySelector('[data-home]').focus(), '')`)
	u.press("w")
	assert.Contains(t, u.js(`location.pathname`), "/measure")
	u.js(`(localStorage.removeItem('single keys off'), '')`)
	u.press("w")
	u.until("the walk", `location.pathname === '/j/tern-house'`)
}

// A slip in a reading stops everything: it is said where the hand is, spoken,
// and settled by one key; past Measure the figures are doubtful and the plan
// without the reading stands beside them.
func TestAClashIsSeenWhereTheHandIs(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/chart/measure")
	u.retype("/readings/1/value", "838")
	u.until("it is said", `document.querySelector('[data-clash=r2] [data-settle]')`)
	u.until(
		"and spoken",
		`document.querySelector('[data-spoken]').innerText.startsWith('Stop: The width, 1000 mm up reads 838 mm')`,
	)
	u.until(
		"within sight",
		`(() => { const b = document.querySelector('[data-clash]').getBoundingClientRect(); return b.top >= 0 &&
			b.bottom <= innerHeight; })()`,
	)
	u.alt("r")
	u.focused("/readings/1/value")

	u.open("/j/tern-house/chart/cut")
	u.until("the figures are doubtful", `document.querySelector('[data-figure^=cut-][data-doubtful]')`)
	u.until("no chalk line is drawn", `!document.querySelector('[data-view=chalk]')`)
	u.until("it cannot be finished", `document.querySelector('[data-onward][aria-disabled=true]')`)
	u.until(
		"the plan without it stands there",
		`document.querySelector('[data-without=r2]')?.innerText.includes('comes off')`,
	)
	u.do(chromedp.Focus(`[data-without=r2] [data-settle]`))
	u.keys(kb.Enter)
	u.until(
		"it is taken", `!document.querySelector('[data-doubtful]') && document.querySelector('[data-figure^=cut-]')`,
	)
	u.notLost("settling it")
	u.ctrl("z")
	u.until("the doubt is back", `document.querySelector('[data-doubtful]')`)
	u.alt("x")
	u.until(
		"and settled by one key",
		`!document.querySelector('[data-doubtful]') && document.querySelector('[data-figure^=cut-]')`,
	)
}

// What is typed for one reading is that reading's own; a second click takes
// nothing more away; a door and a job that were taken off come back.
func TestNothingIsLostOnTheScreen(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/alder-cottage/pantry/measure")
	u.js(`(document.querySelector('[data-field="other-reading"]').click(), '')`)
	u.do(chromedp.WaitVisible(`[data-field="next-reading"]`), chromedp.Focus(`[data-field="next-reading"]`))
	u.keys("30 5/8")
	u.do(chromedp.SetValue(`[data-field="other-kind"]`, "height"))
	u.js(
		`(document.querySelector('[data-field="other-kind"]').dispatchEvent(new Event('change', {bubbles: true})), '')`,
	)
	u.until("the next reading's entry is empty", `document.querySelector('[data-field="next-reading"]').value === ''`)

	u.open("/j/tern-house/linen/measure")
	count := `document.querySelectorAll('[data-reading]').length`
	before := u.js(`String(` + count + `)`)
	u.do(chromedp.Focus(`[data-strike]`))
	u.keys(kb.Enter)
	u.until("the form", `document.querySelector('[data-remove]')`)
	u.js(`(document.querySelector('[data-remove]').click(), document.querySelector('[data-remove]').click(), '')`)
	u.until("one is gone", fmt.Sprintf(`%s === %s - 1`, count, before))
	u.open("/j/tern-house/linen/measure")
	u.until("and only one", fmt.Sprintf(`%s === %s - 1`, count, before))

	u.open("/j/tern-house")
	u.until("the walk", `document.querySelector('[data-take-off=linen]')`)
	u.js(`(document.querySelector('[data-take-off=linen]').click(), '')`)
	u.until("it is off the walk", `!document.querySelector('[data-door=linen]')`)
	u.open("/j/tern-house") // the page was left
	u.until("what was taken off", `document.querySelector('[data-taken-off]')`)
	u.js(`(document.querySelector('[data-taken-off]').open = true, '')`)
	u.do(chromedp.Focus(`[data-put-back=linen]`))
	u.keys(kb.Enter)
	u.until("it is back in its place", `document.querySelector('[data-door]')?.dataset.door === 'linen'`)

	u.open("/")
	u.until("the jobs", `document.querySelector('main li button')`)
	u.js(`([...document.querySelectorAll('main li button')][0].click(), '')`)
	u.until("the job is off", `document.querySelector('[data-put-back=tern-house]')`)
	u.js(
		`(document.querySelector('[data-taken-off]').open = true, document.querySelector('[data-put-back=tern-house]').click(), '')`,
	)
	u.until("and back", `document.querySelector('a[href="/j/tern-house"]')`)
}

// On a phone an entry shows what was typed, whole.
func TestEntriesAreNotClippedOnAPhone(t *testing.T) {
	u := sit(t, "demo")
	u.do(chromedp.EmulateViewport(390, 844, chromedp.EmulateMobile))
	for _, view := range []string{
		"/j/alder-cottage/pantry/measure", "/j/alder-cottage/pantry/slab", "/j/alder-cottage/pantry/hinges",
		"/j/tern-house/chart/measure", "/j/tern-house/chart/hinges",
	} {
		u.open(view)
		clipped := u.js(
			`[...document.querySelectorAll('[data-tape]')].filter((e) => e.checkVisibility() &&
				e.scrollWidth > e.clientWidth + 1).map((e) => e.dataset.field + '=' + e.value).join(', ')`,
		)
		assert.Empty(t, clipped, view)
	}
}

// In forced colours the drawing keeps its own light and shade, and its figures
// with them; at four times the size the work comes first, not rod and drawing.
func TestForcedColoursAndAFourfoldZoom(t *testing.T) {
	u := sit(t, "demo")
	u.do(func(ctx context.Context, tab *chromedp.Target) (chromedp.Void, error) {
		features := []*emulation.MediaFeature{{Name: "forced-colors", Value: "active"}}
		_, err := cdp.Call(ctx, tab, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Features: features})
		return chromedp.Void{}, err
	})
	u.open("/j/tern-house/chart/margins")
	assert.Equal(t, "none", u.js(`getComputedStyle(document.querySelector('.drawn')).forcedColorAdjust`))
	u.do(chromedp.EmulateViewport(320, 256))
	u.until("the panel is within the first screen", `document.querySelector('main').getBoundingClientRect().top < 100`)
	assert.Equal(t, "true", u.js(
		`String(document.querySelector('.drawn').getBoundingClientRect().top > document.querySelector('main').getBoundingClientRect().top)`,
	))
	assert.Equal(t, "true", u.js(`String(document.documentElement.scrollWidth <= 320)`), "nothing scrolls two ways")
}
