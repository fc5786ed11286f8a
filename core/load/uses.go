package load

import (
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// use is something that a step uses: a tool, or what is used up.
type use struct {
	item message.ID
	size string // the step's argument that is its size; empty where it has none
}

// Tools and what is used up, by their names in the catalogue.
const (
	marking   message.ID = "load.pencil" // pencil, knife, tape and square
	gauges    message.ID = "load.gauges"
	chisels   message.ID = "load.chisels" // with a mallet
	handPlane message.ID = "load.hand-plane"
	power     message.ID = "sets.plane-power"
	sawGuide  message.ID = "sets.saw-guide"
	tableSaw  message.ID = "load.table-saw"
	rollers   message.ID = "load.rollers"
	clamps    message.ID = "load.clamps"
	scrap     message.ID = "load.scrap"
	stand     message.ID = "load.stand"
	wedges    message.ID = "load.wedge"
	feelers   message.ID = "load.feelers"
	cards     message.ID = "load.cards"
	lever     message.ID = "load.lever"
	router    message.ID = "load.router"
	driver    message.ID = "load.driver"
	centring  message.ID = "load.centring"
	pilot     message.ID = "load.pilot"
	bitOf     message.ID = "load.bit" // or a hole saw, by its size
	hammer    message.ID = "load.hammer"
	punch     message.ID = "load.punch"
	puller    message.ID = "load.puller"
	hacksaw   message.ID = "load.hacksaw"
	bevel     message.ID = "load.bevel-gauge"
	level     message.ID = "load.level"
	rodStick  message.ID = "load.story-rod-stick"
	brush     message.ID = "load.brush"
	mask      message.ID = "load.mask"
	oil       message.ID = "load.oil"
	// What is used up.
	glue    message.ID = "load.glue"
	sealer  message.ID = "load.sealer"
	masking message.ID = "load.masking"
	paper   message.ID = "load.paper"
	pins    message.ID = "load.pins"
	threads message.ID = "load.thread-lock"
)

// usedUp are the items that are bought for the job.
var usedUp = map[message.ID]bool{
	glue: true, sealer: true, masking: true, paper: true, pins: true, threads: true,
}

// notes of items: what they are for, or how they are used.
var notes = map[message.ID]message.ID{
	gauges: "load.gauges-note", stand: "load.stand-note", hacksaw: "load.hacksaw-note", bevel: "load.for-lock-edge",
	glue: "load.glued", sealer: "load.sealer-note", centring: "load.centring-note", driver: "load.driver-note",
}

func only(items ...message.ID) (list []use) {
	for _, i := range items {
		list = append(list, use{item: i})
	}
	return list
}

// stepUses is what each step uses, by its ID; a step that is not here is not known, and a test finds it. Common
// practice.
var stepUses = map[message.ID][]use{
	"work.seal":    only(sealer, brush, paper),
	"work.pockets": only(marking, gauges, chisels, router),
	"work.jamb":    only(marking, gauges, chisels, router),
	"work.try":     only(feelers, handPlane, marking, stand, wedges),
	"work.fill":    only(glue, chisels, handPlane),

	"method.saw":         only(sawGuide, handPlane, mask),
	"method.table-saw":   only(tableSaw, handPlane, mask),
	"method.power-plane": only(power, handPlane, stand, clamps, mask),
	"method.hand-plane":  only(handPlane, stand, clamps),
	"method.leave":       nil,

	"saw.face-down":     nil,
	"saw.face-up":       nil,
	"saw.score":         only(marking, masking),
	"saw.tape":          only(masking),
	"saw.back":          only(clamps, scrap),
	"saw.sole":          only(masking),
	"saw.guide-made":    only(sawGuide, clamps),
	"saw.guide-batten":  only(sawGuide, clamps),
	"saw.guide-outside": only(sawGuide, clamps),
	"saw.blade":         nil,
	"saw.held":          only(stand, clamps),
	"saw.fence":         only(tableSaw),
	"saw.carry":         only(rollers),
	"saw.keep-rail":     nil,
	"saw.hold":          nil,
	"saw.falls":         nil,
	"saw.plane-rest":    only(handPlane),
	"saw.plane-taper":   only(handPlane),

	"cut.nothing":        nil,
	"cut.even":           nil,
	"cut.taper":          nil,
	"cut.taper-sawn":     nil,
	"cut.hollowed":       only(handPlane),
	"cut.scribed":        only(marking, scrap, handPlane),
	"cut.both-ends":      only(handPlane),
	"cut.left-on":        nil,
	"cut.left-on-corner": nil,
	"cut.bevel":          only(bevel, handPlane),
	"cut.skin":           only(handPlane),
	"cut.seal":           only(router, mask),

	"insert.saw":   only(marking, masking, sawGuide),
	"insert.free":  only(marking, chisels),
	"insert.new":   only(sawGuide),
	"insert.core":  nil,
	"insert.glue":  only(glue),
	"insert.clamp": only(clamps, scrap, masking),

	"screws.each":     only(driver, centring),
	"screws.trial":    only(driver),
	"screws.long":     only(driver),
	"screws.brass":    only(driver),
	"screws.centring": only(centring),

	"hang.stand":      only(feelers, wedges),
	"hang.stand-even": only(feelers, wedges),
	"hang.marks":      only(marking, rodStick),
	"hang.whole-edge": only(router, chisels, cards),
	"hang.pockets":    only(marking, chisels, router),
	"hang.round":      only(router),
	"hang.long":       nil,
	"hang.trial":      only(driver, centring),
	"hang.lift":       only(wedges, driver),
	"hang.steel":      only(driver),
	"hang.arris":      only(handPlane),
	"hang.pins":       only(wedges, driver),
	"hang.drop":       only(wedges, driver),
	"hang.continuous": only(stand, wedges, driver),
	"hang.stop":       only(pins, hammer),
	"hang.casing":     only(chisels, router, scrap),
	"hang.hold":       only(lever, wedges),
	"hang.hold-two":   nil,

	"hinge-goes.butt":                          nil,
	"hinge-goes.ball-bearing":                  nil,
	message.ID("hinge-goes." + trade.LoosePin): only(punch, hammer),
	"hinge-goes.lift-off":                      nil,
	"hinge-goes.rising":                        nil,
	"hinge-goes.continuous":                    only(hacksaw),

	"bore.tape":        only(masking),
	"bore.tape-skin":   only(masking),
	"bore.line":        only(marking),
	"bore.middle":      only(gauges, marking),
	"bore.length":      only(hacksaw),
	"bore.slot":        append(only(driver, chisels, router, mask), use{bitOf, "bit"}),
	"bore.edge":        append(only(driver, pilot, mask), use{bitOf, "wide"}),
	"bore.plate":       only(marking, chisels),
	"bore.plate-round": only(marking, chisels),
	"bore.together":    only(driver),
	"bore.levers":      only(marking, threads),
	"bore.steel":       only(punch, hammer, oil, hacksaw, driver),
	"bore.there":       only(chisels),
	"bore.first":       only(stand),
	"bore.first-left":  only(stand),
	"bore.hung":        only(wedges),
	"bore.hung-strike": only(wedges, marking),
	"bore.square":      only(chisels),
	"bore.plate-waits": nil,
	"bore.pilots":      {use{pilot, "pilot"}},
	"bore.tried":       nil,
	"bore.code":        nil,

	"hole.both":    append(only(marking, driver, mask), use{pilot, "pilot"}, use{bitOf, "bit"}),
	"hole.through": append(only(marking, driver, scrap, clamps, mask), use{pilot, "pilot"}, use{bitOf, "bit"}),
	"hole.deep":    append(only(marking, driver, mask), use{bitOf, "bit"}),
	"hole.nearest": nil,
	"hole.slow":    nil,

	"surface.plate":       only(driver),
	"surface.edge":        only(chisels),
	"surface.tried":       nil,
	"surface.keep-scribe": only(marking),
	"surface.keep-in":     only(chisels),
	"surface.keep-screw":  only(driver),

	"strike.middle":   only(marking),
	"strike.in":       only(marking),
	"strike.plate":    only(chisels, router),
	"strike.hole":     append(only(driver), use{bitOf, "bit"}),
	"strike.hole-box": append(only(driver), use{bitOf, "bit"}),
	"strike.pilots":   {use{pilot, "pilot"}},
	"strike.pressed":  append(only(driver, hammer, scrap), use{bitOf, "bit"}),

	"bolting.where":     nil,
	"bolting.where-top": nil,
	"bolting.none":      nil,
	"bolting.bead":      nil,
	"bolting.slot":      only(chisels, router),
	"bolting.keeps":     append(only(marking, driver), use{bitOf, "hole"}),
	"bolting.keep-top":  append(only(marking, driver), use{bitOf, "hole"}),
	"bolting.pulls":     only(driver),

	"hardware-note.latch":        nil,
	"hardware-note.knob":         nil,
	"hardware-note.lever-plate":  only(marking, driver),
	"hardware-note.lever-rose":   nil,
	"hardware-note.mortise":      nil,
	"hardware-note.bathroom":     nil,
	"hardware-note.bolt":         nil,
	"hardware-note.surface":      nil,
	"hardware-note.code":         nil,
	"hardware-note.flush-bolt":   nil,
	"hardware-note.surface-bolt": nil,
	"hardware-note.catch":        nil,
	"hardware-note.pull":         nil,

	"stops.shut":                 nil,
	"stops.in-order":             only(cards),
	"stops.in-order-pair":        only(cards),
	"stops.in-order-gasket":      nil,
	"stops.in-order-pair-gasket": nil,
	"stops.gasket":               only(marking, pins),
	"stops.old":                  only(marking, puller),
	"stops.pin":                  only(pins, hammer, punch),

	"lining.check-slab":   only(marking),
	"lining.cut":          only(sawGuide),
	"lining.measure-wall": only(marking),
	"lining.rip-taper":    only(marking, sawGuide),
	"lining.rip":          only(sawGuide),
	"lining.pockets":      only(chisels, router, stand, rodStick),
	"lining.housed":       only(router, chisels, glue, pins, hammer, driver),
	"lining.over":         only(glue, driver),
	"lining.between":      only(glue, driver),
	"lining.brace":        only(driver, marking),
	"lining.together":     only(marking, stand),

	"set.check":      nil,
	"set.feet":       only(sawGuide, marking),
	"set.feet-to":    only(sawGuide, marking),
	"set.stand":      only(wedges, level),
	"set.hinge-side": only(level, wedges, driver),
	"set.lock-side":  only(level, feelers, wedges, driver),
	"set.screws":     only(driver),
	"set.rebate":     only(cards),
	"set.stop":       only(cards, marking),
	"set.read":       nil,

	"stops.rebate": only(cards),

	"lining.stand": only(level, wedges),
	"lining.screw": only(driver),
	"lining.read":  nil,
}
