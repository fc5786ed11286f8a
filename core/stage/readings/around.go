package readings

import (
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// roundSlab lists the places round a slab that was offered up, or the old door, that are not read yet, in turn; empty
// for another method of measuring, or where no slab stands in the opening.
func roundSlab(d site.Opening, s site.Survey) (list []site.Suggestion) {
	if d.Measuring != job.OfferedUp && d.Measuring != job.FromOldDoor {
		return nil
	}
	// The newest placing is the current one.
	for _, f := range slices.Backward(s.Offers) {
		if f.Old != (d.Measuring == job.FromOldDoor) {
			continue
		}
		places := placesRound(f, d.Unit)
		if d.CutsOffered(f) {
			places = placesOn(f, d.Unit)
		}
		for _, r := range places {
			read := slices.ContainsFunc(d.Readings, func(x survey.Reading) bool {
				return x.Kind == survey.Gap && x.Offer == f.ID && x.Side == r.Side && x.At == r.At
			})
			if !read {
				list = append(list, d.Suggest(r, roundTheSlab, false))
			}
		}
		break
	}
	return list
}

// placesOn are the places round the slab that is cut, whose own edges are marked: each end and the middle, and the
// quarters of the long edges, in the same round.
func placesOn(f survey.Offer, u measure.Unit) (list []survey.Reading) {
	step := 50 * measure.Millimetre
	if u == measure.Inches {
		step = 2 * measure.Inch
	}
	for _, side := range []frame.Side{frame.Hinge, frame.Head, frame.Lock, frame.Foot} {
		whole := f.Width
		if side.Upright() {
			whole = f.Length
		}
		places := []measure.Length{step, whole / 2, whole - step}
		if side.Upright() {
			places = []measure.Length{step, whole / 4, whole / 2, whole * 3 / 4, whole - step}
		}
		if side == frame.Lock || side == frame.Foot {
			slices.Reverse(places)
		}
		for _, at := range places {
			list = append(list, survey.Reading{
				Kind: survey.Gap, Side: side, Offer: f.ID, At: at.Round(step, measure.Nearest),
			})
		}
	}
	return list
}

// placesRound are the places of a packer, once round: up the hinge edge, across the head, down the lock edge, and back
// along the foot.
func placesRound(f survey.Offer, u measure.Unit) (list []survey.Reading) {
	step := 50 * measure.Millimetre
	if u == measure.Inches {
		step = 2 * measure.Inch
	}
	at := func(side frame.Side, whole measure.Length, parts ...measure.Length) {
		for _, p := range parts {
			list = append(list, survey.Reading{
				Kind: survey.Gap, Side: side, Offer: f.ID, At: (whole * p / 16).Round(step, measure.Nearest),
			})
		}
	}
	at(frame.Hinge, f.Length, 2, 8, 14)
	at(frame.Head, f.Width, 2, 8, 14)
	at(frame.Lock, f.Length, 14, 8, 2)
	at(frame.Foot, f.Width, 14, 2)
	return list
}
