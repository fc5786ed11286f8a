package document

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/schedule"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/document/table"
	"kindmargin/words"
)

// ScheduleTable is an exported table of a job.
type ScheduleTable struct {
	ID string

	headers func(tables) []string
	rows    func(tables, load.Opening) [][]any // of an opening; nil where it lists an order
	orders  []load.Kind                        // what of that
}

// Name is the name of the table.
func (t ScheduleTable) Name() message.ID { return "table." + message.ID(t.ID) }

// Note is what is in it.
func (t ScheduleTable) Note() message.ID { return "table-note." + message.ID(t.ID) }

// ScheduleTables lists them. The first can be imported again.
var ScheduleTables = []ScheduleTable{
	{"schedule", tables.scheduleHead, tables.schedule, nil},
	{"measured", tables.measuredHead, tables.measured, nil},
	{"slabs", tables.orderedHead, nil, []load.Kind{load.Slabs}},
	{
		"hardware", tables.orderedHead, nil,
		[]load.Kind{load.Hinges, load.Screws, load.Locks, load.Inserts},
	},
	{"margins", tables.marginsHead, tables.margins, nil},
}

// Schedule is the tables of a job's openings; it calls told after each. Lengths are numbers of millimetres, or in a job
// in inches text with its unit, since a spreadsheet takes a bare 5/8 for a date. It fails as Each does.
func Schedule(ctx context.Context, j job.Job, told func()) ([]table.Sheet, error) {
	t := tables{newPrinter(j), j}
	list := make([]table.Sheet, len(ScheduleTables))
	for i, known := range ScheduleTables {
		list[i] = table.Sheet{ID: known.ID, Name: t.voice.Text(known.Name()), Headers: known.headers(t)}
	}
	need := load.NewCounter(j, nil)
	err := Each(ctx, j, func(d load.Opening) error {
		need.Add(d)
		for i, known := range ScheduleTables {
			if known.rows != nil {
				list[i].Rows = append(list[i].Rows, known.rows(t, d)...)
			}
		}
		told()
		return nil
	})
	order := need.List().Order()
	for i, known := range ScheduleTables {
		if known.orders != nil {
			list[i].Rows = t.ordered(order, known.orders)
		}
	}
	return list, err
}

type tables struct {
	printer
	job job.Job
}

// heads are headers in words.
func (t tables) heads(ids ...message.ID) []string { return t.texts(ids) }

// cell is a length as a cell; empty for 0.
func (t tables) cell(l measure.Length) any {
	switch {
	case l == 0:
		return ""
	case t.job.Unit == measure.Inches:
		return measure.Say(l, t.job.Unit)
	}
	return math.Round(l.MM()*1000) / 1000
}

// inUnit is a header for lengths.
func (t tables) inUnit(header message.ID) string {
	return t.voice.Text(header) + " (" + string(t.job.Unit) + ")"
}

// lengths are the columns of a schedule that hold one.
var lengths = map[string]bool{
	"width": true, "length": true, "thickness": true, "backset": true, "handle": true,
	"meeting": true, "hinge-leaf": true, "hinge-width": true, "hinge-plate": true, "hinge-closed": true,
}

func (t tables) scheduleHead() (head []string) {
	for _, c := range schedule.Columns {
		if c.In {
			continue
		}
		if lengths[c.ID] {
			head = append(head, t.inUnit(c.Name()))
			continue
		}
		head = append(head, t.voice.Text(c.Name()))
	}
	for _, p := range schedule.PlacedOf(t.job) {
		head = append(head, t.inUnit(p.Name())+" @ "+measure.Say(p.At, t.job.Unit))
	}
	return append(
		head, t.voice.Text("head.step"), t.voice.Text("head.waits"), t.inUnit("head.finished-width"),
		t.inUnit("head.finished-length"), t.voice.Text("head.weight"),
	)
}

// said is a row of a schedule, by its columns.
func (t tables) said(said map[string]any) (row []any) {
	cell := func(id string) {
		switch v := said[id].(type) {
		case measure.Length:
			if t.job.Unit == measure.Inches && v%(measure.Inch/64) != 0 { // no 64th meets it
				row = append(row, measure.Exact(v, t.job.Unit))
				return
			}
			row = append(row, t.cell(v))
		case message.Message:
			row = append(row, t.voice.Say(v))
		case nil:
			row = append(row, "")
		default:
			row = append(row, v)
		}
	}
	for _, c := range schedule.Columns {
		if !c.In {
			cell(c.ID)
		}
	}
	for _, p := range schedule.PlacedOf(t.job) {
		cell(p.ID)
	}
	return row
}

func (t tables) schedule(d load.Opening) [][]any {
	row := t.said(schedule.Say(t.job, d.Opening))
	step, waits := t.voice.Text("head.signed-off"), ""
	for _, n := range d.Plan.Steps {
		if n.Step == d.Plan.Next {
			step, waits = t.voice.Text(n.Step.Name()), t.voice.Text(n.Says)
		}
	}
	width, length, weight := any(""), any(""), any("")
	if f := d.Plan.Leaves[0].Finished; f != nil {
		width, length = t.cell(f.Width.Value), t.cell(f.Length.Value)
	}
	if len(d.Slab.Missing()) == 0 {
		weight = t.weight(d.Slab.Weight())
	}
	rows := [][]any{append(row, step, waits, width, length, weight)}
	if second := schedule.SaySecond(t.job, d.Opening); second != nil {
		width, length = "", ""
		if f := d.Plan.Leaves[1].Finished; f != nil {
			width, length = t.cell(f.Width.Value), t.cell(f.Length.Value)
		}
		rows = append(rows, append(t.said(second), "", "", width, length, ""))
	}
	return rows
}

func (t tables) measuredHead() []string {
	return append(
		t.heads("head.door", "head.room", "head.reading"), t.inUnit("head.value"), t.voice.Text("head.with"),
		t.voice.Text("head.struck"), t.voice.Text("head.clashes"),
	)
}

func (t tables) measured(d load.Opening) (rows [][]any) {
	for _, r := range d.Readings {
		clashes := ""
		for _, c := range d.Plan.Clashes {
			if c.Reading.ID == r.ID || slices.ContainsFunc(c.Or, func(or survey.Reading) bool { return or.ID == r.ID }) {
				clashes = t.voice.Text("head.contradicted")
			}
		}
		rows = append(rows, []any{
			d.Name, d.Room, t.voice.Word(r), t.value(r), t.maybe(site.ToolName(t.job.Kit.Tools, r)), r.Struck, clashes,
		})
	}
	return rows
}

// value is a reading's value, also 0.
func (t tables) value(r survey.Reading) any {
	if r.Value == 0 {
		return 0.0
	}
	return t.cell(r.Value)
}

func (t tables) orderedHead() []string {
	return t.heads("head.what", "head.name", "head.how-many", "head.for", "head.note")
}

func (t tables) ordered(l load.List, kinds []load.Kind) (rows [][]any) {
	for _, h := range load.Headings {
		for _, i := range l.Items {
			if i.Kind != h.Kind || !slices.Contains(kinds, i.Kind) {
				continue
			}
			count := any(i.Count)
			if i.Count == 0 {
				count = ""
			}
			rows = append(rows, []any{
				t.voice.Text(h.Name()), t.voice.Say(i.Name), count, t.some(i.Openings), strings.Join(t.say(i.Note), "; "),
			})
		}
	}
	return rows
}

// mostNamed is how many openings are named in a cell, which holds 32,767 letters at most.
const mostNamed = 60

// some names openings, up to mostNamed.
func (t tables) some(openings []string) string {
	if len(openings) <= mostNamed {
		return strings.Join(openings, ", ")
	}
	return t.voice.Say(message.Message{ID: "head.and-more", Args: message.Args{
		"doors": strings.Join(openings[:mostNamed], ", "), "more": message.Number(len(openings) - mostNamed),
	}})
}

func (t tables) marginsHead() []string {
	return append(
		t.heads("head.door", "head.room", "head.leaf", "head.side", "head.where"),
		t.inUnit("head.wanted"), t.inUnit("head.planned"), t.inUnit("head.planned-sure"), t.inUnit("head.found"),
		t.inUnit("head.found-sure"),
		t.voice.Text("head.signed-off-by"), t.voice.Text("head.on"),
	)
}

func (t tables) margins(d load.Opening) (rows [][]any) {
	by, on := "", ""
	if d.Signed != nil {
		by, on = d.Signed.By, d.Signed.On
	}
	for n, l := range d.Plan.Leaves {
		leaf := ""
		if len(d.Plan.Leaves) > 1 {
			leaf = t.voice.Word(message.Wall([]frame.Side{frame.Hinge, frame.Lock}[n]))
		}
		found := map[[2]string]Figure{}
		if l.Try != nil {
			for _, m := range t.places(l.Try.Margins) {
				found[[2]string{m.Side.String(), m.Place}] = m.Figure
			}
		}
		for _, m := range l.Light {
			place := message.End{Side: m.Side, Place: m.Where}
			row := []any{
				d.Name, d.Room, leaf, t.voice.Word(message.Margin(m.Side)), t.voice.Word(place),
				t.cell(l.Wanted[m.Side].Value), t.tenths(m.Margin.Value), t.sure(m.Margin.Sigma), "", "", by, on,
			}
			if f, ok := found[[2]string{m.Side.String(), place.ID()}]; ok {
				row[8], row[9] = t.tenths(measure.FromMM(f.MM)), f.PlusMinus.Of(t.job.Unit)
			}
			rows = append(rows, row)
		}
	}
	return rows
}

// tenths is a margin to a tenth of a millimetre or a 64th.
func (t tables) tenths(l measure.Length) any {
	if t.job.Unit == measure.Inches {
		return measure.Fine(l, measure.Nearest, t.job.Unit) + " in"
	}
	return math.Round(l.MM()*10) / 10
}

// sure is a standard deviation as ±.
func (t tables) sure(sigma float64) any { return plusMinus(sigma).Of(t.job.Unit) }

// Words is a cell of a schedule in words.
func Words(cell any, v words.Voice) string {
	switch c := cell.(type) {
	case measure.Length:
		return v.Word(message.Exact(c))
	case message.Message:
		return v.Say(c)
	}
	return fmt.Sprint(cell)
}
