// Package schedule reads and writes door schedules: a row for each opening.
package schedule

import (
	"slices"
	"strings"
	"unicode"

	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Column is a property of an opening that a schedule can have.
type Column struct {
	ID   string
	Also []string // headers that mean it, beside its own
	In   bool     // read only: a schedule of ours has it in columns of its own
}

// Name is the header of an exported schedule.
func (c Column) Name() message.ID { return "column." + message.ID(c.ID) }

// Hint describes the column's content.
func (c Column) Hint() message.ID { return "column-hint." + message.ID(c.ID) }

// Names are the accepted names of something, in every language: a schedule may be in any.
type Names func(message.Message) []string

// NoColumn is a column that is left out.
const NoColumn = ""

// Columns are the properties that a schedule can have, in the order of an exported one. An opening's size from a
// drawing is not among them: it is no reading. Headers are common practice, with those of schedules that earlier
// versions exported.
var Columns = []Column{
	{ID: "name", Also: []string{
		"door no", "door number", "door name", "door ref", "door mark", "door id", "mark", "no", "number", "ref",
		"name",
	}},
	{ID: "room", Also: []string{"location", "seen from", "from room", "room name", "area"}},
	{ID: "hand", Also: []string{"hand", "handing", "hinge side", "hung", "hanging"}},
	{ID: "construction", Also: []string{"door type", "leaf type", "type", "core", "material", "slab type"}},
	{ID: "leaf", Also: []string{"leaf no", "leaf number"}},
	{ID: "size", In: true, Also: []string{
		"door size", "leaf size", "size", "sizes", "dimensions", "w x h", "w x h x t", "wxh", "wxhxt", "w h", "w h t", "h x w",
		"width x height", "width x height x thickness", "width height", "width height thickness", "nominal size", "slab size",
	}},
	{ID: "width", Also: []string{"door width", "leaf width", "width", "w", "slab w"}},
	{ID: "length", Also: []string{"door height", "leaf height", "height", "length", "h", "slab height", "slab l"}},
	{ID: "thickness", Also: []string{"thickness", "thk", "door thickness", "leaf thickness", "t"}},
	{ID: "school", Also: []string{"margin", "gaps", "clearance"}},
	{ID: "hinge", Also: []string{"hinges", "hinge type", "butts", "butt"}},
	{ID: "hinge-leaf"},
	{ID: "hinge-width"},
	{ID: "hinge-plate"},
	{ID: "hinge-closed"},
	{ID: "hinges", Also: []string{"no of hinges", "hinge qty", "hinges qty", "hinge count", "qty hinges"}},
	{ID: "lock", Also: []string{"latch", "lockset", "lock type", "latch type"}},
	{ID: "backset"},
	{ID: "handle", Also: []string{"lever height", "spindle height", "latch height"}},
	{ID: "width-head", In: true, Also: []string{"width head", "width top", "opening width top", "width read near the head"}},
	{ID: "width-mid", In: true, Also: []string{"width middle", "width mid", "opening width middle", "width read midway"}},
	{ID: "width-foot", In: true, Also: []string{"width foot", "width bottom", "opening width bottom", "width read near the floor"}},
	{ID: "height-hinge", In: true, Also: []string{"height hinge side", "opening height hinge side", "height read on the hinge side"}},
	{ID: "height-lock", In: true, Also: []string{"height lock side", "opening height lock side", "height read on the lock side"}},
	{ID: "meeting", Also: []string{"meeting gap", "meeting stiles"}},
	{ID: "fixed", Also: []string{"inactive leaf", "slave leaf"}},
	{ID: "note", Also: []string{"notes", "remark", "remarks", "comment", "comments"}},
}

// ByID finds a column; ok is false where there is none of that ID.
func ByID(id string) (c Column, ok bool) {
	if i := slices.IndexFunc(Columns, func(c Column) bool { return c.ID == id }); i >= 0 {
		return Columns[i], true
	}
	return Column{}, false
}

// plainly normalises a header for comparison: lower case, single spaces, no punctuation, and without a unit at its end,
// which is returned apart.
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

// Match gives the most likely column of each header, each column once; NoColumn where none is like it.
func Match(headers []string, names Names) []string {
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
	for i, h := range headers {
		if id := matchPlaced(h, names, used); id != NoColumn {
			out[i], used[id] = id, true
		}
	}
	// Headers of exported schedules go before those that mean the same elsewhere.
	take(func(c Column, text string) bool {
		return slices.ContainsFunc(names(message.Message{ID: c.Name()}), func(name string) bool {
			name, _ = plainly(name)
			return name == text
		})
	})
	take(func(c Column, text string) bool { return slices.Contains(c.Also, text) })
	return out
}

// deepest is the last row, from the top, that may be the row of headers below a title.
const deepest = 20

// Header finds the row of headers: the first with two known columns, otherwise the first that is not empty; -1 where
// all are.
func Header(rows [][]string, names Names) int {
	first := -1
	for i, row := range rows[:min(len(rows), deepest)] {
		said := 0
		for _, id := range Match(row, names) {
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
