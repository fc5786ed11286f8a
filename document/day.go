package document

import (
	"errors"
	"io"
	"slices"
	"strconv"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"kindmargin/core/day"
	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// DayOf is a job's day, planned from a moment on.
type DayOf struct {
	Day      day.Day    `json:"day"`
	Version  int64      `json:"version" doc:"That it stands at; nought where none was planned yet."`
	Begun    string     `json:"begun" doc:"The moment that it is planned from."`
	Entries  []EntryOf  `json:"entries" doc:"In the order in which they are begun."`
	Done     []EntryOf  `json:"done" doc:"What is done, or was struck out."`
	Dries    []DriesOf  `json:"dries" doc:"What dries or lies, and until when."`
	Held     []HeldOf   `json:"held" doc:"Openings of which something is not planned yet."`
	Safer    string     `json:"safer" doc:"Whose slabs two are safer with, where one is alone; empty for none."`
	Problems []string   `json:"problems" doc:"Why nothing can be planned; empty when it can."`
	Left     []string   `json:"left" doc:"What does not go into the fourteen days that are looked at."`
	ToAndFro int        `json:"toAndFro" doc:"Minutes of walking and of setting tools."`
	Saves    []SavingOf `json:"saves" doc:"Jigs, bored slabs, another latch: what each saves at these openings; the most first."`
}

// EntryOf is a scheduled task.
type EntryOf struct {
	ID        string   `json:"id"`
	Name      string   `json:"name"`
	Opening   string   `json:"opening"`
	OpeningID string   `json:"openingId"`
	Place     string   `json:"place"`
	Who       []string `json:"who" doc:"By name; empty where one carpenter is alone, and has none."`
	Date      string   `json:"date" doc:"Of the day, as 2026-11-26."`
	Day       string   `json:"day" doc:"In words."`
	From      string   `json:"from" doc:"By the clock; with going there and setting the tool."`
	To        string   `json:"to"`
	Minutes   int      `json:"minutes"`
	Prep      int      `json:"prep" doc:"Minutes of going there and setting the tool."`
	Hands     int      `json:"hands"`
	Alone     string   `json:"alone" doc:"How one does it alone with a heavy slab; empty where that is not asked."`
	More      int      `json:"more" doc:"Minutes that it takes longer for that."`
	Sets      string   `json:"sets" doc:"What is set for it; empty where it stands so already, or nothing is."`
	Dries     string   `json:"dries" doc:"How long what comes after it waits; empty where it does not."`
	While     string   `json:"while" doc:"What dries meanwhile; empty for nothing."`
	Mark      day.Mark `json:"mark"`
}

// DriesOf is something that dries.
type DriesOf struct {
	What  string `json:"what"`
	Until string `json:"until"`
}

// HeldOf is an opening with something that is not planned yet.
type HeldOf struct {
	Opening string `json:"opening"`
	Why     string `json:"why"`
}

// PlanDay plans a job's day, from a moment on.
func PlanDay(d day.Day, j job.Job, openings []load.Opening, log day.Log, begun string) DayOf {
	v := DayOf{
		Day: d, Begun: begun, Entries: []EntryOf{}, Done: []EntryOf{}, Dries: []DriesOf{}, Held: []HeldOf{},
		Problems: []string{}, Left: []string{}, Saves: newPrinter(j).savings(load.Saves(openings, log)),
	}
	now, ok := d.Minute(begun)
	switch {
	case !ok || now < 0:
		now = 0 // a day that is still to come is planned from its beginning
	case now >= 24*60: // one that is past goes on today
		d.Date = begun[:len(time.DateOnly)]
		now, _ = d.Minute(begun)
	}
	pr := newPrinter(j)
	w, err := d.Tasks(j, openings, log, now)
	for _, h := range w.Held {
		v.Held = append(v.Held, HeldOf{h.Name, pr.voice.Say(h.Why)})
	}
	if len(w.Heavy) > 0 {
		doors := make(message.And, len(w.Heavy))
		for i, name := range w.Heavy {
			doors[i] = message.Own(name)
		}
		v.Safer = pr.voice.Say(message.Message{ID: "day.safer", Args: message.Args{
			"doors": doors, "least": message.Mass(trade.TwoPeople), "count": message.Count(len(w.Heavy)),
		}})
	}
	marks := map[string]day.Mark{}
	for _, m := range d.Marks {
		marks[m.Task] = m
	}
	for _, t := range w.Done {
		v.Done = append(v.Done, pr.entry(d, t, marks[t.ID]))
	}
	if v.wrong(pr, err) {
		return v
	}
	o, err := d.Plan(w, now)
	if v.wrong(pr, err) {
		return v
	}
	v.ToAndFro = o.Prep
	for _, i := range o.Left {
		v.Left = append(v.Left, pr.voice.Say(w.Tasks[i].Title()))
	}
	type drying struct {
		what      string
		from, end int
	}
	var dry []drying
	set := map[int]map[string]day.Setting{}
	for _, e := range o.Entries {
		t := w.Tasks[e.Task]
		x := pr.entry(d, t, marks[t.ID])
		from, to := d.Moment(e.Start), d.Moment(e.End)
		x.Date, x.Day, x.From, x.To, x.Prep = from.Format(time.DateOnly), pr.day(from), from.Format("15:04"), to.Format(
			"15:04",
		), e.Prep
		for _, c := range e.Who {
			if name := d.Carpenters[c].Name; name != "" || len(d.Carpenters) > 1 {
				if name == "" {
					name = pr.voice.Say(message.Message{
						ID: "day.carpenter", Args: message.Args{"n": message.Number(c + 1)},
					})
				}
				x.Who = append(x.Who, name)
			}
			if set[c] == nil {
				set[c] = map[string]day.Setting{}
			}
			if s := t.Set; s.Tool != "" && !set[c][s.Tool].Same(s) {
				set[c][s.Tool] = s
				x.Sets = pr.voice.Say(s.Says)
			}
		}
		for _, k := range dry {
			if e.Start >= k.from && e.Start < k.end {
				x.While = k.what
			}
		}
		if t.Dries > 0 &&
			slices.ContainsFunc(w.Tasks, func(n day.Task) bool { return slices.Contains(n.After, e.Task) }) {
			x.Dries = pr.voice.Word(message.Lasting(t.Dries))
			dry = append(dry, drying{pr.voice.Say(t.Title()), e.End, e.End + t.Dries})
			v.Dries = append(v.Dries, DriesOf{
				pr.voice.Say(t.Title()), pr.day(d.Moment(e.End+t.Dries)) + d.Moment(e.End+t.Dries).Format(" 15:04"),
			})
		}
		v.Entries = append(v.Entries, x)
	}
	return v
}

// wrong records an error's sentences, and reports whether there were any.
func (v *DayOf) wrong(p printer, err error) bool {
	var all field.Errors
	if errors.As(err, &all) {
		for _, e := range all {
			v.Problems = append(v.Problems, p.voice.Say(e.Problem))
		}
	} else if err != nil {
		v.Problems = append(v.Problems, err.Error())
	}
	return err != nil
}

// day is a day in words: "Monday 2 January".
func (p printer) day(t time.Time) string {
	return p.voice.Say(message.Message{ID: "day.date", Args: message.Args{
		"weekday": "weekday." + message.ID(strconv.Itoa(int(t.Weekday()))), "day": message.Number(t.Day()),
		"month": message.Month(t.Month()),
	}})
}

func (p printer) entry(d day.Day, t day.Task, m day.Mark) EntryOf {
	m.Task = t.ID
	x := EntryOf{
		ID: t.ID, Name: p.voice.Say(t.Name), Opening: t.Opening, OpeningID: t.OpeningID, Minutes: t.Minutes, Hands: t.Hands,
		Who: []string{}, Mark: m,
	}
	x.Place = p.voice.Text(t.Place.Name())
	if t.Alone != "" {
		x.Alone, x.More = p.voice.Text(t.Alone), t.More
	}
	if end, ok := d.Minute(m.Done); ok {
		to := d.Moment(end)
		x.Date, x.Day, x.From, x.To = to.Format(time.DateOnly), p.day(to), d.Moment(end-t.Minutes).Format(
			"15:04",
		), to.Format("15:04")
	}
	return x
}

// Calendar writes a day as an iCalendar (RFC 5545), in floating local time. Each task has a stable UID, so that a
// calendar that imports it again moves its entries; stamp is the time of writing, and the latest wins.
func Calendar(w io.Writer, v DayOf, j job.Job, stamp time.Time) error {
	p := newPrinter(j)
	c := ics.NewCalendarFor("Kind Margin")
	c.SetMethod(ics.MethodPublish)
	c.SetXWRCalName(j.Name)
	put := func(e EntryOf, status ics.ObjectStatus) {
		if e.Date == "" {
			e.Date, e.From, e.To = v.Day.Date, "00:00", "00:00"
		}
		x := c.AddEvent(e.ID + "@" + j.ID + ".kindmargin")
		x.SetDtStampTime(stamp.UTC())
		x.SetSequence(int(stamp.Unix() / 10))
		x.SetProperty(ics.ComponentPropertyDtStart, floating(e.Date, e.From))
		x.SetProperty(ics.ComponentPropertyDtEnd, floating(e.Date, e.To))
		title := e.Name
		if e.Opening != "" {
			title = e.Opening + ": " + e.Name
		}
		x.SetSummary(title)
		x.SetLocation(e.Place)
		var notes []string
		note := func(id message.ID, text string) {
			if text != "" {
				notes = append(notes, p.voice.Say(message.Message{ID: id, Args: message.Args{"text": text}}))
			}
		}
		note("day.who", p.voice.Word(named(e.Who)))
		note("day.set", e.Sets)
		note("day.dries", e.Dries)
		if len(notes) > 0 {
			x.SetDescription(strings.Join(notes, "\n"))
		}
		x.SetStatus(status)
	}
	for _, e := range v.Done {
		if e.Mark.Struck {
			put(e, ics.ObjectStatusCancelled)
		} else {
			put(e, ics.ObjectStatusConfirmed)
		}
	}
	for _, e := range v.Entries {
		put(e, ics.ObjectStatusConfirmed)
	}
	return c.SerializeTo(w)
}

// floating is a local time without a zone (RFC 5545, 3.3.5, form 1).
func floating(date, clock string) string {
	return strings.ReplaceAll(date, "-", "") + "T" + strings.ReplaceAll(clock, ":", "") + "00"
}

// named is a list of names.
func named(names []string) (list message.And) {
	for _, n := range names {
		list = append(list, n)
	}
	return list
}
