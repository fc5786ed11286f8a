package paper

import (
	"context"
	"fmt"
	"io"
	"strings"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/measure"
	"kindmargin/sheet"
	"kindmargin/sheet/full"
)

// order is what is bought for the doors.
func (a Asked) order(ctx context.Context, w io.Writer, p full.Paper) error {
	need, err := a.count(ctx)
	if err != nil {
		return err
	}
	d := newPage(p, "Order, "+a.Job.Name, sure)
	f := &flow{page: d}
	f.begin()
	f.y = edge
	ordered(f, a.Job, need)
	return d.write(w)
}

// count counts what the doors need.
func (a Asked) count(ctx context.Context) (load.List, error) {
	c := load.NewCounter(a.Job)
	err := sheet.Each(ctx, a.Job, func(d load.Door) error {
		c.Add(d)
		a.Told()
		return nil
	})
	return c.List(), err
}

func ordered(f *flow, j job.Job, need load.List) {
	l := sheet.LoadOf(j, need.Order())
	f.title("To order, " + j.Name)
	f.line(11, "", "For "+some(l.Doors)+". What is cut, hung or fitted already is left out.")
	groups(f, l)
}

// load is what to take along for the doors, and what is set once for them.
func (a Asked) load(ctx context.Context, w io.Writer, p full.Paper) error {
	need, err := a.count(ctx)
	if err != nil {
		return err
	}
	j := a.Job
	d := newPage(p, "To load, "+j.Name, sure)
	f := &flow{page: d}
	f.begin()
	f.y = edge
	l := sheet.LoadOf(j, need)
	f.title("To load, " + j.Name)
	f.line(11, "", "For "+some(l.Doors)+".")
	groups(f, l)
	cutting(f, l, j.Unit)
	if len(l.Settings) > 0 {
		f.title("Set once")
		var rows [][]string
		for _, s := range l.Settings {
			rows = append(rows, []string{s.What, s.To, some(s.Doors)})
		}
		f.table(10.5, []column{{"What", 5}, {"To", 4}, {"For", 4}}, rows)
	}
	return d.write(w)
}

// groups writes a list under its headings, a box before each line to be ticked.
func groups(f *flow, l sheet.Load) {
	for _, o := range l.Open {
		f.ink(red)
		f.line(11, "B", o.Door+": "+o.Why+".")
		f.ink(ink)
	}
	for _, g := range l.Groups {
		f.room(20)
		f.y += 2
		f.line(13, "B", g.Name)
		for _, i := range g.Items {
			text := i.Name
			if i.Note != "" {
				text += " (" + i.Note + ")"
			}
			count := ""
			if i.Count > 0 {
				count = fmt.Sprintf("%d ×", i.Count)
			}
			high := f.tall(f.wide-2*edge-24, 12, "", text) + f.tall(f.wide-2*edge-24, 8.5, "", some(i.Doors))
			f.room(high + 1)
			f.Rect(edge, f.y+1.2, 3.6, 3.6, "D")
			f.font("B", 12)
			f.Text(edge+22-f.GetStringWidth(count), f.y+lead(12)*0.75, count)
			f.y = f.say(edge+24, f.y, f.wide-2*edge-24, 12, "", text)
			f.ink(pencil)
			f.y = f.say(edge+24, f.y, f.wide-2*edge-24, 8.5, "", some(i.Doors)) + 0.8
			f.ink(ink)
		}
	}
}

func cutting(f *flow, l sheet.Load, u measure.Unit) {
	if len(l.Cutting) == 0 {
		return
	}
	f.title("Cutting list, in " + string(u))
	var rows [][]string
	for _, c := range l.Cutting {
		after := c.Width.Of(u) + " × " + c.Length.Of(u)
		if c.Left {
			after += ", some left on"
		}
		rows = append(rows, []string{c.Door, c.Slab, c.Head.Of(u), c.Hinge.Of(u), c.Lock.Of(u), c.Foot.Of(u), after})
	}
	f.table(10.5, []column{{"Door", 4}, {"Slab", 4}, {"Head", 1.3}, {"Hinge", 1.3}, {"Lock", 1.3}, {"Foot", 1.3}, {"After the first cut", 4}}, rows)
}

// mostNamed is how many doors are named before the rest are only counted.
const mostNamed = 8

// some names doors, the first of them where there are many.
func some(doors []string) string {
	if len(doors) <= mostNamed {
		return strings.Join(doors, ", ")
	}
	return fmt.Sprintf("%s and %d more", strings.Join(doors[:mostNamed-1], ", "), len(doors)-mostNamed+1)
}
