package plan

import (
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
)

// rodMarks are the marks of a story rod for one leaf, from the end that is held past the slab's top by the head margin,
// against the head: each hinge's top and bottom, and the latch.
func rodMarks(d site.Opening, l Leaf) (list []RodMark) {
	for _, h := range l.Hinges {
		of := message.Args{"hinge": h.Name}
		list = append(
			list,
			RodMark{string(h.Name) + "/top", message.Message{ID: "rod.top", Args: of}, h.Jamb, h.Slab},
			RodMark{
				string(h.Name) + "/bottom",
				message.Message{ID: "rod.bottom", Args: of},
				down(h.Jamb, d.Hinges.Leaf),
				down(h.Slab, d.Hinges.Leaf),
			},
		)
	}
	if l.Latch != nil {
		list = append(list, RodMark{"latch", message.Message{ID: "rod.latch"}, l.Latch.Jamb, l.Latch.Slab})
	}
	return list
}

// RodMark is one mark of a story rod: in the jamb from the head, on the slab from its finished top. The two differ by
// the head margin.
type RodMark struct {
	ID         string // the same for every door: "hinge.top/bottom", "latch"
	Name       message.Message
	Jamb, Slab figure.Figure
}

func down(f figure.Figure, by measure.Length) figure.Figure {
	terms := append(append([]figure.Term{}, f.Terms...), figure.Term{
		Label: "term.leaf-length", Value: by, Source: figure.Choice,
	})
	return figure.Sum(f.Sigma, terms...)
}

// Rod is a story rod from one opening for others.
type Rod struct {
	Of       string // the opening whose marks it carries
	Marks    []RodMark
	Openings []RodOpening

	from   string // its ID
	hinges int    // that it carries
}

// RodOpening is how another opening differs from the rod; empty where every mark agrees.
type RodOpening struct {
	ID, Name string
	Leaf     int // of a pair, 1 or 2
	Off      []RodOff
	Missing  message.Message // why it cannot be compared; the zero value where it can
}

// RodOff is one mark that is elsewhere in another opening: by how much lower on the jamb and on the slab; negative is
// higher.
type RodOff struct {
	ID         string // of the mark
	Name       message.Message
	Jamb, Slab measure.Length
}

// StoryRod is a rod for the openings of a job, marked from one of them; ok is false where that has no hinges yet.
func StoryRod(from Opening) (r Rod, ok bool) {
	leaf := from.Plan.Leaves[0]
	return Rod{Of: from.Name, Marks: leaf.Rod, from: from.ID, hinges: len(leaf.Hinges)}, len(leaf.Rod) > 0
}

// Compare adds how an opening differs from the rod, with a tolerance of near.
func (r *Rod) Compare(d Opening, near measure.Length) {
	for n, l := range d.Plan.Leaves {
		if d.ID == r.from && n == 0 {
			continue
		}
		other := RodOpening{ID: d.ID, Name: d.Name, Leaf: n + 1}
		if len(l.Rod) == 0 {
			other.Missing = message.Message{ID: "rod.not-marked"}
		}
		for _, m := range r.Marks {
			for _, theirs := range l.Rod {
				jamb, slab := theirs.Jamb.Value-m.Jamb.Value, theirs.Slab.Value-m.Slab.Value
				if theirs.ID == m.ID && (jamb.Abs() > near || slab.Abs() > near) {
					other.Off = append(other.Off, RodOff{m.ID, m.Name, jamb, slab})
				}
			}
		}
		if len(l.Hinges) != 0 && len(l.Hinges) != r.hinges {
			other.Missing = message.Message{
				ID: "rod.hangs-on", Args: message.Args{"hinges": message.Count(len(l.Hinges))},
			}
		}
		r.Openings = append(r.Openings, other)
	}
}

// SameRod reports whether two rods carry the same marks, with a tolerance of near.
func SameRod(a, b []RodMark, near measure.Length) bool {
	return slices.EqualFunc(a, b, func(a, b RodMark) bool {
		return a.ID == b.ID && (a.Jamb.Value-b.Jamb.Value).Abs() <= near && (a.Slab.Value-b.Slab.Value).Abs() <= near
	})
}
