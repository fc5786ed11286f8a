package document

import (
	"kindmargin/core/job"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
)

// HingeWays are the hinges that could be used for a leaf of an opening, 0 the one on the hinge jamb: the job's own,
// then those of core/trade.
func HingeWays(j job.Job, o job.Opening, leaf int) []HingeWay {
	p := newPrinter(j)
	list := []HingeWay{}
	for _, w := range plan.HingeWays(j, o, leaf) {
		kind, _ := trade.HingeKindByID(w.Kind)
		v := HingeWay{
			ID: w.ID, Name: p.voice.Say(w.Title()), Own: len(list) < len(j.Kit.Hinges), Kind: p.voice.Text(kind.Name()),
			Goes: p.voice.Text(kind.Goes()), Note: p.voice.Text(kind.Note()),
			Leaf: w.Leaf.MM(), Width: w.Width.MM(), Plate: w.Plate.MM(), Closed: w.Closed.MM(), Pin: w.Pin.MM(),
			Fits: len(w.Against) == 0, Against: []string{}, Flush: p.fine(w.Flush),
		}
		if w.Load > 0 {
			v.Load = p.weight(w.Load)
		}
		for _, f := range w.Against {
			v.Against = append(v.Against, p.voice.Say(f.Message()))
		}
		list = append(list, v)
	}
	return list
}
