// Package cuts is the stage in which the outline is laid on the slab: the depth to cut off each edge, what is left on,
// the slab's limits, and the readings that are needed before the cut.
package cuts

import (
	"iter"

	"kindmargin/core/choice"
	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Wish is the slab to be cut.
type Wish struct {
	Outline fit.Outline
	Leave   frame.Each[float64] // left on each edge for now, mm
	Corner  figure.Figure       // head margin at the lock corner
}

// Mark lays an outline on a bay's slab and gives the marks of each edge. sheet and laid are nil while the slab is not
// measured; ask are the readings that the cut waits for.
func Mark(
	d site.Opening, s site.Survey, b site.Bay, w Wish,
) (sheet *List, laid *fit.Laid, ask []site.Suggestion, said site.Findings) {
	o, wanted := w.Outline, w.Leave
	if missing := b.Slab.Missing(); len(missing) > 0 {
		said.Say(site.Care, job.StepSlab, b.At+"/"+missing[0], site.SlabUnmeasured, message.Args{
			"missing": sizeNames(missing),
		})
		ask, _ = doubts(d, s, o, wanted) // asked for with the other readings, not once the slab is there
		return nil, nil, ask, said
	}
	as := b // as the slab is, whatever its tape reads long
	as.Slab, as.Reads = b.Slab.Less(s.Reads[0], s.Reads[1]), s.Reads
	way, said := lay(d, s, as, o, w.Corner)
	first := fit.Lay(way.outline, wanted, as.Slab, way.chosen.Laying)
	kept := first.Left
	for side := range kept {
		kept[side] = min(kept[side], wanted[side])
	}
	ask, more := doubts(d, s, o, kept)
	said = append(said, more...)
	said = append(said, lacks(d, b, wanted, first)...)

	sheet = &List{
		Laying: way.chosen.Laying, Rules: way.rules, Others: way.ways,
		Weight:     b.Slab.Weight(),
		HingeFirst: d.Kit.HingeFirst, Came: d.Set() != nil,
	}
	said = append(said, limits(d, b, way.chosen, first, o)...)
	said = append(said, shorts(d, b, first)...)
	on := laidOut{d, as, o, first}
	for _, side := range frame.Sides {
		left := first.Left[carries(side, first.Across)]
		// Lock edge and foot are marked from what is really marked on the edge across.
		var across []site.Mark
		switch side {
		case frame.Lock:
			across = sheet.Edges[frame.Hinge].Marks
		case frame.Foot:
			across = sheet.Edges[frame.Head].Marks
		}
		sheet.Edges[side] = on.mark(side, left, across)
		if d.Habit() == job.WhenSure && first.Left[side] > mostSure {
			said.Say(site.Care, job.StepCut, "/readings", site.HardlySure, message.Args{
				"edge": message.Edge(side), "wall": message.Wall(side), "left": measure.FromMM(first.Left[side]),
			})
		}
	}
	if d.Set() != nil {
		said.Add(stays(sheet))
	}
	for _, side := range frame.Sides {
		e := &sheet.Edges[side]
		said.Add(on.decide(sheet, e))
		e.Pencils = pencilled(d, b, *e)
	}
	if on.surface() == trade.OfSkin {
		sheet.skins()
	}
	said.Add(seals(d, b, o, sheet))
	sheet.Inserts = inserts(d, b, first, *sheet)
	sheet.Width, sheet.Length = checks(d, as, sheet.Edges, first)
	return sheet, &first, ask, said
}

// mostSure is the leave-on, in mm, above which a cut is no longer near the line.
const mostSure = 6

// LeaveOn is what to leave on each edge at the first cut, in mm: by the rule, less half a mark of the tape, which
// rounding each cut leaves on average.
func LeaveOn(d site.Opening, o fit.Outline) (leave frame.Each[float64]) {
	switch d.Habit() {
	case job.WhenSure:
		for side, mm := range o.LeaveOn(d.Sureness()) {
			leave[side] = max(mm-d.Rounded(frame.Side(side)), 0)
		}
	case job.Always3:
		three := measure.FromMM(3).Round(d.Tape.Step(), measure.Up).MM()
		leave[frame.Lock], leave[frame.Foot] = three, three
	}
	return leave
}

// lacks reports edges where less can be left on than should be.
func lacks(d site.Opening, b site.Bay, wanted frame.Each[float64], laid fit.Laid) (said site.Findings) {
	if len(laid.Short) > 0 {
		return nil
	}
	for _, side := range frame.Sides {
		if lack := wanted[side] - laid.Left[side]; lack > d.Tape.Step().MM()/2 {
			field := "/width"
			if !side.Upright() {
				field = "/length"
			}
			said.Say(site.Care, job.StepCut, b.At+field, site.NoLeaveOn, message.Args{
				"edge": message.Edge(side), "wanted": measure.FromMM(wanted[side]),
				"left": measure.FromMM(laid.Left[side]), "lack": measure.FromMM(lack),
			})
		}
	}
	return said
}

// shorts reports edges where the slab does not reach the outline.
func shorts(d site.Opening, b site.Bay, laid fit.Laid) (said site.Findings) {
	for _, x := range laid.Short {
		if d.Framed() != nil && !x.Side.Upright() {
			continue // its feet are cut or packed: see stands
		}
		if d.Framed() != nil { // a frame can still be moved
			gravity := site.Note
			if measure.FromMM(x.By) > trade.FrameWide {
				gravity = site.Stop
			}
			said.Say(gravity, job.StepMeasure, "/lining", site.FrameWide, message.Args{
				"side": message.Margin(x.Side), "edge": message.Edge(x.Side), "at": measure.FromMM(x.At), "where": along(x),
				"by": message.Fine(measure.FromMM(x.By)),
			})
			continue
		}
		field, code := "/length", site.TooShort
		if x.Side.Upright() {
			field, code = "/width", site.TooNarrow
		}
		said.Say(site.Stop, job.StepSlab, b.At+field, code, message.Args{
			"side": message.Margin(x.Side), "edge": message.Edge(x.Side), "at": measure.FromMM(x.At), "where": along(x),
			"by": measure.FromMM(x.By),
		})
	}
	return said
}

// along says where on its edge a slab is short: so far from its top or its hinge edge, or there.
func along(x fit.Short) message.Message {
	from, at := message.ID("short.from-hinge-edge"), message.ID("short.at-hinge-edge")
	if x.Side.Upright() {
		from, at = "short.from-top", "short.at-top"
	}
	if x.At < 1 {
		return message.Message{ID: at}
	}
	return message.Message{ID: from, Args: message.Args{"at": measure.FromMM(x.At)}}
}

// Bevel adds the lock edge's bevel, which is planed once that edge is down to its line.
func (c *List) Bevel(bevel figure.Figure) {
	if bevel.Value == 0 || c.Came {
		return
	}
	e := &c.Edges[frame.Lock]
	e.Bevel = bevel
	e.Says = append(e.Says, message.Message{ID: "cut.bevel", Args: message.Args{"by": bevel.Value}})
}

// sizeNames are the IDs of the slab's sizes by the names of their fields.
func sizeNames(fields []string) (list message.And) {
	for _, f := range fields {
		list = append(list, message.ID("slab-size."+f))
	}
	return list
}

// List is the cut sheet of the first cut.
type List struct {
	Laying fit.Laying   // as chosen
	Rules  []message.ID // what decided it, in order; empty where it was forced
	Others []Way        // every way of laying the slab, the chosen one among them
	Edges  frame.Each[Edge]
	// Width and Length of the slab after the first cut: head, middle, foot; hinge edge, middle, lock edge.
	Width, Length [3]figure.Figure
	Inserts       []Insert
	Weight        float64 // of the uncut slab, kg
	HingeFirst    bool    // the hinge edge is cut before the head
	Came          bool    // it came in its frame: nothing is cut
}

// Edge is the marks of one edge at the first cut.
type Edge struct {
	Side   frame.Side
	Marks  []site.Mark
	Says   message.Sentences // how it is worked, and what is left on
	Left   figure.Figure     // left on for now
	Bevel  figure.Figure     // of the lock edge: how much narrower the push face is planed
	Means  trade.Means       // as chosen
	Ways   []EdgeWay         // all means, the one of the fewest minutes first
	Sawing *Sawing           // nil where no saw goes first
	Passes []fit.Pass        // of a plane, a millimetre at a time; empty where a saw goes first
	// Pencils are the marks of the frame on it, where the slab itself was offered up.
	Pencils []Pencil
}

// Way is a way of laying the slab, with its costs.
type Way struct {
	fit.Laying
	Chosen      bool
	Hinge, Lock [2]measure.Length // off at head and foot
	Head, Foot  measure.Length    // most off
	Short       bool
	Over        []frame.Side // edges that lose more than they may
}

// leftLabel is the label of the leave-on's term.
var leftLabel = map[job.Habit]message.ID{
	job.WhenSure: "term.left-when-sure",
	job.Always3:  "term.left-always",
	job.ToLine:   "term.left-none",
}

// Why gives the reasons for the laying, across and along the slab.
func Why(l fit.Laying) []message.ID {
	why := []message.ID{choice.Across.Why(l.Across)}
	if l.Along != "" {
		why = append(why, choice.Along.Why(l.Along))
	}
	return why
}

// InOrder yields the edges in the order in which they are cut.
func (c List) InOrder() iter.Seq[Edge] {
	return func(yield func(Edge) bool) {
		order := frame.Sides
		if c.HingeFirst {
			order[0], order[1] = order[1], order[0]
		}
		for _, side := range order {
			if !yield(c.Edges[side]) {
				return
			}
		}
	}
}

// Marks are the marks of each edge.
func (c List) Marks() (all frame.Each[[]site.Mark]) {
	for side, e := range c.Edges {
		all[side] = e.Marks
	}
	return all
}
