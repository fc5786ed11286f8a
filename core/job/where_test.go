package job

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// The form of each field, as the page has them.
func TestStepOf(t *testing.T) {
	for pointer, step := range map[string]Step{
		"/readings/3/value": StepMeasure, "/offers/0/width": StepMeasure, "/hand": StepMeasure, "/lining/wall": StepMeasure,
		"/slab/limits/hinge": StepSlab, "/pair/slab/width": StepSlab, "/pair/meeting": StepMeasure, "/pair/edges": StepSwing,
		"/pair/lip": StepSwing, "/pair/bolts": StepLock, "/pair/holds": StepLock, "/pair/pulls": StepLock,
		"/margins/least": StepMargins, "/season/moisture": StepMargins, "/cut/registration": StepCut,
		"/hinges/pockets/1": StepHinges, "/swing/floor/0/at": StepSwing, "/lock/old/2": StepLock,
		"/tried/1/hangs/0": StepTry, "/stops/stand": StepStops, "": "",
	} {
		assert.Equal(t, step, StepOf(pointer), pointer)
	}
}
