package fit

import (
	"math"
)

// Pass is one pass of the plane between two places along the edge, which takes off Bite, in mm.
type Pass struct{ From, To, Bite float64 }

// Passes gives the passes of a plane that takes off bite at most, for a straight cut from depth first at 0 to depth
// last at length. The n passes take off the same, so that they add up to the depth; pass i of n covers the places where
// more than n−i of them must come off, so that the passes of a taper grow longer from its deep end.
func Passes(first, last, length, bite float64) []Pass {
	n := int(math.Ceil(max(first, last)/bite - 1e-9))
	if n > 0 {
		bite = max(first, last) / float64(n)
	}
	list := make([]Pass, 0, n)
	for i := 1; i <= n; i++ {
		over := float64(n-i) * bite
		p := Pass{0, length, bite}
		if first != last {
			at := length * (over - first) / (last - first) // where the depth is just over
			if first > last {
				p.To = min(max(at, 0), length)
			} else {
				p.From = min(max(at, 0), length)
			}
		}
		list = append(list, p)
	}
	return list
}
