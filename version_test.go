package kindmargin

import (
	"bufio"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The version is that of the changelog's first heading of the second level, each of which has one and its day, newest
// first.
func TestVersionIsTheChangelogsTop(t *testing.T) {
	f, err := os.Open("CHANGELOG.md")
	require.NoError(t, err)
	defer f.Close()
	var versions []string
	last := "9999-99-99"
	for lines := bufio.NewScanner(f); lines.Scan(); {
		heading, ok := strings.CutPrefix(lines.Text(), "## ")
		if !ok {
			continue
		}
		v, day, ok := strings.Cut(heading, " ")
		require.True(t, ok, heading)
		assert.LessOrEqual(t, strings.Trim(day, "()"), last, heading)
		versions, last = append(versions, v), strings.Trim(day, "()")
	}
	require.NotEmpty(t, versions)
	assert.Equal(t, versions[0], Version())
}
