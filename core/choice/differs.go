package choice

import (
	"reflect"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/trade"
)

// choice is one choice of an opening: its name, and its value as a message argument.
type choice struct {
	what message.ID
	is   any
}

// Differs lists how a part of two openings' choices differs; it is empty where they are equal.
func Differs(j job.Job, p job.Part, from, to job.Opening) (list []message.Message) {
	a, b := choicesOf(j, p, from), choicesOf(j, p, to)
	for i := range a {
		if !reflect.DeepEqual(a[i].is, b[i].is) {
			list = append(list, message.Message{
				ID: "differs.change", Args: message.Args{"what": a[i].what, "from": a[i].is, "to": b[i].is},
			})
		}
	}
	return list
}

// choicesOf lists the choices of a part, the same ones in the same order for every opening.
func choicesOf(j job.Job, p job.Part, o job.Opening) []choice {
	switch p {
	case job.PartMargins:
		return marginChoices(o.Margins)
	case job.PartHinges:
		return hingeChoices(j, o.Hinges)
	case job.PartLock:
		return lockChoices(j, o.Lock)
	case job.PartSeason:
		return seasonChoices(o.Season)
	}
	return nil
}

func marginChoices(m job.Margins) []choice {
	school, _ := trade.SchoolByID(m.School)
	list := []choice{{"choices.margins", school.Name()}}
	for _, side := range frame.Sides {
		var is any = message.ID("differs.by-school")
		if own := m.Own(side); own != nil {
			is = message.Exact(*own)
		}
		list = append(list, choice{"size.margin-" + message.ID(side.String()), is})
	}
	return append(
		list, choice{"differs.least", message.Exact(m.Least)}, choice{"differs.uneven", message.Exact(m.Uneven)},
		choice{"differs.paint", message.Exact(m.Paint)},
	)
}

func seasonChoices(c season.Choice) []choice {
	widest, sealed := trade.WidestLight, message.ID("differs.not-sealed")
	var air any = message.ID("differs.not-measured")
	if c.Air != nil {
		air = message.Message{
			ID:   "differs.air",
			Args: message.Args{"celsius": message.Celsius(c.Air.Celsius), "humidity": message.Percent(c.Air.Humidity)},
		}
	}
	if c.Widest > 0 {
		widest = c.Widest
	}
	if c.Sealed {
		sealed = "differs.sealed"
	}
	climate, wood := message.ID("differs.left-out"), trade.Woods[0]
	if k, ok := trade.ClimateByID(c.Climate); ok {
		climate = k.Name()
	}
	if w, ok := trade.WoodByID(c.Wood); ok {
		wood = w
	}
	return []choice{
		{"choices.season", climate},
		{"differs.wood", wood.Name()},
		{"differs.boards", Sawns.Name(c.Sawn)},
		{"differs.air-now", air},
		{"differs.month-now", message.Month(max(c.Month, 1))},
		{"differs.edges", sealed},
		{"differs.widest", message.Exact(widest)},
		{"differs.school", SeasonSchools.Name(c.School)},
	}
}

func hingeChoices(j job.Job, c hinge.Choice) []choice {
	name := message.Message{
		ID: "differs.hinge-of", Args: message.Args{"leaf": message.Exact(c.Leaf), "width": message.Exact(c.Width)},
	}
	if h, ok := j.Kit.Hinge(c.Size); ok {
		name = h.Title()
	}
	where := map[hinge.From]message.ID{
		hinge.FromPockets: "differs.pockets", hinge.OwnPlaces: "differs.own-places",
		hinge.WholeEdge: "differs.whole-edge",
	}[c.From]
	if r, ok := trade.HingeRuleByID(c.From); ok {
		where = r.Name()
	}
	third := message.ID("differs.midway")
	if c.Third == hinge.MoveUp {
		third = "differs.moved-up"
	}
	return []choice{
		{"differs.hinge", name},
		{"differs.pocket", message.Message{ID: "differs.pocket-size", Args: message.Args{
			"plate": message.Exact(c.Plate), "width": message.Exact(c.Width), "leaf": message.Exact(c.Leaf),
		}}},
		{"differs.where", where},
		{"differs.how-many", message.Number(c.Number())},
		{"differs.third", third},
	}
}

func lockChoices(j job.Job, c lock.Choice) []choice {
	name := func(id string, none message.Message) message.Message {
		if d, ok := j.Kit.HardwareByID(id); ok {
			return d.Title()
		}
		return none
	}
	var height any = message.ID("differs.strike")
	switch c.From {
	case lock.FromMiddle:
		height = message.ID("differs.slab-middle")
	case lock.FromLine:
		height = message.Message{ID: "differs.slab-line", Args: message.Args{"line": message.Exact(c.Line)}}
	case lock.FromHandle:
		height = message.Message{ID: "differs.above-floor", Args: message.Args{"handle": message.Exact(c.Handle)}}
	}
	held := message.ID("differs.held-to-none")
	if r, ok := c.HeldTo(); ok {
		held = r.Name()
	}
	when, edge := message.ID("differs.once-it-fits"), message.ID("differs.as-made")
	if c.When == lock.First {
		when = "differs.bored-first"
	}
	if c.Tight {
		edge = "differs.tight"
	}
	return []choice{
		{
			"differs.lock",
			name(c.Hardware, message.Message{
				ID: "differs.latch-bore", Args: message.Args{"bore": message.Exact(c.Bore)},
			}),
		},
		{"differs.backset", message.Exact(c.Backset)},
		{"differs.height", height},
		{"differs.held-to", held},
		{"differs.when", when},
		{"differs.edge-bored", edge},
		{"differs.second", name(c.Second, message.Message{ID: "differs.none"})},
	}
}
