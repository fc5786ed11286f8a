// Package hinge places the hinges on the slab and on the jamb. Distances are
// to the top of each leaf: on the slab from its finished top hinge corner, on
// the jamb from the head.
package hinge

import (
	"fmt"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// FromPockets is the Choice.From of a jamb that has its pockets already.
const FromPockets = "pockets"

// Choice is what is chosen, or found in the jamb, for the hinges of a door.
type Choice struct {
	From    string           `json:"from"`              // FromPockets or the ID of a trade.HingeRule
	Pockets []measure.Length `json:"pockets,omitempty"` // existing, head to the top of each, top first
	Count   int              `json:"count"`             // two or three; with pockets, as many as there are
	Leaf    measure.Length   `json:"leaf"`              // length of a leaf along the edge
	Width   measure.Length   `json:"width"`             // of a leaf, knuckle side to far side, as let in
	Plate   measure.Length   `json:"plate"`             // thickness of a leaf
	Closed  measure.Length   `json:"closed"`            // closed hinge, outside to outside, leaves parallel
}

// Check reports the first thing that cannot be, as a field.Error worded in the
// unit of the job.
func (c Choice) Check(u measure.Unit) error {
	if _, ok := trade.HingeRuleByID(c.From); !ok && c.From != FromPockets {
		return field.Fault("/from", "There is no hinge rule %.40q: use the pockets in the jamb or one of the rules.", c.From)
	}
	if c.Count != 2 && c.Count != 3 {
		return field.Fault("/count", "A door hangs on two or three hinges here, not %d.", c.Count)
	}
	const mm = measure.Millimetre
	if err := field.First(
		u,
		field.Range{Pointer: "/leaf", Is: "length of a hinge", Value: c.Leaf, Least: 40 * mm, Most: 250 * mm},
		field.Range{Pointer: "/width", Is: "width of a hinge leaf", Value: c.Width, Least: 10 * mm, Most: 120 * mm},
		field.Range{Pointer: "/plate", Is: "thickness of a hinge leaf", Value: c.Plate, Least: mm / 2, Most: 6 * mm},
		field.Range{Pointer: "/closed", Is: "thickness of a closed hinge", Value: c.Closed, Least: mm, Most: 20 * mm},
	); err != nil {
		return err
	}
	if c.Closed < 2*c.Plate {
		return field.Fault("/closed", "The closed hinge, %s, is thinner than its two leaves, %s each: measure it outside to outside.", measure.Say(c.Closed, u), measure.Say(c.Plate, u))
	}
	for i, p := range c.Pockets {
		at := fmt.Sprintf("/pockets/%d", i)
		if p <= 0 || p > 4*measure.Metre {
			return field.Fault(at, "%s is no place for a pocket: measure from the head to its top.", measure.Say(p, u))
		}
		if i > 0 && p < c.Pockets[i-1]+c.Leaf {
			return field.Fault(at, "The pocket at %s overlaps the one at %s (a leaf is %s): measure both from the head, top one first.",
				measure.Say(p, u), measure.Say(c.Pockets[i-1], u), measure.Say(c.Leaf, u))
		}
	}
	if len(c.Pockets) > 3 {
		return field.Fault("/pockets", "There are %d pockets: keep the two or three that will be used.", len(c.Pockets))
	}
	return nil
}

// Flush is the hinge margin that the hinge gives with both leaves flush:
// closed thickness less both pocket depths.
func (c Choice) Flush() figure.Figure {
	return figure.Sum(
		0,
		figure.Term{Label: "closed hinge, outside to outside", Value: c.Closed, Source: figure.Choice},
		figure.Term{Label: "slab pocket, leaf flush", Value: -c.Plate, Source: figure.Rule},
		figure.Term{Label: "jamb pocket, leaf flush", Value: -c.Plate, Source: figure.Rule},
	)
}

// Setback is the wood left between the pocket and the push face.
func (c Choice) Setback(thickness measure.Length) measure.Length { return thickness - c.Width }

// Mark is one hinge's top on the slab and on the jamb. They differ by the
// head margin at the hinge corner, exactly.
type Mark struct {
	Slab, Jamb figure.Figure
}

// Tops gives rough heights of the leaves' tops below the head, before the
// slab's size is known: enough to say where the pins will be.
func (c Choice) Tops(height measure.Length) (top, bottom measure.Length) {
	if c.From == FromPockets && len(c.Pockets) >= 2 {
		return c.Pockets[0], c.Pockets[len(c.Pockets)-1]
	}
	r, ok := trade.HingeRuleByID(c.From)
	if !ok {
		r = trade.HingeRules[0]
	}
	return r.FromTop, height - r.FromFoot - c.Leaf
}

// Place gives the marks, top hinge first. length is the slab's finished
// length on the hinge edge, margin the head margin at the hinge corner; tape
// is what marks made by a rule are rounded to. Marks from pockets are as
// exact as the pockets were read.
func Place(c Choice, length, margin figure.Figure, tape measure.Tape) ([]Mark, error) {
	if c.From == FromPockets {
		if len(c.Pockets) < 2 {
			return nil, field.Fault("/pockets", "Measure the existing pockets: head to the top of each, at least two.")
		}
		var marks []Mark
		for _, p := range c.Pockets {
			jamb := figure.Sum(0, figure.Term{Label: "head to the top of the pocket", Value: p, Source: figure.Reading})
			marks = append(marks, Mark{Jamb: jamb, Slab: less(jamb, "head margin at the hinge corner", margin)})
		}
		return marks, nil
	}
	rule, ok := trade.HingeRuleByID(c.From)
	if !ok {
		return nil, field.Fault("/from", "There is no hinge rule %.40q.", c.From)
	}
	top := figure.Sum(0, figure.Term{Label: "slab's top to the leaf: " + rule.Name, Value: rule.FromTop, Source: figure.Rule})
	bottom := figure.Sum(
		length.Sigma,
		figure.Term{Label: "slab's finished length on the hinge edge", Value: length.Value, Source: figure.Estimate, Sigma: length.Sigma},
		figure.Term{Label: "foot to the bottom of the leaf: " + rule.Name, Value: -rule.FromFoot, Source: figure.Rule},
		figure.Term{Label: "the leaf's own length", Value: -c.Leaf, Source: figure.Choice},
	).Rounded(tape, measure.Nearest)
	slab := []figure.Figure{top, bottom}
	if c.Count == 3 {
		middle := figure.Sum(
			bottom.Sigma/2,
			figure.Term{Label: "half the top leaf's distance", Value: top.Value / 2, Source: figure.Rule},
			figure.Term{Label: "half the bottom leaf's distance", Value: bottom.Value / 2, Source: figure.Rule},
		).Rounded(tape, measure.Nearest)
		slab = []figure.Figure{top, middle, bottom}
	}
	if bottom.Value < top.Value+c.Leaf {
		return nil, field.Fault("/from", "The slab is too short for two hinges by that rule.")
	}
	var marks []Mark
	for _, s := range slab {
		jamb := figure.Sum(
			margin.Sigma,
			figure.Term{Label: "slab's top to the leaf", Value: s.Value, Source: figure.Rule},
			figure.Term{Label: "head margin at the hinge corner", Value: margin.Value, Source: figure.Choice},
		)
		marks = append(marks, Mark{Slab: s, Jamb: jamb})
	}
	return marks, nil
}

func less(f figure.Figure, label string, by figure.Figure) figure.Figure {
	terms := append(append([]figure.Term{}, f.Terms...), figure.Term{Label: label, Value: -by.Value, Source: figure.Choice, Sigma: by.Sigma})
	return figure.Sum(by.Sigma, terms...)
}
