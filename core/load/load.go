// Package load works out what to take along for some doors of a job: what is hung and used
// up, the tools and blades, how the slabs are cut, and what is set once for several doors. It
// counts only what is still to be done at each door.
package load

import (
	"cmp"
	"fmt"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/slab"
)

// Kind is a heading of a list.
type Kind string

// The headings.
const (
	Slabs   Kind = "slabs"
	Hinges  Kind = "hinges"
	Screws  Kind = "screws"
	Locks   Kind = "locks"
	Inserts Kind = "inserts"
	Packers Kind = "packers"
	Tools   Kind = "tools"
)

// Heading is what is known of a kind. What is ordered is bought for the job; the rest a
// carpenter has.
type Heading struct {
	Kind    Kind
	Name    string
	Ordered bool
}

// Headings lists them, in the order of loading.
var Headings = []Heading{
	{Slabs, "Slabs", true},
	{Hinges, "Hinges", true},
	{Screws, "Screws", true},
	{Locks, "Locks and latches", true},
	{Inserts, "Inserts, glue, sealer", true},
	{Packers, "Packers and wedges", false},
	{Tools, "Tools, bits and blades", false},
}

// Item is one line of a list.
type Item struct {
	Kind  Kind
	Name  string
	Note  string
	Count int      // nought where one does for all the doors
	Doors []string // that it is for, by name, in order
}

// Cut is one slab of the cutting list.
type Cut struct {
	Door   string
	Slab   string
	Off    frame.Each[measure.Length] // most off each edge
	Width  measure.Length             // after the first cut, at its widest
	Length measure.Length             // at its longest
	Left   bool                       // something is left on for the next try
}

// Setting is something that is set once and then does several doors.
type Setting struct {
	What  string // the tool, and what for
	To    string
	Doors []string
}

// Open is a door of which something cannot be counted yet.
type Open struct{ Door, Why string }

// List is what to take along.
type List struct {
	Doors    []string
	Items    []Item // by kind, then by name
	Cutting  []Cut
	Settings []Setting
	Open     []Open
}

// Door is an opening with its plan.
type Door = plan.Door

// leaf is one leaf of a door, and what is done of it.
type leaf struct {
	Door
	plan.Leaf
	slab              slab.Slab
	n                 int
	name              string
	hand              frame.Hand
	cut, hung, locked bool
	bolted            bool // it is the fixed leaf of a pair
}

// leaves are the leaves of a door.
func leaves(d Door) (list []leaf) {
	for i, v := range d.Plan.Leaves {
		l := leaf{Door: d, Leaf: v, slab: d.Slab, n: i, name: d.Name, hand: d.Hand, locked: d.Plan.Done(job.StepLock) || d.Signed != nil}
		if d.Pair != nil {
			l.name += []string{", leaf on the hinge jamb", ", leaf on the lock jamb"}[i]
			l.bolted = (d.Pair.Fixed == frame.Lock) == (i == 1)
		}
		if i == 1 {
			l.slab, l.hand = d.Pair.Slab, d.Hand.Other()
		}
		if i < len(d.Tried) {
			l.cut, l.hung = d.Tried[i].Made != nil, len(d.Tried[i].Hangs) > 0
		}
		l.cut = l.cut || d.Plan.Done(job.StepCut)
		list = append(list, l)
	}
	return list
}

// Of is the list for some doors of a job.
func Of(j job.Job, doors []Door) List {
	c := counting{job: j, at: map[string]int{}}
	for _, d := range doors {
		c.list.Doors = append(c.list.Doors, d.Name)
		if len(d.Plan.Clashes) > 0 {
			c.open(d.Name, "two of its readings clash: settle them first")
		}
		for _, l := range leaves(d) {
			c.slab(l)
			c.hinges(l)
			c.lock(l)
			c.inserts(l)
			c.packers(l)
			c.cuttingOf(l)
			c.tools(l)
			c.settings(l)
		}
	}
	c.rods(doors)
	slices.SortStableFunc(c.list.Items, func(a, b Item) int {
		return cmp.Or(cmp.Compare(place(a.Kind), place(b.Kind)), cmp.Compare(a.Name, b.Name))
	})
	return c.list
}

// Order is what is bought for some doors: the part of their list that a carpenter has not.
func Order(j job.Job, doors []Door) List {
	l := Of(j, doors)
	l.Items = slices.DeleteFunc(l.Items, func(i Item) bool { return !Headings[place(i.Kind)].Ordered })
	l.Cutting, l.Settings = nil, nil
	return l
}

func place(k Kind) int {
	return slices.IndexFunc(Headings, func(h Heading) bool { return h.Kind == k })
}

// counting adds up a list.
type counting struct {
	job  job.Job
	list List
	at   map[string]int // where each item and setting stands in its list
}

// need adds so many of something for a leaf; none where one does for all.
func (c *counting) need(k Kind, name, note string, count int, l leaf) {
	key := string(k) + "\x00" + name
	at, ok := c.at[key]
	if !ok {
		at = len(c.list.Items)
		c.at[key] = at
		c.list.Items = append(c.list.Items, Item{Kind: k, Name: name, Note: note})
	}
	i := &c.list.Items[at]
	i.Count += count
	if !slices.Contains(i.Doors, l.Door.Name) {
		i.Doors = append(i.Doors, l.Door.Name)
	}
}

// set adds a leaf to those that a setting does.
func (c *counting) set(what, to string, l leaf) {
	key := "set\x00" + what + "\x00" + to
	at, ok := c.at[key]
	if !ok {
		at = len(c.list.Settings)
		c.at[key] = at
		c.list.Settings = append(c.list.Settings, Setting{What: what, To: to})
	}
	if s := &c.list.Settings[at]; !slices.Contains(s.Doors, l.Door.Name) {
		s.Doors = append(s.Doors, l.Door.Name)
	}
}

func (c *counting) open(door, why string) {
	if o := (Open{door, why}); !slices.Contains(c.list.Open, o) {
		c.list.Open = append(c.list.Open, o)
	}
}

// bare is a length as it is said in the job's unit, and say the same with the unit.
func (c *counting) bare(l measure.Length) string {
	return measure.Fine(l, measure.Nearest, c.job.Unit)
}

func (c *counting) say(l measure.Length) string { return c.bare(l) + " " + string(c.job.Unit) }

// size is three measures of a piece.
func (c *counting) size(width, length, thickness measure.Length) string {
	return fmt.Sprintf("%s × %s × %s", c.bare(width), c.bare(length), c.say(thickness))
}
