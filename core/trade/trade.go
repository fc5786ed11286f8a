// Package trade is named practice as data: schools, rules, cautions, each
// with its source. "Common practice" is what carpenters agree on; "from
// memory" is published somewhere but was written here from memory.
package trade

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// The sources of what is in the tables.
const (
	CommonPractice = "common practice"
	FromMemory     = "published, written from memory"
)

const (
	mm   = measure.Millimetre
	inch = measure.Inch
)

// School is a way of setting margins.
type School struct {
	ID     string
	Name   string
	Margin frame.Each[measure.Length] // hinge nought: what the hinge gives
	Note   string
	Source string
}

// Schools of margins, the one for most work first.
var Schools = []School{
	{"painted", "Still to be painted", frame.Each[measure.Length]{frame.Head: 3 * mm, frame.Hinge: 3 * mm, frame.Lock: 3 * mm, frame.Foot: 6 * mm}, "6 mm (1/4 in) over the finished floor; paint thickens every edge.", CommonPractice},
	{"prefinished", "Pre-finished, tight", frame.Each[measure.Length]{frame.Head: 2 * mm, frame.Lock: 2 * mm, frame.Foot: 6 * mm}, "The hinge margin is what the hinge gives, 2 to 3 mm (about 3/32 in).", CommonPractice},
	{"newframe", "New frame made to the door", frame.Each[measure.Length]{frame.Head: 7 * mm / 2, frame.Hinge: 7 * mm / 2, frame.Lock: 7 * mm / 2, frame.Foot: 6 * mm}, "For a frame that is set to the slab.", CommonPractice},
	{"inch", "Inch, all round", frame.Each[measure.Length]{frame.Head: inch / 8, frame.Hinge: inch / 8, frame.Lock: inch / 8, frame.Foot: 3 * inch / 8}, "1/8 in all round, 1/4 to 1/2 in at the foot.", CommonPractice},
	{"thin", "Thin door against the hinge jamb", frame.Each[measure.Length]{frame.Head: inch / 8, frame.Hinge: inch / 16, frame.Lock: inch / 8, frame.Foot: 3 * inch / 8}, "Under 1 1/2 in thick: 3/16 in for both sides together.", CommonPractice},
	{"utility", "Low utility or closet door", frame.Each[measure.Length]{frame.Head: 6 * mm, frame.Hinge: 3 * mm, frame.Lock: 6 * mm, frame.Foot: 19 * mm}, "Up to 25 mm (1 in) short overall.", CommonPractice},
}

// SchoolByID finds a school; ok is false where there is none of that name.
func SchoolByID(id string) (s School, ok bool) {
	for _, s := range Schools {
		if s.ID == id {
			return s, true
		}
	}
	return School{}, false
}

// Construction is how a slab is built, and what that allows.
type Construction struct {
	ID   string
	Name string
	// Most that may come off each edge where the maker does not say.
	Most frame.Each[measure.Length]
	// Stile and Rail are the width of the solid wood along the long edges and
	// at the ends; nought where the whole slab is solid.
	Stile, Rail measure.Length
	Skin        measure.Length // thickness of a hollow slab's skin
	LockBlock   measure.Length // length of the block that the lock goes in, about mid-height
	Density     float64        // of the whole slab, kg/m³
	Framed      bool           // stiles show, so the eye wants them alike
	Note        string
	Source      string
}

// Veneered reports whether the faces of a construction are thin enough to lift where they are bored. Common practice.
func Veneered(construction string) bool {
	switch construction {
	case "hollow", "moulded", "engineered", "flush":
		return true
	}
	return false
}

// most lists head, hinge, lock, foot.
func most(head, hinge, lock, foot measure.Length) frame.Each[measure.Length] {
	return frame.Each[measure.Length]{frame.Head: head, frame.Hinge: hinge, frame.Lock: lock, frame.Foot: foot}
}

// Constructions, the commonest first. Limits are the usual ones: what the
// maker states comes first. A rated slab has none but its certificate's.
// Densities are rough, for lifting.
var Constructions = []Construction{
	{"hollow", "Hollow core, flush", most(20*mm, 10*mm, 10*mm, 25*mm), 30 * mm, 30 * mm, 3 * mm, 300 * mm, 220, false, "Solid only at a frame of about 30 mm (1 1/4 in) and a lock block; cut more than the rail and the end is open.", CommonPractice},
	{"moulded", "Hollow core, moulded skins", most(20*mm, 6*mm, 6*mm, 25*mm), 30 * mm, 30 * mm, 3 * mm, 300 * mm, 220, true, "Keep every cut 25 mm (1 in) or more from the moulding.", CommonPractice},
	{"engineered", "Engineered or veneered stile and rail", most(6*mm, 6*mm, 6*mm, 20*mm), 0, 0, 0, 0, 600, true, "3 to 6 mm (1/8 to 1/4 in) a side and up to 20 (3/4 in) at the foot; equal amounts keep the stiles alike.", CommonPractice},
	{"solid", "Solid timber, framed", most(6*mm, 6*mm, 6*mm, 20*mm), 0, 0, 0, 0, 620, true, "Hard woods split: pilot everything.", CommonPractice},
	{"flush", "Solid core, flush", most(10*mm, 10*mm, 10*mm, 20*mm), 0, 0, 0, 0, 600, false, "As much as the lipping allows.", CommonPractice},
	{"planked", "Planked, ledged or framed", most(10*mm, 15*mm, 15*mm, 20*mm), 0, 0, 0, 0, 560, true, "Moves across its whole width with the seasons.", CommonPractice},
	{"steel", "Steel skins", most(0, 0, 0, 0), 0, 0, 0, 0, 450, false, "Nothing comes off a steel slab: it is ordered to size, and bored slowly, centre-punched.", CommonPractice},
	{"rated", "Rated: fire, smoke or sound", most(0, 0, 0, 0), 0, 0, 0, 0, 700, false, "Only what its certificate allows.", CommonPractice},
}

// ConstructionByID finds a construction; the empty name is a flush solid
// core. ok is false where there is none of that name.
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

// TwoPeople is the weight in kilograms from which two people lift. Common
// practice.
const TwoPeople = 25

// UsualHinges is what common butts carry, in kilograms: two of them a slab of Two, three one
// of Most, the greatest door mass of EN 1935 grades 7 and 10. Published, written from memory.
var UsualHinges = struct{ Two, Most float64 }{40, 60}

// PivotWood is the least from a pivot hole's centre to the slab's edge: half a
// 7/16 in hole and 6 mm of wood. Common practice.
const PivotWood = 12 * mm

// Stock is a slab size that is sold.
type Stock struct {
	Market                   string
	Width, Length, Thickness measure.Length
}

// Stocks are common stock sizes by market, published in merchants' lists;
// written from memory.
var Stocks = func() (list []Stock) {
	for _, w := range []measure.Length{610, 686, 711, 762, 813, 838, 914} {
		list = append(list, Stock{"metric, 1981 and 2032 high", w * mm, 1981 * mm, 35 * mm}, Stock{"metric, 1981 and 2032 high", w * mm, 2032 * mm, 35 * mm})
	}
	for _, w := range []measure.Length{526, 626, 726, 826, 926} {
		list = append(list, Stock{"metric, 2040 high", w * mm, 2040 * mm, 40 * mm})
	}
	for _, w := range []measure.Length{24, 26, 28, 30, 32, 34, 36} {
		list = append(list, Stock{"inch, 80 high", w * inch, 80 * inch, 11 * inch / 8}, Stock{"inch, 84 high", w * inch, 84 * inch, 11 * inch / 8})
	}
	return list
}()

// HingeRule places the outer hinges by distance from the slab's ends.
type HingeRule struct {
	ID       string
	Name     string
	FromTop  measure.Length // slab's top to the top of the top leaf
	FromFoot measure.Length // slab's foot to the bottom of the bottom leaf
	Source   string
}

// HingeRules are the two common ones. The first is worked in round figures
// in either unit.
var HingeRules = []HingeRule{
	{"6and9", "150 mm down, 225 mm up", 150 * mm, 225 * mm, CommonPractice},
	{"6and9in", "6 in down, 9 in up", 6 * inch, 9 * inch, CommonPractice},
	{"7and11", "7 in down, 11 in up", 7 * inch, 11 * inch, FromMemory},
}

// HingeRuleByID finds a rule; ok is false where there is none of that name.
func HingeRuleByID(id string) (r HingeRule, ok bool) {
	for _, r := range HingeRules {
		if r.ID == id {
			return r, true
		}
	}
	return HingeRule{}, false
}

// HandleHeight is the usual height of a handle above the floor, and its
// usual range. Common practice.
var HandleHeight = struct{ Usual, Least, Most measure.Length }{1000 * mm, 900 * mm, 1050 * mm}

// From SawFrom on a saw goes first, and up to PlaneTo a hand plane does. Common practice.
const (
	SawFrom = 6 * mm
	PlaneTo = 3 * mm / 2
)

// Method is how an edge is brought down by depth: saw and plane, power plane, or hand plane
// for a millimetre or so.
func Method(depth measure.Length) message.ID {
	switch {
	case depth >= SawFrom:
		return "method.saw"
	case depth > PlaneTo:
		return "method.power-plane"
	case depth > 0:
		return "method.hand-plane"
	}
	return "method.leave"
}

// Caution is said at the step where the hand is.
type Caution struct {
	Step string // a job.Step
	Text string
}

// CodeFirst goes with every caution.
const CodeFirst = "Your local code and a licensed trade come first."

// Cautions by step. All common practice.
var Cautions = []Caution{
	{"measure", "Old paint may hold lead and old boards asbestos: test before you scrape or plane."},
	{"measure", "A frame that is taken out or made wider may hold the wall up: studs and lintels are for whoever answers for the building."},
	{"slab", "Rated, glazed, escape-route and external doors: the certificate and the local code set what may be cut. This plan is not for them."},
	{"slab", "Never lean a loose door unsecured: a stand holds it on edge. Two people above about 25 kg (55 lb)."},
	{"margins", "On escape routes and rated doors the code sets the gaps, not the eye."},
	{"cut", "Clamp the work, both hands on the tool, battery out or plug pulled for any setting; let it stop. Eyes, ears, mask, extraction: hardwood and MDF dust harm lungs."},
	{"cut", "Blade just through, nothing under the cut."},
	{"hinges", "Both hands behind the edge of chisel and knife. Wedge the slab before a screw comes out; with the stops off it can swing through and tear its hinges."},
	{"hinges", "Router and drill: battery out or plug pulled for any setting, the slab clamped, both hands on; let it stop. Eyes, ears, mask."},
	{"swing", "With the stops off a door can swing through and tear its hinges: wedge it. Keep fingers out of the hinge side."},
	{"try", "Wedge the foot before a screw comes out, the last one where least can happen; fingers out of the hinge side. Two people above about 25 kg (55 lb)."},
	{"try", "Plane a hanging door only with its foot wedged: both hands on the tool, eyes and mask; battery out or plug pulled for any setting."},
	{"stops", "Nails back through the wood, eyes covered; with the stops off the door can swing through."},
	{"log", "A rated, glazed or escape-route door is passed by whoever answers for the building, not by this record."},
	{"lock", "Clamp the slab before it is bored, nothing behind the bit, sleeves and gloves away from it; battery out or plug pulled for any setting. Chisels: both hands behind the edge."},
	{"lock", "Bathrooms, bedrooms and escape routes must open from inside without a key, as the local code says."},
}
