package document

import (
	"bufio"
	"compress/gzip"
	"encoding/json"
	"maps"
	"os"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/demo"
)

// Version 2 of the plans is written as the program wrote it that had no other: testdata/plans-v2.json.gz was written by
// it, of the demo's houses. What has come since is there besides.
func TestVersion2IsStillWritten(t *testing.T) {
	f, err := os.Open("testdata/plans-v2.json.gz")
	require.NoError(t, err)
	defer f.Close()
	z, err := gzip.NewReader(f)
	require.NoError(t, err)
	lines := bufio.NewScanner(z)
	lines.Buffer(nil, 16<<20)
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	doors := 0
	for _, j := range jobs {
		v, err := Plans(j).In(2)
		require.NoError(t, err)
		b, err := json.Marshal(v)
		require.NoError(t, err)
		var now struct {
			Version int
			Doors   []any
		}
		require.NoError(t, json.Unmarshal(b, &now))
		assert.Equal(t, 2, now.Version)
		for _, d := range now.Doors {
			require.True(t, lines.Scan())
			var was any
			require.NoError(t, json.Unmarshal(lines.Bytes(), &was))
			within(t, "", was, d)
			doors++
		}
	}
	assert.False(t, lines.Scan())
	assert.Equal(t, 7, doors)
	_, err = Plans(jobs[0]).In(1)
	assert.Error(t, err)
}

// A step that changed since it was done was called nicked.
func TestVersion2CallsAChangedStepNicked(t *testing.T) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	f := Plans(jobs[0])
	f.Openings[0].Plan.Steps[0].State = "changed"
	v, err := f.In(2)
	require.NoError(t, err)
	b, err := json.Marshal(v)
	require.NoError(t, err)
	var then struct {
		Doors []struct {
			Plan struct{ Rod []struct{ State string } }
		}
	}
	require.NoError(t, json.Unmarshal(b, &then))
	assert.Equal(t, "nicked", then.Doors[0].Plan.Rod[0].State)
}

// within checks that now has the form of was: its keys, and its kinds of values. What is said and the figures are those
// of today's rules (TestFiguresStay).
func within(t *testing.T, at string, was, now any) {
	switch was := was.(type) {
	case map[string]any:
		in, ok := now.(map[string]any)
		require.True(t, ok, at)
		for k, v := range was {
			if at == "/said" || strings.HasSuffix(at, "/args") { // by what is said
				continue
			}
			is, ok := in[k]
			if !ok && k == "hollow" { // left out where an edge is straight
				continue
			}
			require.True(t, ok, "%s has no %s", at, k)
			within(t, at+"/"+k, v, is)
		}
	case []any:
		in, ok := now.([]any)
		require.True(t, ok, at)
		if len(was) == 0 { // nothing is known of what it holds
			return
		}
		for _, is := range in {
			within(t, at+"/*", common(was), is)
		}
	default:
		assert.IsType(t, was, now, at)
	}
}

// common is the first of a list with only the keys that all of it have.
func common(list []any) any {
	first, ok := list[0].(map[string]any)
	if !ok {
		return list[0]
	}
	all := maps.Clone(first)
	for _, other := range list[1:] {
		maps.DeleteFunc(all, func(k string, v any) bool {
			is, ok := other.(map[string]any)[k]
			return !ok || reflect.TypeOf(is) != reflect.TypeOf(v)
		})
	}
	for k, v := range all { // empty in one, full in another
		if l, ok := v.([]any); ok && len(l) == 0 {
			delete(all, k)
		}
	}
	return all
}
