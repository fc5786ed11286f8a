package full

import (
	"bytes"
	"io"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"kindmargin/core/job"
	"kindmargin/sheet"
)

// Card is a door's whole plan on paper, in the order of the work, for the wall beside it.
func Card(w io.Writer, j job.Job, o job.Opening, p Paper) error {
	j.Openings = []job.Opening{o}
	var b bytes.Buffer
	if err := sheet.Print(&b, j); err != nil {
		return err
	}
	doc := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: p.Width, Ht: p.Height}})
	doc.SetTitle(o.Name, true)
	doc.SetMargins(15, 15, 15)
	doc.SetAutoPageBreak(true, 15)
	doc.AddPageFormat("P", fpdf.SizeType{Wd: p.Width, Ht: p.Height})
	tr := doc.UnicodeTranslatorFromDescriptor("")
	for _, line := range strings.Split(b.String(), "\n") {
		bare := strings.TrimLeft(line, " ")
		in := float64(len(line)-len(bare)) * 1.5
		style, size := "", 9.0
		if in == 0 {
			style, size = "B", 12
		}
		doc.SetFont("Helvetica", style, size)
		doc.SetX(15 + in)
		// Columns of the print are set apart by spaces; on paper three are enough.
		text := strings.Join(strings.FieldsFunc(bare, func(r rune) bool { return r == '\t' }), "   ")
		for strings.Contains(text, "    ") {
			text = strings.ReplaceAll(text, "    ", "   ")
		}
		doc.MultiCell(p.Width-30-in, size*0.48, tr(text), "", "L", false)
	}
	return doc.Output(w)
}
