package api

import (
	"archive/zip"
	"bytes"
	"fmt"
	"log/slog"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/measure"
	"kindmargin/demo"
	"kindmargin/document"
	"kindmargin/store"
)

// tern is the demo's house, brought in; its walk is worked out.
func (s running) tern() (string, Walk) {
	jobs, err := demo.Jobs()
	require.NoError(s.t, err)
	b, err := job.Encode(jobs[0])
	require.NoError(s.t, err)
	j := got[JobHead](s.t, s.do("POST", "/jobs/file", "", b))
	return "/jobs/" + j.ID, s.walk("/jobs/" + j.ID)
}

// walk is the walk of a house, asked for until every plan is there.
func (s running) walk(path string) Walk {
	for {
		if w := got[Walk](s.t, s.do("GET", path, "", nil)); w.Working == 0 {
			return w
		}
	}
}

func (w Walk) door(t *testing.T, name string) OpeningRow {
	for _, d := range w.Openings {
		if d.Name == name {
			return d
		}
	}
	require.Fail(t, "no such door", name)
	return OpeningRow{}
}

func TestTheHouseAtAGlance(t *testing.T) {
	s := run(t)
	path, w := s.tern()
	linen, boots, chart := w.door(t, "Linen room"), w.door(t, "Boot room"), w.door(t, "Chart room")
	assert.Equal(t, job.StepTry, linen.Next)
	assert.Equal(t, job.Step(""), boots.Next)
	assert.True(t, boots.Signed)
	assert.Equal(t, "838 × 2040", chart.Slab)
	drawings := got[[]OpeningDrawing](t, s.do("GET", path+"/drawings?doors="+linen.ID+",gone,"+chart.ID, "", nil))
	require.Len(t, drawings, 2, "one that went off the walk meanwhile is passed over")
	assert.Equal(t, linen.Version, drawings[0].Version)
	assert.NotEmpty(t, drawings[1].Drawing.Light)
	assert.Equal(t, 422, s.do("GET", path+"/drawings", "", nil).status)

	assert.Equal(t, 204, s.do("PUT", path+"/openings/"+chart.ID+"/place", "", WalkPlace{linen.ID}).status)
	assert.Equal(t, "Chart room", s.walk(path).Openings[0].Name)
	assert.Equal(t, 404, s.do("PUT", path+"/openings/"+chart.ID+"/place", "", WalkPlace{"gone"}).status)
}

// A walk that is not worked out in time says so, and the next one has it.
func TestAWalkDoesNotKeepOneWaiting(t *testing.T) {
	c := newPlanCache(slog.New(slog.DiscardHandler))
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "test.db"))
	require.NoError(t, err)
	defer st.Close()
	j := job.NewJob("house", "House", measure.Millimetres)
	for i := range 300 {
		j.Openings = append(j.Openings, thirty(fmt.Sprint("d", i)))
	}
	_, err = st.AddJob(t.Context(), j, store.Once{})
	require.NoError(t, err)
	_, list, _, err := st.Walk(t.Context(), "house", func(string, int64) bool { return false })
	require.NoError(t, err)
	doors := c.of(list, time.Millisecond)
	working := 0
	for _, d := range doors {
		if d.Working {
			working++
			assert.Equal(t, "Door "+d.ID, d.Name, "it is known by name")
		}
	}
	assert.Positive(t, working)
	for working > 0 {
		working = 0
		for _, d := range c.of(list, 20*time.Millisecond) {
			if d.Working {
				working++
			}
		}
	}
	// What was begun before all was let go of is not held after it.
	c.forget()
	assert.False(t, c.has(keyOf(list[0])))
	c.workOut(list[:1], 0)
	assert.False(t, c.has(keyOf(list[0])))
	// What was held when the walk was read, and was let go of meanwhile, is not called damaged.
	_, known, _, err := st.Walk(t.Context(), "house", func(string, int64) bool { return true })
	require.NoError(t, err)
	d := c.of(known[:1], time.Second)[0]
	assert.True(t, d.Working)
	assert.Empty(t, d.Stops)
	assert.False(t, c.has(keyOf(known[0])))
}

// Choices are shown before they are copied, go to several doors at once, and come back at once.
func TestChoicesAreCopiedAndTakenBack(t *testing.T) {
	s := run(t)
	path, w := s.tern()
	chart, galley, boots, beam := w.door(t, "Chart room"), w.door(t, "Galley"), w.door(t, "Boot room"), w.door(
		t, "Under the beam",
	)
	// A case of 64 mm does not go into a stile of 50.
	narrow := s.do("PATCH", path+"/openings/"+beam.ID, etag(beam.Version), patch("/slab/stile", 50))
	require.Equal(t, 200, narrow.status)
	w = s.walk(path)
	beam = w.door(t, "Under the beam")
	ask := CopyChoices{From: galley.ID, Parts: []job.Part{
		job.PartMargins, job.PartHinges, job.PartLock,
	}, To: []Standing{
		{chart.ID, chart.Version}, {boots.ID, boots.Version}, {beam.ID, beam.Version},
	}, Preview: true, By: "Wren"}
	seen := got[Copied](t, s.do("POST", path+"/copy", "", ask))
	assert.Contains(t, seen.Openings[0].Changes, "lock: rim lock, cylinder → bathroom lock, 64 mm case")
	assert.Contains(t, seen.Openings[1].Refused, "signed off")
	assert.Contains(t, seen.Openings[2].Changes, "hinge: 75 mm (3 in) butt → 100 mm (4 in) butt")
	assert.NotEmpty(t, seen.Openings[2].Brings)
	assert.Empty(t, seen.Standing)
	assert.Equal(t, w.Openings, s.walk(path).Openings, "nothing was changed")

	ask.Preview = false
	done := got[Copied](t, s.do("POST", path+"/copy", "", ask))
	require.Len(t, done.Standing, 2)
	now := got[OpeningView](t, s.do("GET", path+"/openings/"+chart.ID, "", nil))
	assert.Equal(t, "bathroom-64", now.Opening.Lock.Hardware)
	assert.Equal(t, "choices of Galley", now.Undo)
	assert.Equal(t, 412, s.do("POST", path+"/copy", "", ask).status, "they stand elsewhere now")

	assert.Equal(t, 204, s.do("POST", path+"/undo", "", UndoMany{done.Standing}).status)
	again := s.do("POST", path+"/undo", "", UndoMany{done.Standing})
	assert.Equal(t, 412, again.status)
	assert.Contains(t, again.trouble(t).Detail, "none of these doors was taken back")
	now = got[OpeningView](t, s.do("GET", path+"/openings/"+chart.ID, "", nil))
	assert.Equal(t, "surface-60", now.Opening.Lock.Hardware)
	for _, bad := range []CopyChoices{{From: galley.ID}, {From: galley.ID, Parts: []job.Part{"paint"}}} {
		assert.Equal(t, 422, s.do("POST", path+"/copy", "", bad).status)
	}
	assert.Equal(t, 404, s.do("POST", path+"/copy", "", CopyChoices{From: "gone", Parts: job.Parts}).status)
}

func TestNewDoorsBeginWithWhatIsUsual(t *testing.T) {
	s := run(t)
	path, w := s.tern()
	set := func(u SetUsual) JobHead {
		j := got[Walk](t, s.do("GET", path, "", nil)).Job
		return got[JobHead](t, s.do("PATCH", path, etag(j.Version), map[string]any{"usual": u}))
	}
	head := set(SetUsual{w.door(t, "Galley").ID, []job.Part{job.PartHinges, job.PartLock}})
	require.Len(t, head.Usual, 2)
	assert.Contains(t, head.Usual[1].Says, "backset: 60 mm → 44 mm")
	v := got[OpeningView](t, s.do("POST", path+"/openings", "", NewOpening{Name: "Attic"}))
	assert.Equal(t, "bathroom-64", v.Opening.Lock.Hardware)
	assert.Equal(t, "butt-100", v.Opening.Hinges.Size)
	head = set(SetUsual{"", []job.Part{job.PartLock}})
	require.Len(t, head.Usual, 1)
	// A hinge of the kit that new doors begin with stays in it.
	head = set(SetUsual{w.door(t, "Boot room").ID, []job.Part{job.PartHinges}})
	kit := head.Kit
	kit.Hinges = nil
	refused := s.do("PATCH", path, etag(head.Version), map[string]any{"kit": kit})
	assert.Equal(t, 422, refused.status)
}

func TestTheLoadOfThreeDoors(t *testing.T) {
	s := run(t)
	path, w := s.tern()
	ids := w.door(t, "Chart room").ID + "," + w.door(t, "Galley").ID + "," + w.door(t, "Under the beam").ID
	l := got[document.Load](t, s.do("GET", path+"/load?doors="+ids, "", nil))
	assert.Equal(t, []string{"Chart room", "Under the beam", "Galley"}, l.Openings, "in the order of the walk")
	require.Equal(t, load.Slabs, l.Groups[0].Kind)
	assert.Len(t, l.Groups[0].Items, 3)
	assert.Equal(t, document.LoadItem{
		ID: "hinge-size.butt-100", Name: "100 mm (4 in) butt", Count: 5, Openings: []string{"Chart room", "Galley"},
	}, l.Groups[1].Items[0])
	assert.Len(t, l.Cutting, 3)
	assert.Equal(t, "12", l.Cutting[0].Hinge.MM, "with what its planks will grow by August")
	assert.Equal(t, 404, s.do("GET", path+"/load?doors=gone", "", nil).status)
}

// A schedule is looked at, matched, and comes in whole or not at all, or its good lines alone;
// its matching is remembered.
func TestAScheduleComesIn(t *testing.T) {
	s := run(t)
	j := got[JobHead](t, s.do("POST", "/jobs", "", map[string]any{"name": "House", "unit": "mm"}))
	path := "/jobs/" + j.ID + "/schedule"
	file := []byte("No;Where;Hung;B;H;Stock\n1;Hall;left;762;1981;\n2;Bath;sideways;762;1981;\n3;;right;838,5;1981;x\n")
	seen := got[SchedulePreview](t, s.do("POST", path+"/preview", "", file))
	assert.Equal(t, []string{"name", "", "hand", "", "length", ""}, ids(seen))
	assert.Equal(t, 2, seen.Good)
	assert.Equal(t, 1, seen.Bad)
	assert.Equal(t, 3, seen.Rows[0].Line, "what is wrong is seen first")
	assert.Equal(t, ScheduleFault{
		Header: "Hung", Column: 2, Given: "sideways",
		Problem: "“sideways” is not a side. The hinges are on the left or on the right, seen from the pull side.",
	}, seen.Rows[0].Faults[0])
	mended := func(mends string) SchedulePreview {
		return got[SchedulePreview](t, s.do("POST", path+"/preview?mends="+url.QueryEscape(mends), "", file))
	}
	assert.Equal(t, 3, mended(`[{"line": 3, "column": 2, "text": "RHR"}]`).Good)
	still := mended(`[{"line": 3, "column": 2, "text": "up"}]`)
	assert.Equal(t, "up", still.Rows[0].Faults[0].Given, "what was mended wrongly is to be mended again")
	for _, bad := range []string{
		`[`, `[{"line": 1, "column": 2, "text": "left"}]`, `[{"line": 9, "column": 0, "text": "x"}]`,
		`[{"line": 3, "column": 9, "text": "x"}]`, `[{"line": 3, "column": -1, "text": "x"}]`,
	} {
		assert.Equal(t, 422, s.do("POST", path+"/preview?mends="+url.QueryEscape(bad), "", file).status, bad)
	}
	assert.Equal(t, []string{"762", "762", "838,5"}, seen.Columns[3].Sample)
	assert.False(t, seen.Known)

	columns := "?columns=name,room,hand,width,length,-"
	refused := s.do("POST", path+columns, "", file)
	assert.Equal(t, 422, refused.status)
	assert.Contains(t, refused.trouble(t).Detail, "1 of 3 lines cannot be doors, so nothing was brought in")
	assert.Empty(t, s.walk("/jobs/"+j.ID).Openings)
	in := got[ScheduleImported](t, s.do("POST", path+columns+"&good=true&by=Wren", "", file))
	assert.Len(t, in.Standing, 2)
	assert.Equal(t, 1, in.Left)
	w := s.walk("/jobs/" + j.ID)
	require.Len(t, w.Openings, 2)
	assert.Equal(t, "838.5 × 1981", w.door(t, "3").Slab)
	assert.Equal(t, "Hall", w.door(t, "1").Room)

	seen = got[SchedulePreview](t, s.do("POST", path+"/preview", "", file))
	assert.True(t, seen.Known)
	assert.Equal(t, []string{"name", "room", "hand", "width", "length", ""}, ids(seen), "as it was matched before")
	assert.Equal(t, 3, seen.Bad, "two are on the walk by now")
	assert.Equal(t, 204, s.do("POST", "/jobs/"+j.ID+"/undo", "", UndoMany{in.Standing}).status)
	assert.Empty(t, s.walk("/jobs/"+j.ID).Openings)

	for says, body := range map[string][]byte{
		"is empty": []byte(" \n"), "no line of headers": []byte(",,\n,,"),
		"No line of this schedule":    []byte("Door,Room\n"),
		"neither text nor a workbook": []byte("\x00\x01"),
		"more than 5000 lines":        bytes.Repeat([]byte("Door,Room\n"), 100_000),
	} {
		a := s.do("POST", path+"?good=true", "", body)
		assert.Equal(t, 422, a.status, says)
		assert.Contains(t, a.trouble(t).Detail, says)
	}
	for _, c := range []string{"name", "name,name,hand,width,length,-", "name,paint,hand,width,length,-"} {
		assert.Equal(t, 422, s.do("POST", path+"?columns="+c, "", file).status, c)
	}
	assert.Equal(t, 413, s.do("POST", path, "", make([]byte, largestSchedule+2)).status)
}

func ids(p SchedulePreview) (list []string) {
	for _, c := range p.Columns {
		list = append(list, c.ID)
	}
	return list
}

func TestTablesGoOut(t *testing.T) {
	s := run(t)
	path, _ := s.tern()
	for _, known := range document.ScheduleTables {
		a := s.do("GET", path+"/schedule?format=csv&table="+known.ID, "", nil)
		require.Equal(t, 200, a.status, known.ID)
		assert.Contains(t, a.header.Get("Content-Disposition"), "tern-house-"+known.ID+".csv")
	}
	a := s.do("GET", path+"/schedule", "", nil)
	assert.True(t, bytes.HasPrefix(a.raw, []byte("PK")))
	assert.Equal(t, 422, s.do("GET", path+"/schedule?format=ods", "", nil).status)
	assert.Equal(t, 422, s.do("GET", path+"/schedule?format=csv&table=paint", "", nil).status)
}

func TestPapersAreAskedFor(t *testing.T) {
	s := run(t)
	path, w := s.tern()
	for _, c := range []struct {
		asks, name string
		pages      int
	}{
		{"kind=card&doors=" + w.Openings[0].ID, "tern-house-linen-room-card.pdf", 1},
		{"kind=card&paper=letter", "tern-house-card.pdf", 7}, // the saloon is two leaves
		{"kind=order", "tern-house-order.pdf", 2},            // with tape, pins and glue
	} {
		a := s.do("GET", path+"/paper?"+c.asks, "", nil)
		require.Equal(t, 200, a.status, string(a.raw))
		assert.Contains(t, a.header.Get("Content-Disposition"), c.name)
		assert.Equal(t, c.pages, pages(t, a.raw), c.asks)
	}
	for _, bad := range []string{"kind=poem", "kind=card&paper=b5"} {
		assert.Equal(t, 422, s.do("GET", path+"/paper?"+bad, "", nil).status)
	}
}

// pages is how many pages poppler finds.
func pages(t *testing.T, pdf []byte) (n int) {
	file := filepath.Join(t.TempDir(), "p.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.CommandContext(t.Context(), "pdfinfo", file).Output()
	require.NoError(t, err)
	for _, line := range strings.Split(string(out), "\n") {
		if rest, ok := strings.CutPrefix(line, "Pages:"); ok {
			_, err := fmt.Sscan(rest, &n)
			require.NoError(t, err)
		}
	}
	return n
}

// A backup comes down, and goes up again over other work; what was there is kept, and what
// pages hold is stale.
func TestBackupAndRestoreFromThePage(t *testing.T) {
	s := run(t)
	path, w := s.tern()
	a := s.do("GET", "/backup", "", nil)
	require.Equal(t, 200, a.status)
	assert.Contains(t, a.header.Get("Content-Disposition"), "kindmargin-backup-")
	file := filepath.Join(t.TempDir(), "down.db")
	require.NoError(t, os.WriteFile(file, a.raw, 0o600))
	r, err := store.Check(t.Context(), file)
	require.NoError(t, err)
	assert.Equal(t, 6, r.Openings)

	chart := w.door(t, "Chart room")
	door := path + "/openings/" + chart.ID
	changed := s.do("PATCH", door, etag(chart.Version), patch("/room", "Cellar"))
	require.Equal(t, 200, changed.status)
	assert.Equal(t, "Cellar", s.walk(path).door(t, "Chart room").Room)
	got[JobHead](t, s.do("POST", "/jobs", "", map[string]any{"name": "Later", "unit": "mm"}))
	back := got[RestoredView](t, s.do("POST", "/restore", "", a.raw))
	assert.Equal(t, 1, back.Jobs)
	assert.Contains(t, back.Before, ".before-restore")
	assert.Len(t, got[[]JobHead](t, s.do("GET", "/jobs", "", nil)), 1)
	assert.Equal(t, "Ground-floor hall", s.walk(path).door(t, "Chart room").Room, "nothing of before is held")
	assert.Equal(t, 412, s.do("PATCH", door, changed.etag, patch("/room", "Attic")).status)

	for says, body := range map[string][]byte{
		"damaged or cut short": a.raw[:len(a.raw)/2], "not a backup of Kind Margin": []byte("a letter"),
	} {
		bad := s.do("POST", "/restore", "", body)
		assert.Equal(t, 422, bad.status)
		p := bad.trouble(t)
		assert.Contains(t, p.Detail, says)
		assert.NotContains(t, p.Detail, os.TempDir(), "nothing is told of this machine")
	}
	assert.Equal(t, 422, s.do("POST", "/restore", "", nil).status)
	assert.Len(t, s.walk(path).Openings, 6)
}

// Everything goes out as one zip of open files, which Go's reader and unzip find whole, and
// whose job files read in again.
func TestEverythingGoesOut(t *testing.T) {
	s := run(t)
	s.tern()
	got[JobHead](t, s.do("POST", "/jobs", "", map[string]any{"name": "Tern House", "unit": "in"}))
	a := s.do("GET", "/everything", "", nil)
	require.Equal(t, http.StatusOK, a.status)
	file := filepath.Join(t.TempDir(), "all.zip")
	require.NoError(t, os.WriteFile(file, a.raw, 0o600))
	out, err := exec.CommandContext(t.Context(), "unzip", "-tqq", file).CombinedOutput()
	require.NoError(t, err, string(out))
	z, err := zip.NewReader(bytes.NewReader(a.raw), int64(len(a.raw)))
	require.NoError(t, err)
	var names []string
	for _, f := range z.File {
		names = append(names, f.Name)
	}
	assert.Equal(t, []string{
		"tern-house/job.json", "tern-house/photos.json", "tern-house/tables.xlsx",
		"tern-house-2/job.json", "tern-house-2/photos.json", "tern-house-2/tables.xlsx",
	}, names)
	f, err := z.Open("tern-house/job.json")
	require.NoError(t, err)
	defer f.Close()
	var b bytes.Buffer
	_, err = b.ReadFrom(f)
	require.NoError(t, err)
	j, err := job.Decode(b.Bytes())
	require.NoError(t, err)
	assert.Len(t, j.Openings, 6)
}

// A job's language is chosen, and what is found at its doors speaks it; one that there is none of is refused at its
// field, and nothing is changed.
func TestAJobsLanguageIsChosen(t *testing.T) {
	s := run(t)
	head := s.bring()
	says := func() (all string) {
		for _, f := range got[OpeningView](
			t, s.do("GET", "/jobs/"+head.ID+"/openings/linen", "", nil),
		).Plan.Leaves[0].Findings {
			all += f.Text + "\n"
		}
		return all
	}
	change := func(language string) answer {
		return s.do("PATCH", "/jobs/"+head.ID, etag(head.Version), map[string]any{"language": language})
	}
	assert.Contains(t, says(), "the latch and the keep could miss by that")
	head = got[JobHead](t, change("en-US"))
	assert.Equal(t, job.American, head.Language)
	assert.Contains(t, says(), "the latch and the strike plate could miss by that")
	a := change("fr")
	assert.Equal(t, 422, a.status)
	assert.Contains(t, string(a.raw), `"/language"`)
	head = got[JobHead](t, change(""))
	assert.Empty(t, head.Language)
	assert.Contains(t, says(), "the latch and the keep could miss by that")
}

// Five thousand lines of which four thousand cannot be: what is wrong is shown first, a few hundred of them, and the good
// ones come in.
func TestAScheduleOfThousandsOfLinesMostOfThemBad(t *testing.T) {
	s := run(t)
	j := got[JobHead](t, s.do("POST", "/jobs", "", map[string]any{"name": "House", "unit": "mm"}))
	var file bytes.Buffer
	file.WriteString("Door,Room,Hand,Width,Height\n")
	for i := range 5000 {
		hand := "left"
		if i%5 != 0 {
			hand = "upside down"
		}
		fmt.Fprintf(&file, "D%d,Hall,%s,762,1981\n", i, hand)
	}
	path := "/jobs/" + j.ID + "/schedule"
	seen := got[SchedulePreview](t, s.do("POST", path+"/preview", "", file.Bytes()))
	assert.Equal(t, []int{1000, 4000, mostShown}, []int{seen.Good, seen.Bad, len(seen.Rows)})
	assert.NotEmpty(t, seen.Rows[0].Faults)
	came := got[ScheduleImported](t, s.do("POST", path+"?good=true", "", file.Bytes()))
	assert.Len(t, came.Standing, 1000)
	assert.Equal(t, 4000, came.Left)
}
