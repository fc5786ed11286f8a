package job

import "strings"

// StepOf is the step whose form has the field at a JSON pointer into an opening; StepMeasure for what belongs to the
// opening as a whole.
func StepOf(pointer string) Step {
	names := strings.Split(strings.TrimPrefix(pointer, "/"), "/")
	if names[0] == "pair" && len(names) > 1 {
		switch names[1] {
		case "slab":
			return StepSlab
		case "edges", "lip":
			return StepSwing
		case "holds", "bolts", "pulls":
			return StepLock
		}
	}
	return stepOf[names[0]]
}

// stepOf is the step of each part of an opening that is not StepMeasure's.
var stepOf = map[string]Step{
	"": "", "slab": StepSlab, "margins": StepMargins, "season": StepMargins, "cut": StepCut, "hinges": StepHinges,
	"swing": StepSwing, "lock": StepLock, "tried": StepTry, "service": StepTry, "stops": StepStops,
	"readings": StepMeasure, "offers": StepMeasure, "hand": StepMeasure, "pair": StepMeasure, "lining": StepMeasure,
	"walls": StepMeasure, "measuring": StepMeasure, "plusMinus": StepMeasure, "seen": StepMeasure, "notes": StepLog,
}
