package practice

import (
	"math/rand/v2"
	"slices"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// DrillKind is a kind of short question.
type DrillKind struct {
	ID  string
	ask func(*rand.Rand) Drill
}

// Name is the name of the kind.
func (k DrillKind) Name() message.ID { return "drill." + message.ID(k.ID) }

// Drills lists them, in trade order.
var Drills = []DrillKind{
	{"hand", askHand},
	{"width", askWidth},
	{"slip", askSlip},
	{"fractions", askFractions},
	{"order", askOrder},
	{"pocket", askPocket},
	{"cure", askCure},
}

// Drill is a multiple-choice question with one right answer.
type Drill struct {
	Kind    string
	Seed    uint64
	Asks    message.Message
	Answers []message.Message
	Right   int // in Answers
	Why     message.Sentences
}

// Ask is the drill of a kind and a seed, the same each time.
func Ask(kind string, seed uint64) (Drill, error) {
	i := slices.IndexFunc(Drills, func(k DrillKind) bool { return k.ID == kind })
	if i < 0 {
		return Drill{}, field.Fault("/kind", "refused.no-drill", message.Args{"given": message.Quote(kind)})
	}
	d := Drills[i].ask(rand.New(rand.NewPCG(seed, uint64(i)+1)))
	d.Kind, d.Seed = kind, seed
	return d, nil
}

// among shuffles the right answer among the others, and leaves out duplicates.
func among(rng *rand.Rand, asks, right message.Message, others []message.Message, why ...message.Message) Drill {
	list := []message.Message{right}
	for _, o := range others {
		same := slices.ContainsFunc(list, func(m message.Message) bool { return m.String() == o.String() })
		if !same && len(list) < 4 {
			list = append(list, o)
		}
	}
	rng.Shuffle(len(list), func(i, j int) { list[i], list[j] = list[j], list[i] })
	at := slices.IndexFunc(list, func(m message.Message) bool { return m.String() == right.String() })
	return Drill{Asks: asks, Answers: list, Right: at, Why: why}
}

// askHand asks for the hand of a slab, or for the edge of the lock block.
func askHand(rng *rand.Rand) Drill {
	hinges := []frame.Hand{frame.Left, frame.Right}[rng.IntN(2)]
	toward := rng.IntN(2) == 0
	seen, stand := hinges, message.ID("drill-hand.toward")
	if !toward { // from the push side it is the other way round
		seen, stand = hinges.Other(), "drill-hand.away"
	}
	if rng.IntN(2) == 0 {
		return among(
			rng, message.With("drill-hand.asks", "stand", stand, "seen", seen),
			message.With("drill-hand.on", "hand", hinges),
			[]message.Message{message.With("drill-hand.on", "hand", hinges.Other())},
			message.With("drill-hand.why"),
		)
	}
	return among(
		rng, message.With("drill-hand.asks-block", "stand", stand, "seen", seen),
		message.With("drill-hand.to", "hand", seen.Other()),
		[]message.Message{message.With("drill-hand.to", "hand", seen), message.With("drill-hand.either")},
		message.With("drill-hand.why-block"),
	)
}

// askWidth asks for the slab's width from three widths: the widest less two margins.
func askWidth(rng *rand.Rand) Drill {
	a := 700 + rng.IntN(250)
	w := []int{a, a + 1 + rng.IntN(4), a + 5 + rng.IntN(3)}
	widest := w[2]
	rng.Shuffle(3, func(i, j int) { w[i], w[j] = w[j], w[i] })
	const m = 3
	say := func(v int) message.Message {
		return message.With("drill.length", "length", metric(measure.Length(v)*mm))
	}
	return among(
		rng, message.With(
			"drill-width.asks", "head", message.Number(w[0]), "middle", message.Number(w[1]), "foot",
			message.Number(w[2]), "margin", metric(m*mm),
		),
		say(widest-2*m), []message.Message{say(a - 2*m), say((w[0]+w[1]+w[2])/3 - 2*m), say(widest - m)},
		message.With("drill-width.why"),
	)
}

// metric and inches are the lengths that a question gives in its own unit, whatever the job's.
func metric(l measure.Length) message.Message {
	return message.With("drill.mm", "length", measure.Exact(l, measure.Millimetres))
}

func inches(l measure.Length) message.Message {
	return message.With("drill.in", "length", measure.Exact(l, measure.Inches))
}

// askSlip shows readings of which one was misread by ten.
func askSlip(rng *rand.Rand) Drill {
	base, lean := 740+rng.IntN(200), rng.IntN(5)-2
	places := []int{200, 600, 1000, 1400, 1800}
	bad := rng.IntN(5)
	by := []int{10, -10}[rng.IntN(2)]
	var list []message.Message
	var read message.And
	for i, p := range places {
		v := base + lean*i/2 + rng.IntN(2)
		if i == bad {
			v += by
		}
		list = append(list, message.With("drill-slip.up", "at", metric(measure.Length(p)*mm)))
		read = append(
			read,
			message.With("drill-slip.read", "value", metric(measure.Length(v)*mm), "at", metric(measure.Length(p)*mm)),
		)
	}
	others := slices.Delete(slices.Clone(list), bad, bad+1)
	rng.Shuffle(len(others), func(i, j int) { others[i], others[j] = others[j], others[i] })
	return among(rng, message.With("drill-slip.asks", "read", read), list[bad], others, message.With("drill-slip.why"))
}

// askFractions asks for a sum in fractions of an inch.
func askFractions(rng *rand.Rand) Drill {
	whole := 28 + rng.IntN(8)
	w := measure.Length(whole)*measure.Inch + measure.Length(1+rng.IntN(15))*measure.Inch/16
	m := measure.Length(1+rng.IntN(3)) * measure.Inch / 16
	right := w - 2*m
	say := func(l measure.Length) message.Message { return message.With("drill.length", "length", inches(l)) }
	return among(
		rng, message.With("drill-fractions.asks", "width", inches(w), "margin", inches(m)), say(right),
		[]message.Message{say(w - m), say(right + measure.Inch/16), say(right - measure.Inch/16), say(w + 2*m)},
		message.With("drill-fractions.why"),
	)
}

// fitting is the order in which a slab is fitted. Common practice.
var fitting = []message.ID{"drill-order.head", "drill-order.hinge", "drill-order.lock", "drill-order.foot"}

// hingeFirst is the other school's. Common practice.
var hingeFirst = []message.ID{"drill-order.hinge", "drill-order.head", "drill-order.lock", "drill-order.foot"}

func askOrder(rng *rand.Rand) Drill {
	i := rng.IntN(3)
	fitting, why := fitting, message.ID("drill-order.why")
	if rng.IntN(3) == 0 {
		fitting, why = hingeFirst, "drill-order.why-hinge"
	}
	var others []message.Message
	for k, f := range fitting {
		if k != i {
			others = append(others, message.With(f))
		}
	}
	return among(
		rng, message.With("drill-order.asks", "first", fitting[0], "done", fitting[i]), message.With(fitting[i+1]),
		others, message.With(why),
	)
}

// askPocket asks for the depth of both recesses: margin = closed hinge − both recesses.
func askPocket(rng *rand.Rand) Drill {
	closed := measure.Length(12+rng.IntN(7)) * mm / 2 // 6 to 9 mm
	want := measure.Length(4+rng.IntN(3)) * mm / 2    // 2 to 3 mm
	each := (closed - want) / 2
	c := hinge.Choice{Plate: each, Closed: closed}
	say := func(l measure.Length) message.Message { return message.With("drill.length", "length", metric(l)) }
	return among(
		rng, message.With("drill-pocket.asks", "closed", metric(closed), "want", metric(want)), say(each),
		[]message.Message{say(closed - want), say(closed / 2), say(each + mm/2), say(want)},
		message.With("drill-pocket.why"), message.With(
			"drill-pocket.checked", "closed", metric(closed), "each", metric(each), "left", metric(c.Flush().Value),
		),
	)
}

// rubs are the symptoms of a hung slab; the catalogue has each one's cure. Common practice.
var rubs = []message.ID{
	"head-and-lock", "even-lock", "wide-lock", "springs", "drags", "top-touches", "latch-low", "mid-height",
}

func askCure(rng *rand.Rand) Drill {
	i := rng.IntN(len(rubs))
	var others []message.Message
	for k, rub := range rubs {
		if k != i {
			others = append(others, message.With("drill-cure."+rub))
		}
	}
	rng.Shuffle(len(others), func(a, b int) { others[a], others[b] = others[b], others[a] })
	return among(
		rng, message.With("drill-cure.asks", "seen", "drill-seen."+rubs[i]), message.With("drill-cure."+rubs[i]),
		others, message.With("drill-cure.why"),
	)
}

// Run is one thing that was practised, and how it went.
type Run struct {
	Kind  string // "opening", or a drill's
	Right bool   // answered right, or it fits and nothing too small
	Learn string // of an opening, as it was told
}

// Next is the drill to practise next, with why: the one with the worst results, otherwise one not tried yet, otherwise
// an opening.
func Next(runs []Run) (kind string, why message.Message) {
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
		return "opening", message.With("practice.begin")
	}
	var worst DrillKind
	share := 0.8
	for _, d := range Drills {
		if n := tried[d.ID]; n > 0 {
			if s := float64(right[d.ID]) / float64(n); s < share {
				worst, share = d, s
			}
		}
	}
	if worst.ID != "" {
		return worst.ID, message.With(
			"practice.right-so-far", "drill", worst.Name(), "right", message.Number(right[worst.ID]), "tried",
			message.Number(tried[worst.ID]),
		)
	}
	for _, d := range Drills {
		if tried[d.ID] == 0 {
			return d.ID, message.With("practice.not-tried", "drill", d.Name())
		}
	}
	if learn == "" {
		return "opening", message.With("practice.another")
	}
	return "opening", message.With("practice.last-one", "learn", learn)
}
