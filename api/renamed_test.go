package api

import (
	"encoding/json"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/document"
)

// What a page that is still open, a bookmark or a script of before asks for by a name of then is answered.
func TestNamesOfBeforeAreAnswered(t *testing.T) {
	s := run(t)
	path, w := s.tern()
	require.NotEmpty(t, w.Openings)

	assert.Equal(t, 200, s.do("GET", path+"/openings/linen/sheet?template=rod&format=svg", "", nil).status)
	assert.Equal(t, 200, s.do("GET", path+"/drawings?doors=linen", "", nil).status)
	assert.Equal(t, 200, s.do("GET", path+"/paper?kind=card&doors=linen", "", nil).status)
	assert.Equal(t, 404, s.do("DELETE", "/passes/none", "", nil).status, "there is no such pass, and there is "+
		"such an address")
	assert.NotEqual(t, 404, s.do("POST", "/pairing", "", nil).status)
	assert.NotEqual(t, 404, s.do("POST", "/pair", "", Pairing{"0000-0000", "phone"}).status)
	assert.Equal(t, 404, s.do("GET", "/sheet", "", nil).status)

	// An entry that waited on a phone names a key as it was called then.
	at := path + "/openings/galley"
	tag := s.do("GET", at, "", nil).etag
	was := got[OpeningView](t, s.do("GET", at, "", nil)).Opening.Lock.Hardware
	a := s.do("PATCH", at, tag, json.RawMessage(
		`[{"op": "test", "path": "/lock/device", "value": "`+was+`"}, {"op": "add", "path": "/lock/device", "value": "code-6"}]`,
	))
	require.Equal(t, 200, a.status, string(a.raw))
	assert.Equal(t, "code-6", got[OpeningView](t, a).Opening.Lock.Hardware)

	// What it sends whole names a list as it was called then.
	a = s.do("POST", "/exports", "", json.RawMessage(
		`{"what": "card", "job": "`+strings.TrimPrefix(path, "/jobs/")+`", "doors": ["linen"]}`,
	))
	require.Less(t, a.status, 300, string(a.raw))
	day := path + "/day?now=2026-11-26T08:00"
	a = s.do("PUT", day, `"0"`, json.RawMessage(
		`{"date": "2026-11-26", "carpenters": [{"name": "Wren", "from": 480, "to": 1020}], "doors": ["linen"]}`,
	))
	require.Equal(t, 200, a.status, string(a.raw))
	assert.Equal(t, []string{"linen"}, got[document.DayOf](t, a).Day.Openings)
	head := s.walk(path).Job
	mine := got[Trade](t, s.do("GET", "/trade", "", nil)).Hardware[0]
	mine.ID, mine.Name = "mine", "Of mine"
	head.Kit.Hardware = append(head.Kit.Hardware, mine)
	kit, err := json.Marshal(head.Kit)
	require.NoError(t, err)
	then := strings.Replace(string(kit), `"hardware":[`, `"devices":[`, 1)
	require.NotEqual(t, string(kit), then)
	a = s.do("PATCH", path, etag(head.Version), json.RawMessage(`{"kit": `+then+`}`))
	require.Equal(t, 200, a.status, string(a.raw))
	assert.Equal(t, head.Kit.Hardware, got[JobHead](t, a).Kit.Hardware)
}

// The wire's names follow one rule: keys in camel case, an ID ends in Id, and nothing is called by a word that the
// glossary gave away (docs/glossary.md): a client is no device, hardware neither; an opening is no door; a document is
// no sheet.
func TestTheWiresNamesFollowOneRule(t *testing.T) {
	b, err := OpenAPI()
	require.NoError(t, err)
	var doc struct {
		Paths      map[string]map[string]struct{ Parameters []struct{ Name, In string } }
		Components struct {
			Schemas map[string]struct{ Properties map[string]json.RawMessage }
		}
	}
	require.NoError(t, json.Unmarshal(b, &doc))
	given := regexp.MustCompile(`(?i)device|notch|sheet|doors?(?:$|[A-Z])|^doors?`)
	key := regexp.MustCompile(`^[a-z][a-zA-Z0-9]*$`)
	names := 0
	for path, methods := range doc.Paths {
		assert.NotRegexp(t, given, strings.ReplaceAll(path, "/api/", ""), path)
		for _, m := range methods {
			for _, p := range m.Parameters {
				if p.In == "header" {
					continue
				}
				names++
				assert.Regexp(t, key, p.Name, path)
				assert.NotRegexp(t, given, p.Name, path)
			}
		}
	}
	for schema, s := range doc.Components.Schemas {
		assert.NotRegexp(t, given, schema)
		for name := range s.Properties {
			names++
			if name == "$schema" {
				continue
			}
			assert.Regexp(t, key, name, schema)
			assert.NotRegexp(t, given, name, schema)
			assert.NotRegexp(t, `[a-z]ID$`, name, schema)
		}
	}
	assert.Greater(t, names, 700)
}
