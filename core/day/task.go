// Package day puts what remains of some doors in the order of a day: tasks in trade order, what
// dries meanwhile, who lifts with whom, and what one setting of a tool does for several doors.
// Times are minutes since midnight before the first day; 1440 is the midnight after it.
package day

import (
	"slices"
	"strconv"
	"strings"

	"kindmargin/core/field"
	"kindmargin/core/trade"
)

// Task is one piece of work.
type Task struct {
	ID      string // of its own, and the same each time that the day is planned
	Name    string
	Door    string // where it belongs to one: its name
	DoorID  string
	Place   trade.Place
	Tool    string // with its setting, as "router: 2 mm"; the tool stands before the colon. Empty for none
	Minutes int
	Hands   int   // 1 or 2
	Dries   int   // minutes after it until what waits for it can begin
	After   []int // the tasks that it waits for, by their place in the list
	Ready   int   // not before this minute
	// Begun is when it was begun, where it is in hand: it is gone on with first.
	Begun *int
}

// Span is from one time of the day to another, in minutes since midnight.
type Span struct {
	From int `json:"from"`
	To   int `json:"to"`
}

const (
	dayMinutes = 24 * 60
	// mostDays is how far ahead is looked; what does not go in by then is told.
	mostDays = 14
)

// Calendar is when is worked: the hours of each carpenter, the break, and which days.
type Calendar struct {
	Hours []Span // of each carpenter
	Break Span   // nothing where from is to
	Free  []bool // which days, from the first on, nobody works; those past its end are worked
}

// fits is the first time from a minute on at which so many minutes of work fit in carpenter c's
// hours, none cut by the break or the night; ok is false where there is none in mostDays.
func (k Calendar) fits(c, from, minutes int) (start int, ok bool) {
	for d := from / dayMinutes; d < mostDays; d++ {
		if d < len(k.Free) && k.Free[d] {
			continue
		}
		for _, s := range k.spans(c) {
			if start := max(from, d*dayMinutes+s.From); start+minutes <= d*dayMinutes+s.To {
				return start, true
			}
		}
	}
	return 0, false
}

// works reports whether carpenter c works in a minute.
func (k Calendar) works(c, m int) bool {
	d, at := m/dayMinutes, m%dayMinutes
	return (d >= len(k.Free) || !k.Free[d]) && slices.ContainsFunc(k.spans(c), func(s Span) bool { return at >= s.From && at < s.To })
}

// spans are the stretches of one day that carpenter c works.
func (k Calendar) spans(c int) []Span {
	h := k.Hours[c]
	if k.Break.From >= k.Break.To || k.Break.To <= h.From || k.Break.From >= h.To {
		return []Span{h}
	}
	var list []Span
	for _, s := range []Span{{h.From, k.Break.From}, {k.Break.To, h.To}} {
		if s.From < s.To {
			list = append(list, s)
		}
	}
	return list
}

// longest is the longest stretch that so many carpenters work together.
func (k Calendar) longest(hands int) (most int) {
	for a := range k.Hours {
		for _, s := range k.spans(a) {
			if hands < 2 {
				most = max(most, s.To-s.From)
				continue
			}
			for b := range a {
				for _, o := range k.spans(b) {
					most = max(most, min(s.To, o.To)-max(s.From, o.From))
				}
			}
		}
	}
	return most
}

// LongestWait is the longest that a task may wait for another. A week.
const LongestWait = 7 * dayMinutes

// check reports tasks that no order can hold, as field.Errors whose pointers begin with the task's
// place in the list.
func check(tasks []Task, k Calendar) error {
	var bad field.Errors
	for i, t := range tasks {
		at := "/" + strconv.Itoa(i)
		if t.Dries > LongestWait {
			bad.Add(at+"/dries", "%s dries for %s: longer than a week. Leave what comes after it for another plan.", t.Title(), Lasts(t.Dries))
		}
		most := k.longest(t.Hands)
		switch {
		case t.Hands > 1 && most == 0:
			bad.Add(at+"/hands", "%s takes two, and two are never there together: put a second pair of hands on the list, for those hours at least.", t.Title())
		case t.atMost() > most:
			bad.Add(at+"/minutes", "%s takes %s with going there and setting up, and the longest stretch without a break is %s: split it, or make the day longer.", t.Title(), Lasts(t.atMost()), Lasts(most))
		}
	}
	if ring := ring(tasks); ring != nil {
		names := make([]string, len(ring))
		for i, n := range ring {
			names[i] = tasks[n].Title()
		}
		if len(ring) == 1 {
			bad.Add("/"+strconv.Itoa(ring[0])+"/after", "%s waits for itself: take that away.", names[0])
		} else {
			bad.Add("/"+strconv.Itoa(ring[0])+"/after", "These wait for one another in a ring: %s. Let one of them not wait.", strings.Join(names, ", "))
		}
	}
	return bad.Err()
}

// atMost is what a task takes with going there and setting its tool.
func (t Task) atMost() int {
	if t.Tool == "" {
		return t.Minutes + trade.WalkMinutes
	}
	return t.Minutes + trade.WalkMinutes + trade.SetUpMinutes
}

// ring is a ring of tasks that wait for one another; nil where there is none.
func ring(tasks []Task) []int {
	state := make([]int, len(tasks)) // 1 being looked at, 2 known to end
	var path []int
	var visit func(int) []int
	visit = func(i int) []int {
		switch state[i] {
		case 2:
			return nil
		case 1:
			return slices.Clone(path[slices.Index(path, i):])
		}
		state[i] = 1
		path = append(path, i)
		for _, a := range tasks[i].After {
			if r := visit(a); r != nil {
				return r
			}
		}
		path = path[:len(path)-1]
		state[i] = 2
		return nil
	}
	for i := range tasks {
		if r := visit(i); r != nil {
			return r
		}
	}
	return nil
}

// Title is a task with its door.
func (t Task) Title() string {
	if t.Door == "" {
		return t.Name
	}
	return t.Door + ": " + lower(t.Name)
}

// lower begins a name small, inside a sentence.
func lower(s string) string { return strings.ToLower(s[:min(1, len(s))]) + s[min(1, len(s)):] }

// Lasts says so many minutes: "20 min", "1 h 30", "2 days".
func Lasts(minutes int) string {
	h, m := minutes/60, minutes%60
	switch {
	case minutes >= 2*dayMinutes:
		return strconv.Itoa((minutes+dayMinutes/2)/dayMinutes) + " days"
	case h == 0:
		return strconv.Itoa(m) + " min"
	case m == 0:
		return strconv.Itoa(h) + " h"
	}
	return strconv.Itoa(h) + " h " + strconv.Itoa(m)
}
