package api

import (
	"runtime"
	"sync"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/plan"
	"kindmargin/sheet"
	"kindmargin/store"
)

// doorCache holds doors as they are met on the walk, so that a walk works out
// only those that have changed since it was last taken.
type doorCache struct {
	sync.Mutex
	held map[doorKey]Door
}

// doorKey names a door as it stands: the change it stands at, and the version
// of its job's head, whose unit and tape it is shown in.
type doorKey struct {
	job, opening string
	change, head int64
}

// mostHeld is how many doors are held, at some kilobytes each; past it the
// cache begins anew.
const mostHeld = 2 * job.MostOpenings

func newDoorCache() *doorCache { return &doorCache{held: map[doorKey]Door{}} }

func (c *doorCache) has(k doorKey) bool {
	c.Lock()
	defer c.Unlock()
	_, ok := c.held[k]
	return ok
}

// of gives the doors of a walk; those not held are worked out on every processor.
func (c *doorCache) of(head store.Head, list []store.Kept) []Door {
	doors := make([]Door, len(list))
	var wg sync.WaitGroup
	next := make(chan int)
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			for i := range next {
				k := list[i]
				key := doorKey{head.ID, k.Opening.ID, k.Version, head.Version}
				c.Lock()
				d, ok := c.held[key]
				c.Unlock()
				if !ok {
					d = doorOf(head.Job(), k)
					c.Lock()
					if len(c.held) >= mostHeld {
						clear(c.held)
					}
					c.held[key] = d
					c.Unlock()
				}
				doors[i] = d
			}
		})
	}
	for i := range list {
		next <- i
	}
	close(next)
	wg.Wait()
	return doors
}

func doorOf(j job.Job, k store.Kept) Door {
	o := k.Opening
	if k.Broken != nil {
		return Door{
			ID: o.ID, Version: k.Version, Name: o.Name, Hand: frame.Left, Rod: []sheet.Notch{},
			Stops: []string{"What is kept of this door cannot be read: the data file is damaged there. Run kindmargin check, and take the door from a backup."},
		}
	}
	p := plan.Solve(j, o)
	door := Door{ID: o.ID, Version: k.Version, Name: o.Name, Room: o.Room, Hand: o.Hand, Next: p.Next, Rod: []sheet.Notch{}, Stops: []string{}}
	for _, n := range p.Notches {
		door.Rod = append(door.Rod, sheet.Notch(n))
	}
	for _, f := range p.All() {
		if f.Gravity == plan.Stop {
			door.Stops = append(door.Stops, f.Words(j.Unit, j.Tape))
		}
	}
	if d := p.Leaves[0].Drawing; d != nil {
		door.Drawing = sheet.Draw(*d)
		if found := sheet.Found(p.Leaves[0].Try, d); len(found) > 0 && len(p.Leaves) == 1 { // it hangs: its light is as it was found
			door.Drawing.Light, door.Drawing.Hollow = found, []float64{}
		}
	}
	return door
}
