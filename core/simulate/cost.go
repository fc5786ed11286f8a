package simulate

import (
	"cmp"
	_ "embed"
	"encoding/json"
	"fmt"
	"hash/fnv"
	"math"
	"math/rand/v2"
	"slices"

	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
)

// Tools are those of a kit that decide what a door costs, beside a tape, a level, a square, packers and a pencil.
type Tools struct {
	Rods    bool `json:"rods,omitempty"`    // sliding rods
	Lath    bool `json:"lath,omitempty"`    // a straightedge as long as a jamb
	Feelers bool `json:"feelers,omitempty"` // for the gaps
	Fine    bool `json:"fine,omitempty"`    // marks to a tenth of a millimetre
}

// Cost is what a door costs with some tools, by simulation.
type Cost struct {
	Tools
	Minutes  float64 `json:"minutes"`  // of the whole door, mean
	Fits     float64 `json:"fits"`     // share at the first hang
	Readings float64 `json:"readings"` // of the opening, mean
	Gaps     float64 `json:"gaps"`     // of the hung slab, mean
	Done     float64 `json:"done"`     // share that is in all round when nothing more is done
}

// CostTable is a cost for every set of tools, and a hash of what it was made from.
type CostTable struct {
	Openings int    `json:"openings"`
	Seed     uint64 `json:"seed"`
	From     string `json:"from"` // Print of the program that made it
	Costs    []Cost `json:"costs"`
}

// kit is a kit of some tools.
func (t Tools) kit(h hands) survey.Kit {
	k := h.plain()
	if t.Rods {
		k = append(survey.Kit{{ID: "rods", Instrument: "rods"}}, k...)
	}
	if t.Lath {
		k = append(k, survey.Tool{ID: "lath", Instrument: "straightedge"})
	}
	if t.Feelers {
		k = append(k, survey.Tool{ID: "gauges", Instrument: "feelers"})
	}
	return k
}

// tape is the tape that its marks are made to.
func (t Tools) tape() measure.Tape {
	if t.Fine {
		return measure.Tenths
	}
	return measure.HalfMillimetre
}

// sets are all sets of tools.
func sets() (list []Tools) {
	for i := range 16 {
		list = append(list, Tools{i&1 != 0, i&2 != 0, i&4 != 0, i&8 != 0})
	}
	return list
}

// Costs simulates so many openings with every set of tools.
func Costs(openings int, seed uint64) (CostTable, error) {
	t := CostTable{Openings: openings, Seed: seed}
	var err error
	if t.From, err = Print(); err != nil {
		return t, err
	}
	for _, tools := range sets() {
		r, err := run(openings, seed, []way{program(fmt.Sprint("tools", tools), func(h hands, _ *rand.Rand) kit {
			return kit{tools: tools.kit(h), tape: tools.tape()}
		})})
		if err != nil {
			return t, err
		}
		w := r.Ways[0]
		t.Costs = append(t.Costs, Cost{
			tools, math.Round(w.MinutesMean), math.Round(100*w.Fits) / 100, math.Round(w.ReadingsMean), math.Round(w.GapsMean),
			math.Round(100*w.Finished) / 100,
		})
	}
	return t, nil
}

// Print is a hash of what the program does with a few openings, by which a table is known to be of this program.
func Print() (string, error) {
	r, err := Run(6, 28, "plain", "rods")
	if err != nil {
		return "", err
	}
	h := fnv.New32a()
	for _, w := range r.Ways {
		fmt.Fprintf(h, "%.1f,%.0f,%.0f;", w.MinutesMean, 6*w.ReadingsMean, 6*w.GapsMean)
	}
	return fmt.Sprintf("%08x", h.Sum32()), nil
}

//go:embed costs.json
var costs []byte

// Known is the table that ships. It panics where it cannot be read.
func Known() (t CostTable) {
	if err := json.Unmarshal(costs, &t); err != nil {
		panic(err)
	}
	return t
}

// ToolsOf are the tools of a kit, and of the tape that marks are made to.
func ToolsOf(k survey.Kit, tape measure.Tape) (t Tools) {
	for _, x := range k {
		switch x.Instrument {
		case "rods":
			t.Rods = true
		case "straightedge":
			t.Lath = true
		case "feelers":
			t.Feelers = true
		}
	}
	t.Fine = tape.Step() < measure.Millimetre/4
	return t
}

// Of is the cost with some tools.
func (t CostTable) Of(tools Tools) Cost {
	return t.Costs[slices.IndexFunc(t.Costs, func(c Cost) bool { return c.Tools == tools })]
}

// Saving is what one more tool would save.
type Saving struct {
	ID      string // rods, lath, feelers, fine
	Minutes float64
}

// Savings are what each tool that is lacking would save at a door, the most first; one that saves under a minute is
// left out.
func (t CostTable) Savings(tools Tools) (list []Saving) {
	now := t.Of(tools).Minutes
	for _, x := range []struct {
		id  string
		add func(*Tools) *bool
	}{
		{"rods", func(t *Tools) *bool { return &t.Rods }},
		{"lath", func(t *Tools) *bool { return &t.Lath }},
		{"feelers", func(t *Tools) *bool { return &t.Feelers }},
		{"fine", func(t *Tools) *bool { return &t.Fine }},
	} {
		more := tools
		if has := x.add(&more); !*has {
			*has = true
			if by := now - t.Of(more).Minutes; by >= 1 {
				list = append(list, Saving{x.id, by})
			}
		}
	}
	slices.SortStableFunc(list, func(a, b Saving) int { return cmp.Compare(b.Minutes, a.Minutes) })
	return list
}

// Says describes what a door costs with a kit, and the tool that would save most.
func (t CostTable) Says(k survey.Kit, tape measure.Tape) (list message.Sentences) {
	tools := ToolsOf(k, tape)
	c := t.Of(tools)
	list = message.Sentences{{ID: "kit-cost.door", Args: message.Args{
		"minutes": message.Count(c.Minutes), "readings": message.Number(int(c.Readings)),
		"fits": message.Number(math.Round(10 * c.Fits)),
		"done": message.Number(math.Round(10 * c.Done)),
	}}}
	if saves := t.Savings(tools); len(saves) > 0 {
		list = append(list, message.Message{ID: "kit-cost.most", Args: message.Args{
			"tool": message.ID("kit-tool." + saves[0].ID), "minutes": message.Count(saves[0].Minutes),
		}}, message.Message{ID: message.ID("kit-make." + saves[0].ID)})
	}
	return list
}
