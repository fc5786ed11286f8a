package schedule

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/words"
)

// table is a schedule as one writes it: cells by |.
func table(lines ...string) (rows [][]string) {
	for _, l := range lines {
		row := strings.Split(l, "|")
		for i := range row {
			row[i] = strings.TrimSpace(row[i])
		}
		rows = append(rows, row)
	}
	return rows
}

var british = words.In(job.British, measure.Millimetres, measure.HalfMillimetre)

func mm(v float64) measure.Length { return measure.FromMM(v) }

func TestHeadersAreMatched(t *testing.T) {
	for _, c := range []struct{ header, is string }{
		{"Door | Room | Hinges on | Slab width | Slab length", "name room hand width length"},
		{
			"Door No. | Location | Handing | Leaf width (mm) | Leaf height (mm) | Thk",
			"name room hand width length thickness",
		},
		{"MARK | DOOR TYPE | W | H | Remarks", "name construction width length note"},
		{"Name | Opening width | Structural opening | Colour", "name - - -"}, // a drawing's opening is no reading
		{"Width | Door | Width", "width name -"},
		{"Hinges | No. of hinges | Lever height", "hinge hinges handle"},
		{"Width read midway | Height read on the hinge side", "width-mid height-hinge"},
	} {
		var got []string
		for _, id := range Match(table(c.header)[0], words.Everywhere) {
			if id == "" {
				id = "-"
			}
			got = append(got, id)
		}
		assert.Equal(t, c.is, strings.Join(got, " "), c.header)
	}
	// Every name of ours is matched to its own column.
	var names, ids []string
	for _, c := range Columns {
		names, ids = append(names, british.Text(c.Name())), append(ids, c.ID)
	}
	assert.Equal(t, ids, Match(names, words.Everywhere))
}

func TestTheLineOfHeadersIsFound(t *testing.T) {
	assert.Equal(t, 3, Header(
		table("Tern House", "", "Door schedule, rev. C", "Door | Room | Width", "1 | Hall | 762"), words.Everywhere,
	))
	assert.Equal(t, 1, Header(table("", "A | B", "1 | 2"), words.Everywhere))
	assert.Equal(t, -1, Header(table("", " | "), words.Everywhere))
	assert.Equal(t, -1, Header(nil, words.Everywhere))
}

func TestLinesAreReadAsDoors(t *testing.T) {
	j := job.NewJob("house", "House", measure.Millimetres)
	rows := table(
		"Door | Room | Hand | Door type | Width (in) | Height | Thk | Hinge | No of hinges | Lock | Handle height | "+
			"Width middle | Height hinge side | Note",
		"1 | Hall | LH | hollow core, flush | 30 | 1981 | 35 mm | 75 mm (3 in) butt | 3 | tubular latch, 22 | 1,02 m "+
			"| 766 | 1990,5 | by the stairs",
		" | | | | | | | | | | | | |",
		"2 | Hall | right | planked | 30 1/2 | 198,1 cm | 44 | butt-100 | | bathroom-64 | | | |",
	)
	list := Read(j, Table{Rows: rows, Columns: Match(rows[0], words.Everywhere)}, FromPull, words.Everywhere)
	require.Len(t, list, 2)
	for _, r := range list {
		assert.Empty(t, r.Faults)
	}
	a, b := list[0].Opening, list[1].Opening
	assert.Equal(t, 2, list[0].Line)
	assert.Equal(t, 4, list[1].Line)
	assert.Equal(t, "1", a.Name)
	assert.Equal(t, frame.Left, a.Hand)
	assert.Equal(t, "hollow", a.Slab.Construction)
	assert.Equal(t, mm(762), a.Slab.Width, "30 in, by its header")
	assert.Equal(t, mm(1981), a.Slab.Length)
	assert.Equal(t, "butt-75", a.Hinges.Size)
	assert.Equal(t, 3, a.Hinges.Count)
	assert.Equal(t, "latch-22", a.Lock.Hardware)
	assert.Equal(t, mm(1020), a.Lock.Handle)
	assert.Equal(t, mm(766), a.Readings[0].Value)
	assert.Equal(t, mm(1990.5), a.Readings[1].Value)
	assert.Equal(t, "by the stairs", a.Notes[0].Text)
	assert.NotEmpty(t, plan.Solve(j, a).Leaves[0].Finished, "two readings are an answer")
	assert.Equal(t, frame.Right, b.Hand)
	assert.Equal(t, mm(774.7), b.Slab.Width)
	assert.Equal(t, mm(1981), b.Slab.Length)
	assert.Equal(t, mm(44), b.Lock.Backset, "as the lock is made")
	assert.Equal(t, mm(100), b.Hinges.Leaf)
}

// Each line that cannot be a door says which cell and what to do; the others are not touched.
func TestLinesThatCannotBe(t *testing.T) {
	j := job.NewJob("house", "House", measure.Millimetres)
	j.Openings = []job.Opening{j.Begin("x", "Attic")}
	header := "Door | Room | Hand | Construction | Slab width | Hinge | Number of hinges | Handle height | Width " +
		"read midway"
	for _, c := range []struct{ line, column, says string }{
		{" | Hall", "name", "names no door"},
		{"Attic", "name", "“Attic” is on the walk already"},
		{"attic ", "name", "is on the walk already"},
		{"Bath | | inward", "hand", "is not a side"},
		{"Bath | | | papier mâché", "construction", "There is no slab"},
		{"Bath | | | hollow core", "construction", "Hollow core, flush or Hollow core, moulded skins"},
		{"Bath | | | | wide", "width", "Begin with a number"},
		{"Bath | | | | 1,981", "width", "1.981 mm"},
		{"Bath | | | | 76", "width", "width"},
		{"Bath | | | | =A1*2", "width", "is a formula"},
		{"=HYPERLINK(1) | ", "name", "is a formula"},
		{"Bath | | | | | the brass ones", "hinge", "There is no hinge"},
		{"Bath | | | | | | 7", "hinges", "2 or 3"},
		{"Bath | | | | | | | 5000", "handle", "height of a handle"},
		{"Bath | | | | | | | | 12", "width-mid", "12 mm cannot be the width"},
		{strings.Repeat("x", 200), "name", "1 to 120 letters"},
	} {
		rows := table(header, c.line, "Good")
		list := Read(j, Table{Rows: rows, Columns: Match(rows[0], words.Everywhere)}, FromPull, words.Everywhere)
		require.Len(t, list, 2, c.line)
		if assert.NotEmpty(t, list[0].Faults, c.line) {
			assert.Equal(t, c.column, list[0].Faults[0].Column, c.line)
			assert.Contains(t, british.Say(list[0].Faults[0].Problem), c.says)
		}
		assert.Empty(t, list[1].Faults, c.line)
	}
	rows := table(header, "Bath", "Bath", "Bath | Loft", "'=Bath", "'-1")
	list := Read(j, Table{Rows: rows, Columns: Match(rows[0], words.Everywhere)}, FromPull, words.Everywhere)
	assert.Contains(t, british.Say(list[1].Faults[0].Problem), "is in line 2 already")
	assert.Empty(t, list[2].Faults, "one of another room")
	assert.Contains(
		t, british.Say(list[3].Faults[0].Problem), "is a formula",
		"with the sign that keeps it from being worked out, too",
	)
	assert.Equal(t, "-1", list[4].Opening.Name)
}

// Whatever stands in a schedule, reading it neither panics nor lets through a door that
// cannot be.
func TestAnythingCanBeRead(t *testing.T) {
	j := job.NewJob("house", "House", measure.Millimetres)
	cell := rapid.OneOf(
		rapid.String(),
		rapid.SampledFrom([]string{"", "762", "30 1/2 in", "left", "hollow", "=1", "'=1", "butt-75", "1e9", "-5"}),
	)
	rapid.Check(t, func(t *rapid.T) {
		rows := rapid.SliceOfN(rapid.SliceOfN(cell, 0, 22), 1, 6).Draw(t, "rows")
		var ids []string
		for _, c := range Columns {
			ids = append(ids, c.ID)
		}
		_ = Header(rows, words.Everywhere)
		for _, r := range Read(j, Table{Rows: rows, Columns: ids}, NotSaid, words.Everywhere) {
			if len(r.Faults) == 0 {
				if err := r.Opening.Check(); err != nil {
					t.Fatal(err)
				}
			}
		}
	})
}

// LH is seen from the pull side in Britain and by DIN 107, from the push side in North America (published
// conventions, from memory): the same schedule puts its hinges on the other side. Until it is said, no such
// line comes in; a plain side is taken as it stands.
func TestHandsAreAskedForOnce(t *testing.T) {
	j := job.NewJob("house", "House", measure.Inches)
	rows := table("Door | Hand | Width", "1 | LH | 30", "2 | RH | 30", "3 | left | 30", "4 | right-hand | 30")
	for seen, want := range map[Seen][]frame.Hand{
		FromPull: {frame.Left, frame.Right, frame.Left, frame.Right},
		FromPush: {frame.Right, frame.Left, frame.Left, frame.Left},
	} {
		list := Read(j, Table{Rows: rows, Columns: Match(rows[0], words.Everywhere)}, seen, words.Everywhere)
		require.Len(t, list, 4)
		for i, r := range list {
			assert.Empty(t, r.Faults, seen)
			assert.Equal(t, want[i], r.Opening.Hand, "%s, line %d", seen, r.Line)
		}
		_, _, asks := Asks(list)
		assert.False(t, asks)
	}
	list := Read(j, Table{Rows: rows, Columns: Match(rows[0], words.Everywhere)}, NotSaid, words.Everywhere)
	for i, bad := range []bool{true, true, false, true} {
		assert.Equal(t, bad, len(list[i].Faults) == 1, "line %d", list[i].Line)
	}
	line, hand, ok := Asks(list)
	assert.True(t, ok)
	assert.Equal(t, 2, line)
	assert.Equal(t, "LH", hand)
}

// Conventions of hands, from memory: North America tells LH and RH from the outside, swinging away (ANSI/DHI door handing),
// LHR and RHR swinging toward it; DIN 107 tells links and rechts from the side to which the door opens; French names say
// whether one pulls or pushes. Hinges are then told from the pull side.
func TestHandsOfEveryConvention(t *testing.T) {
	for text, want := range map[string][2]frame.Hand{ // seen from the pull side, and from the push side
		"left": {frame.Left, frame.Left}, "R": {frame.Right, frame.Right},
		"LH": {frame.Left, frame.Right}, "R.H.": {frame.Right, frame.Left}, "Left-hand": {frame.Left, frame.Right},
		"LHR": {frame.Left, frame.Left}, "rhr": {frame.Right, frame.Right}, "R.H.R.": {frame.Right, frame.Right},
		"LHRB": {frame.Left, frame.Left}, "Right hand reverse": {frame.Right, frame.Right},
		"LHIS": {frame.Right, frame.Right}, "RH inswing": {frame.Left, frame.Left}, "LHOS": {frame.Left, frame.Left},
		"links": {frame.Left, frame.Left}, "DIN rechts": {frame.Right, frame.Right}, "DIN L": {frame.Left, frame.Left},
		"gauche tirant": {frame.Left, frame.Left}, "Poussant gauche": {frame.Right, frame.Right},
	} {
		for i, seen := range []Seen{FromPull, FromPush} {
			rows := Read(job.NewJob("j", "J", measure.Millimetres), Table{
				Rows: [][]string{{"Door", "Hand"}, {"Study", text}}, Columns: []string{"name", "hand"},
			}, seen, words.Everywhere)
			require.Len(t, rows, 1)
			assert.Empty(t, rows[0].Faults, text)
			assert.Equal(t, want[i], rows[0].Opening.Hand, "%s, %s", text, seen)
		}
	}
}

// Sizes in one cell, as offices write them, by hand; a door is higher than wide, so it does not matter which is first.
func TestSizesInOneCell(t *testing.T) {
	in := measure.Inch
	for text, want := range map[string][3]measure.Length{
		"762 × 1981 × 35":        {mm(762), mm(1981), mm(35)},
		"762x1981x35mm":          {mm(762), mm(1981), mm(35)},
		"1981 x 762":             {mm(762), mm(1981), 0},
		"762,5 X 1981":           {measure.Length(762.5 * 1e6), mm(1981), 0},
		"30 by 80 by 1 3/8 in":   {30 * in, 80 * in, in + 3*in/8},
		`2' 6" x 6' 8" x 1 3/4"`: {30 * in, 80 * in, in + 3*in/4},
		"76.2cm * 198.1cm":       {mm(762), mm(1981), 0},
		"76,2 × 198,1 × 3,5 cm":  {mm(762), mm(1981), mm(35)},
		`30 x 80"`:               {30 * in, 80 * in, 0},
		`30½ x 80 inches`:        {30*in + in/2, 80 * in, 0},
		`2' 6 x 6' 8"`:           {30 * in, 80 * in, 0},
	} {
		rows := Read(job.NewJob("j", "J", measure.Millimetres), Table{
			Rows: [][]string{{"Door", "W x H x T"}, {"Study", text}}, Columns: Match([]string{"Door", "W x H x T"}, words.Everywhere),
		}, FromPull, words.Everywhere)
		require.Len(t, rows, 1)
		assert.Empty(t, rows[0].Faults, text)
		s := rows[0].Opening.Slab
		assert.Equal(t, want, [3]measure.Length{s.Width, s.Length, s.Thickness}, text)
	}
	for _, text := range []string{"762", "762 x", "a x b", "1 x 2 x 3 x 4"} {
		rows := Read(job.NewJob("j", "J", measure.Millimetres), Table{
			Rows: [][]string{{"Door", "Size"}, {"Study", text}}, Columns: []string{"name", "size"},
		}, FromPull, words.Everywhere)
		assert.NotEmpty(t, rows[0].Faults, text)
	}
}

// Lines that add up the others are no doors; a door whose name only begins so is one.
func TestTotalsAreNoDoors(t *testing.T) {
	rows := Read(job.NewJob("j", "J", measure.Millimetres), Table{
		Rows: [][]string{
			{"Door", "Width"}, {"Study", "762"}, {"Total", "1"}, {"", "Total: 1 door"}, {"Summe 1", ""}, {"Totally glazed", "762"},
		},
		Columns: []string{"name", "width"},
	}, FromPull, words.Everywhere)
	require.Len(t, rows, 2)
	assert.Equal(t, "Totally glazed", rows[1].Opening.Name)
}
