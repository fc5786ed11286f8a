package site

import (
	"kindmargin/core/frame"
	"kindmargin/core/slab"
)

// Bay is the part of the opening that one leaf fills, and its slab.
type Bay struct {
	Slab    slab.Slab
	At      string // JSON pointer of that slab in the opening
	Meets   bool   // its lock edge meets another leaf
	Second  bool   // it hangs on the lock jamb
	Bolted  bool   // it is bolted top and bottom and carries the strike
	Strikes bool   // it carries a latch
	Folds   bool   // it turns on pivots and is jointed to another leaf: it has no latch and no strike
	// Reads is by how much the slab's width and length were overread, in mm; Slab is without it.
	Reads [2]float64
}

// Bays lists the bay of a single slab, or the two of a pair: the hinge jamb's first.
func Bays(d Opening) []Bay {
	list := bays(d)
	for i := range list {
		b := &list[i]
		b.Slab.Closes = d.Rules >= Rules4
		if b.Slab.Pivot > 0 {
			b.Folds, b.Bolted, b.Strikes = true, false, false
		}
	}
	return list
}

func bays(d Opening) []Bay {
	if d.Pair == nil {
		return []Bay{{Slab: d.Slab, At: "/slab", Strikes: true}}
	}
	fixed := d.Pair.Fixed == frame.Lock // else hinge
	return []Bay{
		{Slab: d.Slab, At: "/slab", Meets: true, Bolted: !fixed, Strikes: fixed},
		{Slab: d.Pair.Slab, At: "/pair/slab", Meets: true, Second: true, Bolted: fixed, Strikes: !fixed},
	}
}

// Jamb is the jamb of the opening that the leaf hangs on.
func (b Bay) Jamb() frame.Side {
	if b.Second {
		return frame.Lock
	}
	return frame.Hinge
}
