package swing

import (
	"fmt"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Choice is what is chosen, or found at the opening, for the swing. 0 and nil are not said.
type Choice struct {
	Pin measure.Length `json:"pin,omitempty"` // the pin's middle in front of the pull face
	// how much narrower the push face is at the lock edge; nil by rule
	Bevel *measure.Length `json:"bevel,omitempty"`
	// how far the lock jamb's face closes in toward the push face, over 100 mm
	Closing *measure.Length `json:"closing,omitempty"`
	// HingeClosing is the same of the hinge jamb.
	HingeClosing *measure.Length `json:"hingeClosing,omitempty"`
	// how far the lock jamb, or a bead on it, is in front of the pull face
	Forward measure.Length `json:"forward,omitempty"`
	Casing  measure.Length `json:"casing,omitempty"` // and the casing beside the hinges
	Reveal  measure.Length `json:"reveal,omitempty"` // how far that casing is set back from the jamb's face
	// how far the hinge jamb leans toward the pull side, foot to head
	Lean *measure.Length `json:"lean,omitempty"`
	// how far the stop, or the back of a rebate, is off the hinge jamb's face; 0 where it is off
	Stop   measure.Length  `json:"stop,omitempty"`
	Play   *measure.Length `json:"play,omitempty"`   // between it and the push face; below nought it presses
	Open   int             `json:"open,omitempty"`   // how far it is to open, in degrees; nought a right angle
	Things []Thing         `json:"things,omitempty"` // what stands in the room
	Floor  []Floor         `json:"floor,omitempty"`  // the floor under the sweep
}

// ClosingOver is the depth of jamb that Choice.Closing is read over.
const ClosingOver = 100 * measure.Millimetre

// Thing is an obstacle: a wall or a piece of furniture.
type Thing struct {
	Name string `json:"name"`
	// Wall is a wall square to that of the opening, At beyond the hinge jamb; otherwise it is the nearest corner of a
	// piece, At along from the hinge jamb's face toward the lock jamb (negative beyond the hinge jamb) and Out in front
	// of the pull face.
	Wall bool           `json:"wall,omitempty"`
	At   measure.Length `json:"at"`
	Out  measure.Length `json:"out,omitempty"`
	// Jamb is the jamb of the leaf in question; for a pair it may be the lock jamb.
	Jamb frame.Side `json:"jamb,omitzero"`
}

// Floor is the floor's height at a place of the sweep above that under the closed slab, as far from the hinge jamb.
type Floor struct {
	At    measure.Length `json:"at"`    // from the hinge jamb
	Angle int            `json:"angle"` // of the open slab over that place, in degrees
	Up    measure.Length `json:"up"`    // below nought it falls
	Jamb  frame.Side     `json:"jamb,omitzero"`
}

const (
	mostThings = 20
	mostName   = 60
)

// Check reports the first invalid field, as a field.Error.
func (c Choice) Check() error {
	const mm = measure.Millimetre
	or := func(l *measure.Length) measure.Length {
		if l == nil {
			return 0
		}
		return *l
	}
	if c.Pin < 0 || c.Pin > 60*mm {
		return field.Fault("/pin", "refused.pin", message.Args{"value": message.Exact(c.Pin)})
	}
	if err := field.First(
		field.Range{Pointer: "/stop", Is: "size.width-of-the-doorstop-off-the-jamb", Value: c.Stop, Most: 60 * mm},
		field.Range{
			Pointer: "/play", Is: "size.play-at-the-doorstop", Value: or(c.Play), Least: -10 * mm, Most: 20 * mm,
		},
		field.Range{Pointer: "/bevel", Is: "size.bevel", Value: or(c.Bevel), Most: 15 * mm},
		field.Range{
			Pointer: "/closing", Is: "size.amount-a-jambs-face-is-out-of-square", Value: or(c.Closing), Least: -15 * mm,
			Most: 15 * mm,
		},
		field.Range{
			Pointer: "/hingeClosing", Is: "size.amount-a-jambs-face-is-out-of-square", Value: or(c.HingeClosing),
			Least: -15 * mm, Most: 15 * mm,
		},
		field.Range{
			Pointer: "/forward", Is: "size.distance-the-jamb-stands-in-front-of-the-pull-face", Value: c.Forward,
			Most: 100 * mm,
		},
		field.Range{
			Pointer: "/casing", Is: "size.distance-the-architrave-stands-in-front-of-the-pull-face", Value: c.Casing,
			Most: 100 * mm,
		},
		field.Range{
			Pointer: "/reveal", Is: "size.distance-the-architrave-is-set-back", Value: c.Reveal, Most: 100 * mm,
		},
		field.Range{
			Pointer: "/lean", Is: "size.lean-of-a-jamb-across-the-wall", Value: or(c.Lean), Least: -60 * mm,
			Most: 60 * mm,
		},
	); err != nil {
		return err
	}
	if c.Open != 0 && (c.Open < 30 || c.Open > 180) {
		return field.Fault("/open", "refused.opens", message.Args{"given": message.Number(c.Open)})
	}
	if len(c.Things) > mostThings || len(c.Floor) > mostThings {
		return field.Fault("", "refused.too-many-things", message.Args{
			"most": message.Number(mostThings), "things": message.Number(len(c.Things)),
			"places": message.Number(len(c.Floor)),
		})
	}
	for i, t := range c.Things {
		if err := t.check(fmt.Sprintf("/things/%d", i)); err != nil {
			return err
		}
	}
	for i, f := range c.Floor {
		if err := f.check(fmt.Sprintf("/floor/%d", i)); err != nil {
			return err
		}
	}
	return nil
}

func (t Thing) check(at string) error {
	if n := len([]rune(t.Name)); n == 0 || n > mostName {
		return field.Fault(at+"/name", "refused.thing-name", message.Args{"most": message.Number(mostName)})
	}
	if t.At.Abs() > 5*measure.Metre || t.Wall && t.At < 0 {
		return field.Fault(at+"/at", "refused.thing-at", message.Args{"value": message.Exact(t.At)})
	}
	if !t.Wall && (t.Out <= 0 || t.Out > 5*measure.Metre) {
		return field.Fault(at+"/out", "refused.thing-out", message.Args{"value": message.Exact(t.Out)})
	}
	if t.Jamb != frame.NoSide && !t.Jamb.Upright() {
		return field.Fault(at+"/jamb", "refused.which-leaf", nil)
	}
	return nil
}

func (f Floor) check(at string) error {
	switch {
	case f.At <= 0 || f.At > 2*measure.Metre:
		return field.Fault(at+"/at", "refused.floor-at", message.Args{"value": message.Exact(f.At)})
	case f.Angle < 1 || f.Angle > 180:
		return field.Fault(at+"/angle", "refused.floor-angle", message.Args{"given": message.Number(f.Angle)})
	case f.Up.Abs() > 60*measure.Millimetre:
		return field.Fault(at+"/up", "refused.floor-up", message.Args{"value": message.Exact(f.Up)})
	case f.Jamb != frame.NoSide && !f.Jamb.Upright():
		return field.Fault(at+"/jamb", "refused.which-leaf", nil)
	}
	return nil
}

// Under reports whether the place is under the leaf that hangs on a jamb.
func (f Floor) Under(jamb frame.Side) bool { return under(f.Jamb, jamb) }

func under(said, jamb frame.Side) bool {
	return said == jamb || said == frame.NoSide && jamb == frame.Hinge
}

// Under is the part that concerns the leaf that hangs on a jamb.
func (c Choice) Under(jamb frame.Side) Choice {
	var things []Thing
	for _, t := range c.Things {
		if under(t.Jamb, jamb) {
			things = append(things, t)
		}
	}
	var floor []Floor
	for _, f := range c.Floor {
		if f.Under(jamb) {
			floor = append(floor, f)
		}
	}
	c.Things, c.Floor = things, floor
	return c
}
