package trade

import "kindmargin/core/measure"

// Hinge is a hinge as it is sold, opened flat for its leaves and closed for the rest.
type Hinge struct {
	ID, Kind, Name string
	Leaf           measure.Length // length along the edge
	Width          measure.Length // of a leaf as let in, the knuckle clear
	Plate          measure.Length // thickness of a leaf
	Closed         measure.Length // outside to outside, leaves parallel
	Pin            measure.Length // the pin's middle in front of the face
	Radius         measure.Length // of a leaf's corners; nought square
	Screws         int            // in each leaf
	Gauge          string
	Load           float64 // the heaviest slab that two carry, kg
	Source         string
}

// Hinges are common sizes. Makers differ by some tenths: the hinge in hand decides.
// Loads are those of plain use on an inner door, assumed.
var Hinges = []Hinge{
	{"butt-75", "butt", "75 mm (3 in) butt", 75 * mm, 29 * mm, 2 * mm, 7 * mm, 6 * mm, 0, 3, "no. 8 × 32", 30, FromMemory},
	{"butt-100", "butt", "100 mm (4 in) butt", 100 * mm, 32 * mm, 5 * mm / 2, 8 * mm, 6 * mm, 0, 4, "no. 10 × 38", 40, FromMemory},
	{"ball-75", "ball-bearing", "75 mm (3 in) ball-bearing", 76 * mm, 30 * mm, 5 * mm / 2, 8 * mm, 7 * mm, 0, 3, "no. 8 × 32", 40, FromMemory},
	{"ball-100", "ball-bearing", "100 mm (4 in) ball-bearing", 102 * mm, 35 * mm, 3 * mm, 9 * mm, 8 * mm, 0, 4, "no. 10 × 38", 80, FromMemory},
	{"radius-100", "ball-bearing", "100 mm ball-bearing, round corners", 102 * mm, 35 * mm, 3 * mm, 9 * mm, 8 * mm, 8 * mm, 4, "no. 10 × 38", 80, FromMemory},
	{"loose-100", "loose pin", "100 mm (4 in) loose pin", 100 * mm, 32 * mm, 5 * mm / 2, 8 * mm, 6 * mm, 0, 4, "no. 10 × 38", 40, FromMemory},
	{"lift-100", "lift-off", "100 mm (4 in) lift-off", 100 * mm, 32 * mm, 5 * mm / 2, 8 * mm, 7 * mm, 0, 4, "no. 10 × 38", 35, FromMemory},
	{"rising-100", "rising", "100 mm (4 in) rising butt", 100 * mm, 34 * mm, 5 * mm / 2, 8 * mm, 8 * mm, 0, 4, "no. 10 × 38", 35, FromMemory},
	{"butt-3half", "butt", "3 1/2 in butt", 7 * inch / 2, 9 * inch / 8, 5 * inch / 64, 9 * inch / 32, inch / 4, 0, 3, "no. 9 × 1 in", 35, FromMemory},
	{"radius-3half", "butt", "3 1/2 in butt, 1/4 in round corners", 7 * inch / 2, 9 * inch / 8, 5 * inch / 64, 9 * inch / 32, inch / 4, inch / 4, 3, "no. 9 × 1 in", 35, FromMemory},
	{"butt-4in", "butt", "4 in butt", 4 * inch, 11 * inch / 8, 3 * inch / 32, 5 * inch / 16, inch / 4, 0, 4, "no. 9 × 1 in", 45, FromMemory},
	{"ball-4half", "ball-bearing", "4 1/2 in ball-bearing", 9 * inch / 2, 3 * inch / 2, inch / 8, 3 * inch / 8, 5 * inch / 16, 0, 4, "no. 12 × 1 1/4 in", 80, FromMemory},
}

// HingeByID finds a hinge; ok is false where there is none of that name.
func HingeByID(id string) (h Hinge, ok bool) {
	for _, h := range Hinges {
		if h.ID == id {
			return h, true
		}
	}
	return Hinge{}, false
}

// Fault is something wrong with an old hinge or its pocket, and its cure.
type Fault struct{ ID, Name, Cure string }

// Faults of old hinges. Common practice.
var Faults = []Fault{
	{"loose", "loose", "drive a longer screw into the stud behind, or plug the holes with glued hardwood and pilot again"},
	{"stripped", "screws no longer bite", "plug the holes with glued hardwood, cut it flush and pilot on centre; or a longer screw at the top"},
	{"proud", "stands proud", "let the leaf in further until it lies flush"},
	{"sunk", "sunk below flush", "shim the leaf up to flush with card or veneer of its full size"},
	{"bent", "bent", "replace it, and its fellow: a bent leaf keeps the pins off one line"},
	{"painted", "painted over", "scrape the leaf and its screw heads clean before anything is set to it"},
	{"split", "jamb split", "glue and clamp the split, plug the holes, and drive the screws beside it; a patch where wood is gone"},
}

// FaultByID finds a fault; ok is false where there is none of that name.
func FaultByID(id string) (f Fault, ok bool) {
	for _, f := range Faults {
		if f.ID == id {
			return f, true
		}
	}
	return Fault{}, false
}

// PocketWood is the least wood between a pocket and the next hole in the same edge: less
// breaks out under the chisel. Common practice.
const PocketWood = 12 * mm

// ThirdUp is how far below the top hinge's leaf a third one stands that is moved up under
// weight, leaf to leaf. Common practice.
const ThirdUp = 200 * mm

// hingeEach is the height that North American hardware practice gives each hinge: two to
// 60 in, three to 90, four to 120. Published, written from memory.
const hingeEach = 30 * inch

// HingesByHeight is how many hinges that practice gives a slab of a length.
func HingesByHeight(length measure.Length) int {
	return max(int((length+hingeEach-1)/hingeEach), 2)
}

// HingeByThickness is the usual length of a hinge for a slab of a thickness and width: by
// British practice 75 mm to 40 thick and 100 past it; by North American practice 3 1/2 in for
// 1 3/8 thick to 32 wide, 4 to 37, and for 1 3/4 thick 4 1/2 to 36 wide, 5 past it. Published,
// written from memory.
func HingeByThickness(thickness, width measure.Length, u measure.Unit) measure.Length {
	if u != measure.Inches {
		if thickness > 40*mm {
			return 100 * mm
		}
		return 75 * mm
	}
	thin := thickness <= 3*inch/2
	switch {
	case thin && width <= 32*inch:
		return 7 * inch / 2
	case thin:
		return 4 * inch
	case width <= 36*inch:
		return 9 * inch / 2
	}
	return 5 * inch
}
