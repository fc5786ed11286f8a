// Package trade is named practice as data: schools, rules, cautions, each
// with its source. "Common practice" is what carpenters agree on; "from
// memory" is published somewhere but was written here from memory.
package trade

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
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
	{"painted", "Still to be painted", frame.Each[measure.Length]{frame.Head: 3 * mm, frame.Hinge: 3 * mm, frame.Lock: 3 * mm, frame.Foot: 6 * mm}, "6 mm over the finished floor; paint thickens every edge.", CommonPractice},
	{"prefinished", "Pre-finished, tight", frame.Each[measure.Length]{frame.Head: 2 * mm, frame.Lock: 2 * mm, frame.Foot: 6 * mm}, "The hinge margin is what the hinge gives, 2 to 3 mm.", CommonPractice},
	{"newframe", "New frame made to the door", frame.Each[measure.Length]{frame.Head: 7 * mm / 2, frame.Hinge: 7 * mm / 2, frame.Lock: 7 * mm / 2, frame.Foot: 6 * mm}, "For a frame that is set to the slab.", CommonPractice},
	{"inch", "Inch, all round", frame.Each[measure.Length]{frame.Head: inch / 8, frame.Hinge: inch / 8, frame.Lock: inch / 8, frame.Foot: 3 * inch / 8}, "1/8 in all round, 1/4 to 1/2 in at the foot.", CommonPractice},
	{"thin", "Thin door against the hinge jamb", frame.Each[measure.Length]{frame.Head: inch / 8, frame.Hinge: inch / 16, frame.Lock: inch / 8, frame.Foot: 3 * inch / 8}, "Under 1 1/2 in thick: 3/16 in for both sides together.", CommonPractice},
	{"utility", "Low utility or closet door", frame.Each[measure.Length]{frame.Head: 6 * mm, frame.Hinge: 3 * mm, frame.Lock: 6 * mm, frame.Foot: 19 * mm}, "Up to 25 mm short overall.", CommonPractice},
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

// Method is how an edge is brought down by depth: saw and plane from 6 mm
// up, power plane under it, hand plane for a millimetre or so. Common
// practice.
func Method(depth measure.Length) string {
	switch {
	case depth >= 6*mm:
		return "saw off the line, then plane to it"
	case depth > 3*mm/2:
		return "power plane"
	case depth > 0:
		return "hand plane"
	}
	return "leave as it is"
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
	{"slab", "Rated, glazed, escape-route and external doors: the certificate and the local code set what may be cut. This plan is not for them."},
	{"slab", "Never lean a loose door unsecured: a stand holds it on edge. Two people above about 25 kg (55 lb)."},
	{"margins", "On escape routes and rated doors the code sets the gaps, not the eye."},
	{"cut", "Clamp the work, both hands on the tool, battery out or plug pulled for any setting; let it stop. Eyes, ears, mask, extraction: hardwood and MDF dust harm lungs."},
	{"cut", "Blade just through, nothing under the cut."},
	{"hinges", "Both hands behind the edge of chisel and knife. Wedge the slab before a screw comes out; with the stops off it can swing through and tear its hinges."},
	{"lock", "Bathrooms, bedrooms and escape routes must open from inside without a key, as the local code says."},
}
