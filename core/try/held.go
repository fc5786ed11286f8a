package try

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/trade"
)

// Bored is a lock that was bored before its edge was down.
type Bored struct {
	At   float64 // its height up the slab, mm
	Left float64 // what must still come off the lock edge there, for its backset to be right, mm
}

// boredWithin is how far from right a backset may be, in mm. Common practice: a latch and its handles take that up.
const boredWithin = 0.5

// Down reports whether the lock edge is down as far as a lock that was bored wants it.
func (h *Hung) Down() bool { return h.Bored == nil || h.Bored.Left <= boredWithin }

// narrowed is a slab whose hinge edge is planed until its lock margin is in, with the recesses let in by as much; ok is
// false where the lock edge may be planed instead, or nothing has to come off.
func (s *search) narrowed(t tally, unsure float64) (_ tally, ok bool) {
	if s.With&PlaneHinge == 0 || s.Fixed[frame.Hinge] || s.Bored == nil && !s.Fixed[frame.Lock] {
		return t, false
	}
	j, m := &s.sides[frame.Lock], s.Margins[frame.Lock]
	shift := s.shifts(frame.Lock, t.pins, t.up)
	by := s.bored([3]float64{})
	off := s.plane(frame.Lock, j, [2]float64{shift[0] + by[0], shift[1] + by[2]}, unsure)
	off[1] = (off[0] + off[2]) / 2
	if max(off[0], off[2]) < trade.LeastPlaned.MM() {
		return t, false
	}
	t.hinge, t.trips, t.uses = off, 1, t.uses|PlaneHinge
	for end, pin := range [2]float64{s.Pins[0], s.Pins[len(s.Pins)-1]} {
		t.pins[end] -= off[0] + (off[2]-off[0])*(pin-m[0].At)/j.length
	}
	t.minutes += trade.PlaneMinutes + wood(frame.Hinge, off, j.length) + trade.LetInMinutes*float64(len(s.Pins))
	return t, true
}

// bored is what may come off the lock edge instead of off: where a lock was bored in it, just what its backset wants.
func (s *search) bored(off [3]float64) [3]float64 {
	if s.Bored == nil {
		return off
	}
	m := s.Margins[frame.Lock]
	f := (s.Bored.At - m[0].At) / (m[len(m)-1].At - m[0].At)
	lack := s.Bored.Left - offAt(off, f)
	if math.Abs(lack) <= boredWithin && s.Bored.Left > boredWithin {
		return off
	}
	if s.Bored.Left <= boredWithin { // it is down already
		return [3]float64{}
	}
	for i := range off {
		off[i] = s.Bored.Left
	}
	return off
}
