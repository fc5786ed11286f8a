package readings

import (
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/site"
)

// hands reports evidence against the side that the hinges are said to be on: an old strike beside the hinges, old
// recesses opposite them.
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
	return said
}
