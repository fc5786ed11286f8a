// Package message is what is said to a person, without its words: an ID with typed arguments. Package words has
// the sentences, in British and in American English.
package message

import (
	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

// ID names a sentence, or a word of one, in the catalogue. It is an argument itself where a word depends on
// nothing else.
type ID string

// Args are the arguments of a message by name. A measure.Length is rounded to the tape; the types below say
// otherwise; a string is somebody's own words, and stands as it is.
type Args map[string]any

// Message is something to be said.
type Message struct {
	ID   ID
	Args Args
}

// How a length is said.
type (
	Exact measure.Length // as it was given
	Near  measure.Length // to a tenth of a millimetre or a 64th of an inch
	Fine  measure.Length // to a tenth of a millimetre or a 64th of an inch, rounded up, and never as nothing
	At    measure.Length // a place, to the tape, which may be nought
	Slope measure.Length // a metre: so much in a metre, or in a foot
)

// Other quantities.
type (
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

// End is a place along a side: 0 is its foot or its hinge corner, 1 its middle, 2 its head or its lock corner.
type End struct {
	Side  frame.Side
	Place int
}

// Change is a size that is to be other than it is: more or less, each said by an ID that takes by how much.
type Change struct {
	By         measure.Length
	More, Less ID
}

// Lists of arguments: with "and" or "or" before their last; sentences one after the other.
type (
	And       []any
	Or        []any
	Sentences []Message
)
