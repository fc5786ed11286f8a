package api

import (
	"reflect"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/measure"
	"kindmargin/core/season"
)

// lengthOnWire stands for measure.Length in the OpenAPI document and in the
// schema of the job file.
type lengthOnWire float64

// Schema describes a length: written as a number of millimetres, read as that or as text with a unit.
func (lengthOnWire) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{Type: huma.TypeNumber, Description: "A length in millimetres, exact to the nanometre."}
}

// texts are the lengths, temperatures and percentages of an opening or of a part of a kit by JSON pointer, formatted for
// entries in the job's unit; a 0 that means "not given" is left out.
func texts(of any, unit measure.Unit) map[string]string {
	out := map[string]string{}
	var walk func(v reflect.Value, at string, given bool)
	walk = func(v reflect.Value, at string, given bool) {
		if v.Type() == lengthType {
			if l := measure.Length(v.Int()); l != 0 || given ||
				strings.HasPrefix(at, "/swing/floor/") || strings.HasPrefix(
				at, "/readings/",
			) && (strings.HasSuffix(at, "/value") ||
				strings.HasSuffix(at, "/at")) || strings.HasPrefix(at, "/margins/") || at == "/pair/meeting" {
				out[at] = measure.Exact(l, unit)
			}
			return
		}
		switch q := v.Interface().(type) {
		case season.Celsius:
			out[at] = q.Text(unit)
		case season.Percent:
			if q != 0 {
				out[at] = q.Text()
			}
		}
		switch v.Kind() {
		case reflect.Struct:
			for i := range v.NumField() {
				name, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
				walk(v.Field(i), at+"/"+name, false)
			}
		case reflect.Slice, reflect.Array:
			for i := range v.Len() {
				walk(v.Index(i), at+"/"+strconv.Itoa(i), false)
			}
		case reflect.Pointer:
			if !v.IsNil() {
				walk(v.Elem(), at, true)
			}
		}
	}
	walk(reflect.ValueOf(of), "", false)
	return out
}
