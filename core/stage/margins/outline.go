package margins

import (
	"errors"
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
)

// Outlines fits the outline of each bay's slab; nil where the margins leave none.
func Outlines(d site.Opening, s site.Survey, bays []site.Bay, want fit.Targets) ([]fit.Outline, site.Findings) {
	var list []fit.Outline
	var err error
	if d.Pair == nil {
		list = make([]fit.Outline, 1)
		list[0], err = fit.Draw(s.Shape, want)
	} else {
		var pair [2]fit.Outline
		pair, err = fit.DrawPair(s.Shape, want, fit.Meeting{Offset: d.Pair.Offset.MM()})
		list = pair[:]
	}
	var said site.Findings
	var room *fit.ErrNoRoom
	switch {
	case errors.As(err, &room):
		said.Say(site.Stop, job.StepMargins, "/margins/least", site.NoRoom, message.Args{
			"width": measure.FromMM(room.Width), "height": measure.FromMM(room.Height),
		})
		return nil, said
	case err != nil:
		said.Say(site.Stop, job.StepMargins, "/readings", site.NoOutline, message.Args{"problem": message.Problem(err)})
		return nil, said
	}
	for i, b := range bays {
		if long := max(b.Slab.Length, b.Slab.LengthLock); d.Framed() != nil && long > 0 {
			list[i] = list[i].Uncut(long.MM())
		}
		list[i] = scribe(d, b, list[i], want)
		var more site.Findings
		if list[i], more = hollow(d, b, list[i], want); i == 0 {
			said.Add(more)
		}
	}
	return list, said
}

// scribe scribes lock edge and head to their sides where a straight edge would leave more unevenness than is accepted,
// or where it was chosen. A machined edge stays straight, and so does the meeting edge of a pair.
func scribe(d site.Opening, b site.Bay, o fit.Outline, want fit.Targets) fit.Outline {
	chosen := frame.Each[job.Shape]{frame.Lock: d.Opening.Cut.LockEdge, frame.Head: d.Opening.Cut.Head}
	for _, side := range []frame.Side{frame.Lock, frame.Head} {
		how := chosen[side]
		byRule := how == "" || how == job.ByRule
		if b.Slab.IsMachined(side) || b.Meets && side == frame.Lock {
			continue
		}
		if how == job.Scribed || byRule && o.Edges[side].Residual > want.Uneven {
			o = o.Scribe(side, want.Margin[side])
		}
	}
	return o
}

// hollow hollows the hinge edge to a jamb that bellies in, between the recesses, where that was chosen; otherwise it
// reports what it would bring.
func hollow(d site.Opening, b site.Bay, o fit.Outline, want fit.Targets) (fit.Outline, site.Findings) {
	var said site.Findings
	e := o.Edges[frame.Hinge]
	if e.Residual <= want.Uneven || b.Slab.IsMachined(frame.Hinge) || d.Hinges.From == hinge.WholeEdge {
		return o, nil
	}
	size := o.Size()
	marks, err := hinge.Place(d.Hinges, figure.Figure{Value: d.Estimate(size.HingeEdge)}, HeadCorners(d, o)[0], d.Tape)
	if err != nil {
		return o, nil // it is said where they are hung
	}
	var kept [][2]float64
	for _, m := range slices.Backward(marks) {
		top := size.TopHinge - m.Slab.Value.MM()
		kept = append(kept, [2]float64{top - d.Hinges.Leaf.MM(), top})
	}
	hollowed, by := o.Hollow(want.Margin[frame.Hinge], kept)
	if by <= want.Uneven {
		return o, nil
	}
	args := message.Args{"by": measure.FromMM(by)}
	if d.Hinges.Hollow {
		said.Say(site.Note, job.StepCut, "/hinges/hollow", site.JambHollowed, args)
		return hollowed, said
	}
	least := e.Gaps[0].Mean
	for _, g := range e.Gaps {
		least = min(least, g.Mean)
	}
	args["light"] = measure.FromMM(least)
	said.Say(site.Note, job.StepHinges, "/hinges/hollow", site.JambHollows, args)
	return o, said
}
