package hangs

import (
	"math"
	"slices"
	"strconv"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// doubt reports gaps that no rigid slab could show beside the others, the reading of the opening that they contradict,
// and the assumption of the last hang that failed.
func (h *tries) doubt(d site.Opening, at string) {
	k := len(h.tried.Hangs) - 1
	last := &h.hangs[k]
	if len(last.Gaps) == 0 {
		return
	}
	for _, x := range h.now.Suspects() {
		i := slices.IndexFunc(last.Gaps, func(g FoundGap) bool {
			return g.ID == x.Reading.ID && g.Offer == x.Reading.Offer
		})
		switch {
		case i >= 0:
			g := &last.Gaps[i]
			g.Clash = true
			h.said.Say(site.Care, job.StepTry, at+"/hangs/"+strconv.Itoa(k)+"/gaps/"+strconv.Itoa(i)+
				"/value", site.GapContradicted, message.Args{
				"reading": g.Reading, "value": message.Fine(g.Value),
				"about": message.Fine(measure.FromMM(max(x.Predicted, 0))),
			})
		case x.Reading.Offer == "":
			h.said.Say(site.Note, job.StepTry, "", site.ReadingGapsDoubt, message.Args{
				"reading": x.Reading, "value": message.Exact(x.Reading.Value), "about": measure.FromMM(x.Predicted),
			})
		}
	}
	off := slices.ContainsFunc(last.Gaps, func(g FoundGap) bool { return g.Off })
	if off && k > 0 && last.Revisit == "" {
		h.said.Add(h.broke(d))
	}
}

// slip is the deviation, in mm, by which an assumption is relaxed to test whether the gaps contradict it.
const slip = 2.0

// broke reports the assumption of the last hang that its gaps contradict most: a hinge that is not home, a cut off its
// line. Each is relaxed by itself, and its estimate by the gaps is compared with its sigma.
func (h *tries) broke(d site.Opening) (said site.Findings) {
	k := len(h.tried.Hangs) - 1
	base, did := h.now.Prior(), h.tried.Hangs[k].Did
	var worst survey.Stray
	by, deviates := 0.0, float64(figure.Coverage)
	for _, s := range h.doubts(did) {
		p := base
		p.Strays = append(slices.Clone(base.Strays), s)
		p.Hangs = slices.Clone(base.Hangs)
		last := &p.Hangs[k]
		last.Strays = append(slices.Clone(last.Strays), len(base.Strays))
		freed, err := survey.Estimate(append(slices.Clone(h.survey.Inside), gapsOf(h.tried.Hangs)...), h.survey.Offers, p)
		if err != nil {
			continue
		}
		mean, sigma := freed.Of(p.StrayAt(len(base.Strays), s.To))
		if z := math.Abs(mean) / sigma; z > deviates {
			worst, by, deviates = s, mean, z
		}
	}
	if by == 0 {
		said.Say(site.Note, job.StepTry, "", site.ForetoldMissed, nil)
		return said
	}
	long := message.Fine(measure.FromMM(math.Abs(by)))
	switch worst.Of {
	case survey.OfPins:
		names := hinge.Names(len(h.tried.Made.Hinges))
		name := names[0]
		if worst.To < worst.From {
			name = names[len(names)-1]
		}
		said.Say(site.Care, job.StepTry, "/tried", site.HingeNotHome, message.Args{
			"name": name, "by": long, "way": message.Way(by, "further-out", "further-in"),
		})
	case survey.OfHead:
		said.Say(site.Care, job.StepTry, "/tried", site.HangsOff, message.Args{
			"by": long, "way": message.Way(by, "lower", "higher"),
		})
	default:
		side := map[survey.Strays]frame.Side{
			survey.OfLockEdge: frame.Lock, survey.OfTop: frame.Head, survey.OfFoot: frame.Foot,
		}[worst.Of]
		end := 0
		if worst.To > worst.From {
			end = 2
		}
		said.Say(site.Care, job.StepTry, "/tried", site.CutOffLine, message.Args{
			"edge": message.Edge(side), "by": long, "way": message.Way(by, "proud-of", "inside"),
			"end": message.End{Side: side, Place: end},
		})
	}
	return said
}

// doubts are the assumptions of the last hang beyond those of the one before: its hinges, and what was planed.
func (h *tries) doubts(did *job.Did) (list []survey.Stray) {
	last := h.prior.Hangs[len(h.prior.Hangs)-1]
	ends := func(of survey.Strays, from, to float64) {
		list = append(list, survey.Stray{Of: of, From: from, To: to, Sigma: slip, Taper: true}, survey.Stray{
			Of: of, From: to, To: from, Sigma: slip, Taper: true,
		})
	}
	ends(survey.OfPins, last.Pins[1], last.Pins[0])
	list = append(list, survey.Stray{Of: survey.OfHead, Sigma: slip})
	if did == nil {
		return list
	}
	for _, p := range did.Planed {
		of, known := map[frame.Side]survey.Strays{
			frame.Lock: survey.OfLockEdge, frame.Head: survey.OfTop, frame.Foot: survey.OfFoot,
		}[p.Side]
		if known {
			ends(of, 0, edgeReach(*h.tried.Made, p.Side))
		}
	}
	return list
}
