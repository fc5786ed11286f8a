package frame

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestSidesAreWrittenByName(t *testing.T) {
	for i, want := range []string{"head", "hinge", "lock", "foot"} {
		b, err := json.Marshal(Sides[i])
		require.NoError(t, err)
		assert.Equal(t, `"`+want+`"`, string(b))
		var back Side
		require.NoError(t, json.Unmarshal(b, &back))
		assert.Equal(t, Sides[i], back)
	}
	var s Side
	assert.ErrorContains(t, json.Unmarshal([]byte(`"top"`), &s), `no side "top"`)
	_, err := json.Marshal(Side(9))
	assert.ErrorContains(t, err, `no side "9"`)
}

// Between its places an edge is straight, and beyond them it goes straight on. By hand.
func TestOffAt(t *testing.T) {
	edge := []Along{{At: 0, Off: 1}, {At: 100, Off: 3}, {At: 200, Off: 2}}
	for at, want := range map[float64]float64{0: 1, 50: 2, 100: 3, 150: 2.5, 200: 2, 300: 1, -50: 0} {
		assert.InDelta(t, want, OffAt(edge, at), 1e-12, "at %v", at)
	}
	assert.Zero(t, OffAt(nil, 7))
	assert.InDelta(t, 4, OffAt([]Along{{At: 10, Off: 4}}, 900), 0, "one place tells no slope")
	assert.InDelta(t, 5, OffAt([]Along{{At: 10, Off: 4}, {At: 10, Off: 5}}, 10), 0, "read twice, the later counts")
}
