package hinge

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/measure"
)

func mm(v float64) measure.Length { return measure.FromMM(v) }

func fig(v float64) figure.Figure { return figure.Figure{Value: mm(v)} }

var butts = Choice{From: FromPockets, Count: 2, Leaf: mm(75), Width: mm(29), Plate: mm(2), Closed: mm(7)}

// Common practice: a pocket at 163 mm below the head and a 3 mm margin put
// the leaf 160 mm below the slab's top.
func TestFromExistingPockets(t *testing.T) {
	c := butts
	c.Pockets = []measure.Length{mm(163), mm(1640)}
	marks, err := Place(c, fig(2023), fig(3), measure.HalfMillimetre)
	require.NoError(t, err)
	require.Len(t, marks, 2)
	assert.Equal(t, mm(160), marks[0].Slab.Value)
	assert.Equal(t, mm(163), marks[0].Jamb.Value)
	assert.Equal(t, mm(1637), marks[1].Slab.Value)
}

func TestByRule(t *testing.T) {
	c := butts
	c.From, c.Count = "6and9", 3
	marks, err := Place(c, fig(2023.2), fig(3), measure.HalfMillimetre)
	require.NoError(t, err)
	require.Len(t, marks, 3)
	assert.Equal(t, mm(150), marks[0].Slab.Value)
	assert.Equal(t, mm(1723), marks[2].Slab.Value, "2023.2 − 225 − 75, to the half millimetre")
	assert.Equal(t, mm(936.5), marks[1].Slab.Value, "midway")
	for _, m := range marks {
		assert.Equal(t, mm(3), m.Jamb.Value-m.Slab.Value, "jamb and slab differ by the head margin, exactly")
	}

	c.From, c.Count = "7and11", 2
	c.Leaf = 7 * measure.Inch / 2
	marks, err = Place(
		c, figure.Figure{Value: 80 * measure.Inch}, figure.Figure{Value: measure.Inch / 8}, measure.Sixteenths,
	)
	require.NoError(t, err)
	assert.Equal(t, 7*measure.Inch, marks[0].Slab.Value)
	assert.Equal(t, 131*measure.Inch/2, marks[1].Slab.Value, "80 − 11 − 3 1/2 = 65 1/2")
	assert.Equal(t, 57*measure.Inch/8, marks[0].Jamb.Value, "7 1/8")
}

func TestMarginAndGauges(t *testing.T) {
	assert.Equal(t, mm(3), butts.Flush().Value, "closed 7 less two flush leaves of 2")
	assert.Equal(t, mm(6), butts.Setback(mm(35)), "about 1/4 in")
}

func TestCheckNamesTheField(t *testing.T) {
	with := func(change func(*Choice)) Choice { c := butts; change(&c); return c }
	for at, c := range map[string]Choice{
		"from":      with(func(c *Choice) { c.From = "by eye" }),
		"count":     with(func(c *Choice) { c.Count = 4 }),
		"leaf":      with(func(c *Choice) { c.Leaf = 0 }),
		"width":     with(func(c *Choice) { c.Width = mm(-3) }),
		"plate":     with(func(c *Choice) { c.Plate = mm(20) }),
		"closed":    with(func(c *Choice) { c.Closed = mm(3.5) }),
		"pockets/0": with(func(c *Choice) { c.Pockets = []measure.Length{0} }),
		"pockets/1": with(func(c *Choice) { c.Pockets = []measure.Length{mm(170), mm(200)} }),
		"pockets":   with(func(c *Choice) { c.Pockets = []measure.Length{mm(100), mm(300), mm(500), mm(700)} }),
	} {
		var e field.Error
		if assert.ErrorAs(t, c.Check(), &e, at) {
			assert.Equal(t, "/"+at, e.Pointer)
		}
	}
	assert.NoError(t, butts.Check())
	_, err := Place(butts, fig(2000), fig(3), measure.HalfMillimetre)
	assert.ErrorContains(t, err, "refused.pockets-wanted")
	short := butts
	short.From = "6and9"
	_, err = Place(short, fig(400), fig(3), measure.HalfMillimetre)
	assert.ErrorContains(t, err, "refused.slab-short-for-hinges")
}

// Slab 2000 long, leaves of 75: the last of two places ends 25 past it at 1950, and 1925 is
// the lowest that holds it; leaves stand their own length apart at least.
func TestPlacesOfOnesOwn(t *testing.T) {
	c := butts
	c.From, c.Places = OwnPlaces, []measure.Length{mm(150), mm(1950)}
	_, err := Place(c, fig(2000), fig(3), measure.HalfMillimetre)
	assert.ErrorContains(t, err, "refused.hinge-past-foot by=25 mm most=1925 mm")
	c.Places[1] = mm(1925)
	marks, err := Place(c, fig(2000), fig(3), measure.HalfMillimetre)
	require.NoError(t, err)
	assert.Equal(t, mm(1928), marks[1].Jamb.Value)
	c.Places[1] = mm(200)
	assert.ErrorContains(t, c.Check(), "least=225 mm")
	c.From = WholeEdge
	marks, err = Place(c, fig(2000.4), fig(3), measure.HalfMillimetre)
	require.NoError(t, err)
	assert.Equal(
		t, []measure.Length{0, mm(962.5), mm(1925.5)},
		[]measure.Length{marks[0].Slab.Value, marks[1].Slab.Value, marks[2].Slab.Value},
		"(2000.4 − 75) / 2 and less 75, on the half millimetre",
	)
}
