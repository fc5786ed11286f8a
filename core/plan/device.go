package plan

import (
	"math"
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Device is a device as it goes into one leaf.
type Device struct {
	lock.Work
	Second bool                // the second one, above or below the latch
	Steps  []message.Sentences // what to do, in order
}

// devices are the works of the devices of one leaf at its latch line; nil where none was
// chosen.
func devices(d door, b bay, p lock.Plan, laid *fit.Laid) (list []Device, said findings) {
	bits := d.kit.BitsAtHand(d.unit)
	add := func(id string, p lock.Plan, second bool) {
		known, ok := d.kit.Device(id)
		if !ok {
			return
		}
		v := Device{Work: lock.Fit(p, known, b.slab.Thickness, bits), Second: second}
		v.Steps = boring(d, b, v.Work)
		said.add(fits(d, b, v.Work, laid))
		list = append(list, v)
	}
	add(d.Lock.Device, p, false)
	if d.Lock.Second != "" {
		known, _ := d.kit.Device(d.Lock.Second)
		up := d.Lock.Above
		if up == 0 {
			up = known.Above
		}
		if up == 0 {
			up = trade.SecondAbove
		}
		q := p
		q.Slab, q.Jamb = moved(p.Slab, up), moved(p.Jamb, up)
		add(d.Lock.Second, q, true)
	}
	if len(list) == 2 {
		said.add(apart(list[0].Work, list[1].Work, b.slab.Thickness))
	}
	return list, said
}

func moved(f figure.Figure, up measure.Length) figure.Figure {
	terms := append(append([]figure.Term{}, f.Terms...), figure.Term{Label: "term.second-above", Value: -up, Source: figure.Choice})
	return figure.Sum(f.Sigma, terms...)
}

// fits says what of a device does not go into a slab, or only just.
func fits(d door, b bay, w lock.Work, laid *fit.Laid) (said findings) {
	thick, name := b.slab.Thickness, w.Device.Title()
	if hand := string(handOf(d, b)); w.Device.Handed != "" && w.Device.Handed != hand {
		said.say(Stop, job.StepLock, "/lock/device", DeviceOfOtherHand, Args{"name": name, "made": frame.Hand(w.Device.Handed), "hand": frame.Hand(hand)})
	}
	if e := w.Edge; e != nil {
		switch wall := e.Wall.Value; {
		case wall <= 0:
			said.say(Stop, job.StepLock, "/lock/device", BoreThrough, Args{"wide": message.Exact(e.Wide), "thickness": message.Exact(thick), "most": message.Exact(thick - 2*trade.ThinWall)})
		case wall < trade.ThinWall:
			said.say(Care, job.StepLock, "/lock/device", ThinWalls, Args{"bore": message.Exact(e.Wide), "thickness": thick, "wall": wall, "least": message.Exact(trade.ThinWall)})
		}
		if w.Plate != nil && e.Long == 0 && e.Cover < trade.LeastCover {
			said.say(Care, job.StepLock, "/lock/device", CoverThin, Args{"plate": message.Exact(w.Plate.Plate.Wide), "bore": message.Exact(e.Wide), "cover": message.Exact(max(e.Cover, 0)), "hides": covered(e.Cover), "smaller": message.Exact(w.Plate.Plate.Wide - 2*trade.LeastCover)})
		}
		if e.Bit == 0 && e.Long == 0 {
			said.say(Care, job.StepLock, "/lock/device", NoBit, Args{"what": message.ID("hole.latch-bore"), "dia": message.Exact(w.Device.Edge.Bore)})
		}
	}
	said.add(inStile(d, b, w, laid))
	said.add(inTheWayOf(d, w, laid))
	for i, h := range w.Holes {
		if h.Bit == 0 {
			said.say(Care, job.StepLock, "/lock/device", NoBit, Args{"what": h.Title(), "dia": message.Exact(h.Dia)})
		}
		if wood := h.In.Value - h.Dia/2; wood < trade.HoleApart && wood > -h.Dia {
			said.say(Stop, job.StepLock, "/lock/backset", HoleAtEdge, Args{"what": h.Title(), "wood": message.Exact(wood), "least": message.Exact(h.Dia/2 + trade.HoleApart)})
		}
		for _, o := range w.Holes[:i] {
			meets(&said, h, o, thick)
		}
	}
	if w.Device.Screw > thick-2*measure.Millimetre && w.Device.Screw > 0 {
		said.say(Stop, job.StepLock, "/lock/device", FaceScrewLong, Args{"screw": message.Exact(w.Device.Screw), "thickness": message.Exact(thick)})
	}
	if s := w.Strike; s != nil && d.Lock.Jamb > 0 && s.In.Value+s.Plate.Wide/2 > d.Lock.Jamb {
		said.say(Stop, job.StepLock, "/lock/jamb", StrikeOutside, Args{"plate": message.Exact(s.Plate.Wide), "in": message.Exact(s.In.Value), "jamb": message.Exact(d.Lock.Jamb)})
	}
	return said
}

// meets says where two holes have too little wood between them, or none.
func meets(said *findings, a, b lock.Hole, thick measure.Length) {
	gap := lock.Gap(a, b)
	args := Args{"what": a.Title(), "other": b.Title(), "wood": message.Exact(max(gap, 0)), "least": message.Exact(trade.HoleApart)}
	blind := a.Deep > 0 && b.Deep > 0 && a.Deep+b.Deep < thick
	if blind && a.From != b.From && a.From != trade.FromBoth && b.From != trade.FromBoth {
		return // from opposite faces, and neither comes to the other
	}
	switch {
	case gap < 0:
		said.say(Stop, job.StepLock, "/lock/device", HolesMeet, args)
	case gap < trade.HoleApart:
		said.say(Care, job.StepLock, "/lock/device", HolesNear, args)
	}
}

// apart says where the holes of two devices meet.
func apart(a, b lock.Work, thick measure.Length) (said findings) {
	for _, h := range a.Holes {
		for _, o := range b.Holes {
			meets(&said, o, h, thick)
		}
	}
	return said
}

// inStile says where a device reaches past the stile, into glass, moulding or a hollow core.
func inStile(d door, b bay, w lock.Work, laid *fit.Laid) (said findings) {
	stile := b.slab.Stile
	if stile == 0 {
		return nil
	}
	if laid != nil {
		off := 0.0
		for _, c := range laid.Cuts[frame.Lock] {
			off = max(off, c.Depth)
		}
		stile -= measure.FromMM(off).Round(d.tape.Step(), measure.Up)
	}
	for _, h := range w.Holes {
		if reach := h.In.Value + h.Dia/2; reach > stile {
			said.say(Stop, job.StepLock, "/lock/backset", PastStile, Args{"what": h.Title(), "reach": message.Exact(reach), "stile": message.Exact(stile), "backset": message.Exact(max(stile-h.Dia/2, 0))})
		}
	}
	if deep := w.Device.Case.Deep; deep > stile {
		said.say(Stop, job.StepLock, "/lock/device", CasePastStile, Args{"case": message.Exact(deep), "stile": message.Exact(stile)})
	}
	return said
}

// boring tells the work of a device, in the order of the hand.
func boring(d door, b bay, w lock.Work) (list []message.Sentences) {
	put := func(id message.ID, args Args) { list = append(list, message.Sentences{{ID: id, Args: args}}) }
	more := func(id message.ID, args Args) {
		last := len(list) - 1
		list[last] = append(list[last], message.Message{ID: id, Args: args})
	}
	kind, ok := trade.DeviceKindByID(w.Device.Kind)
	if trade.Veneered(b.slab.Construction) {
		put("bore.tape", nil)
	}
	put("bore.line", nil)
	if w.Edge != nil {
		put("bore.middle", Args{"gauge": message.Near(w.Gauge.Value)})
	}
	for _, h := range w.Holes {
		list = append(list, hole(h))
	}
	if e := w.Edge; e != nil {
		args := Args{"wide": message.Near(e.Wide), "deep": message.Near(e.Deep.Value)}
		if e.Long > 0 {
			args["long"], args["down"], args["bit"] = message.Near(e.Long), message.At(e.Down.Value), message.Near(e.Bit)
			put("bore.slot", args)
		} else {
			args["wall"] = message.Near(e.Wall.Value)
			put("bore.edge", args)
		}
	}
	if r := w.Plate; r != nil {
		args := Args{"long": message.Near(r.Plate.Long), "wide": message.Near(r.Plate.Wide), "thick": message.Near(r.Plate.Thick), "top": message.At(r.Top.Value)}
		if r.Plate.Radius > 0 {
			args["radius"] = message.Near(r.Plate.Radius)
			put("bore.plate-round", args)
		} else {
			put("bore.plate", args)
		}
	}
	for _, l := range w.Lengths {
		put("bore.length", Args{"what": l.Part, "long": message.Near(l.Cut.Value)})
	}
	put("bore.together", nil)
	if slices.Contains(levers, kind.ID) {
		more("bore.levers", Args{"backset": message.Near(d.Lock.Backset)})
	}
	if ok {
		more(kind.Note(), nil)
	}
	if b.slab.Construction == "steel" {
		put("bore.steel", nil)
	}
	return list
}

// levers are the kinds of devices whose handles turn a spindle, and are held on it by a screw.
var levers = []string{"lever-plate", "lever-rose", "mortise", "bathroom"}

// hole says how a hole in a face is bored; where another bit than its own is the nearest, that too.
func hole(h lock.Hole) message.Sentences {
	bit := h.Bit
	if bit == 0 {
		bit = h.Dia
	}
	args := Args{"what": h.Title(), "down": message.At(h.Down.Value), "in": message.At(h.In.Value), "bit": message.Near(bit)}
	id := message.ID("hole.deep")
	switch {
	case h.From == trade.FromBoth && h.Deep == 0:
		id, args["pilot"] = "hole.both", message.Near(trade.PilotDia)
	case h.Deep == 0:
		id, args["pilot"], args["face"] = "hole.through", message.Near(trade.PilotDia), message.ID("face."+h.From)
	default:
		args["deep"], args["face"] = message.Near(h.Deep), message.ID("face."+h.From)
	}
	list := message.Sentences{{ID: id, Args: args}}
	if bit != h.Dia {
		list = append(list, message.Message{ID: "hole.nearest", Args: Args{"dia": message.Near(h.Dia)}})
	}
	return list
}

// inTheWayOf says where a device lies in what its edge was said to hold: a rail's joint, a
// moulding, the end of a lock block. Both places are down from the slab's finished top.
func inTheWayOf(d door, w lock.Work, laid *fit.Laid) (said findings) {
	if len(d.Lock.Avoid) == 0 {
		return nil
	}
	top, end := measure.Length(math.MaxInt64), measure.Length(math.MinInt64)
	see := func(from, to measure.Length) { top, end = min(top, from), max(end, to) }
	for _, h := range w.Holes {
		see(h.Down.Value-h.Dia/2, h.Down.Value+h.Dia/2)
	}
	if e := w.Edge; e != nil {
		long := max(e.Long, e.Wide)
		see(e.Down.Value-long/2, e.Down.Value+long/2)
	}
	if end < top {
		return nil
	}
	var taken []hinge.Span
	for _, a := range d.Lock.Avoid {
		from := a.At
		if laid != nil {
			from -= measure.FromMM(laid.Top[1])
		}
		taken = append(taken, hinge.Span{What: message.Own(a.What), From: from, To: from + a.Long})
	}
	if s, blocked := hinge.Blocks(taken, top, end-top, trade.PocketWood); blocked {
		up, down := hinge.Clear(taken, top, end-top, trade.PocketWood, 0, 4*measure.Metre)
		by := message.Or{}
		if up != nil {
			by = append(by, message.Message{ID: "way.higher", Args: Args{"by": top - *up}})
		}
		if down != nil {
			by = append(by, message.Message{ID: "way.lower", Args: Args{"by": *down - top}})
		}
		said.say(Care, job.StepLock, "/lock/avoid", DeviceInTheWay, Args{"name": w.Device.Title(), "what": s.What, "from": message.At(s.From), "to": message.At(s.To), "by": by})
	}
	return said
}

// covered says how much a plate hides on either side of a bore.
func covered(by measure.Length) message.Message {
	if by <= 0 {
		return message.Message{ID: "cover.none"}
	}
	return message.Message{ID: "cover.some", Args: Args{"by": message.Exact(by)}}
}
