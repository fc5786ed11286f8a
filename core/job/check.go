package job

import (
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
)

// Upper bounds on what an opening and a job hold.
const (
	MostOpenings = 5000 // in a job
	mostReadings = 1000 // in an opening
	mostOffers   = 20
	mostPresets  = 50
	longestName  = 120 // letters
	longestID    = 40
	longestMark  = 64
	mostTicks    = 200
	longestTick  = 120
)

// Check reports invalid fields, as field.Errors; nil when there are none. Values that are merely missing are reported
// by plan.Solve.
func (o Opening) Check() error {
	var bad field.Errors
	o.checkHead(&bad)
	if len(o.Readings) > mostReadings {
		bad.Add("/readings", "refused.too-many-readings", message.Args{
			"given": message.Number(len(o.Readings)), "most": message.Number(mostReadings),
		})
		return bad
	}
	if len(o.Offers) > mostOffers {
		bad.Add("/offers", "refused.too-many-placings", message.Args{
			"given": message.Number(len(o.Offers)), "most": message.Number(mostOffers),
		})
		return bad
	}
	o.checkReadings(o.checkOffers(&bad), &bad)
	bad.Under("/slab", o.Slab.Check())
	if o.Pair != nil {
		bad.Under("/pair", o.Pair.check())
		if o.Service != nil {
			bad.Add("/service", "refused.service-pair", nil)
		}
	}
	if o.Service != nil {
		for i, c := range o.Service.Wrong {
			if !slices.Contains(Complaints, c) || slices.Contains(o.Service.Wrong[:i], c) {
				bad.Add("/service/wrong/"+strconv.Itoa(i), "refused.complaint", message.Args{"given": message.Quote(c)})
			}
		}
	}
	bad.Under("/margins", o.Margins.check())
	bad.Under("/season", o.Season.Check())
	if o.Lining != nil {
		bad.Under("/lining", o.Lining.Check())
	}
	bad.Under("/cut", o.Cut.check())
	bad.Under("/hinges", o.Hinges.Check())
	bad.Under("/swing", o.Swing.Check())
	if o.Slab.Thickness > 0 && o.Hinges.Width > o.Slab.Thickness {
		bad.Add("/hinges/width", "refused.leaf-wider-than-slab", message.Args{
			"leaf": message.Exact(o.Hinges.Width), "thickness": message.Exact(o.Slab.Thickness),
		})
	}
	bad.Under("/lock", o.Lock.Check())
	bad.Under("/stops", o.Stops.Check())
	o.checkTried(&bad)
	o.checkLog(&bad)
	for step, mark := range o.Done {
		if !slices.Contains(Steps, step) {
			bad.Add("/done", "refused.no-step", message.Args{"given": message.Quote(step)})
		} else if len(mark) > longestMark {
			bad.Add("/done/"+string(step), "refused.no-step-mark", nil)
		}
	}
	if len(o.Ticked) > mostTicks ||
		slices.ContainsFunc(o.Ticked, func(t string) bool { return letters(t) > longestTick || !plain(t) }) {
		bad.Add("/ticked", "refused.too-many-ticks", message.Args{
			"most": message.Number(mostTicks), "letters": message.Number(longestTick),
		})
	}
	return bad.Err()
}

func (o Opening) checkHead(bad *field.Errors) {
	if !named(o.Name) {
		bad.Add("/name", "refused.opening-name", message.Args{"most": message.Number(longestName)})
	}
	if letters(o.Room) > longestName || !plain(o.Room) {
		bad.Add("/room", "refused.room-name", message.Args{"most": message.Number(longestName)})
	}
	if o.Hand != frame.Left && o.Hand != frame.Right {
		bad.Add("/hand", "refused.hand", message.Args{"given": message.Quote(o.Hand)})
	}
	for at, hand := range map[string]frame.Hand{"/seen/pockets": o.Seen.Pockets, "/seen/strike": o.Seen.Strike} {
		if hand != "" && hand != frame.Left && hand != frame.Right {
			bad.Add(at, "refused.seen-hand", message.Args{"given": message.Quote(hand)})
		}
	}
	if o.Walls != Old && o.Walls != New {
		bad.Add("/walls", "refused.walls", message.Args{
			"old": string(Old), "new": string(New), "given": message.Quote(o.Walls),
		})
	}
	if !slices.Contains(Measurings, o.Measuring) {
		bad.Add("/measuring", "refused.no-measuring", message.Args{"given": message.Quote(o.Measuring)})
	}
	if o.Between < 0 || o.Between > measure.Longest {
		bad.Add("/between", "refused.between", message.Args{"value": message.Exact(o.Between)})
	}
	if most := 20 * measure.Millimetre; o.PlusMinus < 0 || o.PlusMinus > most {
		bad.Add("/plusMinus", "refused.asked-sureness", message.Args{
			"value": message.Exact(o.PlusMinus), "most": message.Exact(most),
		})
	}
}

// checkOffers returns the IDs of the placings.
func (o Opening) checkOffers(bad *field.Errors) (offers map[string]bool) {
	offers = map[string]bool{}
	for i, f := range o.Offers {
		at := "/offers/" + strconv.Itoa(i)
		if !identifies(f.ID) || offers[f.ID] {
			bad.Add(at+"/id", "refused.placing-id", message.Args{"given": message.Quote(f.ID)})
		}
		offers[f.ID] = true
		if !named(f.Name) {
			bad.Add(at+"/name", "refused.placing-name", message.Args{"most": message.Number(longestName)})
		}
		size := slab.Slab{
			Width: f.Width, Length: f.Length, WidthMid: f.WidthMid, WidthFoot: f.WidthFoot, LengthLock: f.LengthLock,
		}
		switch {
		case bad.Under(at, size.Check()):
		case f.Width == 0 || f.Length == 0:
			bad.Add(at+"/width", "refused.placing-size", nil)
		case f.Square != nil && f.Square.Abs() > 30*measure.Millimetre:
			bad.Add(at+"/square", "refused.out-of-square", message.Args{"value": message.Exact(*f.Square)})
		}
	}
	return offers
}

func (o Opening) checkReadings(offers map[string]bool, bad *field.Errors) {
	seen := map[string]bool{}
	for i, r := range o.Readings {
		at := "/readings/" + strconv.Itoa(i)
		if !identifies(r.ID) || seen[r.ID] {
			bad.Add(at+"/id", "refused.reading-id", message.Args{"given": message.Quote(r.ID)})
		}
		seen[r.ID] = true
		switch {
		case bad.Under(at, r.Check()):
		case r.Kind == survey.Gap && !offers[r.Offer]:
			bad.Add(at+"/offer", "refused.no-placing", message.Args{"given": message.Quote(r.Offer)})
		case r.Kind == survey.Width && o.Between > 0 && r.Value > o.Between:
			bad.Add(at+"/value", "refused.wider-than-between", message.Args{
				"value": message.Exact(r.Value), "between": message.Exact(o.Between),
			})
		}
	}
}

func (p Pair) check() error {
	var bad field.Errors
	bad.Under("/slab", p.Slab.Check())
	if most := 20 * measure.Millimetre; p.Meeting < 0 || p.Meeting > most {
		bad.Add("/meeting", "refused.meeting-margin", message.Args{
			"value": message.Exact(p.Meeting), "most": message.Exact(most),
		})
	}
	if p.Offset.Abs() > measure.Metre {
		bad.Add("/offset", "refused.meeting-offset", message.Args{"value": message.Exact(p.Offset)})
	}
	if !p.Fixed.Upright() {
		bad.Add("/fixed", "refused.fixed-leaf", nil)
	}
	if !slices.Contains(AllHolds, p.Holds) {
		bad.Add("/holds", "refused.holds", message.Args{"given": message.Quote(p.Holds)})
	}
	if !slices.Contains(swing.AllMeets, p.Edges) {
		bad.Add("/edges", "refused.meeting-edges", message.Args{"given": message.Quote(p.Edges)})
	}
	bad.Under("", field.Range{
		Pointer: "/lip", Is: "size.lap-of-rebated-edges", Value: p.Lip, Most: 30 * measure.Millimetre,
	}.Check())
	return bad.Err()
}

func (m Margins) check() error {
	const mm = measure.Millimetre
	var bad field.Errors
	if _, ok := trade.SchoolByID(m.School); !ok {
		bad.Add("/school", "refused.no-margins-school", message.Args{"given": message.Quote(m.School)})
	}
	ranges := []field.Range{
		{Pointer: "/least", Is: "size.least-margin", Value: m.Least, Most: 10 * mm},
		{Pointer: "/uneven", Is: "size.unevenness-to-accept", Value: m.Uneven, Most: 5 * mm},
		{Pointer: "/paint", Is: "size.coat-of-paint", Value: m.Paint, Most: 3 * mm},
		{Pointer: "/floor", Is: "size.thickness-of-the-new-floor", Value: m.Floor, Most: 60 * mm},
		{Pointer: "/seal", Is: "size.drop-of-a-seal", Value: m.Seal, Most: 30 * mm},
	}
	for _, side := range frame.Sides {
		most := 15 * mm
		if side == frame.Foot {
			most = 60 * mm
		}
		if own := m.Own(side); own != nil {
			ranges = append(ranges, field.Range{
				Pointer: "/" + side.String(), Is: "size.margin-" + message.ID(side.String()), Value: *own, Most: most,
			})
		}
	}
	for _, r := range ranges {
		bad.Under("", r.Check())
	}
	return bad.Err()
}

func (c Cut) check() error {
	var bad field.Errors
	if c.Ends != "" && !slices.Contains(Ends, c.Ends) {
		bad.Add("/ends", "refused.no-ends", message.Args{"given": message.Quote(c.Ends), "all": listed(Ends)})
	}
	if !slices.Contains(Registrations, c.Registration) {
		bad.Add("/registration", "refused.no-registration", message.Args{
			"given": message.Quote(c.Registration), "all": listed(Registrations),
		})
	}
	if !slices.Contains(shapes, c.LockEdge) {
		bad.Add("/lockEdge", "refused.edge-shape", message.Args{"given": message.Quote(c.LockEdge)})
	}
	if !slices.Contains(shapes, c.Head) {
		bad.Add("/head", "refused.edge-shape", message.Args{"given": message.Quote(c.Head)})
	}
	if !slices.Contains(Habits, c.LeaveOn) {
		bad.Add("/leaveOn", "refused.no-leave-on", message.Args{"given": message.Quote(c.LeaveOn)})
	}
	for _, side := range frame.Sides {
		if m := c.Means.Of(side); !slices.Contains(AllMeans, m) {
			bad.Add("/means/"+side.String(), "refused.means", message.Args{"given": message.Quote(m)})
		}
	}
	return bad.Err()
}

// CheckHead reports invalid fields of the job itself, without its openings.
func (j Job) CheckHead() error {
	var bad field.Errors
	if !named(j.Name) {
		bad.Add("/name", "refused.job-name", message.Args{"most": message.Number(longestName)})
	}
	if j.Unit != measure.Millimetres && j.Unit != measure.Inches {
		bad.Add("/unit", "refused.unit", message.Args{"given": message.Quote(j.Unit)})
	} else if !slices.Contains(measure.Tapes(j.Unit), j.Tape) {
		bad.Add("/tape", "refused.tape", message.Args{
			"unit": string(j.Unit), "all": listed(measure.Tapes(j.Unit)), "given": message.Quote(j.Tape),
		})
	}
	if j.Language != "" && !slices.Contains(Languages, j.Language) {
		bad.Add("/language", "refused.language", message.Args{
			"british": string(British), "american": string(American), "given": message.Quote(j.Language),
		})
	}
	if len(j.Presets) > mostPresets {
		bad.Add("/presets", "refused.too-many-presets", message.Args{
			"given": message.Number(len(j.Presets)), "most": message.Number(mostPresets),
		})
		return bad
	}
	for i, p := range j.Presets {
		at := "/presets/" + strconv.Itoa(i)
		same := slices.ContainsFunc(j.Presets[:i], func(q Preset) bool { return q.Name == p.Name })
		if !named(p.Name) || same {
			bad.Add(at+"/name", "refused.preset-name", message.Args{"most": message.Number(longestName)})
		}
		bad.Under(at+"/margins", p.Margins.check())
	}
	if !bad.Under("/kit", j.Kit.check()) {
		bad.Under("/usual", j.Usual.check(j))
	}
	return bad.Err()
}

// Check reports invalid fields of the job and its openings, as field.Errors; nil when there are none.
func (j Job) Check() error {
	var bad field.Errors
	bad.Under("", j.CheckHead())
	if j.ID != "" && !identifies(j.ID) {
		bad.Add("/id", "refused.job-id", message.Args{"given": message.Quote(j.ID)})
	}
	if len(j.Openings) > MostOpenings {
		bad.Add("/openings", "refused.too-many-doors", message.Args{
			"given": message.Number(len(j.Openings)), "most": message.Number(MostOpenings),
		})
		return bad
	}
	seen := map[string]bool{}
	for i, o := range j.Openings {
		if len(bad) == field.Most {
			break
		}
		at := "/openings/" + strconv.Itoa(i)
		if !identifies(o.ID) || seen[o.ID] {
			bad.Add(at+"/id", "refused.opening-id", message.Args{"given": message.Quote(o.ID)})
		}
		seen[o.ID] = true
		bad.Under(at, o.Check())
		bad.Under(at, o.CheckKit(j.Kit))
	}
	return bad.Err()
}

// listed are IDs as a message argument.
func listed[T ~string](ids []T) message.Or {
	list := make(message.Or, len(ids))
	for i, id := range ids {
		list[i] = string(id)
	}
	return list
}

// letters counts grapheme-like characters: runes without combining marks.
func letters(s string) int { return utf8.RuneCountInString(s) }

// named reports whether a name is plain text, not empty and not too long.
func named(s string) bool {
	return strings.TrimSpace(s) != "" && letters(s) <= longestName && plain(s)
}

func plain(s string) bool { return !strings.ContainsFunc(s, unicode.IsControl) }

// identifies reports whether an ID has the form of those made here: it is part of addresses.
func identifies(id string) bool {
	return id != "" && len(id) <= longestID && strings.IndexFunc(id, func(r rune) bool {
		return !(r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' || strings.ContainsRune("-_.", r))
	}) < 0 && strings.Trim(id, ".") != ""
}
