package site

import (
	"kindmargin/core/frame"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Suggestion is a reading that is worth taking next.
type Suggestion struct {
	Reading survey.Reading    // without a value
	Brings  message.Sentences // what it would make surer, and how far
	Needed  bool              // no answer without it
	Worth   Worth
	Tool    message.Message // with what: the tool's name, or its instrument's
}

// Suggest is a suggestion with its reason and tool. needed says that there is no answer without it.
func (d Opening) Suggest(r survey.Reading, brings message.Sentences, needed bool) Suggestion {
	return Suggestion{Reading: r, Brings: brings, Needed: needed, Tool: ToolName(d.Kit.Tools, r)}
}

// MostOffered is the largest number of readings offered at once.
const MostOffered = 4

// Worth is the minutes that a reading saves together with those that best follow it: the drop in the probability of
// another trip times the trip's minutes, less their own minutes.
type Worth struct {
	Minutes  float64 // nought where a threshold rules instead
	Own      float64 // minutes that the readings take
	With     int     // how many more readings follow
	From, To float64 // the chance of another trip, before and after them all
}

// ToolName is the tool of a reading; the zero Message where its instrument is not known.
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
		return message.Message{ID: "tool.turned", Args: message.Args{"tool": known.Name()}}
	}
	return message.Message{ID: known.Name()}
}

// Brings is how far a reading would narrow the ± of the margin at one end of a side (place: 0 foot or hinge corner, 1
// middle, 2 head or lock corner).
func Brings(side frame.Side, place int, g survey.Gain) message.Sentences {
	return message.Sentences{{ID: "brings.margin", Args: message.Args{
		"side": message.Margin(side), "place": message.End{Side: side, Place: place}, "from": message.Sure(g.From),
		"to": message.Sure(g.To),
	}}}
}
