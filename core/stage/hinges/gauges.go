package hinges

import (
	"kindmargin/core/figure"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// leastSetback is the wood that must remain behind a recess. Common practice.
const leastSetback = 3 * measure.Millimetre

// Gauges are the two settings of a marking gauge for a whole house, and what they leave.
type Gauges struct {
	Depth, Width figure.Figure // leaf thickness, leaf width
	Setback      figure.Figure // no terms while the slab's thickness is not known
	Flush        figure.Figure // the hinge margin with both leaves flush
	Pull         Pull
}

// Pull is the load that pulls at the top hinge and pushes at the bottom one: weight, times half the width from the
// pins, over the hinges' distance. Statics.
type Pull struct {
	Load        float64 // kg; nought while it is not known
	Weight      float64 // of the slab, kg
	Half, Apart measure.Length
}

// GaugesOf are the marking gauge's settings, and the findings on hinges that need no reading. wanted is the hinge
// margin.
func GaugesOf(d site.Opening, b site.Bay, wanted measure.Length) (g Gauges, said site.Findings) {
	c := d.Hinges
	leaf := func(label message.ID, v measure.Length) figure.Figure {
		return figure.Sum(0, figure.Term{Label: label, Value: v, Source: figure.Choice})
	}
	g = Gauges{
		Depth: leaf("term.leaf-thickness", c.Plate), Width: leaf("term.leaf-width-own", c.Width), Flush: c.Flush(),
	}
	if b.Slab.Thickness > 0 {
		g.Setback = figure.Sum(
			0,
			figure.Term{Label: "term.thickness", Value: b.Slab.Thickness, Source: figure.Reading},
			figure.Term{Label: "term.leaf-width", Value: -c.Width, Source: figure.Choice},
		)
	}
	known, _ := d.Kit.Hinge(c.Size)
	said = suits(d, b, trade.Hinge{
		ID: known.ID, Name: known.Name, Kind: known.Kind, Leaf: c.Leaf, Width: c.Width, Plate: c.Plate,
		Closed: c.Closed, Pin: d.Swing.Pin, Load: known.Load,
	}, wanted)
	said.Add(count(d, b))
	return g, said
}

// suits reports what speaks against a hinge for a slab: its size against the slab's, its load, and the margin that it
// gives.
func suits(d site.Opening, b site.Bay, h trade.Hinge, wanted measure.Length) (said site.Findings) {
	thick := b.Slab.Thickness
	args := message.Args{
		"width": message.Exact(h.Width), "thickness": message.Exact(thick), "most": message.Exact(thick - leastSetback),
	}
	switch {
	case thick == 0:
	case h.Width >= thick:
		said.Say(site.Stop, job.StepHinges, "/hinges/width", site.HingeTooWide, args)
	case thick-h.Width < leastSetback:
		said.Say(site.Care, job.StepHinges, "/hinges/width", site.ThinSetback, message.Args{
			"left": thick - h.Width, "usual": 6 * measure.Millimetre,
		})
	}
	switch flush := h.Closed - 2*h.Plate; {
	case flush <= 0:
		said.Say(site.Care, job.StepHinges, "/hinges/closed", site.HingeBound, message.Args{"margin": flush})
	case wanted > h.Closed:
		said.Say(site.Stop, job.StepHinges, "/margins/hinge", site.MarginTooWide, message.Args{
			"wanted": wanted, "closed": message.Exact(h.Closed),
		})
	}
	// A knuckle is about as thick as the closed hinge, and is clear of the face.
	if h.Pin > 0 && h.Pin < h.Closed/2 && h.Kind != trade.Continuous {
		said.Say(site.Stop, job.StepSwing, "/swing/pin", site.PinInSlab, message.Args{
			"pin": message.Exact(h.Pin), "closed": message.Exact(h.Closed), "least": message.Exact(h.Closed / 2),
		})
	}
	if len(b.Slab.Missing()) > 0 || d.Set() != nil { // its maker chose them
		return said
	}
	if usual := trade.HingeByThickness(thick, b.Slab.Width, d.Unit); d.Hinges.From != hinge.FromPockets &&
		h.Kind != trade.Continuous && h.Leaf < usual-3*measure.Millimetre {
		said.Say(site.Note, job.StepHinges, "/hinges/size", site.HingeShort, message.Args{
			"thickness": message.Exact(thick), "width": b.Slab.Width, "leaf": message.Exact(h.Leaf),
			"usual": message.Exact(usual),
		})
	}
	n, weight := d.Hinges.Number(), b.Slab.Weight()
	if most := h.Load * float64(n) / 2; h.Load > 0 && weight > most {
		said.Say(site.Care, job.StepHinges, "/hinges/size", site.HingeTooLight, message.Args{
			"weight": message.Mass(weight), "hinges": message.Number(n), "name": h.Title(), "most": message.Mass(most),
		})
	}
	return said
}

// count reports too few hinges, a heavy slab on hinges of unknown load, and recesses that are not as many as the
// hinges.
func count(d site.Opening, b site.Bay) (said site.Findings) {
	c, n := d.Hinges, d.Hinges.Number()
	if c.From == hinge.FromPockets && len(c.Pockets) > 0 && n != c.Count {
		said.Say(site.Care, job.StepHinges, "/hinges/count", site.PocketsCount, message.Args{
			"asked": message.Number(c.Count), "pockets": message.Number(n),
		})
	}
	if len(b.Slab.Missing()) > 0 || c.From == hinge.WholeEdge || d.Set() != nil {
		return said
	}
	known, _ := d.Kit.Hinge(c.Size)
	usual, weight := trade.UsualHinges, b.Slab.Weight()
	switch grade, _ := trade.HingeGradeFor(weight); {
	case known.Load > 0: // suits says it
	case weight > usual.Most:
		said.Say(site.Care, job.StepHinges, "/hinges/count", site.HingesOverloaded, message.Args{
			"weight": message.Mass(weight), "most": message.Mass(usual.Most), "grade": message.Number(grade),
		})
	case weight > usual.Two && n < 3:
		said.Say(site.Care, job.StepHinges, "/hinges/count", site.ThreeHinges, message.Args{
			"weight": message.Mass(weight),
		})
	}
	if usual := trade.HingeCount(b.Slab.Length, b.Slab.Width, weight); c.From != hinge.FromPockets && n < usual {
		said.Say(site.Note, job.StepHinges, "/hinges/count", site.HingesUsual, message.Args{
			"length": b.Slab.Length, "width": b.Slab.Width, "weight": message.Mass(weight), "usual": message.Number(usual),
			"hinges": message.Number(n),
		})
	}
	return said
}

// PullOf is the Pull of a slab; the zero value while it is not known.
func PullOf(b site.Bay, list []Hinge) (p Pull) {
	if len(list) < 2 || len(b.Slab.Missing()) > 0 {
		return p
	}
	p = Pull{Weight: b.Slab.Weight(), Half: b.Slab.Width / 2, Apart: list[len(list)-1].Slab.Value - list[0].Slab.Value}
	p.Load = p.Weight * p.Half.MM() / p.Apart.MM()
	return p
}

// Way is a hinge that could be used, with what speaks against it.
type Way struct {
	trade.Hinge
	Against []site.Finding
	Flush   figure.Figure // the hinge margin that it gives, its leaves flush
}

// Ways are the hinges of a job's kit and of core/trade checked against one leaf's slab, in their order. wanted is the
// hinge margin.
func Ways(d site.Opening, b site.Bay, wanted measure.Length) (list []Way) {
	put := func(h trade.Hinge) {
		c := hinge.Choice{Plate: h.Plate, Closed: h.Closed}
		against := suits(d, b, h, wanted)
		if least := d.Swing.Casing/2 + measure.Millimetre; d.Swing.Open > 90 && d.Swing.Casing > 0 && h.Pin < least {
			against.Say(site.Care, job.StepSwing, "/swing/pin", site.PinBehindCasing, message.Args{
				"pin": message.Exact(h.Pin), "casing": message.Exact(d.Swing.Casing), "least": least,
			})
		}
		list = append(list, Way{h, against, c.Flush()})
	}
	for _, own := range d.Kit.Hinges {
		h, _ := d.Kit.Hinge(own.ID)
		put(h)
	}
	for _, h := range trade.Hinges {
		put(h)
	}
	return list
}

// Why gives the terms of the pull on the top hinge.
func (p Pull) Why() []message.Message {
	about := func(l measure.Length) message.Exact {
		return message.Exact(l.Round(measure.Millimetre, measure.Nearest))
	}
	return []message.Message{
		{ID: "why.weighs", Args: message.Args{"weight": message.Mass(p.Weight)}},
		{ID: "why.half-width", Args: message.Args{"half": about(p.Half)}},
		{ID: "why.apart", Args: message.Args{"apart": about(p.Apart)}},
		{ID: "why.pull"},
	}
}
