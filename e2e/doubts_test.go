package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/thorough"
)

// Each Stop and Care of the demo's doors has a key, which puts the focus on a field of the step that settles it, in
// whatever disclosure that is.
func TestDoubtsLeadToTheirCure(t *testing.T) {
	u := sit(t, "demo")
	keys := 0
	doors := []string{"/j/tern-house/linen/", "/j/tern-house/beam/", "/j/alder-cottage/pantry/"}
	if thorough.On() {
		doors = append(doors, "/j/tern-house/chart/", "/j/tern-house/galley/", "/j/tern-house/saloon/")
	}
	for _, door := range doors {
		for _, step := range []string{"measure", "slab", "margins", "cut", "hinges", "swing", "lock", "try", "stops"} {
			at := fmt.Sprintf(`document.querySelector('main h1')?.dataset.at === %q`, step)
			u.open(door + step)
			u.until(door+step, at)
			assert.Equal(t, "0", u.js(`String([...document.querySelectorAll('main [data-finding=stop], main [data-finding=care]')]
				.filter((e) => !e.querySelector('[data-settle-at]') && !e.closest('[data-clash]')).length)`), "%s%s", door, step)
			n := u.count(`main [data-settle-at]`)
			for i := range n {
				u.open(door + step)
				u.until(door+step, fmt.Sprintf(at+` && document.querySelectorAll('main [data-settle-at]').length === %d`, n))
				pointer := u.js(fmt.Sprintf(`((b) => { b.click(); return b.dataset.settleAt; })(document.querySelectorAll('main [data-settle-at]')[%d])`, i))
				u.until("the field of "+pointer+" from "+door+step, `((e) => e.closest('main') && e.matches('input, select, textarea') && e.checkVisibility())(document.activeElement)`)
				keys++
			}
		}
	}
	t.Logf("%d keys", keys)
	assert.Greater(t, keys, 4)
}

// A finished step whose inputs are other ones tells which changes did that, and whose they were; a note does not.
func TestAChangedStepSaysWhatChanged(t *testing.T) {
	u := sit(t, "serve")
	u.begin("Gull Cottage", "Study")
	u.readToSureEnough(map[string]string{
		"width": "826", "height": "2032", "plumb": "0", "level": "0", "square": "0", "straight": "0", "diagonal": "2193.48",
	})
	u.finish("/slab")
	u.step("measure")
	assert.Equal(t, 0, u.count("[data-changed-step]"))
	u.retype("/readings/0/value", "825.5")
	u.until("what changed", `document.querySelector('[data-changed-step=measure]')`)
	said := u.js(`document.querySelector('[data-changed-step=measure]').innerText`)
	assert.Contains(t, said, "825.5")
	assert.Equal(t, 1, u.count("[data-changed-step] li"), said)
	assert.Regexp(t, `^Finished .*\d\d:\d\d`, said)
}

// What is spoken is said once: findings are no live region of their own, and a doubt that was told is not told again.
func TestADoubtIsSpokenOnce(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/chart/measure")
	u.until("the readings", `document.querySelector('[data-field="/readings/0/value"]')`)
	assert.Equal(t, 0, u.count("main [aria-live]"))
	assert.NotContains(t, u.js(`document.querySelector('[data-spoken]').innerText`), "Take care")
	u.retype("/readings/0/value", "812")
	u.until("it is spoken", `document.querySelector('[data-spoken]').innerText !== ''`)
	spoken := u.js(`document.querySelector('[data-spoken]').innerText`)
	first, _, _ := strings.Cut(spoken, ".")
	assert.Equal(t, 1, strings.Count(spoken, first), spoken)
}
