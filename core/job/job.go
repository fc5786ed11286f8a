// Package job is what is kept of the work, door by door, and the plan that
// is worked out from it.
package job

import (
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Job is a house's doors, in the order of the walk.
type Job struct {
	ID       string       `json:"id"`
	Name     string       `json:"name"`
	Unit     measure.Unit `json:"unit"`
	Tape     measure.Tape `json:"tape"`
	Presets  []Preset     `json:"presets,omitempty"` // margins of one's own, for every door of the job
	Openings []Opening    `json:"openings"`
}

// Preset is a set of margins under a name.
type Preset struct {
	Name    string  `json:"name"`
	Margins Margins `json:"margins"`
}

// Opening is one door's opening with all that was read and chosen for it.
type Opening struct {
	ID       string           `json:"id"`
	Name     string           `json:"name"`
	Room     string           `json:"room,omitempty"`
	Hand     frame.Hand       `json:"hand"`
	Walls    Walls            `json:"walls"`
	Between  measure.Length   `json:"between,omitempty"` // between what stands left and right of the opening
	Sure     measure.Length   `json:"sure,omitempty"`    // sure enough: the standard deviation asked of every margin
	Offers   []survey.Offer   `json:"offers,omitempty"`  // placings of a slab or of the old door
	Readings []survey.Reading `json:"readings"`
	Slab     slab.Slab        `json:"slab"`
	Pair     *Pair            `json:"pair,omitempty"` // nil for a single door
	Margins  Margins          `json:"margins"`
	Cut      Cut              `json:"cut"`
	Hinges   hinge.Choice     `json:"hinges"`
	Lock     lock.Choice      `json:"lock"`
	// Done holds, for each step that was finished, the plan's mark of that
	// step when it was: where the mark has changed since, inputs have.
	Done map[Step]string `json:"done,omitempty"`
}

// Pair is what makes an opening one for two leaves. The opening's own slab is
// the leaf on the hinge jamb.
type Pair struct {
	Slab    slab.Slab      `json:"slab"`             // the leaf on the lock jamb
	Meeting measure.Length `json:"meeting"`          // margin between the leaves
	Offset  measure.Length `json:"offset,omitempty"` // of the meeting line from midway, toward the lock jamb
	Fixed   frame.Side     `json:"fixed"`            // whose leaf is bolted top and bottom and carries the strike: hinge or lock
}

// Walls says what is believed of an opening before it is measured.
type Walls string

// An opening in a house that has settled, or a frame set by a careful hand.
const (
	Old Walls = "old opening"
	New Walls = "new frame"
)

// Step is one notch of the rod.
type Step string

// The steps in trade order.
const (
	StepMeasure Step = "measure"
	StepSlab    Step = "slab"
	StepMargins Step = "margins"
	StepCut     Step = "cut"
	StepHinges  Step = "hinges"
	StepLock    Step = "lock"
)

// Steps lists them.
var Steps = []Step{StepMeasure, StepSlab, StepMargins, StepCut, StepHinges, StepLock}

// Margins is what is wanted of the light round the door. A side that is nil
// takes the school's margin.
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
}

// Own is the margin set by hand for a side; nil where the school's holds.
func (m Margins) Own(s frame.Side) *measure.Length {
	return frame.Each[*measure.Length]{frame.Head: m.Head, frame.Hinge: m.Hinge, frame.Lock: m.Lock, frame.Foot: m.Foot}[s]
}

// check reports what cannot be in a set of margins that stands at a pointer.
func (m Margins) check(u measure.Unit, at string, bad *FieldErrors) {
	if _, ok := trade.SchoolByID(m.School); !ok {
		bad.add(at+"/school", "There is no school of margins %q.", short(m.School))
	}
	for _, side := range frame.Sides {
		most := 15 * measure.Millimetre
		if side == frame.Foot {
			most = 60 * measure.Millimetre
		}
		if own := m.Own(side); own != nil && (*own < 0 || *own > most) {
			bad.add(at+"/"+side.String(), "%s is no margin for the %v (up to %s).", measure.Say(*own, u), side, measure.Say(most, u))
		}
	}
	if m.Least < 0 || m.Least > 10*measure.Millimetre {
		bad.add(at+"/least", "%s is no least margin (0 to %s).", measure.Say(m.Least, u), measure.Say(10*measure.Millimetre, u))
	}
	if m.Uneven < 0 || m.Uneven > 5*measure.Millimetre {
		bad.add(at+"/uneven", "%s is no unevenness to accept (0 to %s).", measure.Say(m.Uneven, u), measure.Say(5*measure.Millimetre, u))
	}
	if m.Paint < 0 || m.Paint > 3*measure.Millimetre {
		bad.add(at+"/paint", "%s is no film of paint (up to %s).", measure.Say(m.Paint, u), measure.Say(3*measure.Millimetre, u))
	}
	if m.Floor < 0 || m.Floor > 60*measure.Millimetre {
		bad.add(at+"/floor", "%s is no floor still to come (up to %s).", measure.Say(m.Floor, u), measure.Say(60*measure.Millimetre, u))
	}
}

// Cut is how the slab is cut.
type Cut struct {
	Registration string `json:"registration"`   // a fit.Registration, or ByRule
	Ends         string `json:"ends,omitempty"` // a fit.Ends, or ByRule
	LeaveOn      Habit  `json:"leaveOn"`
	Knowing      bool   `json:"knowing,omitempty"` // cut though the head's slope is hardly known
	// Straight or scribed, or ByRule: scribed where straightness costs more than
	// the unevenness accepted.
	LockEdge string `json:"lockEdge,omitempty"`
	Head     string `json:"head,omitempty"`
}

// The two ways to shape an edge against a crooked side.
const (
	Straight = "straight"
	Scribed  = "scribed"
)

var shapes = []string{"", ByRule, Straight, Scribed}

// ByRule leaves a choice to the rules of fit.Choose.
const ByRule = "by rule"

// Habit is what is left on at the first cut.
type Habit string

// The habits.
const (
	WhenSure Habit = "cut once when sure" // only what the risk asks for
	Always3  Habit = "always leave 3 mm"  // on the lock edge and the foot, as beginners do
	ToLine   Habit = "cut to the line"    // nothing, whatever the risk
)

// Habits lists them.
var Habits = []Habit{WhenSure, Always3, ToLine}

// NewJob is an empty job in a unit, with that unit's finer tape.
func NewJob(id, name string, unit measure.Unit) Job {
	return Job{ID: id, Name: name, Unit: unit, Tape: measure.Tapes(unit)[0], Openings: []Opening{}}
}

// NewOpening is an opening with the usual choices of a unit and no readings.
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
		o.Hinges = hinge.Choice{From: "6and9in", Count: 2, Leaf: 7 * in / 2, Width: 9 * in / 8, Plate: 5 * in / 64, Closed: 9 * in / 32}
		o.Lock = lock.Choice{From: lock.FromHandle, Handle: 39 * in, Backset: 19 * in / 8, Bore: 7 * in / 8}
	}
	return o
}

// FieldError is one field of a job or opening that cannot be.
type FieldError struct {
	Pointer string // JSON pointer (RFC 6901) from the opening or job checked
	Problem string // a sentence
}

func (e FieldError) Error() string { return e.Problem }

// FieldErrors are all the fields of an opening or a job that cannot be.
type FieldErrors []FieldError

func (e FieldErrors) Error() string {
	s := make([]string, len(e))
	for i, f := range e {
		s[i] = f.Pointer + ": " + f.Problem
	}
	return strings.Join(s, "\n")
}

// add keeps one more; after the first few, more would not be read.
func (e *FieldErrors) add(pointer, format string, a ...any) {
	if len(*e) < mostErrors {
		*e = append(*e, FieldError{pointer, fmt.Sprintf(format, a...)})
	}
}

// What is held at most.
const (
	MostOpenings = 5000 // in a job
	mostReadings = 1000 // in an opening
	longestName  = 120  // letters
	longestID    = 40
	mostErrors   = 20
)

// letters counts what a person would count.
func letters(s string) int { return utf8.RuneCountInString(s) }

// named reports whether a name says something and is not too long, and is plain
// text.
func named(s string) bool {
	return strings.TrimSpace(s) != "" && letters(s) <= longestName && plain(s)
}

func plain(s string) bool { return !strings.ContainsFunc(s, unicode.IsControl) }

// identifies reports whether an ID is like those given here: it stands in
// addresses.
func identifies(id string) bool {
	return id != "" && len(id) <= longestID && strings.IndexFunc(id, func(r rune) bool {
		return !(r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' || strings.ContainsRune("-_.", r))
	}) < 0 && strings.Trim(id, ".") != ""
}

const idAdvice = "1 to 40 letters a to z, digits, dots, hyphens or underscores"

// Check reports every field that cannot be, as FieldErrors worded in the
// unit of the job; nil when there is none. What is merely missing yet is
// Solve's to say.
func (o Opening) Check(u measure.Unit) error {
	var bad FieldErrors
	if !named(o.Name) {
		bad.add("/name", "Give the opening a name of 1 to %d letters, such as the room it leads to.", longestName)
	}
	if letters(o.Room) > longestName || !plain(o.Room) {
		bad.add("/room", "Keep the room under %d letters, on one line.", longestName)
	}
	if o.Hand != frame.Left && o.Hand != frame.Right {
		bad.add("/hand", "The hinges are on the left or the right, seen from the pull face, not on %q.", short(string(o.Hand)))
	}
	if o.Walls != Old && o.Walls != New {
		bad.add("/walls", "The opening is an %q or a %q, not %q.", Old, New, short(string(o.Walls)))
	}
	if o.Between < 0 || o.Between > measure.Longest {
		bad.add("/between", "%s is no wall: measure between what stands left and right of the opening.", measure.Say(o.Between, u))
	}
	if len(o.Readings) > mostReadings {
		bad.add("/readings", "%d readings are more than %d: keep those you trust.", len(o.Readings), mostReadings)
		return bad
	}
	if o.Sure < 0 || o.Sure > 10*measure.Millimetre {
		bad.add("/sure", "%s is no sureness to ask for (up to %s; nothing for the usual).", measure.Say(o.Sure, u), measure.Say(10*measure.Millimetre, u))
	}
	offers := map[string]bool{}
	if len(o.Offers) > 20 {
		bad.add("/offers", "%d placings are more than 20: keep those that are used.", len(o.Offers))
		return bad
	}
	for i, f := range o.Offers {
		at := "/offers/" + strconv.Itoa(i)
		if !identifies(f.ID) || offers[f.ID] {
			bad.add(at+"/id", "Each placing needs an id of its own (%s); %q is none, or is used twice.", idAdvice, short(f.ID))
		}
		offers[f.ID] = true
		if !named(f.Name) {
			bad.add(at+"/name", "Say what stood in the opening, in 1 to %d letters.", longestName)
		}
		var se *slab.Error
		if errors.As((slab.Slab{Width: f.Width, Length: f.Length, WidthMid: f.WidthMid, WidthFoot: f.WidthFoot, LengthLock: f.LengthLock}).Check(u), &se) {
			bad.add(at+"/"+se.Field, "%s", se.Problem)
		} else if f.Width == 0 || f.Length == 0 {
			bad.add(at+"/width", "Give the width and the length of what stood in the opening.")
		} else if f.Square != nil && f.Square.Abs() > 30*measure.Millimetre {
			bad.add(at+"/square", "%s out of square is no door: measure it again.", measure.Say(*f.Square, u))
		}
	}
	seen := map[string]bool{}
	for i, r := range o.Readings {
		at := "/readings/" + strconv.Itoa(i)
		if !identifies(r.ID) || seen[r.ID] {
			bad.add(at+"/id", "Each reading needs an id of its own (%s); %q is none, or is used twice.", idAdvice, short(r.ID))
		}
		seen[r.ID] = true
		var re *survey.ReadingError
		if errors.As(r.Check(u), &re) {
			bad.add(at+"/"+re.Field, "%s", re.Problem)
		} else if r.Kind == survey.Gap && !offers[r.Offer] {
			bad.add(at+"/offer", "There is no placing %q: say which slab stood there.", short(r.Offer))
		} else if r.Kind == survey.Width && o.Between > 0 && r.Value > o.Between {
			bad.add(at+"/value", "%s is wider than the %s between what stands left and right of the opening: read both again.",
				measure.Say(r.Value, u), measure.Say(o.Between, u))
		}
	}
	var se *slab.Error
	if errors.As(o.Slab.Check(u), &se) {
		bad.add("/slab/"+se.Field, "%s", se.Problem)
	}
	if p := o.Pair; p != nil {
		if errors.As(p.Slab.Check(u), &se) {
			bad.add("/pair/slab/"+se.Field, "%s", se.Problem)
		}
		if p.Meeting < 0 || p.Meeting > 20*measure.Millimetre {
			bad.add("/pair/meeting", "%s is no margin between two leaves (up to %s).", measure.Say(p.Meeting, u), measure.Say(20*measure.Millimetre, u))
		}
		if p.Offset.Abs() > measure.Metre {
			bad.add("/pair/offset", "The meeting line cannot stand %s from midway.", measure.Say(p.Offset, u))
		}
		if !p.Fixed.Upright() {
			bad.add("/pair/fixed", "One leaf is bolted: the one on the hinge jamb or the one on the lock jamb.")
		}
	}
	o.Margins.check(u, "/margins", &bad)
	if e := o.Cut.Ends; e != "" && !slices.Contains(allEnds, e) {
		bad.add("/cut/ends", "There is no way of sharing the length called %q: use %s.", short(e), strings.Join(allEnds, ", "))
	}
	if !slices.Contains(registrations, o.Cut.Registration) {
		bad.add("/cut/registration", "There is no way of laying the slab called %q: use %s.", short(o.Cut.Registration), strings.Join(registrations, ", "))
	}
	for _, edge := range []struct{ field, shape string }{{"lockEdge", o.Cut.LockEdge}, {"head", o.Cut.Head}} {
		if !slices.Contains(shapes, edge.shape) {
			bad.add("/cut/"+edge.field, "An edge is straight or scribed, or as the rules say, not %q.", short(edge.shape))
		}
	}
	if !slices.Contains(Habits, o.Cut.LeaveOn) {
		bad.add("/cut/leaveOn", "There is no habit called %q.", short(string(o.Cut.LeaveOn)))
	}
	var he *hinge.Error
	if errors.As(o.Hinges.Check(u), &he) {
		bad.add("/hinges/"+he.Field, "%s", he.Problem)
	}
	if o.Slab.Thickness > 0 && o.Hinges.Width > o.Slab.Thickness {
		bad.add("/hinges/width", "The leaf, %s wide, is wider than the slab is thick, %s: use a narrower hinge.",
			measure.Say(o.Hinges.Width, u), measure.Say(o.Slab.Thickness, u))
	}
	var le *lock.Error
	if errors.As(o.Lock.Check(u), &le) {
		bad.add("/lock/"+le.Field, "%s", le.Problem)
	}
	for step, mark := range o.Done {
		if !slices.Contains(Steps, step) {
			bad.add("/done", "There is no step called %q.", short(string(step)))
		} else if len(mark) > 64 {
			bad.add("/done/"+string(step), "That is no mark of a finished step.")
		}
	}
	if len(bad) > 0 {
		return bad
	}
	return nil
}

// CheckHead reports what cannot be in the job itself, its openings apart.
func (j Job) CheckHead() error {
	var bad FieldErrors
	if !named(j.Name) {
		bad.add("/name", "Give the job a name of 1 to %d letters, such as the house.", longestName)
	}
	if j.Unit != measure.Millimetres && j.Unit != measure.Inches {
		bad.add("/unit", "A job is worked in mm or in, not in %q.", short(string(j.Unit)))
	} else if !slices.Contains(measure.Tapes(j.Unit), j.Tape) {
		bad.add("/tape", "A job in %s is cut to %v, not to %q.", j.Unit, measure.Tapes(j.Unit), j.Tape)
	}
	if len(j.Presets) > 50 {
		bad.add("/presets", "%d presets are more than 50: keep those that are used.", len(j.Presets))
		return bad
	}
	for i, p := range j.Presets {
		at := "/presets/" + strconv.Itoa(i)
		same := slices.ContainsFunc(j.Presets[:i], func(q Preset) bool { return q.Name == p.Name })
		if !named(p.Name) || same {
			bad.add(at+"/name", "Give the preset a name of its own, of 1 to %d letters.", longestName)
		}
		p.Margins.check(j.Unit, at+"/margins", &bad)
	}
	if len(bad) > 0 {
		return bad
	}
	return nil
}

// Check reports every field that cannot be in the job and its openings, as
// FieldErrors; nil when there is none.
func (j Job) Check() error {
	var bad FieldErrors
	var head FieldErrors
	if errors.As(j.CheckHead(), &head) {
		bad = append(bad, head...)
	}
	if j.ID != "" && !identifies(j.ID) {
		bad.add("/id", "A job's id is %s; %q is none.", idAdvice, short(j.ID))
	}
	if len(j.Openings) > MostOpenings {
		bad.add("/openings", "%d doors are more than the %d that a job holds: share them between two jobs.", len(j.Openings), MostOpenings)
		return bad
	}
	seen := map[string]bool{}
	for i, o := range j.Openings {
		if len(bad) == mostErrors {
			break
		}
		at := "/openings/" + strconv.Itoa(i)
		if !identifies(o.ID) || seen[o.ID] {
			bad.add(at+"/id", "Each opening needs an id of its own (%s); %q is none, or is used twice.", idAdvice, short(o.ID))
		}
		seen[o.ID] = true
		var own FieldErrors
		if errors.As(o.Check(j.Unit), &own) {
			for _, f := range own {
				bad.add(at+f.Pointer, "%s", f.Problem)
			}
		}
	}
	if len(bad) > 0 {
		return bad
	}
	return nil
}
