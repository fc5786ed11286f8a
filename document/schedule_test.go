package document

import (
	"bytes"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/schedule"
	"kindmargin/core/survey"
	"kindmargin/demo"
	"kindmargin/document/table"
	"kindmargin/words"
)

func schedules(t *testing.T, j job.Job) []table.Sheet {
	told := 0
	tables, err := Schedule(t.Context(), j, func() { told++ })
	require.NoError(t, err)
	assert.Equal(t, len(j.Openings), told)
	return tables
}

// A schedule that went out, as CSV or as a workbook, comes in again as the same doors, as far
// as a schedule tells one.
func TestAScheduleThatWentOutComesIn(t *testing.T) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	all := slices.Clone(jobs)
	for n := range 100 {
		j := seeded(jobs, n)
		o := &j.Openings[0]
		o.Name = fmt.Sprint("Seeded ", n)
		if n%4 == 0 { // hinges that no list has, and a place that was read twice
			o.Hinges.Size, o.Hinges.Leaf, o.Hinges.Closed = "", o.Hinges.Leaf+measure.Millimetre, o.Hinges.Closed+measure.Millimetre/2
			o.Readings = append(o.Readings, survey.Reading{
				ID: "twice", Kind: survey.Width, At: 1234 * measure.Millimetre / 10, Value: 811 * measure.Millimetre,
			}, survey.Reading{
				ID: "twice2", Kind: survey.Width, At: 1234 * measure.Millimetre / 10, Value: 812 * measure.Millimetre,
			})
		}
		all = append(all, j)
	}
	for _, j := range all {
		j.Openings = slices.Clone(j.Openings)
		j.Openings[0].Name, j.Openings[0].Notes = "-1 @ stairs", []job.Note{{Text: "+ keep the old latch"}}
		j.Openings[0].Readings = append(j.Openings[0].Readings, survey.Reading{
			ID: "z", Kind: survey.Width, At: 1000 * measure.Millimetre, Value: 826 * measure.Millimetre,
			Struck: "a doubt",
		})
		tables := schedules(t, j)
		var csv, xlsx bytes.Buffer
		require.NoError(t, tables[0].CSV(&csv))
		require.NoError(t, table.XLSX(&xlsx, tables))
		for kind, b := range map[string][]byte{"csv": csv.Bytes(), "xlsx": xlsx.Bytes()} {
			got, err := table.Read(b, 100, func(rows [][]string) bool {
				return schedule.Header(rows, words.Everywhere) >= 0
			})
			require.NoError(t, err)
			empty := j
			empty.Openings = nil
			rows := schedule.Read(
				empty, schedule.Table{Rows: got.Rows, Columns: schedule.Match(got.Rows[0], words.Everywhere)},
				schedule.FromPull, words.Everywhere,
			)
			require.Len(t, rows, len(j.Openings), kind)
			for i, r := range rows {
				require.Empty(t, r.Faults, "%s: %s", kind, j.Openings[i].Name)
				want, is := schedule.Say(j, j.Openings[i]), schedule.Say(j, r.Opening)
				if j.Openings[i].Lock.From == "strike" { // its height is not the handle's
					delete(want, "handle")
					delete(is, "handle")
				}
				assert.Equal(t, want, is, "%s: %s", kind, j.Openings[i].Name)
				assert.Equal(t, schedule.SaySecond(j, j.Openings[i]), schedule.SaySecond(j, r.Opening), j.Openings[i].Name)
				assert.Equal(t, j.Openings[i].Pair != nil, r.Opening.Pair != nil)
			}
		}
	}
}

func TestTheTablesOfAHouse(t *testing.T) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	j := jobs[0]
	byID := map[string]table.Sheet{}
	for i, s := range schedules(t, j) {
		assert.Equal(t, ScheduleTables[i].ID, s.ID)
		byID[s.ID] = s
		for _, row := range s.Rows {
			require.Len(t, row, len(s.Headers), s.ID)
		}
	}
	readings := 0
	for _, o := range j.Openings {
		readings += len(o.Readings)
	}
	assert.Len(t, byID["measured"].Rows, readings)
	assert.Len(t, byID["slabs"].Rows, 4, "the saloon's two are one line, the linen room's and the boot room's are cut")
	var butts, fin any
	for _, row := range byID["hardware"].Rows {
		if row[1] == "100 mm (4 in) butt" {
			butts = row[2]
		}
	}
	assert.Equal(t, 11, butts)
	for _, row := range byID["schedule"].Rows {
		if row[0] == "Boot room" {
			fin = row[len(row)-5]
		}
	}
	assert.Equal(t, "signed off", fin)
	// 12 places of a leaf, 7 leaves; those that hang say what was found.
	assert.Len(t, byID["margins"].Rows, 12*7)
	for _, row := range byID["margins"].Rows {
		hangs := row[0] == "Linen room" || row[0] == "Boot room"
		assert.Equal(t, hangs, fmt.Sprint(row[8]) != "", "%v", row)
	}
	inch := jobs[1]
	s := schedules(t, inch)
	assert.Contains(t, s[0].Headers, "Slab width (in)")
	assert.Contains(t, s[0].Rows[0], "1 3/8 in", "text with its unit: no spreadsheet takes it for a date")
}

// A reading that the others contradict is marked as such among those that are given out, and no other is.
func TestAClashingReadingIsMarked(t *testing.T) {
	j := decoded(t, "tern-house")
	o := &j.Openings[1]
	o.Readings = slices.Clone(o.Readings)
	o.Readings[0].Value += measure.FromMM(10)
	j.Openings = j.Openings[1:2]
	p := Plans(j).Openings[0].Plan
	require.Len(t, p.Clashes, 1)
	sheets, err := Schedule(t.Context(), j, func() {})
	require.NoError(t, err)
	marked := 0
	for _, s := range sheets {
		if s.ID != "measured" {
			continue
		}
		require.Equal(t, "Clashes", s.Headers[len(s.Headers)-1])
		for i, row := range s.Rows {
			if row[len(row)-1] != "" {
				marked++
				assert.Equal(t, p.Clashes[0].ID, j.Openings[0].Readings[i].ID)
			}
		}
	}
	assert.Equal(t, 1+len(p.Clashes[0].Or), marked)
}
