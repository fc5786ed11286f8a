package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// The list of jobs says how each stands; a job that was begun waits for its first door's name, and one Enter leads from
// there to its first reading.
func TestTheFrontDoor(t *testing.T) {
	u := sit(t, "demo")
	u.open("/")
	u.until("how it stands", `document.querySelector('[data-job=tern-house] [data-stands]')?.innerText.startsWith('6 doors on the walk, ')`)
	u.until("what is next", `/^Next: .+\. .+: .+/.test(document.querySelector('[data-job=tern-house] [data-next-door]')?.innerText)`)
	u.until("and its light", `document.querySelector('[data-job=tern-house] svg[role=img]')`)
	assert.Contains(t, u.js(`document.querySelector('[data-job=tern-house]').innerText`), "last touched")
	u.do(chromedp.Focus(`[data-field="job-name"]`))
	u.keys("Heron Court", kb.Enter)
	u.focused("opening-name")
	u.keys("Study", kb.Enter)
	u.focused("next-reading")
	u.until("at its first reading", `document.querySelector('main h1')?.dataset.at === 'measure'`)

	// What to buy waits until it was said how the slab is built.
	u.keys("826", kb.Enter)
	u.until("the height", `document.querySelector('[data-next]')?.dataset.next.startsWith('height')`)
	u.focused("next-reading")
	u.keys("2032", kb.Enter)
	u.step("slab")
	u.until("sizes", `document.querySelector('[data-stock]')`)
	assert.NotContains(t, u.js(`document.querySelector('main').innerText`), "buy this")
	u.pick("construction", "solid")
	u.until("now it says what to buy", `document.querySelector('main').innerText.includes('buy this or more')`)
}

// A door is tried without a job, and kept or thrown away after.
func TestADoorToTry(t *testing.T) {
	u := sit(t, "serve")
	for _, keep := range []bool{false, true} {
		u.open("/")
		u.click("[data-try-door]")
		u.focused("next-reading")
		u.keys("826", kb.Enter)
		u.until("it is read", `document.querySelector('[data-reading]')`)
		walk := u.js(`location.pathname.split('/').slice(0, 3).join('/')`)
		u.open(walk)
		u.until("it is asked", `document.querySelector('[data-trying]')`)
		if keep {
			u.click("[data-keep-it]")
			u.until("it is asked no more", `!document.querySelector('[data-trying]') && document.querySelector('[data-door]')`)
			u.open("/")
			u.until("it is a job", `document.querySelectorAll('[data-job]').length === 1`)
			continue
		}
		u.click("[data-throw-away]")
		u.until("it is gone, and can be put back", `location.pathname === '/' && document.querySelector('[data-taken-off]') && !document.querySelector('[data-job]')`)
	}
}

// A slab that is left as it is counts as done at once, which is said and can be taken back; once it is signed off the walk
// says so, whatever steps are open.
func TestLeftSoAndSigned(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/try")
	u.click("[data-leave-so]")
	u.until("it counts as done", `document.querySelector('[data-left-so]') && !document.querySelector('[data-leave-so]')`)
	u.click("[data-take-up]")
	u.until("it is taken up again", `!document.querySelector('[data-left-so]') && document.querySelector('[data-leave-so]')`)
	u.click("[data-leave-so]")
	u.until("left once more", `document.querySelector('[data-left-so]')`)
	u.step("log")
	u.until("it can be signed off", `document.querySelector('[data-sign][aria-disabled=false]')`)
	u.do(chromedp.Focus(`[data-field="who"]`))
	u.keys("Wren", kb.Tab)
	u.click("[data-sign]")
	u.until("signed", `document.querySelector('[data-signed]')`)
	u.open("/j/tern-house")
	u.until("the walk says so", `document.querySelector('[data-door=linen]')?.innerText.includes('Signed off')`)
}

// In a window taller than it is wide, as of a tablet on end, nothing stands past its edge.
func TestATallWindow(t *testing.T) {
	u := sit(t, "demo")
	u.do(chromedp.EmulateViewport(1024, 1366))
	for _, step := range []string{"measure", "cut", "hinges"} {
		u.open("/j/tern-house/galley/" + step)
		u.until(step, `document.querySelector('.drawn svg') && document.querySelector('h1')`)
		assert.Equal(t, "1024", u.js(`String(document.documentElement.scrollWidth)`), step)
	}
}
