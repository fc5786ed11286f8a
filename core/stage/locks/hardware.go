package locks

import (
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Work is a piece of hardware as it goes into one leaf.
type Work struct {
	lock.Work
	Second bool                // the second one, above or below the latch
	Steps  []message.Sentences // what to do, in order
}

// Works are the works of one leaf's hardware at its latch line; nil where none was chosen. edge is nil while the slab
// is not laid.
func Works(d site.Opening, b site.Bay, p lock.Plan, edge *Edge) (list []Work, said site.Findings) {
	bits := d.Kit.BitsAtHand(d.Unit)
	add := func(id string, p lock.Plan, second bool) {
		known, ok := d.Kit.HardwareByID(id)
		if !ok {
			return
		}
		v := Work{Work: lock.Fit(p, known, lock.Into{
			Thickness: b.Slab.Thickness, LeftOn: edge.LeftOn(d, b), Bits: bits, Tight: d.Lock.Tight,
		}), Second: second}
		v.Steps = boring(d, b, v.Work)
		said.Add(fits(d, b, v.Work, edge))
		list = append(list, v)
	}
	add(d.Lock.Hardware, p, false)
	if d.Lock.Second != "" {
		known, _ := d.Kit.HardwareByID(d.Lock.Second)
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
		said.Add(apart(list[0].Work, list[1].Work, b.Slab.Thickness))
	}
	return list, said
}

func moved(f figure.Figure, up measure.Length) figure.Figure {
	terms := append(append([]figure.Term{}, f.Terms...), figure.Term{
		Label: "term.second-above", Value: -up, Source: figure.Choice,
	})
	return figure.Sum(f.Sigma, terms...)
}

// fits reports hardware that does not fit a slab, or only just.
func fits(d site.Opening, b site.Bay, w lock.Work, edge *Edge) (said site.Findings) {
	thick, name := b.Slab.Thickness, w.Hardware.Title()
	if hand := string(d.HandOf(b)); w.Hardware.Handed != "" && w.Hardware.Handed != hand {
		said.Say(site.Stop, job.StepLock, "/lock/hardware", site.HardwareOfOtherHand, message.Args{
			"name": name, "made": frame.Hand(w.Hardware.Handed), "hand": frame.Hand(hand),
		})
	}
	if e := w.Edge; e != nil {
		switch wall := e.Wall.Value; {
		case wall <= 0:
			said.Say(site.Stop, job.StepLock, "/lock/hardware", site.BoreThrough, message.Args{
				"wide": message.Exact(e.Wide), "thickness": message.Exact(thick),
				"most": message.Exact(thick - 2*trade.ThinWall),
			})
		default:
			said.Add(walls(e.Wide, thick, wall, "/lock/hardware"))
		}
		if w.Plate != nil && e.Long == 0 && e.Cover < trade.LeastCover {
			gravity := site.Note // a set whose plate is no wider than its bore is made so
			if e.Wide > w.Hardware.Edge.Bore+trade.BitUnder {
				gravity = site.Care
			}
			said.Say(gravity, job.StepLock, "/lock/hardware", site.CoverThin, message.Args{
				"plate": message.Exact(w.Plate.Plate.Wide), "bore": message.Exact(e.Wide),
				"cover": message.Exact(max(e.Cover, 0)), "hides": covered(e.Cover),
				"smaller": message.Exact(w.Plate.Plate.Wide - 2*trade.LeastCover),
			})
		}
		if e.Bit == 0 && e.Long == 0 {
			said.Say(site.Care, job.StepLock, "/lock/hardware", site.NoBit, message.Args{
				"what": message.ID("hole.latch-bore"), "dia": message.Exact(w.Hardware.Edge.Bore),
			})
		}
	}
	said.Add(inStile(d, b, w, edge))
	said.Add(inTheWayOf(d, w, edge))
	for i, h := range w.Holes {
		if h.Bit == 0 {
			said.Say(site.Care, job.StepLock, "/lock/hardware", site.NoBit, message.Args{
				"what": h.Title(), "dia": message.Exact(h.Dia),
			})
		}
		if wood := h.In.Value - h.Dia/2; wood < trade.HoleApart && wood > -h.Dia {
			said.Say(site.Stop, job.StepLock, "/lock/backset", site.HoleAtEdge, message.Args{
				"what": h.Title(), "wood": message.Exact(wood), "least": message.Exact(h.Dia/2 + trade.HoleApart),
			})
		}
		for _, o := range w.Holes[:i] {
			meets(&said, h, o, thick)
		}
	}
	if w.Hardware.Screw > thick-2*measure.Millimetre && w.Hardware.Screw > 0 {
		said.Say(site.Stop, job.StepLock, "/lock/hardware", site.FaceScrewLong, message.Args{
			"screw": message.Exact(w.Hardware.Screw), "thickness": message.Exact(thick),
		})
	}
	if s := w.Strike; s != nil && d.Lock.Jamb > 0 && s.In.Value+s.Plate.Wide/2 > d.Lock.Jamb {
		said.Say(site.Stop, job.StepLock, "/lock/jamb", site.StrikeOutside, message.Args{
			"plate": message.Exact(s.Plate.Wide), "in": message.Exact(s.In.Value), "jamb": message.Exact(d.Lock.Jamb),
		})
	}
	return said
}

// walls reports that hardly any wood is left beside a bore: as little as beside those of usual sets, or less.
func walls(bore, thick, wall measure.Length, at string) (said site.Findings) {
	args := message.Args{
		"bore": message.Exact(bore), "thickness": thick, "wall": wall, "least": message.Exact(trade.ThinWall),
	}
	switch {
	case wall < trade.LeastWall:
		said.Say(site.Care, job.StepLock, at, site.ThinWalls, args)
	case wall <= trade.ThinWall:
		said.Say(site.Note, job.StepLock, at, site.WallsUsual, args)
	}
	return said
}

// meets reports two holes with too little wood between them, or none.
func meets(said *site.Findings, a, b lock.Hole, thick measure.Length) {
	gap := lock.Gap(a, b)
	args := message.Args{
		"what": a.Title(), "other": b.Title(), "wood": message.Exact(max(gap, 0)),
		"least": message.Exact(trade.HoleApart),
	}
	blind := a.Deep > 0 && b.Deep > 0 && a.Deep+b.Deep < thick
	if blind && a.From != b.From && a.From != trade.FromBoth && b.From != trade.FromBoth {
		return // from opposite faces, and neither comes to the other
	}
	switch {
	case gap < 0:
		said.Say(site.Stop, job.StepLock, "/lock/hardware", site.HolesMeet, args)
	case gap < trade.HoleApart:
		said.Say(site.Care, job.StepLock, "/lock/hardware", site.HolesNear, args)
	}
}

// apart reports holes of two pieces of hardware that meet.
func apart(a, b lock.Work, thick measure.Length) (said site.Findings) {
	for _, h := range a.Holes {
		for _, o := range b.Holes {
			meets(&said, o, h, thick)
		}
	}
	return said
}

// inStile reports hardware that reaches past the stile, into glass, moulding or a hollow core.
func inStile(d site.Opening, b site.Bay, w lock.Work, edge *Edge) (said site.Findings) {
	stile := b.Slab.Stile
	if stile == 0 {
		return nil
	}
	if edge != nil {
		stile -= measure.FromMM(edge.Off).Round(d.Tape.Step(), measure.Up)
	}
	for _, h := range w.Holes {
		if reach := h.In.Value + h.Dia/2; reach > stile {
			said.Say(site.Stop, job.StepLock, "/lock/backset", site.PastStile, message.Args{
				"what": h.Title(), "reach": message.Exact(reach), "stile": message.Exact(stile),
				"backset": message.Exact(max(stile-h.Dia/2, 0)),
			})
		}
	}
	if deep := w.Hardware.Case.Deep; deep > stile {
		said.Say(site.Stop, job.StepLock, "/lock/hardware", site.CasePastStile, message.Args{
			"case": message.Exact(deep), "stile": message.Exact(stile),
		})
	}
	return said
}

// inTheWayOf reports hardware that meets an occupied part of its edge: a rail's joint, a moulding, the end of a lock
// block. Both places are down from the slab's finished top.
func inTheWayOf(d site.Opening, w lock.Work, edge *Edge) (said site.Findings) {
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
		if edge != nil {
			from -= measure.FromMM(edge.Top)
		}
		if edge != nil && (from+a.Long <= 0 || from >= measure.FromMM(edge.Long)) {
			continue // it went with the offcut
		}
		taken = append(taken, hinge.Span{What: message.Own(a.What), From: from, To: from + a.Long})
	}
	if s, blocked := hinge.Blocks(taken, top, end-top, trade.PocketWood); blocked {
		up, down := hinge.Clear(taken, top, hinge.Need{
			Leaf: end - top, Wood: trade.PocketWood, Edge: 4 * measure.Metre,
		})
		by := message.Or{}
		if up != nil {
			by = append(by, message.Message{ID: "way.higher", Args: message.Args{"by": top - *up}})
		}
		if down != nil {
			by = append(by, message.Message{ID: "way.lower", Args: message.Args{"by": *down - top}})
		}
		said.Say(site.Care, job.StepLock, "/lock/avoid", site.HardwareInTheWay, message.Args{
			"name": w.Hardware.Title(), "what": s.What, "from": message.At(s.From), "to": message.At(s.To), "by": by,
		})
	}
	return said
}

// covered is how much a plate covers on either side of a bore.
func covered(by measure.Length) message.Message {
	if by <= 0 {
		return message.Message{ID: "cover.none"}
	}
	return message.Message{ID: "cover.some", Args: message.Args{"by": message.Exact(by)}}
}
