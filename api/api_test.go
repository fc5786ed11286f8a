package api

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/danielgtaylor/huma/v2"
	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/demo"
	"kindmargin/document"
	"kindmargin/store"
)

// running is a running program with an empty data file.
type running struct {
	t   *testing.T
	url string
}

func run(t *testing.T) running {
	st, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "test.db"))
	require.NoError(t, err)
	srv := httptest.NewServer(New(st, Pages{}, slog.New(slog.DiscardHandler), Share{}))
	t.Cleanup(func() { srv.Close(); _ = st.Close() })
	return running{t, srv.URL}
}

type answer struct {
	status int
	etag   string
	header http.Header
	raw    []byte
}

func (s running) do(method, path, ifMatch string, in any) answer {
	return s.doWith(method, path, in, "If-Match", ifMatch)
}

// doWith asks with some headers; one with no value is left out.
func (s running) doWith(method, path string, in any, headers ...string) answer {
	var r io.Reader
	switch v := in.(type) {
	case nil:
	case []byte:
		r = bytes.NewReader(v)
	default:
		b, err := json.Marshal(v)
		require.NoError(s.t, err)
		r = bytes.NewReader(b)
	}
	req, err := http.NewRequestWithContext(s.t.Context(), method, s.url+"/api"+path, r)
	require.NoError(s.t, err)
	req.Header.Set("Content-Type", "application/json")
	for i := 0; i+1 < len(headers); i += 2 {
		if headers[i+1] != "" {
			req.Header.Set(headers[i], headers[i+1])
		}
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(s.t, err)
	defer res.Body.Close()
	raw, err := io.ReadAll(res.Body)
	require.NoError(s.t, err)
	return answer{res.StatusCode, res.Header.Get("ETag"), res.Header, raw}
}

func got[T any](t *testing.T, a answer) (v T) {
	require.Less(t, a.status, 300, string(a.raw))
	require.NoError(t, json.Unmarshal(a.raw, &v))
	return v
}

type trouble struct {
	Status int
	Detail string
	Errors []struct{ Message, Location string }
}

func (a answer) trouble(t *testing.T) (p trouble) {
	require.NoError(t, json.Unmarshal(a.raw, &p), string(a.raw))
	assert.Equal(t, "application/problem+json", a.header.Get("Content-Type"))
	assert.Equal(t, a.status, p.Status)
	return p
}

func (s running) begin(unit measure.Unit) (path string, v OpeningView, etag string) {
	j := got[JobHead](s.t, s.do("POST", "/jobs", "", map[string]any{"name": "House", "unit": unit}))
	a := s.do("POST", "/jobs/"+j.ID+"/openings", "", map[string]any{"name": " Study "})
	v = got[OpeningView](s.t, a)
	return "/jobs/" + j.ID + "/openings/" + v.Opening.ID, v, a.etag
}

func patch(path string, value any) []Op { return []Op{{Op: "add", Path: path, Value: value}} }

func width(at, value any) []Op {
	return patch("/readings/-", map[string]any{"kind": "width", "at": at, "value": value})
}

func TestTextIsReadInTheJobsUnitWhereALengthStands(t *testing.T) {
	s := run(t)
	path, v, etag := s.begin(measure.Inches)
	assert.Equal(t, "Study", v.Opening.Name)
	a := s.do("PATCH", path, etag, width("70", "30 1/8"))
	v = got[OpeningView](t, a)
	require.Len(t, v.Opening.Readings, 1)
	assert.Equal(t, measure.FromMM(765.175), v.Opening.Readings[0].Value)
	assert.Equal(t, "r1", v.Opening.Readings[0].ID)
	assert.Equal(t, "30 1/8", v.Texts["/readings/0/value"])
	assert.NotEqual(t, etag, a.etag)
	a = s.do("PATCH", path, a.etag, patch("/slab/width", "762mm"))
	v = got[OpeningView](t, a)
	assert.Equal(t, "30", v.Texts["/slab/width"])
	a = s.do("PATCH", path, a.etag, patch("/name", "30 1/8"))
	assert.Equal(t, "30 1/8", got[OpeningView](t, a).Opening.Name, "a name is not a length")
}

func TestProblemsPointAtTheField(t *testing.T) {
	s := run(t)
	path, _, etag := s.begin(measure.Millimetres)
	cases := []struct {
		ops   []Op
		where string
		says  string
	}{
		{width("1800", "wide"), "/readings/-/value", "Begin with a number"},
		{width("1800", "60"), "/readings/0/value", "60 mm cannot be the width"},
		{width("1800", "-826"), "/readings/0/value", "cannot be the width"},
		{width("1800", ""), "/readings/-/value", "Type a length"},
		{patch("/slab/width", "12"), "/slab/width", "check the unit"},
		{patch("/margins/lock", "3 3"), "/margins/lock", "two lengths"},
		{patch("/lock/backset", true), "/lock/backset", "does not belong there"},
		{patch("/colour", "green"), "/colour", "does not belong there"},
		{patch("/id", "mine"), "/id", "keeps its ID"},
		{patch("/readings/9/value", "800"), "/readings/9/value", "does not fit"},
		{append(width("1800", "826"), patch("/readings/7/value", "800")...), "/readings/7/value", "does not fit"},
		{patch("/readings/-1/value", "800"), "/readings/-1/value", "no such place"},
		{patch("/readings/00/value", "800"), "/readings/00/value", "no such place"},
		{patch("/Readings/-", map[string]any{}), "/Readings/-", "no such place"},
		{patch("/slab", map[string]any{"Width": 800}), "/slab/Width", "Write “width”"},
		{patch("/hand", "up"), "/hand", "left or the right"},
		{[]Op{{Op: "remove", Path: "/nothing"}}, "/nothing", "no such place"},
	}
	for _, c := range cases {
		a := s.do("PATCH", path, etag, c.ops)
		p := a.trouble(t)
		assert.Equal(t, 422, a.status, c.where)
		if assert.NotEmpty(t, p.Errors, c.where) {
			assert.Equal(t, c.where, p.Errors[0].Location)
			assert.Contains(t, p.Errors[0].Message, c.says)
		}
	}
	assert.Equal(t, etag, s.do("GET", path, "", nil).etag, "nothing was changed")
	p := s.do("POST", "/jobs", "", map[string]any{"name": "", "unit": "mm"}).trouble(t)
	assert.Equal(t, "/name", p.Errors[0].Location)
}

func TestTwoClientsCannotOverwriteEachOther(t *testing.T) {
	s := run(t)
	path, _, etag := s.begin(measure.Millimetres)
	first := s.do("PATCH", path, etag, width("1800", "826"))
	require.Equal(t, 200, first.status)
	second := s.do("PATCH", path, etag, width("1800", "830"))
	assert.Equal(t, 412, second.status)
	assert.Contains(t, second.trouble(t).Detail, "here or on another device")
	assert.Equal(t, 428, s.do("PATCH", path, "", width("1800", "830")).status)
	assert.Equal(t, 422, s.do("PATCH", path, `"rubbish"`, width("1800", "830")).status)
	assert.Equal(t, 412, s.do("POST", path+"/undo", etag, nil).status)
	v := got[OpeningView](t, s.do("GET", path, "", nil))
	require.Len(t, v.Opening.Readings, 1)
	assert.Equal(t, measure.FromMM(826), v.Opening.Readings[0].Value)
}

func TestUndoAndRedo(t *testing.T) {
	s := run(t)
	path, _, etag := s.begin(measure.Millimetres)
	a := s.do("PATCH", path+"?label=width+826", etag, width("1800", "826"))
	assert.Equal(t, "width 826", got[OpeningView](t, a).Undo)
	same := s.do("PATCH", path, a.etag, patch("/readings/0/value", "82.6 cm"))
	assert.Equal(t, a.etag, same.etag, "a change that changes nothing is none")
	a = s.do("POST", path+"/undo", a.etag, nil)
	v := got[OpeningView](t, a)
	assert.Empty(t, v.Opening.Readings)
	assert.Equal(t, "width 826", v.Redo)
	assert.Equal(t, 422, s.do("POST", path+"/undo", a.etag, nil).status)
	a = s.do("POST", path+"/redo", a.etag, nil)
	assert.Len(t, got[OpeningView](t, a).Opening.Readings, 1)
}

func TestExportThenImportGivesTheSameJobBack(t *testing.T) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	one, two := run(t), run(t)
	for _, j := range jobs {
		want, err := job.Encode(j)
		require.NoError(t, err)
		got[JobHead](t, one.do("POST", "/jobs/file", "", want))
		out := one.do("GET", "/jobs/"+j.ID+"/file", "", nil)
		assert.Equal(t, string(want), string(out.raw))
		assert.Contains(t, out.header.Get("Content-Disposition"), ".job.json")
		got[JobHead](t, two.do("POST", "/jobs/file", "", out.raw))
		assert.Equal(t, string(want), string(two.do("GET", "/jobs/"+j.ID+"/file", "", nil).raw))
	}
	bad := one.do("POST", "/jobs/file", "", []byte(`{"format": "kindmargin job", "version": 1`))
	assert.Equal(t, 422, bad.status)
	assert.Contains(t, bad.trouble(t).Detail, "not a whole job file")
	assert.Len(t, got[[]JobHead](t, one.do("GET", "/jobs", "", nil)), 2)
}

func TestTheWalk(t *testing.T) {
	s := run(t)
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	b, err := job.Encode(jobs[0])
	require.NoError(t, err)
	j := got[JobHead](t, s.do("POST", "/jobs/file", "", b))
	a := s.do("GET", "/jobs/"+j.ID, "", nil)
	w := got[Walk](t, a)
	require.Len(t, w.Openings, 6)
	assert.Equal(t, "Linen room", w.Openings[0].Name)
	assert.True(t, w.Openings[0].Drawn)
	assert.Len(t, w.Openings[0].Steps, len(job.Steps))

	door := "/jobs/" + j.ID + "/openings/" + w.Openings[0].ID
	assert.Equal(t, 428, s.do("DELETE", door, "", nil).status)
	assert.Equal(t, 412, s.do("DELETE", door, `"99"`, nil).status, "what was changed since is not taken off unseen")
	assert.Equal(t, 204, s.do("DELETE", door, etag(w.Openings[0].Version), nil).status)
	assert.Equal(t, 404, s.do("GET", door, "", nil).status)
	off := s.do("GET", "/jobs/"+j.ID, "", nil)
	assert.NotEqual(t, a.etag, off.etag, "the walk is another")
	assert.Equal(t, []OffWalk{{w.Openings[0].ID, "Linen room", "First-floor landing"}}, got[Walk](t, off).Off)
	assert.Equal(t, 204, s.do("POST", door+"/restore", "", nil).status)
	assert.Equal(t, 200, s.do("GET", door, "", nil).status)
	assert.Equal(t, 404, s.do("GET", "/jobs/none", "", nil).status)

	jobTag := `"1"`
	head := got[JobHead](t, s.do("PATCH", "/jobs/"+j.ID, jobTag, map[string]any{"unit": "in"}))
	assert.Equal(t, measure.ThirtySeconds, head.Tape, "the tape follows the unit")
	assert.Equal(t, 412, s.do("PATCH", "/jobs/"+j.ID, jobTag, map[string]any{"name": "Other"}).status)
	p := s.do("PATCH", "/jobs/"+j.ID, `"2"`, map[string]any{"tape": "1mm"}).trouble(t)
	assert.Equal(t, "/tape", p.Errors[0].Location)
}

func TestTheContractInDocsIsCurrent(t *testing.T) {
	for file, make := range map[string]func() ([]byte, error){
		"openapi.json": OpenAPI, "job.schema.json": FileSchema, "plan.schema.json": PlanSchema,
	} {
		want, err := make()
		require.NoError(t, err)
		got, err := os.ReadFile(filepath.Join("..", "docs", file))
		require.NoError(t, err)
		assert.True(t, bytes.Equal(want, got), "docs/%s is stale: run make types", file)
	}
	s := run(t)
	assert.Contains(t, string(s.do("GET", "/openapi.json", "", nil).raw), `"3.1.0"`)
}

// judge gives what an independent validator says of a JSON text by a schema.
func judge(t *testing.T, make func() ([]byte, error)) func([]byte) error {
	raw, err := make()
	require.NoError(t, err)
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("schema.json", doc))
	schema, err := c.Compile("schema.json")
	require.NoError(t, err)
	return func(b []byte) error {
		v, err := jsonschema.UnmarshalJSON(bytes.NewReader(b))
		require.NoError(t, err)
		return schema.Validate(v)
	}
}

// What kindmargin plan --json prints meets its published schema; a pair's leaves
// stand side by side.
func TestThePlanMeetsItsSchema(t *testing.T) {
	check := judge(t, PlanSchema)
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	for _, j := range jobs {
		j.Openings[0].Readings[0].Value += 40 * measure.Millimetre // a clash, and the plans without it
		plans := document.Plans(j)
		b, err := json.Marshal(plans)
		require.NoError(t, err)
		assert.NoError(t, check(b))
		require.NotEmpty(t, plans.Openings[0].Plan.Without)
		for i, o := range j.Openings {
			leaves := plans.Openings[i].Plan.Leaves
			if o.Pair == nil {
				require.Len(t, leaves, 1)
				continue
			}
			require.Len(t, leaves, 2)
			assert.Equal(t, [2]frame.Side{frame.Hinge, frame.Lock}, [2]frame.Side{leaves[0].Jamb, leaves[1].Jamb})
			assert.NotNil(t, leaves[1].Cut)
		}
		wrong := bytes.Replace(b, []byte(`"gravity":"`), []byte(`"gravity":"very `), 1)
		require.NotEqual(t, b, wrong)
		assert.Error(t, check(wrong))
	}
}

// The published JSON Schema takes what is written and refuses what is not,
// judged by an independent validator.
func TestTheJobFileMeetsItsSchema(t *testing.T) {
	check := judge(t, FileSchema)
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	for _, j := range jobs {
		b, err := job.Encode(j)
		require.NoError(t, err)
		assert.NoError(t, check(b))
		assert.Error(t, check(bytes.Replace(b, []byte(`"slab"`), []byte(`"leaf"`), 1)))
		assert.Error(t, check([]byte(strings.Replace(string(b), `"thickness": `, `"thickness": true, "x": `, 1))))
	}
	text, err := os.ReadFile(filepath.Join("..", "demo", "alder-cottage.json"))
	require.NoError(t, err)
	assert.NoError(t, check(text), "lengths as text with a unit")
}

func TestADiskThatCannotBeWrittenIsSaid(t *testing.T) {
	err := problem(t.Context(), fmt.Errorf("saving: %w", store.ErrDisk))
	var p huma.StatusError
	require.ErrorAs(t, err, &p)
	assert.Equal(t, http.StatusInsufficientStorage, p.GetStatus())
	assert.Equal(t, "api.disk", p.Error())
	require.ErrorAs(t, problem(t.Context(), errors.New("anything else")), &p)
	assert.Equal(t, http.StatusInternalServerError, p.GetStatus())
	assert.Equal(t, "api.went-wrong", p.Error())
}

func TestPagesFromElsewhereAreRefused(t *testing.T) {
	s := run(t)
	for _, c := range []struct {
		method, path, site string
		status             int
	}{
		{"POST", "/jobs", "cross-site", 403},
		{"GET", "/jobs", "cross-site", 403},
		{"GET", "/jobs", "same-site", 403}, // another program's page on this machine
		{"GET", "/everything", "cross-site", 403},
		{"GET", "/jobs", "same-origin", 200},
		{"GET", "/jobs", "none", 200}, // typed by a hand
		{"GET", "/jobs", "", 200},     // no browser
	} {
		req, err := http.NewRequest(c.method, s.url+"/api"+c.path, strings.NewReader(`{"name":"X","unit":"mm"}`))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("Sec-Fetch-Site", c.site)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		_ = res.Body.Close()
		assert.Equal(t, c.status, res.StatusCode, "%v", c)
	}
}

// A tape with a bent hook is proved against rods; the words say so; what a proof cannot
// prove, and a tool that was used, are refused with their place.
func TestAKitIsKeptAndProved(t *testing.T) {
	s := run(t)
	r := s.do("POST", "/jobs", "", map[string]any{"name": "Mill", "unit": "mm"})
	require.Equal(t, 200, r.status)
	var head JobHead
	require.NoError(t, json.Unmarshal(r.raw, &head))
	job := "/jobs/" + head.ID
	kit := map[string]any{"kit": map[string]any{"tools": []any{
		map[string]any{"id": "t", "instrument": "tape", "name": "The long tape"},
		map[string]any{"id": "r", "instrument": "rods"},
	}}}
	r = s.do("PATCH", job, `"1"`, kit)
	require.Equal(t, 200, r.status, string(r.raw))

	r = s.do("POST", job+"/kit/t/proof", "", map[string]any{
		"kind": "width", "against": "r", "own": []string{"827", "827", "826.5", "827"},
		"better": []string{"826", "826", "826", "826.5"},
	})
	require.Equal(t, 200, r.status, string(r.raw))
	var got ProofFound
	require.NoError(t, json.Unmarshal(r.raw, &got))
	assert.Contains(t, got.Says, "reads long by 0.6 mm (±0.7 mm)")
	r = s.do("POST", job+"/kit/t/proof", "", map[string]any{
		"kind": "width", "against": "r", "own": []string{"827"}, "better": []string{"826", "far"},
	})
	assert.Equal(t, 422, r.status)
	assert.Contains(t, string(r.raw), "/better/1")
	r = s.do("POST", job+"/kit/t/proof", "", map[string]any{
		"kind": "width", "against": "r", "own": []string{"827"}, "better": []string{"826", "826"},
	})
	assert.Contains(t, string(r.raw), "One reading shows nothing")

	for name, c := range map[string]struct{ tool, at string }{
		"unknown instrument": {`{"id": "x", "instrument": "divining rod"}`, "/kit/tools/0/instrument"},
		"beyond belief": {
			`{"id": "x", "instrument": "tape", "proved": {"bias": 12, "sure": 0.1, "readings": 8}}`,
			"/kit/tools/0/proved/bias",
		},
		"one reading": {
			`{"id": "x", "instrument": "tape", "proved": {"bias": 0.2, "sure": 0.1, "readings": 2}}`,
			"/kit/tools/0/proved/readings",
		},
		"in a circle": {`{"id": "x", "instrument": "tape", "proved": {"bias": 0, "sure": 0.1, "readings": 8, "against": "y"}},
			{"id": "y", "instrument": "tape", "proved": {"bias": 0, "sure": 0.1, "readings": 8, "against": "x"}}`, "/kit/tools/0/proved/against"},
	} {
		r = s.do("PATCH", job, `"2"`, json.RawMessage(`{"kit": {"tools": [`+c.tool+`]}}`))
		assert.Equal(t, 422, r.status, name)
		assert.Contains(t, string(r.raw), c.at, name)
	}

	r = s.do("POST", job+"/openings", "", map[string]any{"name": "Loft"})
	require.Equal(t, 200, r.status)
	var door OpeningView
	require.NoError(t, json.Unmarshal(r.raw, &door))
	at := job + "/openings/" + door.Opening.ID
	read := func(tool string) answer {
		return s.do("PATCH", at, `"`+strconv.FormatInt(door.Version, 10)+`"`, []any{map[string]any{
			"op": "add", "path": "/readings/-",
			"value": map[string]any{"id": "", "kind": "width", "at": 1800, "value": 826, "tool": tool},
		}})
	}
	r = read("nobody's")
	assert.Equal(t, 422, r.status)
	assert.Contains(t, string(r.raw), "/readings/0/tool")
	r = read("t")
	require.Equal(t, 200, r.status, string(r.raw))
	assert.Contains(t, string(r.raw), "The long tape")
	r = s.do("PATCH", job, `"2"`, json.RawMessage(`{"kit": {"tools": []}}`))
	assert.Equal(t, 422, r.status, "a tool that was used stays in the kit")
	assert.Contains(t, string(r.raw), "Loft")
}
