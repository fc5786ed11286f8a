package api

import (
	"context"
	"slices"

	"kindmargin/core/choice"
	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/schedule"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/document"
	"kindmargin/document/paper"
	"kindmargin/document/template"
	"kindmargin/words"
)

func (s server) trade(ctx context.Context, _ *struct{}) (*body[Trade], error) {
	return &body[Trade]{Body: TradeTables(s.voice(ctx))}, nil
}

// Trade is the tables of choices.
type Trade struct {
	Schools       []School         `json:"schools"`
	HingeRules    []HingeRule      `json:"hingeRules"`
	HingeKinds    []HingeKind      `json:"hingeKinds"`
	Faults        []Fault          `json:"faults"`
	Hardware      []trade.Hardware `json:"hardware"`
	HardwareKinds []HardwareKind   `json:"hardwareKinds"`
	Complaints    []Named          `json:"complaints" doc:"What is wrong with doors that hang."`
	ReachRules    []Named          `json:"reachRules"`
	Templates     []TemplateOf     `json:"templates"`
	Papers        []string         `json:"papers"`
	PaperKinds    []Named          `json:"paperKinds" doc:"Papers that openings are put on."`
	Tables        []Named          `json:"tables" doc:"That a job gives out; the first can be read in again."`
	AtOnce        int              `json:"atOnce" doc:"Of how many openings a paper, a table or a list is given at once; of more it is an export."`
	FiledAtOnce   int              `json:"filedAtOnce" doc:"The same for a job file."`
	Columns       []Named          `json:"columns" doc:"That a schedule can have."`
	Joints        []Named          `json:"joints" doc:"Of a frame's head and jambs."`
	Comes         []Named          `json:"comes" doc:"How a frame comes."`
	Places        []Named          `json:"places" doc:"Where work is done."`
	Woods         []Named          `json:"woods"`
	Sawns         []Named          `json:"sawns" doc:"How boards were sawn."`
	Climates      []Named          `json:"climates" doc:"Of the air indoors, through a year."`
	SeasonSchools []Named          `json:"seasonSchools" doc:"Ways to foretell how far wood moves."`
	Parts         []Named          `json:"parts" doc:"Parts of an opening's choices that others can take."`
	Obstacles     []string         `json:"obstacles" doc:"What leaves keep clear of."`
	Constructions []Built          `json:"constructions"`
	Registrations []Named          `json:"registrations"`
	Ends          []Named          `json:"ends"`
	Habits        []Named          `json:"habits"`
	Walls         []Named          `json:"walls"`
	Measurings    []Named          `json:"measurings"`
	Steps         []StepOf         `json:"steps"`
	Margins       []Named          `json:"margins" doc:"By side."`
	MarginPlaces  []Named          `json:"marginPlaces" doc:"Of a gap along its edge: foot, middle and head; of head and foot hinge-corner, middle and lock-corner."`
	Kinds         []KindOf         `json:"kinds"`
	Instruments   []InstrumentOf   `json:"instruments"`
	SawGuides     []SawGuide       `json:"sawGuides"`
	Markings      []Marking        `json:"markings" doc:"Ways of carrying hinge marks to the jamb, the usual one first."`
	Tapes         []TapeOf         `json:"tapes"`
	Languages     []Named          `json:"languages" doc:"That a job's sentences can be in."`
	Handings      []Handing        `json:"handings"`
	Sights        []Named          `json:"sights" doc:"What is seen of a gap instead of a figure."`
	Cautions      []Caution        `json:"cautions"`
	CodeFirst     string           `json:"codeFirst"`
}

// School is a way of setting margins.
type School struct {
	ID      string  `json:"id"`
	Name    string  `json:"name"`
	Note    string  `json:"note"`
	Source  string  `json:"source"`
	Margins []Sized `json:"margins"`
}

// Sized is a margin of one side; empty text where the hinge decides it.
type Sized struct {
	Side frame.Side    `json:"side"`
	Text document.Text `json:"text"`
}

// Built is a construction of slab with its limits.
type Built struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Note   string  `json:"note"`
	Source string  `json:"source"`
	Most   []Sized `json:"most"`
}

// HingeRule places the outer hinges.
type HingeRule struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Source string `json:"source"`
}

// Marking is a way of carrying hinge marks to the jamb.
type Marking struct {
	ID     string        `json:"id"`
	Name   string        `json:"name"`
	Within document.Text `json:"within" doc:"Of its mark a hinge then lies, 19 times in 20."`
}

// SawGuide is what a saw runs along.
type SawGuide struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Note   string `json:"note"`
	Offset bool   `json:"offset" doc:"Its edge stands off the cut."`
}

// Named is an option with its name and meaning.
type Named struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Why  string `json:"why"`
}

// choices are options in words; why is nil where there is no choice to explain.
func choices[T ~string](v words.Voice, list choice.Choices[T]) (out []Named) {
	for _, id := range list.IDs {
		out = append(out, Named{string(id), v.Text(list.Name(id)), v.Text(list.Why(id))})
	}
	return out
}

// InstrumentOf is an instrument for a kit.
type InstrumentOf struct {
	ID       string        `json:"id"`
	Name     string        `json:"name"`
	Reads    []survey.Kind `json:"reads"`
	PerMetre bool          `json:"perMetre" doc:"Its error grows with the metres between the two places."`
	Source   string        `json:"source"`
}

// StepOf is a step with its name.
type StepOf struct {
	ID   job.Step `json:"id"`
	Name string   `json:"name"`
}

// KindOf is the page's part of a kind of reading.
type KindOf struct {
	ID      survey.Kind  `json:"id"`
	Name    string       `json:"name"`
	Asks    string       `json:"asks" doc:"What its value is."`
	Sides   []frame.Side `json:"sides" doc:"At which it can be read; empty for none."`
	At      Labelled     `json:"at" doc:"Labels of its places; empty where it has none."`
	From    Labelled     `json:"from"`
	To      Labelled     `json:"to"`
	Signed  bool         `json:"signed"`
	Example Example      `json:"example"`
}

// Example is an example of a value.
type Example struct {
	Millimetres string `json:"mm"`
	Inches      string `json:"in"`
}

// Labelled is a label on an upright side, and on a level one.
type Labelled struct {
	Up     string `json:"up"`
	Across string `json:"across"`
}

// TapeOf is a tape and its unit.
type TapeOf struct {
	ID   string `json:"id"`
	Unit string `json:"unit"`
	Name string `json:"name"`
}

// HingeKind is a kind of hinge.
type HingeKind struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Note string `json:"note"`
}

// TemplateOf is a template.
type TemplateOf struct {
	ID   string   `json:"id"`
	Name string   `json:"name"`
	Note string   `json:"note"`
	Step job.Step `json:"step"`
	Body bool     `json:"body" doc:"It can be had for a 3-D printer too."`
}

// HardwareKind is a kind of hardware.
type HardwareKind struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Fixed bool   `json:"fixed" doc:"It goes on the bolted leaf of a pair."`
	Note  string `json:"note"`
}

// Fault is a fault of an old hinge.
type Fault struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Cure string `json:"cure"`
}

// Handing is a market's names for the hands.
type Handing struct {
	Market string `json:"market"`
	Left   string `json:"left"`
	Right  string `json:"right"`
	Source string `json:"source"`
}

// Caution is said at its step.
type Caution struct {
	Step string `json:"step"`
	Text string `json:"text"`
}

// tables are the trade's tables while they are worded.
type tables struct {
	words.Voice
	Trade
}

// TradeTables are all tables, in the words of a voice.
func TradeTables(v words.Voice) Trade {
	t := tables{v, Trade{
		CodeFirst: v.Text(trade.CodeFirst), Registrations: choices(v, choice.Across), Ends: choices(v, choice.Along),
		Habits: choices(v, choice.Habits), Walls: choices(v, choice.Walls),
		Measurings: choices(v, choice.Measurings),
	}}
	for _, o := range trade.Obstacles {
		t.Obstacles = append(t.Obstacles, v.Text(o))
	}
	t.measuring()
	t.fittings()
	t.papers()
	t.house()
	return t.Trade
}

// labelled are the labels of a place in words.
func (t tables) labelled(l survey.Labelled) (out Labelled) {
	if l.Up != "" {
		out.Up = t.Text(l.Up)
	}
	if l.Across != "" {
		out.Across = t.Text(l.Across)
	}
	return out
}

// measuring are the tables of readings and margins.
func (t *tables) measuring() {
	for _, s := range job.Steps {
		t.Steps = append(t.Steps, StepOf{s, t.Text(s.Name())})
	}
	for _, s := range frame.Sides {
		t.Margins = append(t.Margins, Named{s.String(), t.Word(message.Margin(s)), ""})
	}
	for _, side := range []frame.Side{frame.Lock, frame.Head} {
		for place := range 3 {
			if e := (message.End{Side: side, Place: place}); side == frame.Lock || place != 1 {
				t.MarginPlaces = append(t.MarginPlaces, Named{e.ID(), t.Word(e), ""})
			}
		}
	}
	for _, i := range trade.Instruments {
		tool := InstrumentOf{ID: i.ID, Name: t.Text(i.Name()), PerMetre: i.PerMetre, Source: i.Source}
		for _, r := range i.Reads {
			tool.Reads = append(tool.Reads, survey.Kind(r.Kind))
		}
		t.Instruments = append(t.Instruments, tool)
	}
	for _, k := range survey.KindsOf() {
		id := message.ID(k.Kind)
		t.Kinds = append(t.Kinds, KindOf{
			ID: k.Kind, Name: t.Text("kind." + id), Asks: t.Text("asks." + id),
			Sides: append([]frame.Side{}, k.Sides...),
			At:    t.labelled(k.At), From: t.labelled(k.From), To: t.labelled(k.To), Signed: k.Signed,
			Example: Example(k.Example),
		})
	}
	for _, s := range trade.Schools {
		v := School{ID: s.ID, Name: t.Text(s.Name()), Note: t.Text(s.Note()), Source: s.Source}
		for _, side := range frame.Sides {
			sized := Sized{Side: side}
			if s.Margin[side] > 0 {
				sized.Text = document.Fine(s.Margin[side])
			}
			v.Margins = append(v.Margins, sized)
		}
		t.Schools = append(t.Schools, v)
	}
}

// fittings are those of slabs, hinges and locks.
func (t *tables) fittings() {
	for _, c := range trade.Constructions {
		v := Built{ID: c.ID, Name: t.Text(c.Name()), Note: t.Text(c.Note()), Source: c.Source}
		for _, side := range frame.Sides {
			v.Most = append(v.Most, Sized{side, document.Fine(c.Most[side])})
		}
		t.Constructions = append(t.Constructions, v)
	}
	for _, m := range trade.Markings {
		t.Markings = append(t.Markings, Marking{
			m.ID, t.Text(m.Name()), document.Fine(measure.FromMM(figure.Coverage * m.Sigma)),
		})
	}
	for _, g := range trade.SawGuides {
		t.SawGuides = append(t.SawGuides, SawGuide{g.ID, t.Text(g.Name()), t.Text(g.Note()), g.Offset})
	}
	for _, r := range trade.HingeRules {
		t.HingeRules = append(t.HingeRules, HingeRule{r.ID, t.Text(r.Name()), r.Source})
	}
	for _, k := range trade.HingeKinds {
		t.HingeKinds = append(t.HingeKinds, HingeKind{k.ID, t.Text(k.Name()), t.Text(k.Note())})
	}
	for _, d := range trade.AllHardware { // one of one's own begins with its words
		d.Name, d.Holes, d.Cuts = t.Say(d.Title()), slices.Clone(d.Holes), slices.Clone(d.Cuts)
		for i, h := range d.Holes {
			d.Holes[i].What = t.Say(h.Title())
		}
		for i, c := range d.Cuts {
			d.Cuts[i].What = t.Say(c.Title())
		}
		t.Hardware = append(t.Hardware, d)
	}
	for _, c := range job.Complaints {
		t.Complaints = append(t.Complaints, Named{string(c), t.Text(c.Name()), ""})
	}
	for _, k := range trade.HardwareKinds {
		t.HardwareKinds = append(t.HardwareKinds, HardwareKind{k.ID, t.Text(k.Name()), k.Fixed, t.Text(k.Note())})
	}
}

// papers are those of papers and schedules.
func (t *tables) papers() {
	for _, v := range template.Templates {
		t.Templates = append(t.Templates, TemplateOf{
			ID: v.ID, Name: t.Text(v.Name()), Note: t.Text(v.Note()), Step: v.Step, Body: v.Body,
		})
	}
	for _, p := range template.Papers {
		t.Papers = append(t.Papers, p.ID)
	}
	for _, k := range paper.Kinds {
		t.PaperKinds = append(t.PaperKinds, Named{k.ID, t.Text(k.Name()), t.Text(k.Note())})
	}
	for _, k := range document.ScheduleTables {
		t.Tables = append(t.Tables, Named{k.ID, t.Text(k.Name()), t.Text(k.Note())})
	}
	t.AtOnce, t.FiledAtOnce = mostAtOnce, mostFiled
	for _, c := range schedule.Columns {
		t.Columns = append(t.Columns, Named{c.ID, t.Text(c.Name()), t.Text(c.Hint())})
	}
}

// house are those of the walk, the seasons and the day.
func (t *tables) house() {
	t.Parts, t.Sawns, t.SeasonSchools = choices(t.Voice, choice.Parts), choices(t.Voice, choice.Sawns), choices(
		t.Voice, choice.SeasonSchools,
	)
	t.Joints, t.Comes = choices(t.Voice, choice.Joints), choices(t.Voice, choice.Comes)
	for _, p := range trade.Places {
		t.Places = append(t.Places, Named{string(p), t.Text(p.Name()), ""})
	}
	for _, w := range trade.Woods {
		t.Woods = append(t.Woods, Named{w.ID, t.Text(w.Name()), w.Source})
	}
	for _, c := range trade.Climates {
		t.Climates = append(t.Climates, Named{c.ID, t.Text(c.Name()), c.Source})
	}
	for _, r := range trade.ReachRules {
		t.ReachRules = append(t.ReachRules, Named{r.ID, t.Text(r.Name()), r.Source})
	}
	for _, h := range trade.Handings {
		t.Handings = append(t.Handings, Handing{t.Text(h.Market()), t.Text(h.Left()), t.Text(h.Right()), h.Source})
	}
	for _, f := range trade.Faults {
		t.Faults = append(t.Faults, Fault{f.ID, t.Text(f.Name()), t.Text(f.Cure())})
	}
	for _, u := range []measure.Unit{measure.Millimetres, measure.Inches} {
		for _, tape := range measure.Tapes(u) {
			t.Tapes = append(t.Tapes, TapeOf{string(tape), string(u), t.Word(tape)})
		}
	}
	for _, l := range job.Languages {
		id := message.ID(l)
		t.Languages = append(t.Languages, Named{string(l), t.Text("language." + id), t.Text("language-why." + id)})
	}
	for _, s := range trade.Sights {
		t.Sights = append(t.Sights, Named{s.ID, t.Text(s.Name()), ""})
	}
	for _, c := range trade.Cautions {
		t.Cautions = append(t.Cautions, Caution{c.Step, t.Text(c.Says)})
	}
}
