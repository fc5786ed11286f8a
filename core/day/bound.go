package day

import "sort"

// bound is a lower bound, in minutes, on the end of every order that begins with this state: the longest remaining
// chain, all remaining work shared over the remaining hours of all carpenters, and the tasks for two over the hours
// that two share. idle is the working time, in minutes, that was left unused so far.
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

// chain is a lower bound on the end of the longest chain that begins with a task, by the carpenters' hours.
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

// enough is the first minute by which some carpenters together have so many working minutes, each from when free.
func enough(hours []worked, free []int, minutes int) int {
	return sort.Search(mostDays*dayMinutes, func(to int) bool {
		had := 0
		for c, h := range hours {
			had += max(h.until(to)-h.until(free[c]), 0)
		}
		return had >= minutes
	})
}

// worked is the prefix sum of working minutes.
type worked []int32

func (w worked) until(m int) int { return int(w[min(max(m, 0), len(w)-1)]) }

// count sums the working minutes of mostDays.
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
