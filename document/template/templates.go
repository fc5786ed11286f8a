package template

import (
	"maps"
	"math"
	"slices"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
	"kindmargin/words"
)

// Template is a kind of template.
type Template struct {
	ID   string
	Step job.Step // at which it is wanted
	Body bool     // it can be had for a 3-D printer too
}

// Name is the name of the template.
func (t Template) Name() message.ID { return "template." + message.ID(t.ID) }

// Note is what is on it.
func (t Template) Note() message.ID { return "template-note." + message.ID(t.ID) }

// Templates lists the kinds.
var Templates = []Template{
	{"lock", job.StepLock, false},
	{"plate", job.StepLock, false},
	{"strike", job.StepLock, false},
	{"case", job.StepLock, false},
	{"block", job.StepLock, true},
	{"hinge", job.StepHinges, true},
	{"rail", job.StepHinges, false},
	{"rod", job.StepHinges, false},
}

// drawn are a template's texts, in millimetres.
type drawn struct {
	words.Voice
	opening string
}

func (d drawn) say(id message.ID, args message.Args) string {
	return d.Say(message.Message{ID: id, Args: args})
}

// title is the opening, and the template.
func (d drawn) title(what any) string {
	return d.say("template-line.title", message.Args{"door": d.opening, "what": what})
}

// Make draws a template of one leaf of an opening, 0 the one on the hinge jamb. It fails with a field.Error, with the
// figures that clash, for what cannot be made.
func Make(id string, j job.Job, o job.Opening, leaf int, r lock.Router) (Draft, error) {
	p := plan.Solve(j, o)
	if leaf < 0 || leaf >= len(p.Leaves) {
		return Draft{}, noLeaf(len(p.Leaves))
	}
	l, slab := p.Leaves[leaf], o.SlabOf(leaf)
	opening := drawn{Voice: words.In(j.Speaks(), measure.Millimetres, j.Tape.In(measure.Millimetres)), opening: o.Name}
	if len(p.Leaves) == 2 {
		opening.opening = opening.say(
			"load.leaf-on-"+message.ID([]frame.Side{frame.Hinge, frame.Lock}[leaf].String())+"-jamb",
			message.Args{"door": o.Name},
		)
	}
	switch id {
	case "lock", "plate", "strike", "case", "block":
		if len(l.Hardware) == 0 {
			return Draft{}, field.Fault("/template", "refused.nothing-to-bore", nil)
		}
	case "hinge", "rail":
		if len(l.Hinges) == 0 {
			return Draft{}, field.Fault("/template", "refused.hinges-wait", nil)
		}
		if id == "hinge" { // the top one's recess alone
			return hingeStrip(opening, "template-line.pocket", o, l.Hinges[:1], r)
		}
		return hingeStrip(opening, "template.rail", o, l.Hinges, r)
	case "rod":
		if len(l.Rod) == 0 {
			return Draft{}, field.Fault("/template", "refused.rod-waits", nil)
		}
		return rod(opening, j, o, l), nil
	default:
		return Draft{}, field.Fault("/template", "refused.no-template", message.Args{"given": message.Quote(id)})
	}
	w := l.Hardware[0].Work
	switch id {
	case "lock":
		return boring(opening, w, l.Latch.Slab.Value.MM(), slab.Thickness.MM()), nil
	case "case":
		return caseBoard(opening, w, l.Latch.Slab.Value.MM(), slab.Thickness.MM(), r)
	case "block":
		return boringBlock(opening, w, l.Latch.Slab.Value.MM(), slab.Thickness.MM())
	case "plate":
		if w.Plate == nil {
			return Draft{}, field.Fault("/template", "refused.no-faceplate", message.Args{"hardware": w.Hardware.Title()})
		}
		return routed(opening, "load.faceplate", w.Plate.Plate, slab.Thickness/2, r, w.Edge != nil && w.Edge.Long == 0, 0)
	}
	if w.Strike == nil || w.Strike.Plate.Long == 0 {
		return Draft{}, field.Fault("/template", "refused.no-strike", message.Args{"hardware": w.Hardware.Title()})
	}
	return routed(opening, "load.strike", w.Strike.Plate, w.Strike.In.Value, r, false, w.Strike.Hole)
}

// noLeaf is the error of a leaf that the opening does not have.
func noLeaf(leaves int) error {
	if leaves == 1 {
		return field.Fault("/leaf", "refused.leaf-1", nil)
	}
	return field.Fault("/leaf", "refused.leaf-2", nil)
}

// face is how much of a face a boring template shows beyond its deepest hole, in mm.
const face = 25

// boring is folded over the edge: pull face, edge, push face. line is the latch's place down the edge.
func boring(of drawn, w lock.Work, line, thick float64) Draft {
	deep, up, down := 70.0, 40.0, 40.0
	reach := func(y, r float64) { up, down = max(up, r-y+15), max(down, y+r+15) }
	for _, h := range w.Holes {
		deep = max(deep, h.In.Value.MM()+h.Dia.MM()/2+face)
		reach(h.Down.Value.MM()-line, h.Dia.MM()/2)
	}
	if e := w.Edge; e != nil {
		reach(e.Down.Value.MM()-line, max(e.Long, e.Wide).MM()/2)
	}
	d := Draft{voice: of.Voice, Title: of.title(w.Hardware.Title()), Width: 2*deep + thick, Height: up + down}
	d.rect(MarkLayer, 0, 0, d.Width, d.Height, 0)
	d.line(FoldLayer, deep, 0, deep, d.Height)
	d.line(FoldLayer, deep+thick, 0, deep+thick, d.Height)
	d.line(MarkLayer, 0, up, d.Width, up)
	d.line(MarkLayer, deep+thick/2, 0, deep+thick/2, d.Height)
	d.text(3, d.Height-3, 3, of.Text("template-line.across"))
	d.middle(deep/2, 6, 3.5, of.Text("face.pull"))
	d.middle(deep+thick/2, 6, 3, of.Text("template-line.edge"))
	d.middle(deep+thick+deep/2, 6, 3.5, of.Text("face.push"))
	for i, h := range w.Holes {
		y, x := up+h.Down.Value.MM()-line, h.In.Value.MM()
		label := of.say("template-line.hole", message.Args{
			"n": message.Number(i + 1), "what": h.Title(), "dia": message.Near(h.Dia),
		})
		if h.From != trade.FromPush {
			d.circle(deep-x, y, h.Dia.MM()/2)
			d.text(4, y-1, 2.5, label)
		}
		if h.From != trade.FromPull {
			d.circle(deep+thick+x, y, h.Dia.MM()/2)
		}
	}
	if e := w.Edge; e != nil {
		y := up + e.Down.Value.MM() - line
		if e.Long > 0 {
			d.rect(CutLayer, deep+(thick-e.Wide.MM())/2, y-e.Long.MM()/2, e.Wide.MM(), e.Long.MM(), 0)
		} else {
			d.circle(deep+thick/2, y, e.Wide.MM()/2)
		}
	}
	return d
}

// cheek is the width of a router's template beyond its opening, in mm.
const cheek = 45

// routed is a template for a plate: its opening for the bush, the plate, the middle line with a cheek at a distance
// from it, and the bores behind.
func routed(
	of drawn, plate message.ID, p trade.Plate, cheekAt measure.Length, r lock.Router, bored bool, hole measure.Length,
) (Draft, error) {
	if err := r.Check(p.Wide); err != nil {
		return Draft{}, err
	}
	w, h := r.Opening(p.Wide).MM(), r.Opening(p.Long).MM()
	d := Draft{voice: of.Voice, Title: of.title(plate), Width: w + 2*cheek, Height: h + 2*cheek}
	x, y := d.Width/2, d.Height/2
	d.rect(MarkLayer, 0, 0, d.Width, d.Height, 0)
	// A cutter leaves corners of at least its own radius.
	round := max(p.Radius, r.Cutter/2) + (r.Bush-r.Cutter)/2
	d.rect(CutLayer, x-w/2, y-h/2, w, h, round.MM())
	d.rect(MarkLayer, x-p.Wide.MM()/2, y-p.Long.MM()/2, p.Wide.MM(), p.Long.MM(), p.Radius.MM())
	d.line(MarkLayer, x, 0, x, d.Height)
	d.line(MarkLayer, 0, y-p.Up.MM(), d.Width, y-p.Up.MM())
	d.line(FoldLayer, x-cheekAt.MM(), 0, x-cheekAt.MM(), d.Height)
	d.text(4, 6, 3.5, of.say("template-line.routed", message.Args{
		"wide": message.Exact(r.Opening(p.Wide)), "long": message.Exact(r.Opening(p.Long)),
		"cutter": message.Exact(r.Cutter), "bush": message.Exact(r.Bush),
	}))
	d.text(4, d.Height-4, 3, of.say("template-line.cheek", message.Args{"from": message.Near(cheekAt)}))
	if p.Radius < r.Cutter/2 {
		d.text(4, d.Height-8, 3, of.Text("template-line.corners"))
	}
	if bored || hole > 0 {
		d.cross(x, y-p.Up.MM(), 6)
	}
	if hole > 0 {
		d.Shapes = append(d.Shapes, Shape{Kind: Circle, Layer: MarkLayer, X: x, Y: y - p.Up.MM(), R: hole.MM() / 2})
	}
	return d, nil
}

// rodWide is the width of a story rod's drawing, in mm.
const (
	rodWide   = 60
	houseWide = 50 // and of what the other openings have elsewhere
)

// rod is a strip with the marks of the jamb on its left and those of the slab, the head margin higher, in its middle;
// its upper end is held to the head, or the slab's top to it. On its right are the differing marks of the house's other
// openings, in the jamb.
func rod(of drawn, j job.Job, o job.Opening, l plan.Leaf) Draft {
	last := 0.0
	for _, m := range l.Rod {
		last = math.Max(last, m.Jamb.Value.MM())
	}
	house, _ := plan.StoryRod(plan.Opening{Opening: o, Plan: plan.Solve(j, o)})
	for _, other := range j.Openings {
		house.Compare(plan.Opening{Opening: other, Plan: plan.Solve(j, other)}, j.Tape.Step()/2)
	}
	jambAt := map[string]float64{}
	for _, m := range house.Marks {
		jambAt[m.ID] = m.Jamb.Value.MM()
	}
	for _, opening := range house.Openings {
		for _, off := range opening.Off {
			last = math.Max(last, jambAt[off.ID]+off.Jamb.MM())
		}
	}
	d := Draft{
		voice: of.Voice, Title: of.title(message.ID("template.rod")), Width: rodWide + houseWide, Height: last + 40,
	}
	d.line(FoldLayer, rodWide, 0, rodWide, d.Height)
	d.text(rodWide+2, 5, 3, of.Text("template-line.others"))
	said := map[float64]string{} // of openings that have a mark at one place
	for _, opening := range house.Openings {
		for _, off := range opening.Off {
			y := jambAt[off.ID] + off.Jamb.MM()
			if said[y] != "" {
				said[y] = opening.Name + ", " + said[y]
				continue
			}
			said[y] = opening.Name + ": " + of.Say(off.Name)
		}
	}
	for _, y := range slices.Sorted(maps.Keys(said)) {
		d.line(MarkLayer, rodWide, y, rodWide+houseWide, y)
		d.text(rodWide+1, y-0.7, 2, said[y])
	}
	d.rect(MarkLayer, 0, 0, d.Width, d.Height, 0)
	d.line(FoldLayer, rodWide/2, 0, rodWide/2, d.Height)
	d.text(2, 5, 3, of.Text("template-line.jamb"))
	d.text(rodWide/2+2, 5, 3, of.Text("template-line.slab"))
	for _, m := range l.Rod {
		jamb, slab := m.Jamb.Value.MM(), m.Slab.Value.MM()
		d.line(CutLayer, 0, jamb, rodWide/2, jamb)
		d.line(CutLayer, rodWide/2, slab, rodWide, slab)
		d.text(1, jamb-1, 2.5, of.Say(m.Name))
		d.text(1, jamb+3.5, 2.5, j.Tape.Show(m.Jamb.Value))
		d.text(rodWide/2+1, slab+3.5, 2.5, j.Tape.Show(m.Slab.Value))
	}
	return d
}
