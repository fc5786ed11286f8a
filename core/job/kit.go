package job

import (
	"math"
	"slices"
	"strconv"

	"kindmargin/core/field"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Kit is the tools at hand, the cost of a trip to the trestles, and the order of fitting.
type Kit struct {
	Tools survey.Kit `json:"tools,omitempty"` // empty: a usual instrument for each kind of reading
	Trip  float64    `json:"trip,omitzero"`   // minutes of another trip after the first hang; nought for UsualTrip
	// greatest deviation from the best margin that still fits; 0 for UsualFits
	Fits measure.Length `json:"fits,omitzero"`
	// Hinges are the carpenter's own, beside those of core/trade.
	Hinges   []OwnHinge       `json:"hinges,omitempty"`
	Hardware []trade.Hardware `json:"hardware,omitempty"` // latches and locks of one's own
	Bits     []measure.Length `json:"bits,omitempty"`     // that are at hand; empty for the usual ones
	// HingeFirst is the school that fits a slab's hinge edge to its jamb before its head is cut.
	HingeFirst bool `json:"hingeFirst,omitempty"`
	// Marking is the ID of a trade.Marking, by which hinge marks are carried to the jamb; empty for the usual one.
	Marking string `json:"marking,omitempty"`
	Saw     Saw    `json:"saw,omitzero"` // zero is a usual one
	// Bush and Cutter are the router's own pair; nought for trade.UsualRouter.
	Bush   measure.Length `json:"bush,omitempty"`
	Cutter measure.Length `json:"cutter,omitempty"`
}

// Router is the router's guide bush and cutter.
func (k Kit) Router() lock.Router {
	r := lock.UsualRouter
	if k.Bush > 0 && k.Cutter > 0 {
		r = lock.Router{Bush: k.Bush, Cutter: k.Cutter}
	}
	return r
}

// HardwareByID finds a piece of hardware in the kit or in core/trade; ok is false where there is none.
func (k Kit) HardwareByID(id string) (d trade.Hardware, ok bool) {
	for _, d := range k.Hardware {
		if d.ID == id {
			return d, true
		}
	}
	return trade.HardwareByID(id)
}

// BitsAtHand are the bits that bores are chosen from.
func (k Kit) BitsAtHand(u measure.Unit) []measure.Length {
	if len(k.Bits) > 0 {
		return k.Bits
	}
	return trade.Bits[u]
}

// Holds reports whether a kit has every tool, hinge and piece of hardware that is another kit's own.
func (k Kit) Holds(other Kit) bool {
	return holds(k.Tools, other.Tools, func(t survey.Tool) string { return t.ID + " " + t.Instrument }) &&
		holds(k.Hinges, other.Hinges, func(h OwnHinge) string { return h.ID }) &&
		holds(k.Hardware, other.Hardware, func(d trade.Hardware) string { return d.ID })
}

func holds[T any](list, other []T, id func(T) string) bool {
	return !slices.ContainsFunc(other, func(o T) bool {
		return !slices.ContainsFunc(list, func(t T) bool { return id(t) == id(o) })
	})
}

// OwnHinge is a hinge that was measured once, for all of the job's openings. 0 is not said.
type OwnHinge struct {
	ID     string         `json:"id"`
	Name   string         `json:"name"`
	Kind   string         `json:"kind"` // ID of a trade.HingeKind
	Leaf   measure.Length `json:"leaf"`
	Width  measure.Length `json:"width"`
	Plate  measure.Length `json:"plate"`
	Closed measure.Length `json:"closed"`
	Pin    measure.Length `json:"pin,omitempty"`
	Radius measure.Length `json:"radius,omitempty"`
	Rise   measure.Length `json:"rise,omitempty"`
	Screws int            `json:"screws,omitempty"` // in each leaf
	Gauge  int            `json:"gauge,omitempty"`  // number of its screws
	Screw  measure.Length `json:"screw,omitempty"`  // their length
	Load   float64        `json:"load,omitempty"`   // the heaviest slab that two carry, kg
}

// Hinge finds a hinge in the kit or in core/trade; ok is false where there is none.
func (k Kit) Hinge(id string) (h trade.Hinge, ok bool) {
	for _, o := range k.Hinges {
		if o.ID == id {
			return trade.Hinge{
				ID: o.ID, Kind: o.Kind, Name: o.Name, Leaf: o.Leaf, Width: o.Width, Plate: o.Plate, Closed: o.Closed,
				Pin: o.Pin, Radius: o.Radius,
				Rise: o.Rise, Screws: o.Screws, Screw: trade.Screw{No: o.Gauge, Long: o.Screw}, Load: o.Load,
				Source: trade.ForThisJob,
			}, true
		}
	}
	return trade.HingeByID(id)
}

// Defaults for the cost of a trip, and for what fits. Common practice.
const (
	UsualTrip = 12.0
	UsualFits = measure.Millimetre
)

// TripMinutes is the cost of another trip, in minutes.
func (k Kit) TripMinutes() float64 {
	if k.Trip > 0 {
		return k.Trip
	}
	return UsualTrip
}

// FitsWithin is the greatest deviation from the best margin that still fits.
func (k Kit) FitsWithin() measure.Length {
	if k.Fits > 0 {
		return k.Fits
	}
	return UsualFits
}

// Upper bounds on a kit.
const (
	mostTools   = 20
	longestTrip = 240.0 // minutes
	beyond      = 5.0   // mm, or mm a metre: no tool that is used is so wrong
)

func (k Kit) check() error {
	var bad field.Errors
	if len(k.Tools) > mostTools {
		bad.Add("/tools", "refused.too-many-tools", message.Args{
			"given": message.Number(len(k.Tools)), "most": message.Number(mostTools),
		})
		return bad
	}
	if k.Trip < 0 || k.Trip > longestTrip {
		bad.Add("/trip", "refused.trip", message.Args{
			"most": message.Number(longestTrip), "usual": message.Number(UsualTrip),
			"given": message.Number(math.Round(k.Trip)),
		})
	}
	bad.Under("", field.Range{
		Pointer: "/fits", Is: "size.margin-that-still-fits", Value: k.Fits, Most: 5 * measure.Millimetre,
	}.Check())
	if _, ok := trade.MarkingByID(k.Marking); !ok {
		bad.Add("/marking", "refused.no-marking", message.Args{"given": message.Quote(k.Marking)})
	}
	k.checkHinges(&bad)
	k.checkHardware(&bad)
	bad.Under("/saw", k.Saw.check())
	if (k.Bush > 0) != (k.Cutter > 0) {
		bad.Add("/bush", "refused.bush-alone", nil)
	} else if k.Bush > 0 {
		bad.Under("", k.Router().Check(k.Cutter))
	}
	for i, t := range k.Tools {
		at := "/tools/" + strconv.Itoa(i)
		same := func(x survey.Tool) bool { return x.ID == t.ID }
		if !identifies(t.ID) || slices.ContainsFunc(k.Tools[:i], same) {
			bad.Add(at+"/id", "refused.tool-id", message.Args{"given": message.Quote(t.ID)})
		}
		if letters(t.Name) > longestName || !plain(t.Name) {
			bad.Add(at+"/name", "refused.tool-name", message.Args{"most": message.Number(longestName)})
		}
		known, ok := trade.InstrumentByID(t.Instrument)
		if !ok {
			bad.Add(at+"/instrument", "refused.no-instrument", message.Args{"given": message.Quote(t.Instrument)})
			continue
		}
		if p := t.Proved; p != nil {
			bad.Under(at+"/proved", k.checkProved(t.ID, known, *p))
		}
	}
	return bad.Err()
}

func (k Kit) checkHinges(bad *field.Errors) {
	const mm = measure.Millimetre
	if len(k.Hinges) > mostTools {
		bad.Add("/hinges", "refused.too-many-hinges", message.Args{
			"given": message.Number(len(k.Hinges)), "most": message.Number(mostTools),
		})
		return
	}
	for i, h := range k.Hinges {
		at := "/hinges/" + strconv.Itoa(i)
		_, sold := trade.HingeByID(h.ID)
		if !identifies(h.ID) || sold ||
			slices.ContainsFunc(k.Hinges[:i], func(x OwnHinge) bool { return x.ID == h.ID }) {
			bad.Add(at+"/id", "refused.hinge-id", message.Args{"given": message.Quote(h.ID)})
		}
		if n := letters(h.Name); n == 0 || n > longestName || !plain(h.Name) {
			bad.Add(at+"/name", "refused.hinge-name", message.Args{"most": message.Number(longestName)})
		}
		if _, ok := trade.HingeKindByID(h.Kind); !ok {
			bad.Add(at+"/kind", "refused.no-hinge-kind", message.Args{"given": message.Quote(h.Kind)})
		}
		for _, r := range []field.Range{
			{Pointer: at + "/leaf", Is: "size.length-of-a-hinge", Value: h.Leaf, Least: 40 * mm, Most: 250 * mm},
			{Pointer: at + "/width", Is: "size.width-of-a-hinge-leaf", Value: h.Width, Least: 10 * mm, Most: 120 * mm},
			{Pointer: at + "/plate", Is: "size.thickness-of-a-hinge-leaf", Value: h.Plate, Least: mm / 2, Most: 6 * mm},
			{
				Pointer: at + "/closed", Is: "size.thickness-of-a-closed-hinge", Value: h.Closed,
				Least: max(2*h.Plate, mm), Most: 20 * mm,
			},
			{Pointer: at + "/pin", Is: "size.distance-of-the-pin-in-front-of-the-face", Value: h.Pin, Most: 60 * mm},
			{Pointer: at + "/radius", Is: "size.radius-of-a-leafs-corners", Value: h.Radius, Most: 25 * mm},
			{Pointer: at + "/rise", Is: "size.rise-of-a-hinge", Value: h.Rise, Most: 30 * mm},
			{Pointer: at + "/screw", Is: "size.length-of-a-screw", Value: h.Screw, Most: 150 * mm},
		} {
			bad.Under("", r.Check())
		}
		if h.Screws < 0 || h.Screws > 60 || h.Gauge < 0 || h.Gauge > 24 || h.Load < 0 || h.Load > 500 {
			bad.Add(at, "refused.hinge-screws", nil)
		}
	}
}

func (k Kit) checkHardware(bad *field.Errors) {
	if len(k.Hardware) > mostTools || len(k.Bits) > 2*mostTools {
		bad.Add("/hardware", "refused.too-many-hardware", message.Args{
			"hardware": message.Number(mostTools), "bits": message.Number(2 * mostTools),
		})
		return
	}
	for i, d := range k.Hardware {
		at := "/hardware/" + strconv.Itoa(i)
		_, sold := trade.HardwareByID(d.ID)
		if !identifies(d.ID) || sold ||
			slices.ContainsFunc(k.Hardware[:i], func(x trade.Hardware) bool { return x.ID == d.ID }) {
			bad.Add(at+"/id", "refused.hardware-id", message.Args{"given": message.Quote(d.ID)})
		}
		if !plain(d.Name) {
			bad.Add(at+"/name", "refused.hardware-one-line", nil)
		}
		bad.Under(at, lock.CheckHardware(d))
	}
	for i, b := range k.Bits {
		bad.Under("", field.Range{
			Pointer: "/bits/" + strconv.Itoa(i), Is: "size.size-of-a-bit", Value: b, Least: measure.Millimetre,
			Most: 120 * measure.Millimetre,
		}.Check())
	}
}

func (k Kit) checkProved(id string, known *trade.Instrument, p survey.Proved) error {
	bias, sure := message.ID("refused.proof-bias"), message.ID("refused.proof-sure")
	if known.PerMetre {
		bias, sure = "refused.proof-bias-metre", "refused.proof-sure-metre"
	}
	switch {
	case p.Bias < -beyond || p.Bias > beyond:
		return field.Fault("/bias", bias, message.Args{"by": strconv.FormatFloat(p.Bias, 'f', 2, 64)})
	case p.Sure < 0 || p.Sure > beyond || p.Sigma < 0 || p.Sigma > beyond:
		return field.Fault("/sure", sure, message.Args{"most": message.Number(beyond)})
	case p.Readings < 4 || p.Readings > 40:
		return field.Fault("/readings", "refused.proof-readings", message.Args{"given": message.Number(p.Readings)})
	}
	// A chain of proofs must end at a tool that is its own reference.
	for at, left := p.Against, len(k.Tools); at != ""; left-- {
		i := slices.IndexFunc(k.Tools, func(x survey.Tool) bool { return x.ID == at })
		switch {
		case i < 0:
			return field.Fault("/against", "refused.proof-no-tool", message.Args{"given": message.Quote(at)})
		case at == id || left == 0:
			return field.Fault("/against", "refused.proof-circle", nil)
		case k.Tools[i].Proved == nil:
			return nil
		}
		at = k.Tools[i].Proved.Against
	}
	return nil
}

// CheckKit reports readings whose tool is not in the kit or cannot take that kind, and a hinge that is neither in the
// kit nor in core/trade, as field.Errors.
func (o Opening) CheckKit(k Kit) error {
	var bad field.Errors
	for i, r := range o.Readings {
		if r.Tool == "" {
			continue
		}
		if id, _ := k.Tools.Tool(r); id != r.Tool {
			bad.Add("/readings/"+strconv.Itoa(i)+"/tool", "refused.reading-tool", message.Args{
				"given": message.Quote(r.Tool),
			})
		}
	}
	if id := o.Hinges.Size; id != "" {
		if _, ok := k.Hinge(id); !ok {
			bad.Add("/hinges/size", "refused.no-hinge-size", message.Args{"given": message.Quote(id)})
		}
	}
	chosen := map[string]string{"/lock/hardware": o.Lock.Hardware, "/lock/second": o.Lock.Second}
	if o.Pair != nil {
		chosen["/pair/bolts"] = o.Pair.Bolts
	}
	for at, id := range chosen {
		if _, ok := k.HardwareByID(id); !ok && id != "" {
			bad.Add(at, "refused.no-hardware", message.Args{"given": message.Quote(id)})
		}
	}
	return bad.Err()
}
