package trade

import "kindmargin/core/message"

// Instrument is a tool that the opening is read with.
type Instrument struct {
	ID    string
	Reads []Reads
	// Bias is the standard deviation of the error shared by all readings with one such tool: in mm (a tape's hook), or
	// in mm a metre between the two places (a level or square out of true).
	Bias     float64
	PerMetre bool
	// Way is the effect of a positive bias, Other that of a negative one.
	Way, Other message.ID
	Source     string
	// OnSlab is whether it measures a slab too, and SlabSigma its standard deviation there, in mm: the ends of a slab
	// are open, and what is carried from the opening to the slab is not read at all.
	OnSlab    bool
	SlabSigma float64
	Step      float64 // from one packer or blade to the next, mm; 0 of what has none
}

// Name is the name of the instrument.
func (i Instrument) Name() message.ID { return "instrument." + message.ID(i.ID) }

// Reads is the figures of an instrument for one kind of reading.
type Reads struct {
	Kind     string  // a survey.Kind
	Sigma    float64 // standard deviation of one reading, mm, or mm a metre
	PerMetre bool    // Sigma is so much a metre between the two places
	Minutes  float64 // that a reading takes
}

// TakeMinutes is what each reading takes beside its own minutes: to walk to its place and to write it down. Assumed.
const TakeMinutes = 0.3

// Placing is the minutes to stand a slab in the opening, or to wedge the old door, before its gaps are read.
const Placing = 3.0

// assumed is the source of every instrument: what makers claim and what care makes of it; better figures with a source
// are welcome.
const assumed = "assumed, from memory"

// Instruments lists them, the usual one of each kind first.
var Instruments = []Instrument{
	{
		ID: "tape", Reads: []Reads{
			{"width", 0.8, false, 0.3}, {"height", 0.8, false, 0.3}, {"diagonal", 1.2, false, 0.3},
		}, Bias: 0.6, PerMetre: false, Way: "bias.long", Other: "bias.short",
		Source: assumed + "; a hook bent by 0.8 mm is met", OnSlab: true, SlabSigma: 0.4,
	},
	{ID: "level", Reads: []Reads{
		{"plumb", 0.5, false, 0.8}, {"level", 0.5, false, 0.8},
	}, Bias: 0.5, PerMetre: true, Way: "bias.high", Other: "bias.low", Source: assumed, OnSlab: false, SlabSigma: 0},
	{
		ID: "square", Reads: []Reads{{"square", 0.5, false, 0.4}}, Bias: 0.5, PerMetre: true, Way: "bias.end",
		Other: "bias.corner", Source: assumed,
	},
	{
		ID: "straightedge", Reads: []Reads{{"straight", 0.2, false, 0.7}}, Bias: 0.1, Way: "bias.middle",
		Other: "bias.hides", Source: assumed,
	},
	{ID: "packers", Reads: []Reads{{"gap", 0.3, false, 0.2}}, Source: assumed, Step: 1},
	{
		ID: "rods", Reads: []Reads{
			{"width", 0.3, false, 0.8}, {"height", 0.3, false, 0.8}, {"diagonal", 0.3, false, 0.8},
		}, Bias: 0.1, PerMetre: false, Way: "bias.rods-long", Other: "bias.rods-short", Source: assumed, OnSlab: true,
		SlabSigma: 0,
	},
	{
		ID: "feelers", Reads: []Reads{{"gap", 0.1, false, 0.3}},
		Source: "assumed: sold in steps of 0.05 mm, from memory", Step: 0.1,
	},
	{
		ID: "laser", Reads: []Reads{{"width", 0.8, false, 0.2}, {"height", 0.8, false, 0.2}}, Bias: 0.5,
		Way: "bias.long", Other: "bias.short", Source: assumed,
	},
	{
		ID: "digital", Reads: []Reads{{"plumb", 0.4, true, 0.4}, {"level", 0.4, true, 0.4}}, Bias: 0.5,
		PerMetre: true, Way: "bias.high", Other: "bias.low", Source: assumed,
	},
	{
		ID: "plumbline", Reads: []Reads{{"plumb", 0.5, false, 1}}, Bias: 0.2, Way: "bias.further-in",
		Other: "bias.further-out", Source: assumed,
	},
}

// InstrumentByID finds an instrument; ok is false for an unknown ID.
func InstrumentByID(id string) (i *Instrument, ok bool) {
	for k := range Instruments {
		if Instruments[k].ID == id {
			return &Instruments[k], true
		}
	}
	return nil, false
}

// Of is the instrument's figures for a kind; ok is false where it cannot read it.
func (i *Instrument) Of(kind string) (r Reads, ok bool) {
	for _, r := range i.Reads {
		if r.Kind == kind {
			return r, true
		}
	}
	return Reads{}, false
}
