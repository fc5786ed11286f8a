package practice

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/simulate"
	"kindmargin/core/survey"
)

// Grade is the result of an attempt, with reasons.
type Grade struct {
	// at the end: every margin at least the least, and within a millimetre of the best straight edge's
	Fits     bool
	First    bool         // it fitted at the first hang
	Small    []frame.Side // edges that stand over a millimetre too far: the slab is bought again
	Trips    int
	Minutes  float64 // readings, trips at twelve minutes, what was done, and an hour for a slab that is bought again
	Readings int
	Uneven   float64 // mm, along lock edge or head, as it is left
	Waste    float64 // cm² of slab that went under the saw
	Least    float64 // cm² that would have, from the right slab
	Said     []Said
	// Unchecked is what was never read; Learn is the drill or the habit that would help most.
	Unchecked []message.Message
	Learn     message.Message
	Plan      Would
}

// Said is one judgement, with its reason.
type Said struct {
	Good bool
	Text message.Message
}

// Would is what the plan would have done with the same readings.
type Would struct {
	Answers bool // it had an answer
	Fits    bool
	First   bool
	Trips   int
	Minutes float64
	Uneven  float64
	Head    measure.Length // width that it would have cut, at the head and the foot
	Foot    measure.Length
	Length  measure.Length
	Why     []message.Message
	Cuts    []message.Sentences // how it would have worked each edge
}

// grade judges an attempt by the true opening.
func (s *State) grade() Grade {
	g := Grade{
		Fits: s.hidden.Fits(s.hung), First: s.hidden.Fits(s.first), Trips: s.Trips, Readings: len(s.Readings),
		Uneven:  s.hidden.Uneven(s.hung),
		Minutes: s.Minutes + job.UsualTrip*float64(s.Trips),
	}
	g.Small = append(g.Small, s.hidden.Small(s.hung)...)
	if len(g.Small) > 0 {
		g.Minutes += simulate.BoughtAgain
	}
	say := func(good bool, id message.ID, args ...any) {
		g.Said = append(g.Said, Said{good, message.With(id, args...)})
	}
	switch {
	case g.First:
		say(true, "grade.first")
	case g.Fits:
		say(
			true, "grade.fits", "rounds", message.With("grade.rounds", "rounds", message.Count(s.Rounds)), "trips",
			message.With("grade.trips", "trips", message.Count(s.Trips)),
		)
	case !s.hidden.GoesIn(s.hung):
		say(false, "grade.rubs")
	default:
		say(false, "grade.uneven", "least", message.Exact(measure.FromMM(simulate.LeastMargin)))
	}
	if len(g.Small) > 0 {
		var edges message.And
		for _, side := range g.Small {
			edges = append(edges, message.Edge(side))
		}
		say(false, "grade.small", "edges", edges)
	}
	s.unchecked(&g)
	s.slips(&g, say)
	s.chosen(&g, say)
	g.Plan = s.would()
	if g.Learn.ID == "" && !g.First && g.Plan.First {
		g.Learn = message.With("learn.cut")
	}
	if g.Learn.ID == "" {
		g.Learn = message.With("learn.harder")
	}
	return g
}

// unchecked lists what was never read of the opening.
func (s *State) unchecked(g *Grade) {
	places := map[survey.Kind]map[string]bool{}
	for _, t := range s.Readings {
		if places[t.Kind] == nil {
			places[t.Kind] = map[string]bool{}
		}
		places[t.Kind][fmt.Sprint(t.Side, t.At)] = true
	}
	of := func(k survey.Kind, side frame.Side) bool {
		return slices.ContainsFunc(s.Readings, func(t Taken) bool {
			return t.Kind == k && (side == frame.NoSide || t.Side == side)
		})
	}
	if n := len(places[survey.Width]); n < 3 {
		g.Unchecked = append(g.Unchecked, message.With("unchecked.width", "places", message.Number(n)))
	}
	if n := len(places[survey.Height]); n < 2 {
		g.Unchecked = append(g.Unchecked, message.With("unchecked.height"))
	}
	if !of(survey.Level, frame.Head) && !of(survey.Square, frame.NoSide) && len(places[survey.Height]) < 2 &&
		!of(survey.Diagonal, frame.NoSide) {
		g.Unchecked = append(g.Unchecked, message.With("unchecked.head"))
	}
	if !of(survey.Plumb, frame.Hinge) && !of(survey.Straight, frame.Hinge) {
		g.Unchecked = append(g.Unchecked, message.With("unchecked.hinge-jamb"))
	}
	if !of(survey.Plumb, frame.Lock) && !of(survey.Straight, frame.Lock) {
		g.Unchecked = append(g.Unchecked, message.With("unchecked.lock-jamb"))
	}
	if len(g.Unchecked) > 0 {
		g.Learn = message.With("learn.measuring", "what", g.Unchecked[0])
	}
}

// slips lists the misread readings, and whether each was found.
func (s *State) slips(g *Grade, say func(bool, message.ID, ...any)) {
	for i, t := range s.Readings {
		if t.Slip == "" {
			continue
		}
		again := slices.ContainsFunc(s.Readings[i+1:], func(o Taken) bool {
			return o.Kind == t.Kind && o.Side == t.Side && o.At == t.At && o.From == t.From && o.To == t.To &&
				o.Slip == ""
		})
		name, slip := t.Title(), slipOf(t.Slip)
		if again {
			say(true, "grade.slip-found", "reading", name, "slip", slip)
			continue
		}
		say(false, "grade.slip-left", "reading", name, "slip", slip)
		// As Measure names it, where the readings tell.
		for _, c := range plan.Solve(s.job, s.opening).Clashes {
			if c.Reading.ID == t.ID {
				say(false, "grade.as-measure-says", "says", c.Message())
			}
		}
		g.Learn = message.With("learn.slip")
	}
}

// chosen judges the chosen margins, slab and edge.
func (s *State) chosen(g *Grade, say func(bool, message.ID, ...any)) {
	if s.School == "painted" {
		say(true, "grade.margins")
	} else {
		say(false, "grade.other-margins")
	}
	best, need := s.rightSlab()
	z := s.ex.Slabs[s.Slab]
	area := func(w, l measure.Length) float64 { return w.MM() * l.MM() / 100 }
	top, foot, long := s.hung.Size()
	made := (top + foot) / 2 * long / 100
	g.Waste = math.Max(area(z[0], z[1])-made, 0)
	if best >= 0 {
		g.Least = math.Max(area(s.ex.Slabs[best][0], s.ex.Slabs[best][1])-area(need[0], need[1]), 0)
	}
	switch {
	case s.Slab == best:
		say(true, "grade.size", "size", size(z))
	case best < 0:
	case z[0] < need[0] || z[1] < need[1]:
		say(false, "grade.size-small", "size", size(z), "need", size(need), "best", size(s.ex.Slabs[best]))
	default:
		say(false, "grade.size-large", "size", size(z), "best", size(s.ex.Slabs[best]))
	}
	if s.byPlan {
		return
	}
	switch {
	case s.ex.Bored && s.Edge != "keep-lock":
		say(false, "grade.bored-edge")
		g.Learn = message.With("learn.edge")
	case s.Edge == "keep-lock":
		say(true, "grade.hinge-edge")
	}
}

// size is a slab's size, to a millimetre.
func size(z [2]measure.Length) message.Size {
	return message.Size{z[0].Round(mm, measure.Nearest), z[1].Round(mm, measure.Nearest)}
}

// rightSlab is the smallest slab that is large enough, and the size needed.
func (s *State) rightSlab() (best int, need [2]measure.Length) {
	var wide, high float64
	for i, v := range s.hidden.Sides[frame.Lock] {
		wide = max(wide, v-s.hidden.Sides[frame.Hinge][min(i, len(s.hidden.Sides[frame.Hinge])-1)])
	}
	for i, v := range s.hidden.Sides[frame.Head] {
		high = max(high, v-s.hidden.Sides[frame.Foot][min(i, len(s.hidden.Sides[frame.Foot])-1)])
	}
	need = [2]measure.Length{
		measure.FromMM(wide - 2*simulate.WantedMargin),
		measure.FromMM(high - simulate.WantedMargin - simulate.WantedFoot),
	}
	best = -1
	for i, z := range s.ex.Slabs {
		if z[0] < need[0] || z[1] < need[1] {
			continue
		}
		if best < 0 || z[0].MM()*z[1].MM() < s.ex.Slabs[best][0].MM()*s.ex.Slabs[best][1].MM() {
			best = i
		}
	}
	return best, need
}

// would is what the plan would have done with the same readings, the right slab and margins: it cuts by its sheet,
// hangs the slab, and takes its own first way until it fits, as in package simulate.
func (s *State) would() (w Would) {
	o := State{ex: s.ex, hidden: s.hidden, kit: s.kit, job: s.job, opening: s.opening, Slab: s.Slab, School: s.School}
	o.opening.Tried = nil
	rng := rand.New(rand.NewPCG(s.ex.Seed, 1<<32))
	best, _ := s.rightSlab()
	if best >= 0 {
		_ = o.move(Move{Do: DoSlab, Slab: best}, rng) // one of its own slabs
	}
	_ = o.move(Move{Do: DoMargins, School: "painted"}, rng)
	if err := o.cut(Move{Plan: true}, rng); err != nil {
		if m, ok := message.Of(err); ok {
			w.Why = append(w.Why, m)
		}
		if p := plan.Solve(s.job, o.opening); len(p.ToRead) > 0 {
			w.Why = append(w.Why, message.With("grade.would-read", "reading", p.ToRead[0].Reading))
		}
		return w
	}
	w.Answers, w.First = true, o.hidden.Fits(o.hung)
	w.Head, w.Foot, w.Length = o.made.Head, o.made.Foot, o.made.Length
	p := plan.Solve(s.job, func() job.Opening { d := o.opening; d.Tried = nil; return d }())
	for e := range p.Leaves[0].Cut.InOrder() {
		w.Cuts = append(w.Cuts, e.Says)
	}
	if len(p.ToRead) > 0 {
		w.Why = append(
			w.Why, message.With("grade.would-have-read", "reading", p.ToRead[0].Reading, "brings", p.ToRead[0].Brings),
		)
	}
	for range 8 {
		if o.adjust(Move{Plan: true}, rng) != nil {
			break
		}
	}
	w.Fits, w.Trips, w.Uneven = o.hidden.Fits(o.hung), o.Trips, o.hidden.Uneven(o.hung)
	w.Minutes = s.readMinutes() + o.Minutes + job.UsualTrip*float64(o.Trips)
	return w
}

// readMinutes are the minutes of the readings alone.
func (s *State) readMinutes() (sum float64) {
	for _, t := range s.Readings {
		sum += t.Minutes
	}
	return sum
}
