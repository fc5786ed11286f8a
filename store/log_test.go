package store

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
)

// A data file of the fifth form, from before changes bore their time, opens; what was made
// then has none, and what is made now has.
func TestADataFileOfTheFifthFormOpens(t *testing.T) {
	b, err := os.ReadFile(filepath.Join("testdata", "form5.db"))
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "house.db")
	require.NoError(t, os.WriteFile(path, b, 0o600))
	s := open(t, path)
	k, err := s.Opening(t.Context(), "alder-cottage", "pantry")
	require.NoError(t, err)
	assert.Equal(t, "Back hall", k.Opening.Room)
	k.By, k.Opening.Room = "Wren", "Front hall"
	_, _, err = s.Save(t.Context(), k, "the room again", k.Opening)
	require.NoError(t, err)
	list, err := s.Changes(t.Context(), "alder-cottage", "pantry")
	require.NoError(t, err)
	require.Len(t, list, 3)
	assert.Equal(t, Change{ID: list[1].ID, Label: "room"}, list[1])
	assert.Equal(t, "Wren", list[2].By)
	_, err = time.Parse(time.RFC3339, list[2].At)
	assert.NoError(t, err)
}

func TestPhotographsAreNeverDeleted(t *testing.T) {
	s, path := fresh(t)
	k := study(t, s)
	p, err := s.AddPhoto(
		t.Context(), k.Job.ID,
		Photo{Opening: k.Opening.ID, Step: job.StepTry, By: "Wren", Data: []byte("\xFF\xD8a picture")}, Once{},
	)
	require.NoError(t, err)
	assert.NotEmpty(t, p.At)
	kept, err := s.AddPhoto(
		t.Context(), k.Job.ID,
		Photo{Opening: k.Opening.ID, Step: job.StepLog, At: "2026-04-14T10:00:00Z", Data: []byte{0xFF, 0xD8}}, Once{},
	)
	require.NoError(t, err)
	assert.Equal(t, "2026-04-14T10:00:00Z", kept.At, "one that is brought in keeps its time")
	require.NoError(t, s.SetPhotoRemoved(t.Context(), k.Job.ID, k.Opening.ID, p.ID, true))
	list, err := s.Photos(t.Context(), k.Job.ID, "")
	require.NoError(t, err)
	require.Len(t, list, 1)
	data, err := s.PhotoData(t.Context(), k.Job.ID, k.Opening.ID, p.ID)
	require.NoError(t, err)
	assert.Equal(t, "\xFF\xD8a picture", string(data), "taken off, not gone")
	assert.ErrorIs(t, s.SetPhotoRemoved(t.Context(), k.Job.ID, "other", p.ID, false), ErrNotFound)
	for range MostPhotos - 2 {
		_, err = s.AddPhoto(
			t.Context(), k.Job.ID, Photo{Opening: k.Opening.ID, Step: job.StepTry, Data: []byte{0xFF, 0xD8}}, Once{},
		)
		require.NoError(t, err)
	}
	_, err = s.AddPhoto(
		t.Context(), k.Job.ID, Photo{Opening: k.Opening.ID, Step: job.StepTry, Data: []byte{0xFF, 0xD8}}, Once{},
	)
	assert.ErrorIs(t, err, ErrPhotos)
	_, err = s.AddPhoto(
		t.Context(), k.Job.ID, Photo{Opening: "none", Step: job.StepTry, Data: []byte{0xFF, 0xD8}}, Once{},
	)
	assert.ErrorIs(t, err, ErrNotFound)
	require.NoError(t, s.Close())
	_, err = Check(t.Context(), path)
	assert.NoError(t, err)
}

func TestTimeIsCounted(t *testing.T) {
	s, _ := fresh(t)
	k := study(t, s)
	for range 3 {
		require.NoError(t, s.Spend(t.Context(), k.Job.ID, k.Opening.ID, job.StepCut, 40, Once{}))
	}
	spent, err := s.Spent(t.Context(), k.Job.ID, k.Opening.ID)
	require.NoError(t, err)
	assert.Equal(t, map[job.Step]int{job.StepCut: 120}, spent)
	assert.Error(t, s.Spend(t.Context(), k.Job.ID, "none", job.StepCut, 40, Once{}))
}
