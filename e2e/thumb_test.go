package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// thumb is a person with a phone in one hand: what is tapped must be in sight, and each tap counts.
type thumb struct {
	person
	taps *int
}

// byThumb is a person at a phone of a size, in CSS pixels.
func byThumb(u person, width, height int64) thumb {
	u.do(chromedp.EmulateViewport(width, height, chromedp.EmulateMobile, chromedp.EmulateTouch))
	return thumb{u, new(int)}
}

// tap touches what an expression of JavaScript finds, where it is: nothing scrolls for it, and nothing may lie over it.
func (u thumb) tap(js string) {
	u.t.Helper()
	u.until(js, js)
	u.until(js+" can be touched", `((e) => { const r = e.getBoundingClientRect();
		return e.contains(document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2)); })(`+js+`)`)
	for range 5 { // a page that is drawn anew meanwhile moves it from under the thumb
		var at struct{ X, Y float64 }
		require.NoError(u.t, json.Unmarshal([]byte(u.js(`((e) => { const r = e.getBoundingClientRect();
			window.touched_ = window.missed_ = false;
			document.addEventListener('click', (d) => { window[e.contains(d.target) ? 'touched_' : 'missed_'] = true; }, { capture: true, once: true });
			return JSON.stringify({ x: r.x + r.width / 2, y: r.y + r.height / 2 }); })(`+js+`)`)), &at))
		u.do(chromedp.TapXY(at.X, at.Y))
		// The browser makes the click of a touch a moment later, where the finger was. A page that was left knows of none.
		u.until("a click of "+js, `window.touched_ !== false || window.missed_`)
		missed, err := chromedp.Run(u.ctx, chromedp.Evaluate[bool](`window.touched_ === false && !!(`+js+`)`))
		if err != nil || !missed {
			*u.taps++
			return
		}
	}
	require.Fail(u.t, "could not be touched", js)
}

// sel taps what a selector finds, which a swipe brings into sight; what is drawn above it meanwhile may move it out again.
func (u thumb) sel(sel string) {
	u.t.Helper()
	u.tap(fmt.Sprintf(
		`((e) => (e?.scrollIntoView({ block: 'center', behavior: 'instant' }), e))(document.querySelector(%q))`, sel,
	))
}

// types a length on the tape keypad: each digit is a key, and each sixteenth.
func (u thumb) types(length string) (keys int) {
	u.t.Helper()
	key := func(k string) {
		u.tap(fmt.Sprintf(`[...document.querySelectorAll('[data-pad] button')].find((b) => b.textContent === %q)`, k))
		keys++
	}
	whole, fraction, _ := strings.Cut(length, " ")
	for _, r := range strings.ReplaceAll(whole, "-", "−") {
		key(string(r))
	}
	if fraction != "" {
		key(fraction)
	}
	return keys
}

const enterKey = `[...document.querySelectorAll('[data-pad] button')].find((b) => b.textContent === 'Enter')`

// inSight is whether something is whole on the screen, above the keypad and below the head of the page.
const inSight = `((e) => { const r = e.getBoundingClientRect(), pad = document.querySelector('[data-pad]').getBoundingClientRect();
	return r.top >= document.querySelector('header').getBoundingClientRect().bottom - 1 && r.bottom <= pad.top + 1; })`

// A door by thumb, in inches, from an empty program to what comes off, on a large and on a small phone: the keypad stays
// from one reading to the next, what is asked and its entry stand above it, and a reading takes its digits and Enter.
func TestADoorByThumb(t *testing.T) {
	for _, size := range [][2]int64{{390, 844}, {360, 640}} {
		t.Run(fmt.Sprint(size[0], "x", size[1]), func(t *testing.T) {
			u := sit(t, "serve")
			p := byThumb(u, size[0], size[1])
			u.open("/")
			p.sel(`[data-field="job-name"]`)
			u.keys("Heron Cottage")
			p.sel(`label:has([data-field="job-in"])`)
			p.sel(`form:has([data-field="job-name"]) button`)
			u.until("the walk", `document.querySelector('[data-field="opening-name"]')`)
			p.sel(`[data-field="opening-name"]`)
			u.keys("Scullery")
			p.sel(`form:has([data-field="opening-name"]) button`)
			u.until("the first reading", `document.querySelector('[data-next]')`)
			values := map[string]string{
				"width": "30 1/8", "height": "80 1/4", "plumb": "0", "level": "0", "square": "0", "straight": "0",
				"diagonal": "85 11/16",
			}
			p.sel(`[data-field="next-reading"]`)
			keys, readings := 0, 0
			before := *p.taps
			for range 40 {
				u.until("asked or enough", `document.querySelector('[data-enough]') || document.querySelector('[data-next]')`)
				if u.js(`document.querySelector('[data-enough]') ? 'enough' : ''`) != "" {
					break
				}
				name := u.js(`document.querySelector('[data-next]').dataset.next`)
				u.until("the keypad is for "+name, `document.querySelector('[data-pad]') && document.activeElement?.dataset.field === 'next-reading'`)
				u.until(name+" and its entry are in sight", inSight+`(document.querySelector('[data-next]')) && `+
					inSight+`(document.querySelector('[data-field="next-reading"]'))`)
				for start, v := range values {
					if strings.HasPrefix(name, start) {
						keys += p.types(v)
					}
				}
				p.tap(enterKey)
				readings++
				u.until(name+" is kept", fmt.Sprintf(
					`document.querySelector('[data-reading=%q]') && document.querySelector('[data-next]')?.dataset.next !== %q`, name, name,
				))
			}
			assert.GreaterOrEqual(t, readings, 6)
			assert.Equal(t, readings, *p.taps-before-keys, "a reading takes Enter besides its digits, and nothing else")
			u.until("nothing is asked, and the keypad is gone", `!document.querySelector('[data-pad]')`)
			p.sel(`[data-onward]`)
			u.until("the slab", `document.querySelector('main h1').dataset.at === 'slab' && document.querySelector('[data-stock]')`)
			u.pick("construction", "solid")
			*p.taps += 2 // the entry, and a line of the list that the phone itself opens
			u.until("what to buy", `document.querySelector('[data-stock] strong')`)
			p.sel(`[data-stock]:has(strong) button`)
			u.until("it is the slab", `document.querySelector('[data-field="/slab/width"]').value !== '' && document.querySelector('[data-onward][aria-disabled=false]')`)
			p.sel(`[data-onward]`)
			u.until("the margins", `document.querySelector('main h1').dataset.at === 'margins' && document.querySelector('[data-onward][aria-disabled=false]')`)
			p.sel(`[data-onward]`)
			u.until("what comes off", `document.querySelector('main h1').dataset.at === 'cut' && document.querySelector('[data-figure^="cut-"]')`)
			t.Logf("%d readings; %d taps, of which %d are the readings' digits", readings, *p.taps, keys)
		})
	}
}

// There is one keypad, for the entry that was tapped last; its own button closes it, and so does leaving.
func TestOneKeypad(t *testing.T) {
	u := sit(t, "demo")
	p := byThumb(u, 390, 844)
	u.open("/j/alder-cottage/pantry/slab")
	pads := func(n int, field string) {
		u.until(fmt.Sprintf("%d keypads, for %s", n, field), fmt.Sprintf(
			`document.querySelectorAll('[data-pad]').length === %d && (%d === 0 || document.activeElement?.dataset.field === %q)`,
			n, n, field,
		))
	}
	for _, field := range []string{"/slab/width", "/slab/length", "/slab/thickness"} {
		p.sel(fmt.Sprintf(`[data-field=%q]`, field))
		pads(1, field)
	}
	p.tap(`document.querySelector('[data-close-keypad]')`)
	pads(0, "")
	p.sel(`[data-field="/slab/thickness"]`)
	pads(1, "/slab/thickness")
	for range len("1 3/8") {
		p.tap(`[...document.querySelectorAll('[data-pad] button')].find((b) => b.textContent === '⌫')`)
	}
	p.types("1 1/2")
	p.tap(enterKey)
	u.until("it is kept", `document.querySelector('[data-field="/slab/thickness"]').value === '1 1/2'`)
	pads(0, "") // the focus went on to the step's end
	p.sel(`[data-field="/slab/width"]`)
	pads(1, "/slab/width")
	p.tap(`document.querySelector('header nav a')`)
	u.until("the walk", `document.querySelector('[data-door]')`)
	pads(0, "")
}

// On a phone each figure of a drawing is at least 14 px high, and each other text of it 12 (common practice for what is
// read at arm's length), whatever the drawing is scaled by.
func TestDrawingsAreLegibleOnAPhone(t *testing.T) {
	u := sit(t, "demo")
	byThumb(u, 390, 844)
	for _, door := range []string{"/j/tern-house/linen/", "/j/tern-house/saloon/", "/j/alder-cottage/pantry/"} {
		for _, step := range []string{"measure", "slab", "margins", "cut", "hinges", "swing", "lock", "try", "stops"} {
			u.open(door + step)
			u.until(step, fmt.Sprintf(`document.querySelector('main h1')?.dataset.at === %q && document.querySelector('.drawn svg')`, step))
			u.until("its texts are legible at "+door+step, `[...document.querySelectorAll('svg[role=img] text')].every((e) => {
				const px = parseFloat(getComputedStyle(e).fontSize) * Math.abs(e.getScreenCTM().d || e.getScreenCTM().b);
				return px >= (/^\d/.test(e.textContent) && !/[a-z]/.test(e.textContent) ? 13.9 : 11.9); })`)
		}
	}
}

// What a thumb works is 44 px each way (WCAG 2.2, 2.5.5, from memory), and no text is cut off in its height.
func TestTargetsForAThumb(t *testing.T) {
	u := sit(t, "demo")
	byThumb(u, 390, 844)
	pages := []string{"/", "/j/tern-house", "/kit/tern-house", "/sharing", "/practice"}
	for _, step := range []string{"measure", "slab", "margins", "cut", "hinges", "swing", "lock", "try", "stops", "log"} {
		pages = append(pages, "/j/tern-house/linen/"+step)
	}
	for _, page := range pages {
		u.open(page)
		u.until("the page "+page, `document.querySelector('main h1, main h2') && !document.querySelector('[role=status].p-6')`)
		u.js(`(document.querySelectorAll('main details').forEach((d) => { d.open = true }), '')`)
		u.until("all is large enough at "+page, `window.small_ = [...document.querySelectorAll('button, a[href], input, select, summary, textarea')]
			.filter((e) => e.checkVisibility({ checkVisibilityCSS: true }) && !e.closest('.sr-only, svg'))
			.map((e) => (e.matches('[type=radio], [type=checkbox]') && e.closest('label')) || e.closest('.input') || e)
			.filter((e) => { const r = e.getBoundingClientRect(); return r.width > 0 && (r.width < 43.5 || r.height < 43.5); })
			.map((e) => e.outerHTML.slice(0, 150)), window.small_.length === 0`)
		assert.Empty(t, u.js(`[...document.querySelectorAll('main *, header *')].filter((e) => /hidden|clip/.test(getComputedStyle(e).overflowY) &&
			e.checkVisibility() && e.innerText && e.clientHeight > 1 && e.scrollHeight > e.clientHeight + 1)
			.map((e) => e.innerText.slice(0, 40)).join(', ')`), page)
	}
}

// Without signal what waits is said beside the keys, never over one.
func TestNothingLiesOverAKey(t *testing.T) {
	u := offline(t, "demo")
	p := byThumb(u, 360, 640)
	u.another("alder-cottage", "Loft")
	require.NoError(t, u.p.Kill())
	p.sel(`[data-field="next-reading"]`)
	p.types("30 1/8")
	p.tap(enterKey)
	u.until("it waits", `document.querySelector('[data-waiting="1"]') && document.querySelector('[data-pad]')`)
	assert.Empty(t, u.js(`[...document.querySelectorAll('[data-pad] button')].filter((b) => {
		const r = b.getBoundingClientRect();
		return !b.contains(document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2));
	}).map((b) => b.textContent).join(', ')`))
	u.until("nor over what is asked", inSight+`(document.querySelector('[data-field="next-reading"]')) && ((e) => {
		const r = e.getBoundingClientRect();
		return e.contains(document.elementFromPoint(r.x + 20, r.y + r.height / 2)); })(document.querySelector('[data-field="next-reading"]'))`)
}

// At 320 px nothing is wider than the screen (WCAG 2.2, 1.4.10, from memory), in inches as in millimetres.
func TestReflow(t *testing.T) {
	u := sit(t, "demo")
	byThumb(u, 320, 640)
	for _, page := range []string{
		"/j/alder-cottage/pantry/cut", "/j/alder-cottage/pantry/hinges", "/j/alder-cottage/pantry/slab", "/load/alder-cottage",
		"/load/tern-house", "/kit/tern-house", "/papers/tern-house", "/day/tern-house", "/",
	} {
		u.open(page)
		u.until("the page "+page, `document.querySelector('main h1, main h2') && !document.querySelector('[role=status].p-6')`)
		u.until("all of it within the screen at "+page, `[...document.querySelectorAll('main *')].every((e) =>
			e.closest('svg, .sr-only') || !e.checkVisibility() || e.getBoundingClientRect().right <= innerWidth + 1)`)
	}
}

// another adds an opening to a job, and waits until its first reading is offered.
func (u person) another(job, name string) {
	u.t.Helper()
	u.open("/j/" + job)
	u.until("the walk", `document.querySelector('[data-field="opening-name"]')`)
	u.do(chromedp.Focus(`[data-field="opening-name"]`))
	u.keys(name, "\r")
	u.until("a reading is offered", `document.querySelector('[data-next]')`)
}

// A phone that sleeps while a length is half typed has it when it wakes, and the keypad with it.
func TestAPhoneThatSleepsMidReading(t *testing.T) {
	u := sit(t, "demo")
	p := byThumb(u, 390, 844)
	u.another("alder-cottage", "Loft")
	p.sel(`[data-field="next-reading"]`)
	p.types("30")
	for _, state := range []page.SetWebLifecycleStateState{
		page.SetWebLifecycleStateStateFrozen, page.SetWebLifecycleStateStateActive,
	} {
		u.do(func(ctx context.Context, tab *chromedp.Target) (chromedp.Void, error) {
			_, err := cdp.Call(ctx, tab, page.SetWebLifecycleState, page.SetWebLifecycleStateParams{State: state})
			return chromedp.Void{}, err
		})
	}
	u.until("it is there", `document.querySelector('[data-field="next-reading"]').value === '30'`)
	p.sel(`[data-field="next-reading"]`)
	u.js(`(document.activeElement.setSelectionRange(2, 2), '')`)
	before := u.count("[data-reading]")
	p.tap(`[...document.querySelectorAll("[data-pad] button")].find((b) => b.textContent === "1/8")`)
	p.tap(enterKey)
	u.until("it is kept", fmt.Sprintf(`document.querySelectorAll('[data-reading]').length > %d`, before))
	u.open(u.js("location.pathname"))
	u.until("nothing waits half typed", `document.querySelector('[data-field="next-reading"]')?.value === ''`)
}
