package day

import (
	"kindmargin/core/field"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// marked removes what is done and struck out, and applies the other marks. A task that waits for one that is done still
// waits until that is dry.
func (l *listing) marked() (w Work, err error) {
	w.Held, w.Heavy = l.held, l.heavy
	var bad field.Errors
	at := make([]int, len(l.all))   // in what remains; -1 where it is not
	dry := make([]*int, len(l.all)) // when what is done is dry; nil where it is not done
	for i := range l.all {
		t := &l.all[i]
		m := l.mark(t.ID)
		if m.Minutes > 0 {
			t.Minutes = m.Minutes
		}
		t.Minutes += m.Late
		if kg := l.weight[i]; m.Hands > 0 {
			switch {
			case kg > trade.MostAlone && m.Hands < 2:
				bad.Add("/marks", "refused.two-lift", message.Args{
					"task": t.Title(), "weight": message.Mass(kg), "least": message.Mass(trade.MostAlone),
				})
			case kg > 0 && kg < trade.TwoPeople && m.Hands > 1:
				bad.Add("/marks", "refused.one-lifts", message.Args{
					"task": t.Title(), "weight": message.Mass(kg), "least": message.Mass(trade.TwoPeople),
				})
			default:
				t.Hands = m.Hands
			}
		}
		if begun, ok := l.Minute(m.Begun); ok && m.Done == "" {
			t.Begun = &begun
			t.Minutes = max(t.Minutes-max(l.now-begun, 0), 1)
		}
		at[i] = -1
		done, ok := l.Minute(m.Done)
		switch {
		case ok:
			done += t.Dries
			dry[i] = &done
			w.Done = append(w.Done, *t)
		case m.Struck:
			w.Done = append(w.Done, *t)
		default:
			at[i] = len(w.Tasks)
			w.Tasks = append(w.Tasks, *t)
		}
	}
	l.wait(&w, at, dry)
	return w, bad.Err()
}

// wait gives each task that remains what it waits for: its place among those that remain, or when what is done is dry. at
// are the places of all tasks, -1 where one does not remain; dry is nil where one is not done.
func (l *listing) wait(w *Work, at []int, dry []*int) {
	for i := range w.Tasks {
		t := &w.Tasks[i]
		if t.Begun != nil { // whatever it should have waited for
			t.After = nil
			continue
		}
		var after []int
		seen := map[int]bool{}
		var wait func(int)
		wait = func(a int) {
			if seen[a] {
				return
			}
			seen[a] = true
			switch {
			case at[a] >= 0:
				after = append(after, at[a])
			case dry[a] != nil:
				t.Ready = max(t.Ready, *dry[a])
			default: // struck out: what it waited for is waited for
				for _, b := range l.all[a].After {
					wait(b)
				}
			}
		}
		for _, a := range t.After {
			wait(a)
		}
		t.After = after
	}
}
