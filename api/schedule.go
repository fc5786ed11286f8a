package api

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"
	"unicode/utf8"

	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/schedule"
	"kindmargin/document"
	"kindmargin/document/table"
	"kindmargin/store"
	"kindmargin/words"
)

// largestSchedule is the largest schedule that is accepted, in bytes.
const largestSchedule = 16 << 20

// ScheduleIn is an uploaded schedule: the file is the body, the rest in the address.
type ScheduleIn struct {
	JobPath
	Columns []string `query:"columns" doc:"What each column is, by ID, set apart by commas; - for one that is left out. None where it is to be matched here."`
	Mends   string   `query:"mends" doc:"Cells that were mended on the page, as JSON: a list of {line, column, text}."`
	Hands   string   `query:"hands" enum:"pull,push" doc:"The side that the schedule's LH and RH are seen from; none where it was not said."`
	raw
}

// SchedulePreview is a schedule as it would be imported.
type SchedulePreview struct {
	Notes   []string         `json:"notes" doc:"How it was read, where that is not plain."`
	Columns []ScheduleColumn `json:"columns"`
	Known   bool             `json:"known" doc:"A schedule with these headers came before, and is matched as it was then."`
	Rows    []ScheduleRow    `json:"rows" doc:"The first few hundred, and every one with a fault among the first."`
	Good    int              `json:"good" doc:"How many lines are openings."`
	Bad     int              `json:"bad" doc:"How many cannot be."`
	Hand    *ScheduleHand    `json:"hand,omitempty" doc:"A hand of the schedule, where it has to be said which side LH and RH are seen from."`
	Hands   string           `json:"hands" enum:",pull,push" doc:"The side that was said."`
}

// ScheduleHand is a hand as a schedule writes it, and where.
type ScheduleHand struct {
	Line int    `json:"line"`
	Name string `json:"name" doc:"The opening of that line."`
	Hand string `json:"hand"`
}

// ScheduleColumn is one column of the file.
type ScheduleColumn struct {
	Header string   `json:"header"`
	ID     string   `json:"id" doc:"What it is; empty where it is left out."`
	Sample []string `json:"sample" doc:"Its first values."`
}

// ScheduleRow is one row of the file.
type ScheduleRow struct {
	Line   int             `json:"line"`
	Name   string          `json:"name"`
	Room   string          `json:"room"`
	Says   []string        `json:"says" doc:"What was made of its cells, in words."`
	Faults []ScheduleFault `json:"faults"`
}

// ScheduleFault is why a row cannot be an opening.
type ScheduleFault struct {
	Header  string `json:"header" doc:"Of the column; empty where it is the whole line."`
	Column  int    `json:"column" doc:"Its place among the columns, from 0; -1 where it is the whole line."`
	Given   string `json:"given" doc:"What stands in the cell, to be mended."`
	Problem string `json:"problem"`
}

// mostShown is the largest number of rows in a preview.
const mostShown = 300

// scheduleRead is a parsed schedule, with its settings.
type scheduleRead struct {
	job     job.Job
	table   table.Table
	header  int
	columns []string
	known   bool
	rows    []schedule.Row
}

func (s server) readSchedule(ctx context.Context, in *ScheduleIn) (r scheduleRead, err error) {
	if len(in.RawBody) > largestSchedule {
		return r, refusalOf(422, "api.schedule-large", nil)
	}
	if r.job, err = s.whole(ctx, in.Job); err != nil {
		return r, err
	}
	if r.table, err = table.Read(in.RawBody, job.MostOpenings, func(rows [][]string) bool {
		at := schedule.Header(rows, words.Everywhere)
		return at >= 0 && len(rows) > at+1
	}); err != nil {
		return r, err
	}
	if r.header = schedule.Header(r.table.Rows, words.Everywhere); r.header < 0 {
		return r, refusalOf(422, "api.schedule-headers", nil)
	}
	if err := mended(r.table.Rows, r.header, in.Mends); err != nil {
		return r, err
	}
	headers := r.table.Rows[r.header]
	switch remembered, err := s.store.Matching(ctx, headerKey(headers)); {
	case err != nil:
		return r, err
	case len(in.Columns) > 0:
		if r.columns, err = matched(in.Columns, len(headers)); err != nil {
			return r, err
		}
	case len(remembered) == len(headers):
		r.columns, r.known = remembered, true
	default:
		r.columns = schedule.Match(headers, words.Everywhere)
	}
	r.rows = schedule.Read(
		r.job, schedule.Table{Rows: r.table.Rows, Header: r.header, Columns: r.columns}, schedule.Seen(in.Hands),
		words.Everywhere,
	)
	return r, nil
}

// ScheduleMend is a cell of a schedule that was mended: its line, the first being 1, and its column, from 0.
type ScheduleMend struct {
	Line   int    `json:"line"`
	Column int    `json:"column"`
	Text   string `json:"text"`
}

// mostMends is the largest number of cells that are mended, and longestMend the longest text of one.
const mostMends, longestMend = 500, 200

// mended puts what was mended, as JSON, in its cells.
func mended(rows [][]string, header int, mends string) error {
	if mends == "" {
		return nil
	}
	var list []ScheduleMend
	if err := json.Unmarshal([]byte(mends), &list); err != nil || len(list) > mostMends {
		return refusalOf(422, "api.schedule-mends", message.Args{"most": message.Number(mostMends)})
	}
	for _, m := range list {
		if m.Line-1 <= header || m.Line > len(rows) || m.Column < 0 || m.Column >= len(rows[header]) ||
			utf8.RuneCountInString(m.Text) > longestMend {
			return refusalOf(422, "api.schedule-mend", message.Args{"line": message.Number(m.Line)})
		}
		row := rows[m.Line-1]
		for len(row) <= m.Column {
			row = append(row, "")
		}
		row[m.Column] = m.Text
		rows[m.Line-1] = row
	}
	return nil
}

// leftOut is the value of a column in an address that is left out.
const leftOut = "-"

// matched are the columns as they were matched by hand.
func matched(said []string, headers int) ([]string, error) {
	if len(said) != headers {
		return nil, refusalOf(422, "api.schedule-columns", message.Args{
			"columns": message.Number(headers), "matched": message.Number(len(said)),
		})
	}
	out := make([]string, len(said))
	for i, id := range said {
		if id == leftOut {
			continue
		}
		_, placed := schedule.PlacedByID(id)
		if _, ok := schedule.ByID(id); !ok && !placed || slices.Contains(out[:i], id) {
			return nil, refusalOf(422, "api.schedule-column", message.Args{"given": message.Quote(id)})
		}
		out[i] = id
	}
	return out, nil
}

func headerKey(headers []string) string { return strings.ToLower(strings.Join(headers, "\t")) }

func (s server) previewSchedule(ctx context.Context, in *ScheduleIn) (*body[SchedulePreview], error) {
	r, err := s.readSchedule(ctx, in)
	if err != nil {
		return nil, problem(ctx, err)
	}
	v := SchedulePreview{
		Notes: inWords(s.voice(ctx), r.table.Notes), Columns: []ScheduleColumn{}, Known: r.known, Rows: []ScheduleRow{},
		Hands: in.Hands,
	}
	if line, hand, ok := schedule.Asks(r.rows); ok {
		v.Hand = &ScheduleHand{Line: line, Hand: hand}
		for _, row := range r.rows {
			if row.Line == line {
				v.Hand.Name = row.Opening.Name
			}
		}
	}
	for i, h := range r.table.Rows[r.header] {
		c := ScheduleColumn{Header: h, ID: r.columns[i], Sample: []string{}}
		for _, row := range r.table.Rows[r.header+1:] {
			if i < len(row) && strings.TrimSpace(row[i]) != "" && len(c.Sample) < 3 {
				c.Sample = append(c.Sample, fmt.Sprintf("%.60s", row[i]))
			}
		}
		v.Columns = append(v.Columns, c)
	}
	for _, bad := range []bool{true, false} { // what is wrong is seen first
		for _, row := range r.rows {
			if len(row.Faults) > 0 != bad {
				continue
			}
			if bad {
				v.Bad++
			} else {
				v.Good++
			}
			if len(v.Rows) < mostShown {
				v.Rows = append(v.Rows, r.row(row))
			}
		}
	}
	return &body[SchedulePreview]{Body: v}, nil
}

// row is one row as it is shown.
func (r scheduleRead) row(row schedule.Row) ScheduleRow {
	v := ScheduleRow{
		Line: row.Line, Name: row.Opening.Name, Room: row.Opening.Room, Says: []string{}, Faults: []ScheduleFault{},
	}
	said, voice := schedule.Say(r.job, row.Opening), document.Voice(r.job)
	for _, f := range row.Faults {
		delete(said, f.Column) // it was not taken
	}
	for i, id := range r.columns {
		if i >= len(r.table.Rows[row.Line-1]) || r.table.Rows[row.Line-1][i] == "" || id == "name" || id == "room" {
			continue
		}
		ids := []string{id}
		if id == "size" { // one cell with what three columns say
			ids = []string{"width", "length", "thickness"}
		}
		for _, id := range ids {
			name := message.ID("")
			if c, ok := schedule.ByID(id); ok {
				name = c.Name()
			} else if p, ok := schedule.PlacedByID(id); ok {
				name = p.Name()
			}
			if name != "" && said[id] != nil {
				v.Says = append(v.Says, voice.Text(name)+": "+document.Words(said[id], voice))
			}
		}
	}
	for _, f := range row.Faults {
		fault := ScheduleFault{Column: -1, Problem: voice.Say(f.Problem)}
		if at := slices.Index(r.columns, f.Column); f.Column != "" && at >= 0 {
			fault.Header, fault.Column = r.table.Rows[r.header][at], at
			if line := r.table.Rows[row.Line-1]; at < len(line) {
				fault.Given = fmt.Sprintf("%.200s", line[at])
			}
		}
		v.Faults = append(v.Faults, fault)
	}
	return v
}

// ScheduleImported is the result of an import.
type ScheduleImported struct {
	Standing []Standing `json:"standing" doc:"The new openings: undo takes them off again together."`
	Left     int        `json:"left" doc:"Lines that were left out."`
}

// importSchedule adds the rows of a schedule to the walk: all, or only the valid ones where that was chosen.
func (s server) importSchedule(ctx context.Context, in *struct {
	ScheduleIn
	Once
	Good bool   `query:"good" doc:"Leave the lines out that cannot be openings; else nothing comes in unless all can."`
	By   string `query:"by" doc:"Who brings it in."`
},
) (*body[ScheduleImported], error) {
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	if err := byHand(in.By, ""); err != nil {
		return nil, err
	}
	r, err := s.readSchedule(ctx, &in.ScheduleIn)
	// After the job was read: see store.SentBefore.
	if added, ok, err := s.store.AddedBefore(ctx, in.Job, once); err != nil || ok {
		return scheduleImported(added), problem(ctx, err)
	}
	if err != nil {
		return nil, problem(ctx, err)
	}
	var openings []job.Opening
	left := 0
	for _, row := range r.rows {
		if len(row.Faults) > 0 {
			left++
			continue
		}
		openings = append(openings, row.Opening)
	}
	switch {
	case left > 0 && !in.Good:
		return nil, refusalOf(422, "api.schedule-bad", message.Args{
			"bad": message.Number(left), "all": message.Number(len(r.rows)),
		})
	case len(openings) == 0:
		return nil, refusalOf(422, "api.schedule-none", nil)
	}
	added, err := s.store.AddOpenings(ctx, in.Job, openings, left, once, in.By)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if err := s.store.KeepMatching(ctx, headerKey(r.table.Rows[r.header]), r.columns); err != nil {
		return nil, problem(ctx, err)
	}
	s.tell(ctx, Changed{Job: in.Job, Label: s.label(ctx, "label.schedule", nil), By: in.By})
	return scheduleImported(added), nil
}

func scheduleImported(in store.Added) *body[ScheduleImported] {
	v := ScheduleImported{Standing: []Standing{}, Left: in.Left}
	for _, d := range in.Standing {
		v.Standing = append(v.Standing, Standing(d))
	}
	return &body[ScheduleImported]{Body: v}
}

// exportSchedule sends the tables of a job.
func (s server) exportSchedule(ctx context.Context, in *struct {
	OpeningsIn
	Format string `query:"format" default:"xlsx" doc:"xlsx with all tables, or csv with one."`
	Table  string `query:"table" default:"schedule" doc:"For csv: schedule, measured, slabs, hardware or margins."`
},
) (*sheetOut, error) {
	j, err := s.few(ctx, in.Job, in.Openings)
	if err != nil {
		return nil, problem(ctx, err)
	}
	var b bytes.Buffer
	out := &sheetOut{}
	switch in.Format {
	case "xlsx":
		out.ContentType, out.Disposition = typeXLSX, attached(fileStem(j.Name)+".xlsx")
		err = writeTables(ctx, &b, j, untold)
	case "csv":
		out.ContentType, out.Disposition = typeCSV, attached(fileStem(j.Name)+"-"+in.Table+".csv")
		err = writeTable(ctx, &b, j, in.Table, untold)
	default:
		return nil, refusalOf(422, "api.schedule-format", nil)
	}
	if err != nil {
		return nil, problem(ctx, err)
	}
	out.Body = b.Bytes()
	return out, nil
}

// writeTables writes all tables of a job as a workbook.
func writeTables(ctx context.Context, w io.Writer, j job.Job, told func()) error {
	tables, err := document.Schedule(ctx, j, told)
	if err != nil {
		return err
	}
	return table.XLSX(w, tables)
}

// writeTable writes one of them as CSV.
func writeTable(ctx context.Context, w io.Writer, j job.Job, id string, told func()) error {
	i := slices.IndexFunc(document.ScheduleTables, func(t document.ScheduleTable) bool { return t.ID == id })
	if i < 0 {
		return refusalOf(422, "api.no-table", message.Args{"given": message.Quote(id)})
	}
	tables, err := document.Schedule(ctx, j, told)
	if err != nil {
		return err
	}
	return tables[i].CSV(w)
}
