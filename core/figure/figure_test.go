package figure

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/measure"
)

func TestRoundedIsATermAndKeepsToTheSafeSide(t *testing.T) {
	f := func(mm float64) Figure { return Sum(0.7, Term{Label: "estimate", Value: measure.FromMM(mm)}) }
	for _, c := range []struct {
		mm   float64
		way  measure.Way
		want float64
	}{
		{16.9, measure.Down, 16.5},
		{16.97, measure.Down, 17}, // no tape tells 0.03 mm
		{16.94, measure.Down, 16.5},
		{820.03, measure.Up, 820},
		{820.06, measure.Up, 820.5},
		{820.3, measure.Nearest, 820.5},
		{-0.02, measure.Down, 0},
	} {
		got := f(c.mm).Rounded(measure.HalfMillimetre, c.way)
		assert.Equal(t, measure.FromMM(c.want), got.Value, "%v", c)
		assert.Equal(t, 0.7, got.Sigma)
		var sum measure.Length
		for _, term := range got.Terms {
			sum += term.Value
		}
		assert.Equal(t, got.Value, sum)
		assert.Equal(t, Rounding, got.Terms[len(got.Terms)-1].Source)
	}
	assert.Len(t, f(3).Rounded(measure.HalfMillimetre, measure.Down).Terms, 1, "nothing to round")
}
