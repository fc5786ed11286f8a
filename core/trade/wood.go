package trade

import "kindmargin/core/message"

// Wood is a species and its movement: the change of its size for each 1 % of moisture content, as a share of its size
// at 6 to 14 %, across the rings (radial) and along them (tangential).
type Wood struct {
	ID         string
	Radial     float64
	Tangential float64
	Source     string
}

// Name is the name of the wood.
func (w Wood) Name() message.ID { return "wood." + message.ID(w.ID) }

const table135 = "Wood Handbook (FPL-GTR-190), table 13-5, from memory"

// Woods of slabs, the unknown ones first.
var Woods = []Wood{
	{"softwood", 0.00133, 0.00216, "as ponderosa pine: " + table135},
	{"hardwood", 0.00158, 0.00369, "as red oak, which moves most of these: " + table135},
	{"white-oak", 0.00180, 0.00365, table135},
	{"red-oak", 0.00158, 0.00369, table135},
	{"sugar-maple", 0.00165, 0.00353, table135},
	{"black-walnut", 0.00190, 0.00274, table135},
	{"yellow-poplar", 0.00158, 0.00289, table135},
	{"douglas-fir", 0.00165, 0.00267, table135},
	{"white-pine", 0.00071, 0.00212, table135},
	{"white-fir", 0.00112, 0.00245, table135},
	{"redcedar", 0.00111, 0.00234, table135},
	{"ponderosa", 0.00133, 0.00216, table135},
}

// WoodByID finds a wood; ok is false for an unknown ID.
func WoodByID(id string) (w Wood, ok bool) {
	for _, w := range Woods {
		if w.ID == id {
			return w, true
		}
	}
	return Wood{}, false
}

// FibreSaturation is the moisture content in % above which wood does not move: Wood Handbook, chapter 4, from memory.
const FibreSaturation = 30

// ByTable is the range of moisture contents in % for which a Wood's coefficients hold.
var ByTable = struct{ Least, Most float64 }{6, 14}

// Movement is a construction's seasonal movement.
type Movement struct {
	Construction string
	// Planks is set where its whole width is timber across the grain, Stiles where only its two stiles are.
	Planks, Stiles bool
	// Held is the share of its middle's movement at its head and its foot.
	Held float64
	// Board is the change of its whole width for each 1 % of moisture content, where boards or veneers decide.
	Board  float64
	Source string
}

// Note is which part of it moves.
func (m Movement) Note() message.ID { return "movement." + message.ID(m.Construction) }

// Movements, by construction.
var Movements = []Movement{
	{Construction: "planked", Planks: true, Held: 1, Source: CommonPractice},
	{Construction: "solid", Stiles: true, Held: 0.5, Source: CommonPractice + "; the half at the ends is assumed"},
	{Construction: "engineered", Held: 1, Board: 0.0001, Source: assumed},
	{Construction: "hollow", Held: 1, Board: 0.0002, Source: assumed},
	{Construction: "moulded", Held: 1, Board: 0.0002, Source: assumed},
	{Construction: "flush", Held: 1, Board: 0.0002, Source: assumed},
	{Construction: "rated", Held: 1, Board: 0.0002, Source: assumed},
	{Construction: "steel", Held: 1, Source: CommonPractice},
}

// MovementOf is a construction's movement; the empty ID is a flush solid core.
func MovementOf(construction string) Movement {
	if construction == "" {
		construction = "flush"
	}
	for _, m := range Movements {
		if m.Construction == construction {
			return m
		}
	}
	return Movement{}
}

// Figures of seasons. All assumed, from joiners' accounts.
const (
	UsualStile  = 110 * mm // of a framed slab, where its stile is not measured
	WidestLight = 6 * mm   // that still looks right in the driest month
	SealedMoves = 0.6      // part of its move that a slab makes when all six sides are sealed
	MoveUnsure  = 0.25     // one sigma of a move, as a part of it
	LieDays     = 8.0      // in which a slab LieThick thick comes half way to the room's moisture
	LieThick    = 35 * mm
	LieNear     = 1.0 // %: as near to the room's moisture as a slab that is fitted should be
)

// ThumbRate is the rule of thumb: this share of the width for each 1 % of relative humidity, which is 0.1 % for each 10
// %. Common practice.
const ThumbRate = 0.001 / 10

// Month is the air of a room through a month: °C, and relative humidity in %.
type Month struct{ Celsius, Humidity float64 }

// Climate is the air indoors through a year, January first.
type Climate struct {
	ID     string
	Months [12]Month
	Source string
}

// Name is the name of the climate.
func (c Climate) Name() message.ID { return "climate." + message.ID(c.ID) }

const invented = "assumed: invented, but plausible"

// Climates indoors, until there are readings of a hygrometer in the house itself.
var Climates = []Climate{
	{"heated", [12]Month{
		{20, 32},
		{20, 33},
		{20, 37},
		{20, 42},
		{20, 50},
		{21, 57},
		{22, 60},
		{22, 60},
		{20, 57},
		{20, 50},
		{20, 42},
		{20, 35},
	}, invented},
	{"coast", [12]Month{
		{17, 58},
		{17, 57},
		{17, 56},
		{17, 57},
		{18, 60},
		{19, 65},
		{20, 68},
		{20, 70},
		{19, 69},
		{18, 66},
		{17, 62},
		{17, 59},
	}, invented},
	{"dry", [12]Month{
		{18, 60},
		{18, 58},
		{18, 55},
		{19, 52},
		{21, 48},
		{24, 42},
		{26, 38},
		{26, 39},
		{24, 44},
		{21, 52},
		{19, 58},
		{18, 61},
	}, invented},
	{"humid", [12]Month{
		{20, 36},
		{20, 38},
		{20, 43},
		{22, 52},
		{24, 62},
		{25, 68},
		{26, 72},
		{26, 71},
		{24, 66},
		{22, 56},
		{20, 46},
		{20, 38},
	}, invented},
	{"unheated", [12]Month{
		{3, 82},
		{4, 80},
		{7, 75},
		{11, 69},
		{15, 66},
		{18, 66},
		{20, 67},
		{20, 69},
		{17, 74},
		{12, 79},
		{7, 83},
		{4, 84},
	}, invented},
}

// ClimateByID finds a climate; ok is false for an unknown ID.
func ClimateByID(id string) (c Climate, ok bool) {
	for _, c := range Climates {
		if c.ID == id {
			return c, true
		}
	}
	return Climate{}, false
}

// JambWood is the assumed wood of jambs, where theirs counts: a flat-sawn softwood.
var JambWood = Woods[0]
