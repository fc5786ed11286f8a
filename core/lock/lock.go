// Package lock places the latch in the slab's lock edge and its strike in
// the lock jamb. Heights on the slab are from its finished top on the lock
// edge, in the jamb from the head.
package lock

import (
	"fmt"
	"slices"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/hinge"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Choice is what is chosen, or found in the jamb, for the latch or lock.
type Choice struct {
	From    From           `json:"from"`
	Strike  measure.Length `json:"strike,omitempty"` // existing strike's centre below the head
	Handle  measure.Length `json:"handle"`           // wanted spindle height above the floor
	Line    measure.Length `json:"line,omitempty"`   // rail or panel line, down from the slab's uncut top
	Backset measure.Length `json:"backset"`          // lock edge to centre of spindle
	Bore    measure.Length `json:"bore"`             // diameter of the latch bore
	When    When           `json:"when,omitempty"`   // when it is bored
	// the latch is bored as narrow as its case allows, and the ends of the bore are squared
	Tight bool `json:"tight,omitempty"`
	// ID of a trade.Hardware or of one in the kit; empty for a latch of Backset and Bore
	Hardware string         `json:"hardware,omitempty"`
	Reach    string         `json:"reach,omitempty"`  // ID of a trade.ReachRule that the handle is held to, or LocalRule
	Lowest   measure.Length `json:"lowest,omitempty"` // by a local rule, above the floor
	Highest  measure.Length `json:"highest,omitempty"`
	Second   string         `json:"second,omitempty"` // of a second piece of hardware, above or below
	Above    measure.Length `json:"above,omitempty"`  // how far above the latch line that is; nought by rule
	Old      []OldHole      `json:"old,omitempty"`    // holes that are there already
	// occupied parts of its edge, down from the slab's uncut top: a rail's joint, a moulding
	Avoid  []hinge.Avoid `json:"avoid,omitempty"`
	Missed *Missed       `json:"missed,omitempty"` // by how much the latch misses the strike of the hung door
	// width of the lock jamb's face, from its pull-side arris to the stop or its far arris; 0 is not read
	Jamb measure.Length `json:"jamb,omitempty"`
}

// OldHole is an existing hole, or the recess of a plate.
type OldHole struct {
	What string `json:"what"`
	// in the lock jamb, down from the head; otherwise in the slab, down from its finished top
	Jamb bool           `json:"jamb,omitempty"`
	Down measure.Length `json:"down"`          // to its middle
	Off  measure.Length `json:"off,omitempty"` // of the slab's, from its finished lock edge
	Dia  measure.Length `json:"dia"`           // or its length, down the jamb
}

// Missed is by how much the latch misses the strike of a hung slab.
type Missed struct {
	Up measure.Length `json:"up"` // so much above the strike's opening; below nought under it
	// behind: the stop holds the slab off by as much; negative: it rattles by as much
	In measure.Length `json:"in"`
}

// When is when a lock is bored.
type When string

// A lock is bored once the slab hangs and fits, or on the trestles before it is hung. Common practice: the first is the
// usual one, since no edge is planed after it.
const (
	OnceItFits When = ""
	First      When = "first"
)

// Whens lists the times of boring.
var Whens = []When{OnceItFits, First}

// From is what decides the latch's height.
type From string

// What decides the latch's height.
const (
	FromStrike From = "strike" // the strike that is already in the jamb
	FromHandle From = "handle" // a handle height above the floor
	FromMiddle From = "middle" // the middle of the finished slab
	FromLine   From = "line"   // a rail or a panel line: Choice.Line
)

// Froms lists them.
var Froms = []From{FromStrike, FromHandle, FromMiddle, FromLine}

// LocalRule is a rule for the handle's height typed by hand: Choice.Lowest to Choice.Highest.
const LocalRule = "local"

// HeldTo is the rule that the handle's height must keep; ok is false where there is none.
func (c Choice) HeldTo() (r trade.ReachRule, ok bool) {
	if c.Reach != LocalRule {
		return trade.ReachRuleByID(c.Reach)
	}
	most := c.Highest
	if most == 0 {
		most = 2 * measure.Metre
	}
	return trade.ReachRule{ID: LocalRule, Least: c.Lowest, Most: most, Source: trade.ForThisDoor}, true
}

// Check reports the first invalid field, as a field.Error.
func (c Choice) Check() error {
	if !slices.Contains(Froms, c.From) {
		return field.Fault("/from", "refused.latch-from", message.Args{"given": message.Quote(c.From)})
	}
	if !slices.Contains(Whens, c.When) {
		return field.Fault("/when", "refused.lock-when", message.Args{"given": message.Quote(c.When)})
	}
	const mm = measure.Millimetre
	if _, ok := c.HeldTo(); !ok && c.Reach != "" {
		return field.Fault("/reach", "refused.no-reach", message.Args{"given": message.Quote(c.Reach)})
	}
	if c.Reach == LocalRule && c.Lowest > c.Highest && c.Highest > 0 {
		return field.Fault("/highest", "refused.handle-range", message.Args{
			"lowest": message.Exact(c.Lowest), "highest": message.Exact(c.Highest),
		})
	}
	if len(c.Old) > mostOld {
		return field.Fault("/old", "refused.too-many-old-holes", message.Args{"most": message.Number(mostOld)})
	}
	for i, o := range c.Old {
		at := fmt.Sprintf("/old/%d", i)
		if n := len([]rune(o.What)); n == 0 || n > 60 {
			return field.Fault(at+"/what", "refused.what-it-was", nil)
		}
		if err := field.First(
			field.Range{Pointer: at + "/down", Is: "size.place-of-an-old-hole", Value: o.Down, Most: 4 * measure.Metre},
			field.Range{Pointer: at + "/off", Is: "size.place-of-an-old-hole", Value: o.Off, Most: measure.Metre},
			field.Range{Pointer: at + "/dia", Is: "size.size-of-an-old-hole", Value: o.Dia, Least: mm, Most: 250 * mm},
		); err != nil {
			return err
		}
	}
	if err := hinge.CheckAvoid(c.Avoid); err != nil {
		return err
	}
	if m := c.Missed; m != nil && (m.Up.Abs() > 20*mm || m.In.Abs() > 20*mm) {
		return field.Fault("/missed", "refused.latch-misses", message.Args{"most": message.Exact(20 * mm)})
	}
	return field.First(
		field.Range{Pointer: "/lowest", Is: "size.height-of-a-handle", Value: c.Lowest, Most: 2 * measure.Metre},
		field.Range{Pointer: "/highest", Is: "size.height-of-a-handle", Value: c.Highest, Most: 2 * measure.Metre},
		field.Range{
			Pointer: "/above", Is: "size.distance-of-the-second-bolt", Value: c.Above, Least: -500 * mm, Most: 500 * mm,
		},
		field.Range{Pointer: "/jamb", Is: "size.width-of-jamb-past-the-keep", Value: c.Jamb, Most: 200 * mm},
		field.Range{
			Pointer: "/strike", Is: "size.distance-of-the-keep-below-the-head", Value: c.Strike, Least: 0,
			Most: 3 * measure.Metre,
		},
		field.Range{
			Pointer: "/handle", Is: "size.height-of-a-handle", Value: c.Handle, Least: 300 * mm, Most: 1800 * mm,
		},
		field.Range{Pointer: "/line", Is: "size.place-of-a-rail", Value: c.Line, Most: 3 * measure.Metre},
		field.Range{Pointer: "/backset", Is: "size.backset", Value: c.Backset, Least: 20 * mm, Most: 200 * mm},
		field.Range{Pointer: "/bore", Is: "size.size-of-the-latch-bore", Value: c.Bore, Least: 10 * mm, Most: 40 * mm},
	)
}

// mostOld is the largest number of old holes.
const mostOld = 20

// Plan is the places of latch and strike.
type Plan struct {
	Slab    figure.Figure // finished top to the latch's centre, on the lock edge
	Jamb    figure.Figure // head to the strike's centre
	Floor   figure.Figure // the spindle's height above the floor at the lock jamb
	Backset figure.Figure // from the finished lock edge
	Centre  figure.Figure // of the latch bore, from either face
	Wall    figure.Figure // wood left each side of the bore; below nought it breaks out
}

// Room is what latch and strike are placed in.
type Room struct {
	Opening   figure.Figure  // floor to head at the lock jamb
	Margin    figure.Figure  // head margin at the lock corner
	Bored     *figure.Figure // where a bore that is there lies below the slab's finished head; nil where none is
	Thickness measure.Length
	// Off and Long are what comes off the head at the lock edge, and that edge's finished length; nil while the slab is
	// not laid.
	Off, Long *figure.Figure
}

// Place gives the places of latch and strike. An existing bore decides where the latch is, whatever was chosen, and an
// existing strike stays.
func Place(c Choice, d Room, tape measure.Tape) (Plan, error) {
	opening, margin, bored, thickness := d.Opening, d.Margin, d.Bored, d.Thickness
	var p Plan
	switch {
	case bored != nil && c.From != FromStrike:
		p.Jamb = figure.Sum(
			margin.Sigma,
			figure.Term{Label: "term.top-to-bore", Value: bored.Value, Source: figure.Reading},
			figure.Term{
				Label: "term.head-margin-lock-corner", Value: margin.Value, Source: figure.Choice, Sigma: margin.Sigma,
			},
		).Rounded(tape, measure.Nearest)
	case c.From == FromStrike:
		if c.Strike == 0 {
			return p, field.Fault("/strike", "refused.strike-wanted", nil)
		}
		p.Jamb = figure.Sum(0, figure.Term{Label: "term.head-to-strike", Value: c.Strike, Source: figure.Reading})
	case c.From == FromMiddle || c.From == FromLine:
		on, err := c.onSlab(d)
		if err != nil {
			return p, err
		}
		p.Jamb = figure.Sum(margin.Sigma, append(on.Terms, figure.Term{
			Label: "term.head-margin-lock-corner", Value: margin.Value, Source: figure.Choice, Sigma: margin.Sigma,
		})...).Rounded(tape, measure.Nearest)
	default:
		p.Jamb = figure.Sum(
			opening.Sigma,
			figure.Term{
				Label: "term.floor-to-head-lock", Value: opening.Value, Source: figure.Estimate, Sigma: opening.Sigma,
			},
			figure.Term{Label: "term.handle-height", Value: -c.Handle, Source: figure.Choice},
		).Rounded(tape, measure.Nearest)
	}
	p.Slab = figure.Sum(
		margin.Sigma,
		figure.Term{Label: "term.head-to-strike", Value: p.Jamb.Value, Source: figure.Estimate},
		figure.Term{
			Label: "term.head-margin-lock-corner", Value: -margin.Value, Source: figure.Choice, Sigma: margin.Sigma,
		},
	)
	if bored != nil {
		p.Slab = *bored
	}
	p.Floor = figure.Sum(
		opening.Sigma,
		figure.Term{
			Label: "term.floor-to-head-lock", Value: opening.Value, Source: figure.Estimate, Sigma: opening.Sigma,
		},
		figure.Term{Label: "term.head-to-strike", Value: -p.Jamb.Value, Source: figure.Estimate},
	).Rounded(tape, measure.Nearest)
	if p.Jamb.Value <= 0 || p.Floor.Value <= 0 {
		return p, field.Fault("/"+string(c.From), "refused.height-outside", nil)
	}
	p.Backset = figure.Sum(0, figure.Term{Label: "term.backset", Value: c.Backset, Source: figure.Choice})
	p.Centre = figure.Sum(
		0,
		figure.Term{Label: "term.thickness", Value: thickness, Source: figure.Reading},
		figure.Term{Label: "term.to-centre", Value: -(thickness - thickness/2), Source: figure.Rule},
	)
	p.Wall = figure.Sum(
		0,
		figure.Term{Label: "term.half-thickness", Value: thickness / 2, Source: figure.Reading},
		figure.Term{Label: "term.half-latch-bore", Value: -c.Bore / 2, Source: figure.Choice},
	)
	return p, nil
}

// onSlab is a height that the slab itself decides, down from its finished top.
func (c Choice) onSlab(d Room) (f figure.Figure, err error) {
	switch {
	case d.Long == nil || d.Off == nil:
		return f, field.Fault("/from", "refused.height-slab-first", nil)
	case c.From == FromLine && c.Line == 0:
		return f, field.Fault("/line", "refused.line-wanted", nil)
	case c.From == FromLine:
		return figure.Sum(
			0,
			figure.Term{Label: "term.top-to-line", Value: c.Line, Source: figure.Reading},
			figure.Term{Label: "term.off-head-at-last", Value: -d.Off.Value, Source: figure.Estimate},
		), nil
	}
	return figure.Sum(
		0,
		figure.Term{Label: "term.slab-length-finished", Value: d.Long.Value, Source: figure.Estimate},
		figure.Term{Label: "term.to-middle", Value: d.Long.Value/2 - d.Long.Value, Source: figure.Choice},
	), nil
}
