package lock

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

var latch = Choice{From: FromHandle, Handle: mm(1000), Backset: mm(60), Bore: mm(22)}

// Common practice: handle about 1000 mm up, spindle at its backset, latch on
// the centre of the thickness, 35 mm slab → 17.5 mm.
func TestFromHandleHeight(t *testing.T) {
	p, err := Place(latch, Room{Opening: fig(2028), Margin: fig(3), Thickness: mm(35)}, measure.HalfMillimetre)
	require.NoError(t, err)
	assert.Equal(t, mm(1028), p.Jamb.Value)
	assert.Equal(t, mm(1025), p.Slab.Value)
	assert.Equal(t, mm(1000), p.Floor.Value)
	assert.Equal(t, mm(60), p.Backset.Value)
	assert.Equal(t, mm(17.5), p.Centre.Value)
	assert.Equal(t, mm(6.5), p.Wall.Value, "22 bore in 35")
}

// Common practice: a 25 mm bore leaves 5 mm each side of a 35 mm slab.
func TestTheStrikeDecides(t *testing.T) {
	c := latch
	c.From, c.Strike, c.Bore = FromStrike, mm(1034.5), mm(25)
	p, err := Place(c, Room{Opening: fig(2028), Margin: fig(2.5), Thickness: mm(35)}, measure.HalfMillimetre)
	require.NoError(t, err)
	assert.Equal(t, mm(1034.5), p.Jamb.Value)
	assert.Equal(t, mm(1032), p.Slab.Value)
	assert.Equal(t, mm(993.5), p.Floor.Value)
	assert.Equal(t, mm(5), p.Wall.Value)
}

func TestErrorsNameTheField(t *testing.T) {
	with := func(change func(*Choice)) Choice { c := latch; change(&c); return c }
	for at, c := range map[string]Choice{
		"from":    with(func(c *Choice) { c.From = "eye" }),
		"strike":  with(func(c *Choice) { c.Strike = mm(-5) }),
		"handle":  with(func(c *Choice) { c.Handle = mm(100) }),
		"backset": with(func(c *Choice) { c.Backset = mm(6) }),
		"bore":    with(func(c *Choice) { c.Bore = mm(54) }),
	} {
		var e field.Error
		if assert.ErrorAs(t, c.Check(), &e, at) {
			assert.Equal(t, "/"+at, e.Pointer)
		}
	}
	assert.NoError(t, latch.Check())
	_, err := Place(
		with(func(c *Choice) { c.From = FromStrike }), Room{Opening: fig(2000), Margin: fig(3), Thickness: mm(35)},
		measure.HalfMillimetre,
	)
	assert.ErrorContains(t, err, "refused.strike-wanted")
	_, err = Place(
		with(func(c *Choice) { c.Handle = mm(1800) }), Room{Opening: fig(1500), Margin: fig(3), Thickness: mm(35)},
		measure.HalfMillimetre,
	)
	assert.ErrorContains(t, err, "refused.height-outside")
}
