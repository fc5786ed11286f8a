package sheet

import (
	"fmt"
	"io"
	"math"
	"strings"
	"text/tabwriter"
	"unicode"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// Print prints every opening's plan for a person, in the order of the
// work, with the same figures as the screen.
func Print(out io.Writer, j job.Job) error {
	w := tabwriter.NewWriter(visible{out}, 0, 4, 2, ' ', 0)
	p := printing{w, j.Unit}
	unit := map[measure.Unit]string{measure.Millimetres: "millimetres", measure.Inches: "inches"}[j.Unit]
	fmt.Fprintf(w, "%s, in %s, cut to %s\n", j.Name, unit, j.Tape)
	for _, o := range j.Openings {
		plan := Of(j, o)
		fmt.Fprintf(w, "\n%s", strings.ToUpper(o.Name))
		if o.Room != "" {
			fmt.Fprintf(w, ", %s", o.Room)
		}
		fmt.Fprintf(w, "; hinges on the %s, seen from the pull face\n", o.Hand)
		p.leaves(plan)
		for _, other := range plan.Without {
			how := "without the " + other.Name
			if other.Swapped != "" {
				how = "with the two values changed round"
			}
			fmt.Fprintf(w, "  -- %s it would be --\n", how)
			p.leaves(other.Plan)
		}
	}
	fmt.Fprintf(w, "\nThe truth lies inside ± 19 times in 20. %s\n", trade.CodeFirst)
	return w.Flush()
}

type printing struct {
	w    io.Writer
	unit measure.Unit
}

func (p printing) show(t Text) string { return t.Of(p.unit) }

func (p printing) figure(f Figure) string {
	if s := p.show(f.PlusMinus); s != "" {
		return p.show(f.Text) + " ± " + s
	}
	return p.show(f.Text)
}

// leaves tells what was found of the opening, then each slab.
func (p printing) leaves(v Plan) {
	p.findings(v.Findings)
	if v.Lining != nil {
		p.lining(*v.Lining)
	}
	doubtful := ""
	if len(v.Clashes) > 0 {
		doubtful = "DOUBTFUL, not to be cut or marked to: "
	}
	for i, l := range v.Leaves {
		if i > 0 {
			fmt.Fprintf(p.w, "  -- the leaf on the lock jamb; its own jamb is called its hinge jamb --\n")
		}
		p.leaf(l, doubtful)
	}
}

// lining prints a frame that is made to the slab: what it is cut to, and how it is set.
func (p printing) lining(l LiningOf) {
	line := func(format string, a ...any) { fmt.Fprintf(p.w, "  "+format+"\n", a...) }
	line("Frame, clear\t%s wide\t%s high", p.show(l.Width.Text), p.show(l.Height.Text))
	for _, x := range l.Parts {
		wide := ""
		if x.Wide.MM > 0 {
			wide = " × " + p.show(x.Wide.Text)
		}
		line("  %d %s\t%s%s × %s", x.Count, x.Name, p.show(x.Long.Text), wide, p.show(x.Thick.Text))
	}
	for _, r := range l.Rip {
		var marks []string
		for _, m := range r.Marks {
			marks = append(marks, p.show(m.Text))
		}
		line("  Rip the %s\t%s", r.Name, strings.Join(marks, ", "))
	}
	for _, k := range l.Packs {
		line("  Pack the %v jamb\t%s behind %s, %s up", k.Side, p.show(k.Thick.Text), k.What, p.show(k.Up.Text))
	}
	for _, s := range l.Steps {
		line("Frame: %s", s)
	}
}

func (p printing) findings(list []Finding) {
	for _, f := range list {
		fmt.Fprintf(p.w, "  %s: %s\n", strings.ToUpper(string(f.Gravity)), f.Text)
	}
}

// leaf tells one slab in the order of the work: what to look at, the margins
// wanted, the slab, the cuts edge by edge, the hinges, the lock, the end.
func (p printing) leaf(v Leaf, doubtful string) {
	line := func(format string, a ...any) { fmt.Fprintf(p.w, "  "+format+"\n", a...) }
	p.findings(v.Findings)
	var wanted []string
	for _, m := range v.Wanted {
		wanted = append(wanted, fmt.Sprintf("%v %s", m.Side, p.show(m.Figure.Text)))
	}
	line("Margins wanted\t%s", strings.Join(wanted, ", "))
	if s := v.Season; s != nil {
		line("Season\ttoday %s at the lock edge (the slab holds %s); tightest in %s, %s; widest in %s, %s; the other school says %s",
			p.figure(s.Today), s.Now, s.Tight.Name, p.show(s.Tight.Light.Text), s.Wide.Name, p.show(s.Wide.Light.Text), p.show(s.Other))
	}
	for i := 0; i+2 < len(v.Light); i += 3 {
		m := v.Light[i : i+3]
		line("Light, %v\t%s %s\t%s %s\t%s %s", m[0].Side, m[0].Where, p.figure(m[0].Figure), m[1].Where, p.figure(m[1].Figure), m[2].Where, p.figure(m[2].Figure))
	}
	if s := v.Finished; s != nil {
		line("%sFinished slab\t%s\tby %s", doubtful, p.figure(s.Width), p.figure(s.Length))
	}
	if v.Cut != nil {
		p.cuts(v.Cut, doubtful)
		line("Then ease every arris, and seal the cut edges before they stand: the ends most of all.")
	}
	p.hinges(v, doubtful)
	if w := v.Swing; w != nil {
		p.swing(w, doubtful)
	}
	if h := v.Hanging; h != nil {
		p.hanging(h)
	}
	if l := v.Latch; l != nil {
		line("%sLatch\t%s down the lock edge, from the slab's finished head\tstrike %s down the jamb, from the head", doubtful, p.figure(l.Slab), p.figure(l.Jamb))
		line("  backset %s\tbore %s from either face, %s of wood left\thandle %s above the floor", p.figure(l.Backset), p.figure(l.Centre), p.show(l.Wall.Text), p.figure(l.Floor))
	}
	for _, d := range v.Devices {
		for _, step := range d.Steps {
			line("%s: %s", strings.ToUpper(d.Name[:1])+d.Name[1:], step)
		}
	}
	for _, step := range v.Strikes {
		line("In the jamb: %s", step)
	}
	p.try(v.Try)
	if s := v.Stops; s != nil {
		line("%sStops\t%s from the jamb's pull-side arris", doubtful, p.figure(s.From))
		for _, m := range s.Moves {
			line("  %s, %s\tmove by %s", m.Stop, m.End, p.figure(m.By))
		}
		for _, step := range s.Steps {
			line("Stops: %s", step)
		}
	}
}

// try tells a slab that was cut: each hang, its margins as found, and what to do.
func (p printing) try(t *TryOf) {
	if t == nil || !t.Cut {
		return
	}
	line := func(format string, a ...any) { fmt.Fprintf(p.w, "  "+format+"\n", a...) }
	for i, h := range t.Hangs {
		what := fmt.Sprintf("Hang %d", i+1)
		if h.Revisit != "" {
			what = "Looked at again, " + h.Revisit
		}
		line("%s\t%d gaps read\t%s", what, len(h.Gaps), strings.Join(h.Did, "; "))
	}
	for i := 0; i+2 < len(t.Margins); i += 3 {
		m := t.Margins[i : i+3]
		line("Found, %v\t%s %s\t%s %s\t%s %s", m[0].Side, m[0].Where, p.figure(m[0].Figure), m[1].Where, p.figure(m[1].Figure), m[2].Where, p.figure(m[2].Figure))
	}
	for _, a := range t.After {
		line("%s", a)
	}
	if t.Done {
		line("It fits, or was left so.")
		return
	}
	for _, r := range t.ToRead {
		line("Read next\t%s", r.Name)
	}
	for i, w := range t.Ways {
		what := "Least work"
		if i > 0 {
			what = "Or"
		}
		line("%s\t%s\t%s", what, w.Costs, strings.Join(append(w.Does, w.Out...), " "))
	}
}

func (p printing) hanging(h *Hanging) {
	line := func(format string, a ...any) { fmt.Fprintf(p.w, "  "+format+"\n", a...) }
	if h.Goes != "" {
		line("Hinges: %s", h.Goes)
	}
	for _, s := range h.Screws {
		line("Screws: %s", s)
	}
	for _, step := range h.Steps {
		line("Hang: %s", step)
	}
}

func (p printing) cuts(c *CutSheet, doubtful string) {
	line := func(format string, a ...any) { fmt.Fprintf(p.w, "  "+format+"\n", a...) }
	for _, why := range c.Why {
		line("%s", why)
	}
	for _, rule := range c.Rules {
		line("Decided by: %s.", rule)
	}
	line("Slab on the trestles, about %s. Along the long edges all marks are from the top hinge corner's end, across from the hinge edge.", c.Weight)
	for _, e := range c.Edges {
		what := map[string]string{"hinge": "hinge edge", "lock": "lock edge"}[e.Side.String()]
		if what == "" {
			what = e.Side.String()
		}
		line("%sCut the %s: %s. %s", doubtful, what, e.Method, e.Says)
		for _, m := range e.Marks {
			line("  at %s\toff %s", p.show(m.At.Text), p.figure(m.Depth))
		}
		for i, pass := range e.Passes {
			line("  pass %d\t%s to %s, taking %s", i+1, p.show(pass.From.Text), p.show(pass.To.Text), p.show(pass.Bite))
		}
		if e.Left.MM > 0 {
			line("  left on for the next try\t%s", p.show(e.Left.Text))
		}
	}
	check := func(fs []Figure) string {
		var s []string
		for _, f := range fs {
			s = append(s, p.show(f.Text))
		}
		return strings.Join(s, ", ")
	}
	line("Check it\twidth at head, middle and foot %s\tlength at hinge edge, middle and lock edge %s", check(c.Width), check(c.Length))
}

func (p printing) hinges(v Leaf, doubtful string) {
	line := func(format string, a ...any) { fmt.Fprintf(p.w, "  "+format+"\n", a...) }
	if len(v.Hinges) == 0 {
		return
	}
	line("Marking gauge\tpockets %s deep, %s wide\t%s of wood left behind; leaves flush give a margin of %s",
		p.show(v.Gauges.Depth.Text), p.show(v.Gauges.Width.Text), p.show(v.Gauges.Setback.Text), p.show(v.Gauges.Flush.Text))
	for _, h := range v.Hinges {
		pack := ""
		switch {
		case math.Abs(h.Pack.MM) < 0.2: // no one sees it
		case h.Pack.MM > 0:
			pack = "packer of " + p.show(h.Pack.Text) + " behind the jamb leaf"
		default:
			pack = "jamb pocket deeper by " + strings.TrimPrefix(p.show(h.Pack.Text), "-")
		}
		line("%s%s, to the leaf's top\tslab %s\tjamb %s\t%s", doubtful, strings.ToUpper(h.Name[:1])+h.Name[1:], p.figure(h.Slab), p.figure(h.Jamb), pack)
	}
	line("Hinges are measured on the slab from its finished head, in the jamb from the head, on the hinge side.")
}

func (p printing) swing(w *Swing, doubtful string) {
	line := func(format string, a ...any) { fmt.Fprintf(p.w, "  "+format+"\n", a...) }
	bevel := "lock edge square"
	if w.Bevel.MM > 0 {
		bevel = "lock edge bevelled, push face " + p.figure(w.Bevel) + " narrower"
	}
	stops := "folds right back"
	if w.Against != "" {
		stops = "against the " + w.Against
	}
	line("%sSwing\t%s\tpasses the %s by %s at %.0f°\topens to %.0f°, %s", doubtful, bevel, w.Beside.Name, p.figure(w.Clear), w.ClearAt, w.Opens, stops)
	if w.Relief.MM > 0 {
		line("  hinge edge\tpush face planed back by %s", p.figure(w.Relief))
	}
	line("  over the floor\tleast %s at %.0f°\tlet go at 45° it rests at %.0f°", p.figure(w.Least), w.LeastAt, w.Rests)
}

// visible keeps control characters in names from the terminal.
type visible struct{ io.Writer }

func (v visible) Write(b []byte) (int, error) {
	clean := strings.Map(func(r rune) rune {
		if r != '\n' && (unicode.IsControl(r) || unicode.Is(unicode.Bidi_Control, r)) {
			return '\uFFFD'
		}
		return r
	}, string(b))
	if _, err := io.WriteString(v.Writer, clean); err != nil {
		return 0, err
	}
	return len(b), nil
}
