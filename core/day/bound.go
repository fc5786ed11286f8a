package day

import "sort"

// bound is no later than the end of any order that begins so: the chain that is left of each task
// that is not in, all the work that is left in the hours that all hands have, and what takes two in
// the hours that two have. idle is what the hands had of hours so far, and did not work.
func (s *search) bound(m *state) (bound, idle int) {
	earliest, second := m.free[0], 0
	if len(m.free) > 1 {
		earliest, second = min(m.free[0], m.free[1]), max(m.free[0], m.free[1])
		for _, f := range m.free[2:] {
			earliest, second = min(earliest, f), min(second, max(earliest, f))
		}
	}
	work, two := 0, 0
	for i, t := range s.tasks {
		switch {
		case m.end[i] == never:
			bound = max(bound, mostDays*dayMinutes)
		case m.end[i] >= 0:
			bound = max(bound, int(m.end[i]))
			idle -= t.Minutes * t.Hands
		default:
			work += t.Minutes * t.Hands
			if t.Hands > 1 {
				two += t.Minutes
			}
			ready, open := max(earliest, t.Ready), true
			for _, a := range t.After {
				open = open && m.end[a] >= 0
				if m.end[a] >= 0 {
					ready = max(ready, int(m.end[a])+s.tasks[a].Dries)
				}
			}
			if bound = max(bound, ready+s.tail[i]); open {
				bound = max(bound, s.chain(i, ready))
			}
		}
	}
	for c, f := range m.free {
		idle += s.hours[c].until(f) - s.hours[c].until(s.from)
	}
	if work > 0 {
		bound = max(bound, enough(s.hours, m.free, work))
	}
	if two > 0 {
		bound = max(bound, enough([]worked{s.both}, []int{second}, two/max(len(m.free)/2, 1)))
	}
	return bound, idle
}

// chain is when the longest chain from a task on could end, by the clock of those that are there.
func (s *search) chain(i, ready int) int {
	at := ready
	for ; i >= 0; i = s.then[i] {
		t := s.tasks[i]
		start, ok := s.wide.fits(t.Hands-1, at, t.Minutes)
		if !ok {
			return mostDays * dayMinutes
		}
		if at = start + t.Minutes; s.then[i] >= 0 {
			at += t.Dries
		}
	}
	return at
}

// enough is the first minute by which some hands have had so many minutes of their hours, each from
// when it is free.
func enough(hours []worked, free []int, minutes int) int {
	return sort.Search(mostDays*dayMinutes, func(to int) bool {
		had := 0
		for c, h := range hours {
			had += max(h.until(to)-h.until(free[c]), 0)
		}
		return had >= minutes
	})
}

// worked is how many minutes of some hours lie before each minute.
type worked []int32

func (w worked) until(m int) int { return int(w[min(max(m, 0), len(w)-1)]) }

// count counts the minutes of mostDays that are worked.
func count(works func(m int) bool) worked {
	w := make(worked, mostDays*dayMinutes+1)
	for m := range mostDays * dayMinutes {
		w[m+1] = w[m]
		if works(m) {
			w[m+1]++
		}
	}
	return w
}
