package job

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Pages before wrote in the reason that a door is looked at again; a reason of one's own stays one.
func TestADoorThatWasLookedAtAgain(t *testing.T) {
	o := Opening{Reopened: []Reopened{
		{Why: "looked at again: first damp autumn"},
		{Why: "the latch binds"},
		{Revisit: "May", Why: "looked at again: no"},
	}}
	o.Normalise()
	assert.Equal(t, []Reopened{
		{Revisit: "first damp autumn"}, {Why: "the latch binds"}, {Revisit: "May", Why: "looked at again: no"},
	}, o.Reopened)
}
