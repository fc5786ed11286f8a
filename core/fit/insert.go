package fit

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// Insert is the piece that closes an edge of a hollow slab whose rail or stile was cut away: as wide as the space
// between the stiles, or as long as that between the rails, and as thick as that between the skins.
type Insert struct {
	End              frame.Side
	Width, Thickness measure.Length
	Deep             measure.Length // how far to push the core back, and the insert's own depth
	Left             measure.Length // of the rail or stile; nought where it is gone
	Freed            bool           // the offcut holds it whole, to be freed and put back
}

// weakRail is the share of a rail that is still worth keeping: a half. Common practice.
const weakRail = 15 * measure.Millimetre

// Inserts lists the edges of a hollow slab that need an insert after the cuts: an end that is left with half a rail, and
// a long edge that loses more of its stile than screws can spare.
func (l Laid) Inserts(s slab.Slab) (list []Insert) {
	c, _ := trade.ConstructionByID(s.Construction)
	if c.Rail == 0 {
		return nil
	}
	for _, side := range []frame.Side{frame.Head, frame.Foot, frame.Hinge, frame.Lock} {
		var deepest float64
		for _, cut := range l.Cuts[side] {
			deepest = max(deepest, cut.Depth)
		}
		off := measure.FromMM(deepest)
		in := Insert{End: side, Width: s.Width - 2*c.Stile, Thickness: s.Thickness - 2*c.Skin, Deep: c.Rail}
		weak := c.Rail-off < weakRail
		if side.Upright() {
			in.Width, in.Deep = s.Length-2*c.Rail, c.Stile
			weak = off > c.Most[side]+measure.FromMM(overBy)
		}
		if weak {
			in.Left, in.Freed = max(in.Deep-off, 0), off >= in.Deep
			list = append(list, in)
		}
	}
	return list
}
