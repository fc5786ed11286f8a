package hangs

import (
	"cmp"
	"math"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/try"
)

// placesHung are the places of a packer beside a hung slab: a packer's length in from each corner, the middles, and the
// quarters of the long edges.
func placesHung(made job.Made, id string, u measure.Unit) (list []survey.Reading) {
	step := 50 * measure.Millimetre
	if u == measure.Inches {
		step = 2 * measure.Inch
	}
	for _, side := range []frame.Side{frame.Head, frame.Lock, frame.Hinge, frame.Foot} {
		reach := measure.FromMM(edgeReach(made, side))
		parts := []measure.Length{step, reach / 2, reach - step}
		if side.Upright() {
			parts = []measure.Length{step, reach / 4, reach / 2, reach * 3 / 4, reach - step}
		}
		for _, at := range parts {
			list = append(list, survey.Reading{
				Kind: survey.Gap, Side: side, Offer: id, At: at.Round(step, measure.Nearest),
			})
		}
	}
	return list
}

// mostDoubt is the total probability that a margin is out though it seems in, or in though it seems out, below which no
// more gaps are read at a later hang: a packer takes a fifth of a minute, needless work eight.
const mostDoubt = 0.05

// next lists the gaps to read, all at once, in one walk round the door: at the first hang every place, hinge side too;
// later those that tell most about what is still in doubt, two on each side in any case.
func (h *tries) next(d site.Opening, t *try.Hung) (list []site.Suggestion) {
	k := len(h.tried.Hangs) - 1
	hang := h.tried.Hangs[k]
	places := slices.DeleteFunc(placesHung(*h.tried.Made, hang.ID, d.Unit), func(r survey.Reading) bool {
		return slices.ContainsFunc(hang.Gaps, func(g survey.Reading) bool {
			return g.Side == r.Side && g.At == r.At && g.Struck == ""
		})
	})
	if k > 0 && hang.Revisit == "" {
		places = h.telling(t, hang, places)
	}
	slices.SortStableFunc(places, func(a, b survey.Reading) int { return cmp.Compare(walk(a), walk(b)) })
	for _, r := range places {
		list = append(list, d.Suggest(r, tellsMargins, false))
	}
	return list
}

// walk orders gaps as a hand comes to them: along the head from the hinges, down the lock edge, back along the foot, up
// the hinge edge.
func walk(r survey.Reading) float64 {
	at := r.At.MM() / 1e5 // under one, whatever the door
	switch r.Side {
	case frame.Head:
		return at
	case frame.Lock:
		return 2 - at
	case frame.Foot:
		return 3 - at
	}
	return 4 + at
}

// telling are those of some places at which a gap tells most about the margins that are in doubt, until mostDoubt is
// reached.
func (h *tries) telling(t *try.Hung, hang job.Hang, places []survey.Reading) (list []survey.Reading) {
	rows, _, at := h.rows(h.prior, len(h.tried.Hangs)-1)
	var wanted []survey.Row
	var mean []float64
	i := 0
	for _, side := range frame.Sides {
		n := len(at[side])
		wanted = append(wanted, lineEnds(rows[i:i+n], 0), lineEnds(rows[i:i+n], 1))
		off := t.Off(side)
		mean = append(mean, off[0], off[1])
		i += n
	}
	for i := range places {
		places[i] = readIn(hang, places[i])
	}
	q := h.now.Search(wanted, places)
	n := len(wanted)
	// The probability that a margin is out though it seems in, or the other way round.
	wrong := func(i int, cov []float64) float64 {
		sigma := math.Sqrt(max(cov[i*n+i], 1e-9))
		return math.Erfc(math.Abs(t.Within-math.Abs(mean[i]))/(sigma*math.Sqrt2)) / 2
	}
	doubt := func(cov []float64) (p float64) {
		for i := range n {
			p += wrong(i, cov)
		}
		return p
	}
	weight := func(i int, cov []float64) float64 { return 0.02 + wrong(i, cov) }
	cov := make([]float64, n*n)
	for {
		now := q.Now()
		sure := doubt(now) < mostDoubt
		best, most := -1, 0.0
		for c, r := range q.Candidates {
			if slices.Contains(list, r) || sure && !unread(hang, r.Side, list) {
				continue
			}
			copy(cov, now)
			q.After(cov, c)
			tells := 0.0
			for i := range n {
				tells += weight(i, now) * (now[i*n+i] - cov[i*n+i])
			}
			if tells > most {
				best, most = c, tells
			}
		}
		if best < 0 {
			return list
		}
		list = append(list, q.Candidates[best])
		q.Take(best)
	}
}

// unread reports whether fewer than two gaps of a side were read or are asked for: a straight edge's two ends need two.
func unread(hang job.Hang, side frame.Side, asked []survey.Reading) bool {
	count := 0
	for _, g := range slices.Concat(hang.Gaps, asked) {
		if g.Side == side && g.Struck == "" {
			count++
		}
	}
	return count < 2
}

// tellsMargins is the reason of a gap that is worth reading.
var tellsMargins = message.Sentences{{ID: "brings.margins"}}
