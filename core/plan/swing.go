package plan

import (
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
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
	said.add(floorSaid(d, b, w, s.Width+p.Margin))
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

// jamb is the jamb of the opening that a bay's leaf hangs on.
func (b bay) jamb() frame.Side {
	if b.second {
		return frame.Lock
	}
	return frame.Hinge
}
