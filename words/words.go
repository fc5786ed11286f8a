// Package words has the one catalogue of everything that a person reads, in British and American English, and words
// core's messages, with lengths in the unit of a job, rounded to its tape.
package words

import (
	"cmp"
	"embed"
	"fmt"
	"io/fs"
	"strings"

	"github.com/BurntSushi/toml"
	"github.com/nicksnyder/go-i18n/v2/i18n"
	"github.com/nicksnyder/go-i18n/v2/i18n/template"
	"golang.org/x/text/language"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

//go:embed *.toml
var files embed.FS

// localizers look texts up, by language. A text that is missing in another falls back to British, which a test reports.
var localizers = func() map[job.Language]*i18n.Localizer {
	b := i18n.NewBundle(language.BritishEnglish)
	b.RegisterUnmarshalFunc("toml", toml.Unmarshal)
	names, err := fs.Glob(files, "*.toml")
	if err != nil {
		panic(err)
	}
	for _, name := range names {
		if _, err := b.LoadMessageFileFS(files, name); err != nil {
			panic(err) // a test reads every file
		}
	}
	all := map[job.Language]*i18n.Localizer{}
	for _, l := range job.Languages {
		all[l] = i18n.NewLocalizer(b, string(l))
	}
	return all
}()

// strict fails for a sentence with an argument that it is not given.
var strict = &template.TextParser{Option: "missingkey=error"}

// Voice words messages in a language, with lengths in a unit, rounded to a tape. The zero value is British, in
// millimetres.
type Voice struct {
	language job.Language
	unit     measure.Unit
	tape     measure.Tape
	coded    bool
}

// in is the unit of lengths.
func (v Voice) in() measure.Unit { return cmp.Or(v.unit, measure.Millimetres) }

// In is the voice of a language; British for an unknown one.
func In(l job.Language, u measure.Unit, t measure.Tape) Voice {
	if _, ok := localizers[l]; !ok {
		l = job.British
	}
	return Voice{language: l, unit: u, tape: t}
}

// Measured is the voice in another unit, rounded to another tape.
func (v Voice) Measured(u measure.Unit, t measure.Tape) Voice {
	v.unit, v.tape = u, t
	return v
}

// Say is a message in words. One that is not in the catalogue, or lacks an argument, is its ID.
func (v Voice) Say(m message.Message) string {
	if v.coded {
		return v.code(m)
	}
	c := i18n.LocalizeConfig{MessageID: string(m.ID), TemplateParser: strict}
	if len(m.Args) > 0 {
		said := make(map[string]string, len(m.Args))
		for name, arg := range m.Args {
			said[name] = v.Word(arg)
			if n, ok := arg.(message.Count); ok {
				c.PluralCount = int(n)
			}
		}
		c.TemplateData = said
	}
	in, ok := localizers[v.language]
	if !ok {
		in = localizers[job.British]
	}
	text, err := in.Localize(&c)
	if err != nil {
		return fmt.Sprintf("[%s]", m.ID)
	}
	return text
}

// Text is an ID without arguments, in words.
func (v Voice) Text(id message.ID) string { return v.Say(message.Message{ID: id}) }

// join is a list in a sentence; id joins its last two.
func (v Voice) join(list []any, id message.ID) string {
	said := make([]string, len(list))
	for i, arg := range list {
		said[i] = v.Word(arg)
	}
	if len(said) < 2 {
		return strings.Join(said, "")
	}
	last := len(said) - 1
	return v.Say(message.Message{
		ID: id, Args: message.Args{"before": strings.Join(said[:last], ", "), "last": said[last]},
	})
}

// Everywhere is a message in every language, with lengths in millimetres, for what may be in any.
func Everywhere(m message.Message) (list []string) {
	for _, l := range job.Languages {
		list = append(list, In(l, measure.Millimetres, measure.HalfMillimetre).Say(m))
	}
	return list
}
