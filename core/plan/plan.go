// Package plan works out what is to be done at one door from what is kept of
// it: one file a stage, in trade order, each taking values and handing values
// and findings on.
//
//	readings → shape (read.go, clash.go) → margins (margins.go) → what to read
//	next (next.go) → laying and cuts (lay.go, cut.go, limits.go) → hinges
//	(hang.go) → latch (latch.go) → once it is cut, what was made, how it hangs, what
//	broke, the next gap and what to do (made.go, hung.go, hangs.go, broke.go, gap.go,
//	try.go) → the rod and the drawing (rod.go, draw.go)
//
// Findings are codes with arguments (finding.go), said by package words. Everything
// here is a pure function of its arguments.
package plan

import (
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// Plan is the whole answer for one opening, as far as its inputs go.
type Plan struct {
	Notches  []Notch
	Next     job.Step // the first step that is not done; empty when all are
	Findings []Finding
	// Clashes are readings that contradict the others. While there are any, every
	// figure that hangs on the readings is doubtful: nothing is cut or marked to it.
	Clashes []Clash
	// Without are the plans that settling the first clash would give.
	Without []Settled
	ToRead  []Suggestion
	// Trip is the chance of another trip to the trestles after the first hang, cut as the
	// readings stand; 1 while there is no answer.
	Trip float64
	// Lining is the frame that is made to the slab; nil where there is one already.
	Lining *Lining
	// Places are where the readings were taken, and where the next one is.
	Places []Place
	// Leaves are one, or for a pair two: the one on the hinge jamb first. The other
	// sees the opening from its own jamb, which it calls its hinge jamb, and the
	// meeting line as its lock jamb.
	Leaves []Leaf
}

// Leaf is the plan of one slab. What cannot be worked out yet is nil or empty.
type Leaf struct {
	Findings []Finding
	Wanted   frame.Each[figure.Figure] // margins
	Season   *Season                   // nil where the seasons are left out
	Gauges   Gauges
	Light    []Light
	Sure     frame.Each[float64] // worst sigma of a margin on each side, mm
	Finished *Size
	Cut      *CutSheet
	Hinges   []Hinge
	Swing    *Swing // nil while the slab's thickness is not known
	Hanging  *Hanging
	Rod      []RodMark // of a story rod, from the head down
	Latch    *lock.Plan
	Devices  []Device          // that go in at the latch line
	Stops    *Stops            // nil while the slab's thickness is not known
	Strikes  []message.Message // how the strike is let in, or the fixed leaf of a pair is bolted
	Try      *Try              // nil while there is no cut to record
	Drawing  *Drawing
	// Strike is false for the leaf of a pair that carries no latch of its own.
	Strike bool
}

// Size is the greatest width and length that the finished slab has anywhere.
type Size struct{ Width, Length figure.Figure }

// Light is the margin at one place of a side.
type Light struct {
	Side   frame.Side
	Where  int // along the side: 0 its foot or hinge corner, 1 its middle, 2 its head or lock corner
	Margin figure.Figure
}

// CutSheet is what comes off a slab at the first cut.
type CutSheet struct {
	Laying fit.Laying   // as chosen
	Rules  []message.ID // what decided it, in order; empty where it was forced
	Others []Way        // every way of laying the slab, the chosen one among them
	Edges  []EdgeCut    // in the order of frame.Sides
	// Width and Length of the slab after the first cut: head, middle, foot; hinge
	// edge, middle, lock edge.
	Width, Length [3]figure.Figure
	Inserts       []fit.Insert
	Weight        float64 // of the uncut slab, kg
}

// EdgeCut is what comes off one edge at the first cut.
type EdgeCut struct {
	Side   frame.Side
	Marks  []Mark
	Method message.ID
	Says   message.Sentences // how it is worked, and what is left on
	Left   figure.Figure     // left on for now
	Bevel  figure.Figure     // of the lock edge: how much narrower the push face is planed
	Passes []fit.Pass        // of a plane, a millimetre at a time; empty where a saw goes first
}

// Mark is one mark of a cut.
type Mark struct {
	At    measure.Length // along the edge of the uncut slab
	Depth figure.Figure
}

// Way is a way of laying the slab, and what it costs.
type Way struct {
	fit.Laying
	Chosen      bool
	Hinge, Lock [2]measure.Length // off at head and foot
	Head, Foot  measure.Length    // most off
	Short       bool
	Over        []frame.Side // edges that lose more than they may
}

// Hinge is one hinge on slab and jamb.
type Hinge struct {
	Name message.ID
	hinge.Mark
	// Pack is what goes behind the jamb leaf to keep the pins on one line and
	// the margin as planned; below nought, how much deeper its pocket goes.
	Pack figure.Figure
}

// door is what a plan is worked out from: what is kept of an opening, and the
// unit and tape that lengths are read and said in.
type door struct {
	job.Opening
	unit measure.Unit
	tape measure.Tape
	kit  job.Kit
	rules
}

// est is an estimate as a term can hold it.
func (d door) est(mm float64) measure.Length {
	return measure.FromMM(mm).Round(figure.Quantum(d.unit), measure.Nearest)
}

// mostSettled is how many readings a survey may have for its clash to be settled
// beforehand: past it, each plan takes a second.
const mostSettled = 200

// Door is an opening with its plan.
type Door struct {
	job.Opening
	Plan Plan
}

// Solve works out the plan of one opening. It never fails: what is missing or
// clashes is said in Findings, and everything that does not hang on it is
// still answered. It is a pure function of its arguments.
func Solve(j job.Job, o job.Opening) Plan {
	p := solve(newDoor(j, o))
	if len(p.Clashes) == 0 || len(o.Readings) > mostSettled {
		return p
	}
	c := p.Clashes[0]
	ways := append([]survey.Reading{c.Reading}, c.Or...)
	for _, r := range ways[:min(len(ways), 3)] {
		other := solve(newDoor(j, settled(o, c, r)))
		p.Without = append(p.Without, Settled{r, c.Swapped, &other})
	}
	return p
}

func solve(d door) Plan {
	read, said := readShape(d)
	p := Plan{Clashes: clashes(d, read)}
	for _, c := range p.Clashes {
		said = append(said, c.Finding)
	}
	said = append(said, unread(read)...)
	said = append(said, sizesOnly(d, read)...)
	said = append(said, hands(d)...)

	wanted, targets, more := margins(d, read)
	said = append(said, more...)
	bays := baysOf(d)
	p.Leaves = make([]Leaf, len(bays))
	for i := range p.Leaves {
		p.Leaves[i].Wanted = wanted
	}
	var drawn []fit.Outline
	if read.answers() {
		drawn, more = outlines(d, read, bays, targets)
		said = append(said, more...)
		said = append(said, stands(d, drawn, wanted[frame.Foot].Value)...)
	}
	t := tripsOf(d, drawn)
	p.ToRead, p.Trip = next(d, read, t)
	if c := d.Framed(); c != nil && !c.Stands {
		p.ToRead = nil // there is nothing to read yet
	}
	for i, b := range bays {
		l := &p.Leaves[i]
		if l.Gauges, more = gauges(d, b, wanted[frame.Hinge].Value); len(more) > 0 {
			l.Findings = append(l.Findings, more...)
		}
		l.Strike = b.strikes
		l.Season, more = seasons(d, read, b, wanted[frame.Lock])
		l.Findings = append(l.Findings, more...)
		l.Findings = append(l.Findings, turned(d, b)...)
		if drawn == nil {
			continue
		}
		if b.slab.Thickness > 0 {
			var other *fit.Outline
			if b.meets {
				other = &drawn[1-i]
			}
			w, more := swings(d, b, drawn[i], other)
			l.Swing = &w
			l.Findings = append(l.Findings, more...)
		}
		for _, ask := range leaf(d, read, b, drawn[i], t.leave[i], l) {
			if !slices.ContainsFunc(p.ToRead, func(s Suggestion) bool { return s.Reading.Title().String() == ask.Reading.Title().String() }) {
				p.ToRead = append(p.ToRead, ask)
			}
		}
	}
	if drawn != nil {
		triesOf(d, read, bays, drawn, p.Leaves)
	}
	p.Lining, more = liningOf(d, p.Leaves)
	p.Findings = append(said, more...)
	p.Places = places(d, said, p.ToRead)
	p.Notches, p.Next = rod(d, p)
	return p
}

// leaf works out one slab in its bay: its findings go with it. ask are the
// readings that its cut waits for.
func leaf(d door, read surveyed, b bay, drawn fit.Outline, leave frame.Each[float64], l *Leaf) (ask []Suggestion) {
	say := func(f findings) { l.Findings = append(l.Findings, f...) }
	var said findings

	if l.Light, l.Sure, said = light(d, drawn, l.Wanted); len(said) > 0 {
		say(said)
	}
	corners := headCorners(d, drawn)
	size := finished(d, drawn, l.Sure)
	l.Finished = &size

	var laid *fit.Laid
	if l.Cut, laid, ask, said = cut(d, read, b, drawn, leave, corners); len(said) > 0 {
		say(said)
	}
	if l.Cut != nil && l.Swing != nil {
		l.Cut.bevel(d, l.Swing.Bevel)
	}
	if l.Hinges, said = hang(d, b, drawn, corners[0], l.Sure, laid); len(said) > 0 {
		say(said)
	}
	l.Gauges.Pull = pull(b, l.Hinges)
	if l.Latch, said = latch(d, read, b, laid, corners[1]); len(said) > 0 {
		say(said)
	}
	l.Stops, said = stops(d, b)
	say(said)
	if l.Strikes = bolting(d, b); l.Latch != nil {
		l.Devices, said = devices(d, b, *l.Latch, laid)
		say(said)
		say(oldHoles(d, l.Devices))
		for _, v := range l.Devices {
			l.Strikes = append(l.Strikes, striking(v.Work)...)
		}
	}
	l.Hanging = hanging(d, b, *l, corners)
	l.Rod = rodMarks(d, *l)
	drawing := draw(d, drawn, *l)
	l.Drawing = &drawing
	return ask
}

// triesOf works out the tries of each leaf, once all are laid.
func triesOf(d door, read surveyed, bays []bay, drawn []fit.Outline, leaves []Leaf) {
	planned := make([]*job.Made, len(leaves))
	for i, b := range bays {
		planned[i] = made(d, b, leaves[i], headCorners(d, drawn[i])[0])
	}
	for i, b := range bays {
		l := &leaves[i]
		var said findings
		l.Try, said = tried(d, read, b, *l, i, planned)
		l.Findings = append(l.Findings, said...)
	}
}
