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

// patience is how long the walk waits for plans that are not computed yet: the rest is computed meanwhile, and comes
// with the next request.
const patience = 60 * time.Millisecond

// planCache caches openings as the walk shows them, so that only changed ones are planned again.
type planCache struct {
	log  *slog.Logger
	work func(job.Job, store.Kept) met // metOf
	sync.Mutex
	held     map[planKey]met
	underway map[planKey]bool
	era      int // what was begun before a restore is not held after it
}

// met is an opening as the walk shows it, and its drawing apart.
type met struct {
	OpeningRow
	drawing *document.DrawingView
}

// planKey is a cache key: the opening's change, and the version of its job's head, whose unit and tape it is shown in.
type planKey struct {
	job, opening string
	change, head int64
}

func keyOf(u store.Unread) planKey {
	return planKey{u.Job.ID, u.ID, u.Version, u.Job.Version}
}

// mostHeld is the largest number of cached openings, at some kilobytes each; above it the cache is cleared.
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

// forget clears the cache, after a restore.
func (c *planCache) forget() {
	c.Lock()
	defer c.Unlock()
	c.era++
	clear(c.held)
	clear(c.underway)
}

// of returns the openings of a walk. Missing ones are planned in parallel; those that are not ready after patience are
// marked as being worked out.
func (c *planCache) of(list []store.Unread, patience time.Duration) (rows []met) {
	c.Lock()
	era := c.era
	var missing []store.Unread
	for _, k := range list {
		key := keyOf(k)
		// One that was evicted since the walk was read comes with the next request.
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
		rows = append(rows, d)
	}
	return rows
}

// one returns one opening, planned here where it is not cached.
func (c *planCache) one(k store.Kept) met {
	c.Lock()
	d, ok := c.held[planKey{k.Job.ID, k.Opening.ID, k.Version, k.Job.Version}]
	c.Unlock()
	if !ok {
		d = c.metOf(k)
	}
	return d
}

// metOf plans an opening. A panic is reported for that opening alone.
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

// stopped is an opening that cannot be planned, with why.
func stopped(k store.Kept, why message.ID) OpeningRow {
	return OpeningRow{
		ID: k.Opening.ID, Version: k.Version, Name: k.Opening.Name, Room: k.Opening.Room, Hand: frame.Left,
		Steps: []plan.State{}, Stops: []string{document.Voice(k.Job.Job()).Text(why)},
	}
}

// workOut plans openings and caches them.
func (c *planCache) workOut(list []store.Unread, era int) {
	// It is not bound to a request's context: others wait for the same plans.
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

// mostSaid is the largest number of findings of an opening on the walk.
const mostSaid = 3

func rowOf(j job.Job, k store.Kept) met {
	o := k.Opening
	if k.Broken != nil {
		return met{OpeningRow: stopped(k, "api.door-damaged")}
	}
	row := OpeningRow{
		ID: o.ID, Version: k.Version, Name: o.Name, Room: o.Room, Hand: o.Hand, Steps: []plan.State{}, Stops: []string{},
	}
	p, voice := plan.Solve(j, o), document.Voice(j)
	row.Next, row.Signed = p.Next, o.Signed != nil
	if o.Slab.Width > 0 {
		row.Slab = j.Tape.Show(o.Slab.Width) + " × " + j.Tape.Show(o.Slab.Length)
	}
	for _, n := range p.Steps {
		row.Steps = append(row.Steps, n.State)
		if n.Step == p.Next {
			row.Says, row.Now = voice.Text(n.Says), n.State != plan.Waits
		}
	}
	for _, f := range p.All() {
		switch {
		case f.Gravity == site.Care:
			row.Cares++
		case f.Gravity != site.Stop:
		case len(row.Stops) < mostSaid:
			row.Stops = append(row.Stops, document.Voice(j).Say(f.Message()))
		}
		if f.Gravity == site.Stop && f.Step == p.Next {
			row.Now = false
		}
	}
	d := p.Leaves[0].Drawing
	if d == nil {
		return met{OpeningRow: row}
	}
	drawing := document.Draw(*d)
	// it hangs: its gaps as they were found
	if found := document.Found(p.Leaves[0].Try, d); len(found) > 0 && len(p.Leaves) == 1 {
		drawing.Light, drawing.Hollow = found, []float64{}
	}
	row.Drawn = true
	return met{row, drawing}
}
