package simulate

import (
	"math/rand/v2"
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/oracle"
	"kindmargin/core/survey"
)

// doors is how many openings of a house are read with the same tools.
const doors = 6

// house draws openings that are crooked in one way, and are read with one set of tools.
type house struct {
	drawn   *drawer       // every other house is drawn from the prior
	form    *oracle.House // and the rest have sides of explicit forms; nil for the others
	hands   hands
	crooked bool // half again as crooked as usual, or of a form of its own
}

// forms are the oracle's houses of the simulated size whose jambs are in one plane.
var forms = func() (list []*oracle.House) {
	for i := range oracle.Houses {
		if h := &oracle.Houses[i]; h.Width == 0 && !h.Turns() && !h.New {
			list = append(list, h)
		}
	}
	return list
}()

func newHouse(seed uint64, number int) (h house) {
	rng := rand.New(rand.NewPCG(seed, 1<<32+uint64(number)))
	h.hands = newHands(rng)
	if number%2 == 0 {
		by := 0.5 + rng.Float64()
		h.drawn, h.crooked = newDrawer(crookeder(by)), by > 1.25
		return h
	}
	h.form = forms[number/2%len(forms)]
	h.crooked = h.form.Crooked
	return h
}

// crookeder is the prior of old openings, so many times as crooked, by version 1 of the rules, one bend a side:
// published figures were found in those. Package oracle has other forms.
func crookeder(by float64) survey.Prior {
	p := survey.OldOpening(width, height).Version1()
	p.Lean, p.Slope, p.JambBow, p.HeadBow = p.Lean*by, p.Slope*by, p.JambBow*by, p.HeadBow*by
	return p
}

// fine is the number of places at which a side of an explicit form is drawn: a bump is 150 mm wide.
const fine = 4*(grid-1) + 1

func (h house) draw(rng *rand.Rand) (o opening) {
	if h.form == nil {
		return h.drawn.draw(rng)
	}
	truth := h.form.Draw(rng)
	for _, s := range frame.Sides {
		for i := range fine {
			o.side[s] = append(o.side[s], truth.Sides[s](reach(s)*float64(i)/(fine-1)))
		}
	}
	return o
}

// waysOf are the ways of some IDs, or all for none; the second result is the first unknown ID.
func waysOf(only []string) (list []way, unknown string) {
	all := ways()
	for _, id := range only {
		if !slices.ContainsFunc(all, func(w way) bool { return w.id == id }) {
			return nil, id
		}
	}
	return slices.DeleteFunc(all, func(w way) bool { return len(only) > 0 && !slices.Contains(only, w.id) }), ""
}
