package core

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// exempt are the files of core that may hold text of more than one word, and why.
var exempt = map[string]string{
	"fit/outline.go":       "an ID with its arguments, for the log",
	"frame/frame.go":       "Error() and String(), for the log",
	"job/file.go":          "the format's name, and words of old files",
	"measure/parse.go":     "Error(), for the log",
	"measure/tape.go":      "digits",
	"plan/rod.go":          "marks of old files",
	"practice/exercise.go": "the format's name",
	"practice/play.go":     "words of old files",
	"schedule/columns.go":  "headers that people write",
	"schedule/read.go":     "what people and old files write",
	"simulate/opening.go":  "a fault of the program itself",
	"trade/devices.go":     "sources",
	"trade/hinges.go":      "an ID of old files",
	"trade/instrument.go":  "sources",
	"trade/trade.go":       "sources",
	"trade/wood.go":        "sources",
	"trade/works.go":       "sources",
}

// TestNoSentenceInCore holds that core hands out messages: what a person reads stands in the catalogue.
func TestNoSentenceInCore(t *testing.T) {
	found := map[string]bool{}
	require.NoError(t, fs.WalkDir(os.DirFS("."), ".", func(path string, _ fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		for _, s := range sentences(t, path) {
			found[filepath.ToSlash(path)] = true
			assert.Contains(t, exempt, path, "a sentence, which belongs in words: %q", s)
		}
		return nil
	}))
	for path := range exempt {
		assert.True(t, found[path], "%s needs no exemption", path)
	}
}

// sentences are the literals of a file that hold more than one word.
func sentences(t *testing.T, path string) (list []string) {
	f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.SkipObjectResolution)
	require.NoError(t, err)
	ast.Inspect(f, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.Field:
			n.Tag = nil
		case *ast.BasicLit:
			if n.Kind != token.STRING {
				break
			}
			s, err := strconv.Unquote(n.Value)
			require.NoError(t, err)
			if strings.Contains(strings.TrimSpace(s), " ") && strings.ContainsAny(s, "abcdefghijklmnopqrstuvwxyz") {
				list = append(list, s)
			}
		}
		return true
	})
	return list
}
