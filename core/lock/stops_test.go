package lock

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/measure"
)

// A card of a millimetre behind 35 of slab, and 0.3 of paint: 36.3 from the arris. Common
// practice: a card of play at the stops.
func TestWhereTheStopsGo(t *testing.T) {
	assert.Equal(t, mm(36), Stops{}.PlaceStops(mm(35)).From.Value)
	s := Stops{
		Paint: mm(0.3), Stand: &Stand{HingeHead: mm(0.3), LockHead: mm(4.3), HingeFoot: mm(3.3), LockFoot: mm(1.3)},
	}
	p := s.PlaceStops(mm(35))
	assert.Equal(t, mm(36.3), p.From.Value)
	require.Len(t, p.Moves, 6)
	by := map[string]measure.Length{}
	for _, m := range p.Moves {
		by[m.Stop.String()+" "+m.End.String()] = m.By.Value
	}
	assert.Equal(t, map[string]measure.Length{
		"head hinge": mm(-1), "head lock": mm(3), "hinge head": mm(-1), "hinge foot": mm(2), "lock head": mm(3),
		"lock foot": 0,
	}, by, "what it stands off, less 1.3")
	assert.Equal(t, mm(-6), p.Cross.Value, "0.3 + 1.3 − 4.3 − 3.3")
}

func TestCheckStops(t *testing.T) {
	assert.NoError(t, Stops{Play: mm(2)}.Check())
	assert.ErrorContains(t, Stops{Play: mm(20)}.Check(), "size.play-at-the-doorstops")
	assert.ErrorContains(t, Stops{Stand: &Stand{LockFoot: mm(90)}}.Check(), "size.gap-between-door-and-doorstop")
}
