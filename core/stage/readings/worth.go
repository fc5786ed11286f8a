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

// The look-ahead, in readings: at most, and past the last that brought the door nearer to its end.
const (
	mostAhead = 40
	patience  = 6
)

// leastSaved is how many minutes readings must save together to be asked for: less is not worth the asking.
const leastSaved = 1.0

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

// further is about the expected number of trips with a covariance of all ends: one where a leaf does not fit, and
// another where it does not go in.
func (t trips) further(cov []float64) float64 {
	in := 0.0
	t.each(cov, func(k int, own, before []float64) { in += t.drawn[k].GoesIn(t.trip, t.leave[k], own, before) })
	return 2 - math.Exp(t.nearness(cov)) - math.Exp(in)
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

// worthwhile lists the readings to take next, in the order of a walk; empty when enough was measured.
func worthwhile(d site.Opening, s site.Survey, t trips) (n Asked) {
	q := s.Shape.Search(t.rows(), s.Could)
	t.before = q.Now()
	order, best := t.order(d, s, q)
	brings := worthOf(best)
	taken := make([]survey.Reading, len(order))
	for i, k := range order {
		taken[i] = q.Candidates[k]
	}
	walk(d, taken)
	for _, r := range taken[:min(len(taken), site.MostOffered)] {
		x := d.Suggest(r, thenWorth, false)
		if len(n.Readings) == 0 {
			x.Brings, x.Worth = brings, best
		}
		n.Readings = append(n.Readings, x)
	}
	n.Trip, n.OfferUp = best.From, t.offerUp(d, s, q, order)
	return n
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
func (t trips) order(d site.Opening, s site.Survey, q *survey.Search) (order []int, best site.Worth) {
	at, then := t.nearness(t.before), t.before
	now := t.still(d, s, t.before)
	cov := make([]float64, len(t.before))
	gains := make([]gain, len(q.Candidates))
	for k, r := range q.Candidates {
		gains[k] = gain{at: k, own: d.Kit.Tools.Minutes(r) + trade.TakeMinutes, brings: math.Inf(1)}
	}
	take, minutes := 0, 0.0
	for len(order) < min(mostAhead, take+patience) {
		first := greatest(gains, func(g gain) float64 {
			q.After(cov, g.at)
			return (t.nearness(cov) - at) / g.own
		})
		if first.brings <= 0 {
			break
		}
		order, minutes = append(order, first.at), minutes+first.own
		gains = slices.DeleteFunc(gains, func(g gain) bool { return g.at == first.at })
		q.Take(first.at)
		taken := q.Now()
		at = t.nearness(taken)
		if saves := now - t.still(d, s, taken) - minutes; saves > max(best.Minutes, leastSaved) {
			best, take, then = site.Worth{Minutes: saves, Own: minutes}, len(order), taken
		}
	}
	best.With, best.From, best.To = take-1, t.chance(t.before), t.chance(then)
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
	switch {
	case w.To >= nearlySure: // it spares planing, and the try after the first
		say("worth.trip-anyway", nil)
	case spoken(w.From) == spoken(w.To):
		say("worth.less-left", nil)
	default:
		say("worth.trip", message.Args{"from": message.Chance(w.From), "to": message.Chance(w.To)})
	}
	return list
}

// nearlySure is the probability from which something is said to be nearly sure.
const nearlySure = 0.95

// spoken is a probability rounded as it is said.
func spoken(p float64) float64 {
	if p >= 0.05 && p < nearlySure {
		return math.Round(p * 10)
	}
	return math.Ceil(p*100) / 10
}
