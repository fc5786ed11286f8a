package job

import (
	"slices"

	"kindmargin/core/field"
	"kindmargin/core/hinge"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/season"
)

// Usual are a job's defaults for new openings; nil where the unit's defaults hold.
type Usual struct {
	Margins *Margins       `json:"margins,omitempty"`
	Hinges  *UsualHinges   `json:"hinges,omitempty"`
	Lock    *lock.Choice   `json:"lock,omitempty"`
	Season  *season.Choice `json:"season,omitempty"`
}

// UsualHinges is a default hinge and its rule.
type UsualHinges struct {
	Choice hinge.Choice   `json:"choice"`
	Pin    measure.Length `json:"pin,omitempty"` // in front of the pull face
}

// Part is a part of an opening's choices that other openings can take over.
type Part string

// The parts. The kit is the job's own, and so every opening's.
const (
	PartMargins Part = "margins"
	PartHinges  Part = "hinges"
	PartLock    Part = "lock"
	PartSeason  Part = "season"
)

// Parts lists the parts, in trade order.
var Parts = []Part{PartMargins, PartHinges, PartLock, PartSeason}

// Takes is an opening with some parts of another's choices. What belongs to the opening itself stays: its future floor,
// the recesses and the strike in its jambs, which decide its heights, old holes, what its edges hold, and its slab's
// moisture.
func (o Opening) Takes(from Opening, parts []Part) Opening {
	for _, p := range parts {
		switch p {
		case PartMargins:
			m := from.Margins
			m.Floor, m.Sweep = o.Margins.Floor, o.Margins.Sweep
			o.Margins = m
		case PartHinges:
			o.Hinges, o.Swing.Pin = hinges(o.Hinges, from.Hinges), from.Swing.Pin
		case PartLock:
			o.Lock = latch(o.Lock, from.Lock)
		case PartSeason:
			s := from.Season
			s.Across, s.Moisture = o.Season.Across, o.Season.Moisture
			if s.Air != nil {
				air := *s.Air
				s.Air = &air
			}
			o.Season = s
		}
	}
	return o
}

// hinges are an opening's hinges with another's choices.
func hinges(c, from hinge.Choice) hinge.Choice {
	c.Leaf, c.Width, c.Plate, c.Closed, c.Size, c.Long = from.Leaf, from.Width, from.Plate, from.Closed, from.Size, from.Long
	if c.From == hinge.FromPockets || from.From == hinge.FromPockets {
		return c // those that are in the jamb decide, and so many
	}
	c.From, c.Count, c.Third, c.Places = from.From, from.Count, from.Third, slices.Clone(from.Places)
	return c
}

// latch is an opening's lock with another's choices.
func latch(c, from lock.Choice) lock.Choice {
	c.Hardware, c.Backset, c.Bore, c.Second, c.Above = from.Hardware, from.Backset, from.Bore, from.Second, from.Above
	c.Reach, c.Lowest, c.Highest = from.Reach, from.Lowest, from.Highest
	c.When, c.Tight = from.When, from.Tight
	if c.From == lock.FromHandle && from.From == lock.FromHandle {
		c.Handle = from.Handle
	}
	return c
}

// Set makes some parts of an opening's choices the defaults.
func (s Usual) Set(u measure.Unit, from Opening, parts []Part) Usual {
	plain := NewOpening("", "", u).Takes(from, parts)
	for _, p := range parts {
		switch p {
		case PartMargins:
			s.Margins = &plain.Margins
		case PartHinges:
			s.Hinges = &UsualHinges{plain.Hinges, plain.Swing.Pin}
		case PartLock:
			s.Lock = &plain.Lock
		case PartSeason:
			s.Season = &plain.Season
		}
	}
	return s
}

// Without are the defaults without some parts.
func (s Usual) Without(parts []Part) Usual {
	for _, p := range parts {
		switch p {
		case PartMargins:
			s.Margins = nil
		case PartHinges:
			s.Hinges = nil
		case PartLock:
			s.Lock = nil
		case PartSeason:
			s.Season = nil
		}
	}
	return s
}

// Begin is a new opening with the job's defaults, or the unit's.
func (j Job) Begin(id, name string) Opening {
	o := NewOpening(id, name, j.Unit)
	if m := j.Usual.Margins; m != nil {
		o.Margins = *m
	}
	if h := j.Usual.Hinges; h != nil {
		o.Hinges, o.Swing.Pin = h.Choice, h.Pin
		o.Hinges.Places = slices.Clone(h.Choice.Places)
	}
	if l := j.Usual.Lock; l != nil {
		o.Lock = *l
	}
	if s := j.Usual.Season; s != nil {
		o = o.Takes(Opening{Season: *s}, []Part{PartSeason})
	}
	return o
}

// check reports defaults that are invalid for any opening.
func (s Usual) check(j Job) error {
	o := j.Begin("new", "new")
	var bad field.Errors
	bad.Under("", o.Check())
	bad.Under("", o.CheckKit(j.Kit))
	return bad.Err()
}
