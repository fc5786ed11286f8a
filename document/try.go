package document

import (
	"math"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/stage/hangs"
	"kindmargin/core/trade"
	"kindmargin/core/try"
)

// TryOf is the record of a leaf from its first cut on.
type TryOf struct {
	Planned  *job.Made   `json:"planned,omitempty" doc:"As its marks cut it and hang it: what /tried/{leaf}/made is set to where nothing else was done."`
	Cut      bool        `json:"cut" doc:"The cut was recorded."`
	Width    []Length    `json:"width" doc:"Of the slab after its cut: head, middle, foot."`
	Length   []Length    `json:"length" doc:"Hinge edge, lock edge."`
	Hinges   []string    `json:"hinges" doc:"Their names, top one first."`
	Hangs    []HungOf    `json:"hangs" doc:"One by one."`
	Found    []LightView `json:"found" doc:"The margins as all that was read says, along each side; empty while it does not hang."`
	Foretold []LightView `json:"foretold" doc:"As was foretold of this hang before its gaps were read."`
	Margins  []Light     `json:"margins" doc:"As found, at three places of each side."`
	ToRead   []ToRead    `json:"toRead" doc:"Gaps worth reading next, in order."`
	Ways     []TryWayOf  `json:"ways" doc:"Ways to bring every margin in, the least work first; empty where they are in."`
	After    []string    `json:"after" doc:"What follows once the margins are in: flush with the jamb, then the latch."`
	May      []MayOf     `json:"may" doc:"What may be done to it."`
	Fits     bool        `json:"fits" doc:"Every margin is in."`
	Look     string      `json:"look" doc:"Asks to look along the light first; empty where it is not asked."`
	Slide    string      `json:"slide" doc:"Asks for a packer to be slid all round before anything else; empty where it is not asked."`
	Near     []string    `json:"near" doc:"It hangs as near as it gets: what is out, and what would do better; empty where something is worth doing."`
	AsIs     float64     `json:"asIs" doc:"Minutes that it likely still takes as it hangs."`
	Done     bool        `json:"done" doc:"It fits and nothing is worth reading, or it was called done."`
}

// HungOf is one hang.
type HungOf struct {
	ID      string       `json:"id"`
	On      string       `json:"on"`
	By      string       `json:"by"`
	Revisit string       `json:"revisit"`
	Did     []string     `json:"did" doc:"What was done before it, in words."`
	Outside bool         `json:"outside" doc:"It does not go in: its gaps are ticks."`
	Gaps    []FoundGapOf `json:"gaps"`
}

// FoundGapOf is a gap with its prediction.
type FoundGapOf struct {
	ID       string     `json:"id"`
	Name     string     `json:"name"`
	Side     frame.Side `json:"side"`
	At       float64    `json:"at" doc:"Up the slab, or from its hinge edge, mm."`
	Found    Text       `json:"found"`
	Sight    string     `json:"sight" doc:"What was seen instead of a figure; empty where one was read."`
	Foretold Figure     `json:"foretold" doc:"Of the last hang; nought of those before it."`
	Off      bool       `json:"off" doc:"Further from what was foretold than 19 times in 20."`
	Clash    bool       `json:"clash" doc:"The other gaps contradict it."`
	Struck   string     `json:"struck"`
	Local    bool       `json:"local" doc:"A lump or a hollow is there."`
}

// TryWayOf is a way to bring every margin in.
type TryWayOf struct {
	Uses     []string    `json:"uses" doc:"IDs of what it touches."`
	Does     []string    `json:"does" doc:"In words, in order."`
	Out      []string    `json:"out" doc:"What stays out, in words."`
	Costs    string      `json:"costs"`
	Minutes  float64     `json:"minutes" doc:"Of the work, to the minute."`
	Still    float64     `json:"still" doc:"Minutes that what may be out then likely still takes."`
	In       string      `json:"in" doc:"How likely every gap is in after it."`
	Trips    int         `json:"trips" doc:"To the trestles."`
	Hanging  bool        `json:"hanging" doc:"The lock edge is planed as it hangs."`
	Did      job.Did     `json:"did" doc:"What the next hang's did is set to once it was done."`
	Foretold []LightView `json:"foretold"`
	Margins  []Light     `json:"margins"`
}

// MayOf is a means that may be used on a hung slab.
type MayOf struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

func (p printer) try(t *hangs.Try, d *plan.Drawing) *TryOf {
	if t == nil {
		return nil
	}
	v := &TryOf{
		Planned: t.Planned, Cut: t.Cut, Width: []Length{}, Length: []Length{}, Hinges: p.texts(t.Names),
		Hangs: []HungOf{},
		Found: along(t.Margins, t.Wanted, d), Foretold: along(t.Was, t.Wanted, d), Margins: p.places(t.Margins),
		ToRead: []ToRead{}, Ways: []TryWayOf{}, After: p.say(t.After), May: []MayOf{},
		Fits: t.Fits, Near: []string{}, AsIs: math.Round(t.AsIs), Done: t.Done(),
	}
	if len(t.Near) > 0 {
		v.Near = p.say(t.Near)
	}
	if t.Look {
		v.Look = p.voice.Text("look.light")
	}
	if t.Slide && len(t.ToRead) == 0 {
		v.Slide = p.voice.Say(t.Slides())
	}
	for i := range v.Margins {
		v.Margins[i].Read = t.Read(v.Margins[i].Side, i%3)
	}
	if s := t.Sizes; s != nil {
		for _, w := range s.Width {
			v.Width = append(v.Width, p.length(w))
		}
		for _, l := range s.Length {
			v.Length = append(v.Length, p.length(l))
		}
	}
	for _, h := range t.Hangs {
		hung := HungOf{
			ID: h.ID, On: h.On, By: h.By, Revisit: h.Revisit, Did: p.say(h.DidSays), Outside: h.Outside,
			Gaps: []FoundGapOf{},
		}
		for _, g := range h.Gaps {
			f := FoundGapOf{
				ID: g.ID, Name: p.voice.Word(g.Reading), Side: g.Side, At: g.At.MM(), Found: Fine(g.Value),
				Foretold: p.fine(g.Foretold), Off: g.Off, Clash: g.Clash, Struck: g.Struck,
				Local: g.Local,
			}
			if s, ok := trade.SightByID(g.Sight); ok {
				f.Sight = p.voice.Text(s.Name())
			}
			hung.Gaps = append(hung.Gaps, f)
		}
		v.Hangs = append(v.Hangs, hung)
	}
	for _, r := range t.ToRead {
		v.ToRead = append(v.ToRead, p.toRead(r))
	}
	for _, w := range t.Ways {
		v.Ways = append(v.Ways, TryWayOf{
			Uses: hangs.Uses(w.Uses), Does: p.say(w.Does), Out: p.say(w.Out), Costs: p.voice.Say(w.Costs),
			Minutes: math.Round(w.Minutes), Still: math.Round(w.Likely) - math.Round(w.Minutes),
			In: p.voice.Say(message.With("near.chance", "in", message.Chance(w.In))), Trips: w.Trips, Hanging: w.Hanging,
			Did: w.Did, Foretold: along(w.Margins, t.Wanted, d), Margins: p.places(w.Margins),
		})
	}
	for _, m := range hangs.MayBe(t.Names) {
		v.May = append(v.May, MayOf{m.ID, p.voice.Say(m.Name)})
	}
	return v
}

// Found is the gaps round a hung slab, for its drawing; empty while it does not hang.
func Found(t *hangs.Try, d *plan.Drawing) []LightView {
	if t == nil {
		return nil
	}
	return along(t.Margins, t.Wanted, d)
}

// along are margins for the drawing of a leaf: places are up from the slab's foot and across from its hinge edge.
func along(m frame.Each[[]try.Margin], wanted frame.Each[figure.Figure], d *plan.Drawing) []LightView {
	out := []LightView{}
	if d == nil {
		return out
	}
	foot, head := d.Corners[3], d.Corners[0]
	for _, side := range frame.Sides {
		if len(m[side]) == 0 {
			continue
		}
		from := head.X
		if side.Upright() {
			from = foot.Y
		}
		v := LightView{Side: side, Wanted: wanted[side].Value.MM(), Gaps: []GapView{}}
		for _, g := range m[side] {
			v.Gaps = append(v.Gaps, GapView{cents(from + g.At), cents(g.Mean), cents(g.Sigma)})
		}
		out = append(out, v)
	}
	return out
}

// places are the margins at the ends and the middle of each side.
func (p printer) places(m frame.Each[[]try.Margin]) []Light {
	out := []Light{}
	for _, side := range frame.Sides {
		n := len(m[side])
		if n == 0 {
			continue
		}
		for where, g := range [3]try.Margin{m[side][0], try.Middle(m[side]), m[side][n-1]} {
			out = append(out, p.light(side, where, p.fine(figure.Sum(g.Sigma, figure.Term{
				Label: "term.all-read", Value: measure.FromMM(cents(g.Mean)), Source: figure.Estimate, Sigma: g.Sigma,
			}))))
		}
	}
	return out
}
