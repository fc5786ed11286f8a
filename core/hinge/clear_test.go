package hinge

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// An old latch recess from 1000 to 1070 and a rail joint from 1100 to 1180; a leaf of 75
// and 12 of wood between: up to 913, or down past both to 1192, since 30 hold no leaf.
func TestALeafMovedClear(t *testing.T) {
	mm := measure.FromMM
	taken := []Span{
		{What: message.Own("latch recess"), From: mm(1000), To: mm(1070)},
		{What: message.Own("rail joint"), From: mm(1100), To: mm(1180)},
	}
	s, blocked := Blocks(taken, mm(1000), mm(75), mm(12))
	assert.True(t, blocked)
	assert.Equal(t, message.Own("latch recess"), s.What)
	up, down := Clear(taken, mm(1000), Need{mm(75), mm(12), mm(1981)})
	require.NotNil(t, up)
	require.NotNil(t, down)
	assert.Equal(t, mm(913), *up)
	assert.Equal(t, mm(1192), *down)
	_, down = Clear(taken, mm(1000), Need{mm(75), mm(12), mm(1250)})
	assert.Nil(t, down, "the edge ends at 1250")
	_, blocked = Blocks(taken, mm(913), mm(75), mm(12))
	assert.False(t, blocked, "just clear")
}

func TestAMovedLeafIsAlwaysClear(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var taken []Span
		for range rapid.IntRange(0, 6).Draw(t, "n") {
			from := measure.Length(rapid.IntRange(0, 1900).Draw(t, "from")) * measure.Millimetre
			taken = append(taken, Span{
				From: from, To: from + measure.Length(rapid.IntRange(1, 300).Draw(t, "long"))*measure.Millimetre,
			})
		}
		top := measure.Length(rapid.IntRange(0, 1900).Draw(t, "top")) * measure.Millimetre
		up, down := Clear(taken, top, Need{measure.FromMM(100), measure.FromMM(12), measure.FromMM(2000)})
		for _, at := range []*measure.Length{up, down} {
			if at == nil {
				continue
			}
			for _, s := range taken {
				assert.True(t, *at+measure.FromMM(112) <= s.From || s.To+measure.FromMM(12) <= *at)
			}
		}
	})
}
