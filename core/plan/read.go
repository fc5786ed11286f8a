package plan

import (
	"math"
	"slices"
	"strconv"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
)

// surveyed is what the readings say of an opening.
type surveyed struct {
	shape           *survey.Shape
	readings        []survey.Reading // those that can be and were not struck out
	inside          []survey.Reading // those of them that lie in the opening
	usual           survey.Prior     // before anything was learnt
	widths, heights int              // how often each was read
	width, height   float64          // about, mm
	could           []survey.Reading // that could be read next
	reads           [2]float64       // by how much too much a slab's width and length are read, mm
}

// answers reports whether there are readings enough for any answer.
func (s surveyed) answers() bool { return s.widths > 0 && s.heights > 0 }

// The size that an opening is taken for before anything is known of it, in mm.
const (
	usualWidth  = 800.0
	usualHeight = 2020.0
)

// readShape estimates the shape from the readings that can be.
func readShape(d door) (s surveyed, said findings) {
	var widths, heights []float64
	s.readings = make([]survey.Reading, 0, len(d.Readings))
	for i, r := range d.Readings {
		if err := r.Check(); err != nil {
			said.say(Stop, job.StepMeasure, pointerTo(i, "value"), Impossible, Args{"problem": problemOf(err)})
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
		s.readings = append(s.readings, r)
	}
	w, h := offered(d.Offers, s.readings)
	widths, heights = append(widths, w...), append(heights, h...)
	s.widths, s.heights = len(widths), len(heights)
	s.width, s.height = usualWidth, usualHeight
	if l := d.Slab; l.Width > 0 && l.Length > 0 {
		s.width, s.height = l.Width.MM(), l.Length.MM()
	}
	made := clearOf(d)
	if made != nil { // its boards are as good as a reading each way
		s.width, s.height = made.Width.Value.MM(), made.Height.Value.MM()
		s.widths, s.heights = s.widths+1, s.heights+1
	}
	if len(widths) > 0 {
		s.width = median(widths)
	}
	if len(heights) > 0 {
		s.height = median(heights)
	}
	said = append(said, s.keepInside(d)...)
	s.usual = priorOf(d, s, made)
	shape, err := survey.Learn(s.inside, d.Offers, s.usual)
	if err != nil { // cannot be: every reading was checked and the prior is ours
		said.say(Stop, job.StepMeasure, "/readings", NotCombined, Args{"problem": problemOf(err)})
		shape, _ = survey.Estimate(nil, nil, s.usual)
	}
	s.shape = shape
	s.reads = slabReads(shape)
	s.could = candidates(d, s)
	return s, said
}

// keepInside keeps the readings that lie in an opening of the size that it is taken for.
func (s *surveyed) keepInside(d door) (said findings) {
	s.inside = make([]survey.Reading, 0, len(s.readings))
	for _, r := range s.readings {
		if within(r, s.width, s.height) {
			s.inside = append(s.inside, r)
			continue
		}
		i := slices.IndexFunc(d.Readings, func(x survey.Reading) bool { return x.ID == r.ID })
		said.say(Stop, job.StepMeasure, pointerTo(i, "at"), Outside, Args{
			"reading": r, "width": measure.FromMM(s.width), "height": measure.FromMM(s.height),
		})
	}
	return said
}

// priorOf is what is believed of an opening before it is read; made is the size that its frame was made to, or
// nil.
func priorOf(d door, s surveyed, made *cleared) survey.Prior {
	prior := survey.OldOpening(s.width, s.height)
	if d.Walls == job.New {
		prior = survey.NewFrame(s.width, s.height)
	}
	if made != nil {
		prior = survey.MadeFrame(made.Width.Value.MM(), made.Height.Value.MM())
		if c := d.Framed(); !c.Kept() { // its floor was read for it
			prior.FloorRise = c.AtLock().MM() / made.Width.Value.MM()
		}
	}
	if d.rules == rules1 {
		prior = prior.Version1()
	}
	prior.Tape, prior.Kit = d.tape.Step().MM(), d.kit.Tools
	return prior
}

// leastRead is the least error of a tape that is taken off a slab's own size, mm: one that was never proved is
// as good as true.
const leastRead = 0.05

// slabReads is by how much too much the slab's width and length are read, mm.
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

func pointerTo(reading int, field string) string {
	return "/readings/" + strconv.Itoa(reading) + "/" + field
}

// unread says what an answer lacks, once something was read: before that nothing is
// wrong, and the first reading asks for itself.
func unread(s surveyed) (said findings) {
	if len(s.readings) == 0 {
		return nil
	}
	if s.widths == 0 {
		said.say(Note, job.StepMeasure, "", NoWidth, nil)
	}
	if s.heights == 0 {
		said.say(Note, job.StepMeasure, "", NoHeight, nil)
	}
	return said
}

func median(v []float64) float64 {
	slices.Sort(v)
	return v[len(v)/2]
}

// offered is what slabs offered up tell of the size, in mm: gaps at both edges
// are a width, gaps at head and foot a height.
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

// beyond is how far outside an opening's size a reading may lie, in mm: that size
// is rough.
const beyond = 30

// within reports whether a reading was taken inside an opening of a size, in mm.
func within(r survey.Reading, width, height float64) bool {
	across, up := r.Reach()
	return across.MM() <= width+beyond && up.MM() <= height+beyond
}

// severalRead is how many readings tell that somebody goes on without a level, a square or a straightedge.
const severalRead = 5

// sizesOnly says why ± is wide where nothing tells how plumb or straight a side is.
func sizesOnly(d door, s surveyed) (said findings) {
	if d.rules == rules1 || d.Walls == job.New || d.Framed() != nil || len(s.inside) < severalRead {
		return nil
	}
	code := SizesOnly
	for _, r := range s.inside {
		switch r.Kind {
		case survey.Plumb, survey.Level, survey.Square, survey.Straight:
			return nil
		case survey.Gap:
			code = GapsOnly
		}
	}
	said.say(Note, job.StepMeasure, "/readings", code, nil)
	return said
}
