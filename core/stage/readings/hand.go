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
	old := d.Seen != (job.Seen{}) || d.Hinges.From == hinge.FromPockets || d.Lock.From == lock.FromStrike
	if old && d.Walls == job.Old && len(d.Readings) == 0 { // later it is too late
		said.Say(site.Note, job.StepMeasure, "/hinges/pockets", site.PaintFirst, nil)
	}
	if d.Hinges.From == hinge.FromPockets && len(d.Hinges.Pockets) == 0 {
		said.Say(site.Note, job.StepHinges, "/hinges/pockets", site.PaintFirst, nil)
	}
	return said
}
