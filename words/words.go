// Package words is the one catalogue of what a person reads, in British and in American English, and says what
// core has to say: messages, with lengths in the unit of a job and to its tape.
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

// localizers are the catalogue as it is asked, by language. What is not said in another is said in British, which is
// the fault of a test.
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

// strict refuses a sentence that asks for an argument it is not given.
var strict = &template.TextParser{Option: "missingkey=error"}

// Voice says messages: in a language, with lengths in a unit and rounded to a tape. The zero value says them in
// British, in millimetres.
type Voice struct {
	language job.Language
	unit     measure.Unit
	tape     measure.Tape
	coded    bool
}

// in is the unit that lengths are said in.
func (v Voice) in() measure.Unit { return cmp.Or(v.unit, measure.Millimetres) }

// In is a voice. A language that there is none of is British.
func In(l job.Language, u measure.Unit, t measure.Tape) Voice {
	if _, ok := localizers[l]; !ok {
		l = job.British
	}
	return Voice{language: l, unit: u, tape: t}
}

// Measured is the voice in another unit, and rounded to another tape.
func (v Voice) Measured(u measure.Unit, t measure.Tape) Voice {
	v.unit, v.tape = u, t
	return v
}

// Say is a message in words. One that is not in the catalogue, or lacks an argument, is said by its ID.
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

// Text is what an ID without arguments says.
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

// Everywhere is a message in every language, for what is read in any. Lengths are in millimetres.
func Everywhere(m message.Message) (list []string) {
	for _, l := range job.Languages {
		list = append(list, In(l, measure.Millimetres, measure.HalfMillimetre).Say(m))
	}
	return list
}
