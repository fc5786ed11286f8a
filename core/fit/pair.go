package fit

import (
	"gonum.org/v1/gonum/mat"

	"kindmargin/core/frame"
	"kindmargin/core/survey"
)

// bay is the room of one leaf: the whole opening, or one half of a pair's. It gives each side of the bay, as the leaf
// sees it, as a figure of the opening; the constants are in mm.
type bay struct {
	shape         *survey.Shape
	width, height float64
	term          func(survey.Term) (row survey.Row, constant float64) // nil where the bay is the opening
}

func (b bay) rows(rows []survey.Row) (out []survey.Row, constants []float64) {
	if b.term == nil {
		return rows, make([]float64, len(rows))
	}
	out, constants = make([]survey.Row, len(rows)), make([]float64, len(rows))
	for i, r := range rows {
		out[i] = make(survey.Row, 0, 2*len(r))
		for _, t := range r {
			row, c := b.term(t)
			for _, u := range row {
				u.By *= t.By
				out[i] = append(out[i], u)
			}
			constants[i] += c * t.By
		}
	}
	return out, constants
}

func (b bay) joint(rows []survey.Row) ([]survey.Row, *mat.SymDense) {
	out, _ := b.rows(rows)
	_, cov := b.shape.Joint(out)
	return out, cov
}

func (b bay) means(rows []survey.Row) []float64 {
	out, constants := b.rows(rows)
	mean := b.shape.Means(out)
	for i, c := range constants {
		mean[i] += c
	}
	return mean
}

// Meeting is how the two leaves of a pair share an opening. The meeting line runs midway between the jambs, moved by
// Offset mm toward the lock jamb; each leaf sees it as its lock jamb.
type Meeting struct{ Offset float64 }

// DrawPair fits the outlines of a pair's two leaves: the one on the hinge jamb, and the one on the lock jamb, mirrored,
// so that its jamb is its own hinge jamb. The wanted lock margin is half the margin between the leaves.
func DrawPair(shape *survey.Shape, want Targets, m Meeting) (pair [2]Outline, err error) {
	p := shape.Prior()
	half := p.Width/2 + m.Offset
	meet := func(v, by float64) survey.Row {
		return survey.Row{
			{Of: survey.Of(frame.Hinge), At: v, By: by / 2}, {Of: survey.Of(frame.Lock), At: v, By: by / 2},
		}
	}
	pair[0], err = draw(bay{shape, half, p.Height, func(t survey.Term) (survey.Row, float64) {
		if t.Of == survey.Of(frame.Lock) {
			return meet(t.At, 1), m.Offset
		}
		return survey.Row{{Of: t.Of, At: t.At, By: 1}}, 0
	}}, want)
	if err != nil {
		return pair, err
	}
	pair[1], err = draw(bay{shape, p.Width - half, p.Height, func(t survey.Term) (survey.Row, float64) {
		switch t.Of { // u runs the other way, from the lock jamb
		case survey.Of(frame.Hinge):
			return survey.Row{{Of: survey.Of(frame.Lock), At: t.At, By: -1}}, p.Width
		case survey.Of(frame.Lock):
			return meet(t.At, -1), p.Width - m.Offset
		}
		return survey.Row{{Of: t.Of, At: p.Width - t.At, By: 1}}, 0
	}}, want)
	return pair, err
}
