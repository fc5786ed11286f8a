package plan

import (
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// laying is how the outline is laid on the slab.
type laying struct {
	outline fit.Outline // with the strike that is there, and the place where the slab was offered up
	chosen  fit.Judged
	rules   []message.ID
	ways    []Way
}

// lay judges every way of laying the slab that is not ruled out by force, and
// keeps them all for the page. lockCorner is the head margin at the lock corner.
func lay(d door, s surveyed, b bay, o fit.Outline, lockCorner figure.Figure) (l laying, said findings) {
	c := d.Cut
	if down, ok := strikeOnSlab(d, b, lockCorner); ok {
		o = o.Strike(down.MM())
	}
	ways := fit.Judge(o, b.slab, fit.Ways(o, b.slab))
	allowed := slices.DeleteFunc(slices.Clone(ways), func(w fit.Judged) bool { return !asked(c, w.Laying) })
	if len(allowed) == 0 { // a forced choice that does not exist is refused by Check
		allowed = ways
	}
	best, why := fit.Choose(allowed, b.slab)
	if !allowed[best].Keeps() {
		for _, w := range fit.Judge(o, b.slab, fit.Shared(b.slab)) {
			if w.Keeps() && asked(c, w.Laying) {
				ways, allowed = append(ways, w), append(allowed, w)
			}
		}
		best, why = fit.Choose(allowed, b.slab)
	}
	stood, ok := asOffered(d, s, b, o)
	if ok {
		o = stood
		judged := fit.Judge(o, b.slab, []fit.Laying{{Across: fit.AsOffered}})
		ways = append(ways, judged...)
		if c.Registration == string(fit.AsOffered) {
			allowed, best, why = judged, 0, nil
		}
	} else if c.Registration == string(fit.AsOffered) {
		said.say(Stop, job.StepCut, "/cut/registration", NotOffered, nil)
	}
	l.outline, l.chosen = o, allowed[best]
	if len(allowed) > 1 {
		l.rules = why
	}
	l.ways = make([]Way, 0, len(ways))
	for _, w := range ways {
		l.ways = append(l.ways, wayOf(d.tape, w, l.chosen.Laying))
	}
	return l, said
}

// asked reports whether a way of laying the slab is one that was asked for.
func asked(c job.Cut, l fit.Laying) bool {
	return (c.Registration == job.ByRule || c.Registration == string(l.Across)) &&
		(c.Ends == "" || c.Ends == job.ByRule || c.Ends == string(l.Along))
}

func wayOf(tape measure.Tape, w fit.Judged, chosen fit.Laying) Way {
	way := Way{
		Laying: w.Laying, Chosen: w.Laying == chosen, Short: len(w.Short) > 0,
		Head: safe(w.Deepest[frame.Head], tape), Foot: safe(w.Deepest[frame.Foot], tape),
	}
	for i, k := range []int{0, 4} {
		way.Hinge[i] = safe(w.Cuts[frame.Hinge][k].Depth, tape)
		way.Lock[i] = safe(w.Cuts[frame.Lock][k].Depth, tape)
	}
	for _, side := range frame.Sides {
		if w.Over[side] > 0 {
			way.Over = append(way.Over, side)
		}
	}
	return way
}

// asOffered is the outline with the slab as it stood in the opening; ok is false
// where it was not offered up.
func asOffered(d door, s surveyed, b bay, o fit.Outline) (fit.Outline, bool) {
	if b.meets {
		return o, false
	}
	for _, f := range d.Offers {
		read := slices.ContainsFunc(s.readings, func(r survey.Reading) bool { return r.Kind == survey.Gap && r.Offer == f.ID })
		if u, v, lean, ok := s.shape.Placing(f.ID); ok && read && !f.Old {
			return o.Offer(u, v, lean), true
		}
	}
	return o, false
}

// strikeOnSlab is how far down the slab's lock edge, from its finished head, the
// latch meets the strike that is there. ok is false where no bore has to.
func strikeOnSlab(d door, b bay, lockCorner figure.Figure) (down measure.Length, ok bool) {
	if b.slab.Handle == 0 || d.Lock.From != lock.FromStrike || d.Lock.Strike == 0 || b.meets {
		return 0, false
	}
	return d.Lock.Strike - lockCorner.Value, true
}

// safe rounds a depth so that more is left on, and never takes off less than
// nothing.
func safe(depth float64, tape measure.Tape) measure.Length {
	return figure.Figure{Value: max(measure.FromMM(depth), 0)}.Rounded(tape, measure.Down).Value
}
