package schedule

import (
	"cmp"
	"slices"
	"strconv"
	"strings"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// placedAs are the columns of readings at one place, by the beginning of their IDs.
var placedAs = []struct {
	id   string
	kind survey.Kind
}{{"width-at", survey.Width}, {"height-at", survey.Height}}

// Placed is the column of readings at a place: "width-at 1800", in mm. Where a place was read more than once the others
// are "width-at 1800 2" and so on. In a header the place stands behind an @: "Width read (mm) @ 1800 mm".
type Placed struct {
	ID   string
	Kind survey.Kind
	At   measure.Length
}

// Name is the header of the column, without its place.
func (p Placed) Name() message.ID {
	id, _, _ := strings.Cut(p.ID, " ")
	return "column." + message.ID(id)
}

// placed is the n-th column, from 1, of readings of a kind at a place.
func placed(kind survey.Kind, at measure.Length, n int) Placed {
	p := Placed{Kind: kind, At: at}
	for _, c := range placedAs {
		if c.kind == kind {
			p.ID = c.id + " " + measure.Decimal(at, measure.Millimetres)
		}
	}
	if n > 1 {
		p.ID += " " + strconv.Itoa(n)
	}
	return p
}

// PlacedByID is the column of an ID; ok is false for one that is no column of readings at a place.
func PlacedByID(id string) (p Placed, ok bool) {
	parts := strings.Fields(id)
	if len(parts) < 2 || len(parts) > 3 {
		return p, false
	}
	n := 1
	if len(parts) == 3 {
		var err error
		if n, err = strconv.Atoi(parts[2]); err != nil || n < 2 {
			return p, false
		}
	}
	at, err := measure.Parse(parts[1], measure.Millimetres)
	if err != nil {
		return p, false
	}
	for _, c := range placedAs {
		if c.id == parts[0] {
			p = placed(c.kind, at, n)
			return p, p.ID == id
		}
	}
	return p, false
}

// PlacedOf are the columns of all readings of a job's openings: widths from the floor up, then heights from the hinge
// jamb on.
func PlacedOf(j job.Job) []Placed {
	var list []Placed
	for _, o := range j.Openings {
		for p := range eachPlaced(o) {
			if !slices.Contains(list, p) {
				list = append(list, p)
			}
		}
	}
	slices.SortFunc(list, func(a, b Placed) int {
		return cmp.Or(strings.Compare(string(b.Kind), string(a.Kind)), cmp.Compare(a.At, b.At), strings.Compare(a.ID, b.ID))
	})
	return list
}

// eachPlaced yields the column and the value of each width and height that counts.
func eachPlaced(o job.Opening) func(func(Placed, measure.Length) bool) {
	return func(yield func(Placed, measure.Length) bool) {
		times := map[Placed]int{}
		for _, r := range o.Readings {
			if r.Struck != "" || r.Kind != survey.Width && r.Kind != survey.Height {
				continue
			}
			first := placed(r.Kind, r.At, 1)
			times[first]++
			if !yield(placed(r.Kind, r.At, times[first]), r.Value) {
				return
			}
		}
	}
}

// matchPlaced is the column of a header with a place: the first of that place that is not used by a header before it.
func matchPlaced(header string, names Names, used map[string]bool) string {
	before, after, ok := strings.Cut(header, "@")
	if !ok {
		return NoColumn
	}
	text, u := plainly(before)
	at, err := measure.Parse(strings.TrimSpace(after), u)
	if err != nil {
		return NoColumn
	}
	for _, c := range placedAs {
		for _, name := range names(message.Message{ID: "column." + message.ID(c.id)}) {
			if name, _ = plainly(name); name != text {
				continue
			}
			for n := 1; ; n++ {
				if id := placed(c.kind, at, n).ID; !used[id] {
					return id
				}
			}
		}
	}
	return NoColumn
}
