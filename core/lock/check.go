package lock

import (
	"fmt"
	"strings"

	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// What a device of one's own may hold.
const (
	mostHoles = 24
	mostCuts  = 8
)

// CheckDevice reports what cannot be in a device, as field.Errors worded in the unit of the
// job.
func CheckDevice(d trade.Device, u measure.Unit) error {
	const mm = measure.Millimetre
	var bad field.Errors
	in := func(at, is string, v, least, most measure.Length) {
		bad.Under("", field.Range{Pointer: at, Is: is, Value: v, Least: least, Most: most}.Check(u))
	}
	if n := len([]rune(strings.TrimSpace(d.Name))); n == 0 || n > 80 {
		bad.Add("/name", "Give the device a name of 1 to 80 letters.")
	}
	if _, ok := trade.DeviceKindByID(d.Kind); !ok {
		bad.Add("/kind", "There is no kind of device %.40q: choose one of the list.", d.Kind)
	}
	if d.Handed != "" && d.Handed != "left" && d.Handed != "right" {
		bad.Add("/handed", "A device is made for hinges on the left, on the right, or for either, not for %.40q.", d.Handed)
	}
	if len(d.Holes) > mostHoles || len(d.Cuts) > mostCuts || len(d.Backsets) > mostCuts {
		bad.Add("/holes", "A device has up to %d holes, %d parts to cut and %d backsets.", mostHoles, mostCuts, mostCuts)
		return bad.Err()
	}
	for i, b := range d.Backsets {
		in(fmt.Sprintf("/backsets/%d", i), "backset", b, 15*mm, 200*mm)
	}
	for i, h := range d.Holes {
		bad.Under(fmt.Sprintf("/holes/%d", i), checkHole(h, u))
	}
	in("/edge/bore", "bore in the edge", d.Edge.Bore, 0, 60*mm)
	in("/edge/long", "slot in the edge", d.Edge.Long, 0, 400*mm)
	in("/edge/wide", "slot in the edge", d.Edge.Wide, 0, 60*mm)
	in("/edge/deep", "depth in the edge", d.Edge.Deep, 0, 250*mm)
	in("/case/deep", "depth of a case", d.Case.Deep, 0, 250*mm)
	for at, p := range map[string]trade.Plate{"/plate": d.Plate, "/strike": d.Strike.Plate} {
		in(at+"/long", "length of a plate", p.Long, 0, 500*mm)
		in(at+"/wide", "width of a plate", p.Wide, 0, 100*mm)
		in(at+"/thick", "thickness of a plate", p.Thick, 0, 10*mm)
		if p.Radius < 0 || p.Wide > 0 && p.Radius > p.Wide/2 {
			bad.Add(at+"/radius", "Corners of %s on a plate %s wide: half the width is the most.", measure.Say(p.Radius, u), measure.Say(p.Wide, u))
		}
	}
	in("/strike/bolt", "hole for the bolt", d.Strike.Bolt, 0, 60*mm)
	in("/strike/deep", "hole for the bolt", d.Strike.Deep, 0, 120*mm)
	in("/above", "second bolt's distance", d.Above, 0, 500*mm)
	in("/screw", "length of a screw", d.Screw, 0, 150*mm)
	for i, c := range d.Cuts {
		in(fmt.Sprintf("/cuts/%d/base", i), "part that is cut", c.Base, -60*mm, 300*mm)
	}
	return bad.Err()
}

func checkHole(h trade.Hole, u measure.Unit) error {
	const mm = measure.Millimetre
	var bad field.Errors
	if strings.TrimSpace(h.What) == "" {
		bad.Add("/what", "Say what goes through that hole.")
	}
	if h.Dia == 0 {
		bad.Add("/dia", "The %s has no diameter: read it off the pattern, or measure its bit.", h.What)
	} else {
		bad.Under("", field.Range{Pointer: "/dia", Is: "hole", Value: h.Dia, Least: mm, Most: 120 * mm}.Check(u))
	}
	if h.From != trade.FromBoth && h.From != trade.FromPull && h.From != trade.FromPush {
		bad.Add("/from", "A hole is bored from the pull face, the push face, or both, not from %.40q.", h.From)
	}
	bad.Under("", field.Range{Pointer: "/off", Is: "hole's place off the edge", Value: h.Off, Most: 300 * mm}.Check(u))
	bad.Under("", field.Range{Pointer: "/up", Is: "hole's place above the latch line", Value: h.Up, Least: -400 * mm, Most: 400 * mm}.Check(u))
	bad.Under("", field.Range{Pointer: "/deep", Is: "depth of a hole", Value: h.Deep, Most: 120 * mm}.Check(u))
	return bad.Err()
}
