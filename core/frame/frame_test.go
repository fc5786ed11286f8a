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
