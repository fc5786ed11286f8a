// Package slabs is the stage that checks the slab itself: the hand it was made for, which way it lies, and which stock
// size to buy.
package slabs

import (
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/site"
)

// Turned reports a slab that was made for the other hand, or lies the wrong way round.
func Turned(d site.Opening, b site.Bay) (said site.Findings) {
	s, hand := b.Slab, d.HandOf(b)
	if s.Made != "" && s.Made != hand {
		said.Say(site.Stop, job.StepSlab, b.At+"/made", site.MadeForOtherHand, message.Args{
			"made": s.Made, "hand": hand,
		})
	}
	switch blockBehind := s.Block == frame.Hinge; {
	case blockBehind && s.TopDown:
		said.Say(site.Stop, job.StepSlab, b.At+"/block", site.TurnEndForEnd, nil)
	case blockBehind:
		said.Say(site.Stop, job.StepSlab, b.At+"/block", site.BlockAtHinges, nil)
	case s.TopDown:
		said.Say(site.Stop, job.StepSlab, b.At+"/topDown", site.TopIsDown, nil)
	}
	return said
}
