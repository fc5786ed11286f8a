package schedule

import (
	"slices"
	"strconv"
	"strings"
	"unicode"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// cell reads one cell.
func (r *reading) cell(id, text string, u measure.Unit) {
	if text == "" {
		return
	}
	if strings.HasPrefix(text, "=") || strings.HasPrefix(text, "＝") {
		r.fault(id, "refused.formula", message.Args{"given": message.Quote(text)})
		return
	}
	if p, ok := r.placed(id); ok {
		r.read(id, text, u, p)
		return
	}
	if to := r.length(id); to != nil {
		r.parse(id, text, u, to)
		return
	}
	o := &r.row.Opening
	switch id {
	case "name":
		o.Name = text
	case "room":
		o.Room = text
	case "note":
		o.Notes = append(o.Notes, job.Note{Text: text})
	case "hand":
		r.hand(text)
	case "leaf":
		r.whichLeaf(text)
	case "fixed":
		side := frame.Side(0)
		if err := side.UnmarshalText([]byte(strings.ToLower(text))); err != nil || !side.Upright() {
			r.fault(id, "refused.schedule-fixed", message.Args{"given": message.Quote(text)})
			return
		}
		r.pair().Fixed = side
	case "size":
		r.size(text, u)
	case "construction":
		o.Slab.Construction = r.choose(id, text, "refused.schedule-slab", r.constructions())
	case "school":
		if s := r.choose(id, text, "refused.schedule-school", r.schools()); s != "" {
			o.Margins.School = s
		}
	case "hinge":
		if h, ok := r.job.Kit.Hinge(r.choose(id, text, "refused.schedule-hinge", r.hinges())); ok {
			o.Hinges.Size, o.Hinges.Leaf, o.Hinges.Width, o.Hinges.Plate, o.Hinges.Closed = h.ID, h.Leaf, h.Width, h.Plate, h.Closed
			o.Swing.Pin = h.Pin
		}
	case "hinge-closed":
		r.closed(text, u)
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
	case "handle":
		o.Lock.From = lock.FromHandle
		r.parse(id, text, u, &o.Lock.Handle)
	}
}

// length is the length of the opening that a column holds and nothing else; nil where it holds something else.
func (r *reading) length(id string) *measure.Length {
	o := &r.row.Opening
	switch id {
	case "width":
		return &o.Slab.Width
	case "length":
		return &o.Slab.Length
	case "thickness":
		return &o.Slab.Thickness
	case "meeting":
		return &r.pair().Meeting
	case "hinge-leaf":
		return &o.Hinges.Leaf
	case "hinge-width":
		return &o.Hinges.Width
	case "hinge-plate":
		return &o.Hinges.Plate
	case "backset":
		return &o.Lock.Backset
	}
	return nil
}

// parse parses a cell as a length into to; one that is none is a fault, and leaves to as it was.
func (r *reading) parse(id, text string, u measure.Unit, to *measure.Length) {
	l, err := measure.Parse(text, u)
	if err != nil {
		m, _ := message.Of(err)
		r.fault(id, m.ID, m.Args)
		return
	}
	*to = l
}

// closed parses how thick a hinge is when closed. A hinge that no list here has is known by its measures.
func (r *reading) closed(text string, u measure.Unit) {
	h := &r.row.Opening.Hinges
	r.parse("hinge-closed", text, u, &h.Closed)
	i := slices.IndexFunc(r.row.Faults, func(f Fault) bool { return f.Column == "hinge" })
	if i >= 0 && h.Closed > 0 {
		r.row.Faults, h.Size = slices.Delete(r.row.Faults, i, i+1), ""
	}
}

// read parses a cell as a reading of the opening; nought is none.
func (r *reading) read(id, text string, u measure.Unit, p Placed) {
	var l measure.Length
	if r.parse(id, text, u, &l); l == 0 {
		return
	}
	r.reads = append(r.reads, id)
	o := &r.row.Opening
	o.Readings = append(o.Readings, survey.Reading{
		ID: "s" + strconv.Itoa(len(o.Readings)+1), Kind: p.Kind, At: p.At, Value: l,
	})
}

// between are the signs between the sizes of a cell.
var between = strings.NewReplacer(" by ", "×", "X", "×", "x", "×", "*", "×")

// size reads the sizes of a slab in one cell, as "762 × 1981 × 35", "76.2 x 198.1 cm", `2' 6" by 6' 8"`: the smaller of
// the first two is the width, since a slab is higher than wide, the third its thickness. The unit behind the last one is
// that of each that has none.
func (r *reading) size(text string, u measure.Unit) {
	parts := strings.FieldsFunc(between.Replace(text), func(c rune) bool { return c == '×' })
	if len(parts) < 2 || len(parts) > 3 {
		r.fault("size", "refused.schedule-size", message.Args{"given": message.Quote(text)})
		return
	}
	unit := strings.TrimLeftFunc(parts[len(parts)-1], func(c rune) bool { return !isUnit(c) })
	if strings.ContainsFunc(unit, unicode.IsNumber) { // more than one: 6' 8"
		unit = ""
	}
	var sizes [3]measure.Length
	for i, part := range parts {
		if !strings.ContainsFunc(part, isUnit) {
			part += unit
		}
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

// isUnit reports whether a character is of the unit of a length.
func isUnit(c rune) bool { return unicode.IsLetter(c) || strings.ContainsRune("'\"′″’”", c) }

// placed is the reading that a column holds: one that says its place, or a usual one, which is taken to be at the usual
// places, up from the floor, and along from the hinge jamb.
func (r *reading) placed(id string) (Placed, bool) {
	if p, ok := PlacedByID(id); ok {
		return p, true
	}
	inches := r.job.Unit == measure.Inches
	at := func(mm, in measure.Length) measure.Length {
		if inches {
			return in * measure.Inch
		}
		return mm * measure.Millimetre
	}
	switch id {
	case "width-head":
		return Placed{Kind: survey.Width, At: at(1800, 70)}, true
	case "width-mid":
		return Placed{Kind: survey.Width, At: at(1000, 40)}, true
	case "width-foot":
		return Placed{Kind: survey.Width, At: at(200, 8)}, true
	case "height-hinge":
		return Placed{Kind: survey.Height, At: at(100, 4)}, true
	case "height-lock":
		return Placed{Kind: survey.Height, At: at(600, 24)}, true
	}
	return Placed{}, false
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
