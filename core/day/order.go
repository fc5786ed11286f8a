package day

import (
	"cmp"
	"maps"
	"slices"
	"strings"

	"kindmargin/core/trade"
)

// Entry is a scheduled task.
type Entry struct {
	Task  int
	Who   []int // carpenters
	Start int   // with setting the tool and going there
	Prep  int   // minutes of that
	End   int
}

// Order is a schedule: tasks in the order in which they are done.
type Order struct {
	Entries []Entry
	Left    []int // tasks that did not go in, in mostDays
	Prep    int   // minutes of setting tools and walking to and fro
}

// End is the end of the last task.
func (o Order) End() (end int) {
	for _, e := range o.Entries {
		end = max(end, e.End)
	}
	return end
}

// Arrange schedules tasks from a minute on, to end as early as possible, and among such schedules with the least
// walking to and fro. The error names tasks that no schedule can hold.
//
// It is a beam search over the next task and its carpenters; states are ranked by a lower bound on their end (bound)
// and pruned to the beam's width, so that few tasks are searched almost exhaustively. Against exhaustive search on
// thousands of small cases it is at most a twentieth longer (order_test.go).
func Arrange(tasks []Task, k Calendar, from int) (Order, error) {
	if err := check(tasks, k); err != nil {
		return Order{}, err
	}
	s := newSearch(tasks, k, from)
	var best *state
	for _, s.patience = range patiences(len(tasks)) {
		if o := s.run(); best == nil || o.before(best) {
			best = o
		}
	}
	return best.order(tasks), nil
}

// run is one beam search.
func (s *search) run() (best *state) {
	width := clamp(100000/max(len(s.tasks)*len(s.tasks), 1), 4, 400)
	beam := []*state{s.begin()}
	for len(beam) > 0 {
		var next []*state
		seen := map[string]bool{}
		for _, at := range beam {
			moves := s.moves(at)
			if len(moves) == 0 && (best == nil || at.before(best)) {
				best = at
			}
			for _, m := range moves {
				if key := m.key(); !seen[key] {
					seen[key] = true
					next = append(next, m)
				}
			}
		}
		slices.SortStableFunc(next, func(a, b *state) int {
			return cmp.Or(
				cmp.Compare(a.bound, b.bound), cmp.Compare(a.idle, b.idle), cmp.Compare(a.prep, b.prep),
				cmp.Compare(a.sum, b.sum),
			)
		})
		beam = next[:min(len(next), width)]
	}
	return best
}

// patiences are the longest idle waits, in minutes, that a search allows for a task that could begin later; 0 allows
// active schedules only (Giffler and Thompson, 1960, from memory). With many tasks long waits mislead the search, so
// one search is made for each, and the best schedule wins.
func patiences(tasks int) []int {
	if tasks <= fewTasks {
		return []int{mostDays * dayMinutes}
	}
	if tasks <= 2*fewTasks {
		return []int{mostDays * dayMinutes, 60, 0}
	}
	if tasks <= manyTasks {
		return []int{60, 0}
	}
	return []int{0}
}

// Up to fewTasks nearly all orders are searched; from manyTasks the beam is narrowed.
const (
	fewTasks  = 8
	manyTasks = 150
)

func clamp(v, least, most int) int { return max(least, min(v, most)) }

// search is the input of a search, which its states share.
type search struct {
	tasks    []Task
	k        Calendar
	from     int
	patience int      // how long anybody waits
	hours    []worked // of each carpenter
	both     worked   // when two are there
	wide     Calendar // hours in which anybody works, and in which two may
	then     []int    // the task after each that the longest chain goes on with; -1 where it ends
	tail     []int    // minutes from a task's begin to the end of the longest chain that waits for it
	tool     []string
	places   [][2]string
}

// state is a partial schedule.
type state struct {
	last  *state // before the task that was put in last; nil at the beginning
	entry *Entry
	end   []int32 // of each task; -1 while it is not in
	lost  int     // tasks that can go in no more
	free  []int   // when each carpenter is
	where [][2]string
	set   []map[string]string // what each carpenter's tools are set to
	prep  int
	sum   int // of all ends: among equals, what is done sooner
	bound int // it ends no sooner than this
	idle  int // minutes of hours that were not worked
}

func newSearch(tasks []Task, k Calendar, from int) *search {
	s := &search{tasks: tasks, k: k, from: from, tail: make([]int, len(tasks))}
	for c := range k.Hours {
		s.hours = append(s.hours, count(func(m int) bool { return k.works(c, m) }))
	}
	s.both = count(func(m int) bool {
		there := 0
		for c := range k.Hours {
			if k.works(c, m) {
				there++
			}
		}
		return there > 1
	})
	for i := range s.tail {
		s.tail[i] = -1
	}
	waits := make([][]int, len(tasks))
	for i, t := range tasks {
		for _, a := range t.After {
			waits[a] = append(waits[a], i)
		}
		s.tool = append(s.tool, t.Set.Tool)
		s.places = append(s.places, [2]string{string(t.Place), openingAt(t)})
	}
	s.then = make([]int, len(tasks))
	s.wide = Calendar{Hours: []Span{k.Hours[0], k.Hours[0]}, Break: k.Break, Free: k.Free}
	for _, h := range k.Hours[1:] {
		s.wide.Hours[0] = Span{min(s.wide.Hours[0].From, h.From), max(s.wide.Hours[0].To, h.To)}
	}
	s.wide.Hours[1] = s.wide.Hours[0]
	if len(k.Hours) == 2 {
		s.wide.Hours[1] = Span{max(k.Hours[0].From, k.Hours[1].From), min(k.Hours[0].To, k.Hours[1].To)}
	}
	var tail func(int) int
	tail = func(i int) int {
		if s.tail[i] >= 0 {
			return s.tail[i]
		}
		longest := 0
		s.then[i] = -1
		for _, w := range waits[i] {
			if t := tasks[i].Dries + tail(w); t > longest {
				longest, s.then[i] = t, w
			}
		}
		s.tail[i] = tasks[i].Minutes + longest
		return s.tail[i]
	}
	for i := range tasks {
		tail(i)
	}
	return s
}

// openingAt is the opening where a carpenter stands; the trestles and outside count as near to all.
func openingAt(t Task) string {
	if t.Place == trade.AtOpening {
		return t.OpeningID
	}
	return ""
}

func (s *search) begin() *state {
	n := len(s.k.Hours)
	b := &state{
		end: make([]int32, len(s.tasks)), free: make([]int, n), where: make([][2]string, n),
		set: make([]map[string]string, n),
	}
	for i := range b.end {
		b.end[i] = -1
	}
	for i := range n {
		b.free[i], b.set[i] = s.from, map[string]string{}
	}
	return b
}

// moves are the successors of a state: every task whose predecessors are scheduled, by every carpenter who could do it;
// tasks in hand come first.
func (s *search) moves(at *state) (list []*state) {
	for _, i := range s.open(at) {
		t, ready, lost := s.tasks[i], max(s.from, s.tasks[i].Ready), false
		for _, a := range t.After {
			lost = lost || at.end[a] == never
			ready = max(ready, int(at.end[a])+s.tasks[a].Dries)
		}
		if lost {
			return []*state{s.lose(at, i)}
		}
		before := len(list)
		for a := range s.k.Hours {
			if t.Hands < 2 {
				if m := s.put(at, i, ready, a); m != nil {
					list = append(list, m)
				}
				continue
			}
			for b := range a {
				if m := s.put(at, i, ready, b, a); m != nil {
					list = append(list, m)
				}
			}
		}
		if len(list) == before {
			return []*state{s.lose(at, i)}
		}
	}
	if len(list) == 0 {
		return nil
	}
	soonest := slices.MinFunc(list, func(a, b *state) int { return cmp.Compare(a.entry.End, b.entry.End) }).entry.End
	return slices.DeleteFunc(list, func(m *state) bool { return m.entry.Start >= soonest+s.patience })
}

// mostOpen is the largest number of tasks looked at next: those that most others wait for.
const mostOpen = 12

// open are the tasks whose predecessors are scheduled; a task in hand comes before all others.
func (s *search) open(at *state) (list []int) {
	inHand := false
	for i, t := range s.tasks {
		if at.end[i] != -1 || inHand && t.Begun == nil ||
			slices.ContainsFunc(t.After, func(a int) bool { return at.end[a] == -1 }) {
			continue
		}
		if t.Begun != nil && !inHand {
			inHand, list = true, list[:0]
		}
		list = append(list, i)
	}
	if len(s.tasks) > manyTasks && len(list) > mostOpen {
		slices.SortStableFunc(list, func(a, b int) int { return cmp.Compare(s.tail[b], s.tail[a]) })
		list = list[:mostOpen]
	}
	return list
}

// never is the end of a task that fits in nobody's hours.
const never int32 = -2

func (s *search) lose(at *state, i int) *state {
	m := at.clone()
	m.last, m.entry = at, nil
	m.end[i] = never
	m.lost++
	m.bound = max(m.bound, mostDays*dayMinutes)
	return m
}

// put returns the state with a task added, done by some carpenters; nil where it fits in nobody's hours.
func (s *search) put(at *state, i, ready int, who ...int) *state {
	t := s.tasks[i]
	prep := 0
	if t.Begun == nil {
		for _, c := range who {
			p := 0
			if at.where[c] != s.places[i] {
				p += trade.WalkMinutes
			}
			if s.tool[i] != "" && at.set[c][s.tool[i]] != t.Set.Key {
				p += trade.SetUpMinutes
			}
			prep = max(prep, p)
		}
	}
	start := 0
	for _, c := range who {
		start = max(start, at.free[c])
	}
	// Setting up and walking there overlap with drying.
	start = max(start, ready-prep)
	for moved := true; moved; {
		moved = false
		for _, c := range who {
			first, ok := s.k.fits(c, start, prep+t.Minutes)
			if !ok {
				return nil
			}
			if first != start {
				start, moved = first, true
			}
		}
		if start+prep < ready { // pushed to a stretch that begins before it is dry
			start, moved = ready-prep, true
		}
	}
	m := at.clone()
	end := start + prep + t.Minutes
	m.last, m.entry = at, &Entry{Task: i, Who: who, Start: start, Prep: prep, End: end}
	m.end[i] = int32(end)
	m.prep += prep
	m.sum += end
	for _, c := range who {
		m.free[c], m.where[c] = end, s.places[i]
		if s.tool[i] != "" {
			m.set[c] = maps.Clone(m.set[c])
			m.set[c][s.tool[i]] = t.Set.Key
		}
	}
	m.bound, m.idle = s.bound(m)
	return m
}

func (m *state) clone() *state {
	c := *m
	c.end, c.free, c.where, c.set = slices.Clone(m.end), slices.Clone(m.free), slices.Clone(m.where), slices.Clone(
		m.set,
	)
	return &c
}

// key is equal for states with the same successors.
func (m *state) key() string {
	var b strings.Builder
	put := func(v int32) { b.WriteByte(byte(v)); b.WriteByte(byte(v >> 8)); b.WriteByte(byte(v >> 16)) }
	for _, e := range m.end {
		put(e)
	}
	for i, f := range m.free {
		put(int32(f))
		b.WriteString(m.where[i][0] + m.where[i][1])
		for _, tool := range slices.Sorted(maps.Keys(m.set[i])) {
			b.WriteString(tool + ":" + m.set[i][tool])
		}
	}
	return b.String()
}

// before reports whether a complete schedule is better than another.
func (m *state) before(o *state) bool {
	return cmp.Or(
		cmp.Compare(m.lost, o.lost), cmp.Compare(slices.Max(m.end), slices.Max(o.end)), cmp.Compare(m.prep, o.prep),
		cmp.Compare(m.sum, o.sum),
	) < 0
}

func (m *state) order(tasks []Task) Order {
	o := Order{Prep: m.prep}
	for s := m; s.last != nil; s = s.last {
		if s.entry != nil {
			o.Entries = append(o.Entries, *s.entry)
		}
	}
	slices.Reverse(o.Entries)
	slices.SortStableFunc(o.Entries, func(a, b Entry) int { return cmp.Compare(a.Start, b.Start) })
	for i := range tasks {
		if m.end[i] == never {
			o.Left = append(o.Left, i)
		}
	}
	return o
}
