package plan

import (
	"fmt"
	"math"
	"strconv"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// tooBigToTry is said of a reading without which too much would be left on.
func tooBigToTry(u measure.Unit, left float64) string {
	return "until it is read, " + measure.Say(measure.FromMM(left).Round(measure.Millimetre, measure.Nearest), u) + " would be left on: too big to try"
}

// wouldTell is said of a reading that would tell a slip.
const wouldTell = "would show a slip that no other reading shows"

// middleBrings says what a reading brings of the middle of a side.
func middleBrings(u measure.Unit, side frame.Side, g survey.Gain) string {
	return "middle of the " + side.Wall() + ": from ±" + sure(g.From, u) + " to ±" + sure(g.To, u)
}

// tellsMargins is said of a gap that is worth reading.
const tellsMargins = "tells most of the margins that are not sure"

// sure shows a standard deviation in mm as it stands after ±: twice, rounded up.
func sure(sigma float64, u measure.Unit) string {
	return measure.Fine(measure.FromMM(figure.Coverage*sigma), measure.Up, u)
}

// number is a small count in a sentence.
func number(n int) string { return strconv.Itoa(n) }

// Weight is a weight for a sentence, in the unit that goes with a job's lengths:
// 1 lb is 0.45359237 kg exactly (international yard and pound agreement, 1959).
func Weight(kg float64, u measure.Unit) string {
	if u == measure.Inches {
		return fmt.Sprintf("%.0f lb", kg/0.45359237)
	}
	return fmt.Sprintf("%.0f kg", kg)
}

// What a notch says.
const (
	waitsForClash = "waits until the readings agree"
	isDone        = "done"
	changedSince  = "changed since it was done"
	moreWouldHelp = "another reading would help"
	makeFrame     = "make the frame, and set it"
	lookAtWrong   = "look at what is wrong"
)

// What a reading that is needed brings.
const (
	noAnswerWidth  = "no answer without a width"
	noAnswerHeight = "no answer without a height"
	tellsClash     = "what tells the clash"
)

// Suggest is the reading that settles a clash, as one to take.
func (c Clash) Suggest(u measure.Unit) Suggestion {
	return Suggestion{Reading: c.Again, Name: c.Again.Title(u), How: c.Again.How(u), Brings: tellsClash}
}

// roundTheSlab is said of a place round a slab that stands in the opening.
const roundTheSlab = "once round the slab"

// thenWorth is said of a reading that follows another.
const thenWorth = "then"

// worthOf says why a reading is worth its time.
func worthOf(w Worth) string {
	minutes := fmt.Sprintf("worth %.0f minutes", w.Minutes)
	switch m := math.Round(w.Minutes); {
	case m < 1:
		minutes = "worth half a minute"
	case m == 1:
		minutes = "worth a minute"
	}
	switch w.With {
	case 0:
	case 1:
		minutes += " with one more after it"
	default:
		minutes += fmt.Sprintf(" with %d more after it", w.With)
	}
	from, to := inTen(w.From), inTen(w.To)
	if from == to { // what it spares is the try after the first
		return minutes + ": less is left on, so that the slab goes in at the first try"
	}
	return fmt.Sprintf("%s: another trip from %s to %s", minutes, from, to)
}

// inTen says a chance as carpenters say it.
func inTen(p float64) string {
	switch {
	case p >= 0.05 && p < 0.95:
		return fmt.Sprintf("%.0f in 10", max(math.Round(p*10), 1))
	case p >= 0.95:
		return "nearly sure"
	}
	return fmt.Sprintf("%.0f in 100", math.Ceil(p*100))
}

// ToolName is what a reading is taken with.
func ToolName(k survey.Kit, r survey.Reading) string {
	id, instrument := k.Tool(r)
	for _, t := range k {
		if t.ID == id && t.Name != "" {
			return t.Name
		}
	}
	known, ok := trade.InstrumentByID(instrument)
	if !ok {
		return ""
	}
	if r.Turned {
		return known.Name + ", turned end for end"
	}
	return known.Name
}

// brings says what a reading would make surer, and how far.
func brings(u measure.Unit, side frame.Side, where string, g survey.Gain) string {
	from, to := sure(g.From, u), sure(g.To, u)
	how := "from ±" + from + " to ±" + to
	if from == to { // less than the marks of the tape tell
		how = "a little surer than ±" + from
	}
	return fmt.Sprintf("%v margin, %s: %s", side, where, how)
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
