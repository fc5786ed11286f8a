package day

import (
	"math"
	"slices"
	"strconv"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// Opening is an opening with its plan.
type Opening = plan.Opening

// Log is how many minutes a house's openings took at a step, of those that were timed.
type Log map[job.Step]float64

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
		ends, ok := l.leaf(d, i, measured)
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

// leaf lists the tasks of a leaf before its paint, and returns the last ones; ok is false where its slab has to
// acclimatise in the room for longer than is planned.
func (l *listing) leaf(d Opening, n int, measured []int) (last []int, ok bool) {
	v, s, name := d.Plan.Leaves[n], d.Slab, message.ID("")
	if n == 1 {
		s = d.Pair.Slab
	}
	if d.Pair != nil {
		name = []message.ID{"day.leaf-on-hinge-jamb", "day.leaf-on-lock-jamb"}[n]
	}
	var tried job.Tried
	if n < len(d.Tried) {
		tried = d.Tried[n]
	}
	cut, hung := tried.Made != nil || d.Plan.Done(job.StepCut), len(tried.Hangs) > 0
	id := func(work string) string {
		if n == 1 {
			return work + "-lock-leaf"
		}
		return work
	}
	weight := s.Weight()
	add := func(work string, each int, tool Setting, lifts float64, after ...[]int) []int {
		got := l.add(d, piece{id(work), work, each, tool, lifts}, slices.Concat(after...))
		if t := &l.all[got[0]]; name != "" {
			t.Name = message.Message{ID: name, Args: message.Args{"work": t.Name}}
		}
		return got
	}

	shaped := measured
	if !cut {
		if shaped, ok = l.shaping(d, v, weight, add, measured); !ok {
			return nil, false
		}
	}
	ready := [][]int{shaped}
	if !cut {
		ready = append(ready, add("seal", 0, settingOf("brush", "sealer"), 0, shaped))
	}
	if !hung && !d.Plan.Done(job.StepHinges) {
		ready = append(ready, l.hinges(d, v, s, add, before{measured, shaped})...)
	}
	// A lock is bored once the slab fits, and on the trestles only where that was chosen; a slab that came bored gets its
	// case.
	locks, bores := v.Strike && !d.Plan.Done(job.StepLock), "bores"
	if s.Handle > 0 && s.IsMachined(frame.Lock) {
		bores = "case"
	}
	bore := func(after ...[]int) []int {
		return add(bores, max(len(v.Hardware), 1), l.hardware("drill", d.Lock.Hardware), 0, after...)
	}
	var bored []int
	first := d.Lock.When == lock.First && bores == "bores"
	if locks && first {
		bored = bore(shaped)
		ready = append(ready, bored)
	}
	var hangs, fits []int
	if !hung && !l.two && weight > trade.MostAlone {
		l.held = append(l.held, Held{
			d.Name, message.Message{ID: "day.waits-second", Args: message.Args{"weight": message.Mass(weight)}},
		})
		return nil, false
	}
	if !hung {
		hangs = add("hang", len(v.Hinges), Setting{}, weight, ready...)
	}
	if !d.Plan.Done(job.StepTry) {
		fits = add("try", 0, Setting{}, weight, hangs)
		k := &l.all[fits[0]]
		k.Minutes += int(math.Round(d.Plan.Trip * l.job.Kit.TripMinutes()))
		last = fits
	}
	if locks && !first {
		bored = bore(fits, hangs)
		l.all[bored[0]].Place = trade.AtOpening
	}
	if locks {
		last = add("strike", max(len(v.Hardware), 1), l.hardware("bush", d.Lock.Hardware), 0, fits, hangs, bored)
	}
	if !d.Plan.Done(job.StepStops) {
		last = add("stops", 0, Setting{}, 0, fits, hangs, last)
	}
	return last, true
}

// adder returns a function that adds a task of a leaf: its work, how many carpenters it takes, its setting, the weight
// lifted in kg, and the tasks that it waits for.
type adder func(work string, each int, tool Setting, lifts float64, after ...[]int) []int

// shaping lists the tasks that cut a slab to its outline, and returns the last ones; ok is as for leaf.
func (l *listing) shaping(d Opening, v plan.Leaf, weight float64, add adder, measured []int) (shaped []int, ok bool) {
	lain := measured
	if v.Season != nil && v.Season.Lie > 0 {
		lain = add("lie", 0, Setting{}, weight)
		k := &l.all[lain[0]]
		k.Dries = v.Season.Lie * dayMinutes
		if k.Dries > LongestWait {
			l.held = append(l.held, Held{
				d.Name, message.Message{ID: "day.lies", Args: message.Args{"days": message.Count(v.Season.Lie)}},
			})
			k.Dries = 0
			return nil, false
		}
	}
	edges, tool := edgesCut(v)
	shaped = add("cut", edges, tool, weight, measured, lain)
	open := 0
	if v.Cut != nil {
		for _, in := range v.Cut.Inserts {
			open += len(in.Ends)
		}
	}
	if open > 0 {
		shaped = add("insert", open, settingOf("glue", "insert"), 0, shaped)
		if l.Clamps {
			l.all[shaped[0]].Dries = trade.ClampMinutes
		}
	}
	return shaped, true
}

// before are the last tasks that the hinges wait for.
type before struct{ measured, shaped []int }

// hinges lists the tasks that let in a leaf's hinges, on slab and jamb.
func (l *listing) hinges(d Opening, v plan.Leaf, s slab.Slab, add adder, b before) (ready [][]int) {
	measured, shaped := b.measured, b.shaped
	count := max(len(v.Hinges), d.Hinges.Count)
	var depth measure.Length
	if v.Gauges.Depth.Value > 0 {
		depth = v.Gauges.Depth.Value
	}
	tool := Setting{
		"router", depth.String(), message.Message{ID: "sets.router", Args: message.Args{"deep": message.Exact(depth)}},
	}
	fills := 0
	for _, f := range v.Findings {
		if f.Code == site.PocketFill {
			fills++
		}
	}
	var filled []int
	if fills > 0 {
		filled = add("fill", fills, settingOf("filler", "wood"), 0, measured)
		ready = append(ready, filled)
	}
	if !s.IsMachined(frame.Hinge) {
		ready = append(ready, add("pockets", count, tool, 0, shaped))
	}
	if d.Hinges.From != hinge.FromPockets || fills > 0 {
		ready = append(ready, add("jamb", count, tool, 0, measured, filled))
	}
	return ready
}

// edgesCut is the number of edges of a leaf that are cut, and the tool for it.
func edgesCut(v plan.Leaf) (edges int, tool Setting) {
	if v.Cut == nil {
		return 4, settingOf("saw", "guide")
	}
	tool = settingOf("plane", "power")
	for e := range v.Cut.InOrder() {
		var deepest measure.Length
		for _, m := range e.Marks {
			deepest = max(deepest, m.Depth.Value)
		}
		if deepest > 0 {
			edges++
		}
		if deepest >= trade.SawFrom {
			tool = settingOf("saw", "guide")
		}
	}
	return edges, tool
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
		Minutes: int(math.Ceil((w.Minutes + w.Each*float64(p.each)) * l.pace(job.Step(w.Step)))),
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
	t.Alone, t.Minutes = w.Lone(), t.Minutes+int(math.Ceil(w.Alone))
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

// pace is the ratio of this house's logged minutes at a step to the table's for an ordinary opening with two hinges,
// clamped to between a third and three; 1 without a log.
func (l *listing) pace(step job.Step) float64 {
	own := l.log[step]
	if own <= 0 {
		return 1
	}
	var usual float64
	for _, w := range trade.Works {
		if w.Step == string(step) && w.ID != "lie" && w.ID != "fill" && w.ID != "insert" && w.ID != "coat" && w.ID != "case" && w.ID != "service" {
			usual += w.Minutes + 2*w.Each
		}
	}
	return min(max(own/usual, 1.0/3), 3)
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
	return w, bad.Err()
}

// Plan orders the tasks, from a minute on.
func (d Day) Plan(w Work, now int) (Order, error) { return Arrange(w.Tasks, d.calendar(), now) }
