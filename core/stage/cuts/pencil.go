package cuts

import (
	"cmp"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// Pencil is a mark of the frame on the slab that was stood against it, and where the cut lies from it.
type Pencil struct {
	At   measure.Length // down the uncut edge from its top, or across from its hinge edge
	Past measure.Length // how far into the slab from the pencil's line; below nought the cut stays short of it
}

// Says tells where the cut lies from the line.
func (p Pencil) Says() message.Message {
	switch {
	case p.Past > 0:
		return message.With("pencil.past", "by", p.Past)
	case p.Past < 0:
		return message.With("pencil.short", "by", -p.Past)
	}
	return message.With("pencil.on")
}

// pencilled are the marks on an edge, in their order along it: where the slab overlapped its frame. What is between two
// marks of the cut is on the straight line through them; it is rounded to leave more on.
func pencilled(d site.Opening, b site.Bay, e Edge) (list []Pencil) {
	var depths []frame.Along
	for _, m := range e.Marks {
		depths = append(depths, frame.Along{At: m.At.MM(), Off: m.Depth.Value.MM()})
	}
	long := b.Slab.Length
	if e.Side == frame.Lock && b.Slab.LengthLock > 0 {
		long = b.Slab.LengthLock
	}
	for _, r := range d.Readings {
		on := func(f survey.Offer) bool { return f.ID == r.Offer && d.CutsOffered(f) }
		if r.Kind != survey.Gap || r.Side != e.Side || r.Struck != "" || r.Value >= 0 || !slices.ContainsFunc(d.Offers, on) {
			continue
		}
		at := r.At
		if e.Side.Upright() {
			at = long - at
		}
		past := measure.FromMM(frame.OffAt(depths, at.MM())) + r.Value
		list = append(list, Pencil{at, past.Round(d.Tape.Step(), measure.Down)})
	}
	slices.SortFunc(list, func(a, b Pencil) int { return cmp.Compare(a.At, b.At) })
	return list
}
