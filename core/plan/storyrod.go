package plan

import (
	"slices"
	"strings"

	"kindmargin/core/figure"
	"kindmargin/core/job"
	"kindmargin/core/measure"
)

// rodMarks are the marks of a story rod for one leaf, off its one end, that set past the
// slab's top by the head margin meets the head: each hinge's top and bottom, and the latch.
func rodMarks(d door, l Leaf) (list []RodMark) {
	for _, h := range l.Hinges {
		list = append(list, RodMark{h.Name + ", top", h.Jamb, h.Slab}, RodMark{h.Name + ", bottom", down(h.Jamb, d.Hinges.Leaf), down(h.Slab, d.Hinges.Leaf)})
	}
	if l.Latch != nil {
		list = append(list, RodMark{"latch, on the lock side", l.Latch.Jamb, l.Latch.Slab})
	}
	return list
}

// RodMark is one mark of a story rod: in the jamb from the head, on the slab from its
// finished top. They differ by the head margin.
type RodMark struct {
	Name       string
	Jamb, Slab figure.Figure
}

func down(f figure.Figure, by measure.Length) figure.Figure {
	terms := append(append([]figure.Term{}, f.Terms...), figure.Term{Label: "the leaf's own length", Value: by, Source: figure.Choice})
	return figure.Sum(f.Sigma, terms...)
}

// Rod is a story rod of one door for others.
type Rod struct {
	Of    string // the door whose marks it carries
	Marks []RodMark
	Doors []RodDoor
}

// RodDoor is how another door differs from the rod: nothing where it meets every mark.
type RodDoor struct {
	ID, Name string
	Leaf     int // of a pair, 1 or 2
	Off      []RodOff
	Missing  string // why it cannot be compared
}

// RodOff is one mark that another door has elsewhere: so much lower, on the jamb and on
// the slab; below nought, higher.
type RodOff struct {
	Name       string
	Jamb, Slab measure.Length
}

// StoryRod is one rod for all the doors of a job, marked from one of them; ok is false
// where that has no hinges yet. A mark within half a mark of the tape meets the rod.
func StoryRod(j job.Job, from string) (r Rod, ok bool) {
	plans := make([]Plan, len(j.Openings))
	for i, o := range j.Openings {
		plans[i] = Solve(j, o)
		if o.ID == from && len(plans[i].Leaves[0].Rod) > 0 {
			r.Of, r.Marks, ok = o.Name, plans[i].Leaves[0].Rod, true
		}
	}
	if !ok {
		return r, false
	}
	near := j.Tape.Step() / 2
	for i, o := range j.Openings {
		for n, l := range plans[i].Leaves {
			if o.ID == from && n == 0 {
				continue
			}
			door := RodDoor{ID: o.ID, Name: o.Name, Leaf: n + 1}
			if len(l.Rod) == 0 {
				door.Missing = "its hinges are not marked yet"
			}
			for _, m := range r.Marks {
				for _, theirs := range l.Rod {
					jamb, slab := theirs.Jamb.Value-m.Jamb.Value, theirs.Slab.Value-m.Slab.Value
					if theirs.Name == m.Name && (jamb.Abs() > near || slab.Abs() > near) {
						door.Off = append(door.Off, RodOff{m.Name, jamb, slab})
					}
				}
			}
			if len(l.Hinges) != 0 && len(l.Hinges) != hingesOf(r.Marks) {
				door.Missing = "it hangs on " + number(len(l.Hinges)) + " hinges"
			}
			r.Doors = append(r.Doors, door)
		}
	}
	return r, true
}

func hingesOf(marks []RodMark) (n int) {
	for _, m := range marks {
		if strings.HasSuffix(m.Name, ", top") {
			n++
		}
	}
	return n
}

// SameRod reports whether two rods carry the same marks, to so near.
func SameRod(a, b []RodMark, near measure.Length) bool {
	return slices.EqualFunc(a, b, func(a, b RodMark) bool {
		return a.Name == b.Name && (a.Jamb.Value-b.Jamb.Value).Abs() <= near && (a.Slab.Value-b.Slab.Value).Abs() <= near
	})
}
