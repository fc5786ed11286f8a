package job

import (
	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Saw is the saw for deep cuts, and how it is guided. Near and Far are from the guide's edge to either side of the cut,
// as measured after one cut on scrap; their difference is the kerf. Nought is not measured.
type Saw struct {
	Guide string         `json:"guide,omitempty"` // ID of a trade.SawGuide; empty for one made to the saw
	Near  measure.Length `json:"near,omitempty"`  // nought where the guide's edge is the cut
	Far   measure.Length `json:"far,omitempty"`
	Depth measure.Length `json:"depth,omitempty"` // the deepest that it cuts
	Down  bool           `json:"down,omitempty"`  // its teeth cut into the upper face
	// Outside lays the guide on what comes off, where that is wide enough.
	Outside bool `json:"outside,omitempty"`
	// Table is the school that rips long edges on a table saw.
	Table bool `json:"table,omitempty"`
}

// Guided is what the saw runs along.
func (s Saw) Guided() trade.SawGuide {
	g, _ := trade.SawGuideByID(s.Guide)
	return g
}

// Kerf is the width of its cut.
func (s Saw) Kerf() measure.Length {
	if s.Far == 0 {
		return trade.UsualKerf
	}
	return s.Far - s.Near
}

// Sides are the distances from the guide's edge to the near and to the far side of the cut.
func (s Saw) Sides() (near, far measure.Length) { return s.Near, s.Near + s.Kerf() }

// Bounds on a saw: its kerf is from that of a pull saw to that of a wide blade.
const (
	thinnestKerf = measure.Millimetre / 2
	thickestKerf = 6 * measure.Millimetre
	longestSole  = 300 * measure.Millimetre
	deepestSaw   = 150 * measure.Millimetre
)

func (s Saw) check() error {
	var bad field.Errors
	g, ok := trade.SawGuideByID(s.Guide)
	switch {
	case !ok:
		bad.Add("/guide", "refused.no-saw-guide", message.Args{"given": message.Quote(s.Guide)})
	case s.Near < 0 || s.Near > longestSole:
		bad.Add("/near", "refused.saw-offset", message.Args{
			"given": message.Exact(s.Near), "most": message.Exact(longestSole),
		})
	case !g.Offset && s.Near > 0:
		bad.Add("/near", "refused.saw-offset-none", message.Args{"guide": g.Name(), "given": message.Exact(s.Near)})
	case g.Offset && s.Near == 0:
		bad.Add("/near", "refused.saw-offset-wanted", nil)
	case s.Far == 0:
	case s.Kerf() < thinnestKerf || s.Kerf() > thickestKerf:
		bad.Add("/far", "refused.saw-kerf", message.Args{
			"near": message.Exact(s.Near), "far": message.Exact(s.Far), "least": message.Exact(thinnestKerf),
			"most": message.Exact(thickestKerf),
		})
	}
	if s.Depth < 0 || s.Depth > deepestSaw {
		bad.Add("/depth", "refused.saw-depth", message.Args{
			"given": message.Exact(s.Depth), "most": message.Exact(deepestSaw),
		})
	}
	return bad.Err()
}
