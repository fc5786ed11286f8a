package job

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"

	"kindmargin/core/survey"
)

// The open job file: JSON with a format name and a version, lengths as
// millimetre numbers or as text with a unit ("35 3/4 in"). Its JSON Schema is
// published in docs/job.schema.json.
const (
	FileFormat  = "kindmargin job"
	FileVersion = 1
)

// File is the open job file.
type File struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	Job     Job    `json:"job"`
}

// Encode writes a job as a job file in its normal form: fields in a fixed
// order, lengths as exact millimetre numbers, two spaces of indent. Encoding
// what Decode read from such a file gives the same bytes.
func Encode(j Job) ([]byte, error) {
	j.normalise()
	b, err := json.MarshalIndent(File{FileFormat, FileVersion, j}, "", "  ")
	if err != nil {
		return nil, fmt.Errorf("writing the job file: %w", err)
	}
	return append(b, '\n'), nil
}

// ErrFile is a job file that cannot be read, in a sentence that says why and
// what to do.
type ErrFile struct{ Problem string }

func (e *ErrFile) Error() string { return e.Problem }

// Decode reads a job file and checks everything in it. It fails with *ErrFile
// for a file that is not one, is cut short, is newer than this program, or
// holds something this program does not keep, and with FieldErrors (pointers
// from the job) for fields that cannot be. Nothing is dropped silently.
func Decode(b []byte) (Job, error) {
	fail := func(format string, a ...any) (Job, error) {
		return Job{}, &ErrFile{fmt.Sprintf(format, a...)}
	}
	var head struct {
		Format  string `json:"format"`
		Version int    `json:"version"`
	}
	if err := json.Unmarshal(b, &head); err != nil {
		return fail("This is not a whole job file (%s). Nothing was changed: take another copy of it.", explain(b, err))
	}
	switch {
	case head.Format != FileFormat:
		return fail("This is not a job file: its format is %q, not %q. Nothing was changed.", head.Format, FileFormat)
	case head.Version > FileVersion:
		return fail("This job file is version %d and this program reads up to version %d. Update the program, then read it again.", head.Version, FileVersion)
	case head.Version < 1:
		return fail("This job file has no version: it should say \"version\": %d.", FileVersion)
	}
	var f File
	dec := json.NewDecoder(bytes.NewReader(b))
	dec.DisallowUnknownFields()
	if err := dec.Decode(&f); err != nil {
		return fail("The job file holds something this program cannot keep (%s). Nothing was changed.", explain(b, err))
	}
	if _, err := dec.Token(); !errors.Is(err, io.EOF) {
		return fail("There is more in the file after the job ends. Nothing was changed: take another copy of it.")
	}
	f.Job.normalise()
	if err := f.Job.Check(); err != nil {
		return Job{}, err
	}
	return f.Job, nil
}

// explain says where reading stopped, by line.
func explain(b []byte, err error) string {
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	offset := int64(-1)
	switch {
	case errors.As(err, &syntax):
		offset = syntax.Offset
	case errors.As(err, &kind):
		offset = kind.Offset
	}
	if offset < 0 || offset > int64(len(b)) {
		return err.Error()
	}
	return fmt.Sprintf("line %d: %s", 1+bytes.Count(b[:offset], []byte("\n")), err)
}

// normalise makes empty lists empty rather than absent.
func (j *Job) normalise() {
	if len(j.Presets) == 0 {
		j.Presets = nil
	}
	if j.Openings == nil {
		j.Openings = []Opening{}
	}
	for i := range j.Openings {
		j.Openings[i].Normalise()
	}
}

// Normalise makes empty lists empty rather than absent, and an empty map
// absent, so that one opening has one form.
func (o *Opening) Normalise() {
	if o.Readings == nil {
		o.Readings = []survey.Reading{}
	}
	if len(o.Hinges.Pockets) == 0 {
		o.Hinges.Pockets = nil
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
	if len(o.Done) == 0 {
		o.Done = nil
	}
}
