package readings

import (
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/message"
	"kindmargin/core/site"
)

// hands reports evidence against the side that the hinges are said to be on: an old strike beside the hinges, old
// recesses opposite them. What is there already is cleared of paint before it is read.
func hands(d site.Opening) (said site.Findings) {
	args := message.Args{"hand": d.Hand}
	if d.Seen.Strike == d.Hand {
		said.Say(site.Stop, job.StepMeasure, "/hand", site.StrikeAtHinges, args)
	}
	if d.Seen.Pockets != "" && d.Seen.Pockets != d.Hand {
		said.Say(site.Stop, job.StepMeasure, "/hand", site.PocketsAcross, message.Args{
			"hand": d.Hand, "pockets": d.Seen.Pockets,
		})
	}
	if old := d.Hinges.From == hinge.FromPockets || d.Lock.From == lock.FromStrike; old && d.Walls == job.Old && len(d.Tried) == 0 {
		said.Say(site.Note, job.StepMeasure, "/hinges/pockets", site.PaintFirst, nil)
	}
	return said
}
