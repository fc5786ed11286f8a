// Package hangs is the stage in which a cut slab is hung and tried: as it was made, how it hangs by its gaps, which
// assumption they contradict, which gap to read next, and what to do.
package hangs

import (
	"math"
	"slices"
	"strconv"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/core/try"
)

// Try is the record of a leaf from its first cut on, worked out: what it was made, and what was found at each hang.
type Try struct {
	Cut     bool      // the cut was recorded
	Planned *job.Made // as its marks cut it, to be recorded; nil while it is not laid
	Sizes   *MadeSizes
	Hangs   []Hung // one by one
	// What follows is of the slab as it hangs now, and empty while it does not.
	Wanted  frame.Each[figure.Figure]
	Margins frame.Each[[]try.Margin] // along each side, as all that was read says
	Ends    frame.Each[[2]float64]   // how unsure the straight line through each side's is at its ends, mm
	Was     frame.Each[[]try.Margin] // as was predicted before its gaps were read
	ToRead  []site.Suggestion
	Ways    []TryWay
	After   []message.Message // once the margins are in: flush with the jamb, then the latch, each with what it costs
	Fits    bool              // every margin is in
	Least   measure.Length    // margin
	Chance  float64           // probability that every margin is in as it hangs
	Look    bool              // the light is looked along first
	Slide   bool              // a packer of the least margin is slid all round first
	AsIs    float64           // minutes that it still takes as it hangs, by the price of what may be out
	Near    message.Sentences // it does not fit, and no work is worth its minutes
	Names   []message.ID      // of its hinges
}

// MadeSizes are those of a slab after its cut, to check it by.
type MadeSizes struct {
	Width  [3]measure.Length // head, middle, foot
	Length [2]measure.Length // hinge edge, lock edge
}

// Hung is one hang with its gaps.
type Hung struct {
	job.Hang
	DidSays []message.Message // what was done before it
	Gaps    []FoundGap
}

// FoundGap is a gap as it was read, with its prediction.
type FoundGap struct {
	survey.Reading
	Foretold figure.Figure // with what a packer is unsure by
	Off      bool          // found further off than 19 times in 20
	Clash    bool          // the others contradict it
}

// TryWay is a way to bring every margin in.
type TryWay struct {
	try.Way
	Did   job.Did
	Does  []message.Message // what is done, in its order
	Out   []message.Message // what stays out
	Costs message.Message
}

// Recorded is what was recorded of a leaf; its Made is nil while the leaf is not cut.
func Recorded(d site.Opening, leaf int) (t job.Tried) {
	if leaf < len(d.Tried) {
		t = d.Tried[leaf]
	}
	return t
}

// Input is the input of one leaf's hangs.
type Input struct {
	Opening site.Opening
	Survey  site.Survey
	Bays    []site.Bay
	Leaf    int         // of the bays
	Planned []*job.Made // all leaves as their marks cut them; nil for one that is not laid
	Wanted  frame.Each[figure.Figure]
	Stops   *lock.StopPlan // nil while they are not placed
	Bored   *try.Bored     // of the slab as its marks cut it; nil where no lock is bored before it is tried
	Since   *season.Since  // what the season did since the door was fitted; nil where nothing says
}

// Of works out a leaf's hangs; nil while the leaf cannot be recorded and nothing was.
func Of(in Input) (*Try, site.Findings) {
	d, b, leaf, planned := in.Opening, in.Bays[in.Leaf], in.Leaf, in.Planned
	var said site.Findings
	v := Try{Planned: planned[leaf], Wanted: in.Wanted, Least: d.Margins.Least}
	t := Recorded(d, leaf)
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
		v.Names = append(v.Names, hinge.Names(len(m.Hinges))[i])
	}
	if len(t.Hangs) == 0 {
		return &v, nil
	}
	at := "/tried/" + strconv.Itoa(leaf)
	if m.Hand != d.HandOf(b) {
		said.Say(site.Stop, job.StepTry, at+"/made", site.TurnedOver, message.Args{"was": m.Hand, "is": d.HandOf(b)})
		return &v, said
	}
	h := hangOf(in, at)
	if h == nil { // the other leaf is neither cut nor laid
		return &v, nil
	}
	v.Hangs = h.hangs
	said.Add(h.said)
	if h.model.beside != nil { // what is read is the whole light between the leaves
		v.Wanted[frame.Lock] = figure.Sum(0, figure.Term{
			Label: "term.between-leaves", Value: d.Pair.Meeting, Source: figure.Choice,
		})
	}
	if in.Since != nil { // it is judged against what that day should show
		v.Wanted[frame.Lock] = figure.Sum(v.Wanted[frame.Lock].Sigma, append(slices.Clone(
			v.Wanted[frame.Lock].Terms,
		), figure.Term{
			Label: "term.season-closed", Value: -d.Estimate(in.Since.Closed), Source: figure.Estimate,
			Sigma: trade.MoveUnsure * math.Abs(in.Since.Closed),
		})...)
	}
	v.Was = h.was
	v.Margins, v.Ends = h.margins(h.now, len(h.prior.Hangs)-1)
	h.ends = v.Ends
	k := len(t.Hangs) - 1
	last := t.Hangs[k]
	hung := h.task(d, b, v.Wanted, v.Margins, last)
	v.ToRead = h.next(d, hung)
	if len(last.Gaps) > 0 {
		hung.Bored = h.bored(in, t)
		v.decide(h, d, hung, last)
		if last.Revisit != "" {
			said.Add(sinceLeft(at, v))
			said.Add(sinceForetold(at, in.Since, v))
		}
		said.Add(seen(d, at, hung, v))
	}
	said.Add(sights(d, at, last, v.Names))
	said.Add(tight(d, at, v))
	v.After = after(d, in.Stops, v.Names)
	return &v, said
}

// decide says what is done next to a slab whose gaps were read: the light looked along, a packer slid round it, the
// ways, or nothing more.
func (v *Try) decide(h *tries, d site.Opening, hung *try.Hung, last job.Hang) {
	v.Look = d.Rules >= site.Rules6 && len(v.ToRead) == 0 && last.Revisit == "" && !last.Outside &&
		!slices.ContainsFunc(h.tried.Hangs, func(k job.Hang) bool { return k.Looked })
	fits, slides := hung.Fits(), false
	if d.Rules >= site.Rules5 && last.Revisit == "" {
		var passing bool // the packer is all that it waits for
		slides, passing = hung.Slide()
		fits = fits || passing
	}
	v.Slide = slides && !v.Look
	v.Fits = fits && !slides && !v.Look
	v.Chance = hung.Chance()
	if fits {
		return
	}
	ways := hung.Ways()
	for _, w := range ways {
		v.Ways = append(v.Ways, h.way(d, w, v.Names))
	}
	if v.AsIs = hung.AsIs(); len(v.ToRead) == 0 && !v.Slide && !v.Look && hung.Near(ways) {
		now := hung.Now()
		now.In = v.Chance
		v.Near = nearest(d, now, v.Ways)
	}
}

// Slides asks for a packer to be slid all round: a card more than the least margin, so that what passes is not under
// it.
func (v *Try) Slides() message.Message {
	return message.With("slide.round", "least", message.Fine(v.Least))
}

func sizesOf(m job.Made) *MadeSizes {
	var s MadeSizes
	s.Width, s.Length = Sizes(m)
	return &s
}

// task is what core/try works from.
func (h *tries) task(
	d site.Opening, b site.Bay, wanted frame.Each[figure.Figure], m frame.Each[[]try.Margin], last job.Hang,
) *try.Hung {
	out := make([]float64, len(h.pins))
	for i := range out {
		out[i] = h.tried.Out(len(h.tried.Hangs)-1, i).MM()
	}
	t := &try.Hung{
		Margins: m, Ends: h.ends, Least: d.Margins.Least.MM(), Within: d.Kit.FitsWithin().MM(),
		Pins: h.pins, Out: out, Step: trade.PackStep(d.Unit).MM(), Cut: fit.Common.Cut, Trip: d.Kit.TripMinutes(),
		With: meansOf(last.With), Slid: last.Slid, Outside: last.Outside,
		Bound: boundStill(d, last) || last.Outside, // of a slab that does not go in, nothing passes
	}
	for _, side := range frame.Sides {
		t.Wanted[side] = wanted[side].Value.MM()
		// A rated one has only its certificate's; that of a set stays as it came.
		t.Fixed[side] = b.Slab.IsMachined(side) || b.Slab.Most(side) == 0 || d.Set() != nil
	}
	kind, _ := trade.ConstructionByID(b.Slab.Construction)
	t.Bent[frame.Lock] = last.Revisit != "" && kind.Framed
	return t
}

// boundStill reports whether the gap is still there that was read where a packer bound; by rules 5 it was as any other.
func boundStill(d site.Opening, h job.Hang) bool {
	return h.Bound && (d.Rules < site.Rules6 || slices.ContainsFunc(h.Gaps, func(g survey.Reading) bool {
		return g.Local && g.Struck == ""
	}))
}

// bored is a lock that was bored before its edge was down, as the slab hangs now: less than its marks left on, where it
// was cut closer or planed since.
func (h *tries) bored(in Input, t job.Tried) *try.Bored {
	if in.Bored == nil {
		return nil
	}
	b, reach := *in.Bored, edgeReach(*t.Made, frame.Hinge)
	wide := func(m job.Made) float64 { return frame.OffAt(along(m.Lock, edgeReach(m, frame.Hinge)), b.At) }
	if planned := in.Planned[in.Leaf]; planned != nil {
		b.Left += wide(*t.Made) - wide(*planned)
	}
	for _, k := range t.Hangs {
		if k.Did == nil {
			continue
		}
		for _, p := range k.Did.Planed {
			if p.Side == frame.Lock {
				b.Left -= frame.OffAt(spread(p.Off, reach), b.At)
			}
		}
	}
	return &b
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
	ID string
}{
	{try.Hinge(0), "hinge-0"},
	{try.Hinge(1), "hinge-1"},
	{try.Hinge(2), "hinge-2"},
	{try.Hinge(3), "hinge-3"},
	{try.AllUp, "all-up"},
	{try.PlaneHead, "plane-head"},
	{try.PlaneLock, "plane-lock"},
	{try.PlaneFoot, "plane-foot"},
	{try.PlaneHinge, "plane-hinge"},
}
