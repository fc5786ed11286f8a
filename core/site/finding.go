package site

import (
	"kindmargin/core/job"
	"kindmargin/core/message"
)

// Gravity is the severity of a finding.
type Gravity string

// A finding stops the work, asks for care, or is information.
const (
	Stop Gravity = "stop"
	Care Gravity = "care"
	Note Gravity = "note"
)

// Finding is a message about an opening: a code with arguments.
type Finding struct {
	Gravity Gravity
	Step    job.Step
	Pointer string // JSON pointer to the field it is about; may be empty
	Code    Code
	Args    message.Args
}

// Message is the finding's message.
func (f Finding) Message() message.Message {
	return message.Message{ID: message.ID("finding." + f.Code), Args: f.Args}
}

// Code is the kind of a finding.
type Code string

// Findings are findings in the order in which they are shown.
type Findings []Finding

// Say appends a finding. pointer is a JSON pointer to the field that it is about, or empty.
func (f *Findings) Say(g Gravity, step job.Step, pointer string, code Code, args message.Args) {
	*f = append(*f, Finding{Gravity: g, Step: step, Pointer: pointer, Code: code, Args: args})
}

// Add appends findings.
func (f *Findings) Add(more Findings) { *f = append(*f, more...) }
