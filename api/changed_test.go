package api

import (
	"encoding/json"
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A step that was finished tells each change since that gave it another mark, in order, and none that did not; one that
// was not finished tells nothing, nor does one that there is none of.
func TestWhatChangedAStep(t *testing.T) {
	s := serving(t, 1)
	const door = "/api/jobs/works/openings/d0"
	_, tag := s.ask("GET", door, "", "")
	change := func(patch, label string) {
		status, next := s.ask("PATCH", door+"?label="+label+"&by=Wren", tag, patch)
		require.Equal(t, 200, status, patch)
		tag = next
	}
	read := func(path string, into any) {
		res, err := http.Get(s.url + path)
		require.NoError(t, err)
		defer res.Body.Close()
		require.Equal(t, 200, res.StatusCode)
		require.NoError(t, json.NewDecoder(res.Body).Decode(into))
	}
	told := func(step string) (v ChangedStep) {
		read(door+"/changed?step="+step, &v)
		return v
	}
	var v OpeningView
	read(door, &v)
	change(fmt.Sprintf(`[{"op": "add", "path": "/done", "value": {"measure": %q}}]`, v.Plan.Steps[0].Mark), "done")
	assert.Empty(t, told("measure").Changes)
	change(`[{"op": "replace", "path": "/readings/0/value", "value": 819.5}]`, "one")
	change(`[{"op": "add", "path": "/room", "value": "Loft"}]`, "room")
	change(`[{"op": "replace", "path": "/readings/0/value", "value": 818.5}]`, "two")
	now := told("measure")
	require.Len(t, now.Changes, 2)
	assert.Equal(t, []string{"one", "two"}, []string{now.Changes[0].Label, now.Changes[1].Label})
	assert.Equal(t, "Wren", now.Changes[1].By)
	assert.NotEmpty(t, now.Since)
	assert.Empty(t, told("slab").Changes)
	assert.Empty(t, told("none").Changes)
}
