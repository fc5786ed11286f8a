package plan

import (
	"errors"
	"math"
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// sweepCut is what a slab is short of the longest floor-to-head at its first
// cut, where a sweep will be fitted. Common practice.
const sweepCut = measure.Inch / 2

// margins are the margins wanted of a leaf, and what they ask of its outline.
func margins(d door, s surveyed) (wanted frame.Each[figure.Figure], want fit.Targets, said findings) {
	want = fit.Targets{Least: d.Margins.Least.MM(), Uneven: d.Margins.Uneven.MM()}
	if d.leaveOn() == job.WhenSure && d.rules > rules1 {
		// The slab hangs by its finished corner, whatever the saw did: only its marks stray, by the tape.
		want.Sure = d.cutting()
		want.Sure.Cut = d.tape.Step().MM() / math.Sqrt(6)
	}
	top, bottom := d.Hinges.Tops(measure.FromMM(s.height))
	half := d.Hinges.Leaf.MM() / 2
	want.Pins = [2]float64{s.height - top.MM() - half, s.height - bottom.MM() - half}
	if want.Pins[0]-want.Pins[1] < 200 || want.Pins[1] < 0 {
		said.say(Stop, job.StepHinges, "/hinges/pockets", HingesOutside, Args{"height": measure.FromMM(s.height)})
		want.Pins = [2]float64{0.9 * s.height, 0.12 * s.height}
	}
	for _, side := range frame.Sides {
		meets := d.Pair != nil && side == frame.Lock
		f := wantedAt(d, side, wanted[frame.Head].Value)
		if side == frame.Foot && !d.Margins.Sweep {
			if raised, ok := sweepFoot(d, s, want.Pins, f.Value); ok {
				said.say(Note, job.StepSwing, "/swing/floor", FootRaised, Args{"by": raised.Value - f.Value, "wanted": f.Value})
				if raised.Value > trade.MostFoot {
					said.say(Stop, job.StepSwing, "/swing/floor", SinksTooFar, Args{"needs": raised.Value, "most": trade.MostFoot})
				}
				f = raised
			}
		}
		wanted[side], want.Margin[side] = f, f.Value.MM()
		if f.Value < d.Margins.Least && !meets {
			said.say(Care, job.StepMargins, "/margins/least", UnderLeast, Args{"side": message.Margin(side), "wanted": f.Value, "least": d.Margins.Least})
		}
	}
	if d.Margins.Sweep {
		said.say(Note, job.StepCut, "/margins/sweep", CutTwice, Args{"short": sweepCut})
	}
	if d.Pair != nil {
		want.Least = min(want.Least, d.Pair.Meeting.MM()/2)
	}
	return wanted, want, said
}

// wantedAt is the margin wanted on a side, whatever the floor in the sweep asks; head is that wanted at
// the head.
func wantedAt(d door, side frame.Side, head measure.Length) figure.Figure {
	school, _ := trade.SchoolByID(d.Margins.School)
	meets := d.Pair != nil && side == frame.Lock
	f := figure.Sum(0, figure.Term{Label: "term.school", Args: Args{"school": school.Name(), "source": school.Source}, Value: school.Margin[side], Source: figure.Rule})
	switch own := d.Margins.Own(side); {
	case meets:
		f = figure.Sum(
			0,
			figure.Term{Label: "term.between-leaves", Value: d.Pair.Meeting, Source: figure.Choice},
			figure.Term{Label: "term.other-half", Value: -(d.Pair.Meeting - d.Pair.Meeting/2), Source: figure.Rule},
		)
	case own != nil:
		f = figure.Sum(0, figure.Term{Label: "term.own", Value: *own, Source: figure.Choice})
	case side == frame.Hinge && school.Margin[side] == 0:
		f = d.Hinges.Flush()
	}
	f = coming(d.Margins, side, f, head)
	if side == frame.Lock {
		f = seasonal(d, f)
	}
	return f
}

// coming adds to the margin wanted on a side what is still to come: paint on the
// edges, a floor, a sweep. head is the margin wanted there.
func coming(m job.Margins, side frame.Side, f figure.Figure, head measure.Length) figure.Figure {
	terms := f.Terms
	if side == frame.Foot && m.Sweep {
		terms = []figure.Term{
			{Label: "term.sweep-cut", Value: sweepCut, Source: figure.Rule},
			{Label: "term.of-this-head", Value: -head, Source: figure.Choice},
		}
	}
	if side == frame.Foot && m.Floor > 0 {
		terms = append(terms[:len(terms):len(terms)], figure.Term{Label: "term.floor-to-come", Value: m.Floor, Source: figure.Choice})
	}
	if m.Paint > 0 && side != frame.Foot {
		terms = append(terms[:len(terms):len(terms)], figure.Term{Label: "term.paint-to-come", Value: m.Paint, Source: figure.Choice})
	}
	return figure.Sum(0, terms...)
}

// outlines draws the finished slab of each bay; nil where the margins leave none.
func outlines(d door, s surveyed, bays []bay, want fit.Targets) ([]fit.Outline, findings) {
	var list []fit.Outline
	var err error
	if d.Pair == nil {
		list = make([]fit.Outline, 1)
		list[0], err = fit.Draw(s.shape, want)
	} else {
		var pair [2]fit.Outline
		pair, err = fit.DrawPair(s.shape, want, fit.Meeting{Offset: d.Pair.Offset.MM()})
		list = pair[:]
	}
	var said findings
	var room *fit.ErrNoRoom
	switch {
	case errors.As(err, &room):
		said.say(Stop, job.StepMargins, "", NoRoom, Args{"width": measure.FromMM(room.Width), "height": measure.FromMM(room.Height)})
		return nil, said
	case err != nil:
		said.say(Stop, job.StepMargins, "", NoOutline, Args{"problem": problemOf(err)})
		return nil, said
	}
	for i, b := range bays {
		if long := max(b.slab.Length, b.slab.LengthLock); d.Framed() != nil && long > 0 {
			list[i] = list[i].Uncut(long.MM())
		}
		list[i] = scribe(d, b, list[i], want)
		var more findings
		if list[i], more = hollow(d, b, list[i], want); i == 0 {
			said.add(more)
		}
	}
	return list, said
}

// scribe shapes lock edge and head to their sides where a straight edge would
// leave more unevenness than is accepted, or where it was chosen. A machined
// edge stays straight, and so does the meeting edge of a pair.
func scribe(d door, b bay, o fit.Outline, want fit.Targets) fit.Outline {
	chosen := frame.Each[string]{frame.Lock: d.Opening.Cut.LockEdge, frame.Head: d.Opening.Cut.Head}
	for _, side := range []frame.Side{frame.Lock, frame.Head} {
		how := chosen[side]
		byRule := how == "" || how == job.ByRule
		if b.slab.IsMachined(side) || b.meets && side == frame.Lock {
			continue
		}
		if how == job.Scribed || byRule && o.Edges[side].Residual > want.Uneven {
			o = o.Scribe(side, want.Margin[side])
		}
	}
	return o
}

// hollow shapes the hinge edge to a jamb that bellies in, between the pockets, where that
// was chosen; else it says what it would bring.
func hollow(d door, b bay, o fit.Outline, want fit.Targets) (fit.Outline, findings) {
	var said findings
	e := o.Edges[frame.Hinge]
	if e.Residual <= want.Uneven || b.slab.IsMachined(frame.Hinge) || d.Hinges.From == hinge.WholeEdge {
		return o, nil
	}
	size := o.Size()
	marks, err := hinge.Place(d.Hinges, figure.Figure{Value: d.est(size.HingeEdge)}, headCorners(d, o)[0], d.tape)
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
	args := Args{"by": measure.FromMM(by)}
	if d.Hinges.Hollow {
		said.say(Note, job.StepCut, "/hinges/hollow", JambHollowed, args)
		return hollowed, said
	}
	least := e.Gaps[0].Mean
	for _, g := range e.Gaps {
		least = min(least, g.Mean)
	}
	args["light"] = measure.FromMM(least)
	said.say(Note, job.StepHinges, "/hinges/hollow", JambHollows, args)
	return o, said
}

// light gives the margins that an outline leaves at the three places of each
// side, and the worst sigma of each side in mm.
func light(d door, o fit.Outline, wanted frame.Each[figure.Figure]) (list []Light, sure frame.Each[float64], said findings) {
	for _, side := range frame.Sides {
		e := o.Edges[side]
		n := len(e.Gaps)
		for where, g := range []fit.Gap{e.Gaps[0], e.Gaps[n/2], e.Gaps[n-1]} {
			list = append(list, Light{side, where, figure.Sum(
				g.Sigma,
				figure.Term{Label: "term.margin-wanted", Value: wanted[side].Value, Source: figure.Choice},
				figure.Term{Label: "term.straight-edge", Value: d.est(g.Mean) - wanted[side].Value, Source: figure.Estimate, Sigma: g.Sigma},
			)})
		}
		for _, g := range e.Gaps {
			sure[side] = max(sure[side], g.Sigma)
		}
		if e.Residual > d.Margins.Uneven.MM() && side != frame.Foot {
			code := NotStraight
			switch {
			case e.Scribed:
				code = NotStraightScribed
			case side == frame.Hinge:
				code = NotStraightHinge
			}
			said.say(Note, job.StepMargins, "", code, Args{"wall": message.Wall(side), "by": measure.FromMM(e.Residual)})
		}
		if e.Moved > 0.1 && !e.Scribed {
			said.say(Note, job.StepMargins, "", GivesWay, Args{"side": message.Margin(side), "by": message.Fine(measure.FromMM(e.Moved))})
		}
	}
	return list, sure, said
}

// headCorners are the head margins at the hinge corner and at the lock corner, to
// the tape.
func headCorners(d door, o fit.Outline) (corners [2]figure.Figure) {
	gaps := o.Edges[frame.Head].Gaps
	for i, g := range []fit.Gap{gaps[0], gaps[len(gaps)-1]} {
		corners[i] = figure.Sum(
			g.Sigma,
			figure.Term{Label: "term.head-margin-planned", Value: d.est(g.Mean), Source: figure.Estimate, Sigma: g.Sigma},
		).Rounded(d.tape, measure.Nearest)
	}
	return corners
}

// finished tells which slab is wanted.
func finished(d door, o fit.Outline, sure frame.Each[float64]) Size {
	size := o.Unheld().Size()
	return Size{
		Width: figure.Sum(
			sure[frame.Lock],
			figure.Term{Label: "term.opening-widest", Value: d.est(size.Width + size.HingeGap + size.LockGap), Source: figure.Estimate, Sigma: sure[frame.Lock]},
			figure.Term{Label: "term.hinge-margin-there", Value: -d.est(size.HingeGap), Source: figure.Choice},
			figure.Term{Label: "term.lock-margin-there", Value: -d.est(size.LockGap), Source: figure.Choice},
		).Rounded(d.tape, measure.Up),
		Length: figure.Sum(
			sure[frame.Foot],
			figure.Term{Label: "term.opening-highest", Value: d.est(size.Length + size.HeadGap + size.FootGap), Source: figure.Estimate, Sigma: sure[frame.Foot]},
			figure.Term{Label: "term.head-margin-there", Value: -d.est(size.HeadGap), Source: figure.Choice},
			figure.Term{Label: "term.foot-margin-there", Value: -d.est(size.FootGap), Source: figure.Choice},
		).Rounded(d.tape, measure.Up),
	}
}
