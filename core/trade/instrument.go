package trade

import "kindmargin/core/message"

// Instrument is a tool that the opening is read with.
type Instrument struct {
	ID    string
	Reads []Reads
	// Bias is what everything read with one such tool shares, its standard deviation
	// in mm (a tape's hook), or in mm a metre between the two places (a level or
	// square out of true).
	Bias     float64
	PerMetre bool
	// Way says what a bias over nought does, Other what one under it does.
	Way, Other message.ID
	Source     string
	// OnSlab is whether a slab itself is measured with it too, and SlabSigma how well, a standard deviation in
	// mm: the ends of a slab lie open, and what is carried from the opening to the slab is not read at all.
	OnSlab    bool
	SlabSigma float64
}

// Name is what the instrument is called.
func (i Instrument) Name() message.ID { return "instrument." + message.ID(i.ID) }

// Reads is what an instrument reads of one kind.
type Reads struct {
	Kind     string  // a survey.Kind
	Sigma    float64 // standard deviation of one reading, mm, or mm a metre
	PerMetre bool    // Sigma is so much a metre between the two places
	Minutes  float64 // that a reading takes
}

// Placing is how many minutes it takes to stand a slab in the opening, or to wedge
// the old door, before its gaps are read.
const Placing = 3.0

// assumed goes with every instrument: what such tools claim and what care makes of
// it; better figures with a source are welcome.
const assumed = "assumed, from memory"

// Instruments, the usual one of each kind first.
var Instruments = []Instrument{
	{"tape", []Reads{
		{"width", 0.8, false, 0.3}, {"height", 0.8, false, 0.3}, {"diagonal", 1.2, false, 0.3},
	}, 0.6, false, "bias.long", "bias.short", assumed + "; a hook bent by 0.8 mm is met", true, 0.4},
	{"level", []Reads{
		{"plumb", 0.5, false, 0.8}, {"level", 0.5, false, 0.8},
	}, 0.5, true, "bias.high", "bias.low", assumed, false, 0},
	{"square", []Reads{{"square", 0.5, false, 0.4}}, 0.5, true, "bias.end", "bias.corner", assumed, false, 0},
	{"straightedge", []Reads{{"straight", 0.2, false, 0.7}}, 0.1, false, "bias.middle", "bias.hides", assumed, false, 0},
	{"packers", []Reads{{"gap", 0.3, false, 0.2}}, 0, false, "", "", assumed, false, 0},
	{"rods", []Reads{
		{"width", 0.3, false, 0.8}, {"height", 0.3, false, 0.8}, {"diagonal", 0.3, false, 0.8},
	}, 0.1, false, "bias.rods-long", "bias.rods-short", assumed, true, 0},
	{"feelers", []Reads{{"gap", 0.1, false, 0.3}}, 0, false, "", "", "assumed: sold in steps of 0.05 mm, from memory", false, 0},
	{"laser", []Reads{{"width", 0.8, false, 0.2}, {"height", 0.8, false, 0.2}}, 0.5, false, "bias.long", "bias.short", assumed, false, 0},
	{"digital", []Reads{{"plumb", 0.4, true, 0.4}, {"level", 0.4, true, 0.4}}, 0.5, true, "bias.high", "bias.low", assumed, false, 0},
	{"plumbline", []Reads{{"plumb", 0.5, false, 1}}, 0.2, false, "bias.further-in", "bias.further-out", assumed, false, 0},
}

// InstrumentByID finds an instrument; ok is false where there is none of that name.
func InstrumentByID(id string) (i *Instrument, ok bool) {
	for k := range Instruments {
		if Instruments[k].ID == id {
			return &Instruments[k], true
		}
	}
	return nil, false
}

// Of is what the instrument reads of a kind; ok is false where it reads none.
func (i *Instrument) Of(kind string) (r Reads, ok bool) {
	for _, r := range i.Reads {
		if r.Kind == kind {
			return r, true
		}
	}
	return Reads{}, false
}
