package trade

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

func TestEverySchoolIsWhole(t *testing.T) {
	seen := map[string]bool{}
	for _, s := range Schools {
		assert.NotEmpty(t, s.Source, s.Name)
		assert.False(t, seen[s.ID], s.ID)
		seen[s.ID] = true
		for _, side := range []frame.Side{frame.Head, frame.Lock, frame.Foot} {
			assert.Positive(t, s.Margin[side], "%s %v", s.Name, side)
		}
		got, ok := SchoolByID(s.ID)
		assert.True(t, ok)
		assert.Equal(t, s, got)
	}
	_, ok := SchoolByID("none")
	assert.False(t, ok)
}

// Common practice, each figure as the trade says it.
func TestFiguresOfTheTrade(t *testing.T) {
	thin, _ := SchoolByID("thin")
	assert.Equal(t, measure.FromMM(4.7625), thin.Margin[frame.Hinge]+thin.Margin[frame.Lock], "3/16 in for both sides")
	utility, _ := SchoolByID("utility")
	assert.Equal(t, measure.FromMM(25), utility.Margin[frame.Head]+utility.Margin[frame.Foot], "25 mm short overall")
	rule, ok := HingeRuleByID("7and11")
	assert.True(t, ok)
	assert.Equal(t, measure.FromMM(177.8), rule.FromTop)
	assert.Equal(t, FromMemory, rule.Source)

	for depth, want := range map[float64]string{
		7: "saw off the line, then plane to it", 6: "saw off the line, then plane to it",
		5.9: "power plane", 1: "hand plane", 0: "leave as it is",
	} {
		assert.Equal(t, want, Method(measure.FromMM(depth)), "%v mm", depth)
	}
}
