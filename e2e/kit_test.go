package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// begin begins a job and its first door, by key.
func (u person) begin(job, door string) {
	u.open("/")
	u.do(chromedp.Focus(`[data-field="job-name"]`))
	u.keys(job, kb.Enter)
	u.until("the walk", `document.querySelector('[data-field="opening-name"]')`)
	if door == "" {
		return
	}
	u.do(chromedp.Focus(`[data-field="opening-name"]`))
	u.keys(door, kb.Enter)
	u.until("measuring", `document.querySelector('[data-field="next-reading"]')`)
}

// pick chooses in a list.
func (u person) pick(field, value string) {
	u.t.Helper()
	u.until(
		value+" can be chosen", fmt.Sprintf(`document.querySelector('[data-field=%q] option[value=%q]')`, field, value),
	)
	// In one go: the page may be drawn anew between a value that is set and its being told.
	u.js(fmt.Sprintf(
		`((s) => { s.value = %q; s.dispatchEvent(new Event('change', { bubbles: true })); return '';
			})(document.querySelector('[data-field=%q]'))`,
		value, field,
	))
}

// A saw that was proved on scrap: its offset is refused below nought, and its clamp marks are the cut less a
// millimetre and the offset: 7 off at the top of the hinge edge, 6 and 128 less what the tape rounds; by a track 128
// less.
func TestTheSawOfTheKit(t *testing.T) {
	u := sit(t, "demo")
	u.open("/kit/tern-house")
	u.until("the saw", `document.querySelector('[data-saw]')`)
	u.until("what a door costs with it", `document.querySelector('[data-costs]')?.innerText.includes('minutes')`)
	u.click(`[data-marking="rod"]`)
	u.until("marked by a rod", `document.querySelector('[data-marking="rod"]').checked`)
	u.retype("saw-near", "-128")
	u.click(`[data-field="saw-keep"]`)
	u.until("refused", `document.querySelector('[data-saw] [role=alert]')?.innerText.includes('cannot stand -128')`)
	u.retype("saw-near", "128")
	u.retype("saw-far", "127")
	u.click(`[data-field="saw-keep"]`)
	u.until("no saw cut", `document.querySelector('[data-saw] [role=alert]')?.innerText.includes('no saw cut')`)
	u.open("/j/tern-house/chart/cut")
	assert.Equal(t, "133.5", u.figure("guide-hinge-0"), "as it was kept before")
	u.pick("/cut/means/hinge", "plane")
	u.until("planed", `!document.querySelector('[data-sawing="hinge"]') &&
		document.querySelector('[data-edge="hinge"]').innerText.includes('power plane')`)

	u.open("/kit/tern-house")
	u.until("the saw again", `document.querySelector('[data-saw]')`)
	u.pick("saw-guide", "track")
	u.retype("saw-far", "2.5")
	u.click(`[data-field="saw-keep"]`)
	u.until("kept", `document.querySelector('[data-saw]') && !document.querySelector('[data-saw] [role=alert]')`)
	u.open("/j/tern-house/chart/cut")
	u.pick("/cut/means/hinge", "saw")
	u.until("sawn", `document.querySelector('[data-sawing="hinge"]')`)
	assert.Equal(t, "5.5", u.figure("guide-hinge-0"))
	u.open("/cards/tern-house/chart")
	u.says("of 19")
}

// A tape whose hook is bent by 0.8 mm is proved against rods, and then every width read
// with it is put right: the door comes out wider by what was found.
func TestATapeWithABentHookIsProvedAndReadsOn(t *testing.T) {
	u := sit(t, "serve")
	u.begin("Weir House", "")
	u.click("[data-kit]")
	u.until("the kit", `document.querySelector('[data-field="tool-instrument"]')`)
	u.do(chromedp.Focus(`[data-field="tool-name"]`))
	u.keys("the bent tape", kb.Enter)
	u.until("in the kit", `document.querySelector('[data-tool="tape"]')?.innerText.includes('the bent tape')`)
	u.pick("tool-instrument", "rods")
	u.click("[data-add-tool]")
	u.until("and the rods", `document.querySelector('[data-tool="rods"]')`)

	u.click(`[data-prove="tape"]`)
	u.do(chromedp.Focus(`[data-field="proof-own"]`))
	u.keys("825", kb.Enter)
	u.until(
		"one reading is not enough",
		`document.querySelector('[data-proof="tape"]').innerText.includes('at least 1 more')`,
	)
	u.keys("825.5", kb.Enter, "825", kb.Enter, "825.5", kb.Enter, "825", kb.Enter, "825.5", kb.Enter)
	u.do(chromedp.Focus(`[data-field="proof-better"]`))
	u.keys("826", kb.Enter, "826", kb.Enter, "826", kb.Enter, "826.5", kb.Enter)
	u.until(
		"it says what was found", `document.querySelector('[data-found]')?.innerText.includes('reads short by 0.7 mm')`,
	)
	u.click("[data-keep]")
	u.until("and keeps it", `document.querySelector('[data-tool="tape"] [data-proved="yes"]')`)

	u.open("/")
	u.click(`a[href^="/j/"]`)
	u.until("the walk", `document.querySelector('[data-field="opening-name"]')`)
	u.do(chromedp.Focus(`[data-field="opening-name"]`))
	u.keys("Loft", kb.Enter)
	u.until(
		"the first reading says with what", `document.querySelector('[data-with]')?.dataset.with === 'the bent tape'`,
	)
	u.focused("next-reading")
	u.keys("825.5", kb.Enter)
	u.until("then the height", `document.querySelector('[data-next^="height"]')`)
	u.focused("next-reading")
	u.keys("2030", kb.Enter)
	u.until(
		"another is asked for, and why",
		`document.querySelector('[data-asked] [data-next]')?.dataset.next !== '' &&
			/saves about/.test(document.querySelector('[data-asked]').innerText)`,
	)
	u.click("[data-step=slab]")
	u.until("the size", `document.querySelector('[data-figure="finished-width"]')`)
	// 825.5 as read, 0.65 that the tape reads short, less two margins of 3: rounded up.
	assert.Contains(t, []string{"820", "820.5"}, u.figure("finished-width"))
}

// At the trestles: one card fills the screen, its figures to be read from where one
// stands; keys turn and tick, and what is ticked stays so until its figures change.
func TestTheWorkOneCardAtATime(t *testing.T) {
	u := sit(t, "demo")
	u.open("/cards/tern-house/galley")
	u.until("the first card", `document.querySelector('[data-card]')`)
	first := u.js(`document.querySelector('[data-card]').dataset.card`)
	var cards int
	_, err := fmt.Sscanf(u.js(`document.querySelector('[data-card] h1 + p').innerText`), "1 of %d", &cards)
	require.NoError(t, err)
	assert.LessOrEqual(t, cards, 16)
	size := func() string {
		return u.js(
			`String(Math.min(...[...document.querySelectorAll('[data-card] [data-figure] [data-shown] *')].map((e) => parseFloat(getComputedStyle(e).fontSize))) >= (innerWidth < 640 ? 40 : 56))`,
		)
	}
	assert.Equal(t, "true", size())
	u.keys(kb.ArrowRight)
	u.until("the second", fmt.Sprintf(`document.querySelector('[data-card]').dataset.card !== %q`, first))
	u.keys(kb.ArrowLeft)
	u.until("and back", fmt.Sprintf(`document.querySelector('[data-card]').dataset.card === %q`, first))
	u.keys(kb.Enter)
	u.until(
		"ticked, and on to the second", fmt.Sprintf(`document.querySelector('[data-card]').dataset.card !== %q`, first),
	)
	u.keys(" ")
	u.until("the space turns too", `document.querySelector('[data-card] h1 + p').innerText.startsWith('3 of')`)
	u.open("/cards/tern-house/galley")
	u.until(
		"it begins at what is not done", `document.querySelector('[data-card] h1 + p')?.innerText.startsWith('2 of')`,
	)
	u.keys(kb.ArrowLeft)
	u.until("and remembers what is", `document.querySelector('[data-card] h1 + p').innerText.includes('done')`)

	u.do(chromedp.EmulateViewport(390, 844))
	u.until("on a phone", `innerWidth === 390`)
	assert.Equal(t, "true", size())
	assert.Equal(
		t, "true",
		u.js(`String(document.documentElement.scrollWidth <= 390 && document.documentElement.scrollHeight <= 844)`),
	)
	u.do(chromedp.EmulateViewport(1280, 800))

	// Another margin at the foot changes the head's figures not, but the foot's.
	u.open("/j/tern-house/galley/margins")
	u.until("margins", `document.querySelector('[data-field="/margins/foot"]')`)
	u.retype("/margins/foot", "9")
	u.until("kept", `document.activeElement?.dataset.field !== '/margins/foot'`)
	u.open("/cards/tern-house/galley")
	u.until("the head stays done", `document.querySelector('[data-card] h1 + p')?.innerText.startsWith('2 of')`)
}

// A slab offered up is read once round, each place by a figure, a word, or Enter for
// the same as before.
func TestASlabOfferedUpIsReadOnceRound(t *testing.T) {
	u := sit(t, "serve")
	u.begin("Mere Farm", "Dairy")
	u.until(
		"nothing is wrong yet",
		`!document.querySelector('[data-finding=stop]') && document.querySelector('[data-view=unread]')`,
	)
	u.click(`input[name="/measuring"][value="offered"], label:has(input[name="/measuring"]):nth-of-type(3) input`)
	u.until("what stands there", `document.querySelector('[data-field="offer-width"]')`)
	u.do(chromedp.Focus(`[data-field="offer-width"]`))
	u.keys("815", kb.Enter, "2015", kb.Enter)
	u.until("the first place", `document.querySelector('[data-next^="gap hinge"]')`)
	u.focused("next-reading")
	u.keys("3", kb.Enter)
	u.until("the second, with the same offered", `document.querySelector('[data-gap="same"]')?.innerText.includes('3')`)
	u.focused("next-reading")
	u.keys(kb.Enter)
	u.until("taken", `document.querySelectorAll('[data-reading]').length === 2`)
	u.until("the third place", `document.querySelector('[data-next="gap hinge 1000"]')`)
	u.click(`[data-gap="thinnest"]`)
	u.until("the fourth", `document.querySelector('[data-next="gap hinge 1500"]')`)
	u.click(`[data-gap="nothing"]`)
	u.until("nothing passes is kept so", `document.querySelectorAll('[data-reading]').length === 4`)
	var file struct {
		Job struct {
			Openings []struct {
				Measuring string
				Readings  []struct {
					Value   float64
					Blocked bool
				}
			}
		}
	}
	id := u.js(`location.pathname.split('/')[2]`)
	require.NoError(t, json.Unmarshal(u.get("/api/jobs/"+id+"/file"), &file))
	o := file.Job.Openings[0]
	assert.Equal(t, "offered", o.Measuring)
	assert.Equal(t, []float64{3, 3, 1, 0}, []float64{
		o.Readings[0].Value, o.Readings[1].Value, o.Readings[2].Value, o.Readings[3].Value,
	})
	assert.True(t, o.Readings[3].Blocked)
}

// The cut sheet carries its drawing onto paper, whole and beside all of its
// marks, on one page of A4 or letter.
func TestTheCutSheetOnPaper(t *testing.T) {
	u := sit(t, "demo")
	u.open("/")
	u.js(`(localStorage.setItem('theme', 'night'), '')`)
	u.open("/j/tern-house/chart/cut")
	u.until("the cut sheet", `document.querySelector('.drawn svg')`)
	// inches; ISO 216 and ANSI/ASME Y14.1, from memory
	a4, letter := [2]float64{210 / 25.4, 297 / 25.4}, [2]float64{8.5, 11}
	for _, paper := range [][2]float64{a4, letter} {
		var pdf []byte
		u.do(func(ctx context.Context, tab *chromedp.Target) (chromedp.Void, error) {
			r, err := cdp.Call(ctx, tab, page.PrintToPDF, page.PrintToPDFParams{
				PaperWidth: paper[0], PaperHeight: paper[1],
			})
			pdf = r.Data
			return chromedp.Void{}, err
		})
		assert.Len(t, regexp.MustCompile(`/Type /Page\b`).FindAll(pdf, -1), 1, "pages of %v in", paper)
		file := filepath.Join(t.TempDir(), "cut.pdf")
		require.NoError(t, os.WriteFile(file, pdf, 0o600))
		out, err := exec.CommandContext(t.Context(), "pdftoppm", "-r", "60", "-png", "-singlefile", file).Output()
		require.NoError(t, err)
		img, err := png.Decode(bytes.NewReader(out))
		require.NoError(t, err)
		long := 0 // upright lines of the drawing, as long as the slab is drawn: its two edges at least
		for x := range img.Bounds().Dx() {
			dark := 0
			for y := range img.Bounds().Dy() / 3 {
				if r, _, _, _ := img.At(x, y).RGBA(); r < 0x8000 {
					dark++
				}
			}
			if dark > 100 {
				long++
			}
		}
		assert.GreaterOrEqual(t, long, 2, "the slab is on the paper, above its marks")
	}

	u.do(func(ctx context.Context, tab *chromedp.Target) (chromedp.Void, error) {
		_, err := cdp.Call(ctx, tab, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Media: "print"})
		return chromedp.Void{}, err
	}, chromedp.EmulateViewport(794, 1123))
	u.until("as it prints", `matchMedia('print').matches && innerWidth === 794`)
	assert.Equal(t, "true", u.js(`(() => {
		const r = document.querySelector('.drawn svg').getBoundingClientRect();
		return String(r.width > 200 && r.height > 200 && r.left >= 0 && r.right <= 794);
	})()`), "the drawing is there, to read")
	assert.Equal(
		t, "4 2", u.js(`['[data-edge] > table', '[data-sawing] table'].map((q) =>
			[...document.querySelectorAll(q)].filter((e) => e.checkVisibility()).length).join(' ')`),
		"and the four edges, two of them with a guide",
	)
	assert.Equal(
		t, "rgb(255, 255, 255)", u.js(`getComputedStyle(document.documentElement).backgroundColor`), "ink on white",
	)
	assert.Equal(t, "false", u.js(`String(document.querySelector('[data-rod]').checkVisibility())`), "the rod is not")
}
