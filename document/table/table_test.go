package table

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"kindmargin/core/message"
)

func anything([][]string) bool { return true }

// python runs a script of the standard library's csv or of openpyxl, which know nothing of
// this package, and gives what it prints as JSON.
func python(t *testing.T, into any, script string, args ...string) {
	t.Helper()
	out, err := exec.CommandContext(t.Context(), "/usr/bin/python3", // Debian's, which has openpyxl
		append([]string{"-c", script}, args...)...).CombinedOutput()
	require.NoError(t, err, string(out))
	require.NoError(t, json.Unmarshal(out, into), string(out))
}

// One schedule, as people send it.
func TestCSVInAnyKind(t *testing.T) {
	want := [][]string{{"Door", "Room", "Width"}, {"Küche", "Café", "777,5"}, {"a \"b\"\nc", "Hall", "30 5/8"}}
	quoted := func(sep string) string {
		var s strings.Builder
		for _, row := range want {
			for i, c := range row {
				if i > 0 {
					s.WriteString(sep)
				}
				if strings.ContainsAny(c, "\",;\n\t|") {
					c = `"` + strings.ReplaceAll(c, `"`, `""`) + `"`
				}
				s.WriteString(c)
			}
			s.WriteString("\r\n")
		}
		return s.String()
	}
	encoded := func(s string, e interface{ Bytes([]byte) ([]byte, error) }) []byte {
		b, err := e.Bytes([]byte(s))
		require.NoError(t, err)
		return b
	}
	for name, b := range map[string][]byte{
		"commas":             []byte(quoted(",")),
		"semicolons":         []byte(quoted(";")),
		"tabs":               []byte(quoted("\t")),
		"bars":               []byte(quoted("|")),
		"marked":             []byte("\uFEFF" + quoted(",")),
		"said":               []byte("sep=;\n" + quoted(";")),
		"Windows-1252":       encoded(quoted(";"), charmap.Windows1252.NewEncoder()),
		"UTF-16 little ends": encoded(quoted(","), unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewEncoder()),
		"UTF-16 big ends":    encoded(quoted("\t"), unicode.UTF16(unicode.BigEndian, unicode.UseBOM).NewEncoder()),
	} {
		got, err := Read(b, 100, anything)
		if assert.NoError(t, err, name) {
			assert.Equal(t, want, got.Rows, name)
			assert.Equal(t, name == "Windows-1252", len(got.Notes) > 0, "%s: what was guessed is said", name)
		}
	}
	// Lines keep their numbers, also past empty ones.
	got, err := Read([]byte("Title\n\n\nDoor,Room\n1,Hall"), 100, anything)
	require.NoError(t, err)
	require.Len(t, got.Rows, 5)
	assert.Equal(t, []string{"1", "Hall"}, got.Rows[4])
}

func TestWhatIsNoTable(t *testing.T) {
	var wide strings.Builder
	for range 300 {
		wide.WriteString("a,")
	}
	var many strings.Builder
	for i := range 100_000 {
		fmt.Fprintf(&many, "Door %d,Hall\n", i)
	}
	book := func(rows int) []byte {
		var b bytes.Buffer
		s := Sheet{Name: "S", Headers: []string{"Door"}}
		for range rows {
			s.Rows = append(s.Rows, []any{"x"})
		}
		require.NoError(t, XLSX(&b, []Sheet{s}))
		return b.Bytes()
	}
	var letter bytes.Buffer
	z := zip.NewWriter(&letter)
	_, err := z.Create("letter.txt")
	require.NoError(t, err)
	require.NoError(t, z.Close())
	whole := book(5)
	for name, c := range map[string]struct {
		b    []byte
		says string
	}{
		"nothing":         {nil, "empty"},
		"spaces":          {[]byte(" \n\n"), "empty"},
		"100,000 lines":   {[]byte(many.String()), "refused.table-lines most=5000"},
		"300 columns":     {[]byte(wide.String()), "refused.table-columns most=200"},
		"a picture":       {[]byte("\x89PNG\x00\x00\x01"), "refused.table-neither"},
		"an old workbook": {[]byte("\xD0\xCF\x11\xE0\xA1\xB1"), "refused.table-xls"},
		"a PDF":           {[]byte("%PDF-1.7 and so on"), "refused.table-pdf"},
		"another zip":     {letter.Bytes(), "refused.table-workbook"},
		"half a workbook": {whole[:len(whole)/2], "refused.table-workbook"},
		"a long workbook": {book(6000), "refused.table-lines most=5000"},
		"odd UTF-16":      {[]byte("\xFF\xFEa\x00b"), ""},
	} {
		_, err := Read(c.b, 5000, anything)
		if c.says != "" {
			assert.ErrorContains(t, err, c.says, name)
		}
	}
}

// A workbook made by openpyxl: with a title, merged cells, a formula, a second sheet and numbers in a format.
func TestAWorkbookFromElsewhere(t *testing.T) {
	path := filepath.Join(t.TempDir(), "schedule.xlsx")
	var ok bool
	python(t, &ok, `
import sys, json, openpyxl
w = openpyxl.Workbook()
s = w.active; s.title = "Cover"; s["A1"] = "Tern House"
d = w.create_sheet("Doors")
d.append(["Doors of the house"]); d.append(["Door", "Room", "Width"])
d.append(["1", "Hall", 762]); d.append(["2", None, 838.5]); d.append(["3", "Loft", None])
d.merge_cells("B3:B4"); d["C3"].number_format = '0.0 "mm"'
w.save(sys.argv[1]); print("true")`, path)
	b, err := os.ReadFile(path)
	require.NoError(t, err)
	got, err := Read(b, 100, func(rows [][]string) bool { return len(rows) > 2 })
	require.NoError(t, err)
	assert.Equal(t, [][]string{
		{"Doors of the house"}, {"Door", "Room", "Width"}, {"1", "Hall", "762"}, {"2", "Hall", "838.5"}, {"3", "Loft"},
	}, got.Rows)
	assert.Equal(t, []message.Message{
		{ID: "read-as.merged", Args: message.Args{"cells": message.Count(1)}},
		{ID: "read-as.sheet", Args: message.Args{"name": "Doors", "sheets": message.Number(2)}},
	}, got.Notes)
}

// A workbook with macros is read, and says that they were not run.
func TestMacrosAreNotRun(t *testing.T) {
	f := excelize.NewFile()
	require.NoError(t, f.SetSheetRow("Sheet1", "A1", &[]any{"Door", "Room"}))
	project := append([]byte("\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1"), make([]byte, 600)...)
	require.NoError(t, f.AddVBAProject(project))
	path := filepath.Join(t.TempDir(), "macros.xlsm")
	require.NoError(t, f.SaveAs(path))
	b, err := os.ReadFile(path)
	require.NoError(t, err)
	got, err := Read(b, 100, anything)
	require.NoError(t, err)
	assert.Equal(t, [][]string{{"Door", "Room"}}, got.Rows)
	assert.Contains(t, got.Notes, message.Message{ID: "read-as.macros"})
}

var out = Sheet{
	ID: "schedule", Name: "Schedule", Headers: []string{"Door", "Room", "Width", "Count"},
	Rows: [][]any{
		{"=HYPERLINK(\"http://x\")", "Küche", 777.5, 2},
		{"+1", "@SUM(A1)", -0.25, 0},
		{"-1/16 in", "a, \"b\"; c", 1981.0, 3},
		{"plain", "two\nlines", 0.1, 1},
		{"＝1+1", "＠x", 0.1, 1},
	},
}

// What goes out is read back by Python's csv and by openpyxl: the same text, the same numbers,
// and no cell that a spreadsheet would work out.
func TestWhatGoesOutIsReadBackElsewhere(t *testing.T) {
	dir := t.TempDir()
	var b bytes.Buffer
	require.NoError(t, out.CSV(&b))
	path := filepath.Join(dir, "out.csv")
	require.NoError(t, os.WriteFile(path, b.Bytes(), 0o600))
	var rows [][]string
	python(t, &rows, `import sys, json, csv
print(json.dumps(list(csv.reader(open(sys.argv[1], encoding="utf-8-sig", newline="")))))`, path)
	require.Len(t, rows, 6)
	assert.Equal(t, out.Headers, rows[0])
	assert.Equal(t, []string{"'=HYPERLINK(\"http://x\")", "Küche", "777.5", "2"}, rows[1])
	assert.Equal(t, []string{"'+1", "'@SUM(A1)", "-0.25", "0"}, rows[2])
	assert.Equal(t, []string{"'-1/16 in", "a, \"b\"; c", "1981", "3"}, rows[3])
	assert.Equal(t, "two\nlines", rows[4][1])
	assert.Equal(t, []string{"'＝1+1", "'＠x"}, rows[5][:2])

	b.Reset()
	second := out
	second.Name = "Again"
	require.NoError(t, XLSX(&b, []Sheet{out, second}))
	path = filepath.Join(dir, "out.xlsx")
	require.NoError(t, os.WriteFile(path, b.Bytes(), 0o600))
	var cells map[string][][][]any // by sheet, row, cell: its type and its value
	python(t, &cells, `import sys, json, openpyxl
w = openpyxl.load_workbook(sys.argv[1])
print(json.dumps({s.title: [[[c.data_type, c.value] for c in r] for r in s.iter_rows()] for s in w.worksheets}))`, path)
	for _, name := range []string{"Schedule", "Again"} {
		got := cells[name]
		require.Len(t, got, 6)
		for r, row := range out.Rows {
			for c, want := range row {
				kind := "s"
				switch v := want.(type) {
				case float64:
					kind = "n"
				case int:
					kind, want = "n", float64(v)
				}
				assert.Equal(t, kind, got[r+1][c][0], "%v is text or a number, never a formula", want)
				assert.Equal(t, want, got[r+1][c][1])
			}
		}
	}
	list, err := Read(b.Bytes(), 100, anything)
	require.NoError(t, err)
	assert.Equal(t, "=HYPERLINK(\"http://x\")", list.Rows[1][0], "and by ourselves")
}

// No file that is sent makes reading it panic or run on.
func FuzzRead(f *testing.F) {
	var b bytes.Buffer
	require.NoError(f, XLSX(&b, []Sheet{out}))
	f.Add(b.Bytes())
	f.Add([]byte("Door;Room\n1;\"Hall"))
	f.Add([]byte("\xFF\xFEa\x00"))
	f.Add([]byte("sep=\""))
	f.Fuzz(func(t *testing.T, b []byte) {
		got, err := Read(b, 50, anything)
		if err == nil && len(got.Rows) > 201 {
			t.Fatal(len(got.Rows))
		}
	})
}
