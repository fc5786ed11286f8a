package words

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/survey"
)

// Word is one argument of a message in words.
func (v Voice) Word(arg any) string {
	switch a := arg.(type) {
	case string:
		return a
	case message.ID:
		return v.Text(a)
	case message.Message:
		return v.Say(a)
	case message.And:
		return v.join(a, "list.and")
	case message.Or:
		return v.join(a, "list.or")
	case message.Sentences:
		said := make([]string, len(a))
		for i, m := range a {
			said[i] = v.Say(m)
		}
		return strings.Join(said, " ")
	case measure.Length, message.At, message.Exact, message.Near, message.Fine, message.Slope, message.Sure:
		return v.length(a)
	case message.Size:
		sides := make([]string, len(a))
		for i, l := range a {
			sides[i] = measure.Fine(l.Round(smallest[v.in()], measure.Nearest), measure.Nearest, v.in())
		}
		return strings.Join(sides, " × ") + " " + string(v.in())
	case message.Mass:
		return Mass(float64(a), v.in())
	case message.Celsius:
		return season.Celsius(a).Text(v.in()) + " " + season.Degrees(v.in())
	case message.Lasting:
		return v.lasting(int(a))
	case message.Clock:
		return fmt.Sprintf("%02d:%02d", int(a)/60, int(a)%60)
	case message.Torque:
		return fmt.Sprintf("%.2f N·m", float64(a))
	case message.Chance:
		return v.chance(float64(a))
	case measure.Tape:
		return v.Text("tape." + message.ID(a))
	case message.Degrees:
		return fmt.Sprintf("%.0f°", float64(a))
	case message.Percent:
		return strconv.FormatFloat(math.Round(10*float64(a))/10, 'f', -1, 64) + " %"
	case message.Number:
		return strconv.Itoa(int(a))
	case message.Count:
		return strconv.Itoa(int(a))
	case survey.Reading:
		return v.Say(a.Title())
	case survey.Valued:
		return v.Say(message.Message{
			ID: "list.the-reading", Args: message.Args{"reading": survey.Reading(a), "value": message.Exact(a.Value)},
		})
	case message.Change:
		return v.change(a)
	}
	return v.part(arg)
}

// lasting is a duration: "20 min", "1 h 30", "2 days".
func (v Voice) lasting(minutes int) string {
	const day = 24 * 60
	h, m := minutes/60, minutes%60
	switch {
	case minutes >= 2*day:
		return v.Say(message.Message{
			ID: "lasting.days", Args: message.Args{"days": message.Number((minutes + day/2) / day)},
		})
	case h == 0:
		return strconv.Itoa(m) + " min"
	case m == 0:
		return strconv.Itoa(h) + " h"
	}
	return strconv.Itoa(h) + " h " + strconv.Itoa(m)
}

// chance is a probability, as carpenters say it.
func (v Voice) chance(p float64) string {
	switch {
	case p >= 0.95:
		return v.Text("chance.sure")
	case p >= 0.05:
		return v.Say(message.Message{
			ID: "chance.in-ten", Args: message.Args{"times": message.Number(max(math.Round(p*10), 1))},
		})
	}
	return v.Say(message.Message{
		ID: "chance.in-hundred", Args: message.Args{"times": message.Number(math.Ceil(p * 100))},
	})
}

// change is a change of a size, rounded to the tape.
func (v Voice) change(c message.Change) string {
	id, by := c.More, c.By.Round(v.tape.Step(), measure.Nearest)
	switch {
	case by == 0:
		return v.Text("way.same")
	case by < 0:
		id, by = c.Less, -by
	}
	return v.Say(message.Message{ID: id, Args: message.Args{"by": by}})
}

// length is a length with its unit; one after ± has none.
func (v Voice) length(arg any) string {
	switch l := arg.(type) {
	case measure.Length:
		if l = l.Round(v.tape.Step(), measure.Nearest); l == 0 {
			return v.Text("length.nothing")
		}
		return measure.Say(l, v.in())
	case message.At:
		return measure.Say(measure.Length(l).Round(v.tape.Step(), measure.Nearest), v.in())
	case message.Exact:
		return measure.Say(measure.Length(l), v.in())
	case message.Near:
		if l = message.Near(measure.Length(l).Round(smallest[v.in()], measure.Nearest)); l == 0 {
			return v.Text("length.nothing")
		}
		return measure.Fine(measure.Length(l), measure.Nearest, v.in()) + " " + string(v.in())
	case message.Fine:
		return measure.Fine(max(measure.Length(l), smallest[v.in()]), measure.Up, v.in()) + " " + string(v.in())
	case message.Slope:
		if v.in() == measure.Inches {
			const foot = 12 * 25.4 / 1000 // of a metre (international yard and pound agreement, 1959)
			by := measure.FromMM(measure.Length(l).MM() * foot)
			return v.Say(message.Message{
				ID: "slope.foot", Args: message.Args{"by": measure.Fine(by, measure.Nearest, v.in())},
			})
		}
		return v.Say(message.Message{
			ID:   "slope.metre",
			Args: message.Args{"by": measure.Fine(measure.Length(l), measure.Nearest, v.in()) + " " + string(v.in())},
		})
	case message.Sure:
		return measure.Fine(measure.FromMM(figure.Coverage*float64(l)), measure.Up, v.in())
	}
	return ""
}

// smallest is the smallest amount that is shown in each unit.
var smallest = map[measure.Unit]measure.Length{
	measure.Millimetres: measure.Millimetre / 10, measure.Inches: measure.Inch / 64,
}

// Mass is a weight in the unit that goes with a job's lengths: 1 lb is 0.45359237 kg exactly (international yard
// and pound agreement, 1959).
func Mass(kg float64, u measure.Unit) string {
	if u == measure.Inches {
		return fmt.Sprintf("%.0f lb", kg/0.45359237)
	}
	return fmt.Sprintf("%.0f kg", kg)
}

// part is an argument that names a part of the opening or the slab, or a month.
func (v Voice) part(arg any) string {
	switch a := arg.(type) {
	case message.Edge:
		return v.Text(message.ID("edge." + frame.Side(a).String()))
	case message.Wall:
		return v.Text(message.ID("wall." + frame.Side(a).String()))
	case message.Margin:
		return v.Text(message.ID("margin." + frame.Side(a).String()))
	case frame.Hand:
		return v.Text(message.ID("hand." + string(a)))
	case message.Month:
		return v.Text(message.ID("month." + strconv.Itoa(int(a))))
	case message.End:
		return v.Text("place." + message.ID(a.ID()))
	}
	return fmt.Sprintf("[%T]", arg)
}
