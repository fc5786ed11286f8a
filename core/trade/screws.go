package trade

import (
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// Screw is a wood screw by its gauge number and length.
type Screw struct {
	No   int
	Long measure.Length
}

// Message is the screw as one asks for it in a shop.
func (s Screw) Message() message.Message {
	return message.Message{
		ID: "screw.size", Args: message.Args{"no": message.Number(s.No), "long": message.Near(s.Long)},
	}
}

// Unit is the unit of the screw's sizes.
func (s Screw) Unit() measure.Unit {
	if s.Long%measure.Millimetre == 0 {
		return measure.Millimetres
	}
	return measure.Inches
}

// Shank is the diameter of a wood screw's shank: 0.060 in and 0.013 in for each number
// (ANSI/ASME B18.6.1, from memory).
func (s Screw) Shank() measure.Length {
	return measure.Length(60+13*s.No) * measure.Inch / 1000
}

// Woods that a pilot is bored in.
const (
	Soft = "softwood"
	Hard = "hardwood"
)

// pilots are a pilot's diameter as a share of the shank's, in percent: the screw's core, and in hard wood a little
// more, so that it neither splits the wood nor shears. Common practice.
var pilots = map[string]measure.Length{Soft: 60, Hard: 75}

// Pilot is the pilot bit for a screw in a wood: to the next half millimetre, or 64th.
func (s Screw) Pilot(wood string, u measure.Unit) measure.Length {
	step := measure.Millimetre / 2
	if u == measure.Inches {
		step = measure.Inch / 64
	}
	return (s.Shank() * pilots[wood] / 100).Round(step, measure.Nearest)
}

// LongScrew goes through the jamb into the stud behind it, in the top hole of the top leaf. Common practice.
func LongScrew(u measure.Unit) measure.Length {
	if u == measure.Inches {
		return 3 * measure.Inch
	}
	return 75 * measure.Millimetre
}

// Trial is which of a leaf's screws go in for the trial, and why: two at most, and the hole that is pulled hardest
// keeps fresh wood until the slab hangs right. Common practice.
func Trial(screws int) message.ID {
	switch {
	case screws == 0: // nobody said how many there are
		return "trial.some"
	case screws <= 2:
		return "trial.both"
	case screws == 3:
		return "trial.of-three"
	case screws > 6:
		return "trial.fourth"
	}
	return "trial.middle"
}

// FrameScrew is the number of the long screws by which a frame is held to its studs. Common practice.
const FrameScrew = 10
