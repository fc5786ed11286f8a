package paper

import (
	"context"
	"io"
	"iter"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/saves"
	"kindmargin/document/template"
)

// Kind is a kind of paper.
type Kind struct{ ID string }

// Name is the name of the paper.
func (k Kind) Name() message.ID { return "paper." + message.ID(k.ID) }

// Note is what is on it.
func (k Kind) Note() message.ID { return "paper-note." + message.ID(k.ID) }

// Kinds lists them.
var Kinds = []Kind{
	{"card"},
	{book},
	{"order"},
	{"load"},
}

// Pictures reads the pictures of an opening, one after the other; a read error ends the paper.
type Pictures func(opening string) iter.Seq2[Photo, error]

// Asked is a requested paper, for some openings of a job.
type Asked struct {
	Kind, Paper string // by ID
	Job         job.Job
	Log         saves.Log // the house's own; nil where there is none
	Pictures    Pictures  // for a book; nil where there are none
	Told        func()    // called after each opening, as often as Passes says; may be nil
}

// Passes is how often Told is called for each opening of a kind of paper.
func Passes(kind string) int {
	if kind == book { // for its schedule, and for its pages
		return 2
	}
	return 1
}

// Write writes a paper for the openings of a job, with the plans of a few in memory at once. An unknown kind or paper
// size is a field.Error; it fails as document.Each does.
func Write(ctx context.Context, w io.Writer, a Asked) error {
	p, ok := template.PaperByID(a.Paper)
	if !ok {
		return field.Fault("/paper", "refused.paper", message.Args{"given": message.Quote(a.Paper)})
	}
	if len(a.Job.Openings) == 0 {
		return field.Fault("/doors", "refused.no-doors", nil)
	}
	if a.Told == nil {
		a.Told = func() {}
	}
	switch a.Kind {
	case "card":
		return a.cards(ctx, w, p)
	case book:
		return a.book(ctx, w, p)
	case "order":
		return a.order(ctx, w, p)
	case "load":
		return a.load(ctx, w, p)
	}
	return field.Fault("/kind", "refused.paper-kind", message.Args{"given": message.Quote(a.Kind)})
}

const book = "book"
