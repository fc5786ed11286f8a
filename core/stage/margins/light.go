package margins

import (
	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
)

// Size is the finished slab's greatest width and length.
type Size struct{ Width, Length figure.Figure }

// Light is the margin at one place of a side.
type Light struct {
	Side   frame.Side
	Where  int // along the side: 0 its foot or hinge corner, 1 its middle, 2 its head or lock corner
	Margin figure.Figure
}

// Lights are the margins that an outline leaves at three places of each side, and the greatest standard deviation of
// each side, in mm.
func Lights(
	d site.Opening, o fit.Outline, wanted frame.Each[figure.Figure],
) (list []Light, sure frame.Each[float64], said site.Findings) {
	for _, side := range frame.Sides {
		e := o.Edges[side]
		n := len(e.Gaps)
		for where, g := range []fit.Gap{e.Gaps[0], e.Gaps[n/2], e.Gaps[n-1]} {
			list = append(list, Light{side, where, figure.Sum(
				g.Sigma,
				figure.Term{Label: "term.margin-wanted", Value: wanted[side].Value, Source: figure.Choice},
				figure.Term{
					Label: "term.straight-edge", Value: d.Estimate(g.Mean) - wanted[side].Value,
					Source: figure.Estimate, Sigma: g.Sigma,
				},
			)})
		}
		for _, g := range e.Gaps {
			sure[side] = max(sure[side], g.Sigma)
		}
		if e.Residual > d.Margins.Uneven.MM() && side != frame.Foot {
			code := site.NotStraight
			switch {
			case e.Scribed:
				code = site.NotStraightScribed
			case side == frame.Hinge:
				code = site.NotStraightHinge
			}
			said.Say(site.Note, job.StepMargins, "", code, message.Args{
				"wall": message.Wall(side), "by": measure.FromMM(e.Residual),
			})
		}
		if e.Moved > 0.1 && !e.Scribed {
			said.Say(site.Note, job.StepMargins, "", site.GivesWay, message.Args{
				"side": message.Margin(side), "by": message.Fine(measure.FromMM(e.Moved)),
			})
		}
	}
	return list, sure, said
}

// HeadCorners are the head margins at the hinge corner and at the lock corner, to the tape.
func HeadCorners(d site.Opening, o fit.Outline) (corners [2]figure.Figure) {
	gaps := o.Edges[frame.Head].Gaps
	for i, g := range []fit.Gap{gaps[0], gaps[len(gaps)-1]} {
		corners[i] = figure.Sum(
			g.Sigma,
			figure.Term{
				Label: "term.head-margin-planned", Value: d.Estimate(g.Mean), Source: figure.Estimate, Sigma: g.Sigma,
			},
		).Rounded(d.Tape, measure.Nearest)
	}
	return corners
}

// Finished is the size of the finished slab.
func Finished(d site.Opening, o fit.Outline, sure frame.Each[float64]) Size {
	size := o.Unheld().Size()
	return Size{
		Width: figure.Sum(
			sure[frame.Lock],
			figure.Term{
				Label: "term.opening-widest", Value: d.Estimate(size.Width + size.HingeGap + size.LockGap),
				Source: figure.Estimate, Sigma: sure[frame.Lock],
			},
			figure.Term{Label: "term.hinge-margin-there", Value: -d.Estimate(size.HingeGap), Source: figure.Choice},
			figure.Term{Label: "term.lock-margin-there", Value: -d.Estimate(size.LockGap), Source: figure.Choice},
		).Rounded(d.Tape, measure.Up),
		Length: figure.Sum(
			sure[frame.Foot],
			figure.Term{
				Label: "term.opening-highest", Value: d.Estimate(size.Length + size.HeadGap + size.FootGap),
				Source: figure.Estimate, Sigma: sure[frame.Foot],
			},
			figure.Term{Label: "term.head-margin-there", Value: -d.Estimate(size.HeadGap), Source: figure.Choice},
			figure.Term{Label: "term.foot-margin-there", Value: -d.Estimate(size.FootGap), Source: figure.Choice},
		).Rounded(d.Tape, measure.Up),
	}
}
