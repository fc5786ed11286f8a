package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/figure"
	"kindmargin/core/stage/cuts"
)

// What a card was ticked by is kept with a door, so its name never changes.
func TestWorksAreNamedByTheirFigures(t *testing.T) {
	// (7 · 31 + 102900) · 31 + 6000, less three times 1000003.
	assert.Equal(t, "202618", printOf([]float64{1029, 60}))
	// (7 · 31 − 50) · 31 + 3: halves are rounded up, as they were when a page printed them.
	assert.Equal(t, "5180", printOf([]float64{-0.505, 0.025}))

	size := func(v float64) figure.Figure { return figure.Figure{Value: mm(v)} }
	l := Leaf{Cut: &cuts.List{
		Width:  [3]figure.Figure{size(819.5), size(820), size(820)},
		Length: [3]figure.Figure{size(2023), size(2023), size(2022.25)},
	}}
	works := map[string]string{}
	for _, w := range l.Works("") {
		works[w.ID] = w.By
	}
	assert.Equal(t, "819.5 820 820 2023 2023 2022.25", works["check"])

	p := Solve(house, square())
	for _, w := range p.Leaves[0].Works("butt-75") {
		works[w.ID] = w.By
	}
	assert.Equal(t, "0 0 0", works["head"])
	assert.Equal(t, "150 1723 2 29", works["slab-pockets"], "2 hinges, leaves 2 thick and 29 wide")
	assert.Equal(t, "2 butt-75", works["screws"])
}
