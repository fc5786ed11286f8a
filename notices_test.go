package kindmargin

import (
	"encoding/json"
	"os"
	"os/exec"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// NOTICES names every module in the program and every package in the page, in the versions that ship.
func TestNoticesNameAllThatShips(t *testing.T) {
	b, err := os.ReadFile("NOTICES")
	require.NoError(t, err)
	noticed := map[string]bool{} // by name, and by name and version
	for line := range strings.Lines(string(b)) {
		if name, ok := strings.CutPrefix(line, "## "); ok {
			if f := strings.Fields(name); len(f) > 1 {
				noticed[f[0]+" "+f[1]] = true
			}
		}
	}
	var ships []string
	for _, system := range []string{"linux", "darwin", "windows"} {
		const module = "{{with .Module}}{{.Path}} {{.Version}}{{end}}"
		list := exec.CommandContext(t.Context(), "go", "list", "-deps", "-f", module, "./cmd/kindmargin")
		list.Env = append(os.Environ(), "GOOS="+system, "CGO_ENABLED=0")
		out, err := list.Output()
		require.NoError(t, err)
		before := len(ships)
		for line := range strings.Lines(string(out)) {
			if f := strings.Fields(line); len(f) == 2 {
				ships = append(ships, f[0]+" "+f[1])
			}
		}
		require.Greater(t, len(ships), before, system)
	}
	var lock struct {
		Packages map[string]struct {
			Version     string
			Dev, Peer   bool
			DevOptional bool
		}
	}
	b, err = os.ReadFile("web/package-lock.json")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(b, &lock))
	for path, p := range lock.Packages {
		_, name, ok := strings.Cut(path, "node_modules/")
		if !ok || p.Dev || p.Peer || p.DevOptional || strings.HasPrefix(name, "@types/") {
			continue
		}
		ships = append(ships, name+" "+p.Version)
	}
	for _, s := range ships {
		found := noticed[s]
		for n := range noticed { // a licence may stand in a folder of its module
			module, version, _ := strings.Cut(s, " ")
			found = found || strings.HasPrefix(n, module+"/") && strings.HasSuffix(n, " "+version)
		}
		assert.True(t, found, "%s ships and is not in NOTICES: run make notices", s)
	}
}
