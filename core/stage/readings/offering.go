package readings

import (
	"math"
	"slices"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// offerUp says by how many minutes the door is done sooner where the slab that is cut is stood against the opening and
// the frame pencilled on it, and not the readings of order taken; the zero Message where it is not.
func (t trips) offerUp(d site.Opening, s site.Survey, q *survey.Search, order []int) (m message.Message) {
	byTape := d.Measuring == job.AsItComes || d.Measuring == job.ByTape
	if !byTape || !d.OwnEdges() || d.Framed() != nil || d.Habit() != job.WhenSure ||
		slices.ContainsFunc(d.Offers, d.CutsOffered) {
		return m
	}
	q.Reset()
	tape := 0.0
	for _, k := range order {
		tape += d.Kit.Tools.Minutes(q.Candidates[k]) + trade.TakeMinutes
		q.Take(k)
	}
	tape += t.still(d, s, q.Now())

	f := d.Itself(survey.Offer{ID: "offered", Width: measure.FromMM(s.Width), Length: measure.FromMM(s.Height)})
	places := placesOn(f, d.Unit)
	chosen := d.Slab.Width > 0 && d.Slab.Length > 0 // otherwise it will be the next size up
	covers := !chosen || f.Width.MM() > s.Width || f.Length.MM() > s.Height
	offered := trade.Placing
	for i := range places {
		each := d.Kit.Tools.Minutes(places[i])
		if covers {
			places[i].PlusMinus, each = trade.TickSure, trade.TickMinutes
		}
		offered += each + trade.TakeMinutes
	}
	t.trip.Slab = 0 // it is marked from its own edges
	best := make([]float64, len(t.before))
	for i, n := 0, 6*len(t.drawn); i < n; i++ {
		best[i*n+i] = min(t.before[i*n+i], surestMarked*surestMarked)
	}
	if tape-offered-t.still(d, s, best) < offerSpares { // which is worked out at once
		return m
	}
	stands, err := s.Shape.Offering(f)
	if err != nil {
		return m
	}
	marks := stands.Search(t.rows(), places)
	for k := range marks.Candidates {
		marks.Take(k)
	}
	if offered += t.still(d, s, marks.Now()); tape-offered < offerSpares {
		return m
	}
	id := message.ID("worth.offer-up")
	if !chosen {
		id = "worth.offer-later"
	}
	return message.With(id, "minutes", message.Count(math.Round(tape-offered)))
}

// surestMarked is less than how sure an end of an edge ever is by marks of a slab against its opening, a standard
// deviation in mm: five of half a millimetre tell a line's end to about 0.4.
const surestMarked = 0.3

// offerSpares is how many minutes it must spare to stand a slab against its opening: it is lifted, perhaps by two.
// Assumed.
const offerSpares = 5.0

// still is about the minutes that a door takes until it fits, cut with a covariance of all ends: of trips, and of
// planing what was left on.
func (t trips) still(d site.Opening, s site.Survey, cov []float64) float64 {
	return (d.Kit.TripMinutes()+trade.MissedFirst)*t.further(cov) + t.planing(cov, s)
}
