package readings

import (
	"cmp"
	"math"
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// mostAhead is the look-ahead, in readings.
const mostAhead = 40

// trips are the trip of each leaf.
type trips struct {
	drawn  []fit.Outline
	leave  []frame.Each[float64]
	trip   fit.Trip
	before []float64 // covariance of all ends, 6 of each leaf
}

func tripsOf(d site.Opening, drawn []fit.Outline, leave []frame.Each[float64]) trips {
	return trips{drawn: drawn, leave: leave, trip: fit.Trip{
		Sureness: d.Sureness(), Round: d.Tape.Step().MM(), Fits: d.Kit.FitsWithin().MM(),
		ByRule: d.Habit() == job.WhenSure,
	}}
}

func (t trips) rows() (rows []survey.Row) {
	for _, o := range t.drawn {
		rows = append(rows, o.Ends()...)
	}
	return rows
}

// chance is the probability of another trip for any leaf, with a covariance of all ends.
func (t trips) chance(cov []float64) float64 {
	fits := 1.0
	t.each(cov, func(k int, own, before []float64) { fits *= 1 - t.drawn[k].Chance(t.trip, t.leave[k], own, before) })
	return 1 - fits
}

// nearness is the sum of the leaves' log probabilities of needing no further trip.
func (t trips) nearness(cov []float64) (near float64) {
	t.each(cov, func(k int, own, before []float64) { near += t.drawn[k].Nearness(t.trip, t.leave[k], own, before) })
	return near
}

// further is about the expected number of trips at a nearness: one where a leaf does not fit, and another where it does
// not go in, whose log probability is goesIn.
func (t trips) further(near float64, cov []float64) (further float64, goesIn bool) {
	in := 0.0
	t.each(cov, func(k int, own, before []float64) { in += t.drawn[k].GoesIn(t.trip, t.leave[k], own, before) })
	return 2 - math.Exp(near) - math.Exp(in), in > -0.02
}

// each gives each leaf's own part of the covariance, now and before.
func (t trips) each(cov []float64, f func(k int, own, before []float64)) {
	if len(t.drawn) == 1 {
		f(0, cov, t.before)
		return
	}
	n := 6 * len(t.drawn)
	var own, before [36]float64
	for k := range t.drawn {
		for i := range 6 {
			copy(own[i*6:i*6+6], cov[(6*k+i)*n+6*k:])
			copy(before[i*6:i*6+6], t.before[(6*k+i)*n+6*k:])
		}
		f(k, own[:], before[:])
	}
}

// worthwhile lists the readings to take next, in the order of a walk, and the present probability of another trip. It is
// empty when enough was measured.
func worthwhile(d site.Opening, s site.Survey, t trips) (list []site.Suggestion, now float64) {
	q := s.Shape.Search(t.rows(), s.Could)
	t.before = q.Now()
	order, best := t.order(q, d.Kit)
	brings := worthOf(best)
	if len(order) == 0 {
		q.Reset()
		order, brings = t.tooBig(d, s, q)
	}
	taken := make([]survey.Reading, len(order))
	for i, k := range order {
		taken[i] = q.Candidates[k]
	}
	walk(d, taken)
	for _, r := range taken[:min(len(taken), site.MostOffered)] {
		x := d.Suggest(r, thenWorth, false)
		if len(list) == 0 {
			x.Brings, x.Worth = brings, best
		}
		list = append(list, x)
	}
	return list, t.chance(t.before)
}

// walk sorts readings as a person takes them: those of the tool in hand first, one tool after the other, all of one side
// before the next, from the floor up and from the hinge jamb across.
func walk(d site.Opening, list []survey.Reading) {
	tool := func(r survey.Reading) string {
		id, instrument := d.Kit.Tools.Tool(r)
		return id + " " + instrument
	}
	var tools []string // in the order in which they are taken up
	if n := len(d.Readings); n > 0 {
		tools = append(tools, tool(d.Readings[n-1]))
	}
	for _, r := range list {
		if t := tool(r); !slices.Contains(tools, t) {
			tools = append(tools, t)
		}
	}
	slices.SortStableFunc(list, func(a, b survey.Reading) int {
		return cmp.Or(
			cmp.Compare(slices.Index(tools, tool(a)), slices.Index(tools, tool(b))), cmp.Compare(a.Kind, b.Kind),
			cmp.Compare(a.Side, b.Side), cmp.Compare(a.At, b.At),
		)
	})
}

// tooBig picks the readings that are worth taking where no number of them spares the trip, and the leave-on makes a
// slab that hardly goes in: each spares planing, of more minutes than its own. It gives their reason too.
func (t trips) tooBig(d site.Opening, s site.Survey, q *survey.Search) (order []int, brings message.Sentences) {
	most := 0.0
	for k, o := range t.drawn {
		most = max(most, o.TooBig(t.leave[k]))
	}
	if most == 0 || d.Habit() != job.WhenSure {
		return nil, nil
	}
	now, cov := t.planing(t.before, s), slices.Clone(t.before)
	first := now
	gains := make([]gain, len(q.Candidates))
	for k, r := range q.Candidates {
		gains[k] = gain{at: k, own: d.Kit.Tools.Minutes(r) + tooBigMore, brings: math.Inf(1)}
	}
	for len(order) < mostAhead && len(gains) > 0 {
		best := greatest(gains, func(g gain) float64 {
			q.After(cov, g.at)
			return (now - t.planing(cov, s)) / g.own
		})
		if best.brings < 1 {
			break
		}
		order = append(order, best.at)
		gains = slices.DeleteFunc(gains, func(g gain) bool { return g.at == best.at })
		q.Take(best.at)
		now = t.planing(q.Now(), s)
	}
	brings = planingOf(first-now, len(order)-1)
	offers := slices.ContainsFunc(d.Offers, d.CutsOffered)
	if d.OwnEdges() && len(d.Slab.Missing()) == 0 && !offers {
		brings = append(brings, message.Message{ID: "worth.offer-up"})
	}
	return order, brings
}

// tooBigMore is how many minutes more than it takes itself a reading must spare where it spares planing alone: one trip
// is likely in any case, and the edges are then taken to the line. In package simulate fewer readings cost no more.
const tooBigMore = 2.0

// planing is about the minutes of planing the leave-on off, with a covariance of all ends.
func (t trips) planing(cov []float64, s site.Survey) (minutes float64) {
	long := [3]float64{s.Height, s.Width, s.Width}
	t.each(cov, func(k int, own, before []float64) {
		for e, left := range t.trip.LeftOn(t.leave[k], own, before) {
			minutes += trade.WoodMinutes * left * long[e] / 1000
		}
	})
	return minutes
}

// order picks greedily the readings that bring most for their minutes, as many as are worth most together, and gives
// their worth. One reading alone seldom spares a trip and a dozen do, so it looks ahead.
func (t trips) order(q *survey.Search, kit job.Kit) (order []int, best site.Worth) {
	now, cost := t.chance(t.before), kit.TripMinutes()+trade.MissedFirst
	at := t.nearness(t.before)
	trips, goesIn := t.further(at, t.before)
	cov := make([]float64, len(t.before))
	gains := make([]gain, len(q.Candidates))
	for k, r := range q.Candidates {
		gains[k] = gain{at: k, own: kit.Tools.Minutes(r) + trade.TakeMinutes, brings: math.Inf(1)}
	}
	take := 0
	for minutes := 0.0; len(order) < mostAhead && minutes < cost*trips; {
		first := greatest(gains, func(g gain) float64 {
			q.After(cov, g.at)
			return (t.nearness(cov) - at) / g.own
		})
		// A trip costs cost minutes, so a reading must bring more than a share of 1/cost nearer each minute; the shares
		// only fall, so no more than most can be spared.
		nearest := min(at+first.brings*(cost*trips-minutes), 0)
		most := cost*(trips-1+math.Exp(nearest)) - minutes
		if first.brings <= 0 || goesIn && cost*first.brings < 1 || most <= best.Minutes {
			break
		}
		order, minutes = append(order, first.at), minutes+first.own
		gains = slices.DeleteFunc(gains, func(g gain) bool { return g.at == first.at })
		q.Take(first.at)
		taken := q.Now()
		at = t.nearness(taken)
		var then float64
		if then, goesIn = t.further(at, taken); cost*(trips-then)-minutes > best.Minutes {
			best, take = site.Worth{
				Minutes: cost*(trips-then) - minutes, Own: minutes, From: now, To: t.chance(taken),
			}, len(order)
		}
	}
	best.With = take - 1
	return order[:take], best
}

// gain is what a candidate brings for each minute, when last evaluated.
type gain struct {
	at          int
	own, brings float64
}

// greatest gives the candidate that brings most now. Gains hardly ever grow as others are taken (lazy greedy), so only
// those are evaluated again whose last gain exceeds the best present one.
func greatest(gains []gain, brings func(gain) float64) gain {
	best := gain{brings: math.Inf(-1)}
	for i := range gains {
		most := i
		for k := i + 1; k < len(gains); k++ {
			if gains[k].brings > gains[most].brings {
				most = k
			}
		}
		if gains[most].brings <= best.brings {
			break
		}
		gains[i], gains[most] = gains[most], gains[i]
		gains[i].brings = brings(gains[i])
		if gains[i].brings > best.brings {
			best = gains[i]
		}
	}
	return best
}

// worthOf is the reason of a reading that is worth its time.
func worthOf(w site.Worth) (list message.Sentences) {
	say := func(id message.ID, args message.Args) { list = append(list, message.Message{ID: id, Args: args}) }
	if m := math.Round(w.Minutes); m < 1 {
		say("worth.half", nil)
	} else {
		say("worth.minutes", message.Args{"minutes": message.Count(m)})
	}
	if w.With > 0 {
		say("worth.more", message.Args{"more": message.Count(w.With)})
	}
	if spoken(w.From) == spoken(w.To) { // what it spares is the try after the first
		say("worth.less-left", nil)
	} else {
		say("worth.trip", message.Args{"from": message.Chance(w.From), "to": message.Chance(w.To)})
	}
	return list
}

// planingOf is the reason of readings that spare planing, so many minutes with more after the first.
func planingOf(minutes float64, more int) (list message.Sentences) {
	list = message.Sentences{{ID: "worth.planing", Args: message.Args{"minutes": message.Count(math.Round(minutes))}}}
	if more > 0 {
		list = append(list, message.Message{ID: "worth.more", Args: message.Args{"more": message.Count(more)}})
	}
	return append(list, message.Message{ID: "worth.trip-anyway"})
}

// spoken is a probability rounded as it is said.
func spoken(p float64) float64 {
	if p >= 0.05 && p < 0.95 {
		return math.Round(p * 10)
	}
	return math.Ceil(p*100) / 10
}
