// Package schedule reads the rows of a door schedule as doors that are put on a walk.
package schedule

import (
	"slices"
	"strings"
	"unicode"

	"kindmargin/core/measure"
)

// Column is something that a schedule can say of a door.
type Column struct {
	ID   string
	Name string   // as it is written in a schedule that goes out
	Also []string // other headers that mean it
	Hint string
}

// NoColumn is a column of a schedule that is left out.
const NoColumn = ""

// Columns are what a schedule can say, in the order in which one goes out. A drawing's size
// of an opening is none of them: it is no reading. Other headers are common practice.
var Columns = []Column{
	{"name", "Door", []string{"door no", "door number", "door name", "door ref", "door mark", "door id", "mark", "no", "number", "ref", "name"}, "its name; needed"},
	{"room", "Room", []string{"location", "seen from", "from room", "room name", "area"}, "seen from"},
	{"hand", "Hinges on", []string{"hand", "handing", "hinge side", "hung", "hanging"}, "left or right, seen from the pull face"},
	{"construction", "Construction", []string{"door type", "leaf type", "type", "core", "material", "slab type"}, "one of the slabs that are known here"},
	{"width", "Slab width", []string{"door width", "leaf width", "width", "w", "slab w"}, "as it is bought"},
	{"length", "Slab length", []string{"door height", "leaf height", "height", "length", "h", "slab height", "slab l"}, "as it is bought"},
	{"thickness", "Slab thickness", []string{"thickness", "thk", "door thickness", "leaf thickness", "t"}, ""},
	{"school", "Margins", []string{"margin", "gaps", "clearance"}, "a school of margins"},
	{"hinge", "Hinge", []string{"hinges", "hinge type", "butts", "butt"}, "one that is known here, or kept with the job"},
	{"hinges", "Number of hinges", []string{"no of hinges", "hinge qty", "hinges qty", "hinge count", "qty hinges"}, "2 or 3"},
	{"lock", "Lock", []string{"latch", "lockset", "lock type", "latch type"}, "one that is known here, or kept with the job"},
	{"backset", "Backset", nil, ""},
	{"handle", "Handle height", []string{"lever height", "spindle height", "latch height"}, "above the floor"},
	{"width-head", "Width read near the head", []string{"width head", "width top", "opening width top"}, "with a tape, on site"},
	{"width-mid", "Width read midway", []string{"width middle", "width mid", "opening width middle"}, "with a tape, on site"},
	{"width-foot", "Width read near the floor", []string{"width foot", "width bottom", "opening width bottom"}, "with a tape, on site"},
	{"height-hinge", "Height read on the hinge side", []string{"height hinge side", "opening height hinge side"}, "floor to head, on site"},
	{"height-lock", "Height read on the lock side", []string{"height lock side", "opening height lock side"}, "floor to head, on site"},
	{"note", "Note", []string{"notes", "remark", "remarks", "comment", "comments"}, ""},
}

// ByID finds a column; ok is false where there is none of that name.
func ByID(id string) (c Column, ok bool) {
	if i := slices.IndexFunc(Columns, func(c Column) bool { return c.ID == id }); i >= 0 {
		return Columns[i], true
	}
	return Column{}, false
}

// plainly is a header as it is compared: small letters, one space between words, no signs, and
// without a unit at its end, which is given apart.
func plainly(header string) (text string, u measure.Unit) {
	words := strings.FieldsFunc(strings.ToLower(header), func(r rune) bool {
		return !unicode.IsLetter(r) && !unicode.IsDigit(r) && r != '"'
	})
	if n := len(words) - 1; n > 0 {
		switch words[n] {
		case "mm", "millimetres", "millimeters":
			words, u = words[:n], measure.Millimetres
		case "in", "inch", "inches", `"`:
			words, u = words[:n], measure.Inches
		}
	}
	return strings.Join(words, " "), u
}

// Match says which column each header most likely is, each one once; NoColumn where it is
// like none.
func Match(headers []string) []string {
	out := make([]string, len(headers))
	used := map[string]bool{}
	take := func(like func(Column, string) bool) {
		for i, h := range headers {
			text, _ := plainly(h)
			if out[i] != NoColumn || text == "" {
				continue
			}
			for _, c := range Columns {
				if !used[c.ID] && like(c, text) {
					out[i], used[c.ID] = c.ID, true
					break
				}
			}
		}
	}
	// What a schedule of ours says goes before what others might mean by it.
	take(func(c Column, text string) bool { name, _ := plainly(c.Name); return name == text })
	take(func(c Column, text string) bool { return slices.Contains(c.Also, text) })
	return out
}

// deepest is how far down a line of headers may stand, below a title.
const deepest = 20

// Header finds the line of headers: the first one with two columns that are known, else the
// first that is not empty; -1 where all are.
func Header(rows [][]string) int {
	first := -1
	for i, row := range rows[:min(len(rows), deepest)] {
		said := 0
		for _, id := range Match(row) {
			if id != NoColumn {
				said++
			}
		}
		if said >= 2 {
			return i
		}
		if first < 0 && !empty(row) {
			first = i
		}
	}
	return first
}

func empty(row []string) bool {
	return !slices.ContainsFunc(row, func(s string) bool { return strings.TrimSpace(s) != "" })
}
