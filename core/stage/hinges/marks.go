// Package hinges is the stage in which hinges are placed: their marks on slab and jamb, the packers behind them, their
// clearances, and their loads.
package hinges

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
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Room is what hinges are marked in.
type Room struct {
	Outline fit.Outline
	Corner  figure.Figure       // head margin at the hinge corner
	Sure    frame.Each[float64] // worst standard deviation of a margin on each side, mm
	Laid    *fit.Laid           // nil while the slab is not laid
}

// Place marks the hinges on slab and jamb, top one first.
func Place(d site.Opening, b site.Bay, in Room) (list []Hinge, said site.Findings) {
	c, size := d.Hinges, in.Outline.Size()
	length := figure.Figure{Value: d.Estimate(size.HingeEdge), Sigma: in.Sure[frame.Foot]}
	marks, err := hinge.Place(c, length, in.Corner, d.Tape)
	var bad field.Error
	if errors.As(err, &bad) {
		said.Say(site.Stop, job.StepHinges, "/hinges"+bad.Pointer, site.NoHinges, message.Args{"problem": bad.Problem})
		return nil, said
	}
	on := edge{takenFrom(d, b, length.Value, in.Corner, in.Laid), length.Value, len(marks)}
	for i, m := range marks {
		name := nameOf(c, i, len(marks))
		var more site.Findings
		m, more = on.clear(d, m, name, i)
		said.Add(more)
		y := size.TopHinge - m.Slab.Value.MM() - c.Leaf.MM()/2
		terms := []figure.Term{
			{
				Label: "term.hinge-margin-here", Value: d.Estimate(in.Outline.Edges[frame.Hinge].GapAt(y)),
				Source: figure.Estimate,
			},
			{Label: "term.hinge-gives", Value: -c.Flush().Value, Source: figure.Choice},
		}
		if c.From == hinge.FromPockets {
			said.Add(old(d, name, i))
			if deep := c.PocketAt(i).Deep; deep != 0 && deep != c.Plate {
				terms = append(terms, figure.Term{
					Label: "term.old-pocket-less-leaf", Value: deep - c.Plate, Source: figure.Reading,
				})
			}
		}
		h := Hinge{name, m, figure.Sum(0, terms...).Rounded(d.Finest(), measure.Nearest)}
		said.Add(pocket(d, h))
		list = append(list, h)
	}
	said.Add(screwed(d, b, in.Laid))
	return list, said
}

// Packed reports whether a hinge's packing is enough to be made.
func (h Hinge) Packed() bool { return h.Pack.Value.Abs() >= trade.LeastPacked }

// nameOf is the name of a hinge; of a continuous one, of the place that is packed.
func nameOf(c hinge.Choice, i, of int) message.ID {
	if c.From == hinge.WholeEdge {
		return [...]message.ID{"hinge.whole-top", "hinge.whole-middle", "hinge.whole-foot"}[i]
	}
	return hinge.Names(of)[i]
}

// old reports the work on an old recess and its leaf, and how the new leaf fits it.
func old(d site.Opening, name message.ID, i int) (said site.Findings) {
	c, p := d.Hinges, d.Hinges.PocketAt(i)
	at := "/hinges/old/" + strconv.Itoa(i)
	for _, id := range p.Faults {
		f, _ := trade.FaultByID(id)
		said.Say(site.Care, job.StepHinges, at+"/faults", site.OldHinge, message.Args{
			"name": name, "fault": message.ID("fault." + f.ID), "cure": message.ID("cure." + f.ID),
		})
	}
	for _, k := range []struct {
		field     string
		what, way message.ID
		old, leaf measure.Length
	}{
		{"long", "way.long", "way.downward", p.Long, c.Leaf},
		{"wide", "way.wide", "way.toward-push-face", p.Wide, c.Width},
	} {
		args := message.Args{
			"name": name, "what": k.what, "old": message.Exact(k.old), "leaf": message.Exact(k.leaf),
			"by": message.Exact((k.leaf - k.old).Abs()), "way": k.way,
		}
		switch {
		case k.old == 0 || (k.old-k.leaf).Abs() <= measure.Millimetre/2:
		case k.old < k.leaf:
			said.Say(site.Note, job.StepHinges, at+"/"+k.field, site.PocketCutOn, args)
		default:
			said.Say(site.Note, job.StepHinges, at+"/"+k.field, site.PocketFill, args)
		}
	}
	known, _ := d.Kit.Hinge(c.Size)
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
		said.Say(site.Note, job.StepHinges, at+"/round", site.PocketCorners, message.Args{
			"name": name, "old": corners(p.Round), "leaf": corners(known.Radius), "do": do,
		})
	}
	return said
}

// pocket reports where a recess leaves too little of the jamb, or a packer is too thick.
func pocket(d site.Opening, h Hinge) (said site.Findings) {
	deep := d.Hinges.Plate - h.Pack.Value
	switch {
	case d.Hinges.Jamb > 0 && d.Hinges.Jamb-deep < trade.BehindPocket:
		said.Say(site.Stop, job.StepHinges, "/hinges/jamb", site.PocketTooDeep, message.Args{
			"name": h.Name, "deep": deep, "jamb": d.Hinges.Jamb, "least": trade.BehindPocket,
		})
	case h.Pack.Value > trade.MostPacked:
		said.Say(site.Care, job.StepHinges, "/hinges/hollow", site.PackedFar, message.Args{
			"name": h.Name, "by": h.Pack.Value, "most": trade.MostPacked,
		})
	}
	return said
}

// screwed reports screws that pass the stile of a hollow slab as it is left.
func screwed(d site.Opening, b site.Bay, laid *fit.Laid) (said site.Findings) {
	known, ok := d.Kit.Hinge(d.Hinges.Size)
	built, _ := trade.ConstructionByID(b.Slab.Construction)
	if !ok || built.Stile == 0 || laid == nil {
		return nil
	}
	off := 0.0
	for _, c := range laid.Cuts[frame.Hinge] {
		off = max(off, c.Depth)
	}
	if left := built.Stile - measure.FromMM(off); known.Screw.Long > left+trade.PastStile {
		said.Say(site.Care, job.StepHinges, "/hinges/size", site.ScrewTooLong, message.Args{
			"screw": message.Exact(known.Screw.Long), "left": left,
		})
	}
	return said
}

// Hinge is one hinge on slab and jamb.
type Hinge struct {
	Name message.ID
	hinge.Mark
	// Pack is the packer behind the jamb leaf that keeps the pins on one line and the margin as planned; negative is
	// how much deeper its recess goes.
	Pack figure.Figure
}

// Made are hinges as they are recorded with a slab that was cut by its marks.
func Made(d site.Opening, list []Hinge) (made []job.MadeHinge) {
	for i, h := range list {
		jamb := d.Hinges.Plate
		if deep := d.Hinges.PocketAt(i).Deep; deep != 0 && d.Hinges.From == hinge.FromPockets {
			jamb = deep
		}
		made = append(made, job.MadeHinge{Down: h.Slab.Value, Slab: d.Hinges.Plate, Jamb: jamb, Pack: h.Pack.Value})
	}
	return made
}
