package fit

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"gonum.org/v1/gonum/stat/distuv"
)

// Against gonum's own normal distribution.
func TestPhiAgainstGonum(t *testing.T) {
	for z := -9.0; z < 9; z += 0.00713 {
		assert.InDelta(t, distuv.UnitNormal.CDF(z), phi(z), 2e-10, "%g", z)
	}
	assert.Equal(t, 0.5, phi(0))
	assert.Zero(t, phi(math.Inf(-1)))
	assert.Equal(t, 1.0, phi(math.Inf(1)))
}
