package plan

import (
	"errors"
	"slices"
	"strconv"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// leastSetback is the wood that must stay behind a pocket. Common practice.
const leastSetback = 3 * measure.Millimetre

// gauges are the marking gauge's settings, and what the hinges ask of the slab
// before anything is read.
func gauges(d door, b bay) (g Gauges, said findings) {
	c := d.Hinges
	g = Gauges{Depth: c.Plate, Width: c.Width, Flush: c.Flush()}
	said = load(d, b)
	if g.Flush.Value <= 0 {
		said.say(Care, job.StepHinges, "/hinges/closed", HingeBound, Args{"margin": g.Flush.Value})
	}
	if b.slab.Thickness == 0 {
		return g, said
	}
	g.Setback = c.Setback(b.slab.Thickness)
	if g.Setback < leastSetback {
		said.say(Care, job.StepHinges, "/hinges/width", ThinSetback, Args{"left": g.Setback, "usual": 6 * measure.Millimetre})
	}
	return g, said
}

// load says where the hinges are too few or too light for the slab, or the pockets not as
// many as the hinges.
func load(d door, b bay) (said findings) {
	c := d.Hinges
	hinges := c.Count
	switch {
	case c.From == hinge.OwnPlaces && len(c.Places) > 0:
		hinges = len(c.Places)
	case c.From == hinge.FromPockets && len(c.Pockets) > 0:
		hinges = len(c.Pockets)
		if hinges != c.Count {
			said.say(Care, job.StepHinges, "/hinges/count", PocketsCount, Args{"asked": number(c.Count), "pockets": number(hinges)})
		}
	}
	if len(b.slab.Missing()) > 0 {
		return said
	}
	said.add(usualHinge(d, b, hinges))
	usual, weight := trade.UsualHinges, b.slab.Weight()
	known, ok := trade.HingeByID(c.Size)
	switch {
	case ok && weight > known.Load*float64(hinges)/2:
		said.say(Care, job.StepHinges, "/hinges/size", HingeTooLight, Args{
			"weight": Mass(weight), "hinges": number(hinges), "name": known.Name, "most": Mass(known.Load * float64(hinges) / 2),
		})
	case !ok && weight > usual.Most:
		said.say(Care, job.StepHinges, "/hinges/count", HingesOverloaded, Args{"weight": Mass(weight), "most": Mass(usual.Most), "grade": usual.Next})
	case !ok && weight > usual.Two && hinges < 3:
		said.say(Care, job.StepHinges, "/hinges/count", ThreeHinges, Args{"weight": Mass(weight)})
	}
	return said
}

// usualHinge says what is usual for such a slab, where fewer or shorter hinges were chosen.
// In an old jamb the pockets decide.
func usualHinge(d door, b bay, hinges int) (said findings) {
	c, s := d.Hinges, b.slab
	if c.From == hinge.FromPockets {
		return nil
	}
	args := Args{"thickness": Exact(s.Thickness), "width": s.Width, "leaf": Exact(c.Leaf)}
	if usual := trade.HingeByThickness(s.Thickness, s.Width, d.unit); c.Leaf < usual-3*measure.Millimetre {
		args["usual"] = Exact(usual)
		said.say(Note, job.StepHinges, "/hinges/size", HingeShort, args)
	}
	if usual := trade.HingesByHeight(s.Length); d.unit == measure.Inches && hinges < usual {
		said.say(Note, job.StepHinges, "/hinges/count", HingesByHeight, Args{"length": s.Length, "usual": number(usual), "hinges": number(hinges)})
	}
	return said
}

// pull is the load with which the slab pulls at the top hinge and pushes at the bottom one,
// in kg: its weight, half its width from the pins, over the hinges' distance. Statics.
func pull(b bay, list []Hinge) float64 {
	if len(list) < 2 || len(b.slab.Missing()) > 0 {
		return 0
	}
	apart := list[len(list)-1].Slab.Value - list[0].Slab.Value
	return b.slab.Weight() * b.slab.Width.MM() / 2 / apart.MM()
}

// hang marks the hinges on slab and jamb, top one first. corner is the head margin
// at the hinge corner; laid is nil while the slab is not laid.
func hang(d door, o fit.Outline, corner figure.Figure, sure frame.Each[float64], laid *fit.Laid) (list []Hinge, said findings) {
	c, size := d.Hinges, o.Size()
	length := figure.Figure{Value: d.est(size.HingeEdge), Sigma: sure[frame.Foot]}
	marks, err := hinge.Place(c, length, corner, d.tape)
	var bad field.Error
	if errors.As(err, &bad) {
		said.say(Stop, job.StepHinges, "/hinges"+bad.Pointer, NoHinges, Args{"problem": bad.Problem})
		return nil, said
	}
	taken := takenFrom(d, corner, laid)
	for i, m := range marks {
		name := hingeNames[len(marks)][i]
		var more findings
		m, more = clear(d, m, name, i, taken, length.Value, len(marks))
		said.add(more)
		y := size.TopHinge - m.Slab.Value.MM() - c.Leaf.MM()/2
		terms := []figure.Term{
			{Label: "hinge margin planned here, pins on one line", Value: d.est(o.Edges[frame.Hinge].GapAt(y)), Source: figure.Estimate},
			{Label: "what the hinge gives, leaves flush", Value: -c.Flush().Value, Source: figure.Choice},
		}
		if c.From == hinge.FromPockets {
			said.add(old(d, name, i))
			if deep := c.PocketAt(i).Deep; deep != 0 && deep != c.Plate {
				terms = append(terms, figure.Term{Label: "old pocket's depth, less the leaf's thickness", Value: deep - c.Plate, Source: figure.Reading})
			}
		}
		list = append(list, Hinge{name, m, figure.Sum(0, terms...).Rounded(packers(d), measure.Nearest)})
	}
	return list, said
}

// hingeNames by how many there are.
var hingeNames = map[int][]string{
	2: {"top hinge", "bottom hinge"}, 3: {"top hinge", "middle hinge", "bottom hinge"},
	4: {"top hinge", "second hinge", "third hinge", "bottom hinge"},
}

// takenFrom is what the leaves keep clear of, down from the slab's finished top.
func takenFrom(d door, corner figure.Figure, laid *fit.Laid) (taken []hinge.Span) {
	c := d.Hinges
	for _, a := range c.Avoid {
		from := a.At - corner.Value
		if a.Slab {
			from = a.At
			if laid != nil {
				from -= measure.FromMM(laid.Top[0])
			}
		}
		taken = append(taken, hinge.Span{What: a.What, From: from, To: from + a.Long})
	}
	if c.From == hinge.FromPockets {
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
		taken = append(taken, hinge.Span{What: "old pocket", From: p - corner.Value, To: p - corner.Value + long})
	}
	return taken
}

// clear moves a third hinge that a rule set to the nearest place that leaves it enough wood,
// and says where any other has too little. A leaf that covers an old pocket wholly has all
// its wood.
func clear(d door, m hinge.Mark, name string, i int, taken []hinge.Span, length measure.Length, of int) (hinge.Mark, findings) {
	var said findings
	c, top := d.Hinges, m.Slab.Value
	taken = slices.DeleteFunc(slices.Clone(taken), func(s hinge.Span) bool {
		return s.What == "old pocket" && s.From >= top && s.To <= top+c.Leaf
	})
	s, blocked := hinge.Blocks(taken, top, c.Leaf, trade.PocketWood)
	if !blocked {
		return m, nil
	}
	up, down := hinge.Clear(taken, top, c.Leaf, trade.PocketWood, 0, length)
	_, byRule := trade.HingeRuleByID(c.From)
	if outer := i == 0 || i == of-1; byRule && !outer && (up != nil || down != nil) {
		at := down
		if down == nil || up != nil && top-*up <= *down-top {
			at = up
		}
		term := figure.Term{Label: "moved clear of the " + s.What, Value: *at - top, Source: figure.Rule}
		said.say(Note, job.StepHinges, "/hinges/avoid", HingeMoved, Args{"name": name, "by": (*at - top).Abs(), "way": map[bool]string{true: "up", false: "down"}[*at < top], "what": s.What})
		move := func(f figure.Figure) figure.Figure {
			return figure.Sum(f.Sigma, append(slices.Clone(f.Terms), term)...)
		}
		return hinge.Mark{Slab: move(m.Slab), Jamb: move(m.Jamb)}, said
	}
	gravity := Stop
	if c.From == hinge.FromPockets { // it is cut already
		gravity = Care
	}
	said.say(gravity, job.StepHinges, "/hinges/from", HingeInTheWay, Args{
		"name": name, "at": top, "what": s.What, "from": s.From, "to": s.To, "wood": trade.PocketWood, "places": clearPlaces(d, up, down),
	})
	return m, said
}

// clearPlaces says the nearest places each way.
func clearPlaces(d door, up, down *measure.Length) string {
	say := func(l measure.Length) string { return measure.Say(l.Round(d.tape.Step(), measure.Nearest), d.unit) }
	switch {
	case up != nil && down != nil:
		return "up to " + say(*up) + " or down to " + say(*down)
	case up != nil:
		return "up to " + say(*up)
	case down != nil:
		return "down to " + say(*down)
	}
	return "nowhere on this edge as it is: fill what is there"
}

// old says what an old pocket and its leaf need, and how the new leaf lies in it.
func old(d door, name string, i int) (said findings) {
	c, p := d.Hinges, d.Hinges.PocketAt(i)
	at := "/hinges/old/" + strconv.Itoa(i)
	for _, id := range p.Faults {
		f, _ := trade.FaultByID(id)
		said.say(Care, job.StepHinges, at+"/faults", OldHinge, Args{"name": name, "fault": f.Name, "cure": f.Cure})
	}
	for _, k := range []struct {
		field, what, way string
		old, leaf        measure.Length
	}{{"long", "long", "downward", p.Long, c.Leaf}, {"wide", "wide", "toward the push face", p.Wide, c.Width}} {
		args := Args{"name": name, "what": k.what, "old": Exact(k.old), "leaf": Exact(k.leaf), "by": Exact((k.leaf - k.old).Abs()), "way": k.way}
		switch {
		case k.old == 0 || (k.old-k.leaf).Abs() <= measure.Millimetre/2:
		case k.old < k.leaf:
			said.say(Note, job.StepHinges, at+"/"+k.field, PocketCutOn, args)
		default:
			said.say(Note, job.StepHinges, at+"/"+k.field, PocketFill, args)
		}
	}
	return said
}

// packers is how finely a hinge is packed: there is card and paper, finer than any tape.
func packers(d door) measure.Tape { return measure.Tapes(d.unit)[0] }
