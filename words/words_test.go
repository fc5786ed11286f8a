package words

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"maps"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/BurntSushi/toml"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// sentences are a language's file: each ID with its forms, "other" alone where it has one.
func sentences(t *testing.T, l job.Language) map[string]map[string]string {
	t.Helper()
	b, err := files.ReadFile(string(l) + ".toml")
	require.NoError(t, err)
	return read(t, b)
}

// everySentence is sentences, and those that the page says by itself, with "page/" before their ID.
func everySentence(t *testing.T, l job.Language) map[string]map[string]string {
	t.Helper()
	all := sentences(t, l)
	b, err := pageFiles.ReadFile("page/" + string(l) + ".toml")
	require.NoError(t, err)
	for id, forms := range read(t, b) {
		all["page/"+id] = forms
	}
	return all
}

// read is the sentences of a file of the catalogue.
func read(t *testing.T, b []byte) map[string]map[string]string {
	t.Helper()
	var tree map[string]any
	require.NoError(t, toml.Unmarshal(b, &tree))
	all := map[string]map[string]string{}
	var walk func(at string, v map[string]any)
	walk = func(at string, v map[string]any) {
		_, plural := v["other"].(string)
		for name, x := range v {
			switch x := x.(type) {
			case string:
				switch {
				case plural:
					if all[at] == nil {
						all[at] = map[string]string{}
					}
					all[at][name] = x
				default:
					all[at+"."+name] = map[string]string{"other": x}
				}
			case map[string]any:
				walk(strings.TrimPrefix(at+"."+name, "."), x)
			}
		}
	}
	walk("", tree)
	return all
}

var placeholder = regexp.MustCompile(`\{\{\.(\w+)\}\}`)

// asks are the arguments that a sentence asks for.
func asks(text string) []string {
	all := map[string]bool{}
	for _, m := range placeholder.FindAllStringSubmatch(text, -1) {
		all[m[1]] = true
	}
	return slices.Sorted(maps.Keys(all))
}

// Every ID stands in both languages, in the same forms and with the same arguments.
func TestBothLanguagesSayTheSame(t *testing.T) {
	british, american := everySentence(t, job.British), everySentence(t, job.American)
	require.Greater(t, len(british), 3000)
	assert.Equal(t, slices.Sorted(maps.Keys(british)), slices.Sorted(maps.Keys(american)))
	for id, forms := range british {
		assert.Equal(t, slices.Sorted(maps.Keys(forms)), slices.Sorted(maps.Keys(american[id])), id)
		for form, text := range forms {
			assert.Equal(t, asks(text), asks(american[id][form]), id)
			for _, arg := range asks(text) { // one of a thing need not be counted
				assert.Contains(t, asks(forms["other"]), arg, id)
			}
		}
	}
}

// literals are the texts of the program's Go files that are not tests, and those that a name stands for in core/plan's
// codes.
func literals(t *testing.T) map[string]bool {
	t.Helper()
	all := map[string]bool{}
	for _, pattern := range []string{"../*/*.go", "../*/*/*.go", "../*/*/*/*.go"} {
		list, err := filepath.Glob(pattern)
		require.NoError(t, err)
		for _, name := range list {
			if strings.HasSuffix(name, "_test.go") || strings.Contains(name, "node_modules") {
				continue
			}
			f, err := parser.ParseFile(token.NewFileSet(), name, nil, 0)
			require.NoError(t, err)
			ast.Inspect(f, func(n ast.Node) bool {
				if b, ok := n.(*ast.BasicLit); ok && b.Kind == token.STRING {
					s, err := strconv.Unquote(b.Value)
					require.NoError(t, err)
					all[s] = true
				}
				return true
			})
		}
	}
	return all
}

// No sentence is an orphan: its ID stands in the code, or is put together there of parts that do, after a first one
// that ends in a dot.
func TestEverySentenceIsSaid(t *testing.T) {
	used := literals(t)
	var together func(rest string) bool
	together = func(rest string) bool {
		if rest = strings.TrimPrefix(rest, "-"); used[rest] {
			return true
		}
		for i := range rest {
			if part := rest[:i]; (rest[i] == '.' || rest[i] == '-') && (used[part] || used[part+rest[i:i+1]] ||
				used["-"+part]) && together(rest[i+1:]) {
				return true
			}
		}
		return false
	}
	for id := range sentences(t, job.British) {
		if used[id] {
			continue
		}
		first, rest, ok := strings.Cut(id, ".")
		require.True(t, ok, id)
		assert.True(
			t, slices.Contains([]string{"month", "weekday"}, first) || together(first+"."+rest), "nothing says %s", id,
		)
	}
}

// Sentences are short, spoken, and whole: at most 25 words each, an argument being one; nothing doubled, nothing left
// unfinished; by the Flesch–Kincaid grade (Kincaid and others, 1975, from memory: 0.39 words a sentence + 11.8
// syllables a word − 15.59) half of them are for a reader of twelve.
func TestSentencesAreShort(t *testing.T) {
	const longest = 25
	for _, l := range job.Languages {
		var grades []float64
		for id, forms := range everySentence(t, l) {
			for _, text := range forms {
				plain := placeholder.ReplaceAllString(text, "five")
				assert.NotRegexp(t, `  |\.\.|,,| [.,;:?]( |$)|\{|\}|^ | $`, plain, id)
				words, syllables, n := 0, 0, 0
				for _, s := range regexp.MustCompile(`[.?!]( |$)`).Split(plain, -1) {
					list := strings.Fields(s)
					assert.LessOrEqual(t, len(list), longest, "%s: %s", id, s)
					if len(list) > 0 {
						n++
					}
					words += len(list)
					for _, w := range list {
						syllables += spoken(w)
					}
				}
				if strings.HasSuffix(plain, ".") && n > 0 { // a sentence, not a name
					grades = append(grades, 0.39*float64(words)/float64(n)+11.8*float64(syllables)/float64(words)-15.59)
				}
			}
		}
		slices.Sort(grades)
		t.Logf(
			"%s: Flesch–Kincaid grade %.1f at the median of %d texts, %.1f at nine in ten", l, grades[len(grades)/2],
			len(grades), grades[len(grades)*9/10],
		)
		assert.Less(t, grades[len(grades)/2], 7.0, l)
	}
}

// spoken is about how many syllables a word has: its groups of vowels, without a silent e at its end.
func spoken(word string) int {
	w := strings.Trim(strings.ToLower(word), ".,;:?!()’'")
	n := len(regexp.MustCompile(`[aeiouy]+`).FindAllString(w, -1))
	if strings.HasSuffix(w, "e") && !strings.HasSuffix(w, "le") && n > 1 {
		n--
	}
	return max(n, 1)
}

// Words that one side of the Atlantic alone says, at the bench or in spelling (from memory).
var (
	britishOnly = []string{
		"packer", "packing", "architrave", "forend", "keep plate", "lining leg", "doorstop", "trestle", "arris",
		"moulding", "centre", "metre", "millimetre", "centimetre", "colour", "recess", "rebate", "bevelled", "skirting",
		"aluminium",
	}
	americanOnly = []string{
		"shim", "casing", "faceplate", "strike plate", "mortise", "sawhorse", "molding", "center", "millimeter",
		"color", "jamb set", "rabbet", "beveled", "baseboard", "aluminum",
	}
)

func TestEachEnglishIsItsOwn(t *testing.T) {
	// Locks that are let in are called so in both; a language names itself.
	same := []string{"hardware-kind.mortise", "hardware.mortise-64", "language-why.en-US", "language-why.en-GB"}
	for l, others := range map[job.Language][]string{job.British: americanOnly, job.American: britishOnly} {
		for id, forms := range everySentence(t, l) {
			if slices.Contains(same, id) {
				continue
			}
			for _, text := range forms {
				for _, word := range others {
					assert.NotRegexp(
						t, `(?i)\b`+word+`(s|ed|es|ing)?\b`, placeholder.ReplaceAllString(text, ""), "%s, %s", l, id,
					)
				}
			}
		}
	}
}

// An argument is said in the unit, to the tape or as it asks for; what it is for each, worked out by hand.
func TestArgumentsAreSaid(t *testing.T) {
	mm := measure.FromMM
	r := survey.Reading{Kind: survey.Width, At: mm(1800)}
	for _, c := range []struct {
		arg          any
		metric, inch string
	}{
		{mm(3.3), "3.5 mm", "1/8 in"}, // half a mm; 3.3 is 0.13 in, 4.2 thirty-seconds
		{mm(0.1), "nothing", "nothing"},
		{message.At(0), "0 mm", "0 in"},
		{message.Exact(mm(0.75)), "0.75 mm", "1/32 in"},
		{message.Near(mm(1.24)), "1.2 mm", "3/64 in"}, // 3.12 sixty-fourths
		{message.Near(mm(0.04)), "nothing", "nothing"},
		{message.Fine(mm(0)), "0.1 mm", "1/64 in"},
		{message.Fine(mm(1.21)), "1.3 mm", "1/16 in"},               // upward; 1.21 is 3.05 sixty-fourths
		{message.Slope(mm(4)), "4 mm in a metre", "3/64 in a foot"}, // 4 · 0.3048 = 1.22 mm, 3.07 sixty-fourths
		{message.Sure(0.6), "1.2", "1/16"},                          // twice 0.6; 1.2 is 3.02 sixty-fourths, upward
		{message.Mass(77.4), "77 kg", "171 lb"},
		{message.Degrees(89.6), "90°", "90°"},
		{message.Percent(9), "9 %", "9 %"},
		{message.Percent(11.26), "11.3 %", "11.3 %"},
		{message.Number(3), "3", "3"},
		{message.Month(1), "January", "January"},
		{message.Edge(frame.Foot), "bottom", "bottom"},
		{message.Edge(frame.Lock), "lock edge", "lock edge"},
		{message.Wall(frame.Foot), "floor", "floor"},
		{message.Margin(frame.Hinge), "hinge side", "hinge side"},
		{message.End{Side: frame.Lock, Place: 2}, "top", "top"},
		{message.End{Side: frame.Head, Place: 0}, "hinge corner", "hinge corner"},
		{frame.Left, "left", "left"},
		// 3.78 thirty-seconds
		{message.Change{By: mm(-3), More: "way.wider", Less: "way.narrower"}, "3 mm narrower", "1/8 in narrower"},
		{message.Change{By: mm(0.1), More: "way.wider", Less: "way.narrower"}, "as it is", "as it is"},
		{message.And{"a"}, "a", "a"},
		{message.And{"a", "b", "c"}, "a, b and c", "a, b and c"},
		{message.Or{"a", mm(2)}, "a or 2 mm", "a or 3/32 in"}, // 2.52 thirty-seconds
		{
			message.Sentences{{ID: "do.square-corners"}, {ID: "clear.none"}},
			"Square them with a chisel. There is no clear place on this edge: fill what is there.",
			"Square them with a chisel. There is no clear place on this edge: fill what is there.",
		},
		{message.ID("do.square-corners"), "Square them with a chisel.", "Square them with a chisel."},
		{r, "width, 1800 mm up", "width, 70 55/64 in up"},
	} {
		assert.Equal(
			t, c.metric, In(job.British, measure.Millimetres, measure.HalfMillimetre).Word(c.arg), "%#v", c.arg,
		)
		assert.Equal(t, c.inch, In(job.American, measure.Inches, measure.ThirtySeconds).Word(c.arg), "%#v", c.arg)
	}
}

// A plural has its form; a name stands as it is, whatever signs are in it; what is not in the catalogue is named, and
// so is a sentence that lacks an argument.
func TestWhatIsSaid(t *testing.T) {
	v := In("fr", measure.Millimetres, measure.HalfMillimetre)
	lie := func(days int) string {
		return v.Say(message.Message{ID: "finding.season-lie", Args: message.Args{
			"now": message.Percent(12), "room": message.Percent(9), "days": message.Count(days),
			"by": message.Fine(measure.Millimetre),
		}})
	}
	assert.Contains(t, lie(1), "for a day first")
	for _, n := range []int{0, 2, 21} {
		assert.Contains(t, lie(n), "for about "+strconv.Itoa(n)+" days first")
	}
	odd := "\"{{.x}}\" <b>\u202Eباب</b>"
	assert.Equal(t, "The latch bore lies in or beside the "+odd+". Fill it first, and let the glue set.",
		v.Say(message.Message{ID: "finding.old-hole-near", Args: message.Args{"what": "latch bore", "hole": odd}}))
	assert.Equal(t, "[finding.nothing]", v.Say(message.Message{ID: "finding.nothing"}))
	assert.Equal(
		t, "[finding.old-hole-near]",
		v.Say(message.Message{ID: "finding.old-hole-near", Args: message.Args{"what": "x"}}),
	)
}

// Each finding that core hands out gives what its sentence asks for, as far as its arguments stand beside its
// code.
func TestFindingsGiveWhatIsAsked(t *testing.T) {
	codes := map[string]string{}
	files := coreFiles(t)
	for _, f := range files {
		ast.Inspect(f, func(n ast.Node) bool {
			if v, ok := n.(*ast.ValueSpec); ok && len(v.Values) == 1 {
				if typ, ok := v.Type.(*ast.Ident); ok && typ.Name == "Code" {
					if lit, ok := v.Values[0].(*ast.BasicLit); ok {
						codes[v.Names[0].Name], _ = strconv.Unquote(lit.Value)
					}
				}
			}
			return true
		})
	}
	require.Greater(t, len(codes), 150)
	said, checked := sentences(t, job.British), 0
	for _, code := range codes {
		assert.Contains(t, said, "finding."+code)
	}
	for _, f := range files {
		ast.Inspect(f, func(n ast.Node) bool {
			call, ok := n.(*ast.CallExpr)
			if !ok {
				return true
			}
			for i := 0; i+1 < len(call.Args); i++ {
				name, ok := call.Args[i].(*ast.Ident)
				if of, in := call.Args[i].(*ast.SelectorExpr); in { // site.Rated
					name, ok = of.Sel, true
				}
				if !ok || codes[name.Name] == "" {
					continue
				}
				asked := asks(said["finding."+codes[name.Name]]["other"])
				switch args := call.Args[i+1].(type) {
				case *ast.CompositeLit:
					var given []string
					for _, e := range args.Elts {
						key, err := strconv.Unquote(e.(*ast.KeyValueExpr).Key.(*ast.BasicLit).Value)
						require.NoError(t, err)
						given = append(given, key)
					}
					slices.Sort(given)
					assert.Subset(t, given, asked, name.Name) // two codes may share theirs
					checked++
				case *ast.Ident:
					if args.Name == "nil" {
						assert.Empty(t, asked, name.Name)
						checked++
					}
				}
			}
			return true
		})
	}
	assert.Greater(t, checked, 80)
}

// coreFiles are the files of core, but its tests.
func coreFiles(t *testing.T) (list []*ast.File) {
	t.Helper()
	require.NoError(t, filepath.WalkDir("../core", func(path string, _ fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		list = append(list, f)
		return err
	}))
	return list
}

// wraps are the names that arguments of core are given under as lengths that are said in some way, and as nothing else.
func wraps(t *testing.T) map[string]bool {
	t.Helper()
	lengths, others := map[string]bool{}, map[string]bool{}
	for _, f := range coreFiles(t) {
		ast.Inspect(f, func(n ast.Node) bool {
			kv, ok := n.(*ast.KeyValueExpr)
			if !ok {
				return true
			}
			key, ok := kv.Key.(*ast.BasicLit)
			call, isCall := kv.Value.(*ast.CallExpr)
			if !ok || !isCall || key.Kind != token.STRING {
				return true
			}
			arg, err := strconv.Unquote(key.Value)
			require.NoError(t, err)
			sel, ok := call.Fun.(*ast.SelectorExpr)
			if ok && slices.Contains([]string{"Near", "Fine", "At", "Exact", "FromMM"}, sel.Sel.Name) {
				lengths[arg] = true
			} else {
				others[arg] = true
			}
			return true
		})
	}
	maps.DeleteFunc(lengths, func(arg string, _ bool) bool { return others[arg] })
	return lengths
}

// Every message reads well with the least and the most that it may be said with, in both Englishes and both units:
// nothing doubled or unfinished, no "1 doors", no "3 in in".
func TestEveryMessageReadsWellAtItsEdges(t *testing.T) {
	lengths := wraps(t)
	require.Greater(t, len(lengths), 20)
	ill := regexp.MustCompile(
		`[\[\]{}]|  |\.\.|,,| [.,;:?]( |$)|\bin in\b|\bmm mm\b|\b1 (doors|jobs|lines|entries|tasks|hinges|readings|trips|gaps|things|days|minutes|passes|screws|people|photographs|coats|holes|doors)\b`,
	)
	for _, l := range job.Languages {
		for id, forms := range sentences(t, l) {
			for _, v := range []Voice{
				In(l, measure.Millimetres, measure.HalfMillimetre), In(l, measure.Inches, measure.ThirtySeconds),
			} {
				for _, n := range []int{0, 1, 2, 21} {
					for _, by := range []measure.Length{measure.Inch / 64, measure.FromMM(2500)} {
						args := message.Args{}
						for _, arg := range asks(forms["other"]) {
							if args[arg] = "Oak room"; lengths[arg] {
								args[arg] = message.Near(by)
							}
						}
						// the one that is counted is left out where it is one
						for _, arg := range asks(forms["other"]) {
							if _, plural := forms["one"]; plural && !slices.Contains(asks(forms["one"]), arg) {
								args[arg] = message.Count(n)
							}
						}
						if text := v.Say(message.Message{ID: message.ID(id), Args: args}); id != "name.own" {
							assert.NotRegexp(t, ill, text, id)
						}
					}
				}
			}
		}
	}
}
