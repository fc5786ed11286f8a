package document

import (
	"cmp"
	"context"
	"math"
	"slices"
	"strings"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/saves"
)

// Load is what to take along for some openings, or what to order for them, in the job's unit.
type Load struct {
	Openings []string      `json:"openings" doc:"By name, in the order of the walk."`
	Groups   []LoadGroup   `json:"groups" doc:"In the order of loading; those with nothing in them are left out."`
	Cutting  []LoadCut     `json:"cutting" doc:"Slabs that are still to be cut."`
	Settings []LoadSetting `json:"settings" doc:"What is set once for several openings."`
	Open     []LoadOpen    `json:"open" doc:"What cannot be counted yet, and why."`
	Off      []OffOf       `json:"off" doc:"Doors that hang, in the order in which they come off to be sprayed."`
	Spray    []string      `json:"spray" doc:"How that is done, in words; empty where no door hangs."`
	Saves    []SavingOf    `json:"saves" doc:"Jigs, bored slabs, another latch: what each saves here; the most first."`
}

// LoadGroup is one heading of it.
type LoadGroup struct {
	Kind  load.Kind  `json:"kind"`
	Name  string     `json:"name"`
	Items []LoadItem `json:"items"`
}

// LoadItem is one line.
type LoadItem struct {
	ID       string   `json:"id" doc:"The same in any words."`
	Name     string   `json:"name"`
	Note     string   `json:"note"`
	Count    int      `json:"count" doc:"Nought where one does for all the openings."`
	Openings []string `json:"openings"`
}

// LoadCut is one slab of the cutting list.
type LoadCut struct {
	Opening string `json:"opening"`
	Slab    string `json:"slab"`
	Head    Text   `json:"head" doc:"Most off the edge."`
	Hinge   Text   `json:"hinge"`
	Lock    Text   `json:"lock"`
	Foot    Text   `json:"foot"`
	Width   Text   `json:"width" doc:"After the first cut, at its widest."`
	Length  Text   `json:"length"`
	Left    bool   `json:"left" doc:"Something is left on for the next try."`
}

// LoadSetting is a tool setting for several openings.
type LoadSetting struct {
	What     string   `json:"what"`
	To       string   `json:"to"`
	Openings []string `json:"openings"`
}

// OffOf is a door that comes off to be sprayed.
type OffOf struct {
	Number  int    `json:"number" doc:"That it is marked by."`
	Opening string `json:"opening"`
	Weight  string `json:"weight"`
	Two     bool   `json:"two" doc:"Two are safer with it."`
}

// SavingOf is a way to save minutes at some openings.
type SavingOf struct {
	ID       string   `json:"id"`
	Says     string   `json:"says"`
	Minutes  float64  `json:"minutes" doc:"Saved at all of them, less what it takes; below nought where it does not pay."`
	Openings []string `json:"openings"`
}

// savings are ways to save minutes in words.
func (p printer) savings(list []saves.Saving) []SavingOf {
	v := []SavingOf{}
	for _, s := range list {
		v = append(v, SavingOf{s.ID, p.voice.Say(s.Says), math.Round(s.Minutes), s.Openings})
	}
	return v
}

// LoadOpen is an opening with something that cannot be counted yet.
type LoadOpen struct {
	Opening string `json:"opening"`
	Why     string `json:"why"`
}

// LoadFor is the list for the openings of a job; it calls told after each. It fails as Each does.
func LoadFor(ctx context.Context, j job.Job, log saves.Log, told func()) (Load, error) {
	c := load.NewCounter(j, log)
	err := Each(ctx, j, func(d load.Opening) error {
		c.Add(d)
		told()
		return nil
	})
	return LoadOf(j, c.List()), err
}

// LoadOf is a list in its JSON form.
func LoadOf(j job.Job, l load.List) Load {
	p := newPrinter(j)
	v := Load{
		Openings: append([]string{}, l.Openings...), Groups: []LoadGroup{}, Cutting: []LoadCut{}, Settings: []LoadSetting{},
		Open: []LoadOpen{}, Saves: p.savings(l.Saves), Off: []OffOf{}, Spray: p.say(l.Spray),
	}
	for _, o := range l.Off {
		v.Off = append(v.Off, OffOf{o.Number, p.voice.Say(o.Opening), p.weight(o.Weight), o.Two})
	}
	for _, h := range load.Headings {
		g := LoadGroup{h.Kind, p.voice.Text(h.Name()), []LoadItem{}}
		for _, i := range l.Items {
			if i.Kind == h.Kind {
				g.Items = append(g.Items, LoadItem{
					ID: i.Name.String(), Name: p.voice.Say(i.Name), Note: strings.Join(p.say(i.Note), "; "),
					Count: i.Count, Openings: i.Openings,
				})
			}
		}
		slices.SortStableFunc(g.Items, func(a, b LoadItem) int { return cmp.Compare(a.Name, b.Name) })
		if len(g.Items) > 0 {
			v.Groups = append(v.Groups, g)
		}
	}
	for _, c := range l.Cutting {
		v.Cutting = append(v.Cutting, LoadCut{
			Opening: p.voice.Say(c.Opening), Slab: p.voice.Word(c.Slab), Head: p.marked(c.Off[frame.Head]),
			Hinge: p.marked(c.Off[frame.Hinge]), Lock: p.marked(c.Off[frame.Lock]), Foot: p.marked(c.Off[frame.Foot]),
			Width: p.marked(c.Width), Length: p.marked(c.Length), Left: c.Left,
		})
	}
	for _, s := range l.Settings {
		v.Settings = append(v.Settings, LoadSetting{p.voice.Say(s.What), p.voice.Say(s.To), s.Openings})
	}
	for _, o := range l.Open {
		v.Open = append(v.Open, LoadOpen{p.voice.Say(o.Opening), p.voice.Say(o.Why)})
	}
	return v
}
