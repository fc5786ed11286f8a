package api

import (
	"context"
	"fmt"
	"log/slog"
	"runtime/debug"
	"sync"
	"time"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/document"
	"kindmargin/store"
)

// patience is how long the walk of a house waits for plans that are not worked out yet: what
// is not there by then comes with the next one, and the work goes on meanwhile.
const patience = 60 * time.Millisecond

// planCache holds doors as they are met on the walk, so that a walk works out only those that
// have changed since it was last taken.
type planCache struct {
	log  *slog.Logger
	work func(job.Job, store.Kept) met // doorOf
	sync.Mutex
	held     map[planKey]met
	underway map[planKey]bool
	era      int // what was begun before a restore is not held after it
}

// met is a door as it is met on the walk, and its drawing apart.
type met struct {
	OpeningRow
	drawing *document.DrawingView
}

// planKey names a door as it stands: the change it stands at, and the version
// of its job's head, whose unit and tape it is shown in.
type planKey struct {
	job, opening string
	change, head int64
}

func keyOf(u store.Unread) planKey {
	return planKey{u.Job.ID, u.ID, u.Version, u.Job.Version}
}

// mostHeld is how many doors are held, at some kilobytes each; past it the
// cache begins anew.
const mostHeld = 2 * job.MostOpenings

func newPlanCache(log *slog.Logger) *planCache {
	return &planCache{log: log, work: rowOf, held: map[planKey]met{}, underway: map[planKey]bool{}}
}

func (c *planCache) has(k planKey) bool {
	c.Lock()
	defer c.Unlock()
	_, ok := c.held[k]
	return ok
}

// forget lets go of all, since what is kept is another now.
func (c *planCache) forget() {
	c.Lock()
	defer c.Unlock()
	c.era++
	clear(c.held)
	clear(c.underway)
}

// of gives the doors of a walk. Those not held are worked out on every processor; those that
// are not by the end of one's patience are marked as being worked out.
func (c *planCache) of(list []store.Unread, patience time.Duration) (doors []met) {
	c.Lock()
	era := c.era
	var missing []store.Unread
	for _, k := range list {
		key := keyOf(k)
		// One that was held when the walk was read, and was let go of since, comes with the next.
		if _, ok := c.held[key]; !ok && !c.underway[key] && k.Whole() {
			c.underway[key] = true
			missing = append(missing, k)
		}
	}
	c.Unlock()
	if len(missing) > 0 {
		done := make(chan struct{})
		go func() {
			defer close(done)
			c.workOut(missing, era)
		}()
		select {
		case <-done:
		case <-time.After(patience):
		}
	}
	c.Lock()
	defer c.Unlock()
	for _, k := range list {
		d, ok := c.held[keyOf(k)]
		if !ok {
			d.OpeningRow = OpeningRow{
				ID: k.ID, Version: k.Version, Name: k.Name, Room: k.Room, Hand: k.Hand, Steps: []plan.State{},
				Stops: []string{}, Working: true,
			}
		}
		doors = append(doors, d)
	}
	return doors
}

// one gives one door, worked out here where it is not held.
func (c *planCache) one(k store.Kept) met {
	c.Lock()
	d, ok := c.held[planKey{k.Job.ID, k.Opening.ID, k.Version, k.Job.Version}]
	c.Unlock()
	if !ok {
		d = c.metOf(k)
	}
	return d
}

// metOf works a door out. One whose plan panics is told as such, and hides no other.
func (c *planCache) metOf(k store.Kept) (d met) {
	defer func() {
		if p := recover(); p != nil {
			c.log.Error(
				"a door cannot be worked out", "job", k.Job.ID, "opening", k.Opening.ID, "cause",
				fmt.Sprintf("%v\n%s", p, debug.Stack()),
			)
			d = met{OpeningRow: stopped(k, "api.door-panicked")}
		}
	}()
	return c.work(k.Job.Job(), k)
}

// stopped is a door of which nothing can be told but why.
func stopped(k store.Kept, why message.ID) OpeningRow {
	return OpeningRow{
		ID: k.Opening.ID, Version: k.Version, Name: k.Opening.Name, Room: k.Opening.Room, Hand: frame.Left,
		Steps: []plan.State{}, Stops: []string{document.Voice(k.Job.Job()).Text(why)},
	}
}

// workOut works out doors and holds them.
func (c *planCache) workOut(list []store.Unread, era int) {
	// It has no end but its own: what one page asked for, others wait for.
	_ = document.Together(context.Background(), len(list), func(i int) {
		d, key := c.metOf(list[i].Read()), keyOf(list[i])
		c.Lock()
		defer c.Unlock()
		if c.era != era {
			return
		}
		if len(c.held) >= mostHeld {
			clear(c.held)
		}
		c.held[key] = d
		delete(c.underway, key)
	})
}

// mostSaid is how much of what stops a door is told on the walk.
const mostSaid = 3

func rowOf(j job.Job, k store.Kept) met {
	o := k.Opening
	if k.Broken != nil {
		return met{OpeningRow: stopped(k, "api.door-damaged")}
	}
	door := OpeningRow{
		ID: o.ID, Version: k.Version, Name: o.Name, Room: o.Room, Hand: o.Hand, Steps: []plan.State{}, Stops: []string{},
	}
	p, voice := plan.Solve(j, o), document.Voice(j)
	door.Next, door.Signed = p.Next, o.Signed != nil
	if o.Slab.Width > 0 {
		door.Slab = j.Tape.Show(o.Slab.Width) + " × " + j.Tape.Show(o.Slab.Length)
	}
	for _, n := range p.Steps {
		door.Steps = append(door.Steps, n.State)
		if n.Step == p.Next {
			door.Says, door.Now = voice.Text(n.Says), n.State != plan.Waits
		}
	}
	for _, f := range p.All() {
		switch {
		case f.Gravity == site.Care:
			door.Cares++
		case f.Gravity != site.Stop:
		case len(door.Stops) < mostSaid:
			door.Stops = append(door.Stops, document.Voice(j).Say(f.Message()))
		}
		if f.Gravity == site.Stop && f.Step == p.Next {
			door.Now = false
		}
	}
	d := p.Leaves[0].Drawing
	if d == nil {
		return met{OpeningRow: door}
	}
	drawing := document.Draw(*d)
	// it hangs: its light is as it was found
	if found := document.Found(p.Leaves[0].Try, d); len(found) > 0 && len(p.Leaves) == 1 {
		drawing.Light, drawing.Hollow = found, []float64{}
	}
	door.Drawn = true
	return met{door, drawing}
}
