package cuts

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// prepared is how many things are done before a saw crosses the face: across the grain, a veneer is scored and taped, a
// skin taped, and timber backed by a block.
func (o laidOut) prepared(side frame.Side) int {
	if side.Upright() {
		return 0
	}
	switch o.surface() {
	case trade.OfVeneer:
		return 2
	case trade.OfSkin, trade.OfTimber:
		return 1
	}
	return 0
}

func (o laidOut) surface() trade.Surface {
	kind, _ := trade.ConstructionByID(o.bay.Slab.Construction)
	return kind.Surface
}

// sawSteps are how an edge is sawn, in the order of the hands. Common practice.
func (o laidOut) sawSteps(e Edge, s sawCut, outside bool) (steps []message.Message) {
	put := func(id message.ID, args message.Args) { steps = append(steps, message.Message{ID: id, Args: args}) }
	saw, table := o.Kit.Saw, s.means == trade.ByTableSaw
	switch {
	case saw.Down || table:
		put("saw.face-up", nil)
	default:
		put("saw.face-down", nil)
	}
	if !e.Side.Upright() {
		switch o.surface() {
		case trade.OfVeneer:
			put("saw.score", nil)
		case trade.OfSkin:
			put("saw.tape", nil)
		case trade.OfTimber:
			put("saw.back", nil)
		}
	} else if o.surface() == trade.OfVeneer || o.surface() == trade.OfSkin {
		put("saw.sole", nil)
	}
	if table {
		put("saw.fence", message.Args{"by": s.Fence.Value})
		put("saw.carry", nil)
	} else {
		near, far := saw.Sides()
		switch {
		case outside:
			put("saw.guide-outside", message.Args{"by": message.Near(far)})
		case saw.Guided().Offset:
			put("saw.guide-batten", message.Args{"by": message.Near(near)})
		default:
			put("saw.guide-made", nil)
		}
		put("saw.blade", message.Args{"by": message.Exact(trade.BladeThrough)})
		put("saw.held", nil)
	}
	switch {
	case o.kept(e.Side):
		put("saw.keep-rail", message.Args{"part": message.ID("insert-part." + part(e.Side))})
	case max(s.off[0], s.off[1])-saw.Kerf() >= trade.HeldFrom:
		put("saw.hold", nil)
	default:
		put("saw.falls", nil)
	}
	if left, most := e.leftBy(s); left > 0 {
		id := message.ID("saw.plane-rest")
		if most-left > trade.SawKeep(o.Unit) {
			id = "saw.plane-taper"
		}
		put(id, message.Args{"by": most.Round(o.Tape.Step(), measure.Nearest)})
	}
	return steps
}

// kept reports whether the offcut of an edge holds the rail or stile that closes it again.
func (o laidOut) kept(side frame.Side) bool {
	if o.Cut.Insert.New {
		return false
	}
	for _, in := range o.laid.Inserts(o.bay.Slab) {
		if in.End == side && in.Freed {
			return true
		}
	}
	return false
}
