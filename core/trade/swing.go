package trade

// UsualPin is how far the middle of a butt hinge's pin stands in front of the pull face,
// with the knuckle clear of it: about half a knuckle. Common practice.
const UsualPin = 6 * mm

// UsualBevel is what the lock edge's push face is narrower by for each unit of thickness,
// 1/8 in in 2 in (3.6°): published, written from memory. Slabs under SquareUnder are often
// left square; common practice.
const (
	UsualBevel  = 1.0 / 16
	SquareUnder = 3 * inch / 2
)

// UnderFoot is the least between the moving foot and the highest place of the floor that
// it sweeps. Common practice.
const UnderFoot = 3 * mm

// HingesRub is the moment in N·m that the pins and washers of plain steel butts hold for
// each kilogram of slab: rubbing at about 0.2 with some 5 mm to its middle. Assumed.
const HingesRub = 0.01

// MeetingOff is what comes off a pair's two meeting edges together, so that they pass. Common
// practice.
const MeetingOff = 8 * mm

// RebateLip is how far the rebated meeting edges of a pair lap. Common practice.
const RebateLip = 12 * mm

// MostFoot is the most foot margin that is still one: a low utility or closet door's 1 in.
// Common practice.
const MostFoot = inch
