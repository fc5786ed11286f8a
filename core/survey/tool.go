package survey

import (
	"iter"
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/trade"
)

// Tool is one instrument at hand. What was proved of it holds; the rest is its instrument's.
type Tool struct {
	ID         string `json:"id"`
	Instrument string `json:"instrument"` // ID of a trade.Instrument
	Name       string `json:"name,omitempty"`
	// Proved is the result of readings against a better tool; nil for an unproved one.
	Proved *Proved `json:"proved,omitempty"`
}

// Proved is what was found of a tool against a better one.
type Proved struct {
	Bias float64 `json:"bias"` // how much too much it reads, mm, or mm a metre
	Sure float64 `json:"sure"` // standard deviation of that
	// standard deviation of one reading, mm; 0 where there were too few to tell
	Sigma    float64 `json:"sigma,omitempty"`
	Readings int     `json:"readings"`
	Against  string  `json:"against,omitempty"` // ID of the better tool; empty for one end turned for the other
}

// Kit is the tools of a job. An empty kit is one usual instrument for each kind.
type Kit []Tool

// TrueKit is one tool of each usual kind, proved true: a survey by it is as accurate as single readings can make it.
func TrueKit() (k Kit) {
	for _, i := range trade.Instruments[:usualInstruments] {
		k = append(k, Tool{ID: i.ID, Instrument: i.ID, Proved: &Proved{}})
	}
	return k
}

// usualInstruments are the trade.Instruments that read every kind once.
const usualInstruments = 5

// mostTools is the largest number of separate biases.
const mostTools = 30

// inHand is a tool with its instrument.
type inHand struct {
	id, instrument string // the tool's (empty for a usual one), its instrument's
	number         int    // in the kit; from mostTools on, of a usual instrument
	biased         bool
	mean, spread   float64 // of its bias, mm, or mm a metre
	perMetre       bool
	reads          trade.Reads
	proved         float64 // sigma of one reading, mm; nought where it is as usual
}

// with finds the tool of a reading: the one that it names, otherwise the first of the kit for its kind, otherwise the
// usual instrument.
func (k Kit) with(r Reading) (t inHand, ok bool) {
	if r.Tool != "" {
		for i := range k {
			if k[i].ID == r.Tool {
				return k.hand(i, r.Kind)
			}
		}
	}
	for i := range k {
		if t, ok := k.hand(i, r.Kind); ok {
			return t, true
		}
	}
	for i := range trade.Instruments {
		if reads, ok := trade.Instruments[i].Of(string(r.Kind)); ok {
			return handOf(&trade.Instruments[i], nil, reads, mostTools+i), true
		}
	}
	return t, false
}

// onSlab finds the tool for the slab itself: the first of the kit that can measure it, otherwise a usual one.
func (k Kit) onSlab(kind Kind) (t inHand, ok bool) {
	for i := range k {
		if known, _ := trade.InstrumentByID(k[i].Instrument); known == nil || !known.OnSlab {
			continue
		}
		if t, ok := k.hand(i, kind); ok {
			return t, true
		}
	}
	for i := range trade.Instruments {
		known := &trade.Instruments[i]
		if reads, ok := known.Of(string(kind)); ok && known.OnSlab {
			return handOf(known, nil, reads, mostTools+i), true
		}
	}
	return t, false
}

// OnSlab is the ID of the instrument that a slab's width and length are measured with, and its standard deviation in
// mm, 0 for one that is carried there and not read.
func (k Kit) OnSlab() (instrument string, sigma float64) {
	t, _ := k.onSlab(Width)
	known, _ := trade.InstrumentByID(t.instrument)
	return t.instrument, known.SlabSigma
}

func (k Kit) hand(i int, kind Kind) (t inHand, ok bool) {
	known, ok := trade.InstrumentByID(k[i].Instrument)
	if !ok {
		return t, false
	}
	reads, ok := known.Of(string(kind))
	if !ok {
		return t, false
	}
	t = handOf(known, k[i].Proved, reads, i)
	t.id = k[i].ID
	return t, true
}

func handOf(known *trade.Instrument, proved *Proved, reads trade.Reads, number int) inHand {
	t := inHand{spread: known.Bias, perMetre: known.PerMetre, reads: reads, number: number, instrument: known.ID}
	if proved != nil {
		t.mean, t.spread, t.proved = proved.Bias, proved.Sure, proved.Sigma
	}
	t.biased = t.spread > 0 || t.mean != 0
	return t
}

// lever is the factor of a tool's bias in a reading: 1, or the metres between its two places; negative where the tool
// was turned.
func (t inHand) lever(r Reading) float64 {
	by := 1.0
	if t.perMetre {
		by = metres(r)
	}
	if r.Turned {
		by = -by
	}
	return by
}

// metres is the distance of the two places of a reading.
func metres(r Reading) float64 {
	switch r.Kind {
	case Plumb, Level:
		return (r.At - r.From).MM() / 1000
	case Square:
		return r.At.MM() / 1000
	case Straight:
		return (r.To - r.From).MM() / 1000
	}
	return 1
}

// sigma is the standard deviation of one reading with the tool, in mm.
func (t inHand) sigma(r Reading) float64 {
	s := t.reads.Sigma
	if t.proved > 0 {
		s = t.proved
	}
	if t.reads.PerMetre {
		s *= math.Abs(metres(r))
	}
	return s
}

// Sigma is a reading's standard deviation in millimetres, without its tool's bias and its rounding. That nothing passes
// says less than a packer that does.
func (k Kit) Sigma(r Reading) float64 {
	if r.PlusMinus > 0 {
		return r.PlusMinus.MM() / figure.Coverage
	}
	if s, ok := trade.SightByID(r.Sight); ok {
		return s.Sure
	}
	t, ok := k.with(r)
	if !ok {
		return 0
	}
	if r.Blocked {
		return 2 * t.sigma(r)
	}
	return t.sigma(r)
}

// Each gives each of some readings once for every tool of the kit that can take it, and once more with the level turned
// end for end where its error is not known; readings that no tool can take are left out. An empty kit is one usual
// instrument for each kind.
func (k Kit) Each(readings []Reading) iter.Seq[Reading] {
	return func(yield func(Reading) bool) {
		each := func(r Reading, t inHand) bool {
			if !yield(r) {
				return false
			}
			if (r.Kind == Plumb || r.Kind == Level) && t.spread > smallError {
				r.Turned = true
				return yield(r)
			}
			return true
		}
		for _, r := range readings {
			if len(k) == 0 {
				if t, _ := k.with(r); !each(r, t) {
					return
				}
			}
			for i := range k {
				t, ok := k.hand(i, r.Kind)
				if r.Tool = k[i].ID; ok && !each(r, t) {
					return
				}
			}
		}
	}
}

// smallError is a level's error, in mm a metre, that is not worth turning it for.
const smallError = 0.2

// Minutes is the duration of a reading.
func (k Kit) Minutes(r Reading) float64 {
	t, _ := k.with(r)
	return t.reads.Minutes
}

// Lever is the factor of its tool's bias in a reading.
func (k Kit) Lever(r Reading) float64 {
	t, _ := k.with(r)
	return t.lever(r)
}

// Tool is the tool of a reading, by its ID in the kit (empty for a usual one) and the ID of its instrument.
func (k Kit) Tool(r Reading) (id, instrument string) {
	t, _ := k.with(r)
	return t.id, t.instrument
}

// biasTerm is the bias of a reading's tool as a term of its row; ok is false where it has none.
func (p *Prior) biasTerm(r Reading) (t Term, ok bool) {
	hand, ok := p.Kit.with(r)
	if !ok || !hand.biased || r.PlusMinus > 0 {
		return Term{}, false
	}
	return Term{firstBias + Part(hand.number), 0, hand.lever(r)}, true
}

// SlabTerm is by how much a slab's own width or length is overread, as a term of a figure: the tape's bias is the same
// in opening and slab, and cancels in the margins. ok is false where there is none.
func (p *Prior) SlabTerm(kind Kind) (t Term, ok bool) {
	hand, ok := p.Kit.onSlab(kind)
	if !ok || !hand.biased || p.first {
		return Term{}, false
	}
	return Term{firstBias + Part(hand.number), 0, 1}, true
}

// biasFor is the mean and the standard deviation of a bias.
func (p *Prior) biasFor(of Part) (mean, spread float64) {
	n := int(of - firstBias)
	if n >= mostTools {
		i := &trade.Instruments[n-mostTools]
		return 0, p.usualBias(i)
	}
	tool := p.Kit[n]
	known, _ := trade.InstrumentByID(tool.Instrument)
	if tool.Proved == nil {
		return 0, p.usualBias(known)
	}
	return tool.Proved.Bias, tool.Proved.Sure
}

func (p *Prior) usualBias(i *trade.Instrument) float64 {
	if i.ID == "tape" && p.first {
		return hook1
	}
	return i.Bias
}
