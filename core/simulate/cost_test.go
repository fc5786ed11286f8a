package simulate

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// The table of costs that ships is of this program: make costs makes it again where what is asked, cut or done has
// changed.
func TestTheCostsAreOfThisProgram(t *testing.T) {
	got, err := Print()
	require.NoError(t, err)
	assert.Equal(t, Known().From, got, "run make costs")
}

// No tool makes a door dearer than chance explains, and the better kit is the cheaper one.
func TestWhatAKitCosts(t *testing.T) {
	k := Known()
	require.Len(t, k.Costs, 16)
	for _, a := range k.Costs {
		assert.Positive(t, a.Minutes)
		for _, b := range k.Costs {
			more := (b.Rods || !a.Rods) && (b.Lath || !a.Lath) && (b.Feelers || !a.Feelers) && (b.Fine || !a.Fine)
			if more {
				// Feelers see more that is out, and it is put right: more minutes, and more doors in when done. Two standard
				// errors of a mean of 480 doors are 2 minutes; two means differ by half as much again.
				assert.LessOrEqual(t, b.Minutes, a.Minutes+4+40*max(b.Done-a.Done, 0), "%+v, %+v", a, b)
			}
		}
	}
	assert.Less(t, k.Of(Tools{true, true, true, true}).Minutes, 0.8*k.Of(Tools{}).Minutes, "a fifth and more")

	plain := survey.Kit{
		{ID: "t", Instrument: "tape"}, {ID: "l", Instrument: "level"}, {ID: "s", Instrument: "square"},
	}
	assert.Equal(t, Tools{}, ToolsOf(plain, measure.WholeMillimetre))
	saves := k.Savings(Tools{})
	require.NotEmpty(t, saves)
	for i := range saves[1:] {
		assert.GreaterOrEqual(t, saves[i].Minutes, saves[i+1].Minutes)
	}
	says := k.Says(plain, measure.HalfMillimetre)
	require.Len(t, says, 3)
	assert.Equal(t, message.Count(saves[0].Minutes), says[1].Args["minutes"])
	full := append(plain, survey.Tool{ID: "r", Instrument: "rods"}, survey.Tool{ID: "f", Instrument: "feelers"})
	full = append(full, survey.Tool{ID: "e", Instrument: "straightedge"})
	assert.Equal(t, Tools{Rods: true, Lath: true, Feelers: true}, ToolsOf(full, measure.Sixteenths))
	assert.True(t, ToolsOf(full, measure.Tenths).Fine)
	assert.Len(t, k.Says(full, measure.Tenths), 1, "nothing is lacking")
}
