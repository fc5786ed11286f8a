package api

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/practice"
	"kindmargin/words"
)

// An exercise is handed out as a file, played move by move without its truth being told, kept once it is
// done, and graded; an altered file and a move that cannot be are refused with why.
func TestPractising(t *testing.T) {
	s := run(t)
	p := got[Practice](t, s.do("GET", "/practice", "", nil))
	assert.Equal(t, "opening", p.Next)
	assert.Len(t, p.Drills, 7)
	file := s.do("GET", "/practice/exercise?seed=4&level=even", "", nil)
	require.Equal(t, 200, file.status)
	assert.Contains(t, file.header.Get("Content-Disposition"), "even-4.exercise.json")
	_, err := practice.Read(file.raw)
	require.NoError(t, err)

	moves := []map[string]any{{"do": "read", "reading": map[string]any{"kind": "width", "at": "1000 mm"}}}
	play := func(keep bool, more ...map[string]any) answer {
		moves = append(moves, more...)
		return s.do("POST", "/practice/play", "", map[string]any{
			"file": string(file.raw), "moves": moves, "by": "Wren", "keep": keep,
		})
	}
	v := got[Played](t, play(false))
	require.Len(t, v.Readings, 1)
	assert.Equal(t, "width, 1000 mm up", v.Readings[0].Name)
	assert.Empty(t, v.Attempt, "what is true is not told before it is done")
	refused := play(false, map[string]any{"do": "cut", "plan": true})
	assert.Equal(t, 422, refused.status)
	assert.Contains(t, string(refused.raw), "Choose a slab first")
	moves = moves[:1]
	v = got[Played](t, play(
		true, map[string]any{"do": "margins", "school": "painted"}, map[string]any{"do": "slab", "slab": 3},
		map[string]any{"do": "edge", "edge": "keep-lock"},
		map[string]any{
			"do":  "cut",
			"cut": map[string]any{"head": "32 in", "foot": "815 mm", "length": 2010, "headUp": 0, "footUp": 0},
		}, map[string]any{"do": "done"},
	))
	require.NotNil(t, v.Grade)
	assert.Len(t, v.Light, 12)
	e, err := practice.Read([]byte(v.Attempt))
	require.NoError(t, err)
	assert.Len(t, e.Moves, 6)

	d := got[Drilled](t, s.do("GET", "/practice/drills/pocket?seed=9", "", nil))
	want, err := practice.Ask("pocket", 9)
	require.NoError(t, err)
	require.Len(t, d.Answers, len(want.Answers))
	assert.Equal(t, words.Voice{}.Say(want.Answers[0]), d.Answers[0])
	told := got[DrillTold](
		t, s.do("POST", "/practice/drills/pocket?seed=9", "", Answered{Answer: want.Right, By: "Wren"}),
	)
	assert.True(t, told.Right)

	p = got[Practice](t, s.do("GET", "/practice", "", nil))
	require.Len(t, p.Runs, 2)
	assert.Equal(t, "pocket", p.Runs[0].Kind)
	assert.False(t, p.Runs[1].Right)

	for _, c := range []struct {
		a    answer
		says string
	}{
		{s.do("POST", "/practice/play", "", map[string]any{
			"file": strings.Replace(string(file.raw), `"even"`, `"usual"`, 1), "moves": []any{},
		}), "was altered"},
		{s.do("POST", "/practice/play", "", map[string]any{"seed": 1, "level": "easy", "moves": []any{}}), "no level"},
		{s.do("GET", "/practice/exercise?seed=1&level=hard", "", nil), "no level"},
		{s.do("GET", "/practice/drills/juggling?seed=1", "", nil), "no drill"},
		{s.do("POST", "/practice/drills/hand?seed=1", "", Answered{Answer: 9}), "Take one of the 2 answers"},
	} {
		assert.Equal(t, 422, c.a.status, "%s", c.a.raw)
		assert.Contains(t, string(c.a.raw), c.says)
	}
}
