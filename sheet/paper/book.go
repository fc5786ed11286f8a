package paper

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"strings"

	"codeberg.org/go-pdf/fpdf"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/plan"
	"kindmargin/photo"
	"kindmargin/sheet/full"
)

// Photo is a picture of a door; Data is a JPEG.
type Photo struct {
	Opening string
	Step    job.Step
	At, By  string
	Caption string
	Data    []byte
}

// Book is the book of a house: its schedule, a card of each door with its story and its
// pictures, and what is to be ordered. pictures are those of a door; nil where there are
// none. One that the paper cannot hold is told in its place.
func Book(ctx context.Context, w io.Writer, j job.Job, doors []load.Door, p full.Paper, pictures Pictures) error {
	d := newPage(p, j.Name, j.Name+" · "+sure)
	f := &flow{page: d}
	f.begin()
	f.y = edge
	f.title(j.Name)
	f.line(12, "", fmt.Sprintf("The doors of the house: %d, %s.", len(doors), inUnit(j)))
	f.y += 3
	index := f.index(j, doors)
	for i, door := range doors {
		if err := ctx.Err(); err != nil {
			return err
		}
		d.SetLink(index[i], 0, d.PageNo()+1)
		cards(d, j, door)
		f.begin()
		f.y = edge
		f.title(door.Name)
		story(f, door)
		if pictures == nil {
			continue
		}
		list, err := pictures(door.ID)
		if err != nil {
			return err
		}
		for k, shot := range list {
			if err := ctx.Err(); err != nil {
				return err
			}
			f.picture(fmt.Sprintf("%s-%d", door.ID, k), shot)
		}
	}
	f.begin()
	f.y = edge
	ordered(f, j, doors)
	return d.write(w)
}

// index is the schedule of the house; each door's line leads to its card.
func (f *flow) index(j job.Job, doors []load.Door) []int {
	links := make([]int, len(doors))
	columns := []column{{"", 0.7}, {"Door", 4}, {"Room", 4}, {"Hinges", 1.6}, {"Slab", 3.6}, {"Finished", 3.6}, {"Step", 3}}
	var rows [][]string
	for i, d := range doors {
		links[i] = f.AddLink()
		slab, finished, step := "", "", "signed off"
		if len(d.Slab.Missing()) == 0 {
			slab = j.Tape.Show(d.Slab.Width) + " × " + j.Tape.Show(d.Slab.Length)
		}
		if s := d.Plan.Leaves[0].Finished; s != nil {
			finished = j.Tape.Show(s.Width.Value) + " × " + j.Tape.Show(s.Length.Value)
		}
		if d.Plan.Next != "" {
			step = plan.StepName(d.Plan.Next)
		}
		rows = append(rows, []string{fmt.Sprint(i + 1), d.Name, d.Room, string(d.Hand), slab, finished, step})
	}
	from, top := f.PageNo(), f.y
	f.table(10, columns, rows)
	if f.PageNo() == from { // where the index goes on over pages, its lines lead nowhere
		for i := range doors {
			high := (f.y - top) / float64(len(doors)+1)
			f.Link(edge, top+high*float64(i+1), f.wide-2*edge, high, links[i])
		}
	}
	return links
}

// story is what was written down of a door, in order: its notes, its hangs, its sign-offs.
func story(f *flow, d load.Door) {
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
			head += " · " + plan.StepName(n.Step)
		}
		tell(head, n.Text)
	}
	for _, l := range d.Plan.Leaves {
		if l.Try == nil {
			continue
		}
		for i, h := range l.Try.Hangs {
			what := fmt.Sprintf("Hang %d", i+1)
			if h.Revisit != "" {
				what = "Looked at again, " + h.Revisit
			}
			text := strings.Join(h.DidSays, "; ")
			if text != "" {
				text += "; "
			}
			tell(h.On+" "+h.By, fmt.Sprintf("%s: %s%d gaps read.", what, text, len(h.Gaps)))
		}
	}
	for _, r := range d.Reopened {
		tell(r.Was.On+" "+r.Was.By, "Signed off. "+r.Was.Note)
		tell(r.On+" "+r.By, "Opened again: "+r.Why)
	}
	if s := d.Signed; s != nil {
		tell(s.On+" "+s.By, "Signed off. "+s.Note)
	}
	if !said {
		f.line(10.5, "", "Nothing was written down of this door.")
	}
	f.y += 3
}

// picture puts a picture on the paper, as wide as half of it or as high as a third; one that
// it cannot hold is told instead.
func (f *flow) picture(name string, p Photo) {
	caption := strings.TrimSpace(p.Caption + " · " + plan.StepName(p.Step) + " · " + p.At + " " + p.By)
	w, h, err := photo.Size(p.Data)
	if err != nil {
		f.line(10, "B", "A picture is here that the paper cannot hold: "+caption)
		return
	}
	by := min((f.wide-2*edge)/2/float64(w), (f.high-2*edge)/3/float64(h))
	wide, high := float64(w)*by, float64(h)*by
	f.room(high + 3*lead(9))
	f.RegisterImageOptionsReader(name, fpdf.ImageOptions{ImageType: "JPG"}, bytes.NewReader(p.Data))
	f.ImageOptions(name, edge, f.y, wide, high, false, fpdf.ImageOptions{ImageType: "JPG"}, 0, "")
	f.y += high
	f.ink(pencil)
	f.line(9, "", caption)
	f.ink(ink)
	f.y += 3
}
