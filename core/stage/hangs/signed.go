package hangs

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/try"
)

// tight reports, where a slab that does not fit was called done, the margins that were left under the least: its sign-off
// asks for care.
func tight(d site.Opening, at string, v Try) (said site.Findings) {
	if !v.Done() || v.Fits {
		return nil
	}
	for _, side := range frame.Sides {
		worst := try.Margin{Mean: math.Inf(1)}
		for _, m := range v.Margins[side] {
			if m.Mean < worst.Mean {
				worst = m
			}
		}
		if gap := measure.FromMM(worst.Mean).Round(d.Tape.Step(), measure.Nearest); worst.Mean < math.Inf(1) && gap < d.Margins.Least {
			said.Say(site.Care, job.StepLog, at, site.LeftUnderLeast, message.Args{
				"side": message.Margin(side), "gap": gap, "least": d.Margins.Least,
			})
		}
	}
	return said
}

// cause is the probable cause of a finding about a side, whose tightest place is at so many mm. A lump is pared off a
// frame, but off no floor, nor off the other leaf of a pair.
func (t *Try) cause(d site.Opening, code site.Code, side frame.Side, at float64) message.ID {
	where := side.String()
	framed := side != frame.Foot && (side != frame.Lock || d.Pair == nil)
	if code == site.MarginMiddle && framed && t.lumpAt(side, at) {
		where = "lump"
	}
	return message.ID("cause." + string(code) + "." + where)
}

// lumpAt reports whether a lump or a hollow was read at a place of a side, in mm.
func (t *Try) lumpAt(side frame.Side, at float64) bool {
	for _, h := range t.Hangs {
		for _, g := range h.Gaps {
			if g.Local && g.Struck == "" && g.Side == side && g.At.MM() == at {
				return true
			}
		}
	}
	return false
}

// near is how far from a place, as a share of its side, a gap tells of it.
const near = 0.25

// Read reports whether a gap of the last hang was read near a place of a side: 0 its foot or hinge corner, 1 its middle,
// 2 its head or lock corner. What was not is known from the rest alone.
func (t *Try) Read(side frame.Side, place int) bool {
	m := t.Margins[side]
	if len(m) < 2 || len(t.Hangs) == 0 {
		return false
	}
	from, to := m[0].At, m[len(m)-1].At
	for _, g := range t.Hangs[len(t.Hangs)-1].Gaps {
		if g.Side == side && g.Struck == "" && math.Abs((g.At.MM()-from)/(to-from)-float64(place)/2) <= near {
			return true
		}
	}
	return false
}
