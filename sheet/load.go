package sheet

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/load"
)

// Load is what to take along for some doors, or what to order for them. Its sentences speak in
// the job's unit.
type Load struct {
	Doors    []string      `json:"doors" doc:"By name, in the order of the walk."`
	Groups   []LoadGroup   `json:"groups" doc:"In the order of loading; those with nothing in them are left out."`
	Cutting  []LoadCut     `json:"cutting" doc:"Slabs that are still to be cut."`
	Settings []LoadSetting `json:"settings" doc:"What is set once for several doors."`
	Open     []LoadOpen    `json:"open" doc:"What cannot be counted yet, and why."`
}

// LoadGroup is one heading of it.
type LoadGroup struct {
	Kind  load.Kind  `json:"kind"`
	Name  string     `json:"name"`
	Items []LoadItem `json:"items"`
}

// LoadItem is one line.
type LoadItem struct {
	ID    string   `json:"id" doc:"The same in any words."`
	Name  string   `json:"name"`
	Note  string   `json:"note"`
	Count int      `json:"count" doc:"Nought where one does for all the doors."`
	Doors []string `json:"doors"`
}

// LoadCut is one slab of the cutting list.
type LoadCut struct {
	Door   string `json:"door"`
	Slab   string `json:"slab"`
	Head   Text   `json:"head" doc:"Most off the edge."`
	Hinge  Text   `json:"hinge"`
	Lock   Text   `json:"lock"`
	Foot   Text   `json:"foot"`
	Width  Text   `json:"width" doc:"After the first cut, at its widest."`
	Length Text   `json:"length"`
	Left   bool   `json:"left" doc:"Something is left on for the next try."`
}

// LoadSetting is set once.
type LoadSetting struct {
	What  string   `json:"what"`
	To    string   `json:"to"`
	Doors []string `json:"doors"`
}

// LoadOpen is a door of which something cannot be counted yet.
type LoadOpen struct {
	Door string `json:"door"`
	Why  string `json:"why"`
}

// LoadFor is the list for the doors of a job, after each of which it calls told. It fails as Each does.
func LoadFor(ctx context.Context, j job.Job, told func()) (Load, error) {
	c := load.NewCounter(j)
	err := Each(ctx, j, func(d load.Door) error {
		c.Add(d)
		told()
		return nil
	})
	return LoadOf(j, c.List()), err
}

// LoadOf is a list in its JSON form.
func LoadOf(j job.Job, l load.List) Load {
	p := newPrinter(j)
	v := Load{Doors: append([]string{}, l.Doors...), Groups: []LoadGroup{}, Cutting: []LoadCut{}, Settings: []LoadSetting{}, Open: []LoadOpen{}}
	for _, h := range load.Headings {
		g := LoadGroup{h.Kind, p.voice.Text(h.Name()), []LoadItem{}}
		for _, i := range l.Items {
			if i.Kind == h.Kind {
				g.Items = append(g.Items, LoadItem{i.Name.String(), p.voice.Say(i.Name), strings.Join(p.say(i.Note), "; "), i.Count, i.Doors})
			}
		}
		slices.SortStableFunc(g.Items, func(a, b LoadItem) int { return cmp.Compare(a.Name, b.Name) })
		if len(g.Items) > 0 {
			v.Groups = append(v.Groups, g)
		}
	}
	for _, c := range l.Cutting {
		v.Cutting = append(v.Cutting, LoadCut{
			p.voice.Say(c.Door), p.voice.Word(c.Slab), p.marked(c.Off[frame.Head]), p.marked(c.Off[frame.Hinge]), p.marked(c.Off[frame.Lock]), p.marked(c.Off[frame.Foot]),
			p.marked(c.Width), p.marked(c.Length), c.Left,
		})
	}
	for _, s := range l.Settings {
		v.Settings = append(v.Settings, LoadSetting{p.voice.Say(s.What), p.voice.Say(s.To), s.Doors})
	}
	for _, o := range l.Open {
		v.Open = append(v.Open, LoadOpen{p.voice.Say(o.Door), p.voice.Say(o.Why)})
	}
	return v
}
