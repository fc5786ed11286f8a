package job

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/field"
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

// A saw's offset is measured from the guide to the near side of one cut on scrap, and its kerf to the far side.
func TestASawIsChecked(t *testing.T) {
	for _, c := range []struct {
		name string
		saw  Saw
		at   string
	}{
		{"a usual one", Saw{}, ""},
		{"made to the saw", Saw{Far: mm(2.6), Depth: mm(55)}, ""},
		{"a batten", Saw{Guide: "batten", Near: mm(128), Far: mm(130.5)}, ""},
		{"a table saw's wide blade", Saw{Far: mm(3.2), Down: true, Table: true}, ""},
		{"no such guide", Saw{Guide: "string"}, "/guide"},
		{"a negative offset", Saw{Guide: "batten", Near: mm(-128), Far: mm(130)}, "/near"},
		{"a batten with no offset", Saw{Guide: "batten"}, "/near"},
		{"a track with one", Saw{Guide: "track", Near: mm(120)}, "/near"},
		{"a far side before the near one", Saw{Guide: "batten", Near: mm(128), Far: mm(127)}, "/far"},
		{"a kerf as wide as a chisel", Saw{Far: mm(12)}, "/far"},
		{"a saw as deep as a post", Saw{Depth: mm(400)}, "/depth"},
	} {
		err := Kit{Saw: c.saw}.check()
		if c.at == "" {
			assert.NoError(t, err, c.name)
			continue
		}
		var bad field.Errors
		if assert.ErrorAs(t, err, &bad, c.name) {
			assert.Equal(t, "/saw"+c.at, bad[0].Pointer, c.name)
		}
	}
	assert.Equal(t, mm(2.5), Saw{Guide: "batten", Near: mm(128), Far: mm(130.5)}.Kerf())
}

// A bush alone, or no wider than its cutter, guides nothing; without a pair of one's own it is 12 in 16.
func TestARoutersOwnPair(t *testing.T) {
	assert.Equal(t, trade.UsualRouter.Bush, Kit{}.Router().Bush)
	own := Kit{Bush: mm(20), Cutter: mm(10)}
	assert.NoError(t, own.check())
	assert.Equal(t, mm(32), own.Router().Opening(mm(22)), "22 and 20 less 10")
	assert.ErrorContains(t, Kit{Bush: mm(16)}.check(), "/bush")
	assert.ErrorContains(t, Kit{Bush: mm(10), Cutter: mm(12)}.check(), "/bush")
}
