package api

import (
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/sheet"
	"kindmargin/store"
)

// JobHead is a job without its openings.
type JobHead struct {
	ID       string       `json:"id"`
	Name     string       `json:"name"`
	Unit     measure.Unit `json:"unit"`
	Tape     measure.Tape `json:"tape"`
	Presets  []job.Preset `json:"presets"`
	Kit      job.Kit      `json:"kit"`
	Version  int64        `json:"version"`
	Openings int          `json:"openings"`
	Removed  bool         `json:"removed" doc:"Taken off the list of jobs."`
}

// Door is an opening as it is met on the walk.
type Door struct {
	ID      string             `json:"id"`
	Version int64              `json:"version"`
	Name    string             `json:"name"`
	Room    string             `json:"room"`
	Hand    frame.Hand         `json:"hand"`
	Next    job.Step           `json:"next" doc:"The first step that is not done; empty when all are."`
	Rod     []sheet.Notch      `json:"rod"`
	Stops   []string           `json:"stops" doc:"What stops the work."`
	Drawing *sheet.DrawingView `json:"drawing,omitempty"`
}

// Walk is a job with its doors in the order of the walk.
type Walk struct {
	Job   JobHead   `json:"job"`
	Doors []Door    `json:"doors"`
	Off   []OffWalk `json:"off" doc:"Doors that were taken off the walk."`
}

// OffWalk is a door that was taken off the walk, and can be put back.
type OffWalk struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Room string `json:"room"`
}

// OpeningView is an opening with its plan.
type OpeningView struct {
	Job     JobHead           `json:"job"`
	Opening job.Opening       `json:"opening"`
	Texts   map[string]string `json:"texts" doc:"Every length given, by JSON pointer, as it is typed in the job's unit."`
	Plan    sheet.Plan        `json:"plan"`
	Version int64             `json:"version"`
	Undo    string            `json:"undo" doc:"What undo takes back; empty when nothing."`
	Redo    string            `json:"redo"`
}

// Op is one operation of a JSON Patch (RFC 6902); a test before the others says
// by its ID which thing the hand saw at a place of a list. A string at a place that
// holds a length is read as a person writes it, a bare number in the job's
// unit.
type Op struct {
	Op    string `json:"op" enum:"add,remove,replace,test"`
	Path  string `json:"path"`
	Value any    `json:"value,omitempty"`
}

// NewJob is what a job begins with.
type NewJob struct {
	Name string       `json:"name"`
	Unit measure.Unit `json:"unit"`
}

// JobChange is what is changed of a job; what is absent stays.
type JobChange struct {
	Name    *string       `json:"name,omitempty"`
	Unit    *measure.Unit `json:"unit,omitempty"`
	Tape    *measure.Tape `json:"tape,omitempty"`
	Presets *[]job.Preset `json:"presets,omitempty"`
	Kit     *job.Kit      `json:"kit,omitempty"`
}

// NewOpening is what an opening begins with.
type NewOpening struct {
	Name string `json:"name"`
	Room string `json:"room,omitempty"`
}

func headView(h store.Head) JobHead {
	return JobHead{h.ID, h.Name, h.Unit, h.Tape, append([]job.Preset{}, h.Presets...), h.Kit, h.Version, h.Openings, h.Removed}
}

func headBody(h store.Head) *body[JobHead] { return &body[JobHead]{etag(h.Version), headView(h)} }

func openingBody(k store.Kept) *body[OpeningView] {
	return openingWith(k, func() sheet.Plan { return sheet.Of(k.Job.Job(), k.Opening) })
}

// openingWith is an opening with a plan that may still be worked out elsewhere.
func openingWith(k store.Kept, plan func() sheet.Plan) *body[OpeningView] {
	all := texts(k.Opening, k.Job.Unit)
	return &body[OpeningView]{etag(k.Version), OpeningView{
		Job: headView(k.Job), Opening: k.Opening, Texts: all,
		Plan: plan(), Version: k.Version, Undo: k.Undo, Redo: k.Redo,
	}}
}
