// Package template draws templates at full size: a draft in millimetres, written as PDF over as
// many sheets as it needs, as SVG, or as DXF for a cutter.
package template

import (
	"math"

	"kindmargin/words"
)

// Draft is a drawing at full size, in mm, x to the right and y down from its upper left corner.
type Draft struct {
	Title         string
	Width, Height float64
	Shapes        []Shape

	voice words.Voice
}

// Shape is a line, a circle, a rounded rectangle, or a text.
type Shape struct {
	Kind  Kind
	Layer Layer
	X, Y  float64 // its start, its centre, or its upper left corner; of a text, its foot
	W, H  float64 // of a line, to its end
	R     float64 // of a circle, or of a rectangle's corners
	Text  string
	Size  float64 // of a text, mm
	Mid   bool    // a text is set about its place
}

// Kind is the kind of a shape.
type Kind int

// The kinds.
const (
	Line Kind = iota
	Circle
	Rect
	Text
)

// Layer is the purpose of a shape.
type Layer string

// The layers.
const (
	CutLayer  Layer = "CUT"  // bored, routed or cut along
	MarkLayer Layer = "MARK" // to set it by
	FoldLayer Layer = "FOLD"
	TextLayer Layer = "TEXT"
)

func (d *Draft) line(l Layer, x0, y0, x1, y1 float64) {
	d.Shapes = append(d.Shapes, Shape{Kind: Line, Layer: l, X: x0, Y: y0, W: x1 - x0, H: y1 - y0})
}

func (d *Draft) circle(x, y, r float64) {
	d.Shapes = append(d.Shapes, Shape{Kind: Circle, Layer: CutLayer, X: x, Y: y, R: r})
	d.cross(x, y, max(r+3, 6))
}

// cross marks a centre.
func (d *Draft) cross(x, y, arm float64) {
	d.line(MarkLayer, x-arm, y, x+arm, y)
	d.line(MarkLayer, x, y-arm, x, y+arm)
}

func (d *Draft) rect(l Layer, x, y, w, h, r float64) {
	d.Shapes = append(d.Shapes, Shape{Kind: Rect, Layer: l, X: x, Y: y, W: w, H: h, R: min(r, w/2, h/2)})
}

func (d *Draft) text(x, y, size float64, s string) {
	d.Shapes = append(d.Shapes, Shape{Kind: Text, Layer: TextLayer, X: x, Y: y, Size: size, Text: s})
}

func (d *Draft) middle(x, y, size float64, s string) {
	d.Shapes = append(d.Shapes, Shape{Kind: Text, Layer: TextLayer, X: x, Y: y, Size: size, Text: s, Mid: true})
}

// scaled is the draft scaled by a factor, for a printer that shrinks.
func (d Draft) scaled(by float64) Draft {
	if by == 1 {
		return d
	}
	d.Width, d.Height = d.Width*by, d.Height*by
	shapes := make([]Shape, len(d.Shapes))
	for i, s := range d.Shapes {
		s.X, s.Y, s.W, s.H, s.R, s.Size = s.X*by, s.Y*by, s.W*by, s.H*by, s.R*by, s.Size*by
		shapes[i] = s
	}
	d.Shapes = shapes
	return d
}

// Paper is a paper size, in mm, upright. A4 and A3 by ISO 216, Letter and Tabloid by ANSI/ASME Y14.1, from memory.
type Paper struct {
	ID            string
	Width, Height float64
}

// Papers lists the paper sizes.
var Papers = []Paper{
	{"a4", 210, 297}, {"a3", 297, 420}, {"letter", 8.5 * 25.4, 11 * 25.4}, {"tabloid", 11 * 25.4, 17 * 25.4},
}

// PaperByID finds a paper; ok is false for an unknown ID.
func PaperByID(id string) (p Paper, ok bool) {
	for _, p := range Papers {
		if p.ID == id {
			return p, true
		}
	}
	return Paper{}, false
}

// Reserved on a sheet, in mm: the white edge of printers, the overlap of two sheets, and a band for title and ruler at
// its foot.
const (
	edge    = 10
	overlap = 12
	band    = 16
)

// on is a paper upright or across, whichever takes fewer sheets.
func (d Draft) on(p Paper) Paper {
	across := Paper{p.ID, p.Height, p.Width}
	up, _, _ := d.Tiles(p)
	if lie, _, _ := d.Tiles(across); len(lie) < len(up) {
		return across
	}
	return p
}

// Tile is one sheet of a draft: the part that begins at X, Y.
type Tile struct{ X, Y float64 }

// Tiles are the sheets of a draft on a paper, row by row, and how much of it each shows.
func (d Draft) Tiles(p Paper) (list []Tile, w, h float64) {
	w, h = p.Width-2*edge, p.Height-2*edge-band
	across, down := count(d.Width, w), count(d.Height, h)
	for j := range down {
		for i := range across {
			list = append(list, Tile{float64(i) * (w - overlap), float64(j) * (h - overlap)})
		}
	}
	return list, w, h
}

// count is the number of sheets for a length.
func count(length, shows float64) int {
	if length <= shows {
		return 1
	}
	return int(math.Ceil((length - overlap) / (shows - overlap)))
}
