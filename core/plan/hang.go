package plan

import (
	"errors"
	"strconv"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// hang marks the hinges on slab and jamb, top one first. corner is the head margin
// at the hinge corner; laid is nil while the slab is not laid.
func hang(d door, b bay, o fit.Outline, corner figure.Figure, sure frame.Each[float64], laid *fit.Laid) (list []Hinge, said findings) {
	c, size := d.Hinges, o.Size()
	length := figure.Figure{Value: d.est(size.HingeEdge), Sigma: sure[frame.Foot]}
	marks, err := hinge.Place(c, length, corner, d.tape)
	var bad field.Error
	if errors.As(err, &bad) {
		said.say(Stop, job.StepHinges, "/hinges"+bad.Pointer, NoHinges, Args{"problem": bad.Problem})
		return nil, said
	}
	taken := takenFrom(d, b, length.Value, corner, laid)
	for i, m := range marks {
		name := nameOf(c, i, len(marks))
		var more findings
		m, more = clear(d, m, name, i, taken, length.Value, len(marks))
		said.add(more)
		y := size.TopHinge - m.Slab.Value.MM() - c.Leaf.MM()/2
		terms := []figure.Term{
			{Label: "term.hinge-margin-here", Value: d.est(o.Edges[frame.Hinge].GapAt(y)), Source: figure.Estimate},
			{Label: "term.hinge-gives", Value: -c.Flush().Value, Source: figure.Choice},
		}
		if c.From == hinge.FromPockets {
			said.add(old(d, name, i))
			if deep := c.PocketAt(i).Deep; deep != 0 && deep != c.Plate {
				terms = append(terms, figure.Term{Label: "term.old-pocket-less-leaf", Value: deep - c.Plate, Source: figure.Reading})
			}
		}
		h := Hinge{name, m, figure.Sum(0, terms...).Rounded(packers(d), measure.Nearest)}
		said.add(pocket(d, h))
		list = append(list, h)
	}
	said.add(screwed(d, b, laid))
	return list, said
}

// nameOf is what a hinge is called; of a continuous one, the place that is packed.
func nameOf(c hinge.Choice, i, of int) message.ID {
	if c.From == hinge.WholeEdge {
		return [...]message.ID{"hinge.whole-top", "hinge.whole-middle", "hinge.whole-foot"}[i]
	}
	return hingeNames[of][i]
}

// hingeNames by how many there are.
var hingeNames = map[int][]message.ID{
	2: {"hinge.top", "hinge.bottom"}, 3: {"hinge.top", "hinge.middle", "hinge.bottom"},
	4: {"hinge.top", "hinge.second", "hinge.third", "hinge.bottom"},
}

// old says what an old pocket and its leaf need, and how the new leaf lies in it.
func old(d door, name message.ID, i int) (said findings) {
	c, p := d.Hinges, d.Hinges.PocketAt(i)
	at := "/hinges/old/" + strconv.Itoa(i)
	for _, id := range p.Faults {
		f, _ := trade.FaultByID(id)
		said.say(Care, job.StepHinges, at+"/faults", OldHinge, Args{"name": name, "fault": message.ID("fault." + f.ID), "cure": message.ID("cure." + f.ID)})
	}
	for _, k := range []struct {
		field     string
		what, way message.ID
		old, leaf measure.Length
	}{{"long", "way.long", "way.downward", p.Long, c.Leaf}, {"wide", "way.wide", "way.toward-push-face", p.Wide, c.Width}} {
		args := Args{"name": name, "what": k.what, "old": message.Exact(k.old), "leaf": message.Exact(k.leaf), "by": message.Exact((k.leaf - k.old).Abs()), "way": k.way}
		switch {
		case k.old == 0 || (k.old-k.leaf).Abs() <= measure.Millimetre/2:
		case k.old < k.leaf:
			said.say(Note, job.StepHinges, at+"/"+k.field, PocketCutOn, args)
		default:
			said.say(Note, job.StepHinges, at+"/"+k.field, PocketFill, args)
		}
	}
	known, _ := d.kit.Hinge(c.Size)
	corners := func(r measure.Length) message.ID {
		if r == 0 {
			return "corner.square"
		}
		return "corner.round"
	}
	if p.Long != 0 && (p.Round == 0) != (known.Radius == 0) {
		do := message.ID("do.square-corners")
		if p.Round == 0 {
			do = "do.fill-corners"
		}
		said.say(Note, job.StepHinges, at+"/round", PocketCorners, Args{"name": name, "old": corners(p.Round), "leaf": corners(known.Radius), "do": do})
	}
	return said
}

// pocket says where a pocket leaves too little of the jamb, or a packer is too thick.
func pocket(d door, h Hinge) (said findings) {
	deep := d.Hinges.Plate - h.Pack.Value
	switch {
	case d.Hinges.Jamb > 0 && d.Hinges.Jamb-deep < trade.BehindPocket:
		said.say(Stop, job.StepHinges, "/hinges/jamb", PocketTooDeep, Args{"name": h.Name, "deep": deep, "jamb": d.Hinges.Jamb, "least": trade.BehindPocket})
	case h.Pack.Value > trade.MostPacked:
		said.say(Care, job.StepHinges, "", PackedFar, Args{"name": h.Name, "by": h.Pack.Value, "most": trade.MostPacked})
	}
	return said
}

// screwed says where a hinge's screws pass the stile of a hollow slab, as it is left.
func screwed(d door, b bay, laid *fit.Laid) (said findings) {
	known, ok := d.kit.Hinge(d.Hinges.Size)
	built, _ := trade.ConstructionByID(b.slab.Construction)
	if !ok || built.Stile == 0 || laid == nil {
		return nil
	}
	off := 0.0
	for _, c := range laid.Cuts[frame.Hinge] {
		off = max(off, c.Depth)
	}
	if left := built.Stile - measure.FromMM(off); known.Screw.Long > left+trade.PastStile {
		said.say(Care, job.StepHinges, "/hinges/size", ScrewTooLong, Args{"screw": message.Exact(known.Screw.Long), "left": left})
	}
	return said
}

// packers is how finely a hinge is packed: there is card and paper, finer than any tape.
func packers(d door) measure.Tape { return measure.Tapes(d.unit)[0] }
