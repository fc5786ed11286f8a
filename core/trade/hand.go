package trade

import "kindmargin/core/message"

// Handing is how a market calls a door by which side its hinges are on, seen from the
// pull face.
type Handing struct{ ID, Source string }

// Market is where doors are called so.
func (h Handing) Market() message.ID { return "handing." + message.ID(h.ID) }

// Left and Right are what it calls hinges on the left and on the right.
func (h Handing) Left() message.ID  { return "handing-left." + message.ID(h.ID) }
func (h Handing) Right() message.ID { return "handing-right." + message.ID(h.ID) }

// Handings of the markets. In North America a door is looked at from its secure side: from
// the push side the hinges that are left from the pull side are right.
var Handings = []Handing{
	{"britain", CommonPractice},
	{"north-america-push", FromMemory},
	{"north-america-pull", FromMemory},
	{"din", FromMemory},
}
