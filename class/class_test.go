package class

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/practice"
	"kindmargin/core/survey"
)

const mm = measure.Millimetre

// An exercise goes out, is played without its truth, and is graded with the key, as the same moves are judged where
// all is open.
func TestAClass(t *testing.T) {
	path := filepath.Join(t.TempDir(), "teacher.key")
	key, err := Key(path)
	require.NoError(t, err)
	again, err := Key(path)
	require.NoError(t, err)
	assert.Equal(t, key.String(), again.String(), "the key is made once")
	info, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())

	e, err := practice.New(7, "usual")
	require.NoError(t, err)
	out, err := Seal(e, key.Recipient())
	require.NoError(t, err)
	file := out.Write()
	// Nothing of the opening stands in it: no coordinate, no error of a tool, no seed by which it could be drawn.
	for _, side := range frame.Sides {
		for _, v := range e.Sides[side.String()][1:] {
			if b, _ := json.Marshal(v); len(b) > 4 { // of three decimals
				assert.NotContains(t, string(file), string(b))
			}
		}
	}
	assert.NotContains(t, string(file), `"slips"`)
	assert.Contains(t, string(file), `"seed": 0`)
	handed, err := practice.Read(file)
	require.NoError(t, err)

	read := func(k survey.Kind, side frame.Side, at, from measure.Length) practice.Move {
		return practice.Move{Do: practice.DoRead, Reading: &survey.Reading{Kind: k, Side: side, At: at, From: from}}
	}
	moves := []practice.Move{
		read(survey.Width, 0, 200*mm, 0), read(survey.Width, 0, 1000*mm, 0), read(survey.Width, 0, 1800*mm, 0),
		read(survey.Width, 0, 1800*mm, 0),
		read(survey.Height, 0, 50*mm, 0), read(survey.Height, 0, 776*mm, 0),
		read(survey.Square, frame.Hinge, 600*mm, 0),
		{Do: practice.DoMargins, School: "painted"},
		{Do: practice.DoSlab, Slab: 3},
		{Do: practice.DoEdge, Edge: "keep-lock"},
	}
	s, err := practice.Play(handed, moves)
	require.NoError(t, err)
	narrow := min(s.Readings[0].Value, s.Readings[1].Value, s.Readings[2].Value)
	moves = append(moves, practice.Move{
		Do:  practice.DoCut,
		Cut: &practice.Sizes{Head: narrow - 6*mm, Foot: narrow - 6*mm, Length: s.Readings[4].Value - 9*mm},
	})
	s, err = practice.Play(handed, moves)
	require.NoError(t, err)
	assert.True(t, s.Done, "once it is cut it is handed in")
	assert.Nil(t, s.Grade)
	assert.Empty(t, s.Light, "how it hangs is not told")
	_, err = practice.Play(handed, append(moves, practice.Move{Do: practice.DoDone}))
	assert.Error(t, err)
	_, err = practice.Play(handed, []practice.Move{read(survey.Width, 0, 700*mm, 0)})
	assert.ErrorContains(t, err, "refused.place-not-shown")

	attempt := handed
	attempt.Moves = moves
	back, err := practice.Read(attempt.Write())
	require.NoError(t, err)
	whole, err := Open(back, key)
	require.NoError(t, err)
	graded, err := practice.Play(whole, whole.Moves)
	require.NoError(t, err)
	require.NotNil(t, graded.Grade)
	assert.Equal(t, e.Sides, whole.Sides)
	for i, r := range s.Readings {
		assert.Equal(t, r.Value, graded.Readings[i].Value, "the teacher sees the readings that the learner saw")
	}
	assert.NotEmpty(t, graded.Light)
	assert.Equal(t, len(s.Readings), graded.Grade.Readings)

	other, err := Key(filepath.Join(t.TempDir(), "other.key"))
	require.NoError(t, err)
	_, err = Open(back, other)
	assert.ErrorContains(t, err, "not sealed for this key")
	for name, alter := range map[string]func(*practice.Exercise){
		"a reading": func(x *practice.Exercise) { x.Drawn[1].Values[0] += 10 * mm },
		"a slab":    func(x *practice.Exercise) { x.Slabs[0][0] += 100 * mm },
		"another's truth": func(x *practice.Exercise) {
			o, err := practice.New(8, "usual")
			require.NoError(t, err)
			o, err = Seal(o, key.Recipient())
			require.NoError(t, err)
			x.Sealed = o.Sealed
		},
	} {
		x, err := practice.Read(attempt.Write())
		require.NoError(t, err)
		alter(&x)
		_, err = practice.Read(x.Write())
		assert.ErrorContains(t, err, "altered", name)
		x = x.Seal(x.Sealed) // with a check of its own
		x.Moves = moves
		_, err = practice.Read(x.Write())
		require.NoError(t, err, name)
		_, err = Open(x, key)
		assert.ErrorContains(t, err, "refused.exercise-", name)
	}
}

// What is sealed says each slip that the readings have, and the readings are within what slips and tools do of the
// truth: by the widths of the opening itself.
func TestReadingsOfAClassAreOfItsOpening(t *testing.T) {
	slips, all := 0, 0
	for seed := range uint64(40) {
		e, err := practice.New(seed, "crooked")
		require.NoError(t, err)
		whole, open := practice.ForClass(e)
		assert.Equal(t, len(whole.Drawn), len(open.Drawn))
		for _, d := range whole.Drawn {
			for n, v := range d.Values {
				all++
				if d.Slips[n] != "" {
					slips++
				}
				if d.Reading.Kind == survey.Width && d.Slips[n] == "" {
					assert.InDelta(t, 826, v.MM(), 60, fmt.Sprint(seed, d.Reading))
				}
			}
		}
	}
	assert.InDelta(t, 0.12, float64(slips)/float64(all), 0.02, "a slip in every eighth reading")
}

func TestKeysThatAreNone(t *testing.T) {
	for name, text := range map[string]string{"empty": "", "a letter": "Dear class", "only a word": "# nothing\n\n"} {
		path := filepath.Join(t.TempDir(), "k")
		require.NoError(t, os.WriteFile(path, []byte(text), 0o600))
		_, err := Key(path)
		assert.ErrorContains(t, err, "no key of a class", name)
	}
	_, err := Key(filepath.Join(t.TempDir(), strings.Repeat("none/", 3), "k"))
	assert.Error(t, err)
}
