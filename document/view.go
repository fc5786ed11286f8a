package document

import (
	"math"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/saves"
	"kindmargin/core/site"
	"kindmargin/core/stage/cuts"
	"kindmargin/core/stage/readings"
	"kindmargin/core/stage/swings"
	"kindmargin/core/survey"
	"kindmargin/core/swing"
	"kindmargin/words"
)

// Of plans an opening of a job and returns its JSON form.
func Of(j job.Job, o job.Opening) Plan { return NewPlan(j, o, plan.Solve(j, o)) }

// NewPlan is a plan of an opening in its JSON form.
func NewPlan(j job.Job, o job.Opening, p plan.Plan) Plan { return newPrinter(j).plan(j, o, p) }

func (pr printer) plan(j job.Job, o job.Opening, p plan.Plan) Plan {
	v := Plan{
		Next: p.Next, Trip: cents(p.Trip), Steps: []Step{}, Findings: pr.findings(p.Findings), Clashes: []Clash{},
		Without: []Settled{}, ToRead: []ToRead{},
		Readings: []ReadingOn{}, Places: []Place{}, Leaves: []Leaf{},
	}
	for _, n := range p.Steps {
		v.Steps = append(v.Steps, Step{
			Step: n.Step, State: n.State, Ready: n.Ready, Says: pr.voice.Text(n.Says), Mark: n.Mark,
		})
	}
	for _, r := range p.ToRead {
		v.ToRead = append(v.ToRead, pr.toRead(r))
	}
	if p.OfferUp.ID != "" {
		v.OfferUp = pr.voice.Say(p.OfferUp)
	}
	for _, c := range p.Clashes {
		v.Clashes = append(v.Clashes, pr.clash(c))
	}
	for _, w := range p.Without {
		settled := Settled{ID: w.Reading.ID, Name: pr.voice.Word(w.Reading), Plan: pr.plan(j, o, *w.Plan)}
		if w.Swapped != nil {
			settled.Swapped = w.Swapped.ID
		}
		v.Without = append(v.Without, settled)
	}
	for _, r := range o.Readings {
		v.Readings = append(v.Readings, ReadingOn{
			ID: r.ID, Name: pr.voice.Word(r), Text: pr.exactly(Fine(r.Value), r.Value),
			With: pr.maybe(site.ToolName(j.Kit.Tools, r)), Struck: r.Struck,
		})
	}
	for _, r := range p.Places {
		v.Places = append(v.Places, Place{
			ID: r.ID, Kind: r.Kind, Side: r.Side, At: r.At, From: r.From, To: r.To, Clash: r.Clash, Next: r.Wanted,
		})
	}
	if p.Lining != nil {
		v.Lining = pr.lining(*p.Lining)
	}
	for i, l := range p.Leaves {
		v.Leaves = append(v.Leaves, pr.leaf(l, []frame.Side{frame.Hinge, frame.Lock}[i], o.Hinges.Size))
		v.Leaves[i].Jigs = pr.jigs(saves.Jigs(o, l, i))
	}
	return v
}

// jigs are the jigs of a leaf, each with what it saves.
func (p printer) jigs(list []saves.Jig) []JigOf {
	v := []JigOf{}
	for _, j := range list {
		v = append(v, JigOf{j.ID, p.voice.Text(j.Name()), p.voice.Say(message.With(
			"saves.pays", "make", message.Lasting(j.Make), "saves", message.Lasting(math.Round(j.Saves())),
			"from", message.Number(j.PaysFrom()),
		))})
	}
	return v
}

func (p printer) leaf(l plan.Leaf, jamb frame.Side, hinge string) Leaf {
	g := l.Gauges
	v := Leaf{
		Jamb: jamb, Findings: p.findings(l.Findings), Light: make([]Light, len(l.Light)),
		Hinges: make([]Hinge, len(l.Hinges)), Works: []Work{},
		Gauges: Gauges{
			Depth: p.figure(g.Depth), Width: p.figure(g.Width), Setback: p.figure(g.Setback),
			Flush: p.fine(g.Flush), PullWhy: []string{},
		},
	}
	if g.Pull.Load > 0 {
		v.Gauges.Pull, v.Gauges.PullWhy = p.weight(g.Pull.Load), p.say(g.Pull.Why())
	}
	for _, side := range frame.Sides {
		v.Wanted = append(v.Wanted, Sided{side, p.fine(l.Wanted[side]), plusMinus(l.Sure[side])})
	}
	if l.Season != nil {
		v.Season = p.season(*l.Season)
	}
	for i, m := range l.Light {
		v.Light[i] = p.light(m.Side, m.Where, p.fine(m.Margin))
	}
	if f := l.Finished; f != nil {
		v.Finished = &Finished{p.figure(f.Width), p.figure(f.Length)}
	}
	if l.Cut != nil {
		v.Cut = p.cutSheet(*l.Cut)
	}
	for i, h := range l.Hinges {
		v.Hinges[i] = Hinge{
			ID: string(h.Name), Name: p.voice.Text(h.Name), Slab: p.figure(h.Slab), Jamb: p.figure(h.Jamb),
			Pack: p.fine(h.Pack), Packed: h.Packed(),
		}
	}
	v.Rod = p.rodMarks(l.Rod)
	if h := l.Hanging; h != nil {
		v.Hanging = &Hanging{
			Head: p.figures(h.Head[:]), Shut: p.fine(h.Shut), Open: p.fine(h.Open), Two: h.Two,
			Goes: p.voice.Word(h.Goes), Screws: p.say(h.Screws), Steps: p.say(h.Steps),
		}
	}
	if l.Swing != nil {
		v.Swing = p.swing(*l.Swing)
	}
	if k := l.Latch; k != nil {
		v.Latch = &Latch{
			Slab: p.figure(k.Slab), Jamb: p.figure(k.Jamb), Floor: p.figure(k.Floor), Backset: p.figure(k.Backset),
			Centre: p.figure(k.Centre), Wall: p.fine(k.Wall),
		}
	}
	v.Stops = p.stops(l.Stops)
	v.Hardware, v.Strikes = p.hardware(l.Hardware), p.say(l.Strikes)
	if l.Drawing != nil {
		v.Drawing = Draw(*l.Drawing)
	}
	v.Try = p.try(l.Try, l.Drawing)
	for _, w := range l.Works(hinge) {
		v.Works = append(v.Works, Work(w))
	}
	return v
}

func (p printer) findings(list []site.Finding) []Finding {
	out := make([]Finding, len(list))
	for i, f := range list {
		out[i] = Finding{
			Gravity: f.Gravity, Step: f.Step, Pointer: f.Pointer, At: job.StepOf(f.Pointer), Code: f.Code,
			Args: map[string]any{},
			Text: p.voice.Say(f.Message()),
		}
		for name, arg := range f.Args {
			out[i].Args[name] = p.plain(arg)
		}
	}
	return out
}

// say is a list of messages in words, never nil.
func (p printer) say(list []message.Message) []string {
	out := make([]string, len(list))
	for i, m := range list {
		out[i] = p.voice.Say(m)
	}
	return out
}

// texts is a list of IDs in words, never nil.
func (p printer) texts(list []message.ID) []string {
	out := make([]string, len(list))
	for i, id := range list {
		out[i] = p.voice.Text(id)
	}
	return out
}

// maybe is a message in words; empty for none.
func (p printer) maybe(m message.Message) string {
	if m.ID == "" {
		return ""
	}
	return p.voice.Say(m)
}

// weight is a weight in the unit that goes with the job's lengths.
func (p printer) weight(kg float64) string { return words.Mass(kg, p.unit) }

// light is a margin at one place of a side: 0 its foot or hinge corner, 1 its middle, 2 its head or lock corner.
func (p printer) light(side frame.Side, place int, f Figure) Light {
	end := message.End{Side: side, Place: place}
	return Light{Side: side, Place: end.ID(), Where: p.voice.Word(end), Figure: f}
}

// endNames are the places of a side as version 2 of the plan has them among the arguments of findings.
var endNames = map[string]string{
	"foot": "foot", "middle": "middle", "head": "head", "hinge-corner": "hinge corner", "lock-corner": "lock corner",
}

// plain is an argument of a message for other programs: a length in mm, a reading by its ID, an edge or a side by name,
// a weight in kg, otherwise text.
func (p printer) plain(arg any) any {
	if l, ok := message.LengthOf(arg); ok {
		return l.MM()
	}
	if side, ok := message.SideOf(arg); ok {
		return side.String()
	}
	switch v := arg.(type) {
	case message.Sure, message.Mass, message.Degrees:
		return v
	case message.End:
		return endNames[v.ID()]
	case survey.Reading:
		return v.ID
	case survey.Valued:
		return v.ID
	case message.Or:
		list := make([]any, len(v))
		for i, x := range v {
			list[i] = p.plain(x)
		}
		return list
	}
	return p.voice.Word(arg)
}

func (p printer) clash(c readings.Clash) Clash {
	v := Clash{
		ID: c.Reading.ID, Or: []string{}, AgainID: c.Again.ID, Text: p.voice.Say(c.Message()),
		Again: p.toRead(c.Suggest()),
	}
	for _, r := range c.Or {
		v.Or = append(v.Or, r.ID)
	}
	if c.Swapped != nil {
		v.Swapped = c.Swapped.ID
	}
	return v
}

// Usual are the readings that an opening usually gets and has not yet, in order: what is asked without a plan.
func Usual(j job.Job, o job.Opening) []ToRead {
	pr, list := newPrinter(j), []ToRead{}
	for _, s := range readings.Usual(site.New(j, o)) {
		list = append(list, pr.toRead(s))
	}
	return list
}

func (p printer) toRead(s site.Suggestion) ToRead {
	r := s.Reading
	return ToRead{
		Name: p.voice.Say(r.Title()), How: p.voice.Say(r.How()), Brings: p.voice.Word(s.Brings), Needed: s.Needed,
		With: p.maybe(s.Tool), Tool: r.Tool, Turned: r.Turned,
		Worth: Worth{
			Minutes: cents(s.Worth.Minutes), Takes: cents(s.Worth.Own), More: max(s.Worth.With, 0),
			From: cents(s.Worth.From), To: cents(s.Worth.To),
		},
		Kind: r.Kind, Side: r.Side, At: r.At, From: r.From, To: r.To, Offer: r.Offer,
	}
}

// edges names some edges.
func (p printer) edges(list []frame.Side) string {
	all := make(message.And, len(list))
	for i, side := range list {
		all[i] = message.Edge(side)
	}
	return p.voice.Word(all)
}

func (p printer) cutSheet(c cuts.List) *CutList {
	v := &CutList{
		Edges: []EdgeCut{}, Others: []Way{}, Inserts: []InsertOf{}, Width: p.figures(c.Width[:]), Length: p.figures(c.Length[:]),
		Across: c.Laying.Across, Along: c.Laying.Along, Weight: p.weight(c.Weight),
		Why: p.texts(cuts.Why(c.Laying)), Rules: p.texts(c.Rules),
	}
	for e := range c.InOrder() {
		edge := EdgeCut{
			Side: e.Side, Method: p.voice.Text(e.Means.Name()), Says: p.voice.Word(e.Says), Left: p.figure(e.Left),
			Bevel: p.figure(e.Bevel), Marks: make([]CutMark, len(e.Marks)), Passes: make([]Pass, len(e.Passes)),
			Ways: make([]EdgeWay, len(e.Ways)), Sawing: p.sawing(e.Sawing),
		}
		for i, w := range e.Ways {
			edge.Ways[i] = EdgeWay{w.Means, p.voice.Say(e.Named(w)), math.Round(w.Minutes), w.Means == e.Means}
		}
		for i, m := range e.Marks {
			edge.Marks[i] = CutMark{p.length(m.At), p.figure(m.Depth)}
			if m.Depth.Value == 0 { // what is not cut has no ±
				edge.Marks[i].Depth.PlusMinus = Text{}
			}
		}
		edge.Pencils = make([]PencilMark, len(e.Pencils))
		for i, m := range e.Pencils {
			edge.Pencils[i] = PencilMark{p.length(m.At), p.voice.Say(m.Says())}
		}
		for i, pass := range e.Passes {
			edge.Passes[i] = Pass{
				p.length(measure.FromMM(pass.From)), p.length(measure.FromMM(pass.To)), Fine(measure.FromMM(pass.Bite)),
			}
		}
		v.Edges = append(v.Edges, edge)
	}
	for _, in := range c.Inserts {
		v.Inserts = append(v.Inserts, InsertOf{
			in.Ends, p.edges(in.Ends), p.length(in.Width), p.length(in.Thickness), p.length(in.Deep), in.Freed, p.say(in.Steps),
		})
	}
	for _, w := range c.Others {
		v.Others = append(v.Others, Way{
			Across: w.Across, Along: w.Along, Chosen: w.Chosen, Short: w.Short, Over: append([]frame.Side{}, w.Over...),
			Hinge: []Length{p.length(w.Hinge[0]), p.length(w.Hinge[1])},
			Lock:  []Length{p.length(w.Lock[0]), p.length(w.Lock[1])},
			Head:  p.length(w.Head), Foot: p.length(w.Foot),
		})
	}
	return v
}

func (p printer) sawing(s *cuts.Sawing) *Sawing {
	if s == nil {
		return nil
	}
	v := &Sawing{Clamps: []Clamp{}, Steps: p.say(s.Steps)}
	for _, c := range s.Clamps {
		v.Clamps = append(v.Clamps, Clamp{
			From: p.voice.Say(message.With("saw.clamp", "corner", c.Corner(), "edge", message.Edge(c.On))),
			End:  c.End, Edge: c.Edge, On: c.On, Along: p.figure(c.Along),
		})
	}
	if len(s.Clamps) == 0 {
		fence := p.figure(s.Fence)
		v.Fence = &fence
	}
	return v
}

func (p printer) swing(w swings.Swing) *Swing {
	points := func(list []swing.Point) (out [][2]float64) {
		for _, c := range list {
			out = append(out, [2]float64{cents(c.X), cents(c.Z)})
		}
		return out
	}
	parts := func(list [][]swing.Point) (out [][][2]float64) {
		for _, part := range list {
			out = append(out, points(part))
		}
		return out
	}
	v := &Swing{
		Bevel: p.figure(w.Bevel), Relief: p.figure(w.Relief), Clear: p.fine(w.Clear), ClearAt: math.Round(w.ClearAt),
		Second: w.Second,
		Opens:  math.Floor(w.Opens), OpensWhy: p.say(w.OpensWhy()), Against: p.maybe(w.Against.Thing),
		AgainstID: w.Against.ID, Rests: math.Round(w.Rests), RestsWhy: p.say(w.RestsWhy()),
		Least: p.fine(w.Least), LeastAt: math.Round(w.LeastAt),
		Slab: points(w.Slab), Parts: parts(w.Parts), Beside: Beside{
			p.voice.Text(w.Beside.Name), w.Beside.Name == "thing.other-leaf", parts(w.Beside.Parts),
		}, Stop: append([][2]float64{}, points(w.Stop)...), Things: []InPlan{},
	}
	for _, f := range w.Foot {
		v.Foot = append(v.Foot, FootAt{cents(f.Angle), cents(f.Rise), cents(f.Floor), p.hundredths(f.Clear)})
	}
	for _, t := range w.Things {
		v.Things = append(v.Things, InPlan{t.ID, p.voice.Say(t.Name), points(t.Shape)})
	}
	return v
}

// hundredths is a computed length with two decimals.
func (p printer) hundredths(mm float64) Length {
	l := measure.FromMM(cents(mm))
	return Length{cents(mm), Fine(l)}
}

// cents rounds to 0.01 mm: finer than any screen.
func cents(mm float64) float64 { return math.Round(mm*100) / 100 }
