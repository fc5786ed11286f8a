package plan

import (
	"math"
	"time"

	"gonum.org/v1/gonum/stat/distuv"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/trade"
)

// Season is what a leaf does through the year, and what its lock margin is set to for it.
type Season struct {
	season.Year
	Today   figure.Figure  // lock margin to set now
	Wettest figure.Figure  // that margin in the month when it is tightest
	Driest  figure.Figure  // and when it is widest
	Other   measure.Length // what the other school would set it to: the rule of thumb, or moisture content
	Lie     int            // days that the slab lies in the room first
}

// seasonOf is the year of a leaf; ok is false where the seasons are left out.
func seasonOf(d door, b bay) (season.Year, bool) {
	jamb := d.Hinges.Jamb
	if d.Pair != nil { // each leaf hangs on one of the two
		jamb /= 2
	}
	return season.Of(b.slab, d.Season, jamb)
}

// seasonal adds to the margin wanted at the lock edge what the year still does to it: of a pair, of
// which f is this leaf's half, the mean of what both leaves do.
func seasonal(d door, f figure.Figure) figure.Figure {
	bays := baysOf(d)
	var middle, raised float64
	var why message.Message
	for _, b := range bays {
		y, ok := seasonOf(d, b)
		if !ok {
			return f
		}
		least := d.Margins.Least.MM() / float64(len(bays))
		_, more := y.Today(f.Value.MM(), least, 0)
		if d.rules > rules1 {
			_, sure := y.Today(f.Value.MM(), least, season.OneSided*trade.MoveUnsure)
			// No further than the widest light that looks right allows, where the least is kept in the mean.
			room := widest(d).MM() + y.In(y.Dry).Closes() - (f.Value.MM() + y.Middle())
			more = max(more, min(sure, room))
		}
		middle += y.Middle() / float64(len(bays))
		raised = max(raised, more)
		why = y.Why()
	}
	terms := append(f.Terms[:len(f.Terms):len(f.Terms)], figure.Term{
		Label:  "term.season-closes",
		Args:   Args{"why": why},
		Value:  d.est(middle),
		Source: figure.Estimate, Sigma: trade.MoveUnsure * math.Abs(middle),
	})
	if raised > 0 {
		terms = append(terms, figure.Term{Label: "term.season-more", Value: d.est(raised), Source: figure.Rule})
	}
	return figure.Sum(trade.MoveUnsure*math.Abs(middle), terms...)
}

// seasons are a leaf's year and what there is to say of it; nil where they are left out. wanted is
// the lock margin that is wanted of it with the seasons in it.
func seasons(d door, s surveyed, b bay, wanted figure.Figure) (*Season, findings) {
	y, ok := seasonOf(d, b)
	if !ok {
		return nil, nil
	}
	v := Season{Year: y, Today: wanted, Lie: int(math.Ceil(y.Lie(b.slab)))}
	v.Wettest, v.Driest = inMonth(d, y, wanted.Value, y.Wet), inMonth(d, y, wanted.Value, y.Dry)

	other := d
	other.Season.School = season.ByThumb
	if d.Season.School == season.ByThumb {
		other.Season.School = season.ByMoisture
	}
	otherwise, _, _ := margins(other, s)
	v.Other = otherwise[frame.Lock].Value.Round(d.tape.Step(), measure.Nearest)
	moves := y.Movement.Planks || y.Movement.Stiles

	var said findings
	if v.Driest.Value > widest(d)+figure.Quantum(d.unit) && !b.meets {
		said.say(Care, job.StepMargins, "/season", SeasonTooWide, Args{
			"least": d.Margins.Least, "wet": message.Month(y.Wet), "driest": v.Driest.Value, "dry": message.Month(y.Dry), "widest": message.Exact(widest(d)),
		})
	}
	if kept := keeps(d, y, wanted.Value); kept < 19 && d.rules > rules1 && !b.meets {
		said.say(Note, job.StepMargins, "/season", SeasonKeeps, Args{
			"least": d.Margins.Least, "wet": message.Month(y.Wet), "times": message.Number(kept), "widest": message.Exact(widest(d)), "dry": message.Month(y.Dry),
		})
	}
	if v.Lie > 0 {
		said.say(Care, job.StepMargins, "/season/moisture", SeasonLie, Args{
			"now": message.Percent(y.Now), "room": message.Percent(y.Room), "days": message.Count(v.Lie), "by": message.Fine(measure.FromMM(math.Abs(y.At(y.Room)))),
		})
	}
	if moves && !d.Season.Sealed {
		said.say(Note, job.StepMargins, "/season/sealed", SeasonSeal, Args{
			"by": d.est(y.In(y.Wet).Closes() - y.In(y.Dry).Closes()), "wet": message.Month(y.Wet), "dry": message.Month(y.Dry),
		})
	}
	if moves && !y.ByTable() && d.Season.School == season.ByMoisture {
		said.say(Note, job.StepMargins, "/season", SeasonBeyond, Args{"least": message.Number(trade.ByTable.Least), "most": message.Number(trade.ByTable.Most)})
	}
	return &v, said
}

// widest is the widest light that looks right in the driest month.
func widest(d door) measure.Length {
	if d.Season.Widest > 0 {
		return d.Season.Widest
	}
	return trade.WidestLight
}

// keeps is how many times in twenty the margin set today keeps the least in the month when it is tightest.
func keeps(d door, y season.Year, today measure.Length) int {
	closes := y.In(y.Wet).Closes()
	if closes <= 0 {
		return 20
	}
	z := ((today - d.Margins.Least).MM() - closes) / (trade.MoveUnsure * closes)
	return int(math.Round(20 * distuv.UnitNormal.CDF(z)))
}

// inMonth is the lock margin in a month, of a door that is hung to today's.
func inMonth(d door, y season.Year, today measure.Length, month time.Month) figure.Figure {
	m := y.In(month)
	slab, jambs := d.est(-m.Slab), d.est(-m.Jambs)
	sigma := trade.MoveUnsure * math.Abs(m.Closes())
	terms := []figure.Term{
		{Label: "term.set-today", Value: today, Source: figure.Choice},
		{Label: "term.slab-moisture", Args: Args{"from": message.Percent(y.Now), "to": message.Percent(m.Moisture)}, Value: slab, Source: figure.Estimate, Sigma: sigma},
	}
	if jambs != 0 {
		terms = append(terms, figure.Term{Label: "term.both-jambs", Value: jambs, Source: figure.Estimate})
	}
	return figure.Sum(sigma, terms...)
}

// foretold is what a slab holds at a revisit, in %, by meter or by the air it hung in, and how far, in mm,
// that says that the light at the lock edge has closed since the door was fitted; ok is false where it says
// nothing.
func foretold(d door, b bay, h job.Hang) (moisture, closed float64, ok bool) {
	y, ok := seasonOf(d, b)
	if !ok || b.meets || h.Revisit == "" {
		return 0, 0, false
	}
	switch {
	case h.Moisture > 0:
		return float64(h.Moisture), y.At(float64(h.Moisture)), true
	case h.Air != nil:
		m := y.With(*h.Air)
		return m.Moisture, m.Closes(), true
	}
	return 0, 0, false
}

// sinceForetold holds what the lock margin did since the door was left against what was foretold.
func sinceForetold(d door, b bay, at string, h job.Hang, v Try) (said findings) {
	moisture, closed, ok := foretold(d, b, h)
	if !ok {
		return nil
	}
	y, _ := seasonOf(d, b)
	middle := len(v.Margins[frame.Lock]) / 2
	was, now := v.Was[frame.Lock][middle], v.Margins[frame.Lock][middle]
	found := was.Mean - now.Mean
	// What the coefficients leave open, and the gaps: those of then were read as well as those of
	// now. (was.Sigma is of the foresight that knows of no season.)
	unsure := figure.Coverage * math.Hypot(trade.MoveUnsure*closed, math.Sqrt2*now.Sigma)
	code := SeasonAgrees
	if math.Abs(found-closed) > max(unsure, mostStill) {
		code = SeasonDisagrees
	}
	said.say(Note, job.StepTry, at, code, Args{
		"moisture": message.Percent(moisture), "was": message.Percent(y.Now),
		"way": way(closed, "closed", "opened"), "foretold": message.Fine(measure.FromMM(math.Abs(closed))),
		"went": way(found, "closed", "opened"), "found": message.Fine(measure.FromMM(math.Abs(found))),
	})
	return said
}
