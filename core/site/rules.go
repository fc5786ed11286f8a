package site

import (
	"strconv"
	"strings"

	"kindmargin/core/job"
)

// Rules is a version of the rules that an opening is planned by. A cut slab keeps the figures that it was cut by: new
// rules apply to the next opening and leave finished work alone.
type Rules int

// The versions. Version 1 has no ripple in a side and no check for hidden slips, keeps a margin through the year in the
// mean only, and left no version in a step's mark.
const (
	Rules1 Rules = 1
	Rules2 Rules = 2 // its marks of finished steps hold words
	Rules3 Rules = 3 // its marks do not, and its figures are those of version 2
	Rules4 Rules = 4 // a hollow slab may be cut open, since an insert closes it
	// Rules5 leaves on what the hinges and a plane cannot put right once it hangs: the risk of a slab that is too small
	// is judged at the end. Hinges stray by the way in which their marks were carried over.
	Rules5 Rules = 5
	// Rules6 holds the head as tight at its hinge corner as spares wood along it, and leaves on by twice the risk.
	Rules6 Rules = 6
	Latest       = Rules6
)

// Version is the latest version, by which a cut is made.
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

// RulesOfMark is the version by which a step was finished: the number before the point in its mark; 1 without one.
func RulesOfMark(mark string) Rules {
	n, err := strconv.Atoi(mark[:max(strings.IndexByte(mark, '.'), 0)])
	if err != nil {
		return Rules1
	}
	return Rules(n)
}

// Marked prefixes a mark with its version.
func (r Rules) Marked(print string) string {
	if r == Rules1 {
		return print
	}
	return strconv.Itoa(int(r)) + "." + print
}

// By is the opening, planned by other rules.
func (d Opening) By(r Rules) Opening {
	d.Rules = r
	return d
}
