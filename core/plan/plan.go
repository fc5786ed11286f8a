// Package plan works out what is to be done at one opening: it calls the stages in trade order, hands each what it
// needs of those before it, and holds the answer. Everything here is a pure function of its arguments.
package plan

import (
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/stage/cuts"
	"kindmargin/core/stage/hangs"
	"kindmargin/core/stage/hinges"
	"kindmargin/core/stage/linings"
	"kindmargin/core/stage/locks"
	"kindmargin/core/stage/margins"
	"kindmargin/core/stage/readings"
	"kindmargin/core/stage/seasons"
	"kindmargin/core/stage/slabs"
	"kindmargin/core/stage/stops"
	"kindmargin/core/stage/swings"
	"kindmargin/core/survey"
	"kindmargin/core/try"
)

// Plan is the answer for one opening, as far as its inputs go.
type Plan struct {
	Steps    []Progress
	Next     job.Step // the first step that is not done; empty when all are
	Findings []site.Finding
	// Clashes are readings that contradict the others. While there are any, every figure that depends on the readings
	// is doubtful: nothing is cut or marked by it.
	Clashes []readings.Clash
	// Without are the plans that settling the first clash would give.
	Without []Settled
	ToRead  []site.Suggestion
	// OfferUp says that the slab itself is stood against the opening instead, and what that saves; the zero Message
	// where it is not.
	OfferUp message.Message
	// Trip is the probability of another trip to the trestles after the first hang, cut as the readings stand; 1 while
	// there is no answer.
	Trip float64
	// Lining is the frame that is made to the slab; nil where there is a frame already.
	Lining *linings.Lining
	// Places are where the readings were taken, and where the next one is.
	Places []Place
	// Leaves are one, or for a pair two, the one on the hinge jamb first. The other sees the opening from its own jamb:
	// that one is its hinge jamb, and the meeting line its lock jamb.
	Leaves []Leaf
}

// Leaf is the plan of one slab. What cannot be computed yet is nil or empty.
type Leaf struct {
	Findings []site.Finding
	Wanted   frame.Each[figure.Figure] // margins
	Season   *seasons.Season           // nil where the seasons are left out
	Gauges   hinges.Gauges
	Light    []margins.Light
	Sure     frame.Each[float64] // worst sigma of a margin on each side, mm
	Finished *margins.Size
	Cut      *cuts.List
	Hinges   []hinges.Hinge
	Swing    *swings.Swing // nil while the slab's thickness is not known
	Hanging  *hangs.Hanging
	Rod      []RodMark // of a story rod, from the head down
	Latch    *lock.Plan
	Hardware []locks.Work      // that go in at the latch line
	Stops    *stops.Stops      // nil while the slab's thickness is not known
	Strikes  []message.Message // how the strike is let in, or the fixed leaf of a pair is bolted
	Try      *hangs.Try        // nil while there is no cut to record
	Drawing  *Drawing
	// Strike is false for the leaf of a pair that carries no latch of its own.
	Strike bool
}

// mostSettled is the largest number of readings for which a clash is settled in advance: beyond it each such plan takes
// a second.
const mostSettled = 200

// Opening is an opening with its plan.
type Opening struct {
	job.Opening
	Plan Plan
}

// Solve plans one opening. It never fails: what is missing or contradictory is in Findings, and everything that does
// not depend on it is still computed. It is a pure function of its arguments.
func Solve(j job.Job, o job.Opening) Plan {
	p := solve(site.New(j, o))
	if len(p.Clashes) == 0 || len(o.Readings) > mostSettled {
		return p
	}
	c := p.Clashes[0]
	ways := append([]survey.Reading{c.Reading}, c.Or...)
	for _, r := range ways[:min(len(ways), 3)] {
		other := solve(site.New(j, readings.Settle(o, c, r)))
		p.Without = append(p.Without, Settled{r, c.Swapped, &other})
	}
	return p
}

// opening is the state before any slab is laid.
type opening struct {
	read    site.Survey
	clashes []readings.Clash
	plain   figure.Figure             // lock margin wanted, before the seasons
	wanted  frame.Each[figure.Figure] // margins
	cleared *site.Clear               // what a frame that is made to the slab must leave; nil where none is
	bays    []site.Bay
	drawn   []fit.Outline         // of each bay; nil while there is no answer
	leave   []frame.Each[float64] // what is to be left on at the first cut of each, mm
	planned []*job.Made           // each as its marks cut it; nil while it is not laid
	bored   []*try.Bored          // the lock of each that is bored before it is tried; nil where none is
}

// begin estimates an opening and fits the outlines of its slabs.
func begin(d site.Opening) (o opening, said site.Findings) {
	wanted := margins.Wanted(d)
	o.plain = wanted[frame.Lock]
	wanted[frame.Lock] = seasons.Allow(d, o.plain)
	o.cleared = linings.Clear(d, wanted)
	o.read, o.clashes, said = readings.Read(d, o.cleared)

	pins, more := margins.Pins(d, o.read.Height)
	said.Add(more)
	raised := swings.RaisedFoot(d, o.read, pins, wanted[frame.Foot].Value)
	var want fit.Targets
	o.wanted, want, more = margins.Targets(d, wanted, pins, raised)
	said.Add(more)
	o.bays = site.Bays(d)
	o.planned, o.bored = make([]*job.Made, len(o.bays)), make([]*try.Bored, len(o.bays))
	if !o.read.Answers() {
		return o, said
	}
	o.drawn, more = margins.Outlines(d, o.read, o.bays, want)
	said.Add(more)
	said.Add(linings.Stands(d, o.drawn, o.wanted[frame.Foot].Value))
	for _, drawn := range o.drawn {
		o.leave = append(o.leave, cuts.LeaveOn(d, drawn))
	}
	return o, said
}

func solve(d site.Opening) Plan {
	if d.Service != nil {
		return service(d)
	}
	return work(d)
}

// work plans an opening from its readings on.
func work(d site.Opening) Plan {
	o, said := begin(d)
	p := Plan{Clashes: o.clashes, Findings: said, Leaves: make([]Leaf, len(o.bays))}
	asked := readings.Next(d, o.read, o.drawn, o.leave)
	p.ToRead, p.Trip, p.OfferUp = asked.Readings, asked.Trip, asked.OfferUp
	if c := d.Framed(); c != nil && !c.Stands {
		p.ToRead = nil // there is nothing to read yet
	}
	for i := range o.bays {
		for _, ask := range leaf(d, o, i, &p.Leaves[i]) {
			if !slices.ContainsFunc(p.ToRead, func(s site.Suggestion) bool {
				return s.Reading.Title().String() == ask.Reading.Title().String()
			}) {
				p.ToRead = append(p.ToRead, ask)
			}
		}
	}
	if o.drawn != nil {
		hangAll(d, o, p.Leaves)
	}
	if o.cleared != nil {
		l, more := linings.Make(d, *o.cleared, behind(d, p.Leaves))
		p.Lining = l
		p.Findings = append(p.Findings, more...)
	}
	p.Places = places(d, p.Findings, p.ToRead)
	signed(d, &p)
	p.Steps, p.Next = progress(d, p)
	return p
}

// leaf plans one slab in its bay, with its findings. ask are the readings that its cut waits for.
func leaf(d site.Opening, o opening, i int, l *Leaf) (ask []site.Suggestion) {
	b, say := o.bays[i], func(f site.Findings) { l.Findings = append(l.Findings, f...) }
	var said site.Findings

	l.Wanted, l.Strike = o.wanted, b.Strikes
	l.Gauges, said = hinges.GaugesOf(d, b, l.Wanted[frame.Hinge].Value)
	say(said)
	l.Season, said = seasons.Of(d, b, o.plain, l.Wanted[frame.Lock])
	say(said)
	say(slabs.Turned(d, b))
	if o.drawn == nil {
		return nil
	}
	drawn := o.drawn[i]
	if b.Slab.Thickness > 0 {
		var other *fit.Outline
		if b.Meets {
			other = &o.drawn[1-i]
		}
		w, said := swings.Of(d, b, drawn, other)
		l.Swing = &w
		say(said)
	}
	l.Light, l.Sure, said = margins.Lights(d, drawn, l.Wanted)
	say(said)
	corners := margins.HeadCorners(d, drawn)
	size := margins.Finished(d, drawn, l.Sure)
	l.Finished = &size

	var laid *fit.Laid
	l.Cut, laid, ask, said = cuts.Mark(d, o.read, b, cuts.Wish{Outline: drawn, Leave: o.leave[i], Corner: corners[1]})
	say(said)
	if l.Cut != nil && l.Swing != nil {
		l.Cut.Bevel(l.Swing.Bevel)
	}
	l.Hinges, said = hinges.Place(d, b, hinges.Room{Outline: drawn, Corner: corners[0], Sure: l.Sure, Laid: laid})
	say(said)
	l.Gauges.Pull = hinges.PullOf(b, l.Hinges)
	edge := lockEdge(laid)
	l.Latch, said = locks.Place(d, o.read, b, edge, corners[1])
	say(said)
	l.Stops, said = stops.Place(d, b)
	say(said)
	if l.Strikes = locks.Bolting(d, b); l.Latch != nil {
		l.Hardware, said = locks.Works(d, b, *l.Latch, edge)
		say(said)
		say(locks.OldHoles(d, l.Hardware))
		for _, v := range l.Hardware {
			l.Strikes = append(l.Strikes, locks.Striking(v.Work)...)
		}
	}
	if len(l.Hinges) > 0 && l.Swing != nil && d.Set() == nil { // a set's slab hangs in it as it comes
		l.Hanging = hangs.Lift(d, b, corners, l.Swing.Shut, l.Swing.Open)
	}
	if l.Cut != nil && len(l.Hinges) > 0 {
		o.planned[i] = hangs.Made(d, b, l.Cut.Marks(), hinges.Made(d, l.Hinges), corners[0].Value)
	}
	if d.Service != nil && len(l.Hinges) > 0 {
		o.planned[i] = asItHangs(d, hinges.Made(d, l.Hinges), corners[0].Value)
	}
	if m := o.planned[i]; m != nil && l.Latch != nil {
		_, length := hangs.Sizes(*m)
		if left := edge.LeftOn(d, b); left > 0 {
			o.bored[i] = &try.Bored{At: (length[1] - l.Latch.Slab.Value).MM(), Left: left.MM()}
		}
	}
	l.Rod = rodMarks(d, *l)
	drawing := draw(d, drawn, *l)
	l.Drawing = &drawing
	return ask
}

// lockEdge is the lock edge as the first cut leaves it, from which a lock is bored; nil while the slab is not laid.
func lockEdge(laid *fit.Laid) *locks.Edge {
	if laid == nil {
		return nil
	}
	e := locks.Edge{
		Top: laid.Top[1], Final: laid.Final, HeadLeft: laid.Left[frame.Head], Left: laid.Left[frame.Lock],
		Long: laid.Length[2], FootLeft: laid.Left[frame.Foot],
	}
	for _, c := range laid.Cuts[frame.Lock] {
		e.Off = max(e.Off, c.Depth)
	}
	return &e
}

// behind are the hinges and the strike that a frame is packed behind.
func behind(d site.Opening, leaves []Leaf) (list []linings.Behind) {
	for i, l := range leaves {
		side := []frame.Side{frame.Hinge, frame.Lock}[i]
		for _, h := range slices.Backward(l.Hinges) {
			list = append(list, linings.Behind{Side: side, Down: h.Jamb.Value + d.Hinges.Leaf/2, What: h.Name})
		}
	}
	if d.Pair == nil && len(leaves) > 0 && leaves[0].Latch != nil {
		list = append(list, linings.Behind{Side: frame.Lock, Down: leaves[0].Latch.Jamb.Value, What: "packed.strike"})
	}
	return list
}

// hangAll works out how each leaf was cut and hangs, once all are laid.
func hangAll(d site.Opening, o opening, leaves []Leaf) {
	for i, b := range o.bays {
		l := &leaves[i]
		in := hangs.Input{
			Opening: d, Survey: o.read, Bays: o.bays, Leaf: i, Planned: o.planned, Wanted: l.Wanted, Bored: o.bored[i],
		}
		if l.Stops != nil {
			in.Stops = &l.Stops.StopPlan
		}
		if h := hangs.Recorded(d, i).Hangs; len(h) > 0 {
			in.Since = seasons.Since(d, b, h[len(h)-1])
		}
		var said site.Findings
		l.Try, said = hangs.Of(in)
		if d.Service != nil {
			beforePlaning(l)
		}
		l.Findings = append(l.Findings, said...)
	}
}

// Settled is the plan with a clash settled one way: a reading struck out, or two values swapped.
type Settled struct {
	Reading survey.Reading
	Swapped *survey.Reading
	Plan    *Plan
}
