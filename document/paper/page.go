// Package paper prints openings: a card for each, the book of a house, what to load and to order; all as PDF.
package paper

import (
	"fmt"
	"io"
	"strings"
	"unicode"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"

	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/trade"
	"kindmargin/document"
	"kindmargin/document/template"
	"kindmargin/words"
)

// edge is the margin that printers leave white, in mm.
const edge = 12

// page is a document while it is written. Sizes are in mm, those of text in points.
type page struct {
	*fpdf.Fpdf
	wide, high float64
	foot       string // what stands at the foot of each page
	voice      words.Voice
}

// The few colours of paper: ink, pencil, chalk, and the red of what stops the work.
var (
	ink    = [3]int{0, 0, 0}
	pencil = [3]int{110, 110, 110}
	chalk  = [3]int{10, 86, 173}
	red    = [3]int{163, 36, 28}
	faint  = [3]int{225, 225, 225}
)

// newPage begins a document of a job; foot is printed before the standard text at the foot of every paper.
func newPage(p template.Paper, j job.Job, title, foot string) *page {
	doc := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: p.Width, Ht: p.Height}})
	d := &page{Fpdf: doc, wide: p.Width, high: p.Height, voice: document.Voice(j)}
	d.foot = strings.TrimSpace(foot + " " + d.voice.Text("paper-line.sure") + " " + d.voice.Text(trade.CodeFirst))
	doc.SetTitle(plain(title), true)
	doc.SetLang(string(j.Speaks()))
	doc.SetCreator("Kind Margin", true)
	doc.AddUTF8FontFromBytes("go", "", goregular.TTF)
	doc.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	doc.SetMargins(edge, edge, edge)
	doc.SetAutoPageBreak(false, edge)
	doc.SetLineWidth(0.2)
	doc.SetFooterFunc(func() {
		d.ink(pencil)
		d.font("", 8)
		doc.Text(edge, d.high-6, plain(d.foot))
		n := fmt.Sprint(doc.PageNo())
		doc.Text(d.wide-edge-doc.GetStringWidth(n), d.high-6, n)
		d.ink(ink)
	})
	return d
}

// begin begins a page.
func (d *page) begin() { d.AddPageFormat("P", fpdf.SizeType{Wd: d.wide, Ht: d.high}) }

func (d *page) ink(c [3]int) {
	d.SetTextColor(c[0], c[1], c[2])
	d.SetDrawColor(c[0], c[1], c[2])
}

func (d *page) font(style string, size float64) { d.SetFont("go", style, size) }

// write ends a document.
func (d *page) write(w io.Writer) error { return d.Output(w) }

// plain removes signs that the font lacks, and those that change the direction of writing.
func plain(s string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r == '\n' || r == '\t':
			return ' '
		case unicode.IsControl(r), unicode.Is(unicode.Bidi_Control, r), r > 0xFFFF:
			return '\uFFFD'
		}
		return r
	}, s)
}

// lead is the line height of text of a size, in mm.
func lead(size float64) float64 { return size * 25.4 / 72 * 1.25 }

// text is a message in the words of the job; args are names and values by turns.
func (d *page) text(id message.ID, args ...any) string {
	return d.voice.Say(message.With(id, args...))
}

// say prints text in a column, with line breaks, and returns where it ends.
func (d *page) say(x, y, wide, size float64, style, text string) float64 {
	d.font(style, size)
	for _, line := range d.SplitText(plain(text), wide) {
		y += lead(size)
		d.Text(x, y-lead(size)*0.25, line)
	}
	return y
}

// tall is the height of text in a column.
func (d *page) tall(wide, size float64, style, text string) float64 {
	d.font(style, size)
	return float64(len(d.SplitText(plain(text), wide))) * lead(size)
}

// cut truncates text to a width.
func (d *page) cut(text string, wide float64) string {
	text = plain(text)
	if d.GetStringWidth(text) <= wide {
		return text
	}
	runes := []rune(text)
	for len(runes) > 1 && d.GetStringWidth(string(runes)+"…") > wide {
		runes = runes[:len(runes)-1]
	}
	return string(runes) + "…"
}

// flow prints down a page after page.
type flow struct {
	*page
	y        float64
	pictures int // their bytes so far
}

// room begins a new page where a height no longer fits on this one.
func (f *flow) room(high float64) {
	if f.y+high > f.high-edge-4 {
		f.begin()
		f.y = edge
	}
}

func (f *flow) title(text string) {
	f.room(24)
	f.y = f.say(edge, f.y+2, f.wide-2*edge, 18, "B", text) + 2
}

func (f *flow) line(size float64, style, text string) { f.indent(0, size, style, text) }

func (f *flow) indent(in, size float64, style, text string) {
	wide := f.wide - 2*edge - in
	f.font(style, size)
	for _, line := range f.SplitText(plain(text), wide) {
		f.room(lead(size))
		f.y += lead(size)
		f.font(style, size)
		f.Text(edge+in, f.y-lead(size)*0.25, line)
	}
}

// column is a column of a table: its header, and its share of the width.
type column struct {
	name  string
	share float64
}

// table prints a table, with its header on each page.
func (f *flow) table(size float64, columns []column, rows [][]string) {
	all := 0.0
	for _, c := range columns {
		all += c.share
	}
	wide := func(c column) float64 { return (f.wide - 2*edge) * c.share / all }
	head := func() {
		x := edge + 0.0
		f.font("B", size)
		for _, c := range columns {
			f.Text(x, f.y+lead(size)*0.75, f.cut(c.name, wide(c)-2))
			x += wide(c)
		}
		f.y += lead(size) + 0.5
		f.Line(edge, f.y, f.wide-edge, f.y)
	}
	f.room(4 * lead(size))
	head()
	for _, row := range rows {
		high := 0.0
		for i, c := range columns {
			high = max(high, f.tall(wide(c)-2, size, "", row[i]))
		}
		if page := f.PageNo(); high < f.high-3*edge {
			if f.room(high + 1); f.PageNo() != page {
				head()
			}
		}
		x, end := edge+0.0, f.y
		for i, c := range columns {
			end = max(end, f.say(x, f.y+0.4, wide(c)-2, size, "", row[i]))
			x += wide(c)
		}
		f.y = end + 0.6
		f.ink(faint)
		f.Line(edge, f.y, f.wide-edge, f.y)
		f.ink(ink)
	}
	f.y += 2
}
