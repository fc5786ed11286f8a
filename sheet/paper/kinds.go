package paper

import (
	"context"
	"io"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/sheet/full"
)

// Kind is a paper that a job can be put on.
type Kind struct{ ID, Name, Note string }

// Kinds lists them.
var Kinds = []Kind{
	{"card", "Door cards", "a page a slab, for the wall beside it: chalk lines, cuts, hinges, swing, lock, tries"},
	{"book", "House book", "the schedule, each door's card, story and pictures, and what is to be ordered"},
	{"order", "Order list", "what is bought: slabs, hinges, screws, locks, inserts"},
	{"load", "Load list", "all that goes along, the cutting list, and what is set once"},
}

// Pictures gives the pictures of a door.
type Pictures func(opening string) ([]Photo, error)

// Write puts some doors of a job on paper; pictures, which may be nil, are for the book. An
// unknown kind or paper is a field.Error; it stops between two doors when the context ends, with its error.
func Write(ctx context.Context, w io.Writer, kind, size string, j job.Job, doors []load.Door, pictures Pictures) error {
	p, ok := full.PaperByID(size)
	if !ok {
		return field.Fault("/paper", "There is no paper %.40q: use a4, a3, letter or tabloid.", size)
	}
	if len(doors) == 0 {
		return field.Fault("/doors", "There is no door to put on paper yet.")
	}
	switch kind {
	case "card":
		return Cards(ctx, w, j, doors, p)
	case "book":
		return Book(ctx, w, j, doors, p, pictures)
	case "order":
		return Order(w, j, doors, p)
	case "load":
		return Load(w, j, doors, p)
	}
	return field.Fault("/kind", "There is no paper called %.40q: ask for card, book, order or load.", kind)
}
