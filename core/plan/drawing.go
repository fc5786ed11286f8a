package plan

import (
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// Drawing is the geometry of a leaf's daylight drawing, in mm in the hung frame.
type Drawing struct {
	Width, Height float64               // of the slab, greatest
	Corners       [4]fit.Corner         // finished slab: top hinge, top lock, foot lock, foot hinge
	Gaps          frame.Each[[]fit.Gap] // along each side
	// of the hinge edge, beside each gap: how much deeper than straight; nil where it is straight
	Hollow        []float64
	HingeTops     []float64 // y of each leaf's top
	Leaf          float64   // length of a hinge leaf
	Latch         float64   // y, 0 where unknown
	Wanted        frame.Each[float64]
	Least, Uneven float64
}

// Place is where a reading was taken, in mm in the elevation frame.
type Place struct {
	ID     string // empty for one that is still to be taken
	Kind   survey.Kind
	Side   frame.Side
	At     float64
	From   float64
	To     float64
	Clash  bool
	Wanted bool // not read yet: the next to take
}

// draw collects a leaf's geometry.
func draw(d site.Opening, o fit.Outline, l Leaf) Drawing {
	size := o.Size()
	v := Drawing{
		Width: size.Width, Height: size.Length, Corners: o.Corners(), Hollow: o.Edges[frame.Hinge].Hollowed(),
		Leaf:  d.Hinges.Leaf.MM(),
		Least: d.Margins.Least.MM(), Uneven: d.Margins.Uneven.MM(),
	}
	for _, side := range frame.Sides {
		v.Gaps[side] = o.Edges[side].Gaps
		v.Wanted[side] = l.Wanted[side].Value.MM()
	}
	for _, h := range l.Hinges {
		v.HingeTops = append(v.HingeTops, size.TopHinge-h.Slab.Value.MM())
	}
	if l.Latch != nil {
		v.Latch = size.TopLock - l.Latch.Slab.Value.MM()
	}
	return v
}

// places are where the readings were taken, and where the next one is.
func places(d site.Opening, said site.Findings, toRead []site.Suggestion) (list []Place) {
	list = make([]Place, 0, len(d.Readings)+1)
	for i, r := range d.Readings {
		if r.Struck != "" {
			continue
		}
		clash := slices.ContainsFunc(said, func(f site.Finding) bool {
			return f.Gravity == site.Stop && (f.Pointer == site.ReadingAt(i, "value") ||
				f.Pointer == site.ReadingAt(i, "at"))
		})
		list = append(list, Place{
			ID: r.ID, Kind: r.Kind, Side: r.Side, At: r.At.MM(), From: r.From.MM(), To: r.To.MM(), Clash: clash,
		})
	}
	if len(toRead) > 0 {
		r := toRead[0].Reading
		list = append(list, Place{
			Kind: r.Kind, Side: r.Side, At: r.At.MM(), From: r.From.MM(), To: r.To.MM(), Wanted: true,
		})
	}
	return list
}
