package e2e

import (
	"fmt"
	"strconv"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
)

func (u person) says(words string) {
	u.t.Helper()
	u.until(words, `document.querySelector('main').innerText.includes(`+strconv.Quote(words)+`)`)
}

// A code lock on a hollow slab with a thin stile is warned; a surface lock bores its one hole;
// a bathroom lock wants its slot; each hole says why.
func TestLocksOfTheList(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/beam/lock")
	u.pick("/lock/hardware", "code-6")
	u.until("its holes are listed", `document.querySelector('[data-figure="hole-down-upper fixing"]')`)
	u.retype("/slab/stile", "65")
	u.says("reaches 66 mm from the edge, and the stile ends at")
	u.says("The case is 76 mm deep")
	u.until("the step waits", `document.querySelector('[data-onward][aria-disabled=true]')`)

	u.open("/j/tern-house/chart/lock")
	assert.Equal(t, "60", u.figure("hole-in-cylinder"), "a surface lock's cylinder")
	u.says("Let the lip of the case into the edge, 65 mm long and 3 mm deep.")
	u.pick("/lock/hardware", "bathroom-64")
	u.says("Cut the slot in the edge 90 mm by 16 mm, 66 mm deep")
	u.says("It must open from outside without a key")
	u.until("the slot is drawn", `document.querySelector('[data-lock-view]')`)
	u.eachSaysWhy()

	// Bored on the trestles first: from the edge as it stands, and before the try.
	order := `[...document.querySelectorAll('[data-step]')].map((e) => e.dataset.step).join(' ')`
	u.open("/j/tern-house/linen/lock")
	u.until("its holes", `document.querySelector('[data-figure="hole-in-spindle"]')`)
	assert.Equal(t, "60", u.figure("hole-in-spindle"))
	assert.Contains(t, u.js(order), "try lock stops")
	u.js(`(document.querySelector('input[name="/lock/when"][value=first]').click(), '')`)
	u.until("from the edge as it stands", `document.querySelector('[data-figure="hole-in-spindle"] [data-shown]')?.innerText === '62'`)
	assert.Contains(t, u.js(order), "lock try stops")
	u.says("Leave the forend until the edge is down to its line: 2 mm still comes off.")
	u.pick("/lock/second", "surface-60")
	u.says("Screw its fixing plate to the pull face, set back 8 mm")
}

// The latch goes to an old strike under a head that slopes: the strike stays at its figure,
// old holes beside it are told, and a miss is cured.
func TestALatchToAnOldStrike(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/chart/lock")
	assert.Equal(t, "1041", u.figure("latch-jamb"))
	u.click(`[data-field=old-holes-open]`)
	for field, text := range map[string]string{"old-what": "old keep", "old-down": "1120", "old-dia": "40"} {
		u.do(chromedp.Focus(`[data-field=` + field + `]`))
		u.keys(text)
	}
	u.click(`[data-field=old-add]`)
	u.says("The old keep, 40 mm, stays uncovered")
	u.click(`[data-field=missed-open]`)
	u.click(`[data-field=missed-add]`)
	u.until("it can be said", `document.querySelector('[data-field="/lock/missed/up"]')`)
	u.retype("/lock/missed/up", "3")
	u.says("Move the plate up by 3 mm")
}

// The fixed leaf of a pair is bolted top and bottom.
func TestBoltsOnAPair(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/saloon/lock")
	u.click(`[data-leaf="2"]`)
	u.says("Keeps: in the head and in the floor, 9.5 mm from the meeting line")
	u.pick("/pair/bolts", "surface-bolt-150")
	u.says("Bolts: surface bolt, 150 mm, one at the top and one at the bottom of this door")
	u.js(`(document.querySelector('input[name="/pair/holds"][value=none]').click(), '')`)
	u.says("No bolt: a catch in the head holds this door.")
}

// Hardware is entered from a paper pattern of six holes, with keys alone, in well under three
// minutes, and comes through export and import; its boring template is fetched and measured.
func TestHardwareFromItsPaper(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/lock")
	u.click(`[data-field=hardware-open]`)
	start := time.Now()
	enter := func(field, text string) {
		if text == "" {
			return
		}
		u.do(chromedp.Focus(`[data-field="` + field + `"]`))
		u.keys(text)
	}
	enter("hardware-name", "gate code lock")
	enter("hardware-backset", "60")
	for i, h := range []struct{ what, off, up, dia string }{
		{"spindle", "", "", "12"},
		{"upper fixing", "", "62", "10"},
		{"lower fixing", "", "-62", "10"},
		{"chamber", "", "30", "16"},
		{"upper screw", "40", "80", "4"},
		{"lower screw", "40", "-80", "4"},
	} {
		if i > 0 {
			u.click(`[data-field=hole-more]`)
			u.until("one more hole", `document.querySelector('[data-field=hole-what-`+strconv.Itoa(i)+`]')`)
		}
		n := strconv.Itoa(i)
		enter("hole-what-"+n, h.what)
		enter("hole-off-"+n, h.off)
		enter("hole-up-"+n, h.up)
		enter("hole-dia-"+n, h.dia)
	}
	enter("in-the-edge-bore", "22")
	enter("in-the-edge-deep", "78")
	enter("in-the-edge-case", "76")
	u.keys(kb.Enter)
	u.until("it is used", `document.querySelector('[data-hardware="gate code lock"]')`)
	t.Logf("six holes in %v", time.Since(start))
	down, err := strconv.ParseFloat(u.figure("hole-down-lower screw"), 64)
	require.NoError(t, err)
	line, err := strconv.ParseFloat(u.figure("latch-slab"), 64)
	require.NoError(t, err)
	assert.InDelta(t, line+80, down, 1e-9)

	j, err := job.Decode(u.get("/api/jobs/tern-house/file"))
	require.NoError(t, err)
	require.Len(t, j.Kit.Hardware, 1)
	assert.Len(t, j.Kit.Hardware[0].Holes, 6)
	assert.Equal(t, j.Kit.Hardware[0].ID, j.Openings[0].Lock.Hardware)

	u.click(`[data-field=sheets-open]`)
	u.click(`[data-see=lock]`)
	u.until("the sheet is seen", `document.querySelector('[data-template=lock] img')?.naturalWidth > 0`)
	u.js(`(fetch(document.querySelector('[data-template=lock] img').src).then((r) => r.text()).then((text) => {
		const box = document.createElement('div');
		box.style.cssText = 'position:absolute;left:0;top:0';
		box.innerHTML = text.slice(text.indexOf('<svg'));
		document.body.append(box);
		const svg = box.querySelector('svg');
		const a = svg.querySelectorAll('#CUT circle');
		const mm = svg.getBoundingClientRect().width / parseFloat(svg.getAttribute('width'));
		const at = (c) => { const r = c.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2, r.width]; };
		const [s, u] = [at(a[0]), at(a[2])];
		window.sheet_ = [mm, s[2] / mm, (s[1] - u[1]) / mm].map((v) => v.toFixed(2)).join(' ');
		box.remove();
	}), '')`)
	u.until("it is measured", `window.sheet_`)
	// CSS makes a millimetre 96/25.4 pixels; the spindle is 12, the upper fixing 62 above it.
	assert.Equal(t, "3.78 12.00 62.00", u.js(`window.sheet_`))
}

// Stops that are there are read at their corners and moved.
func TestStopsAreMoved(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/galley/stops")
	u.click(`[data-field=stand-add]`)
	u.until("they can be read", `document.querySelector('[data-field="/stops/stand/lockHead"]')`)
	u.retype("/stops/stand/lockHead", "4")
	u.until(
		"the head stop moves", `document.querySelector('[data-figure="stop-head stop-lock end"]')?.dataset.mm === '3'`,
	)
	u.says("the corners cross by 4 mm")
	u.eachSaysWhy()
}

// Hardware of the list is begun from, changed and kept as one's own: what was not asked for
// stays with it.
func TestHardwareBegunFromAnother(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/galley/lock")
	u.click(`[data-field=hardware-open]`)
	u.click(`[data-field=hardware-begin]`)
	u.until("it is filled in", `document.querySelector('[data-field=hole-what-1]')?.value === 'turn and release'`)
	u.do(chromedp.Focus(`[data-field=hole-up-1]`))
	u.js(`(document.activeElement.select(), '')`)
	u.keys("-72", kb.Enter)
	u.until("it is used", `document.querySelector('[data-hardware="bathroom lock, 64 mm case, changed"]')`)
	j, err := job.Decode(u.get("/api/jobs/tern-house/file"))
	require.NoError(t, err)
	require.Len(t, j.Kit.Hardware, 1)
	d := j.Kit.Hardware[0]
	assert.Equal(t, -72.0, d.Holes[1].Up.MM())
	assert.Equal(t, -28.0, d.Plate.Up.MM(), "of which nothing was asked")
	assert.Len(t, d.Cuts, 2)
}

// The leaves of a pair stand side by side on Measure, Slab and Cut, each with the figures of its own page.
func TestBothLeavesSideBySide(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/saloon/measure")
	u.until("both", `document.querySelectorAll('[data-both-leaves] thead th').length === 2`)
	for n, leaf := range []string{"1", "2"} {
		u.open("/j/tern-house/saloon/slab")
		u.click(fmt.Sprintf("[data-leaf=%q]", leaf))
		u.until("the leaf", fmt.Sprintf(`document.querySelector('[data-leaf=%q]')?.ariaPressed === 'true'`, leaf))
		for _, id := range []string{"finished-width", "finished-length"} {
			assert.Equal(t, u.figure(id), u.figure(fmt.Sprintf("both-%d-%s", n+1, id)), id)
		}
		u.open("/j/tern-house/saloon/cut")
		u.until("what comes off both", `document.querySelectorAll('[data-both-leaves] tbody tr').length === 6`)
	}
}
