package trade

// UsualPin is the distance of the middle of a butt hinge's pin in front of the pull face, with the knuckle clear of it:
// about half a knuckle. Common practice.
const UsualPin = 6 * mm

// UsualBevel is how much narrower the push face is at the lock edge, per unit of thickness, 1/8 in in 2 in (3.6°):
// published, written from memory. Slabs under SquareUnder are often left square; common practice.
const (
	UsualBevel  = 1.0 / 16
	SquareUnder = 3 * inch / 2
)

// UnderFoot is the least gap between the moving foot and the highest place of the floor in its sweep. Common practice.
const UnderFoot = 3 * mm

// HingesRub is the friction moment of plain steel butts, in N·m for each kilogram of slab: a coefficient of about 0.2
// at some 5 mm. Assumed.
const HingesRub = 0.01

// MeetingOff is what comes off a pair's two meeting edges together, so that they pass. Common practice.
const MeetingOff = 8 * mm

// RebateLip is the overlap of a pair's rebated meeting edges. Common practice.
const RebateLip = 12 * mm

// MostFoot is the greatest foot margin that still looks like one: a low utility or closet door's 1 in. Common practice.
const MostFoot = inch
