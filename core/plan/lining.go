package plan

import (
	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Lining is a frame that is made to the slab.
type Lining struct {
	lining.Frame
	Width  figure.Figure // between its jambs
	Height figure.Figure // from the floor that is there to its head
	Packs  []Packing
	Steps  []message.Message // in their order
}

// Packing is a place where the frame is packed off the wall.
type Packing struct {
	Side  frame.Side
	Up    measure.Length // from the floor
	What  message.ID     // what it stands behind
	Thick measure.Length // about
}

// cleared is what a frame must leave, as it was made up.
type cleared struct{ Width, Height figure.Figure }

// clearOf is what a frame made to the slab must leave: the slab, and its margins; nil where none is
// made, or the slab is not measured. Common practice: clear width = slab and two margins, clear height
// = slab, head margin, and foot margin over the finished floor.
func clearOf(d door) *cleared {
	c := d.Framed()
	if c == nil || c.Thick == 0 {
		return nil
	}
	head := wantedAt(d, frame.Head, 0)
	hinge, lock, foot := wantedAt(d, frame.Hinge, head.Value), wantedAt(d, frame.Lock, head.Value), wantedAt(d, frame.Foot, head.Value)
	var width []figure.Term
	var long measure.Length
	bays := baysOf(d)
	for i, b := range bays {
		s := b.slab
		if s.Width == 0 || s.Length == 0 {
			return nil
		}
		name := message.ID("term.slab-widest")
		if len(bays) > 1 {
			name = []message.ID{"term.hinge-leaf-widest", "term.lock-leaf-widest"}[i]
		}
		width = append(
			width, figure.Term{Label: name, Value: max(s.Width, s.WidthMid, s.WidthFoot), Source: figure.Reading},
			figure.Term{Label: "term.hinge-margin-wanted", Value: hinge.Value, Source: figure.Choice},
		)
		if i == 0 {
			width = append(width, figure.Term{Label: "term.lock-margin-wanted", Value: lock.Value, Source: figure.Choice})
		} else {
			width = append(width, figure.Term{Label: "term.other-half-between", Value: d.Pair.Meeting - lock.Value, Source: figure.Choice})
		}
		long = max(long, s.Length, s.LengthLock)
	}
	height := []figure.Term{
		{Label: "term.slab-longest", Value: long, Source: figure.Reading},
		{Label: "term.head-margin-wanted", Value: head.Value, Source: figure.Choice},
		{Label: "term.foot-margin-wanted", Value: foot.Value, Source: figure.Choice},
	}
	if high := highest(d); high > 0 {
		height = append(height, figure.Term{Label: "term.floor-highest", Value: high, Source: figure.Reading})
	}
	return &cleared{figure.Sum(0, width...), figure.Sum(0, height...)}
}

// highest is how much higher the floor's highest place is than under the hinge jamb of a frame that is
// made to the slab: under the lock jamb, between, or where the slab swings, which is told from the floor
// under the closed slab's free corner.
func highest(d door) measure.Length {
	c := d.Framed()
	if c == nil || c.Kept() {
		return 0
	}
	high := c.Highest()
	for _, f := range d.Swing.Floor {
		high = max(high, c.AtLock()+f.Up)
	}
	return high
}

// stands says where a frame leaves the slab too high or too low over the floor's highest place. Its feet are
// cut or packed, whatever the jambs do.
func stands(d door, drawn []fit.Outline, wanted measure.Length) (said findings) {
	if d.Framed() == nil {
		return nil
	}
	for _, o := range drawn {
		gaps := o.Edges[frame.Foot].Gaps
		smallest := gaps[0].Mean - highest(d).MM() // the floor is told from that under the hinge jamb
		for _, g := range gaps {
			smallest = min(smallest, g.Mean)
		}
		gap := measure.FromMM(smallest)
		by := gap - wanted
		gravity := Note
		if by.Abs() > mostWide {
			gravity = Stop
		}
		switch {
		case by > tells:
			said.say(gravity, job.StepMeasure, "/lining", FrameHigh, Args{"edge": message.Edge(frame.Foot), "by": message.Fine(by)})
		case by < -tells:
			said.say(gravity, job.StepMeasure, "/lining", FrameLow, Args{"gap": max(gap, 0), "wanted": wanted, "by": message.Fine(-by)})
		default:
			continue
		}
		break
	}
	return said
}

// tells is what a frame may stand off by before anything is said of it.
const tells = measure.Millimetre / 4

// floorUnread asks for the floor of a frame that is still to be made.
func floorUnread(d door) (said findings) {
	c := d.Framed()
	if c.Stands {
		return nil
	}
	if c.Floor == nil {
		said.say(Stop, job.StepMeasure, "/lining/floor", FrameFloorUnread, nil)
	}
	if c.High == nil && len(d.Swing.Floor) == 0 {
		said.say(Stop, job.StepMeasure, "/lining/high", FrameHighUnread, nil)
	}
	return said
}

// wallPlace is one of the six places of lining.Choice.Wall: foot, middle and head of each side.
func wallPlace(i int) message.Message {
	side := [...]frame.Side{frame.Hinge, frame.Lock}[i/3]
	return message.Message{ID: "place.of-side", Args: Args{"place": message.End{Side: side, Place: i % 3}, "side": message.Margin(side)}}
}

// liningOf is the frame that is made to the slab, and what is in its way; nil where none is, or the slab
// is not measured.
func liningOf(d door, leaves []Leaf) (*Lining, findings) {
	size := clearOf(d)
	if size == nil {
		return nil, nil
	}
	c := *d.Framed()
	l := Lining{Frame: lining.Make(c, lining.Clear{Width: size.Width.Value, Height: size.Height.Value, Thick: d.Slab.Thickness}), Width: size.Width, Height: size.Height}
	var said findings
	stop := func(code Code, at string, args Args) { said.say(Stop, job.StepMeasure, "/lining"+at, code, args) }
	said.add(floorUnread(d))
	if l.Narrow > 0 {
		stop(RoughNarrow, "/width", Args{
			"rough": c.Width[l.NarrowAt], "where": message.End{Side: frame.Hinge, Place: l.NarrowAt}, "outer": l.Outer.Width,
			"least": trade.LeastPacking, "short": l.Narrow, "thin": max(c.Thick-(l.Narrow+1)/2, 0),
		})
	}
	if l.Low > 0 {
		stop(RoughLow, "/height", Args{"short": l.Low, "outer": l.Outer.Height})
	}
	if l.Thin > 0 {
		stop(WallThin, "/wall", Args{"wall": l.Thin, "where": wallPlace(l.ThinAt), "slab": d.Slab.Thickness, "least": lining.Least(d.Slab.Thickness), "by": lining.Least(d.Slab.Thickness) - l.Thin})
	}
	if l.Board > 0 {
		stop(BoardNarrow, "/board", Args{"board": c.Board, "wall": c.Wall[l.BoardAt], "where": wallPlace(l.BoardAt), "by": l.Board})
	}
	if l.PackedMore > 0 {
		said.say(Care, job.StepMeasure, "/lining/width", RoughWide, Args{"by": l.PackedMore, "most": trade.MostPacking})
	}
	if l.Taper && l.Thin == 0 {
		least, most := c.Wall[0], c.Wall[0]
		for _, w := range c.Wall {
			least, most = min(least, w), max(most, w)
		}
		said.say(Note, job.StepMeasure, "/lining/wall", WallTapers, Args{"least": least, "most": most})
	}
	l.packs(d, leaves)
	l.steps(d)
	return &l, said
}

// packs are the places where it is packed: at foot, middle and head, and behind each hinge and the
// strike.
func (l *Lining) packs(d door, leaves []Leaf) {
	if !l.Rough || l.Narrow > 0 {
		return
	}
	// Each is told from the floor under its own jamb.
	high := frame.Each[measure.Length]{frame.Hinge: l.Frame.Height, frame.Lock: l.Frame.Height - d.Framed().AtLock()}
	thick := func(up measure.Length) measure.Length {
		at := 2 * up.MM() / max(l.Frame.Height.MM(), 1)
		i := min(int(at), 1)
		a, b := l.Pack[i].MM(), l.Pack[i+1].MM()
		return measure.FromMM(a+(b-a)*(at-float64(i))).Round(d.tape.Step(), measure.Nearest)
	}
	put := func(side frame.Side, up measure.Length, what message.ID) {
		l.Packs = append(l.Packs, Packing{side, up.Round(10*measure.Millimetre, measure.Nearest), what, thick(up)})
	}
	for i, leaf := range leaves {
		side := []frame.Side{frame.Hinge, frame.Lock}[i]
		put(side, 100*measure.Millimetre, "packed.foot")
		for k := len(leaf.Hinges) - 1; k >= 0; k-- {
			h := leaf.Hinges[k]
			put(side, high[side]-h.Jamb.Value-d.Hinges.Leaf/2, h.Name)
		}
	}
	if d.Pair == nil {
		put(frame.Lock, 100*measure.Millimetre, "packed.foot")
		strike := high[frame.Lock] / 2
		if len(leaves) > 0 && leaves[0].Latch != nil {
			strike = high[frame.Lock] - leaves[0].Latch.Jamb.Value
		}
		put(frame.Lock, strike, "packed.strike")
		put(frame.Lock, high[frame.Lock]-100*measure.Millimetre, "packed.head")
	}
}

// steps are how it is made and set. Common practice.
func (l *Lining) steps(d door) {
	say := func(id message.ID, args Args) { l.Steps = append(l.Steps, message.Message{ID: id, Args: args}) }
	say("lining.check-slab", nil)
	say("lining.cut", Args{"hinge": l.Jamb[frame.Hinge], "lock": l.Jamb[frame.Lock], "head": l.Head})
	switch {
	case !l.Walls:
		say("lining.measure-wall", nil)
	case l.Taper:
		say("lining.rip-taper", nil)
	default:
		say("lining.rip", Args{"rip": l.Rip[frame.Hinge][0]})
	}
	say("lining.pockets", nil)
	switch d.Framed().Joint {
	case lining.Housed:
		say("lining.housed", Args{"deep": l.House, "between": l.Frame.Width})
	case lining.Over:
		say("lining.over", nil)
	case lining.Between:
		say("lining.between", nil)
	}
	say("lining.brace", Args{"brace": l.Brace})
	say("lining.stand", Args{"packing": max(l.Pack[1], trade.Packing)})
	say("lining.screw", nil)
	say("lining.read", nil)
}
