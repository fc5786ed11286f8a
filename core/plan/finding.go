package plan

import (
	"kindmargin/core/job"
	"kindmargin/core/message"
)

// Gravity says what a finding asks for.
type Gravity string

// A finding stops the work, asks for care, or is worth knowing.
const (
	Stop Gravity = "stop"
	Care Gravity = "care"
	Note Gravity = "note"
)

// Finding is something to say about a door: a code with arguments.
type Finding struct {
	Gravity Gravity
	Step    job.Step
	Pointer string // JSON pointer to the field it is about; may be empty
	Code    Code
	Args    Args
}

// Message is what a finding says.
func (f Finding) Message() message.Message {
	return message.Message{ID: message.ID("finding." + f.Code), Args: message.Args(f.Args)}
}

// Code names what was found.
type Code string

// Args are a finding's arguments by name.
type Args = message.Args

type findings []Finding

func (f *findings) say(g Gravity, step job.Step, pointer string, code Code, args Args) {
	*f = append(*f, Finding{g, step, pointer, code, args})
}

func (f *findings) add(more findings) { *f = append(*f, more...) }
