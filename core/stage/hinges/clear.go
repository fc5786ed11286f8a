package hinges

import (
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// takenFrom are the spans that the leaves keep clear of, down from the slab's finished top: those typed, as far as the cut
// leaves them, and the old recesses. An end of a hollow slab that loses its rail is closed again and is none.
func takenFrom(
	d site.Opening, b site.Bay, length measure.Length, corner figure.Figure, laid *fit.Laid,
) (taken []hinge.Span) {
	c := d.Hinges
	for _, a := range c.Avoid {
		from := a.At - corner.Value
		if a.Slab {
			from = a.At
			if laid != nil {
				from -= measure.FromMM(laid.Top[0])
			}
		}
		if from < length && from+a.Long > 0 {
			taken = append(taken, hinge.Span{What: message.Own(a.What), From: from, To: from + a.Long})
		}
	}
	if c.From == hinge.FromPockets || c.From == hinge.WholeEdge {
		return taken
	}
	for i, p := range c.Pockets {
		known := c.PocketAt(i)
		if known.Filled {
			continue
		}
		long := known.Long
		if long == 0 {
			long = c.Leaf
		}
		taken = append(taken, hinge.Span{
			What: message.Message{ID: "span.old-pocket"}, Old: true, From: p - corner.Value,
			To: p - corner.Value + long,
		})
	}
	return taken
}

// edge is a hinge edge with the spans that its leaves keep clear of.
type edge struct {
	taken  []hinge.Span
	length measure.Length
	hinges int // that hang on it
}

// clear moves a third hinge that a rule placed to the nearest clear place, and reports where any other has too little
// wood. A leaf that wholly covers an old recess has all its wood. m is the i-th hinge.
func (e edge) clear(d site.Opening, m hinge.Mark, name message.ID, i int) (hinge.Mark, site.Findings) {
	var said site.Findings
	c, top := d.Hinges, m.Slab.Value
	taken := slices.DeleteFunc(slices.Clone(e.taken), func(s hinge.Span) bool {
		return s.Old && s.From >= top && s.To <= top+c.Leaf
	})
	s, blocked := hinge.Blocks(taken, top, c.Leaf, trade.PocketWood)
	if !blocked {
		return m, nil
	}
	up, down := hinge.Clear(taken, top, hinge.Need{Leaf: c.Leaf, Wood: trade.PocketWood, Edge: e.length})
	_, byRule := trade.HingeRuleByID(c.From)
	if outer := i == 0 || i == e.hinges-1; byRule && !outer && (up != nil || down != nil) {
		at := down
		if down == nil || up != nil && top-*up <= *down-top {
			at = up
		}
		term := figure.Term{
			Label: "term.moved-clear", Args: message.Args{"what": s.What}, Value: *at - top, Source: figure.Rule,
		}
		said.Say(site.Note, job.StepHinges, "/hinges/avoid", site.HingeMoved, message.Args{
			"name": name, "by": (*at - top).Abs(), "way": message.Way((top - *at).MM(), "up", "down"), "what": s.What,
		})
		move := func(f figure.Figure) figure.Figure {
			return figure.Sum(f.Sigma, append(slices.Clone(f.Terms), term)...)
		}
		return hinge.Mark{Slab: move(m.Slab), Jamb: move(m.Jamb)}, said
	}
	gravity := site.Stop
	if c.From == hinge.FromPockets { // it is cut already
		gravity = site.Care
	}
	said.Say(gravity, job.StepHinges, "/hinges/from", site.HingeInTheWay, message.Args{
		"name": name, "at": top, "what": s.What, "from": message.At(s.From), "to": message.At(s.To),
		"wood": trade.PocketWood, "places": clearPlaces(up, down),
	})
	return m, said
}

// clearPlaces are the nearest clear places each way.
func clearPlaces(up, down *measure.Length) message.Message {
	switch {
	case up != nil && down != nil:
		return message.Message{ID: "clear.both", Args: message.Args{"up": *up, "down": *down}}
	case up != nil:
		return message.Message{ID: "clear.up", Args: message.Args{"up": *up}}
	case down != nil:
		return message.Message{ID: "clear.down", Args: message.Args{"down": *down}}
	}
	return message.Message{ID: "clear.none"}
}
