// Package swings is the stage that swings the slab as planned: what its edges pass, how far it opens, how its foot
// clears the floor, and where it comes to rest.
package swings

import (
	"cmp"
	"math"
	"slices"
	"strconv"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
)

// Swing is how a slab swings as planned. Angles are in degrees from closed.
type Swing struct {
	Bevel   figure.Figure // how much narrower the push face is at the lock edge
	Relief  figure.Figure // and at the hinge edge, so that it does not bind as the door shuts
	Clear   figure.Figure // least that the slab passes the lock jamb, or the other leaf, by
	ClearAt float64       // and at which angle
	Opens   float64       // how far it opens
	Against Meeting       // what stops it there; the zero value where it folds right back
	Meets   []Meeting     // what it would meet, in order, were each the only one
	Second  bool          // of a pair: it opens only once the other leaf stands open
	Foot    []Foot        // the free corner over the floor, through the swing
	Least   figure.Figure // the least of them
	LeastAt float64
	Shut    figure.Figure // the foot over the floor closed, and open at 90° or as far as it opens
	Open    figure.Figure
	Rests   float64 // where it comes to rest, let go at 45°
	Drift   Drift
	Weight  float64 // kg
	// The plan from above, in mm from the pin: x toward the lock jamb, z toward the viewer.
	Slab   []swing.Point   // hinge edge pull face, lock edge pull face, lock edge push face, hinge edge push face
	Parts  [][]swing.Point // the same in convex parts: two where its edge is rebated
	Beside Beside
	Stop   []swing.Point // on the hinge jamb, behind the slab; nil where none was read
	Things []InPlan
}

// Beside is what the lock edge passes, in convex parts.
type Beside struct {
	Name  message.ID
	Parts [][]swing.Point
}

// InPlan is an obstacle, as a convex outline.
type InPlan struct {
	ID    string // "casing", or "thing-0" for the first of swing.Choice's things
	Name  message.Message
	Shape []swing.Point
}

// Meeting is the angle at which a slab meets an obstacle.
type Meeting struct {
	ID    string // of what it meets
	Thing message.Message
	Angle float64
}

const (
	degree = math.Pi / 180
	// sweepSteps is how many angles of the swing are checked, and drawn.
	sweepSteps = 36
	// rightAngle is how far a slab is to open by default.
	rightAngle = 90
	// letGo is the angle from which drift is worked out.
	letGo = 45
	// unreadClosing is a jamb's face out of square by 2°, which may be there unread.
	unreadClosing = 0.035
)

// pinOut is how far the pin is in front of the pull face, in mm.
func pinOut(c swing.Choice) float64 {
	if c.Pin == 0 {
		return trade.UsualPin.MM()
	}
	return c.Pin.MM()
}

// Of is how a slab swings as planned. other is the outline of a pair's other slab; nil for a single one.
func Of(d site.Opening, b site.Bay, o fit.Outline, other *fit.Outline) (w Swing, said site.Findings) {
	c := d.Swing.Under(b.Jamb())
	at := tightest(o)
	p := swing.Pin{Margin: o.Edges[frame.Hinge].GapAt(at), Out: pinOut(c)}
	s := closed(d, b, widthAt(o, at))
	gap := o.Edges[frame.Lock].GapAt(at)

	beside := func(float64) [][]swing.Point { return [][]swing.Point{lockJamb(c, p, s, gap).Corners(p)} }
	w.Beside.Name = "wall.lock"
	if b.Meets {
		w.Beside.Name, gap = "thing.other-leaf", d.Pair.Meeting.MM()
		beside = func(bevel float64) [][]swing.Point { return otherLeaf(d, b, section{s, p, *other, at}, bevel) }
	}
	e := edge{s, p, beside, passOf(d, b)}
	var more site.Findings
	w.Bevel, more = e.bevel(d, b, c)
	said.Add(more)
	w.Relief, more = relief(d, c, s, p)
	said.Add(more)
	s.Bevel, s.Relief = w.Bevel.Value.MM(), w.Relief.Value.MM()
	w.Slab, w.Parts, w.Beside.Parts = s.Corners(p), s.Outlines(p), beside(s.Bevel)
	to := rightAngle * degree
	if w.Second = s.Meets == swing.Rebated && s.Behind; w.Second {
		to = 0 // the other stands open by then
		said.Say(site.Note, job.StepSwing, "/pair/edges", site.OpensSecond, nil)
	}
	w.Clear, w.ClearAt = clearance(d, w, gap, o.Edges[frame.Lock], to)

	w.Things = inTheWay(c, p)
	said.Add(w.opens(d, b, c, p))
	w.Stop, more = stopped(c, s, p)
	said.Add(more)
	w.Weight = b.Slab.Weight()
	l := leans(c, o)
	w.Drift, more = w.drifts(d, l, s, p)
	said.Add(more)
	w.Foot = overFloor(d, c, l, w, o)
	least := w.least()
	w.Least, w.LeastAt = least.over(d, o), least.Angle
	w.Shut, w.Open = w.at(0).over(d, o), w.at(rightAngle).over(d, o)
	said.Add(floorSaid(d, b, w, s.Width+p.Margin))
	said.Add(risingHead(d, s, p, o))
	return w, said
}

// closed is a bay's slab, closed, of a width, with its edge as it will be worked.
func closed(d site.Opening, b site.Bay, width float64) swing.Slab {
	s := swing.Slab{Width: width, Thickness: b.Slab.Thickness.MM()}
	if b.Meets {
		s.Meets, s.Lip, s.Behind = d.Pair.Edges, d.Pair.Laps().MM(), b.Bolted
	}
	return s
}

// passOf is the clearance that a bay's lock edge needs, in mm.
func passOf(d site.Opening, b site.Bay) float64 {
	pass := d.Margins.Least.MM()
	if b.Meets {
		pass = min(pass, d.Pair.Meeting.MM()/2)
	}
	return pass
}

// clearance is the slab's least clearance from what stands beside its lock edge, from closed to an angle, with its
// terms. gap is the margin there, closed.
func clearance(
	d site.Opening, w Swing, gap float64, e fit.Edge, to float64,
) (f figure.Figure, at float64) {
	near, at := swing.NearestOf(w.Parts, w.Beside.Parts, 0, to)
	closed := d.Estimate(gap)
	terms := []figure.Term{{Label: "term.lock-margin-tightest", Value: closed, Source: figure.Estimate}}
	rest := d.Estimate(near) - closed
	if at > 0.01*degree {
		corner, past := swing.LockPush, message.ID("term.push-corner-past")
		if math.Hypot(w.Slab[swing.LockPull].X, w.Slab[swing.LockPull].Z) > math.Hypot(
			w.Slab[swing.LockPush].X, w.Slab[swing.LockPush].Z,
		) {
			corner, past = swing.LockPull, "term.pull-corner-past"
		}
		far := w.Slab[swing.LockPull].X
		square := math.Hypot(far, w.Slab[corner].Z) // its way round the pins, were the edge square
		swung := d.Estimate(far - square)
		terms = append(terms, figure.Term{Label: past, Value: swung, Source: figure.Estimate})
		rest -= swung
		if back := d.Estimate(square - math.Hypot(w.Slab[corner].X, w.Slab[corner].Z)); back != 0 {
			terms = append(terms, figure.Term{Label: "term.bevel-back", Value: back, Source: figure.Rule})
			rest -= back
		}
	}
	if rest != 0 {
		terms = append(terms, figure.Term{Label: "term.how-it-lies", Value: rest, Source: figure.Estimate})
	}
	sigma := 0.0
	for _, g := range e.Gaps {
		sigma = max(sigma, g.Sigma)
	}
	return figure.Sum(sigma, terms...), at / degree
}

// tightest is the height, in the hung frame, of the least lock margin.
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

// ThingID is the ID of the i-th obstacle that was entered.
func ThingID(i int) string { return "thing-" + strconv.Itoa(i) }

// inTheWay are the obstacles of a slab that opens, in plan.
func inTheWay(c swing.Choice, p swing.Pin) (list []InPlan) {
	box := func(id string, name message.Message, x0, x1, z0, z1 float64) {
		list = append(list, InPlan{
			id, name, []swing.Point{{X: x0, Z: z0}, {X: x1, Z: z0}, {X: x1, Z: z1}, {X: x0, Z: z1}},
		})
	}
	face := -p.Margin / 2 // of the hinge jamb
	if c.Casing > 0 {
		near := face - c.Reveal.MM()
		box("casing", message.Message{ID: "thing.casing"}, near-70, near, -p.Out, c.Casing.MM()-p.Out)
	}
	for i, t := range c.Things {
		id, at := ThingID(i), face+t.At.MM()
		if t.Wall {
			box(id, message.Own(t.Name), face-t.At.MM()-100, face-t.At.MM(), -p.Out, 3000)
			continue
		}
		out := t.Out.MM() - p.Out
		box(id, message.Own(t.Name), at-1, at+1, out-1, out+1)
	}
	return list
}

// opens works out how far the slab opens, and reports where that is less than wanted.
func (w *Swing) opens(d site.Opening, b site.Bay, c swing.Choice, p swing.Pin) (said site.Findings) {
	w.Opens = 180
	for _, thing := range w.Things {
		if angle, ok := swing.Touches(w.Slab, thing.Shape, 0, math.Pi); ok {
			w.Meets = append(w.Meets, Meeting{thing.ID, thing.Name, angle / degree})
		}
	}
	slices.SortStableFunc(w.Meets, func(a, b Meeting) int { return cmp.Compare(a.Angle, b.Angle) })
	if len(w.Meets) > 0 {
		w.Opens, w.Against = w.Meets[0].Angle, w.Meets[0]
	}
	want := c.Open
	if want == 0 {
		want = rightAngle
	}
	if w.Opens >= float64(want) {
		return nil
	}
	args := message.Args{"angle": message.Degrees(w.Opens), "thing": w.Against.Thing, "wanted": message.Degrees(want)}
	code := site.OpensShort
	if w.Against.ID == "casing" {
		// Folded right back, the pull face is as far in front of the pins as it was behind.
		code = site.OpensShortOfCasing
		args["pin"] = c.Casing/2 + measure.Millimetre
		args["more"] = c.Casing/2 + measure.Millimetre - measure.FromMM(p.Out)
		args["width"] = trade.HingeWidth(b.Slab.Thickness, max(b.Slab.Thickness-d.Hinges.Width, 0), c.Casing)
	}
	said.Say(site.Care, job.StepSwing, "/swing/open", code, args)
	return said
}
