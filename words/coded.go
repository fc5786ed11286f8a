package words

import (
	"encoding/json"
	"regexp"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// Code is a text as its ID in the catalogue with its arguments.
type Code struct {
	Code message.ID     `json:"code"`
	Args map[string]any `json:"args,omitempty" doc:"Lengths in mm, weights in kg, angles in degrees, chances of 1, times in minutes; parts of the opening and readings by ID; texts within it by their own code."`
}

// Coded is the voice that writes codes instead of words, for Codes.
func (v Voice) Coded() Voice {
	v.coded = true
	return v
}

// A code is between two control characters that no text has.
var coded = regexp.MustCompile("\x02[^\x03]*\x03")

// code is a message as a coded voice writes it; JSON escapes the characters.
func (v Voice) code(m message.Message) string {
	b, err := json.Marshal(v.codeOf(m))
	if err != nil {
		panic(err) // of strings, numbers and lists of them
	}
	return "\x02" + string(b) + "\x03"
}

// Codes are the codes in a text of a coded voice: none for a person's own words, several where it is composed.
func Codes(text string) []Code {
	var all []Code
	for _, s := range coded.FindAllString(text, -1) {
		var c Code
		if err := json.Unmarshal([]byte(s[1:len(s)-1]), &c); err != nil {
			panic(err) // made by code
		}
		all = append(all, c)
	}
	return all
}

func (v Voice) codeOf(m message.Message) Code {
	c := Code{Code: m.ID}
	for name, arg := range m.Args {
		if c.Args == nil {
			c.Args = make(map[string]any, len(m.Args))
		}
		c.Args[name] = v.plain(arg)
	}
	return c
}

// plain is an argument for other programs.
func (v Voice) plain(arg any) any {
	switch a := arg.(type) {
	case string, message.Sure, message.Mass, message.Celsius, message.Torque, message.Chance, message.Degrees, message.Percent,
		message.Number, message.Count, message.Lasting, message.Clock, message.Month, measure.Tape, frame.Hand:
		return a
	case message.ID:
		return Code{Code: a}
	case message.Message:
		return v.codeOf(a)
	case message.And:
		return v.plains(a)
	case message.Or:
		return v.plains(a)
	case message.Sentences:
		list := make([]Code, len(a))
		for i, m := range a {
			list[i] = v.codeOf(m)
		}
		return list
	case message.Size:
		list := make([]float64, len(a))
		for i, l := range a {
			list[i] = l.MM()
		}
		return list
	case survey.Reading:
		return a.ID
	case survey.Valued:
		return a.ID
	case message.End:
		return a.ID()
	}
	if l, ok := message.LengthOf(arg); ok {
		return l.MM()
	}
	if side, ok := message.SideOf(arg); ok {
		return side.String()
	}
	return v.Word(arg)
}

func (v Voice) plains(list []any) []any {
	plain := make([]any, len(list))
	for i, arg := range list {
		plain[i] = v.plain(arg)
	}
	return plain
}
