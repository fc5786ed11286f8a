package document

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/stage/linings"
)

// LiningOf is a frame that is made to the slab.
type LiningOf struct {
	Width   Figure      `json:"width" doc:"Clear, between its jambs."`
	Height  Figure      `json:"height" doc:"Clear, from the floor that is there to its head."`
	Parts   []PartOf    `json:"parts" doc:"The cut list."`
	Housing Length      `json:"housing" doc:"How deep the head is housed; nought for not."`
	Rip     []RipOf     `json:"rip" doc:"How wide each lining is ripped; empty until the wall was measured at all six places."`
	Taper   bool        `json:"taper" doc:"They are ripped to a taper."`
	Packs   []PackingOf `json:"packs" doc:"Where it is packed off the wall; empty until the rough opening was measured, and where it does not go in."`
	Feet    []FootOf    `json:"feet" doc:"Of a set: what is cut off the foot of each leg; empty until its legs were measured."`
	Set     bool        `json:"set" doc:"It comes with its slab hung in it."`
	Steps   []string    `json:"steps" doc:"How it is made and set, in words, in their order."`
}

// FootOf is what is cut off the foot of one leg of a set; below nought it is packed up.
type FootOf struct {
	Side frame.Side `json:"side"`
	Off  Length     `json:"off"`
}

// PartOf is a line of the cut list.
type PartOf struct {
	ID    string `json:"id" doc:"The same in any words."`
	Name  string `json:"name"`
	Count int    `json:"count"`
	Long  Length `json:"long"`
	Wide  Length `json:"wide" doc:"At its widest; nought until the wall was measured."`
	Thick Length `json:"thick"`
	Note  string `json:"note"`
}

// RipOf is the widths to which one lining is ripped.
type RipOf struct {
	Name  string   `json:"name"`
	Marks []Length `json:"marks" doc:"Foot, middle and head; of the head, at the hinge jamb and at the lock jamb."`
}

// PackingOf is a place of the frame's packing.
type PackingOf struct {
	Side  frame.Side `json:"side"`
	Up    Length     `json:"up" doc:"From the floor."`
	What  string     `json:"what" doc:"What it stands behind."`
	Thick Length     `json:"thick" doc:"About."`
}

func (p printer) lining(l linings.Lining) *LiningOf {
	v := &LiningOf{
		Width: p.fine(l.Width), Height: p.fine(l.Height), Parts: []PartOf{}, Housing: p.length(l.House), Rip: []RipOf{},
		Taper: l.Taper, Packs: []PackingOf{}, Feet: []FootOf{}, Set: l.Set, Steps: p.say(l.Steps),
	}
	if l.Feet != (frame.Each[measure.Length]{}) {
		for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
			v.Feet = append(v.Feet, FootOf{side, p.length(l.Feet[side])})
		}
	}
	for _, x := range l.Parts {
		v.Parts = append(v.Parts, PartOf{
			ID: string(x.Name), Name: p.voice.Text(x.Name), Count: x.Count, Long: p.length(x.Long),
			Wide: p.length(x.Wide), Thick: p.length(x.Thick), Note: p.maybe(message.Message{ID: x.Note}),
		})
	}
	if l.Walls {
		rip := func(side frame.Side, list ...Length) {
			v.Rip = append(v.Rip, RipOf{p.voice.Word(message.Wall(side)), list})
		}
		for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
			r := l.Rip[side]
			rip(side, p.length(r[0]), p.length(r[1]), p.length(r[2]))
		}
		rip(frame.Head, p.length(l.RipEnd[0]), p.length(l.RipEnd[1]))
	}
	for _, x := range l.Packs {
		v.Packs = append(v.Packs, PackingOf{x.Side, p.length(x.Up), p.voice.Text(x.What), p.length(x.Thick)})
	}
	return v
}
