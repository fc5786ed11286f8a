// Package field says which part of what is kept cannot be, and what to do.
package field

import (
	"errors"
	"strings"

	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Error is one part that cannot be.
type Error struct {
	Pointer string // JSON pointer (RFC 6901) from the thing that was checked; empty for the whole
	Problem message.Message
}

// Error is the problem's ID and arguments, for the log.
func (e Error) Error() string { return e.Problem.String() }

// Message is the problem.
func (e Error) Message() message.Message { return e.Problem }

// Fault is the Error of a part.
func Fault(pointer string, id message.ID, args message.Args) Error {
	return Error{pointer, message.Message{ID: id, Args: args}}
}

// Errors are all the parts that cannot be.
type Errors []Error

func (e Errors) Error() string {
	s := make([]string, len(e))
	for i, f := range e {
		s[i] = f.Pointer + ": " + f.Error()
	}
	return strings.Join(s, "\n")
}

// Most is how many errors are kept: after the first few, more would not be read.
const Most = 20

// Add keeps one more.
func (e *Errors) Add(pointer string, id message.ID, args message.Args) {
	if len(*e) < Most {
		*e = append(*e, Fault(pointer, id, args))
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
	default:
		if m, ok := message.Of(err); ok {
			all = Errors{{Problem: m}}
		}
	}
	for _, f := range all {
		e.Add(pointer+f.Pointer, f.Problem.ID, f.Problem.Args)
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
	Is          message.ID // what it is: "size.backset"
	Value       measure.Length
	Least, Most measure.Length
}

// Check is the Error of a length that is out of its range.
func (r Range) Check() error {
	if r.Value >= r.Least && r.Value <= r.Most {
		return nil
	}
	return Fault(r.Pointer, "refused.size", message.Args{
		"value": message.Exact(r.Value), "what": r.Is, "least": message.Exact(r.Least), "most": message.Exact(r.Most),
	})
}

// First is the first of some ranges that is not kept to.
func First(ranges ...Range) error {
	for _, r := range ranges {
		if err := r.Check(); err != nil {
			return err
		}
	}
	return nil
}
