package plan

import (
	"kindmargin/core/frame"
	"kindmargin/core/job"
)

// hands says where what is known of the opening contradicts the side that the hinges are
// said to be on: an old strike beside the hinges, old pockets across from them.
func hands(d door) (said findings) {
	args := Args{"hand": d.Hand}
	if d.Seen.Strike == d.Hand {
		said.say(Stop, job.StepMeasure, "/hand", StrikeAtHinges, args)
	}
	if d.Seen.Pockets != "" && d.Seen.Pockets != d.Hand {
		said.say(Stop, job.StepMeasure, "/hand", PocketsAcross, Args{"hand": d.Hand, "pockets": d.Seen.Pockets})
	}
	return said
}

// turned says where a slab was made for the other hand, or lies the wrong way round.
func turned(d door, b bay) (said findings) {
	s, hand := b.slab, handOf(d, b)
	if s.Made != "" && s.Made != hand {
		said.say(Stop, job.StepSlab, b.at+"/made", MadeForOtherHand, Args{"made": s.Made, "hand": hand})
	}
	switch blockBehind := s.Block == frame.Hinge; {
	case blockBehind && s.TopDown:
		said.say(Stop, job.StepSlab, b.at+"/block", TurnEndForEnd, nil)
	case blockBehind:
		said.say(Stop, job.StepSlab, b.at+"/block", BlockAtHinges, nil)
	case s.TopDown:
		said.say(Stop, job.StepSlab, b.at+"/topDown", TopIsDown, nil)
	}
	return said
}
