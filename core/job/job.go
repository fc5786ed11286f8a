// Package job has the types that are kept, job and opening, with their checks and the open job file. It computes
// nothing: package plan does.
package job

import (
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/lining"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
)

// Job is a house: its openings in the order of the walk, and what they share.
type Job struct {
	ID   string       `json:"id"`
	Name string       `json:"name"`
	Unit measure.Unit `json:"unit"`
	Tape measure.Tape `json:"tape"`
	// language of its sentences; empty for the one that its unit suggests
	Language Language  `json:"language,omitempty"`
	Presets  []Preset  `json:"presets,omitempty"` // margins of one's own, for every opening of the job
	Kit      Kit       `json:"kit,omitzero"`
	Usual    Usual     `json:"usual,omitzero"` // what a new opening begins with
	Openings []Opening `json:"openings"`
}

// Language is a variety of English, as a BCP 47 tag.
type Language string

// The languages.
const (
	British  Language = "en-GB"
	American Language = "en-US"
)

// Languages lists them.
var Languages = []Language{British, American}

// Speaks is the language of the job's sentences.
func (j Job) Speaks() Language {
	switch {
	case j.Language != "":
		return j.Language
	case j.Unit == measure.Inches:
		return American
	}
	return British
}

// Preset is a named set of margins.
type Preset struct {
	Name    string  `json:"name"`
	Margins Margins `json:"margins"`
}

// Opening is one opening with everything that was read and chosen for it.
type Opening struct {
	ID    string     `json:"id"`
	Name  string     `json:"name"`
	Room  string     `json:"room,omitempty"`
	Hand  frame.Hand `json:"hand"`
	Walls Walls      `json:"walls"`
	Seen  Seen       `json:"seen,omitzero"`
	// Measuring is the method of measuring; it decides which readings are offered.
	Measuring Measuring      `json:"measuring,omitempty"`
	Between   measure.Length `json:"between,omitempty"` // between what stands left and right of the opening
	// PlusMinus is the target accuracy of the margins where it is set by hand, as ± (figure.Coverage). OneSigma is the
	// same in files before version 2, as one standard deviation.
	PlusMinus measure.Length   `json:"plusMinus,omitzero"`
	OneSigma  measure.Length   `json:"sure,omitzero"`
	Lining    *lining.Choice   `json:"lining,omitempty"` // where the frame is made to the slab
	Offers    []survey.Offer   `json:"offers,omitempty"` // placings of a slab or of the old door
	Readings  []survey.Reading `json:"readings"`
	Slab      slab.Slab        `json:"slab"`
	Pair      *Pair            `json:"pair,omitempty"`    // nil for a single door
	Service   *Service         `json:"service,omitempty"` // nil for a slab that is to be hung
	Margins   Margins          `json:"margins"`
	Season    season.Choice    `json:"season,omitzero"`
	Cut       Cut              `json:"cut"`
	Hinges    hinge.Choice     `json:"hinges"`
	Swing     swing.Choice     `json:"swing,omitzero"`
	Lock      lock.Choice      `json:"lock"`
	Stops     lock.Stops       `json:"stops,omitzero"`
	Tried     []Tried          `json:"tried,omitempty"` // leaf by leaf, from the first cut on
	Notes     []Note           `json:"notes,omitempty"`
	Signed    *Signed          `json:"signed,omitempty"`   // nil while the opening is worked on
	Reopened  []Reopened       `json:"reopened,omitempty"` // sign-offs that were taken back
	// Done holds, for each finished step, the plan's mark of that step at that time: a different mark now means that
	// inputs have changed.
	Done map[Step]string `json:"done,omitempty"`
	// Ticked are the finished cards of the work at the trestles, each named with the figures that it was done by: where
	// those have changed, it is open again.
	Ticked []string `json:"ticked,omitempty"`
}

// Service is a door that hangs already and is put right.
type Service struct {
	Wrong []Complaint `json:"wrong,omitempty"` // what is wrong with it
}

// Says reports whether something is wrong with the door.
func (s Service) Says(c Complaint) bool { return slices.Contains(s.Wrong, c) }

// Complaint is something that is wrong with a door that hangs.
type Complaint string

// What is wrong with doors that hang. Common practice.
const (
	Sticks      Complaint = "sticks"
	Springing   Complaint = "springs"
	Rattling    Complaint = "rattles"
	Drifting    Complaint = "drifts"
	MissesLatch Complaint = "latch"
	PaintedShut Complaint = "painted"
	BySeason    Complaint = "season"
)

// Complaints lists them.
var Complaints = []Complaint{Sticks, Springing, Rattling, Drifting, MissesLatch, PaintedShut, BySeason}

// Name is the complaint in a few words.
func (c Complaint) Name() message.ID { return "complaint." + message.ID(c) }

// Seen is the existing evidence of the hand (hinges, a keep): on which jamb, seen from the pull face; empty where there
// is none.
type Seen struct {
	Pockets frame.Hand `json:"pockets,omitempty"`
	Strike  frame.Hand `json:"strike,omitempty"`
}

// Pair makes an opening one for two leaves. The opening's own slab is the leaf on the hinge jamb.
type Pair struct {
	Slab    slab.Slab      `json:"slab"`             // the leaf on the lock jamb
	Meeting measure.Length `json:"meeting"`          // margin between the leaves
	Offset  measure.Length `json:"offset,omitempty"` // of the meeting line from midway, toward the lock jamb
	// whose leaf is bolted top and bottom and carries the strike: hinge or lock
	Fixed frame.Side     `json:"fixed"`
	Edges swing.Meets    `json:"edges,omitempty"` // how the meeting edges are worked
	Bolts string         `json:"bolts,omitempty"` // ID of the hardware that bolts the fixed leaf
	Holds Holds          `json:"holds,omitempty"` // what holds the fixed leaf
	Pulls bool           `json:"pulls,omitempty"` // the fixed leaf has show handles
	Lip   measure.Length `json:"lip,omitempty"`   // of rebated ones: how far they lap; nought trade.RebateLip
}

// Holds is what holds the fixed leaf of a pair.
type Holds string

// A fixed leaf is bolted top and bottom, or at its top alone, or has no bolt.
const (
	BothBolts Holds = ""
	TopBolt   Holds = "top"
	NoBolt    Holds = "none"
)

// AllHolds lists them.
var AllHolds = []Holds{BothBolts, TopBolt, NoBolt}

// Count is the number of bolts.
func (h Holds) Count() int { return map[Holds]int{BothBolts: 2, TopBolt: 1}[h] }

// Framed is the frame that is made to the slab; nil where there is a frame already.
func (o Opening) Framed() *lining.Choice {
	if o.Measuring != ToFrame {
		return nil
	}
	return o.Lining
}

// SlabOf is the slab of a leaf: 0 the one on the hinge jamb, 1 the other of a pair.
func (o Opening) SlabOf(leaf int) slab.Slab {
	if leaf == 1 {
		return o.Pair.Slab
	}
	return o.Slab
}

// Set is the set that the opening's slab hangs in as it comes; nil where there is none.
func (o Opening) Set() *lining.Choice {
	if c := o.Framed(); c != nil && c.Comes == lining.AsSet {
		return c
	}
	return nil
}

// Rebated is the depth of the frame's own rebate; nought where its stops are planted.
func (o Opening) Rebated() measure.Length {
	if c := o.Framed(); c != nil {
		return c.Rebate
	}
	return 0
}

// Laps is the overlap of rebated meeting edges.
func (p Pair) Laps() measure.Length {
	if p.Lip > 0 {
		return p.Lip
	}
	return trade.RebateLip
}

// Walls is the assumption about an opening before it is measured.
type Walls string

// An opening in a house that has settled, or a frame set with care.
const (
	Old Walls = "old"
	New Walls = "new"
)

// Measuring is a method of measuring an opening.
type Measuring string

// The methods of measuring.
const (
	AsItComes   Measuring = ""
	ByTape      Measuring = "tape"     // tape and level; the slab is cut on the trestles from the figures
	OfferedUp   Measuring = "offered"  // the slab is stood in the opening and its gaps are read
	FromOldDoor Measuring = "old-door" // the gaps round the old door, before it comes off
	ToFrame     Measuring = "frame"    // there is no frame, or it goes: one is made to the slab
)

// Measurings lists the methods.
var Measurings = []Measuring{AsItComes, ByTape, OfferedUp, FromOldDoor, ToFrame}

// Step is one step of the work at an opening.
type Step string

// Name is the name of a step.
func (s Step) Name() message.ID { return "step." + message.ID(s) }

// The steps, in trade order.
const (
	StepMeasure Step = "measure"
	StepSlab    Step = "slab"
	StepMargins Step = "margins"
	StepCut     Step = "cut"
	StepHinges  Step = "hinges"
	StepSwing   Step = "swing"
	StepTry     Step = "try"
	StepLock    Step = "lock"
	StepStops   Step = "stops"
	StepLog     Step = "log"
)

// Steps lists the steps in their usual order.
var Steps = []Step{
	StepMeasure, StepSlab, StepMargins, StepCut, StepHinges, StepSwing, StepTry, StepLock, StepStops, StepLog,
}

// Steps lists the steps of an opening in its own order: a lock that is bored on the trestles comes before the slab is
// tried.
func (o Opening) Steps() []Step {
	if o.Service != nil {
		return []Step{StepTry, StepLock, StepStops, StepLog}
	}
	if o.Set() != nil { // it is neither cut nor let in
		return []Step{StepMeasure, StepSlab, StepMargins, StepSwing, StepTry, StepLock, StepStops, StepLog}
	}
	if o.Lock.When != lock.First {
		return Steps
	}
	list := slices.DeleteFunc(slices.Clone(Steps), func(s Step) bool { return s == StepLock })
	return slices.Insert(list, slices.Index(list, StepTry), StepLock)
}

// Margins are the wanted margins. A side that is nil takes the school's.
type Margins struct {
	School string          `json:"school"` // ID of a trade.School
	Head   *measure.Length `json:"head,omitempty"`
	Hinge  *measure.Length `json:"hinge,omitempty"`
	Lock   *measure.Length `json:"lock,omitempty"`
	Foot   *measure.Length `json:"foot,omitempty"`
	Least  measure.Length  `json:"least"`
	Uneven measure.Length  `json:"uneven"`

	Paint measure.Length `json:"paint,omitempty"` // film still to come on each painted edge and its jamb, together
	Floor measure.Length `json:"floor,omitempty"` // of carpet or floor still to come
	Sweep bool           `json:"sweep,omitempty"` // a sweep or shoe is fitted at the foot: the foot is cut twice
	Seal  measure.Length `json:"seal,omitempty"`  // how far a drop seal in the foot drops; nought for none
}

// Own is the margin set by hand for a side; nil where the school's holds.
func (m Margins) Own(s frame.Side) *measure.Length {
	return frame.Each[*measure.Length]{
		frame.Head: m.Head, frame.Hinge: m.Hinge, frame.Lock: m.Lock, frame.Foot: m.Foot,
	}[s]
}

// Cut is how the slab is to be cut.
type Cut struct {
	Registration fit.Registration `json:"registration"`   // or ByRule
	Ends         fit.Ends         `json:"ends,omitempty"` // or ByRule
	LeaveOn      Habit            `json:"leaveOn"`
	Knowing      bool             `json:"knowing,omitempty"` // cut though the head's slope is hardly known
	Insert       Insert           `json:"insert,omitzero"`   // what closes a hollow slab that is cut open
	// straight, scribed, or ByRule: scribed where the margin is more uneven than accepted
	LockEdge Shape `json:"lockEdge,omitempty"`
	Head     Shape `json:"head,omitempty"`
	Means    Means `json:"means,omitzero"` // of each edge, where it is not decided by minutes
}

// Means is how each edge is cut where a hand chose it: trade.BySaw or trade.ByPlane; empty for the fewer minutes.
type Means struct {
	Head  trade.Means `json:"head,omitempty"`
	Hinge trade.Means `json:"hinge,omitempty"`
	Lock  trade.Means `json:"lock,omitempty"`
	Foot  trade.Means `json:"foot,omitempty"`
}

// Of is the choice for an edge.
func (m Means) Of(s frame.Side) trade.Means {
	return frame.Each[trade.Means]{frame.Head: m.Head, frame.Hinge: m.Hinge, frame.Lock: m.Lock, frame.Foot: m.Foot}[s]
}

// AllMeans lists the choices.
var AllMeans = []trade.Means{"", trade.BySaw, trade.ByPlane}

// Insert is the piece that closes a hollow slab: the rail of its offcut, or a new one, of a size that is at hand.
type Insert struct {
	New       bool           `json:"new,omitempty"`
	Width     measure.Length `json:"width,omitempty"` // nought as it has to be
	Thickness measure.Length `json:"thickness,omitempty"`
}

// Shape is the shape of an edge against a crooked side.
type Shape string

// The shapes.
const (
	Straight     Shape = "straight"
	Scribed      Shape = "scribed"
	ShapedByRule Shape = ByRule
)

var shapes = []Shape{"", ShapedByRule, Straight, Scribed}

// ByRule leaves a choice to the rules of fit.Choose.
const ByRule = "by-rule"

// Registrations and Ends are the valid values of Cut.
var (
	Registrations = append(append([]fit.Registration{ByRule}, fit.Registrations...), fit.AsOffered, fit.ShareWidth)
	Ends          = append(append([]fit.Ends{ByRule}, fit.AllEnds...), fit.ShareLength, fit.MeetStrike)
)

// Habit is the rule for wood left on at the first cut.
type Habit string

// The habits.
const (
	WhenSure Habit = "when-sure" // only what the risk asks for
	Always3  Habit = "always-3"  // on the lock edge and the foot, as beginners do
	ToLine   Habit = "to-line"   // nothing, whatever the risk
)

// Habits lists the rules.
var Habits = []Habit{WhenSure, Always3, ToLine}

// NewJob returns an empty job in a unit, with that unit's finer tape.
func NewJob(id, name string, unit measure.Unit) Job {
	return Job{ID: id, Name: name, Unit: unit, Tape: measure.UsualTape(unit), Openings: []Opening{}}
}

// NewOpening returns an opening with a unit's default choices and no readings.
func NewOpening(id, name string, unit measure.Unit) Opening {
	const mm, in = measure.Millimetre, measure.Inch
	o := Opening{
		ID: id, Name: name, Hand: frame.Left, Walls: Old,
		Readings: []survey.Reading{},
		Margins:  Margins{School: "painted", Least: 3 * mm / 2, Uneven: mm / 2},
		Cut:      Cut{Registration: ByRule, Ends: ByRule, LeaveOn: WhenSure},
		Hinges:   hinge.Choice{From: "6and9", Count: 2, Leaf: 75 * mm, Width: 29 * mm, Plate: 2 * mm, Closed: 7 * mm},
		Lock:     lock.Choice{From: lock.FromHandle, Handle: trade.HandleHeight.Usual, Backset: 60 * mm, Bore: 22 * mm},
	}
	if unit == measure.Inches {
		o.Margins.School, o.Margins.Least, o.Margins.Uneven = "inch", in/16, in/32
		o.Hinges = hinge.Choice{
			From: "6and9in", Count: 2, Leaf: 7 * in / 2, Width: 9 * in / 8, Plate: 5 * in / 64, Closed: 9 * in / 32,
		}
		o.Lock = lock.Choice{From: lock.FromHandle, Handle: 39 * in, Backset: 19 * in / 8, Bore: 7 * in / 8}
	}
	return o
}
