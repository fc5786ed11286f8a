package plan

import (
	"math"
	"slices"
	"strconv"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/core/try"
)

// Try is a leaf from its first cut on: what it was made, and what was found each time that
// it hung.
type Try struct {
	Cut     bool      // the cut was recorded
	Planned *job.Made // as its marks cut it, to be recorded; nil while it is not laid
	Sizes   *MadeSizes
	Hangs   []Hung // one by one
	// What follows is of the slab as it hangs now, and empty while it does not.
	Wanted  frame.Each[figure.Figure]
	Margins frame.Each[[]try.Margin] // along each side, as all that was read says
	Ends    frame.Each[[2]float64]   // how unsure the straight line through each side's is at its ends, mm
	Was     frame.Each[[]try.Margin] // as was foretold before its gaps were read
	ToRead  []Suggestion
	Ways    []TryWay
	After   []string // once the margins are in: flush with the jamb, then the latch, each with what it costs
	Fits    bool     // every margin is in
	Names   []string // of its hinges
}

// MadeSizes are those of a slab after its cut, to check it by.
type MadeSizes struct {
	Width  [3]measure.Length // head, middle, foot
	Length [2]measure.Length // hinge edge, lock edge
}

// Hung is one hang with its gaps.
type Hung struct {
	job.Hang
	DidSays []string // what was done before it, in words
	Gaps    []FoundGap
}

// FoundGap is a gap as it was read, beside what was foretold there.
type FoundGap struct {
	survey.Reading
	Name     string
	Foretold figure.Figure // with what a packer is unsure by
	Off      bool          // found further off than 19 times in 20
	Clash    bool          // the others contradict it
}

// TryWay is a way to bring every margin in, in words.
type TryWay struct {
	try.Way
	Did   job.Did
	Does  []string // what is done, in its order
	Out   []string // what stays out
	Costs string
}

// triedOf is what was recorded of a leaf; Made is nil where it was not cut yet.
func (d door) triedOf(leaf int) (t job.Tried) {
	if leaf < len(d.Tried) {
		t = d.Tried[leaf]
	}
	return t
}

// tried works out a leaf's tries; planned are all leaves as their marks cut them. It is nil
// while there is nothing to record and nothing was recorded.
func tried(d door, s surveyed, b bay, l Leaf, leaf int, planned []*job.Made) (*Try, findings) {
	var said findings
	v := Try{Planned: planned[leaf], Wanted: l.Wanted}
	t := d.triedOf(leaf)
	if t.Made == nil {
		if v.Planned == nil {
			return nil, nil
		}
		v.Sizes = sizesOf(*v.Planned)
		return &v, nil
	}
	m := *t.Made
	v.Cut = true
	v.Sizes = sizesOf(m)
	for i := range m.Hinges {
		v.Names = append(v.Names, hingeNames[len(m.Hinges)][i])
	}
	if len(t.Hangs) == 0 {
		return &v, nil
	}
	at := "/tried/" + strconv.Itoa(leaf)
	if m.Hand != handOf(d, b) {
		said.say(Stop, job.StepTry, at+"/made", TurnedOver, Args{"was": string(m.Hand), "is": string(handOf(d, b))})
		return &v, said
	}
	h := hangOf(d, s, b, leaf, planned, at)
	if h == nil { // the other leaf is neither cut nor laid
		return &v, nil
	}
	v.Hangs = h.hangs
	said.add(h.said)
	if h.beside != nil { // what is read is the whole light between the leaves
		v.Wanted[frame.Lock] = figure.Sum(0, figure.Term{Label: "margin between the leaves", Value: d.Pair.Meeting, Source: figure.Choice})
	}
	v.Was = h.was
	v.Margins, v.Ends = h.margins(h.now, len(h.prior.Hangs)-1)
	h.ends = v.Ends
	k := len(t.Hangs) - 1
	last := t.Hangs[k]
	if len(last.Gaps) > 0 {
		hung := h.task(d, b, v.Wanted, v.Margins, last)
		v.Fits = hung.Fits()
		v.ToRead = h.next(d, hung)
		if !v.Fits {
			for _, w := range hung.Ways() {
				v.Ways = append(v.Ways, h.way(d, w, v.Names))
			}
		}
		if last.Revisit != "" {
			said.add(sinceLeft(at, v))
		}
		said.add(seen(d, at, hung, v))
	} else {
		v.ToRead = h.next(d, h.task(d, b, v.Wanted, v.Margins, last))
	}
	said.add(sights(d, at, last, v.Names))
	v.After = after(d, l, v.Names)
	return &v, said
}

func sizesOf(m job.Made) *MadeSizes {
	var s MadeSizes
	s.Width, s.Length = Sizes(m)
	return &s
}

// hanging is a leaf's hangs as they are worked out.
type tries struct {
	at     string
	tried  job.Tried
	bay    bay
	survey surveyed
	prior  survey.Prior
	now    *survey.Shape // with all gaps
	before *survey.Shape // with those before the last hang
	hangs  []Hung
	was    frame.Each[[]try.Margin]
	ends   frame.Each[[2]float64] // how unsure each side's line is
	pins   []float64              // heights of the hinges' middles up the slab, mm
	said   findings
	// Of a pair: the other leaf as it hangs, and its errors.
	beside *survey.Hang
	known  []survey.Stray
}

// gapsOf are the gaps of some hangs that were not struck out.
func gapsOf(hangs []job.Hang) (list []survey.Reading) {
	for _, h := range hangs {
		for _, g := range h.Gaps {
			if g.Struck == "" {
				list = append(list, g)
			}
		}
	}
	return list
}

// learn is the estimate with the gaps of some hangs.
func (h *tries) learn(prior survey.Prior, hangs []job.Hang, offers []survey.Offer) *survey.Shape {
	read := append(slices.Clone(h.survey.inside), gapsOf(hangs)...)
	shape, err := survey.Learn(read, offers, prior)
	if err != nil { // cannot be: every reading was checked
		shape, _ = survey.Estimate(nil, nil, prior)
	}
	return shape
}

// meets sets the other leaf of a pair beside this one: as it hangs, or as it is to be; ok is
// false where nothing is known of it.
func (h *tries) meets(d door, leaf int, planned []*job.Made) (ok bool) {
	other := d.triedOf(1 - leaf)
	if other.Made == nil {
		other = job.Tried{Made: planned[1-leaf]}
	}
	if other.Made == nil {
		return false
	}
	if len(other.Hangs) == 0 {
		other.Hangs = []job.Hang{{}}
	}
	hangs, strays := hungOf(d, baysOf(d)[1-leaf], other, h.survey.width, h.survey.height, nil, nil, nil)
	h.beside, h.known = &hangs[len(hangs)-1], strays
	return true
}

func hangOf(d door, s surveyed, b bay, leaf int, planned []*job.Made, at string) *tries {
	t := d.triedOf(leaf)
	h := &tries{at: at, tried: t, bay: b, survey: s, prior: s.usual}
	if b.meets && !h.meets(d, leaf, planned) {
		return nil
	}
	h.prior.Hangs, h.prior.Strays = hungOf(d, b, t, s.width, s.height, h.beside, h.known, nil)
	last := len(t.Hangs) - 1
	h.before = s.shape.Hung(h.prior.Hangs, h.prior.Strays)
	if len(gapsOf(t.Hangs[:last])) > 0 {
		h.before = h.learn(h.prior, t.Hangs[:last], d.Offers)
	}
	h.now = h.before
	if len(t.Hangs[last].Gaps) > 0 {
		h.now = h.learn(h.prior, t.Hangs, d.Offers)
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

// find lists the gaps of a hang; those of the last one are held against what was foretold.
func (h *tries) find(d door, k int, hang job.Hang) Hung {
	names := hingeNames[len(h.tried.Made.Hinges)]
	found := Hung{Hang: hang, DidSays: didSays(d, hang.Did, names), Gaps: make([]FoundGap, len(hang.Gaps))}
	rows, constants := make([]survey.Row, len(hang.Gaps)), make([]float64, len(hang.Gaps))
	for i, g := range hang.Gaps {
		found.Gaps[i] = FoundGap{Reading: g, Name: g.Title(d.unit)}
		rows[i], constants[i] = h.prior.Gap(h.prior.Hangs[k], g.Side, g.At.MM())
	}
	if k < len(h.tried.Hangs)-1 || len(rows) == 0 {
		return found
	}
	mean, cov := h.before.Joint(rows)
	for i, g := range hang.Gaps {
		f := &found.Gaps[i]
		sigma := math.Hypot(math.Sqrt(max(cov.At(i, i), 0)), d.kit.Tools.Sigma(g))
		f.Foretold = figure.Figure{Value: d.est(mean[i] + constants[i]), Sigma: sigma}
		value := g.Value.MM()
		if s, ok := trade.SightByID(g.Sight); ok {
			value = s.Gap.MM()
		}
		f.Off = g.Struck == "" && math.Abs(value-mean[i]-constants[i]) > figure.Coverage*sigma
	}
	return found
}

// doubt says which gaps no rigid door could show beside the others, which reading of the
// opening they speak against, and which assumption of the last hang broke.
func (h *tries) doubt(d door, at string) {
	k := len(h.tried.Hangs) - 1
	last := &h.hangs[k]
	if len(last.Gaps) == 0 {
		return
	}
	for _, x := range h.now.Suspects() {
		i := slices.IndexFunc(last.Gaps, func(g FoundGap) bool { return g.ID == x.Reading.ID && g.Offer == x.Reading.Offer })
		switch {
		case i >= 0:
			g := &last.Gaps[i]
			g.Clash = true
			h.said.say(Care, job.StepTry, at+"/hangs/"+strconv.Itoa(k)+"/gaps/"+strconv.Itoa(i)+"/value", GapContradicted, Args{
				"reading": g.Reading, "value": Finely(g.Value), "about": Finely(measure.FromMM(max(x.Predicted, 0))),
			})
		case x.Reading.Offer == "":
			h.said.say(Note, job.StepTry, "", ReadingGapsDoubt, Args{"reading": x.Reading, "value": Exact(x.Reading.Value), "about": measure.FromMM(x.Predicted)})
		}
	}
	off := slices.ContainsFunc(last.Gaps, func(g FoundGap) bool { return g.Off })
	if off && k > 0 && last.Revisit == "" {
		h.said.add(broke(d, h, h.now))
	}
}

// slip is how far an assumption is let go, in mm, to see whether the gaps speak against it.
const slip = 2.0

// broke says which assumption of the last hang its gaps speak against most: a hinge that is not
// home, a cut off its line. Each is let go by itself, and what the gaps then make of it is
// held against how unsure that is.
func broke(d door, h *tries, shape *survey.Shape) (said findings) {
	k := len(h.tried.Hangs) - 1
	base, did := shape.Prior(), h.tried.Hangs[k].Did
	var worst survey.Stray
	by, deviates := 0.0, float64(figure.Coverage)
	for _, s := range h.doubts(did) {
		p := base
		p.Strays = append(slices.Clone(base.Strays), s)
		p.Hangs = slices.Clone(base.Hangs)
		last := &p.Hangs[k]
		last.Strays = append(slices.Clone(last.Strays), len(base.Strays))
		freed, err := survey.Estimate(append(slices.Clone(h.survey.inside), gapsOf(h.tried.Hangs)...), d.Offers, p)
		if err != nil {
			continue
		}
		mean, sigma := freed.Of(p.StrayAt(len(base.Strays), s.To))
		if z := math.Abs(mean) / sigma; z > deviates {
			worst, by, deviates = s, mean, z
		}
	}
	if by == 0 {
		said.say(Note, job.StepTry, "", ForetoldMissed, nil)
		return said
	}
	long := Finely(measure.FromMM(math.Abs(by)))
	switch worst.Of {
	case survey.OfPins:
		names := hingeNames[len(h.tried.Made.Hinges)]
		name := names[0]
		if worst.To < worst.From {
			name = names[len(names)-1]
		}
		said.say(Care, job.StepTry, "", HingeNotHome, Args{"name": name, "by": long, "way": either(by, "further out", "further in")})
	case survey.OfHead:
		said.say(Care, job.StepTry, "", HangsOff, Args{"by": long, "way": either(by, "lower", "higher")})
	default:
		side := map[survey.Strays]frame.Side{survey.OfLockEdge: frame.Lock, survey.OfTop: frame.Head, survey.OfFoot: frame.Foot}[worst.Of]
		end := 0
		if worst.To > worst.From {
			end = 2
		}
		said.say(Care, job.StepTry, "", CutOffLine, Args{"edge": Edge(side), "by": long, "way": either(by, "proud of", "inside"), "end": ends[side][end]})
	}
	return said
}

// doubts are the assumptions that the last hang rests on beside those of the one before: its
// hinges, and what was planed.
func (h *tries) doubts(did *job.Did) (list []survey.Stray) {
	last := h.prior.Hangs[len(h.prior.Hangs)-1]
	ends := func(of survey.Strays, from, to float64) {
		list = append(list, survey.Stray{Of: of, From: from, To: to, Sigma: slip, Taper: true}, survey.Stray{Of: of, From: to, To: from, Sigma: slip, Taper: true})
	}
	ends(survey.OfPins, last.Pins[1], last.Pins[0])
	list = append(list, survey.Stray{Of: survey.OfHead, Sigma: slip})
	if did == nil {
		return list
	}
	for _, p := range did.Planed {
		of, known := map[frame.Side]survey.Strays{frame.Lock: survey.OfLockEdge, frame.Head: survey.OfTop, frame.Foot: survey.OfFoot}[p.Side]
		if known {
			ends(of, 0, edgeReach(*h.tried.Made, p.Side))
		}
	}
	return list
}

// Stations of a hung slab's margins along its long edges and its ends.
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

// margins are those of hang k as a shape says, and how unsure the straight line through each
// side's is at its ends.
func (h *tries) margins(shape *survey.Shape, k int) (m frame.Each[[]try.Margin], ends frame.Each[[2]float64]) {
	rows, constants, at := h.rows(shape.Prior(), k)
	mean, cov := shape.Joint(rows)
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
			m[side] = append(m[side], try.Margin{At: place, Mean: mean[i] + constants[i], Sigma: math.Sqrt(max(cov.At(i, i), 0))})
			i++
		}
	}
	return m, ends
}

// lineEnd are the weights of n even stations in the end (0 or 1) of the straight line that
// keeps nearest to all of them: for a bow, half the sagitta off the chord (fit.Trip).
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

// sureOf is how many deviations inside what fits a margin is to be, before nothing is done.
const sureOf = 0.7

// task is what core/try works from.
func (h *tries) task(d door, b bay, wanted frame.Each[figure.Figure], m frame.Each[[]try.Margin], last job.Hang) *try.Hung {
	out := make([]float64, len(h.pins))
	for i := range out {
		out[i] = h.tried.Out(len(h.tried.Hangs)-1, i).MM()
	}
	t := &try.Hung{
		Margins: m, Ends: h.ends, Least: d.Margins.Least.MM(), Within: d.kit.FitsWithin().MM(), Again: trade.AgainMinutes, Sure: sureOf, Pins: h.pins, Out: out,
		Step: trade.PackStep(d.unit).MM(), Cut: fit.Common.Cut, Risk: try.Usual, Trip: d.kit.TripMinutes(), With: meansOf(last.With),
	}
	for _, side := range frame.Sides {
		t.Wanted[side] = wanted[side].Value.MM()
		t.Fixed[side] = b.slab.IsMachined(side)
	}
	kind, _ := trade.ConstructionByID(b.slab.Construction)
	t.Bent[frame.Lock] = last.Revisit != "" && kind.Framed
	return t
}

// meansOf are what alone may be done; anything, where nothing was said.
func meansOf(list []string) try.Means {
	if len(list) == 0 {
		return try.Anything
	}
	var m try.Means
	for _, id := range list {
		for _, k := range TryMeans {
			if k.ID == id {
				m |= k.Means
			}
		}
	}
	return m
}

// TryMeans are what may be done to a slab that hangs.
var TryMeans = []struct {
	try.Means
	ID, Name string
}{
	{try.Hinge(0), "hinge-0", "top hinge packed or let in"},
	{try.Hinge(1), "hinge-1", "second hinge packed or let in"},
	{try.Hinge(2), "hinge-2", "third hinge packed or let in"},
	{try.Hinge(3), "hinge-3", "fourth hinge packed or let in"},
	{try.AllUp, "all-up", "all hinges up or down"},
	{try.PlaneHead, "plane-head", "head planed"},
	{try.PlaneLock, "plane-lock", "lock edge planed"},
	{try.PlaneFoot, "plane-foot", "foot planed"},
}

// placesHung are the places where a packer is slid in beside a hung slab: each side's ends,
// middle and quarters, a hand's breadth in from the corners.
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
			list = append(list, survey.Reading{Kind: survey.Gap, Side: side, Offer: id, At: (reach * p / 16).Round(step, measure.Nearest)})
		}
	}
	return list
}

// mostDoubt is the chance, in all, that a margin is out though it seems in, or the other way
// round, at which nobody reads on: a packer slid in takes a fifth of a minute, and what is
// done for nothing eight.
const mostDoubt = 0.05

// next lists the gaps that are worth reading, those first that tell most of the margins in
// doubt, until hardly any is. Two on each side are asked for in any case.
func (h *tries) next(d door, t *try.Hung) (list []Suggestion) {
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
		return slices.ContainsFunc(hang.Gaps, func(g survey.Reading) bool { return g.Side == side && g.At == at && g.Struck == "" })
	}
	candidates := slices.DeleteFunc(placesHung(*h.tried.Made, hang.ID, d.unit), func(r survey.Reading) bool { return read(r.Side, r.At) })
	q := h.now.Search(wanted, candidates)
	n := len(wanted)
	// That a margin is out though it seems in, or the other way round.
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
	for len(list) < mostOffered {
		now := q.Now()
		sure := doubt(now) < mostDoubt
		best, most := -1, 0.0
		for c, r := range q.Candidates {
			taken := slices.ContainsFunc(list, func(s Suggestion) bool { return s.Reading == r })
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
		list = append(list, d.suggestion(q.Candidates[best], tellsMargins, false))
		q.Take(best)
	}
	return list
}

// unread reports whether nothing was read of a side yet.
func (h *tries) unread(hang job.Hang, side frame.Side, offered []Suggestion) bool {
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
