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

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/store"
)

const wentWrong = "Something went wrong here, so nothing was changed. Your entry is kept: try again, and if it comes again, tell us the number shown."

// What the server underneath would say in its own words.
var plainly = map[int]string{
	http.StatusRequestEntityTooLarge: "That is too large, so nothing was read: a change has at most 1 MB, a schedule 16, a job file 64, one with photographs 256.",
	http.StatusRequestTimeout:        "It took too long to arrive, so nothing was changed. Try again.",
	http.StatusUnsupportedMediaType:  "Send it as JSON (application/json).",
	http.StatusNotAcceptable:         "It is given as JSON only.",
	http.StatusBadRequest:            "The request cannot be read, so nothing was changed: send it whole, as JSON.",
}

func init() {
	of := huma.NewError
	huma.NewError = func(status int, msg string, errs ...error) huma.StatusError {
		if msg == "cannot read request body" { // it was cut off, or is not what it says that it is
			status = http.StatusBadRequest
		}
		if says, ok := plainly[status]; ok {
			return of(status, says)
		}
		return of(status, msg, errs...)
	}
}

// problem turns what core and store say into problem+json (RFC 9457). What went
// wrong inside is kept for the log.
func problem(ctx context.Context, err error) error {
	var fields field.Errors
	var one field.Error
	var file *job.ErrFile
	var parse *measure.ParseError
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
		return huma.Error404NotFound("It is not here: it was taken off, or the address is wrong. Go back to the walk.")
	case errors.Is(err, store.ErrStale):
		return huma.Error412PreconditionFailed("It was changed since you looked, here or on another device. The newer state is shown; your entry is kept: save it again if it still holds.")
	case errors.Is(err, store.ErrKey):
		return huma.Error422UnprocessableEntity("This Idempotency-Key was used for another request, so nothing was done: give this one a key of its own.")
	case errors.Is(err, store.ErrNothing):
		return huma.Error422UnprocessableEntity("There is nothing left to undo or redo.")
	case errors.Is(err, store.ErrFull):
		return huma.Error422UnprocessableEntity("The job holds " + strconv.Itoa(store.MostDoors) + " doors, as many as it can: begin another job.")
	}
	t := traceOf(ctx)
	t.cause = err
	status, says := http.StatusInternalServerError, wentWrong
	switch {
	case errors.Is(err, store.ErrDisk):
		status, says = http.StatusInsufficientStorage, "The disk is full or cannot be written, so this was not saved. Your entry is kept: make room, then save it again."
	case errors.Is(err, store.ErrBusy), errors.Is(err, context.DeadlineExceeded):
		status, says = http.StatusServiceUnavailable, "The data file is held by another program, so this was not done. Your entry is kept: try again in a moment."
	case errors.Is(err, store.ErrGone):
		status, says = http.StatusInsufficientStorage, "The data file was removed or replaced while Kind Margin ran, so nothing is saved any more. Your entry is kept: stop the program, put the file back or go on from a backup, and start it again."
	case errors.Is(err, store.ErrDamaged):
		says = "What is kept of this cannot be read: the data file is damaged there. Nothing was changed: run kindmargin check, and take it from a backup."
	}
	e := huma.NewError(status, says).(*huma.ErrorModel)
	e.Instance = instance(t)
	if status == http.StatusServiceUnavailable {
		return huma.ErrorWithHeaders(e, http.Header{"Retry-After": {"2"}})
	}
	return e
}

// unreadable is a request that cannot be meant, at one of its parameters.
func unreadable(at, says string) error {
	return &huma.ErrorModel{
		Status: http.StatusBadRequest, Title: http.StatusText(http.StatusBadRequest), Detail: says,
		Errors: []*huma.ErrorDetail{{Location: at, Message: says}},
	}
}

// problemOf is the first thing that cannot be of what a check found.
func problemOf(err error) string {
	var fields field.Errors
	if errors.As(err, &fields) && len(fields) > 0 {
		return fields[0].Problem
	}
	return err.Error()
}

// instance is the request's ID as the URI reference that RFC 9457 asks for.
func instance(t *trace) string {
	if t.id == "" {
		return ""
	}
	return "/requests/" + t.id
}

func write(w http.ResponseWriter, r *http.Request, e *huma.ErrorModel) {
	if e.Status >= 500 {
		e.Instance = instance(traceOf(r.Context()))
	}
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(e.Status)
	_ = json.NewEncoder(w).Encode(e) // nobody is left to tell
}

func etag(version int64) string { return `"` + strconv.FormatInt(version, 10) + `"` }

// version is the version that a change was made from.
func (m Precondition) version() (int64, error) {
	if m.IfMatch == "" {
		return 0, huma.Error428PreconditionRequired("A change says which version it was made from: send If-Match with the ETag last read.")
	}
	text := strings.TrimSpace(m.IfMatch)
	v, err := strconv.ParseInt(strings.Trim(text, `"`), 10, 64)
	if err != nil || text != etag(v) {
		return 0, huma.NewError(http.StatusUnprocessableEntity, "If-Match holds no version: send the ETag last read, as it was, with its quotes.",
			&huma.ErrorDetail{Location: "header.If-Match", Message: "Send one ETag, such as \"12\"."})
	}
	return v, nil
}

// read is a body as type T, with every name in it one that T has.
func read[T any](raw []byte) (v T, err error) {
	if len(raw) == 0 {
		return v, field.Error{Problem: "The request says nothing: send it as JSON."}
	}
	if err := job.CheckJSON(raw, reflect.TypeFor[T]()); err != nil {
		return v, err
	}
	if err := json.Unmarshal(raw, &v); err != nil {
		return v, misplaced("", err)
	}
	return v, nil
}

// misplaced says what does not belong where it stands, below a pointer.
func misplaced(at string, err error) error {
	var kind *json.UnmarshalTypeError
	if errors.As(err, &kind) && kind.Field != "" {
		at += "/" + strings.ReplaceAll(kind.Field, ".", "/")
	}
	return field.Error{Pointer: at, Problem: "That does not belong there: " + job.Belongs(err) + "."}
}
