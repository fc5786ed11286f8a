package plan

import (
	"kindmargin/core/frame"
	"kindmargin/core/slab"
)

// bay is the room of one leaf, and the slab that is to hang there.
type bay struct {
	slab    slab.Slab
	at      string // JSON pointer of that slab in the opening
	meets   bool   // its lock edge meets another leaf
	second  bool   // it hangs on the lock jamb
	bolted  bool   // it is bolted top and bottom and carries the strike
	strikes bool   // it carries a latch
	// reads is by how much too much the slab's width and length were read, mm; slab is without it.
	reads [2]float64
}

// baysOf gives one bay, or the two of a pair, the hinge jamb's first.
func baysOf(d door) []bay {
	if d.Pair == nil {
		return []bay{{slab: d.Slab, at: "/slab", strikes: true}}
	}
	fixed := d.Pair.Fixed == frame.Lock // else hinge
	return []bay{
		{slab: d.Slab, at: "/slab", meets: true, bolted: !fixed, strikes: fixed},
		{slab: d.Pair.Slab, at: "/pair/slab", meets: true, second: true, bolted: fixed, strikes: !fixed},
	}
}
