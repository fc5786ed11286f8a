package cuts

import (
	"cmp"
	"math"
	"slices"

	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// doubts stops the cut while another reading is needed: of the head's slope, of the middle of a side, or one that would
// reveal a slip that could ruin the slab. left is what stays on each edge, in mm. For a cut that was confirmed, each is
// a Care and nothing waits.
func doubts(
	d site.Opening, s site.Survey, o fit.Outline, left frame.Each[float64],
) (ask []site.Suggestion, said site.Findings) {
	if d.Framed() != nil { // the frame is moved, not the slab cut
		return nil, nil
	}
	all := []func(site.Opening, site.Survey, fit.Outline, frame.Each[float64]) (*site.Suggestion, site.Findings){
		taper, middles, slips,
	}
	if d.Rules == site.Rules1 {
		all = all[:1]
	}
	for _, asks := range all {
		a, more := asks(d, s, o, left)
		if said.Add(more); a != nil {
			ask = append(ask, *a)
		}
	}
	return ask, said
}

// doubt adds one: a Stop, or for a confirmed cut a Care.
func doubt(d site.Opening, said *site.Findings, waits, knowingly site.Code, args message.Args) {
	gravity, code := site.Stop, waits
	if d.Cut.Knowing {
		gravity, code = site.Care, knowingly
	}
	said.Say(gravity, job.StepCut, "/cut/knowing", code, args)
}

// taper stops the cut where the head's slope is so uncertain that the leave-on, in mm, would taper it: another reading
// is asked for.
func taper(
	d site.Opening, s site.Survey, o fit.Outline, left frame.Each[float64],
) (ask *site.Suggestion, said site.Findings) {
	if left[frame.Head] <= fit.MostTaper || d.Habit() != job.WhenSure {
		return nil, nil
	}
	gaps := o.Edges[frame.Head].Gaps
	if gaps[len(gaps)-1].Sigma < fit.SlopeUnread {
		return nil, nil
	}
	row := o.Wanted[slices.IndexFunc(o.Wanted, func(w fit.WantedMargin) bool {
		return w.Side == frame.Head && w.Where == 2
	})].Row
	slopes := slices.DeleteFunc(slices.Clone(s.Could), func(r survey.Reading) bool {
		return r.Kind != survey.Square && r.Kind != survey.Level && r.Kind != survey.Plumb
	})
	gains := s.Shape.Best([]survey.Row{row}, slopes)
	if len(gains) == 0 || gains[0].To > hardlySurer*gains[0].From {
		return nil, nil
	}
	g := gains[0]
	doubt(d, &said, site.HeadUnread, site.HeadUnreadKnowing, message.Args{
		"reading": g.Reading, "sure": message.Sure(g.From), "left": measure.FromMM(left[frame.Head]),
		// The taper is proportional to the slope's sigma, and falls with it.
		"then": measure.FromMM(max(left[frame.Head]*g.To/g.From, 0)),
	})
	first := d.Suggest(g.Reading, site.Brings(frame.Head, 2, g), false)
	return &first, said
}

// hardlySurer is the share of a figure's σ to which a reading must bring it down, to be worth stopping a cut for.
const hardlySurer = 0.9

// middleKnown is the greatest σ of the middle of a side against its ends, as a multiple of the unevenness that is
// accepted: what is not seen need not be read.
const middleKnown = 2

// middles stops the cut while the middle of the head or of a jamb is not known: two readings alone cannot tell a bowed
// side from a straight one.
func middles(
	d site.Opening, s site.Survey, _ fit.Outline, _ frame.Each[float64],
) (ask *site.Suggestion, said site.Findings) {
	sides := []frame.Side{frame.Head, frame.Hinge, frame.Lock}
	var rows []survey.Row
	for _, side := range sides {
		long := s.Width
		if side.Upright() {
			long = s.Height
		}
		at := func(share, by float64) survey.Term {
			return survey.Term{Of: survey.Of(side), At: share * long, By: by}
		}
		rows = append(rows, survey.Row{at(0.5, 1), at(0.1, -0.5), at(0.9, -0.5)})
	}
	_, cov := s.Shape.Joint(rows)
	enough := max(middleKnown*d.Margins.Uneven.MM(), leastMiddle)
	for i, side := range sides {
		sigma := math.Sqrt(max(cov.At(i, i), 0))
		if sigma <= enough {
			continue
		}
		gains := s.Shape.Best(rows[i:i+1], s.Could)
		if len(gains) == 0 || gains[0].To > hardlySurer*gains[0].From { // no tool of the kit tells
			continue
		}
		doubt(d, &said, site.MiddleUnread, site.MiddleUnreadKnowing, message.Args{
			"wall": message.Wall(side), "sure": message.Sure(sigma), "reading": gains[0].Reading,
		})
		if ask == nil {
			a := d.Suggest(gains[0].Reading, middleBrings(side, gains[0]), false)
			ask = &a
		}
	}
	return ask, said
}

// leastMiddle is the resolution of a middle by tape, in mm, however little unevenness is accepted.
const leastMiddle = 0.8

// danger is a slip that could ruin the slab unnoticed.
type danger struct {
	survey.Slip
	raised float64 // the chance of a ruined slab, by the slip
	wide   float64 // how much too wide a margin would come out, mm
	side   frame.Side
	lacks  float64 // Δχ² until it would be noticed
}

// likely is the danger's weight: its likelihood times its harm.
func (x danger) likely() float64 { return x.raised * math.Exp(-x.Misfit/2) }

// dangers are the slips that may stand in the readings, would hardly be noticed, and would ruin the slab: undone, each
// moves the end of a cut toward too small.
func dangers(d site.Opening, s site.Survey, o fit.Outline, left frame.Each[float64]) (list []danger, in *survey.Doubts) {
	in = s.Shape.Doubts(o.Doubted())
	sure := d.Sureness()
	for side := range left {
		left[side] += d.Rounded(frame.Side(side))
	}
	sound := o.Ruin(sure, left, in.Cov, nil)
	in.Each(func(x *survey.Slip) {
		most, at := 0.0, 0
		for i, v := range x.Shift {
			if v > most {
				most, at = v, i
			}
		}
		if most <= trade.SlipMoves || x.Misfit > mostHidden {
			return
		}
		y := danger{Slip: *x, raised: o.Ruin(sure, left, in.Cov, x.Shift) - sound, wide: most, side: fit.DoubtedOf(at)}
		if y.raised < trade.SlipRaises || y.likely() <= trade.SlipHides {
			return
		}
		y.lacks = 2 * math.Log(y.likely()/trade.SlipHides)
		y.Shift = nil
		list = append(list, y)
	})
	slices.SortStableFunc(list, func(a, b danger) int { return cmp.Compare(b.likely(), a.likely()) })
	return list[:min(len(list), mostDangers)], in
}

// mostHidden is the misfit (χ²) above which a slip is too unlikely, however sure its harm.
var mostHidden = -2 * math.Log(trade.SlipHides)

// mostDangers is how many slips are compared with the readings that could reveal them.
const mostDangers = 30

// slips stops the cut while a common slip could ruin the slab unnoticed. The reading that reveals most of such slips
// for its minutes is asked for; where no tool of the kit reveals any, the doubtful reading is, once more.
func slips(
	d site.Opening, s site.Survey, o fit.Outline, left frame.Each[float64],
) (ask *site.Suggestion, said site.Findings) {
	list, in := dangers(d, s, o, left)
	if len(list) == 0 {
		return nil, nil
	}
	worst := list[0]
	slips := make([]survey.Slip, len(list))
	for i, x := range list {
		slips[i] = x.Slip
	}
	best, most := survey.Reading{}, 0.0
	for c, tells := range in.Telling(slips, s.Could) {
		brings := 0.0
		for i, v := range tells {
			brings += min(v, list[i].lacks)
		}
		if brings /= d.Kit.Tools.Minutes(s.Could[c]); tells[0] >= tellsEnough*worst.lacks && brings > most {
			best, most = s.Could[c], brings
		}
	}
	if most == 0 {
		again, ok := in.Again(worst.Slip)
		if !ok { // a measurement of the slab that was offered up
			doubt(d, &said, site.SlabSlip, site.SlabSlipKnowing, message.Args{
				"offer": worst.Offer.Name, "what": offerFields[worst.Field], "slip": message.ID("slip." + worst.ID),
				"wide": measure.FromMM(worst.wide), "side": message.Margin(worst.side),
			})
			return nil, said
		}
		best = again
	}
	args := message.Args{
		"slip": message.ID("slip." + worst.ID), "wide": measure.FromMM(worst.wide), "side": message.Margin(worst.side),
		"next": best,
	}
	waits, knowingly := site.SlipHides, site.SlipHidesKnowing
	switch {
	case worst.Swapped != nil:
		waits, knowingly = site.SwapHides, site.SwapHidesKnowing
		args["reading"], args["other"] = worst.Reading, *worst.Swapped
	case worst.Offer != nil:
		waits, knowingly = site.SlabSlipHides, site.SlabSlipKnowing
		args["offer"], args["what"] = worst.Offer.Name, offerFields[worst.Field]
	default:
		args["reading"] = worst.Reading
	}
	doubt(d, &said, waits, knowingly, args)
	a := d.Suggest(best, wouldTell, false)
	return &a, said
}

// tellsEnough is the share of the missing misfit that a reading must bring to be asked for.
const tellsEnough = 0.25

// offerFields are the IDs of the measurements of a slab that was offered up.
var offerFields = map[string]message.ID{
	"width": "slab-size.width-head", "widthMid": "slab-size.width-mid", "widthFoot": "slab-size.width-foot",
	"length": "slab-size.length-hinge", "lengthLock": "slab-size.length-lock", "square": "slab-size.square",
}

// wouldTell is the reason of a reading that would reveal a slip.
var wouldTell = message.Sentences{{ID: "brings.slip"}}

// middleBrings is the reason of a reading of the middle of a side.
func middleBrings(side frame.Side, g survey.Gain) message.Sentences {
	return message.Sentences{{
		ID:   "brings.middle",
		Args: message.Args{"wall": message.Wall(side), "from": message.Sure(g.From), "to": message.Sure(g.To)},
	}}
}
