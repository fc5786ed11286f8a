package paper

import (
	"context"
	"fmt"
	"io"
	"strings"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/document"
	"kindmargin/document/template"
)

// order is what to buy for the openings.
func (a Asked) order(ctx context.Context, w io.Writer, p template.Paper) error {
	need, err := a.count(ctx)
	if err != nil {
		return err
	}
	d := newPage(p, a.Job, title(a.Job, "paper-line.to-order"), "")
	f := &flow{page: d}
	f.begin()
	f.y = edge
	ordered(f, a.Job, need)
	return d.write(w)
}

// title is the title of a paper.
func title(j job.Job, id message.ID) string {
	return document.Voice(j).Say(message.Message{ID: id, Args: message.Args{"job": j.Name}})
}

// count counts the needs of the openings.
func (a Asked) count(ctx context.Context) (load.List, error) {
	c := load.NewCounter(a.Job, a.Log)
	err := document.Each(ctx, a.Job, func(d load.Opening) error {
		c.Add(d)
		a.Told()
		return nil
	})
	return c.List(), err
}

func ordered(f *flow, j job.Job, need load.List) {
	l := document.LoadOf(j, need.Order())
	f.title(title(j, "paper-line.to-order"))
	f.line(11, "", f.text("paper-line.for", "doors", f.some(l.Openings))+" "+f.text("paper-line.left-out"))
	groups(f, l)
}

// load is what to take along for the openings, with shared settings.
func (a Asked) load(ctx context.Context, w io.Writer, p template.Paper) error {
	need, err := a.count(ctx)
	if err != nil {
		return err
	}
	j := a.Job
	d := newPage(p, j, title(j, "paper-line.to-load"), "")
	f := &flow{page: d}
	f.begin()
	f.y = edge
	l := document.LoadOf(j, need)
	f.title(title(j, "paper-line.to-load"))
	f.line(11, "", f.text("paper-line.for", "doors", f.some(l.Openings)))
	groups(f, l)
	cutting(f, l, j.Unit)
	if len(l.Off) > 0 {
		f.title(f.text("paper-line.spray"))
		for _, o := range l.Off {
			f.line(11, "", fmt.Sprintf("%d  %s, %s", o.Number, o.Opening, o.Weight))
		}
		for _, s := range l.Spray {
			f.line(10, "", s)
		}
	}
	if len(l.Saves) > 0 {
		f.title(f.text("paper-line.saves"))
		for _, s := range l.Saves {
			f.line(11, "", s.Says+" "+f.some(s.Openings)+".")
		}
	}
	if len(l.Settings) > 0 {
		f.title(f.text("paper-line.set-once"))
		var rows [][]string
		for _, s := range l.Settings {
			rows = append(rows, []string{s.What, s.To, f.some(s.Openings)})
		}
		f.table(10.5, []column{{f.text("head.what"), 5}, {f.text("head.to"), 4}, {f.text("head.for"), 4}}, rows)
	}
	return d.write(w)
}

// groups prints a list under its headings, with a tick box before each line.
func groups(f *flow, l document.Load) {
	for _, o := range l.Open {
		f.ink(red)
		f.line(11, "B", f.text("paper-line.open", "door", o.Opening, "why", o.Why))
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
			whose := f.some(i.Openings)
			if g.Kind == load.Tools { // loaded once, whichever door wants it
				whose = ""
			}
			high := f.tall(f.wide-2*edge-24, 12, "", text)
			if whose != "" {
				high += f.tall(f.wide-2*edge-24, 8.5, "", whose)
			}
			f.room(high + 1)
			f.Rect(edge, f.y+1.2, 3.6, 3.6, "D")
			f.font("B", 12)
			f.Text(edge+22-f.GetStringWidth(count), f.y+lead(12)*0.75, count)
			f.y = f.say(edge+24, f.y, f.wide-2*edge-24, 12, "", text)
			if whose != "" {
				f.ink(pencil)
				f.y = f.say(edge+24, f.y, f.wide-2*edge-24, 8.5, "", whose)
				f.ink(ink)
			}
			f.y += 0.8
		}
	}
}

func cutting(f *flow, l document.Load, u measure.Unit) {
	if len(l.Cutting) == 0 {
		return
	}
	f.title(f.text("paper-line.cutting", "unit", string(u)))
	var rows [][]string
	for _, c := range l.Cutting {
		after := c.Width.Of(u) + " × " + c.Length.Of(u)
		if c.Left {
			after += ", " + f.text("paper-line.some-left")
		}
		rows = append(rows, []string{c.Opening, c.Slab, c.Head.Of(u), c.Hinge.Of(u), c.Lock.Of(u), c.Foot.Of(u), after})
	}
	f.table(10.5, []column{
		{f.text("head.door"), 4},
		{f.text("step.slab"), 4},
		{f.text("head.off-head"), 1.3},
		{f.text("head.off-hinge"), 1.3},
		{f.text("head.off-lock"), 1.3},
		{f.text("head.off-foot"), 1.3},
		{f.text("head.after-cut"), 4},
	}, rows)
}

// mostNamed is how many openings are named before the rest are only counted.
const mostNamed = 8

// some names openings, up to mostNamed.
func (d *page) some(openings []string) string {
	if len(openings) <= mostNamed {
		return strings.Join(openings, ", ")
	}
	return d.text(
		"head.and-more", "doors", strings.Join(openings[:mostNamed-1], ", "), "more",
		message.Number(len(openings)-mostNamed+1),
	)
}
