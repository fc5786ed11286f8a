package plan

import (
	"fmt"
	"math"

	"kindmargin/core/measure"
)

// OpensWhy says why a door opens as far as it does: what it would meet, in order.
func (w Swing) OpensWhy() (list []string) {
	for _, m := range w.Meets {
		list = append(list, fmt.Sprintf("it would meet the %s at %.0f°", m.Thing, math.Floor(m.Angle)))
	}
	if w.Opens == 180 {
		list = append(list, "nothing that was told stands in its way short of 180°, the wall")
	}
	return list
}

// RestsWhy says why a door comes to rest where it does.
func (w Swing) RestsWhy(u measure.Unit) []string {
	lean := func(v measure.Length, way, other string) string {
		if v < 0 {
			v, way = -v, other
		}
		return "the pins lean " + measure.Fine(v, measure.Nearest, u) + " " + string(u) + " a metre " + way
	}
	turns, way := w.Drift.Shuts, "shuts"
	if turns < 0 {
		turns, way = -turns, "opens"
	}
	return []string{
		lean(w.Drift.Side, "toward the lock jamb, foot to head", "away from the lock jamb, foot to head"),
		lean(w.Drift.Out, "toward you", "away from you"),
		fmt.Sprintf("that %s its %s with %.2f N·m at %d°", way, Weight(w.Weight, u), turns, letGo),
		fmt.Sprintf("its hinges hold about %.2f N·m by their rubbing (assumed)", w.Drift.Rubs),
	}
}

// Why says what the pull on the top hinge is made of.
func (p Pull) Why(u measure.Unit) []string {
	say := func(l measure.Length) string { return measure.Say(l.Round(measure.Millimetre, measure.Nearest), u) }
	return []string{
		"the slab weighs about " + Weight(p.Weight, u),
		"its middle hangs " + say(p.Half) + " from the pins",
		"the outer hinges stand " + say(p.Apart) + " apart",
		"pull = weight × half width / distance (statics)",
	}
}
