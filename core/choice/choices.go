// Package choice lists the choices of an opening that are kept by ID, and compares those of two openings.
package choice

import (
	"kindmargin/core/fit"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/message"
	"kindmargin/core/season"
)

// Choices are the options that a carpenter can pick, by the IDs that are kept, in the order in which they are offered.
type Choices[T ~string] struct {
	of  message.ID // where the catalogue has their names
	why message.ID // and why one would choose each
	IDs []T
}

// Name is the name of an option.
func (c Choices[T]) Name(id T) message.ID { return c.of + entry(id) }

// Why is one sentence on when to pick an option.
func (c Choices[T]) Why(id T) message.ID { return c.why + entry(id) }

// entry is an option in the catalogue; the option kept as the empty ID is the default.
func entry[T ~string](id T) message.ID {
	if id == "" {
		return "usual"
	}
	return message.ID(id)
}

var (
	// Across are the ways to share the surplus width between the two long edges.
	Across = Choices[fit.Registration]{
		"across.", "across-why.",
		[]fit.Registration{fit.KeepLock, fit.KeepHinge, fit.EvenStiles, fit.AsOffered, fit.ShareWidth},
	}

	// Along are the ways to share the surplus length between head and foot; a slab cut as it was offered up has none.
	Along = Choices[fit.Ends]{
		"along.", "along-why.", []fit.Ends{fit.KeepHead, fit.EvenEnds, fit.KeepFoot, fit.ShareLength, fit.MeetStrike},
	}

	// Habits are the ways to leave wood on at the first cut.
	Habits = Choices[job.Habit]{"leave-on.", "leave-on-why.", []job.Habit{job.WhenSure, job.Always3, job.ToLine}}

	// Joints are the joints of head and jambs of a frame.
	Joints = Choices[lining.Joint]{"joint.", "joint-why.", []lining.Joint{lining.Housed, lining.Over, lining.Between}}

	// Comes are the ways in which a frame comes.
	Comes = Choices[lining.Comes]{"comes.", "comes-why.", lining.AllComes}

	// Sawns are the ways in which boards are sawn from the log.
	Sawns = Choices[season.Sawn]{
		"sawn.", "sawn-why.", []season.Sawn{season.SawnUnknown, season.SawnFlat, season.SawnQuarter},
	}

	// SeasonSchools are the methods of predicting seasonal movement.
	SeasonSchools = Choices[season.School]{
		"season-school.", "season-school-why.", []season.School{season.ByMoisture, season.ByThumb},
	}

	// Walls are the assumptions about an opening before it is read.
	Walls = Choices[job.Walls]{"walls.", "walls-why.", []job.Walls{job.Old, job.New}}

	// Measurings are the methods of measuring an opening.
	Measurings = Choices[job.Measuring]{
		"measuring.", "measuring-why.",
		[]job.Measuring{job.AsItComes, job.ByTape, job.OfferedUp, job.FromOldDoor, job.ToFrame},
	}

	// Parts are the parts of an opening's choices that other openings can take over.
	Parts = Choices[job.Part]{"choices.", "choices-why.", job.Parts}
)
