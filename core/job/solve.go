package job

import (
	"errors"
	"fmt"
	"hash/fnv"
	"math"
	"slices"
	"strconv"
	"strings"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// registrations and allEnds are what Cut may hold.
var registrations, allEnds = func() (across, along []string) {
	across, along = []string{ByRule}, []string{ByRule}
	for _, r := range fit.Registrations {
		across = append(across, string(r))
	}
	for _, e := range fit.AllEnds {
		along = append(along, string(e))
	}
	return append(across, string(fit.AsOffered), string(fit.ShareWidth)), append(along, string(fit.ShareLength), string(fit.MeetStrike))
}()

// Weight says what a finding asks for.
type Weight string

// A finding stops the work, asks for care, or is worth knowing.
const (
	Stop Weight = "stop"
	Care Weight = "care"
	Note Weight = "note"
)

// Finding is something to say about a door: what, and what to do.
type Finding struct {
	Weight  Weight
	Step    Step
	Pointer string // JSON pointer to the field it is about; may be empty
	Text    string
}

// State of a notch on the rod.
type State string

// A notch waits for earlier steps, is open, was cut (done), or is nicked:
// done, but its inputs have changed since.
const (
	Waits  State = "waits"
	Open   State = "open"
	Done   State = "done"
	Nicked State = "nicked"
)

// Notch is one step as it stands.
type Notch struct {
	Step  Step
	State State
	Says  string // what it waits for or what to do, in a few words
	Mark  string // what Opening.Done holds when it is finished as it now is
}

// Suggestion is a reading that is worth taking next.
type Suggestion struct {
	Reading survey.Reading // without a value
	Name    string
	How     string
	Brings  string // what it would make surer, and how far
	Needed  bool   // no answer without it
}

// MarginFigure is the light at one end of a side.
type MarginFigure struct {
	Side   frame.Side
	Where  string
	Figure figure.Figure
}

// EdgeCut is what comes off one edge at the first cut.
type EdgeCut struct {
	Side   frame.Side
	Marks  []MarkFigure
	Method string
	Says   string
	Left   figure.Figure // left on for now
	Passes []fit.Pass    // of a plane, a millimetre at a time; empty where a saw goes first
}

// MarkFigure is one mark of a cut.
type MarkFigure struct {
	At    measure.Length // along the edge of the uncut slab
	Depth figure.Figure
}

// Alternative is another way of laying the slab, and what it costs.
type Alternative struct {
	fit.Laying
	Chosen      bool
	Hinge, Lock [2]measure.Length // off at head and foot
	Head, Foot  measure.Length    // most off
	Short       bool
	Over        []frame.Side // edges that lose more than they may
}

// HingePlan is one hinge on slab and jamb.
type HingePlan struct {
	Name string
	hinge.Mark
	// Pack is what goes behind the jamb leaf to keep the pins on one line and
	// the margin as planned; below nought, how much deeper its pocket goes.
	Pack figure.Figure
}

// Gauges are the two settings of a marking gauge that do a whole house, and
// what they leave.
type Gauges struct {
	Depth, Width measure.Length // leaf thickness, leaf width
	Setback      measure.Length
	Flush        figure.Figure // the hinge margin with both leaves flush
}

// mostSettled is how many readings a survey may have for its clash to be settled
// beforehand: past it, each plan takes a second.
const mostSettled = 200

// Clash is a reading that the others contradict.
type Clash struct {
	Reading survey.Reading
	Or      []survey.Reading // would explain it as well
	Swapped *survey.Reading  // was written down for it, and the other way round
	Again   survey.Reading   // to read next: the reading itself, or what tells most; without an ID where it is a new one
	Text    string
}

// Settled is the plan with a clash settled one way: a reading struck out, or two
// values changed round.
type Settled struct {
	Reading survey.Reading
	Swapped *survey.Reading
	Plan    *Plan
}

// Drawing is what the daylight drawing is made of, in mm in the hung frame.
type Drawing struct {
	Width, Height float64    // of the slab, greatest
	Corners       [4]Point   // finished slab: top hinge, top lock, foot lock, foot hinge
	Light         []Light    // four sides, in the order of frame.Sides
	HingeTops     []float64  // y of each leaf's top
	Leaf          float64    // length of a leaf
	Latch         float64    // y, 0 where unknown
	Wanted        [5]float64 // by frame.Side
	Least, Uneven float64
	Readings      []Place
}

// Point is a place in the drawing.
type Point struct{ X, Y float64 }

// Light is the margin along one side.
type Light struct {
	Side frame.Side
	Gaps []fit.Gap
}

// Place is where a reading was taken, for the drawing.
type Place struct {
	ID     string
	Kind   survey.Kind
	Side   frame.Side
	At     float64
	From   float64
	To     float64
	Clash  bool
	Wanted bool // not read yet: the next to take
}

// Plan is the whole answer for one opening, as far as its inputs go.
type Plan struct {
	Notches  []Notch
	Next     Step
	Findings []Finding
	// Clashes are readings that contradict the others. While there are any, every
	// figure that hangs on the readings is doubtful: nothing is cut or marked to it.
	Clashes []Clash
	// Without are the plans that settling the first clash would give.
	Without  []Settled
	ToRead   []Suggestion
	Margins  []MarginFigure
	Sureness frame.Each[float64] // worst sigma of a margin on each side, mm
	Width    []figure.Figure     // of the slab after the first cut: head, middle, foot
	Length   []figure.Figure     // hinge edge, middle, lock edge
	Finished [2]figure.Figure    // greatest finished width and length wanted of a slab
	Cuts     []EdgeCut           // in trade order; empty without a slab
	Laying   fit.Laying          // as chosen
	Rules    []string            // what decided it, in order; empty where it was forced
	Others   []Alternative
	Inserts  []fit.Insert
	Weight   float64 // of the uncut slab, kg
	Hinges   []HingePlan
	Gauges   Gauges
	Latch    *lock.Plan
	Wanted   frame.Each[figure.Figure]
	Drawing  Drawing
	// Second is, for a pair, the plan of the leaf on the lock jamb, as that leaf
	// sees the opening: its own jamb is the hinge jamb, the meeting line the lock
	// jamb. Its notches and readings are the first leaf's.
	Second *Plan

	ready map[Step]bool
}

func median(v []float64) float64 {
	slices.Sort(v)
	return v[len(v)/2]
}

// Solve works out the plan of one opening. It never fails: what is missing or
// clashes is said in Findings, and everything that does not hang on it is
// still answered. It is a pure function of its arguments.
func Solve(j Job, o Opening) Plan {
	plan := solve(j, o)
	if len(plan.Clashes) == 0 || len(o.Readings) > mostSettled {
		return plan
	}
	c := plan.Clashes[0]
	ways := append([]survey.Reading{c.Reading}, c.Or...)
	for _, r := range ways[:min(len(ways), 3)] {
		settled := o
		settled.Readings = slices.Clone(o.Readings)
		for i := range settled.Readings {
			own := &settled.Readings[i]
			switch {
			case c.Swapped != nil && own.ID == r.ID:
				own.Value = c.Swapped.Value
			case c.Swapped != nil && own.ID == c.Swapped.ID:
				own.Value = r.Value
			case own.ID == r.ID:
				own.Struck = "left out to see"
			}
		}
		other := solve(j, settled)
		plan.Without = append(plan.Without, Settled{r, c.Swapped, &other})
	}
	return plan
}

func solve(j Job, o Opening) Plan {
	if o.Pair == nil {
		return solveLeaf(j, o, 0, nil)
	}
	far := o
	far.Slab = o.Pair.Slab
	second := solveLeaf(j, far, 2, nil)
	return solveLeaf(j, o, 1, &second)
}

// solveLeaf works out one leaf: 0 for a single door, 1 and 2 for the leaves of
// a pair.
func solveLeaf(j Job, o Opening, leaf int, second *Plan) Plan {
	s := solver{job: j, o: o, unit: j.Unit, tape: j.Tape, leaf: leaf}
	s.plan.Second = second
	s.survey()
	s.outline()
	s.suggest()
	s.cut()
	s.hinges()
	s.latch()
	s.sizes()
	s.rod()
	return s.plan
}

// solver carries what one stage hands the next, in trade order.
type solver struct {
	job  Job
	o    Opening
	unit measure.Unit
	tape measure.Tape
	leaf int
	plan Plan

	readings      []survey.Reading // those that can be
	widths        int
	heights       int
	width, height float64 // nominal
	shape         *survey.Shape
	drawn         fit.Outline
	ok            bool // drawn can be used
	leave         frame.Each[float64]
	laid          *fit.Laid
	corner        [2]figure.Figure // head margin at the hinge and at the lock corner
}

func (s *solver) say(w Weight, step Step, pointer, format string, a ...any) {
	if s.leaf == 2 && strings.HasPrefix(pointer, "/slab") {
		pointer = "/pair" + pointer
	}
	for i, x := range a {
		if l, ok := x.(measure.Length); ok {
			a[i] = measure.Say(l.Round(s.tape.Step(), measure.Nearest), s.unit)
		}
	}
	s.plan.Findings = append(s.plan.Findings, Finding{w, step, pointer, fmt.Sprintf(format, a...)})
}

// est is an estimate as a term can hold it.
func (s *solver) est(mm float64) measure.Length {
	return measure.FromMM(mm).Round(figure.Quantum(s.unit), measure.Nearest)
}

// survey estimates the shape from the readings that can be.
func (s *solver) survey() {
	var widths, heights []float64
	for i, r := range s.o.Readings {
		if err := r.Check(s.unit); err != nil {
			s.say(Stop, StepMeasure, "/readings/"+strconv.Itoa(i)+"/value", "%v", err)
			continue
		}
		if r.Struck != "" {
			continue
		}
		switch r.Kind {
		case survey.Width:
			widths = append(widths, r.Value.MM())
		case survey.Height:
			heights = append(heights, r.Value.MM())
		}
		s.readings = append(s.readings, r)
	}
	s.widths, s.heights = len(widths), len(heights)
	s.offered(&widths, &heights)
	s.width, s.height = 800, 2020
	if l := s.o.Slab; l.Width > 0 && l.Length > 0 {
		s.width, s.height = l.Width.MM(), l.Length.MM()
	}
	if len(widths) > 0 {
		s.width = median(widths)
	}
	if len(heights) > 0 {
		s.height = median(heights)
	}
	prior := survey.OldOpening(s.width, s.height)
	if s.o.Walls == New {
		prior = survey.NewFrame(s.width, s.height)
	}
	var fits []survey.Reading
	for _, r := range s.readings {
		if reach := placeOf(r); reach.limit(s.width, s.height) {
			fits = append(fits, r)
			continue
		}
		i := slices.IndexFunc(s.o.Readings, func(x survey.Reading) bool { return x.ID == r.ID })
		s.say(Stop, StepMeasure, "/readings/"+strconv.Itoa(i)+"/at", "The %s was read outside the opening, which is about %v by %v: correct its place. It is left out until then.",
			r.Name(s.unit), measure.FromMM(s.width), measure.FromMM(s.height))
	}
	prior.Tape = s.tape.Step().MM()
	shape, err := survey.Learn(fits, s.o.Offers, prior)
	if err != nil { // cannot be: every reading was checked and the prior is ours
		s.say(Stop, StepMeasure, "/readings", "The readings cannot be combined: %v.", err)
		shape, _ = survey.Estimate(nil, nil, prior)
	}
	s.shape = shape
	s.clashes()
	if s.widths == 0 {
		s.say(Stop, StepMeasure, "", "No width has been read: take one at the top hinge's height first.")
	}
	if s.heights == 0 {
		s.say(Stop, StepMeasure, "", "No floor-to-head height has been read: take one beside the hinge jamb.")
	}
}

// clashes says which readings the others contradict, and what would settle it.
func (s *solver) clashes() {
	for _, x := range s.shape.Suspects() {
		c := Clash{Reading: x.Reading, Or: x.Or, Again: x.Reading}
		i := slices.IndexFunc(s.o.Readings, func(r survey.Reading) bool { return r.ID == x.Reading.ID })
		name := x.Reading.Name(s.unit)
		text := fmt.Sprintf("The %s reads %s, but the others say about %s", name, measure.Say(x.Reading.Value, s.unit), s.about(x.Predicted))
		switch {
		case x.Swapped != nil:
			c.Swapped = x.Swapped
			text = fmt.Sprintf("The %s (%s) and the %s (%s) look as if each was written down for the other. Read one of them again, or change them round.",
				name, measure.Say(x.Reading.Value, s.unit), x.Swapped.Name(s.unit), measure.Say(x.Swapped.Value, s.unit))
		case len(x.Or) > 0:
			if slip := x.Slip(); slip != "" {
				text += ": perhaps " + slip
			}
			names := make([]string, len(x.Or))
			for k, r := range x.Or {
				names[k] = fmt.Sprintf("the %s (%s)", r.Name(s.unit), measure.Say(r.Value, s.unit))
			}
			text += ". It would be as well explained if " + or(names) + " were wrong, and nothing tells which is."
			if r, ok := s.shape.Split(x, survey.Candidates(measure.FromMM(s.width), measure.FromMM(s.height), s.unit)); ok {
				c.Again = r
				again := "Read the " + r.Name(s.unit)
				if r.ID != "" {
					again += " again"
				}
				text += " " + again + ": that tells most."
			}
		default:
			if slip := x.Slip(); slip != "" {
				text += ": perhaps " + slip
			}
			text += ". Read it again, or strike it out."
		}
		c.Text = text
		s.plan.Clashes = append(s.plan.Clashes, c)
		s.say(Stop, StepMeasure, "/readings/"+strconv.Itoa(i)+"/value", "%s", text)
	}
}

// about is an estimate for a sentence, to the tape.
func (s *solver) about(mm float64) string {
	return measure.Say(measure.FromMM(mm).Round(s.tape.Step(), measure.Nearest), s.unit)
}

func or(words []string) string {
	if len(words) == 1 {
		return words[0]
	}
	return strings.Join(words[:len(words)-1], ", ") + " or " + words[len(words)-1]
}

// offered counts what a slab offered up tells: gaps at both edges are a
// width, gaps at head and foot a height.
func (s *solver) offered(widths, heights *[]float64) {
	for _, f := range s.o.Offers {
		var gap frame.Each[float64]
		var seen frame.Each[bool]
		for _, r := range s.readings {
			if r.Kind == survey.Gap && r.Offer == f.ID {
				gap[r.Side], seen[r.Side] = r.Value.MM(), true
			}
		}
		if seen[frame.Hinge] && seen[frame.Lock] {
			s.widths++
			*widths = append(*widths, f.Width.MM()+gap[frame.Hinge]+gap[frame.Lock])
		}
		if seen[frame.Head] && seen[frame.Foot] {
			s.heights++
			*heights = append(*heights, f.Length.MM()+gap[frame.Head]+gap[frame.Foot])
		}
	}
}

type extent struct{ across, up float64 }

func placeOf(r survey.Reading) (e extent) {
	at := max(r.At, r.From).MM()
	switch r.Kind {
	case survey.Height, survey.Level:
		e.across = at
	case survey.Square:
		e.across, e.up = at, at
	case survey.Straight:
		at = r.To.MM()
		fallthrough
	case survey.Gap:
		if r.Side.Upright() {
			e.up = at
		} else {
			e.across = at
		}
	case survey.Diagonal:
	default:
		e.up = at
	}
	return e
}

// limit allows a reading a little outside, since the nominal size is rough.
func (e extent) limit(width, height float64) bool { return e.across <= width+30 && e.up <= height+30 }

// sureEnough is the standard deviation asked of every margin, in mm.
func (s *solver) sureEnough() float64 {
	if s.o.Sure > 0 {
		return s.o.Sure.MM()
	}
	return usualSure
}

// usualSure is the sureness asked for where none is set, in mm: in an old
// opening the readings offered reach it in thirteen, half a millimetre in
// twenty-eight; leave-on pays for the difference.
const usualSure = 0.9

// suggest lists the readings worth taking next: first one width and one
// height, without which there is no answer; then, until every margin is sure
// enough, those that help most.
func (s *solver) suggest() {
	at, edge := s.first()
	needed := func(r survey.Reading, what string) {
		s.plan.ToRead = append(s.plan.ToRead, Suggestion{r, r.Name(s.unit), r.How(s.unit), what, true})
	}
	if s.widths == 0 {
		needed(survey.Reading{Kind: survey.Width, At: at}, "no answer without a width")
	}
	if s.heights == 0 {
		needed(survey.Reading{Kind: survey.Height, At: edge}, "no answer without a height")
	}
	if !s.answers() || !s.ok {
		return
	}
	worst := 0.0
	var rows []survey.Row
	for _, w := range s.drawn.Wanted {
		rows = append(rows, w.Row)
	}
	for _, sd := range s.plan.Sureness {
		worst = max(worst, sd)
	}
	if worst <= s.sureEnough() {
		return
	}
	width, height := measure.FromMM(s.width), measure.FromMM(s.height)
	for i, g := range s.shape.Best(rows, survey.Candidates(width, height, s.unit)) {
		if i == 4 || g.Worth < 0.01 {
			break
		}
		w := s.drawn.Wanted[g.Figure]
		brings := fmt.Sprintf("%v margin, %s: %s", w.Side, ends[w.Side][w.Where], s.surer(g))
		s.plan.ToRead = append(s.plan.ToRead, Suggestion{g.Reading, g.Reading.Name(s.unit), g.Reading.How(s.unit), brings, false})
	}
}

// surer says what a reading would bring.
func (s *solver) surer(g survey.Gain) string {
	from, to := s.sigma(g.From), s.sigma(g.To)
	if from == to { // less than the marks of the tape tell
		return "a little surer than ±" + from
	}
	return "from ±" + from + " to ±" + to
}

// sigma shows a standard deviation, rounded up.
func (s *solver) sigma(mm float64) string {
	if s.unit == measure.Inches {
		return measure.Exact(measure.FromMM(mm).Round(measure.Inch/64, measure.Up), s.unit)
	}
	return measure.Exact(measure.FromMM(mm).Round(measure.Millimetre/10, measure.Up), s.unit)
}

// first is where the first width (at the top hinge's height) and the first
// height (beside the hinge jamb) are read.
func (s *solver) first() (up, across measure.Length) {
	high, step := measure.FromMM(0.9*s.height), 50*measure.Millimetre
	up, across = 1800*measure.Millimetre, 50*measure.Millimetre
	if s.unit == measure.Inches {
		up, across, step = 70*measure.Inch, 2*measure.Inch, 2*measure.Inch
	}
	return min(up, high.Round(step, measure.Down)), across
}

// ends names the three places of a side where its margin is judged.
var ends = frame.Each[[3]string]{
	frame.Head: {"hinge corner", "middle", "lock corner"}, frame.Foot: {"hinge corner", "middle", "lock corner"},
	frame.Hinge: {"foot", "middle", "head"}, frame.Lock: {"foot", "middle", "head"},
}

// outline draws the finished slab in the opening.
func (s *solver) outline() {
	school, _ := trade.SchoolByID(s.o.Margins.School)
	flush := s.o.Hinges.Flush()
	want := fit.Targets{Least: s.o.Margins.Least.MM(), Uneven: s.o.Margins.Uneven.MM()}
	for _, side := range frame.Sides {
		f := figure.Sum(0, figure.Term{Label: school.Name + " (" + school.Source + ")", Value: school.Margin[side], Source: figure.Rule})
		if own := s.o.Margins.Own(side); own != nil {
			f = figure.Sum(0, figure.Term{Label: "set for this door", Value: *own, Source: figure.Choice})
		} else if side == frame.Hinge && school.Margin[side] == 0 {
			f = flush
		}
		if s.leaf > 0 && side == frame.Lock {
			f = figure.Sum(
				0,
				figure.Term{Label: "margin between the leaves", Value: s.o.Pair.Meeting, Source: figure.Choice},
				figure.Term{Label: "the other leaf's half", Value: -(s.o.Pair.Meeting - s.o.Pair.Meeting/2), Source: figure.Rule},
			)
		}
		f = s.coming(side, f)
		s.plan.Wanted[side] = f
		want.Margin[side] = f.Value.MM()
		if f.Value < s.o.Margins.Least && (s.leaf == 0 || side != frame.Lock) {
			s.say(Care, StepMargins, "/margins/least", "The %v margin wanted, %v, is under the least margin, %v, which is kept: change one of them.", side, f.Value, s.o.Margins.Least)
		}
	}
	top, bottom := s.o.Hinges.Tops(measure.FromMM(s.height))
	half := s.o.Hinges.Leaf.MM() / 2
	want.Pins = [2]float64{s.height - top.MM() - half, s.height - bottom.MM() - half}
	if want.Pins[0]-want.Pins[1] < 200 || want.Pins[1] < 0 {
		s.say(Stop, StepHinges, "/hinges/pockets", "The hinges do not fit an opening %v high: measure their places from the head, top one first.", measure.FromMM(s.height))
		want.Pins = [2]float64{0.9 * s.height, 0.12 * s.height}
	}
	o, err := s.drawLeaf(want)
	var room *fit.ErrNoRoom
	if errors.As(err, &room) {
		s.say(Stop, StepMargins, "", "The margins leave a slab of %v by %v: ask for smaller margins or read the opening again.", measure.FromMM(room.Width), measure.FromMM(room.Height))
		return
	}
	if err != nil {
		s.say(Stop, StepMargins, "", "%v", err)
		return
	}
	s.drawn, s.ok = s.scribe(o, want), true
	o = s.drawn
	for _, side := range frame.Sides {
		e := o.Edges[side]
		add := func(g fit.Gap, where string) {
			wanted := s.plan.Wanted[side].Value
			s.plan.Margins = append(s.plan.Margins, MarginFigure{side, where, figure.Sum(
				g.Sigma,
				figure.Term{Label: "margin wanted", Value: wanted, Source: figure.Choice},
				figure.Term{Label: "a straight edge against this side, here", Value: s.est(g.Mean) - wanted, Source: figure.Estimate, Sigma: g.Sigma},
			)})
		}
		n := len(e.Gaps)
		add(e.Gaps[0], ends[side][0])
		add(e.Gaps[n/2], ends[side][1])
		add(e.Gaps[n-1], ends[side][2])
		for _, g := range e.Gaps {
			s.plan.Sureness[side] = max(s.plan.Sureness[side], g.Sigma)
		}
		if s.answers() && e.Residual > want.Uneven && side != frame.Foot {
			text := "The %v is not straight: along a straight edge the light varies by %v either way."
			switch {
			case e.Scribed:
				text = "The %v is not straight: along a straight edge the light would vary by %v either way, so this edge is scribed to it and the light is even."
			case side == frame.Hinge:
				text += " Packers keep the pins on one line."
			}
			s.say(Note, StepMargins, "", text, nameOf(side), measure.FromMM(e.Residual))
		}
		if s.answers() && e.Moved > 0.1 && !e.Scribed {
			s.say(Note, StepMargins, "", "The %v edge gives way by %v so that no margin is under the least.", side, measure.FromMM(e.Moved))
		}
	}
	for i, g := range []fit.Gap{o.Edges[frame.Head].Gaps[0], o.Edges[frame.Head].Gaps[headLast(o)]} {
		s.corner[i] = figure.Sum(
			g.Sigma,
			figure.Term{Label: "head margin planned at this corner", Value: s.est(g.Mean), Source: figure.Estimate, Sigma: g.Sigma},
		).Rounded(s.tape, measure.Nearest)
	}
}

func headLast(o fit.Outline) int { return len(o.Edges[frame.Head].Gaps) - 1 }

func nameOf(side frame.Side) string {
	switch side {
	case frame.Head:
		return "head"
	case frame.Foot:
		return "floor"
	}
	return side.String() + " jamb"
}

// sweepCut is what a slab is short of the longest floor-to-head at its first
// cut, where a sweep will be fitted. Common practice.
const sweepCut = measure.Inch / 2

// coming adds to the margin wanted what is still to come: paint on the edges,
// a floor, a sweep.
func (s *solver) coming(side frame.Side, f figure.Figure) figure.Figure {
	m := s.o.Margins
	terms := f.Terms
	if side == frame.Foot && m.Sweep {
		head := s.plan.Wanted[frame.Head].Value
		terms = []figure.Term{
			{Label: "first cut for a sweep: floor to head less 1/2 in", Value: sweepCut, Source: figure.Rule},
			{Label: "of this, the head margin", Value: -head, Source: figure.Choice},
		}
		s.say(Note, StepCut, "/margins/sweep", "The foot is cut twice: now to %v short of floor to head, and again once the sweep or shoe has been tried on the threshold.", sweepCut)
	}
	if side == frame.Foot && m.Floor > 0 {
		terms = append(terms[:len(terms):len(terms)], figure.Term{Label: "floor still to come", Value: m.Floor, Source: figure.Choice})
	}
	if m.Paint > 0 && side != frame.Foot {
		terms = append(terms[:len(terms):len(terms)], figure.Term{Label: "paint still to come on slab and jamb", Value: m.Paint, Source: figure.Choice})
	}
	return figure.Sum(0, terms...)
}

// drawLeaf draws the single slab, or this leaf of the pair.
func (s *solver) drawLeaf(want fit.Targets) (fit.Outline, error) {
	if s.leaf == 0 {
		return fit.Draw(s.shape, want)
	}
	want.Least = min(want.Least, s.o.Pair.Meeting.MM()/2)
	pair, err := fit.DrawPair(s.shape, want, fit.Meeting{Offset: s.o.Pair.Offset.MM()})
	return pair[s.leaf-1], err
}

// scribe shapes lock edge and head to their sides where a straight edge would
// leave more unevenness than is accepted, or where it was chosen. A machined
// edge stays straight, and so does the meeting edge of a pair.
func (s *solver) scribe(o fit.Outline, want fit.Targets) fit.Outline {
	chosen := frame.Each[string]{frame.Lock: s.o.Cut.LockEdge, frame.Head: s.o.Cut.Head}
	for _, side := range []frame.Side{frame.Lock, frame.Head} {
		how := chosen[side]
		byRule := how == "" || how == ByRule
		if s.o.Slab.IsMachined(side) || s.leaf > 0 && side == frame.Lock || !s.answers() {
			continue
		}
		if how == Scribed || byRule && o.Edges[side].Residual > want.Uneven {
			o = o.Scribe(side, want.Margin[side])
		}
	}
	return o
}

// answers reports whether there are readings enough for any answer.
func (s *solver) answers() bool { return s.widths > 0 && s.heights > 0 }

// sizes tells which slab is wanted: the greatest width and length that the
// finished slab has anywhere.
func (s *solver) sizes() {
	if !s.ok || !s.answers() {
		return
	}
	size := s.drawn.Size()
	s.plan.Finished = [2]figure.Figure{
		figure.Sum(
			s.plan.Sureness[frame.Lock],
			figure.Term{Label: "opening at its widest, square to the hinge jamb", Value: s.est(size.Width + size.HingeGap + size.LockGap), Source: figure.Estimate, Sigma: s.plan.Sureness[frame.Lock]},
			figure.Term{Label: "hinge margin there", Value: -s.est(size.HingeGap), Source: figure.Choice},
			figure.Term{Label: "lock margin there", Value: -s.est(size.LockGap), Source: figure.Choice},
		).Rounded(s.tape, measure.Up),
		figure.Sum(
			s.plan.Sureness[frame.Foot],
			figure.Term{Label: "opening at its highest, along the hinge jamb", Value: s.est(size.Length + size.HeadGap + size.FootGap), Source: figure.Estimate, Sigma: s.plan.Sureness[frame.Foot]},
			figure.Term{Label: "head margin there", Value: -s.est(size.HeadGap), Source: figure.Choice},
			figure.Term{Label: "foot margin there", Value: -s.est(size.FootGap), Source: figure.Choice},
		).Rounded(s.tape, measure.Up),
	}
}

// cut lays the outline on the slab.
func (s *solver) cut() {
	if !s.ok {
		return
	}
	if missing := s.o.Slab.Missing(); len(missing) > 0 {
		s.say(Care, StepSlab, "/slab/"+missing[0], "The slab's %s is not measured yet: the cuts wait for it.", join(missing))
		return
	}
	if !s.answers() {
		return
	}
	switch s.o.Cut.LeaveOn {
	case WhenSure:
		s.leave = s.drawn.LeaveOn(fit.Common)
		for side, mm := range s.leave {
			s.leave[side] = measure.FromMM(mm).Round(s.tape.Step(), measure.Up).MM()
		}
	case Always3:
		three := measure.FromMM(3).Round(s.tape.Step(), measure.Up).MM()
		s.leave[frame.Lock], s.leave[frame.Foot] = three, three
	}
	way := s.choose()
	laid := fit.Lay(s.drawn, s.leave, s.o.Slab, way.Laying)
	s.taper()
	for _, side := range frame.Sides {
		if lack := s.leave[side] - laid.Left[side]; lack > s.tape.Step().MM()/2 && len(laid.Short) == 0 {
			s.say(Care, StepCut, "", "%v should be left on at the %v for the next try and only %v can be: the slab is no bigger than that. If the readings stand by their ±, it may come out %v too wide there.",
				measure.FromMM(s.leave[side]), edgeOf(side), measure.FromMM(laid.Left[side]), measure.FromMM(lack))
		}
	}
	s.laid, s.leave = &laid, laid.Left
	s.limits(way)

	for _, short := range laid.Short {
		if short.Side.Upright() {
			s.say(Stop, StepSlab, "/slab/width", "The slab is too narrow: at the %v edge, %v from its top, it is short by %v. Buy the next size up, or widen it with a lipping.",
				short.Side, measure.FromMM(short.At), measure.FromMM(short.By))
		} else {
			s.say(Stop, StepSlab, "/slab/length", "The slab is too short: at the %v, %v from its hinge edge, by %v. Buy the next size up, or accept a wider foot margin.",
				short.Side, measure.FromMM(short.At), measure.FromMM(short.By))
		}
	}
	for _, side := range frame.Sides {
		left := figure.Sum(0, figure.Term{Label: leftLabel[s.o.Cut.LeaveOn], Value: s.est(s.leave[carries(side, laid.Across)]), Source: figure.Rule}).Rounded(s.tape, measure.Nearest)
		edge := EdgeCut{Side: side, Left: left}
		var deepest measure.Length
		for _, c := range laid.Cuts[side] {
			m := MarkFigure{measure.FromMM(c.At).Round(s.tape.Step(), measure.Nearest), s.depth(side, c, laid)}
			deepest = max(deepest, m.Depth.Value)
			edge.Marks = append(edge.Marks, m)
		}
		edge.Method = trade.Method(deepest)
		edge.Says = s.advice(side, edge, deepest)
		if n := len(edge.Marks); deepest > 0 && deepest < 6*measure.Millimetre && !s.drawn.Edges[side].Scribed {
			reach := s.o.Slab.Width
			if side.Upright() {
				reach = s.o.Slab.Length
			}
			edge.Passes = fit.Passes(edge.Marks[0].Depth.Value.MM(), edge.Marks[n-1].Depth.Value.MM(), reach.MM(), 1)
		}
		s.plan.Cuts = append(s.plan.Cuts, edge)
		if s.o.Cut.LeaveOn == WhenSure && s.leave[side] > 6 {
			s.say(Care, StepCut, "", "The %v is not sure enough to cut near the line: %v is left on. More readings bring it down.", nameOf(side), measure.FromMM(s.leave[side]))
		}
	}
	// Checks of the cut: the slab's own size less the marks on both sides of it.
	marked := func(side frame.Side, k int) measure.Length {
		return s.plan.Cuts[slices.Index(frame.Sides[:], side)].Marks[k].Depth.Value
	}
	for i, label := range []string{"at its head", "in the middle", "at its foot"} {
		k := 2 * i
		s.plan.Width = append(s.plan.Width, figure.Sum(0,
			figure.Term{Label: "slab's width " + label, Value: s.est(laid.Cuts[frame.Hinge][k].Whole), Source: figure.Reading},
			figure.Term{Label: "marked off the hinge edge", Value: -marked(frame.Hinge, k), Source: figure.Choice},
			figure.Term{Label: "marked off the lock edge", Value: -marked(frame.Lock, k), Source: figure.Choice},
		))
	}
	for i, label := range []string{"on its hinge edge", "in the middle", "on its lock edge"} {
		s.plan.Length = append(s.plan.Length, figure.Sum(0,
			figure.Term{Label: "slab's length " + label, Value: s.est(laid.Cuts[frame.Head][i].Whole), Source: figure.Reading},
			figure.Term{Label: "marked off the head", Value: -marked(frame.Head, i), Source: figure.Choice},
			figure.Term{Label: "marked off the foot", Value: -marked(frame.Foot, i), Source: figure.Choice},
		))
	}
}

// A head is tapered to buy leave-on at its lock corner. Past mostTaper, and with
// its slope known no better than to slopeUnread there (σ), both in mm, that is not
// leave-on but a head that nobody held a square or a level to.
const (
	mostTaper   = 2.0
	slopeUnread = 2.0
)

// taper holds the cut up where the head's slope is so unsure that the leave-on
// would taper it: one reading more settles it.
func (s *solver) taper() {
	left := s.leave[frame.Head]
	if left <= mostTaper || s.o.Cut.LeaveOn != WhenSure {
		return
	}
	row := s.drawn.Wanted[slices.IndexFunc(s.drawn.Wanted, func(w fit.WantedMargin) bool { return w.Side == frame.Head && w.Where == 2 })].Row
	width, height := measure.FromMM(s.width), measure.FromMM(s.height)
	gains := s.shape.Best([]survey.Row{row}, slices.DeleteFunc(survey.Candidates(width, height, s.unit), func(r survey.Reading) bool {
		return r.Kind != survey.Square && r.Kind != survey.Level && r.Kind != survey.Plumb
	}))
	if len(gains) == 0 || gains[0].From < slopeUnread {
		return
	}
	g := gains[0]
	// The taper is some sigmas of the slope, so it falls as that does.
	then := max(left*g.To/g.From, 0)
	name := g.Reading.Name(s.unit)
	weight, text := Stop, "Not yet: read the %s first, half a minute. How far the head runs out of square is known to ±%s at the lock corner, so %v would have to be left on there, tapering to nothing at the hinge corner; with it about %v."
	if s.o.Cut.Knowing {
		weight, text = Care, "Cut knowingly without the %s: the head's slope is known to ±%s at the lock corner, so %v is left on there, tapering to nothing at the hinge corner; with it it would be about %v."
	}
	s.say(weight, StepCut, "/cut/knowing", text, name, s.sigma(g.From), measure.FromMM(left), measure.FromMM(then))
	brings := "head margin, lock corner: " + s.surer(g)
	others := slices.DeleteFunc(s.plan.ToRead, func(x Suggestion) bool { return x.Name == name })
	s.plan.ToRead = append([]Suggestion{{g.Reading, name, g.Reading.How(s.unit), brings, false}}, others...)
}

// choose weighs every way of laying the slab that is not ruled out by force,
// and keeps them all for the page.
func (s *solver) choose() fit.Weighed {
	if strike, ok := s.strikeOnSlab(); ok {
		s.drawn = s.drawn.Strike(strike.MM())
	}
	ways := fit.Weigh(s.drawn, s.o.Slab, fit.Ways(s.drawn, s.o.Slab))
	free := func(w fit.Weighed) bool {
		c := s.o.Cut
		return (c.Registration == ByRule || c.Registration == string(w.Across)) &&
			(c.Ends == "" || c.Ends == ByRule || c.Ends == string(w.Along))
	}
	var allowed []fit.Weighed
	for _, w := range ways {
		if free(w) {
			allowed = append(allowed, w)
		}
	}
	if len(allowed) == 0 { // a forced choice that does not exist is refused by Check
		allowed = ways
	}
	best, why := fit.Choose(allowed, s.o.Slab)
	if !allowed[best].Keeps() {
		for _, w := range fit.Weigh(s.drawn, s.o.Slab, fit.Shared(s.o.Slab)) {
			byRule := (s.o.Cut.Registration == ByRule || s.o.Cut.Registration == string(w.Across)) &&
				(s.o.Cut.Ends == "" || s.o.Cut.Ends == ByRule || s.o.Cut.Ends == string(w.Along))
			if w.Keeps() && byRule {
				ways, allowed = append(ways, w), append(allowed, w)
			}
		}
		best, why = fit.Choose(allowed, s.o.Slab)
	}
	if stood := s.asOffered(); len(stood) > 0 {
		ways = append(ways, stood...)
		if s.o.Cut.Registration == string(fit.AsOffered) {
			allowed, best, why = stood, 0, nil
		}
	} else if s.o.Cut.Registration == string(fit.AsOffered) {
		s.say(Stop, StepCut, "/cut/registration", "No gaps of this slab offered up have been read: read some with it standing in the opening, or lay it another way.")
	}
	s.plan.Laying = allowed[best].Laying
	if len(allowed) > 1 {
		s.plan.Rules = why
	}
	for _, w := range ways {
		alt := Alternative{
			Laying: w.Laying, Chosen: w.Laying == s.plan.Laying, Short: len(w.Short) > 0,
			Head: safe(w.Deepest[frame.Head], s.tape), Foot: safe(w.Deepest[frame.Foot], s.tape),
		}
		for i, k := range []int{0, 4} {
			alt.Hinge[i] = safe(w.Cuts[frame.Hinge][k].Depth, s.tape)
			alt.Lock[i] = safe(w.Cuts[frame.Lock][k].Depth, s.tape)
		}
		for _, side := range frame.Sides {
			if w.Over[side] > 0 {
				alt.Over = append(alt.Over, side)
			}
		}
		s.plan.Others = append(s.plan.Others, alt)
	}
	return allowed[best]
}

// asOffered weighs the slab as it stood in the opening, where it was offered up.
func (s *solver) asOffered() []fit.Weighed {
	if s.leaf > 0 {
		return nil
	}
	for _, f := range s.o.Offers {
		read := slices.ContainsFunc(s.readings, func(r survey.Reading) bool { return r.Kind == survey.Gap && r.Offer == f.ID })
		if u, v, lean, ok := s.shape.Placing(f.ID); ok && read && !f.Old {
			s.drawn = s.drawn.Offer(u, v, lean)
			return fit.Weigh(s.drawn, s.o.Slab, []fit.Laying{{Across: fit.AsOffered}})
		}
	}
	return nil
}

// limits says what the chosen cuts do that the slab does not allow, and what
// follows from them.
func (s *solver) limits(way fit.Weighed) {
	slab := s.o.Slab
	kind, _ := trade.ConstructionByID(slab.Construction)
	s.plan.Weight = slab.Weight()
	if slab.Construction != "" && s.plan.Weight > trade.TwoPeople {
		s.say(Care, StepSlab, "", "The slab weighs about %s: two people lift it.", Mass(s.plan.Weight, s.unit))
	}
	if slab.Construction == "rated" {
		s.say(Stop, StepCut, "/slab/construction", "A rated slab is cut only as its certificate says, and only if whoever answers for the building agrees. This plan is worked out inside the limits entered; it is never ready by itself.")
	}
	for _, side := range frame.Sides {
		over := way.Over[side]
		if over == 0 {
			continue
		}
		off, most, more := measure.FromMM(way.Deepest[side]), slab.Most(side), measure.FromMM(over)
		switch {
		case slab.IsMachined(side):
			s.say(Stop, StepCut, "/slab/machined", "The %s carries bores or pockets and would lose %v: no way of laying this slab leaves it alone. Choose a slab nearer the size.", edgeOf(side), off)
		default:
			s.say(Stop, StepCut, "/slab/limits/"+side.String(), "The %s would lose %v, %s more than may come off (%s: %s). Choose a slab nearer the size, or enter what the maker allows.", edgeOf(side), off,
				s.fine(more), kind.Name, measure.Say(most, s.unit))
		}
	}
	if way.Handle > 0 {
		s.say(Care, StepCut, "/slab/handle", "The handle that is bored ends up %v outside the usual %v to %v.", measure.FromMM(way.Handle), trade.HandleHeight.Least, trade.HandleHeight.Most)
	}
	if math.Abs(way.Strike) > mostMiss {
		where := "below"
		if way.Strike < 0 {
			where = "above"
		}
		s.say(Stop, StepCut, "/lock/strike", "The bore that is there would come %v %s the strike that is there, and the latch would miss it. Lay the slab bore to the strike, choose another slab, or move the strike and fill its hole.", measure.FromMM(math.Abs(way.Strike)), where)
	}
	if slab.IsMachined(frame.Lock) && slab.Handle > 0 && way.Deepest[frame.Lock] > 0.25 {
		s.say(Care, StepCut, "/slab/machined", "The bore's backset shrinks by %v.", measure.FromMM(way.Deepest[frame.Lock]))
	}
	if s.leaf > 0 {
		s.say(Note, StepCut, "", "About 8 mm in all comes off the two meeting edges so that the leaves pass: bevel or rebate them after the fit.")
	}
	s.copied()
	if slab.Construction == "moulded" {
		s.say(Note, StepCut, "", "Keep every cut %v or more from the moulding.", moulding)
	}
	if slab.Pivot > 0 {
		for _, end := range []frame.Side{frame.Head, frame.Foot} {
			cuts := way.Cuts[frame.Hinge]
			off := cuts[0].Depth
			if end == frame.Foot {
				off = cuts[len(cuts)-1].Depth
			}
			from := slab.Pivot - measure.FromMM(off)
			if way.Deepest[end] > 0.25 && from < trade.PivotWood {
				s.say(Stop, StepCut, "/slab/pivot", "The pivot hole in the %v would have to be drilled again %v from the finished hinge edge: under %v the wood splits. Lay the slab so that less comes off the hinge edge, or move the pivot and its plate.", end, max(from, 0), trade.PivotWood)
				continue
			}
			if way.Deepest[end] > 0.25 {
				s.say(Care, StepCut, "/slab/pivot", "The pivot hole in the %v goes with the offcut: drill it again on the centre of the thickness, %v from the finished hinge edge, as deep and as wide as it was (7/16 in is usual; measure).", end, from)
			}
		}
	}
	s.plan.Inserts = s.laid.Inserts(slab)
	for _, in := range s.plan.Inserts {
		text := "The %v is cut to %v of its rail: too little to hold."
		if in.Left == 0 {
			text = "The %v is cut past its rail (%v left) and the end is open."
		}
		s.say(Care, StepCut, "", text+" Salvage the old rail or glue in an insert %v wide and %v thick, pushing the core back %v first: glue inside the skins and on the insert, level or just shy, clamp over battens; 20 minutes to handle with tape, a night in clamps.",
			in.End, in.Left, in.Width, in.Thickness, in.Deep)
	}
}

// moulding is how far a cut keeps from moulded skins. Common practice.
const moulding = measure.Inch

// copied says what copying the old door would cut, laid flush at head and lock
// edge, and what its gaps say should be different.
func (s *solver) copied() {
	for _, f := range s.o.Offers {
		if !f.Old {
			continue
		}
		size := s.drawn.Size()
		hinge, foot := s.o.Slab.Width-f.Width, s.o.Slab.Length-f.Length
		change := func(by measure.Length, more, less string) string {
			by = by.Round(s.tape.Step(), measure.Nearest)
			switch {
			case by == 0:
				return "as it is"
			case by > 0:
				return measure.Say(by, s.unit) + " " + more
			}
			return measure.Say(-by, s.unit) + " " + less
		}
		c := s.drawn.Corners()
		s.say(Note, StepCut, "", "Copying %s, flush at head and lock edge, takes %v off the hinge edge and %v off the foot. By its gaps the new one should be, at the head %s, at the foot %s, and %s.",
			f.Name, max(hinge, 0), max(foot, 0),
			change(measure.FromMM(c[1].X-c[0].X)-f.Width, "wider", "narrower"),
			change(measure.FromMM(c[2].X-c[3].X)-f.Width, "wider", "narrower"),
			change(measure.FromMM(size.HingeEdge)-f.Length, "longer", "shorter"))
		return
	}
}

// mostMiss is how far a latch may lie off its strike, in mm: more than the play
// that a strike's hole leaves. Common practice.
const mostMiss = 1.5

// strikeOnSlab is how far down the slab's lock edge, from its finished head, the
// latch meets the strike that is there. ok is false where no bore has to.
func (s *solver) strikeOnSlab() (down measure.Length, ok bool) {
	if s.o.Slab.Handle == 0 || s.o.Lock.From != lock.FromStrike || s.o.Lock.Strike == 0 || s.leaf > 0 {
		return 0, false
	}
	return s.o.Lock.Strike - s.corner[1].Value, true
}

// fine says a small amount to more places than the tape has.
func (s *solver) fine(l measure.Length) string {
	if s.unit == measure.Inches {
		return measure.Say(max(l, measure.Inch/64), s.unit)
	}
	return measure.Say(l.Round(measure.Millimetre/10, measure.Up), s.unit)
}

// Mass is a weight for a sentence, in the unit that goes with a job's lengths:
// 1 lb is 0.45359237 kg exactly (international yard and pound agreement, 1959).
func Mass(kg float64, u measure.Unit) string {
	if u == measure.Inches {
		return fmt.Sprintf("%.0f lb", kg/0.45359237)
	}
	return fmt.Sprintf("%.0f kg", kg)
}

func edgeOf(side frame.Side) string {
	if side.Upright() {
		return side.String() + " edge"
	}
	return side.String()
}

// carries is the side whose leave-on is found on an edge: what is left on
// for the lock margin stays on whichever long edge is cut.
func carries(edge frame.Side, r fit.Registration) frame.Side {
	switch {
	case edge == frame.Hinge && r == fit.KeepLock:
		return frame.Lock
	case edge == frame.Lock && r == fit.KeepLock:
		return frame.NoSide
	}
	return edge
}

var leftLabel = map[Habit]string{
	WhenSure: "kept so that under 1 slab in 200 comes out too wide",
	Always3:  "always left on",
	ToLine:   "cut to the line",
}

// Reasons says why one would lay the slab in each way.
var Reasons = map[fit.Registration]string{
	fit.KeepLock:   "All the width comes off the hinge edge: it is the least seen, and the lock edge keeps its full strength.",
	fit.KeepHinge:  "All the width comes off the lock edge: the hinge edge stays as the maker left it.",
	fit.AsOffered:  "Cut as the slab stood in the opening when its gaps were read: each side loses what it needs there.",
	fit.ShareWidth: "What comes off is shared by both long edges as their limits allow: no usual way keeps to both.",
	fit.EvenStiles: "The same comes off both long edges, so that the stiles still look alike.",
}

// EndReasons says why one would share the length in each way.
var EndReasons = map[fit.Ends]string{
	fit.KeepHead:    "The head takes only what its shape needs; the rest comes off the foot.",
	fit.EvenEnds:    "The same comes off both ends: rails look alike, a bore keeps its height, and a hollow slab's rails last longest.",
	fit.ShareLength: "What comes off is shared by both ends as their limits allow: no usual way keeps to both.",
	fit.MeetStrike:  "As much comes off the head as brings the bore that is there to the strike that is there.",
	fit.KeepFoot:    "The foot takes only what its shape needs; the rest comes off the head.",
}

// safe rounds a depth so that more is left on, and never takes off less than
// nothing.
func safe(depth float64, tape measure.Tape) measure.Length {
	return figure.Figure{Value: max(measure.FromMM(depth), 0)}.Rounded(tape, measure.Down).Value
}

// depth is the figure of one mark with its terms.
func (s *solver) depth(side frame.Side, c fit.Cut, laid fit.Laid) figure.Figure {
	sigma := s.sigmaAt(side, c.At)
	terms := []figure.Term{}
	add := func(label string, v measure.Length, from figure.Source, sd float64) {
		if v != 0 || from == figure.Reading {
			terms = append(terms, figure.Term{Label: label, Value: v, Source: from, Sigma: sd})
		}
	}
	other := map[frame.Side]string{frame.Hinge: "lock", frame.Lock: "hinge", frame.Foot: "head"}[side]
	switch side {
	case frame.Head:
		add("the head falls below its highest place, square to the slab", s.est(c.Opening), figure.Estimate, sigma)
		add("margin here against the margin there", s.est(c.NearGap), figure.Estimate, 0)
		add("taken off the head to share the length", s.est(c.Shared), figure.Choice, 0)
	case frame.Foot:
		add("slab's length here", s.est(c.Whole), figure.Reading, 0)
		add("opening here, floor to head along the slab", -s.est(c.Opening), figure.Estimate, sigma)
		add("head margin here", s.est(c.FarGap), figure.Choice, 0)
		add("foot margin here", s.est(c.NearGap), figure.Choice, 0)
		add("comes off the head here", -s.est(c.OtherCut), figure.Estimate, 0)
	default:
		near, far := s.est(c.NearGap), s.est(c.FarGap)
		add("slab's width here", s.est(c.Whole), figure.Reading, 0)
		add("opening here, square to the slab", -s.est(c.Opening), figure.Estimate, sigma)
		add(side.String()+" margin here", near, figure.Choice, 0)
		add(other+" margin here", far, figure.Choice, 0)
		add("comes off the "+other+" edge here", -s.est(c.OtherCut), figure.Estimate, 0)
	}
	add("left on for now", -s.est(c.Left), figure.Rule, 0)
	f := figure.Sum(sigma, terms...)
	if f.Value < 0 {
		f.Terms = append(f.Terms, figure.Term{Label: "nothing there to take off", Value: -f.Value, Source: figure.Rule})
		f.Value = 0
	}
	return f.Rounded(s.tape, measure.Down)
}

// sigmaAt is how sure the cut at a mark is: that of the margin it makes.
func (s *solver) sigmaAt(side frame.Side, at float64) float64 {
	of := side
	if side == frame.Hinge {
		of = frame.Lock // the width is judged at the lock margin
	}
	gaps := s.drawn.Edges[of].Gaps
	f := at / s.o.Slab.Width.MM()
	if side.Upright() {
		f = 1 - at/s.o.Slab.Length.MM()
	}
	k := int(math.Round(min(max(f, 0), 1) * float64(len(gaps)-1)))
	return gaps[k].Sigma
}

// advice says the edge's decision in a sentence.
func (s *solver) advice(side frame.Side, e EdgeCut, deepest measure.Length) string {
	if deepest == 0 {
		return "Nothing comes off the " + edgeOf(side) + "."
	}
	first, last := e.Marks[0].Depth.Value, e.Marks[len(e.Marks)-1].Depth.Value
	from, to := "head", "foot"
	if !side.Upright() {
		from, to = "hinge corner", "lock corner"
	}
	show := func(l measure.Length) string { return s.tape.Show(l) }
	text := fmt.Sprintf("%s off all along.", show(first))
	if s.drawn.Edges[side].Scribed {
		text = "Scribed: mark it along the " + nameOf(side) + " at the wanted margin and cut to that; high places first."
	} else if first != last {
		if first < last {
			first, last, from, to = last, first, to, from
		}
		text = fmt.Sprintf("A taper: %s at the %s to %s at the %s. Start where most comes off and lengthen each pass.", show(first), from, show(last), to)
	}
	if !side.Upright() {
		text += " Plane in from both ends so that the stiles' end grain does not break out."
	}
	if e.Left.Value > 0 {
		where := ""
		if side == frame.Head {
			where = " at the lock corner"
		}
		text += fmt.Sprintf(" %s is left on%s for the next try.", show(e.Left.Value), where)
	}
	return text
}

func join(words []string) string {
	switch n := len(words); n {
	case 0:
		return ""
	case 1:
		return words[0]
	default:
		out := words[0]
		for _, w := range words[1 : n-1] {
			out += ", " + w
		}
		return out + " and " + words[n-1]
	}
}

// hinges marks the hinges on slab and jamb.
func (s *solver) hinges() {
	c := s.o.Hinges
	s.load()
	s.plan.Gauges = Gauges{Depth: c.Plate, Width: c.Width, Setback: c.Setback(s.o.Slab.Thickness), Flush: c.Flush()}
	if s.o.Slab.Thickness == 0 {
		s.plan.Gauges.Setback = 0
	} else if s.plan.Gauges.Setback < 3*measure.Millimetre {
		s.say(Care, StepHinges, "/hinges/width", "Only %v of wood is left behind the pocket (about 6 mm is usual): use a narrower leaf.", s.plan.Gauges.Setback)
	}
	if !s.ok || !s.answers() {
		return
	}
	size := s.drawn.Size()
	length := figure.Figure{Value: s.est(size.HingeEdge), Sigma: s.plan.Sureness[frame.Foot]}
	marks, err := hinge.Place(c, length, s.corner[0], s.tape)
	var he *hinge.Error
	if errors.As(err, &he) {
		s.say(Stop, StepHinges, "/hinges/"+he.Field, "%s", he.Problem)
		return
	}
	names := []string{"top hinge", "bottom hinge"}
	if len(marks) == 3 {
		names = []string{"top hinge", "middle hinge", "bottom hinge"}
	}
	gaps := s.drawn.Edges[frame.Hinge]
	for i, m := range marks {
		y := size.TopHinge - m.Slab.Value.MM() - c.Leaf.MM()/2
		planned, flush := gaps.GapAt(y), c.Flush().Value
		pack := figure.Sum(
			0,
			figure.Term{Label: "hinge margin planned here, pins on one line", Value: s.est(planned), Source: figure.Estimate},
			figure.Term{Label: "what the hinge gives, leaves flush", Value: -flush, Source: figure.Choice},
		).Rounded(measure.Tapes(s.unit)[0], measure.Nearest) // packers come finer than some tapes
		s.plan.Hinges = append(s.plan.Hinges, HingePlan{names[i], m, pack})
	}
}

// load says where the hinges are too few for the slab, or the pockets not as
// many as the hinges.
func (s *solver) load() {
	c, slab := s.o.Hinges, s.o.Slab
	hinges := c.Count
	if c.From == hinge.FromPockets && len(c.Pockets) > 0 {
		hinges = len(c.Pockets)
		if hinges != c.Count {
			s.say(Care, StepHinges, "/hinges/count", "%d hinges are asked for and the jamb has %d pockets: it is planned for the pockets. Measure the one that is missing, or change the count.", c.Count, hinges)
		}
	}
	if len(slab.Missing()) > 0 {
		return
	}
	weight := slab.Weight()
	if weight > trade.UsualHinges.Most {
		s.say(Care, StepHinges, "/hinges/count", "The slab weighs about %s, more than %s: use hinges whose stated load is greater (EN 1935 grade %s and up, from memory), with longer screws at the top, and three of them at least.",
			Mass(weight, s.unit), Mass(trade.UsualHinges.Most, s.unit), trade.UsualHinges.Next)
	} else if weight > trade.UsualHinges.Two && hinges < 3 {
		s.say(Care, StepHinges, "/hinges/count", "The slab weighs about %s: three hinges, not two.", Mass(weight, s.unit))
	}
}

// latch marks latch and strike.
func (s *solver) latch() {
	if !s.ok || !s.answers() || s.o.Slab.Thickness == 0 {
		return
	}
	lockAt := s.width
	if s.leaf > 0 {
		lockAt = s.width/2 + s.o.Pair.Offset.MM()
		fixed := 1
		if s.o.Pair.Fixed == frame.Lock {
			fixed = 2
		}
		if s.leaf == fixed {
			s.say(Note, StepLock, "/pair/fixed", "This leaf is bolted top and bottom and carries the strike: mark it from the latch of the other, hung leaf.")
			return
		}
	}
	at, sigma := s.shape.Of(survey.Row{{Side: frame.Head, At: lockAt, By: 1}, {Side: frame.Foot, At: lockAt, By: -1}})
	opening := figure.Figure{Value: s.est(at), Sigma: sigma}
	p, err := lock.Place(s.o.Lock, opening, s.corner[1], s.bored(), s.o.Slab.Thickness, s.tape)
	var le *lock.Error
	if errors.As(err, &le) {
		s.say(Stop, StepLock, "/lock/"+le.Field, "%s", le.Problem)
		return
	}
	s.plan.Latch = &p
	usual := trade.HandleHeight
	if p.Floor.Value < usual.Least || p.Floor.Value > usual.Most {
		s.say(Note, StepLock, "/lock/"+s.o.Lock.From, "The handle comes %v above the floor; %v to %v is usual.", p.Floor.Value, usual.Least, usual.Most)
	}
	if p.Wall < 5*measure.Millimetre {
		s.say(Care, StepLock, "/lock/bore", "A %v bore in a %v slab leaves walls of %v: under 5 mm they split easily.", s.o.Lock.Bore, s.o.Slab.Thickness, p.Wall)
	}
	s.block(p)
	if s.laid != nil && s.leave[frame.Head] >= s.tape.Step().MM() {
		s.say(Note, StepLock, "", "Measure down from the head's finished line: %v is still left on at the lock corner.", measure.FromMM(s.leave[frame.Head]))
	}
}

// bored is where the bore that is there ends up below the finished head; nil
// where there is none, or the slab is not laid yet.
func (s *solver) bored() *figure.Figure {
	if s.o.Slab.Handle == 0 || s.laid == nil {
		return nil
	}
	f := figure.Sum(
		0,
		figure.Term{Label: "slab's top to the bore that is there", Value: s.o.Slab.Handle, Source: figure.Reading},
		figure.Term{Label: "comes off the head there, once what is left on is planed off", Value: -s.est(s.laid.Final), Source: figure.Estimate},
	)
	return &f
}

// block says where a hollow slab's lock block does not lie behind the lock.
func (s *solver) block(p lock.Plan) {
	kind, _ := trade.ConstructionByID(s.o.Slab.Construction)
	if kind.LockBlock == 0 || s.laid == nil {
		return
	}
	// The block lies about the middle of the uncut slab.
	middle := s.o.Slab.Length/2 - measure.FromMM(s.laid.Top[1])
	reach := 50 * measure.Millimetre // of a latch and its handles, up and down
	if lack := (p.Slab.Value - middle).Abs() + reach - kind.LockBlock/2; lack > 0 {
		s.say(Care, StepLock, "/lock/"+s.o.Lock.From, "The lock block of a hollow slab lies about %v below the finished top, %v long; the lock at %v misses it by %v. Move the handle, or glue in a block %v by %v behind it.",
			middle, kind.LockBlock, p.Slab.Value, lack, kind.LockBlock/2, s.o.Slab.Thickness-2*kind.Skin)
	}
}

// rod works out each notch and the drawing.
func (s *solver) rod() {
	p := &s.plan
	s.draw()
	p.ready = map[Step]bool{
		StepMeasure: s.answers(),
		StepSlab:    len(s.o.Slab.Missing()) == 0,
		StepMargins: s.answers() && s.ok,
		StepCut:     s.laid != nil,
		StepHinges:  len(p.Hinges) > 0,
		StepLock:    p.Latch != nil || s.leaf > 0 && len(p.Hinges) > 0 && s.o.Slab.Thickness > 0,
	}
	if len(p.Clashes) > 0 { // all that follows hangs on the readings
		for _, step := range Steps[1:] {
			p.ready[step] = false
		}
	}
	waits := map[Step]string{
		StepMeasure: "take a width and a height",
		StepSlab:    "measure the slab",
		StepMargins: "waits for readings",
		StepCut:     "waits for readings and the slab",
		StepHinges:  "waits for readings",
		StepLock:    "waits for readings and the slab",
	}
	if len(p.Clashes) > 0 {
		for _, step := range Steps[1:] {
			waits[step] = "waits until the readings agree"
		}
	}
	look := map[Step]string{
		StepMeasure: "sure enough to cut",
		StepSlab:    "see that it is big enough",
		StepMargins: "see the light it gives",
		StepCut:     "ready to cut",
		StepHinges:  "ready to mark",
		StepLock:    "ready to mark",
	}
	for _, step := range Steps {
		n := Notch{Step: step, State: Open, Mark: s.mark(step)}
		stops := func(f Finding) bool { return f.Weight == Stop && f.Step == step }
		stop := slices.IndexFunc(p.Findings, stops)
		ready := p.ready[step]
		if p.Second != nil { // a step of a pair is done for both leaves
			n.Mark += p.Second.Notches[slices.Index(Steps, step)].Mark
			ready = ready && p.Second.ready[step]
			stop = max(stop, slices.IndexFunc(p.Second.Findings, stops))
		}
		switch done, was := s.o.Done[step]; {
		case !ready:
			n.State, n.Says = Waits, waits[step]
			if step == StepMeasure || step == StepSlab && len(p.Clashes) == 0 {
				n.State = Open // nothing before them to wait for
			}
		case was && done == n.Mark && stop < 0:
			n.State, n.Says = Done, "done"
		case was:
			n.State, n.Says = Nicked, "changed since it was done"
		case step == StepCut && stop >= 0:
			n.Says = look[step]
		case step == StepMeasure && len(p.ToRead) > 0:
			n.Says = "another reading would help"
		default:
			n.Says = look[step]
		}
		if stop >= 0 && ready {
			n.Says = "look at what is wrong"
		}
		p.Notches = append(p.Notches, n)
		if p.Next == "" && n.State != Done {
			p.Next = step
		}
	}
}

// mark is a short print of what a step came to.
func (s *solver) mark(step Step) string {
	h := fnv.New32a()
	put := func(a ...any) { fmt.Fprintln(h, a...) }
	p := s.plan
	switch step {
	case StepMeasure:
		for _, r := range s.o.Readings {
			put(r.Kind, r.Side, int64(r.At), int64(r.From), int64(r.To), int64(r.Value), r.Offer, r.Struck != "", int64(r.Sure))
			if r.Blocked {
				put("nothing passes")
			}
		}
		// What came later is put only where it is given, so that doors that were
		// finished before stay so.
		for _, f := range s.o.Offers {
			put(f.ID, int64(f.Width), int64(f.Length), f.Old, int64(f.WidthMid), int64(f.WidthFoot), int64(f.LengthLock))
			if f.Square != nil {
				put(int64(*f.Square))
			}
		}
		if s.o.Walls != Old {
			put(s.o.Walls)
		}
		if s.o.Sure != 0 {
			put(int64(s.o.Sure))
		}
	case StepSlab:
		b, limit := s.o.Slab, func(l *measure.Length) string {
			if l == nil {
				return "<nil>"
			}
			return l.String()
		}
		// In the form in which the second data form printed it.
		put(fmt.Sprintf("{Width:%v Length:%v Thickness:%v WidthMid:%v WidthFoot:%v LengthLock:%v Square:%v Construction:%v Machined:%v Limits:{Head:%s Hinge:%s Lock:%s Foot:%s} Pivot:%v Handle:%v}",
			b.Width, b.Length, b.Thickness, b.WidthMid, b.WidthFoot, b.LengthLock, b.Square, b.Construction, b.Machined,
			limit(b.Limits.Head), limit(b.Limits.Hinge), limit(b.Limits.Lock), limit(b.Limits.Foot), b.Pivot, b.Handle), p.Finished[0].Value, p.Finished[1].Value)
	case StepMargins:
		for _, w := range p.Wanted {
			put(int64(w.Value))
		}
		put(s.o.Margins.Least, s.o.Margins.Uneven)
	case StepCut:
		for _, c := range p.Cuts {
			for _, m := range c.Marks {
				put(int64(m.At), int64(m.Depth.Value))
			}
		}
	case StepHinges:
		for _, m := range p.Hinges {
			put(int64(m.Slab.Value), int64(m.Jamb.Value), int64(m.Pack.Value))
		}
		put(p.Gauges.Depth, p.Gauges.Width)
	case StepLock:
		if l := p.Latch; l != nil {
			put(int64(l.Slab.Value), int64(l.Jamb.Value), int64(l.Backset.Value), int64(l.Centre.Value))
		}
	}
	return fmt.Sprintf("%08x", h.Sum32())
}

// draw collects what the drawing needs.
func (s *solver) draw() {
	if !s.ok {
		return
	}
	d := &s.plan.Drawing
	size := s.drawn.Size()
	d.Width, d.Height = size.Width, size.Length
	for i, c := range s.drawn.Corners() {
		d.Corners[i] = Point(c)
	}
	for _, side := range frame.Sides {
		d.Light = append(d.Light, Light{side, s.drawn.Edges[side].Gaps})
		d.Wanted[side] = s.plan.Wanted[side].Value.MM()
	}
	d.Least, d.Uneven = s.o.Margins.Least.MM(), s.o.Margins.Uneven.MM()
	d.Leaf = s.o.Hinges.Leaf.MM()
	for _, h := range s.plan.Hinges {
		d.HingeTops = append(d.HingeTops, size.TopHinge-h.Slab.Value.MM())
	}
	if l := s.plan.Latch; l != nil {
		d.Latch = size.TopLock - l.Slab.Value.MM()
	}
	for i, r := range s.o.Readings {
		at := "/readings/" + strconv.Itoa(i) + "/"
		clash := slices.ContainsFunc(s.plan.Findings, func(f Finding) bool {
			return f.Weight == Stop && (f.Pointer == at+"value" || f.Pointer == at+"at")
		})
		if r.Struck == "" {
			d.Readings = append(d.Readings, Place{r.ID, r.Kind, r.Side, r.At.MM(), r.From.MM(), r.To.MM(), clash, false})
		}
	}
	if len(s.plan.ToRead) > 0 {
		r := s.plan.ToRead[0].Reading
		d.Readings = append(d.Readings, Place{"", r.Kind, r.Side, r.At.MM(), r.From.MM(), r.To.MM(), false, true})
	}
}
