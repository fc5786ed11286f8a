package job

import (
	"slices"
	"strconv"

	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Kit is the tools at hand, and what a trip to the trestles costs.
type Kit struct {
	Tools survey.Kit     `json:"tools,omitempty"` // empty: a usual instrument for each kind of reading
	Trip  float64        `json:"trip,omitzero"`   // minutes of another trip after the first hang; nought for UsualTrip
	Fits  measure.Length `json:"fits,omitzero"`   // how far from the best a margin may be and still fit; nought for UsualFits
}

// What another trip costs and what fits, where nothing else is set. Common practice.
const (
	UsualTrip = 12.0
	UsualFits = measure.Millimetre
)

// TripMinutes is what another trip costs.
func (k Kit) TripMinutes() float64 {
	if k.Trip > 0 {
		return k.Trip
	}
	return UsualTrip
}

// FitsWithin is how far from the best a margin may be and still fit.
func (k Kit) FitsWithin() measure.Length {
	if k.Fits > 0 {
		return k.Fits
	}
	return UsualFits
}

// What no kit holds.
const (
	mostTools   = 20
	longestTrip = 240.0 // minutes
	beyond      = 5.0   // mm, or mm a metre: no tool that is used is so wrong
)

func (k Kit) check(u measure.Unit) error {
	var bad field.Errors
	if len(k.Tools) > mostTools {
		bad.Add("/tools", "%d tools are more than %d: keep those that are used.", len(k.Tools), mostTools)
		return bad
	}
	if k.Trip < 0 || k.Trip > longestTrip {
		bad.Add("/trip", "A trip to the trestles takes 0 to %.0f minutes (nothing for %.0f), not %g.", longestTrip, UsualTrip, k.Trip)
	}
	bad.Under("", field.Range{Pointer: "/fits", Is: "margin that still fits", Value: k.Fits, Most: 5 * measure.Millimetre}.Check(u))
	for i, t := range k.Tools {
		at := "/tools/" + strconv.Itoa(i)
		same := func(x survey.Tool) bool { return x.ID == t.ID }
		if !identifies(t.ID) || slices.ContainsFunc(k.Tools[:i], same) {
			bad.Add(at+"/id", "Each tool needs an id of its own (%s); %q is none, or is used twice.", idAdvice, short(t.ID))
		}
		if letters(t.Name) > longestName || !plain(t.Name) {
			bad.Add(at+"/name", "Keep the tool's name under %d letters, on one line.", longestName)
		}
		known, ok := trade.InstrumentByID(t.Instrument)
		if !ok {
			bad.Add(at+"/instrument", "There is no instrument %q: choose one of the list.", short(t.Instrument))
			continue
		}
		if p := t.Proved; p != nil {
			bad.Under(at+"/proved", k.checkProved(t.ID, known, *p))
		}
	}
	return bad.Err()
}

func (k Kit) checkProved(id string, known *trade.Instrument, p survey.Proved) error {
	unit := "mm"
	if known.PerMetre {
		unit = "mm a metre"
	}
	switch {
	case p.Bias < -beyond || p.Bias > beyond:
		return field.Fault("/bias", "A tool that is %.2f %s wrong is not used: prove it again, or mend it.", p.Bias, unit)
	case p.Sure < 0 || p.Sure > beyond || p.Sigma < 0 || p.Sigma > beyond:
		return field.Fault("/sure", "A proof is sure to something between nothing and %.0f %s.", beyond, unit)
	case p.Readings < 4 || p.Readings > 40:
		return field.Fault("/readings", "A proof has 2 to 20 readings with each tool; %d in all prove nothing.", p.Readings)
	}
	// A chain of proofs must end at a tool that stands for itself.
	for at, left := p.Against, len(k.Tools); at != ""; left-- {
		i := slices.IndexFunc(k.Tools, func(x survey.Tool) bool { return x.ID == at })
		switch {
		case i < 0:
			return field.Fault("/against", "There is no tool %q in the kit to have proved it against.", short(at))
		case at == id || left == 0:
			return field.Fault("/against", "Two tools cannot prove each other in a circle: prove one against a third, or take it as it comes.")
		case k.Tools[i].Proved == nil:
			return nil
		}
		at = k.Tools[i].Proved.Against
	}
	return nil
}

// CheckTools reports readings whose tool is not in a kit, or does not read their
// kind, as field.Errors.
func (o Opening) CheckTools(k Kit) error {
	var bad field.Errors
	for i, r := range o.Readings {
		if r.Tool == "" {
			continue
		}
		if id, _ := k.Tools.Tool(r); id != r.Tool {
			bad.Add("/readings/"+strconv.Itoa(i)+"/tool", "There is no tool %q in the job's kit that reads this: choose another.", short(r.Tool))
		}
	}
	return bad.Err()
}
