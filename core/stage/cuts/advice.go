package cuts

import (
	"kindmargin/core/frame"
	"kindmargin/core/message"
)

// advice is how to work an edge.
func advice(e Edge, scribed bool) (list message.Sentences) {
	say := func(id message.ID, args message.Args) { list = append(list, message.Message{ID: id, Args: args}) }
	if e.Deepest() == 0 {
		say("cut.nothing", message.Args{"edge": message.Edge(e.Side)})
		return list
	}
	first, last := e.Marks[0].Depth.Value, e.Marks[len(e.Marks)-1].Depth.Value
	from, to := endOf(e.Side, 0), endOf(e.Side, 2)
	if first < last {
		first, last, from, to = last, first, to, from
	}
	switch {
	case scribed && e.Side == frame.Hinge:
		say("cut.hollowed", nil)
	case scribed:
		say("cut.scribed", message.Args{"wall": message.Wall(e.Side)})
	case first == last:
		say("cut.even", message.Args{"by": first})
	case e.Means.Saws():
		say("cut.taper-sawn", message.Args{"by": first, "start": from, "endBy": last, "end": to})
	default:
		say("cut.taper", message.Args{"by": first, "start": from, "endBy": last, "end": to})
	}
	if !e.Side.Upright() {
		say("cut.both-ends", nil)
	}
	switch left := e.Left.Value; {
	case left <= 0:
	case e.Side == frame.Head:
		say("cut.left-on-corner", message.Args{"by": left})
	default:
		say("cut.left-on", message.Args{"by": left})
	}
	return list
}

// endOf is a place along an edge as its marks run: 0 its first, 1 its middle, 2 its last.
func endOf(side frame.Side, place int) message.End {
	if side.Upright() { // its marks are from the head down
		place = 2 - place
	}
	return message.End{Side: side, Place: place}
}

// skins says at the first edge that is cut how a skin is kept whole at all of them.
func (c *List) skins() {
	for e := range c.InOrder() {
		if e.Deepest() > 0 {
			says := &c.Edges[e.Side].Says
			*says = append(*says, message.Message{ID: "cut.skin"})
			return
		}
	}
}
