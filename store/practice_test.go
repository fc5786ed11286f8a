package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestWhatWasPractisedIsKept(t *testing.T) {
	s, path := fresh(t)
	require.NoError(
		t,
		s.AddPractised(
			t.Context(), Practised{By: "Wren", Kind: "hand", Name: "Hand", Right: true, Says: "right"}, Once{},
		),
	)
	require.NoError(t, s.AddPractised(t.Context(), Practised{
		By: "Wren", Kind: "opening", Name: "An even opening", Says: "It fits.", Learn: "A harder opening.", Doc: "{}",
	}, Once{}))
	require.NoError(t, s.Close())
	s = open(t, path)
	list, err := s.Practised(t.Context())
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.True(t, list[0].Right)
	assert.Equal(t, "A harder opening.", list[1].Learn)
	assert.NotEmpty(t, list[1].At)
}
