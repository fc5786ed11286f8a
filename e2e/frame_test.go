package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/frame"
)

// A frame is made to a slab, and the door hung in it, from the first figure to the sign-off: clear sizes
// and cut list from slab, wall and rough opening; a wall too thin for it and a rough opening too narrow
// are said; once it stands it is read like any opening, nothing comes off the slab, and it fits at the
// first hang.
func TestAFrameMadeToASlab(t *testing.T) {
	u := sit(t, "serve")
	u.begin("Dunlin House", "Pantry")
	u.until("how it is gone about", `document.querySelector('input[name="/measuring"]')`)
	u.js(
		`([...document.querySelectorAll('label')].find((l) => l.innerText.startsWith('a frame made to the')).querySelector('input').click(), '')`,
	)
	u.until("the frame", `document.querySelector('[data-lining]')`)
	fill := func(field, text string) {
		t.Helper()
		u.retype(field, text)
		u.until(field+" is kept", fmt.Sprintf(`document.querySelector('[data-field=%q]').value === %q`, field, text))
	}
	fill("/slab/width", "819")
	fill("/slab/length", "2022.5")
	fill("/slab/thickness", "35")
	// 819 and twice 3.5; 2022.5, 3.5 and 6: common practice.
	u.until(
		"its clear sizes",
		`document.querySelector('[data-figure="frame-width"]')?.dataset.mm === '826' &&
			document.querySelector('[data-figure="frame-height"]')?.dataset.mm === '2032'`,
	)
	for i := range 6 {
		fill(fmt.Sprintf("/lining/wall/%d", i), "124")
	}
	fill("/lining/width/0", "870")
	fill("/lining/width/1", "894")
	fill("/lining/width/2", "894")
	fill("/lining/height/0", "2075")
	fill("/lining/height/1", "2075")
	// The floor is asked for, level or not; under the lock jamb alone is not enough.
	u.says("How much higher is the floor under the lock jamb?")
	fill("/lining/floor", "0")
	u.says("How much higher is the floor at its highest")
	fill("/lining/high", "0")
	// 826 and twice 28 is 882; with 2 a side it wants 886.
	u.says("2 mm of packing a side makes it 16 mm too wide")
	u.until("it cannot stand", `document.querySelector('[data-stands]').disabled`)
	fill("/lining/width/0", "894")
	fill("/lining/wall/3", "60")
	u.says("A lining for a slab 35 mm thick needs 67 mm")
	fill("/lining/wall/3", "126")
	u.until(
		"a taper",
		`document.body.innerText.includes('Rip to a taper') && !document.querySelector('[data-stands]').disabled`,
	)
	for part, long := range map[string]string{
		"wall.hinge": "2041", "wall.lock": "2041", "wall.head": "882", "lining-part.brace": "826",
	} {
		assert.Equal(t, long, u.js(fmt.Sprintf(`document.querySelector('[data-part=%q]').dataset.long`, part)), part)
	}
	// Its pockets are cut on the trestles, before it stands, from the rod: 150 and the head margin.
	door := strings.TrimSuffix(u.js("location.pathname"), "/measure")
	u.open(door + "/hinges")
	u.until("the marks", `document.querySelector('[data-mm="153.5"]') && document.querySelector('[data-mm="150"]')`)
	u.open(door + "/measure")
	u.click(`[data-stands="false"]`)
	u.until("it is read like any other", `document.querySelector('[data-next]')`)
	u.readToSureEnough(map[string]string{
		"width": "826", "height": "2032", "plumb": "0", "level": "0", "square": "0", "straight": "0",
		"diagonal": "2193.48",
	})
	for _, next := range []string{"/slab", "/margins", "/cut"} {
		u.finish(next)
	}
	u.until(
		"nothing comes off",
		`[...document.querySelectorAll('main *')].some((e) => e.innerText === 'Nothing comes off the lock edge.')`,
	)
	for _, next := range []string{"/hinges", "/swing", "/try"} {
		u.finish(next)
	}
	u.click("[data-record-cut]")
	u.until("it hangs", `document.querySelector('[data-hang="1"]')`)
	api := "/api/jobs" + strings.TrimPrefix(door, "/j")
	at := strings.LastIndexByte(api, '/')
	api = api[:at] + "/openings" + api[at:]
	w := world{top: 3.5, bottom: 3.5, off: map[frame.Side][3]float64{}}
	rubs, off := u.readGaps(w, api)
	assert.Zero(t, rubs)
	assert.LessOrEqual(t, off, 1)
	assert.True(t, u.over(), "it fits at the first hang")
	u.signOff("Wren")
}

// A set comes with its door in it: its feet are cut to the floor, one too wide is refused, and its cards set the frame
// and cut no slab. 1981, 3.5 and 6 are 1990.5; with legs of 2010, 19.5 come off, and 3 less where the floor is 3 lower.
func TestADoorThatComesInItsFrame(t *testing.T) {
	u := sit(t, "serve")
	u.begin("Eider House", "Cloakroom")
	u.until("how it is gone about", `document.querySelector('input[name="/measuring"]')`)
	u.js(
		`([...document.querySelectorAll('label')].find((l) => l.innerText.startsWith('a frame made to the')).querySelector('input').click(), '')`,
	)
	u.pick("/lining/comes", "set")
	u.until("the set", `document.querySelector('[data-field="/lining/leg"]')`)
	for field, text := range map[string]string{
		"/slab/width": "762", "/slab/length": "1981", "/slab/thickness": "35", "/lining/leg": "2010",
		"/lining/outer": "840", "/lining/width/0": "838", "/lining/width/1": "838", "/lining/width/2": "838",
		"/lining/height/0": "2040", "/lining/height/1": "2040", "/lining/floor": "-3", "/lining/high": "0",
	} {
		u.retype(field, text)
		u.until(field+" is kept", fmt.Sprintf(`document.querySelector('[data-field=%q]').value === %q`, field, text))
	}
	u.says("the set is 840 mm over all. With 2 mm of packing a side it is 6 mm too wide")
	u.until("it cannot stand", `document.querySelector('[data-stands]').disabled`)
	u.retype("/lining/outer", "825")
	u.until("it goes in", `!document.querySelector('[data-stands]').disabled`)
	for side, off := range map[string]string{"hinge": "19.5", "lock": "16.5"} {
		assert.Equal(t, off, u.js(fmt.Sprintf(`document.querySelector('[data-foot=%q]').innerText.trim()`, side)), side)
	}
	assert.Equal(t, 0, u.count(`[data-field="/lining/wall/0"]`), "no board is ripped to the wall")
	door := strings.TrimSuffix(u.js("location.pathname"), "/measure")
	u.open(strings.Replace(door, "/j/", "/cards/", 1))
	u.says("Cut the feet: 19.5 mm off the hinge leg, 16.5 mm off the lock leg.")
	u.says("Set the frame")
}
