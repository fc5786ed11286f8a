// Package seasons is the stage that allows for the year: how far a slab and its jambs move, and what the lock margin
// is set to for it.
package seasons

import (
	"math"
	"time"

	"gonum.org/v1/gonum/stat/distuv"

	"kindmargin/core/figure"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Season is a leaf's movement through the year, and its lock margin for it.
type Season struct {
	season.Year
	Today   figure.Figure  // lock margin to set now
	Wettest figure.Figure  // that margin in the month when it is tightest
	Driest  figure.Figure  // and when it is widest
	Other   measure.Length // what the other school would set it to: the rule of thumb, or moisture content
	Lie     int            // days that the slab lies in the room first
}

// seasonOf is the year of a leaf; ok is false where the seasons are left out.
func seasonOf(d site.Opening, b site.Bay) (season.Year, bool) {
	jamb := d.Hinges.Jamb
	if d.Pair != nil { // each leaf hangs on one of the two
		jamb /= 2
	}
	return season.Of(b.Slab, d.Season, jamb)
}

// Allow adds the year's movement to a lock margin; for a pair, of which f is this leaf's half, the mean of both
// leaves'. It is f itself where the seasons are left out.
func Allow(d site.Opening, f figure.Figure) figure.Figure {
	bays := site.Bays(d)
	var middle, raised float64
	var why message.Message
	for _, b := range bays {
		y, ok := seasonOf(d, b)
		if !ok {
			return f
		}
		least := d.Margins.Least.MM() / float64(len(bays))
		_, more := y.Today(f.Value.MM(), least, 0)
		if d.Rules > site.Rules1 {
			_, sure := y.Today(f.Value.MM(), least, season.OneSided*trade.MoveUnsure)
			// At most up to the widest gap that looks right, where the least is kept in the mean.
			room := widest(d).MM() + y.In(y.Dry).Closes() - (f.Value.MM() + y.Middle())
			more = max(more, min(sure, room))
		}
		middle += y.Middle() / float64(len(bays))
		raised = max(raised, more)
		why = y.Why()
	}
	terms := append(f.Terms[:len(f.Terms):len(f.Terms)], figure.Term{
		Label:  "term.season-closes",
		Args:   message.Args{"why": why},
		Value:  d.Estimate(middle),
		Source: figure.Estimate, Sigma: trade.MoveUnsure * math.Abs(middle),
	})
	if raised > 0 {
		terms = append(terms, figure.Term{Label: "term.season-more", Value: d.Estimate(raised), Source: figure.Rule})
	}
	return figure.Sum(trade.MoveUnsure*math.Abs(middle), terms...)
}

// Of is a leaf's year with its findings; nil where the seasons are left out. before and wanted are the lock margin
// without and with them.
func Of(d site.Opening, b site.Bay, before, wanted figure.Figure) (*Season, site.Findings) {
	y, ok := seasonOf(d, b)
	if !ok {
		return nil, nil
	}
	v := Season{Year: y, Today: wanted, Lie: int(math.Ceil(y.Lie(b.Slab)))}
	v.Wettest, v.Driest = inMonth(d, y, wanted.Value, y.Wet), inMonth(d, y, wanted.Value, y.Dry)

	other := d
	other.Season.School = season.ByThumb
	if d.Season.School == season.ByThumb {
		other.Season.School = season.ByMoisture
	}
	v.Other = Allow(other, before).Value.Round(d.Tape.Step(), measure.Nearest)
	moves := y.Movement.Planks || y.Movement.Stiles

	var said site.Findings
	if v.Driest.Value > widest(d)+figure.Quantum(d.Unit) && !b.Meets {
		said.Say(site.Care, job.StepMargins, "/season", site.SeasonTooWide, message.Args{
			"least": d.Margins.Least, "wet": message.Month(y.Wet), "driest": v.Driest.Value,
			"dry": message.Month(y.Dry), "widest": message.Exact(widest(d)),
		})
	}
	if kept := keeps(d, y, wanted.Value); kept < 19 && d.Rules > site.Rules1 && !b.Meets {
		said.Say(site.Note, job.StepMargins, "/season", site.SeasonKeeps, message.Args{
			"least": d.Margins.Least, "wet": message.Month(y.Wet), "times": message.Number(kept),
			"widest": message.Exact(widest(d)), "dry": message.Month(y.Dry),
		})
	}
	if v.Lie > 0 {
		said.Say(site.Care, job.StepMargins, "/season/moisture", site.SeasonLie, message.Args{
			"now": message.Percent(y.Now), "room": message.Percent(y.Room), "days": message.Count(v.Lie),
			"by": message.Fine(measure.FromMM(math.Abs(y.At(y.Room)))),
		})
	}
	if moves && !d.Season.Sealed {
		said.Say(site.Note, job.StepMargins, "/season/sealed", site.SeasonSeal, message.Args{
			"by": d.Estimate(y.In(y.Wet).Closes() - y.In(y.Dry).Closes()), "wet": message.Month(y.Wet),
			"dry": message.Month(y.Dry),
		})
	}
	if moves && !y.ByTable() && d.Season.School == season.ByMoisture {
		said.Say(site.Note, job.StepMargins, "/season", site.SeasonBeyond, message.Args{
			"least": message.Number(trade.ByTable.Least), "most": message.Number(trade.ByTable.Most),
		})
	}
	return &v, said
}

// widest is the widest gap that looks right in the driest month.
func widest(d site.Opening) measure.Length {
	if d.Season.Widest > 0 {
		return d.Season.Widest
	}
	return trade.WidestLight
}

// keeps is how many times in twenty today's margin keeps the least in its tightest month.
func keeps(d site.Opening, y season.Year, today measure.Length) int {
	closes := y.In(y.Wet).Closes()
	if closes <= 0 {
		return 20
	}
	z := ((today - d.Margins.Least).MM() - closes) / (trade.MoveUnsure * closes)
	return int(math.Round(20 * distuv.UnitNormal.CDF(z)))
}

// inMonth is the lock margin in a month, for a slab that is hung to today's.
func inMonth(d site.Opening, y season.Year, today measure.Length, month time.Month) figure.Figure {
	m := y.In(month)
	slab, jambs := d.Estimate(-m.Slab), d.Estimate(-m.Jambs)
	sigma := trade.MoveUnsure * math.Abs(m.Closes())
	terms := []figure.Term{
		{Label: "term.set-today", Value: today, Source: figure.Choice},
		{
			Label: "term.slab-moisture",
			Args:  message.Args{"from": message.Percent(y.Now), "to": message.Percent(m.Moisture)}, Value: slab,
			Source: figure.Estimate, Sigma: sigma,
		},
	}
	if jambs != 0 {
		terms = append(terms, figure.Term{Label: "term.both-jambs", Value: jambs, Source: figure.Estimate})
	}
	return figure.Sum(sigma, terms...)
}

// Since is the predicted change of the gap at the lock edge since a slab was fitted, by its moisture at a revisit, from
// a meter or the air; nil where it predicts nothing.
func Since(d site.Opening, b site.Bay, h job.Hang) *season.Since {
	y, ok := seasonOf(d, b)
	if !ok || b.Meets || h.Revisit == "" {
		return nil
	}
	switch {
	case h.Moisture > 0:
		return &season.Since{Was: y.Now, Is: float64(h.Moisture), Closed: y.At(float64(h.Moisture))}
	case h.Air != nil:
		m := y.With(*h.Air)
		return &season.Since{Was: y.Now, Is: m.Moisture, Closed: m.Closes()}
	}
	return nil
}
