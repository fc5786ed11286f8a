package plan

import (
	"strconv"
	"time"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/season"
	"kindmargin/core/trade"
)

// choice is one choice of a door, in words.
type choice struct{ what, is string }

// Differs tells how a part of two doors' choices differs, each as "what: this → that", in the
// job's unit; nothing where it does not.
func Differs(j job.Job, p job.Part, from, to job.Opening) (list []string) {
	a, b := choicesOf(j, p, from), choicesOf(j, p, to)
	for i := range a {
		if a[i].is != b[i].is {
			list = append(list, a[i].what+": "+a[i].is+" → "+b[i].is)
		}
	}
	return list
}

// choicesOf puts a part of a door's choices in words; the same ones for every door.
func choicesOf(j job.Job, p job.Part, o job.Opening) []choice {
	say := func(l measure.Length) string { return measure.Say(l, j.Unit) }
	switch p {
	case job.PartMargins:
		return marginChoices(o.Margins, say)
	case job.PartHinges:
		return hingeChoices(j, o.Hinges, say)
	case job.PartLock:
		return lockChoices(j, o.Lock, say)
	case job.PartSeason:
		return seasonChoices(j, o.Season, say)
	}
	return nil
}

func marginChoices(m job.Margins, say func(measure.Length) string) []choice {
	school, _ := trade.SchoolByID(m.School)
	list := []choice{{"margins", school.Name}}
	for _, side := range frame.Sides {
		is := "by the school"
		if own := m.Own(side); own != nil {
			is = say(*own)
		}
		list = append(list, choice{side.String() + " margin", is})
	}
	return append(list, choice{"least margin", say(m.Least)}, choice{"unevenness", say(m.Uneven)}, choice{"paint to come", say(m.Paint)})
}

func seasonChoices(j job.Job, c season.Choice, say func(measure.Length) string) []choice {
	air, widest, sealed := "not read", trade.WidestLight, "not sealed"
	if c.Air != nil {
		air = c.Air.Text(j.Unit)
	}
	if c.Widest > 0 {
		widest = c.Widest
	}
	if c.Sealed {
		sealed = "sealed all round"
	}
	climate, wood := "left out", trade.Woods[0]
	if k, ok := trade.ClimateByID(c.Climate); ok {
		climate = k.Name
	}
	if w, ok := trade.WoodByID(c.Wood); ok {
		wood = w
	}
	return []choice{
		{"seasons", climate},
		{"wood", wood.Name},
		{"boards", named(Sawns, c.Sawn).Name},
		{"air now", air},
		{"month now", time.Month(max(c.Month, 1)).String()},
		{"edges", sealed},
		{"widest light", say(widest)},
		{"foretold", named(SeasonSchools, c.School).Name},
	}
}

func hingeChoices(j job.Job, c hinge.Choice, say func(measure.Length) string) []choice {
	name := "one of " + say(c.Leaf) + " by " + say(c.Width)
	if h, ok := j.Kit.Hinge(c.Size); ok {
		name = h.Name
	}
	where := map[string]string{hinge.FromPockets: "the pockets in the jamb", hinge.OwnPlaces: "places of one's own", hinge.WholeEdge: "along the whole edge"}[c.From]
	if r, ok := trade.HingeRuleByID(c.From); ok {
		where = r.Name
	}
	third := "midway"
	if c.Third == hinge.MoveUp {
		third = "moved up"
	}
	return []choice{
		{"hinge", name},
		{"pocket", say(c.Plate) + " deep, " + say(c.Width) + " wide, leaf " + say(c.Leaf)},
		{"where", where},
		{"how many", strconv.Itoa(HingesOf(c))},
		{"third hinge", third},
	}
}

func lockChoices(j job.Job, c lock.Choice, say func(measure.Length) string) []choice {
	name := func(id, none string) string {
		if d, ok := j.Kit.Device(id); ok {
			return d.Name
		}
		return none
	}
	height := "the strike in the jamb"
	if c.From == lock.FromHandle {
		height = say(c.Handle) + " above the floor"
	}
	held := "nothing"
	if r, ok := c.HeldTo(); ok {
		held = r.Name
	}
	return []choice{
		{"lock", name(c.Device, "a latch, bore "+say(c.Bore))},
		{"backset", say(c.Backset)},
		{"height by", height},
		{"height held to", held},
		{"second one", name(c.Second, "none")},
	}
}
