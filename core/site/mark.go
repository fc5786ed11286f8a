package site

import (
	"kindmargin/core/figure"
	"kindmargin/core/measure"
)

// Mark is one mark of a cut.
type Mark struct {
	At    measure.Length // along the edge of the uncut slab
	Depth figure.Figure
}
