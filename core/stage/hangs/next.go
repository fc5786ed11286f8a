package hangs

import (
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

// placesHung are the places of a packer beside a hung slab: each side's ends, middle and quarters, a hand's breadth in
// from the corners.
func placesHung(made job.Made, id string, u measure.Unit) (list []survey.Reading) {
	step := 50 * measure.Millimetre
	if u == measure.Inches {
		step = 2 * measure.Inch
	}
	for _, side := range []frame.Side{frame.Head, frame.Lock, frame.Hinge, frame.Foot} {
		parts := []measure.Length{1, 8, 15}
		if side.Upright() {
			parts = []measure.Length{1, 4, 8, 12, 15}
		}
		reach := measure.FromMM(edgeReach(made, side))
		for _, p := range parts {
			list = append(list, survey.Reading{
				Kind: survey.Gap, Side: side, Offer: id, At: (reach * p / 16).Round(step, measure.Nearest),
			})
		}
	}
	return list
}

// mostDoubt is the total probability that a margin is out though it seems in, or in though it seems out, below which no
// more gaps are read: a packer takes a fifth of a minute, needless work eight.
const mostDoubt = 0.05

// next lists the gaps that are worth reading, the most informative about the doubtful margins first, until mostDoubt is
// reached. Two on each side are asked for in any case.
func (h *tries) next(d site.Opening, t *try.Hung) (list []site.Suggestion) {
	k := len(h.tried.Hangs) - 1
	hang := h.tried.Hangs[k]
	rows, _, at := h.rows(h.prior, k)
	var wanted []survey.Row
	var mean []float64
	i := 0
	for _, side := range frame.Sides {
		n := len(at[side])
		if side != frame.Hinge {
			wanted = append(wanted, lineEnds(rows[i:i+n], 0), lineEnds(rows[i:i+n], 1))
			off := t.Off(side)
			mean = append(mean, off[0], off[1])
		}
		i += n
	}
	read := func(side frame.Side, at measure.Length) bool {
		return slices.ContainsFunc(hang.Gaps, func(g survey.Reading) bool {
			return g.Side == side && g.At == at && g.Struck == ""
		})
	}
	candidates := slices.DeleteFunc(placesHung(*h.tried.Made, hang.ID, d.Unit), func(r survey.Reading) bool {
		return read(r.Side, r.At)
	})
	q := h.now.Search(wanted, candidates)
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
	for len(list) < site.MostOffered {
		now := q.Now()
		sure := doubt(now) < mostDoubt
		best, most := -1, 0.0
		for c, r := range q.Candidates {
			taken := slices.ContainsFunc(list, func(s site.Suggestion) bool { return s.Reading == r })
			if taken || sure && !h.unread(hang, r.Side, list) {
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
		list = append(list, d.Suggest(q.Candidates[best], tellsMargins, false))
		q.Take(best)
	}
	return list
}

// unread reports whether fewer than two gaps of a side were read or are offered: a straight edge's two ends need two.
// The hinge side's follow from the hinges and the lock side's.
func (h *tries) unread(hang job.Hang, side frame.Side, offered []site.Suggestion) bool {
	if side == frame.Hinge {
		return false
	}
	count := 0
	for _, g := range hang.Gaps {
		if g.Side == side && g.Struck == "" {
			count++
		}
	}
	for _, s := range offered {
		if s.Reading.Side == side {
			count++
		}
	}
	return count < 2
}

// tellsMargins is the reason of a gap that is worth reading.
var tellsMargins = message.Sentences{{ID: "brings.margins"}}
