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
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
)

// What is held at most.
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

// Check reports every field that cannot be, as field.Errors worded in the
// unit of the job; nil when there is none. What is merely missing yet is
// plan.Solve's to say.
func (o Opening) Check(u measure.Unit) error {
	var bad field.Errors
	o.checkHead(u, &bad)
	if len(o.Readings) > mostReadings {
		bad.Add("/readings", "%d readings are more than %d: keep those you trust.", len(o.Readings), mostReadings)
		return bad
	}
	if len(o.Offers) > mostOffers {
		bad.Add("/offers", "%d placings are more than %d: keep those that are used.", len(o.Offers), mostOffers)
		return bad
	}
	o.checkReadings(u, o.checkOffers(u, &bad), &bad)
	bad.Under("/slab", o.Slab.Check(u))
	if o.Pair != nil {
		bad.Under("/pair", o.Pair.check(u))
	}
	bad.Under("/margins", o.Margins.check(u))
	bad.Under("/season", o.Season.Check(u))
	if o.Lining != nil {
		bad.Under("/lining", o.Lining.Check(u))
	}
	bad.Under("/cut", o.Cut.check())
	bad.Under("/hinges", o.Hinges.Check(u))
	bad.Under("/swing", o.Swing.Check(u))
	if o.Slab.Thickness > 0 && o.Hinges.Width > o.Slab.Thickness {
		bad.Add("/hinges/width", "The leaf, %s wide, is wider than the slab is thick, %s: use a narrower hinge.",
			measure.Say(o.Hinges.Width, u), measure.Say(o.Slab.Thickness, u))
	}
	bad.Under("/lock", o.Lock.Check(u))
	bad.Under("/stops", o.Stops.Check(u))
	o.checkTried(u, &bad)
	o.checkLog(&bad)
	for step, mark := range o.Done {
		if !slices.Contains(Steps, step) {
			bad.Add("/done", "There is no step called %q.", short(string(step)))
		} else if len(mark) > longestMark {
			bad.Add("/done/"+string(step), "That is no mark of a finished step.")
		}
	}
	if len(o.Ticked) > mostTicks || slices.ContainsFunc(o.Ticked, func(t string) bool { return letters(t) > longestTick || !plain(t) }) {
		bad.Add("/ticked", "At most %d cards are ticked, each by a name of %d letters.", mostTicks, longestTick)
	}
	return bad.Err()
}

func (o Opening) checkHead(u measure.Unit, bad *field.Errors) {
	if !named(o.Name) {
		bad.Add("/name", "Give the opening a name of 1 to %d letters, such as the room it leads to.", longestName)
	}
	if letters(o.Room) > longestName || !plain(o.Room) {
		bad.Add("/room", "Keep the room under %d letters, on one line.", longestName)
	}
	if o.Hand != frame.Left && o.Hand != frame.Right {
		bad.Add("/hand", "The hinges are on the left or the right, seen from the pull face, not on %q.", short(string(o.Hand)))
	}
	for at, hand := range map[string]frame.Hand{"/seen/pockets": o.Seen.Pockets, "/seen/strike": o.Seen.Strike} {
		if hand != "" && hand != frame.Left && hand != frame.Right {
			bad.Add(at, "They are on the left jamb or the right one, not on %q.", short(string(hand)))
		}
	}
	if o.Walls != Old && o.Walls != New {
		bad.Add("/walls", "The opening is %q or %q, not %q.", Old, New, short(string(o.Walls)))
	}
	if !slices.Contains(Measurings, o.Measuring) {
		bad.Add("/measuring", "There is no way of measuring called %q.", short(string(o.Measuring)))
	}
	if o.Between < 0 || o.Between > measure.Longest {
		bad.Add("/between", "%s is no wall: measure between what stands left and right of the opening.", measure.Say(o.Between, u))
	}
	if most := 20 * measure.Millimetre; o.PlusMinus < 0 || o.PlusMinus > most {
		bad.Add("/plusMinus", "%s is no sureness to ask for (up to %s; nothing to let minutes decide).", measure.Say(o.PlusMinus, u), measure.Say(most, u))
	}
}

// checkOffers gives the IDs of the placings.
func (o Opening) checkOffers(u measure.Unit, bad *field.Errors) (offers map[string]bool) {
	offers = map[string]bool{}
	for i, f := range o.Offers {
		at := "/offers/" + strconv.Itoa(i)
		if !identifies(f.ID) || offers[f.ID] {
			bad.Add(at+"/id", "Each placing needs an id of its own (%s); %q is none, or is used twice.", idAdvice, short(f.ID))
		}
		offers[f.ID] = true
		if !named(f.Name) {
			bad.Add(at+"/name", "Say what stood in the opening, in 1 to %d letters.", longestName)
		}
		size := slab.Slab{Width: f.Width, Length: f.Length, WidthMid: f.WidthMid, WidthFoot: f.WidthFoot, LengthLock: f.LengthLock}
		switch {
		case bad.Under(at, size.Check(u)):
		case f.Width == 0 || f.Length == 0:
			bad.Add(at+"/width", "Give the width and the length of what stood in the opening.")
		case f.Square != nil && f.Square.Abs() > 30*measure.Millimetre:
			bad.Add(at+"/square", "%s out of square is no door: measure it again.", measure.Say(*f.Square, u))
		}
	}
	return offers
}

func (o Opening) checkReadings(u measure.Unit, offers map[string]bool, bad *field.Errors) {
	seen := map[string]bool{}
	for i, r := range o.Readings {
		at := "/readings/" + strconv.Itoa(i)
		if !identifies(r.ID) || seen[r.ID] {
			bad.Add(at+"/id", "Each reading needs an id of its own (%s); %q is none, or is used twice.", idAdvice, short(r.ID))
		}
		seen[r.ID] = true
		switch {
		case bad.Under(at, r.Check(u)):
		case r.Kind == survey.Gap && !offers[r.Offer]:
			bad.Add(at+"/offer", "There is no placing %q: say which slab stood there.", short(r.Offer))
		case r.Kind == survey.Width && o.Between > 0 && r.Value > o.Between:
			bad.Add(at+"/value", "%s is wider than the %s between what stands left and right of the opening: read both again.",
				measure.Say(r.Value, u), measure.Say(o.Between, u))
		}
	}
}

func (p Pair) check(u measure.Unit) error {
	var bad field.Errors
	bad.Under("/slab", p.Slab.Check(u))
	if most := 20 * measure.Millimetre; p.Meeting < 0 || p.Meeting > most {
		bad.Add("/meeting", "%s is no margin between two leaves (up to %s).", measure.Say(p.Meeting, u), measure.Say(most, u))
	}
	if p.Offset.Abs() > measure.Metre {
		bad.Add("/offset", "The meeting line cannot stand %s from midway.", measure.Say(p.Offset, u))
	}
	if !p.Fixed.Upright() {
		bad.Add("/fixed", "One leaf is bolted: the one on the hinge jamb or the one on the lock jamb.")
	}
	if !slices.Contains(swing.AllMeets, p.Edges) {
		bad.Add("/edges", "Meeting edges are plain, rebated or rounded, not %q.", short(string(p.Edges)))
	}
	bad.Under("", field.Range{Pointer: "/lip", Is: "lap of rebated edges", Value: p.Lip, Most: 30 * measure.Millimetre}.Check(u))
	return bad.Err()
}

func (m Margins) check(u measure.Unit) error {
	const mm = measure.Millimetre
	var bad field.Errors
	if _, ok := trade.SchoolByID(m.School); !ok {
		bad.Add("/school", "There is no school of margins %q.", short(m.School))
	}
	ranges := []field.Range{
		{Pointer: "/least", Is: "least margin", Value: m.Least, Most: 10 * mm},
		{Pointer: "/uneven", Is: "unevenness to accept", Value: m.Uneven, Most: 5 * mm},
		{Pointer: "/paint", Is: "film of paint", Value: m.Paint, Most: 3 * mm},
		{Pointer: "/floor", Is: "floor still to come", Value: m.Floor, Most: 60 * mm},
	}
	for _, side := range frame.Sides {
		most := 15 * mm
		if side == frame.Foot {
			most = 60 * mm
		}
		if own := m.Own(side); own != nil {
			ranges = append(ranges, field.Range{Pointer: "/" + side.String(), Is: "margin for the " + side.String(), Value: *own, Most: most})
		}
	}
	for _, r := range ranges {
		bad.Under("", r.Check(u))
	}
	return bad.Err()
}

func (c Cut) check() error {
	var bad field.Errors
	if c.Ends != "" && !slices.Contains(Ends, c.Ends) {
		bad.Add("/ends", "There is no way of sharing the length called %q: use %s.", short(c.Ends), strings.Join(Ends, ", "))
	}
	if !slices.Contains(Registrations, c.Registration) {
		bad.Add("/registration", "There is no way of laying the slab called %q: use %s.", short(c.Registration), strings.Join(Registrations, ", "))
	}
	if !slices.Contains(shapes, c.LockEdge) {
		bad.Add("/lockEdge", "An edge is straight or scribed, or as the rules say, not %q.", short(c.LockEdge))
	}
	if !slices.Contains(shapes, c.Head) {
		bad.Add("/head", "An edge is straight or scribed, or as the rules say, not %q.", short(c.Head))
	}
	if !slices.Contains(Habits, c.LeaveOn) {
		bad.Add("/leaveOn", "There is no habit called %q.", short(string(c.LeaveOn)))
	}
	return bad.Err()
}

// CheckHead reports what cannot be in the job itself, its openings apart.
func (j Job) CheckHead() error {
	var bad field.Errors
	if !named(j.Name) {
		bad.Add("/name", "Give the job a name of 1 to %d letters, such as the house.", longestName)
	}
	if j.Unit != measure.Millimetres && j.Unit != measure.Inches {
		bad.Add("/unit", "A job is worked in mm or in, not in %q.", short(string(j.Unit)))
	} else if !slices.Contains(measure.Tapes(j.Unit), j.Tape) {
		bad.Add("/tape", "A job in %s is cut to %v, not to %q.", j.Unit, measure.Tapes(j.Unit), j.Tape)
	}
	if j.Language != "" && !slices.Contains(Languages, j.Language) {
		bad.Add("/language", "A job speaks %s (British) or %s (American), not %q.", British, American, short(string(j.Language)))
	}
	if len(j.Presets) > mostPresets {
		bad.Add("/presets", "%d presets are more than %d: keep those that are used.", len(j.Presets), mostPresets)
		return bad
	}
	for i, p := range j.Presets {
		at := "/presets/" + strconv.Itoa(i)
		same := slices.ContainsFunc(j.Presets[:i], func(q Preset) bool { return q.Name == p.Name })
		if !named(p.Name) || same {
			bad.Add(at+"/name", "Give the preset a name of its own, of 1 to %d letters.", longestName)
		}
		bad.Under(at+"/margins", p.Margins.check(j.Unit))
	}
	if !bad.Under("/kit", j.Kit.check(j.Unit)) {
		bad.Under("/usual", j.Usual.check(j))
	}
	return bad.Err()
}

// Check reports every field that cannot be in the job and its openings, as
// field.Errors; nil when there is none.
func (j Job) Check() error {
	var bad field.Errors
	bad.Under("", j.CheckHead())
	if j.ID != "" && !identifies(j.ID) {
		bad.Add("/id", "A job's id is %s; %q is none.", idAdvice, short(j.ID))
	}
	if len(j.Openings) > MostOpenings {
		bad.Add("/openings", "%d doors are more than the %d that a job holds: share them between two jobs.", len(j.Openings), MostOpenings)
		return bad
	}
	seen := map[string]bool{}
	for i, o := range j.Openings {
		if len(bad) == field.Most {
			break
		}
		at := "/openings/" + strconv.Itoa(i)
		if !identifies(o.ID) || seen[o.ID] {
			bad.Add(at+"/id", "Each opening needs an id of its own (%s); %q is none, or is used twice.", idAdvice, short(o.ID))
		}
		seen[o.ID] = true
		bad.Under(at, o.Check(j.Unit))
		bad.Under(at, o.CheckKit(j.Kit))
	}
	return bad.Err()
}

// letters counts what a person would count.
func letters(s string) int { return utf8.RuneCountInString(s) }

// named reports whether a name says something and is not too long, and is plain
// text.
func named(s string) bool {
	return strings.TrimSpace(s) != "" && letters(s) <= longestName && plain(s)
}

func plain(s string) bool { return !strings.ContainsFunc(s, unicode.IsControl) }

const idAdvice = "1 to 40 letters a to z, digits, dots, hyphens or underscores"

// identifies reports whether an ID is like those given here: it stands in
// addresses.
func identifies(id string) bool {
	return id != "" && len(id) <= longestID && strings.IndexFunc(id, func(r rune) bool {
		return !(r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' || strings.ContainsRune("-_.", r))
	}) < 0 && strings.Trim(id, ".") != ""
}
