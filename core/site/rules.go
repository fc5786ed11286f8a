package site

import (
	"strconv"
	"strings"

	"kindmargin/core/job"
)

// Rules is a version of the rules that a door is worked out by. What was cut keeps the figures that it was cut by:
// better rules help the next door and leave finished work alone.
type Rules int

// The versions. Version 1 knows no ripple in a side, no slip that hides, and keeps a margin through the
// year in the mean only; nothing marks what was finished by it.
const (
	Rules1 Rules = 1
	Rules2 Rules = 2 // its marks of finished steps hold words
	Latest Rules = 3 // its marks do not, and its figures are those of version 2
)

// Version is the latest version of the rules, which a cut is made by.
const Version = int(Latest)

func rulesOf(o job.Opening) Rules {
	if m, ok := o.Done[job.StepCut]; ok {
		return RulesOfMark(m)
	}
	for _, t := range o.Tried {
		if t.Made != nil {
			return max(Rules(t.Made.Rules), Rules1)
		}
	}
	return Latest
}

// RulesOfMark is the version by which a step was finished. In its mark it stands before a point; without one it is 1.
func RulesOfMark(mark string) Rules {
	n, err := strconv.Atoi(mark[:max(strings.IndexByte(mark, '.'), 0)])
	if err != nil {
		return Rules1
	}
	return Rules(n)
}

// Marked is a mark with its version.
func (r Rules) Marked(print string) string {
	if r == Rules1 {
		return print
	}
	return strconv.Itoa(int(r)) + "." + print
}

// By is the door, worked out by other rules.
func (d Opening) By(r Rules) Opening {
	d.Rules = r
	return d
}
