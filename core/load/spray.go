package load

import (
	"cmp"
	"slices"

	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Off is a door that hangs and comes off to be sprayed, with the number that it is marked by.
type Off struct {
	Number  int
	Opening message.Message
	Weight  float64 // kg
	Two     bool    // two are safer with it
	last    bool    // it closes a room that is missed: off last, back first
}

// sprayed adds a leaf that hangs; a rated one stays as its certificate says.
func (c *Counter) sprayed(l leaf) {
	hangs := l.hung || l.Service != nil
	if !hangs || l.slab.Construction == "rated" || l.slab.Width == 0 {
		return
	}
	weight := l.slab.Weight()
	known, _ := c.job.Kit.HardwareByID(l.Opening.Lock.Hardware)
	c.off = append(c.off, Off{
		Opening: l.name, Weight: weight, Two: weight > trade.TwoPeople, last: known.Kind == "bathroom",
	})
	if s := l.Season; s != nil {
		c.wet = message.Month(s.Wet)
	}
}

// spray are the doors in the order in which they come off: heavy ones first, while two are there, then in the order of
// the walk; bathrooms last. Common practice.
func (c *Counter) spray() (list []Off, steps []message.Message) {
	if len(c.off) == 0 {
		return nil, nil
	}
	list = slices.Clone(c.off)
	rank := func(o Off) int {
		switch {
		case o.last:
			return 2
		case o.Two:
			return 0
		}
		return 1
	}
	slices.SortStableFunc(list, func(a, b Off) int { return cmp.Compare(rank(a), rank(b)) })
	for i := range list {
		list[i].Number = i + 1
	}
	put := func(id message.ID, args message.Args) { steps = append(steps, message.Message{ID: id, Args: args}) }
	coat, _ := trade.WorkByID("coat")
	put("spray.season", nil)
	order := message.ID("spray.order")
	if list[len(list)-1].last {
		order = "spray.order-bathroom"
	}
	put(order, nil)
	put("spray.mark", nil)
	put("spray.off", nil)
	put("spray.flat", nil)
	put("spray.back", message.Args{"dries": message.Lasting(coat.Dries)})
	if c.wet > 0 {
		put("spray.wet", message.Args{"wet": c.wet})
	}
	put("spray.read", nil)
	return list, steps
}
