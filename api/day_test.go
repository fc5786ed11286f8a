package api

import (
	"net/http"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/day"
	"kindmargin/document"
)

// A day of the demo's doors: planned, ticked from elsewhere, set otherwise, given out as a calendar.
func TestADayOfTheHouse(t *testing.T) {
	s := run(t)
	path, w := s.tern()
	at := path + "/day?now=2026-11-26T08:00"
	v := got[document.DayOf](t, s.do("GET", at, "", nil))
	assert.Zero(t, v.Version)
	assert.Empty(t, v.Problems)
	assert.Empty(t, v.Held)
	assert.NotEmpty(t, v.Entries, "one pair of hands plans every task")
	assert.Contains(t, v.Safer, "two are safer")
	d := v.Day
	d.Carpenters = append(d.Carpenters, day.Carpenter{Name: "Lark", From: 480, To: 1020})
	d.Carpenters[0].Name = "Wren"
	d.Openings = []string{w.door(t, "Chart room").ID, w.door(t, "Galley").ID}
	d.Coats = 2
	res := s.do("PUT", at, `"0"`, d)
	v = got[document.DayOf](t, res)
	assert.Empty(t, v.Problems)
	assert.EqualValues(t, 1, v.Version)
	require.NotEmpty(t, v.Entries)
	for _, e := range v.Entries {
		assert.Contains(t, []string{"Chart room", "Galley"}, e.Opening)
		assert.Len(t, e.Who, e.Hands)
	}
	assert.Equal(t, http.StatusPreconditionFailed, s.do("PUT", at, `"0"`, d).status)

	first := v.Entries[0]
	v = got[document.DayOf](
		t, s.do("POST", path+"/day/marks?now=2026-11-26T08:50", "", day.Mark{Task: first.ID, Done: "2026-11-26T08:50"}),
	)
	assert.True(
		t, slices.ContainsFunc(v.Done, func(e document.EntryOf) bool { return e.ID == first.ID && e.To == "08:50" }),
	)
	for _, e := range v.Entries {
		if e.Date == "2026-11-26" {
			assert.GreaterOrEqual(t, e.From, "08:50")
		}
	}
	out := s.do("GET", path+"/day/calendar?now=2026-11-26T08:50", "", nil)
	assert.Equal(t, 200, out.status)
	assert.Contains(t, out.header.Get("Content-Type"), "text/calendar")
	assert.Equal(t, len(v.Entries)+len(v.Done), strings.Count(string(out.raw), "BEGIN:VEVENT"))

	for _, c := range []struct {
		does   func() answer
		status int
		says   string
	}{
		{func() answer { return s.do("GET", path+"/day?now=noon", "", nil) }, 422, "is not a time"},
		{func() answer {
			d := d
			d.Carpenters = []day.Carpenter{{Name: "Wren", From: 600, To: 600}}
			return s.do("PUT", at, `"2"`, d)
		}, 422, "From 10:00 to 10:00 there are no hours to work"},
		{func() answer { return s.do("POST", path+"/day/marks", "", day.Mark{}) }, 422, "Say which task"},
		{
			func() answer { return s.do("POST", path+"/day/marks", "", map[string]any{"task": "x", "colour": 1}) }, 422,
			"colour",
		},
		{func() answer { return s.do("GET", "/jobs/none/day", "", nil) }, 404, ""},
	} {
		a := c.does()
		assert.Equal(t, c.status, a.status, "%s", a.raw)
		assert.Contains(t, string(a.raw), c.says)
	}
}
