package table

import (
	"encoding/csv"
	"fmt"
	"io"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/xuri/excelize/v2"
)

// Sheet is a table to write: headers, and rows whose cells are text, float64 or int.
type Sheet struct {
	ID, Name string
	Headers  []string
	Rows     [][]any
}

// signs are those that begin a formula, fullwidth forms included, which some spreadsheets accept.
const signs = "=+-@\t\r\n＝＋－＠"

// harmless is text that no spreadsheet evaluates: a quote is put before a formula's sign (OWASP, CSV injection, from
// memory), and removed again by Read.
func harmless(s string) string {
	if first, _ := utf8.DecodeRuneInString(s); s != "" && strings.ContainsRune(signs, first) {
		return "'" + s
	}
	return s
}

// text is a cell as it stands in CSV.
func text(cell any) string {
	switch v := cell.(type) {
	case string:
		return harmless(v)
	case float64:
		return strconv.FormatFloat(v, 'f', -1, 64)
	case int:
		return strconv.Itoa(v)
	}
	return ""
}

// CSV writes a table as UTF-8 with commas (RFC 4180, but with \n); the byte order mark tells spreadsheets that it is
// UTF-8.
func (s Sheet) CSV(w io.Writer) error {
	if _, err := io.WriteString(w, "\uFEFF"); err != nil {
		return err
	}
	c := csv.NewWriter(w)
	if err := c.Write(s.Headers); err != nil {
		return err
	}
	for _, row := range s.Rows {
		line := make([]string, len(row))
		for i, cell := range row {
			line[i] = text(cell)
		}
		if err := c.Write(line); err != nil {
			return err
		}
	}
	c.Flush()
	return c.Error()
}

// XLSX writes tables as the sheets of one workbook. Text stays text there: none is a formula.
func XLSX(w io.Writer, sheets []Sheet) error {
	f := excelize.NewFile()
	defer f.Close()
	bold, err := f.NewStyle(&excelize.Style{Font: &excelize.Font{Bold: true}})
	if err != nil {
		return err
	}
	for i, s := range sheets {
		if i == 0 {
			err = f.SetSheetName("Sheet1", s.Name)
		} else {
			_, err = f.NewSheet(s.Name)
		}
		if err != nil {
			return err
		}
		if err := s.stream(f, bold); err != nil {
			return fmt.Errorf("the sheet %s: %w", s.Name, err)
		}
	}
	return f.Write(w)
}

func (s Sheet) stream(f *excelize.File, bold int) error {
	out, err := f.NewStreamWriter(s.Name)
	if err != nil {
		return err
	}
	for i, wide := range s.widths() {
		if err := out.SetColWidth(i+1, i+1, wide); err != nil {
			return err
		}
	}
	if err := out.SetPanes(
		&excelize.Panes{Freeze: true, YSplit: 1, TopLeftCell: "A2", ActivePane: "bottomLeft"},
	); err != nil {
		return err
	}
	head := make([]any, len(s.Headers))
	for i, h := range s.Headers {
		head[i] = excelize.Cell{StyleID: bold, Value: h}
	}
	if err := out.SetRow("A1", head); err != nil {
		return err
	}
	for i, row := range s.Rows {
		if err := out.SetRow("A"+strconv.Itoa(i+2), row); err != nil {
			return err
		}
	}
	return out.Flush()
}

// widths are the columns' widths in letters, bounded.
func (s Sheet) widths() []float64 {
	out := make([]float64, len(s.Headers))
	for i, h := range s.Headers {
		most := utf8.RuneCountInString(h)
		for _, row := range s.Rows[:min(len(s.Rows), 200)] {
			if i < len(row) {
				most = max(most, utf8.RuneCountInString(text(row[i])))
			}
		}
		out[i] = float64(min(max(most+2, 8), 60))
	}
	return out
}
