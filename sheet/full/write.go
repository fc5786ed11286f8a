package full

import (
	"io"

	"kindmargin/core/field"
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

// Write writes a draft in a format; paper and printed are for those that go on paper.
func (d Draft) Write(w io.Writer, format, paper string, printed float64) error {
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
	return field.Fault("/format", "There is no format %.40q: use pdf, svg or dxf.", format)
}
