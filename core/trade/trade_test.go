package trade

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
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

	for depth, want := range map[float64]message.ID{
		5.9: "method.power-plane", 1: "method.hand-plane", 0: "method.leave",
	} {
		assert.Equal(t, want, PlaneFor(measure.FromMM(depth)).Name(), "%v mm", depth)
	}
}

// North American hardware practice, from memory: two hinges to 60 in, three to 90, four to
// 120; 3 1/2 in for 1 3/8 thick to 32 wide, 4 to 37; 4 1/2 for 1 3/4 thick to 36 wide, 5 to 48.
func TestHingesByHeightAndThickness(t *testing.T) {
	for length, want := range map[measure.Length]int{
		60 * inch: 2, 61 * inch: 3, 80 * inch: 3, 90 * inch: 3, 91 * inch: 4, 120 * inch: 4,
	} {
		assert.Equal(t, want, HingesByHeight(length), "%v", length)
	}
	for _, c := range []struct{ thick, wide, want measure.Length }{
		{11 * inch / 8, 32 * inch, 7 * inch / 2},
		{11 * inch / 8, 36 * inch, 4 * inch},
		{7 * inch / 4, 36 * inch, 9 * inch / 2},
		{7 * inch / 4, 42 * inch, 5 * inch},
	} {
		assert.Equal(t, c.want, HingeByThickness(c.thick, c.wide, measure.Inches))
	}
	assert.Equal(t, 75*mm, HingeByThickness(35*mm, 762*mm, measure.Millimetres), "3 in for 35 mm slabs")
	assert.Equal(t, 100*mm, HingeByThickness(44*mm, 838*mm, measure.Millimetres))
}

// Every hinge of the list is one that can be: its closed thickness holds its two leaves.
func TestHingesOfTheList(t *testing.T) {
	for _, h := range Hinges {
		assert.GreaterOrEqual(t, h.Closed, 2*h.Plate, h.ID)
		assert.Less(t, h.Width, h.Leaf, h.ID)
		assert.NotEmpty(t, h.Source, h.ID)
		assert.Positive(t, h.Load, h.ID)
		_, ok := HingeKindByID(h.Kind)
		assert.True(t, ok, h.Kind)
		again, ok := HingeByID(h.ID)
		assert.True(t, ok)
		assert.Equal(t, h, again, "IDs are each one's own")
	}
	for _, f := range Faults {
		assert.NotEmpty(t, f.Cure, f.ID)
	}
}

// EN 1935, from memory: grade 7 for doors to 40 kg, 10 to 60, 11 to 80, 12 to 100, 13 to
// 120, 14 to 160.
func TestHingeGrades(t *testing.T) {
	for weight, want := range map[float64]int{12: 7, 40: 7, 40.1: 10, 60: 10, 79: 11, 100: 12, 101: 13, 160: 14} {
		grade, ok := HingeGradeFor(weight)
		assert.True(t, ok)
		assert.Equal(t, want, grade, "%g kg", weight)
	}
	_, ok := HingeGradeFor(161)
	assert.False(t, ok)
}

// North American hardware practice, from memory: a 4 1/2 in wide hinge on 1 3/4 thick, 1/4
// in set back, clears 1 1/2 in of casing; a 5 in one, 2 in; a 3 1/2 in one on 1 3/8, 1 1/4.
func TestHingeWidth(t *testing.T) {
	assert.Equal(t, 9*inch/2, HingeWidth(7*inch/4, inch/4, 3*inch/2))
	assert.Equal(t, 5*inch, HingeWidth(7*inch/4, inch/4, 2*inch))
	assert.Equal(t, 7*inch/2, HingeWidth(11*inch/8, inch/4, 5*inch/4))
}

// Shanks by ANSI/ASME B18.6.1, from memory: no. 6 is 0.138 in, 8 0.164, 10 0.190, 12 0.216.
// Pilots by hand: 0.6 and 0.75 of 4.17 are 2.50 and 3.12 mm; of 0.190 in, 0.114 and 0.1425,
// 7 and 9 sixty-fourths.
func TestScrews(t *testing.T) {
	for no, thou := range map[int]measure.Length{6: 138, 8: 164, 10: 190, 12: 216} {
		assert.Equal(t, thou*inch/1000, Screw{No: no}.Shank())
	}
	assert.Equal(t, 5*mm/2, Screw{8, 32 * mm}.Pilot(Soft, measure.Millimetres))
	assert.Equal(t, 3*mm, Screw{8, 32 * mm}.Pilot(Hard, measure.Millimetres))
	assert.Equal(t, 7*inch/64, Screw{10, 38 * mm}.Pilot(Soft, measure.Inches))
	assert.Equal(t, 9*inch/64, Screw{10, 38 * mm}.Pilot(Hard, measure.Inches))
	assert.Equal(
		t, message.Args{"no": message.Number(8), "long": message.Near(32 * mm)}, Screw{8, 32 * mm}.Message().Args,
	)
	for n, want := range map[int]message.ID{
		0: "trial.some", 2: "trial.both", 3: "trial.of-three", 4: "trial.middle", 32: "trial.fourth",
	} {
		assert.Equal(t, want, Trial(n))
	}
}
