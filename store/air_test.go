package store

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/season"
)

// A data file of the eighth form, from before a house's air was kept, opens.
func TestADataFileOfTheEighthFormOpens(t *testing.T) {
	s := ofForm(t, "form8")
	heads, err := s.Jobs(t.Context())
	require.NoError(t, err)
	assert.Equal(t, "Kept house", heads[0].Name)
	_, walk, _, err := s.Job(t.Context(), heads[0].ID)
	require.NoError(t, err)
	assert.Equal(t, season.Choice{}, walk[0].Opening.Season)
	assert.Len(t, walk[0].Opening.Readings, 1)
	list, err := s.AirOf(t.Context(), heads[0].ID, time.Time{}, 10)
	require.NoError(t, err)
	assert.Empty(t, list)
}

// A house's air is kept by moment and hygrometer: sent again it is there once; the newest comes first.
func TestAirIsKept(t *testing.T) {
	s, _ := fresh(t)
	k := study(t, s)
	at := time.Date(2026, 11, 26, 8, 0, 0, 0, time.UTC)
	for _, a := range []Aired{
		{season.Air{Celsius: 20, Humidity: 40}, at, "hall"},
		{season.Air{Celsius: 21, Humidity: 44}, at.Add(time.Hour), "hall"},
		{season.Air{Celsius: 20, Humidity: 41}, at, "hall"},
		{season.Air{Celsius: 16, Humidity: 60}, at, "cellar"},
	} {
		require.NoError(t, s.AddAir(t.Context(), k.Job.ID, a))
	}
	list, err := s.AirOf(t.Context(), k.Job.ID, time.Time{}, 10)
	require.NoError(t, err)
	require.Len(t, list, 3)
	assert.Equal(t, Aired{season.Air{Celsius: 21, Humidity: 44}, at.Add(time.Hour), "hall"}, list[0])
	since, err := s.AirOf(t.Context(), k.Job.ID, at.Add(time.Minute), 10)
	require.NoError(t, err)
	assert.Len(t, since, 1)
	assert.ErrorIs(t, s.AddAir(t.Context(), "nowhere", list[0]), ErrNotFound)
}
