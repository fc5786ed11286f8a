package day

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"kindmargin/core/field"
	"kindmargin/core/trade"
)

// Day is what is kept of a plan for the day, and what became of it.
type Day struct {
	Date       string      `json:"date"` // the first day, as 2026-11-26
	Carpenters []Carpenter `json:"carpenters"`
	Break      Span        `json:"break,omitzero"`
	Weekends   bool        `json:"weekends,omitempty"` // Saturdays and Sundays are worked too
	Doors      []string    `json:"doors"`              // IDs; none for all that are not signed off
	Clamps     bool        `json:"clamps,omitempty"`   // glue stays in clamps over night, not under tape
	Coats      int         `json:"coats,omitempty"`    // of paint, on each door
	CoatDries  int         `json:"coatDries,omitempty"`
	Own        []Own       `json:"own,omitempty"`
	Marks      []Mark      `json:"marks,omitempty"` // what became of tasks, by ID
}

// Carpenter is a pair of hands, and when it is there.
type Carpenter struct {
	Name string `json:"name"`
	From int    `json:"from"` // minutes since midnight
	To   int    `json:"to"`
}

// span is when a carpenter is there.
func (c Carpenter) span() Span { return Span{c.From, c.To} }

// Own is a task of one's own.
type Own struct {
	ID      string      `json:"id"`
	Name    string      `json:"name"`
	Minutes int         `json:"minutes"`
	Place   trade.Place `json:"place"`
	Hands   int         `json:"hands,omitempty"` // nought for one
	Dries   int         `json:"dries,omitempty"`
	After   []string    `json:"after,omitempty"` // IDs of tasks that it waits for
}

// Mark is what became of a task.
type Mark struct {
	Task    string `json:"task"`
	Begun   string `json:"begun,omitempty"`   // when, by the clock where it is done: 2026-11-26T10:20
	Done    string `json:"done,omitempty"`    // when
	Late    int    `json:"late,omitempty"`    // minutes that it takes longer
	Struck  bool   `json:"struck,omitempty"`  // it is left out
	Minutes int    `json:"minutes,omitempty"` // set by hand; nought as it was worked out
	Hands   int    `json:"hands,omitempty"`
}

// Usual is a day as it is begun with: one carpenter from eight to five, half an hour at noon.
func Usual(date string) Day {
	return Day{
		Date: date, Carpenters: []Carpenter{{"", 8 * 60, 17 * 60}}, Break: Span{12 * 60, 12*60 + 30},
		Doors: []string{}, CoatDries: coatDries(),
	}
}

func coatDries() int {
	w, _ := trade.WorkByID("coat")
	return w.Dries
}

// MostDoors is how many doors a day is planned for at once.
const MostDoors = 24

// What else is kept of a day at most.
const (
	mostCarpenters = 6
	mostOwn        = 40
	mostMarks      = 2000
	mostLate       = 600
)

// Check reports what cannot be, as field.Errors.
func (d Day) Check() error {
	var bad field.Errors
	if _, err := time.Parse(time.DateOnly, d.Date); err != nil {
		bad.Add("/date", "%.40q is no day: write it like 2026-11-26.", d.Date)
	}
	if len(d.Carpenters) == 0 || len(d.Carpenters) > mostCarpenters {
		bad.Add("/carpenters", "1 to %d carpenters are planned for, not %d.", mostCarpenters, len(d.Carpenters))
	}
	worked := 0
	for i, c := range d.Carpenters {
		at := "/carpenters/" + strconv.Itoa(i)
		if !said(c.Name) {
			bad.Add(at+"/name", "Keep the name under %d letters, on one line.", mostLetters)
		}
		if c.From < 0 || c.To > dayMinutes || c.From >= c.To {
			bad.Add(at+"/to", "From %s to %s there are no hours to work: let the day end after it begins.", clock(c.From), clock(c.To))
			continue
		}
		k := Calendar{Hours: []Span{c.span()}, Break: d.Break}
		worked = max(worked, k.longest(1))
	}
	if d.Break.From < 0 || d.Break.To > dayMinutes || d.Break.From > d.Break.To {
		bad.Add("/break/to", "A break from %s to %s is none: let it end after it begins.", clock(d.Break.From), clock(d.Break.To))
	} else if len(bad) == 0 && worked == 0 {
		bad.Add("/break/to", "The break, %s to %s, takes the whole day: nobody is left to work.", clock(d.Break.From), clock(d.Break.To))
	}
	if len(d.Doors) > MostDoors {
		bad.Add("/doors", "%d doors are more than %d: plan fewer at once.", len(d.Doors), MostDoors)
	}
	if d.Coats < 0 || d.Coats > 4 {
		bad.Add("/coats", "%d coats of paint: 0 to 4.", d.Coats)
	}
	if d.CoatDries < 0 || d.CoatDries > LongestWait {
		bad.Add("/coatDries", "A coat that dries for %s holds up more than a week: plan what comes after it by itself.", Lasts(d.CoatDries))
	}
	d.checkOwn(&bad)
	d.checkMarks(&bad)
	return bad.Err()
}

func (d Day) checkOwn(bad *field.Errors) {
	if len(d.Own) > mostOwn {
		bad.Add("/own", "%d tasks of your own are more than %d.", len(d.Own), mostOwn)
		return
	}
	seen := map[string]bool{}
	for i, o := range d.Own {
		at := "/own/" + strconv.Itoa(i)
		if o.ID == "" || len(o.ID) > mostID || seen[o.ID] {
			bad.Add(at+"/id", "Each task needs an id of its own; %.40q is none, or is used twice.", o.ID)
		}
		seen[o.ID] = true
		if strings.TrimSpace(o.Name) == "" || !said(o.Name) {
			bad.Add(at+"/name", "Say what is to be done, in 1 to %d letters.", mostLetters)
		}
		if o.Minutes < 1 || o.Minutes > dayMinutes {
			bad.Add(at+"/minutes", "%d minutes is no task of a day: say how long it takes, 1 to %d.", o.Minutes, dayMinutes)
		}
		if o.Hands < 0 || o.Hands > 2 {
			bad.Add(at+"/hands", "One does it, or two; not %d.", o.Hands)
		}
		if o.Dries < 0 || o.Dries > LongestWait {
			bad.Add(at+"/dries", "%s holds up what comes after it for %s: longer than a week.", o.Name, Lasts(o.Dries))
		}
		if !slices.ContainsFunc(trade.Places, func(p trade.PlaceOf) bool { return p.ID == o.Place }) {
			bad.Add(at+"/place", "There is no place %.40q: at the opening, at the trestles or outside.", string(o.Place))
		}
		if slices.Contains(o.After, o.ID) {
			bad.Add(at+"/after", "%s waits for itself: take that away.", o.Name)
		}
	}
}

func (d Day) checkMarks(bad *field.Errors) {
	if len(d.Marks) > mostMarks {
		bad.Add("/marks", "%d marks are more than %d.", len(d.Marks), mostMarks)
		return
	}
	for i, m := range d.Marks {
		at := "/marks/" + strconv.Itoa(i)
		for field, v := range map[string]string{"/begun": m.Begun, "/done": m.Done} {
			if v == "" {
				continue
			}
			if _, err := time.Parse(minuteForm, v); err != nil {
				bad.Add(at+field, "%.40q is no moment: write it like 2026-11-26T10:20.", v)
			}
		}
		if m.Late < 0 || m.Late > mostLate || m.Minutes < 0 || m.Minutes > dayMinutes {
			bad.Add(at+"/late", "A task runs late by up to %s and takes up to a day.", Lasts(mostLate))
		}
		if m.Hands < 0 || m.Hands > 2 {
			bad.Add(at+"/hands", "One does it, or two; not %d.", m.Hands)
		}
	}
}

const (
	minuteForm  = "2006-01-02T15:04"
	mostLetters = 80
	mostID      = 80
)

func said(s string) bool {
	return utf8.RuneCountInString(s) <= mostLetters && !strings.ContainsFunc(s, unicode.IsControl)
}

// clock is a minute of the day as a clock shows it.
func clock(m int) string { return fmt.Sprintf("%02d:%02d", m/60, m%60) }

// first is the midnight before the first day, in no zone.
func (d Day) first() time.Time {
	t, _ := time.Parse(time.DateOnly, d.Date)
	return t
}

// Minute is a moment as minutes since the midnight before the first day.
func (d Day) Minute(moment string) (m int, ok bool) {
	t, err := time.Parse(minuteForm, moment)
	return int(t.Sub(d.first()).Minutes()), err == nil
}

// Moment is a minute as the clock has it where it is done.
func (d Day) Moment(m int) time.Time { return d.first().Add(time.Duration(m) * time.Minute) }

// calendar is when is worked.
func (d Day) calendar() Calendar {
	k := Calendar{Break: d.Break}
	for _, c := range d.Carpenters {
		k.Hours = append(k.Hours, c.span())
	}
	for i := range mostDays {
		day := d.first().AddDate(0, 0, i).Weekday()
		k.Free = append(k.Free, !d.Weekends && (day == time.Saturday || day == time.Sunday) && i > 0)
	}
	return k
}

func (d Day) mark(id string) Mark {
	for _, m := range d.Marks {
		if m.Task == id {
			return m
		}
	}
	return Mark{Task: id}
}
