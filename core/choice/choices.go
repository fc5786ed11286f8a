// Package choice is what can be chosen for a door, and how the choices of two doors differ.
package choice

import (
	"kindmargin/core/fit"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/message"
	"kindmargin/core/season"
)

// Choices are what can be chosen, by the IDs that are kept, in the order in which they are offered.
type Choices[T ~string] struct {
	of  message.ID // where the catalogue has their names
	why message.ID // and why one would choose each
	IDs []T
}

// Name is what a choice is called.
func (c Choices[T]) Name(id T) message.ID { return c.of + entry(id) }

// Why says why one would choose it, in a sentence.
func (c Choices[T]) Why(id T) message.ID { return c.why + entry(id) }

// entry is a choice in the catalogue; the one that is kept as nothing is the usual one.
func entry[T ~string](id T) message.ID {
	if id == "" {
		return "usual"
	}
	return message.ID(id)
}

var (
	// Across are the ways to share what comes off the width.
	Across = Choices[fit.Registration]{
		"across.", "across-why.",
		[]fit.Registration{fit.KeepLock, fit.KeepHinge, fit.EvenStiles, fit.AsOffered, fit.ShareWidth},
	}

	// Along are the ways to share what comes off the length. A slab cut as it was offered up has none.
	Along = Choices[fit.Ends]{
		"along.", "along-why.", []fit.Ends{fit.KeepHead, fit.EvenEnds, fit.KeepFoot, fit.ShareLength, fit.MeetStrike},
	}

	// Habits are what is left on at the first cut.
	Habits = Choices[job.Habit]{"leave-on.", "leave-on-why.", []job.Habit{job.WhenSure, job.Always3, job.ToLine}}

	// Joints are the ways that head and jambs of a frame meet.
	Joints = Choices[lining.Joint]{"joint.", "joint-why.", []lining.Joint{lining.Housed, lining.Over, lining.Between}}

	// Sawns are the ways that boards were sawn from the log.
	Sawns = Choices[season.Sawn]{
		"sawn.", "sawn-why.", []season.Sawn{season.SawnUnknown, season.SawnFlat, season.SawnQuarter},
	}

	// SeasonSchools are the ways to predict a move.
	SeasonSchools = Choices[season.School]{
		"season-school.", "season-school-why.", []season.School{season.ByMoisture, season.ByThumb},
	}

	// Walls are what is believed of an opening before it is read.
	Walls = Choices[job.Walls]{"walls.", "walls-why.", []job.Walls{job.Old, job.New}}

	// Measurings are the ways to go about measuring.
	Measurings = Choices[job.Measuring]{
		"measuring.", "measuring-why.",
		[]job.Measuring{job.AsItComes, job.ByTape, job.OfferedUp, job.FromOldDoor, job.ToFrame},
	}

	// Parts are the parts of a door's choices that others can take.
	Parts = Choices[job.Part]{"choices.", "choices-why.", job.Parts}
)
