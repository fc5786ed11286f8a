package store

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/measure"
)

// house is a job of some doors, called 0, 1, 2 …
func house(t *testing.T, s *Store, doors int) (Head, []Kept) {
	j := job.NewJob("house", "House", measure.Millimetres)
	for i := range doors {
		j.Openings = append(j.Openings, job.NewOpening(fmt.Sprint("d", i), fmt.Sprint(i), measure.Millimetres))
	}
	head, err := s.AddJob(t.Context(), j, Once{})
	require.NoError(t, err)
	_, walk, _, err := s.Job(t.Context(), head.ID)
	require.NoError(t, err)
	return head, walk
}

func order(t *testing.T, s *Store, id string) (names string) {
	_, walk, _, err := s.Job(t.Context(), id)
	require.NoError(t, err)
	for _, k := range walk {
		names += k.Opening.Name
	}
	return names
}

// A data file of the sixth form, from before a job said what is usual in it, opens.
func TestADataFileOfTheSixthFormOpens(t *testing.T) {
	s := ofForm(t, "form6")
	heads, err := s.Jobs(t.Context())
	require.NoError(t, err)
	require.Len(t, heads, 1)
	assert.Equal(t, "Plover House", heads[0].Name)
	assert.Equal(t, job.Usual{}, heads[0].Usual)
	_, walk, _, err := s.Job(t.Context(), heads[0].ID)
	require.NoError(t, err)
	assert.Equal(t, measure.FromMM(826), walk[0].Opening.Readings[0].Value)
	assert.FileExists(t, s.path+".form6")
}

func TestWhatIsUsualIsKept(t *testing.T) {
	s, path := fresh(t)
	head, _ := house(t, s, 0)
	from := job.NewOpening("", "Study", measure.Millimetres)
	from.Lock.Handle = measure.FromMM(1020)
	head.Usual = head.Usual.Set(head.Unit, from, job.Parts)
	_, err := s.SetHead(t.Context(), head, head.Version, Once{})
	require.NoError(t, err)
	require.NoError(t, s.Close())
	s = open(t, path)
	now, err := s.Head(t.Context(), head.ID)
	require.NoError(t, err)
	assert.Equal(t, measure.FromMM(1020), now.Job().Begin("", "Another").Lock.Handle)
}

// Doors are put anywhere on the walk, also beside one that was taken off, and stay there.
func TestDoorsAreReordered(t *testing.T) {
	s, _ := fresh(t)
	head, walk := house(t, s, 5)
	for _, c := range []struct{ id, before, is string }{
		{"d0", "d3", "12034"},
		{"d4", "d1", "41203"},
		{"d4", "", "12034"},
		{"d2", "d2", "12034"},
		{"d1", "d2", "12034"},
	} {
		was, err := s.Head(t.Context(), head.ID)
		require.NoError(t, err)
		require.NoError(t, s.Place(t.Context(), head.ID, c.id, c.before))
		assert.Equal(t, c.is, order(t, s, head.ID), "%s before %s", c.id, c.before)
		now, err := s.Head(t.Context(), head.ID)
		require.NoError(t, err)
		if c.id != c.before {
			assert.Greater(t, now.Walk, was.Walk, "whoever reads the walk by its tag sees it")
		}
	}
	require.NoError(t, s.Remove(t.Context(), head.ID, "d0", walk[0].Version))
	require.NoError(t, s.Place(t.Context(), head.ID, "d4", "d3"))
	assert.Equal(t, "1243", order(t, s, head.ID))
	require.NoError(t, s.PutBack(t.Context(), head.ID, "d0"))
	assert.Equal(t, "12043", order(t, s, head.ID), "it comes back where it was")
	assert.ErrorIs(t, s.Place(t.Context(), head.ID, "none", ""), ErrNotFound)
	assert.ErrorIs(t, s.Place(t.Context(), head.ID, "d1", "none"), ErrNotFound)
}

// Many doors are changed at once or not at all, and taken back at once or not at all.
func TestManyDoorsAtOnce(t *testing.T) {
	s, _ := fresh(t)
	head, walk := house(t, s, 3)
	var to []job.Opening
	for _, k := range walk {
		o := k.Opening
		o.Room = "Hall"
		to = append(to, o)
	}
	_, err := s.SaveAll(
		t.Context(), head.ID, "rooms",
		append(walk[:2:2], Kept{Job: walk[2].Job, Opening: walk[2].Opening, Version: walk[1].Version}), to, Once{},
	)
	require.ErrorIs(t, err, ErrStale)
	assert.ErrorContains(t, err, "2")
	k, err := s.Opening(t.Context(), head.ID, "d0")
	require.NoError(t, err)
	assert.Empty(t, k.Opening.Room, "none was changed")

	key := Once{Key: "rooms", Asked: "all to the hall"}
	at, err := s.SaveAll(t.Context(), head.ID, "rooms", walk, to, key)
	require.NoError(t, err)
	require.Len(t, at, len(walk))
	told, before, err := s.SavedAll(t.Context(), head.ID, key)
	require.NoError(t, err)
	assert.True(t, before)
	assert.Equal(t, at, told, "sent again, it is answered as it was")
	_, _, err = s.SavedAll(t.Context(), head.ID, Once{Key: "rooms", Asked: "all to the loft"})
	require.ErrorIs(t, err, ErrKey)
	now, err := s.Opening(t.Context(), head.ID, at[1].ID)
	require.NoError(t, err)
	assert.Equal(t, "rooms", now.Undo)
	later := now.Opening
	later.Name = "later"
	k, _, err = s.Save(t.Context(), now, "name", later)
	require.NoError(t, err)
	err = s.UndoAll(t.Context(), head.ID, at, Once{})
	require.ErrorIs(t, err, ErrStale)
	var stale StaleOpening
	require.ErrorAs(t, err, &stale)
	assert.NotEmpty(t, stale.Name)
	_, err = s.Undo(t.Context(), head.ID, "d1", k.Version, Once{})
	require.NoError(t, err)
	require.NoError(t, s.UndoAll(t.Context(), head.ID, at, Once{}))
	_, walk, _, err = s.Job(t.Context(), head.ID)
	require.NoError(t, err)
	for _, k := range walk {
		assert.Empty(t, k.Opening.Room)
		assert.Equal(t, "rooms", k.Redo)
	}
}

// The rows of a schedule come in together, once, and go off again together.
func TestManyDoorsComeInOnce(t *testing.T) {
	s, _ := fresh(t)
	head, _ := house(t, s, 1)
	list := []job.Opening{job.NewOpening("", "a", measure.Millimetres), job.NewOpening("", "b", measure.Millimetres)}
	added, err := s.AddOpenings(t.Context(), head.ID, list, 3, Once{Key: "key"}, "Wren")
	require.NoError(t, err)
	at := added.Standing
	require.Len(t, at, 2)
	again, err := s.AddOpenings(t.Context(), head.ID, list, 0, Once{Key: "key"}, "Wren")
	require.NoError(t, err)
	assert.Equal(t, 3, again.Left)
	assert.Equal(t, added, again, "sent twice, it makes nothing more, and answers as before")
	assert.Equal(t, "0ab", order(t, s, head.ID))
	story, err := s.Changes(t.Context(), head.ID, at[0].ID)
	require.NoError(t, err)
	assert.Equal(t, "Wren", story[0].By)
	require.NoError(t, s.UndoAll(t.Context(), head.ID, at, Once{}))
	assert.Equal(t, "0", order(t, s, head.ID))
	_, err = s.AddOpenings(t.Context(), head.ID, make([]job.Opening, MostOpenings), 0, Once{}, "")
	assert.ErrorIs(t, err, ErrFull)
	_, err = s.AddOpenings(t.Context(), "none", list, 0, Once{}, "")
	assert.ErrorIs(t, err, ErrNotFound)
}

func TestMatchingsAreRemembered(t *testing.T) {
	s, _ := fresh(t)
	none, err := s.Matching(t.Context(), "Door\tRoom")
	require.NoError(t, err)
	assert.Nil(t, none)
	for _, columns := range [][]string{{"name", "room"}, {"name", ""}} {
		require.NoError(t, s.KeepMatching(t.Context(), "Door\tRoom", columns))
		got, err := s.Matching(t.Context(), "Door\tRoom")
		require.NoError(t, err)
		assert.Equal(t, columns, got)
	}
}

// A check finds what pages and documents alone do not show.
func TestACheckReadsAll(t *testing.T) {
	s, path := fresh(t)
	_, walk := house(t, s, 2)
	_, err := s.AddPhoto(
		t.Context(), "house", Photo{Opening: "d0", Step: job.StepLog, Data: []byte("\xFF\xD8\xFF and so on")}, Once{},
	)
	require.NoError(t, err)
	r, err := Check(t.Context(), path)
	require.NoError(t, err)
	assert.Equal(t, Report{Jobs: 1, Openings: 2, Changes: 2, Photos: 1}, r)
	for says, spoil := range map[string][2]string{
		"row 1 of made": {
			`INSERT INTO made (key, job_id, opening_id, answer) VALUES ('changes of house k', '', '', '[{')`,
			`DELETE FROM made WHERE answer = '[{'`,
		},
		"row 1 of photos": {`UPDATE photos SET data = x'0102'`, `UPDATE photos SET data = x'FFD8'`},
		"1 openings stand at a change of another": {
			fmt.Sprintf(`UPDATE openings SET head = %d WHERE id = 'd0'`, walk[1].Version),
			fmt.Sprintf(`UPDATE openings SET head = %d WHERE id = 'd0'`, walk[0].Version),
		},
	} {
		_, err = s.write.Exec(spoil[0])
		require.NoError(t, err)
		_, err = Check(t.Context(), path)
		assert.ErrorIs(t, err, ErrDamaged)
		assert.ErrorContains(t, err, says)
		_, err = s.write.Exec(spoil[1])
		require.NoError(t, err)
	}
	_, err = Check(t.Context(), path)
	assert.NoError(t, err)
}

// Some of the doors are read in the order of the walk, without those that are not on it; a list says which were
// signed off, and one that is damaged does not hide the others.
func TestSomeOfTheDoors(t *testing.T) {
	s, _ := fresh(t)
	head, walk := house(t, s, 3)
	id := func(n int) string { return walk[n].Opening.ID }
	names := func(ids ...string) (all string) {
		_, some, err := s.Some(t.Context(), head.ID, ids)
		require.NoError(t, err)
		for _, k := range some {
			all += k.Opening.Name
		}
		return all
	}
	assert.Equal(t, "02", names(id(2), "gone", id(0), id(2)))
	require.NoError(t, s.Place(t.Context(), head.ID, id(2), id(0)))
	assert.Equal(t, "20", names(id(0), id(2)))
	assert.Empty(t, names())
	_, _, err := s.Some(t.Context(), "none", nil)
	require.ErrorIs(t, err, ErrNotFound)

	signed := walk[1].Opening
	signed.Signed = &job.Signed{By: "Wren", On: "2026-11-30"}
	now, _, err := s.Save(t.Context(), walk[1], "signed", signed)
	require.NoError(t, err)
	_, err = s.write.ExecContext(t.Context(), `UPDATE changes SET doc = '{"signed": ' WHERE opening_id = ?`, id(0))
	require.NoError(t, err)
	list, err := s.List(t.Context(), head.ID)
	require.NoError(t, err)
	assert.Equal(t, []Listed{{id(2), false}, {id(0), false}, {id(1), true}}, list)
	require.NoError(t, s.Remove(t.Context(), head.ID, id(1), now.Version))
	list, err = s.List(t.Context(), head.ID)
	require.NoError(t, err)
	assert.Len(t, list, 2)
}
