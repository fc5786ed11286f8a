package plan

import (
	"errors"

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

// load says where the hinges are too few for the slab, or the pockets not as
// many as the hinges.
func load(d door, b bay) (said findings) {
	c := d.Hinges
	hinges := c.Count
	if c.From == hinge.FromPockets && len(c.Pockets) > 0 {
		hinges = len(c.Pockets)
		if hinges != c.Count {
			said.say(Care, job.StepHinges, "/hinges/count", PocketsCount, Args{"asked": number(c.Count), "pockets": number(hinges)})
		}
	}
	if len(b.slab.Missing()) > 0 {
		return said
	}
	usual, weight := trade.UsualHinges, b.slab.Weight()
	if weight > usual.Most {
		said.say(Care, job.StepHinges, "/hinges/count", HingesOverloaded, Args{"weight": Mass(weight), "most": Mass(usual.Most), "grade": usual.Next})
	} else if weight > usual.Two && hinges < 3 {
		said.say(Care, job.StepHinges, "/hinges/count", ThreeHinges, Args{"weight": Mass(weight)})
	}
	return said
}

// hang marks the hinges on slab and jamb, top one first. corner is the head margin
// at the hinge corner.
func hang(d door, o fit.Outline, corner figure.Figure, sure frame.Each[float64]) (list []Hinge, said findings) {
	c, size := d.Hinges, o.Size()
	length := figure.Figure{Value: d.est(size.HingeEdge), Sigma: sure[frame.Foot]}
	marks, err := hinge.Place(c, length, corner, d.tape)
	var bad field.Error
	if errors.As(err, &bad) {
		said.say(Stop, job.StepHinges, "/hinges"+bad.Pointer, NoHinges, Args{"problem": bad.Problem})
		return nil, said
	}
	names := []string{"top hinge", "bottom hinge"}
	if len(marks) == 3 {
		names = []string{"top hinge", "middle hinge", "bottom hinge"}
	}
	for i, m := range marks {
		y := size.TopHinge - m.Slab.Value.MM() - c.Leaf.MM()/2
		pack := figure.Sum(
			0,
			figure.Term{Label: "hinge margin planned here, pins on one line", Value: d.est(o.Edges[frame.Hinge].GapAt(y)), Source: figure.Estimate},
			figure.Term{Label: "what the hinge gives, leaves flush", Value: -c.Flush().Value, Source: figure.Choice},
		).Rounded(packers(d), measure.Nearest)
		list = append(list, Hinge{names[i], m, pack})
	}
	return list, nil
}

// packers is how finely a hinge is packed: packers come finer than some tapes, and for
// one who cuts to a tenth there is card and paper.
func packers(d door) measure.Tape {
	usual := measure.UsualTape(d.unit)
	if d.tape.Step() < usual.Step() {
		return d.tape
	}
	return usual
}
