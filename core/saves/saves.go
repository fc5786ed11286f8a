// Package saves weighs in minutes what costs money or an hour's work, for the doors of a house: a jig against marking by
// hand, slabs that come bored against boring, a latch that needs less boring.
package saves

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
)

// Jig is a jig that a leaf could be worked with.
type Jig struct {
	trade.Jig
	Pieces int    // that it guides at this leaf
	alike  string // leaves with the same are worked with one jig
}

// PaysFrom is the number of such leaves from which it saves more than it takes.
func (u Jig) PaysFrom() int { return u.Jig.PaysFrom(u.Pieces) }

// Saves is how many minutes it saves at one such leaf.
func (u Jig) Saves() float64 { return u.Jig.Saves(u.Pieces) }

// Jigs are the jigs of a leaf, n its number.
func Jigs(o job.Opening, l plan.Leaf, n int) (list []Jig) {
	s := o.SlabOf(n)
	put := func(id string, pieces int, alike ...any) {
		j, _ := trade.JigByID(id)
		list = append(list, Jig{j, pieces, fmt.Sprint(id, alike)})
	}
	for _, h := range l.Hardware {
		w := h.Work
		switch {
		case w.Hardware.Surface() || w.Edge == nil || s.CameBored():
		case w.Edge.Long > 0 && w.Plate != nil:
			put("case", 1, w.Hardware.ID, o.Lock.Backset, s.Thickness)
		case w.Edge.Long == 0 && len(w.Holes) > 0:
			put("block", 1, w.Hardware.ID, o.Lock.Backset, s.Thickness)
		}
	}
	// A steel slab's recesses are pressed in; a set's are cut.
	if len(l.Hinges) > 0 && o.Hinges.From != hinge.WholeEdge && s.Construction != "steel" && o.Set() == nil {
		at := []any{o.Hinges.Leaf, o.Hinges.Width, o.Hinges.Plate}
		for _, h := range l.Hinges {
			at = append(at, h.Slab.Value, h.Jamb.Value)
		}
		put("rail", 2*len(l.Hinges), at...)
	}
	return list
}

// Log is how many minutes a house's openings took at a step, of those that were timed.
type Log map[job.Step]float64

// Pace is the ratio of a house's logged minutes at a step to the table's for a usual opening with two hinges, between a
// third and three; 1 without a log.
func (l Log) Pace(step job.Step) float64 {
	own := l[step]
	if own <= 0 {
		return 1
	}
	var usual float64
	for _, w := range trade.Works {
		if w.Step == string(step) && !w.Some {
			usual += w.Minutes + 2*w.Each
		}
	}
	return min(max(own/usual, 1.0/3), 3)
}

// Saving is one way to save minutes at some doors.
type Saving struct {
	ID       string // of a trade.Jig, "bored", or of the piece of hardware
	Openings []string
	Minutes  float64 // saved at all of them, less what it takes; below nought where it does not pay
	Says     message.Message
}

// Counter counts one opening at a time.
type Counter struct {
	log   Log
	jigs  []shared
	bored way
	latch way
	other message.Message // name of the latch that needs less boring
}

// shared is a jig, with the openings that it serves.
type shared struct {
	Jig
	way
}

// way is a way to do some work, with its minutes as chosen and instead.
type way struct {
	openings      []string
	chosen, other float64
}

func (w *way) add(opening string, chosen, other float64) {
	w.openings = append(w.openings, opening)
	w.chosen, w.other = w.chosen+chosen, w.other+other
}

// NewCounter returns a Counter with the house's own log.
func NewCounter(log Log) *Counter { return &Counter{log: log} }

// State is how far a leaf's work is.
type State struct{ Cut, Hung, Locked bool }

// Add counts a leaf of an opening, n its number. A slab that is cut is bought no more; what hangs needs no recesses,
// what is locked no bores.
func (c *Counter) Add(o plan.Opening, n int, is State) {
	l, s := o.Plan.Leaves[n], o.SlabOf(n)
	for _, u := range Jigs(o.Opening, l, n) {
		step := job.Step(u.Step)
		if step == job.StepHinges && is.Hung || step == job.StepLock && is.Locked {
			continue
		}
		i := slices.IndexFunc(c.jigs, func(x shared) bool { return x.alike == u.alike })
		if i < 0 {
			i = len(c.jigs)
			c.jigs = append(c.jigs, shared{Jig: u, way: way{other: u.Make}})
		}
		pace := c.log.Pace(step)
		c.jigs[i].add(o.Name, pace*float64(u.Pieces)*u.ByHand, pace*float64(u.Pieces)*u.ByJig)
	}
	if is.Locked || s.CameBored() {
		return
	}
	pace := c.log.Pace(job.StepLock)
	var bores, fitted float64
	for _, h := range l.Hardware {
		if d := h.Hardware; !d.Surface() && d.Edge.Deep > 0 {
			bores += pace * d.BoringMinutes()
			fitted += pace * trade.FittedMinutes
			if other, ok := trade.SparesBoring(d); ok {
				c.latch.add(o.Name, pace*(d.BoringMinutes()+d.StrikeMinutes()), pace*(other.BoringMinutes()+other.StrikeMinutes()))
				c.other = other.Title()
			}
		}
	}
	if bores > 0 && !is.Cut {
		c.bored.add(o.Name, bores, fitted)
	}
}

// rest are the openings for which a kind of jig does not pay, and the most of them that are alike.
type rest struct {
	way
	most int
}

// notPaying are the openings of a jig that does not pay, and from how many alike it would.
func (c *Counter) notPaying(id string) (r rest, from int) {
	for _, j := range c.jigs {
		if j.ID != id || j.chosen > j.other {
			continue
		}
		if n := j.PaysFrom(); from == 0 || n < from {
			from = n
		}
		r.most = max(r.most, len(j.openings))
		r.chosen, r.other = r.chosen+j.chosen, r.other+j.other
		for _, name := range j.openings {
			if !slices.Contains(r.openings, name) {
				r.openings = append(r.openings, name)
			}
		}
	}
	return r, from
}

// List is what was counted: the ways that pay first, those that save most before the others.
func (c *Counter) List() (list []Saving) {
	put := func(id string, w way, says message.ID, args message.Args) {
		if len(w.openings) == 0 {
			return
		}
		minutes := func(m float64) message.Lasting { return message.Lasting(math.Round(m)) }
		args["count"] = message.Count(len(w.openings))
		args["chosen"], args["other"] = minutes(w.chosen), minutes(w.other)
		args["saves"] = minutes(math.Abs(w.chosen - w.other))
		named := slices.Compact(slices.Clone(w.openings)) // a pair once
		list = append(list, Saving{id, named, w.chosen - w.other, message.Message{ID: says, Args: args}})
	}
	for _, j := range c.jigs {
		if j.chosen > j.other {
			put(j.ID, j.way, "saves.jig", message.Args{"jig": j.Name(), "from": message.Number(j.PaysFrom())})
		}
	}
	for _, j := range trade.Jigs {
		if w, from := c.notPaying(j.ID); w.most > 0 {
			put(j.ID, w.way, "saves.jig-not", message.Args{
				"jig": j.Name(), "from": message.Number(from), "alike": message.Number(w.most),
			})
			list[len(list)-1].Says.Args["count"] = message.Count(w.most) // of those that are alike
		}
	}
	put("bored", c.bored, "saves.bored", message.Args{})
	put("latch", c.latch, "saves.latch", message.Args{"latch": c.other})
	slices.SortStableFunc(list, func(a, b Saving) int { return cmp.Compare(b.Minutes, a.Minutes) })
	return list
}
