package core

import (
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// tradeOrder are the packages of core in trade order: one imports only those of the lines before its own. Those of one
// line do not know each other: a stage knows no other stage.
var tradeOrder = [][]string{
	{"frame"},
	{"measure"},
	{"message"},
	{"field"},
	{"figure"},
	{"trade"},
	{"survey"},
	{"slab"},
	{"season", "lining"},
	{"fit", "hinge", "swing"},
	{"lock", "try"},
	{"job"},
	{"site", "choice"},
	{
		"stage/readings", "stage/slabs", "stage/margins", "stage/seasons", "stage/linings", "stage/cuts",
		"stage/hinges", "stage/swings", "stage/hangs", "stage/locks", "stage/stops",
	},
	{"plan"},
	{"saves"},
	{"day", "load", "schedule", "oracle"},
	{"simulate"},
	{"practice"},
}

// TestArrows holds the arrows of docs/architecture.md: core imports the
// standard library, gonum and core, and in core a package imports only those
// before it in trade order; and core reads no clock, file, network or log.
func TestArrows(t *testing.T) {
	out, err := exec.Command("go", "list", "-f", `{{.ImportPath}} {{join .Imports " "}}`, "./...").Output()
	require.NoError(t, err)
	rank := map[string]int{}
	for i, line := range tradeOrder {
		for _, p := range line {
			rank["kindmargin/core/"+p] = i + 1
		}
	}
	forbidden := []string{"os", "os/exec", "net", "net/http", "log", "log/slog", "context", "io/fs", "database/sql"}
	lines := strings.Split(strings.TrimSpace(string(out)), "\n")
	require.Len(t, lines, len(rank)+1, "each package has its place, and each place its package")
	for _, line := range lines {
		fields := strings.Fields(line)
		pkg := fields[0]
		if pkg == "kindmargin/core" {
			continue // this test
		}
		require.Contains(t, rank, pkg, "name the package in its place in trade order")
		for _, dep := range fields[1:] {
			switch {
			case strings.HasPrefix(dep, "kindmargin/core/"):
				assert.Less(t, rank[dep], rank[pkg], "%s imports %s", pkg, dep)
			case strings.HasPrefix(dep, "gonum.org/"):
			default:
				assert.NotContains(t, dep, ".", "%s imports %s, which is not the standard library", pkg, dep)
				assert.NotContains(t, forbidden, dep, "%s imports %s", pkg, dep)
			}
		}
	}
}
