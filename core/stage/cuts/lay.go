package cuts

import (
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// laying is the chosen way of laying the outline on the slab.
type laying struct {
	outline fit.Outline // with the strike that is there, and the place where the slab was offered up
	chosen  fit.Judged
	rules   []message.ID
	ways    []Way
}

// lay judges every way of laying the slab that no choice rules out, and keeps them all. lockCorner is the head margin
// at the lock corner.
func lay(
	d site.Opening, s site.Survey, b site.Bay, o fit.Outline, lockCorner figure.Figure,
) (l laying, said site.Findings) {
	c := d.Cut
	if down, ok := strikeOnSlab(d, b, lockCorner); ok {
		o = o.Strike(down.MM())
	}
	ways := fit.Judge(o, b.Slab, fit.Ways(o, b.Slab))
	allowed := slices.DeleteFunc(slices.Clone(ways), func(w fit.Judged) bool { return !asked(c, w.Laying) })
	if len(allowed) == 0 { // a forced choice that does not exist is refused by Check
		allowed = ways
	}
	best, why := fit.Choose(allowed, b.Slab)
	if !allowed[best].Keeps() {
		for _, w := range fit.Judge(o, b.Slab, fit.Shared(b.Slab)) {
			if w.Keeps() && asked(c, w.Laying) {
				ways, allowed = append(ways, w), append(allowed, w)
			}
		}
		best, why = fit.Choose(allowed, b.Slab)
	}
	stood, ok := asOffered(d, s, b, o)
	if ok {
		o = stood
		judged := fit.Judge(o, b.Slab, []fit.Laying{{Across: fit.AsOffered}})
		ways = append(ways, judged...)
		if c.Registration == fit.AsOffered {
			allowed, best, why = judged, 0, nil
		}
	} else if c.Registration == fit.AsOffered {
		said.Say(site.Stop, job.StepCut, "/cut/registration", site.NotOffered, nil)
	}
	l.outline, l.chosen = o, allowed[best]
	if len(allowed) > 1 {
		l.rules = why
	}
	l.ways = make([]Way, 0, len(ways))
	for _, w := range ways {
		l.ways = append(l.ways, wayOf(d.Tape, w, l.chosen.Laying))
	}
	return l, said
}

// asked reports whether a way of laying the slab was chosen by hand.
func asked(c job.Cut, l fit.Laying) bool {
	return (c.Registration == job.ByRule || c.Registration == l.Across) &&
		(c.Ends == "" || c.Ends == job.ByRule || c.Ends == l.Along)
}

func wayOf(tape measure.Tape, w fit.Judged, chosen fit.Laying) Way {
	way := Way{
		Laying: w.Laying, Chosen: w.Laying == chosen, Short: len(w.Short) > 0,
		Head: figure.Safe(w.Deepest[frame.Head], tape), Foot: figure.Safe(w.Deepest[frame.Foot], tape),
	}
	for i, k := range []int{0, 4} {
		way.Hinge[i] = figure.Safe(w.Cuts[frame.Hinge][k].Depth, tape)
		way.Lock[i] = figure.Safe(w.Cuts[frame.Lock][k].Depth, tape)
	}
	for _, side := range frame.Sides {
		if w.Over[side] > 0 {
			way.Over = append(way.Over, side)
		}
	}
	return way
}

// asOffered is the outline with the slab as it stood in the opening; ok is false where it was not offered up.
func asOffered(d site.Opening, s site.Survey, b site.Bay, o fit.Outline) (fit.Outline, bool) {
	if b.Meets {
		return o, false
	}
	for _, f := range d.Offers {
		read := slices.ContainsFunc(s.Readings, func(r survey.Reading) bool {
			return r.Kind == survey.Gap && r.Offer == f.ID
		})
		if u, v, lean, ok := s.Shape.Placing(f.ID); ok && read && !f.Old {
			return o.Offer(u, v, lean), true
		}
	}
	return o, false
}

// strikeOnSlab is how far down the slab's lock edge, from its finished head, the latch meets the existing strike. ok is
// false where no bore has to meet one.
func strikeOnSlab(d site.Opening, b site.Bay, lockCorner figure.Figure) (down measure.Length, ok bool) {
	if b.Slab.Handle == 0 || d.Lock.From != lock.FromStrike || d.Lock.Strike == 0 || b.Meets {
		return 0, false
	}
	return d.Lock.Strike - lockCorner.Value, true
}
