package schedule

import (
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
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

// cell reads one cell.
func (r *reading) cell(id, text string, u measure.Unit) {
	if text == "" {
		return
	}
	if strings.HasPrefix(text, "=") || strings.HasPrefix(text, "＝") {
		r.fault(id, "refused.formula", message.Args{"given": message.Quote(text)})
		return
	}
	o := &r.row.Opening
	length := func(to *measure.Length) {
		l, err := measure.Parse(text, u)
		if err != nil {
			m, _ := message.Of(err)
			r.fault(id, m.ID, m.Args)
			return
		}
		*to = l
	}
	read := func(kind survey.Kind, at measure.Length) {
		var l measure.Length
		if length(&l); l == 0 {
			return
		}
		r.reads = append(r.reads, id)
		o.Readings = append(o.Readings, survey.Reading{
			ID: "s" + strconv.Itoa(len(o.Readings)+1), Kind: kind, At: at, Value: l,
		})
	}
	at := placesOf(r.job.Unit)
	if p, ok := PlacedByID(id); ok {
		read(p.Kind, p.At)
		return
	}
	switch id {
	case "leaf":
		r.whichLeaf(text)
	case "meeting":
		length(&r.pair().Meeting)
	case "fixed":
		side := frame.Side(0)
		if err := side.UnmarshalText([]byte(strings.ToLower(text))); err != nil || !side.Upright() {
			r.fault(id, "refused.schedule-fixed", message.Args{"given": message.Quote(text)})
			return
		}
		r.pair().Fixed = side
	case "hinge-leaf":
		length(&o.Hinges.Leaf)
	case "hinge-width":
		length(&o.Hinges.Width)
	case "hinge-plate":
		length(&o.Hinges.Plate)
	case "hinge-closed":
		length(&o.Hinges.Closed)
		// A hinge that no list here has is known by its measures.
		if i := slices.IndexFunc(r.row.Faults, func(f Fault) bool { return f.Column == "hinge" }); i >= 0 && o.Hinges.Closed > 0 {
			r.row.Faults, o.Hinges.Size = slices.Delete(r.row.Faults, i, i+1), ""
		}
	case "name":
		o.Name = text
	case "room":
		o.Room = text
	case "hand":
		r.hand(text)
	case "construction":
		r.row.Opening.Slab.Construction = r.choose(id, text, "refused.schedule-slab", r.constructions())
	case "size":
		r.size(text, u)
	case "width":
		length(&o.Slab.Width)
	case "length":
		length(&o.Slab.Length)
	case "thickness":
		length(&o.Slab.Thickness)
	case "school":
		if s := r.choose(id, text, "refused.schedule-school", r.schools()); s != "" {
			o.Margins.School = s
		}
	case "hinge":
		if h, ok := r.job.Kit.Hinge(r.choose(id, text, "refused.schedule-hinge", r.hinges())); ok {
			o.Hinges.Size, o.Hinges.Leaf, o.Hinges.Width, o.Hinges.Plate, o.Hinges.Closed = h.ID, h.Leaf, h.Width, h.Plate, h.Closed
			o.Swing.Pin = h.Pin
		}
	case "hinges":
		n, err := strconv.Atoi(text)
		if err != nil || n < 2 || n > 3 {
			r.fault(id, "refused.hinges-count", message.Args{"given": message.Quote(text)})
			return
		}
		o.Hinges.Count = n
	case "lock":
		if d, ok := r.job.Kit.HardwareByID(r.choose(id, text, "refused.schedule-lock", r.hardware())); ok {
			o.Lock.Hardware = d.ID
			if len(d.Backsets) > 0 {
				o.Lock.Backset = d.Backsets[0]
			}
		}
	case "backset":
		length(&o.Lock.Backset)
	case "handle":
		o.Lock.From = lock.FromHandle
		length(&o.Lock.Handle)
	case "width-head":
		read(survey.Width, at.head)
	case "width-mid":
		read(survey.Width, at.mid)
	case "width-foot":
		read(survey.Width, at.foot)
	case "height-hinge":
		read(survey.Height, at.hinge)
	case "height-lock":
		read(survey.Height, at.lock)
	case "note":
		o.Notes = append(o.Notes, job.Note{Text: text})
	}
}

// size reads the sizes of a slab in one cell, as "762 × 1981 × 35", "762 x 1981 mm", `2' 6" by 6' 8"`: the smaller of
// the first two is the width, since a slab is higher than wide, the third its thickness. A unit after the last one is
// that of all.
func (r *reading) size(text string, u measure.Unit) {
	parts := strings.FieldsFunc(strings.NewReplacer(" by ", "×", " X ", "×", " x ", "×", "X", "×", "x", "×", "*", "×").Replace(text),
		func(c rune) bool { return c == '×' })
	if len(parts) < 2 || len(parts) > 3 {
		r.fault("size", "refused.schedule-size", message.Args{"given": message.Quote(text)})
		return
	}
	for _, unit := range []struct {
		sign string
		is   measure.Unit
	}{{"mm", measure.Millimetres}, {"in", measure.Inches}, {"inches", measure.Inches}} {
		if strings.HasSuffix(strings.TrimSpace(parts[len(parts)-1]), unit.sign) {
			u = unit.is
		}
	}
	var sizes [3]measure.Length
	for i, part := range parts {
		l, err := measure.Parse(strings.TrimSpace(part), u)
		if err != nil {
			m, _ := message.Of(err)
			r.fault("size", m.ID, m.Args)
			return
		}
		sizes[i] = l
	}
	s := &r.row.Opening.Slab
	s.Width, s.Length = min(sizes[0], sizes[1]), max(sizes[0], sizes[1])
	if sizes[2] > 0 {
		s.Thickness = sizes[2]
	}
}

// places are where a schedule's readings are taken to be: up from the floor, and along from the hinge jamb.
type places struct{ head, mid, foot, hinge, lock measure.Length }

func placesOf(u measure.Unit) places {
	if u == measure.Inches {
		const in = measure.Inch
		return places{head: 70 * in, mid: 40 * in, foot: 8 * in, hinge: 4 * in, lock: 24 * in}
	}
	const mm = measure.Millimetre
	return places{head: 1800 * mm, mid: 1000 * mm, foot: 200 * mm, hinge: 100 * mm, lock: 600 * mm}
}

// hand parses a hand as schedules write it. One that hangs on the side it is seen from waits until that is said.
func (r *reading) hand(text string) {
	code, ok := trade.HandCodeOf(text)
	switch {
	case !ok:
		r.fault("hand", "refused.schedule-hand", message.Args{"given": message.Quote(text)})
	case code.Pull == code.Push || r.seen == FromPull:
		r.row.Opening.Hand = code.Pull
	case r.seen == FromPush:
		r.row.Opening.Hand = code.Push
	default:
		r.row.asks = text
		r.fault("hand", "refused.schedule-seen", message.Args{"given": message.Quote(text)})
	}
}

// named is an option that is chosen by its name or its ID.
type named struct {
	id   string
	name message.Message
	was  string // what a schedule of ours called it before
}

func (r *reading) constructions() (list []named) {
	for _, c := range trade.Constructions {
		list = append(list, named{id: c.ID, name: message.Message{ID: c.Name()}})
	}
	return list
}

func (r *reading) schools() (list []named) {
	for _, s := range trade.Schools {
		list = append(list, named{id: s.ID, name: message.Message{ID: s.Name()}})
	}
	return list
}

func (r *reading) hinges() (list []named) {
	for _, own := range r.job.Kit.Hinges {
		h, _ := r.job.Kit.Hinge(own.ID)
		list = append(list, named{id: h.ID, name: h.Title()})
	}
	for _, h := range trade.Hinges {
		list = append(list, named{id: h.ID, name: h.Title()})
	}
	return list
}

// calledBefore maps the hardware names of schedules that earlier versions exported.
var calledBefore = map[string]string{"surface-60": "surface lock, cylinder"}

func (r *reading) hardware() (list []named) {
	for _, d := range append(slices.Clone(r.job.Kit.Hardware), trade.AllHardware...) {
		list = append(list, named{id: d.ID, name: d.Title(), was: calledBefore[d.ID]})
	}
	return list
}

// choose finds an option by its ID, its full name in any language, or a prefix of only one name. Where none or several
// match, the ID is empty and a fault is recorded.
func (r *reading) choose(column, text string, none message.ID, list []named) string {
	low := strings.ToLower(text)
	var like []named
	for _, n := range list {
		begins := false
		for _, name := range append(r.names(n.name), n.was) {
			name = strings.ToLower(name)
			if low == n.id || low == name {
				return n.id
			}
			begins = begins || strings.HasPrefix(name, low)
		}
		if begins {
			like = append(like, n)
		}
	}
	switch len(like) {
	case 1:
		return like[0].id
	case 0:
		like = list
	}
	var some message.Or
	for _, n := range like[:min(len(like), 4)] {
		some = append(some, n.name)
	}
	r.fault(column, none, message.Args{"given": message.Quote(text), "some": some})
	return ""
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

// pair is the opening as one for two leaves.
func (r *reading) pair() *job.Pair {
	o := &r.row.Opening
	if o.Pair == nil {
		o.Pair = &job.Pair{Meeting: 4 * measure.Millimetre, Fixed: frame.Lock}
		if r.job.Unit == measure.Inches {
			o.Pair.Meeting = 5 * measure.Inch / 32
		}
	}
	return o.Pair
}

// whichLeaf parses the leaf of a pair: "1/2", "2 of 2", "A", "b".
func (r *reading) whichLeaf(text string) {
	first, _, _ := strings.Cut(strings.NewReplacer("of", "/", " ", "").Replace(strings.ToLower(text)), "/")
	switch first {
	case "1", "a":
		r.leaf = 1
		r.pair()
	case "2", "b":
		r.leaf = 2
	default:
		r.fault("leaf", "refused.schedule-leaf", message.Args{"given": message.Quote(text)})
	}
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
