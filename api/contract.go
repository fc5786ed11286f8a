package api

import (
	"encoding/json"
	"net/http"
	"path"
	"reflect"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/chi/v5"

	"kindmargin/core/day"
	"kindmargin/core/job"
	"kindmargin/sheet"
)

// No list on the wire is ever null.
func init() { huma.DefaultArrayNullable = false }

// schemas names schemas by type, and those called Choice also by package.
func schemas(prefix string) huma.Registry {
	return huma.NewMapRegistry(prefix, func(t reflect.Type, hint string) string {
		name := huma.DefaultSchemaNamer(t, hint)
		for t.Kind() == reflect.Pointer {
			t = t.Elem()
		}
		if name == "Choice" {
			pkg := path.Base(t.PkgPath())
			return strings.ToUpper(pkg[:1]) + pkg[1:] + name
		}
		return name
	})
}

func config() huma.Config {
	c := huma.DefaultConfig("Kind Margin", "1")
	c.Components.Schemas = schemas("#/components/schemas/")
	c.OpenAPIPath, c.DocsPath, c.SchemasPath = "/api/openapi", "", ""
	c.CreateHooks = nil
	c.Components.Schemas.RegisterTypeAlias(lengthType, reflect.TypeFor[lengthOnWire]())
	enumerate(c.Components.Schemas)
	return c
}

// OpenAPI is the contract as JSON, for the front end's types.
func OpenAPI() ([]byte, error) {
	a := humachi.New(chi.NewRouter(), config())
	operations(a, server{})
	b, err := json.MarshalIndent(a.OpenAPI(), "", "  ")
	return append(b, '\n'), err
}

// FileSchema is the JSON Schema (2020-12) of the open job file, made from the
// types that are kept.
func FileSchema() ([]byte, error) {
	return schemaOf[job.File](
		"Kind Margin job file, version "+strconv.Itoa(job.FileVersion),
		"A house's doors with all that was read and chosen. Lengths are numbers of millimetres, or text with a unit such as \"30 5/8 in\".",
		reflect.TypeFor[lengthInFile](),
	)
}

// PlanSchema is the JSON Schema (2020-12) of the plans that kindmargin plan --json
// prints, made from their types.
func PlanSchema() ([]byte, error) {
	return schemaOf[sheet.File](
		"Kind Margin plans, version "+strconv.Itoa(sheet.FileVersion),
		"What is to be done at each door of a job: docs/planjson.md. Lengths are numbers of millimetres.",
		reflect.TypeFor[lengthOnWire](),
	)
}

// schemaOf is the JSON Schema of a type; length stands for measure.Length in it.
func schemaOf[T any](title, description string, length reflect.Type) ([]byte, error) {
	r := schemas("#/$defs/")
	r.RegisterTypeAlias(lengthType, length)
	enumerate(r)
	r.Schema(reflect.TypeFor[T](), true, "")
	defs := map[string]*huma.Schema{}
	for name, s := range r.Map() {
		defs[name] = s
	}
	root := map[string]any{
		"$schema":     "https://json-schema.org/draft/2020-12/schema",
		"title":       title,
		"description": description,
		"$ref":        "#/$defs/File",
		"$defs":       defs,
	}
	b, err := json.MarshalIndent(root, "", "  ")
	return append(b, '\n'), err
}

// TradeJSON is the tables that choices are made from, with the cautions, as the
// front end ships them: no failure of the network hides a caution.
func TradeJSON() ([]byte, error) {
	b, err := json.MarshalIndent(TradeTables(), "", "\t")
	return append(b, '\n'), err
}

type lengthInFile float64

// Schema says that a length in a file is a number or text with a unit.
func (lengthInFile) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{
		Description: "Millimetres, or text with a unit.",
		OneOf:       []*huma.Schema{{Type: huma.TypeNumber}, {Type: huma.TypeString}},
	}
}

// The most that is read of a request: a change of a door, and a job file (five
// thousand doors of thirty readings each).
const (
	largestChange = 1 << 20
	largestFile   = 64 << 20
)

// operations tells the contract and who answers.
func operations(a huma.API, s server) {
	op := func(method, path, id, summary string) huma.Operation {
		return huma.Operation{
			Method: method, Path: "/api" + path, OperationID: id, Summary: summary, MaxBodyBytes: largestChange,
			// Bodies are read by this package, which says in the trade's words what is wrong with them.
			SkipValidateBody: true, SkipValidateParams: true,
			Errors: []int{400, 401, 403, 404, 405, 409, 412, 413, 421, 422, 428, 429, 500, 503, 507},
		}
	}
	// Raw bodies are described after the operations are registered, which would
	// call them text.
	var describe []func()
	defer func() {
		for _, f := range describe {
			f()
		}
	}()
	taking := func(o huma.Operation, body reflect.Type) huma.Operation {
		in := &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{}}
		o.RequestBody = in
		describe = append(describe, func() {
			in.Content["application/json"].Schema = a.OpenAPI().Components.Schemas.Schema(body, true, o.OperationID)
		})
		return o
	}
	door := "/jobs/{job}/openings/{opening}"
	huma.Register(a, op(http.MethodGet, "/trade", "trade", "The tables that choices are made from"), s.trade)
	huma.Register(a, op(http.MethodGet, "/jobs", "list-jobs", "All jobs, with those that were taken off"), s.jobs)
	huma.Register(a, taking(op(http.MethodPost, "/jobs", "add-job", "Begin a job"), reflect.TypeFor[NewJob]()), s.addJob)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}", "walk", "A job's doors, as they are met on the walk"), s.walk)
	huma.Register(a, taking(op(http.MethodPatch, "/jobs/{job}", "change-job", "Change a job's name, unit, tape, presets, kit, or what is usual in it"), reflect.TypeFor[JobChange]()), s.changeJob)
	huma.Register(a, op(http.MethodDelete, "/jobs/{job}", "remove-job", "Take a job off the list"), s.removeJob)
	huma.Register(a, op(http.MethodPost, "/jobs/{job}/restore", "restore-job", "Put a job back that was taken off"), s.restoreJob)
	huma.Register(a, taking(op(http.MethodPost, "/jobs/{job}/openings", "add-opening", "Put an opening on the walk"), reflect.TypeFor[NewOpening]()), s.addOpening)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/drawings", "drawings", "The light of some doors of the walk"), s.drawings)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/load", "load-list", "What to take along for some doors"), s.load)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/paper", "paper", "Some doors on paper, as PDF: their cards, the house book, what to order or to load"), s.papers)
	file := func(o huma.Operation, most int64) huma.Operation {
		o.MaxBodyBytes = most
		return o
	}
	huma.Register(a, op(http.MethodGet, "/events", "events", "Changes as they are made, as server-sent events"), s.events)
	huma.Register(a, op(http.MethodGet, "/sharing", "sharing", "How other devices are let in, and which are"), s.sharing)
	huma.Register(a, taking(op(http.MethodPost, "/pair", "pair", "Let this device in, by the code that is shown"), reflect.TypeFor[Pairing]()), s.pair)
	huma.Register(a, op(http.MethodGet, "/practice", "practice", "What was practised, and what would help next"), s.practice)
	huma.Register(a, op(http.MethodGet, "/practice/exercise", "exercise", "A hidden opening as a file, for a class"), s.exercise)
	huma.Register(a, taking(op(http.MethodPost, "/practice/play", "play", "Do the moves of an attempt at a hidden opening"), reflect.TypeFor[Playing]()), s.play)
	huma.Register(a, op(http.MethodGet, "/practice/drills/{kind}", "drill", "A short question"), s.drill)
	huma.Register(a, taking(op(http.MethodPost, "/practice/drills/{kind}", "answer-drill", "Answer it"), reflect.TypeFor[Answered]()), s.answer)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/day", "day", "The day of a job, planned from a moment on"), s.day)
	huma.Register(a, taking(op(http.MethodPut, "/jobs/{job}/day", "set-day", "Set how the day is planned"), reflect.TypeFor[day.Day]()), s.setDay)
	huma.Register(a, taking(op(http.MethodPost, "/jobs/{job}/day/marks", "mark-task", "Say what became of a task"), reflect.TypeFor[day.Mark]()), s.markTask)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/day/calendar", "day-calendar", "The day as an iCalendar"), s.calendar)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/air", "air", "The air of a house, as its hygrometer read it"), s.air)
	huma.Register(a, taking(op(http.MethodPost, "/jobs/{job}/air", "add-air", "Keep a reading of a house's air"), reflect.TypeFor[Airing]()), s.addAir)
	huma.Register(a, taking(op(http.MethodPost, "/lengths", "speak", "Bring a length of an instrument to the waiting entry of a device"), reflect.TypeFor[Speaking]()), s.speak)
	huma.Register(a, op(http.MethodDelete, "/passes/{pass}", "end-pass", "End the pass of a device"), s.endPass)
	huma.Register(a, op(http.MethodGet, "/backup", "backup", "A whole copy of the data file, read back before it is sent"), s.backup)
	huma.Register(a, op(http.MethodGet, "/everything", "everything", "All jobs as one zip of open files"), s.everything)
	huma.Register(a, file(op(http.MethodPost, "/restore", "restore-backup", "Put a backup in the place of all that is kept; what was there is kept beside it"), mostBackup), s.restoreFrom)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/schedule", "export-schedule", "The job's schedule and its other tables"), s.exportSchedule)
	huma.Register(a, file(op(http.MethodPost, "/jobs/{job}/schedule/preview", "preview-schedule", "What would come in of a schedule, CSV or XLSX"), largestSchedule), s.previewSchedule)
	huma.Register(a, file(op(http.MethodPost, "/jobs/{job}/schedule", "import-schedule", "Put the lines of a schedule on the walk"), largestSchedule), s.importSchedule)
	huma.Register(a, taking(op(http.MethodPost, "/jobs/{job}/copy", "copy-choices", "Give a door's choices to others, or say what that would do"), reflect.TypeFor[CopyChoices]()), s.copyChoices)
	huma.Register(a, taking(op(http.MethodPost, "/jobs/{job}/undo", "undo-many", "Take several doors back by one change each, all or none"), reflect.TypeFor[UndoMany]()), s.undoMany)
	huma.Register(a, taking(op(http.MethodPost, "/jobs/{job}/kit/{tool}/proof", "prove-tool", "What a proof of a tool says of it; nothing is kept"), reflect.TypeFor[proof]()), s.prove)
	huma.Register(a, op(http.MethodGet, door, "opening", "An opening and its plan"), s.opening)
	huma.Register(a, taking(op(http.MethodPatch, door, "change-opening", "Change an opening"), reflect.TypeFor[[]Op]()), s.change)
	huma.Register(a, op(http.MethodPost, door+"/undo", "undo", "Take the last change back"), s.undo)
	huma.Register(a, op(http.MethodPost, door+"/redo", "redo", "Bring the change again"), s.redo)
	huma.Register(a, op(http.MethodDelete, door, "remove-opening", "Take an opening off the walk"), s.remove)
	huma.Register(a, op(http.MethodPost, door+"/restore", "restore-opening", "Put a removed opening back"), s.restore)
	huma.Register(a, taking(op(http.MethodPut, door+"/place", "place", "Put a door elsewhere on the walk"), reflect.TypeFor[WalkPlace]()), s.place)
	huma.Register(a, op(http.MethodGet, door+"/stock", "stock", "Which stock size to buy for an opening"), s.stock)
	huma.Register(a, op(http.MethodGet, door+"/hinges", "hinge-ways", "The hinges that could be taken for an opening, and what speaks against each"), s.hingeWays)
	huma.Register(a, op(http.MethodGet, door+"/sheet", "full-size-sheet", "A template of an opening at full size, as PDF, SVG or DXF"), s.sheet)
	huma.Register(a, op(http.MethodGet, door+"/rod", "story-rod", "A story rod marked from an opening, and how the other doors of the job differ from it"), s.storyRod)
	huma.Register(a, op(http.MethodGet, door+"/log", "log", "A door's story: its changes, photographs and minutes"), s.log)
	huma.Register(a, taking(op(http.MethodPost, door+"/time", "spend-time", "Count time that was spent on a step"), reflect.TypeFor[TimeSpent]()), s.spend)
	photo := op(http.MethodPost, door+"/photos", "add-photo", "Keep a photograph, JPEG or PNG; it is written anew, without where it was taken")
	photo.MaxBodyBytes = largestPhoto
	huma.Register(a, photo, s.addPhoto)
	huma.Register(a, op(http.MethodGet, door+"/photos/{photo}", "photo", "A photograph, as JPEG"), s.photo)
	huma.Register(a, op(http.MethodDelete, door+"/photos/{photo}", "remove-photo", "Take a photograph off"), s.removePhoto)
	huma.Register(a, op(http.MethodPost, door+"/photos/{photo}/restore", "restore-photo", "Put a photograph back that was taken off"), s.restorePhoto)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/bundle", "export-bundle", "The job as a zip: the open job file with its photographs"), s.bundle)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/file", "export-job", "The job as an open job file"), s.export)
	bring := op(http.MethodPost, "/jobs/file", "import-job", "Bring in an open job file")
	bring.MaxBodyBytes = largestZip
	huma.Register(a, bring, s.importFile)
}
