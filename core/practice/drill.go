package practice

import (
	"fmt"
	"math/rand/v2"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/measure"
)

// DrillKind is a kind of short question.
type DrillKind struct {
	ID, Name string
	ask      func(*rand.Rand) Drill
}

// Drills lists them, in trade order.
var Drills = []DrillKind{
	{"hand", "Hand and lock block", askHand},
	{"width", "Which width to cut from", askWidth},
	{"slip", "Spot the slip", askSlip},
	{"fractions", "Fractions", askFractions},
	{"order", "The order of fitting", askOrder},
	{"pocket", "Pocket depth from the closed hinge", askPocket},
	{"cure", "Which cure for which rub", askCure},
}

// Drill is a question with a few answers, one of them right.
type Drill struct {
	Kind    string
	Seed    uint64
	Asks    string
	Answers []string
	Right   int // in Answers
	Why     string
}

// Ask is the drill of a kind and a seed: the same each time.
func Ask(kind string, seed uint64) (Drill, error) {
	i := slices.IndexFunc(Drills, func(k DrillKind) bool { return k.ID == kind })
	if i < 0 {
		return Drill{}, fmt.Errorf("there is no drill called %.40q", kind)
	}
	d := Drills[i].ask(rand.New(rand.NewPCG(seed, uint64(i)+1)))
	d.Kind, d.Seed = kind, seed
	return d, nil
}

// among puts the right answer among the others by chance; those that are the same as it are left out.
func among(rng *rand.Rand, asks, right string, others []string, why string) Drill {
	list := []string{right}
	for _, o := range others {
		if !slices.Contains(list, o) && len(list) < 4 {
			list = append(list, o)
		}
	}
	rng.Shuffle(len(list), func(i, j int) { list[i], list[j] = list[j], list[i] })
	return Drill{Asks: asks, Answers: list, Right: slices.Index(list, right), Why: why}
}

func sideOf(h frame.Hand) string {
	if h == frame.Left {
		return "left"
	}
	return "right"
}

// askHand asks for the hand of a door, or for the edge that the lock block belongs to.
func askHand(rng *rand.Rand) Drill {
	hinges := []frame.Hand{frame.Left, frame.Right}[rng.IntN(2)]
	toward := rng.IntN(2) == 0
	seen := sideOf(hinges)
	if !toward { // from the push side it is the other way round
		seen = sideOf(hinges.Other())
	}
	stand := map[bool]string{true: "it opens toward you", false: "it opens away from you"}[toward]
	if rng.IntN(2) == 0 {
		return among(
			rng, fmt.Sprintf("You stand before a shut door, %s, and its hinges are on your %s. Seen from the pull face, on which side are they?", stand, seen),
			"On the "+sideOf(hinges), []string{"On the " + sideOf(hinges.Other())},
			"The hand is told from the pull face, the side that the door opens toward; from the push side left and right change.",
		)
	}
	return among(
		rng, fmt.Sprintf("You stand before a shut door, %s; the hinges are on your %s. A hollow slab has its lock block along one long edge. Toward which side of yours does that edge go?", stand, seen),
		"To the "+map[string]string{"left": "right", "right": "left"}[seen], []string{"To the " + seen, "Either: it is solid all round"},
		"The lock goes on the edge away from the hinges, and only the block is solid there. Turned end for end the block changes sides, and so does the top.",
	)
}

// askWidth asks what three widths make of the slab: the longest less two margins.
func askWidth(rng *rand.Rand) Drill {
	a := 700 + rng.IntN(250)
	w := []int{a, a + 1 + rng.IntN(4), a + 5 + rng.IntN(3)}
	widest := w[2]
	rng.Shuffle(3, func(i, j int) { w[i], w[j] = w[j], w[i] })
	const m = 3
	say := func(v int) string { return fmt.Sprintf("%d mm", v) }
	return among(
		rng, fmt.Sprintf("The opening reads %d at the head, %d in the middle and %d at the foot. By tape and rule, with %d mm at both sides, how wide is the slab cut at first?", w[0], w[1], w[2], m),
		say(widest-2*m), []string{say(a - 2*m), say((w[0]+w[1]+w[2])/3 - 2*m), say(widest - m)},
		"From the longest, less both margins: too big can be shaved, too small is a new door.",
	)
}

// askSlip shows readings of which one was misread by ten.
func askSlip(rng *rand.Rand) Drill {
	base, lean := 740+rng.IntN(200), rng.IntN(5)-2
	places := []int{200, 600, 1000, 1400, 1800}
	bad := rng.IntN(5)
	by := []int{10, -10}[rng.IntN(2)]
	var list []string
	text := ""
	for i, p := range places {
		v := base + lean*i/2 + rng.IntN(2)
		if i == bad {
			v += by
		}
		list = append(list, fmt.Sprintf("%d mm up", p))
		text += fmt.Sprintf("%d mm up: %d; ", p, v)
	}
	others := slices.Delete(slices.Clone(list), bad, bad+1)
	rng.Shuffle(len(others), func(i, j int) { others[i], others[j] = others[j], others[i] })
	return among(
		rng, "Five widths were read. "+text+"which one is read again?", list[bad], others,
		"It is ten millimetres from where the others lead: the commonest slip of a tape. Jambs lean and belly, but not in one place alone.",
	)
}

// askFractions asks for a sum on an inch tape.
func askFractions(rng *rand.Rand) Drill {
	whole := 28 + rng.IntN(8)
	w := measure.Length(whole)*measure.Inch + measure.Length(1+rng.IntN(15))*measure.Inch/16
	m := measure.Length(1+rng.IntN(3)) * measure.Inch / 16
	say := func(l measure.Length) string { return measure.Say(l, measure.Inches) }
	right := w - 2*m
	return among(
		rng, fmt.Sprintf("%s less two margins of %s.", say(w), say(m)), say(right),
		[]string{say(w - m), say(right + measure.Inch/16), say(right - measure.Inch/16), say(w + 2*m)},
		"Bring both to sixteenths, take away, and bring the rest down: two margins, not one.",
	)
}

// fitting is the order in which a slab is fitted. Common practice.
var fitting = []string{"the head", "the hinge edge", "the lock edge", "the foot"}

func askOrder(rng *rand.Rand) Drill {
	i := rng.IntN(3)
	return among(
		rng, fmt.Sprintf("A slab is fitted edge by edge. %s is done: what comes next?", sentence(fitting[i])), sentence(fitting[i+1]),
		func() (o []string) {
			for k, f := range fitting {
				if k != i {
					o = append(o, sentence(f))
				}
			}
			return o
		}(),
		"Head first, since every other mark is measured from it; the hinge edge next, before the width is taken down; then the lock edge; the foot last.",
	)
}

// askPocket asks how deep both pockets go: margin = closed hinge − both pockets.
func askPocket(rng *rand.Rand) Drill {
	closed := measure.Length(12+rng.IntN(7)) * mm / 2 // 6 to 9 mm
	want := measure.Length(4+rng.IntN(3)) * mm / 2    // 2 to 3 mm
	each := (closed - want) / 2
	say := func(l measure.Length) string { return measure.Say(l, measure.Millimetres) }
	return among(
		rng, fmt.Sprintf("A hinge, shut with its leaves parallel, is %s over all. A hinge margin of %s is wanted. How deep is each of the two pockets, both alike?", say(closed), say(want)), say(each),
		[]string{say(closed - want), say(closed / 2), say(each + mm/2), say(want)},
		"Margin = closed hinge less both pockets; so each is half of what is left. "+flushSays(closed, each),
	)
}

func flushSays(closed, each measure.Length) string {
	c := hinge.Choice{Plate: each, Closed: closed}
	return fmt.Sprintf("Checked: %s less twice %s leaves %s.", measure.Say(closed, "mm"), measure.Say(each, "mm"), measure.Say(c.Flush().Value, "mm"))
}

// cures are rubs and what cures each: common practice.
var cures = [][2]string{
	{"It rubs the head and the lock edge near the head, and is wide at the bottom of the lock side.", "Pack the bottom hinge, or let in the top one"},
	{"It rubs evenly all along the lock edge, and the hinge margin is wide.", "Let all the hinges in deeper"},
	{"The lock margin is wide and even, and the hinge margin tight.", "Pack all the hinges out"},
	{"It springs open at the end of closing.", "Ease what binds at the hinges: pockets too deep, screw heads proud"},
	{"The foot drags half way through the swing, and clears when shut.", "Raise the slab or plane the foot for the floor's high place"},
	{"The top touches the stop and the bottom stands off.", "Move the stops, or one hinge in and the other out by half each"},
	{"The latch meets the strike two millimetres too low.", "Move the strike by the measured amount"},
	{"It touches only at mid-height, months later, in a damp autumn.", "Plane the middle, and reseal all six sides"},
}

func askCure(rng *rand.Rand) Drill {
	i := rng.IntN(len(cures))
	var others []string
	for k, c := range cures {
		if k != i {
			others = append(others, c[1])
		}
	}
	rng.Shuffle(len(others), func(a, b int) { others[a], others[b] = others[b], others[a] })
	return among(rng, cures[i][0]+" What is the cure?", cures[i][1], others, "Seen and cure go together: rubbing is planed, too wide a gap is cured at the hinges, and the strike moves rather than the latch.")
}

// Run is one thing that was practised, and how it went.
type Run struct {
	Kind  string // "opening", or a drill's
	Right bool   // answered right, or it fits and nothing too small
	Learn string // of an opening
}

// Next is what to practise next, with why: the drill that goes worst of those that were tried, else one not
// tried yet, else an opening.
func Next(runs []Run) (kind, why string) {
	tried, right := map[string]int{}, map[string]int{}
	openings := 0
	learn := ""
	for _, r := range runs {
		if r.Kind == "opening" {
			openings++
			learn = r.Learn
			continue
		}
		tried[r.Kind]++
		if r.Right {
			right[r.Kind]++
		}
	}
	if openings == 0 {
		return "opening", "Play an even opening to its end first: what you miss tells what to drill."
	}
	worst, share := "", 0.8
	for _, d := range Drills {
		if n := tried[d.ID]; n > 0 {
			if s := float64(right[d.ID]) / float64(n); s < share {
				worst, share = d.ID, s
			}
		}
	}
	name := func(id string) string {
		return Drills[slices.IndexFunc(Drills, func(d DrillKind) bool { return d.ID == id })].Name
	}
	if worst != "" {
		return worst, fmt.Sprintf("%s: %d of %d right so far.", name(worst), right[worst], tried[worst])
	}
	for _, d := range Drills {
		if tried[d.ID] == 0 {
			return d.ID, d.Name + ": not tried yet."
		}
	}
	return "opening", lastOne(learn)
}

func lastOne(learn string) string {
	if learn == "" {
		return "Another opening."
	}
	return "From the last one: " + learn
}
