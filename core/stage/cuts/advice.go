package cuts

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// advice is how to work an edge.
func advice(e Edge, deepest measure.Length, scribed bool) (list message.Sentences) {
	say := func(id message.ID, args message.Args) { list = append(list, message.Message{ID: id, Args: args}) }
	if deepest == 0 {
		say("cut.nothing", message.Args{"edge": message.Edge(e.Side)})
		return list
	}
	first, last := e.Marks[0].Depth.Value, e.Marks[len(e.Marks)-1].Depth.Value
	end := func(place int) message.End { return message.End{Side: e.Side, Place: place} }
	from, to := end(0), end(2)
	if e.Side.Upright() { // its marks are from the head down
		from, to = to, from
	}
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
