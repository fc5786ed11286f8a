package hinge

import (
	"fmt"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Mark is one hinge's top on the slab and on the jamb; they differ by the head margin at the hinge corner, exactly.
type Mark struct {
	Slab, Jamb figure.Figure
}

// Tops gives approximate heights of the leaves' tops below the head, before the slab's size is known, to place the
// pins.
func (c Choice) Tops(height measure.Length) (top, bottom measure.Length) {
	if c.From == FromPockets && len(c.Pockets) >= 2 {
		return c.Pockets[0], c.Pockets[len(c.Pockets)-1]
	}
	if c.From == OwnPlaces && len(c.Places) >= 2 {
		return c.Places[0], c.Places[len(c.Places)-1]
	}
	if c.From == WholeEdge {
		return 0, height - c.Leaf
	}
	r, ok := trade.HingeRuleByID(c.From)
	if !ok {
		r = trade.HingeRules[0]
	}
	return r.FromTop, height - r.FromFoot - c.Leaf
}

// Place gives the marks, top hinge first. length is the slab's finished length on the hinge edge, margin the head
// margin at the hinge corner; tape is what marks by a rule are rounded to. Marks from old recesses are as exact as
// those were read.
func Place(c Choice, length, margin figure.Figure, tape measure.Tape) ([]Mark, error) {
	switch c.From {
	case FromPockets:
		return fromPockets(c, margin)
	case OwnPlaces:
		return ownPlaces(c, length, margin, tape)
	case WholeEdge:
		return inJamb(wholeEdge(c, length, tape), margin), nil
	}
	return byRule(c, length, margin, tape)
}

func fromPockets(c Choice, margin figure.Figure) ([]Mark, error) {
	if len(c.Pockets) < 2 {
		return nil, field.Fault("/pockets", "refused.pockets-wanted", nil)
	}
	var marks []Mark
	for _, p := range c.Pockets {
		jamb := figure.Sum(0, figure.Term{Label: "term.head-to-pocket", Value: p, Source: figure.Reading})
		marks = append(marks, Mark{Jamb: jamb, Slab: less(jamb, "term.head-margin-hinge-corner", margin)})
	}
	return marks, nil
}

func ownPlaces(c Choice, length, margin figure.Figure, tape measure.Tape) ([]Mark, error) {
	if len(c.Places) < 2 {
		return nil, field.Fault("/places", "refused.places-wanted", nil)
	}
	if last := c.Places[len(c.Places)-1] + c.Leaf; last > length.Value {
		return nil, field.Fault(fmt.Sprintf("/places/%d", len(c.Places)-1), "refused.hinge-past-foot", message.Args{
			"by":   message.Exact((last - length.Value).Round(tape.Step(), measure.Up)),
			"most": message.Exact((length.Value - c.Leaf).Round(tape.Step(), measure.Down)),
		})
	}
	var slab []figure.Figure
	for _, p := range c.Places {
		slab = append(slab, figure.Sum(0, figure.Term{Label: "term.own-place", Value: p, Source: figure.Choice}))
	}
	return inJamb(slab, margin), nil
}

// byRule places the outer hinges by a named rule, and a third one between them.
func byRule(c Choice, length, margin figure.Figure, tape measure.Tape) ([]Mark, error) {
	rule, ok := trade.HingeRuleByID(c.From)
	if !ok {
		return nil, field.Fault("/from", "refused.no-hinge-rule", message.Args{"given": message.Quote(c.From)})
	}
	top := figure.Sum(0, figure.Term{
		Label: "term.top-to-leaf-rule", Args: message.Args{"rule": rule.Name()}, Value: rule.FromTop,
		Source: figure.Rule,
	})
	bottom := figure.Sum(
		length.Sigma,
		figure.Term{Label: "term.finished-length", Value: length.Value, Source: figure.Estimate, Sigma: length.Sigma},
		figure.Term{
			Label: "term.foot-to-leaf-rule", Args: message.Args{"rule": rule.Name()}, Value: -rule.FromFoot,
			Source: figure.Rule,
		},
		figure.Term{Label: "term.leaf-length", Value: -c.Leaf, Source: figure.Choice},
	).Rounded(tape, measure.Nearest)
	slab := []figure.Figure{top, bottom}
	switch {
	case c.Count == 3 && c.Third == MoveUp:
		middle := figure.Sum(
			0,
			figure.Term{Label: "term.top-leaf", Value: top.Value, Source: figure.Rule},
			figure.Term{Label: "term.leaf-length", Value: c.Leaf, Source: figure.Choice},
			figure.Term{Label: "term.moved-up", Value: trade.ThirdUp, Source: figure.Rule},
		)
		slab = []figure.Figure{top, middle, bottom}
	case c.Count == 3:
		middle := figure.Sum(
			bottom.Sigma/2,
			figure.Term{Label: "term.half-top-leaf", Value: top.Value / 2, Source: figure.Rule},
			figure.Term{Label: "term.half-bottom-leaf", Value: bottom.Value / 2, Source: figure.Rule},
		).Rounded(tape, measure.Nearest)
		slab = []figure.Figure{top, middle, bottom}
	}
	if bottom.Value < top.Value+c.Leaf {
		return nil, field.Fault("/from", "refused.slab-short-for-hinges", nil)
	}
	return inJamb(slab, margin), nil
}

// wholeEdge are the places at which a continuous hinge is packed: its top, middle and bottom.
func wholeEdge(c Choice, length figure.Figure, tape measure.Tape) (slab []figure.Figure) {
	for _, half := range []measure.Length{0, 1, 2} {
		slab = append(slab, figure.Sum(
			length.Sigma,
			figure.Term{
				Label: "term.along-length", Value: length.Value * half / 2, Source: figure.Estimate,
				Sigma: length.Sigma,
			},
			figure.Term{Label: "term.less-packer", Value: -c.Leaf * half / 2, Source: figure.Choice},
		).Rounded(tape, measure.Nearest))
	}
	return slab
}

// inJamb adds the marks' places in the jamb, the head margin at the hinge corner further down.
func inJamb(slab []figure.Figure, margin figure.Figure) (marks []Mark) {
	for _, s := range slab {
		jamb := figure.Sum(
			margin.Sigma,
			figure.Term{Label: "term.top-to-leaf", Value: s.Value, Source: figure.Rule},
			figure.Term{Label: "term.head-margin-hinge-corner", Value: margin.Value, Source: figure.Choice},
		)
		marks = append(marks, Mark{Slab: s, Jamb: jamb})
	}
	return marks
}

func less(f figure.Figure, label message.ID, by figure.Figure) figure.Figure {
	terms := append(append([]figure.Term{}, f.Terms...), figure.Term{
		Label: label, Value: -by.Value, Source: figure.Choice, Sigma: by.Sigma,
	})
	return figure.Sum(by.Sigma, terms...)
}
