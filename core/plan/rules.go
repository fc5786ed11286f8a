package plan

import (
	"strconv"
	"strings"

	"kindmargin/core/job"
)

// rules is the version of the rules that a door is worked out by. What was cut keeps the figures that it
// was cut by: a better estimate helps the next door, and nicks nobody's work.
type rules int

// The versions. Version 1 knows no ripple in a side, no slip that hides, and keeps a margin through the
// year in the mean only; nothing marks what was finished by it.
const (
	rules1 rules = 1
	rules2 rules = 2 // its marks of finished steps hold words
	latest rules = 3 // its marks do not, and its figures are those of version 2
)

// Version is the latest version of the rules, which a cut is made by.
const Version = int(latest)

// newDoor is an opening of a job, by the rules that it was cut by, or by the latest while it is not cut.
func newDoor(j job.Job, o job.Opening) door {
	return door{Opening: o, unit: j.Unit, tape: j.Tape, kit: j.Kit, rules: rulesOf(o)}
}

func rulesOf(o job.Opening) rules {
	if m, ok := o.Done[job.StepCut]; ok {
		return rulesOfMark(m)
	}
	for _, t := range o.Tried {
		if t.Made != nil {
			return max(rules(t.Made.Rules), rules1)
		}
	}
	return latest
}

// rulesOfMark is the version by which a step was finished: it stands before a point, and is 1 where no
// point is.
func rulesOfMark(mark string) rules {
	n, err := strconv.Atoi(mark[:max(strings.IndexByte(mark, '.'), 0)])
	if err != nil {
		return rules1
	}
	return rules(n)
}

// marked is a mark with the version that it is of.
func (r rules) marked(print string) string {
	if r == rules1 {
		return print
	}
	return strconv.Itoa(int(r)) + "." + print
}

// by is the door worked out by other rules.
func (d door) by(r rules) door {
	d.rules = r
	return d
}
