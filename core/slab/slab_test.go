package slab

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

func mm(v float64) measure.Length { return measure.FromMM(v) }

// A slab 838 at the head, 836 at mid-length and 835 at the foot; 2040 on the
// hinge edge, 2042 on the lock edge, its lock corner 4 high.
func TestAMeasuredSlab(t *testing.T) {
	s := Slab{
		Width: mm(838), WidthMid: mm(836), WidthFoot: mm(835), Length: mm(2040), LengthLock: mm(2042), Square: mm(4),
		Thickness: mm(35),
	}
	for part, want := range map[float64]float64{0: 838, 0.25: 837, 0.5: 836, 0.75: 835.5, 1: 835} {
		assert.InDelta(t, want, s.WidthAt(part), 1e-9)
	}
	assert.InDelta(t, -4, s.HeadAt(1), 1e-9)
	assert.InDelta(t, 2038, s.FootAt(1), 1e-9, "2042 down from 4 above")
	s.WidthMid = 0
	assert.InDelta(t, 836.5, s.WidthAt(0.5), 1e-9, "not measured: straight")
	assert.Equal(t, []string{"width", "length", "thickness"}, Slab{}.Missing())
}

func TestLimitsAndWeight(t *testing.T) {
	twelve := mm(12)
	s := Slab{
		Width: mm(1000), Length: mm(2000), Thickness: mm(50), Construction: "flush", Machined: []frame.Side{frame.Lock},
		Limits: Limits{Hinge: &twelve, Lock: &twelve},
	}
	assert.Equal(t, mm(12), s.Most(frame.Hinge), "the maker's word")
	assert.Zero(t, s.Most(frame.Lock), "a machined edge is never cut, whatever the maker allows")
	assert.Equal(t, mm(20), s.Most(frame.Foot), "the construction's usual limit")
	assert.InDelta(t, 60, s.Weight(), 1e-9, "0.1 m³ at 600 kg")
	assert.Zero(t, Slab{Construction: "rated"}.Most(frame.Foot), "a rated slab has only its certificate's")
}

func TestCheckNamesTheField(t *testing.T) {
	three := mm(-3)
	for at, s := range map[string]Slab{
		"width":        {Width: mm(20)},
		"length":       {Length: mm(20400)},
		"thickness":    {Thickness: mm(3)},
		"square":       {Square: mm(80)},
		"handle":       {Handle: mm(5)},
		"pivot":        {Pivot: mm(2)},
		"construction": {Construction: "straw"},
		"limits/foot":  {Limits: Limits{Foot: &three}},
	} {
		var e field.Error
		if assert.ErrorAs(t, s.Check(), &e, at) {
			assert.Equal(t, "/"+at, e.Pointer)
			assert.NotEmpty(t, e.Problem)
		}
	}
	assert.NoError(t, Slab{}.Check(), "what is not given yet is not wrong")
}

// What a tape reads too much comes off every size that was read, and off none that was not.
func TestASlabThatWasReadTooMuch(t *testing.T) {
	s := Slab{Width: mm(838), WidthFoot: mm(838.5), Length: mm(1981), Square: mm(1)}.Less(0.5, 0.8)
	assert.Equal(t, Slab{Width: mm(837.5), WidthFoot: mm(838), Length: mm(1980.2), Square: mm(1)}, s)
}
