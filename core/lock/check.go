package lock

import (
	"fmt"
	"strings"

	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// Bounds on hardware of one's own.
const (
	mostHoles = 24
	mostCuts  = 8
)

// CheckHardware reports invalid fields of a piece of hardware, as field.Errors.
func CheckHardware(d trade.Hardware) error {
	const mm = measure.Millimetre
	var bad field.Errors
	in := func(at string, is message.ID, v, least, most measure.Length) {
		bad.Under("", field.Range{Pointer: at, Is: is, Value: v, Least: least, Most: most}.Check())
	}
	if n := len([]rune(strings.TrimSpace(d.Name))); n == 0 || n > 80 {
		bad.Add("/name", "refused.hardware-name", nil)
	}
	if _, ok := trade.HardwareKindByID(d.Kind); !ok {
		bad.Add("/kind", "refused.no-hardware-kind", message.Args{"given": message.Quote(d.Kind)})
	}
	if d.Handed != "" && d.Handed != "left" && d.Handed != "right" {
		bad.Add("/handed", "refused.hardware-handed", message.Args{"given": message.Quote(d.Handed)})
	}
	if len(d.Holes) > mostHoles || len(d.Cuts) > mostCuts || len(d.Backsets) > mostCuts {
		bad.Add("/holes", "refused.hardware-parts", message.Args{
			"holes": message.Number(mostHoles), "parts": message.Number(mostCuts), "backsets": message.Number(mostCuts),
		})
		return bad.Err()
	}
	for i, b := range d.Backsets {
		in(fmt.Sprintf("/backsets/%d", i), "size.backset", b, 15*mm, 200*mm)
	}
	for i, h := range d.Holes {
		bad.Under(fmt.Sprintf("/holes/%d", i), checkHole(h))
	}
	in("/edge/bore", "size.bore-in-the-edge", d.Edge.Bore, 0, 60*mm)
	in("/edge/long", "size.slot-in-the-edge", d.Edge.Long, 0, 400*mm)
	in("/edge/wide", "size.slot-in-the-edge", d.Edge.Wide, 0, 60*mm)
	in("/edge/deep", "size.depth-in-the-edge", d.Edge.Deep, 0, 250*mm)
	in("/case/deep", "size.depth-of-a-case", d.Case.Deep, 0, 250*mm)
	for at, p := range map[string]trade.Plate{"/plate": d.Plate, "/strike": d.Strike.Plate} {
		in(at+"/long", "size.length-of-a-plate", p.Long, 0, 500*mm)
		in(at+"/wide", "size.width-of-a-plate", p.Wide, 0, 100*mm)
		in(at+"/thick", "size.thickness-of-a-plate", p.Thick, 0, 10*mm)
		if p.Radius < 0 || p.Wide > 0 && p.Radius > p.Wide/2 {
			bad.Add(at+"/radius", "refused.plate-corners", message.Args{
				"radius": message.Exact(p.Radius), "wide": message.Exact(p.Wide),
			})
		}
	}
	in("/strike/bolt", "size.hole-for-the-bolt", d.Strike.Bolt, 0, 60*mm)
	in("/strike/deep", "size.hole-for-the-bolt", d.Strike.Deep, 0, 120*mm)
	in("/above", "size.distance-of-the-second-bolt", d.Above, 0, 500*mm)
	in("/screw", "size.length-of-a-screw", d.Screw, 0, 150*mm)
	for i, c := range d.Cuts {
		in(fmt.Sprintf("/cuts/%d/base", i), "size.part-that-is-cut", c.Base, -60*mm, 300*mm)
	}
	return bad.Err()
}

func checkHole(h trade.Hole) error {
	const mm = measure.Millimetre
	var bad field.Errors
	if strings.TrimSpace(h.What) == "" {
		bad.Add("/what", "refused.hole-what", nil)
	}
	if h.Dia == 0 {
		bad.Add("/dia", "refused.hole-dia", message.Args{"hole": message.Quote(h.What)})
	} else {
		bad.Under(
			"",
			field.Range{Pointer: "/dia", Is: "size.size-of-a-hole", Value: h.Dia, Least: mm, Most: 120 * mm}.Check(),
		)
	}
	if h.From != trade.FromBoth && h.From != trade.FromPull && h.From != trade.FromPush {
		bad.Add("/from", "refused.hole-from", message.Args{"given": message.Quote(h.From)})
	}
	bad.Under(
		"",
		field.Range{Pointer: "/off", Is: "size.distance-of-a-hole-off-the-edge", Value: h.Off, Most: 300 * mm}.Check(),
	)
	bad.Under("", field.Range{
		Pointer: "/up", Is: "size.distance-of-a-hole-from-the-latch-line", Value: h.Up, Least: -400 * mm,
		Most: 400 * mm,
	}.Check())
	bad.Under("", field.Range{Pointer: "/deep", Is: "size.depth-of-a-hole", Value: h.Deep, Most: 120 * mm}.Check())
	return bad.Err()
}
