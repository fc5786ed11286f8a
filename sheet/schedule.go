package sheet

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/schedule"
	"kindmargin/core/survey"
	"kindmargin/sheet/table"
)

// ScheduleTable is a table that a job gives out.
type ScheduleTable struct {
	ID, Name, Note string

	headers func(tables) []string
	rows    func(tables, load.Door) [][]any // of a door; nil where it lists an order
	orders  []load.Kind                     // what of that
}

// ScheduleTables lists them. The first can be read in again.
var ScheduleTables = []ScheduleTable{
	{"schedule", "Schedule", "a line a door; it can be brought in again", tables.scheduleHead, tables.schedule, nil},
	{"measured", "Measured sizes", "every reading, with its tool", tables.measuredHead, tables.measured, nil},
	{"slabs", "Slabs to order", "by size and construction", tables.orderedHead, nil, []load.Kind{load.Slabs}},
	{
		"hardware", "Hardware to order", "hinges, screws, locks, inserts", tables.orderedHead, nil,
		[]load.Kind{load.Hinges, load.Screws, load.Locks, load.Inserts},
	},
	{"margins", "Margins", "wanted, planned and found, side by side", tables.marginsHead, tables.margins, nil},
}

// Schedule is the tables of the doors of a job, after each of which it calls told; lengths are
// numbers of millimetres, or, in a job in inches, text with its unit, since a bare 5/8 is a day in
// May to a spreadsheet. It fails as Each does.
func Schedule(ctx context.Context, j job.Job, told func()) ([]table.Sheet, error) {
	t := tables{j}
	list := make([]table.Sheet, len(ScheduleTables))
	for i, known := range ScheduleTables {
		list[i] = table.Sheet{ID: known.ID, Name: known.Name, Headers: known.headers(t)}
	}
	need := load.NewCounter(j)
	err := Each(ctx, j, func(d load.Door) error {
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

type tables struct{ job job.Job }

// length is a length as a cell; nothing for nought.
func (t tables) length(l measure.Length) any {
	switch {
	case l == 0:
		return ""
	case t.job.Unit == measure.Inches:
		return measure.Say(l, t.job.Unit)
	}
	return math.Round(l.MM()*1000) / 1000
}

// unit is a header for lengths.
func (t tables) unit(header string) string { return header + " (" + string(t.job.Unit) + ")" }

// lengths are the columns of a schedule that hold one.
var lengths = map[string]bool{
	"width": true, "length": true, "thickness": true, "backset": true, "handle": true,
	"width-head": true, "width-mid": true, "width-foot": true, "height-hinge": true, "height-lock": true,
}

func (t tables) scheduleHead() (head []string) {
	for _, c := range schedule.Columns {
		name := c.Name
		if lengths[c.ID] {
			name = t.unit(name)
		}
		head = append(head, name)
	}
	return append(head, "Step", "Waits for", t.unit("Finished width"), t.unit("Finished length"), "Weight")
}

func (t tables) schedule(d load.Door) [][]any {
	said := schedule.Say(t.job, d.Opening)
	var row []any
	for _, c := range schedule.Columns {
		switch v := said[c.ID].(type) {
		case measure.Length:
			row = append(row, t.length(v))
		case nil:
			row = append(row, "")
		default:
			row = append(row, v)
		}
	}
	step, waits := "signed off", ""
	for _, n := range d.Plan.Notches {
		if n.Step == d.Plan.Next {
			step, waits = plan.StepName(n.Step), n.Says
		}
	}
	width, length, weight := any(""), any(""), any("")
	if f := d.Plan.Leaves[0].Finished; f != nil {
		width, length = t.length(f.Width.Value), t.length(f.Length.Value)
	}
	if len(d.Slab.Missing()) == 0 {
		weight = plan.Weight(d.Slab.Weight(), t.job.Unit)
	}
	return [][]any{append(row, step, waits, width, length, weight)}
}

func (t tables) measuredHead() []string {
	return []string{"Door", "Room", "Reading", t.unit("Value"), "With", "Struck out"}
}

func (t tables) measured(d load.Door) (rows [][]any) {
	for _, r := range d.Readings {
		rows = append(rows, []any{d.Name, d.Room, r.Title(t.job.Unit), t.exact(r), plan.ToolName(t.job.Kit.Tools, r), r.Struck})
	}
	return rows
}

// exact is a reading's value, nought too.
func (t tables) exact(r survey.Reading) any {
	if r.Value == 0 {
		return 0.0
	}
	return t.length(r.Value)
}

func (tables) orderedHead() []string { return []string{"What", "Name", "How many", "For", "Note"} }

func (tables) ordered(l load.List, kinds []load.Kind) (rows [][]any) {
	for _, h := range load.Headings {
		for _, i := range l.Items {
			if i.Kind != h.Kind || !slices.Contains(kinds, i.Kind) {
				continue
			}
			count := any(i.Count)
			if i.Count == 0 {
				count = ""
			}
			rows = append(rows, []any{h.Name, i.Name, count, named(i.Doors), i.Note})
		}
	}
	return rows
}

// mostNamed is how many doors are named in a cell, which holds 32,767 letters at most.
const mostNamed = 60

// named names doors, the first of them where there are very many.
func named(doors []string) string {
	if len(doors) <= mostNamed {
		return strings.Join(doors, ", ")
	}
	return fmt.Sprintf("%s and %d more", strings.Join(doors[:mostNamed], ", "), len(doors)-mostNamed)
}

func (t tables) marginsHead() []string {
	return []string{"Door", "Room", "Leaf", "Side", "Where", t.unit("Wanted"), t.unit("Planned"), t.unit("Planned ±"), t.unit("Found"), t.unit("Found ±"), "Signed off by", "On"}
}

func (t tables) margins(d load.Door) (rows [][]any) {
	p := newPrinter(t.job)
	by, on := "", ""
	if d.Signed != nil {
		by, on = d.Signed.By, d.Signed.On
	}
	for n, l := range d.Plan.Leaves {
		leaf := ""
		if len(d.Plan.Leaves) > 1 {
			leaf = []string{"hinge jamb", "lock jamb"}[n]
		}
		found := map[[2]string]Figure{}
		if l.Try != nil {
			for _, m := range p.places(l.Try.Margins) {
				found[[2]string{m.Side.String(), m.Where}] = m.Figure
			}
		}
		for _, m := range l.Light {
			row := []any{d.Name, d.Room, leaf, m.Side.String(), m.Where, t.length(l.Wanted[m.Side].Value), t.fine(m.Margin.Value), t.sure(m.Margin.Sigma), "", "", by, on}
			if f, ok := found[[2]string{m.Side.String(), m.Where}]; ok {
				row[8], row[9] = t.fine(measure.FromMM(f.MM)), f.PlusMinus.Of(t.job.Unit)
			}
			rows = append(rows, row)
		}
	}
	return rows
}

// fine is a margin to a tenth of a millimetre or a 64th.
func (t tables) fine(l measure.Length) any {
	if t.job.Unit == measure.Inches {
		return measure.Fine(l, measure.Nearest, t.job.Unit) + " in"
	}
	return math.Round(l.MM()*10) / 10
}

// sure is a standard deviation as it is shown after ±.
func (t tables) sure(sigma float64) any { return plusMinus(sigma).Of(t.job.Unit) }

// Words is a cell of a schedule in words.
func Words(cell any, u measure.Unit) string {
	if l, ok := cell.(measure.Length); ok {
		return measure.Say(l, u)
	}
	return fmt.Sprint(cell)
}
