package api

import (
	"bytes"
	"encoding/json"
	"mime"
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
	"kindmargin/core/measure"
	"kindmargin/document"
	"kindmargin/document/template"
	"kindmargin/photo"
	"kindmargin/words"
)

// No list on the wire is ever null.
func init() { huma.DefaultArrayNullable = false }

// schemas names schemas by type, and types called Choice also by package.
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

func config(s server) huma.Config {
	c := huma.DefaultConfig("Kind Margin", "1")
	c.Components.Schemas = schemas("#/components/schemas/")
	c.OpenAPIPath, c.DocsPath, c.SchemasPath = "/api/openapi", "", ""
	c.CreateHooks = nil
	c.Transformers = append(c.Transformers, s.worded)
	c.Components.Schemas.RegisterTypeAlias(lengthType, reflect.TypeFor[lengthOnWire]())
	enumerate(c.Components.Schemas)
	return c
}

// OpenAPI is the contract as JSON, for the front end's types.
func OpenAPI() ([]byte, error) {
	a := humachi.New(chi.NewRouter(), config(server{}))
	operations(a, server{})
	b, err := json.MarshalIndent(a.OpenAPI(), "", "  ")
	return append(b, '\n'), err
}

// FileSchema is the JSON Schema (2020-12) of the open job file, from the kept types.
func FileSchema() ([]byte, error) {
	return schemaOf[job.File](
		"Kind Margin job file, version "+strconv.Itoa(job.FileVersion),
		"A house's openings with all that was read and chosen. Lengths are numbers of millimetres, or text with a "+
			"unit such as \"30 5/8 in\".",
		reflect.TypeFor[lengthInFile](),
	)
}

// PlanSchema is the JSON Schema (2020-12) of the plans that kindmargin plan --json prints, from their types.
func PlanSchema() ([]byte, error) {
	return schemaOf[document.File](
		"Kind Margin plans, version "+strconv.Itoa(document.FileVersion),
		"What is to be done at each opening of a job: docs/planjson.md. Lengths are numbers of millimetres.",
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

// TradeJSON is the tables of choices and the cautions, for the front end to ship: no network failure hides a caution.
func TradeJSON(l job.Language) ([]byte, error) {
	b, err := json.MarshalIndent(TradeTables(words.In(l, measure.Millimetres, measure.HalfMillimetre)), "", "\t")
	return append(b, '\n'), err
}

// TextsJSON is the page's own texts in a language, as i18next reads them.
func TextsJSON(l job.Language) ([]byte, error) {
	texts, err := words.PageTexts(l)
	if err != nil {
		return nil, err
	}
	var b bytes.Buffer
	enc := json.NewEncoder(&b)
	enc.SetEscapeHTML(false)
	enc.SetIndent("", "\t")
	err = enc.Encode(texts)
	return b.Bytes(), err
}

type lengthInFile float64

// Schema describes a length in a file: a number or text with a unit.
func (lengthInFile) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{
		Description: "Millimetres, or text with a unit.",
		OneOf:       []*huma.Schema{{Type: huma.TypeNumber}, {Type: huma.TypeString}},
	}
}

// The largest bodies: a change of an opening, and a job file (five thousand openings of thirty readings each).
const (
	largestChange = 1 << 20
	largestFile   = 64 << 20
)

// contract registers the operations.
type contract struct {
	a huma.API
	s server
	// Raw bodies are described after registration, which would describe them as text.
	describe []func()
}

// runs marks an operation for clients that run the house.
func runs(o huma.Operation) huma.Operation {
	o.Metadata = map[string]any{"runs": true}
	return o
}

// operations registers all operations.
func operations(a huma.API, s server) {
	a.UseMiddleware(func(c huma.Context, next func(huma.Context)) {
		if c.Operation().Metadata["runs"] != nil && !clientOf(c.Context()).runs() {
			_ = huma.WriteErr(a, c, errNotRun.GetStatus(), s.voice(c.Context()).Say(errNotRun.says))
			return
		}
		if c.Operation().Metadata["json"] != nil && !isJSON(c.Header("Content-Type")) {
			_ = huma.WriteErr(a, c, http.StatusUnsupportedMediaType, "")
			return
		}
		next(c)
	})
	c := &contract{a: a, s: s}
	c.jobs()
	c.house()
	c.openings()
	c.sharing()
	c.day()
	c.practice()
	for _, f := range c.describe {
		f()
	}
}

// operation is one operation of the contract.
func operation(method, path, id, summary string) huma.Operation {
	return huma.Operation{
		Method: method, Path: "/api" + path, OperationID: id, Summary: summary, MaxBodyBytes: largestChange,
		// Bodies are decoded by this package, whose errors are in the trade's words.
		SkipValidateBody: true, SkipValidateParams: true,
		Errors: []int{400, 401, 403, 404, 405, 409, 412, 413, 421, 422, 428, 429, 500, 503, 507},
	}
}

// longer is an operation with a larger body than a change of an opening.
func longer(o huma.Operation, most int64) huma.Operation {
	o.MaxBodyBytes = most
	return o
}

// giving is an operation whose answers are files of some types.
func giving(o huma.Operation, says string, types ...string) huma.Operation {
	content := map[string]*huma.MediaType{}
	for _, t := range types {
		content[t] = &huma.MediaType{Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}
	}
	o.Responses = map[string]*huma.Response{"200": {Description: says, Content: content}}
	return o
}

// The media types that are not JSON.
const (
	typePDF   = "application/pdf"
	typeXLSX  = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
	typeCSV   = "text/csv; charset=utf-8"
	typeZip   = "application/zip"
	typeICal  = "text/calendar; charset=utf-8"
	typeJPEG  = "image/jpeg"
	typeDB    = "application/vnd.sqlite3"
	typeJSON  = "application/json"
	typeTells = "text/event-stream"
)

// isJSON reports whether a body's media type is JSON, which a form of another site cannot send (OWASP ASVS 4.0.3,
// 13.2.5, from memory).
func isJSON(contentType string) bool {
	kind, _, err := mime.ParseMediaType(contentType)
	return err == nil && (kind == "application/json" || kind == "application/json-patch+json")
}

// formats are the media types of a template.
func formats() (types []string) {
	for _, f := range template.Formats {
		types = append(types, f.Type)
	}
	return types
}

// taking is an operation with a body.
func (c *contract) taking(o huma.Operation, body reflect.Type) huma.Operation {
	in := &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{}}
	o.RequestBody = in
	if o.Metadata == nil {
		o.Metadata = map[string]any{}
	}
	o.Metadata["json"] = true
	c.describe = append(c.describe, func() {
		in.Content["application/json"].Schema = c.a.OpenAPI().Components.Schemas.Schema(body, true, o.OperationID)
	})
	return o
}

// openingPath is the address of an opening.
const openingPath = "/jobs/{job}/openings/{opening}"

// jobs are the operations on the list of jobs, and on a job with its openings.
func (c *contract) jobs() {
	huma.Register(c.a, operation(http.MethodGet, "/trade", "trade", "The tables that choices are made from"), c.s.trade)
	huma.Register(
		c.a, operation(http.MethodGet, "/jobs", "list-jobs", "All jobs, with those that were taken off"), c.s.jobs,
	)
	huma.Register(
		c.a, c.taking(operation(http.MethodPost, "/jobs", "add-job", "Begin a job"), reflect.TypeFor[NewJob]()),
		c.s.addJob,
	)
	huma.Register(
		c.a, operation(http.MethodGet, "/jobs/{job}", "walk",
			"A job's openings, as they are met on the walk"), c.s.walk,
	)
	huma.Register(c.a, c.taking(operation(
		http.MethodPatch, "/jobs/{job}", "change-job",
		"Change a job's name, unit, tape, language, presets, kit, or what is usual in it",
	), reflect.TypeFor[JobChange]()), c.s.changeJob)
	huma.Register(
		c.a, runs(operation(http.MethodDelete, "/jobs/{job}", "remove-job", "Take a job off the list")), c.s.removeJob,
	)
	huma.Register(
		c.a,
		runs(operation(http.MethodPost, "/jobs/{job}/restore", "restore-job", "Put a job back that was taken off")),
		c.s.restoreJob,
	)
	huma.Register(c.a, c.taking(
		operation(http.MethodPost, "/jobs/{job}/openings", "add-opening", "Put an opening on the walk"),
		reflect.TypeFor[NewOpening](),
	), c.s.addOpening)
	huma.Register(c.a, giving(operation(
		http.MethodGet, "/jobs/{job}/bundle", "export-bundle",
		"The job as a zip: the open job file with its photographs",
	), "The zip", typeZip), c.s.bundle)
	huma.Register(
		c.a, operation(http.MethodGet, "/jobs/{job}/file", "export-job", "The job as an open job file"), c.s.export,
	)
	huma.Register(c.a, longer(
		operation(http.MethodPost, "/jobs/file", "import-job", "Bring in an open job file, and wait for it"),
		largestFile,
	), c.s.importFile)
	huma.Register(c.a, longer(
		operation(http.MethodPost, "/imports", "import", "Bring in an open job file, or a zip with its photographs"),
		largestZip,
	), c.s.bringIn)
	huma.Register(
		c.a, operation(http.MethodGet, "/imports/{import}", "import-state", "How far a file is in"), c.s.imported,
	)
	huma.Register(
		c.a, operation(http.MethodDelete, "/imports/{import}", "stop-import", "Stop a file that comes in"),
		c.s.stopImport,
	)
}

// house are the operations on several openings of a job at once.
func (c *contract) house() {
	huma.Register(
		c.a, operation(http.MethodGet, "/jobs/{job}/drawings", "drawings", "The light of some openings of the walk"),
		c.s.drawings,
	)
	huma.Register(
		c.a, operation(http.MethodGet, "/jobs/{job}/load", "load-list",
			"What to take along for some openings"), c.s.load,
	)
	huma.Register(c.a, giving(operation(
		http.MethodGet, "/jobs/{job}/paper", "paper",
		"Some openings on paper, as PDF: their cards, the house book, what to order or to load",
	), "The paper", typePDF), c.s.papers)
	huma.Register(c.a, c.taking(operation(
		http.MethodPost, "/exports", "make-export",
		"Make a file of a job, or of all, that takes a while: a paper, tables, a list",
	), reflect.TypeFor[NewExport]()), c.s.makeExport)
	huma.Register(
		c.a, operation(http.MethodGet, "/exports/{export}", "export-state", "How far a file is made"), c.s.exported,
	)
	huma.Register(
		c.a, operation(http.MethodDelete, "/exports/{export}", "stop-export", "Stop a file that is made"),
		c.s.stopExport,
	)
	huma.Register(c.a, giving(
		operation(http.MethodGet, "/exports/{export}/file", "export-file", "The file, once it is made"), "The file",
		typePDF, typeXLSX, typeCSV, typeZip, typeJSON,
	), c.s.sendExport)
	huma.Register(c.a, giving(
		operation(http.MethodGet, "/jobs/{job}/schedule", "export-schedule", "The job's schedule and its other tables"),
		"The tables", typeXLSX, typeCSV,
	), c.s.exportSchedule)
	huma.Register(c.a, longer(operation(
		http.MethodPost, "/jobs/{job}/schedule/preview", "preview-schedule",
		"What would come in of a schedule, CSV or XLSX",
	), largestSchedule), c.s.previewSchedule)
	huma.Register(c.a, longer(
		operation(
			http.MethodPost, "/jobs/{job}/schedule", "import-schedule", "Put the lines of a schedule on the walk",
		),
		largestSchedule,
	), c.s.importSchedule)
	huma.Register(c.a, c.taking(operation(
		http.MethodPost, "/jobs/{job}/copy", "copy-choices",
		"Give an opening's choices to others, or say what that would do",
	), reflect.TypeFor[CopyChoices]()), c.s.copyChoices)
	huma.Register(c.a, c.taking(operation(
		http.MethodPost, "/jobs/{job}/undo", "undo-many", "Take several openings back by one change each, all or none",
	), reflect.TypeFor[UndoMany]()), c.s.undoMany)
	huma.Register(c.a, c.taking(operation(
		http.MethodPost, "/jobs/{job}/kit/{tool}/proof", "prove-tool",
		"What a proof of a tool says of it; nothing is kept",
	), reflect.TypeFor[proof]()), c.s.prove)
}

// openings are the operations on one opening.
func (c *contract) openings() {
	huma.Register(c.a, operation(http.MethodGet, openingPath, "opening", "An opening and its plan"), c.s.opening)
	huma.Register(
		c.a,
		c.taking(operation(http.MethodPatch, openingPath, "change-opening", "Change an opening"), reflect.TypeFor[[]Op]()),
		c.s.change,
	)
	huma.Register(c.a, operation(http.MethodPost, openingPath+"/undo", "undo", "Take the last change back"), c.s.undo)
	huma.Register(c.a, operation(http.MethodPost, openingPath+"/redo", "redo", "Bring the change again"), c.s.redo)
	huma.Register(c.a, operation(http.MethodDelete, openingPath, "remove-opening",
		"Take an opening off the walk"), c.s.remove)
	huma.Register(
		c.a, operation(http.MethodPost, openingPath+"/restore", "restore-opening",
			"Put a removed opening back"), c.s.restore,
	)
	huma.Register(c.a, c.taking(
		operation(http.MethodPut, openingPath+"/place", "place", "Put an opening elsewhere on the walk"),
		reflect.TypeFor[WalkPlace](),
	), c.s.place)
	huma.Register(
		c.a, operation(http.MethodGet, openingPath+"/stock", "stock",
			"Which stock size to buy for an opening"), c.s.stock,
	)
	huma.Register(c.a, operation(
		http.MethodGet, openingPath+"/hinges", "hinge-ways",
		"The hinges that could be taken for an opening, and what speaks against each",
	), c.s.hingeWays)
	huma.Register(c.a, giving(operation(
		http.MethodGet, openingPath+"/template", "template",
		"A template of an opening at full size, as PDF, SVG or DXF",
	), "The template", formats()...), c.s.sheet)
	huma.Register(c.a, operation(
		http.MethodGet, openingPath+"/rod", "story-rod",
		"A story rod marked from an opening, and how the other openings of the job differ from it",
	), c.s.storyRod)
	huma.Register(
		c.a, operation(
			http.MethodGet, openingPath+"/changed", "changed-step", "What changed a finished step's inputs, and since when",
		), c.s.changed,
	)
	huma.Register(
		c.a, operation(http.MethodGet, openingPath+"/log", "log",
			"An opening's story: its changes, photographs and minutes"),
		c.s.log,
	)
	huma.Register(c.a, c.taking(
		operation(http.MethodPost, openingPath+"/time", "spend-time", "Count time that was spent on a step"),
		reflect.TypeFor[TimeSpent](),
	), c.s.spend)
	huma.Register(c.a, longer(operation(
		http.MethodPost, openingPath+"/photos", "add-photo",
		"Keep a photograph, JPEG or PNG; it is written anew, without where it was taken",
	), photo.Largest), c.s.addPhoto)
	huma.Register(c.a, giving(
		operation(http.MethodGet, openingPath+"/photos/{photo}", "photo", "A photograph, as JPEG"), "The picture", typeJPEG,
	), c.s.photo)
	huma.Register(
		c.a, operation(http.MethodDelete, openingPath+"/photos/{photo}", "remove-photo", "Take a photograph off"),
		c.s.removePhoto,
	)
	huma.Register(c.a, operation(
		http.MethodPost, openingPath+"/photos/{photo}/restore", "restore-photo",
		"Put a photograph back that was taken off",
	), c.s.restorePhoto)
}

// sharing are the operations on other clients, instruments and backups.
func (c *contract) sharing() {
	huma.Register(c.a, giving(
		operation(http.MethodGet, "/events", "events", "Changes as they are made, as server-sent events"),
		"The changes", typeTells,
	), c.s.events)
	huma.Register(
		c.a, operation(http.MethodGet, "/sharing", "sharing", "How other clients are let in, and which are"),
		c.s.sharing,
	)
	huma.Register(c.a, c.taking(
		operation(http.MethodPost, "/sharing/clients", "join", "Let this client in, by the code that is shown"),
		reflect.TypeFor[Pairing](),
	), c.s.pair)
	huma.Register(c.a, c.taking(operation(
		http.MethodPost, "/lengths", "speak", "Bring a length of an instrument to the waiting entry of a client",
	), reflect.TypeFor[Speaking]()), c.s.speak)
	huma.Register(
		c.a, operation(http.MethodPost, "/sharing/code", "new-code", "Show a new pairing code, at this machine"),
		c.s.newCode,
	)
	huma.Register(c.a, operation(
		http.MethodDelete, "/sharing/clients/{client}", "end-pass",
		"End the pass of a client, with all that is under way for it",
	), c.s.endPass)
	huma.Register(c.a, c.taking(operation(
		http.MethodPut, "/sharing/clients/{client}", "raise-pass",
		"Let a client run the house, or no more, at this machine",
	), reflect.TypeFor[Raising]()), c.s.raisePass)
	huma.Register(c.a, runs(giving(
		operation(http.MethodGet, "/backup", "backup", "A whole copy of the data file, read back before it is sent"),
		"The data file", typeDB,
	)), c.s.backup)
	huma.Register(c.a, giving(
		operation(http.MethodGet, "/everything", "everything", "All jobs as one zip of open files"), "The zip", typeZip,
	), c.s.everything)
	huma.Register(c.a, runs(longer(operation(
		http.MethodPost, "/restore", "restore-backup",
		"Put a backup in the place of all that is kept; what was there is kept beside it",
	), mostBackup)), c.s.restoreFrom)
}

// day are the operations on a job's day and the air of a house.
func (c *contract) day() {
	huma.Register(
		c.a, operation(http.MethodGet, "/jobs/{job}/day", "day", "The day of a job, planned from a moment on"), c.s.day,
	)
	huma.Register(c.a, c.taking(
		operation(http.MethodPut, "/jobs/{job}/day", "set-day", "Set how the day is planned"),
		reflect.TypeFor[day.Day](),
	), c.s.setDay)
	huma.Register(c.a, c.taking(
		operation(http.MethodPost, "/jobs/{job}/day/marks", "mark-task", "Say what became of a task"),
		reflect.TypeFor[day.Mark](),
	), c.s.markTask)
	huma.Register(c.a, giving(
		operation(http.MethodGet, "/jobs/{job}/day/calendar", "day-calendar", "The day as an iCalendar"),
		"The calendar", typeICal,
	), c.s.calendar)
	huma.Register(
		c.a, operation(http.MethodGet, "/jobs/{job}/air", "air", "The air of a house, as its hygrometer read it"),
		c.s.air,
	)
	huma.Register(c.a, c.taking(
		operation(http.MethodPost, "/jobs/{job}/air", "add-air", "Keep a reading of a house's air"),
		reflect.TypeFor[Airing](),
	), c.s.addAir)
}

// practice are the operations of practice.
func (c *contract) practice() {
	huma.Register(
		c.a, operation(http.MethodGet, "/practice", "practice", "What was practised, and what would help next"),
		c.s.practice,
	)
	huma.Register(
		c.a, operation(http.MethodGet, "/practice/exercise", "exercise", "A hidden opening as a file, for a class"),
		c.s.exercise,
	)
	huma.Register(c.a, c.taking(
		operation(http.MethodPost, "/practice/play", "play", "Do the moves of an attempt at a hidden opening"),
		reflect.TypeFor[Playing](),
	), c.s.play)
	huma.Register(c.a, operation(http.MethodGet, "/practice/drills/{kind}", "drill", "A short question"), c.s.drill)
	huma.Register(c.a, c.taking(
		operation(http.MethodPost, "/practice/drills/{kind}", "answer-drill", "Answer it"), reflect.TypeFor[Answered](),
	), c.s.answer)
}
