package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Readings that were written down on paper are entered one after the other: Tab keeps a line and goes to the next, a line
// that was not read stays empty, and what cannot be is said in its line.
func TestReadingsFromPaper(t *testing.T) {
	u := sit(t, "demo")
	u.another("tern-house", "Loft")
	u.click(`[data-field="from-paper"]`)
	u.until("the lines", `document.querySelectorAll('[data-paper] [data-line]').length >= 8`)
	u.do(chromedp.Focus(`[data-line="width 1800"] input`))
	u.keys("826", kb.Tab, "825.5", kb.Tab, kb.Tab, "2x", kb.Tab)
	u.until("what is no length is said", `document.querySelector('[data-line="height 50"] [role=alert]')`)
	u.do(chromedp.Focus(`[data-line="height 50"] input`))
	u.js(`(document.activeElement.select(), '')`)
	u.keys("2031.5", kb.Enter)
	u.until("three are kept", `document.querySelector('[data-line="width 1800"] input').value === '826' &&
		document.querySelector('[data-line="height 50"] input').dataset.field?.startsWith('/readings/')`)
	u.do(chromedp.Focus(`[data-line="width 100"] input`))
	u.keys("8x")
	u.click(`[data-paper-done]`)
	u.until("a line that is refused is not lost", `document.querySelector('[data-line="width 100"] [role=alert]')`)
	u.js(`(document.querySelector('[data-line="width 100"] input').select(), '')`)
	u.do(chromedp.Focus(`[data-line="width 100"] input`))
	u.keys(kb.Backspace)
	u.click(`[data-paper-done]`)
	u.until("they are listed", `document.querySelectorAll('[data-reading]').length === 3`)
	assert.Equal(t, "width 1800, width 1000, height 50", u.js(
		`[...document.querySelectorAll('[data-reading]')].map((e) => e.dataset.reading).join(', ')`))
}

// A place that is tapped in the drawing is asked for, and drawn as what is read next.
func TestAReadingIsTakenFromTheDrawing(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/chart/measure")
	u.until("places to tap", `document.querySelector('[data-tap="level head 750 50"]')`)
	u.js(`(document.querySelector('[data-tap="level head 750 50"]').dispatchEvent(new MouseEvent('click', { bubbles: true })), '')`)
	u.until("it is asked for", `document.querySelector('[data-asked] [data-next]').dataset.next === 'level head 750 50'`)
	u.until("what is minus is shown", `document.querySelector('[data-how="level"]')`)
	u.do(chromedp.Focus(`[data-field="next-reading"]`))
	u.keys("-1", kb.Enter)
	u.until("it is kept, and another asked for", `document.querySelector('[data-reading="level head 750 50"]') &&
		document.querySelector('[data-asked] [data-next]')?.dataset.next !== 'level head 750 50'`)
}

// The slab that is cut is stood against its opening where that is sooner done than reading on: one key, and its marks are
// asked for round it.
func TestTheSlabIsOfferedUp(t *testing.T) {
	u := sit(t, "serve")
	var house struct{ ID string }
	c := client{url: u.p.URL}
	_, err := c.send(t, "POST", "/api/jobs", "", `{"name": "Heron Cottage", "unit": "mm"}`, &house)
	require.NoError(t, err)
	_, err = c.send(t, "PATCH", "/api/jobs/"+house.ID, `"1"`, `{"kit": {"tools": [{"id": "t", "instrument": "tape"},
		{"id": "l", "instrument": "level"}, {"id": "s", "instrument": "square"}]}}`, &house)
	require.NoError(t, err)
	u.another(house.ID, "Loft")
	u.read(map[string]string{"width": "826"})
	u.read(map[string]string{"height": "2030"})
	u.until("with the slab at hand it would be sooner", `document.querySelector('[data-offer-later]')`)
	u.click("[data-step=slab]")
	u.until("what to buy", `document.querySelector('[data-stock]')`)
	u.pick("construction", "solid")
	u.until("which", `document.querySelector('[data-stock] strong')`)
	u.click(`[data-stock]:has(strong) button`)
	u.until("it is the slab", `document.querySelector('[data-field="/slab/width"]').value !== ''`)
	u.click("[data-step=measure]")
	u.click("[data-it-stands]")
	u.until("its marks are asked for", `document.querySelector('[data-asked] [data-next^="gap hinge"]')`)
	assert.Equal(t, "0", u.js(`String(document.querySelectorAll('[data-offer-up], [data-offer-later]').length)`))
}
