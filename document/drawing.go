package document

import (
	"kindmargin/core/frame"
	"kindmargin/core/plan"
)

// DrawingView is the daylight drawing of a leaf, in mm in the hung frame: x from the hinge jamb, y up.
type DrawingView struct {
	Width     float64      `json:"width"`
	Height    float64      `json:"height"`
	Corners   [][2]float64 `json:"corners" doc:"Finished slab: top hinge, top lock, foot lock, foot hinge."`
	Light     []LightView  `json:"light"`
	Hollow    []float64    `json:"hollow" doc:"Of the hinge edge, beside each of its gaps: how much deeper than straight it is cut; empty where it is straight."`
	HingeTops []float64    `json:"hingeTops"`
	Leaf      float64      `json:"leaf" doc:"Length of a hinge leaf."`
	Latch     float64      `json:"latch"`
	Least     float64      `json:"least"`
	Uneven    float64      `json:"uneven"`
}

// LightView is the margin along one side.
type LightView struct {
	Side   frame.Side `json:"side"`
	Wanted float64    `json:"wanted"`
	Gaps   []GapView  `json:"gaps"`
}

// GapView is the margin at one place, with its standard deviation.
type GapView struct {
	Along float64 `json:"along"`
	Mean  float64 `json:"mean"`
	Sigma float64 `json:"sigma"`
}

// Draw is a drawing in its JSON form.
func Draw(d plan.Drawing) *DrawingView {
	v := &DrawingView{
		Width: cents(d.Width), Height: cents(d.Height), Hollow: []float64{}, HingeTops: []float64{}, Leaf: d.Leaf,
		Latch: cents(d.Latch),
		Least: d.Least, Uneven: d.Uneven,
	}
	for _, c := range d.Corners {
		v.Corners = append(v.Corners, [2]float64{cents(c.X), cents(c.Y)})
	}
	for _, side := range frame.Sides {
		light := LightView{Side: side, Wanted: d.Wanted[side], Gaps: make([]GapView, len(d.Gaps[side]))}
		for i, g := range d.Gaps[side] {
			light.Gaps[i] = GapView{cents(g.Along), cents(g.Mean), cents(g.Sigma)}
		}
		v.Light = append(v.Light, light)
	}
	for _, by := range d.Hollow {
		v.Hollow = append(v.Hollow, cents(by))
	}
	for _, y := range d.HingeTops {
		v.HingeTops = append(v.HingeTops, cents(y))
	}
	return v
}
