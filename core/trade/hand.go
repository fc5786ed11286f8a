package trade

import (
	"slices"
	"strings"
	"unicode"

	"kindmargin/core/frame"
	"kindmargin/core/message"
)

// Handing is a market's names for the hands, by the side of the hinges seen from the pull face.
type Handing struct{ ID, Source string }

// Market is the market.
func (h Handing) Market() message.ID { return "handing." + message.ID(h.ID) }

// Left and Right are its names for hinges on the left and on the right.
func (h Handing) Left() message.ID  { return "handing-left." + message.ID(h.ID) }
func (h Handing) Right() message.ID { return "handing-right." + message.ID(h.ID) }

// Handings of the markets. In North America a slab is seen from its secure side: hinges that are left from the pull
// side are right from the push side.
var Handings = []Handing{
	{"britain", CommonPractice},
	{"north-america-push", FromMemory},
	{"north-america-pull", FromMemory},
	{"din", FromMemory},
}

// HandCode is a way to write a hand in a schedule, as the side of the hinges seen from the pull side: Pull where the
// schedule's plain hands are seen from there, Push where they are seen from the push side. The two are the same for a
// code that says by itself from where it is seen.
type HandCode struct {
	Codes      []string
	Pull, Push frame.Hand
	Source     string
}

// HandCodes are the conventions of schedules.
//
// In North America a hand is told from the outside or secure side: LH and RH swing away from it (push), LHR and RHR, the
// reverse hands, toward it (pull), inswing and outswing likewise. Britain and DIN 107 tell it from the pull side, where
// the knuckles show; French names say whether one pulls (tirant) or pushes (poussant).
var HandCodes = []HandCode{
	{[]string{"left", "l", "hinges left", "hung left"}, frame.Left, frame.Left, CommonPractice},
	{[]string{"right", "r", "hinges right", "hung right"}, frame.Right, frame.Right, CommonPractice},
	{[]string{"lh", "left hand", "left handed", "left hung"}, frame.Left, frame.Right, FromMemory},
	{[]string{"rh", "right hand", "right handed", "right hung"}, frame.Right, frame.Left, FromMemory},
	{[]string{"lhr", "lhrb", "left hand reverse", "left hand reverse bevel"}, frame.Left, frame.Left, FromMemory},
	{[]string{"rhr", "rhrb", "right hand reverse", "right hand reverse bevel"}, frame.Right, frame.Right, FromMemory},
	{[]string{"lhos", "lho", "left hand outswing", "lh outswing"}, frame.Left, frame.Left, FromMemory},
	{[]string{"rhos", "rho", "right hand outswing", "rh outswing"}, frame.Right, frame.Right, FromMemory},
	{[]string{"lhis", "lhi", "left hand inswing", "lh inswing"}, frame.Right, frame.Right, FromMemory},
	{[]string{"rhis", "rhi", "right hand inswing", "rh inswing"}, frame.Left, frame.Left, FromMemory},
	{
		[]string{"din links", "din l", "din left", "din lh", "links", "dinl"}, frame.Left, frame.Left, FromMemory,
	},
	{
		[]string{"din rechts", "din r", "din right", "din rh", "rechts", "dinr"}, frame.Right, frame.Right, FromMemory,
	},
	{[]string{"gauche", "gauche tirant", "tirant gauche", "droite poussant", "poussant droite"}, frame.Left, frame.Left, FromMemory},
	{[]string{"droite", "droite tirant", "tirant droite", "gauche poussant", "poussant gauche"}, frame.Right, frame.Right, FromMemory},
}

// HandCodeOf finds the convention of a hand as it is written, whatever its capitals, blanks and signs; ok is false for
// an unknown one.
func HandCodeOf(text string) (c HandCode, ok bool) {
	letters := func(s string) string {
		return strings.Map(func(r rune) rune {
			if unicode.IsLetter(r) {
				return unicode.ToLower(r)
			}
			return -1
		}, s)
	}
	given := letters(text)
	for _, c := range HandCodes {
		if given != "" && slices.ContainsFunc(c.Codes, func(code string) bool { return letters(code) == given }) {
			return c, true
		}
	}
	return HandCode{}, false
}
