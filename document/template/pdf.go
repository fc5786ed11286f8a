package template

import (
	"io"

	"codeberg.org/go-pdf/fpdf"

	"kindmargin/core/field"
	"kindmargin/core/message"
)

// PDF writes a draft at full size over as many sheets of a paper as it needs. printed is the scale at which the printer
// prints, 1 for a true one; the draft is enlarged to correct it. Each sheet has a ruler of 100 mm (4 in beside it) to
// check by, and crosses where it joins the next.
func (d Draft) PDF(w io.Writer, p Paper, printed float64) error {
	if !(printed >= 0.9 && printed <= 1.1) { // NaN neither
		return field.Fault("/printed", "refused.printed", message.Args{"percent": message.Percent(100 * printed)})
	}
	d = d.scaled(1 / printed)
	p = d.on(p)
	doc := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: p.Width, Ht: p.Height}})
	doc.SetTitle(d.Title, true)
	doc.SetCreator("Kind Margin", true)
	doc.SetMargins(0, 0, 0)
	doc.SetAutoPageBreak(false, 0)
	doc.SetLineWidth(0.2)
	tr := doc.UnicodeTranslatorFromDescriptor("")
	tiles, tw, th := d.Tiles(p)
	for i, t := range tiles {
		doc.AddPageFormat("P", fpdf.SizeType{Wd: p.Width, Ht: p.Height})
		doc.ClipRect(edge, edge, tw, th, false)
		for _, s := range d.Shapes {
			s.X, s.Y = s.X-t.X+edge, s.Y-t.Y+edge
			draw(doc, tr, s)
		}
		doc.SetDashPattern(nil, 0)
		doc.SetDrawColor(0, 0, 0)
		for _, c := range d.joins(tw, th) {
			x, y := c.X-t.X+edge, c.Y-t.Y+edge
			doc.Line(x-4, y, x+4, y)
			doc.Line(x, y-4, x, y+4)
		}
		doc.ClipEnd()
		d.foot(doc, tr, p, i+1, len(tiles), 1/printed)
	}
	return doc.Output(w)
}

func draw(doc *fpdf.Fpdf, tr func(string) string, s Shape) {
	doc.SetDashPattern(nil, 0)
	switch s.Layer {
	case CutLayer:
		doc.SetDrawColor(0, 60, 160)
	case FoldLayer:
		doc.SetDrawColor(0, 0, 0)
		doc.SetDashPattern([]float64{4, 2}, 0)
	default:
		doc.SetDrawColor(90, 90, 90)
	}
	switch s.Kind {
	case Line:
		doc.Line(s.X, s.Y, s.X+s.W, s.Y+s.H)
	case Circle:
		doc.Circle(s.X, s.Y, s.R, "D")
	case Rect:
		if s.R > 0 {
			doc.RoundedRect(s.X, s.Y, s.W, s.H, s.R, "1234", "D")
		} else {
			doc.Rect(s.X, s.Y, s.W, s.H, "D")
		}
	case Text:
		doc.SetFont("Helvetica", "", s.Size/25.4*72)
		text, x := tr(s.Text), s.X
		if s.Mid {
			x -= doc.GetStringWidth(text) / 2
		}
		doc.Text(x, s.Y, text)
	}
}

// joins are places in the middle of the overlap of two sheets, where both have a cross.
func (d Draft) joins(tw, th float64) (list []Tile) {
	const every = 60
	for i := range count(d.Width, tw) - 1 {
		x := tw - overlap/2 + float64(i)*(tw-overlap)
		for y := 15.0; y < d.Height; y += every {
			list = append(list, Tile{x, y})
		}
	}
	for i := range count(d.Height, th) - 1 {
		y := th - overlap/2 + float64(i)*(th-overlap)
		for x := 15.0; x < d.Width; x += every {
			list = append(list, Tile{x, y})
		}
	}
	return list
}

// foot is a sheet's title, and its ruler.
func (d Draft) foot(doc *fpdf.Fpdf, tr func(string) string, p Paper, n, of int, by float64) {
	doc.SetDashPattern(nil, 0)
	doc.SetDrawColor(0, 0, 0)
	y := p.Height - edge
	doc.SetFont("Helvetica", "", 8)
	doc.Text(edge, y-10, tr(d.voice.Say(message.Message{
		ID:   "template-line.sheet",
		Args: message.Args{"title": d.Title, "n": message.Number(n), "of": message.Number(of)},
	})))
	for _, r := range []struct{ step, long, up float64 }{{10, 100, 0}, {25.4, 101.6, 5}} {
		at := y - r.up
		doc.Line(edge, at, edge+r.long*by, at)
		for x := 0.0; x <= r.long+0.01; x += r.step {
			doc.Line(edge+x*by, at-2, edge+x*by, at)
		}
	}
}
