package plan

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// causes is why a margin of a hung slab is out, in the trade's words: "what goes wrong, and
// the cure" (common practice).
var causes = map[Code]frame.Each[string]{
	MarginLeans: {
		frame.Head:  "The slab leans, or its head was cut off square: a hinge packed or let in turns it; else the head is planed.",
		frame.Foot:  "The slab leans, or the floor slopes more than was read: a hinge turns it; else the foot is planed.",
		frame.Lock:  "The slab leans: one hinge packed, or the other let in, turns it; else the lock edge is planed.",
		frame.Hinge: "The pins do not run along the jamb: one hinge is to be packed or let in.",
	},
	MarginTight: {
		frame.Head:  "The slab stands too high, or its head is too long: plane it, or lower the hinges.",
		frame.Foot:  "The slab hangs too low or is too long: plane the foot, or raise the hinges.",
		frame.Lock:  "The slab is too wide, or its pins stand too far out: plane the lock edge, or let the hinges in where the hinge margin is wide.",
		frame.Hinge: "The leaves lie too deep: it will spring. Pack both out.",
	},
	MarginTightAt: {
		frame.Head:  "A rub is planed; where the lock margin leans too, a hinge turns it.",
		frame.Foot:  "A rub is planed; where the lock margin leans too, a hinge turns it.",
		frame.Lock:  "A rub is planed; where the far end is wide, one hinge cures it.",
		frame.Hinge: "That hinge lies too deep: pack it out.",
	},
	MarginMiddle: {
		frame.Head:  "The head of the opening bellies down: ease it there.",
		frame.Foot:  "The floor is high there: ease the foot there.",
		frame.Lock:  "The stile has swollen, or the jamb bellies in: plane the middle first.",
		frame.Hinge: "The jamb bellies in there: ease the edge between the pockets.",
	},
	MarginWide: {
		frame.Head:  "The slab hangs too low or is too short: raise the hinges, or accept it.",
		frame.Foot:  "The slab hangs too high or is short: lower the hinges, fit a sweep, or accept it.",
		frame.Lock:  "Too wide a gap is cured at the hinges: pack all of them out; else a lipping.",
		frame.Hinge: "The leaves stand proud: let them in.",
	},
	MarginWideAt: {
		frame.Head:  "A wide gap is cured at the hinges: one of them turns the slab.",
		frame.Foot:  "A wide gap is cured at the hinges: one of them turns the slab.",
		frame.Lock:  "A wide gap is cured at the hinges: pack the one at that end.",
		frame.Hinge: "That hinge stands proud: let it in.",
	},
}

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

// Changed is a size that should be other than it is, with the words for more and
// for less.
type Changed struct {
	By         measure.Length
	More, Less string
}

// Words are a finding in words, in the job's unit and to its tape.
func (f Finding) Words(u measure.Unit, tape measure.Tape) string {
	text := says[f.Code]
	var b strings.Builder
	for {
		open := strings.IndexByte(text, '{')
		if open < 0 {
			b.WriteString(text)
			return b.String()
		}
		end := open + strings.IndexByte(text[open:], '}')
		b.WriteString(text[:open])
		b.WriteString(word(f.Args[text[open+1:end]], u, tape))
		text = text[end+1:]
	}
}

// word is one argument in words.
func word(arg any, u measure.Unit, tape measure.Tape) string {
	switch v := arg.(type) {
	case string:
		return v
	case measure.Length:
		return measure.Say(v.Round(tape.Step(), measure.Nearest), u)
	case Exact:
		return measure.Say(measure.Length(v), u)
	case Finely:
		return finely(measure.Length(v), u)
	case Sure:
		return sure(float64(v), u)
	case Edge:
		return frame.Side(v).Edge()
	case Wall:
		return frame.Side(v).Wall()
	case Mass:
		return Weight(float64(v), u)
	case Degrees:
		return fmt.Sprintf("%.0f°", float64(v))
	case survey.Reading:
		return v.Title(u)
	case Any:
		names := make([]string, len(v))
		for i, r := range v {
			names[i] = fmt.Sprintf("the %s (%s)", r.Title(u), measure.Say(r.Value, u))
		}
		return or(names)
	case Changed:
		by := v.By.Round(tape.Step(), measure.Nearest)
		switch {
		case by == 0:
			return "as it is"
		case by > 0:
			return measure.Say(by, u) + " " + v.More
		}
		return measure.Say(-by, u) + " " + v.Less
	}
	return fmt.Sprint(arg)
}

// finely says a small amount to more places than the tape has.
func finely(l measure.Length, u measure.Unit) string {
	return measure.Fine(max(l, smallest[u]), measure.Up, u) + " " + string(u)
}

// smallest is the least amount that is said of each unit: never nothing.
var smallest = map[measure.Unit]measure.Length{measure.Millimetres: measure.Millimetre / 10, measure.Inches: measure.Inch / 64}

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

func or(words []string) string {
	if len(words) == 1 {
		return words[0]
	}
	return strings.Join(words[:len(words)-1], ", ") + " or " + words[len(words)-1]
}

func join(words []string) string {
	if len(words) < 2 {
		return strings.Join(words, "")
	}
	return strings.Join(words[:len(words)-1], ", ") + " and " + words[len(words)-1]
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

// advice says an edge's decision in a sentence.
func advice(d door, e EdgeCut, deepest measure.Length, scribed bool) string {
	if deepest == 0 {
		return "Nothing comes off the " + e.Side.Edge() + "."
	}
	first, last := e.Marks[0].Depth.Value, e.Marks[len(e.Marks)-1].Depth.Value
	from, to := "head", "foot"
	if !e.Side.Upright() {
		from, to = "hinge corner", "lock corner"
	}
	text := fmt.Sprintf("%s off all along.", d.tape.Show(first))
	switch {
	case scribed && e.Side == frame.Hinge:
		text = "Hollowed between the pockets to follow the jamb: plane the straight line first, then down to these marks; the pockets stay on the line."
	case scribed:
		text = "Scribed: mark it along the " + e.Side.Wall() + " at the wanted margin and cut to that; high places first."
	case first != last:
		if first < last {
			first, last, from, to = last, first, to, from
		}
		text = fmt.Sprintf("A taper: %s at the %s to %s at the %s. Start where most comes off and lengthen each pass.", d.tape.Show(first), from, d.tape.Show(last), to)
	}
	if !e.Side.Upright() {
		text += " Plane in from both ends so that the stiles' end grain does not break out."
	}
	if e.Left.Value > 0 {
		where := ""
		if e.Side == frame.Head {
			where = " at the lock corner"
		}
		text += fmt.Sprintf(" %s is left on%s for the next try.", d.tape.Show(e.Left.Value), where)
	}
	return text
}
