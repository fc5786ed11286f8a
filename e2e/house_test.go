package e2e

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
)

// order is the doors of the walk as they stand on the page, by ID.
const order = `[...document.querySelectorAll('[data-door]')].map((d) => d.dataset.door).join(' ')`

// text is a PDF as poppler reads it.
func text(t *testing.T, pdf []byte) string {
	t.Helper()
	file := filepath.Join(t.TempDir(), "p.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.CommandContext(t.Context(), "pdftotext", "-layout", file, "-").Output()
	require.NoError(t, err)
	return strings.Join(strings.Fields(string(out)), " ")
}

// A schedule with bad lines is matched once and remembered; nothing comes in unless all is
// well, or its good lines alone were asked for; and it goes off again in one step.
func TestAScheduleFromTheScreen(t *testing.T) {
	u := sit(t, "demo")
	file := filepath.Join(t.TempDir(), "doors.csv")
	require.NoError(t, os.WriteFile(file, []byte(
		"Tür;Raum;Band;Breite;Höhe\n101;Flur;left;762,5;1981\n102;Bad;inward;762;1981\n;Bad;right;762;1981\n103;Küche;right;838;2040\n",
	), 0o600))
	u.open("/j/tern-house")
	u.click("[data-papers]")
	send := func() {
		u.do(chromedp.SetUploadFiles(`[data-field="schedule-file"]`, []string{file}))
		u.until("it is looked at", `document.querySelector('[data-columns]')`)
	}
	u.until("the papers", `document.querySelector('[data-field="schedule-file"]')`)
	send()
	u.until(
		"no column is known, so no line is a door",
		`document.querySelector('[data-good]').dataset.good === '0' &&
			document.querySelector('[data-take-schedule]').disabled`,
	)
	for header, id := range map[string]string{
		"Tür": "name", "Raum": "room", "Band": "hand", "Breite": "width", "Höhe": "length",
	} {
		u.pick("column "+header, id)
		u.until(
			header+" is matched",
			fmt.Sprintf(`document.querySelector('[data-field=%q]').value === %q`, "column "+header, id),
		)
	}
	u.until(
		"two are doors and two cannot be",
		`document.querySelector('[data-good]').dataset.good === '2' &&
			document.querySelector('[data-good]').dataset.bad === '2'`,
	)
	u.until(
		"each says why",
		`document.querySelector('[data-line="3"]').innerText.includes('Band: “inward” is not a side') &&
			document.querySelector('[data-line="4"]').innerText.includes('names no door')`,
	)
	// What is wrong is mended in its place, and stays mended while columns are matched; it is put back here, so that
	// the good lines alone come in.
	mend := func(line int, header, text string) {
		u.do(chromedp.Focus(fmt.Sprintf(`[data-mend="%s, line %d"]`, header, line)))
		u.js(`(document.activeElement.select(), '')`)
		u.keys(text, kb.Enter)
	}
	mend(3, "Band", "DIN links")
	u.until("three are doors", `document.querySelector('[data-good]').dataset.good === '3'`)
	mend(4, "Tür", "102a")
	u.until("all are", `document.querySelector('[data-good]').dataset.good === '4' && document.querySelector('[data-good]').dataset.bad === '0'`)
	send()
	u.until("as the file has it", `document.querySelector('[data-good]').dataset.good === '0'`)
	for header, id := range map[string]string{
		"Tür": "name", "Raum": "room", "Band": "hand", "Breite": "width", "Höhe": "length",
	} {
		u.pick("column "+header, id)
		u.until(
			header+" is matched",
			fmt.Sprintf(`document.querySelector('[data-field=%q]').value === %q`, "column "+header, id),
		)
	}
	u.click("[data-take-schedule]")
	u.until("two came in", `document.querySelector('[data-came]')?.dataset.came === '2'`)
	u.open("/j/tern-house")
	u.until(
		"on the walk",
		`document.querySelectorAll('[data-door]').length === 8 && document.body.innerText.includes('762.5 × 1981')`,
	)

	u.open("/papers/tern-house")
	send()
	u.until(
		"as it was matched before",
		`document.querySelector('[data-columns]').dataset.known === 'true' &&
			document.querySelector('[data-field="column Breite"]').value === 'width'`,
	)
	u.until(
		"they are on the walk already",
		`document.querySelector('[data-good]').dataset.good === '0' && document.querySelector('[data-line="2"]').innerText.includes('is on the walk already')`,
	)
	require.NoError(
		t,
		os.WriteFile(
			file, []byte("Tür;Raum;Band;Breite;Höhe\n104;Flur;left;762;1981\n105;Flur;left;762;1981\n"), 0o600,
		),
	)
	send()
	u.until(
		"all is well",
		`document.querySelector('[data-good]').dataset.good === '2' && document.querySelector('[data-good]').dataset.bad === '0'`,
	)
	u.click("[data-take-schedule]")
	u.until("in", `document.querySelector('[data-came]')?.dataset.came === '2'`)
	u.click("[data-undo-schedule]")
	u.until("off again", `!document.querySelector('[data-came]')`)
	u.open("/j/tern-house")
	u.until("as before", `document.querySelectorAll('[data-door]').length === 8`)

	require.NoError(t, os.WriteFile(file, []byte("%PDF-1.7 not a table at all"), 0o600))
	u.open("/papers/tern-house")
	u.do(chromedp.SetUploadFiles(`[data-field="schedule-file"]`, []string{file}))
	u.until("what is none is refused", `document.querySelector('[role=alert]')?.innerText.includes('This is a PDF')`)
}

// Three doors are chosen: what to load for them, counted by hand, and what is set once.
func TestLoadForThreeDoors(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house")
	u.click("[data-choosing]")
	for _, id := range []string{"chart", "beam", "galley"} {
		u.click(fmt.Sprintf(`[data-choose=%q]`, id))
	}
	u.until("three", `document.querySelector('[data-chosen]').dataset.chosen === '3'`)
	u.click("[data-load-chosen]")
	u.until(
		"the list",
		`document.querySelector('[data-load-for]')?.innerText.startsWith('For Chart room, Under the beam, Galley.')`,
	)
	for name, n := range map[string]string{
		// 2 of the chart room and 3 of the galley; their 5 × 2 × 4 screws less a long one a slab.
		"hinge-size.butt-100": "5 ×", "hinge-size.butt-75": "2 ×", "screw.size long=38 mm no=10": "38 ×",
		"screw.size long=75 mm no=10": "2 ×", "screw.size long=32 mm no=8": "11 ×",
		"load.wedge": "9 ×", "load.packer thick=2.5 mm": "2 ×", "load.packer thick=2 mm": "2 ×",
	} {
		u.until(name, fmt.Sprintf(`document.querySelector('[data-count=%q]')?.innerText === %q`, name, n))
	}
	setting := `[...document.querySelectorAll('[data-setting]')].map((s) => s.innerText.replaceAll('\n', ' ')).join('|')`
	u.until(
		"gauges are set once for two doors",
		setting+`.includes("Marking gauge: hinge recesses, from the pull face 32 mm wide Chart room, Galley")`,
	)
	u.until("a template's hole", setting+`.includes("hole of the template 29 × 61 mm Under the beam")`)
	u.until("the cutting list", `document.querySelectorAll('[data-cutting] tbody tr').length === 3`)

	u.click(`[data-tick="load.wedge"]`)
	u.do(chromedp.Navigate(u.js(`location.href`)))
	u.until("a tick outlives a reload", `document.querySelector('[data-tick="load.wedge"]')?.checked`)
	paper := text(t, u.get("/api/jobs/tern-house/paper?kind=load&doors=chart,beam,galley"))
	assert.Contains(t, paper, "5 × 100 mm (4 in) butt")
	assert.Contains(t, paper, "Cutting list, in mm")
}

// Choices are copied to two doors, seen before, and taken back in one step; and new doors
// begin with them where that was asked for.
func TestChoicesFromTheScreen(t *testing.T) {
	u := sit(t, "demo")
	opening := func(id string) (o job.Opening) {
		var v struct{ Opening job.Opening }
		require.NoError(t, json.Unmarshal(u.get("/api/jobs/tern-house/openings/"+id), &v))
		return v.Opening
	}
	before := opening("beam")
	u.open("/j/tern-house")
	u.click("[data-choosing]")
	for _, id := range []string{"beam", "boots", "chart"} {
		u.click(fmt.Sprintf(`[data-choose=%q]`, id))
	}
	u.click("[data-copying]")
	u.pick("copy-from", "galley")
	u.click(`[data-part="margins"]`)
	u.until(
		"what would change is seen",
		`document.querySelector('[data-copied=beam]')?.innerText.includes('hinge: 75 mm (3 in) butt → 100 mm (4 in) butt')`,
	)
	u.until(
		"a signed door stays as it is",
		`document.querySelector('[data-copied=boots]').innerText.includes('signed off')`,
	)
	u.until(
		"margins were not asked for", `!document.querySelector('[data-copied=beam]').innerText.includes('margins:')`,
	)
	u.click(`[data-field="copy-later"]`)
	u.click("[data-copy]")
	u.until(
		"done, and said",
		`document.querySelector('[data-deed]')?.innerText.includes('2 doors now have the choices of Galley, and new doors begin with them')`,
	)
	assert.Equal(t, "butt-100", opening("beam").Hinges.Size)
	assert.Equal(t, "bathroom-64", opening("chart").Lock.Hardware)
	assert.Equal(t, before.Margins, opening("beam").Margins)
	u.until(
		"the job says what new doors begin with",
		`document.querySelector('[data-usual]')?.innerText.includes('hinges, lock')`,
	)
	u.click("[data-undo-deed]")
	u.until("taken back", `!document.querySelector('[data-deed]') && !document.querySelector('[data-usual]')`)
	assert.Equal(t, before, opening("beam"))
	assert.Equal(t, "surface-60", opening("chart").Lock.Hardware)
}

// Doors are found, put elsewhere by key and by drag, and back.
func TestTheWalkInHand(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house")
	u.until("in order", order+` === 'linen chart boots beam galley saloon'`)
	u.do(chromedp.Focus(`[data-move="beam"]`))
	u.do(chromedp.KeyEvent(kb.ArrowUp, chromedp.KeyModifiers(chromedp.ModifierAlt)))
	u.until(
		"one place earlier, the focus with it",
		order+` === 'linen chart beam boots galley saloon' && document.activeElement.dataset.move === 'beam'`,
	)
	u.do(chromedp.KeyEvent(kb.ArrowDown, chromedp.KeyModifiers(chromedp.ModifierAlt)))
	u.until("and back", order+` === 'linen chart boots beam galley saloon'`)

	at := func(selector string) (x, y float64) {
		_, err := fmt.Sscan(u.js(fmt.Sprintf(
			`((r) => (r.left + r.width / 2) + ' ' + (r.top + r.height / 2))(document.querySelector(%q).getBoundingClientRect())`,
			selector,
		)), &x, &y)
		require.NoError(t, err)
		return x, y
	}
	x, y := at(`[data-move="saloon"]`)
	toX, toY := at(`[data-door="chart"]`)
	mouse := func(kind input.DispatchMouseEventType, x, y float64) {
		u.do(chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft))
	}
	mouse(chromedp.MousePressed, x, y)
	for i := range 6 {
		f := float64(i+1) / 6
		mouse(chromedp.MouseMoved, x+(toX-x)*f, y+(toY-y)*f)
	}
	u.until("it is over the chart room", `document.querySelector('[data-door=chart][data-over]')`)
	mouse(chromedp.MouseReleased, toX, toY)
	u.until("dropped on the chart room, it takes its place", order+` === 'linen saloon chart boots beam galley'`)
	u.open("/j/tern-house")
	u.until("it stays there", order+` === 'linen saloon chart boots beam galley'`)
	u.do(chromedp.Focus(`[data-move="saloon"]`))
	u.do(chromedp.KeyEvent(kb.ArrowDown, chromedp.KeyModifiers(chromedp.ModifierAlt)))
	u.until("moved", order+` === 'linen chart saloon boots beam galley'`)
	u.click("[data-undo-deed]")
	u.until("undone", order+` === 'linen saloon chart boots beam galley'`)

	u.do(chromedp.Focus("[data-home]"))
	u.press("/")
	u.focused("search")
	u.keys("hall slab")
	u.until("found by room and step", order+` === 'chart'`)
	u.until("it says how many", `document.querySelector('[data-found]').innerText.startsWith('1 of 6 doors')`)
	u.js(`(document.querySelector('[data-found] button').click(), '')`)
	u.pick("filter-trouble", "done")
	u.until("what is done", order+` === 'boots'`)
	u.pick("filter-trouble", "")
	u.pick("order", "now")
	u.until("those of one step together, what is done last", order+` === 'saloon beam galley chart linen boots'`)
	u.until("in that order nothing is moved", `!document.querySelector('[data-move]')`)
}

// The door card and the house book, from the screen and from the command line.
func TestPapersOfTheHouse(t *testing.T) {
	u := sit(t, "demo")
	u.open("/papers/tern-house")
	for kind, says := range map[string][]string{
		"card": {
			"Chart room", "Hinges on the RIGHT", "Hinge edge: 7 at 0", "Latch 1039 down the door", "Linen room",
			"gaps read",
		},
		"book":  {"6 doors in the house", "Signed off", "To order, Tern House", "11 × 100 mm (4 in) butt"},
		"order": {"To order, Tern House", "84 × no. 10 × 38 mm"},
	} {
		link := fmt.Sprintf(`[data-paper=%q]`, kind)
		if kind == "book" { // which may hold many photographs, and so is made on its own
			u.click(link)
			link = `[data-made-file]`
			u.until("it is made", fmt.Sprintf(`document.querySelector(%q)`, link))
		}
		got := text(t, u.get(u.js(fmt.Sprintf(`document.querySelector(%q).getAttribute('href')`, link))))
		for _, s := range says {
			assert.Contains(t, got, s, kind)
		}
	}
	dir := t.TempDir()
	bundle := filepath.Join(dir, "house.zip")
	require.NoError(t, os.WriteFile(bundle, u.get("/api/jobs/tern-house/bundle"), 0o600))
	card := filepath.Join(dir, "card.pdf")
	out, err := command(t, "paper", bundle, "--kind", "card", "--opening", "Chart room", "--out", card)
	require.NoError(t, err, out)
	b, err := os.ReadFile(card)
	require.NoError(t, err)
	assert.Equal(
		t, text(t, u.get("/api/jobs/tern-house/paper?kind=card&doors=chart")), text(t, b),
		"the same from the command line",
	)
	out, err = command(t, "paper", bundle, "--kind", "order", "--out", card)
	require.Error(t, err)
	assert.Contains(t, out, "is there already")
	out, err = command(t, "paper", bundle, "--kind", "order", "--out", card, "--force")
	require.NoError(t, err, out)
	for _, force := range [][]string{nil, {"--force"}} {
		out, err = command(t, append([]string{"schedule", bundle, "--out", bundle}, force...)...)
		require.Error(t, err)
		assert.Contains(t, out, "the file that was read")
	}
	for _, bush := range []string{"1e308", "30 m", "NaN"} {
		out, err = command(t, "sheet", bundle, "--opening", "Chart room", "--template", "hinge", "--bush", bush)
		require.Error(t, err, "a bush of %s: %s", bush, out)
	}
	xlsx := filepath.Join(dir, "house.xlsx")
	out, err = command(t, "schedule", bundle, "--out", xlsx)
	require.NoError(t, err, out)
	assert.FileExists(t, xlsx)
}

// A backup that is fetched while hands save, and restored from the page: all that was
// acknowledged before is in it, and what was there is kept. So from the command line.
func TestBackupUnderLoadAndRestore(t *testing.T) {
	u := sit(t, "serve")
	c := client{url: u.p.URL}
	var head struct{ ID string }
	_, err := c.send(t, "POST", "/api/jobs", "", `{"name": "Plover House", "unit": "mm"}`, &head)
	require.NoError(t, err)
	const people = 4
	var acknowledged [people]int
	doors := make([]string, people)
	for i := range doors {
		var v view
		_, err = c.send(t, "POST", "/api/jobs/"+head.ID+"/openings", "", fmt.Sprintf(`{"name": "Door %d"}`, i), &v)
		require.NoError(t, err)
		doors[i] = "/api/jobs/" + head.ID + "/openings/" + v.Opening.ID
	}
	stop := make(chan struct{})
	var wg sync.WaitGroup
	var mu sync.Mutex
	for i, door := range doors {
		wg.Go(func() {
			var now view
			tag, err := c.send(t, "GET", door, "", "", &now)
			for n := 0; err == nil && n < 60; n++ {
				select {
				case <-stop:
					return
				default:
				}
				if tag, err = c.send(t, "PATCH", door, tag, fmt.Sprintf(
					`[{"op": "add", "path": "/readings/-", "value": {"kind": "width", "at": %d, "value": "826"}}]`,
					100+n,
				), &now); err == nil {
					mu.Lock()
					acknowledged[i] = n + 1
					mu.Unlock()
				}
			}
		})
	}
	defer wg.Wait()
	u.open("/")
	mu.Lock()
	before := acknowledged
	mu.Unlock()
	res, err := http.Get(u.p.URL + u.js(`document.querySelector('[data-backup]').getAttribute('href')`))
	require.NoError(t, err)
	b, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	require.NoError(t, res.Body.Close())
	backup := filepath.Join(t.TempDir(), "backup.db")
	require.NoError(t, os.WriteFile(backup, b, 0o600))
	close(stop)
	wg.Wait()

	_, err = c.send(t, "POST", "/api/jobs", "", `{"name": "Begun later", "unit": "in"}`, &head)
	require.NoError(t, err)
	u.open("/")
	u.until("both jobs", `document.body.innerText.includes('Begun later')`)
	letter := filepath.Join(t.TempDir(), "letter.db")
	require.NoError(t, os.WriteFile(letter, []byte("Dear carpenter"), 0o600))
	u.do(chromedp.SetUploadFiles(`[data-field="restore-file"]`, []string{letter}))
	u.click("[data-restore]")
	u.until(
		"what is none is refused",
		`document.querySelector('[data-safe] [role=alert]')?.innerText.includes('not a backup of Kind Margin')`,
	)
	u.do(chromedp.SetUploadFiles(`[data-field="restore-file"]`, []string{backup}))
	u.click("[data-restore]")
	u.until("restored", `document.querySelector('[data-restored]')?.dataset.restored === '1'`)
	u.until(
		"the list is that of the backup",
		`!document.querySelector('main li')?.innerText.includes('Begun later') &&
			document.body.innerText.includes('Plover House')`,
	)
	for i, door := range doors {
		var now view
		_, err := c.send(t, "GET", door, "", "", &now)
		require.NoError(t, err)
		require.GreaterOrEqual(t, len(now.Opening.Readings), before[i])
		for n, r := range now.Opening.Readings {
			require.Equal(t, float64(100+n), r.At.MM())
		}
	}
	kept, err := filepath.Glob(u.p.Data + ".before-restore*")
	require.NoError(t, err)
	require.Len(t, kept, 1)
	out, err := command(t, "check", "--data", kept[0])
	require.NoError(t, err, out)
	assert.Contains(t, out, "2 jobs", "what was there is kept whole")

	out, err = command(t, "restore", "--data", u.p.Data, kept[0])
	require.Error(t, err, "a program runs on it")
	assert.Contains(t, out, "in use")
	require.NoError(t, u.p.Stop())
	out, err = command(t, "restore", "--data", u.p.Data, kept[0])
	require.NoError(t, err, out)
	assert.Contains(t, out, "2 jobs")
	out, err = command(t, "check", "--data", u.p.Data)
	require.NoError(t, err, out)
	assert.Contains(t, out, "2 jobs")
}

// A backup that the disk cannot hold leaves nothing behind that could be taken for one.
func TestABackupThatTheDiskCannotHold(t *testing.T) {
	data := filepath.Join(t.TempDir(), "real.db")
	p, err := Start(t.Context(), bin, "serve", data)
	require.NoError(t, err)
	var head struct{ ID string }
	_, err = client{url: p.URL}.send(t, "POST", "/api/jobs", "", `{"name": "Real work", "unit": "mm"}`, &head)
	require.NoError(t, err)
	require.NoError(t, p.Stop())
	to := filepath.Join(t.TempDir(), "backup.db")
	// No file may grow past 40 kB, as on a disk with no room.
	out, err := exec.CommandContext(
		t.Context(), "bash", "-c", `ulimit -f 40; exec "$0" backup --data "$1" "$2"`, bin, data, to,
	).CombinedOutput()
	require.Error(t, err, string(out))
	assert.Contains(t, string(out), "no backup was made")
	left, err := filepath.Glob(to + "*")
	require.NoError(t, err)
	assert.Empty(t, left)
	said, err := command(t, "check", "--data", data)
	require.NoError(t, err, said)
}

// The kit of one job is taken over by another, and given back.
func TestAKitForAnotherJob(t *testing.T) {
	u := sit(t, "demo")
	u.open("/kit/alder-cottage")
	u.until(
		"what the other has more",
		`document.querySelector('[data-kit-from]')?.innerText.includes('Tern House also has the yellow tape, the 1.8 m level')`,
	)
	u.click(`[data-take-kit="tern-house"]`)
	u.until("taken over", `document.querySelector('[data-tool=level]') && document.querySelector('[data-undo-kit]')`)
	u.click("[data-undo-kit]")
	u.until("given back", `!document.querySelector('[data-tool=level]') && document.querySelector('[data-take-kit]')`)
}

// A job's pages are in the English of the job, the others in that of the client; a part of another build is not there.
func TestEachPageIsInItsEnglish(t *testing.T) {
	u := sit(t, "demo")
	u.open("/")
	u.until("as the browser is set", `document.documentElement.lang === 'en-GB'`)
	u.pick("client-language", "en-US")
	u.until(
		"as it was chosen",
		`document.documentElement.lang === 'en-US' &&
			document.querySelector('[data-field="client-language"]').value === 'en-US'`,
	)
	u.open("/practice")
	u.until("drills too", `document.body.innerText.includes('Depth of a mortise')`)
	u.open("/j/tern-house/linen/hinges")
	u.until(
		"a job in millimetres is British",
		`document.documentElement.lang === 'en-GB' &&
			document.body.innerText.includes('Recesses: knife round the leaf')`,
	)
	u.open("/j/alder-cottage/pantry/hinges")
	u.until(
		"one in inches American",
		`document.documentElement.lang === 'en-US' &&
			document.body.innerText.includes('Mortises: knife round the leaf')`,
	)
	res, err := http.Get(u.p.URL + "/assets/of-another-build.js")
	require.NoError(t, err)
	defer res.Body.Close()
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
}

// What the load list is the sum of, what saves minutes, and the doors off to be sprayed, in the browser: the galley's
// architrave is on, so scrap goes along for it; the boot room and the linen room hang.
func TestTheVanListAndWhatSavesMinutes(t *testing.T) {
	u := sit(t, "demo")
	u.open("/load/tern-house")
	u.until("the list", `document.querySelector('[data-group="tools"]')`)
	for _, item := range []string{
		"nail puller", "nail punch", "clamps", "scrap blocks and battens", "self-centring bit (clear its dust after each hole)",
		"drill, driver and spare battery (no impact driver on brass)", "pins", "low-tack tape", "thread lock",
	} {
		u.says(item)
	}
	u.says("A hinge rail pays from 2 doors that are alike")
	u.says("a slab that comes bored")
	u.click(`[data-field="spray"]`)
	u.until("two doors", `document.querySelectorAll('[data-spray] li').length === 2`)
	u.says("Cut each number as chisel strokes")
	u.open("/day/tern-house")
	u.until("and in the day", `document.querySelector('[data-saving="rail"]')`)
}

// The jigs of a door: previewed, given out in each form, and refused with what would work.
func TestJigsOfADoor(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/linen/lock")
	u.click(`[data-field="sheets-open"]`)
	u.until("the block, and what it saves", `document.querySelector('[data-template="block"]')?.innerText.includes('Pays from 3 doors')`)
	u.click(`[data-see="block"]`)
	u.until("it is drawn", `document.querySelector('[data-template="block"] img')?.naturalWidth > 0`)
	u.click(`[data-see="case"]`)
	u.until(
		"and refused", `document.querySelector('[data-template="case"] [role=alert]')?.innerText.includes('Use the boring block')`,
	)
	for _, f := range []string{"pdf", "svg", "dxf", "stl"} {
		got := u.get("/api/jobs/tern-house/openings/linen/template?template=block&format=" + f)
		assert.Greater(t, len(got), 500, f)
	}
	for _, template := range []string{"rail", "case"} {
		assert.NotEmpty(t, u.get("/api/jobs/tern-house/openings/galley/template?template="+template+"&format=dxf"))
	}
}

// A handle at the middle of the slab, a gasket and a drop seal, each entered and said.
func TestSmallThingsThatAreAskedFor(t *testing.T) {
	u := sit(t, "demo")
	u.open("/j/tern-house/saloon/lock")
	u.until("its height", `document.querySelector('input[name="/lock/from"][value="middle"]')`)
	u.click(`input[name="/lock/from"][value="middle"]`)
	u.until("at the middle", `Math.abs(parseFloat(document.querySelector('[data-figure="latch-slab"] [data-shown]').innerText) - 1015) < 10`)
	u.open("/j/tern-house/saloon/stops")
	u.retype("/stops/gasket", "6")
	u.says("The gasket is then pressed to 6 mm")
	u.open("/j/tern-house/saloon/margins")
	u.retype("/margins/seal", "4")
	u.says("The seal drops 4 mm")
}
