// Package field reports invalid fields of kept values: where, what is wrong, and what to do.
package field

import (
	"errors"
	"strings"

	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Error is one invalid field.
type Error struct {
	Pointer string // JSON pointer (RFC 6901) from the thing that was checked; empty for the whole
	Problem message.Message
}

// Error is the message's ID and arguments, for the log.
func (e Error) Error() string { return e.Problem.String() }

// Message is the problem, for people.
func (e Error) Message() message.Message { return e.Problem }

// Fault builds the Error of a field.
func Fault(pointer string, id message.ID, args message.Args) Error {
	return Error{pointer, message.Message{ID: id, Args: args}}
}

// Errors are all invalid fields of a value.
type Errors []Error

func (e Errors) Error() string {
	s := make([]string, len(e))
	for i, f := range e {
		s[i] = f.Pointer + ": " + f.Error()
	}
	return strings.Join(s, "\n")
}

// Most is how many errors are collected; more would not be read.
const Most = 20

// Add appends an error.
func (e *Errors) Add(pointer string, id message.ID, args message.Args) {
	if len(*e) < Most {
		*e = append(*e, Fault(pointer, id, args))
	}
}

// Under appends the errors of a part's own check, with the part's pointer before theirs. It reports whether there were
// any.
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

// Err is nil where there are no errors.
func (e Errors) Err() error {
	if len(e) == 0 {
		return nil
	}
	return e
}

// Range is a length at a field, and its limits.
type Range struct {
	Pointer     string
	Is          message.ID // what it is: "size.backset"
	Value       measure.Length
	Least, Most measure.Length
}

// Check is the Error of a length outside its range.
func (r Range) Check() error {
	if r.Value >= r.Least && r.Value <= r.Most {
		return nil
	}
	return Fault(r.Pointer, "refused.size", message.Args{
		"value": message.Exact(r.Value), "what": r.Is, "least": message.Exact(r.Least), "most": message.Exact(r.Most),
	})
}

// First is the first range that is not kept to.
func First(ranges ...Range) error {
	for _, r := range ranges {
		if err := r.Check(); err != nil {
			return err
		}
	}
	return nil
}
