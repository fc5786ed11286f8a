package plan

import (
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/season"
)

// Choice is a choice by the ID that is kept, in words that may change.
type Choice[T ~string] struct {
	ID   T
	Name string
	Why  string // why one would choose it, in a sentence
}

// named finds a choice by its ID; it panics where the table lacks one.
func named[T ~string](list []Choice[T], id T) Choice[T] {
	return list[slices.IndexFunc(list, func(c Choice[T]) bool { return c.ID == id })]
}

// Across are the ways to share what comes off the width.
var Across = []Choice[fit.Registration]{
	{fit.KeepLock, "keep the lock edge", "All the width comes off the hinge edge: it is the least seen, and the lock edge keeps its full strength."},
	{fit.KeepHinge, "keep the hinge edge", "All the width comes off the lock edge: the hinge edge stays as the maker left it."},
	{fit.EvenStiles, "even stiles", "The same comes off both long edges, so that the stiles still look alike."},
	{fit.AsOffered, "as offered up", "Cut as the slab stood in the opening when its gaps were read: each side loses what it needs there."},
	{fit.ShareWidth, "as the limits share it", "What comes off is shared by both long edges as their limits allow: no usual way keeps to both."},
}

// Along are the ways to share what comes off the length. A slab cut as it was
// offered up has none.
var Along = []Choice[fit.Ends]{
	{fit.KeepHead, "keep the head", "The head takes only what its shape needs; the rest comes off the foot."},
	{fit.EvenEnds, "even ends", "The same comes off both ends: rails look alike, a bore keeps its height, and a hollow slab's rails last longest."},
	{fit.KeepFoot, "keep the foot", "The foot takes only what its shape needs; the rest comes off the head."},
	{fit.ShareLength, "as the limits share it", "What comes off is shared by both ends as their limits allow: no usual way keeps to both."},
	{fit.MeetStrike, "bore to the strike", "As much comes off the head as brings the bore that is there to the strike that is there."},
}

// Habits are what is left on at the first cut.
var Habits = []Choice[job.Habit]{
	{job.WhenSure, "cut once when sure", "leaves on only what keeps the chance of too far under 1 in 200"},
	{job.Always3, "always leave 3 mm", "3 mm (1/8 in) on the width and the foot, shaved after the first try"},
	{job.ToLine, "cut to the line", "nothing left on, however unsure"},
}

// Joints are the ways that head and jambs of a frame meet.
var Joints = []Choice[lining.Joint]{
	{lining.Housed, "head housed for the jambs", "glued, pinned, two long screws a side: it cannot slip"},
	{lining.Over, "head over the jambs", "butted, screwed down through the head"},
	{lining.Between, "head between the jambs", "butted, screwed in through the jambs"},
}

// Sawns are the ways that boards were sawn from the log.
var Sawns = []Choice[season.Sawn]{
	{season.SawnUnknown, "not known: as flat-sawn", "taken for what moves most"},
	{season.SawnFlat, "flat-sawn", "the rings lie along the face: moves most"},
	{season.SawnQuarter, "quarter-sawn", "the rings stand up from the face: moves about half as much"},
}

// SeasonSchools are the ways to foretell a move.
var SeasonSchools = []Choice[season.School]{
	{season.ByMoisture, "by the wood's moisture", "moisture content from the air, times the wood's own coefficient, times what runs across the grain"},
	{season.ByThumb, "by the rule of thumb", "0.1 % of the width for each 10 % of humidity, whatever the wood"},
}

// leftLabel is why so much is left on, as a term says it.
var leftLabel = map[job.Habit]string{
	job.WhenSure: "kept so that under 1 slab in 200 comes out too wide",
	job.Always3:  "always left on",
	job.ToLine:   "cut to the line",
}

// Walls are what is believed of an opening before it is read.
var Walls = []Choice[job.Walls]{
	{job.Old, "old opening", "has settled: leans and bellies"},
	{job.New, "new frame", "set by a careful hand"},
}

// Measurings are the ways to go about measuring.
var Measurings = []Choice[job.Measuring]{
	{job.AsItComes, "as it comes", "whatever is worth most minutes, one reading after the other"},
	{job.ByTape, "tape and level", "widths, heights, plumb, level and square; the slab is cut on the trestles from the figures"},
	{job.OfferedUp, "slab offered up", "the slab stood on wedges in the opening, packers slid round it"},
	{job.FromOldDoor, "the old door", "its gaps read as it hangs, before it comes off"},
	{job.ToFrame, "a frame made to the slab", "there is no frame, or it goes: jambs and head are cut to the slab, set, and then read"},
}

// Parts are the parts of a door's choices that others can take.
var Parts = []Choice[job.Part]{
	{job.PartMargins, "margins", "the school and one's own margins; a floor still to come stays each door's own"},
	{job.PartHinges, "hinges", "the hinge and where it goes; pockets that are in a jamb stay, and so does their number"},
	{job.PartLock, "lock", "latch, backset and height; a strike that is in a jamb keeps its height"},
	{job.PartSeason, "seasons", "the house's air, the wood and how it is foretold; what a meter said of a slab stays its own"},
}

// StepOf is what is known of one step.
type StepOf struct {
	Step  job.Step
	Name  string
	Waits string // said while it has no answer
	Open  string // said once it has
}

// StepsOf is the one table of steps, in trade order.
var StepsOf = []StepOf{
	{job.StepMeasure, "Measure", "take a width and a height", "sure enough to cut"},
	{job.StepSlab, "Slab", "measure the slab", "see that it is big enough"},
	{job.StepMargins, "Margins", "waits for readings", "see the light it gives"},
	{job.StepCut, "Cut", "waits for readings and the slab", "ready to cut"},
	{job.StepHinges, "Hinges", "waits for readings", "ready to mark"},
	{job.StepSwing, "Swing", "waits for readings and the slab", "see that it clears"},
	{job.StepLock, "Lock", "waits for readings and the slab", "ready to mark"},
	{job.StepTry, "Try", "waits for the cut", "hang it and read the gaps"},
	{job.StepStops, "Stops", "waits for the slab's thickness", "ready to set"},
	{job.StepLog, "Log", "waits until it fits", "ready to sign off"},
}

// StepName is a step in words.
func StepName(s job.Step) string {
	return StepsOf[slices.IndexFunc(StepsOf, func(k StepOf) bool { return k.Step == s })].Name
}

// Why says why a slab is laid so, across and along it.
func Why(l fit.Laying) []string {
	why := []string{named(Across, l.Across).Why}
	if l.Along != "" {
		why = append(why, named(Along, l.Along).Why)
	}
	return why
}
