package core

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// exempt are the files of core that may hold text of more than one word: how many pieces of it, and why.
var exempt = map[string]struct {
	count int
	why   string
}{
	"fit/outline.go":       {1, "an ID with its arguments, for the log"},
	"frame/frame.go":       {2, "Error() and String(), for the log"},
	"job/file.go":          {19, "the format's name, and words of old files"},
	"measure/parse.go":     {2, "Error(), for the log"},
	"measure/tape.go":      {1, "digits"},
	"plan/mark.go":         {3, "marks of old files"},
	"practice/exercise.go": {1, "the format's name"},
	"practice/play.go":     {3, "words of old files"},
	"schedule/columns.go":  {70, "headers that people write"},
	"schedule/cells.go":    {1, "a name of old files"},
	"schedule/read.go":     {3, "last lines of schedules, as people write them"},
	"simulate/opening.go":  {1, "a fault of the program itself"},
	"trade/hand.go":        {38, "hands as people write them"},
	"trade/hardware.go":    {2, "sources"},
	"trade/hinges.go":      {2, "an ID of old files"},
	"trade/instrument.go":  {3, "sources"},
	"trade/trade.go":       {4, "sources"},
	"trade/wood.go":        {5, "sources"},
	"trade/works.go":       {2, "sources"},
}

// TestNoSentenceInCore holds that core hands out messages: what a person reads stands in the catalogue.
func TestNoSentenceInCore(t *testing.T) {
	found := map[string]int{}
	require.NoError(t, fs.WalkDir(os.DirFS("."), ".", func(path string, _ fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		for _, s := range sentences(t, path) {
			found[path]++
			assert.Contains(t, exempt, path, "a sentence, which belongs in words: %q", s)
		}
		return nil
	}))
	for path, e := range exempt {
		assert.Equal(t, e.count, found[path], "%s: %s", path, e.why)
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

// readers are the places that look at words, and may: what people, foreign files and old files wrote.
var readers = map[string]int{
	"core/job/file.go":       2, // a choice of old files
	"core/schedule/cells.go": 1, // sizes, as people write them
	"store/open.go":          1, // the first bytes of a data file
	"version.go":             1, // the changelog's headings
}

// TestNoCodeReadsWords holds that nothing is decided by how something is called: no comparison, no case and no search
// by package strings or regexp has a literal of more than one word.
func TestNoCodeReadsWords(t *testing.T) {
	found := map[string]int{}
	root := os.DirFS("..")
	require.NoError(t, fs.WalkDir(root, ".", func(path string, d fs.DirEntry, err error) error {
		if d != nil && d.IsDir() && (d.Name() == "node_modules" || path == "e2e") {
			return fs.SkipDir
		}
		if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		b, err := fs.ReadFile(root, path)
		require.NoError(t, err)
		f, err := parser.ParseFile(token.NewFileSet(), path, b, parser.SkipObjectResolution)
		require.NoError(t, err)
		ast.Inspect(f, func(n ast.Node) bool {
			for _, s := range words(lookedAt(n)) {
				found[path]++
				assert.Contains(t, readers, path, "code that reads words: %q", s)
			}
			return true
		})
		return nil
	}))
	assert.Equal(t, readers, found)
}

// lookedAt are the expressions that a piece of code decides by.
func lookedAt(n ast.Node) []ast.Expr {
	switch n := n.(type) {
	case *ast.CaseClause:
		return n.List
	case *ast.BinaryExpr:
		if n.Op == token.EQL || n.Op == token.NEQ {
			return []ast.Expr{n.X, n.Y}
		}
	case *ast.CallExpr:
		if f, ok := n.Fun.(*ast.SelectorExpr); ok {
			if p, ok := f.X.(*ast.Ident); ok && (p.Name == "strings" && f.Sel.Name != "Join" || p.Name == "regexp") {
				return n.Args
			}
		}
	}
	return nil
}

// words are the literals among expressions that hold more than one word, or one with a blank or a comma beside it.
func words(list []ast.Expr) (found []string) {
	for _, e := range list {
		lit, ok := e.(*ast.BasicLit)
		if !ok || lit.Kind != token.STRING {
			continue
		}
		s, err := strconv.Unquote(lit.Value)
		if err == nil && strings.Contains(s, " ") &&
			strings.ContainsAny(strings.ToLower(s), "abcdefghijklmnopqrstuvwxyz") {
			found = append(found, s)
		}
	}
	return found
}
