package e2e

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/document"
	"kindmargin/thorough"
)

var (
	bin     string          // the program, built once
	browser context.Context // the first tab of the one browser; each test has a context of its own in it
)

func TestMain(m *testing.M) {
	code, err := run(m)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		code = 1
	}
	os.Exit(code)
}

func run(m *testing.M) (code int, err error) {
	dir, err := os.MkdirTemp("", "kindmargin-e2e")
	if err != nil {
		return 0, err
	}
	defer os.RemoveAll(dir)
	if bin, err = Build(context.Background(), dir); err != nil {
		return 0, err
	}
	var stop context.CancelFunc
	browser, stop = Browser(context.Background(), filepath.Join(dir, "profile"))
	defer stop()
	if err := chromedp.Do(browser); err != nil {
		return 0, err
	}
	return m.Run(), nil
}

// person sits at a browser, with the program running.
type person struct {
	t   *testing.T
	ctx context.Context
	p   *Program
}

// patience is when a test is given up that hangs; a starved machine takes four minutes for the longest.
const patience = 12 * time.Minute

// sit is a person at a program of their own, beside the other tests. Their page's service worker is never
// installed: it would fetch every part of the page for every test. Tests without signal are offline's.
func sit(t *testing.T, verb string) person {
	u := offline(t, verb)
	u.before(`ServiceWorkerContainer.prototype.register = () => new Promise(() => {});`)
	return u
}

// offline is a person whose page has its service worker, so that it opens when the program is gone.
func offline(t *testing.T, verb string) person {
	t.Parallel()
	p, err := Start(t.Context(), bin, verb, filepath.Join(t.TempDir(), "e2e.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = p.Stop() })
	return at(t, p)
}

// at is a person at a program, in a browser context of their own: its storage, caches and service workers are no
// other's, and it has the focus as if it were alone.
func at(t *testing.T, p *Program) person {
	tab, stop := chromedp.NewContext(browser, chromedp.WithNewBrowserContext())
	t.Cleanup(stop)
	ctx, cancel := context.WithTimeout(tab, patience)
	t.Cleanup(cancel)
	u := person{t, ctx, p}
	u.do(chromedp.EmulateViewport(1280, 800), func(ctx context.Context, tab *chromedp.Target) (chromedp.Void, error) {
		_, err := cdp.Call(ctx, tab, emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{
			Enabled: true,
		})
		return chromedp.Void{}, err
	})
	return u
}

// before runs a script in each page that is opened from now on, before the page's own.
func (u person) before(script string) {
	u.t.Helper()
	u.do(func(ctx context.Context, tab *chromedp.Target) (chromedp.Void, error) {
		first := page.AddScriptToEvaluateOnNewDocumentParams{Source: script}
		_, err := cdp.Call(ctx, tab, page.AddScriptToEvaluateOnNewDocument, first)
		return chromedp.Void{}, err
	})
}

// again starts the program that was killed, on the same data and address.
func (u person) again() {
	u.t.Helper()
	p, err := StartAt(u.t.Context(), bin, "serve", u.p.Data, strings.TrimPrefix(u.p.URL, "http://"))
	require.NoError(u.t, err)
	u.t.Cleanup(func() { _ = p.Stop() })
}

func (u person) do(steps ...chromedp.Action[chromedp.Void]) {
	u.t.Helper()
	if err := chromedp.Do(u.ctx, steps...); err != nil {
		where, _ := chromedp.Run(u.ctx, chromedp.Evaluate[string](
			`location.pathname + ' | ' + (document.activeElement?.outerHTML ?? '').slice(0, 200) + ' | ' + document.body.innerText.slice(0, 1500)`))
		require.NoError(u.t, err, where)
	}
}

func (u person) open(path string) {
	u.t.Helper()
	u.do(chromedp.Navigate(u.p.URL + path))
	u.until("the page "+path, `[...document.querySelectorAll('h1, [data-step]')].some((e) => e.checkVisibility())`)
}

// until waits for a condition of the page, written as a JavaScript expression. An expression that throws is not met
// yet: what it looks for may be drawn a moment later, and a poll that throws between two frames would never end.
func (u person) until(what, js string) {
	u.t.Helper()
	met := chromedp.Poll[bool](
		"(() => { try { return !!("+js+"); } catch { return false; } })()",
		chromedp.WithPollingInterval(20*time.Millisecond), chromedp.WithPollingTimeout(2*time.Minute),
	)
	_, err := chromedp.Run(u.ctx, met)
	for range 5 { // the page that was asked was left, for the one that is meant
		if err == nil || !strings.Contains(err.Error(), "navigated or closed") &&
			!strings.Contains(err.Error(), "Cannot find context") {
			break
		}
		_, err = chromedp.Run(u.ctx, met)
	}
	if err != nil {
		where, _ := chromedp.Run(u.ctx, chromedp.Evaluate[string](
			`location.pathname + ' | ' + (document.activeElement?.outerHTML ?? '').slice(0, 300) + ' | ' + document.body.innerText.slice(0, 2500)`))
		require.NoError(u.t, err, "%s\n%s", what, where)
	}
}

// click strikes what a selector finds. A page that is drawn anew between the look and the stroke moves it from under
// the pointer; then it is struck again, as a hand would.
func (u person) click(sel string) {
	u.t.Helper()
	u.until(sel, fmt.Sprintf(`document.querySelector(%q)`, sel))
	for range 5 {
		u.js(fmt.Sprintf(`((sel) => {
			const meant = document.querySelector(sel);
			meant?.scrollIntoView({ block: 'center' });
			window.struck_ = false;
			document.addEventListener('click', (e) => { window.struck_ ||= !!meant?.contains(e.target) || !!e.target.closest?.(sel); }, { capture: true });
		})(%q), ''`, sel))
		u.do(chromedp.Click(sel))
		// A page that was left, or what went with the stroke, tells nothing: it was struck.
		missed, err := chromedp.Run(
			u.ctx,
			chromedp.Evaluate[bool](fmt.Sprintf(`window.struck_ === false && !!document.querySelector(%q)`, sel)),
		)
		if err != nil || !missed {
			return
		}
	}
	require.Fail(u.t, "could not be struck", sel)
}

func (u person) js(js string) string {
	u.t.Helper()
	s, err := chromedp.Run(u.ctx, chromedp.Evaluate[string](js))
	require.NoError(u.t, err)
	return s
}

func (u person) keys(keys ...string) {
	u.t.Helper()
	for _, k := range keys {
		u.do(chromedp.KeyEvent(k))
	}
}

func (u person) focused(field string) {
	u.t.Helper()
	u.until("the focus in "+field, fmt.Sprintf(`document.activeElement?.dataset.field === %q`, field))
}

// press strikes a key that is a shortcut. The browser withholds the character
// of a key whose keydown was taken; the protocol sends it apart, so it is
// withheld here.
func (u person) press(key string) {
	u.t.Helper()
	u.do(chromedp.KeyEvent(key, func(p *input.DispatchKeyEventParams) {
		if p.Type == kb.KeyChar {
			p.Type, p.Text = input.DispatchKeyEventTypeKeyUp, ""
		}
	}))
}

// retype replaces what stands in a field and presses Enter.
func (u person) retype(field, text string) {
	u.t.Helper()
	u.do(chromedp.Focus(fmt.Sprintf(`[data-field=%q]`, field)))
	u.js(`(document.activeElement.select(), '')`)
	u.keys(text, kb.Enter)
}

// ctrl presses a key with Ctrl held.
func (u person) ctrl(key string) {
	u.t.Helper()
	u.do(chromedp.KeyEvent(key, chromedp.KeyModifiers(chromedp.ModifierCtrl)))
}

// read takes the reading that is offered next, by keyboard: the value for the
// longest of the given beginnings of its name. It returns the name.
func (u person) read(values map[string]string) string {
	u.t.Helper()
	u.until(
		"a reading is offered",
		`document.querySelector('[data-next]') && document.activeElement?.dataset.field === 'next-reading' &&
			document.activeElement.value === ''`,
	)
	name := u.js(`document.querySelector('[data-next]').dataset.next`)
	value := ""
	for start, v := range values {
		if strings.HasPrefix(name, start) {
			value = v
		}
	}
	require.NotEmpty(u.t, value, "what is read for %s", name)
	u.keys(value, kb.Enter)
	u.until(name+" is kept", fmt.Sprintf(
		`document.querySelector('[data-reading=%q] input')?.value === %q &&
			document.querySelector('[data-next]')?.dataset.next !== %q`,
		name, value, name,
	))
	return name
}

// readToSureEnough takes what is offered until nothing more is.
func (u person) readToSureEnough(values map[string]string) (read []string) {
	u.t.Helper()
	for range 40 {
		u.until(
			"another reading or enough",
			`document.querySelector('[data-enough]') || document.querySelector('[data-next]')`,
		)
		if u.js(`document.querySelector('[data-enough]') ? 'enough' : ''`) != "" {
			return read
		}
		read = append(read, u.read(values))
	}
	require.Fail(u.t, "never sure enough", "%v", read)
	return nil
}

func (u person) figure(id string) string {
	u.t.Helper()
	sel := fmt.Sprintf(`document.querySelector('[data-figure=%q] [data-shown]')`, id)
	u.until("the figure "+id, sel)
	return u.js(sel + `.innerText.replace('\u2009', ' ').trim()`)
}

// eachSaysWhy presses each figure of the page and sees that it says why: terms, or sentences.
func (u person) eachSaysWhy() {
	u.t.Helper()
	u.js(`((async () => {
		window.why_ = { pressed: 0, silent: [] };
		const drawn = () => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)));
		for (const b of document.querySelectorAll('main button.why')) {
			b.click();
			await drawn();
			const said = document.querySelectorAll('dialog[open] tbody tr, dialog[open] li').length;
			if (said < (document.querySelector('dialog[open] table') ? 2 : 1)) window.why_.silent.push(b.innerText);
			document.querySelector('dialog[open]')?.close();
			await drawn();
			window.why_.pressed++;
		}
		window.why_.done = true;
	})(), '')`)
	u.until("each was pressed", `window.why_.done`)
	assert.Equal(u.t, "", u.js(`window.why_.silent.join(', ')`), "these say nothing")
	assert.NotEqual(u.t, "0", u.js(`String(window.why_.pressed)`))
}

// finish puts the focus on the step's last button and presses it.
func (u person) finish(next string) {
	u.t.Helper()
	u.until("the step can be finished", `document.querySelector('[data-onward][aria-disabled=false]')`)
	u.do(chromedp.Focus("[data-onward]"))
	u.keys(kb.Enter)
	u.until("on to "+next, fmt.Sprintf(
		`location.pathname.endsWith(%q) && '/' + document.querySelector('main h1')?.dataset.at === %q`, next, next,
	))
}

// signOff finishes what is left once the door fits, and signs it off.
func (u person) signOff(who string) {
	u.t.Helper()
	u.finish("/lock")
	u.finish("/stops")
	u.finish("/log")
	u.do(chromedp.Focus(`[data-field="who"]`))
	u.keys(who)
	u.click("[data-sign]")
	u.until("signed", fmt.Sprintf(`document.querySelector('[data-signed]')?.innerText.includes(%q)`, who))
}

// step goes to a step by its place in the strip.
func (u person) step(name string) {
	u.t.Helper()
	u.js(fmt.Sprintf(`(document.querySelector('[data-step=%s]').click(), '')`, name))
	u.until("at "+name, fmt.Sprintf(`document.querySelector('main h1')?.dataset.at === '%s'`, name))
}

func (u person) get(path string) []byte {
	u.t.Helper()
	res, err := http.Get(u.p.URL + path)
	require.NoError(u.t, err)
	defer res.Body.Close()
	b, err := io.ReadAll(res.Body)
	require.NoError(u.t, err)
	require.Equal(u.t, http.StatusOK, res.StatusCode, string(b))
	return b
}

// command runs the program to its end and gives what it prints.
func command(t *testing.T, args ...string) (string, error) {
	out, err := exec.CommandContext(t.Context(), bin, args...).CombinedOutput()
	return string(out), err
}

type door struct {
	unit, house, name                       string
	readings                                map[string]string
	slab                                    []string
	finished, hinge, foot, topSlab, topJamb string
	latchSlab, latchJamb, backset, centre   string
}

// A door of one's own, from an empty program, by keyboard alone, in each
// unit; then a reload, and everything is there. The openings are so well
// squared that the marks can be worked out by hand.
func TestADoorOfOnesOwnByKeyboard(t *testing.T) {
	for _, d := range []door{
		{
			unit: "mm", house: "Gull Cottage", name: "Study",
			readings: map[string]string{
				"width": "826", "height": "2032", "plumb": "0", "level": "0", "square": "0", "straight": "0",
				"diagonal": "2193.48",
			},
			slab: []string{"826", "2040", "35"},
			// 826 − 3 − 3; 826 − 820 to the line; 2040 − (2032 − 3 − 6).
			finished: "820", hinge: "6", foot: "17",
			topSlab: "150", topJamb: "153", latchSlab: "1029", latchJamb: "1032", backset: "60", centre: "17.5",
		},
		{
			unit: "in", house: "Heron Cottage", name: "Scullery",
			readings: map[string]string{
				"width": "30 1/4", "height": "80 1/2", "plumb": "0", "level": "0", "square": "0", "straight": "0",
				"diagonal": "2184.318 mm",
			},
			slab: []string{"30 1/4", `6' 8 1/2"`, "1 3/8"},
			// 30 1/4 − 1/4; 30 1/4 − 30; 80 1/2 − (80 1/2 − 1/8 − 3/8); 80 1/2 − 39 for the strike.
			finished: "30", hinge: "1/4", foot: "1/2",
			topSlab: "6", topJamb: "6 1/8", latchSlab: "41 3/8", latchJamb: "41 1/2", backset: "2 3/8", centre: "11/16",
		},
	} {
		if d.unit == "mm" && !thorough.On() {
			continue // TestAWholeDoor goes the same way in millimetres
		}
		t.Run(d.unit, func(t *testing.T) {
			u := sit(t, "serve")
			start := time.Now()
			u.open("/")
			u.do(chromedp.Focus(`[data-field="job-name"]`))
			u.keys(d.house, kb.Tab)
			if d.unit == "in" {
				u.keys(kb.ArrowRight)
			}
			u.focused("job-" + d.unit)
			u.keys(kb.Tab, kb.Enter)
			u.until("the walk", `document.querySelector('[data-field="opening-name"]')`)
			u.press("n")
			u.focused("opening-name")
			u.keys(d.name, kb.Tab, "Hall", kb.Enter)
			read := u.readToSureEnough(d.readings)
			assert.GreaterOrEqual(t, len(read), 6)
			t.Logf("sure enough after %d readings: %v", len(read), read)
			u.finish("/slab")
			u.until("the slab's entries", `document.querySelector('[data-field="/slab/width"]')`)
			u.press("n")
			for i, field := range []string{"/slab/width", "/slab/length", "/slab/thickness"} {
				u.focused(field)
				u.keys(d.slab[i], kb.Enter)
			}
			u.until("Enter leads on", `document.activeElement?.hasAttribute('data-onward')`)
			assert.Equal(t, d.finished, u.figure("finished-width"))
			u.finish("/margins")
			u.finish("/cut")
			// To the line, so that hand arithmetic holds; the default leaves on.
			assert.NotEqual(t, d.hinge, u.figure("cut-hinge-2"), "something is left on until it is sure")
			u.do(chromedp.Focus(`input[name="/cut/leaveOn"]:checked`))
			u.keys(kb.ArrowDown)
			u.until("always 3 mm", `document.querySelectorAll('input[name="/cut/leaveOn"]')[1].checked`)
			u.keys(kb.ArrowDown)
			u.until("to the line", `document.querySelectorAll('input[name="/cut/leaveOn"]')[2].checked`)
			u.until("cut to the line", fmt.Sprintf(
				`document.querySelector('[data-figure="cut-hinge-2"] [data-shown]').innerText === %q`, d.hinge,
			))
			assert.Equal(t, d.foot, u.figure("cut-foot-1"))
			u.finish("/hinges")
			assert.Equal(t, d.topSlab, u.figure("hinge-slab-hinge.top"))
			assert.Equal(t, d.topJamb, u.figure("hinge-jamb-hinge.top"))
			u.finish("/swing")
			u.until(
				"it opens right back",
				`document.querySelector('[data-figure="swing-opens"] [data-shown]')?.innerText === '180°'`,
			)
			u.finish("/try")
			u.until("to be hung", `document.querySelector('[data-record-cut]')`)
			u.press("8")
			u.until("the lock", `location.pathname.endsWith('/lock') && document.querySelector('main h1')?.dataset.at === 'lock'`)
			assert.Equal(t, d.latchSlab, u.figure("latch-slab"))
			assert.Equal(t, d.latchJamb, u.figure("latch-jamb"))
			assert.Equal(t, d.backset, u.figure("latch-backset"))
			assert.Equal(t, d.centre, u.figure("latch-centre"))
			lock := u.js("location.pathname")
			u.finish("/stops")
			u.finish("/log")
			t.Logf("from an empty program to marks: %v", time.Since(start))

			u.open(lock)
			assert.Equal(t, d.latchSlab, u.figure("latch-slab"), "a reload finds everything there")
			u.until(
				"eight notches cut, all but the try and the log",
				`document.querySelectorAll('[data-state="done"]').length === 8`,
			)
			u.open(strings.Replace(lock, "/lock", "/measure", 1))
			for _, name := range read {
				u.until(name, fmt.Sprintf(`document.querySelector('[data-reading=%q] input')?.value`, name))
			}
		})
	}
}

// Bad input gets a sentence and stays on the screen; undo and redo work by
// key; why lists the terms; the unit and the theme change on a tap.
func TestAtTheOpening(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/chart/measure")
	u.until("the first width", `document.querySelector('[data-field="/readings/0/value"]')?.value === '829.5'`)
	for _, c := range []struct{ typed, says string }{
		{"wide", "Begin with a number"},
		{"60", "60 mm cannot be the width"},
		{"-826", "cannot be the width"},
		{"82 9", "is two lengths"},
	} {
		u.retype("/readings/0/value", c.typed)
		u.until(
			c.says,
			fmt.Sprintf(`[...document.querySelectorAll('[role=alert]')].some((e) => e.innerText.includes(%q))`, c.says),
		)
		u.until(
			"the entry is kept",
			fmt.Sprintf(`document.querySelector('[data-field="/readings/0/value"]').value === %q`, c.typed),
		)
	}
	// A slip of 10 mm is kept, and named.
	u.retype("/readings/0/value", "839.5")
	u.until(
		"the slip is named",
		`[...document.querySelectorAll('[data-finding=stop]')].some((e) => e.innerText.includes('reads 839.5 mm, but the others say about 8') && e.innerText.includes('Perhaps the tape was misread by 10 mm'))`,
	)
	u.until(
		"the step shows that it changed", `document.querySelector('[data-step=measure]').dataset.state === 'changed'`,
	)
	u.do(chromedp.Focus("[data-step=measure]"))
	u.ctrl("z")
	u.until(
		"undone",
		`document.querySelector('[data-field="/readings/0/value"]').value === '829.5' &&
			!document.querySelector('[data-finding=stop]')`,
	)
	u.ctrl("y")
	u.until("redone", `document.querySelector('[data-field="/readings/0/value"]').value === '839.5'`)
	// It is struck out with a reason, and kept.
	u.click(`[data-strike="width 1800"]`)
	u.focused("strike-why")
	u.keys(kb.Enter)
	u.until(
		"struck out",
		`document.querySelector('[data-reading="width 1800"]').dataset.struck === 'misread' &&
			!document.querySelector('[data-finding=stop]')`,
	)
	assert.Contains(t, string(u.get("/api/jobs/tern-house/file")), `"struck": "misread"`)
	u.do(chromedp.Focus("[data-step=measure]"))
	u.ctrl("z")
	u.until("it counts again", `!document.querySelector('[data-reading="width 1800"]').dataset.struck`)
	u.ctrl("z")
	u.until("undone", `document.querySelector('[data-field="/readings/0/value"]').value === '829.5'`)

	u.until("the next reading waits", `document.querySelector('[data-field="next-reading"], [data-enough]')`)
	u.keys(kb.Escape)
	// Margins of one's own are kept with the job and taken for the next door.
	u.press("3")
	u.until("at the margins", `document.querySelector('[data-field="/margins/lock"]')`)
	u.retype("/margins/lock", "2.2")
	u.until(
		"set",
		`document.querySelector('[data-field="/margins/lock"]').value === '2.2' &&
			document.activeElement?.dataset.field !== '/margins/lock'`,
	)
	u.retype("preset-name", "Ours")
	u.until("kept", `document.querySelector('[data-preset="Ours"]')`)
	u.open("/j/tern-house/linen/margins")
	u.until("there for another door", `document.querySelector('[data-preset="Ours"] button')`)
	u.click(`[data-preset="Ours"] button`)
	u.until("taken", `document.querySelector('[data-field="/margins/lock"]').value === '2.2'`)
	u.open("/j/tern-house/chart/margins")
	u.until("back", `document.querySelector('[data-field="/margins/lock"]')?.value === '2.2'`)
	u.do(chromedp.Focus("[data-step=margins]"))

	u.press("5")
	u.until("at the hinges", `location.pathname.endsWith('/hinges')`)
	assert.Equal(t, "161", u.figure("hinge-slab-hinge.top"), "pocket 163 less the head margin, 3 held to 2")
	u.do(chromedp.Focus(`[data-figure="hinge-slab-hinge.top"]`))
	u.keys(kb.Enter)
	u.until(
		"why", `document.querySelector('dialog[open]')?.innerText.includes('margin at the top, at the hinge corner')`,
	)
	u.keys(kb.Escape)
	u.until("closed", `!document.querySelector('dialog[open]')`)
	u.keys(kb.Escape) // off the figure, so that single keys are the page's
	u.press("m")
	u.until("in inches", `document.querySelector('[data-unit=in]')`)
	assert.Equal(t, "6 11/32", u.figure("hinge-slab-hinge.top"), "161 mm is 6.339 in, 6 11/32 on the tape")
	u.press("m")
	u.press("w")
	u.until("the walk", `document.querySelectorAll('[data-door]').length === 6`)
	u.click("[data-theme-button]")
	u.until("night", `document.documentElement.dataset.theme === 'night'`)
}

// Two clients at one door: what one changes is on the other at once; where both set another
// field both hold, and where they set the same one it is settled on the screen, with nothing lost.
func TestTwoClients(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/slab")
	u.until("the slab", `document.querySelector('[data-field="/slab/width"]')?.value === '726'`)
	c := client{url: u.p.URL}
	elsewhere := func(path, value string) {
		t.Helper()
		var now view
		tag, err := c.send(t, "GET", "/api/jobs/tern-house/openings/linen", "", "", &now)
		require.NoError(t, err)
		_, err = c.send(
			t, "PATCH", "/api/jobs/tern-house/openings/linen?label=on+the+trestles&by=Wren", tag,
			fmt.Sprintf(`[{"op": "replace", "path": %q, "value": %q}]`, path, value), &now,
		)
		require.NoError(t, err)
	}
	kept := func() (w, l string) {
		var now view
		require.NoError(t, json.Unmarshal(u.get("/api/jobs/tern-house/openings/linen"), &now))
		return now.Opening.Slab.Width.String(), now.Opening.Slab.Length.String()
	}
	elsewhere("/slab/length", "1985")
	u.until(
		"it is here, and says from where",
		`document.querySelector('[data-field="/slab/length"]').value === '1985' &&
			document.querySelector('[data-elsewhere]')?.innerText.includes('from this machine, Wren: on the trestles')`,
	)
	u.do(chromedp.Focus(`[data-field="/slab/width"]`))
	u.js(`(document.activeElement.select(), '')`)
	u.keys("728")
	elsewhere("/slab/length", "1986")
	u.until(
		"what is typed is not taken",
		`document.querySelector('[data-field="/slab/length"]').value === '1986' &&
			document.activeElement.value === '728'`,
	)
	u.keys(kb.Enter)
	u.until(
		"both hold",
		`document.querySelector('[data-field="/slab/width"]').value === '728' &&
			document.querySelector('[data-undo]').title.includes('728') && !document.querySelector('[role=alert]')`,
	)
	w, l := kept()
	assert.Equal(t, "728 mm, 1986 mm", w+", "+l)

	u.do(chromedp.Focus(`[data-field="/slab/width"]`))
	u.js(`(document.activeElement.select(), '')`)
	u.keys("729")
	elsewhere("/slab/width", "731")
	u.until(
		"both are on the screen",
		`document.querySelector('[data-settle="/slab/width"] [data-theirs]')?.innerText === 'Keep 731' && document.querySelector('[data-settle="/slab/width"] [data-mine]').innerText === 'Use 729' && document.querySelector('[data-field="/slab/width"]').value === '729'`,
	)
	w, _ = kept()
	assert.Equal(t, "731 mm", w, "nothing is decided yet")
	u.click(`[data-settle="/slab/width"] [data-mine]`)
	u.until(
		"settled",
		`!document.querySelector('[data-settle]') && document.querySelector('[data-field="/slab/width"]').value === '729'`,
	)
	w, _ = kept()
	assert.Equal(t, "729 mm", w)
	u.do(chromedp.Focus(`[data-field="/slab/width"]`))
	u.js(`(document.activeElement.select(), '')`)
	u.keys("700")
	elsewhere("/slab/width", "732")
	u.click(`[data-settle="/slab/width"] [data-theirs]`)
	u.until(
		"theirs is kept",
		`!document.querySelector('[data-settle]') && document.querySelector('[data-field="/slab/width"]').value === '732'`,
	)
}

// cached waits until the page can be opened without signal, with an answer that it will want.
func (u person) cached(address string) {
	u.t.Helper()
	u.js(`((async () => {
		window.kept_ = false;
		while (!navigator.serviceWorker.controller || !(await caches.match(location.origin + ` + fmt.Sprintf("%q", address) + `))) await new Promise((r) => setTimeout(r, 30));
		window.kept_ = true;
	})(), '')`)
	u.until("it is kept", `window.kept_`)
}

// When the program does not answer, the page still opens and what is entered waits on the client,
// through a reload too; it is handed in once when the program is there again.
func TestTheProgramStopsAnswering(t *testing.T) {
	u := offline(t, "serve")
	u.open("/")
	id := struct{ ID string }{}
	post := func(path, body string, into any) {
		res, err := http.Post(u.p.URL+path, "application/json", strings.NewReader(body))
		require.NoError(t, err)
		defer res.Body.Close()
		require.NoError(t, json.NewDecoder(res.Body).Decode(into))
	}
	post("/api/jobs", `{"name": "House", "unit": "mm"}`, &id)
	var v struct{ Opening struct{ ID string } }
	post("/api/jobs/"+id.ID+"/openings", `{"name": "Study"}`, &v)
	page := "/j/" + id.ID + "/" + v.Opening.ID + "/measure"
	u.open(page)
	u.until("ready", `document.activeElement?.dataset.field === 'next-reading'`)
	u.cached("/api/jobs/" + id.ID + "/openings/" + v.Opening.ID)
	require.NoError(t, u.p.Kill())
	u.keys("826", kb.Enter)
	// It is said to be kept, stands in the list as read, and the next question comes, as far as an opening usually is
	// read.
	u.until(
		"it says so", `[...document.querySelectorAll('[role=status]')].some((e) => e.innerText.includes('is kept on this device'))`,
	)
	read := []string{"width 1800"}
	for _, next := range []string{"height 50", "width 1000", "width 100", "height 750"} {
		u.until(next+" is asked", fmt.Sprintf(
			`document.querySelector('[data-next]')?.dataset.next === %q && document.activeElement?.dataset.field === 'next-reading' &&
				document.activeElement.value === ''`, next,
		))
		for _, r := range read {
			u.until(r+" is listed", fmt.Sprintf(`document.querySelector('[data-reading-waits=%q]')`, r))
		}
		if len(read) < 3 {
			u.keys(map[bool]string{true: "826", false: "2032"}[strings.HasPrefix(next, "width")], kb.Enter)
			read = append(read, next)
		} else {
			break
		}
	}
	u.open("/devices") // a part of the page that was never opened is there too
	u.open(page)
	u.until(
		"a reload without signal finds the door, and the entry",
		`document.querySelector('[data-field="next-reading"]') &&
			document.querySelector('[data-waiting]')?.dataset.waiting === '3'`,
	)

	u.again()
	u.until(
		"handed in",
		`document.querySelector('[data-reading="width 1800"] input')?.value === '826' &&
			!document.querySelector('[data-waiting]')`,
	)
	var now view
	require.NoError(t, json.Unmarshal(u.get("/api/jobs/"+id.ID+"/openings/"+v.Opening.ID), &now))
	assert.Len(t, now.Opening.Readings, 3, "each once")
}

// toldFigure is a whole figure on paper, after the word that says what it is.
var toldFigure = regexp.MustCompile(
	`(?m)\b(off|door|slab|jamb|keep|strike|recesses|mortises|by|least) (\d+(?:\.\d+)?(?: \d+/\d+)?|\d+/\d+)(?: ±| down| deep| at|\s*$|  )`,
)

// inBritish are the words of an American plan.
var inBritish = map[string]string{"slab": "door", "strike": "keep", "mortises": "recesses"}

// kindmargin plan on the exported demo prints the same figures as the screen.
func TestPlanPrintsWhatTheScreenShows(t *testing.T) {
	u := sit(t, "demo")
	drawn := []string{"saloon", "pantry"} // those that are looked at: a pair, and a door in inches
	if thorough.On() {
		drawn = append(drawn, "linen", "chart", "boots", "beam", "galley")
	}
	for job, doors := range map[string][]string{
		"tern-house": {"linen", "chart", "boots", "beam", "galley", "saloon"}, "alder-cottage": {"pantry"},
	} {
		file := filepath.Join(t.TempDir(), job+".json")
		require.NoError(t, os.WriteFile(file, u.get("/api/jobs/"+job+"/file"), 0o600))
		out, err := exec.CommandContext(u.ctx, bin, "plan", "--json", file).Output()
		require.NoError(t, err)
		var printed document.File
		require.NoError(t, json.Unmarshal(out, &printed))
		plans := printed.Openings
		require.Len(t, plans, len(doors))
		words, err := exec.CommandContext(u.ctx, bin, "plan", file).Output()
		require.NoError(t, err)
		sections := strings.Split(string(words), ", seen from the pull side\n")[1:]
		require.Len(t, sections, len(doors))
		for i, id := range doors {
			show := func(x document.Text) string {
				if job == "alder-cottage" {
					return x.In
				}
				return x.MM
			}
			told := map[string][]string{} // whole figures of this door, by the word before them
			for _, m := range toldFigure.FindAllStringSubmatch(sections[i], -1) {
				word := cmp.Or(inBritish[m[1]], m[1])
				told[word] = append(told[word], m[2])
			}
			p := plans[i].Plan.Leaves[0]
			require.Equal(t, id, plans[i].ID)
			if !slices.Contains(drawn, id) {
				continue
			}
			u.open("/j/" + job + "/" + id + "/cut")
			for _, e := range p.Cut.Edges {
				for k, m := range e.Marks {
					if strings.HasPrefix(e.Says, "Nothing") {
						continue
					}
					assert.Equal(t, show(m.Depth.Text), u.figure(fmt.Sprintf("cut-%v-%d", e.Side, k)))
					assert.Contains(t, told["off"], show(m.Depth.Text))
				}
			}
			u.step("hinges")
			for _, h := range p.Hinges {
				assert.Equal(t, show(h.Slab.Text), u.figure("hinge-slab-"+h.ID))
				assert.Equal(t, show(h.Jamb.Text), u.figure("hinge-jamb-"+h.ID))
				assert.Contains(t, told["door"], show(h.Slab.Text))
				assert.Contains(t, told["jamb"], show(h.Jamb.Text))
			}
			g := p.Gauges
			for shown, f := range map[string]document.Figure{
				"gauge-depth": g.Depth, "gauge-width": g.Width, "setback": g.Setback, "wedge-shut": p.Hanging.Shut,
				"wedge-open": p.Hanging.Open,
			} {
				assert.Equal(t, show(f.Text), u.figure(shown))
			}
			assert.Contains(t, told["recesses"], show(g.Depth.Text))
			u.eachSaysWhy()
			u.step("swing")
			for shown, f := range map[string]document.Figure{
				"swing-bevel": p.Swing.Bevel, "swing-clear": p.Swing.Clear, "swing-least": p.Swing.Least,
			} {
				assert.Equal(t, show(f.Text), u.figure(shown), "%s %s", id, shown)
			}
			assert.Contains(t, told["by"], show(p.Swing.Clear.Text))
			assert.Contains(t, told["least"], show(p.Swing.Least.Text))
			u.eachSaysWhy()
			u.step("lock")
			require.NotNil(t, p.Latch, id)
			assert.Equal(t, show(p.Latch.Slab.Text), u.figure("latch-slab"))
			assert.Equal(t, show(p.Latch.Jamb.Text), u.figure("latch-jamb"))
			assert.Contains(t, told["keep"], show(p.Latch.Jamb.Text))
		}
	}
}

// A slab is chosen from stock, another way of laying it is forced, and left to
// the rules again.
func TestASlabFromStockAndAnotherWayToLayIt(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/chart/cut")
	u.until("even stiles by rule", `document.querySelector('[data-laid="even-stiles, even-ends"]')`)
	u.click(`input[name="/cut/registration"][value="keep-hinge"]`)
	u.until("forced", `document.querySelector('[data-laid^="keep-hinge"]')`)
	u.until(
		"and checked the same way",
		`[...document.querySelectorAll('[data-finding=stop]')].some((e) => e.innerText.includes('lock edge would lose'))`,
	)
	assert.Contains(t, u.js(`document.querySelector('[data-edge=hinge]').innerText`), "Nothing comes off")
	u.click(`input[name="/cut/registration"][value="by-rule"]`)
	u.until(
		"by rule again",
		`document.querySelector('[data-laid="even-stiles, even-ends"]') &&
			!document.querySelector('[data-finding=stop]')`,
	)

	u.press("2")
	u.until(
		"the stock is held against the opening",
		`document.querySelector('[data-stock="826x2040"][data-fits="true"] button')`,
	)
	assert.Contains(t, u.js(`document.querySelector('[data-stock="826x2040"]').innerText`), "buy this")
	u.until(
		"what falls out says why",
		`document.querySelector('[data-stock][data-fits="false"]')?.innerText.includes('Too ')`,
	)
	u.click(`[data-stock="826x2040"] button`)
	u.until("it is the slab", `document.querySelector('[data-field="/slab/width"]').value === '826'`)
	u.ctrl("z")
	u.until("and one key takes it back", `document.querySelector('[data-field="/slab/width"]').value === '838'`)
}

// A hollow slab under a low beam is cut at both ends; each gets an insert as
// wide as between the stiles and as thick as between the skins.
func TestAHollowSlabCutAtBothEnds(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/beam/cut")
	u.until("both ends", `document.querySelector('[data-laid$="even-ends"]')`)
	for end, name := range map[string]string{"head": "top", "foot": "bottom"} {
		u.until("an insert at the "+name, fmt.Sprintf(
			`[...document.querySelectorAll('[data-finding=care]')].some((e) => e.innerText.includes('The %s is cut past its rail') && e.innerText.includes('702 mm by 30 mm, 29 mm thick'))`, name))
		assert.NotEqual(t, "0", u.figure("cut-"+end+"-1"))
	}
	u.until("both are closed alike", `document.querySelector('[data-inserts="head foot"] h2').innerText === 'Close the top and bottom'`)
	u.says("Free the rail from the offcut while it is long")
	u.click(`[data-field="/cut/insert/new"]`)
	u.says("Rip a piece 702 mm by 30 mm, 29 mm thick, of MDF or softwood.")
}

// A pair: two slabs, each with its own cuts, and one leaf that is bolted.
func TestAPair(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/measure")
	u.click("[data-about] summary")
	u.click(`[data-field="pair"]`)
	u.until("it is a pair", `document.querySelector('[data-field="/pair/meeting"]')?.value === '4'`)
	u.focused("next-reading") // the second leaf is not cut: the opening is read on
	u.click("[data-step=slab]")
	u.until("two leaves", `document.querySelectorAll('[data-leaf]').length === 2`)
	// 726 to 726.5 less 4 between the leaves and 3 at each jamb, halved.
	assert.Contains(t, []string{"358", "358.5"}, u.figure("finished-width"))
	u.click(`[data-leaf="2"]`)
	u.until("the second leaf's slab", `document.querySelector('[data-field="/pair/slab/width"]')`)
	for field, v := range map[string]string{
		"/pair/slab/width": "370", "/pair/slab/length": "1981", "/pair/slab/thickness": "35",
	} {
		u.retype(field, v)
		u.until(field, fmt.Sprintf(
			`document.querySelector('[data-field=%q]').value === %q && document.activeElement?.dataset.field !== %q`,
			field, v, field,
		))
	}
	u.until("its cuts are there", `document.querySelector('[data-step=cut]').dataset.state !== 'waits'`)
	u.open("/j/tern-house/saloon/lock")
	u.until("the hung leaf has the latch", `document.querySelector('[data-figure="latch-slab"]')`)
	u.click(`[data-leaf="2"]`)
	u.until("the bolted leaf carries the strike", `document.querySelector('[data-code=bolted-leaf]')`)
}

// The old door's gaps alone, taken on the screen, give the opening back: 815
// with 3 and 8 beside it is 826, 2015 with 5 and 12 is 2032.
func TestTheOldDoorsGapsOnScreen(t *testing.T) {
	u := sit(t, "serve")
	u.open("/")
	u.do(chromedp.Focus(`[data-field="job-name"]`))
	u.keys("Plover Cottage", kb.Enter)
	u.until("the walk", `document.querySelector('[data-field="opening-name"]')`)
	u.do(chromedp.Focus(`[data-field="opening-name"]`))
	u.keys("Hall", kb.Enter)
	u.until("measuring", `document.querySelector('[data-field="other-reading"]')`)
	u.click(`[data-field="other-reading"]`)
	choose := func(field, value string) {
		u.until(field, fmt.Sprintf(`document.querySelector('[data-field=%q]')`, field))
		u.do(chromedp.SetValue(fmt.Sprintf(`[data-field=%q]`, field), value))
		u.js(fmt.Sprintf(
			`(document.querySelector('[data-field=%q]').dispatchEvent(new Event('change', { bubbles: true })), '')`,
			field,
		))
	}
	choose("other-kind", "gap")
	u.until("what stood there", `document.querySelector('[data-field="offer-width"]')`)
	u.do(chromedp.Focus(`[data-field="offer-width"]`))
	u.keys("815", kb.Enter, "2015", kb.Enter)
	u.until("the old door stands", `document.querySelector('[data-field="other-side"]')`)
	n := 0
	for _, side := range []struct {
		name, gap string
		at        []string
	}{
		{"hinge", "3", []string{"200", "1800"}},
		{"lock", "8", []string{"200", "1800"}},
		{"head", "5", []string{"50", "750"}},
		{"foot", "12", []string{"50", "750"}},
	} {
		choose("other-side", side.name)
		for _, at := range side.at {
			u.retype("other-at", at)
			u.focused("next-reading")
			u.keys(side.gap, kb.Enter)
			n++
			u.until("kept", fmt.Sprintf(
				`document.querySelectorAll('[data-reading]').length === %d &&
					document.querySelector('[data-field="next-reading"]').value === ''`,
				n,
			))
		}
	}
	u.click("[data-step=slab]")
	u.until("the size to buy", `document.querySelector('[data-figure="finished-width"]')`)
	assert.Equal(t, "820", u.figure("finished-width"))
	assert.Equal(t, "2023", u.figure("finished-length"))
}

// The page of a door that is not there says so under a heading, and leads back.
func TestADoorThatIsNotThere(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/nowhere/measure")
	u.until(
		"it says so",
		`document.querySelector('main h1')?.textContent === 'This door cannot be shown' &&
			document.querySelector('main [role=alert]')`,
	)
	u.js(`(document.querySelector('main a.btn').click(), '')`)
	u.until(
		"back on the walk",
		`location.pathname === '/j/tern-house' && document.querySelector('h1')?.textContent === 'Tern House'`,
	)
}
