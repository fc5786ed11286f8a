package fit

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// Insert is the piece that closes the end of a hollow slab whose rail was cut away. It is as wide as the space between
// the stiles and as thick as that between the skins.
type Insert struct {
	End              frame.Side
	Width, Thickness measure.Length
	Deep             measure.Length // how far to push the core back, and the insert's own depth
	Left             measure.Length // of the rail; nought where it is gone
}

// weakRail is the share of a rail that is still worth keeping: a half. Common practice.
const weakRail = 15 * measure.Millimetre

// Inserts lists the ends of a hollow slab that need an insert after the cuts.
func (l Laid) Inserts(s slab.Slab) (list []Insert) {
	c, _ := trade.ConstructionByID(s.Construction)
	if c.Rail == 0 {
		return nil
	}
	for _, end := range []frame.Side{frame.Head, frame.Foot} {
		var off float64
		for _, cut := range l.Cuts[end] {
			off = max(off, cut.Depth)
		}
		left := c.Rail - measure.FromMM(off)
		if left < weakRail {
			list = append(list, Insert{
				End: end, Width: s.Width - 2*c.Stile, Thickness: s.Thickness - 2*c.Skin, Deep: c.Rail,
				Left: max(left, 0),
			})
		}
	}
	return list
}
