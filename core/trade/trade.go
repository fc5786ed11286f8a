// Package trade is named practice as data: schools, rules, cautions, each with its source. "Common practice" is what
// carpenters agree on; "from memory" is published, but was written here from memory.
package trade

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// The sources of the tables.
const (
	CommonPractice = "common practice"
	FromMemory     = "published, written from memory"
	ForThisDoor    = "set for this door"
	ForThisJob     = "measured for this job"
)

const (
	mm   = measure.Millimetre
	inch = measure.Inch
)

// School is a way of setting margins.
type School struct {
	ID     string
	Margin frame.Each[measure.Length] // hinge nought: what the hinge gives
	Source string
}

// Name is the name of the school.
func (s School) Name() message.ID { return "school." + message.ID(s.ID) }

// Note is what it is for.
func (s School) Note() message.ID { return "school-note." + message.ID(s.ID) }

// Schools of margins, the one for most work first.
var Schools = []School{
	{
		"painted",
		frame.Each[measure.Length]{frame.Head: 3 * mm, frame.Hinge: 3 * mm, frame.Lock: 3 * mm, frame.Foot: 6 * mm},
		CommonPractice,
	},
	{
		"prefinished",
		frame.Each[measure.Length]{frame.Head: 2 * mm, frame.Lock: 2 * mm, frame.Foot: 6 * mm},
		CommonPractice,
	},
	{"newframe", frame.Each[measure.Length]{
		frame.Head: 7 * mm / 2, frame.Hinge: 7 * mm / 2, frame.Lock: 7 * mm / 2, frame.Foot: 6 * mm,
	}, CommonPractice},
	{"inch", frame.Each[measure.Length]{
		frame.Head: inch / 8, frame.Hinge: inch / 8, frame.Lock: inch / 8, frame.Foot: 3 * inch / 8,
	}, CommonPractice},
	{"thin", frame.Each[measure.Length]{
		frame.Head: inch / 8, frame.Hinge: inch / 16, frame.Lock: inch / 8, frame.Foot: 3 * inch / 8,
	}, CommonPractice},
	{
		"utility",
		frame.Each[measure.Length]{frame.Head: 6 * mm, frame.Hinge: 3 * mm, frame.Lock: 6 * mm, frame.Foot: 19 * mm},
		CommonPractice,
	},
}

// SchoolByID finds a school; ok is false for an unknown ID.
func SchoolByID(id string) (s School, ok bool) {
	for _, s := range Schools {
		if s.ID == id {
			return s, true
		}
	}
	return School{}, false
}

// Construction is how a slab is built, with its limits.
type Construction struct {
	ID string
	// Most is the greatest depth that may come off each edge where the maker does not say.
	Most frame.Each[measure.Length]
	// Stile and Rail are the width of the solid wood along the long edges and at the ends; 0 where the whole slab is
	// solid.
	Stile, Rail measure.Length
	Skin        measure.Length // thickness of a hollow slab's skin
	LockBlock   measure.Length // length of the block that the lock goes in, about mid-height
	Density     float64        // of the whole slab, kg/m³
	Framed      bool           // stiles show, so the eye wants them alike
	Surface     Surface        // what a saw breaks out of; empty where the certificate decides
	Source      string
}

// Name is the name of the construction.
func (c Construction) Name() message.ID { return "construction." + message.ID(c.ID) }

// Note is what may be done to it.
func (c Construction) Note() message.ID { return "construction-note." + message.ID(c.ID) }

// Veneered reports whether a construction's faces are thin enough to lift where they are bored. Common practice.
func Veneered(construction string) bool {
	c, ok := ConstructionByID(construction)
	return ok && construction != "" && (c.Surface == OfVeneer || c.Surface == OfSkin)
}

// most orders depths as head, hinge, lock, foot.
func most(head, hinge, lock, foot measure.Length) frame.Each[measure.Length] {
	return frame.Each[measure.Length]{frame.Head: head, frame.Hinge: hinge, frame.Lock: lock, frame.Foot: foot}
}

// Constructions, the commonest first. Limits are the usual ones: the maker's come first. A rated slab has none but its
// certificate's. Densities are rough, for lifting.
var Constructions = []Construction{
	{
		ID: "hollow", Most: most(20*mm, 10*mm, 10*mm, 25*mm), Stile: 30 * mm, Rail: 30 * mm, Skin: 3 * mm,
		LockBlock: 300 * mm, Density: 220, Surface: OfVeneer, Source: CommonPractice,
	},
	{
		ID: "moulded", Most: most(20*mm, 6*mm, 6*mm, 25*mm), Stile: 30 * mm, Rail: 30 * mm, Skin: 3 * mm,
		LockBlock: 300 * mm, Density: 220, Framed: true, Surface: OfSkin, Source: CommonPractice,
	},
	{ID: "engineered", Most: most(6*mm, 6*mm, 6*mm, 20*mm), Density: 600, Framed: true, Surface: OfVeneer, Source: CommonPractice},
	{ID: "solid", Most: most(6*mm, 6*mm, 6*mm, 20*mm), Density: 620, Framed: true, Surface: OfTimber, Source: CommonPractice},
	{ID: "flush", Most: most(10*mm, 10*mm, 10*mm, 20*mm), Density: 600, Surface: OfVeneer, Source: CommonPractice},
	{ID: "planked", Most: most(10*mm, 15*mm, 15*mm, 20*mm), Density: 560, Framed: true, Surface: OfTimber, Source: CommonPractice},
	{ID: "steel", Most: most(0, 0, 0, 0), Density: 450, Source: CommonPractice},
	{ID: "rated", Most: most(0, 0, 0, 0), Density: 700, Source: CommonPractice},
}

// ConstructionByID finds a construction; the empty ID is a flush solid core. ok is false for an unknown ID.
func ConstructionByID(id string) (c Construction, ok bool) {
	if id == "" {
		id = "flush"
	}
	for _, c := range Constructions {
		if c.ID == id {
			return c, true
		}
	}
	return Construction{}, false
}

// TwoPeople is the mass in kilograms from which two people are safer; one who is alone works with it by other means. From
// MostAlone on one does not hang it alone. Common practice.
const (
	TwoPeople = 25
	MostAlone = 60
)

// UsualHinges is the load of common butts, in kilograms: two of them carry a slab of Two, three one of Most, the
// greatest door mass of EN 1935 grades 7 and 10. Published, written from memory.
var UsualHinges = struct{ Two, Most float64 }{40, 60}

// PivotWood is the least distance from a pivot hole's centre to the slab's edge: half a 7/16 in hole and 6 mm of wood.
// Common practice.
const PivotWood = 12 * mm

// Stock is a slab size that is sold.
type Stock struct {
	Market                   message.ID
	Width, Length, Thickness measure.Length
}

// Stocks are common stock sizes by market, published in merchants' lists; written from memory.
var Stocks = func() (list []Stock) {
	for _, w := range []measure.Length{610, 686, 711, 762, 813, 838, 914} {
		list = append(list, Stock{"market.metric-high", w * mm, 1981 * mm, 35 * mm}, Stock{
			"market.metric-high", w * mm, 2032 * mm, 35 * mm,
		})
	}
	for _, w := range []measure.Length{526, 626, 726, 826, 926} {
		list = append(list, Stock{"market.metric-2040", w * mm, 2040 * mm, 40 * mm})
	}
	for _, w := range []measure.Length{24, 26, 28, 30, 32, 34, 36} {
		list = append(list, Stock{"market.inch-80", w * inch, 80 * inch, 11 * inch / 8}, Stock{
			"market.inch-84", w * inch, 84 * inch, 11 * inch / 8,
		})
	}
	return list
}()

// HingeRule places the outer hinges by distance from the slab's ends.
type HingeRule struct {
	ID       string
	FromTop  measure.Length // slab's top to the top of the top leaf
	FromFoot measure.Length // slab's foot to the bottom of the bottom leaf
	Source   string
}

// Name is the name of the rule.
func (r HingeRule) Name() message.ID { return "hinge-rule." + message.ID(r.ID) }

// HingeRules are the two common ones. The first is worked in round figures in either unit.
var HingeRules = []HingeRule{
	{"6and9", 150 * mm, 225 * mm, CommonPractice},
	{"6and9in", 6 * inch, 9 * inch, CommonPractice},
	{"7and11", 7 * inch, 11 * inch, FromMemory},
}

// HingeRuleByID finds a rule; ok is false for an unknown ID.
func HingeRuleByID[T ~string](id T) (r HingeRule, ok bool) {
	for _, r := range HingeRules {
		if r.ID == string(id) {
			return r, true
		}
	}
	return HingeRule{}, false
}

// HandleHeight is the usual height of a handle above the floor, and its
// usual range. Common practice.
var HandleHeight = struct{ Usual, Least, Most measure.Length }{1000 * mm, 900 * mm, 1050 * mm}

// SurfaceHeight is the usual height of a surface lock above the floor, from a handle's to the shoulder's. Common
// practice.
var SurfaceHeight = struct{ Least, Most measure.Length }{900 * mm, 1500 * mm}

// Caution is a caution at the step where the danger is.
type Caution struct {
	Step string // a job.Step
	Says message.ID
}

// CodeFirst accompanies every caution.
const CodeFirst message.ID = "caution.code-first"

// Cautions by step. All common practice.
var Cautions = []Caution{
	{"measure", "caution.measure-paint"},
	{"measure", "caution.measure-frame"},
	{"measure", "caution.slab-loose"}, // that is offered up
	{"slab", "caution.slab-rated"},
	{"slab", "caution.slab-loose"},
	{"margins", "caution.margins-code"},
	{"cut", "caution.cut-tools"},
	{"cut", "caution.cut-blade"},
	{"hinges", "caution.hinges-chisel"},
	{"hinges", "caution.hinges-router"},
	{"swing", "caution.swing-stops"},
	{"try", "caution.try-wedge"},
	{"try", "caution.try-plane"},
	{"stops", "caution.stops-nails"},
	{"log", "caution.log-rated"},
	{"lock", "caution.lock-bore"},
	{"lock", "caution.lock-inside"},
}
