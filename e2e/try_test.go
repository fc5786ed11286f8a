package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/thorough"
)

// world is a true opening, 826 by 2032 and square, and the slab that hangs in it: its pins'
// margins, and by how much it was cut wider than it was recorded. All in mm.
type world struct {
	top, bottom float64
	wide        float64
	swollen     float64 // in the middle of its lock edge
	off         map[frame.Side][3]float64
}

// gap is the light beside the slab as it was recorded, by hand: a slab on two pins turns
// about them.
func (w world) gap(m job.Made, side string, at float64) float64 {
	const width, height, leaf = 826.0, 2032.0, 75.0
	pin := func(i int) float64 { return height - m.Margin.MM() - m.Hinges[i].Down.MM() - leaf/2 }
	vt, vb := pin(0), pin(len(m.Hinges)-1)
	lean := (w.top - w.bottom) / (vt - vb)
	spine := func(v float64) float64 { return w.bottom + lean*(v-vb) }
	along := func(list []measure.Length, reach float64) float64 {
		f := at / reach * float64(len(list)-1)
		i := min(int(f), len(list)-2)
		return list[i].MM() + (f-float64(i))*(list[i+1]-list[i]).MM()
	}
	off := func(s frame.Side, reach float64) float64 {
		o, f := w.off[s], at/reach
		if f < 0.5 {
			return o[0] + 2*f*(o[1]-o[0])
		}
		return o[1] + (2*f-1)*(o[2]-o[1])
	}
	long, wide := m.Foot[0].MM(), m.Lock[0].MM()
	switch side {
	case "hinge":
		return spine(at)
	case "lock":
		mid := 1 - 4*(at/long-0.5)*(at/long-0.5)
		return width - spine(at) - along(m.Lock, long) - w.wide - w.swollen*mid + off(frame.Lock, long)
	case "head":
		return m.Margin.MM() + lean*at - along(m.Head, wide) + off(frame.Head, wide)
	}
	return height - m.Margin.MM() - along(m.Foot, wide) - lean*at + off(frame.Foot, wide)
}

// did is what was done to the slab.
func (w *world) did(d job.Did) {
	w.top += d.Pack[0].MM()
	w.bottom += d.Pack[len(d.Pack)-1].MM()
	for _, p := range d.Planed {
		o := w.off[p.Side]
		for i, v := range p.Off {
			o[i] += v.MM()
		}
		w.off[p.Side] = o
	}
}

func (u person) opening(path string) job.Opening {
	u.t.Helper()
	var v struct{ Opening job.Opening }
	require.NoError(u.t, json.Unmarshal(u.get(path), &v))
	return v.Opening
}

// readGaps reads what is offered of the slab that hangs until nothing more is, with packers
// to a quarter of a millimetre, and gives how many were not as predicted.
func (u person) readGaps(w world, api string) (rubs, off int) {
	u.t.Helper()
	for range 40 {
		u.until(
			"a gap or enough",
			`document.querySelector('[data-enough], [data-fits], [data-round]') || document.querySelector('[data-next]') &&
				document.querySelector('[data-field="next-gap"]')?.value === ''`,
		)
		if u.count(`[data-round="looked"]`) > 0 {
			u.click("[data-ill]") // as if the light swung there
			u.until("the place has the focus", `document.activeElement?.dataset.field === 'gap-at'`)
			found := w.gap(*u.opening(api).Tried[0].Made, "lock", 1250)
			u.keys("1250\r", fmt.Sprintf("%.2f", float64(int(found*4+0.5))/4), "\r")
			u.until(
				"it is kept for its place alone",
				`document.querySelector('[data-gap-row="gap lock 1250"] [data-lump]') &&
					document.querySelector('[data-round="looked"]')`,
			)
			u.click("[data-well]")
			u.until("it was looked along", `!document.querySelector('[data-round="looked"]')`)
			continue
		}
		if u.count(`[data-round="slid"]`) > 0 {
			u.click("[data-well]")
			u.until("it fits", `document.querySelector('[data-fits]')`)
		}
		if u.count("[data-enough], [data-fits]") > 0 {
			return rubs, u.count(`[data-off]`)
		}
		name := u.js(`document.querySelector('[data-next]').dataset.next`)
		made := *u.opening(api).Tried[0].Made
		var at float64
		var side string
		_, err := fmt.Sscanf(name, "gap %s %f", &side, &at)
		require.NoError(u.t, err, name)
		v := w.gap(made, side, at)
		if v < 0.3 {
			rubs++
			u.click(`[data-sight="rubs"]`)
		} else {
			u.do(chromedp.Focus(`[data-field="next-gap"]`))
			u.keys(fmt.Sprintf("%.2f", float64(int(v*4+0.5))/4), "\r")
		}
		u.until(name+" is kept", fmt.Sprintf(
			`[...document.querySelectorAll('[data-gap-row]')].some((e) => e.dataset.gapRow === %q) &&
				document.querySelector('[data-next]')?.dataset.next !== %q`,
			name, name,
		))
	}
	require.Fail(u.t, "never enough")
	return 0, 0
}

// over reports whether nothing more is worth doing: it fits, or hangs as near as it gets, which is then taken so.
func (u person) over() bool {
	u.t.Helper()
	u.until("what to do, or nothing", `document.querySelector('[data-fits], [data-near], [data-did-it]')`)
	if u.count("[data-near]") > 0 {
		u.click("[data-take-near]")
		u.until("it counts as done", `document.querySelector('[data-left-so]')`)
		return true
	}
	return u.count("[data-fits]") > 0
}

func (u person) count(sel string) (n int) {
	u.t.Helper()
	_, err := fmt.Sscan(u.js(fmt.Sprintf(`String(document.querySelectorAll(%q).length)`, sel)), &n)
	require.NoError(u.t, err)
	return n
}

// photograph is a small JPEG that says where it was taken.
func photograph(t *testing.T, dir string) string {
	img := image.NewRGBA(image.Rect(0, 0, 80, 60))
	for i := range 80 * 60 {
		img.Set(i%80, i/80, color.RGBA{uint8(3 * (i % 80)), 120, 90, 255})
	}
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, img, nil))
	exif := []byte("Exif\x00\x00GPSLatitude 52.1 GPSLongitude 1.6")
	raw := append([]byte{0xff, 0xd8, 0xff, 0xe1, 0, byte(len(exif) + 2)}, exif...)
	path := filepath.Join(dir, "door.jpg")
	require.NoError(t, os.WriteFile(path, append(raw, b.Bytes()[2:]...), 0o600))
	return path
}

// A whole door from its first reading to its sign-off, on the desk and on a phone's size: a
// slab that was cut proud and whose bottom leaf lies too deep rubs; a hinge is packed, edges
// are planed, and what was predicted comes true; a photograph, a sign-off that is opened again,
// and its first autumn.
func TestAWholeDoor(t *testing.T) {
	sizes := map[string][2]int64{"phone": {390, 844}}
	if thorough.On() {
		sizes["desk"] = [2]int64{1280, 800}
	}
	for name, size := range sizes {
		t.Run(name, func(t *testing.T) {
			u := sit(t, "serve")
			u.do(chromedp.EmulateViewport(size[0], size[1]))
			u.open("/")
			u.do(chromedp.Focus(`[data-field="job-name"]`))
			u.keys("Gull Cottage", "\r")
			u.until("the walk", `document.querySelector('[data-field="opening-name"]')`)
			u.do(chromedp.Focus(`[data-field="opening-name"]`))
			u.keys("Study", "\r")
			u.readToSureEnough(map[string]string{
				"width": "826", "height": "2032", "plumb": "0", "level": "0", "square": "0", "straight": "0",
				"diagonal": "2193.48",
			})
			api := "/api/jobs" + strings.TrimSuffix(
				strings.Replace(strings.TrimPrefix(u.js("location.pathname"), "/j"), "/measure", "", 1), "/",
			)
			at := strings.LastIndexByte(api, '/')
			api = api[:at] + "/openings" + api[at:]
			u.finish("/slab")
			for field, v := range map[string]string{
				"/slab/width": "826", "/slab/length": "2040", "/slab/thickness": "35",
			} {
				u.until("the slab's entries", fmt.Sprintf(`document.querySelector('[data-field=%q]')`, field))
				u.retype(field, v)
				u.until(
					field+" is kept", fmt.Sprintf(`document.querySelector('[data-field=%q]').value === %q`, field, v),
				)
			}
			for _, next := range []string{"/margins", "/cut", "/hinges", "/swing", "/try"} {
				u.finish(next)
			}
			u.click("[data-record-cut]")
			u.until("it hangs", `document.querySelector('[data-hang="1"]')`)
			made := *u.opening(api).Tried[0].Made
			w := world{top: 3, bottom: 1.3, off: map[frame.Side][3]float64{}}
			w.wide = w.gap(made, "lock", 1850) // so that it just touches at the head
			rubs, _ := u.readGaps(w, api)
			assert.Positive(t, rubs, "it rubs")
			packed, planed := false, false
			for hang := 2; !u.over(); hang++ {
				require.Less(t, hang, 6, "the least work brings it in")
				u.until("what to do", `document.querySelector('[data-did-it]')`)
				u.click("[data-did-it]")
				u.until("hung again", fmt.Sprintf(`document.querySelector('[data-hang="%d"]')`, hang))
				hangs := u.opening(api).Tried[0].Hangs
				d := *hangs[len(hangs)-1].Did
				w.did(d)
				for _, p := range d.Pack {
					packed = packed || p > 0
				}
				planed = planed || len(d.Planed) > 0
				_, off := u.readGaps(w, api)
				assert.LessOrEqual(t, off, 1, "what was foretold comes true, nineteen times in twenty")
			}
			assert.True(t, packed, "a hinge was packed")
			assert.True(t, planed, "an edge was planed")
			for _, side := range []string{"lock", "head"} {
				for _, at := range []float64{100, 700} {
					assert.InDelta(t, 3, w.gap(made, side, at), 1.1, "%s at %g, as it truly is", side, at)
				}
			}

			u.do(chromedp.SetUploadFiles(`[data-field="photo"]`, []string{photograph(t, t.TempDir())}))
			u.until("the photograph", `document.querySelector('[data-photo]')?.complete`)
			shown := u.get(strings.TrimPrefix(u.js(`document.querySelector('[data-photo]').src`), u.p.URL))
			assert.NotContains(t, string(shown), "GPS", "without where it was taken")
			none := filepath.Join(t.TempDir(), "none.jpg")
			require.NoError(t, os.WriteFile(none, []byte("a note"), 0o600))
			u.do(chromedp.SetUploadFiles(`[data-field="photo"]`, []string{none}))
			u.until(
				"what is no picture is refused",
				`document.body.innerText.includes('none.jpg cannot be read as a picture')`,
			)

			u.signOff("Wren")
			req, err := http.NewRequest(
				http.MethodPatch, u.p.URL+api, strings.NewReader(`[{"op":"add","path":"/room","value":"Loft"}]`),
			)
			require.NoError(t, err)
			now, err := http.Get(u.p.URL + api)
			require.NoError(t, err)
			require.NoError(t, now.Body.Close())
			req.Header.Set("Content-Type", "application/json-patch+json")
			req.Header.Set("If-Match", now.Header.Get("ETag"))
			res, err := http.DefaultClient.Do(req)
			require.NoError(t, err)
			require.NoError(t, res.Body.Close())
			assert.Equal(t, http.StatusConflict, res.StatusCode, "a signed door is locked")

			u.do(chromedp.Focus(`[data-field="reopen-why"]`))
			u.keys("the stops were moved")
			u.click("[data-reopen]")
			u.until(
				"open again",
				`document.querySelector('[data-sign]') && document.body.innerText.includes('the stops were moved')`,
			)
			u.click("[data-sign]")
			u.until("signed once more", `document.querySelector('[data-signed]')`)

			// Its first autumn: the stile has swollen, most in its middle.
			u.do(chromedp.Focus(`[data-field="season"]`))
			u.keys("first damp autumn")
			u.click("[data-revisit]")
			u.until("looked at again", `document.querySelector('[data-hang]')?.innerText.includes('first damp autumn')`)
			w.swollen = 1.6
			u.readGaps(w, api)
			u.until(
				"the old gaps stand beside the new",
				`[...document.querySelectorAll('summary')].some((s) => s.innerText.startsWith('Try 1'))`,
			)
			u.until("what to do about it", `document.querySelector('[data-way]')`)
			u.open(u.js("location.pathname.replace('/try', '/log')"))
			u.until(
				"its story",
				`document.querySelector('[data-story]')?.innerText.includes('first damp autumn') &&
					document.querySelector('[data-story] img')`,
			)
			u.click(`[data-field="changes-open"]`)
			u.until(
				"each change with whose hand it was",
				`document.querySelector('[data-changes]').innerText.includes('Wren')`,
			)
		})
	}
}

// A gap's answer is on the screen at once: from Enter to the last redrawn figure.
func TestATryIsRedrawnAtOnce(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/try")
	u.until("a gap is offered", `document.querySelector('[data-field="next-gap"]')`)
	u.js(`(() => {
		window.took_ = [];
		document.addEventListener('keydown', (e) => { if (e.key === 'Enter') window.from_ = performance.now(); }, true);
		new MutationObserver(() => { if (window.from_) window.took_[window.n_] = performance.now() - window.from_; }).observe(document.querySelector('main'), { childList: true, subtree: true, characterData: true });
		return '';
	})()`)
	for i := range 3 {
		u.js(fmt.Sprintf(`(window.n_ = %d, '')`, i))
		rows := u.count("[data-gap-row]")
		u.do(chromedp.Focus(`[data-field="next-gap"]`))
		u.keys("2.5", "\r")
		u.until("it is kept", fmt.Sprintf(
			`document.querySelectorAll('[data-gap-row]').length === %d &&
				document.querySelector('[data-field="next-gap"]')?.value === ''`,
			rows+1,
		))
	}
	// To be under 100 on a quiet machine; how long a busy one takes says nothing of the program.
	t.Log("ms from Enter to the last figure: " + u.js(`window.took_.map((t) => t.toFixed(0)).join(', ')`))
	assert.Equal(t, "3", u.js(`String(window.took_.filter((t) => t > 0).length)`), "each answer redraws its figures")
}

// What was done otherwise than told is taken down as it was, and what is forced is worked out.
func TestDoneInOnesOwnWay(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/try")
	u.click(`[data-field="only-open"]`)
	u.click(`[data-only="plane-lock"]`)
	u.until("the lock edge alone", `document.querySelector('[data-way="plane-lock"]')`)
	u.click(`[data-did-other]`)
	u.until("hung again", `document.querySelector('[data-hang="3"]')`)
	u.click(`[data-field="did-open"]`)
	u.click(`[data-also="lock"]`)
	u.until("its places", `document.querySelector('[data-field="/tried/0/hangs/2/did/planed/0/off/2"]')`)
	u.retype("/tried/0/hangs/2/did/planed/0/off/2", "1")
	u.retype("/tried/0/hangs/2/did/pack/0", "-0.25")
	u.retype("/tried/0/hangs/2/did/up", "-1.5")
	u.click(`[data-also="fore"]`)
	u.until("a hinge to or fro", `document.querySelector('[data-field="/tried/0/hangs/2/did/fore/0"]')`)
	u.retype("/tried/0/hangs/2/did/fore/0", "1")
	u.until("each is kept", `document.querySelector('[data-undo]').title.includes('moved toward you by 1')`)
	did := u.opening("/api/jobs/tern-house/openings/linen").Tried[0].Hangs[2].Did
	assert.Equal(t, []measure.Length{measure.FromMM(-0.25), 0}, did.Pack)
	assert.Equal(t, [3]measure.Length{0, 0, measure.FromMM(1)}, did.Planed[0].Off)
	assert.Equal(t, measure.FromMM(-1.5), did.Up)
	assert.Equal(t, measure.FromMM(1), did.Fore[0])
	u.retype("/tried/0/hangs/2/did/pack/0", "-9")
	u.until(
		"past what pocket or screw allows it is refused",
		`document.querySelector('main [role=alert]')?.innerText.includes('move of a hinge')`,
	)
}

// A door that hangs already is put right from its gaps, with no plan before it, and ends in the same log.
func TestADoorThatHangsAlready(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house")
	u.until("the walk", `document.querySelector('[data-field="opening-name"]')`)
	u.click(`[data-field="opening-hangs"]`)
	u.do(chromedp.Focus(`[data-field="opening-name"]`))
	u.keys("Larder", "\r")
	u.until("what is wrong with it", `document.querySelector('[data-service]') && document.querySelectorAll('[data-step]').length === 4`)
	api := "/api/jobs" + strings.TrimSuffix(strings.TrimPrefix(u.js("location.pathname"), "/j"), "/try")
	at := strings.LastIndexByte(api, '/')
	api = api[:at] + "/openings" + api[at:]
	u.click(`[data-settle-at="/slab/width"]`)
	u.until("its key leads to its width", `document.activeElement?.dataset.field === '/slab/width'`)
	u.click(`[data-field="wrong-sticks"]`)
	u.says("Where it rubs, say so instead of a gap.")
	for field, v := range map[string]string{"/slab/width": "820", "/slab/length": "2023", "/slab/thickness": "35"} {
		u.retype(field, v)
		u.until(field+" is kept", fmt.Sprintf(`document.querySelector('[data-field=%q]').value === %q`, field, v))
	}
	u.click("[data-read-gaps]")
	u.until("its gaps are asked for", `document.querySelector('[data-hang="1"]')`)
	made := *u.opening(api).Tried[0].Made
	w := world{top: 3, bottom: 1, off: map[frame.Side][3]float64{}}
	w.wide = w.gap(made, "lock", 1850)
	rubs, _ := u.readGaps(w, api)
	assert.Positive(t, rubs)
	for hang := 2; !u.over(); hang++ {
		require.Less(t, hang, 6, "the least work brings it in")
		u.until("what to do", `document.querySelector('[data-did-it]')`)
		u.click("[data-did-it]")
		u.until("shut again", fmt.Sprintf(`document.querySelector('[data-hang="%d"]')`, hang))
		hangs := u.opening(api).Tried[0].Hangs
		w.did(*hangs[len(hangs)-1].Did)
		u.readGaps(w, api)
	}
	u.signOff("Wren")
}

// A slab that does not go in is shut against its frame, and pencilled: its marks are read, minus where it overlaps.
func TestASlabThatDoesNotGoIn(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/beam/try")
	u.click("[data-record-cut]")
	u.until("all gaps are asked for, in one walk", `document.querySelector('[data-more="15"]') && document.querySelector('[data-next^="gap head 50"]')`)
	u.click(`[data-outside="false"]`)
	u.until("it is pencilled", `document.querySelector('[data-outside="true"]') && document.querySelector('[data-question]').innerText.includes('pencil')`)
	assert.Zero(t, u.count(`[data-question] [data-sight]`), "no packer tells of it")
	u.do(chromedp.Focus(`[data-field="next-gap"]`))
	u.keys("-2", "\r")
	u.until("the mark is kept", `document.querySelector('[data-gap-row^="gap head 50"]')?.innerText.includes('2')`)
	hang := u.opening("/api/jobs/tern-house/openings/beam").Tried[0].Hangs[0]
	assert.True(t, hang.Outside)
	assert.InDelta(t, -2, hang.Gaps[0].Value.MM(), 1e-9)
	u.click(`[data-outside="true"]`)
	u.until("it goes in after all", `document.querySelector('[data-outside="false"]')`)
}

// A slab that came bored is too wide: its hinge edge comes down and its recesses go in, never its lock edge. And where the
// hinge edge is fitted first, the sheet begins with it.
func TestABoredSlabThatIsTooWide(t *testing.T) {
	u := sit(t, "demo")
	u.open("/kit/tern-house")
	u.until("the kit", `document.querySelector('[data-field="hinge-first"]')`)
	u.click(`[data-field="hinge-first"]`)
	u.until("it is kept", `document.querySelector('[data-field="hinge-first"]').checked`)
	u.open("/j/tern-house/beam/cut")
	u.until("the hinge edge first", `document.querySelector('[data-edge]')?.dataset.edge === 'hinge'`)

	u.open("/j/tern-house/beam/try")
	u.click("[data-record-cut]")
	u.until("it hangs", `document.querySelector('[data-hang="1"]')`)
	c, api := client{url: u.p.URL}, "/api/jobs/tern-house/openings/beam"
	var v struct{ Opening job.Opening }
	tag, err := c.send(t, "GET", api, "", "", &v)
	require.NoError(t, err)
	for _, g := range []struct {
		side string
		at   int
		gap  float64
	}{
		{"lock", 100, 0.5},
		{"lock", 950, 0.5},
		{"lock", 1750, 0.5},
		{"hinge", 100, 3},
		{"hinge", 1750, 3},
		{"head", 100, 3},
		{"head", 400, 3},
		{"head", 650, 3},
		{"head", 740, 3},
		{"foot", 100, 19},
		{"foot", 650, 19},
	} {
		tag, err = c.send(t, "PATCH", api+"?label=gap", tag, fmt.Sprintf(
			`[{"op": "add", "path": "/tried/0/hangs/0/gaps/-", "value": {"id": "%s%d", "kind": "gap", "offer": %q, "side": %q, "at": %d, "value": %g}}]`,
			g.side, g.at, v.Opening.Tried[0].Hangs[0].ID, g.side, g.at, g.gap,
		), &v)
		require.NoError(t, err)
	}
	u.says("Take the leaves off the slab.")
	u.says("Let the slab's recesses in by as much as was planed off beside each, flat.")
	u.click("[data-did-it]")
	u.until("hung again", `document.querySelector('[data-hang="2"]')`)
	for _, p := range u.opening(api).Tried[0].Hangs[1].Did.Planed {
		assert.NotEqual(t, frame.Lock, p.Side)
		assert.Equal(t, p.Side == frame.Hinge, p.Deeper)
	}
}
