// Package field says which part of what is kept cannot be, and what to do.
package field

import (
	"errors"
	"fmt"
	"strings"

	"kindmargin/core/measure"
)

// Error is one part that cannot be.
type Error struct {
	Pointer string // JSON pointer (RFC 6901) from the thing that was checked; empty for the whole
	Problem string // a sentence
}

func (e Error) Error() string { return e.Problem }

// Fault is the Error of a part, its problem as fmt.Sprintf makes it.
func Fault(pointer, format string, a ...any) Error {
	return Error{pointer, fmt.Sprintf(format, a...)}
}

// Errors are all the parts that cannot be.
type Errors []Error

func (e Errors) Error() string {
	s := make([]string, len(e))
	for i, f := range e {
		s[i] = f.Pointer + ": " + f.Problem
	}
	return strings.Join(s, "\n")
}

// Most is how many errors are kept: after the first few, more would not be read.
const Most = 20

// Add keeps one more.
func (e *Errors) Add(pointer, format string, a ...any) {
	if len(*e) < Most {
		*e = append(*e, Fault(pointer, format, a...))
	}
}

// Under keeps what a part's own check found, the part standing at a pointer. It
// reports whether there was anything.
func (e *Errors) Under(pointer string, err error) bool {
	var one Error
	var all Errors
	switch {
	case errors.As(err, &all):
	case errors.As(err, &one):
		all = Errors{one}
	}
	for _, f := range all {
		e.Add(pointer+f.Pointer, "%s", f.Problem)
	}
	return len(all) > 0
}

// Err is nil where there are none.
func (e Errors) Err() error {
	if len(e) == 0 {
		return nil
	}
	return e
}

// Range is a length at a place, and what it can be there.
type Range struct {
	Pointer     string
	Is          string // what it is no … of: "width of a hinge leaf"
	Value       measure.Length
	Least, Most measure.Length
}

// Check is the Error of a length that is out of its range, worded in the unit of
// the job.
func (r Range) Check(u measure.Unit) error {
	if r.Value >= r.Least && r.Value <= r.Most {
		return nil
	}
	return Fault(r.Pointer, "%s is no %s (%s to %s): measure it again, and look at the unit.",
		measure.Say(r.Value, u), r.Is, measure.Say(r.Least, u), measure.Say(r.Most, u))
}

// First is the first of some ranges that is not kept to.
func First(u measure.Unit, ranges ...Range) error {
	for _, r := range ranges {
		if err := r.Check(u); err != nil {
			return err
		}
	}
	return nil
}
