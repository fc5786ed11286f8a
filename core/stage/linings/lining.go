// Package linings is the stage in which a frame is made to the slab: its clear size, its parts, its packing, and how it
// stands once it is read.
package linings

import (
	"slices"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Lining is a frame that is made to the slab.
type Lining struct {
	lining.Frame
	Width  figure.Figure // between its jambs
	Height figure.Figure // from the floor that is there to its head
	Packs  []Packing
	Set    bool              // it comes with its slab hung in it
	Steps  []message.Message // in their order
}

// Packing is a place where the frame is packed off the wall.
type Packing struct {
	Side  frame.Side
	Up    measure.Length // from the floor
	What  message.ID     // what it stands behind
	Thick measure.Length // about
}

// floorUnread asks for the floor of a frame that is still to be made.
func floorUnread(d site.Opening) (said site.Findings) {
	c := d.Framed()
	if c.Stands {
		return nil
	}
	if c.Floor == nil {
		said.Say(site.Stop, job.StepMeasure, "/lining/floor", site.FrameFloorUnread, nil)
	}
	if c.High == nil && len(d.Swing.Floor) == 0 {
		said.Say(site.Stop, job.StepMeasure, "/lining/high", site.FrameHighUnread, nil)
	}
	return said
}

// Behind is what a frame is packed behind: a hinge, or the strike.
type Behind struct {
	Side frame.Side
	Down measure.Length // its middle, down the jamb from the head
	What message.ID
}

// wallPlace is one of the six places of lining.Choice.Wall: foot, middle and head of each side.
func wallPlace(i int) message.Message {
	side := [...]frame.Side{frame.Hinge, frame.Lock}[i/3]
	return message.Message{
		ID:   "place.of-side",
		Args: message.Args{"place": message.End{Side: side, Place: i % 3}, "side": message.Margin(side)},
	}
}

// Make is the frame for a clear size, with its findings. behind are the hinges and the strike that it is packed behind,
// from the foot up, the hinge jamb's first.
func Make(d site.Opening, size site.Clear, behind []Behind) (*Lining, site.Findings) {
	c := *d.Framed()
	l := Lining{
		Frame: lining.Make(c, lining.Clear{
			Width: size.Width.Value, Height: size.Height.Value, Thick: d.Slab.Thickness,
		}),
		Width: size.Width, Height: size.Height, Set: d.Set() != nil,
	}
	var said site.Findings
	stop := func(code site.Code, at string, args message.Args) {
		said.Say(site.Stop, job.StepMeasure, "/lining"+at, code, args)
	}
	said.Add(floorUnread(d))
	code := site.RoughNarrow
	if d.Set() != nil {
		code = site.SetWide
	}
	if l.Narrow > 0 {
		stop(code, "/width", message.Args{
			"rough": c.Width[l.NarrowAt], "where": message.End{Side: frame.Hinge, Place: l.NarrowAt},
			"outer": l.Outer.Width,
			"least": trade.LeastPacking, "short": l.Narrow, "thin": max(c.Thick-(l.Narrow+1)/2, 0),
		})
	}
	if l.Low > 0 {
		stop(site.RoughLow, "/height", message.Args{"short": l.Low, "outer": l.Outer.Height})
	}
	if l.Thin > 0 {
		stop(site.WallThin, "/wall", message.Args{
			"wall": l.Thin, "where": wallPlace(l.ThinAt), "slab": d.Slab.Thickness,
			"least": lining.Least(d.Slab.Thickness), "by": lining.Least(d.Slab.Thickness) - l.Thin,
		})
	}
	if l.Board > 0 {
		stop(site.BoardNarrow, "/board", message.Args{
			"board": c.Board, "wall": c.Wall[l.BoardAt], "where": wallPlace(l.BoardAt), "by": l.Board,
		})
	}
	if l.PackedMore > 0 {
		said.Say(site.Care, job.StepMeasure, "/lining/width", site.RoughWide, message.Args{
			"by": l.PackedMore, "most": trade.MostPacking,
		})
	}
	if l.Taper && l.Thin == 0 {
		least, most := c.Wall[0], c.Wall[0]
		for _, w := range c.Wall {
			least, most = min(least, w), max(most, w)
		}
		said.Say(site.Note, job.StepMeasure, "/lining/wall", site.WallTapers, message.Args{
			"least": least, "most": most,
		})
	}
	said.Add(l.feet(d))
	said.Add(rebate(d))
	l.packs(d, behind)
	if d.Set() != nil {
		l.setSteps(d)
	} else {
		l.steps(d)
	}
	return &l, said
}

// packs are the places of the packing: foot, middle and head, and behind each hinge and the strike.
func (l *Lining) packs(d site.Opening, behind []Behind) {
	if !l.Rough || l.Narrow > 0 {
		return
	}
	// Each is measured from the floor under its own jamb.
	high := frame.Each[measure.Length]{frame.Hinge: l.Frame.Height, frame.Lock: l.Frame.Height - d.Framed().AtLock()}
	thick := func(up measure.Length) measure.Length {
		whole := max(l.Frame.Height.MM(), 1)
		known := []frame.Along{
			{Off: l.Pack[0].MM()}, {At: whole / 2, Off: l.Pack[1].MM()}, {At: whole, Off: l.Pack[2].MM()},
		}
		return measure.FromMM(frame.OffAt(known, up.MM())).Round(d.Tape.Step(), measure.Nearest)
	}
	put := func(side frame.Side, up measure.Length, what message.ID) {
		l.Packs = append(l.Packs, Packing{side, up.Round(10*measure.Millimetre, measure.Nearest), what, thick(up)})
	}
	packed := func(side frame.Side) {
		put(side, 100*measure.Millimetre, "packed.foot")
		for _, p := range behind {
			if p.Side == side {
				put(side, high[side]-p.Down, p.What)
			}
		}
	}
	packed(frame.Hinge)
	packed(frame.Lock)
	if d.Pair != nil {
		return
	}
	if !slices.ContainsFunc(behind, func(p Behind) bool { return p.Side == frame.Lock }) {
		put(frame.Lock, high[frame.Lock]/2, "packed.strike")
	}
	put(frame.Lock, high[frame.Lock]-100*measure.Millimetre, "packed.head")
}

// steps are the steps of making and setting it. Common practice.
func (l *Lining) steps(d site.Opening) {
	say := func(id message.ID, args message.Args) { l.Steps = append(l.Steps, message.Message{ID: id, Args: args}) }
	say("lining.check-slab", nil)
	say("lining.cut", message.Args{"hinge": l.Jamb[frame.Hinge], "lock": l.Jamb[frame.Lock], "head": l.Head})
	switch {
	case d.Framed().Comes == lining.OfJambs: // they come as wide as the wall
		say("lining.together", nil)
	case !l.Walls:
		say("lining.measure-wall", nil)
	case l.Taper:
		say("lining.rip-taper", nil)
	default:
		say("lining.rip", message.Args{"rip": l.Rip[frame.Hinge][0]})
	}
	say("lining.pockets", nil)
	switch d.Framed().Joint {
	case lining.Housed:
		say("lining.housed", message.Args{"deep": l.House, "between": l.Frame.Width})
	case lining.Over:
		say("lining.over", nil)
	case lining.Between:
		say("lining.between", nil)
	}
	say("lining.brace", message.Args{"brace": l.Brace})
	say("lining.stand", message.Args{"packing": max(l.Pack[1], trade.Packing)})
	say("lining.screw", nil)
	say("lining.read", nil)
}
