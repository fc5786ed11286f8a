package plan

import (
	"math"
	"slices"
	"strconv"
	"strings"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/stage/hangs"
)

// Work is a piece of work at a leaf, and the figures that it is done by. A ticked one opens again when they change, so
// IDs and figures are kept with an opening and must stay as they are.
type Work struct {
	ID string // "saw-head", "head" and the other edges, "check", "slab-pockets", "jamb-pockets", "screws", "hang", "hardware-1", …
	By string // in mm, or a short print of them
}

// Works are the pieces of work at a leaf, in the order in which they are done. size is the ID of its hinges.
func (l Leaf) Works(size string) (list []Work) {
	put := func(id, by string) { list = append(list, Work{id, by}) }
	if c := l.Cut; c != nil {
		for e := range c.InOrder() {
			var off []figure.Figure
			for _, m := range e.Marks {
				off = append(off, m.Depth)
			}
			if e.Sawing != nil {
				put("saw-"+e.Side.String(), inMM(e.Sawing.Figures()...))
			}
			put(e.Side.String(), inMM(off...))
		}
		put("check", inMM(append(c.Width[:], c.Length[:]...)...))
		for _, in := range c.Inserts {
			put("insert-"+in.End.String(), printOf([]float64{in.Width.MM(), in.Thickness.MM(), in.Deep.MM()}))
		}
	}
	if h := l.Hanging; h != nil && len(l.Hinges) > 0 {
		var slab, jamb []figure.Figure
		for _, k := range l.Hinges {
			slab, jamb = append(slab, k.Slab), append(jamb, k.Jamb, k.Pack)
		}
		put("slab-pockets", inMM(append(slab, l.Gauges.Depth, l.Gauges.Width)...))
		put("jamb-pockets", inMM(append(jamb, l.Gauges.Depth, l.Gauges.Width)...))
		put("screws", strconv.Itoa(len(l.Hinges))+" "+size)
		put("hang", inMM(h.Head[0], h.Head[1], h.Shut, h.Open))
	}
	for _, d := range l.Hardware {
		id := "hardware-1"
		if d.Second {
			id = "hardware-2"
		}
		var at []float64
		for _, h := range d.Holes {
			at = append(at, h.Down.Value.MM(), h.In.Value.MM())
		}
		put(id, printOf(at))
	}
	strike := figure.Figure{}
	if l.Latch != nil {
		strike = l.Latch.Jamb
	}
	put("strike", inMM(strike))
	if l.Stops != nil {
		put("stops", inMM(l.Stops.From))
	}
	if l.Try != nil && len(l.Try.Ways) > 0 {
		way := min(l.Try.Hangs[len(l.Try.Hangs)-1].Way, len(l.Try.Ways)-1)
		put("try", printOf(tenths(l.Try.Ways[way])))
	}
	return list
}

// inMM joins figures in mm with blanks.
func inMM(list ...figure.Figure) string {
	out := make([]string, len(list))
	for i, f := range list {
		out[i] = strconv.FormatFloat(f.Value.MM(), 'f', -1, 64)
	}
	return strings.Join(out, " ")
}

// tenths are the margins that a way leaves, at three places of each side, in tenths of a mm.
func tenths(w hangs.TryWay) (list []float64) {
	for _, side := range frame.Sides {
		m := w.Margins[side]
		for where := range min(len(m), 3) {
			mean := measure.FromMM(math.Round(m[where*(len(m)-1)/2].Mean*100) / 100)
			list = append(list, math.Floor(mean.MM()*10+0.5))
		}
	}
	return list
}

// printOf is a hash of figures that are too many to be kept one by one.
func printOf(list []float64) string {
	h := 7
	for v := range slices.Values(list) {
		h = (h*31 + int(math.Floor(v*100+0.5))) % 1_000_003
	}
	return strconv.Itoa(h)
}
