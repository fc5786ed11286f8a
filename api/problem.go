package api

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"reflect"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/go-chi/chi/v5"
	"golang.org/x/text/language"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/document"
	"kindmargin/store"
	"kindmargin/words"
)

const wentWrong message.ID = "api.went-wrong"

// The messages for errors of the HTTP layer itself.
var plainly = map[int]message.ID{
	http.StatusRequestEntityTooLarge: "api.too-large",
	http.StatusRequestTimeout:        "api.too-slow",
	http.StatusUnsupportedMediaType:  "api.media-type",
	http.StatusNotAcceptable:         "api.accept",
	http.StatusBadRequest:            "api.unreadable",
}

func init() {
	of := huma.NewError
	huma.NewError = func(status int, msg string, errs ...error) huma.StatusError {
		if msg == cannotRead { // it was cut off, or is not what it says that it is
			status = http.StatusBadRequest
		}
		if id, ok := plainly[status]; ok {
			return refusalOf(status, id, nil)
		}
		return of(status, msg, errs...)
	}
}

// cannotRead is huma's message for a body that it cannot read.
const cannotRead = "cannot read request body"

// refusal is an answer that is a problem (RFC 9457). It is worded when it is sent, in the words of its job or of the
// client.
type refusal struct {
	status   int
	says     message.Message
	at       []located
	header   http.Header
	instance string
}

// located is a problem at a part of a request.
type located struct {
	where string
	says  message.Message
}

func refusalOf(status int, id message.ID, args message.Args) *refusal {
	return &refusal{status: status, says: message.Message{ID: id, Args: args}}
}

func (r *refusal) Error() string { return r.says.String() }

// Message is the problem, for people.
func (r *refusal) Message() message.Message { return r.says }

// GetStatus is its status.
func (r *refusal) GetStatus() int { return r.status }

// GetHeaders are what goes with it.
func (r *refusal) GetHeaders() http.Header { return r.header }

// ContentType is that of a problem.
func (r *refusal) ContentType(string) string { return "application/problem+json" }

// in is the problem in words.
func (r *refusal) in(v words.Voice) *huma.ErrorModel {
	e := &huma.ErrorModel{
		Status: r.status, Title: http.StatusText(r.status), Detail: v.Say(r.says), Instance: r.instance,
	}
	for _, l := range r.at {
		e.Errors = append(e.Errors, &huma.ErrorDetail{Location: l.where, Message: v.Say(l.says)})
	}
	return e
}

// worded transforms problems into words; other answers are unchanged.
func (s server) worded(ctx huma.Context, _ string, v any) (any, error) {
	if r, ok := v.(*refusal); ok {
		return r.in(s.voice(ctx.Context())), nil
	}
	return v, nil
}

// voice is the voice of a request: its job's, or the client's.
func (s server) voice(ctx context.Context) words.Voice {
	if id := chi.URLParamFromCtx(ctx, "job"); id != "" && s.store != nil {
		if head, err := s.store.Head(ctx, id); err == nil && head.Broken == nil {
			return document.Voice(head.Job())
		}
	}
	return requestVoice(traceOf(ctx).language)
}

// requestVoice is the client's voice, by Accept-Language.
func requestVoice(accept string) words.Voice {
	_, i := language.MatchStrings(english, accept)
	if job.Languages[i] == job.American {
		return words.In(job.American, measure.Inches, measure.UsualTape(measure.Inches))
	}
	return words.In(job.British, measure.Millimetres, measure.UsualTape(measure.Millimetres))
}

// english matches a client's languages with those of the catalogue.
var english = func() language.Matcher {
	var tags []language.Tag
	for _, l := range job.Languages {
		tags = append(tags, language.MustParse(string(l)))
	}
	return language.NewMatcher(tags)
}()

// refusals map the store's errors to answers.
var refusals = []struct {
	err error
	*refusal
}{
	{store.ErrNotFound, refusalOf(http.StatusNotFound, "api.not-here", nil)},
	{store.ErrStale, refusalOf(http.StatusPreconditionFailed, "api.stale", nil)},
	{store.ErrKey, refusalOf(http.StatusUnprocessableEntity, "api.key-used", nil)},
	{store.ErrNothing, refusalOf(http.StatusUnprocessableEntity, "api.nothing-left", nil)},
	{
		store.ErrFull,
		refusalOf(http.StatusUnprocessableEntity, "api.job-full", message.Args{
			"most": message.Number(store.MostOpenings),
		}),
	},
}

// problem maps errors of core and store to problem+json (RFC 9457). Internal errors are kept for the log.
func problem(ctx context.Context, err error) error {
	var fields field.Errors
	var one field.Error
	var said huma.StatusError
	switch {
	case err == nil:
		return nil
	case errors.As(err, &said):
		return err
	case errors.As(err, &one):
		fields = field.Errors{one}
		fallthrough
	case errors.As(err, &fields):
		r := &refusal{status: http.StatusUnprocessableEntity, says: fields[0].Problem}
		for _, f := range fields {
			r.at = append(r.at, located{f.Pointer, f.Problem})
		}
		return r
	}
	if m, ok := message.Of(err); ok {
		return &refusal{status: http.StatusUnprocessableEntity, says: m}
	}
	for _, known := range refusals {
		if errors.Is(err, known.err) {
			return known.refusal
		}
	}
	t := traceOf(ctx)
	t.cause = err
	r := refusalOf(http.StatusInternalServerError, wentWrong, nil)
	switch {
	case errors.Is(err, store.ErrDisk):
		r = refusalOf(http.StatusInsufficientStorage, "api.disk", nil)
	case errors.Is(err, store.ErrBusy), errors.Is(err, context.DeadlineExceeded):
		r = refusalOf(http.StatusServiceUnavailable, "api.busy", nil)
		r.header = http.Header{"Retry-After": {"2"}}
	case errors.Is(err, store.ErrGone):
		r = refusalOf(http.StatusInsufficientStorage, "api.gone", nil)
	case errors.Is(err, store.ErrDamaged):
		r = refusalOf(http.StatusInternalServerError, "api.damaged", nil)
	}
	r.instance = instance(t)
	return r
}

// unreadable is the answer to an invalid parameter.
func unreadable(at string, id message.ID) error {
	r := refusalOf(http.StatusBadRequest, id, nil)
	r.at = []located{{at, r.says}}
	return r
}

// problemOf is the first error of a check as a problem.
func problemOf(err error) message.Message {
	var fields field.Errors
	if errors.As(err, &fields) && len(fields) > 0 {
		return fields[0].Problem
	}
	if m, ok := message.Of(err); ok {
		return m
	}
	return message.Message{ID: wentWrong}
}

// instance is the request's ID as the URI reference that RFC 9457 asks for.
func instance(t *trace) string {
	if t.id == "" {
		return ""
	}
	return "/requests/" + t.id
}

func write(w http.ResponseWriter, r *http.Request, e *huma.ErrorModel) {
	if e.Status >= http.StatusInternalServerError {
		e.Instance = instance(traceOf(r.Context()))
	}
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(e.Status)
	_ = json.NewEncoder(w).Encode(e) // nobody is left to tell
}

func etag(version int64) string { return `"` + strconv.FormatInt(version, 10) + `"` }

// version is the version in a request's precondition (If-Match).
func (m Precondition) version() (int64, error) {
	if m.IfMatch == "" {
		return 0, refusalOf(428, "api.if-match", nil)
	}
	text := strings.TrimSpace(m.IfMatch)
	v, err := strconv.ParseInt(strings.Trim(text, `"`), 10, 64)
	if err != nil || text != etag(v) {
		r := refusalOf(http.StatusUnprocessableEntity, "api.no-version", nil)
		r.at = []located{{"header.If-Match", message.Message{ID: "api.one-etag"}}}
		return 0, r
	}
	return v, nil
}

// read decodes a body as type T, and rejects unknown names.
func read[T any](raw []byte) (v T, err error) {
	if len(raw) == 0 {
		return v, field.Fault("", "refused.empty-request", nil)
	}
	if err := job.CheckJSON(raw, reflect.TypeFor[T]()); err != nil {
		return v, err
	}
	if err := json.Unmarshal(raw, &v); err != nil {
		return v, misplaced("", err)
	}
	return v, nil
}

// misplaced reports a value of the wrong type, below a pointer.
func misplaced(at string, err error) error {
	var kind *json.UnmarshalTypeError
	if errors.As(err, &kind) && kind.Field != "" {
		at += "/" + strings.ReplaceAll(kind.Field, ".", "/")
	}
	return field.Fault(at, "refused.belongs", message.Args{"why": job.Belongs(err)})
}
