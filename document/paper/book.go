package paper

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/message"
	"kindmargin/document"
	"kindmargin/document/template"
	"kindmargin/photo"
)

// Photo is a photograph of an opening; Data is a JPEG.
type Photo struct {
	Opening string
	Step    job.Step
	At, By  string
	Caption string
	Data    []byte
}

// book is the book of a house: its schedule, a card of each opening with its record and pictures, and what to order. A
// picture that cannot be printed is named in its place. The openings are planned twice, for the schedule that comes
// first and for their pages.
func (a Asked) book(ctx context.Context, w io.Writer, p template.Paper) error {
	j := a.Job
	d := newPage(p, j, j.Name, j.Name+" ·")
	f := &flow{page: d}
	f.begin()
	f.y = edge
	f.title(j.Name)
	f.line(12, "", d.text("paper-line.doors", "doors", message.Count(len(j.Openings)), "unit", d.inUnit(j)))
	f.y += 3
	need := load.NewCounter(j, nil)
	var rows [][]string
	if err := document.Each(ctx, j, func(d load.Opening) error {
		rows = append(rows, f.indexRow(j, d, len(rows)+1))
		need.Add(d)
		a.Told()
		return nil
	}); err != nil {
		return err
	}
	index := f.index(rows)
	n := 0
	if err := document.Each(ctx, j, func(opening load.Opening) error {
		d.SetLink(index[n], 0, d.PageNo()+1)
		n++
		a.Told()
		return a.chapter(ctx, f, opening)
	}); err != nil {
		return err
	}
	f.begin()
	f.y = edge
	ordered(f, j, need.List())
	return d.write(w)
}

// chapter is an opening's card, record and pictures.
func (a Asked) chapter(ctx context.Context, f *flow, opening load.Opening) error {
	cards(f.page, a.Job, opening)
	f.begin()
	f.y = edge
	f.title(opening.Name)
	story(f, opening)
	if a.Pictures == nil {
		return nil
	}
	k := 0
	for shot, err := range a.Pictures(opening.ID) {
		if err == nil {
			err = ctx.Err()
		}
		if err == nil {
			err = f.picture(fmt.Sprintf("%s-%d", opening.ID, k), shot)
		}
		if err != nil {
			return err
		}
		k++
	}
	return nil
}

// indexRow is an opening's line in the schedule.
func (f *flow) indexRow(j job.Job, d load.Opening, n int) []string {
	slab, finished, step := "", "", f.text("head.signed-off")
	if len(d.Slab.Missing()) == 0 {
		slab = j.Tape.Show(d.Slab.Width) + " × " + j.Tape.Show(d.Slab.Length)
	}
	if s := d.Plan.Leaves[0].Finished; s != nil {
		finished = j.Tape.Show(s.Width.Value) + " × " + j.Tape.Show(s.Length.Value)
	}
	if d.Plan.Next != "" {
		step = f.text(d.Plan.Next.Name())
	}
	return []string{fmt.Sprint(n), d.Name, d.Room, f.voice.Word(d.Hand), slab, finished, step}
}

// index is the schedule of the house; each line links to its card.
func (f *flow) index(rows [][]string) []int {
	links := make([]int, len(rows))
	for i := range rows {
		links[i] = f.AddLink()
	}
	columns := []column{
		{"", 0.7},
		{f.text("head.door"), 4},
		{f.text("head.room"), 4},
		{f.text("step.hinges"), 1.6},
		{f.text("step.slab"), 3.6},
		{f.text("head.finished"), 3.6},
		{f.text("head.step"), 3},
	}
	from, top := f.PageNo(), f.y
	f.table(10, columns, rows)
	if f.PageNo() == from { // where the index goes on over pages, its lines lead nowhere
		for i := range rows {
			high := (f.y - top) / float64(len(rows)+1)
			f.Link(edge, top+high*float64(i+1), f.wide-2*edge, high, links[i])
		}
	}
	return links
}

// story is the record of an opening, in order: its notes, its hangs, its sign-offs.
func story(f *flow, d load.Opening) {
	said := false
	tell := func(head, text string) {
		said = true
		f.y += 1.5
		f.ink(pencil)
		f.line(9, "B", strings.TrimSpace(head))
		f.ink(ink)
		f.line(10.5, "", text)
	}
	for _, n := range d.Notes {
		head := n.On + " " + n.By
		if n.Step != "" {
			head += " · " + f.text(n.Step.Name())
		}
		tell(head, n.Text)
	}
	for _, l := range d.Plan.Leaves {
		if l.Try == nil {
			continue
		}
		for i, h := range l.Try.Hangs {
			what := f.text("try.hang", "n", message.Number(i+1))
			if h.Revisit != "" {
				what = f.text("try.again", "revisit", h.Revisit)
			}
			for _, m := range h.DidSays {
				what += " " + f.voice.Say(m)
			}
			tell(h.On+" "+h.By, what+" "+f.text("try.gaps-read", "gaps", message.Count(len(h.Gaps))))
		}
	}
	for _, r := range d.Reopened {
		tell(r.Was.On+" "+r.Was.By, f.text("paper-line.signed")+" "+r.Was.Note)
		if r.Revisit == "" { // else the hang tells it
			tell(r.On+" "+r.By, f.text("paper-line.reopened", "why", r.Why))
		}
	}
	if s := d.Signed; s != nil {
		tell(s.On+" "+s.By, f.text("paper-line.signed")+" "+s.Note)
	}
	if !said {
		f.line(10.5, "", f.text("paper-line.no-story"))
	}
	f.y += 3
}

// fine is the resolution of pictures on paper, in dots an inch: what an office printer resolves (common practice).
const fine = 200

// mostPictures is the largest total size of a book's pictures.
const mostPictures = 100 << 20

// picture prints a picture at half the paper's width or a third of its height, at most, scaled to that resolution; one
// that cannot be printed is named instead.
func (f *flow) picture(name string, p Photo) error {
	caption := strings.TrimSpace(p.Caption + " · " + f.text(p.Step.Name()) + " · " + p.At + " " + p.By)
	wide, high := (f.wide-2*edge)/2, (f.high-2*edge)/3
	k, err := photo.Fit(p.Data, int(wide/25.4*fine), int(high/25.4*fine))
	if err != nil {
		f.line(10, "B", f.text("paper-line.picture", "caption", caption))
		return nil
	}
	if f.pictures += len(k.Data); f.pictures > mostPictures {
		return field.Fault("/doors", "refused.book-pictures", message.Args{"most": message.Number(mostPictures >> 20)})
	}
	by := min(wide/float64(k.Width), high/float64(k.Height))
	wide, high = float64(k.Width)*by, float64(k.Height)*by
	f.room(high + 3*lead(9))
	f.RegisterImageOptionsReader(name, fpdf.ImageOptions{ImageType: "JPG"}, bytes.NewReader(k.Data))
	f.ImageOptions(name, edge, f.y, wide, high, false, fpdf.ImageOptions{ImageType: "JPG"}, 0, "")
	f.y += high
	f.ink(pencil)
	f.line(9, "", caption)
	f.ink(ink)
	f.y += 3
	return nil
}
