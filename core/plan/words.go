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

const (
	otherSay   = "The {reading} reads {value}, but the others say about {about}"
	readAgain  = ". Read it again, or strike it out."
	perhaps    = ": perhaps {slip}"
	asWell     = ". It would be as well explained if {others} were wrong, and nothing tells which is."
	readNext   = " Read the {next}: that tells most."
	readThis   = " Read the {next} again: that tells most."
	useInsert  = " Salvage the old rail or glue in an insert {width} wide and {thickness} thick, pushing the core back {deep} first: glue inside the skins and on the insert, level or just shy, clamp over battens; 20 minutes to handle with tape, a night in clamps."
	straightAt = "The {wall} is not straight: along a straight edge the light "
	missesIt   = " the strike that is there, and the latch would miss it. Lay the slab bore to the strike, choose another slab, or move the strike and fill its hole."
)

// says are the words of each code, its arguments in braces.
var says = map[Code]string{
	Impossible:       "{problem}",
	Outside:          "The {reading} was read outside the opening, which is about {width} by {height}: correct its place. It is left out until then.",
	NotCombined:      "The readings cannot be combined: {problem}.",
	StrikeAtHinges:   "The hinges are said to be on the {hand}, and the old strike is in that very jamb: stand on the pull side and look again, or say that the strike is not to be used.",
	PocketsAcross:    "The hinges are said to be on the {hand}, and the old pockets are on the {pockets} jamb: stand on the pull side and look again, or plan to fill them.",
	MadeForOtherHand: "This slab was made for hinges on the {made} and the opening has them on the {hand}: its bores, pockets and bevel do not turn over. Send it back before anything is cut.",
	BlockAtHinges:    "The lock block lies along the hinge edge: turn the slab round, face for face, so that it comes to the lock edge and the top stays up.",
	TopIsDown:        "The end marked as the top lies at the foot: turn the slab round before it is marked.",
	TurnEndForEnd:    "The lock block lies along the hinge edge and the top at the foot: turn the slab end for end, and both are right.",

	NoWidth:  "No width has been read: take one at the top hinge's height first.",
	NoHeight: "No floor-to-head height has been read: take one beside the hinge jamb.",

	Contradicted:       otherSay + readAgain,
	ContradictedBySlip: otherSay + perhaps + readAgain,
	ChangedRound:       "The {reading} ({value}) and the {other} ({otherValue}) look as if each was written down for the other. Read one of them again, or change them round.",
	OneOf:              otherSay + asWell,
	OneOfBySlip:        otherSay + perhaps + asWell,
	OneOfSplit:         otherSay + asWell + readNext,
	OneOfSplitBySlip:   otherSay + perhaps + asWell + readNext,
	OneOfAgain:         otherSay + asWell + readThis,
	OneOfAgainBySlip:   otherSay + perhaps + asWell + readThis,

	UnderLeast:         "The {side} margin wanted, {wanted}, is under the least margin, {least}, which is kept: change one of them.",
	NoRoom:             "The margins leave a slab of {width} by {height}: ask for smaller margins or read the opening again.",
	NoOutline:          "{problem}",
	NotStraight:        straightAt + "varies by {by} either way.",
	NotStraightScribed: straightAt + "would vary by {by} either way, so this edge is scribed to it and the light is even.",
	NotStraightHinge:   straightAt + "varies by {by} either way. Packers keep the pins on one line.",
	GivesWay:           "The {side} edge gives way by {by} so that no margin is under the least.",
	RoughNarrow:        "The rough opening is {rough} wide at its {where}, and the frame {outer} over all: with {least} of packing a side it is {short} too narrow. Boards of {thin}, a slab narrower by as much, or the stud moved by whoever answers for the wall.",
	RoughLow:           "The rough opening is too low by {short} for a frame {outer} high over all: thinner boards for the head, a shorter slab, or a smaller margin at the foot.",
	RoughWide:          "Each side would be packed by {by}; past {most} packing works loose: nail a board to the stud first.",
	WallThin:           "The wall is {wall} thick at the {where}, and a lining for a slab {slab} thick with its stop is {least} at least: pack the wall out there by {by}, or let the lining stand proud under the casing.",
	BoardNarrow:        "The boards are {board} wide and the wall {wall} at the {where}: take wider ones, or glue a strip of {by} on.",
	WallTapers:         "The wall is {least} to {most} thick: rip each lining to a taper, as it is marked at foot, middle and head, and plane to the line.",
	FrameWide:          "The frame stands {by} too wide for the slab at its {edge}, {at} from its top: pack the jamb in by as much there before it is screwed home.",

	SeasonTooWide:   "No margin spans this year: with {least} kept in {wet} the light at the lock edge comes to {driest} in {dry}, and {widest} is the widest that looks right. Seal all six sides, take an engineered slab or quarter-sawn boards, or accept the wide light in {dry}.",
	SeasonLie:       "The slab holds {now} and the room makes it {room}: let it lie flat there on battens, air all round, for about {days} days before it is fitted, or it moves by {by} in its first weeks.",
	SeasonSeal:      "From {wet} to {dry} the light at the lock edge moves by {by}: seal all six sides, the cut ends most of all. Come back in {wet}, when it is tightest, and in {dry}.",
	SeasonBeyond:    "In this year the wood leaves the {least} to {most} % that its coefficient was measured between: a guess on top of a guess.",
	SeasonAgrees:    "The season explains it: at {moisture}, from {was} when it was fitted, the lock margin should have {way} by about {foretold} at its middle, and it {went} by {found}.",
	SeasonDisagrees: "The season does not explain it: at {moisture}, from {was} when it was fitted, the lock margin should have {way} by about {foretold} at its middle, and it {went} by {found}. Look for a hinge that has worked loose, or a jamb that has moved.",

	CutTwice: "The foot is cut twice: now to {short} short of floor to head, and again once the sweep or shoe has been tried on the threshold.",

	SlabUnmeasured: "The slab's {missing} is not measured yet: the cuts wait for it.",
	TooNarrow:      "The slab is too narrow: at the {side} edge, {at} from its top, it is short by {by}. Buy the next size up, or widen it with a lipping.",
	TooShort:       "The slab is too short: at the {side}, {at} from its hinge edge, by {by}. Buy the next size up, or accept a wider foot margin.",
	TwoPeople:      "The slab weighs about {weight}: two people lift it.",

	NotOffered:        "No gaps of this slab offered up have been read: read some with it standing in the opening, or lay it another way.",
	HeadUnread:        "Not yet: read the {reading} first, half a minute. How far the head runs out of square is known to ±{sure} at the lock corner, so {left} would have to be left on there, tapering to nothing at the hinge corner; with it about {then}.",
	HeadUnreadKnowing: "Cut knowingly without the {reading}: the head's slope is known to ±{sure} at the lock corner, so {left} is left on there, tapering to nothing at the hinge corner; with it it would be about {then}.",
	NoLeaveOn:         "{wanted} should be left on at the {edge} for the next try and only {left} can be: the slab is no bigger than that. If the readings stand by their ±, it may come out {lack} too wide there.",
	HardlySure:        "The {wall} is not sure enough to cut near the line: {left} is left on. More readings bring it down.",
	Rated:             "A rated slab is cut only as its certificate says, and only if whoever answers for the building agrees. This plan is worked out inside the limits entered; it is never ready by itself.",
	CutsMachining:     "The {edge} carries bores or pockets and would lose {off}: no way of laying this slab leaves it alone. Choose a slab nearer the size.",
	OverLimit:         "The {edge} would lose {off}, {more} more than may come off ({construction}: {most}). Choose a slab nearer the size, or enter what the maker allows.",
	HandleOut:         "The handle that is bored ends up {by} outside the usual {least} to {most}.",
	BoreBelowStrike:   "The bore that is there would come {by} below" + missesIt,
	BoreAboveStrike:   "The bore that is there would come {by} above" + missesIt,
	BacksetShrinks:    "The bore's backset shrinks by {by}.",
	MeetingEdges:      "About {off} in all comes off the two meeting edges so that the leaves pass: bevel or rebate them after the fit.",
	OldCopied:         "Copying {name}, flush at head and lock edge, takes {hinge} off the hinge edge and {foot} off the foot. By its gaps the new one should be, at the head {head}, at the foot {atFoot}, and {length}.",
	KeepFromMoulding:  "Keep every cut {by} or more from the moulding.",
	PivotAtEdge:       "The pivot hole in the {end} would have to be drilled again {from} from the finished hinge edge: under {least} the wood splits. Lay the slab so that less comes off the hinge edge, or move the pivot and its plate.",
	PivotAgain:        "The pivot hole in the {end} goes with the offcut: drill it again on the centre of the thickness, {from} from the finished hinge edge, as deep and as wide as it was (7/16 in is usual; measure).",
	RailWeak:          "The {end} is cut to {left} of its rail: too little to hold." + useInsert,
	RailGone:          "The {end} is cut past its rail ({left} left) and the end is open." + useInsert,

	HingesOutside:    "The hinges do not fit an opening {height} high: measure their places from the head, top one first.",
	NoHinges:         "{problem}",
	ThinSetback:      "Only {left} of wood is left behind the pocket (about {usual} is usual): use a narrower leaf.",
	PocketsCount:     "{asked} hinges are asked for and the jamb has {pockets} pockets: it is planned for the pockets. Measure the one that is missing, or change the count.",
	HingesOverloaded: "The slab weighs about {weight}, more than {most}: use hinges whose stated load is greater (EN 1935 grade {grade} and up, from memory), with longer screws at the top, and three of them at least.",
	HingeTooLight:    "The slab weighs about {weight}; {hinges} of {name} are for {most}: take a heavier hinge, or one more.",
	HingeShort:       "For a slab {thickness} thick and {width} wide hinges of {usual} are usual; these are {leaf}.",
	HingesByHeight:   "A hinge for each 30 in of height is usual: {usual} for {length}, not {hinges}.",
	HingeMoved:       "The {name} is moved {way} by {by}, clear of the {what}.",
	HingeInTheWay:    "The {name}, {at} below the slab's top, leaves under {wood} of wood beside the {what} ({from} to {to}): it would break out. Clear is {places}.",
	OldHinge:         "Old {name}, {fault}: {cure}.",
	PocketCutOn:      "The {name}'s old pocket is {old} {what} and the leaf {leaf}: cut it on {way} by {by}; mark it afresh from the leaf.",
	PocketFill:       "The {name}'s old pocket is {old} {what} and the leaf {leaf}: glue in a patch {by} {what}, grain along the edge, and plane it flush.",
	PocketCorners:    "The {name}'s old pocket has {old} corners and the leaf {leaf} ones: {do}.",
	HingeTooWide:     "A leaf {width} wide goes right through a slab {thickness} thick: {most} is the widest.",
	PocketTooDeep:    "The {name}'s pocket in the jamb would be {deep} deep and the jamb is {jamb} thick: leave {least} behind it. Pack the other hinges out instead, or let the slab's leaf in further.",
	MarginTooWide:    "A hinge margin of {wanted} is wider than the closed hinge, {closed}: no pocket gives it. Take a thicker hinge, or {closed} at most.",
	PackedFar:        "The {name} is packed by {by}: past {most} its screws hardly hold. Put in longer ones, or true the jamb there.",
	ScrewTooLong:     "Screws {screw} long pass the stile: {left} of it is left behind the edge, and past it the slab is hollow. Take screws of {left} or less.",
	JambHollows:      "The hinge jamb bellies in: the light between the hinges falls to {light}. Hollowing the slab's edge between the pockets, by {by} at most, would ease it: short passes of the plane, and wood that does not go back.",
	JambHollowed:     "The hinge edge is hollowed between the pockets, by {by} at most, to follow the jamb; the pockets stay on the straight line.",
	ThreeHinges:      "The slab weighs about {weight}: three hinges, not two.",

	HingeBound:         "With both leaves flush these hinges give a margin of {margin}: the slab would bind and spring open. Let the leaves in less, pack them, or take thicker ones.",
	HingeEdgeBinds:     "The hinge jamb's face closes in on the hinge edge: it would touch as the door shuts, and spring it open. Plane its push face back by {by}, or true the jamb.",
	PullFaceTouches:    "The lock edge passes what stands beside it with {passes} at its pull face, and {pass} is the least: no bevel helps there. Give the lock margin {lack} more, or bring the pins nearer to the face.",
	NoBevelPasses:      "Even {most} of bevel does not let the lock edge's push face pass with {pass}: widen the lock margin, or true the jamb's face.",
	BevelShort:         "The lock edge's push face needs {needed} of bevel to pass with {pass}.",
	BevelTooMuch:       "A bevel of {bevel} on a slab {thickness} thick leaves no edge for a faceplate: {most} is the most.",
	StopSprings:        "The stop presses on the push face beside the hinges by {by} before the door is home: it stands {off} off at the lock edge and springs open. Move the stop back until a card slips in.",
	OpensSecond:        "This leaf opens only once the other stands open: its rebate lies behind. Bolt it top and bottom.",
	PinBehindCasing:    "With its pin {pin} out it does not fold back over a casing {casing} thick: {least} is needed.",
	PinInSlab:          "A pin {pin} in front of the face lies inside the slab: the knuckle is about {closed} thick, so its middle stands {least} out at least.",
	RisingShuts:        "Rising hinges: let go half open it falls shut by its own weight.",
	RisingHead:         "Rising hinges lift the slab while its top is still under the head: ease the push side of the head by {by} at the hinge corner, running out over {along}, or it binds.",
	SinksTooFar:        "The foot would need {needs} over the floor to clear its sweep: more than {most} is a draught, not a margin. Plumb the pins, or plane the floor's high place.",
	TwistUnread:        "Were the lock jamb's face 2° out of square to the wall, this bevel would hardly pass: hold a square to it and read how far it closes in over {over}.",
	OpensShort:         "It opens to {angle} and meets the {thing}; {wanted} is wanted. Set a stop there, or move the {thing}.",
	OpensShortOfCasing: "It opens to {angle} and meets the casing; {wanted} is wanted. Hinges whose pins stand {pin} in front of the face, {more} more, would let it fold right back: {width} wide opened flat.",
	DriftsShut:         "Let go half open it falls shut: the pins lean {side} a metre toward the lock jamb and {out} toward you. Plumb them, or accept it.",
	DriftsOpen:         "Let go half open it swings right open: the pins lean {side} a metre toward the lock jamb and {out} toward you. Plumb them, or bend a pin a little.",
	DriftsTo:           "Let go half open it drifts and rests at {rests}: the pins lean {side} a metre toward the lock jamb and {out} toward you.",
	FloorOutside:       "The floor {at} from the hinge jamb at {angle} is outside the sweep: the door reaches {reach} and opens to {opens}. Correct it or take it out.",
	FloorUnread:        "The floor under the sweep was not read: it is taken to be as under the closed door. Read it where the free corner stands at 30°, 60° and 90°.",
	FootRaised:         "The foot margin is {by} more than the {wanted} wanted, so that the foot clears the floor through the whole swing.",

	Bolted:        "This leaf is bolted top and bottom and carries the strike: mark it from the latch of the other, hung leaf.",
	NoLatch:       "{problem}",
	HandleUnusual: "The handle comes {at} above the floor; {least} to {most} is usual.",
	ThinWalls:     "A {bore} bore in a {thickness} slab leaves walls of {wall}: under {least} they split easily.",
	BlockMissed:   "The lock block of a hollow slab lies about {middle} below the finished top, {long} long; the lock at {lock} misses it by {by}. Move the handle, or glue in a block {patch} by {thickness} behind it.",
	HeadLeftOn:    "Measure down from the head's finished line: {left} is still left on at the lock corner.",

	TurnedOver:       "These gaps were read with the hinges on the {was}, and the door is said to have them on the {is}: was the slab turned over? Its places are others then. Put the hand right, or record the cut anew.",
	GapContradicted:  "The {reading} reads {value}, which no rigid door shows beside the other gaps: they say about {about}. Slide the packer in again, or take it away.",
	ReadingGapsDoubt: "The gaps speak against the {reading} ({value}): they say about {about}. The slab as it hangs is believed.",
	ForetoldMissed:   "What was found is not what was foretold, and no one cause stands out: are all screws home, and the leaves flush?",
	HingeNotHome:     "The {name} stands {by} {way} than it was set: its leaf is not home, its card is of another thickness, or there is dust behind it. Look before anything is planed.",
	HangsOff:         "The slab hangs {by} {way} than its marks: the leaves sit off their pockets' ends.",
	CutOffLine:       "The {edge} came out {by} {way} its line at its {end}: it is taken as it is.",
	MarginLeans:      "The {side} margin is {tight} at the {at} and {wide} at the {other}; {wanted} is wanted. {cause}",
	MarginTight:      "The {side} margin is tight all along, {tight} and {other}; {wanted} is wanted. {cause}",
	MarginTightAt:    "The {side} margin is tight at the {at}, {tight}; {wanted} is wanted. {cause}",
	MarginMiddle:     "The {side} margin is tight in its middle, {tight}. {cause}",
	MarginWide:       "The {side} margin is wide all along, {wide} and {other}; {wanted} is wanted. {cause}",
	MarginWideAt:     "The {side} margin is wide at the {at}, {wide}; {wanted} is wanted. {cause}",
	NothingBringsIn:  "Nothing that may be done here brings every margin in: {out}. A lipping, the next slab or a jamb moved would; or leave it so.",
	Drags:            "The foot drags at {angle}: the floor is high there or the pins lean. Read the floor at that place in Swing, then raise the slab, plane the foot, or plumb the pins.",
	Springs:          "It springs back as it shuts: it is hinge-bound. Are the screw heads proud, or the pockets too deep? Pack both jamb leaves out by a card, or ease the hinge edge's push-face arris.",
	Drifts:           "Let go it drifts {way}: the pins lean {to}. Pack one hinge toward you and the other away, or bend a pin a little.",
	LeafProud:        "There is light behind the {name}'s leaf: draw its screws, clear the pocket, screw it home, and read the gaps again. Until then they are not to be trusted there.",
	Rattles:          "It rattles: set the stops, or move the strike toward them, once the margins are right.",
	Moved:            "Since it was left, the {side} margin has {way} by {by} at its {where}.",
	MovedFar:         "The {name} was moved by {by}; past {out} out or {in} in its pocket, packing and screws hardly hold: longer screws, or true the jamb there.",

	StopHolds:  "The {stop} holds the slab off at its {end}: move it back, or plane it there, by {by}.",
	JambsCross: "The jambs are not in one plane: the corners cross by {by}. Let the stops take up half of it; shift the top hinge {each} one way and the bottom one {each} the other for the rest.",

	DeviceOfOtherHand: "The {name} is made for hinges on the {made} and the door has them on the {hand}: change it before anything is bored.",
	DeviceInTheWay:    "The {name} is cut into the {what} ({from} to {to} down): it stands clear {by}.",
	BoreThrough:       "A bore or slot {wide} wide goes through the faces of a slab {thickness} thick: {most} is the most.",
	CoverThin:         "A faceplate {plate} wide hides only {cover} on either side of a {bore} bore: {smaller} or less is better, its ends squared.",
	NoBit:             "There is no bit at hand for the {what}, {dia}: put it in the kit, or say which there are.",
	HoleAtEdge:        "The {what} would leave {wood} of wood to the edge and break out: its middle stands {least} in at least.",
	HolesMeet:         "The {what} and the {other} run into each other: set them {least} apart, edge to edge, or choose another device.",
	HolesNear:         "Between the {what} and the {other} only {wood} of wood is left: {least} is the least that does not split.",
	FaceScrewLong:     "Screws {screw} long come out of a slab {thickness} thick: shorter ones.",
	StrikeOutside:     "A strike {plate} wide, its middle {in} in, does not lie on a jamb {jamb} wide: a narrower one, or a lip cut back.",
	PastStile:         "The {what} reaches {reach} in and the stile ends at {stile}: a backset of {backset} at most.",
	CasePastStile:     "The case is {case} deep and the stile {stile} wide: it would come through. A shorter case, or a block behind.",
	StrikeFromLatch:   "How the head runs is known to ±{sure} at the lock corner, so latch and strike may miss by as much: mark the strike from the latch of the closed door, or level or square the head first.",
	OutOfReach:        "The handle comes {at} above the floor, outside {rule}: {least} to {most}.",
	OldHoleLeft:       "The {what}, {size}, stays uncovered: {cure}.",
	OldHoleNear:       "The {what} lies in or beside the {hole}: fill it first, and let the glue set.",
	StrikeMoved:       "The latch meets the strike {by} too far {way}: move the plate {way} by {by} and fill the old screw holes; filing does to {most}.",
	StrikeFiled:       "The latch meets the strike {by} too far {way}: file its opening there by {by}.",
	StrikeIn:          "The latch falls {by} short of the strike: the stop holds the door off. Move the stop back by {by}, or the strike toward the stop by as much.",
	StrikeRattles:     "The door rattles by {by}: move the strike away from the stop by {by}, or bend its lip by as much.",

	StockOver:   "the {edge} would lose {off}, {more} more than may come off",
	StockNarrow: "too narrow by {by}",
	StockShort:  "too short by {by}",
}

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
