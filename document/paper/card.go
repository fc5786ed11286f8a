package paper

import (
	"context"
	"fmt"
	"io"
	"math"
	"strings"
	"unicode"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/document"
	"kindmargin/document/template"
)

// cards are the openings each on a page, for the wall beside it: slab with chalk lines, cuts, hinges, swing, lock and
// tries; a pair has a page a leaf.
func (a Asked) cards(ctx context.Context, w io.Writer, p template.Paper) error {
	title := a.Job.Name
	if len(a.Job.Openings) == 1 {
		title = a.Job.Openings[0].Name + ", " + title
	}
	d := newPage(p, a.Job, title, "")
	if err := document.Each(ctx, a.Job, func(opening load.Opening) error {
		cards(d, a.Job, opening)
		a.Told()
		return nil
	}); err != nil {
		return err
	}
	return d.write(w)
}

// cards adds an opening's pages to a document.
func cards(d *page, j job.Job, opening load.Opening) {
	v := document.NewPlan(j, opening.Opening, opening.Plan)
	for i, l := range v.Leaves {
		if v.Lining != nil && v.Lining.Set { // it came hung: neither cut nor let in
			l.Cut, l.Hinges = nil, nil
		}
		c := card{page: d, job: j, opening: opening, plan: v, leaf: l, n: i, unit: j.Unit, hand: opening.Hand}
		if i == 1 {
			c.hand = opening.Hand.Other()
		}
		d.begin()
		c.draw()
	}
}

// card is one page.
type card struct {
	*page
	job     job.Job
	opening load.Opening
	plan    document.Plan
	leaf    document.Leaf
	n       int
	unit    measure.Unit
	hand    frame.Hand
}

// block is a heading with its lines; large ones are figures to be read from a distance.
type block struct {
	name  message.ID
	lines []said
}

type said struct {
	text  string
	large bool
}

func (c card) show(t document.Text) string { return t.Of(c.unit) }

// figure is a figure with its ±.
func (c card) figure(f document.Figure) string {
	if s := c.show(f.PlusMinus); s != "" {
		return c.show(f.Text) + " ± " + s
	}
	return c.show(f.Text)
}

func (c card) draw() {
	y := c.head()
	// The drawing on the left, the work on the right.
	left := (c.wide - 2*edge) * 0.48
	c.board(edge, y, left, c.high-edge-y-6)
	x, wide := edge+left+5, c.wide-2*edge-left-5
	blocks := c.blocks()
	// As large as fits the page.
	scale := 1.0
	for scale > 0.45 && c.lay(blocks, x, y, wide, scale, false) > c.high-edge-4 {
		scale -= 0.03
	}
	c.lay(blocks, x, y, wide, scale, true)
}

// head is the top of the page; it returns where that ends.
func (c card) head() float64 {
	name := c.opening.Name
	if len(c.plan.Leaves) > 1 {
		name = c.text(
			"load.leaf-on-"+message.ID([]frame.Side{frame.Hinge, frame.Lock}[c.n].String())+"-jamb", "door", name,
		)
	}
	c.font("B", 24)
	c.Text(edge, edge+8, c.cut(name, c.wide-2*edge))
	where := c.job.Name
	if c.opening.Room != "" {
		where += " · " + c.text("card.seen-from", "room", c.opening.Room)
	}
	y := c.say(edge, edge+9, c.wide-2*edge, 11, "", where+" · "+c.inUnit(c.job))
	y = c.say(edge, y, c.wide-2*edge, 12, "B", c.text("card.hand-"+message.ID(c.hand)))
	c.SetLineWidth(0.5)
	c.Line(edge, y+1.5, c.wide-edge, y+1.5)
	c.SetLineWidth(0.2)
	return y + 3
}

// inUnit says the unit of a job's figures.
func (d *page) inUnit(j job.Job) string {
	return d.text("card.in-"+message.ID(j.Unit), "tape", j.Tape)
}

// lay prints the blocks column by column at a scale, or only measures them.
func (c card) lay(blocks []block, x, y, wide, scale float64, write bool) float64 {
	for _, b := range blocks {
		size := 9.5 * scale
		if write {
			c.ink(pencil)
			c.say(x, y, wide, size, "B", strings.ToUpper(c.text(b.name)))
			c.ink(ink)
		}
		y += lead(size)
		for _, l := range b.lines {
			size, style := 10.5*scale, ""
			if l.large {
				size, style = 15*scale, "B"
			}
			if write {
				if b.name == stopName {
					c.ink(red)
				}
				c.say(x, y, wide, size, style, l.text)
				c.ink(ink)
			}
			y += c.tall(wide, size, style, l.text)
		}
		y += 2.2 * scale
	}
	return y
}

const stopName message.ID = "card.stop"

// blocks are the card's content, in the order of the work.
func (c card) blocks() (list []block) {
	add := func(name message.ID, lines ...said) {
		if len(lines) > 0 {
			list = append(list, block{name, lines})
		}
	}
	add(stopName, c.stops()...)
	add("card.margins", said{c.wanted(), false})
	if f := c.leaf.Finished; f != nil {
		add("card.finished", said{c.figure(f.Width) + " × " + c.figure(f.Length), true})
	}
	add("print.frame", c.frame()...)
	add("card.cut", c.cuts()...)
	add("card.hinges", c.hinges()...)
	add("step.swing", c.swing()...)
	if !c.plan.Before(job.StepLock, job.StepTry) {
		add("card.tries", c.tries()...)
		add("step.lock", c.lock()...)
	} else {
		add("step.lock", c.lock()...)
		add("card.tries", c.tries()...)
	}
	add("step.stops", c.stopsMoved()...)
	if s := c.opening.Signed; s != nil {
		add("card.signed", said{s.By + ", " + s.On + ". " + s.Note, false})
	}
	return list
}

func (c card) stops() (list []said) {
	for _, f := range append(append([]document.Finding{}, c.plan.Findings...), c.leaf.Findings...) {
		if f.Gravity == site.Stop || f.Pointer == "/cut/knowing" { // what is cut knowingly is said too
			list = append(list, said{f.Text, false})
		}
	}
	if len(c.plan.Clashes) > 0 {
		list = append(list, said{c.text("card.clash"), true})
	}
	return list
}

func (c card) wanted() string {
	var s []string
	for _, m := range c.leaf.Wanted {
		s = append(s, c.voice.Word(message.Margin(m.Side))+" "+c.show(m.Figure.Text))
	}
	return strings.Join(s, " · ")
}

// frame is how a frame is made and set while it does not stand yet.
func (c card) frame() (list []said) {
	l := c.plan.Lining
	if l == nil || c.n > 0 || c.opening.Lining.Stands {
		return nil
	}
	for _, f := range l.Feet {
		list = append(list, said{c.text("print.foot", "wall", message.Wall(f.Side)) + ": " + c.show(f.Off.Text), true})
	}
	for _, s := range l.Steps {
		list = append(list, said{s, false})
	}
	return list
}

func (c card) cuts() (list []said) {
	if c.leaf.Cut == nil {
		return nil
	}
	for _, e := range c.leaf.Cut.Edges {
		var off []string
		for _, m := range e.Marks {
			off = append(off, c.text("card.off-at", "off", c.show(m.Depth.Text), "at", c.show(m.At.Text)))
		}
		list = append(list, said{
			capital(c.voice.Word(message.Edge(e.Side))) + ": " + strings.Join(ends(off), ", "), true,
		})
		for _, m := range e.Pencils {
			list = append(list, said{c.text("card.by-pencil", "at", c.show(m.At.Text), "says", m.Says), false})
		}
		more := e.Method
		if e.Left.MM > 0 {
			more += "; " + c.text("card.left-on", "left", c.show(e.Left.Text))
		}
		if e.Bevel.MM > 0 {
			more += "; " + c.text("card.bevel", "bevel", c.show(e.Bevel.Text))
		}
		list = append(list, said{more, false})
		if e.Sawing != nil {
			list = append(list, c.sawing(*e.Sawing)...)
		}
	}
	for _, in := range c.leaf.Cut.Inserts {
		list = append(list, said{c.text(
			"card.insert", "edge", in.Name, "width", c.show(in.Width.Text), "deep", c.show(in.Deep.Text),
			"thick", c.show(in.Thickness.Text),
		), false})
	}
	list = append(list, said{
		c.text("card.after", "width", c.row(c.leaf.Cut.Width), "length", c.row(c.leaf.Cut.Length)), false,
	})
	return append(list, said{c.text("card.from", "weight", c.leaf.Cut.Weight), false})
}

// sawing is where the guide of a sawn edge is clamped, or how the fence is set.
func (c card) sawing(s document.Sawing) (list []said) {
	for _, k := range s.Clamps {
		list = append(list, said{c.text("card.guide", "from", k.From, "along", c.show(k.Along.Text)), false})
	}
	if s.Fence != nil {
		list = append(list, said{c.text("card.fence", "fence", c.show(s.Fence.Text)), false})
	}
	return list
}

// ends are the first, the middle and the last of a list.
func ends(list []string) []string {
	if len(list) <= 3 {
		return list
	}
	return []string{list[0], list[len(list)/2], list[len(list)-1]}
}

func (c card) row(list []document.Figure) string {
	var s []string
	for _, f := range list {
		s = append(s, c.show(f.Text))
	}
	return strings.Join(s, ", ")
}

func (c card) hinges() (list []said) {
	for _, h := range c.leaf.Hinges {
		text := capital(h.Name) + ": " + c.show(h.Slab.Text) + " / " + c.show(h.Jamb.Text)
		list = append(list, said{text, true})
		switch {
		case h.Pack.MM > 0.2:
			list = append(list, said{c.text("card.pack", "by", c.show(h.Pack.Text)), false})
		case h.Pack.MM < -0.2:
			list = append(list, said{c.text("card.deeper", "by", strings.TrimPrefix(c.show(h.Pack.Text), "-")), false})
		}
	}
	if len(list) == 0 {
		return nil
	}
	g := c.leaf.Gauges
	known := ""
	if h, ok := c.job.Kit.Hinge(c.opening.Hinges.Size); ok {
		known = capital(c.voice.Say(h.Title())) + ". "
	}
	list = append(list, said{
		known + c.text("card.gauge", "deep", c.show(g.Depth.Text), "wide", c.show(g.Width.Text)), false,
	})
	if h := c.leaf.Hanging; h != nil {
		for _, s := range h.Screws {
			list = append(list, said{s, false})
		}
	}
	return list
}

func (c card) swing() (list []said) {
	w := c.leaf.Swing
	if w == nil {
		return nil
	}
	bevel := c.text("card.square-edge")
	if w.Bevel.MM > 0 {
		bevel = c.text("card.bevelled", "by", c.show(w.Bevel.Text))
	}
	list = append(list, said{
		c.text("card.swing", "edge", bevel, "clear", c.figure(w.Clear), "opens", message.Degrees(w.Opens)), false,
	})
	return append(list, said{c.text("card.floor", "least", c.figure(w.Least), "at", message.Degrees(w.LeastAt)), false})
}

func (c card) lock() (list []said) {
	l := c.leaf.Latch
	if l == nil {
		for _, s := range c.leaf.Strikes {
			list = append(list, said{s, false})
		}
		return list
	}
	list = append(
		list,
		said{c.text("card.latch", "slab", c.show(l.Slab.Text), "jamb", c.show(l.Jamb.Text)), true},
		said{c.text(
			"card.backset", "backset", c.show(l.Backset.Text), "centre", c.show(l.Centre.Text), "handle",
			c.figure(l.Floor),
		), false},
	)
	for _, d := range c.leaf.Hardware {
		list = append(list, said{c.text("card.bored", "hardware", d.Name, "holes", c.holes(d)), false})
	}
	return list
}

// holes are the bores of a piece of hardware in short.
func (c card) holes(d document.HardwareWork) string {
	var s []string
	for _, h := range d.Holes {
		s = append(s, c.text(
			"card.hole", "what", h.What, "down", c.show(h.Down.Text), "in", c.show(h.In.Text), "bit",
			c.show(h.Bit.Text),
		))
	}
	if d.Edge != nil {
		s = append(s, c.text("card.edge", "wide", c.show(d.Edge.Wide.Text), "deep", c.show(d.Edge.Deep.Text)))
	}
	return strings.Join(s, "; ")
}

func (c card) stopsMoved() (list []said) {
	s := c.leaf.Stops
	if s == nil || len(s.Moves) == 0 {
		return nil
	}
	list = append(list, said{c.text("card.stops-from", "from", c.figure(s.From)), false})
	for _, m := range s.Moves {
		list = append(list, said{
			c.text("card.stop-move", "stop", m.Stop, "end", m.End, "by", c.show(m.By.Text)), false,
		})
	}
	return list
}

func (c card) tries() (list []said) {
	t := c.leaf.Try
	if t == nil || len(t.Hangs) == 0 {
		return nil
	}
	for i, h := range t.Hangs {
		what := fmt.Sprintf("%d. ", i+1)
		if h.Revisit != "" {
			what += h.Revisit + ": "
		}
		if len(h.Did) > 0 {
			what += strings.Join(h.Did, " ") + " "
		}
		list = append(list, said{
			what + c.text("try.gaps-read", "gaps", message.Count(len(h.Gaps))) + " " + strings.TrimSpace(h.On+" "+h.By),
			false,
		})
	}
	by := map[frame.Side][]string{}
	for _, m := range t.Margins {
		by[m.Side] = append(by[m.Side], c.show(m.Figure.Text))
	}
	for _, side := range frame.Sides {
		if len(by[side]) > 0 {
			list = append(list, said{
				c.text("card.found", "side", message.Margin(side), "gaps", strings.Join(by[side], ", ")), false,
			})
		}
	}
	if !t.Done && len(t.Ways) > 0 {
		list = append(list, said{
			c.text("card.least-work", "costs", t.Ways[0].Costs, "does", strings.Join(t.Ways[0].Does, " ")), false,
		})
	}
	return list
}

// board draws the uncut slab with its chalk lines, or the opening as far as it is known.
func (c card) board(x, y, wide, high float64) {
	s := c.opening.Slab
	if c.n == 1 {
		s = c.opening.Pair.Slab
	}
	width, length := s.Width.MM(), s.Length.MM()
	if len(s.Missing()) > 0 || c.leaf.Cut == nil {
		c.ink(pencil)
		c.say(x, y+4, wide-4, 12, "", c.text("card.no-cut", "waits", c.waits()))
		c.ink(ink)
		return
	}
	const aside = 14 // for the figures beside the slab
	by := min((wide-2*aside)/width, (high-20)/length)
	b := board{card: c, x: x + wide/2 - width*by/2, y: y + 8, by: by, width: width, length: length}
	b.draw()
	c.ink(pencil)
	text := c.text("card.drawn")
	if n := b.times(); n > 1 {
		text = c.text("card.drawn-deep", "times", message.Number(n))
	}
	c.say(x, y+8+length*by+7, wide-4, 9, "", text)
	c.ink(ink)
}

// waits is what the first step that is not done waits for.
func (c card) waits() string {
	for _, n := range c.plan.Steps {
		if n.Step == c.plan.Next {
			return c.text(n.Step.Name()) + ", " + n.Says
		}
	}
	return ""
}

// board is a slab as it is drawn, its upper left corner at x, y.
type board struct {
	card
	x, y, by, width, length float64
}

// at is a place on the page: across from the hinge edge, down from the uncut head.
func (b board) at(across, down float64) (x, y float64) {
	if b.hand == frame.Right {
		across = b.width - across
	}
	return b.x + across*b.by, b.y + down*b.by
}

// times is the scale of the cuts against the slab: they come to a tenth of it at most.
func (b board) times() float64 {
	deepest := 0.1
	for _, e := range b.leaf.Cut.Edges {
		for _, m := range e.Marks {
			deepest = max(deepest, m.Depth.MM)
		}
	}
	return math.Floor(min(max(0.1*b.width/deepest, 1), 10))
}

func (b board) draw() {
	b.SetLineWidth(0.3)
	b.ink(ink)
	b.Rect(b.x, b.y, b.width*b.by, b.length*b.by, "D")
	n := b.times()
	for _, e := range b.leaf.Cut.Edges {
		b.chalk(e, n)
	}
	head := b.most(frame.Head)
	for _, h := range b.leaf.Hinges {
		leaf := b.opening.Hinges.Leaf.MM()
		top := head + h.Slab.MM
		x0, y0 := b.at(0, top)
		x1, y1 := b.at(b.width*0.035, top+leaf)
		b.Rect(min(x0, x1), y0, math.Abs(x1-x0), y1-y0, "D")
		b.label(b.width*0.06, top+leaf/2, b.show(h.Slab.Text), true)
	}
	if l := b.leaf.Latch; l != nil {
		in := b.width - b.most(frame.Lock) - l.Backset.MM
		x, y := b.at(in, head+l.Slab.MM)
		b.Circle(x, y, 1.2, "D")
		b.label(in-b.width*0.05, head+l.Slab.MM, b.show(l.Slab.Text), false)
	}
	b.ink(pencil)
	for _, e := range []struct {
		text         string
		across, down float64
		from         bool
	}{
		{b.voice.Word(message.Edge(frame.Hinge)), 0.13, 0.42, true},
		{b.voice.Word(message.Edge(frame.Lock)), 0.87, 0.58, false},
	} {
		b.label(b.width*e.across, b.length*e.down, e.text, e.from)
	}
	b.ink(ink)
	b.SetLineWidth(0.2)
}

// most is the depth of an edge's cut at its hinge corner, or its foot.
func (b board) most(side frame.Side) float64 {
	for _, e := range b.leaf.Cut.Edges {
		if e.Side == side && len(e.Marks) > 0 {
			return e.Marks[0].Depth.MM
		}
	}
	return 0
}

// chalk draws the line of an edge's cut, with its figures.
func (b board) chalk(e document.EdgeCut, times float64) {
	b.ink(chalk)
	defer b.ink(ink)
	place := func(m document.CutMark) (x, y float64) {
		depth := m.Depth.MM * times
		switch e.Side {
		case frame.Hinge:
			return b.at(depth, m.At.MM)
		case frame.Lock:
			return b.at(b.width-depth, m.At.MM)
		case frame.Head:
			return b.at(m.At.MM, depth)
		}
		return b.at(m.At.MM, b.length-depth)
	}
	b.SetLineWidth(0.5)
	for i := 1; i < len(e.Marks); i++ {
		x0, y0 := place(e.Marks[i-1])
		x1, y1 := place(e.Marks[i])
		b.Line(x0, y0, x1, y1)
	}
	b.SetLineWidth(0.3)
	b.font("B", 12)
	for _, m := range pick(e.Marks) {
		text := b.show(m.Depth.Text)
		wide := b.GetStringWidth(text)
		x, y := place(m)
		switch e.Side {
		case frame.Head:
			b.Text(min(max(x-wide/2, b.x), b.x+b.width*b.by-wide), b.y-1.5, text)
		case frame.Foot:
			b.Text(min(max(x-wide/2, b.x), b.x+b.width*b.by-wide), b.y+b.length*b.by+5, text)
		default:
			at := b.x - wide - 2
			if (e.Side == frame.Lock) == (b.hand == frame.Left) {
				at = b.x + b.width*b.by + 2
			}
			b.Text(at, min(max(y+2, b.y+4), b.y+b.length*b.by), text)
		}
	}
}

// pick are the marks with figures: the first, the middle and the last.
func pick(list []document.CutMark) []document.CutMark {
	if len(list) <= 3 {
		return list
	}
	return []document.CutMark{list[0], list[len(list)/2], list[len(list)-1]}
}

// label writes a figure on the slab; from is whether it begins at its place, seen from the hinge edge, or ends there.
func (b board) label(across, down float64, text string, from bool) {
	b.font("B", 12)
	x, y := b.at(across, down)
	if from != (b.hand == frame.Left) {
		x -= b.GetStringWidth(text)
	}
	b.Text(x, y+1.6, text)
}

// capital capitalises the first letter.
func capital(s string) string {
	r := []rune(s)
	if len(r) > 0 {
		r[0] = unicode.ToUpper(r[0])
	}
	return string(r)
}
