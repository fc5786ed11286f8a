package plan

import (
	"fmt"
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
)

// Swing is how a slab swings as planned. Angles are in degrees from closed.
type Swing struct {
	Bevel   figure.Figure // how much narrower the push face is at the lock edge
	Relief  figure.Figure // and at the hinge edge, so that it does not bind as the door shuts
	Clear   float64       // least that the slab passes the lock jamb, or the other leaf, by, mm
	ClearAt float64       // and at which angle
	Opens   float64       // how far it opens
	Against string        // what stops it there; empty where it folds right back
	Foot    []Foot        // the free corner over the floor, through the swing
	Rests   float64       // where it comes to rest, let go at 45°
	Weight  float64       // kg
	// The plan from above, in mm from the pin: x toward the lock jamb, z toward the viewer.
	Slab   []swing.Point // hinge edge pull face, lock edge pull face, lock edge push face, hinge edge push face
	Things []InPlan
}

// Foot is how the foot stands over the floor at an angle, under the free corner, mm.
type Foot struct {
	Angle, Rise, Floor, Clear float64
}

// InPlan is something that the slab could touch, as a convex outline.
type InPlan struct {
	Name  string
	Shape []swing.Point
}

const (
	degree = math.Pi / 180
	// sweepSteps is how many places of the swing are looked at, and drawn.
	sweepSteps = 36
	// rightAngle is how far a door is to open where nothing else is said.
	rightAngle = 90
	// letGo is where a door is let go to see whether it drifts.
	letGo = 45
	// unreadClosing is a jamb's face out of square, by 2°, that may be there unread.
	unreadClosing = 0.035
)

// pinOut is how far the pin stands in front of the pull face, mm.
func pinOut(c swing.Choice) float64 {
	if c.Pin == 0 {
		return trade.UsualPin.MM()
	}
	return c.Pin.MM()
}

// swings works out how a slab swings once it hangs as planned. other is the pair's other
// slab's outline, nil for a single door.
func swings(d door, b bay, o fit.Outline, other *fit.Outline) (w Swing, said findings) {
	c := d.Swing.Under(b.jamb())
	at := tightest(o)
	p := swing.Pin{Margin: o.Edges[frame.Hinge].GapAt(at), Out: pinOut(c)}
	s := swing.Slab{Width: widthAt(o, at), Thickness: b.slab.Thickness.MM()}

	var beside func(bevel float64) []swing.Point
	pass := d.Margins.Least.MM()
	if b.meets {
		pass = min(pass, d.Pair.Meeting.MM()/2)
		beside = func(bevel float64) []swing.Point { return otherLeaf(d, b, s, p, *other, at, bevel) }
	} else {
		jamb := lockJamb(c, p, s, o.Edges[frame.Lock].GapAt(at)).Corners(p)
		beside = func(float64) []swing.Point { return jamb }
	}
	var more findings
	w.Bevel, more = bevel(d, b, c, s, p, beside, pass)
	said.add(more)
	w.Relief, more = relief(d, c, s, p)
	said.add(more)
	s.Bevel, s.Relief = w.Bevel.Value.MM(), w.Relief.Value.MM()
	w.Slab = s.Corners(p)
	w.Clear, w.ClearAt = swing.Nearest(w.Slab, beside(s.Bevel), 0, rightAngle*degree)
	w.ClearAt /= degree

	name := "lock jamb"
	if b.meets {
		name = "other leaf"
	}
	w.Things = append([]InPlan{{name, beside(s.Bevel)}}, inTheWay(c, p)...)
	said.add(w.opens(c, p))
	w.Weight = b.slab.Weight()
	l := leans(c, o)
	middle := swing.Point{X: p.Margin/2 + s.Width/2, Z: -p.Out - s.Thickness/2}
	rubs := trade.HingesRub * w.Weight
	w.Rests = l.Rests(w.Weight, middle, letGo*degree, max(w.Opens, letGo)*degree, rubs) / degree
	said.add(w.drift(l, middle))
	w.Foot = overFloor(c, l, w.Slab, o, w.Opens)
	said.add(floorSaid(c, w, s.Width+p.Margin))
	return w, said
}

// tightest is the height, in the hung frame, at which the lock margin is least.
func tightest(o fit.Outline) (along float64) {
	least := math.Inf(1)
	for _, g := range o.Edges[frame.Lock].Gaps {
		if g.Mean < least {
			least, along = g.Mean, g.Along
		}
	}
	return along
}

func widthAt(o fit.Outline, along float64) float64 {
	return o.Edges[frame.Lock].Line.At(along) - o.Edges[frame.Hinge].Line.At(along)
}

func lockJamb(c swing.Choice, p swing.Pin, s swing.Slab, gap float64) swing.Jamb {
	j := swing.Jamb{Width: p.Margin + s.Width + gap, Forward: c.Forward.MM(), Deep: s.Thickness + 20}
	if c.Closing != nil {
		j.Closing = c.Closing.MM() / swing.ClosingOver.MM()
	}
	return j
}

// otherLeaf is the pair's other leaf, closed, from this one's pin; it has the same bevel.
func otherLeaf(d door, b bay, s swing.Slab, p swing.Pin, other fit.Outline, at, bevel float64) []swing.Point {
	theirs := swing.Pin{Margin: other.Edges[frame.Hinge].GapAt(at), Out: p.Out}
	thick := d.Slab.Thickness
	if !b.second {
		thick = d.Pair.Slab.Thickness
	}
	if thick == 0 {
		thick = b.slab.Thickness
	}
	list := swing.Slab{Width: widthAt(other, at), Thickness: thick.MM(), Bevel: bevel}.Corners(theirs)
	across := p.Margin/2 + s.Width + d.Pair.Meeting.MM() + widthAt(other, at) + theirs.Margin/2
	for i := range list {
		list[i].X = across - list[i].X
	}
	return list
}

// bevel is how much narrower the push face is at the lock edge: as set by hand; else as
// much as it needs to pass by so much, and on a thick slab the usual bevel at least.
func bevel(d door, b bay, c swing.Choice, s swing.Slab, p swing.Pin, beside func(float64) []swing.Point, pass float64) (f figure.Figure, said findings) {
	thick := b.slab.Thickness
	most := 0.2 * s.Thickness // 11°
	least, possible := swing.LeastBevel(s, p, beside, pass, most)
	if c.Bevel != nil {
		f = figure.Sum(0, figure.Term{Label: "set for this door", Value: *c.Bevel, Source: figure.Choice})
	} else {
		var usual measure.Length
		if thick >= trade.SquareUnder && !b.slab.IsMachined(frame.Lock) {
			usual = measure.FromMM(trade.UsualBevel * thick.MM())
		}
		need := measure.FromMM(least).Round(d.tape.Step(), measure.Up)
		switch {
		case possible && need > usual:
			f = figure.Sum(0, figure.Term{Label: "least with which the push face's corner passes", Value: need, Source: figure.Rule})
		default:
			f = figure.Sum(0, figure.Term{Label: "1/8 in in 2 in, from 1 1/2 in thick up", Value: usual, Source: figure.Rule}).Rounded(d.tape, measure.Nearest)
		}
	}
	s.Bevel = f.Value.MM()
	corners := s.Corners(p)
	passing := func(corner int, beside []swing.Point) float64 {
		return swing.Passing(corners[corner], beside, 0, rightAngle*degree)
	}
	const at = "/swing/bevel"
	switch near := passing(swing.LockPull, beside(s.Bevel)); {
	case near < pass:
		said.say(Stop, job.StepSwing, "/margins/lock", PullFaceTouches, Args{"passes": Finely(measure.FromMM(max(near, 0))), "lack": Finely(measure.FromMM(pass - near)), "pass": measure.FromMM(pass)})
	case !possible:
		said.say(Stop, job.StepSwing, at, NoBevelPasses, Args{"most": measure.FromMM(most), "pass": measure.FromMM(pass)})
	case passing(swing.LockPush, beside(s.Bevel)) < pass-0.01:
		said.say(Care, job.StepSwing, at, BevelShort, Args{"needed": Finely(measure.FromMM(least)), "pass": measure.FromMM(pass)})
	case !b.meets && c.Closing == nil && passing(swing.LockPush, twisted(c, s, p, beside(0))) < pass/2:
		said.say(Care, job.StepSwing, "/swing/closing", TwistUnread, Args{"over": Exact(swing.ClosingOver)})
	}
	return f, said
}

// leastBehind is what the hinge edge's push-face corner keeps from the hinge jamb, mm: a
// film of paint and no more.
const leastBehind = 0.5

// relief is how far the hinge edge's push face is planed back where the hinge jamb's face
// closes in on it: else it touches in the last degrees, and the door springs open.
func relief(d door, c swing.Choice, s swing.Slab, p swing.Pin) (f figure.Figure, said findings) {
	if c.HingeClosing == nil {
		return f, nil
	}
	jamb := swing.HingeJamb(p, c.HingeClosing.MM()/swing.ClosingOver.MM(), s.Thickness+20)
	near := swing.Passing(s.Corners(p)[swing.HingePush], jamb, 0, rightAngle*degree)
	if near >= leastBehind {
		return f, nil
	}
	f = figure.Sum(
		0,
		figure.Term{Label: "wanted behind the hinge edge", Value: measure.FromMM(leastBehind), Source: figure.Rule},
		figure.Term{Label: "what is there, by the jamb's face", Value: -d.est(near), Source: figure.Estimate},
	).Rounded(d.tape, measure.Up)
	said.say(Care, job.StepSwing, "/swing/hingeClosing", HingeEdgeBinds, Args{"by": f.Value})
	return f, said
}

// twisted is a lock jamb, square as it was read, were its face to close in by 2°.
func twisted(c swing.Choice, s swing.Slab, p swing.Pin, jamb []swing.Point) []swing.Point {
	face := jamb[0].X + p.Margin/2
	return swing.Jamb{Width: face, Closing: unreadClosing, Forward: c.Forward.MM(), Deep: s.Thickness + 20}.Corners(p)
}

// inTheWay is what a door could open against, in plan.
func inTheWay(c swing.Choice, p swing.Pin) (list []InPlan) {
	box := func(name string, x0, x1, z0, z1 float64) {
		list = append(list, InPlan{name, []swing.Point{{X: x0, Z: z0}, {X: x1, Z: z0}, {X: x1, Z: z1}, {X: x0, Z: z1}}})
	}
	face := -p.Margin / 2 // of the hinge jamb
	if c.Casing > 0 {
		near := face - c.Reveal.MM()
		box("casing", near-70, near, -p.Out, c.Casing.MM()-p.Out)
	}
	for _, t := range c.Things {
		at := face + t.At.MM()
		if t.Wall {
			box(t.Name, face-t.At.MM()-100, face-t.At.MM(), -p.Out, 3000)
			continue
		}
		out := t.Out.MM() - p.Out
		box(t.Name, at-1, at+1, out-1, out+1)
	}
	return list
}

// opens works out how far it opens, and says where that is less than is wanted.
func (w *Swing) opens(c swing.Choice, p swing.Pin) (said findings) {
	w.Opens = 180
	for _, thing := range w.Things[1:] {
		if angle, ok := swing.Touches(w.Slab, thing.Shape, 0, math.Pi); ok && angle/degree < w.Opens {
			w.Opens, w.Against = angle/degree, thing.Name
		}
	}
	want := c.Open
	if want == 0 {
		want = rightAngle
	}
	if w.Opens >= float64(want) {
		return nil
	}
	args := Args{"angle": Degrees(w.Opens), "thing": w.Against, "wanted": Degrees(want)}
	code := OpensShort
	if w.Against == "casing" {
		// Folded right back, the pull face lies as far in front of the pins as it lay behind.
		code = OpensShortOfCasing
		args["pin"] = c.Casing/2 + measure.Millimetre
		args["more"] = c.Casing/2 + measure.Millimetre - measure.FromMM(p.Out)
	}
	said.say(Care, job.StepSwing, "/swing/open", code, args)
	return said
}

// leans is how the line of the pins leans out of plumb.
func leans(c swing.Choice, o fit.Outline) swing.Lean {
	l := swing.Lean{Side: o.Lean}
	if c.Lean != nil {
		l.Out = c.Lean.MM() / o.Size().Length
	}
	return l
}

// drift says whether the door stays where it is left.
func (w Swing) drift(l swing.Lean, middle swing.Point) (said findings) {
	if math.Abs(w.Rests-letGo) < 1 {
		return nil
	}
	args := Args{"rests": Degrees(w.Rests), "side": measure.FromMM(l.Side * 1000), "out": measure.FromMM(l.Out * 1000)}
	code := DriftsTo
	switch {
	case w.Rests < 1:
		code = DriftsShut
	case w.Rests > w.Opens-1:
		code = DriftsOpen
	}
	said.say(Note, job.StepSwing, "/swing/lean", code, args)
	return said
}

// floorUp is how much higher the floor is where the door stands at an angle: straight
// between the places read, nothing under the closed door, and level past the last.
func floorUp(list []swing.Floor, angle float64) float64 {
	lo, hi := swing.Floor{}, swing.Floor{Angle: math.MaxInt}
	for _, f := range list {
		switch a := float64(f.Angle); {
		case a <= angle && f.Angle >= lo.Angle:
			lo = f
		case a > angle && f.Angle < hi.Angle:
			hi = f
		}
	}
	if hi.Angle == math.MaxInt {
		return lo.Up.MM()
	}
	share := (angle - float64(lo.Angle)) / float64(hi.Angle-lo.Angle)
	return lo.Up.MM() + share*(hi.Up.MM()-lo.Up.MM())
}

// overFloor is the foot over the floor through the swing, under the free corner.
func overFloor(c swing.Choice, l swing.Lean, slab []swing.Point, o fit.Outline, opens float64) []Foot {
	gaps := o.Edges[frame.Foot].Gaps
	margin := gaps[len(gaps)-1].Mean
	list := make([]Foot, sweepSteps+1)
	for i := range list {
		f := Foot{Angle: opens * float64(i) / sweepSteps}
		f.Rise = lowest(l, slab, slab[swing.LockPull].X, f.Angle)
		f.Floor = floorUp(c.Floor, f.Angle)
		f.Clear = margin + f.Rise - f.Floor
		list[i] = f
	}
	return list
}

// lowest is how much the lower of a slab's two faces rises, so far from the pin.
func lowest(l swing.Lean, slab []swing.Point, x, angle float64) float64 {
	return min(l.Rise(swing.Point{X: x, Z: slab[swing.LockPull].Z}, angle*degree), l.Rise(swing.Point{X: x, Z: slab[swing.LockPush].Z}, angle*degree))
}

// floorSaid says what the floor lacks: places that the door never comes over, or none
// read at all.
func floorSaid(c swing.Choice, w Swing, reach float64) (said findings) {
	for i, f := range c.Floor {
		if f.At.MM() > reach+1 || float64(f.Angle) > w.Opens+1 {
			said.say(Stop, job.StepSwing, fmt.Sprintf("/swing/floor/%d/at", i), FloorOutside, Args{
				"at": f.At, "angle": Degrees(f.Angle), "reach": measure.FromMM(reach), "opens": Degrees(w.Opens),
			})
		}
	}
	if len(c.Floor) == 0 {
		said.say(Note, job.StepSwing, "/swing/floor", FloorUnread, nil)
	}
	return said
}

// sweepFoot is the least foot margin with which the foot clears the floor through the
// whole swing, and why; ok is false where the margin wanted does anyway. It is worked out
// before the outline, so the pins lean as the jamb does at the two hinges.
func sweepFoot(d door, s surveyed, pins [2]float64, wanted measure.Length) (f figure.Figure, ok bool) {
	if s.shape == nil {
		return f, false
	}
	worst := struct{ angle, up, rise float64 }{}
	least := wanted.MM() - trade.UnderFoot.MM() - d.Margins.Floor.MM() // that the floor may be higher than the foot rises
	for _, b := range baysOf(d) {
		c := d.Swing.Under(b.jamb())
		slab, l := roughly(d, s, b, c, pins)
		try := func(angle, x, up float64) {
			if rise := lowest(l, slab, x, angle); up-rise > least {
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
		return f, false
	}
	terms := []figure.Term{{Label: "under the moving foot", Value: trade.UnderFoot, Source: figure.Rule}}
	if worst.up != 0 {
		terms = append(terms, figure.Term{Label: fmt.Sprintf("floor at %.0f°, against that under the closed door", worst.angle), Value: d.est(worst.up), Source: figure.Reading})
	}
	if r := d.est(-worst.rise); r != 0 {
		terms = append(terms, figure.Term{Label: fmt.Sprintf("the free corner sinks or rises by %.0f°", worst.angle), Value: r, Source: figure.Estimate})
	}
	if d.Margins.Floor > 0 {
		terms = append(terms, figure.Term{Label: "floor still to come", Value: d.Margins.Floor, Source: figure.Choice})
	}
	return figure.Sum(0, terms...).Rounded(d.tape, measure.Up), true
}

// roughly is a slab as it will swing, before its outline is drawn.
func roughly(d door, s surveyed, b bay, c swing.Choice, pins [2]float64) ([]swing.Point, swing.Lean) {
	jamb, toward := frame.Hinge, 1.0
	if b.second {
		jamb, toward = frame.Lock, -1.0
	}
	row := survey.Row{
		{Of: survey.Of(jamb), At: pins[0], By: toward / (pins[0] - pins[1])},
		{Of: survey.Of(jamb), At: pins[1], By: -toward / (pins[0] - pins[1])},
	}
	l := swing.Lean{Side: s.shape.Means([]survey.Row{row})[0]}
	if c.Lean != nil {
		l.Out = c.Lean.MM() / s.height
	}
	width := s.width
	if d.Pair != nil {
		width /= 2
	}
	thick := b.slab.Thickness.MM()
	return swing.Slab{Width: width - 6, Thickness: thick}.Corners(swing.Pin{Margin: 3, Out: pinOut(c)}), l
}

// jamb is the jamb of the opening that a bay's leaf hangs on.
func (b bay) jamb() frame.Side {
	if b.second {
		return frame.Lock
	}
	return frame.Hinge
}
