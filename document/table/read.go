// Package table reads tables, CSV in any dialect and XLSX, and writes them so that a spreadsheet evaluates nothing in
// them.
package table

import (
	"archive/zip"
	"bytes"
	"encoding/csv"
	"errors"
	"io"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/xuri/excelize/v2"
	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"

	"kindmargin/core/field"
	"kindmargin/core/message"
)

// Table is a parsed table: cells as text, rows of any length.
type Table struct {
	Rows  [][]string
	Notes []message.Message // how it was read, where that is not plain
}

// Bounds on a table.
const (
	mostColumns = 200
	mostLine    = 256 << 10 // bytes of a line of CSV
)

// Read reads a table of at most a number of rows; of a workbook the sheet that like names, otherwise the first that is
// not empty. It fails with a field.Error for a file that is no table, or too large.
func Read(b []byte, mostRows int, like func([][]string) bool) (Table, error) {
	switch {
	case len(bytes.TrimSpace(b)) == 0:
		return Table{}, field.Fault("", "refused.table-empty", nil)
	case bytes.HasPrefix(b, []byte("PK\x03\x04")):
		return readBook(b, mostRows, like)
	case bytes.HasPrefix(b, []byte("\xD0\xCF\x11\xE0")):
		return Table{}, field.Fault("", "refused.table-xls", nil)
	case bytes.HasPrefix(b, []byte("%PDF")):
		return Table{}, field.Fault("", "refused.table-pdf", nil)
	}
	text, note, err := decode(b)
	if err != nil {
		return Table{}, err
	}
	t := Table{}
	if note != "" {
		t.Notes = append(t.Notes, message.Message{ID: note})
	}
	t.Rows, err = readCSV(text, mostRows)
	return t, err
}

func tooMany(most int) error {
	return field.Fault("", "refused.table-lines", message.Args{"most": message.Number(most)})
}

func tooWide() error {
	return field.Fault("", "refused.table-columns", message.Args{"most": message.Number(mostColumns)})
}

// decode returns the text of a file in any of the usual encodings.
func decode(b []byte) (text string, note message.ID, err error) {
	switch {
	case bytes.HasPrefix(b, []byte("\xFF\xFE")), bytes.HasPrefix(b, []byte("\xFE\xFF")):
		out, err := unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewDecoder().Bytes(b)
		if err != nil {
			return "", "", field.Fault("", "refused.table-damaged", nil)
		}
		return string(out), "", nil
	case bytes.IndexByte(b, 0) >= 0:
		return "", "", field.Fault("", "refused.table-neither", nil)
	case utf8.Valid(b):
		return strings.TrimPrefix(string(b), "\uFEFF"), "", nil
	}
	out, err := charmap.Windows1252.NewDecoder().Bytes(b)
	return string(out), "read-as.western", err
}

var separators = []rune{',', ';', '\t', '|'}

// readCSV parses text with the delimiter that divides most of its lines alike.
func readCSV(text string, mostRows int) ([][]string, error) {
	sep := separator(text)
	if first, rest, _ := strings.Cut(text, "\n"); strings.HasPrefix(first, "sep=") { // as some spreadsheets say it
		text = rest
	}
	pace := &pacer{r: strings.NewReader(text)}
	r := csv.NewReader(pace)
	r.Comma, r.LazyQuotes, r.FieldsPerRecord, r.ReuseRecord = sep, true, -1, true
	var rows [][]string
	// The CSV reader skips empty lines; they are counted here.
	for {
		pace.left = mostLine
		record, err := r.Read()
		if errors.Is(err, io.EOF) {
			return rows, nil
		}
		if errors.Is(err, errLine) {
			return nil, field.Fault("", "refused.table-line-long", message.Args{"line": message.Number(len(rows) + 1)})
		}
		if err != nil {
			return nil, field.Fault("", "refused.table-csv", message.Args{"line": message.Number(len(rows) + 1)})
		}
		line, _ := r.FieldPos(0)
		switch {
		case len(record) > mostColumns:
			return nil, tooWide()
		case line > 4*mostRows || len(rows) > mostRows:
			return nil, tooMany(mostRows)
		}
		for len(rows) < line-1 {
			rows = append(rows, nil)
		}
		for i, cell := range record {
			if err := tooLong(cell, i+1, line); err != nil {
				return nil, err
			}
		}
		rows = append(rows, slices.Clone(record))
	}
}

// pacer limits how much is read at once, so that no longer line is buffered.
type pacer struct {
	r    io.Reader
	left int
}

var errLine = errors.New("a line is too long")

func (p *pacer) Read(b []byte) (int, error) {
	if p.left <= 0 {
		return 0, errLine
	}
	n, err := p.r.Read(b[:min(len(b), p.left)])
	p.left -= n
	return n, err
}

// tooLong rejects a cell that is longer than spreadsheets allow.
func tooLong(cell string, column, line int) error {
	if len(cell) <= mostLetters || utf8.RuneCountInString(cell) <= mostLetters {
		return nil
	}
	return field.Fault("", "refused.table-cell-long", message.Args{
		"column": message.Number(column), "line": message.Number(line),
	})
}

// separator is the delimiter: the one most frequent in every one of the first lines, outside quotes.
func separator(text string) rune {
	if strings.HasPrefix(text, "sep=") && len(text) > 4 {
		return rune(text[4])
	}
	best, most := ',', 0
	for _, sep := range separators {
		lines, total, quoted, here := 0, 0, false, 0
		for _, c := range text[:min(len(text), 8192)] {
			switch {
			case c == '"':
				quoted = !quoted
			case c == sep && !quoted:
				here++
			case c == '\n' && !quoted:
				if here > 0 {
					lines++
					total += here
				}
				here = 0
			}
		}
		if here > 0 {
			lines, total = lines+1, total+here
		}
		if score := lines*1000 + total; lines > 0 && score > most {
			best, most = sep, score
		}
	}
	return best
}

// readBook reads a sheet of a workbook. Macros are not run, and a formula is its saved result.
func readBook(b []byte, mostRows int, like func([][]string) bool) (t Table, err error) {
	defer func() { // the library is handed whatever people send
		if p := recover(); p != nil {
			err = notABook()
		}
	}()
	z, err := zip.NewReader(bytes.NewReader(b), int64(len(b)))
	if err != nil {
		return t, notABook()
	}
	merged, err := scan(z)
	if err != nil {
		return t, notABook()
	}
	f, err := excelize.OpenReader(bytes.NewReader(b), excelize.Options{
		RawCellValue: true, UnzipSizeLimit: mostUnzip, UnzipXMLSizeLimit: mostUnzip,
	})
	if err != nil {
		return t, notABook()
	}
	defer f.Close()
	sheets, parts := f.GetSheetList(), partsOf(z)
	read := ""
	var first error
	for i, name := range sheets {
		rows, err := readSheet(f, name, mostRows)
		if err != nil {
			first = errors.Join(first, err)
			continue
		}
		n := apart(rows, merged[parts[f.WorkBook.Sheets.Sheet[i].ID]])
		if fits := like(rows); fits || t.Rows == nil && len(rows) > 0 {
			t, read = Table{Rows: rows}, name
			if n > 0 {
				t.Notes = append(t.Notes, message.Message{
					ID: "read-as.merged", Args: message.Args{"cells": message.Count(n)},
				})
			}
			if fits {
				break
			}
		}
	}
	switch {
	case t.Rows == nil && first != nil:
		var own field.Error
		if errors.As(first, &own) {
			return t, own
		}
		return t, notABook()
	case t.Rows == nil:
		return t, field.Fault("", "refused.table-nothing", nil)
	case len(sheets) > 1:
		t.Notes = append(t.Notes, message.Message{
			ID: "read-as.sheet", Args: message.Args{"name": message.Quote(read), "sheets": message.Number(len(sheets))},
		})
	}
	if bytes.Contains(b, []byte("vbaProject.bin")) {
		t.Notes = append(t.Notes, message.Message{ID: "read-as.macros"})
	}
	return t, nil
}

func notABook() error {
	return field.Fault("", "refused.table-workbook", nil)
}

func readSheet(f *excelize.File, name string, mostRows int) (rows [][]string, err error) {
	it, err := f.Rows(name)
	if err != nil {
		return nil, err
	}
	defer it.Close()
	blank, text := 0, 0
	for it.Next() {
		row, err := it.Columns()
		if err != nil {
			return nil, err
		}
		if len(row) > mostColumns {
			return nil, tooWide()
		}
		if len(row) == 0 { // sheets end in thousands of rows with nothing in them
			if blank++; blank > 4*mostRows {
				break
			}
			continue
		}
		for ; blank > 0; blank-- {
			rows = append(rows, nil)
		}
		if rows = append(rows, row); len(rows) > mostRows {
			return nil, tooMany(mostRows)
		}
		for i, cell := range row {
			if err := tooLong(cell, i+1, len(rows)); err != nil {
				return nil, err
			}
			if text += len(cell); text > mostText {
				return nil, field.Fault("", "refused.table-text", message.Args{"name": message.Quote(name)})
			}
		}
	}
	return rows, it.Error()
}

// apart gives each merged cell the value of its range, and counts the ranges.
func apart(rows [][]string, ranges []string) (n int) {
	left := len(rows) * mostColumns // cells: ranges that lie over each other are none that a spreadsheet makes
	for _, ref := range ranges {
		from, to, _ := strings.Cut(ref, ":")
		c0, r0, err0 := excelize.CellNameToCoordinates(from)
		c1, r1, err1 := excelize.CellNameToCoordinates(to)
		if err0 != nil || err1 != nil || r0 > len(rows) || c0 > len(rows[r0-1]) {
			continue
		}
		value := rows[r0-1][c0-1]
		for r := r0; r <= min(r1, len(rows)); r++ {
			for c := c0; c <= min(c1, mostColumns); c++ {
				for len(rows[r-1]) < c {
					rows[r-1] = append(rows[r-1], "")
				}
				rows[r-1][c-1] = value
			}
			if left -= c1 - c0 + 1; left < 0 {
				return n
			}
		}
		n++
	}
	return n
}
