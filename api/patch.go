package api

import (
	"encoding/json"
	"errors"
	"net/http"
	"reflect"
	"slices"
	"sort"
	"strconv"
	"strings"

	jsonpatch "github.com/evanphx/json-patch/v5"

	"kindmargin/core/field"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/survey"
	"kindmargin/core/swing"
)

// mostOps is the largest number of operations of a patch: all readings of an opening.
const mostOps = 1000

type op struct {
	Op    string          `json:"op"`
	Path  string          `json:"path"`
	Value json.RawMessage `json:"value"`
}

// readOps decodes a patch, each name and place in it exactly one that an opening has.
func readOps(raw []byte) ([]op, error) {
	ops, err := read[[]op](raw)
	if err != nil {
		return nil, err
	}
	if len(ops) == 0 || len(ops) > mostOps {
		return nil, field.Fault("", "refused.ops", message.Args{
			"most": message.Number(mostOps), "given": message.Number(len(ops)),
		})
	}
	for i := range ops {
		ops[i].Path = job.Now(ops[i].Path)
		o := ops[i]
		if !slices.Contains([]string{"add", "remove", "replace", "test"}, o.Op) {
			return nil, field.Fault(pointer(o), "refused.op", nil)
		}
		t, ok := job.TypeAt(openingType, o.Path)
		if !ok || o.Path == "" {
			return nil, field.Fault(pointer(o), "refused.op-place", nil)
		}
		if o.Op == "remove" {
			continue
		}
		if o.Value == nil {
			return nil, field.Fault(pointer(o), "refused.op-value", nil)
		}
		var f field.Error
		if errors.As(job.CheckJSON(o.Value, t), &f) {
			return nil, field.Error{Pointer: pointer(o) + f.Pointer, Problem: f.Problem}
		}
	}
	return ops, nil
}

// pointer is an operation's path, truncated for messages.
func pointer(o op) string {
	if len(o.Path) > 100 {
		return o.Path[:strings.LastIndexByte(o.Path[:100], '/')+1]
	}
	return o.Path
}

// patched is an opening after a JSON Patch whose lengths may be text as typed.
func patched(o job.Opening, ops []op, unit measure.Unit) (job.Opening, error) {
	var bad field.Errors
	for i, op := range ops {
		if op.Op == "remove" {
			continue
		}
		var v any
		if err := json.Unmarshal(op.Value, &v); err != nil {
			return o, misplaced(pointer(op), err)
		}
		value, err := json.Marshal(readLengths(op.Path, v, unit, &bad))
		if err != nil {
			return o, err
		}
		ops[i].Value = value
	}
	if len(bad) > 0 {
		return o, bad[:min(len(bad), 20)]
	}
	doc, err := json.Marshal(struct { // what nothing is said of is there too, so that something can be
		job.Opening
		Cut    cutWhole      `json:"cut"`
		Swing  swing.Choice  `json:"swing"`
		Seen   job.Seen      `json:"seen"`
		Stops  lock.Stops    `json:"stops"`
		Season season.Choice `json:"season"`
		Notes  []job.Note    `json:"notes"`
		Tried  []job.Tried   `json:"tried"`
	}{
		o,
		cutWhole{o.Cut, o.Cut.Insert, o.Cut.Means},
		o.Swing, o.Seen, o.Stops, o.Season,
		append([]job.Note{}, o.Notes...), append([]job.Tried{}, o.Tried...),
	})
	if err != nil {
		return o, err
	}
	if doc, err = apply(doc, ops); err != nil {
		return o, err
	}
	var after job.Opening
	if err := json.Unmarshal(doc, &after); err != nil {
		return o, wrongAt(ops, err)
	}
	if after.ID != o.ID {
		return o, field.Fault("/id", "refused.opening-keeps-id", nil)
	}
	number(after.Readings, "r")
	numberHangs(after.Tried)
	after.Normalise()
	return after, nil
}

// cutWhole is a cut with its insert and its means, whatever is said of them.
type cutWhole struct {
	job.Cut
	Insert job.Insert `json:"insert"`
	Means  job.Means  `json:"means"`
}

// apply applies a JSON Patch; its error names the operation that failed.
func apply(doc []byte, ops []op) ([]byte, error) {
	try := func(n int) ([]byte, error) {
		raw, err := json.Marshal(ops[:n])
		if err != nil {
			return nil, err
		}
		patch, err := jsonpatch.DecodePatch(raw)
		if err != nil {
			return nil, err
		}
		return patch.ApplyWithOptions(doc, &jsonpatch.ApplyOptions{EscapeHTML: false})
	}
	after, err := try(len(ops))
	if err == nil {
		return after, nil
	}
	i := sort.Search(len(ops)-1, func(n int) bool { _, err := try(n + 1); return err != nil })
	at := pointer(ops[i])
	if ops[i].Op == "test" {
		r := refusalOf(http.StatusPreconditionFailed, "api.moved", nil)
		r.at = []located{{at, message.Message{ID: "api.something-else"}}}
		return nil, r
	}
	return nil, field.Fault(at, "refused.op-fits-not", nil)
}

// wrongAt points at the operation whose value has the wrong type for its place.
func wrongAt(ops []op, err error) error {
	for _, o := range ops {
		if o.Op == "remove" {
			continue
		}
		t, ok := job.TypeAt(openingType, o.Path)
		if !ok {
			continue
		}
		if err := json.Unmarshal(o.Value, reflect.New(t).Interface()); err != nil {
			return misplaced(pointer(o), err)
		}
	}
	return misplaced("", err)
}

var (
	openingType = reflect.TypeFor[job.Opening]()
	lengthType  = reflect.TypeFor[measure.Length]()
	celsiusType = reflect.TypeFor[season.Celsius]()
	percentType = reflect.TypeFor[season.Percent]()
)

// readText parses text at a place of an opening that holds a length, a temperature or a percentage; other text is
// unchanged.
func readText(pointer, text string, unit measure.Unit) (any, error) {
	t, ok := job.TypeAt(openingType, pointer)
	for ok && t != nil && t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch {
	case !ok:
		return text, nil
	case t == lengthType:
		return measure.Parse(text, unit)
	case t == celsiusType:
		return season.ParseCelsius(text, unit)
	case t == percentType:
		return season.ParsePercent(text)
	}
	return text, nil
}

// readLengths replaces text by numbers at all such places.
func readLengths(at string, value any, unit measure.Unit, bad *field.Errors) any {
	switch v := value.(type) {
	case string:
		read, err := readText(at, v, unit)
		if err != nil {
			bad.Under(at, err)
			return nil
		}
		return read
	case map[string]any:
		for k := range v {
			v[k] = readLengths(at+"/"+job.Escape(k), v[k], unit, bad)
		}
	case []any:
		for i := range v {
			v[i] = readLengths(at+"/"+strconv.Itoa(i), v[i], unit, bad)
		}
	}
	return value
}

// numberHangs gives IDs to hangs and gaps that have none.
func numberHangs(tried []job.Tried) {
	next := 1
	for _, t := range tried {
		for _, h := range t.Hangs {
			if n, err := strconv.Atoi(strings.TrimPrefix(h.ID, "h")); err == nil && n >= next {
				next = n + 1
			}
		}
	}
	for _, t := range tried {
		for i := range t.Hangs {
			h := &t.Hangs[i]
			if h.ID == "" {
				h.ID = "h" + strconv.Itoa(next)
				next++
			}
			for k := range h.Gaps {
				if h.Gaps[k].Offer == "" {
					h.Gaps[k].Offer = h.ID
				}
			}
			number(h.Gaps, "g")
		}
	}
}

// number gives IDs, each beginning with a letter, to readings that have none.
func number(rs []survey.Reading, letter string) {
	next := 1
	for _, r := range rs {
		if n, err := strconv.Atoi(strings.TrimPrefix(r.ID, letter)); err == nil && n >= next {
			next = n + 1
		}
	}
	for i := range rs {
		if rs[i].ID == "" {
			rs[i].ID = letter + strconv.Itoa(next)
			next++
		}
	}
}
