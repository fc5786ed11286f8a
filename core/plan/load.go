package plan

import (
	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// leastSetback is the wood that must stay behind a pocket. Common practice.
const leastSetback = 3 * measure.Millimetre

// Gauges are the two settings of a marking gauge that do a whole house, and what they
// leave.
type Gauges struct {
	Depth, Width figure.Figure // leaf thickness, leaf width
	Setback      figure.Figure // no terms while the slab's thickness is not known
	Flush        figure.Figure // the hinge margin with both leaves flush
	Pull         Pull
}

// Pull is the load with which a slab pulls at its top hinge and pushes at the bottom one:
// its weight, half its width from the pins, over the hinges' distance. Statics.
type Pull struct {
	Load        float64 // kg; nought while it is not known
	Weight      float64 // of the slab, kg
	Half, Apart measure.Length
}

// gauges are the marking gauge's settings, and what the hinges ask of the slab
// before anything is read. wanted is the hinge margin.
func gauges(d door, b bay, wanted measure.Length) (g Gauges, said findings) {
	c := d.Hinges
	leaf := func(label message.ID, v measure.Length) figure.Figure {
		return figure.Sum(0, figure.Term{Label: label, Value: v, Source: figure.Choice})
	}
	g = Gauges{Depth: leaf("term.leaf-thickness", c.Plate), Width: leaf("term.leaf-width-own", c.Width), Flush: c.Flush()}
	if b.slab.Thickness > 0 {
		g.Setback = figure.Sum(
			0,
			figure.Term{Label: "term.thickness", Value: b.slab.Thickness, Source: figure.Reading},
			figure.Term{Label: "term.leaf-width", Value: -c.Width, Source: figure.Choice},
		)
	}
	known, _ := d.kit.Hinge(c.Size)
	said = suits(d, b, trade.Hinge{
		ID: known.ID, Name: known.Name, Kind: known.Kind, Leaf: c.Leaf, Width: c.Width, Plate: c.Plate, Closed: c.Closed, Pin: d.Swing.Pin, Load: known.Load,
	}, wanted)
	said.add(count(d, b))
	return g, said
}

// HingesOf is how many hinges a door hangs on; of one along the whole edge as many as carry
// like it.
func HingesOf(c hinge.Choice) int {
	switch {
	case c.From == hinge.OwnPlaces && len(c.Places) > 0:
		return len(c.Places)
	case c.From == hinge.FromPockets && len(c.Pockets) > 0:
		return len(c.Pockets)
	case c.From == hinge.WholeEdge:
		return 2 // one carries as two do
	}
	return c.Count
}

// suits says what speaks against a hinge for a slab: its size against the slab's, what it
// carries, and the margin that it gives.
func suits(d door, b bay, h trade.Hinge, wanted measure.Length) (said findings) {
	thick := b.slab.Thickness
	args := Args{"width": message.Exact(h.Width), "thickness": message.Exact(thick), "most": message.Exact(thick - leastSetback)}
	switch {
	case thick == 0:
	case h.Width >= thick:
		said.say(Stop, job.StepHinges, "/hinges/width", HingeTooWide, args)
	case thick-h.Width < leastSetback:
		said.say(Care, job.StepHinges, "/hinges/width", ThinSetback, Args{"left": thick - h.Width, "usual": 6 * measure.Millimetre})
	}
	switch flush := h.Closed - 2*h.Plate; {
	case flush <= 0:
		said.say(Care, job.StepHinges, "/hinges/closed", HingeBound, Args{"margin": flush})
	case wanted > h.Closed:
		said.say(Stop, job.StepHinges, "/margins/hinge", MarginTooWide, Args{"wanted": wanted, "closed": message.Exact(h.Closed)})
	}
	// A knuckle is about as thick as the closed hinge, and stands clear of the face.
	if h.Pin > 0 && h.Pin < h.Closed/2 && h.Kind != trade.Continuous {
		said.say(Stop, job.StepSwing, "/swing/pin", PinInSlab, Args{"pin": message.Exact(h.Pin), "closed": message.Exact(h.Closed), "least": message.Exact(h.Closed / 2)})
	}
	if len(b.slab.Missing()) > 0 {
		return said
	}
	if usual := trade.HingeByThickness(thick, b.slab.Width, d.unit); d.Hinges.From != hinge.FromPockets && h.Kind != trade.Continuous && h.Leaf < usual-3*measure.Millimetre {
		said.say(Note, job.StepHinges, "/hinges/size", HingeShort, Args{"thickness": message.Exact(thick), "width": b.slab.Width, "leaf": message.Exact(h.Leaf), "usual": message.Exact(usual)})
	}
	n, weight := HingesOf(d.Hinges), b.slab.Weight()
	if most := h.Load * float64(n) / 2; h.Load > 0 && weight > most {
		said.say(Care, job.StepHinges, "/hinges/size", HingeTooLight, Args{"weight": message.Mass(weight), "hinges": message.Number(n), "name": h.Title(), "most": message.Mass(most)})
	}
	return said
}

// count says where the hinges are too few, or their load is not known and the slab heavy, or
// the pockets not as many as the hinges.
func count(d door, b bay) (said findings) {
	c, n := d.Hinges, HingesOf(d.Hinges)
	if c.From == hinge.FromPockets && len(c.Pockets) > 0 && n != c.Count {
		said.say(Care, job.StepHinges, "/hinges/count", PocketsCount, Args{"asked": message.Number(c.Count), "pockets": message.Number(n)})
	}
	if len(b.slab.Missing()) > 0 || c.From == hinge.WholeEdge {
		return said
	}
	known, _ := d.kit.Hinge(c.Size)
	usual, weight := trade.UsualHinges, b.slab.Weight()
	switch grade, _ := trade.HingeGradeFor(weight); {
	case known.Load > 0: // suits says it
	case weight > usual.Most:
		said.say(Care, job.StepHinges, "/hinges/count", HingesOverloaded, Args{"weight": message.Mass(weight), "most": message.Mass(usual.Most), "grade": message.Number(grade)})
	case weight > usual.Two && n < 3:
		said.say(Care, job.StepHinges, "/hinges/count", ThreeHinges, Args{"weight": message.Mass(weight)})
	}
	if usual := trade.HingesByHeight(b.slab.Length); c.From != hinge.FromPockets && d.unit == measure.Inches && n < usual {
		said.say(Note, job.StepHinges, "/hinges/count", HingesByHeight, Args{"length": b.slab.Length, "usual": message.Number(usual), "hinges": message.Number(n), "each": message.Exact(30 * measure.Inch)})
	}
	return said
}

// pull is with what load a slab pulls at its top hinge.
func pull(b bay, list []Hinge) (p Pull) {
	if len(list) < 2 || len(b.slab.Missing()) > 0 {
		return p
	}
	p = Pull{Weight: b.slab.Weight(), Half: b.slab.Width / 2, Apart: list[len(list)-1].Slab.Value - list[0].Slab.Value}
	p.Load = p.Weight * p.Half.MM() / p.Apart.MM()
	return p
}

// HingeWay is a hinge that could be taken, and what speaks against it.
type HingeWay struct {
	trade.Hinge
	Against []Finding
	Flush   figure.Figure // the hinge margin that it gives, its leaves flush
}

// HingeWays are the hinges of a job's kit and of the trade's list against one leaf's slab,
// in their order; nil for a leaf that is not there.
func HingeWays(j job.Job, o job.Opening, leaf int) (list []HingeWay) {
	d := newDoor(j, o)
	bays := baysOf(d)
	if leaf >= len(bays) {
		return nil
	}
	b := bays[leaf]
	wanted := Solve(j, o).Leaves[leaf].Wanted[frame.Hinge].Value
	put := func(h trade.Hinge) {
		c := hinge.Choice{Plate: h.Plate, Closed: h.Closed}
		against := suits(d, b, h, wanted)
		if least := d.Swing.Casing/2 + measure.Millimetre; d.Swing.Open > rightAngle && d.Swing.Casing > 0 && h.Pin < least {
			against.say(Care, job.StepSwing, "/swing/pin", PinBehindCasing, Args{"pin": message.Exact(h.Pin), "casing": message.Exact(d.Swing.Casing), "least": least})
		}
		list = append(list, HingeWay{h, against, c.Flush()})
	}
	for _, own := range j.Kit.Hinges {
		h, _ := j.Kit.Hinge(own.ID)
		put(h)
	}
	for _, h := range trade.Hinges {
		put(h)
	}
	return list
}
