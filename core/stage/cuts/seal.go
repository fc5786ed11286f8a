package cuts

import (
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// seals adds the slot of a drop seal to the foot, and reports a gap that it does not close, and a rail too narrow for
// it.
func seals(d site.Opening, b site.Bay, o fit.Outline, sheet *List) (said site.Findings) {
	drop := d.Margins.Seal
	if drop == 0 {
		return nil
	}
	foot := &sheet.Edges[frame.Foot]
	foot.Says = append(foot.Says, message.Message{ID: "cut.seal", Args: message.Args{
		"wide": message.Exact(trade.SealWide), "deep": message.Exact(trade.SealDeep),
	}})
	var widest float64
	for _, g := range o.Edges[frame.Foot].Gaps {
		widest = max(widest, g.Mean)
	}
	if gap := measure.FromMM(widest); gap > drop {
		said.Say(site.Care, job.StepMargins, "/margins/seal", site.SealShort, message.Args{
			"drop": message.Exact(drop), "gap": gap,
		})
	}
	kind, _ := trade.ConstructionByID(b.Slab.Construction)
	if left := kind.Rail - foot.Deepest(); kind.Rail > 0 && left < trade.SealDeep+trade.SealWood {
		said.Say(site.Care, job.StepCut, "/margins/seal", site.SealRail, message.Args{
			"left": max(left, 0), "wanted": message.Exact(trade.SealDeep + trade.SealWood),
		})
	}
	return said
}
