package api

import (
	"sync"

	"kindmargin/core/choice"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/simulate"
	"kindmargin/document"
	"kindmargin/store"
	"kindmargin/words"
)

// JobHead is a job without its openings.
type JobHead struct {
	ID       string            `json:"id"`
	Name     string            `json:"name"`
	Unit     measure.Unit      `json:"unit"`
	Tape     measure.Tape      `json:"tape"`
	Language job.Language      `json:"language" doc:"The English of its sentences; empty for the one that the unit suggests."`
	Presets  []job.Preset      `json:"presets"`
	Kit      job.Kit           `json:"kit"`
	Costs    []string          `json:"costs" doc:"What a door costs with the kit's tools, by simulation, and which one more would save most."`
	Saw      map[string]string `json:"saw" doc:"The lengths of the kit's saw as they are entered, by JSON pointer."`
	Usual    []Usual           `json:"usual" doc:"What new openings begin with, where that was chosen."`
	Version  int64             `json:"version"`
	Openings int               `json:"openings"`
	Touched  string            `json:"touched,omitempty" doc:"When an opening was changed last, RFC 3339; in the list of jobs alone."`
	Removed  bool              `json:"removed" doc:"Taken off the list of jobs."`
	Broken   string            `json:"broken,omitempty" doc:"Why it cannot be opened; then only its name and ID are told."`
}

// OpeningRow is an opening as the walk shows it.
type OpeningRow struct {
	ID      string       `json:"id"`
	Version int64        `json:"version"`
	Name    string       `json:"name"`
	Room    string       `json:"room"`
	Hand    frame.Hand   `json:"hand"`
	Next    job.Step     `json:"next" doc:"The first step that is not done; empty when all are."`
	Says    string       `json:"says" doc:"What that step waits for, or what is to be done, in a few words."`
	Now     bool         `json:"now" doc:"It can be done now: nothing before it is waited for, and nothing stops it."`
	Steps   []plan.State `json:"steps" doc:"Of each step, in trade order."`
	Stops   []string     `json:"stops" doc:"What stops the work; the first three."`
	Cares   int          `json:"cares" doc:"How many things ask for care."`
	Slab    string       `json:"slab" doc:"Width and length to the tape; empty while it is not measured."`
	Signed  bool         `json:"signed"`
	Drawn   bool         `json:"drawn" doc:"It has a drawing."`
	Working bool         `json:"working" doc:"Its plan is still being worked out: ask again in a moment."`
}

// OpeningDrawing is the daylight drawing of one opening of the walk.
type OpeningDrawing struct {
	ID      string                `json:"id"`
	Version int64                 `json:"version"`
	Drawing *document.DrawingView `json:"drawing"`
}

// Walk is a job with its openings in the order of the walk.
type Walk struct {
	Job      JobHead      `json:"job"`
	Openings []OpeningRow `json:"openings"`
	Off      []OffWalk    `json:"off" doc:"Openings that were taken off the walk."`
	Working  int          `json:"working" doc:"How many plans are still being worked out."`
}

// WalkPlace is the ID to insert before, so that an opening moves on the walk.
type WalkPlace struct {
	Before string `json:"before" doc:"ID of the opening that comes after it; empty for the end of the walk."`
}

// Standing is an opening and its current change.
type Standing struct {
	ID      string `json:"id"`
	Version int64  `json:"version"`
}

// CopyChoices is an opening whose choices others take over.
type CopyChoices struct {
	From    string     `json:"from"`
	Parts   []job.Part `json:"parts"`
	To      []Standing `json:"to"`
	Preview bool       `json:"preview,omitempty" doc:"Only say what it would do."`
	By      string     `json:"by,omitempty"`
}

// Copied is the effect of copying, opening by opening.
type Copied struct {
	Openings []CopiedOpening `json:"openings"`
	Standing []Standing      `json:"standing" doc:"Where the openings that were changed stand now: undo takes them back together."`
}

// CopiedOpening is the effect of copying on one opening.
type CopiedOpening struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	Room    string   `json:"room"`
	Changes []string `json:"changes" doc:"In words; none where it has these choices already."`
	Brings  []string `json:"brings" doc:"What would then stop its work, and did not before."`
	Refused string   `json:"refused" doc:"Why it cannot be done; empty where it can."`
}

// UndoMany are openings of which one change each is undone, all or none.
type UndoMany struct {
	Openings []Standing `json:"openings"`
}

// SetUsual makes some of an opening's choices the job's defaults; without an opening, the unit's defaults again.
type SetUsual struct {
	From  string     `json:"from"`
	Parts []job.Part `json:"parts"`
}

// OffWalk is an opening that was removed from the walk, and can be put back.
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
	Plan    document.Plan     `json:"plan"`
	Usual   []document.ToRead `json:"usual" doc:"Readings that usually follow, in order: what is asked next without signal."`
	Version int64             `json:"version"`
	Undo    string            `json:"undo" doc:"What undo takes back; empty when nothing."`
	Redo    string            `json:"redo"`
}

// Op is one operation of a JSON Patch (RFC 6902); a test before the others names the ID of the list's item that the
// client saw at an index. A string where a length belongs is parsed as typed, a bare number in the job's unit.
type Op struct {
	Op    string `json:"op" enum:"add,remove,replace,test"`
	Path  string `json:"path"`
	Value any    `json:"value,omitempty"`
}

// NewJob is the request for a new job.
type NewJob struct {
	Name string       `json:"name"`
	Unit measure.Unit `json:"unit"`
}

// JobChange is a change of a job; absent fields stay.
type JobChange struct {
	Name *string       `json:"name,omitempty"`
	Unit *measure.Unit `json:"unit,omitempty"`
	Tape *measure.Tape `json:"tape,omitempty"`
	// Language is empty for the unit's.
	Language *job.Language `json:"language,omitempty"`
	Presets  *[]job.Preset `json:"presets,omitempty"`
	Kit      *job.Kit      `json:"kit,omitempty"`
	Usual    *SetUsual     `json:"usual,omitempty"`
}

// Usual is a part of a job's defaults.
type Usual struct {
	Part job.Part `json:"part"`
	Says []string `json:"says" doc:"How it differs from what the unit's usual choices are, in words."`
}

// NewOpening is the request for a new opening.
type NewOpening struct {
	Name string `json:"name"`
	Room string `json:"room,omitempty"`
	// Hangs is a door that hangs already, to be put right.
	Hangs bool `json:"hangs,omitempty"`
}

// costs are what doors cost with each kit, read once.
var costs = sync.OnceValue(simulate.Known)

func headView(h store.Head) JobHead {
	v := JobHead{
		ID: h.ID, Name: h.Name, Unit: h.Unit, Tape: h.Tape, Language: h.Language,
		Presets: append([]job.Preset{}, h.Presets...), Kit: h.Kit, Costs: []string{},
		Saw: texts(h.Kit.Saw, h.Unit), Usual: []Usual{},
		Version: h.Version, Openings: h.Openings, Touched: h.Touched, Removed: h.Removed,
	}
	if h.Broken != nil {
		v.Unit, v.Tape, v.Presets, v.Kit = measure.Millimetres, measure.WholeMillimetre, []job.Preset{}, job.Kit{}
		v.Broken = words.In(job.British, v.Unit, v.Tape).Text("api.job-damaged")
		return v
	}
	v.Usual = usualView(h)
	voice := document.Voice(h.Job())
	for _, m := range costs().Says(h.Kit.Tools, h.Tape) {
		v.Costs = append(v.Costs, voice.Say(m))
	}
	return v
}

func usualView(h store.Head) []Usual {
	list := []Usual{}
	j := h.Job()
	plain, own := job.NewOpening("", "", h.Unit), j.Begin("", "")
	for _, p := range job.Parts {
		if says := inWords(document.Voice(j), choice.Differs(j, p, plain, own)); len(says) > 0 {
			list = append(list, Usual{p, says})
		}
	}
	return list
}

// inWords are messages in words, never nil.
func inWords(v words.Voice, list []message.Message) []string {
	out := make([]string, len(list))
	for i, m := range list {
		out[i] = v.Say(m)
	}
	return out
}

func headBody(h store.Head) *body[JobHead] { return &body[JobHead]{etag(h.Version), headView(h)} }

func openingBody(k store.Kept) *body[OpeningView] {
	return openingWith(k, func() document.Plan { return document.Of(k.Job.Job(), k.Opening) })
}

// openingWith is an opening with a plan that may still be computed in another goroutine.
func openingWith(k store.Kept, plan func() document.Plan) *body[OpeningView] {
	all := texts(k.Opening, k.Job.Unit)
	return &body[OpeningView]{etag(k.Version), OpeningView{
		Job: headView(k.Job), Opening: k.Opening, Texts: all,
		Plan: plan(), Usual: document.Usual(k.Job.Job(), k.Opening), Version: k.Version, Undo: k.Undo, Redo: k.Redo,
	}}
}
