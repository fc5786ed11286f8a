// Package api is the HTTP face of the program: requests in, core called,
// answers out. The contract is the OpenAPI 3.1 document it serves.
package api

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"path"
	"reflect"
	"runtime"
	"strconv"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	jsonpatch "github.com/evanphx/json-patch/v5"
	"github.com/go-chi/chi/v5"
	"github.com/go-chi/chi/v5/middleware"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/survey"
	"kindmargin/store"
)

// largest request that is read: a thousand readings take about 200 kB.
const largest = 8 << 20

// New is the whole program behind HTTP: the API under /api, and the pages of
// the front end, which may be nil.
func New(s *store.Store, pages http.Handler, log *slog.Logger) http.Handler {
	r := chi.NewRouter()
	r.Use(middleware.RequestID, logged(log), middleware.Recoverer, http.NewCrossOriginProtection().Handler, middleware.Compress(5))
	operations(humachi.New(r, config()), s)
	r.NotFound(func(w http.ResponseWriter, req *http.Request) {
		if pages != nil && !strings.HasPrefix(req.URL.Path, "/api/") {
			pages.ServeHTTP(w, req)
			return
		}
		http.Error(w, "There is nothing at this address.", http.StatusNotFound)
	})
	return r
}

func logged(log *slog.Logger) func(http.Handler) http.Handler {
	return func(next http.Handler) http.Handler {
		return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
			ww, start := middleware.NewWrapResponseWriter(w, r.ProtoMajor), time.Now()
			defer func() {
				level := slog.LevelDebug
				if ww.Status() >= 500 {
					level = slog.LevelError
				}
				log.Log(r.Context(), level, "request", "method", r.Method, "path", r.URL.Path,
					"status", ww.Status(), "bytes", ww.BytesWritten(), "took", time.Since(start))
			}()
			next.ServeHTTP(ww, r)
		})
	}
}

// No list on the wire is ever null.
func init() { huma.DefaultArrayNullable = false }

// schemas names schemas by type, and the two Choices also by package.
func schemas(prefix string) huma.Registry {
	return huma.NewMapRegistry(prefix, func(t reflect.Type, hint string) string {
		name := huma.DefaultSchemaNamer(t, hint)
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
	return c
}

// OpenAPI is the contract as JSON, for the front end's types.
func OpenAPI() ([]byte, error) {
	a := humachi.New(chi.NewRouter(), config())
	operations(a, nil)
	b, err := json.MarshalIndent(a.OpenAPI(), "", "  ")
	return append(b, '\n'), err
}

// FileSchema is the JSON Schema (2020-12) of the open job file, made from the
// types that are kept.
func FileSchema() ([]byte, error) {
	r := schemas("#/$defs/")
	r.RegisterTypeAlias(lengthType, reflect.TypeFor[lengthInFile]())
	r.Schema(reflect.TypeFor[job.File](), true, "")
	defs := map[string]*huma.Schema{}
	for name, s := range r.Map() {
		defs[name] = s
	}
	root := map[string]any{
		"$schema":     "https://json-schema.org/draft/2020-12/schema",
		"title":       "Kind Margin job file, version " + strconv.Itoa(job.FileVersion),
		"description": "A house's doors with all that was read and chosen. Lengths are numbers of millimetres, or text with a unit such as \"35 3/4 in\".",
		"$ref":        "#/$defs/File",
		"$defs":       defs,
	}
	b, err := json.MarshalIndent(root, "", "  ")
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

// JobHead is a job without its openings.
type JobHead struct {
	ID       string       `json:"id"`
	Name     string       `json:"name"`
	Unit     measure.Unit `json:"unit" enum:"mm,in"`
	Tape     measure.Tape `json:"tape" enum:"0.5mm,1mm,1/32in,1/16in"`
	Presets  []job.Preset `json:"presets"`
	Version  int64        `json:"version"`
	Openings int          `json:"openings"`
}

// Door is an opening as it is met on the walk.
type Door struct {
	ID      string       `json:"id"`
	Name    string       `json:"name"`
	Room    string       `json:"room"`
	Hand    string       `json:"hand" enum:"left,right"`
	Next    job.Step     `json:"next" doc:"The first step that is not done; empty when all are."`
	Notches []Notch      `json:"notches"`
	Stops   []string     `json:"stops" doc:"What stops the work."`
	Drawing *DrawingView `json:"drawing,omitempty"`
}

// Walk is a job with its doors in the order of the walk.
type Walk struct {
	Job   JobHead `json:"job"`
	Doors []Door  `json:"doors"`
}

// OpeningView is an opening with its plan.
type OpeningView struct {
	Job     JobHead           `json:"job"`
	Opening job.Opening       `json:"opening"`
	Texts   map[string]string `json:"texts" doc:"Every length given, by JSON pointer, as it is typed in the job's unit."`
	Plan    Plan              `json:"plan"`
	Version int64             `json:"version"`
	Undo    string            `json:"undo" doc:"What undo takes back; empty when nothing."`
	Redo    string            `json:"redo"`
}

// Op is one operation of a JSON Patch (RFC 6902). A string at a place that
// holds a length is read as a person writes it, a bare number in the job's
// unit.
type Op struct {
	Op    string `json:"op" enum:"add,remove,replace"`
	Path  string `json:"path"`
	Value any    `json:"value,omitempty"`
}

// JobPath is the job in an address.
type JobPath struct {
	Job string `path:"job" maxLength:"40"`
}

// OpeningPath is the opening in an address.
type OpeningPath struct {
	JobPath
	Opening string `path:"opening" maxLength:"40"`
}

// Precondition is the version that a change was made from.
type Precondition struct {
	IfMatch string `header:"If-Match" doc:"The ETag that the change was made from."`
}

type body[T any] struct {
	ETag string `header:"ETag"`
	Body T
}

type server struct{ store *store.Store }

func operations(a huma.API, st *store.Store) {
	s := server{st}
	op := func(method, path, id, summary string) huma.Operation {
		return huma.Operation{
			Method: method, Path: "/api" + path, OperationID: id, Summary: summary, MaxBodyBytes: largest,
			Errors: []int{400, 404, 412, 422, 428, 507},
		}
	}
	huma.Register(a, op(http.MethodGet, "/trade", "trade", "The tables that choices are made from"),
		func(context.Context, *struct{}) (*body[Trade], error) { return &body[Trade]{Body: tradeTables()}, nil })
	huma.Register(a, op(http.MethodGet, "/jobs", "list-jobs", "All jobs"), s.jobs)
	huma.Register(a, op(http.MethodPost, "/jobs", "add-job", "Begin a job"), s.addJob)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}", "walk", "A job's doors, with their plans"), s.walk)
	huma.Register(a, op(http.MethodPatch, "/jobs/{job}", "change-job", "Change a job's name, unit, tape or presets"), s.changeJob)
	huma.Register(a, op(http.MethodPost, "/jobs/{job}/openings", "add-opening", "Put an opening on the walk"), s.addOpening)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/openings/{opening}", "opening", "An opening and its plan"), s.opening)
	huma.Register(a, op(http.MethodPatch, "/jobs/{job}/openings/{opening}", "change-opening", "Change an opening"), s.change)
	huma.Register(a, op(http.MethodPost, "/jobs/{job}/openings/{opening}/undo", "undo", "Take the last change back"), s.undo)
	huma.Register(a, op(http.MethodPost, "/jobs/{job}/openings/{opening}/redo", "redo", "Bring the change again"), s.redo)
	huma.Register(a, op(http.MethodDelete, "/jobs/{job}/openings/{opening}", "remove-opening", "Take an opening off the walk"), s.remove)
	huma.Register(a, op(http.MethodPost, "/jobs/{job}/openings/{opening}/restore", "restore-opening", "Put a removed opening back"), s.restore)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/openings/{opening}/stock", "stock", "Which stock size to buy for an opening"), s.stock)
	huma.Register(a, op(http.MethodGet, "/jobs/{job}/file", "export-job", "The job as an open job file"), s.export)
	bring := op(http.MethodPost, "/jobs/file", "import-job", "Bring in an open job file")
	bring.SkipValidateBody = true // core reads the file, and says in its own words what is wrong with it
	huma.Register(a, bring, s.importFile)
}

// problem turns what core and store say into problem+json (RFC 9457).
func problem(err error) error {
	var fields job.FieldErrors
	var file *job.ErrFile
	var parse *measure.ParseError
	switch {
	case err == nil:
		return nil
	case errors.As(err, &fields):
		details := make([]error, len(fields))
		for i, f := range fields {
			details[i] = &huma.ErrorDetail{Message: f.Problem, Location: f.Pointer}
		}
		return huma.Error422UnprocessableEntity(fields[0].Problem, details...)
	case errors.As(err, &file):
		return huma.Error422UnprocessableEntity(file.Problem)
	case errors.As(err, &parse):
		return huma.Error422UnprocessableEntity(parse.Error())
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("It is not here: it was removed, or the address is wrong. Go back to the walk.")
	case errors.Is(err, store.ErrStale):
		return huma.Error412PreconditionFailed("It was changed on another device since you looked. The newer state is shown; your entry is kept: save it again if it still holds.")
	case errors.Is(err, store.ErrNothing):
		return huma.Error422UnprocessableEntity("There is nothing left to undo or redo.")
	case errors.Is(err, store.ErrDisk):
		return huma.NewError(http.StatusInsufficientStorage, "The disk is full or cannot be written, so this was not saved. Your entry is kept: make room, then save it again.")
	}
	return huma.Error500InternalServerError("Something went wrong here, so this was not saved. Your entry is kept: try again.", err)
}

func etag(version int64) string { return `"` + strconv.FormatInt(version, 10) + `"` }

func (m Precondition) version() (int64, error) {
	if m.IfMatch == "" {
		return 0, huma.Error428PreconditionRequired("A change says which version it was made from: send If-Match with the ETag last read.")
	}
	v, err := strconv.ParseInt(strings.Trim(strings.TrimPrefix(m.IfMatch, "W/"), `"`), 10, 64)
	if err != nil {
		return 0, problem(store.ErrStale)
	}
	return v, nil
}

func headView(h store.Head) JobHead {
	return JobHead{h.ID, h.Name, h.Unit, h.Tape, append([]job.Preset{}, h.Presets...), h.Version, h.Openings}
}

func headBody(h store.Head) *body[JobHead] { return &body[JobHead]{etag(h.Version), headView(h)} }

func openingBody(k store.Kept) *body[OpeningView] {
	return &body[OpeningView]{etag(k.Version), OpeningView{
		Job: headView(k.Job), Opening: k.Opening, Texts: texts(k.Opening, k.Job.Unit),
		Plan: NewPlan(k.Job.Job(), k.Opening), Version: k.Version, Undo: k.Undo, Redo: k.Redo,
	}}
}

func (s server) jobs(ctx context.Context, _ *struct{}) (*body[[]JobHead], error) {
	heads, err := s.store.Jobs(ctx)
	if err != nil {
		return nil, problem(err)
	}
	out := &body[[]JobHead]{Body: []JobHead{}}
	for _, h := range heads {
		out.Body = append(out.Body, headView(h))
	}
	return out, nil
}

func (s server) addJob(ctx context.Context, in *struct {
	Body struct {
		Name string       `json:"name"`
		Unit measure.Unit `json:"unit"`
	}
},
) (*body[JobHead], error) {
	j := job.NewJob("", strings.TrimSpace(in.Body.Name), in.Body.Unit)
	if err := j.CheckHead(); err != nil {
		return nil, problem(err)
	}
	h, err := s.store.AddJob(ctx, j)
	if err != nil {
		return nil, problem(err)
	}
	return headBody(h), nil
}

func (s server) walk(ctx context.Context, in *JobPath) (*body[Walk], error) {
	head, list, err := s.store.Job(ctx, in.Job)
	if err != nil {
		return nil, problem(err)
	}
	out := &body[Walk]{ETag: etag(head.Version), Body: Walk{Job: headView(head), Doors: make([]Door, len(list))}}
	// A plan takes about a millisecond: a large house is worked out on every
	// processor.
	var wg sync.WaitGroup
	next := make(chan int)
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			for i := range next {
				out.Body.Doors[i] = doorOf(head.Job(), list[i].Opening)
			}
		})
	}
	for i := range list {
		next <- i
	}
	close(next)
	wg.Wait()
	return out, nil
}

func doorOf(j job.Job, o job.Opening) Door {
	plan := NewPlan(j, o)
	door := Door{o.ID, o.Name, o.Room, string(o.Hand), plan.Next, plan.Notches, []string{}, plan.Drawing}
	for _, f := range plan.Findings {
		if f.Weight == job.Stop {
			door.Stops = append(door.Stops, f.Text)
		}
	}
	return door
}

func (s server) changeJob(ctx context.Context, in *struct {
	JobPath
	Precondition
	Body struct {
		Name *string       `json:"name,omitempty"`
		Unit *measure.Unit `json:"unit,omitempty"`
		Tape *measure.Tape `json:"tape,omitempty"`

		Presets *[]job.Preset `json:"presets,omitempty"`
	}
},
) (*body[JobHead], error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	head, _, err := s.store.Job(ctx, in.Job)
	if err != nil {
		return nil, problem(err)
	}
	if in.Body.Name != nil {
		head.Name = strings.TrimSpace(*in.Body.Name)
	}
	if in.Body.Unit != nil {
		head.Unit = *in.Body.Unit
		head.Tape = head.Tape.In(head.Unit)
	}
	if in.Body.Tape != nil {
		head.Tape = *in.Body.Tape
	}
	if in.Body.Presets != nil {
		head.Presets = *in.Body.Presets
	}
	if err := head.Job().CheckHead(); err != nil {
		return nil, problem(err)
	}
	if head, err = s.store.SetHead(ctx, head, version); err != nil {
		return nil, problem(err)
	}
	return headBody(head), nil
}

func (s server) addOpening(ctx context.Context, in *struct {
	JobPath
	Body struct {
		Name string `json:"name"`
		Room string `json:"room,omitempty"`
	}
},
) (*body[OpeningView], error) {
	head, _, err := s.store.Job(ctx, in.Job)
	if err != nil {
		return nil, problem(err)
	}
	o := job.NewOpening("", strings.TrimSpace(in.Body.Name), head.Unit)
	o.Room = strings.TrimSpace(in.Body.Room)
	if err := o.Check(head.Unit); err != nil {
		return nil, problem(err)
	}
	k, err := s.store.AddOpening(ctx, in.Job, o)
	if err != nil {
		return nil, problem(err)
	}
	return openingBody(k), nil
}

func (s server) opening(ctx context.Context, in *OpeningPath) (*body[OpeningView], error) {
	k, err := s.store.Opening(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(err)
	}
	return openingBody(k), nil
}

func (s server) change(ctx context.Context, in *struct {
	OpeningPath
	Precondition
	Label string `query:"label" maxLength:"200" doc:"What undo will call it."`
	Body  []Op
},
) (*body[OpeningView], error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	k, err := s.store.Opening(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(err)
	}
	if k.Version != version {
		return nil, problem(store.ErrStale)
	}
	o, err := patched(k.Opening, in.Body, k.Job.Unit)
	if err != nil {
		return nil, problem(err)
	}
	if err := o.Check(k.Job.Unit); err != nil {
		return nil, problem(err)
	}
	if reflect.DeepEqual(o, k.Opening) {
		return openingBody(k), nil // nothing for undo to take back
	}
	if in.Label == "" {
		in.Label = "a change"
	}
	if k, err = s.store.Save(ctx, in.Job, version, in.Label, o); err != nil {
		return nil, problem(err)
	}
	return openingBody(k), nil
}

// patched is an opening after a JSON Patch whose lengths may be text as a
// person writes it.
func patched(o job.Opening, ops []Op, unit measure.Unit) (job.Opening, error) {
	var bad job.FieldErrors
	for i, op := range ops {
		ops[i].Value = readLengths(op.Path, op.Value, unit, &bad)
	}
	if len(bad) > 0 {
		return o, bad
	}
	doc, err := json.Marshal(o)
	if err != nil {
		return o, err
	}
	raw, err := json.Marshal(ops)
	if err != nil {
		return o, err
	}
	patch, err := jsonpatch.DecodePatch(raw)
	if err != nil {
		return o, job.FieldErrors{{Pointer: "", Problem: "The change is not a JSON Patch: " + err.Error() + "."}}
	}
	if doc, err = patch.Apply(doc); err != nil {
		return o, job.FieldErrors{{Pointer: ops[0].Path, Problem: "The change does not fit the opening: " + err.Error() + "."}}
	}
	dec := json.NewDecoder(bytes.NewReader(doc))
	dec.DisallowUnknownFields()
	var after job.Opening
	if err := dec.Decode(&after); err != nil {
		return o, job.FieldErrors{{Pointer: ops[0].Path, Problem: fmt.Sprintf("That does not belong there: %v.", err)}}
	}
	if after.ID != o.ID {
		return o, job.FieldErrors{{Pointer: "/id", Problem: "An opening keeps its id."}}
	}
	number(after.Readings)
	after.Normalise()
	return after, nil
}

// readLengths replaces text by millimetres wherever a length stands.
func readLengths(at string, value any, unit measure.Unit, bad *job.FieldErrors) any {
	switch v := value.(type) {
	case string:
		if !isLength(at) {
			return v
		}
		l, err := measure.Parse(v, unit)
		if err != nil {
			*bad = append(*bad, job.FieldError{Pointer: at, Problem: err.Error()})
			return nil
		}
		return l
	case map[string]any:
		for k := range v {
			v[k] = readLengths(at+"/"+k, v[k], unit, bad)
		}
	case []any:
		for i := range v {
			v[i] = readLengths(at+"/"+strconv.Itoa(i), v[i], unit, bad)
		}
	}
	return value
}

// number gives an ID to readings that have none.
func number(rs []survey.Reading) {
	next := 1
	for _, r := range rs {
		if n, err := strconv.Atoi(strings.TrimPrefix(r.ID, "r")); err == nil && n >= next {
			next = n + 1
		}
	}
	for i := range rs {
		if rs[i].ID == "" {
			rs[i].ID = "r" + strconv.Itoa(next)
			next++
		}
	}
}

type historyIn struct {
	OpeningPath
	Precondition
}

func (s server) undo(ctx context.Context, in *historyIn) (*body[OpeningView], error) {
	return s.history(ctx, in, s.store.Undo)
}

func (s server) redo(ctx context.Context, in *historyIn) (*body[OpeningView], error) {
	return s.history(ctx, in, s.store.Redo)
}

func (s server) history(ctx context.Context, in *historyIn, move func(context.Context, string, string, int64) (store.Kept, error)) (*body[OpeningView], error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	k, err := move(ctx, in.Job, in.Opening, version)
	if err != nil {
		return nil, problem(err)
	}
	return openingBody(k), nil
}

func (s server) stock(ctx context.Context, in *struct {
	OpeningPath
	Leaf int `query:"leaf" minimum:"1" maximum:"2" default:"1" doc:"Which leaf of a pair."`
},
) (*body[[]StockFit], error) {
	k, err := s.store.Opening(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(err)
	}
	if k.Opening.Pair == nil {
		in.Leaf = 0
	}
	return &body[[]StockFit]{etag(k.Version), stockView(k.Job.Job(), k.Opening, in.Leaf)}, nil
}

func (s server) remove(ctx context.Context, in *OpeningPath) (*struct{}, error) {
	return nil, problem(s.store.SetRemoved(ctx, in.Job, in.Opening, true))
}

func (s server) restore(ctx context.Context, in *OpeningPath) (*struct{}, error) {
	return nil, problem(s.store.SetRemoved(ctx, in.Job, in.Opening, false))
}

type fileOut struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte `contentType:"application/json"`
}

func (s server) export(ctx context.Context, in *JobPath) (*fileOut, error) {
	head, list, err := s.store.Job(ctx, in.Job)
	if err != nil {
		return nil, problem(err)
	}
	j := head.Job()
	for _, k := range list {
		j.Openings = append(j.Openings, k.Opening)
	}
	b, err := job.Encode(j)
	if err != nil {
		return nil, problem(err)
	}
	return &fileOut{"application/json", fmt.Sprintf("attachment; filename=%q", fileName(head.Name)), b}, nil
}

// fileName makes a job's name one that every disk takes.
func fileName(name string) string {
	plain := strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z', r >= '0' && r <= '9':
			return r
		case r >= 'A' && r <= 'Z':
			return r + 'a' - 'A'
		}
		return '-'
	}, name)
	return strings.Trim(plain, "-") + ".job.json"
}

func (s server) importFile(ctx context.Context, in *struct {
	RawBody []byte `contentType:"application/json"`
},
) (*body[JobHead], error) {
	j, err := job.Decode(in.RawBody)
	if err != nil {
		return nil, problem(err)
	}
	h, err := s.store.AddJob(ctx, j)
	if err != nil {
		return nil, problem(err)
	}
	return headBody(h), nil
}
