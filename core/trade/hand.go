package trade

// Handing is how a market calls a door by which side its hinges are on, seen from the
// pull face.
type Handing struct{ Market, Left, Right, Source string }

// Handings of the markets. In North America a door is looked at from its secure side: from
// the push side the hinges that are left from the pull side are right.
var Handings = []Handing{
	{"Britain and Ireland, from the pull side", "left-hand hung", "right-hand hung", CommonPractice},
	{"North America, from the push side", "right hand (RH)", "left hand (LH)", FromMemory},
	{"North America, from the pull side", "left hand reverse (LHR)", "right hand reverse (RHR)", FromMemory},
	{"Germany and Austria (DIN 107)", "DIN left", "DIN right", FromMemory},
}
