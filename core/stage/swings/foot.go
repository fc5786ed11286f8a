package swings

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
)

// Foot is the foot's height over the floor at an angle, under the free corner, in mm.
type Foot struct {
	Angle, Rise, Floor, Clear float64
}

// leans is the lean of the line of the pins out of plumb.
func leans(c swing.Choice, o fit.Outline) swing.Lean {
	l := swing.Lean{Side: o.Lean}
	if c.Lean != nil {
		l.Out = c.Lean.MM() / o.Size().Length
	}
	return l
}

// Drift is whether a slab stays where it is left, and why.
type Drift struct {
	Side, Out measure.Length // how the pins lean, in a metre: toward the lock jamb, toward the viewer
	Shuts     float64        // how strongly it shuts itself at 45°, N·m; below nought it opens
	Rubs      float64        // what its hinges hold by their rubbing, N·m
}

// drifts works out where a slab that is left half open comes to rest.
func (w *Swing) drifts(d site.Opening, l swing.Lean, s swing.Slab, p swing.Pin) (v Drift, said site.Findings) {
	middle := swing.Point{X: p.Margin/2 + s.Width/2, Z: -p.Out - s.Thickness/2}
	v = Drift{
		Side: d.Estimate(l.Side * 1000), Out: d.Estimate(l.Out * 1000),
		Shuts: l.Turning(w.Weight, middle, letGo*degree), Rubs: trade.HingesRub * w.Weight,
	}
	if rise := riseOf(d); rise > 0 { // the slab weighs on a thread
		v.Shuts += w.Weight * swing.Gravity * rise / 1000 / (rightAngle * degree)
		if v.Shuts > v.Rubs {
			w.Rests = 0
			said.Say(site.Note, job.StepSwing, "/hinges/size", site.RisingShuts, nil)
			return v, said
		}
	}
	w.Rests = l.Rests(w.Weight, middle, letGo*degree, max(w.Opens, letGo)*degree, v.Rubs) / degree
	if math.Abs(w.Rests-letGo) < 1 {
		return v, nil
	}
	code := site.DriftsTo
	switch {
	case w.Rests < 1:
		code = site.DriftsShut
	case w.Rests > w.Opens-1:
		code = site.DriftsOpen
	}
	said.Say(site.Note, job.StepSwing, "/swing/lean", code, message.Args{
		"rests": message.Degrees(w.Rests), "side": v.Side, "out": v.Out, "lean": leanSaid(v.Side, v.Out),
	})
	return v, said
}

// least is the foot's least height over the floor through the swing.
func (w Swing) least() (worst Foot) {
	for i, foot := range w.Foot {
		if i == 0 || foot.Clear < worst.Clear-0.05 {
			worst = foot
		}
	}
	return worst
}

// at is the foot at an angle, or where the slab opens no further.
func (w Swing) at(angle float64) Foot {
	near := w.Foot[0]
	for _, f := range w.Foot {
		if math.Abs(f.Angle-angle) < math.Abs(near.Angle-angle) {
			near = f
		}
	}
	return near
}

// over is the height of the foot over the floor under the free corner, with its terms.
func (f Foot) over(d site.Opening, o fit.Outline) figure.Figure {
	gaps := o.Edges[frame.Foot].Gaps
	last := gaps[len(gaps)-1]
	terms := []figure.Term{
		{Label: "term.under-free-corner", Value: d.Estimate(last.Mean), Source: figure.Estimate, Sigma: last.Sigma},
	}
	if v := d.Estimate(f.Rise); v != 0 {
		terms = append(terms, figure.Term{
			Label: "term.corner-rises", Args: message.Args{"angle": message.Degrees(f.Angle)}, Value: v,
			Source: figure.Estimate,
		})
	}
	if v := d.Estimate(-f.Floor); v != 0 {
		terms = append(terms, figure.Term{Label: "term.floor-there", Value: v, Source: figure.Reading})
	}
	return figure.Sum(last.Sigma, terms...)
}

// floorUp is the floor's height at an angle: linear between the places read, 0 under the closed slab, and constant past
// the last.
func floorUp(list []swing.Floor, angle float64) float64 {
	known := []frame.Along{{}}
	for _, f := range list {
		known = append(known, frame.Along{At: float64(f.Angle), Off: f.Up.MM()})
	}
	slices.SortStableFunc(known, func(a, b frame.Along) int { return cmp.Compare(a.At, b.At) })
	return frame.OffAt(known, min(angle, known[len(known)-1].At))
}

// overFloor is the foot over the floor through the swing, under the free corner.
func overFloor(d site.Opening, c swing.Choice, l swing.Lean, w Swing, o fit.Outline) []Foot {
	slab, rise := w.Slab, riseOf(d)
	gaps := o.Edges[frame.Foot].Gaps
	margin := gaps[len(gaps)-1].Mean
	list := make([]Foot, sweepSteps+1)
	for i := range list {
		f := Foot{Angle: w.Opens * float64(i) / sweepSteps}
		f.Rise = lowest(l, slab, slab[swing.LockPull].X, f.Angle) + rise*f.Angle/rightAngle
		f.Floor = floorUp(c.Floor, f.Angle)
		f.Clear = margin + f.Rise - f.Floor
		list[i] = f
	}
	return list
}

// lowest is the rise of the lower of a slab's two faces, at a distance from the pin.
func lowest(l swing.Lean, slab []swing.Point, x, angle float64) float64 {
	return min(
		l.Rise(swing.Point{X: x, Z: slab[swing.LockPull].Z}, angle*degree),
		l.Rise(swing.Point{X: x, Z: slab[swing.LockPush].Z}, angle*degree),
	)
}

// floorSaid reports what the floor's readings lack: places that the slab never passes, or none read at all.
func floorSaid(d site.Opening, b site.Bay, w Swing, reach float64) (said site.Findings) {
	for i, f := range d.Swing.Floor {
		if f.Under(b.Jamb()) && (f.At.MM() > reach+1 || float64(f.Angle) > w.Opens+1) {
			said.Say(site.Stop, job.StepSwing, fmt.Sprintf("/swing/floor/%d/at", i), site.FloorOutside, message.Args{
				"at": f.At, "angle": message.Degrees(f.Angle), "reach": measure.FromMM(reach),
				"opens": message.Degrees(w.Opens),
			})
		}
	}
	if len(d.Swing.Under(b.Jamb()).Floor) == 0 {
		said.Say(site.Note, job.StepSwing, "/swing/floor", site.FloorUnread, nil)
	}
	return said
}

// RaisedFoot is the least foot margin with which the foot clears the floor through the whole swing; nil where the
// wanted margin does anyway, or a sweep will be fitted. It is computed before the outline, so the pins lean as the jamb
// does at the two hinges. pins are heights, in mm.
func RaisedFoot(d site.Opening, s site.Survey, pins [2]float64, wanted measure.Length) *figure.Figure {
	if d.Margins.Sweep {
		return nil
	}
	ok := false
	worst := struct{ angle, up, rise float64 }{}
	under := min(trade.UnderFoot, max(wanted-d.Margins.Floor, 0)) // who wants less under the shut door has it
	least := wanted.MM() - under.MM() - d.Margins.Floor.MM()      // that the floor may be higher than the foot rises
	for _, b := range site.Bays(d) {
		c := d.Swing.Under(b.Jamb())
		slab, l := roughly(d, s, b, c, pins)
		try := func(angle, x, up float64) {
			if rise := lowest(l, slab, x, angle) + riseOf(d)*angle/rightAngle; up-rise > least {
				least, ok = up-rise, true
				worst.angle, worst.up, worst.rise = angle, up, rise
			}
		}
		open, free := float64(max(c.Open, rightAngle)), slab[swing.LockPull].X
		for i := range sweepSteps + 1 {
			angle := open * float64(i) / sweepSteps
			try(angle, free, floorUp(c.Floor, angle))
		}
		for _, r := range c.Floor {
			try(float64(r.Angle), min(r.At.MM(), free), r.Up.MM())
		}
	}
	if !ok {
		return nil
	}
	terms := []figure.Term{{Label: "term.under-moving-foot", Value: under, Source: figure.Rule}}
	if worst.up != 0 {
		terms = append(terms, figure.Term{
			Label: "term.floor-at", Args: message.Args{"angle": message.Degrees(worst.angle)},
			Value: d.Estimate(worst.up), Source: figure.Reading,
		})
	}
	if r := d.Estimate(-worst.rise); r != 0 {
		terms = append(terms, figure.Term{
			Label: "term.corner-rises", Args: message.Args{"angle": message.Degrees(worst.angle)}, Value: r,
			Source: figure.Estimate,
		})
	}
	if d.Margins.Floor > 0 {
		terms = append(terms, figure.Term{Label: "term.floor-to-come", Value: d.Margins.Floor, Source: figure.Choice})
	}
	f := figure.Sum(0, terms...).Rounded(d.Tape, measure.Up)
	return &f
}

// roughly is a slab as it will swing, before its outline is fitted.
func roughly(d site.Opening, s site.Survey, b site.Bay, c swing.Choice, pins [2]float64) ([]swing.Point, swing.Lean) {
	jamb, toward := frame.Hinge, 1.0
	if b.Second {
		jamb, toward = frame.Lock, -1.0
	}
	row := survey.Row{
		{Of: survey.Of(jamb), At: pins[0], By: toward / (pins[0] - pins[1])},
		{Of: survey.Of(jamb), At: pins[1], By: -toward / (pins[0] - pins[1])},
	}
	l := swing.Lean{Side: s.Shape.Means([]survey.Row{row})[0]}
	if c.Lean != nil {
		l.Out = c.Lean.MM() / s.Height
	}
	width := s.Width
	if d.Pair != nil {
		width /= 2
	}
	thick := b.Slab.Thickness.MM()
	return swing.Slab{Width: width - 6, Thickness: thick}.Corners(swing.Pin{Margin: 3, Out: pinOut(c)}), l
}

// leanSaid reports the lean of the line of the pins toward the lock side and toward or away from you, a metre; one too
// small to be seen is not reported.
func leanSaid(side, out measure.Length) message.Message {
	const seen = measure.Millimetre / 20
	aside := message.Args{"side": message.Slope(side.Abs()), "sideWay": message.Way(side.MM(), "toward", "away-from")}
	toward := message.Args{"out": message.Slope(out.Abs()), "outWay": message.Way(out.MM(), "toward", "away-from")}
	switch {
	case out.Abs() < seen:
		return message.Message{ID: "lean.side", Args: aside}
	case side.Abs() < seen:
		return message.Message{ID: "lean.out", Args: toward}
	}
	maps.Copy(aside, toward)
	return message.Message{ID: "lean.both", Args: aside}
}
