package trade

import "kindmargin/core/message"

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
