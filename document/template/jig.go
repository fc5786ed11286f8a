package template

import (
	"slices"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
)

// Sizes of a printed jig, in mm.
const (
	jigWall   = 8.0  // of plate and fence: it stands on the plate, and wants no supports
	jigPilot  = 8.0  // a seat for a guide bush, 8 outside and 3 inside
	jigRelief = 2.0  // in the inner corner, for paint on the arris
	jigRound  = 18.0 // past the outermost hole
)

// MakeSolid makes a body for a 3-D printer, for one leaf of an opening: the boring jig of its hardware, or the recess
// template of its hinge. It fails with a field.Error for what cannot be made.
func MakeSolid(id string, j job.Job, o job.Opening, leaf int, r lock.Router) (*Solid, error) {
	switch id {
	case "hinge":
		return pocketBody(o, r)
	case "lock":
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
	thick := o.Slab.Thickness
	if leaf == 1 {
		thick = o.Pair.Slab.Thickness
	}
	return boringJig(p.Leaves[leaf].Hardware[0].Work, p.Leaves[leaf].Latch.Slab.Value.MM(), thick.MM())
}

// boringJig is an angle: a fence on the slab's edge with the latch bore's pilot, a plate on
// its face with a pilot for each hole, at every backset that the hardware is made in, and a
// window on the latch line. x runs in from the edge, y down, z up from the face; the slab's
// edge is the fence's inner face.
func boringJig(w lock.Work, line, thick float64) (*Solid, error) {
	type pilot struct{ x, y float64 }
	var pilots []pilot
	deep, up, down := 30.0, 15.0, 15.0
	put := func(x, y float64) {
		near := func(p pilot) bool {
			return max(p.x-x, x-p.x) < jigPilot+2*boreWall && max(p.y-y, y-p.y) < jigPilot+2*boreWall
		}
		if !slices.ContainsFunc(pilots, near) {
			pilots = append(pilots, pilot{x, y})
			deep, up, down = max(deep, x), max(up, -y), max(down, y)
		}
	}
	for _, h := range w.Holes {
		if h.From == trade.FromPush {
			continue
		}
		y := h.Down.Value.MM() - line
		put(h.In.Value.MM(), y)
		for _, b := range w.Hardware.Backsets {
			if h.Off == 0 {
				put(b.MM(), y)
			}
		}
	}
	if len(pilots) == 0 {
		return nil, field.Fault("/template", "refused.no-face-holes", message.Args{"hardware": w.Hardware.Title()})
	}
	deep, up, down = deep+jigRound, up+jigRound, down+jigRound
	plate := Block{[3]float64{-jigWall, -up, 0}, [3]float64{deep, down, jigWall}}
	fence := Block{[3]float64{-jigWall, -up, -thick}, [3]float64{0, down, jigWall}}
	relief := Block{[3]float64{0, -up, 0}, [3]float64{jigRelief, down, jigRelief}}
	less := []Block{relief}
	var bores []Bore
	for _, p := range pilots {
		bores = append(bores, Bore{2, [3]float64{p.x, p.y, 0}, jigPilot / 2})
	}
	if e := w.Edge; e != nil && e.Long == 0 {
		bores = append(bores, Bore{0, [3]float64{0, e.Down.Value.MM() - line, -thick / 2}, jigPilot / 2})
	}
	// A window on the latch line at the plate's far end.
	half := jigPilot/2 + boreWall // as wide as a bore's own cell, so that its planes cut none
	less = append(less, Block{[3]float64{deep - 10, -half, 0}, [3]float64{deep - 3, half, jigWall}})
	s, ok := NewSolid([]Block{plate, fence}, less, bores)
	if !ok {
		return nil, field.Fault("/template", "refused.jig-holes-near", message.Args{"hardware": w.Hardware.Title()})
	}
	return s, nil
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
	body := Block{[3]float64{0, 0, 0}, [3]float64{w + cheek, h + 2*cheek, jigWall}}
	fence := Block{[3]float64{-jigWall, 0, -20}, [3]float64{0, h + 2*cheek, jigWall}}
	open := Block{[3]float64{-jigWall, cheek, 0}, [3]float64{w, cheek + h, jigWall}}
	s, _ := NewSolid([]Block{body, fence}, []Block{open}, nil)
	return s, nil
}
