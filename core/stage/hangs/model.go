package hangs

import (
	"math"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Movement of a slab, and of its frame, between two seasons: standard deviations in mm. Assumed.
const (
	seasonWidth = 1.5 // of the lock edge, at either end
	seasonBow   = 1.0 // of its middle besides
	seasonPins  = 0.4 // of each hinge
)

// leafProud is how far a leaf with light behind it may be off its recess, a standard deviation in mm. Assumed.
const leafProud = 1.0

// model is the input of a leaf's hangs beside its record.
type model struct {
	site.Opening
	bay           site.Bay
	width, height float64 // of the opening, about, mm
	// Of a pair: the other leaf as it hangs, and its errors; nil where there is none.
	beside *survey.Hang
	known  []survey.Stray
}

// hangs are a leaf's hangs, each with what was done before it, and their errors, after those that are already known: of
// the cut, of the first hang, and of each thing done since. After the last comes the one that would follow were next
// done; nil for none.
func (o model) hangs(t job.Tried, next *job.Did) (hangs []survey.Hang, strays []survey.Stray) {
	strays = slices.Clone(o.known)
	m := *t.Made
	length, across := edgeReach(m, frame.Hinge), edgeReach(m, frame.Head)
	half := o.Hinges.Leaf.MM() / 2
	pin := func(i int) float64 { return o.height - m.Margin.MM() - m.Hinges[i].Down.MM() - half }
	margin := func(h job.MadeHinge) float64 { return (o.Hinges.Closed - h.Slab - h.Jamb + h.Pack).MM() }
	last := len(m.Hinges) - 1
	h := survey.Hang{
		Pins:   [2]float64{pin(0), pin(last)},
		Margin: [2]float64{margin(m.Hinges[0]), margin(m.Hinges[last])}, Head: m.Margin.MM(),
		Rise:   o.height - m.Margin.MM() - length,
		Hollow: along(m.Hollow, length), Lock: along(m.Lock, length), Top: along(m.Head, across),
		Foot: along(m.Foot, across),
		Far:  o.bay.Second, Width: o.width, Meets: o.beside,
	}
	stray := func(s survey.Stray) {
		h.Strays = append(h.Strays[:len(h.Strays):len(h.Strays)], len(strays))
		strays = append(strays, s)
	}
	sure := o.Sureness()
	off := o.HungOff()
	stray(survey.Stray{Of: survey.OfPins, From: h.Pins[1], To: h.Pins[0], Sigma: off})
	stray(survey.Stray{Of: survey.OfHead, Sigma: off})
	stray(survey.Stray{Of: survey.OfLockEdge, To: length, Sigma: sure.Marked()})
	stray(survey.Stray{Of: survey.OfTop, To: across, Sigma: sure.Marked(), Taper: true})
	stray(survey.Stray{Of: survey.OfFoot, To: across, Sigma: sure.Marked()})
	for _, g := range lumps(t) {
		stray(survey.Stray{Of: survey.OfSide, Side: g.Side, From: g.At.MM(), To: g.At.MM(), Sigma: survey.BumpSigma})
	}
	list := t.Hangs
	if next != nil {
		list = append(list[:len(list):len(list)], job.Hang{Did: next})
	}
	for _, k := range list {
		h.ID = k.ID
		if k.Did != nil {
			for _, s := range done(&h, *k.Did, last) {
				if s.Of >= survey.OfLockEdge {
					s.Sigma = sure.Cut
				}
				stray(s)
			}
		}
		if k.Revisit != "" {
			stray(survey.Stray{Of: survey.OfPins, From: h.Pins[1], To: h.Pins[0], Sigma: seasonPins})
			stray(survey.Stray{Of: survey.OfHead, Sigma: seasonPins})
			stray(survey.Stray{Of: survey.OfLockEdge, To: length, Sigma: seasonWidth, Bow: seasonBow})
		}
		own := h
		for _, p := range k.Proud { // this time that leaf is not home, and nobody knows by how much
			end := 1
			if p == 0 {
				end = 0
			} else if p < last {
				continue // one between is not on the line of the pins
			}
			own.Strays = append(slices.Clone(own.Strays), len(strays))
			strays = append(strays, survey.Stray{
				Of: survey.OfPins, From: h.Pins[1-end], To: h.Pins[end], Sigma: leafProud, Taper: true,
			})
		}
		hangs = append(hangs, own)
	}
	return hangs, strays
}

// lumps are the places where a lump or a hollow was read beside a slab, one of those within a lump's length.
func lumps(t job.Tried) (list []survey.Reading) {
	for _, h := range t.Hangs {
		for _, g := range h.Gaps {
			known := func(x survey.Reading) bool {
				return x.Side == g.Side && math.Abs((x.At-g.At).MM()) < survey.BumpWidth/2
			}
			if g.Local && g.Struck == "" && !slices.ContainsFunc(list, known) {
				list = append(list, g)
			}
		}
	}
	return list
}

// done changes a hung slab by what was done to it, and returns the errors of that work.
func done(h *survey.Hang, did job.Did, last int) (strays []survey.Stray) {
	off := did.Up != 0
	moved := func(i int) float64 {
		if i < len(did.Pack) {
			return did.Pack[i].MM()
		}
		return 0
	}
	for end, i := range [2]int{0, last} {
		if m := moved(i); m != 0 {
			h.Margin[end] += m
			strays = append(strays, survey.Stray{
				Of: survey.OfPins, From: h.Pins[1-end], To: h.Pins[end], Sigma: trade.Repacked, Taper: true,
			})
		}
	}
	if did.Up != 0 {
		h.Head -= did.Up.MM()
		strays = append(strays, survey.Stray{Of: survey.OfHead, Sigma: trade.HungPin})
	}
	for _, p := range did.Planed {
		edge := map[frame.Side]struct {
			of   survey.Strays
			list *[]frame.Along
			by   float64
		}{
			frame.Hinge: {survey.OfLockEdge, &h.Hollow, -1}, frame.Lock: {survey.OfLockEdge, &h.Lock, 1},
			frame.Head: {survey.OfTop, &h.Top, 1}, frame.Foot: {survey.OfFoot, &h.Foot, 1},
		}[p.Side]
		*edge.list = shaved(*edge.list, reachOf(*h, p.Side), p.Off, edge.by)
		if p.Deeper { // the slab follows its hinges
			length := reachOf(*h, p.Side)
			for end, pin := range h.Pins {
				up := pin - h.Rise
				h.Margin[end] -= frame.OffAt(spread(p.Off, length), up)
				strays = append(strays, survey.Stray{
					Of: survey.OfPins, From: h.Pins[1-end], To: pin, Sigma: trade.Repacked, Taper: true,
				})
			}
		}
		s := survey.Stray{Of: edge.of, To: reachOf(*h, p.Side)}
		switch {
		case p.Off[0] == 0 && p.Off[2] == 0:
			continue
		case p.Off[0] == 0:
			s.Taper = true
		case p.Off[2] == 0:
			s.Taper, s.From, s.To = true, s.To, 0
		}
		if p.Side != frame.Hinge {
			strays = append(strays, s)
		}
		off = off || p.Side != frame.Lock || max(p.Off[0], p.Off[1], p.Off[2]) > trade.MostHanging
	}
	if off { // it was taken down and hung again
		strays = append(strays, survey.Stray{Of: survey.OfPins, From: h.Pins[1], To: h.Pins[0], Sigma: trade.Rehung})
	}
	return strays
}

func reachOf(h survey.Hang, side frame.Side) float64 {
	if side.Upright() {
		return h.Foot[0].Off
	}
	return h.Lock[len(h.Lock)-1].Off
}

// spread is what was planed off an edge, along its reach.
func spread(off [3]measure.Length, reach float64) []frame.Along {
	return []frame.Along{{At: 0, Off: off[0].MM()}, {At: reach / 2, Off: off[1].MM()}, {At: reach, Off: off[2].MM()}}
}

// shaved is an edge at the places of before and at its ends and middle, less what was planed off.
func shaved(edge []frame.Along, reach float64, off [3]measure.Length, by float64) []frame.Along {
	cut := spread(off, reach)
	const places = 9
	out := make([]frame.Along, places)
	for i := range out {
		at := reach * float64(i) / (places - 1)
		out[i] = frame.Along{At: at, Off: frame.OffAt(edge, at) - by*frame.OffAt(cut, at)}
	}
	return out
}
