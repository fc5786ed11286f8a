package job

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"reflect"
	"strings"

	"kindmargin/core/field"
	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// The open job file: JSON with a format name and a version, lengths as
// millimetre numbers or as text with a unit ("30 5/8 in"). Its JSON Schema is
// published in docs/job.schema.json.
const (
	FileFormat  = "kindmargin job"
	FileVersion = 4 // since then latches and locks are hardware
)

// File is the content of a job file.
type File struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	Job     Job    `json:"job"`
}

// Encode writes a job as a job file in canonical form: fields in a fixed order, lengths as exact millimetre numbers,
// two spaces of indent. Encode after Decode of such a file gives the same bytes.
func Encode(j Job) ([]byte, error) {
	j.normalise()
	b, err := json.MarshalIndent(File{FileFormat, FileVersion, j}, "", "  ")
	if err != nil {
		return nil, fmt.Errorf("writing the job file: %w", err)
	}
	return append(b, '\n'), nil
}

// ErrFile reports a job file that cannot be read.
type ErrFile struct{ Problem message.Message }

func (e *ErrFile) Error() string { return e.Problem.String() }

// Message is the problem, for people.
func (e *ErrFile) Message() message.Message { return e.Problem }

// Decode reads and checks a job file. It fails with *ErrFile for a file that is not one, is cut short, is newer than
// this program, or holds unknown fields, and with field.Errors (pointers from the job) for invalid values. Nothing is
// dropped silently.
func Decode(b []byte) (Job, error) {
	fail := func(id message.ID, args message.Args) (Job, error) {
		return Job{}, &ErrFile{message.Message{ID: id, Args: args}}
	}
	b = bytes.TrimPrefix(b, []byte("\uFEFF")) // the mark that some editors put before UTF-8
	var head struct {
		Format  string `json:"format"`
		Version int    `json:"version"`
	}
	if err := json.NewDecoder(bytes.NewReader(b)).Decode(&head); err != nil {
		return fail("file.not-whole", message.Args{"why": explain(b, err)})
	}
	switch {
	case head.Format != FileFormat:
		return fail("file.other-format", message.Args{"given": message.Quote(head.Format), "format": FileFormat})
	case head.Version > FileVersion:
		return fail("file.newer", message.Args{
			"version": message.Number(head.Version), "most": message.Number(FileVersion),
		})
	case head.Version < 1:
		return fail("file.no-version", message.Args{"version": message.Number(FileVersion)})
	}
	if head.Version < 4 {
		b = rename(b, nameInFile)
	}
	var own field.Error
	if errors.As(CheckJSON(b, reflect.TypeFor[File]()), &own) {
		if own.Pointer == "" {
			return fail("file.not-read", message.Args{"problem": own.Problem})
		}
		return fail("file.not-read-at", message.Args{"at": own.Pointer, "problem": own.Problem})
	}
	var f File
	if err := json.Unmarshal(b, &f); err != nil {
		return fail("file.not-kept", message.Args{"why": explain(b, err)})
	}
	if f.Version < 2 {
		for i := range f.Job.Openings {
			f.Job.Openings[i].upgrade()
		}
	}
	f.Job.normalise()
	if err := f.Job.Check(); err != nil {
		return Job{}, err
	}
	return f.Job, nil
}

// wordsOf1 maps choices that version 1 kept as words to their IDs.
var wordsOf1 = map[string]string{
	"old opening": "old", "new frame": "new",
	"by rule": "by-rule", "keep lock edge": "keep-lock", "keep hinge edge": "keep-hinge", "even stiles": "even-stiles",
	"as offered up": "as-offered",
	"keep head":     "keep-head", "even ends": "even-ends", "keep foot": "keep-foot",
	"bore to the strike": "bore-to-strike",
	"cut once when sure": "when-sure", "always leave 3 mm": "always-3", "cut to the line": "to-line",
}

// now is the ID of a choice that version 1 kept as words.
func now[T ~string](word T) T {
	if id, ok := wordsOf1[string(word)]; ok {
		return T(id)
	}
	return word
}

// seenAgain is the reason by which pages of version 1 marked a Reopened that begins a revisit.
const seenAgain = "looked at again: "

// upgrade brings an opening of version 1 to the present form.
func (o *Opening) upgrade() {
	c := &o.Cut
	o.Walls, c.LeaveOn, c.LockEdge, c.Head = now(o.Walls), now(c.LeaveOn), now(c.LockEdge), now(c.Head)
	if c.Registration == "as the limits share it" {
		c.Registration = fit.ShareWidth
	}
	if c.Ends == "as the limits share it" {
		c.Ends = fit.ShareLength
	}
	c.Registration, c.Ends = now(c.Registration), now(c.Ends)
}

// explain says at which line reading stopped, and what stands there.
func explain(b []byte, err error) message.Message {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	line := func(offset int64) message.Number {
		return message.Number(1 + bytes.Count(b[:min(max(offset, 0), int64(len(b)))], []byte("\n")))
	}
	switch {
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		return message.Message{ID: "file.breaks-off", Args: message.Args{"line": line(int64(len(b)))}}
	case errors.As(err, &syntax):
		return message.Message{ID: "file.breaks-off", Args: message.Args{"line": line(syntax.Offset)}}
	case errors.As(err, &kind):
		return message.Message{
			ID: "file.at-line", Args: message.Args{"line": line(kind.Offset), "problem": Belongs(err)},
		}
	}
	return Belongs(err)
}

// jsonTypes are the JSON types that json.Unmarshal reports.
var jsonTypes = map[reflect.Kind]message.ID{
	reflect.String: "json.string", reflect.Bool: "json.bool", reflect.Slice: "json.array",
	reflect.Struct: "json.object",
	reflect.Map:    "json.object", reflect.Int: "json.integer", reflect.Int64: "json.length",
	reflect.Float64: "json.number",
}

// Belongs is the message of a value that json.Unmarshal could not store in its field.
func Belongs(err error) message.Message {
	var kind *json.UnmarshalTypeError
	if m, ok := message.Of(err); ok {
		return m
	}
	if errors.As(err, &kind) {
		is, _, _ := strings.Cut(kind.Value, " ") // "number 3.5": the digits are of no use here
		return message.Message{
			ID:   "file.belongs",
			Args: message.Args{"is": message.ID("json." + is), "wanted": jsonTypes[kind.Type.Kind()]},
		}
	}
	return message.Message{ID: "file.unreadable"}
}

// normalise replaces a nil list by an empty one.
func (j *Job) normalise() {
	if len(j.Presets) == 0 {
		j.Presets = nil
	}
	if len(j.Kit.Tools) == 0 {
		j.Kit.Tools = nil
	}
	if len(j.Kit.Hinges) == 0 {
		j.Kit.Hinges = nil
	}
	if len(j.Kit.Hardware) == 0 {
		j.Kit.Hardware = nil
	}
	if len(j.Kit.Bits) == 0 {
		j.Kit.Bits = nil
	}
	if j.Openings == nil {
		j.Openings = []Opening{}
	}
	for i := range j.Openings {
		j.Openings[i].Normalise()
	}
}

// Normalise brings an opening to canonical form: empty lists instead of nil, nil instead of an empty map; and fields in
// the form of files before version 2 to the present one.
func (o *Opening) Normalise() {
	if o.Readings == nil {
		o.Readings = []survey.Reading{}
	}
	if len(o.Hinges.Pockets) == 0 {
		o.Hinges.Pockets = nil
	}
	if len(o.Hinges.Places) == 0 {
		o.Hinges.Places = nil
	}
	if len(o.Hinges.Old) > len(o.Hinges.Pockets) { // one was taken out
		o.Hinges.Old = o.Hinges.Old[:len(o.Hinges.Pockets)]
	}
	if len(o.Hinges.Old) == 0 {
		o.Hinges.Old = nil
	}
	if len(o.Lock.Avoid) == 0 {
		o.Lock.Avoid = nil
	}
	if len(o.Lock.Old) == 0 {
		o.Lock.Old = nil
	}
	if len(o.Hinges.Avoid) == 0 {
		o.Hinges.Avoid = nil
	}
	if o.OneSigma != 0 {
		o.PlusMinus, o.OneSigma = figure.Coverage*o.OneSigma, 0
	}
	for i := range o.Readings {
		if r := &o.Readings[i]; r.OneSigma != 0 {
			r.PlusMinus, r.OneSigma = figure.Coverage*r.OneSigma, 0
		}
	}
	if len(o.Offers) == 0 {
		o.Offers = nil
	}
	if len(o.Slab.Machined) == 0 {
		o.Slab.Machined = nil
	}
	if o.Pair != nil && len(o.Pair.Slab.Machined) == 0 {
		pair := *o.Pair
		pair.Slab.Machined = nil
		o.Pair = &pair
	}
	for i := range o.Tried {
		t := &o.Tried[i]
		if t.Hangs == nil {
			t.Hangs = []Hang{}
		}
		for k := range t.Hangs {
			if t.Hangs[k].Gaps == nil {
				t.Hangs[k].Gaps = []survey.Reading{}
			}
		}
	}
	if len(o.Tried) == 0 {
		o.Tried = nil
	}
	if len(o.Notes) == 0 {
		o.Notes = nil
	}
	if len(o.Reopened) == 0 {
		o.Reopened = nil
	}
	for i, r := range o.Reopened {
		if season, ok := strings.CutPrefix(r.Why, seenAgain); ok && r.Revisit == "" {
			o.Reopened[i].Why, o.Reopened[i].Revisit = "", season
		}
	}
	if len(o.Done) == 0 {
		o.Done = nil
	}
	if len(o.Ticked) == 0 {
		o.Ticked = nil
	}
}
