package plan

import (
	"fmt"
	"hash"
	"hash/fnv"
	"math"
	"strconv"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/site"
	"kindmargin/core/stage/hangs"
	"kindmargin/core/stage/swings"
)

// tries prints the results of a leaf's tries.
func (m *marker) tries(v *hangs.Try) {
	if v == nil || len(v.Hangs) == 0 {
		return
	}
	h := v.Hangs[len(v.Hangs)-1]
	m.print(strconv.Itoa(len(v.Hangs)), h.ID, v.Fits, h.Fits)
	for _, g := range h.Gaps {
		m.print(g.Side, int64(g.At), int64(g.Value), g.Sight, g.Struck != "")
	}
}

// mark is a hash of a step's results, the leaves of a pair one after the other.
func mark(d site.Opening, p Plan, step job.Step) string {
	var s string
	for i, b := range site.Bays(d) {
		m := marker{h: fnv.New32a()}
		m.put(d, b, p.Leaves[i], step)
		s += fmt.Sprintf("%08x", m.h.Sum32())
	}
	return d.Marked(s)
}

type marker struct {
	h    hash.Hash32
	line []byte
}

func (m *marker) print(a ...any) { fmt.Fprintln(m.h, a...) }

// write ends a line, with the same bytes as print.
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

func (m *marker) put(d site.Opening, b site.Bay, l Leaf, step job.Step) {
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
		for _, e := range l.Cut.Edges { // whatever order they are cut in
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
			if d.Rules <= site.Rules2 {
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

// readings prints all inputs of the shape. Later fields are printed only where they are given, so that the marks of
// steps that were finished before stay the same.
func (m *marker) readings(d site.Opening) {
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
	for _, t := range d.Kit.Tools {
		m.print(t.ID, t.Instrument)
		if t.Proved != nil {
			m.print(t.Proved.Bias, t.Proved.Sure, t.Proved.Sigma)
		}
	}
	for _, f := range d.Offers {
		m.print(
			f.ID, int64(f.Width), int64(f.Length), f.Old, int64(f.WidthMid), int64(f.WidthFoot), int64(f.LengthLock),
		)
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

// token is how a mark prints true; version 2 of the rules printed words.
func token(d site.Opening, id, was string) string {
	if d.Rules <= site.Rules2 {
		return was
	}
	return id
}

// wordsOf2 is how a mark by version 2 of the rules printed what a slab opens against.
func wordsOf2(d site.Opening, id string) string {
	for i, t := range d.Swing.Things {
		if id == swings.ThingID(i) {
			return t.Name
		}
	}
	return id
}

// slab prints in the form of data file 2.
func (m *marker) slab(b site.Bay, l Leaf) {
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
	s := b.Slab
	m.print(fmt.Sprintf("{Width:%v Length:%v Thickness:%v WidthMid:%v WidthFoot:%v LengthLock:%v Square:%v Construction:%v Machined:%v Limits:{Head:%s Hinge:%s Lock:%s Foot:%s} Pivot:%v Handle:%v}",
		s.Width, s.Length, s.Thickness, s.WidthMid, s.WidthFoot, s.LengthLock, s.Square, s.Construction, s.Machined,
		limit(s.Limits.Head), limit(s.Limits.Hinge), limit(s.Limits.Lock), limit(s.Limits.Foot), s.Pivot, s.Handle),
		size[0], size[1])
}
