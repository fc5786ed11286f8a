package schedule

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Row is one row of a schedule as an opening. It is valid where it has no faults.
type Row struct {
	Line    int // in the file, the first being 1
	Opening job.Opening
	Faults  []Fault

	asks string // a hand that hangs on the side it is seen from, while that was not said
}

// Fault is why a row cannot be an opening.
type Fault struct {
	Column  string // its ID; empty where it is the whole line
	Problem message.Message
}

// Seen is the side that a schedule's LH and RH are seen from. Conventions differ (Britain and DIN 107 see a hand from
// the pull side, North American LH and RH are seen from the push side), so it is asked once and never guessed.
type Seen string

// The sides; the zero value is not said yet.
const (
	NotSaid  Seen = ""
	FromPull Seen = "pull"
	FromPush Seen = "push"
)

// Asks is the first hand among rows that depends on the side it is seen from, as written, with its row; ok is false
// where there is none, or the side is said.
func Asks(rows []Row) (line int, hand string, ok bool) {
	for _, r := range rows {
		if r.asks != "" {
			return r.Line, r.asks, true
		}
	}
	return 0, "", false
}

// Table is a schedule as rows of cells.
type Table struct {
	Rows    [][]string
	Header  int      // the row with the headers
	Columns []string // what each column is, by ID
}

// Read reads the rows below the headers as openings of a job, with its defaults; empty rows are skipped. Names must be
// unique within a room, also against the openings of the walk.
func Read(j job.Job, t Table, seen Seen, names Names) []Row {
	rows, header, columns := t.Rows, t.Header, t.Columns
	taken := map[string]int{} // the line of each opening; nought on the walk already
	for _, o := range j.Openings {
		taken[nameKey(o)] = 0
	}
	units := make([]measure.Unit, len(columns))
	for i := range columns {
		units[i] = j.Unit
		if i < len(rows[header]) {
			if _, u := plainly(rows[header][i]); u != measure.NoUnit {
				units[i] = u
			}
		}
	}
	var list []Row
	for n := header + 1; n < len(rows); n++ {
		if empty(rows[n]) || sum(rows[n]) {
			continue
		}
		r := reading{job: j, seen: seen, names: names, row: Row{Line: n + 1, Opening: j.Begin("new", "")}}
		for i, id := range columns {
			if id == NoColumn || i >= len(rows[n]) {
				continue
			}
			r.cell(id, clean(rows[n][i]), units[i])
		}
		r.check()
		key := nameKey(r.row.Opening)
		if r.leaf == 2 && len(r.row.Faults) == 0 { // it belongs to the leaf before
			i := slices.IndexFunc(list, func(x Row) bool { return nameKey(x.Opening) == key && x.Opening.Pair != nil })
			if i >= 0 {
				list[i].Opening.Pair.Slab = r.row.Opening.Slab
				continue
			}
			r.fault("leaf", "refused.schedule-second", nil)
		}
		if was, ok := taken[key]; ok && r.row.Opening.Name != "" {
			twice := message.ID("refused.schedule-on-walk")
			if was > 0 {
				twice = "refused.schedule-twice"
			}
			r.fault("name", twice, message.Args{"name": r.row.Opening.Name, "line": message.Number(was)})
		}
		taken[key] = n + 1
		list = append(list, r.row)
	}
	return list
}

// sums are how the last lines of schedules begin that add up the others, in any language of a site.
var sums = map[string]bool{
	"total": true, "totals": true, "subtotal": true, "sub total": true, "grand total": true, "sum": true, "summe": true,
	"gesamt": true, "total general": true, "totaal": true, "totale": true,
}

// sum reports whether a row adds up others: it is no opening.
func sum(row []string) bool {
	for _, cell := range row {
		if text, _ := plainly(cell); text != "" {
			for len(text) > 0 && !sums[text] { // "Total 6 doors" begins so
				cut := strings.LastIndex(text, " ")
				text = text[:max(cut, 0)]
			}
			return text != ""
		}
	}
	return false
}

func nameKey(o job.Opening) string {
	return strings.ToLower(strings.TrimSpace(o.Name)) + "\x00" + strings.ToLower(strings.TrimSpace(o.Room))
}

// clean is a cell without the prefix that keeps a spreadsheet from evaluating it, and without characters that a name
// may not hold.
func clean(s string) string {
	s = strings.TrimSpace(s)
	if rest, ok := strings.CutPrefix(s, "'"); ok && strings.IndexAny(rest, "=+-@＝＋－＠") == 0 {
		s = rest
	}
	return strings.Join(strings.Fields(s), " ")
}

// reading is the state while one row is read.
type reading struct {
	job   job.Job
	row   Row
	seen  Seen
	names Names
	bad   map[string]bool // columns that have a fault
	reads []string        // the column of each reading
	leaf  int             // of a pair, 1 or 2; 0 where none is named
}

func (r *reading) fault(column string, id message.ID, args message.Args) {
	if r.bad == nil {
		r.bad = map[string]bool{}
	}
	if r.bad[column] {
		return
	}
	r.bad[column] = true
	r.row.Faults = append(r.row.Faults, Fault{column, message.Message{ID: id, Args: args}})
}

// pointers are the JSON pointers of the columns in an opening.
var pointers = map[string]string{
	"/name": "name", "/room": "room", "/hand": "hand", "/slab/width": "width", "/slab/length": "length",
	"/slab/thickness":    "thickness",
	"/slab/construction": "construction", "/lock/backset": "backset", "/lock/handle": "handle",
	"/hinges/width": "hinge", "/hinges/size": "hinge", "/notes/0/text": "note",
}

// readOf is the column of a reading, for its errors.
func (r *reading) readOf(pointer string) string {
	var i int
	if _, err := fmt.Sscanf(pointer, "/readings/%d/", &i); err != nil || i >= len(r.reads) {
		return ""
	}
	return r.reads[i]
}

// check reports the invalid fields of the opening that was read.
func (r *reading) check() {
	if strings.TrimSpace(r.row.Opening.Name) == "" {
		r.fault("name", "refused.schedule-name", nil)
		r.row.Opening.Name = ""
		return
	}
	var all field.Errors
	err := r.row.Opening.Check()
	if errors.As(err, &all) {
		for _, f := range all {
			column, ok := pointers[f.Pointer]
			if !ok {
				column = r.readOf(f.Pointer)
			}
			r.fault(column, f.Problem.ID, f.Problem.Args)
		}
	}
}
