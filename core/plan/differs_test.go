package plan

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/choice"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
)

func TestWhatIsCopiedIsSaid(t *testing.T) {
	j := job.NewJob("house", "House", measure.Millimetres)
	a := j.Begin("a", "Study")
	b := a
	own := measure.FromMM(2.2)
	b.Margins.School, b.Margins.Lock = "prefinished", &own
	b.Hinges.Size, b.Hinges.Leaf, b.Hinges.Width, b.Hinges.Plate = "butt-100", measure.FromMM(100), measure.FromMM(
		32,
	), measure.FromMM(2.5)
	b.Hinges.Count = 3
	b.Lock.Hardware, b.Lock.Backset, b.Lock.Handle = "bathroom-64", measure.FromMM(44), measure.FromMM(1040)
	b.Lock.When = lock.First
	assert.Equal(
		t, "margins: Still to be painted → Pre-finished, tight; margin at the lock side: by the set → 2.2 mm",
		all(choice.Differs(j, job.PartMargins, a, b), "; "),
	)
	assert.Equal(t, strings.Join([]string{
		"hinge: one of 75 mm by 29 mm → 100 mm (4 in) butt",
		"recess: 2 mm deep, 29 mm wide, leaf 75 mm → 2.5 mm deep, 32 mm wide, leaf 100 mm",
		"how many: 2 → 3",
	}, "\n"), all(choice.Differs(j, job.PartHinges, a, b), "\n"))
	assert.Equal(t, strings.Join([]string{
		"lock: a latch, bore 22 mm → bathroom lock, 64 mm case",
		"backset: 60 mm → 44 mm",
		"height by: 1000 mm above the floor → 1040 mm above the floor",
		"bored: once the door fits → on the trestles first",
	}, "\n"), all(choice.Differs(j, job.PartLock, a, b), "\n"))
	for _, p := range job.Parts {
		assert.Empty(t, choice.Differs(j, p, a, a))
	}
}
