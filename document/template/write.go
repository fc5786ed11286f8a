package template

import (
	"io"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Format is a file format of drafts.
type Format struct {
	ID, Type string // Type is its media type
	Paper    bool   // it goes on paper
}

// Name is the name of the format.
func (f Format) Name() message.ID { return "format." + message.ID(f.ID) }

// Formats lists the formats.
var Formats = []Format{
	{"pdf", "application/pdf", true},
	{"svg", "image/svg+xml", false},
	{"dxf", "image/vnd.dxf", false},
	{"stl", "model/stl", false},
}

// FormatByID finds a format; ok is false for an unknown ID.
func FormatByID(id string) (f Format, ok bool) {
	for _, f := range Formats {
		if f.ID == id {
			return f, true
		}
	}
	return Format{}, false
}

// Asked is a requested template, or body, of one leaf of an opening.
type Asked struct {
	Template, Format, Paper string
	Leaf                    int // 0 the one on the hinge jamb
	Router                  lock.Router
	Printed                 float64 // at what share of full size the printer prints
}

// Write makes and writes what is asked for. It fails with a field.Error, with the figures that clash, for what cannot
// be made.
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

// mostDraft is the largest size of a draft, in mm: a rod of the tallest opening.
const mostDraft = 6000

// write writes a draft in a format; paper and printed are for those on paper.
func (d Draft) write(w io.Writer, format, paper string, printed float64) error {
	if !(d.Width <= mostDraft && d.Height <= mostDraft) {
		return field.Fault("/template", "refused.template-size", message.Args{
			"width": message.Exact(measure.FromMM(d.Width)), "height": message.Exact(measure.FromMM(d.Height)),
		})
	}
	switch format {
	case "svg":
		return d.SVG(w)
	case "dxf":
		return d.DXF(w)
	case "pdf":
		p, ok := PaperByID(paper)
		if !ok {
			return field.Fault("/paper", "refused.paper", message.Args{"given": message.Quote(paper)})
		}
		return d.PDF(w, p, printed)
	}
	return field.Fault("/format", "refused.format", message.Args{"given": message.Quote(format)})
}
