package api

import (
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/figure"
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// lengthOnWire stands for measure.Length in the OpenAPI document and in the
// schema of the job file.
type lengthOnWire float64

// Schema says that a length is written as a number of millimetres and read
// as that or as text with a unit.
func (lengthOnWire) Schema(huma.Registry) *huma.Schema {
	return &huma.Schema{Type: huma.TypeNumber, Description: "A length in millimetres, exact to the nanometre."}
}

// Text is a length as it is shown, in either unit, without the unit.
type Text struct {
	MM string `json:"mm"`
	In string `json:"in"`
}

// Figure is a length with how sure it is and why.
type Figure struct {
	MM    float64 `json:"mm"`
	Text  Text    `json:"text"`
	Sure  Text    `json:"sure" doc:"One standard deviation; empty where the figure is exact."`
	Terms []Term  `json:"terms"`
}

// Term is one part of a figure; they add up to it.
type Term struct {
	Label  string `json:"label"`
	Text   Text   `json:"text"`
	Sure   Text   `json:"sure"`
	Source string `json:"source" enum:"reading,estimate,choice,rule,rounding"`
}

// printer shows lengths for one job.
type printer struct {
	unit measure.Unit
	tape measure.Tape
}

// on shows a length on the tape of each unit.
func (p printer) on(l measure.Length) Text {
	return Text{p.tape.In(measure.Millimetres).Show(l), p.tape.In(measure.Inches).Show(l)}
}

// fine shows a margin: to a tenth of a millimetre, or a 64th of an inch.
func fine(l measure.Length) Text {
	return Text{
		measure.Exact(l.Round(measure.Millimetre/10, measure.Nearest), measure.Millimetres),
		measure.Exact(l.Round(measure.Inch/64, measure.Nearest), measure.Inches),
	}
}

// sure shows a standard deviation, rounded up, and nothing for nought.
func sure(sigma float64) Text {
	if sigma < 0.005 {
		return Text{}
	}
	l := measure.FromMM(min(sigma, 999))
	return Text{
		measure.Exact(l.Round(measure.Millimetre/10, measure.Up), measure.Millimetres),
		measure.Exact(l.Round(measure.Inch/64, measure.Up), measure.Inches),
	}
}

func (p printer) view(f figure.Figure, text Text) Figure {
	v := Figure{MM: f.Value.MM(), Text: text, Sure: sure(f.Sigma), Terms: []Term{}}
	for _, t := range f.Terms {
		v.Terms = append(v.Terms, Term{
			Label:  t.Label,
			Text:   Text{measure.Decimal(t.Value, measure.Millimetres), measure.Decimal(t.Value, measure.Inches)},
			Sure:   sure(t.Sigma),
			Source: string(t.Source),
		})
	}
	return v
}

// figure shows a figure on the tape; one made of readings, choices and rules
// alone is as exact as they are.
func (p printer) figure(f figure.Figure) Figure {
	text := p.on(f.Value)
	exact := true
	for _, t := range f.Terms {
		exact = exact && t.Source != figure.Estimate
	}
	if exact {
		switch p.unit {
		case measure.Inches:
			text.In = measure.Exact(f.Value, measure.Inches)
		default:
			text.MM = measure.Exact(f.Value, measure.Millimetres)
		}
	}
	return p.view(f, text)
}

func (p printer) fineFigure(f figure.Figure) Figure { return p.view(f, fine(f.Value)) }

// exact shows a length as it was given: a gauge is set to the leaf, never deeper.
func (p printer) exact(l measure.Length) Length {
	t := p.length(l)
	if p.unit == measure.Inches {
		t.Text.In = measure.Exact(l, p.unit)
	} else {
		t.Text.MM = measure.Exact(l, p.unit)
	}
	return t
}

func (p printer) length(l measure.Length) Length { return Length{l.MM(), p.on(l)} }

// Length is a length as it is shown.
type Length struct {
	MM   float64 `json:"mm"`
	Text Text    `json:"text"`
}

// Plan is the answer for one opening; see core/job.Plan.
type Plan struct {
	Notches  []Notch      `json:"notches"`
	Next     job.Step     `json:"next" doc:"The first step that is not done; empty when all are."`
	Findings []Finding    `json:"findings"`
	Clashes  []Clash      `json:"clashes" doc:"Readings that contradict the others: while there are any, every figure is doubtful and none is to be cut or marked to."`
	Without  []Settled    `json:"without" doc:"The plans that settling the first clash would give."`
	ToRead   []ToRead     `json:"toRead"`
	Readings []ReadingOn  `json:"readings"`
	Wanted   []Sided      `json:"wanted"`
	Margins  []Margin     `json:"margins"`
	Slab     *SlabWanted  `json:"slab,omitempty"`
	Cut      *CutSheet    `json:"cut,omitempty"`
	Hinges   []Hinge      `json:"hinges"`
	Gauges   Gauges       `json:"gauges"`
	Latch    *Latch       `json:"latch,omitempty"`
	Drawing  *DrawingView `json:"drawing,omitempty"`
	Second   *Plan        `json:"second,omitempty" doc:"For a pair, the leaf on the lock jamb, as it sees the opening."`
}

// Notch is one step of the rod.
type Notch struct {
	Step  job.Step  `json:"step"`
	State job.State `json:"state" enum:"waits,open,done,nicked"`
	Says  string    `json:"says"`
	Mark  string    `json:"mark" doc:"What /done/{step} is set to when the step is finished."`
}

// Finding is something to say: what, and what to do.
type Finding struct {
	Weight  job.Weight `json:"weight" enum:"stop,care,note"`
	Step    job.Step   `json:"step"`
	Pointer string     `json:"pointer" doc:"JSON pointer into the opening; may be empty."`
	Text    string     `json:"text"`
}

// Clash is a reading that the others contradict.
type Clash struct {
	ID      string   `json:"id"`
	Or      []string `json:"or" doc:"IDs of readings that would explain it as well."`
	Swapped string   `json:"swapped" doc:"ID of the reading that it was changed round with; empty where with none."`
	Again   ToRead   `json:"again" doc:"What to read to settle it."`
	AgainID string   `json:"againID" doc:"The ID of the reading to read again; empty where it is a new one."`
	Text    string   `json:"text"`
}

// Settled is the plan with a clash settled one way.
type Settled struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Swapped string `json:"swapped" doc:"ID of the reading that it is changed round with; empty where the reading is struck out."`
	Plan    Plan   `json:"plan"`
}

// ToRead is a reading worth taking next; it lacks only its value.
type ToRead struct {
	Name   string         `json:"name"`
	How    string         `json:"how"`
	Brings string         `json:"brings" doc:"What it would make surer, and how far."`
	Needed bool           `json:"needed"`
	Kind   string         `json:"kind"`
	Side   frame.Side     `json:"side"`
	At     measure.Length `json:"at"`
	From   measure.Length `json:"from"`
	To     measure.Length `json:"to"`
}

// ReadingOn is a reading as it is listed.
type ReadingOn struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Text   Text   `json:"text"`
	Struck string `json:"struck" doc:"Why it was struck out; empty where it counts."`
}

// Sided is a figure of one side.
type Sided struct {
	Side   frame.Side `json:"side"`
	Figure Figure     `json:"figure"`
	Sure   Text       `json:"sure" doc:"The least sure margin on the side."`
}

// Margin is the light at one place of a side.
type Margin struct {
	Side   frame.Side `json:"side"`
	Where  string     `json:"where"`
	Figure Figure     `json:"figure"`
}

// SlabWanted is the size that the finished slab has.
type SlabWanted struct {
	Width  Figure `json:"width"`
	Length Figure `json:"length"`
}

// CutSheet is what comes off, edge by edge in the order of cutting.
type CutSheet struct {
	Edges  []EdgeCut     `json:"edges"`
	Width  []Figure      `json:"width" doc:"After the first cut: head, middle, foot."`
	Length []Figure      `json:"length" doc:"After the first cut: hinge edge, middle, lock edge."`
	Others []Alternative `json:"others"`
	Across string        `json:"across"`
	Along  string        `json:"along"`
	Why    []string      `json:"why" doc:"The decision, then the reason."`
	Weight string        `json:"weight" doc:"Of the uncut slab, about, in the unit that goes with the job's lengths."`
}

// EdgeCut is what comes off one edge.
type EdgeCut struct {
	Side   frame.Side `json:"side"`
	Method string     `json:"method"`
	Says   string     `json:"says"`
	Left   Figure     `json:"left"`
	Marks  []CutMark  `json:"marks"`
	Passes []Pass     `json:"passes" doc:"Of a plane, 1 mm at a time; empty where a saw goes first."`
}

// Pass is one pass of the plane, between two places along the uncut edge.
type Pass struct {
	From Length `json:"from"`
	To   Length `json:"to"`
	Bite Text   `json:"bite" doc:"What it takes off."`
}

// CutMark is one mark: how far along the uncut edge, how deep.
type CutMark struct {
	At    Length `json:"at"`
	Depth Figure `json:"depth"`
}

// Alternative is a way of laying the slab.
type Alternative struct {
	Across string   `json:"across"`
	Along  string   `json:"along"`
	Chosen bool     `json:"chosen"`
	Short  bool     `json:"short"`
	Over   []string `json:"over" doc:"Edges that would lose more than they may."`
	Hinge  []Length `json:"hinge" doc:"Off the hinge edge at head and foot."`
	Lock   []Length `json:"lock" doc:"Off the lock edge at head and foot."`
	Head   Length   `json:"head"`
	Foot   Length   `json:"foot"`
}

// StockFit is a stock size held against the opening.
type StockFit struct {
	Market    string   `json:"market"`
	Width     Length   `json:"width"`
	Length    Length   `json:"length"`
	Thickness Length   `json:"thickness"`
	Fits      bool     `json:"fits"`
	Best      bool     `json:"best"`
	Why       string   `json:"why" doc:"Why it falls out."`
	Off       []Length `json:"off" doc:"Most off head, hinge edge, lock edge and foot."`
	Weight    string   `json:"weight" doc:"About, in the unit that goes with the job's lengths."`
}

func stockView(j job.Job, o job.Opening, leaf int) []StockFit {
	p := printer{j.Unit, j.Tape}
	out := []StockFit{}
	for _, f := range job.Buy(j, o, leaf) {
		v := StockFit{f.Market, p.exact(f.Width), p.exact(f.Stock.Length), p.exact(f.Thickness), f.Fits, f.Best, f.Why, nil, job.Mass(f.Weight, j.Unit)}
		for _, side := range frame.Sides {
			v.Off = append(v.Off, p.length(f.Off[side]))
		}
		out = append(out, v)
	}
	return out
}

// Hinge is one hinge's marks, to the top of the leaf.
type Hinge struct {
	Name string `json:"name"`
	Slab Figure `json:"slab"`
	Jamb Figure `json:"jamb"`
	Pack Figure `json:"pack" doc:"Packer behind the jamb leaf; below nought, a deeper pocket."`
}

// Gauges are the two settings of the marking gauge, and what they leave.
type Gauges struct {
	Depth   Length `json:"depth"`
	Width   Length `json:"width"`
	Setback Length `json:"setback"`
	Flush   Figure `json:"flush"`
}

// Latch is where latch and strike go.
type Latch struct {
	Slab    Figure `json:"slab"`
	Jamb    Figure `json:"jamb"`
	Floor   Figure `json:"floor"`
	Backset Figure `json:"backset"`
	Centre  Figure `json:"centre"`
	Wall    Length `json:"wall"`
}

// DrawingView is the daylight drawing, in mm: x from the hinge jamb along, y
// up, in the frame of the line of the pins.
type DrawingView struct {
	Width     float64       `json:"width"`
	Height    float64       `json:"height"`
	Corners   [][2]float64  `json:"corners" doc:"Finished slab: top hinge, top lock, foot lock, foot hinge."`
	Light     []LightView   `json:"light"`
	HingeTops []float64     `json:"hingeTops"`
	Leaf      float64       `json:"leaf"`
	Latch     float64       `json:"latch"`
	Least     float64       `json:"least"`
	Uneven    float64       `json:"uneven"`
	Readings  []ReadingMark `json:"readings"`
}

// LightView is the margin along one side.
type LightView struct {
	Side   frame.Side `json:"side"`
	Wanted float64    `json:"wanted"`
	Gaps   []GapView  `json:"gaps"`
}

// GapView is the margin at one place.
type GapView struct {
	Along float64 `json:"along"`
	Mean  float64 `json:"mean"`
	Sigma float64 `json:"sigma"`
}

// ReadingMark is where a reading was, or is to be, taken.
type ReadingMark struct {
	ID    string     `json:"id"`
	Kind  string     `json:"kind"`
	Side  frame.Side `json:"side"`
	At    float64    `json:"at"`
	From  float64    `json:"from"`
	To    float64    `json:"to"`
	Clash bool       `json:"clash"`
	Next  bool       `json:"next"`
}

// NewPlan solves an opening of a job and puts the answer on the wire.
func NewPlan(j job.Job, o job.Opening) Plan {
	return newPlan(j, o, job.Solve(j, o))
}

func newPlan(j job.Job, o job.Opening, plan job.Plan) Plan {
	p := printer{j.Unit, j.Tape}
	v := Plan{
		Notches: []Notch{}, Next: plan.Next, Findings: []Finding{}, Clashes: []Clash{}, Without: []Settled{}, ToRead: []ToRead{}, Readings: []ReadingOn{},
		Wanted: []Sided{}, Margins: []Margin{}, Hinges: []Hinge{},
		Gauges: Gauges{p.exact(plan.Gauges.Depth), p.exact(plan.Gauges.Width), p.exact(plan.Gauges.Setback), p.fineFigure(plan.Gauges.Flush)},
	}
	for _, n := range plan.Notches {
		v.Notches = append(v.Notches, Notch(n))
	}
	for _, f := range plan.Findings {
		v.Findings = append(v.Findings, Finding(f))
	}
	for _, r := range plan.ToRead {
		v.ToRead = append(v.ToRead, toRead(r))
	}
	for _, c := range plan.Clashes {
		clash := Clash{ID: c.Reading.ID, Or: []string{}, AgainID: c.Again.ID, Text: c.Text, Again: toRead(job.Suggestion{
			Reading: c.Again, Name: c.Again.Name(j.Unit), How: c.Again.How(j.Unit), Brings: "what tells the clash",
		})}
		for _, r := range c.Or {
			clash.Or = append(clash.Or, r.ID)
		}
		if c.Swapped != nil {
			clash.Swapped = c.Swapped.ID
		}
		v.Clashes = append(v.Clashes, clash)
	}
	for _, w := range plan.Without {
		settled := Settled{ID: w.Reading.ID, Name: w.Reading.Name(j.Unit), Plan: newPlan(j, o, *w.Plan)}
		if w.Swapped != nil {
			settled.Swapped = w.Swapped.ID
		}
		v.Without = append(v.Without, settled)
	}
	for _, r := range o.Readings {
		text := fine(r.Value)
		if j.Unit == measure.Inches {
			text.In = measure.Exact(r.Value, measure.Inches)
		} else {
			text.MM = measure.Exact(r.Value, measure.Millimetres)
		}
		v.Readings = append(v.Readings, ReadingOn{r.ID, r.Name(j.Unit), text, r.Struck})
	}
	for _, side := range frame.Sides {
		v.Wanted = append(v.Wanted, Sided{side, p.fineFigure(plan.Wanted[side]), sure(plan.Sureness[side])})
	}
	for _, m := range plan.Margins {
		v.Margins = append(v.Margins, Margin{m.Side, m.Where, p.fineFigure(m.Figure)})
	}
	if f := plan.Finished; f[0].Value > 0 {
		v.Slab = &SlabWanted{p.figure(f[0]), p.figure(f[1])}
	}
	if len(plan.Cuts) > 0 {
		v.Cut = p.cutSheet(plan)
	}
	for _, h := range plan.Hinges {
		v.Hinges = append(v.Hinges, Hinge{h.Name, p.figure(h.Slab), p.figure(h.Jamb), p.fineFigure(h.Pack)})
	}
	if l := plan.Latch; l != nil {
		v.Latch = &Latch{p.figure(l.Slab), p.figure(l.Jamb), p.figure(l.Floor), p.figure(l.Backset), p.figure(l.Centre), p.length(l.Wall)}
	}
	if len(plan.Drawing.Light) > 0 {
		v.Drawing = drawing(plan.Drawing)
	}
	if plan.Second != nil {
		second := newPlan(j, o, *plan.Second)
		v.Second = &second
	}
	return v
}

func toRead(r job.Suggestion) ToRead {
	return ToRead{r.Name, r.How, r.Brings, r.Needed, string(r.Reading.Kind), r.Reading.Side, r.Reading.At, r.Reading.From, r.Reading.To}
}

func (p printer) cutSheet(plan job.Plan) *CutSheet {
	c := &CutSheet{Edges: []EdgeCut{}, Others: []Alternative{}}
	for _, e := range plan.Cuts {
		edge := EdgeCut{e.Side, e.Method, e.Says, p.figure(e.Left), []CutMark{}, []Pass{}}
		for _, pass := range e.Passes {
			edge.Passes = append(edge.Passes, Pass{p.length(measure.FromMM(pass.From)), p.length(measure.FromMM(pass.To)), fine(measure.FromMM(pass.Bite))})
		}
		for _, m := range e.Marks {
			edge.Marks = append(edge.Marks, CutMark{p.length(m.At), p.figure(m.Depth)})
		}
		c.Edges = append(c.Edges, edge)
	}
	for i := range plan.Width {
		c.Width = append(c.Width, p.figure(plan.Width[i]))
		c.Length = append(c.Length, p.figure(plan.Length[i]))
	}
	c.Across, c.Along, c.Weight = string(plan.Laying.Across), string(plan.Laying.Along), job.Mass(plan.Weight, p.unit)
	c.Why = append([]string{job.Reasons[plan.Laying.Across], job.EndReasons[plan.Laying.Along]}, plan.Rules...)
	for _, a := range plan.Others {
		alt := Alternative{
			string(a.Across), string(a.Along), a.Chosen, a.Short,
			[]string{},
			[]Length{p.length(a.Hinge[0]), p.length(a.Hinge[1])},
			[]Length{p.length(a.Lock[0]), p.length(a.Lock[1])},
			p.length(a.Head), p.length(a.Foot),
		}
		for _, side := range a.Over {
			alt.Over = append(alt.Over, side.String())
		}
		c.Others = append(c.Others, alt)
	}
	return c
}

func drawing(d job.Drawing) *DrawingView {
	v := &DrawingView{
		Width: cents(d.Width), Height: cents(d.Height), HingeTops: []float64{}, Leaf: d.Leaf, Latch: cents(d.Latch),
		Least: d.Least, Uneven: d.Uneven, Readings: []ReadingMark{},
	}
	for _, c := range d.Corners {
		v.Corners = append(v.Corners, [2]float64{cents(c.X), cents(c.Y)})
	}
	for _, l := range d.Light {
		light := LightView{Side: l.Side, Wanted: d.Wanted[l.Side], Gaps: gaps(l.Gaps)}
		v.Light = append(v.Light, light)
	}
	for _, y := range d.HingeTops {
		v.HingeTops = append(v.HingeTops, cents(y))
	}
	for _, r := range d.Readings {
		v.Readings = append(v.Readings, ReadingMark{r.ID, string(r.Kind), r.Side, r.At, r.From, r.To, r.Clash, r.Wanted})
	}
	return v
}

func gaps(list []fit.Gap) []GapView {
	out := make([]GapView, len(list))
	for i, g := range list {
		out[i] = GapView{cents(g.Along), cents(g.Mean), cents(g.Sigma)}
	}
	return out
}

// cents rounds to 0.01 mm: finer than any screen.
func cents(mm float64) float64 { return math.Round(mm*100) / 100 }

// texts lists every length of an opening by its JSON pointer, as it is typed
// in the job's unit. A length of nought that means "not given" is left out.
func texts(o job.Opening, unit measure.Unit) map[string]string {
	out := map[string]string{}
	var walk func(v reflect.Value, at string)
	walk = func(v reflect.Value, at string) {
		if v.Type() == lengthType {
			if l := measure.Length(v.Int()); l != 0 || strings.HasPrefix(at, "/readings/") && (strings.HasSuffix(at, "/value") || strings.HasSuffix(at, "/at")) || strings.HasPrefix(at, "/margins/") || at == "/pair/meeting" {
				out[at] = measure.Exact(l, unit)
			}
			return
		}
		switch v.Kind() {
		case reflect.Struct:
			for i := range v.NumField() {
				name, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
				walk(v.Field(i), at+"/"+name)
			}
		case reflect.Slice:
			for i := range v.Len() {
				walk(v.Index(i), at+"/"+strconv.Itoa(i))
			}
		case reflect.Pointer:
			if !v.IsNil() {
				walk(v.Elem(), at)
			}
		}
	}
	walk(reflect.ValueOf(o), "")
	return out
}

// Trade is the tables that the choices are made from.
type Trade struct {
	Schools       []School    `json:"schools"`
	HingeRules    []HingeRule `json:"hingeRules"`
	Constructions []Built     `json:"constructions"`
	Registrations []Named     `json:"registrations"`
	Ends          []Named     `json:"ends"`
	Habits        []string    `json:"habits"`
	Tapes         []TapeOf    `json:"tapes"`
	Cautions      []Caution   `json:"cautions"`
	CodeFirst     string      `json:"codeFirst"`
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
	Text Text       `json:"text"`
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
	ID  string `json:"id"`
	Why string `json:"why"`
}

// TapeOf is a tape and its unit.
type TapeOf struct {
	ID   string `json:"id"`
	Unit string `json:"unit"`
}

// Caution is said at its step.
type Caution struct {
	Step string `json:"step"`
	Text string `json:"text"`
}

// TradeTables gives them all.
func TradeTables() Trade {
	t := Trade{CodeFirst: trade.CodeFirst}
	for _, s := range trade.Schools {
		v := School{ID: s.ID, Name: s.Name, Note: s.Note, Source: s.Source}
		for _, side := range frame.Sides {
			sized := Sized{Side: side}
			if s.Margin[side] > 0 {
				sized.Text = fine(s.Margin[side])
			}
			v.Margins = append(v.Margins, sized)
		}
		t.Schools = append(t.Schools, v)
	}
	for _, c := range trade.Constructions {
		v := Built{ID: c.ID, Name: c.Name, Note: c.Note, Source: c.Source}
		for _, side := range frame.Sides {
			v.Most = append(v.Most, Sized{side, fine(c.Most[side])})
		}
		t.Constructions = append(t.Constructions, v)
	}
	for _, e := range append(slices.Clone(fit.AllEnds), fit.ShareLength, fit.MeetStrike) {
		t.Ends = append(t.Ends, Named{string(e), job.EndReasons[e]})
	}
	for _, r := range trade.HingeRules {
		t.HingeRules = append(t.HingeRules, HingeRule{r.ID, r.Name, r.Source})
	}
	for _, r := range append(slices.Clone(fit.Registrations), fit.AsOffered, fit.ShareWidth) {
		t.Registrations = append(t.Registrations, Named{string(r), job.Reasons[r]})
	}
	for _, h := range job.Habits {
		t.Habits = append(t.Habits, string(h))
	}
	for _, u := range []measure.Unit{measure.Millimetres, measure.Inches} {
		for _, tape := range measure.Tapes(u) {
			t.Tapes = append(t.Tapes, TapeOf{string(tape), string(u)})
		}
	}
	for _, c := range trade.Cautions {
		t.Cautions = append(t.Cautions, Caution(c))
	}
	return t
}
