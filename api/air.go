package api

import (
	"context"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/store"
)

// Airing is the air of a house as a hygrometer sends it: docs/instruments.md.
type Airing struct {
	Temperature string `json:"temperature" doc:"As a person writes it: 18.5 °C, 65 °F; a bare number in the degrees that go with the job's unit."`
	Humidity    string `json:"humidity" doc:"Relative, as a person writes it: 54 %."`
	From        string `json:"from,omitempty" doc:"What the hygrometer is called, in at most 60 letters."`
	At          string `json:"at,omitempty" doc:"When it was read (RFC 3339); now where nothing is said. Sent again, it is kept once."`
}

// AirLog is the air of a house.
type AirLog struct {
	Newest *AirRead `json:"newest,omitempty" doc:"Absent while nothing was sent."`
	Mean   *AirRead `json:"mean,omitempty" doc:"Of the 14 days up to the newest; absent where that is one reading."`
	Read   int      `json:"read" doc:"How many the mean is of."`
}

// AirRead is one reading of a house's air, or a mean.
type AirRead struct {
	season.Air
	From     string `json:"from"`
	At       string `json:"at"`
	Text     string `json:"text"`
	Moisture string `json:"moisture" doc:"What wood comes to in it."`
}

// How far back readings go, and how far ahead a hygrometer's clock may be.
const (
	airDays  = 14
	airAhead = 26 * time.Hour // any zone's
)

// addAir stores a reading of a house's air.
func (s server) addAir(ctx context.Context, in *struct {
	JobPath
	raw
},
) (*body[AirLog], error) {
	asked, err := read[Airing](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	head, err := s.store.Head(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	aired, err := airedOf(asked, head.Unit, time.Now())
	if err != nil {
		return nil, problem(ctx, err)
	}
	if aired.Name == "" {
		aired.Name = s.label(ctx, "air.hygrometer", nil)
	}
	if err := s.store.AddAir(ctx, in.Job, aired); err != nil {
		return nil, problem(ctx, err)
	}
	s.hub.tell("air", struct {
		Job string `json:"job"`
	}{in.Job}, everyone)
	return s.air(ctx, &in.JobPath)
}

// airedOf parses a hygrometer's reading.
func airedOf(asked Airing, u measure.Unit, now time.Time) (a store.Aired, err error) {
	var bad field.Errors
	if a.Celsius, err = season.ParseCelsius(asked.Temperature, u); err != nil {
		bad.Under("/temperature", err)
	}
	if a.Humidity, err = season.ParsePercent(asked.Humidity); err != nil {
		bad.Under("/humidity", err)
	}
	if len(bad) == 0 {
		bad.Under("", a.Air.Check())
	}
	a.Name = strings.TrimSpace(asked.From)
	if utf8.RuneCountInString(a.Name) > 60 || strings.ContainsFunc(a.Name, unicode.IsControl) {
		bad.Add("/from", "refused.hygrometer", nil)
	}
	a.At = now.UTC().Truncate(time.Second)
	if asked.At != "" {
		if a.At, err = time.Parse(time.RFC3339, asked.At); err != nil {
			bad.Add("/at", "refused.moment-utc", message.Args{"given": message.Quote(asked.At)})
		} else if a.At.After(now.Add(airAhead)) {
			bad.Add("/at", "refused.moment-ahead", message.Args{
				"given": a.At.UTC().Format(time.RFC3339), "now": now.UTC().Format(time.RFC3339),
			})
		}
	}
	return a, bad.Err()
}

// air is the house's recent air.
func (s server) air(ctx context.Context, in *JobPath) (*body[AirLog], error) {
	head, err := s.store.Head(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	newest, err := s.store.AirOf(ctx, in.Job, time.Time{}, 1)
	if err != nil {
		return nil, problem(ctx, err)
	}
	log := AirLog{}
	if len(newest) == 0 {
		return &body[AirLog]{Body: log}, nil
	}
	list, err := s.store.AirOf(ctx, in.Job, newest[0].At.AddDate(0, 0, -airDays), 24*60*airDays)
	if err != nil {
		return nil, problem(ctx, err)
	}
	view := func(a season.Air, from string, at time.Time) *AirRead {
		return &AirRead{
			Air: a, From: from, At: at.Format(time.RFC3339), Text: a.Text(head.Unit),
			Moisture: season.Percent(a.Moisture()).Text() + " %",
		}
	}
	log.Newest, log.Read = view(newest[0].Air, newest[0].Name, newest[0].At), len(list)
	if len(list) > 1 {
		var mean season.Air
		for _, a := range list {
			mean.Celsius += a.Celsius / season.Celsius(len(list))
			mean.Humidity += a.Humidity / season.Percent(len(list))
		}
		log.Mean = view(
			mean, s.label(ctx, "air.mean-of-days", message.Args{"days": message.Count(airDays)}), list[len(list)-1].At,
		)
	}
	return &body[AirLog]{Body: log}, nil
}
