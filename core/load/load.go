// Package load computes what to take along for some openings of a job: what is hung and used up, tools and blades, how
// the slabs are cut, and settings shared by several openings. Only work that is not done yet counts.
package load

import (
	"cmp"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/saves"
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

// Heading is what is known of a kind. What is ordered is bought for the job; a carpenter owns the rest.
type Heading struct {
	Kind    Kind
	Ordered bool
}

// Name is the name of the kind.
func (h Heading) Name() message.ID { return "load-kind." + message.ID(h.Kind) }

// Headings lists the kinds, in the order of loading.
var Headings = []Heading{
	{Slabs, true},
	{Hinges, true},
	{Screws, true},
	{Locks, true},
	{Inserts, true},
	{Packers, false},
	{Tools, false},
}

// Item is one line of a list.
type Item struct {
	Kind     Kind
	Name     message.Message
	Note     []message.Message // nothing, or what there is to say of it
	Count    int               // nought where one does for all the openings
	Openings []string          // that it is for, by name, in order
}

// Cut is one slab of the cutting list.
type Cut struct {
	Opening message.Message
	Slab    message.Size
	Off     frame.Each[measure.Length] // most off each edge
	Width   measure.Length             // after the first cut, at its widest
	Length  measure.Length             // at its longest
	Left    bool                       // something is left on for the next try
}

// Setting is a tool setting that serves several openings.
type Setting struct {
	What     message.Message // the tool, and what for
	To       message.Message
	Openings []string
}

// Open is an opening with something that cannot be counted yet.
type Open struct {
	Opening message.Message
	Why     message.Message
}

// List is everything to take along.
type List struct {
	Openings []string
	Items    []Item // by kind
	Cutting  []Cut
	Settings []Setting
	Open     []Open
	Off      []Off             // doors that hang, as they come off to be sprayed
	Spray    []message.Message // how that is done
	Saves    []saves.Saving    // jigs, bored slabs, another latch: what each saves at these openings
}

// Opening is an opening with its plan.
type Opening = plan.Opening

// leaf is one leaf of an opening, and how far its work is.
type leaf struct {
	Opening
	plan.Leaf
	slab              slab.Slab
	n                 int
	name              message.Message
	hand              frame.Hand
	cut, hung, locked bool
	bolted            bool // it is the fixed leaf of a pair
}

// leaves are the leaves of an opening.
func leaves(d Opening) (list []leaf) {
	for i, v := range d.Plan.Leaves {
		l := leaf{
			Opening: d, Leaf: v, slab: d.SlabOf(i), n: i, name: message.Own(d.Name), hand: d.Hand,
			locked: d.Plan.Done(job.StepLock) || d.Signed != nil,
		}
		if d.Pair != nil {
			l.name = message.Message{
				ID:   []message.ID{"load.leaf-on-hinge-jamb", "load.leaf-on-lock-jamb"}[i],
				Args: message.Args{"door": d.Name},
			}
			l.bolted = (d.Pair.Fixed == frame.Lock) == (i == 1)
		}
		if i == 1 {
			l.hand = d.Hand.Other()
		}
		if i < len(d.Tried) {
			l.cut, l.hung = d.Tried[i].Made != nil, len(d.Tried[i].Hangs) > 0
		}
		l.cut = l.cut || d.Plan.Done(job.StepCut)
		list = append(list, l)
	}
	return list
}

// Of is the list for some openings of a job.
func Of(j job.Job, openings []Opening) List {
	c := NewCounter(j, nil)
	for _, d := range openings {
		c.Add(d)
	}
	return c.List()
}

// Counter counts one opening at a time, so that no more than one plan is in memory.
type Counter struct {
	job  job.Job
	list List
	at   map[string]*counted // of items and settings
	rods []rod

	saves *saves.Counter
	off   []Off
	wet   message.Month // the dampest month, where the seasons are set up
}

// counted is an item's or a setting's place in its list, and the number of openings counted when it last grew.
type counted struct{ at, openings int }

// NewCounter returns a Counter for openings of a job, with the house's own log; nil for none.
func NewCounter(j job.Job, log saves.Log) *Counter {
	return &Counter{job: j, at: map[string]*counted{}, saves: saves.NewCounter(log)}
}

// Add counts an opening.
func (c *Counter) Add(d Opening) {
	if d.Service != nil { // it hangs already: nothing of it is bought, cut or bored
		for _, l := range leaves(d) {
			c.sprayed(l)
		}
		return
	}
	c.list.Openings = append(c.list.Openings, d.Name)
	if len(d.Plan.Clashes) > 0 {
		c.open(message.Own(d.Name), message.Message{ID: "day.clash"})
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
		c.sprayed(l)
		if l.Signed == nil {
			c.saves.Add(d, l.n, saves.State{Cut: l.cut, Hung: l.hung, Locked: l.locked})
		}
	}
	c.rodOf(d)
}

// List is the sum of the openings that were added.
func (c *Counter) List() List {
	l := c.list
	l.Items = slices.Clone(l.Items)
	slices.SortStableFunc(l.Items, func(a, b Item) int {
		return cmp.Compare(place(a.Kind), place(b.Kind))
	})
	for _, r := range c.rods {
		l.Settings = append(l.Settings, r.Setting)
	}
	l.Saves = c.saves.List()
	l.Off, l.Spray = c.spray()
	return l
}

// Order is the part of a list that is bought for the job.
func (l List) Order() List {
	l.Items = slices.DeleteFunc(slices.Clone(l.Items), func(i Item) bool { return !Headings[place(i.Kind)].Ordered })
	l.Cutting, l.Settings, l.Saves, l.Off, l.Spray = nil, nil, nil, nil, nil
	return l
}

func place(k Kind) int {
	return slices.IndexFunc(Headings, func(h Heading) bool { return h.Kind == k })
}

// need adds a number of an item for a leaf; 0 where one serves all.
func (c *Counter) need(k Kind, name message.Message, note []message.Message, count int, l leaf) {
	at := c.place(string(k)+"\x00"+name.String(), len(c.list.Items))
	if at.at == len(c.list.Items) {
		c.list.Items = append(c.list.Items, Item{Kind: k, Name: name, Note: note})
	}
	i := &c.list.Items[at.at]
	i.Count += count
	i.Openings = c.named(at, i.Openings, l)
}

// set adds a leaf to a setting.
func (c *Counter) set(what, to message.Message, l leaf) {
	at := c.place("set\x00"+what.String()+"\x00"+to.String(), len(c.list.Settings))
	if at.at == len(c.list.Settings) {
		c.list.Settings = append(c.list.Settings, Setting{What: what, To: to})
	}
	s := &c.list.Settings[at.at]
	s.Openings = c.named(at, s.Openings, l)
}

// place is the index of a line, or of the end of its list.
func (c *Counter) place(key string, end int) *counted {
	if c.at[key] == nil {
		c.at[key] = &counted{at: end}
	}
	return c.at[key]
}

// named adds a leaf's opening to a line, once for both leaves of a pair.
func (c *Counter) named(at *counted, names []string, l leaf) []string {
	if at.openings == len(c.list.Openings) {
		return names
	}
	at.openings = len(c.list.Openings)
	return append(names, l.Opening.Name)
}

func (c *Counter) open(opening, why message.Message) {
	key := "open\x00" + opening.String() + "\x00" + why.String()
	if at := c.place(key, len(c.list.Open)); at.at == len(c.list.Open) {
		c.list.Open = append(c.list.Open, Open{opening, why})
	}
}

// text is a message with no arguments or one list of them.
func text(id message.ID, args ...message.Args) message.Message {
	m := message.Message{ID: id}
	if len(args) > 0 {
		m.Args = args[0]
	}
	return m
}

// noted is a note with one message.
func noted(id message.ID) []message.Message { return []message.Message{{ID: id}} }

// Saves are the ways to save minutes at some openings, with the house's own log.
func Saves(openings []Opening, log saves.Log) []saves.Saving {
	c := saves.NewCounter(log)
	for _, d := range openings {
		if d.Signed != nil || d.Service != nil {
			continue
		}
		for _, l := range leaves(d) {
			c.Add(d, l.n, saves.State{Cut: l.cut, Hung: l.hung, Locked: l.locked})
		}
	}
	return c.List()
}
