package full

import (
	"io"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/lock"
)

// Format is a way to write a draft.
type Format struct {
	ID, Name, Type string // Type is its media type
	Paper          bool   // it goes on paper
}

// Formats that there are.
var Formats = []Format{
	{"pdf", "PDF, at full size on paper", "application/pdf", true},
	{"svg", "SVG, in millimetres", "image/svg+xml", false},
	{"dxf", "DXF, for a cutter", "image/vnd.dxf", false},
	{"stl", "STL, for a 3-D printer", "model/stl", false},
}

// FormatByID finds a format; ok is false where there is none of that name.
func FormatByID(id string) (f Format, ok bool) {
	for _, f := range Formats {
		if f.ID == id {
			return f, true
		}
	}
	return Format{}, false
}

// Asked is a sheet, or a body, that is asked for of one leaf of a door.
type Asked struct {
	Template, Format, Paper string
	Leaf                    int // 0 the one on the hinge jamb
	Router                  lock.Router
	Printed                 float64 // at what share of full size the printer prints
}

// Write makes and writes what is asked for. What cannot be made is refused with the figures
// that clash, as a field.Error.
func Write(w io.Writer, j job.Job, o job.Opening, a Asked) error {
	if a.Template == "jig" {
		a.Template, a.Format = "lock", "stl"
	}
	if a.Format == "stl" {
		s, err := MakeSolid(a.Template, j, o, a.Leaf, a.Router)
		if err != nil {
			return err
		}
		return s.STL(w)
	}
	d, err := Make(a.Template, j, o, a.Leaf, a.Router)
	if err != nil {
		return err
	}
	return d.write(w, a.Format, a.Paper, a.Printed)
}

// mostDraft is how large a draft is at most, mm: a rod of the tallest opening.
const mostDraft = 6000

// write writes a draft in a format; paper and printed are for those that go on paper.
func (d Draft) write(w io.Writer, format, paper string, printed float64) error {
	if !(d.Width <= mostDraft && d.Height <= mostDraft) {
		return field.Fault("/template", "This template would be %.3g by %.3g m: one of the figures that it is made from is wrong.", d.Width/1000, d.Height/1000)
	}
	switch format {
	case "svg":
		return d.SVG(w)
	case "dxf":
		return d.DXF(w)
	case "pdf":
		p, ok := PaperByID(paper)
		if !ok {
			return field.Fault("/paper", "There is no paper %.40q: use a4, a3, letter or tabloid.", paper)
		}
		return d.PDF(w, p, printed)
	}
	return field.Fault("/format", "There is no format %.40q: use pdf, svg, dxf or stl.", format)
}
