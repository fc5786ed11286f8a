package simulate

import (
	"math"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/trade"
)

// judged are the sides whose margins a plane decides; the hinge side's follow the hinges, and are judged with them by
// fits.
var judged = []frame.Side{frame.Lock, frame.Head, frame.Foot}

// stations is the number of places along a side at which it is judged: a lump of 150 mm is met five times.
const stations = 65

// gapAt is the true gap beside a hung slab at one place.
func (o opening) gapAt(d hungSlab, side frame.Side, at float64) float64 {
	bottom := o.at(frame.Hinge, pins[1]) + d.pin[1]
	lean := (o.at(frame.Hinge, pins[0]) + d.pin[0] - bottom) / (pins[0] - pins[1])
	edge := bottom + lean*(at-pins[1])
	head := o.at(frame.Head, 0) - d.headGap
	switch side {
	case frame.Hinge:
		return edge + frame.OffAt(d.hollow, at) - o.at(frame.Hinge, at)
	case frame.Lock:
		return o.at(frame.Lock, at) - edge - (d.foot + (d.top-d.foot)*at/height)
	case frame.Head:
		return o.at(frame.Head, at) - (head + d.headUp*at/width - lean*at)
	}
	return head - d.length + d.footUp*at/width - lean*at - o.at(frame.Foot, at)
}

// gaps are the true margins of a hung slab at places along all sides.
func (o opening) gaps(d hungSlab) (g frame.Each[[]fit.Point]) {
	for _, s := range frame.Sides {
		g[s] = make([]fit.Point, stations)
		for i := range g[s] {
			at := reach(s) * float64(i) / (stations - 1)
			g[s][i] = fit.Point{S: at, Off: o.gapAt(d, s, at)}
		}
	}
	return g
}

func (d hungSlab) wanted(s frame.Side) float64 {
	if s == frame.Foot {
		return under + d.raised
	}
	return margin
}

// side is one side's margins against the best that a straight edge gives there.
type side struct {
	gaps   []fit.Point
	line   fit.Line // nearest to the margins
	best   float64  // how far the margins of the best straight edge are from wanted, mm
	wanted float64  // and what that edge gives way by to the least margin is added
}

func (o opening) sideOf(d hungSlab, s frame.Side, g []fit.Point) side {
	line, best, _ := fit.Minimax(g)
	wanted := d.wanted(s)
	return side{g, line, best, wanted + max(least-(wanted-best), 0)}
}

// off is the greater distance of a side's line from the best one, which it differs from most at an end.
func (s side) off() float64 {
	first, last := s.gaps[0].S, s.gaps[len(s.gaps)-1].S
	return max(math.Abs(s.line.At(first)-s.wanted), math.Abs(s.line.At(last)-s.wanted))
}

func (s side) narrowest() float64 {
	lo := math.Inf(1)
	for _, p := range s.gaps {
		lo = min(lo, p.Off)
	}
	return lo
}

func (s side) widest() float64 {
	hi := math.Inf(-1)
	for _, p := range s.gaps {
		hi = max(hi, p.Off)
	}
	return hi
}

// small lists the edges that are anywhere more than a millimetre further from their side than the best straight edge.
func (o opening) small(d hungSlab) (list []frame.Side) {
	g := o.gaps(d)
	for _, s := range judged {
		if j := o.sideOf(d, s, g[s]); j.widest() > j.wanted+j.best+tooSmall {
			list = append(list, s)
		}
	}
	return list
}

// fits reports whether a hung slab fits: it passes and latches, nothing rubs, no margin is under the least, and each is
// within a millimetre of the best straight edge's all along.
func (o opening) fits(d hungSlab) bool {
	g := o.gaps(d)
	for _, s := range frame.Sides {
		if j := o.sideOf(d, s, g[s]); j.narrowest() < least || j.off() > within {
			return false
		}
	}
	return o.passes(d, g[frame.Lock]) && o.latches(g[frame.Lock]) && o.sweeps(d)
}

// The slab in plan, in mm: its thickness, and how far its pins stand in front of its pull face.
const (
	thick = 40.0
	pinAt = 5.0
)

// latchAt is the height of the latch, and reaches how wide the lock margin may be there for its bolt to hold, in mm.
// Common practice: a bolt stands out by 10 or more, and holds by half of it.
const (
	latchAt = 1000.0
	reaches = 6.0
)

// passes reports whether the lock edge's push-face corner passes the lock jamb as it swings: the corner's reach from
// the pins against theirs to the jamb, by Pythagoras.
func (o opening) passes(d hungSlab, lock []fit.Point) bool {
	for _, p := range lock {
		a := d.foot + (d.top-d.foot)*p.S/height + d.pin[0]/2
		if corner := math.Hypot(a-d.bevel, thick+pinAt); corner > a+p.Off || math.Hypot(a, pinAt) > a+p.Off {
			return false
		}
	}
	return true
}

// latches reports whether the latch's bolt reaches its strike, which is set from the latch with the door shut.
func (o opening) latches(lock []fit.Point) bool {
	i := int(math.Round(latchAt / height * (stations - 1)))
	return lock[i].Off < reaches
}

// sweeps reports whether the foot's free corner stays off the floor from shut to square, over a floor that goes on into
// the room as it lies in the opening.
func (o opening) sweeps(d hungSlab) bool {
	lean := (o.at(frame.Hinge, pins[0]) + d.pin[0] - o.at(frame.Hinge, pins[1]) - d.pin[1]) / (pins[0] - pins[1])
	shut := o.gapAt(d, frame.Foot, width)
	slope := (o.at(frame.Foot, width) - o.at(frame.Foot, 0)) / width
	for deg := 0.0; deg <= 90; deg += 15 {
		sin, cos := math.Sincos(deg * math.Pi / 180)
		x := width*cos + pinAt*sin // from the pins
		// The corner turns about the leaning pins; the floor under it falls or rises with x.
		if shut+(lean+slope)*(width-x) < trade.Rubs.MM() {
			return false
		}
	}
	return true
}

// tightest is the place of the least gap round a hung slab.
func (o opening) tightest(d hungSlab) (side frame.Side, at, gap float64) {
	gap = math.Inf(1)
	for _, s := range frame.Sides {
		for at0 := 0.0; at0 <= reach(s); at0 += 20 {
			if g := o.gapAt(d, s, at0); g < gap {
				side, at, gap = s, at0, g
			}
		}
	}
	return side, at, gap
}

// goesIn reports whether a slab goes into its opening at all.
func (o opening) goesIn(d hungSlab) bool {
	for _, g := range o.gaps(d) {
		for _, p := range g {
			if p.Off < 0 {
				return false
			}
		}
	}
	return true
}

// off is the greatest distance of a hung slab's edges, as straight lines, from the best ones.
func (o opening) off(d hungSlab) (worst float64) {
	g := o.gaps(d)
	for _, s := range judged {
		worst = max(worst, o.sideOf(d, s, g[s]).off())
	}
	return worst
}

func (o opening) uneven(d hungSlab) (worst float64) {
	g := o.gaps(d)
	for _, s := range []frame.Side{frame.Lock, frame.Head} {
		j := side{gaps: g[s]}
		worst = max(worst, j.widest()-j.narrowest())
	}
	return worst
}
