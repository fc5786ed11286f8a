package document

import (
	"bytes"
	"testing"
	"time"

	"github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/day"
	"kindmargin/core/job"
	"kindmargin/core/trade"
)

// events are a calendar's events by their names, as an independent parser (emersion/go-ical) reads them.
func events(t *testing.T, b []byte) map[string]*ical.Event {
	t.Helper()
	c, err := ical.NewDecoder(bytes.NewReader(b)).Decode()
	require.NoError(t, err)
	found := map[string]*ical.Event{}
	for _, e := range c.Events() {
		uid, err := e.Props.Text(ical.PropUID)
		require.NoError(t, err)
		require.NotContains(t, found, uid, "each name once")
		found[uid] = &e
	}
	return found
}

// A calendar is read back by another parser: the same names each time, a later sequence, times by the
// clock in no zone; what moved is moved, what was struck out is called off, and nothing is doubled.
func TestTheCalendarOfADay(t *testing.T) {
	j := job.NewJob("house", "Lark, House; two", "mm")
	d := day.Usual("2026-11-26")
	d.Own = []day.Own{
		{ID: "prime", Name: "Prime, first", Minutes: 30, Place: trade.Outside, Dries: 120},
		{ID: "sand", Name: "Sand", Minutes: 20, Place: trade.Outside, After: []string{"prime"}},
		{ID: "fetch", Name: "Fetch hinges", Minutes: 15, Place: trade.Outside},
	}
	stamp := time.Date(2026, 11, 25, 20, 0, 0, 0, time.UTC)
	write := func(d day.Day, now string, stamp time.Time) (DayOf, map[string]*ical.Event) {
		v := PlanDay(d, j, nil, nil, now)
		require.Empty(t, v.Problems)
		var b bytes.Buffer
		require.NoError(t, Calendar(&b, v, j, stamp))
		return v, events(t, b.Bytes())
	}
	v, first := write(d, "2026-11-26T08:00", stamp)
	require.Len(t, first, 3)
	// Two minutes to go out, half an hour's priming, two hours' drying; the hinges are fetched meanwhile.
	prime := first["own/prime@house.kindmargin"]
	at, err := prime.DateTimeStart(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, "2026-11-26 08:00", at.Format("2006-01-02 15:04"))
	assert.Empty(t, prime.Props.Get(ical.PropDateTimeStart).Params.Get("TZID"), "in no zone")
	at, err = prime.DateTimeEnd(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, "08:32", at.Format("15:04"))
	sand, err := first["own/sand@house.kindmargin"].DateTimeStart(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, "10:32", sand.Format("15:04"))
	assert.Equal(t, "Prime, first", v.Entries[1].While)
	assert.Equal(t, []DriesOf{{"Prime, first", "Thursday 26 November 10:32"}}, v.Dries)
	summary, err := prime.Props.Text(ical.PropSummary)
	require.NoError(t, err)
	assert.Equal(t, "Prime, first", summary, "its comma is written as the standard has it")

	// Taken up again three weeks later, it goes on that day, by what was done.
	late := d
	late.Marks = []day.Mark{{Task: "own/prime", Done: "2026-11-26T09:10"}}
	gone, _ := write(late, "2026-12-17T10:00", stamp)
	require.Len(t, gone.Entries, 2)
	assert.Empty(t, gone.Left)
	assert.Equal(t, "2026-12-17 10:00", gone.Entries[0].Date+" "+gone.Entries[0].From)
	assert.Equal(t, "2026-11-26", gone.Day.Date, "as it was set")

	// The priming is done late, the hinges are struck out.
	d.Marks = []day.Mark{{Task: "own/prime", Done: "2026-11-26T09:10"}, {Task: "own/fetch", Struck: true}}
	_, again := write(d, "2026-11-26T09:10", stamp.Add(time.Hour))
	require.Len(t, again, 3, "the same names")
	for uid, e := range again {
		was, err := first[uid].Props.Get(ical.PropSequence).Int()
		require.NoError(t, err)
		is, err := e.Props.Get(ical.PropSequence).Int()
		require.NoError(t, err)
		assert.Greater(t, is, was, uid)
	}
	status, err := again["own/fetch@house.kindmargin"].Status()
	require.NoError(t, err)
	assert.Equal(t, ical.EventCancelled, status)
	sand, err = again["own/sand@house.kindmargin"].DateTimeStart(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, "11:08", sand.Format("15:04"), "dry at ten past eleven; two minutes to go there before")
	done, err := again["own/prime@house.kindmargin"].DateTimeEnd(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, "09:10", done.Format("15:04"))
}
