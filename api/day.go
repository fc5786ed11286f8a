package api

import (
	"bytes"
	"context"
	"net/http"
	"slices"
	"strings"
	"time"

	"kindmargin/core/day"
	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/saves"
	"kindmargin/document"
)

// DayIn is a job's day, at a moment.
type DayIn struct {
	JobPath
	Now string `query:"now" doc:"The moment that it is planned from, by the clock where the work is done: 2026-11-26T10:20. Nothing for this machine's own."`
}

// moment is that moment.
func (in DayIn) moment() (string, error) {
	if in.Now == "" {
		return time.Now().Format(momentForm), nil
	}
	if _, err := time.Parse(momentForm, in.Now); err != nil {
		return "", field.Fault("/now", "refused.moment", message.Args{"given": message.Quote(in.Now)})
	}
	return in.Now, nil
}

const momentForm = "2006-01-02T15:04"

// day is a job's day, planned for now.
func (s server) day(ctx context.Context, in *DayIn) (*body[document.DayOf], error) {
	v, _, err := s.keptDay(ctx, *in)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &body[document.DayOf]{etag(v.Version), v}, nil
}

// keptDay is a job's stored day, planned from the requested moment.
func (s server) keptDay(ctx context.Context, in DayIn) (document.DayOf, job.Job, error) {
	now, err := in.moment()
	if err != nil {
		return document.DayOf{}, job.Job{}, err
	}
	d, version, err := s.store.Day(ctx, in.Job)
	if err != nil {
		return document.DayOf{}, job.Job{}, err
	}
	return s.dayOf(ctx, in.Job, d, version, now)
}

// dayBody is a changed day, planned anew.
func (s server) dayBody(
	ctx context.Context, id string, d day.Day, version int64, now string,
) (*body[document.DayOf], error) {
	v, _, err := s.dayOf(ctx, id, d, version, now)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &body[document.DayOf]{etag(version), v}, nil
}

// dayOf plans a day; one that was not stored yet is the default.
func (s server) dayOf(
	ctx context.Context, id string, d day.Day, version int64, now string,
) (document.DayOf, job.Job, error) {
	if version == 0 {
		d = day.Usual(now[:len(time.DateOnly)])
	}
	list, err := s.store.List(ctx, id)
	if err != nil {
		return document.DayOf{}, job.Job{}, err
	}
	log, err := s.ownPace(ctx, id)
	if err != nil {
		return document.DayOf{}, job.Job{}, err
	}
	var chosen []string // those that went off the walk meanwhile are left out
	for _, o := range list {
		if !o.Signed && (len(d.Openings) == 0 || slices.Contains(d.Openings, o.ID)) {
			chosen = append(chosen, o.ID)
		}
	}
	head, some, err := s.store.Some(ctx, id, chosen[:min(len(chosen), day.MostOpenings)])
	if err != nil {
		return document.DayOf{}, job.Job{}, err
	}
	j, err := jobOf(head, some)
	if err != nil {
		return document.DayOf{}, j, err
	}
	planned, err := document.Planned(ctx, j)
	if err != nil {
		return document.DayOf{}, j, err
	}
	v := document.PlanDay(d, j, planned, log, now)
	if len(chosen) > day.MostOpenings {
		v.Held = append(v.Held, document.HeldOf{
			Opening: document.Voice(j).Text("day.rest"),
			Why: document.Voice(j).Say(message.Message{
				ID: "day.rest-why", Args: message.Args{"most": message.Number(day.MostOpenings)},
			}),
		})
	}
	v.Version = version
	return v, j, nil
}

// setDay stores a day's settings.
func (s server) setDay(ctx context.Context, in *struct {
	DayIn
	Precondition
	raw
},
) (*body[document.DayOf], error) {
	now, err := in.moment()
	if err != nil {
		return nil, problem(ctx, err)
	}
	d, err := read[day.Day](job.Rename(in.RawBody, keysNow))
	if err != nil {
		return nil, problem(ctx, err)
	}
	if err := d.Check(); err != nil {
		return nil, problem(ctx, err)
	}
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	d, version, err = s.store.SetDay(ctx, in.Job, d, version)
	if err = s.told(ctx, err, in.Job, "", s.label(ctx, "label.day", nil)); err != nil {
		return nil, err
	}
	return s.dayBody(ctx, in.Job, d, version, now)
}

// markTask stores what became of a task.
func (s server) markTask(ctx context.Context, in *struct {
	DayIn
	raw
},
) (*body[document.DayOf], error) {
	now, err := in.moment()
	if err != nil {
		return nil, problem(ctx, err)
	}
	m, err := read[day.Mark](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if m.Task == "" || len(m.Task) > 160 {
		return nil, refusalOf(422, "api.which-task", nil)
	}
	d, version, err := s.store.MarkTask(ctx, in.Job, m, day.Usual(now[:len(time.DateOnly)]))
	if err = s.told(ctx, err, in.Job, "", s.label(ctx, became(m), nil)); err != nil {
		return nil, err
	}
	return s.dayBody(ctx, in.Job, d, version, now)
}

// became parses what became of a task.
func became(m day.Mark) message.ID {
	switch {
	case m.Done != "":
		return "label.day-done"
	case m.Struck:
		return "label.day-struck"
	case m.Late > 0:
		return "label.day-late"
	}
	return "label.day-changed"
}

// calendar is the day as an iCalendar file.
func (s server) calendar(ctx context.Context, in *DayIn) (*sheetOut, error) {
	v, j, err := s.keptDay(ctx, *in)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if len(v.Problems) > 0 {
		return nil, refusalOf(http.StatusConflict, "api.own-words", message.Args{
			"words": strings.Join(v.Problems, " "),
		})
	}
	var b bytes.Buffer
	if err := document.Calendar(&b, v, j, time.Now()); err != nil {
		return nil, problem(ctx, err)
	}
	return &sheetOut{
		"text/calendar; charset=utf-8", `attachment; filename="` + fileStem(j.Name) + `-day.ics"`, b.Bytes(),
	}, nil
}

// ownPace is the house's own pace, by openings that were signed off: their times are complete.
func (s server) ownPace(ctx context.Context, id string) (saves.Log, error) {
	list, err := s.store.List(ctx, id)
	if err != nil {
		return nil, err
	}
	spent, err := s.store.SpentAll(ctx, id)
	if err != nil {
		return nil, err
	}
	log, counted := saves.Log{}, map[job.Step]float64{}
	for _, o := range list {
		if !o.Signed {
			continue
		}
		for step, seconds := range spent[o.ID] {
			log[step] += float64(seconds) / 60
			counted[step]++
		}
	}
	for step := range log {
		log[step] /= counted[step]
	}
	return log, nil
}
