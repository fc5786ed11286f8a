package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// A third hinge set midway meets an old latch recess and is moved clear; the top one is
// refused where it would be, with the nearest places; old hinges are looked over, and a
// larger leaf is let further into its pocket.
func TestHingesMovedClearOfWhatIsThere(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/hinges")
	u.until("the hinges are drawn", `document.querySelector('.drawn [data-view=hinges]')`)
	u.click(`input[name="/hinges/count"]:not(:checked)`)
	u.until("three", `document.querySelector('[data-figure="hinge-jamb-hinge.middle"]')`)
	midway := u.figure("hinge-jamb-hinge.middle")
	u.click(`[data-field=avoid-open]`)
	avoid := func(what, at, long string) {
		u.do(chromedp.Focus(`[data-field=avoid-what]`))
		u.keys(what)
		u.do(chromedp.Focus(`[data-field=avoid-at]`))
		u.keys(at)
		u.do(chromedp.Focus(`[data-field=avoid-long]`))
		u.keys(long, kb.Enter)
		u.until(what+" is kept", `document.querySelector('[data-avoid="`+what+`"]')`)
	}
	avoid("latch recess", midway, "60")
	u.until(
		"it is moved clear",
		`document.querySelector('[data-code=hinge-moved-clear]')?.innerText.includes('clear of the latch recess')`,
	)
	assert.NotEqual(t, midway, u.figure("hinge-jamb-hinge.middle"))
	avoid("rail joint", "170", "40")
	u.until(
		"the top one is refused",
		`document.querySelector('[data-code=hinge-not-clear]')?.innerText.includes('It stands clear if moved ')`,
	)
	u.until("the step waits", `document.querySelector('[data-onward][aria-disabled=true]')`)

	u.open("/j/tern-house/chart/hinges")
	u.click(`main details summary`)
	u.click(`[data-old="0"]`)
	u.until("it is looked over", `document.querySelector('[data-field="/hinges/old/0/long"]')`)
	u.retype("/hinges/old/0/long", "90")
	u.until(
		"the leaf is longer",
		`document.querySelector('[data-code=pocket-cut-on]')?.innerText.includes('Cut it 10 mm further downward')`,
	)
	u.click(`[data-fault="0 loose"]`)
	u.until(
		"the cure is said",
		`document.querySelector('[data-code=old-hinge]')?.innerText.includes('Old top hinge: it is loose. Drive a longer screw')`,
	)
	u.js(
		`(() => { const s = document.querySelector('[data-field=hinge-size]'); s.value = 'ball-75';
			s.dispatchEvent(new Event('change', { bubbles: true })); return ''; })()`,
	)
	u.until("its measures are filled in", `document.querySelector('[data-field="/hinges/leaf"]').value === '76'`)
	u.until(
		"the pocket is longer now",
		`document.querySelector('[data-code=pocket-filled]')?.innerText.includes('Glue in a patch of 14 mm')`,
	)
}

// A slab that was made for the other hand is refused before it is cut; an old strike beside
// the hinges stops the measuring.
func TestASlabOfTheWrongHandIsCaught(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/slab")
	u.js(`(document.querySelectorAll('main details').forEach((d) => { d.open = true; }), '')`)
	u.click(`input[name="/slab/made"]`)
	u.click(`[data-field=top-down]`)
	u.until("the top is down", `document.querySelector('[data-code=top-is-down]')`)
	u.js(`(document.querySelectorAll('input[name="/slab/made"]')[1].click(), '')`)
	u.until(
		"it is refused",
		`document.querySelector('[data-code=made-for-other-hand]')?.innerText.includes('made for hinges on the right, and this opening has them on the left')`,
	)
	u.until("the step waits", `document.querySelector('[data-onward][aria-disabled=true]')`)
	u.ctrl("z")
	u.until("it is taken back", `!document.querySelector('[data-code=made-for-other-hand]')`)
	u.open("/j/tern-house/linen/measure")
	u.js(`(document.querySelector('[data-about]').open = true, '')`)
	u.click(`input[name="/seen/strike"]`)
	u.until("the strike is beside the hinges", `document.querySelector('[data-code=strike-at-hinges]')`)
}

// One rod for three doors: two whose hinges go by the same rule meet it, but for the lower
// ones where the slabs differ; one with other pockets says how it differs.
func TestAStoryRodForTheHouse(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/chart/hinges")
	u.click(`[data-rod-link]`)
	u.until("the rod is marked", `document.querySelectorAll('[data-rod-door]').length >= 5`)
	u.until(
		"163 is on it",
		`[...document.querySelectorAll('[data-story-rod] [data-mm]')].some((e) => e.dataset.mm === '163')`,
	)
	assert.Equal(
		t, "it hangs on 3 hinges",
		u.js(`document.querySelector('[data-rod-door=boots]').innerText.replace('Boot room', '').trim()`),
	)
	u.until(
		"the linen room says how it differs",
		`document.querySelector('[data-rod-door=linen]').innerText.includes('top hinge, top: 10 mm higher in the jamb')`,
	)
}

// A hinge is measured once and kept for the job; another door hangs on it, and it cannot be
// taken out of the kit while one does. What else the slab could hang on says what speaks
// against each; a pocket is tapped for its figure.
func TestAHingeKeptForTheJob(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/hinges")
	u.click(`[data-field=hinge-ways]`)
	u.until(
		"the heavy one is too wide",
		`document.querySelector('[data-way="ball-4half"]')?.innerText.includes('goes right through')`,
	)
	u.click(`[data-way="butt-100"] button.btn`)
	u.until("it is taken", `document.querySelector('[data-field="/hinges/leaf"]').value === '100'`)
	u.retype("/hinges/leaf", "90")
	u.click(`[data-field=own-hinge-open]`)
	for field, text := range map[string]string{
		"own-hinge": "brass from the attic", "own-screws": "3", "own-gauge": "8", "own-long": "30",
	} {
		u.do(chromedp.Focus(`[data-field=` + field + `]`))
		u.keys(text)
	}
	u.click(`[data-field=own-hinge-keep]`)
	u.until(
		"the door hangs on it",
		`document.querySelector('[data-field=hinge-size]').selectedOptions[0].textContent === 'brass from the attic'`,
	)
	u.until(
		"its screws are told",
		`document.querySelector('[data-screws]')?.innerText.includes('3 a leaf, no. 8 × 30 mm. Drill 2.5 mm for softwood')`,
	)
	u.js(
		`(document.querySelector('.drawn [data-pocket]').dispatchEvent(new MouseEvent('click', { bubbles: true })), '')`,
	)
	u.until(
		"the pocket says why", `document.querySelector('dialog[open]')?.textContent.includes('top hinge on the slab')`,
	)
	u.keys(kb.Escape)

	u.open("/j/tern-house/galley/hinges")
	u.until(
		"another door has it too",
		`[...document.querySelector('[data-field=hinge-size]').options].some((o) => o.textContent === 'brass from the attic')`,
	)
	u.open("/kit/tern-house")
	u.js(
		`([...document.querySelectorAll('[data-kept] button')].find((b) => b.textContent.includes('attic')).click(), '')`,
	)
	u.until(
		"it stays",
		`document.querySelector('main [role=alert]')?.innerText.includes('Linen room was read with a tool, or hangs on hinges')`,
	)
}

// The hinges of one door stand as on another; a jamb that bellies in is followed by the
// slab's edge between the pockets.
func TestHingesAsOnAnotherDoorAndAHollowedEdge(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/hinges")
	u.js(`(document.querySelector('[name="/hinges/from"][value=own]').click(), '')`)
	u.until("places can be taken over", `document.querySelector('[data-field=as-on] option[value=chart]')`)
	u.js(
		`(() => { const s = document.querySelector('[data-field=as-on]'); s.value = 'chart';
			s.dispatchEvent(new Event('change', { bubbles: true })); return ''; })()`,
	)
	u.until(
		"they stand as in the chart room",
		`document.querySelector('[data-figure="hinge-slab-hinge.top"]')?.dataset.mm === '161'`,
	)

	// The boot room is signed off: it is opened again before anything of it is changed.
	u.open("/j/tern-house/boots/hinges")
	u.until("it says so", `document.querySelector('[data-locked]')`)
	u.open("/j/tern-house/boots/log")
	u.until("its story", `document.querySelector('[data-field="reopen-why"]')`)
	u.do(chromedp.Focus(`[data-field="reopen-why"]`))
	u.keys("another slab", "\r")
	u.until("open again", `document.querySelector('[data-sign]')`)
	u.open("/j/tern-house/boots/hinges")
	u.until("it could be hollowed", `document.querySelector('[data-code=jamb-hollows]')`)
	u.click(`[data-field="/hinges/hollow"]`)
	u.until(
		"the alternative is taken",
		`document.querySelector('[data-field="/hinges/hollow"]').checked &&
			!document.querySelector('[data-code=jamb-hollows]')`,
	)
	u.open("/j/tern-house/boots/cut")
	u.until(
		"the cut follows the jamb",
		`document.querySelector('main').innerText.includes('Hollow it between the recesses to follow the jamb')`,
	)
}
