// Package site is the opening that is worked on: what every stage needs of job, kit and survey, and the findings and
// suggestions that they return.
package site

import (
	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
)

// Opening is a kept opening with the job's unit, tape and kit, and the rules that it is planned by.
type Opening struct {
	job.Opening
	Unit measure.Unit
	Tape measure.Tape
	Kit  job.Kit
	Rules
}

// Estimate is a length in mm, rounded to the precision of a figure's terms (figure.Quantum).
func (d Opening) Estimate(mm float64) measure.Length {
	return measure.FromMM(mm).Round(figure.Quantum(d.Unit), measure.Nearest)
}

// Finest is the finest tape of the job's unit: a hinge is packed by card and paper, finer than any tape in use.
func (d Opening) Finest() measure.Tape { return measure.Tapes(d.Unit)[0] }

// New is an opening of a job, by the rules that it was cut by, or the latest while it is not cut.
func New(j job.Job, o job.Opening) Opening {
	return Opening{Opening: o, Unit: j.Unit, Tape: j.Tape, Kit: j.Kit, Rules: rulesOf(o)}
}

// Habit is the rule for leave-on: none for a slab whose frame is made to it.
func (d Opening) Habit() job.Habit {
	if d.Framed() != nil {
		return job.ToLine
	}
	return d.Cut.LeaveOn
}

// HandOf is the hand of a bay's leaf.
func (d Opening) HandOf(b Bay) frame.Hand {
	if b.Second {
		return d.Hand.Other()
	}
	return d.Hand
}
