package job

import (
	"bytes"
	"errors"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
)

func mm(v float64) measure.Length { return measure.FromMM(v) }

// whole is an opening with something of everything that is kept.
func whole() Opening {
	o := NewOpening("o", "Study", measure.Millimetres)
	o.Readings = []survey.Reading{
		{ID: "a", Kind: survey.Width, At: mm(1800), Value: mm(826)},
		{ID: "b", Kind: survey.Height, At: mm(50), Value: mm(2032)},
		{ID: "c", Kind: survey.Plumb, Side: frame.Hinge, At: mm(1800), From: mm(200), Value: mm(-2)},
	}
	most := mm(30)
	o.Slab = slab.Slab{
		Width: mm(838), Length: mm(2040), Thickness: mm(35), Construction: "flush", Limits: slab.Limits{Head: &most},
	}
	return o
}

// drawn is any opening with some of it.
func drawn(t *rapid.T, j Job) Opening {
	o := whole()
	for i := range o.Readings {
		o.Readings[i].Value += measure.Length(rapid.Int64Range(-4e6, 4e6).Draw(t, "value"))
	}
	o.Readings = o.Readings[:rapid.IntRange(0, 3).Draw(t, "readings")]
	o.Cut.Registration = rapid.SampledFrom(Registrations).Draw(t, "registration")
	o.Cut.Ends = rapid.SampledFrom(Ends).Draw(t, "ends")
	o.Cut.LeaveOn = rapid.SampledFrom(Habits).Draw(t, "habit")
	o.Cut.Means.Lock = rapid.SampledFrom(AllMeans).Draw(t, "means")
	if rapid.Bool().Draw(t, "pockets") {
		o.Hinges.From, o.Hinges.Pockets = hinge.FromPockets, []measure.Length{mm(163), mm(1600)}
	}
	if rapid.Bool().Draw(t, "strike") {
		o.Lock.From, o.Lock.Strike = lock.FromStrike, mm(1030)
	}
	if rapid.Bool().Draw(t, "pair") {
		o.Pair = &Pair{Slab: o.Slab, Meeting: mm(3), Fixed: frame.Lock}
	}
	return o
}

func TestFileGivesTheSameJobBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		j := NewJob(
			"j", "House", rapid.SampledFrom([]measure.Unit{measure.Millimetres, measure.Inches}).Draw(t, "unit"),
		)
		for range rapid.IntRange(0, 3).Draw(t, "openings") {
			o := drawn(t, j)
			o.ID = "o" + string(rune('a'+len(j.Openings)))
			three := mm(2.5)
			o.Margins.Lock = &three
			o.Done = map[Step]string{StepMeasure: "0123abcd"}
			j.Openings = append(j.Openings, o)
		}
		if len(j.Openings) > 0 {
			j.Presets = []Preset{{Name: "Ours", Margins: j.Openings[0].Margins}}
		}
		first, err := Encode(j)
		require.NoError(t, err)
		back, err := Decode(first)
		require.NoError(t, err)
		second, err := Encode(back)
		require.NoError(t, err)
		require.Equal(t, string(first), string(second))
		require.Equal(t, j, back)
	})
}

const smallFile = `{"format": "kindmargin job", "version": 1, "job": {"id": "j", "name": "House", "unit": "in", "tape": "1/16in", "openings": [
 {"id": "o", "name": "Study", "hand": "left", "walls": "old opening",
  "readings": [{"id": "r1", "kind": "width", "at": "2 ft", "value": "30 1/8 in"}],
  "slab": {"width": "30 in", "length": "6' 8\"", "thickness": 34.925},
  "margins": {"school": "inch", "least": 1.5, "uneven": 0.5}, "cut": {"registration": "even stiles", "ends": "as the limits share it", "leaveOn": "cut to the line"},
  "hinges": {"from": "7and11", "count": 2, "leaf": 89, "width": 28, "plate": 2, "closed": 7},
  "lock": {"from": "handle", "handle": 1000, "backset": 60, "bore": 22}}]}}`

func TestLengthsAsTextWithAUnit(t *testing.T) {
	j, err := Decode([]byte(smallFile))
	require.NoError(t, err)
	o := j.Openings[0]
	assert.Equal(t, 24*measure.Inch, o.Readings[0].At)
	assert.Equal(t, 241*measure.Inch/8, o.Readings[0].Value)
	assert.Equal(t, 80*measure.Inch, o.Slab.Length)
	assert.Equal(
		t, Cut{Registration: "even-stiles", Ends: "share-length", LeaveOn: ToLine}, o.Cut, "the words of version 1",
	)
	b, err := Encode(j)
	require.NoError(t, err)
	assert.Contains(t, string(b), `"value": 765.175`, "30.125 × 25.4")
}

func TestBadFilesSayWhatToDo(t *testing.T) {
	cases := []struct{ name, old, new, says string }{
		{"cut short", smallFile[200:], "", "file.not-whole why=file.breaks-off line=3"},
		{"no job file", "kindmargin job", "shopping list", "file.other-format"},
		{"newer", `"version": 1`, `"version": 7`, "file.newer"},
		{"no version", `"version": 1, `, "", "file.no-version"},
		{"unknown field", `"name": "Study"`, `"name": "Study", "colour": "green"`, "colour"},
		{"no length", `"30 1/8 in"`, `"wide"`, "unread.no-number"},
		{"no unit", `"30 1/8 in"`, `"30 1/8"`, "unread.no-unit"},
		{"wrong type", `"name": "Study"`, `"name": 7`, "line=2"},
		{"unknown side", `"kind": "width"`, `"kind": "width", "side": "top"`, "refused.no-side given=top"},
		{"more after the end", smallFile, smallFile + "{}", "refused.after-end"},
	}
	for _, c := range cases {
		_, err := Decode([]byte(strings.Replace(smallFile, c.old, c.new, 1)))
		var fe *ErrFile
		if assert.ErrorAs(t, err, &fe, c.name) {
			assert.Contains(t, fe.Error(), c.says, c.name)
		}
	}
	_, err := Decode([]byte(strings.Replace(smallFile, "30 1/8 in", "3 in", 1)))
	var bad field.Errors
	require.True(t, errors.As(err, &bad))
	assert.Equal(t, "/openings/0/readings/0/value", bad[0].Pointer)
	assert.Contains(t, bad[0].Error(), "refused.reading-value")
	assert.Contains(t, bad[0].Error(), "value=76.2 mm", "3 in")
}

func TestCheckPointsAtTheField(t *testing.T) {
	cases := map[string]func(*Opening){
		"/name":             func(o *Opening) { o.Name = "  " },
		"/room":             func(o *Opening) { o.Room = strings.Repeat("x", 200) },
		"/hand":             func(o *Opening) { o.Hand = "both" },
		"/walls":            func(o *Opening) { o.Walls = "" },
		"/between":          func(o *Opening) { o.Between = -1 },
		"/readings":         func(o *Opening) { o.Readings = make([]survey.Reading, 1001) },
		"/readings/1/id":    func(o *Opening) { o.Readings[1].ID = o.Readings[0].ID },
		"/readings/0/value": func(o *Opening) { o.Readings[0].Value = mm(60) },
		"/slab/width":       func(o *Opening) { o.Slab.Width = mm(20) },
		"/margins/school":   func(o *Opening) { o.Margins.School = "eye" },
		"/margins/lock":     func(o *Opening) { f := mm(40); o.Margins.Lock = &f },
		"/margins/least":    func(o *Opening) { o.Margins.Least = mm(-1) },
		"/margins/uneven":   func(o *Opening) { o.Margins.Uneven = mm(9) },
		"/cut/registration": func(o *Opening) { o.Cut.Registration = "keep both" },
		"/cut/leaveOn":      func(o *Opening) { o.Cut.LeaveOn = "lots" },
		"/cut/means/head":   func(o *Opening) { o.Cut.Means.Head = "axe" },
		"/hinges/count":     func(o *Opening) { o.Hinges.Count = 1 },
		"/hinges/width":     func(o *Opening) { o.Hinges.Width = mm(50) },
		"/lock/backset":     func(o *Opening) { o.Lock.Backset = 0 },
		"/done":             func(o *Opening) { o.Done = map[Step]string{"paint": "x"} },
	}
	for pointer, change := range cases {
		o := whole()
		change(&o)
		var bad field.Errors
		if assert.True(t, errors.As(o.Check(), &bad), pointer) {
			var got []string
			for _, f := range bad {
				got = append(got, f.Pointer)
				assert.NotEmpty(t, f.Problem.ID)
			}
			assert.Contains(t, got, pointer)
		}
	}
	o := whole()
	o.Between = mm(820)
	assert.ErrorContains(t, o.Check(), "refused.wider-than-between between=820 mm")
	j := Job{Name: "", Unit: "ft", Tape: "1in", Openings: []Opening{whole(), whole()}}
	err := j.Check()
	assert.ErrorContains(t, err, "/name")
	assert.ErrorContains(t, err, "/unit")
	assert.ErrorContains(t, err, "/openings/1/id")
	j = NewJob("j", "House", measure.Millimetres)
	own := whole().Margins
	own.Least = mm(-1)
	j.Presets = []Preset{{Name: "Ours", Margins: whole().Margins}, {Name: "Ours", Margins: own}}
	err = j.Check()
	assert.ErrorContains(t, err, "/presets/1/name")
	assert.ErrorContains(t, err, "/presets/1/margins/least")
	j = NewJob("j", "House", measure.Inches)
	j.Tape = measure.HalfMillimetre
	assert.ErrorContains(t, j.Check(), "/tape")
}

func TestUsualChoicesPassTheirOwnCheck(t *testing.T) {
	for _, u := range []measure.Unit{measure.Millimetres, measure.Inches} {
		o := NewOpening("o", "Study", u)
		assert.NoError(t, o.Check())
		assert.Equal(t, frame.Left, o.Hand)
	}
}

func FuzzDecode(f *testing.F) {
	f.Add([]byte(smallFile))
	f.Add([]byte("{"))
	f.Fuzz(func(t *testing.T, b []byte) {
		j, err := Decode(b)
		if err != nil {
			return
		}
		once, err := Encode(j)
		require.NoError(t, err)
		again, err := Decode(once)
		require.NoError(t, err)
		twice, err := Encode(again)
		require.NoError(t, err)
		require.True(t, bytes.Equal(once, twice))
	})
}

// What a small file comes to as values is counted while it is read: a door of two letters is one of thousands of
// bytes.
func TestASmallFileTakesNoMuchRoom(t *testing.T) {
	file := func(openings string) []byte {
		return []byte(`{"format": "kindmargin job", "version": 1, "job": {"id": "x", "name": "X", "unit": "mm", "tape": "1mm", "openings": [` +
			openings + `]}}`)
	}
	list := func(one string, n int) string { return strings.Repeat(one+",", n-1) + one }
	for name, c := range map[string]struct {
		b    []byte
		says string
	}{
		"a million doors":   {file(list("{}", 1_000_000)), "refused.too-much line=1"},
		"a million of none": {file(list("null", 1_000_000)), "refused.too-much line=1"},
		"readings without end": {
			file(`{"readings": [` + list("{}", 5_000_000) + `]}`), "refused.too-much line=1",
		},
		"lists in lists": {
			file(`{"readings": ` + strings.Repeat("[", 5000) + strings.Repeat("]", 5000) + `}`), "refused.too-deep",
		},
		"letters that are no letter": {file(`{"name": [` + list(`"\ufffd"`, 200_000) + `]}`), "file.not-kept"},
	} {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		_, err := Decode(c.b)
		runtime.ReadMemStats(&after)
		assert.ErrorContains(t, err, c.says, name)
		assert.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(256<<20), name)
	}
	assert.ErrorContains(
		t, CheckJSON(bytes.Repeat([]byte("["), 1<<20), nil), "refused.too-deep", "as is a change that is sent",
	)
}

// What had another name before is read by it, wherever it stands; what is somebody's own words stays.
func TestKeysOfBeforeAreRead(t *testing.T) {
	b := []byte(`{"format": "kindmargin job", "version": 3, "job": {"id": "j", "name": "\"device\":", "kit": {"devices": []},
  "openings": [{"lock": {"note": "device", "device": "tubular-22"}, "name": "device"}, {"device": 1, "lock": {"device": "x"}}]},
  "device": 2}`)
	want := `{"format": "kindmargin job", "version": 3, "job": {"id": "j", "name": "\"device\":", "kit": {"hardware": []},
  "openings": [{"lock": {"note": "device", "hardware": "tubular-22"}, "name": "device"}, {"device": 1, "lock": {"hardware": "x"}}]},
  "device": 2}`
	assert.Equal(t, want, string(rename(b, nameInFile)))
	assert.Equal(t, `{"job": {"kit"`, string(rename([]byte(`{"job": {"kit"`), nameInFile)), "what breaks off is left "+
		"for the reader to say so")
	assert.Equal(t, "/lock/hardware", Now("/lock/device"))
	assert.Equal(t, "/lock/devices", Now("/lock/devices"))
	assert.Equal(t, "/lock/backset", Now("/lock/backset"))

	// Each file of before comes to the same job as the newest.
	for _, name := range []string{"tern-house", "alder-cottage"} {
		now, err := os.ReadFile(filepath.Join("testdata", name+"-v4.job.json"))
		require.NoError(t, err)
		want, err := Decode(now)
		require.NoError(t, err)
		was, err := os.ReadFile(filepath.Join("testdata", name+"-v3.job.json"))
		require.NoError(t, err)
		got, err := Decode(was)
		require.NoError(t, err)
		assert.Equal(t, want, got)
	}
}
