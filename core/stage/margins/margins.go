// Package margins is the stage that gives the wanted margins, fits the outline of the finished slab to them, and gives
// the margins that it leaves.
package margins

import (
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// sweepCut is how much shorter than the longest floor-to-head a slab for a sweep is first cut. Common practice.
const sweepCut = measure.Inch / 2

// Wanted are the wanted margins of a leaf by its school and choices, with allowances (coming), before the seasons and
// before the floor in the swing.
func Wanted(d site.Opening) (wanted frame.Each[figure.Figure]) {
	for _, side := range frame.Sides {
		wanted[side] = wantedAt(d, side, wanted[frame.Head].Value)
	}
	return wanted
}

// Pins are the heights of the outer hinges' middles above the floor, in mm, in an opening of a height; where the chosen
// hinges do not fit it, the usual ones.
func Pins(d site.Opening, height float64) (pins [2]float64, said site.Findings) {
	top, bottom := d.Hinges.Tops(measure.FromMM(height))
	half := d.Hinges.Leaf.MM() / 2
	pins = [2]float64{height - top.MM() - half, height - bottom.MM() - half}
	if pins[0]-pins[1] < 200 || pins[1] < 0 {
		said.Say(site.Stop, job.StepHinges, "/hinges/pockets", site.HingesOutside, message.Args{
			"height": measure.FromMM(height),
		})
		pins = [2]float64{0.9 * height, 0.12 * height}
	}
	return pins, said
}

// Targets are the outline's targets for pins at given heights. raised is the foot margin that the floor in the swing
// needs; nil where the wanted one is enough.
func Targets(
	d site.Opening, wanted frame.Each[figure.Figure], pins [2]float64, raised *figure.Figure,
) (all frame.Each[figure.Figure], want fit.Targets, said site.Findings) {
	want = fit.Targets{Least: d.Margins.Least.MM(), Uneven: d.Margins.Uneven.MM(), Pins: pins}
	if d.Habit() == job.WhenSure && d.Rules > site.Rules1 {
		// The slab hangs by its finished corner, whatever the saw did: only its marks have an error, by the tape.
		want.Sure = d.Sureness()
		want.Sure.Cut = d.Tape.Step().MM() / math.Sqrt(6)
	}
	for _, side := range frame.Sides {
		meets := d.Pair != nil && side == frame.Lock
		f := wanted[side]
		if side == frame.Foot && raised != nil {
			said.Say(site.Note, job.StepSwing, "/swing/floor", site.FootRaised, message.Args{
				"by": raised.Value - f.Value, "wanted": f.Value,
			})
			if raised.Value > trade.MostFoot {
				said.Say(site.Stop, job.StepSwing, "/swing/floor", site.SinksTooFar, message.Args{
					"needs": raised.Value, "most": trade.MostFoot,
				})
			}
			f = *raised
		}
		all[side], want.Margin[side] = f, f.Value.MM()
		if f.Value < d.Margins.Least && !meets {
			said.Say(site.Care, job.StepMargins, "/margins/least", site.UnderLeast, message.Args{
				"side": message.Margin(side), "wanted": f.Value, "least": d.Margins.Least,
			})
		}
	}
	if d.Margins.Sweep {
		said.Say(site.Note, job.StepCut, "/margins/sweep", site.CutTwice, message.Args{"short": sweepCut})
	}
	if d.Pair != nil {
		want.Least = min(want.Least, d.Pair.Meeting.MM()/2)
	}
	return all, want, said
}

// wantedAt is the margin wanted on a side, without the floor in the swing; head is the one wanted at the head.
func wantedAt(d site.Opening, side frame.Side, head measure.Length) figure.Figure {
	school, _ := trade.SchoolByID(d.Margins.School)
	meets := d.Pair != nil && side == frame.Lock
	f := figure.Sum(0, figure.Term{
		Label: "term.school", Args: message.Args{"school": school.Name(), "source": school.Source},
		Value: school.Margin[side], Source: figure.Rule,
	})
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
	return coming(d.Margins, side, f, head)
}

// coming adds allowances for later work to the margin wanted on a side: paint on the edges, a floor, a sweep. head is
// the margin wanted there.
func coming(m job.Margins, side frame.Side, f figure.Figure, head measure.Length) figure.Figure {
	terms := f.Terms
	if side == frame.Foot && m.Sweep {
		terms = []figure.Term{
			{Label: "term.sweep-cut", Value: sweepCut, Source: figure.Rule},
			{Label: "term.of-this-head", Value: -head, Source: figure.Choice},
		}
	}
	if side == frame.Foot && m.Floor > 0 {
		terms = append(terms[:len(terms):len(terms)], figure.Term{
			Label: "term.floor-to-come", Value: m.Floor, Source: figure.Choice,
		})
	}
	if m.Paint > 0 && side != frame.Foot {
		terms = append(terms[:len(terms):len(terms)], figure.Term{
			Label: "term.paint-to-come", Value: m.Paint, Source: figure.Choice,
		})
	}
	return figure.Sum(0, terms...)
}
