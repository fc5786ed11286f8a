// Package lock places the latch in the slab's lock edge and its strike in
// the lock jamb. Heights on the slab are from its finished top on the lock
// edge, in the jamb from the head.
package lock

import (
	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/measure"
)

// Choice is what is chosen, or found in the jamb, for the latch.
type Choice struct {
	From    string         `json:"from"`             // FromStrike or FromHandle
	Strike  measure.Length `json:"strike,omitempty"` // existing strike's centre below the head
	Handle  measure.Length `json:"handle"`           // wanted spindle height above the floor
	Backset measure.Length `json:"backset"`          // lock edge to centre of spindle
	Bore    measure.Length `json:"bore"`             // diameter of the latch bore
}

// What decides the latch's height.
const (
	FromStrike = "strike" // the strike that is already in the jamb
	FromHandle = "handle" // a handle height above the floor
)

// Check reports the first thing that cannot be, as a field.Error worded in the
// unit of the job.
func (c Choice) Check(u measure.Unit) error {
	if c.From != FromStrike && c.From != FromHandle {
		return field.Fault("/from", "The latch's height comes from the strike or from a handle height, not from %.40q.", c.From)
	}
	const mm = measure.Millimetre
	return field.First(
		u,
		field.Range{Pointer: "/strike", Is: "place for a strike below the head", Value: c.Strike, Least: 0, Most: 3 * measure.Metre},
		field.Range{Pointer: "/handle", Is: "handle height", Value: c.Handle, Least: 300 * mm, Most: 1800 * mm},
		field.Range{Pointer: "/backset", Is: "backset", Value: c.Backset, Least: 20 * mm, Most: 200 * mm},
		field.Range{Pointer: "/bore", Is: "latch bore", Value: c.Bore, Least: 10 * mm, Most: 40 * mm},
	)
}

// Plan is where latch and strike go.
type Plan struct {
	Slab    figure.Figure  // finished top to the latch's centre, on the lock edge
	Jamb    figure.Figure  // head to the strike's centre
	Floor   figure.Figure  // the spindle's height above the floor at the lock jamb
	Backset figure.Figure  // from the finished lock edge
	Centre  figure.Figure  // of the latch bore, from either face
	Wall    measure.Length // wood left each side of the bore; below nought it breaks out
}

// Place gives latch and strike. opening is floor to head at the lock jamb,
// margin the head margin at the lock corner. bored is where a bore that is there
// lies below the slab's finished head, nil where none is: the latch is there
// whatever was chosen, and a strike that is there already stays.
func Place(c Choice, opening, margin figure.Figure, bored *figure.Figure, thickness measure.Length, tape measure.Tape) (Plan, error) {
	var p Plan
	switch {
	case bored != nil && c.From != FromStrike:
		p.Jamb = figure.Sum(
			margin.Sigma,
			figure.Term{Label: "slab's finished top to the bore that is there", Value: bored.Value, Source: figure.Reading},
			figure.Term{Label: "head margin at the lock corner", Value: margin.Value, Source: figure.Choice, Sigma: margin.Sigma},
		)
	case c.From == FromStrike:
		if c.Strike == 0 {
			return p, field.Fault("/strike", "Measure the existing strike: head to its centre, on the lock jamb.")
		}
		p.Jamb = figure.Sum(0, figure.Term{Label: "head to the strike's centre", Value: c.Strike, Source: figure.Reading})
	default:
		p.Jamb = figure.Sum(
			opening.Sigma,
			figure.Term{Label: "floor to head at the lock jamb", Value: opening.Value, Source: figure.Estimate, Sigma: opening.Sigma},
			figure.Term{Label: "handle height above the floor", Value: -c.Handle, Source: figure.Choice},
		).Rounded(tape, measure.Nearest)
	}
	p.Slab = figure.Sum(
		margin.Sigma,
		figure.Term{Label: "head to the strike's centre", Value: p.Jamb.Value, Source: figure.Estimate},
		figure.Term{Label: "head margin at the lock corner", Value: -margin.Value, Source: figure.Choice, Sigma: margin.Sigma},
	)
	if bored != nil {
		p.Slab = *bored
	}
	p.Floor = figure.Sum(
		opening.Sigma,
		figure.Term{Label: "floor to head at the lock jamb", Value: opening.Value, Source: figure.Estimate, Sigma: opening.Sigma},
		figure.Term{Label: "head to the strike's centre", Value: -p.Jamb.Value, Source: figure.Estimate},
	).Rounded(tape, measure.Nearest)
	if p.Jamb.Value <= 0 || p.Floor.Value <= 0 {
		return p, field.Fault("/"+c.From, "That height is outside the opening: measure it again.")
	}
	p.Backset = figure.Sum(0, figure.Term{Label: "backset, from the finished lock edge", Value: c.Backset, Source: figure.Choice})
	p.Centre = figure.Sum(
		0,
		figure.Term{Label: "slab's thickness", Value: thickness, Source: figure.Reading},
		figure.Term{Label: "to its centre: half comes off", Value: -(thickness - thickness/2), Source: figure.Rule},
	)
	p.Wall = (thickness - c.Bore) / 2
	return p, nil
}
