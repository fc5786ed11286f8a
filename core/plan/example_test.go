package plan_test

import (
	"fmt"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
)

// A square opening, 826 by 2032, and a slab of 826 by 2040: cut to the line, 3 mm come off for the lock margin and 3
// for the hinge margin; 2040 less 2032, 3 above and 6 below is 17 off the ends.
func Example() {
	mm := measure.FromMM
	house := job.NewJob("house", "Gull Cottage", measure.Millimetres)
	o := job.NewOpening("study", "Study", measure.Millimetres)
	for _, at := range []float64{200, 1000, 1800} {
		o.Readings = append(o.Readings, survey.Reading{
			ID: fmt.Sprint("w", at), Kind: survey.Width, At: mm(at), Value: mm(826),
		})
	}
	for _, at := range []float64{50, 770} {
		o.Readings = append(o.Readings, survey.Reading{
			ID: fmt.Sprint("h", at), Kind: survey.Height, At: mm(at), Value: mm(2032),
		})
	}
	o.Slab = slab.Slab{Width: mm(826), Length: mm(2040), Thickness: mm(35), Construction: "panelled"}
	o.Cut.LeaveOn = "line"

	leaf := plan.Solve(house, o).Leaves[0]
	off := map[frame.Side]float64{}
	for e := range leaf.Cut.InOrder() {
		off[e.Side] = e.Marks[1].Depth.Value.MM()
	}
	fmt.Printf("off the hinge and the lock edge: %.0f mm\n", off[frame.Hinge]+off[frame.Lock])
	fmt.Printf("off the top and the bottom: %.0f mm\n", off[frame.Head]+off[frame.Foot])
	// Output:
	// off the hinge and the lock edge: 6 mm
	// off the top and the bottom: 17 mm
}
