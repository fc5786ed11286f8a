// Package readings is the stage in which the opening is measured: its shape by the readings, which of them the others
// contradict, and which to take next.
package readings

import (
	"math"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// The assumed size of an opening before anything is read, in mm.
const (
	usualWidth  = 800.0
	usualHeight = 2020.0
)

// Read estimates the opening from its readings, and reports contradictions. made is the clear size of a frame that is
// made to the slab; nil for none.
func Read(d site.Opening, made *site.Clear) (s site.Survey, list []Clash, said site.Findings) {
	s, said = readShape(d, made)
	list = clashes(d, s)
	for _, c := range list {
		said = append(said, c.Finding)
	}
	said.Add(unread(s))
	said.Add(sizesOnly(d, s))
	said.Add(hands(d))
	return s, list, said
}

// readShape estimates the shape from the valid readings.
func readShape(d site.Opening, made *site.Clear) (s site.Survey, said site.Findings) {
	var widths, heights []float64
	s.Readings = make([]survey.Reading, 0, len(d.Readings))
	for i, r := range d.Readings {
		if err := r.Check(); err != nil {
			said.Say(site.Stop, job.StepMeasure, site.ReadingAt(i, "value"), site.Impossible, message.Args{
				"problem": message.Problem(err),
			})
			continue
		}
		if r.Struck != "" {
			continue
		}
		switch r.Kind {
		case survey.Width:
			widths = append(widths, r.Value.MM())
		case survey.Height:
			heights = append(heights, r.Value.MM())
		}
		if r.PlusMinus == 0 && ticked(d, r) {
			r.PlusMinus = trade.TickSure
		}
		s.Readings = append(s.Readings, r)
	}
	s.Offers = d.Offered()
	w, h := offered(s.Offers, s.Readings)
	widths, heights = append(widths, w...), append(heights, h...)
	s.Widths, s.Heights = len(widths), len(heights)
	s.Width, s.Height = usualWidth, usualHeight
	if l := d.Slab; l.Width > 0 && l.Length > 0 {
		s.Width, s.Height = l.Width.MM(), l.Length.MM()
	}
	if made != nil { // its boards are as good as a reading each way
		s.Width, s.Height = made.Width.Value.MM(), made.Height.Value.MM()
		s.Widths, s.Heights = s.Widths+1, s.Heights+1
	}
	if len(widths) > 0 {
		s.Width = median(widths)
	}
	if len(heights) > 0 {
		s.Height = median(heights)
	}
	var more site.Findings
	s.Inside, more = inside(d, s)
	said.Add(more)
	s.Usual = priorOf(d, s, made)
	shape, err := survey.Learn(s.Inside, s.Offers, s.Usual)
	if err != nil { // cannot be: every reading was checked and the prior is ours
		said.Say(site.Stop, job.StepMeasure, "/readings", site.NotCombined, message.Args{
			"problem": message.Problem(err),
		})
		shape, _ = survey.Estimate(nil, nil, s.Usual)
	}
	s.Shape = shape
	s.Reads = slabReads(shape)
	s.Could = candidates(d, s)
	return s, said
}

// ticked reports whether a gap is a pencil's mark: of the slab that is cut where it covers the opening somewhere, so that
// it was stood against it.
func ticked(d site.Opening, r survey.Reading) bool {
	if r.Kind != survey.Gap {
		return false
	}
	for _, f := range d.Offers {
		if f.ID == r.Offer && d.CutsOffered(f) {
			return slices.ContainsFunc(d.Readings, func(x survey.Reading) bool {
				return x.Kind == survey.Gap && x.Offer == f.ID && x.Struck == "" && x.Value < 0
			})
		}
	}
	return false
}

// inside are the readings within an opening of the assumed size.
func inside(d site.Opening, s site.Survey) (list []survey.Reading, said site.Findings) {
	list = make([]survey.Reading, 0, len(s.Readings))
	for _, r := range s.Readings {
		if within(r, s.Width, s.Height) {
			list = append(list, r)
			continue
		}
		i := slices.IndexFunc(d.Readings, func(x survey.Reading) bool { return x.ID == r.ID })
		said.Say(site.Stop, job.StepMeasure, site.ReadingAt(i, "at"), site.Outside, message.Args{
			"reading": r, "width": measure.FromMM(s.Width), "height": measure.FromMM(s.Height),
		})
	}
	return list, said
}

// priorOf is the prior of an opening; made is the clear size of its frame, or nil.
func priorOf(d site.Opening, s site.Survey, made *site.Clear) survey.Prior {
	prior := survey.OldOpening(s.Width, s.Height)
	if d.Walls == job.New {
		prior = survey.NewFrame(s.Width, s.Height)
	}
	if made != nil {
		prior = survey.MadeFrame(made.Width.Value.MM(), made.Height.Value.MM())
		if c := d.Framed(); !c.Kept() { // its floor was read for it
			prior.FloorRise = c.AtLock().MM() / made.Width.Value.MM()
		}
	}
	if d.Rules == site.Rules1 {
		prior = prior.Version1()
	}
	prior.Tape, prior.Kit = d.Tape.Step().MM(), d.Kit.Tools
	prior.OwnEdges = d.OwnEdges()
	return prior
}

// leastRead is the least error of a tape that is taken off a slab's own size, in mm; an unproved tape counts as true.
const leastRead = 0.05

// slabReads is by how much the slab's width and length are overread, in mm.
func slabReads(s *survey.Shape) (reads [2]float64) {
	p := s.Prior()
	for i, kind := range [2]survey.Kind{survey.Width, survey.Height} {
		if t, ok := p.SlabTerm(kind); ok {
			if by := s.Means([]survey.Row{{t}})[0]; math.Abs(by) >= leastRead {
				reads[i] = by
			}
		}
	}
	return reads
}

// unread reports what the answer lacks, once something was read; before that the first reading is offered.
func unread(s site.Survey) (said site.Findings) {
	if len(s.Readings) == 0 {
		return nil
	}
	if s.Widths == 0 {
		said.Say(site.Note, job.StepMeasure, "", site.NoWidth, nil)
	}
	if s.Heights == 0 {
		said.Say(site.Note, job.StepMeasure, "", site.NoHeight, nil)
	}
	return said
}

func median(v []float64) float64 {
	slices.Sort(v)
	return v[len(v)/2]
}

// offered is the size by slabs that were offered up, in mm: gaps at both edges are a width, gaps at head and foot a
// height.
func offered(offers []survey.Offer, readings []survey.Reading) (widths, heights []float64) {
	for _, f := range offers {
		var gap frame.Each[float64]
		var seen frame.Each[bool]
		for _, r := range readings {
			if r.Kind == survey.Gap && r.Offer == f.ID {
				gap[r.Side], seen[r.Side] = r.Value.MM(), true
			}
		}
		if seen[frame.Hinge] && seen[frame.Lock] {
			widths = append(widths, f.Width.MM()+gap[frame.Hinge]+gap[frame.Lock])
		}
		if seen[frame.Head] && seen[frame.Foot] {
			heights = append(heights, f.Length.MM()+gap[frame.Head]+gap[frame.Foot])
		}
	}
	return widths, heights
}

// beyond is the tolerance of a reading's place outside the opening's size, in mm: that size is rough.
const beyond = 30

// within reports whether a reading is inside an opening of a size, in mm.
func within(r survey.Reading, width, height float64) bool {
	across, up := r.Reach()
	return across.MM() <= width+beyond && up.MM() <= height+beyond
}

// severalRead is the number of readings from which no level, square or straightedge is expected any more.
const severalRead = 5

// sizesOnly explains a wide ± where no reading tells how plumb or straight a side is.
func sizesOnly(d site.Opening, s site.Survey) (said site.Findings) {
	if d.Rules == site.Rules1 || d.Walls == job.New || d.Framed() != nil || len(s.Inside) < severalRead {
		return nil
	}
	code := site.SizesOnly
	for _, r := range s.Inside {
		switch r.Kind {
		case survey.Plumb, survey.Level, survey.Square, survey.Straight:
			return nil
		case survey.Gap:
			code = site.GapsOnly
		}
	}
	said.Say(site.Note, job.StepMeasure, "/readings", code, nil)
	return said
}
