package day

import (
	"slices"
	"strconv"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"kindmargin/core/field"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Day is a plan for one day as it is kept: its carpenters, own tasks, and marks.
type Day struct {
	Date       string      `json:"date"` // the first day, as 2026-11-26
	Carpenters []Carpenter `json:"carpenters"`
	Break      Span        `json:"break,omitzero"`
	Weekends   bool        `json:"weekends,omitempty"` // Saturdays and Sundays are worked too
	Openings   []string    `json:"openings"`           // IDs; none for all that are not signed off
	Clamps     bool        `json:"clamps,omitempty"`   // glue stays in clamps over night, not under tape
	Coats      int         `json:"coats,omitempty"`    // of paint, on each opening
	CoatDries  int         `json:"coatDries,omitempty"`
	Own        []Own       `json:"own,omitempty"`
	Marks      []Mark      `json:"marks,omitempty"` // what became of tasks, by ID
}

// Carpenter is one worker with working hours.
type Carpenter struct {
	Name string `json:"name"`
	From int    `json:"from"` // minutes since midnight
	To   int    `json:"to"`
}

// span is the carpenter's hours on a day.
func (c Carpenter) span() Span { return Span{c.From, c.To} }

// Own is a task that the carpenter typed.
type Own struct {
	ID      string      `json:"id"`
	Name    string      `json:"name"`
	Minutes int         `json:"minutes"`
	Place   trade.Place `json:"place"`
	Hands   int         `json:"hands,omitempty"` // nought for one
	Dries   int         `json:"dries,omitempty"`
	After   []string    `json:"after,omitempty"` // IDs of tasks that it waits for
}

// Mark is what was recorded of a task: begun, done or struck out.
type Mark struct {
	Task    string `json:"task"`
	Begun   string `json:"begun,omitempty"`   // when, by the clock where it is done: 2026-11-26T10:20
	Done    string `json:"done,omitempty"`    // when
	Late    int    `json:"late,omitempty"`    // minutes that it takes longer
	Struck  bool   `json:"struck,omitempty"`  // it is left out
	Minutes int    `json:"minutes,omitempty"` // set by hand; nought as it was worked out
	Hands   int    `json:"hands,omitempty"`
}

// Usual is the default day: one carpenter from 8:00 to 17:00, with half an hour's break at noon.
func Usual(date string) Day {
	return Day{
		Date: date, Carpenters: []Carpenter{{"", 8 * 60, 17 * 60}}, Break: Span{12 * 60, 12*60 + 30},
		Openings: []string{}, CoatDries: coatDries(),
	}
}

func coatDries() int {
	w, _ := trade.WorkByID("coat")
	return w.Dries
}

// MostOpenings is the largest number of openings that a day is planned for.
const MostOpenings = 24

// Upper bounds on the rest of a day.
const (
	mostCarpenters = 6
	mostOwn        = 40
	mostMarks      = 2000
	mostLate       = 600
)

// Check reports invalid fields as field.Errors.
func (d Day) Check() error {
	var bad field.Errors
	if _, err := time.Parse(time.DateOnly, d.Date); err != nil {
		bad.Add("/date", "refused.date", message.Args{"given": message.Quote(d.Date)})
	}
	if len(d.Carpenters) == 0 || len(d.Carpenters) > mostCarpenters {
		bad.Add("/carpenters", "refused.carpenters", message.Args{
			"most": message.Number(mostCarpenters), "given": message.Number(len(d.Carpenters)),
		})
	}
	worked := 0
	for i, c := range d.Carpenters {
		at := "/carpenters/" + strconv.Itoa(i)
		if !said(c.Name) {
			bad.Add(at+"/name", "refused.name", message.Args{"most": message.Number(mostLetters)})
		}
		if c.From < 0 || c.To > dayMinutes || c.From >= c.To {
			bad.Add(at+"/to", "refused.hours", message.Args{"from": message.Clock(c.From), "to": message.Clock(c.To)})
			continue
		}
		k := Calendar{Hours: []Span{c.span()}, Break: d.Break}
		worked = max(worked, k.longest(1))
	}
	if d.Break.From < 0 || d.Break.To > dayMinutes || d.Break.From > d.Break.To {
		bad.Add("/break/to", "refused.break", message.Args{
			"from": message.Clock(d.Break.From), "to": message.Clock(d.Break.To),
		})
	} else if len(bad) == 0 && worked == 0 {
		bad.Add("/break/to", "refused.break-all-day", message.Args{
			"from": message.Clock(d.Break.From), "to": message.Clock(d.Break.To),
		})
	}
	if len(d.Openings) > MostOpenings {
		bad.Add("/openings", "refused.day-doors", message.Args{
			"given": message.Number(len(d.Openings)), "most": message.Number(MostOpenings),
		})
	}
	if d.Coats < 0 || d.Coats > 4 {
		bad.Add("/coats", "refused.coats", message.Args{"given": message.Number(d.Coats)})
	}
	if d.CoatDries < 0 || d.CoatDries > LongestWait {
		bad.Add("/coatDries", "refused.coat-dries", message.Args{"dries": message.Lasting(d.CoatDries)})
	}
	d.checkOwn(&bad)
	d.checkMarks(&bad)
	return bad.Err()
}

func (d Day) checkOwn(bad *field.Errors) {
	if len(d.Own) > mostOwn {
		bad.Add("/own", "refused.own-tasks", message.Args{
			"given": message.Number(len(d.Own)), "most": message.Number(mostOwn),
		})
		return
	}
	seen := map[string]bool{}
	for i, o := range d.Own {
		at := "/own/" + strconv.Itoa(i)
		if o.ID == "" || len(o.ID) > mostID || seen[o.ID] {
			bad.Add(at+"/id", "refused.task-id", message.Args{"given": message.Quote(o.ID)})
		}
		seen[o.ID] = true
		if strings.TrimSpace(o.Name) == "" || !said(o.Name) {
			bad.Add(at+"/name", "refused.task-name", message.Args{"most": message.Number(mostLetters)})
		}
		if o.Minutes < 1 || o.Minutes > dayMinutes {
			bad.Add(at+"/minutes", "refused.task-minutes", message.Args{
				"given": message.Number(o.Minutes), "most": message.Number(dayMinutes),
			})
		}
		if o.Hands < 0 || o.Hands > 2 {
			bad.Add(at+"/hands", "refused.task-hands", message.Args{"given": message.Number(o.Hands)})
		}
		if o.Dries < 0 || o.Dries > LongestWait {
			bad.Add(at+"/dries", "refused.own-dries", message.Args{"task": o.Name, "dries": message.Lasting(o.Dries)})
		}
		if !slices.Contains(trade.Places, o.Place) {
			bad.Add(at+"/place", "refused.task-place", message.Args{"given": message.Quote(string(o.Place))})
		}
		if slices.Contains(o.After, o.ID) {
			bad.Add(at+"/after", "refused.waits-for-itself", message.Args{"task": o.Name})
		}
	}
}

func (d Day) checkMarks(bad *field.Errors) {
	if len(d.Marks) > mostMarks {
		bad.Add("/marks", "refused.day-marks", message.Args{
			"given": message.Number(len(d.Marks)), "most": message.Number(mostMarks),
		})
		return
	}
	for i, m := range d.Marks {
		at := "/marks/" + strconv.Itoa(i)
		for field, v := range map[string]string{"/begun": m.Begun, "/done": m.Done} {
			if v == "" {
				continue
			}
			if _, err := time.Parse(minuteForm, v); err != nil {
				bad.Add(at+field, "refused.moment", message.Args{"given": message.Quote(v)})
			}
		}
		if m.Late < 0 || m.Late > mostLate || m.Minutes < 0 || m.Minutes > dayMinutes {
			bad.Add(at+"/late", "refused.task-late", message.Args{"most": message.Lasting(mostLate)})
		}
		if m.Hands < 0 || m.Hands > 2 {
			bad.Add(at+"/hands", "refused.task-hands", message.Args{"given": message.Number(m.Hands)})
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

// first is the midnight before the first day, without a time zone.
func (d Day) first() time.Time {
	t, _ := time.Parse(time.DateOnly, d.Date)
	return t
}

// Minute converts a time to minutes since the midnight before the first day.
func (d Day) Minute(moment string) (m int, ok bool) {
	t, err := time.Parse(minuteForm, moment)
	return int(t.Sub(d.first()).Minutes()), err == nil
}

// Moment converts a minute to local clock time.
func (d Day) Moment(m int) time.Time { return d.first().Add(time.Duration(m) * time.Minute) }

// calendar gives the working hours of a day's carpenters.
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
