package job

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// A kit that lacks a tool, a hinge or a piece of hardware of another does not hold it; one that has more does.
func TestAKitHoldsAnother(t *testing.T) {
	was := Kit{
		Tools: survey.Kit{{ID: "t", Instrument: "tape"}}, Hinges: []OwnHinge{{ID: "h"}},
		Hardware: []trade.Hardware{{ID: "d"}},
	}
	more := was
	more.Tools = append(survey.Kit{{ID: "l", Instrument: "level"}}, was.Tools...)
	more.Trip = 20
	assert.True(t, was.Holds(was))
	assert.True(t, more.Holds(was))
	assert.False(t, was.Holds(more))
	other := was
	other.Tools = survey.Kit{{ID: "t", Instrument: "rods"}}
	assert.False(t, other.Holds(was), "a tool of that name that reads other things")
	for _, lacks := range []Kit{{Tools: was.Tools, Hinges: was.Hinges}, {Tools: was.Tools, Hardware: was.Hardware}, {}} {
		assert.False(t, lacks.Holds(was))
		assert.True(t, was.Holds(lacks))
	}
}
