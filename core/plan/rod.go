package plan

import (
	"fmt"
	"hash"
	"hash/fnv"
	"math"
	"slices"
	"strconv"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

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

// States lists them.
var States = []State{Waits, Open, Done, Nicked}

// Notch is one step as it stands.
type Notch struct {
	Step  job.Step
	State State
	Ready bool       // it can be finished: its answer is there and nothing stops it
	Says  message.ID // what it waits for or what to do, in a few words
	Mark  string     // what Opening.Done holds when it is finished as it now is
}

// Done reports whether a step is finished, as its inputs now are.
func (p Plan) Done(s job.Step) bool {
	return slices.ContainsFunc(p.Notches, func(n Notch) bool { return n.Step == s && n.State == Done })
}

// rod works out each notch; next is the first step that is not done.
func rod(d door, p Plan) (notches []Notch, next job.Step) {
	var before *Plan // by the rules that steps were finished by, worked out where it is asked for
	clash := len(p.Clashes) > 0
	// earlier reports whether a step was finished by earlier rules, and would be marked as it was by them:
	// nothing that it hangs on has changed since.
	earlier := func(step job.Step, done string) bool {
		by := rulesOfMark(done)
		if by >= d.rules {
			return false
		}
		if before == nil {
			p := solve(d.by(by))
			before = &p
		}
		return mark(d.by(by), *before, step) == done
	}
	for _, step := range job.Steps {
		stopped := slices.ContainsFunc(p.All(), func(f Finding) bool { return f.Gravity == Stop && f.Step == step })
		answered := has(d, p, step)
		if clash && step != job.StepMeasure { // all that follows hangs on the readings
			answered = false
		}
		n := Notch{Step: step, State: Open, Ready: answered && !stopped, Mark: mark(d, p, step)}
		if step == job.StepTry && !fitsAll(p) {
			n.Ready = false
		}
		done, was := d.Done[step]
		switch {
		case !answered:
			n.State, n.Says = Waits, "step-waits."+message.ID(step)
			if clash && step != job.StepMeasure {
				n.Says = "notch.clash"
			}
			if c := d.Framed(); c != nil && step == job.StepMeasure {
				n.Says = "notch.frame"
			}
			if step == job.StepMeasure || step == job.StepSlab && !clash {
				n.State = Open // nothing before them to wait for
			}
		case was && (done == n.Mark || earlier(step, done)) && !stopped:
			n.State, n.Says = Done, "notch.done"
		case was:
			n.State, n.Says = Nicked, "notch.changed"
		case step == job.StepMeasure && len(p.ToRead) > 0:
			n.Says = "notch.more"
		default:
			n.Says = "step-open." + message.ID(step)
		}
		if stopped && answered {
			n.Says = "notch.wrong"
		}
		notches = append(notches, n)
		if next == "" && n.State != Done {
			next = step
		}
	}
	return notches, next
}

// fitsAll reports whether the tries of every leaf are over.
func fitsAll(p Plan) bool {
	return !slices.ContainsFunc(p.Leaves, func(l Leaf) bool { return !l.Try.Done() })
}

// All are the findings of the opening and of its leaves.
func (p Plan) All() []Finding {
	list := slices.Clone(p.Findings)
	for _, l := range p.Leaves {
		list = append(list, l.Findings...)
	}
	return list
}

// has reports whether a step has its answer, for every leaf.
func has(d door, p Plan, step job.Step) bool {
	if c := d.Framed(); c != nil && !c.Stands && step == job.StepMeasure {
		return false
	}
	bays := baysOf(d)
	for i, l := range p.Leaves {
		measured := len(bays[i].slab.Missing()) == 0
		ok := l.Drawing != nil
		switch step {
		case job.StepSlab:
			ok = measured
		case job.StepCut:
			ok = l.Cut != nil
		case job.StepHinges:
			ok = len(l.Hinges) > 0
		case job.StepSwing:
			ok = l.Swing != nil
		case job.StepStops:
			ok = l.Stops != nil
		case job.StepTry:
			ok = l.Try != nil
		case job.StepLog:
			ok = l.Try.Done()
		case job.StepLock:
			// A pair's leaf that is bolted is marked from the other, once it hangs.
			ok = l.Latch != nil || bays[i].meets && len(l.Hinges) > 0 && bays[i].slab.Thickness > 0
		}
		if !ok && (step != job.StepMeasure || !answers(p)) {
			return false
		}
	}
	return true
}

// answers reports whether the readings gave an answer at all.
func answers(p Plan) bool {
	return !slices.ContainsFunc(p.ToRead, func(s Suggestion) bool { return s.Needed })
}

// mark is a short print of what a step came to, the leaves of a pair one after
// the other.
func mark(d door, p Plan, step job.Step) string {
	var s string
	for i, b := range baysOf(d) {
		m := marker{h: fnv.New32a()}
		m.put(d, b, p.Leaves[i], step)
		s += fmt.Sprintf("%08x", m.h.Sum32())
	}
	return d.marked(s)
}

type marker struct {
	h    hash.Hash32
	line []byte
}

func (m *marker) print(a ...any) { fmt.Fprintln(m.h, a...) }

// write ends a line, which print would have printed the same.
func (m *marker) write(line []byte) {
	m.line = append(line, '\n')
	m.h.Write(m.line)
}

// lengths prints nanometres.
func (m *marker) lengths(list ...measure.Length) { m.write(appendLengths(m.line[:0], list...)) }

func appendLengths(line []byte, list ...measure.Length) []byte {
	for i, l := range list {
		if i > 0 {
			line = append(line, ' ')
		}
		line = strconv.AppendInt(line, int64(l), 10)
	}
	return line
}

func (m *marker) put(d door, b bay, l Leaf, step job.Step) {
	switch step {
	case job.StepMeasure:
		m.readings(d)
	case job.StepSlab:
		m.slab(b, l)
	case job.StepMargins:
		for _, w := range l.Wanted {
			m.lengths(w.Value)
		}
		m.print(d.Margins.Least, d.Margins.Uneven)
	case job.StepCut:
		if l.Cut == nil {
			return
		}
		for _, e := range l.Cut.Edges {
			for _, k := range e.Marks {
				m.lengths(k.At, k.Depth.Value)
			}
		}
	case job.StepHinges:
		for _, h := range l.Hinges {
			m.lengths(h.Slab.Value, h.Jamb.Value, h.Pack.Value)
		}
		m.print(l.Gauges.Depth.Value, l.Gauges.Width.Value)
	case job.StepSwing:
		if w := l.Swing; w != nil {
			m.lengths(w.Bevel.Value, w.Relief.Value, l.Wanted[frame.Foot].Value)
			against := w.Against.ID
			if d.rules <= rules2 {
				against = wordsOf2(d, against)
			}
			m.print(math.Round(w.Opens), against)
		}
	case job.StepTry, job.StepLog:
		m.tries(l.Try)
	case job.StepStops:
		if l.Stops != nil {
			m.lengths(l.Stops.From.Value)
			for _, v := range l.Stops.Moves {
				m.lengths(v.By.Value)
			}
		}
	case job.StepLock:
		if k := l.Latch; k != nil {
			m.lengths(k.Slab.Value, k.Jamb.Value, k.Backset.Value, k.Centre.Value)
		}
	}
}

// readings prints all that the shape hangs on. What came later is put only where
// it is given, so that doors that were finished before stay so.
func (m *marker) readings(d door) {
	for _, r := range d.Readings {
		m.line = append(append(append(append(m.line[:0], r.Kind...), ' '), r.Side.String()...), ' ')
		m.line = appendLengths(m.line, r.At, r.From, r.To, r.Value)
		m.line = append(append(append(m.line, ' '), r.Offer...), ' ')
		m.line = append(strconv.AppendBool(m.line, r.Struck != ""), ' ')
		m.write(appendLengths(m.line, r.PlusMinus/2))
		if r.Blocked {
			m.print(token(d, "blocked", "nothing passes"))
		}
		if r.Tool != "" || r.Turned {
			m.print(r.Tool, r.Turned)
		}
	}
	for _, t := range d.kit.Tools {
		m.print(t.ID, t.Instrument)
		if t.Proved != nil {
			m.print(t.Proved.Bias, t.Proved.Sure, t.Proved.Sigma)
		}
	}
	for _, f := range d.Offers {
		m.print(f.ID, int64(f.Width), int64(f.Length), f.Old, int64(f.WidthMid), int64(f.WidthFoot), int64(f.LengthLock))
		if f.Square != nil {
			m.lengths(*f.Square)
		}
	}
	if d.Walls == job.New {
		m.print(token(d, "new", "new frame"))
	}
	if d.PlusMinus != 0 {
		m.lengths(d.PlusMinus / 2)
	}
}

// token is what a mark holds for something that is so; version 2 of the rules held words.
func token(d door, id, was string) string {
	if d.rules <= rules2 {
		return was
	}
	return id
}

// wordsOf2 is what a mark by version 2 of the rules held for what a door opens against.
func wordsOf2(d door, id string) string {
	for i, t := range d.Swing.Things {
		if id == thingID(i) {
			return t.Name
		}
	}
	return id
}

// slab prints in the form in which the second data form printed it.
func (m *marker) slab(b bay, l Leaf) {
	limit := func(l *measure.Length) string {
		if l == nil {
			return "<nil>"
		}
		return l.String()
	}
	var size [2]measure.Length
	if l.Finished != nil {
		size = [2]measure.Length{l.Finished.Width.Value, l.Finished.Length.Value}
	}
	s := b.slab
	m.print(fmt.Sprintf("{Width:%v Length:%v Thickness:%v WidthMid:%v WidthFoot:%v LengthLock:%v Square:%v Construction:%v Machined:%v Limits:{Head:%s Hinge:%s Lock:%s Foot:%s} Pivot:%v Handle:%v}",
		s.Width, s.Length, s.Thickness, s.WidthMid, s.WidthFoot, s.LengthLock, s.Square, s.Construction, s.Machined,
		limit(s.Limits.Head), limit(s.Limits.Hinge), limit(s.Limits.Lock), limit(s.Limits.Foot), s.Pivot, s.Handle), size[0], size[1])
}
