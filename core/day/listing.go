package day

import (
	"math"
	"slices"
	"strconv"

	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/saves"
	"kindmargin/core/trade"
)

// Opening is an opening with its plan.
type Opening = plan.Opening

// Log is the house's own.
type Log = saves.Log

// Held is an opening with a step that cannot be planned yet, and why.
type Held struct {
	Name string
	Why  message.Message
}

// Work is the input of a day's plan.
type Work struct {
	Tasks []Task
	Done  []Task // with those that were struck out
	Held  []Held
	Heavy []string // openings whose slabs one works with alone, though two are safer
}

// listing collects the tasks of openings.
type listing struct {
	Day
	job    job.Job
	log    Log
	now    int
	all    []Task
	weight []float64 // kg that each lifts; nought where none does
	held   []Held
	two    bool     // two carpenters are there at one time
	heavy  []string // openings whose slabs one works with alone, though two are safer
}

// Tasks lists what remains to be done at some openings, less what was done by a minute. The error names invalid marks:
// too many or too few carpenters for a slab.
func (d Day) Tasks(j job.Job, openings []Opening, log Log, now int) (Work, error) {
	l := &listing{Day: d, job: j, log: log, now: now, two: d.calendar().longest(2) > 0}
	for _, opening := range openings {
		if opening.Signed != nil {
			continue
		}
		l.opening(opening)
	}
	l.own()
	return l.marked()
}

// opening lists the tasks that remain at one opening.
func (l *listing) opening(d Opening) {
	if d.Service != nil {
		var last []int
		if !d.Plan.Done(job.StepTry) {
			last = l.add(d, piece{work: "service"}, nil)
		}
		l.add(d, piece{work: "sign"}, last)
		return
	}
	if len(d.Plan.Clashes) > 0 { // nothing is cut or marked to them
		l.held = append(l.held, Held{d.Name, message.Message{ID: "day.clash"}})
		l.add(d, piece{work: "measure"}, nil)
		return
	}
	var measured []int
	if !d.Plan.Done(job.StepMeasure) && (len(d.Plan.ToRead) > 0 || len(d.Readings) == 0) {
		measured = l.add(d, piece{work: "measure", each: max(len(d.Plan.ToRead), 4)}, nil)
	}
	var last []int
	whole := true
	for i := range d.Plan.Leaves {
		ends, ok := l.leafOf(d, i).tasks(measured)
		last, whole = append(last, ends...), whole && ok
	}
	if !whole {
		return // what comes after waits past this plan
	}
	for n := range l.Coats {
		id := "coat"
		if n > 0 {
			id += "-" + strconv.Itoa(n+1)
		}
		last = l.add(d, piece{id: id, work: "coat", set: settingOf("brush", "paint")}, last)
		coat := &l.all[last[0]]
		if coat.Dries = l.CoatDries; l.Coats > 1 {
			coat.Name = message.Message{
				ID: "day.coat-of", Args: message.Args{"n": message.Number(n + 1), "of": message.Number(l.Coats)},
			}
		}
	}
	l.add(d, piece{work: "sign"}, last)
}

// piece is one piece of work at an opening.
type piece struct {
	id    string // in the opening; empty for the work's own
	work  string // ID of a trade.Work
	each  int    // how often what is counted in it is done
	set   Setting
	lifts float64 // kg
}

// add adds a task, with the minutes of core/trade's table, scaled by pace.
func (l *listing) add(d Opening, p piece, after []int) []int {
	w, _ := trade.WorkByID(p.work)
	if p.id == "" {
		p.id = p.work
	}
	t := Task{
		ID: d.ID + "/" + p.id, Name: message.Message{ID: w.Name()}, Opening: d.Name, OpeningID: d.ID, Place: w.Place,
		Set:   p.set,
		Hands: 1, Dries: w.Dries,
		Minutes: int(math.Ceil((w.Minutes + w.Each*float64(p.each)) * l.log.Pace(job.Step(w.Step)))),
	}
	for _, a := range after {
		if !slices.Contains(t.After, a) {
			t.After = append(t.After, a)
		}
	}
	if !w.Lifts {
		p.lifts = 0
	}
	if p.lifts >= trade.TwoPeople {
		l.lift(&t, w)
	}
	l.all, l.weight = append(l.all, t), append(l.weight, p.lifts)
	return []int{len(l.all) - 1}
}

// lift gives a heavy slab's task the hands that are there: two, or one with more minutes.
func (l *listing) lift(t *Task, w trade.Work) {
	if l.two {
		t.Hands = 2
		return
	}
	t.Alone, t.More = w.Lone(), int(math.Ceil(w.Alone))
	t.Minutes += t.More
	if !slices.Contains(l.heavy, t.Opening) {
		l.heavy = append(l.heavy, t.Opening)
	}
}

// settingOf is the tool setting with an ID of the catalogue.
func settingOf(tool, key string) Setting {
	return Setting{tool, key, message.Message{ID: "sets." + message.ID(tool) + "-" + message.ID(key)}}
}

// hardware is a tool setting for a piece of hardware.
func (l *listing) hardware(tool, id string) Setting {
	d, ok := l.job.Kit.HardwareByID(id)
	if !ok {
		return settingOf(tool, "latch")
	}
	return Setting{tool, id, message.Message{ID: "sets." + message.ID(tool), Args: message.Args{"hardware": d.Title()}}}
}

// own lists the carpenter's own tasks.
func (l *listing) own() {
	for _, o := range l.Own {
		l.all = append(l.all, Task{
			ID: "own/" + o.ID, Name: message.Own(o.Name), Place: o.Place, Minutes: o.Minutes, Hands: max(o.Hands, 1),
			Dries: o.Dries,
		})
		l.weight = append(l.weight, 0)
	}
	for _, o := range l.Own {
		i := slices.IndexFunc(l.all, func(t Task) bool { return t.ID == "own/"+o.ID })
		for _, a := range o.After {
			k := slices.IndexFunc(l.all, func(t Task) bool { return t.ID == a || t.ID == "own/"+a })
			if k >= 0 {
				l.all[i].After = append(l.all[i].After, k)
			}
		}
	}
}

// Plan orders the tasks, from a minute on.
func (d Day) Plan(w Work, now int) (Order, error) { return Arrange(w.Tasks, d.calendar(), now) }
