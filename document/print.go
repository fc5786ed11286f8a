package document

import (
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"
	"text/tabwriter"
	"unicode"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
	"kindmargin/words"
)

// Print prints every opening's plan as text, in the order of the work, with the figures of the screen.
func Print(out io.Writer, j job.Job) error {
	w := tabwriter.NewWriter(visible{out}, 0, 4, 2, ' ', 0)
	p := printing{w, j.Unit, Voice(j)}
	fmt.Fprintln(w, p.say("print.job-"+message.ID(j.Unit), "job", j.Name, "tape", string(j.Tape)))
	for _, o := range j.Openings {
		plan := Of(j, o)
		fmt.Fprintf(w, "\n%s", strings.ToUpper(o.Name))
		if o.Room != "" {
			fmt.Fprintf(w, ", %s", o.Room)
		}
		fmt.Fprintf(w, "; %s\n", p.say("print.hand", "hand", o.Hand))
		p.leaves(plan)
		for _, other := range plan.Without {
			how := p.say("print.without", "reading", other.Name)
			if other.Swapped != "" {
				how = p.say("print.swapped")
			}
			fmt.Fprintf(w, "  -- %s --\n", how)
			p.leaves(other.Plan)
		}
	}
	fmt.Fprintf(w, "\n%s %s\n", p.say("paper-line.sure"), p.say(trade.CodeFirst))
	return w.Flush()
}

type printing struct {
	w     io.Writer
	unit  measure.Unit
	voice words.Voice
}

// say is a message in words; args are names and values by turns.
func (p printing) say(id message.ID, args ...any) string {
	return p.voice.Say(message.With(id, args...))
}

// line prints a line of an opening; cells are separated by tabs.
func (p printing) line(cells ...string) { fmt.Fprintf(p.w, "  %s\n", strings.Join(cells, "\t")) }

func (p printing) show(t Text) string { return t.Of(p.unit) }

func (p printing) figure(f Figure) string {
	if s := p.show(f.PlusMinus); s != "" {
		return p.show(f.Text) + " ± " + s
	}
	return p.show(f.Text)
}

// leaves prints the findings of the opening, then each slab.
func (p printing) leaves(v Plan) {
	p.findings(v.Findings)
	if v.Lining != nil {
		p.lining(*v.Lining)
	}
	doubtful := ""
	if len(v.Clashes) > 0 {
		doubtful = p.say("print.doubtful") + " "
	}
	for i, l := range v.Leaves {
		if v.Lining != nil && v.Lining.Set { // it came hung: neither cut nor let in
			l.Cut, l.Hinges = nil, nil
		}
		if i > 0 {
			fmt.Fprintf(p.w, "  -- %s --\n", p.say("print.second-leaf"))
		}
		p.leaf(l, doubtful, v.Before(job.StepLock, job.StepTry))
	}
}

// lining prints a frame that is made to the slab: its parts, and how it is set.
func (p printing) lining(l LiningOf) {
	p.line(
		p.say("print.frame"), p.say("print.wide", "width", p.show(l.Width.Text)),
		p.say("print.high", "height", p.show(l.Height.Text)),
	)
	for _, x := range l.Parts {
		wide := ""
		if x.Wide.MM > 0 {
			wide = " × " + p.show(x.Wide.Text)
		}
		p.line("  "+strconv.Itoa(x.Count)+" "+x.Name, p.show(x.Long.Text)+wide+" × "+p.show(x.Thick.Text))
	}
	for _, r := range l.Rip {
		var marks []string
		for _, m := range r.Marks {
			marks = append(marks, p.show(m.Text))
		}
		p.line("  "+p.say("print.rip", "name", r.Name), strings.Join(marks, ", "))
	}
	for _, f := range l.Feet {
		p.line("  "+p.say("print.foot", "wall", message.Wall(f.Side)), p.show(f.Off.Text))
	}
	for _, k := range l.Packs {
		p.line(
			"  "+p.say("print.pack", "wall", message.Wall(k.Side)),
			p.say("print.packing", "thick", p.show(k.Thick.Text), "what", k.What, "up", p.show(k.Up.Text)),
		)
	}
	p.steps("print.frame", l.Steps)
}

// steps writes sentences under a heading.
func (p printing) steps(head message.ID, list []string) {
	for _, s := range list {
		p.line(p.say(head) + ": " + s)
	}
}

func (p printing) findings(list []Finding) {
	for _, f := range list {
		p.line(strings.ToUpper(p.say("gravity."+message.ID(f.Gravity))) + ": " + f.Text)
	}
}

// leaf prints one slab in the order of the work: findings, wanted margins, the slab, the cuts edge by edge, the hinges,
// the tries, the lock, the stops. lockFirst reports whether the lock is bored before the slab is tried.
func (p printing) leaf(v Leaf, doubtful string, lockFirst bool) {
	p.findings(v.Findings)
	var wanted []string
	for _, m := range v.Wanted {
		wanted = append(wanted, p.voice.Word(message.Margin(m.Side))+" "+p.show(m.Figure.Text))
	}
	p.line(p.say("card.margins"), strings.Join(wanted, ", "))
	if s := v.Season; s != nil {
		p.line(p.say("choices.season"), p.say("print.season", "today", p.figure(s.Today), "now", s.Now,
			"tight", s.Tight.Name, "tightest", p.show(s.Tight.Light.Text), "wide", s.Wide.Name, "widest",
			p.show(s.Wide.Light.Text), "other", p.show(s.Other)))
	}
	p.light("print.light", v.Light)
	if s := v.Finished; s != nil {
		p.line(doubtful+p.say("card.finished"), p.figure(s.Width), p.say("print.by", "length", p.figure(s.Length)))
	}
	if v.Cut != nil {
		p.cuts(v.Cut, doubtful)
		p.line(p.say("print.then-ease"))
	}
	p.hinges(v, doubtful)
	if w := v.Swing; w != nil {
		p.swing(w, doubtful)
	}
	if h := v.Hanging; h != nil {
		p.hanging(h)
	}
	if !lockFirst {
		p.try(v.Try)
	}
	p.lock(v, doubtful)
	if lockFirst {
		p.try(v.Try)
	}
	if s := v.Stops; s != nil {
		p.line(doubtful+p.say("step.stops"), p.say("card.stops-from", "from", p.figure(s.From)))
		for _, m := range s.Moves {
			p.line("  " + p.say("card.stop-move", "stop", m.Stop, "end", m.End, "by", p.figure(m.By)))
		}
		p.steps("step.stops", s.Steps)
	}
}

// lock prints latch and strike, and how their hardware goes in.
func (p printing) lock(v Leaf, doubtful string) {
	if l := v.Latch; l != nil {
		p.line(
			doubtful+p.say("print.latch"), p.say("print.latch-slab", "down", p.figure(l.Slab)),
			p.say("print.latch-jamb", "down", p.figure(l.Jamb)),
		)
		p.line(
			"  "+p.say("print.backset", "backset", p.figure(l.Backset)),
			p.say("print.bore", "centre", p.figure(l.Centre), "wall", p.show(l.Wall.Text)),
			p.say("print.handle", "floor", p.figure(l.Floor)),
		)
	}
	for _, d := range v.Hardware {
		for _, step := range d.Steps {
			p.line(capital(d.Name) + ": " + step)
		}
	}
	p.steps("print.in-jamb", v.Strikes)
	for _, j := range v.Jigs {
		p.line(capital(j.Name) + ": " + j.Says)
	}
}

// light prints margins at three places of each side.
func (p printing) light(head message.ID, list []Light) {
	for i := 0; i+2 < len(list); i += 3 {
		cells := []string{p.say(head, "side", message.Margin(list[i].Side))}
		for _, m := range list[i : i+3] {
			cells = append(cells, m.Where+" "+p.figure(m.Figure))
		}
		p.line(cells...)
	}
}

// try prints a slab that was cut: each hang, its margins as found, and what to do.
func (p printing) try(t *TryOf) {
	if t == nil || !t.Cut {
		return
	}
	for i, h := range t.Hangs {
		what := p.say("try.hang", "n", message.Number(i+1))
		if h.Revisit != "" {
			what = p.say("try.again", "revisit", h.Revisit)
		}
		p.line(what, p.say("try.gaps-read", "gaps", message.Count(len(h.Gaps))), strings.Join(h.Did, " "))
	}
	p.light("print.found", t.Margins)
	for _, a := range t.After {
		p.line(a)
	}
	if t.Done {
		p.line(p.say("print.fits"))
		return
	}
	for _, r := range t.ToRead {
		p.line(p.say("print.read-next"), r.Name)
	}
	for _, says := range append(t.Near, t.Look, t.Slide) {
		if says != "" {
			p.line(says)
		}
	}
	for i, w := range t.Ways {
		what := message.ID("print.least-work")
		if i > 0 {
			what = "print.or"
		}
		p.line(p.say(what), w.Costs, strings.Join(append(w.Does, w.Out...), " "))
	}
}

func (p printing) hanging(h *Hanging) {
	if h.Goes != "" {
		p.line(p.say("step.hinges") + ": " + h.Goes)
	}
	p.steps("load-kind.screws", h.Screws)
	p.steps("print.hang", h.Steps)
}

func (p printing) cuts(c *CutList, doubtful string) {
	for _, why := range c.Why {
		p.line(why)
	}
	for _, rule := range c.Rules {
		p.line(p.say("print.decided", "rule", rule))
	}
	p.line(p.say("print.on-trestles", "weight", c.Weight))
	for _, e := range c.Edges {
		p.line(doubtful + p.say("print.cut", "edge", message.Edge(e.Side), "method", e.Method, "says", e.Says))
		for _, m := range e.Marks {
			p.line("  "+p.say("print.at", "at", p.show(m.At.Text)), p.say("print.off", "off", p.figure(m.Depth)))
		}
		for _, m := range e.Pencils {
			p.line("  "+p.say("print.at", "at", p.show(m.At.Text)), m.Says)
		}
		for _, w := range e.Ways {
			if !w.Chosen {
				p.line("  " + p.say("print.means", "means", w.Name, "minutes", message.Lasting(w.Minutes)))
			}
		}
		if e.Sawing != nil {
			p.sawing(*e.Sawing)
		}
		for i, pass := range e.Passes {
			p.line("  "+p.say("print.pass", "n", message.Number(i+1)), p.say(
				"print.pass-from", "from", p.show(pass.From.Text), "to", p.show(pass.To.Text), "bite",
				p.show(pass.Bite),
			))
		}
		if e.Left.MM > 0 {
			p.line("  "+p.say("print.left-on"), p.show(e.Left.Text))
		}
	}
	for _, in := range c.Inserts {
		for _, s := range in.Steps {
			p.line(capital(in.Name) + ": " + s)
		}
	}
	check := func(fs []Figure) string {
		var s []string
		for _, f := range fs {
			s = append(s, p.show(f.Text))
		}
		return strings.Join(s, ", ")
	}
	p.line(
		p.say("print.check"), p.say("print.check-width", "width", check(c.Width)),
		p.say("print.check-length", "length", check(c.Length)),
	)
}

// sawing prints how an edge is sawn.
func (p printing) sawing(s Sawing) {
	for _, c := range s.Clamps {
		p.line("  "+p.say("print.guide", "from", c.From), p.figure(c.Along))
	}
	if s.Fence != nil {
		p.line("  "+p.say("print.fence"), p.figure(*s.Fence))
	}
	for _, step := range s.Steps {
		p.line("  " + step)
	}
}

func (p printing) hinges(v Leaf, doubtful string) {
	if len(v.Hinges) == 0 {
		return
	}
	g := v.Gauges
	p.line(p.say("print.gauge"), p.say("print.pockets", "deep", p.show(g.Depth.Text), "wide", p.show(g.Width.Text)),
		p.say("print.setback", "setback", p.show(g.Setback.Text), "flush", p.show(g.Flush.Text)))
	for _, h := range v.Hinges {
		pack := ""
		switch {
		case math.Abs(h.Pack.MM) < 0.2: // no one sees it
		case h.Pack.MM > 0:
			pack = p.say("card.pack", "by", p.show(h.Pack.Text))
		default:
			pack = p.say("card.deeper", "by", strings.TrimPrefix(p.show(h.Pack.Text), "-"))
		}
		p.line(
			doubtful+p.say("print.hinge", "hinge", capital(h.Name)),
			p.say("print.hinge-slab", "down", p.figure(h.Slab)), p.say("print.hinge-jamb", "down", p.figure(h.Jamb)),
			pack,
		)
	}
	p.line(p.say("print.hinges-from"))
}

func (p printing) swing(w *Swing, doubtful string) {
	bevel := p.say("card.square-edge")
	if w.Bevel.MM > 0 {
		bevel = p.say("card.bevelled", "by", p.figure(w.Bevel))
	}
	stops := p.say("print.folds-back")
	if w.Against != "" {
		stops = p.say("print.against", "thing", w.Against)
	}
	p.line(doubtful+p.say("step.swing"), bevel,
		p.say("print.passes", "beside", w.Beside.Name, "clear", p.figure(w.Clear), "at", message.Degrees(w.ClearAt)),
		p.say("print.opens", "opens", message.Degrees(w.Opens), "stops", stops))
	if w.Relief.MM > 0 {
		p.line("  "+p.voice.Word(message.Edge(frame.Hinge)), p.say("print.relief", "by", p.figure(w.Relief)))
	}
	p.line(
		"  "+p.say("print.over-floor"),
		p.say("print.least", "least", p.figure(w.Least), "at", message.Degrees(w.LeastAt)),
		p.say("print.rests", "rests", message.Degrees(w.Rests)),
	)
}

// capital capitalises the first letter.
func capital(s string) string {
	r := []rune(s)
	if len(r) > 0 {
		r[0] = unicode.ToUpper(r[0])
	}
	return string(r)
}

// visible removes control characters from names.
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
