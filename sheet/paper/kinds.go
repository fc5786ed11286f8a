package paper

import (
	"context"
	"io"
	"iter"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/sheet/full"
)

// Kind is a paper that a job can be put on.
type Kind struct{ ID, Name, Note string }

// Kinds lists them.
var Kinds = []Kind{
	{"card", "Door cards", "a page a slab, for the wall beside it: chalk lines, cuts, hinges, swing, lock, tries"},
	{book, "House book", "the schedule, each door's card, story and pictures, and what is to be ordered"},
	{"order", "Order list", "what is bought: slabs, hinges, screws, locks, inserts"},
	{"load", "Load list", "all that goes along, the cutting list, and what is set once"},
}

// Pictures gives the pictures of a door, one after the other; one that cannot be read ends the paper.
type Pictures func(opening string) iter.Seq2[Photo, error]

// Asked is a paper that is asked for: the doors of a job on it.
type Asked struct {
	Kind, Paper string // by ID
	Job         job.Job
	Pictures    Pictures // for a book; nil where there are none
	Told        func()   // called after each door, as often as Passes says; may be nil
}

// Passes is how often Told is called for each door of a kind of paper.
func Passes(kind string) int {
	if kind == book { // for its schedule, and for its pages
		return 2
	}
	return 1
}

// Write puts the doors of a job on paper, and holds the plans of a few of them at once. An unknown kind
// or paper is a field.Error; it fails as sheet.Each does.
func Write(ctx context.Context, w io.Writer, a Asked) error {
	p, ok := full.PaperByID(a.Paper)
	if !ok {
		return field.Fault("/paper", "There is no paper %.40q: use a4, a3, letter or tabloid.", a.Paper)
	}
	if len(a.Job.Openings) == 0 {
		return field.Fault("/doors", "There is no door to put on paper yet.")
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
	return field.Fault("/kind", "There is no paper called %.40q: ask for card, book, order or load.", a.Kind)
}

const book = "book"
