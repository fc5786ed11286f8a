package plan

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// problemOf is what an error of a check says.
func problemOf(err error) message.Message {
	m, _ := message.Of(err)
	return m
}

// tooBigToTry is said of a reading without which too much would be left on.
func tooBigToTry(left float64) message.Sentences {
	return message.Sentences{{ID: "brings.too-big", Args: Args{"left": measure.FromMM(left)}}}
}

// wouldTell is said of a reading that would tell a slip, tellsMargins of a gap that is worth reading.
var (
	wouldTell    = message.Sentences{{ID: "brings.slip"}}
	tellsMargins = message.Sentences{{ID: "brings.margins"}}
)

// middleBrings says what a reading brings of the middle of a side.
func middleBrings(side frame.Side, g survey.Gain) message.Sentences {
	return message.Sentences{{ID: "brings.middle", Args: Args{"wall": message.Wall(side), "from": message.Sure(g.From), "to": message.Sure(g.To)}}}
}

// What a reading that is needed brings.
var (
	noAnswerWidth  = message.Sentences{{ID: "brings.no-width"}}
	noAnswerHeight = message.Sentences{{ID: "brings.no-height"}}
	tellsClash     = message.Sentences{{ID: "brings.clash"}}
	// roundTheSlab is said of a place round a slab that stands in the opening, thenWorth of a reading that follows
	// another.
	roundTheSlab = message.Sentences{{ID: "brings.round"}}
	thenWorth    = message.Sentences{{ID: "brings.then"}}
)

// Suggest is the reading that settles a clash, as one to take.
func (c Clash) Suggest() Suggestion {
	return Suggestion{Reading: c.Again, Brings: tellsClash}
}

// worthOf says why a reading is worth its time.
func worthOf(w Worth) (list message.Sentences) {
	say := func(id message.ID, args Args) { list = append(list, message.Message{ID: id, Args: args}) }
	if m := math.Round(w.Minutes); m < 1 {
		say("worth.half", nil)
	} else {
		say("worth.minutes", Args{"minutes": message.Count(m)})
	}
	if w.With > 0 {
		say("worth.more", Args{"more": message.Count(w.With)})
	}
	if spoken(w.From) == spoken(w.To) { // what it spares is the try after the first
		say("worth.less-left", nil)
	} else {
		say("worth.trip", Args{"from": message.Chance(w.From), "to": message.Chance(w.To)})
	}
	return list
}

// spoken is a chance as finely as it is said.
func spoken(p float64) float64 {
	if p >= 0.05 && p < 0.95 {
		return math.Round(p * 10)
	}
	return math.Ceil(p*100) / 10
}

// ToolName is what a reading is taken with; the zero Message where its instrument is not known.
func ToolName(k survey.Kit, r survey.Reading) message.Message {
	id, instrument := k.Tool(r)
	for _, t := range k {
		if t.ID == id && t.Name != "" {
			return message.Own(t.Name)
		}
	}
	known, ok := trade.InstrumentByID(instrument)
	switch {
	case !ok:
		return message.Message{}
	case r.Turned:
		return message.Message{ID: "tool.turned", Args: Args{"tool": known.Name()}}
	}
	return message.Message{ID: known.Name()}
}

// brings says what a reading would make surer, and how far.
func brings(side frame.Side, place int, g survey.Gain) message.Sentences {
	return message.Sentences{{ID: "brings.margin", Args: Args{
		"side": message.Margin(side), "place": message.End{Side: side, Place: place}, "from": message.Sure(g.From), "to": message.Sure(g.To),
	}}}
}

// advice says how an edge is worked.
func advice(e EdgeCut, deepest measure.Length, scribed bool) (list message.Sentences) {
	say := func(id message.ID, args Args) { list = append(list, message.Message{ID: id, Args: args}) }
	if deepest == 0 {
		say("cut.nothing", Args{"edge": message.Edge(e.Side)})
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
		say("cut.scribed", Args{"wall": message.Wall(e.Side)})
	case first == last:
		say("cut.even", Args{"by": first})
	default:
		say("cut.taper", Args{"by": first, "start": from, "endBy": last, "end": to})
	}
	if !e.Side.Upright() {
		say("cut.both-ends", nil)
	}
	switch left := e.Left.Value; {
	case left <= 0:
	case e.Side == frame.Head:
		say("cut.left-on-corner", Args{"by": left})
	default:
		say("cut.left-on", Args{"by": left})
	}
	return list
}
