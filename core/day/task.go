// Package day schedules what remains to be done at some openings: tasks in trade order, drying times, who lifts with
// whom, and one tool setting for several openings. Times are minutes since midnight before the first day; 1440 is the
// midnight after it.
package day

import (
	"slices"
	"strconv"

	"kindmargin/core/field"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Task is one piece of work.
type Task struct {
	ID        string // of its own, and the same each time that the day is planned
	Name      message.Message
	Opening   string // where it belongs to one: its name
	OpeningID string
	Place     trade.Place
	Set       Setting
	Minutes   int
	Hands     int        // 1 or 2
	Alone     message.ID // how one does it alone with a heavy slab; empty where that is not asked
	More      int        // minutes of Minutes that it takes for that
	Dries     int        // minutes after it until what waits for it can begin
	After     []int      // the tasks that it waits for, by their place in the list
	Ready     int        // not before this minute
	// Begun is when a task in hand was begun; it is resumed before others start.
	Begun *int
}

// Setting is a tool setting. Two are the same where Tool and Key are equal.
type Setting struct {
	Tool string // its ID; empty for none
	Key  string // what it is set to, for that tool
	Says message.Message
}

// Same reports whether one setting serves both tasks.
func (s Setting) Same(as Setting) bool { return s.Tool == as.Tool && s.Key == as.Key }

// Span is a half-open range of minutes since midnight.
type Span struct {
	From int `json:"from"`
	To   int `json:"to"`
}

const (
	dayMinutes = 24 * 60
	// mostDays is the planning horizon in days; what does not fit is reported.
	mostDays = 14
)

// Calendar is the working time: the hours of each carpenter, the break, and the working days.
type Calendar struct {
	Hours []Span // of each carpenter
	Break Span   // nothing where from is to
	Free  []bool // which days, from the first on, nobody works; those past its end are worked
}

// fits is the first minute from which so many minutes of work fit in carpenter c's hours, uninterrupted by break or
// night; ok is false where none does in mostDays.
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
	return (d >= len(k.Free) || !k.Free[d]) &&
		slices.ContainsFunc(k.spans(c), func(s Span) bool { return at >= s.From && at < s.To })
}

// spans are the working hours of carpenter c on one day, break excluded.
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

// longest is the longest span in which so many carpenters work together.
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

// LongestWait is the longest wait between two tasks: a week.
const LongestWait = 7 * dayMinutes

// check reports tasks that no schedule can hold, as field.Errors with pointers that begin with the task's index.
func check(tasks []Task, k Calendar) error {
	var bad field.Errors
	alone := 0 // tasks for two, where two are never there
	for _, t := range tasks {
		if t.Hands > 1 && k.longest(t.Hands) == 0 {
			alone++
		}
	}
	for i, t := range tasks {
		at := "/" + strconv.Itoa(i)
		if t.Dries > LongestWait {
			bad.Add(at+"/dries", "refused.task-dries", message.Args{
				"task": t.Title(), "dries": message.Lasting(t.Dries),
			})
		}
		most := k.longest(t.Hands)
		switch {
		case t.Hands > 1 && most == 0:
			// One more carpenter cures all of these, so they are one error.
			switch {
			case alone == 1:
				bad.Add(at+"/hands", "refused.two-needed", message.Args{"task": t.Title()})
			case alone > 1:
				bad.Add(at+"/hands", "refused.two-needed-more", message.Args{
					"task": t.Title(), "more": message.Count(alone - 1),
				})
			}
			alone = 0
		case t.atMost() > most:
			bad.Add(at+"/minutes", "refused.task-too-long", message.Args{
				"task": t.Title(), "takes": message.Lasting(t.atMost()), "most": message.Lasting(most),
			})
		}
	}
	if ring := ring(tasks); ring != nil {
		names := make(message.And, len(ring))
		for i, n := range ring {
			names[i] = tasks[n].Title()
		}
		at := "/" + strconv.Itoa(ring[0]) + "/after"
		if len(ring) == 1 {
			bad.Add(at, "refused.waits-for-itself", message.Args{"task": names[0]})
		} else {
			bad.Add(at, "refused.wait-in-ring", message.Args{"tasks": names})
		}
	}
	return bad.Err()
}

// atMost is the longest that a task takes, walking and setting up included.
func (t Task) atMost() int {
	if t.Set.Tool == "" {
		return t.Minutes + trade.WalkMinutes
	}
	return t.Minutes + trade.WalkMinutes + trade.SetUpMinutes
}

// ring is a cycle of tasks that wait for one another; nil where there is none.
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

// Title is the task's name with its opening.
func (t Task) Title() message.Message {
	if t.Opening == "" {
		return t.Name
	}
	return message.Message{ID: "day.task-of-door", Args: message.Args{"door": t.Opening, "task": t.Name}}
}
