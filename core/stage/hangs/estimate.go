package hangs

import (
	"cmp"
	"math"
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/core/try"
)

// tries are a leaf's hangs as they are worked out.
type tries struct {
	tried  job.Tried
	model  model
	survey site.Survey
	prior  survey.Prior
	now    *survey.Shape // with all gaps
	before *survey.Shape // with those before the last hang
	hangs  []Hung
	was    frame.Each[[]try.Margin]
	ends   frame.Each[[2]float64] // how unsure each side's line is
	pins   []float64              // heights of the hinges' middles up the slab, mm
	said   site.Findings
}

// gapsOf are the gaps of some hangs that were not struck out.
func gapsOf(hangs []job.Hang) (list []survey.Reading) {
	for _, h := range hangs {
		for _, g := range h.Gaps {
			if g.Struck == "" {
				list = append(list, readIn(h, g))
			}
		}
	}
	return list
}

// readIn is a gap with its accuracy in a hang: of a slab that does not go in, a tick's.
func readIn(h job.Hang, g survey.Reading) survey.Reading {
	if h.Outside && g.PlusMinus == 0 {
		g.PlusMinus = trade.TickSure
	}
	return g
}

// learn is the estimate with the gaps of some hangs.
func (h *tries) learn(prior survey.Prior, hangs []job.Hang, offers []survey.Offer) *survey.Shape {
	read := append(slices.Clone(h.survey.Inside), gapsOf(hangs)...)
	shape, err := survey.Learn(read, offers, prior)
	if err != nil { // cannot be: every reading was checked
		shape, _ = survey.Estimate(nil, nil, prior)
	}
	return shape
}

// meets sets the other leaf of a pair beside this one, as it hangs or will; ok is false where nothing is known of it.
func (h *tries) meets(in Input) (ok bool) {
	other := Recorded(in.Opening, 1-in.Leaf)
	if other.Made == nil {
		other = job.Tried{Made: in.Planned[1-in.Leaf]}
	}
	if other.Made == nil {
		return false
	}
	if len(other.Hangs) == 0 {
		other.Hangs = []job.Hang{{}}
	}
	of := h.model
	of.bay = in.Bays[1-in.Leaf]
	hangs, strays := of.hangs(other, nil)
	h.model.beside, h.model.known = &hangs[len(hangs)-1], strays
	return true
}

// hangOf works out a leaf's hangs; nil for a leaf of a pair whose other is not laid yet.
func hangOf(in Input, at string) *tries {
	d, s, b := in.Opening, in.Survey, in.Bays[in.Leaf]
	t := Recorded(d, in.Leaf)
	h := &tries{tried: t, survey: s, prior: s.Usual, model: model{Opening: d, bay: b, width: s.Width, height: s.Height}}
	if b.Meets && !h.meets(in) {
		return nil
	}
	h.prior.Hangs, h.prior.Strays = h.model.hangs(t, nil)
	last := len(t.Hangs) - 1
	h.before = s.Shape.Hung(h.prior.Hangs, h.prior.Strays)
	if len(gapsOf(t.Hangs[:last])) > 0 {
		h.before = h.learn(h.prior, t.Hangs[:last], s.Offers)
	}
	h.now = h.before
	if len(t.Hangs[last].Gaps) > 0 {
		h.now = h.learn(h.prior, t.Hangs, s.Offers)
	}
	h.was, _ = h.margins(h.before, last)
	for k, hang := range t.Hangs {
		h.hangs = append(h.hangs, h.find(d, k, hang))
	}
	h.doubt(d, at)
	long := edgeReach(*t.Made, frame.Hinge)
	for _, k := range t.Made.Hinges {
		h.pins = append(h.pins, long-k.Down.MM()-d.Hinges.Leaf.MM()/2)
	}
	return h
}

// find lists the gaps of a hang; those of the last one are compared with their prediction.
func (h *tries) find(d site.Opening, k int, hang job.Hang) Hung {
	names := hinge.Names(len(h.tried.Made.Hinges))
	found := Hung{Hang: hang, DidSays: didSays(hang.Did, names), Gaps: make([]FoundGap, len(hang.Gaps))}
	rows, constants := make([]survey.Row, len(hang.Gaps)), make([]float64, len(hang.Gaps))
	for i, g := range hang.Gaps {
		found.Gaps[i] = FoundGap{Reading: g}
		rows[i], constants[i] = h.prior.Gap(h.prior.Hangs[k], g.Side, g.At.MM())
	}
	if k < len(h.tried.Hangs)-1 || len(rows) == 0 {
		return found
	}
	mean, cov := h.before.Joint(rows)
	for i, g := range hang.Gaps {
		f := &found.Gaps[i]
		sigma := math.Hypot(math.Sqrt(max(cov.At(i, i), 0)), d.Kit.Tools.Sigma(readIn(hang, g)))
		f.Foretold = figure.Figure{Value: d.Estimate(mean[i] + constants[i]), Sigma: sigma}
		value := g.Value.MM()
		if s, ok := trade.SightByID(g.Sight); ok {
			value = s.Gap.MM()
		}
		f.Off = g.Struck == "" && math.Abs(value-mean[i]-constants[i]) > figure.Coverage*sigma
	}
	return found
}

// Numbers of stations of a hung slab's margins, along its long edges and its ends.
const (
	longStations = 7
	endStations  = 5
)

// rows are the margins of hang k at stations of all sides.
func (h *tries) rows(p survey.Prior, k int) (rows []survey.Row, constants []float64, at frame.Each[[]float64]) {
	hang := p.Hangs[k]
	for _, side := range frame.Sides {
		n := endStations
		if side.Upright() {
			n = longStations
		}
		reach := edgeReach(*h.tried.Made, side)
		for i := range n {
			place := reach * float64(i) / float64(n-1)
			row, c := p.Gap(hang, side, place)
			rows, constants = append(rows, row), append(constants, c)
			at[side] = append(at[side], place)
		}
	}
	return rows, constants, at
}

// margins are those of hang k by a shape, also at every lump and hollow, and the sigmas of the straight line through
// each side's at its ends.
func (h *tries) margins(shape *survey.Shape, k int) (m frame.Each[[]try.Margin], ends frame.Each[[2]float64]) {
	p := shape.Prior()
	rows, constants, at := h.rows(p, k)
	even, between := len(rows), lumps(h.tried)
	for _, g := range between {
		row, c := p.Gap(p.Hangs[k], g.Side, g.At.MM())
		rows, constants = append(rows, row), append(constants, c)
	}
	mean, cov := shape.Joint(rows)
	margin := func(i int, place float64) try.Margin {
		return try.Margin{At: place, Mean: mean[i] + constants[i], Sigma: math.Sqrt(max(cov.At(i, i), 0))}
	}
	i := 0
	for _, side := range frame.Sides {
		for end := range ends[side] {
			var v float64
			weights := lineEnd(len(at[side]), end)
			for a, x := range weights {
				for b, y := range weights {
					v += x * y * cov.At(i+a, i+b)
				}
			}
			ends[side][end] = math.Sqrt(max(v, 0))
		}
		for _, place := range at[side] {
			m[side] = append(m[side], margin(i, place))
			i++
		}
		for j, g := range between {
			if g.Side == side {
				k, _ := slices.BinarySearchFunc(m[side], g.At.MM(), func(x try.Margin, at float64) int {
					return cmp.Compare(x.At, at)
				})
				m[side] = slices.Insert(m[side], min(max(k, 1), len(m[side])-1), margin(even+j, g.At.MM()))
			}
		}
	}
	return m, ends
}

// lineEnd are the weights of n even stations in the end (0 or 1) of the straight line nearest to all (minimax): for a
// bow, half the sagitta off the chord (fit.Trip).
func lineEnd(n, end int) []float64 {
	w := make([]float64, n)
	w[n/2] += 0.5
	w[end*(n-1)] += 0.75
	w[(1-end)*(n-1)] -= 0.25
	return w
}

// lineEnds are those ends as figures, of a side's rows.
func lineEnds(rows []survey.Row, end int) (row survey.Row) {
	for i, w := range lineEnd(len(rows), end) {
		if w == 0 {
			continue
		}
		for _, t := range rows[i] {
			t.By *= w
			row = append(row, t)
		}
	}
	return row
}
