// Package message has what is said to people without its wording: an ID with typed arguments. Package words has the
// sentences, in British and American English.
package message

import (
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// ID names a sentence, or a word of one, in the catalogue. It is an argument itself where a word depends on nothing
// else.
type ID string

// Args are the named arguments of a message. A measure.Length is rounded to the tape, the types below format otherwise,
// and a string is a person's own words, shown as they are.
type Args map[string]any

// Message is an ID with arguments.
type Message struct {
	ID   ID
	Args Args
}

// LengthOf is the length of an argument, whatever its format.
func LengthOf(arg any) (l measure.Length, ok bool) {
	switch a := arg.(type) {
	case measure.Length:
		return a, true
	case Exact:
		return measure.Length(a), true
	case Near:
		return measure.Length(a), true
	case Fine:
		return measure.Length(a), true
	case At:
		return measure.Length(a), true
	case Slope:
		return measure.Length(a), true
	case Change:
		return a.By, true
	}
	return 0, false
}

// SideOf is the side that an argument names as a part of the slab, of the opening or as a gap.
func SideOf(arg any) (s frame.Side, ok bool) {
	switch a := arg.(type) {
	case Edge:
		return frame.Side(a), true
	case Wall:
		return frame.Side(a), true
	case Margin:
		return frame.Side(a), true
	}
	return s, false
}

// plain formats an argument for the log: a length with its unit.
func plain(arg any) any {
	if l, ok := LengthOf(arg); ok {
		return l
	}
	return arg
}

// With is a message with arguments given as names and values by turns.
func With(id ID, args ...any) Message {
	m := Message{ID: id}
	if len(args) > 0 {
		m.Args = make(Args, len(args)/2)
	}
	for i := 0; i+1 < len(args); i += 2 {
		m.Args[args[i].(string)] = args[i+1]
	}
	return m
}

// Own is a message that is a person's own name for something.
func Own(name string) Message { return Message{ID: "name.own", Args: Args{"name": name}} }

// String is the ID with the arguments in Go's format, for the log.
func (m Message) String() string {
	var s strings.Builder
	s.WriteString(string(m.ID))
	for _, name := range slices.Sorted(maps.Keys(m.Args)) {
		fmt.Fprintf(&s, " %s=%v", name, plain(m.Args[name]))
	}
	return s.String()
}

// Of is an error's message for people; ok is false for an error that is for the log alone.
func Of(err error) (m Message, ok bool) {
	var length *measure.ParseError
	var side frame.NoSuchSide
	var own interface{ Message() Message }
	switch {
	case errors.As(err, &own):
		return own.Message(), true
	case errors.As(err, &length):
		args := Args{"text": Quote(length.Text)}
		maps.Copy(args, length.Args)
		return Message{ID: ID(length.Problem), Args: args}, true
	case errors.As(err, &side):
		return Message{ID: "refused.no-side", Args: Args{"given": string(side)}}, true
	}
	return m, false
}

// Quote is the first forty characters of a person's text, for a message that names it.
func Quote[T ~string](written T) string {
	r := []rune(string(written))
	if len(r) > 40 {
		return string(r[:40]) + "…"
	}
	return string(written)
}

// Formats of a length.
type (
	Exact measure.Length // as it was given
	Near  measure.Length // to a tenth of a millimetre or a 64th of an inch
	Fine  measure.Length // to a tenth of a millimetre or a 64th of an inch, rounded up, and never as nothing
	At    measure.Length // a place, to the tape, which may be nought
	Slope measure.Length // a metre: so much in a metre, or in a foot
)

// Size is the sides of something, to a tenth of a millimetre or a 64th of an inch, with one unit.
type Size []measure.Length

// Other quantities.
type (
	Celsius float64 // a temperature, in the degrees that go with the job's lengths
	Torque  float64 // N·m
	Lasting int     // minutes that something takes or waits
	Clock   int     // minutes since midnight
	Chance  float64 // 0 to 1
	Sure    float64 // a standard deviation in mm, as it stands after ±
	Mass    float64 // kg; in the unit that goes with the job's lengths
	Degrees float64 // an angle, to the whole degree
	Percent float64 // to a tenth where it is not whole
	Number  int
	Count   int // as Number; the sentence has a form for one of it, and one for several. A message has one at most
	Month   int // 1 is January
)

// Parts of the opening and of the slab.
type (
	Edge   frame.Side // of the slab: "hinge edge", "top"
	Wall   frame.Side // of the opening: "hinge jamb", "floor"
	Margin frame.Side // where a gap is: "hinge side", "bottom"
)

// End is a place along a side: 0 is its foot or hinge corner, 1 its middle, 2 its head or lock corner.
type End struct {
	Side  frame.Side
	Place int
}

// ID is the place's ID.
func (e End) ID() string {
	if e.Side.Upright() {
		return [...]string{"foot", "middle", "head"}[e.Place]
	}
	return [...]string{"hinge-corner", "middle", "lock-corner"}[e.Place]
}

// Change is a change of a size: more or less, each an ID that takes the amount.
type Change struct {
	By         measure.Length
	More, Less ID
}

// Lists of arguments: joined by "and" or "or"; or sentences one after the other.
type (
	And       []any
	Or        []any
	Sentences []Message
)

// Problem is an error's message; the zero Message where it has none.
func Problem(err error) Message {
	m, _ := Of(err)
	return m
}

// Either is one of two IDs, by whether by is positive.
func Either(by float64, over, under string) string {
	if by > 0 {
		return over
	}
	return under
}

// Way is the ID of one direction or the other, by whether by is positive.
func Way(by float64, over, under string) ID { return ID("way." + Either(by, over, under)) }
