package api

import (
	"context"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/schedule"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
	"kindmargin/sheet"
	"kindmargin/sheet/full"
	"kindmargin/sheet/paper"
)

func (s server) trade(context.Context, *struct{}) (*body[Trade], error) {
	return &body[Trade]{Body: TradeTables()}, nil
}

// Trade is the tables that the choices are made from.
type Trade struct {
	Schools       []School       `json:"schools"`
	HingeRules    []HingeRule    `json:"hingeRules"`
	HingeKinds    []HingeKind    `json:"hingeKinds"`
	Faults        []Fault        `json:"faults"`
	Devices       []trade.Device `json:"devices"`
	DeviceKinds   []DeviceKind   `json:"deviceKinds"`
	ReachRules    []Named        `json:"reachRules"`
	Templates     []TemplateOf   `json:"templates"`
	Papers        []string       `json:"papers"`
	PaperKinds    []Named        `json:"paperKinds" doc:"Papers that doors are put on."`
	Tables        []Named        `json:"tables" doc:"That a job gives out; the first can be read in again."`
	AtOnce        int            `json:"atOnce" doc:"Of how many doors a paper, a table or a list is given at once; of more it is an export."`
	FiledAtOnce   int            `json:"filedAtOnce" doc:"The same for a job file."`
	Columns       []Named        `json:"columns" doc:"That a schedule can have."`
	Joints        []Named        `json:"joints" doc:"Of a frame's head and jambs."`
	Places        []Named        `json:"places" doc:"Where work is done."`
	Woods         []Named        `json:"woods"`
	Sawns         []Named        `json:"sawns" doc:"How boards were sawn."`
	Climates      []Named        `json:"climates" doc:"Of the air indoors, through a year."`
	SeasonSchools []Named        `json:"seasonSchools" doc:"Ways to foretell how far wood moves."`
	Parts         []Named        `json:"parts" doc:"Parts of a door's choices that others can take."`
	Obstacles     []string       `json:"obstacles" doc:"What leaves keep clear of."`
	Constructions []Built        `json:"constructions"`
	Registrations []Named        `json:"registrations"`
	Ends          []Named        `json:"ends"`
	Habits        []Named        `json:"habits"`
	Walls         []Named        `json:"walls"`
	Measurings    []Named        `json:"measurings"`
	Steps         []StepOf       `json:"steps"`
	Kinds         []KindOf       `json:"kinds"`
	Instruments   []InstrumentOf `json:"instruments"`
	Tapes         []TapeOf       `json:"tapes"`
	Languages     []Named        `json:"languages" doc:"That a job's sentences can be in."`
	Handings      []Handing      `json:"handings"`
	Sights        []Named        `json:"sights" doc:"What is seen of a gap instead of a figure."`
	Cautions      []Caution      `json:"cautions"`
	CodeFirst     string         `json:"codeFirst"`
}

// School is a way of setting margins.
type School struct {
	ID      string  `json:"id"`
	Name    string  `json:"name"`
	Note    string  `json:"note"`
	Source  string  `json:"source"`
	Margins []Sized `json:"margins"`
}

// Sized is a margin of one side; empty text where the hinge gives it.
type Sized struct {
	Side frame.Side `json:"side"`
	Text sheet.Text `json:"text"`
}

// Built is a construction of slab and what it allows.
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

// Named is a choice and what it means.
type Named struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Why  string `json:"why"`
}

func named[T ~string](list []plan.Choice[T]) (out []Named) {
	for _, c := range list {
		out = append(out, Named{string(c.ID), c.Name, c.Why})
	}
	return out
}

// InstrumentOf is an instrument that a kit can hold.
type InstrumentOf struct {
	ID       string        `json:"id"`
	Name     string        `json:"name"`
	Reads    []survey.Kind `json:"reads"`
	PerMetre bool          `json:"perMetre" doc:"Its error grows with the metres between the two places."`
	Source   string        `json:"source"`
}

// StepOf is a step and its name.
type StepOf struct {
	ID   job.Step `json:"id"`
	Name string   `json:"name"`
}

// KindOf is what the page needs to know of a kind of reading.
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

// Example is a value as it could be typed.
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

// TemplateOf is a full-size sheet that can be had.
type TemplateOf struct {
	ID   string   `json:"id"`
	Name string   `json:"name"`
	Note string   `json:"note"`
	Step job.Step `json:"step"`
	Body bool     `json:"body" doc:"It can be had for a 3-D printer too."`
}

// DeviceKind is a kind of device.
type DeviceKind struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Fixed bool   `json:"fixed" doc:"It goes on the bolted leaf of a pair."`
	Note  string `json:"note"`
}

// Fault is something wrong with an old hinge.
type Fault struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Cure string `json:"cure"`
}

// Handing is what a market calls hinges on the left, or on the right, seen from the pull
// face.
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

// TradeTables gives them all.
func TradeTables() Trade {
	t := Trade{
		CodeFirst: trade.CodeFirst, Obstacles: trade.Obstacles, Registrations: named(plan.Across), Ends: named(plan.Along), Habits: named(plan.Habits), Walls: named(plan.Walls),
		Measurings: named(plan.Measurings),
	}
	t.measuring()
	t.fittings()
	t.papers()
	t.house()
	return t
}

// measuring are the tables of reading an opening and of the margins.
func (t *Trade) measuring() {
	for _, s := range plan.StepsOf {
		t.Steps = append(t.Steps, StepOf{s.Step, s.Name})
	}
	for _, i := range trade.Instruments {
		tool := InstrumentOf{ID: i.ID, Name: i.Name, PerMetre: i.PerMetre, Source: i.Source}
		for _, r := range i.Reads {
			tool.Reads = append(tool.Reads, survey.Kind(r.Kind))
		}
		t.Instruments = append(t.Instruments, tool)
	}
	for _, k := range survey.KindsOf() {
		t.Kinds = append(t.Kinds, KindOf{k.Kind, k.Name, k.Asks, append([]frame.Side{}, k.Sides...), Labelled(k.At), Labelled(k.From), Labelled(k.To), k.Signed, Example(k.Example)})
	}
	for _, s := range trade.Schools {
		v := School{ID: s.ID, Name: s.Name, Note: s.Note, Source: s.Source}
		for _, side := range frame.Sides {
			sized := Sized{Side: side}
			if s.Margin[side] > 0 {
				sized.Text = sheet.Fine(s.Margin[side])
			}
			v.Margins = append(v.Margins, sized)
		}
		t.Schools = append(t.Schools, v)
	}
}

// fittings are those of slabs, hinges and locks.
func (t *Trade) fittings() {
	for _, c := range trade.Constructions {
		v := Built{ID: c.ID, Name: c.Name, Note: c.Note, Source: c.Source}
		for _, side := range frame.Sides {
			v.Most = append(v.Most, Sized{side, sheet.Fine(c.Most[side])})
		}
		t.Constructions = append(t.Constructions, v)
	}
	for _, r := range trade.HingeRules {
		t.HingeRules = append(t.HingeRules, HingeRule{r.ID, r.Name, r.Source})
	}
	for _, k := range trade.HingeKinds {
		t.HingeKinds = append(t.HingeKinds, HingeKind{k.ID, k.Name, k.Note})
	}
	t.Devices = trade.Devices
	for _, k := range trade.DeviceKinds {
		t.DeviceKinds = append(t.DeviceKinds, DeviceKind{k.ID, k.Name, k.Fixed, k.Note})
	}
}

// papers are those of what is printed, and of schedules.
func (t *Trade) papers() {
	for _, v := range full.Templates {
		t.Templates = append(t.Templates, TemplateOf{v.ID, v.Name, v.Note, v.Step, v.Body})
	}
	for _, p := range full.Papers {
		t.Papers = append(t.Papers, p.ID)
	}
	for _, k := range paper.Kinds {
		t.PaperKinds = append(t.PaperKinds, Named{k.ID, k.Name, k.Note})
	}
	for _, k := range sheet.ScheduleTables {
		t.Tables = append(t.Tables, Named{k.ID, k.Name, k.Note})
	}
	t.AtOnce, t.FiledAtOnce = mostAtOnce, mostFiled
	for _, c := range schedule.Columns {
		t.Columns = append(t.Columns, Named{c.ID, c.Name, c.Hint})
	}
}

// house are those of the walk, the seasons and the day.
func (t *Trade) house() {
	t.Parts, t.Sawns, t.SeasonSchools = named(plan.Parts), named(plan.Sawns), named(plan.SeasonSchools)
	t.Joints = named(plan.Joints)
	for _, p := range trade.Places {
		t.Places = append(t.Places, Named{string(p.ID), p.Name, ""})
	}
	for _, w := range trade.Woods {
		t.Woods = append(t.Woods, Named{w.ID, w.Name, w.Source})
	}
	for _, c := range trade.Climates {
		t.Climates = append(t.Climates, Named{c.ID, c.Name, c.Source})
	}
	for _, r := range trade.ReachRules {
		t.ReachRules = append(t.ReachRules, Named{r.ID, r.Name, r.Source})
	}
	for _, h := range trade.Handings {
		t.Handings = append(t.Handings, Handing(h))
	}
	for _, f := range trade.Faults {
		t.Faults = append(t.Faults, Fault(f))
	}
	for _, u := range []measure.Unit{measure.Millimetres, measure.Inches} {
		for _, tape := range measure.Tapes(u) {
			t.Tapes = append(t.Tapes, TapeOf{string(tape), string(u), tape.Name()})
		}
	}
	t.Languages = []Named{{string(job.British), "British", "recess, packer, keep"}, {string(job.American), "American", "mortise, shim, strike plate"}}
	for _, s := range trade.Sights {
		t.Sights = append(t.Sights, Named{s.ID, s.Name, ""})
	}
	for _, c := range trade.Cautions {
		t.Cautions = append(t.Cautions, Caution(c))
	}
}
