package trade

import (
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// HingeKind is a kind of hinge, with how it is fitted.
type HingeKind struct {
	ID     string
	Handed bool // made for hinges on the left, or on the right
}

// Name is the name of the kind.
func (k HingeKind) Name() message.ID { return "hinge-kind." + message.ID(k.ID) }

// Goes is which leaf goes on the slab, and which way the pin comes out.
func (k HingeKind) Goes() message.ID { return "hinge-goes." + message.ID(k.ID) }

// Note is what it is for, and its drawback.
func (k HingeKind) Note() message.ID { return "hinge-note." + message.ID(k.ID) }

// HingeKinds of inner doors. Common practice.
var HingeKinds = []HingeKind{
	{"butt", false},
	{"ball-bearing", false},
	{LoosePin, false},
	{LiftOff, true},
	{Rising, true},
	{Continuous, false},
}

// HingeKindByID finds a kind; ok is false for an unknown ID.
func HingeKindByID(id string) (k HingeKind, ok bool) {
	for _, k := range HingeKinds {
		if k.ID == id {
			return k, true
		}
	}
	return HingeKind{}, false
}

// The kinds that a slab is hung on otherwise than with screws at the hung door: Continuous runs along the whole edge.
const (
	LoosePin   = "loose pin"
	LiftOff    = "lift-off"
	Rising     = "rising"
	Continuous = "continuous"
)

// Hinge is a hinge as it is sold: sizes of leaves opened flat, the rest closed.
type Hinge struct {
	ID, Kind string
	Name     string         // of one's own
	Leaf     measure.Length // length along the edge; of a continuous one, what a packer holds up
	Width    measure.Length // of a leaf as let in, the knuckle clear
	Plate    measure.Length // thickness of a leaf
	Closed   measure.Length // outside to outside, leaves parallel
	Pin      measure.Length // the pin's middle in front of the face
	Radius   measure.Length // of a leaf's corners; nought square
	Rise     measure.Length // that it lifts the slab by at a right angle
	Screws   int            // in each leaf
	Screw    Screw
	Load     float64 // the heaviest slab that two carry, kg; nought where nobody says
	Source   string
}

// Title is the hinge's name.
func (h Hinge) Title() message.Message { return title(h.Name, "hinge-size.", h.ID) }

// Hinges are common sizes. Makers differ by some tenths: the hinge at hand decides. Loads are those of plain use on an
// inner door, assumed: for the lightest butts that of grade 7 of EN 1935.
var Hinges = []Hinge{
	{
		ID: "butt-75", Kind: "butt", Leaf: 75 * mm, Width: 29 * mm, Plate: 2 * mm, Closed: 7 * mm, Pin: 6 * mm,
		Screws: 3, Screw: Screw{8, 32 * mm}, Load: 40, Source: FromMemory,
	},
	{
		ID: "butt-100", Kind: "butt", Leaf: 100 * mm, Width: 32 * mm, Plate: 5 * mm / 2, Closed: 8 * mm,
		Pin: 6 * mm, Screws: 4, Screw: Screw{10, 38 * mm}, Load: 40, Source: FromMemory,
	},
	{
		ID: "ball-75", Kind: "ball-bearing", Leaf: 76 * mm, Width: 30 * mm, Plate: 5 * mm / 2, Closed: 8 * mm,
		Pin: 7 * mm, Screws: 3, Screw: Screw{8, 32 * mm}, Load: 40, Source: FromMemory,
	},
	{
		ID: "ball-100", Kind: "ball-bearing", Leaf: 102 * mm, Width: 35 * mm, Plate: 3 * mm, Closed: 9 * mm,
		Pin: 8 * mm, Screws: 4, Screw: Screw{10, 38 * mm}, Load: 80, Source: FromMemory,
	},
	{
		ID: "radius-100", Kind: "ball-bearing", Leaf: 102 * mm, Width: 35 * mm, Plate: 3 * mm, Closed: 9 * mm,
		Pin: 8 * mm, Radius: 8 * mm, Screws: 4, Screw: Screw{10, 38 * mm}, Load: 80, Source: FromMemory,
	},
	{
		ID: "loose-100", Kind: "loose pin", Leaf: 100 * mm, Width: 32 * mm, Plate: 5 * mm / 2, Closed: 8 * mm,
		Pin: 6 * mm, Screws: 4, Screw: Screw{10, 38 * mm}, Load: 40, Source: FromMemory,
	},
	{
		ID: "lift-100", Kind: "lift-off", Leaf: 100 * mm, Width: 32 * mm, Plate: 5 * mm / 2, Closed: 8 * mm,
		Pin: 7 * mm, Screws: 4, Screw: Screw{10, 38 * mm}, Load: 35, Source: FromMemory,
	},
	{
		ID: "rising-100", Kind: "rising", Leaf: 100 * mm, Width: 34 * mm, Plate: 5 * mm / 2, Closed: 8 * mm,
		Pin: 8 * mm, Rise: 12 * mm, Screws: 4, Screw: Screw{10, 38 * mm}, Load: 35, Source: FromMemory,
	},
	{
		ID: "continuous-32", Kind: Continuous, Leaf: 100 * mm, Width: 13 * mm, Plate: 7 * mm / 10,
		Closed: 5 * mm / 2, Pin: 2 * mm, Screws: 32, Screw: Screw{4, 16 * mm}, Load: 40, Source: FromMemory,
	},
	{
		ID: "butt-3half", Kind: "butt", Leaf: 7 * inch / 2, Width: 9 * inch / 8, Plate: 5 * inch / 64,
		Closed: 9 * inch / 32, Pin: inch / 4, Screws: 3, Screw: Screw{9, inch}, Load: 40, Source: FromMemory,
	},
	{
		ID: "radius-3half", Kind: "butt", Leaf: 7 * inch / 2, Width: 9 * inch / 8, Plate: 5 * inch / 64,
		Closed: 9 * inch / 32, Pin: inch / 4, Radius: inch / 4, Screws: 3, Screw: Screw{9, inch}, Load: 40,
		Source: FromMemory,
	},
	{
		ID: "butt-4in", Kind: "butt", Leaf: 4 * inch, Width: 11 * inch / 8, Plate: 3 * inch / 32,
		Closed: 5 * inch / 16, Pin: inch / 4, Screws: 4, Screw: Screw{9, inch}, Load: 45, Source: FromMemory,
	},
	{
		ID: "ball-4half", Kind: "ball-bearing", Leaf: 9 * inch / 2, Width: 3 * inch / 2, Plate: inch / 8,
		Closed: 3 * inch / 8, Pin: 5 * inch / 16, Screws: 4, Screw: Screw{12, 5 * inch / 4}, Load: 80,
		Source: FromMemory,
	},
}

// HingeByID finds a hinge; ok is false for an unknown ID.
func HingeByID(id string) (h Hinge, ok bool) {
	for _, h := range Hinges {
		if h.ID == id {
			return h, true
		}
	}
	return Hinge{}, false
}

// HingeGrades are the grades of EN 1935 and the greatest door mass of each in kg. Published, written from memory.
var HingeGrades = []struct {
	Grade int
	Most  float64
}{{7, 40}, {10, 60}, {11, 80}, {12, 100}, {13, 120}, {14, 160}}

// HingeGradeFor is the lowest grade of EN 1935 for a slab of a mass in kg; ok is false where there is none.
func HingeGradeFor(weight float64) (grade int, ok bool) {
	for _, g := range HingeGrades {
		if weight <= g.Most {
			return g.Grade, true
		}
	}
	return 0, false
}

// HingeWidth is the least width of an open hinge for a slab of a thickness, with a setback, that clears a casing by a
// distance: twice the distance from the pin to the far end of a leaf, and the clearance. Published, written from
// memory.
func HingeWidth(thickness, setback, clearance measure.Length) measure.Length {
	return 2*(thickness-setback) + clearance
}

// Fault is a fault of an old hinge or its recess, with its cure.
type Fault struct{ ID string }

// Name is the name of the fault.
func (f Fault) Name() message.ID { return "fault." + message.ID(f.ID) }

// Cure is what to do about it.
func (f Fault) Cure() message.ID { return "cure." + message.ID(f.ID) }

// Faults of old hinges. Common practice.
var Faults = []Fault{
	{"loose"},
	{"stripped"},
	{"proud"},
	{"sunk"},
	{"bent"},
	{"painted"},
	{"split"},
}

// FaultByID finds a fault; ok is false for an unknown ID.
func FaultByID(id string) (f Fault, ok bool) {
	for _, f := range Faults {
		if f.ID == id {
			return f, true
		}
	}
	return Fault{}, false
}

// PocketWood is the least wood between a recess and the next hole in the same edge: less breaks out under the chisel.
// Common practice.
const PocketWood = 12 * mm

// Obstacles are what hinge leaves keep clear of, on a jamb or on a slab. Common practice.
var Obstacles = []message.ID{
	"obstacle.latch-recess", "obstacle.strike", "obstacle.knot", "obstacle.rail-joint",
	"obstacle.lock-block", "obstacle.core", "obstacle.moulding", "obstacle.glass",
}

// BehindPocket is the least thickness of a jamb behind a recess; MostPacked is the thickest packer that usual screws
// hold; PastStile is how far a screw's point may pass a hollow slab's stile. Common practice.
const (
	BehindPocket = 5 * mm
	MostPacked   = 5 * mm
	PastStile    = 3 * mm
)

// ThirdUp is the distance of a third hinge below the top one, leaf to leaf, where it is moved up to carry weight.
// Common practice.
const ThirdUp = 200 * mm

// hingeEach is the height for each hinge in North American practice: two to 60 in, three to 90, four to 120. Published,
// written from memory.
const hingeEach = 30 * inch

// HingesByHeight is the number of hinges of a slab of a length by that practice.
func HingesByHeight(length measure.Length) int {
	return max(int((length+hingeEach-1)/hingeEach), 2)
}

// LightSlab is what two hinges carry, whatever its height up to Long: no heavier than a hollow slab of usual size, and no
// wider than 36 in. Common practice.
var LightSlab = struct {
	Weight     float64 // kg
	Long, Wide measure.Length
}{20, 84 * inch, 36 * inch}

// HingeCount is the usual number of hinges of a slab, by its weight, height and width, in any unit: two for a light one,
// otherwise one for each 30 in of height, and three at least for a heavy or a wide one.
func HingeCount(length, width measure.Length, weight float64) int {
	light := LightSlab
	if weight <= light.Weight && length <= light.Long && width <= light.Wide {
		return 2
	}
	return max(HingesByHeight(length), 3)
}

// HingeByThickness is the usual length of a hinge for a slab of a thickness and width: by British practice 75 mm to 40
// thick and 100 above; by North American practice 3 1/2 in for 1 3/8 thick to 32 wide, 4 to 37, and for 1 3/4 thick 4
// 1/2 to 36 wide, 5 above. Published, written from memory.
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
