package template

import (
	"math"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/message"
	"kindmargin/core/plan"
)

// pocketWall is the thickness of a printed hinge template, in mm.
const pocketWall = 8.0

// MakeSolid makes a body for a 3-D printer, for one leaf of an opening: the boring block of its hardware, or the recess
// template of its hinge. It fails with a field.Error for what cannot be made.
func MakeSolid(id string, j job.Job, o job.Opening, leaf int, r lock.Router) (*Solid, error) {
	switch id {
	case "hinge":
		return pocketBody(o, r)
	case "block", "lock": // as it was asked for once
	default:
		return nil, field.Fault("/template", "refused.no-body", message.Args{"given": message.Quote(id)})
	}
	p := plan.Solve(j, o)
	if leaf < 0 || leaf >= len(p.Leaves) {
		return nil, noLeaf(len(p.Leaves))
	}
	if len(p.Leaves[leaf].Hardware) == 0 {
		return nil, field.Fault("/template", "refused.nothing-to-jig", nil)
	}
	thick := o.SlabOf(leaf).Thickness.MM()
	return saddle(p.Leaves[leaf].Hardware[0].Work, p.Leaves[leaf].Latch.Slab.Value.MM(), thick)
}

// saddle is the boring block in one piece, as it is printed: a cheek on each face and a wall across the edge, all on
// feet, so that dust falls out. x runs in from the edge, y down from the latch line, z up from the pull face.
func saddle(w lock.Work, line, thick float64) (*Solid, error) {
	if err := faced(w, line, thick); err != nil {
		return nil, err
	}
	up, down, deep := reach(w, line)
	up, down, deep = up+25, down+25, deep+jigWall+jigTail
	block := func(x0, y0, z0, x1, y1, z1 float64) Block {
		return Block{[3]float64{x0, y0, z0}, [3]float64{x1, y1, z1}}
	}
	back, low, high := -jigFoot-edgeGuide, -thick-jigFoot-sheetThick, jigFoot+sheetThick
	add := []Block{
		block(back, -up, jigFoot, deep, down, high),
		block(back, -up, low, deep, down, -thick-jigFoot),
		block(back, -up, low, -jigFoot, down, high),
	}
	for _, y := range []float64{-up, down - 10} { // the feet, at both ends, on both faces and the edge
		add = append(
			add, block(0, y, 0, deep, y+10, jigFoot), block(0, y, -thick-jigFoot, deep, y+10, -thick),
			block(-jigFoot, y, -thick, 0, y+10, 0),
		)
	}
	var bores []Bore
	for _, h := range w.Holes {
		bores = append(bores, Bore{Axis: 2, At: [3]float64{h.In.Value.MM(), h.Down.Value.MM() - line, 0}, Radius: cup(h)})
	}
	if e := w.Edge; e != nil && e.Long == 0 && e.Bit > 0 {
		bores = append(bores, Bore{
			Axis: 0, At: [3]float64{0, e.Down.Value.MM() - line, -thick / 2}, Radius: (e.Bit.MM() + jigPlay) / 2,
		})
	}
	alignCells(bores)
	s, ok := NewSolid(add, nil, bores)
	if !ok {
		return nil, field.Fault("/template", "refused.jig-holes-near", message.Args{"hardware": w.Hardware.Title()})
	}
	return s, nil
}

// edgeGuide is how long the hole is that keeps an edge bit square, in mm.
const edgeGuide = 24.0

// alignCells makes the cells of bores that stand in one line as wide as the widest of them, so that the planes of one
// do not cut another.
func alignCells(bores []Bore) {
	for axis := range 3 {
		for i := range bores {
			for _, o := range bores {
				if o.Axis != axis && bores[i].Axis != axis && math.Abs(o.At[axis]-bores[i].At[axis]) < 1e-6 {
					bores[i].Half[axis] = max(bores[i].Half[axis], o.Radius+boreWall)
				}
			}
		}
	}
}

// pocketBody is a router's template for one hinge leaf: a plate with the recess's opening, open at the pull face, where
// a fence lies on it.
func pocketBody(o job.Opening, r lock.Router) (*Solid, error) {
	c := o.Hinges
	if err := r.Check(min(c.Width, c.Leaf)); err != nil {
		return nil, err
	}
	more := (r.Bush - r.Cutter).MM()
	w, h := c.Width.MM()+more/2, c.Leaf.MM()+more
	body := Block{[3]float64{0, 0, 0}, [3]float64{w + cheek, h + 2*cheek, pocketWall}}
	fence := Block{[3]float64{-pocketWall, 0, -20}, [3]float64{0, h + 2*cheek, pocketWall}}
	open := Block{[3]float64{-pocketWall, cheek, 0}, [3]float64{w, cheek + h, pocketWall}}
	s, _ := NewSolid([]Block{body, fence}, []Block{open}, nil)
	return s, nil
}
