package load

import (
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/BurntSushi/toml"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/trade"
	"kindmargin/demo"
)

// sentences are the British sentences of a section of the catalogue, by ID.
func sentences(t *testing.T) map[string]map[string]any {
	b, err := os.ReadFile("../../words/en-GB.toml")
	require.NoError(t, err)
	var all map[string]map[string]any
	require.NoError(t, toml.Unmarshal(b, &all))
	return all
}

// stepSections are the sections of the catalogue that are steps of work on a leaf.
var stepSections = []string{
	"saw", "cut", "insert", "screws", "hang", "bore", "hole", "surface", "strike", "bolting", "stops", "lining", "set",
	"hinge-goes", "hardware-note",
}

// notSteps are messages of those sections that are no step.
var notSteps = []string{"saw.clamp", "hole.latch-bore"}

// What a word in a sentence needs on the van. Common practice.
var named = []struct {
	word *regexp.Regexp
	item []message.ID // one of these
}{
	{regexp.MustCompile(`(?i)\bknife|\bscribe|\bpencil|\bmark (it|the|top|out)\b|\bsquare one\b|\bsquare set\b|with a square\b`), []message.ID{marking}},
	{regexp.MustCompile(`(?i)\btape (it|over|the|both)|\btape round`), []message.ID{masking}},
	{regexp.MustCompile(`(?i)\bclamp(ed)?\b|in clamps`), []message.ID{clamps}},
	{regexp.MustCompile(`(?i)\bblocks?\b|\bbattens\b|\bwaste clamped`), []message.ID{scrap}},
	{regexp.MustCompile(`(?i)\btrestles\b`), []message.ID{stand}},
	{regexp.MustCompile(`(?i)\bchisel|\bchop\b|\bpare\b|\btap:`), []message.ID{chisels}},
	{regexp.MustCompile(`(?i)\brouter\b|\bcutter\b`), []message.ID{router}},
	{regexp.MustCompile(`(?i)\bplane (in|the last|to the line|it)\b|\bease the push-side`), []message.ID{handPlane, power}},
	{regexp.MustCompile(`(?i)\bbevel it\b`), []message.ID{bevel}},
	{regexp.MustCompile(`(?i)\bglue the\b|\bglue, `), []message.ID{glue}},
	{regexp.MustCompile(`(?i)\bwedge\b|\bwedged\b`), []message.ID{wedges}},
	{regexp.MustCompile(`(?i)\bpackers\b`), []message.ID{feelers}},
	{regexp.MustCompile(`(?i)\ba card\b`), []message.ID{cards}},
	{regexp.MustCompile(`(?i)\blever, wedge or air bag`), []message.ID{lever}},
	{regexp.MustCompile(`(?i)\bpins? (in|drop)|\btwo pins\b|\bpin,|\btack\b`), []message.ID{pins}},
	{regexp.MustCompile(`(?i)\bpins out\b|\bpunch\b`), []message.ID{punch}},
	{regexp.MustCompile(`(?i)\bhammer\b|\btack\b|\bpins out\b`), []message.ID{hammer}},
	{regexp.MustCompile(`(?i)\bpull its nails`), []message.ID{puller}},
	{regexp.MustCompile(`(?i)\bcut the \{\{.what|\bfile\b|\bcut it to length`), []message.ID{hacksaw}},
	{regexp.MustCompile(`(?i)\bwith oil\b`), []message.ID{oil}},
	{regexp.MustCompile(`(?i)\bthread lock\b`), []message.ID{threads}},
	{regexp.MustCompile(`(?i)\bthe gauge\b`), []message.ID{gauges}},
	{regexp.MustCompile(`(?i)\bscrews? (the|its|it|home|them)\b|\bdrive one\b|\blong screws?\b|\bdrill\b|\bscrewed\b`), []message.ID{driver}},
	{regexp.MustCompile(`(?i)\bself-centring`), []message.ID{centring}},
	{regexp.MustCompile(`(?i)\{\{\.bit\}\}|\{\{\.hole\}\}, \{\{\.deep`), []message.ID{bitOf}},
	{regexp.MustCompile(`(?i)\bpilot(s)? (first|its|their)|\{\{\.pilot\}\}`), []message.ID{pilot, driver}},
	{regexp.MustCompile(`(?i)\bon a rod\b|\bthe rod\b|same rod`), []message.ID{rodStick}},
	{regexp.MustCompile(`(?i)\bfence\b`), []message.ID{tableSaw}},
	{regexp.MustCompile(`(?i)\broller stands\b`), []message.ID{rollers}},
	{regexp.MustCompile(`(?i)\bthe guide\b|\bthe batten\b|\bsaw it off\b|\brip (a|all|it)\b`), []message.ID{sawGuide, tableSaw}},
	{regexp.MustCompile(`(?i)\bplumb and straight\b`), []message.ID{level}},
}

// free are words of a sentence that need nothing of that name.
var free = map[string][]message.ID{
	"hang.trial":      {sawGuide}, // a spare leaf as the guide
	"strike.in":       {cards},    // a card of play is a thickness
	"hang.pins":       {pins},     // of the hinge
	"hang.drop":       {pins},
	"hang.hold":       {pins},
	"hang.whole-edge": {pins},
}

// Each step of the catalogue is in the table, and what its sentence names is among its uses: nothing that a step names is
// missing on the van. Its pseudo-steps, which a page words, are works and means.
func TestEachStepSaysWhatItUses(t *testing.T) {
	all := sentences(t)
	known := map[message.ID]bool{}
	for _, section := range stepSections {
		for name, text := range all[section] {
			id := section + "." + name
			if slices.Contains(notSteps, id) {
				continue
			}
			known[message.ID(id)] = true
			uses, ok := stepUses[message.ID(id)]
			if !assert.True(t, ok, "%s is not in the table", id) {
				continue
			}
			for _, n := range named {
				if word := n.word.FindString(text.(string)); word != "" && !slices.ContainsFunc(n.item, func(i message.ID) bool {
					return slices.Contains(free[id], i) ||
						slices.ContainsFunc(uses, func(u use) bool { return u.item == i })
				}) {
					t.Errorf("%s says %q and uses no %v: %s", id, word, n.item, text)
				}
			}
		}
	}
	for id := range stepUses {
		_, work := trade.WorkByID(strings.TrimPrefix(string(id), "work."))
		method := strings.HasPrefix(string(id), "method.") && all["method"][strings.TrimPrefix(string(id), "method.")] != nil
		assert.True(t, known[id] || work || method, "%s is no step", id)
	}
}

// Every tool, and all that is used up, of a list is used by a step of one of its doors, or reads what is still to be
// read; each item of the table is used by some step. The blades are those of sawn edges.
func TestNothingIsListedThatNoStepUses(t *testing.T) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	seen := map[message.ID]bool{}
	for _, j := range jobs {
		for _, o := range j.Openings {
			d := Opening{Opening: o, Plan: plan.Solve(j, o)}
			may := map[message.ID]bool{}
			for _, l := range leaves(d) {
				for _, m := range l.steps() {
					_, ok := stepUses[m.ID]
					assert.True(t, ok, "%s: step %s is not in the table", o.ID, m.ID)
					for _, u := range stepUses[m.ID] {
						may[u.item], seen[u.item] = true, true
					}
				}
				for _, r := range l.Plan.ToRead {
					may[r.Tool.ID] = true
				}
			}
			for _, i := range Of(j, []Opening{d}).Items {
				id := i.Name.ID
				switch {
				case i.Kind != Tools && !usedUp[id]:
				case id == "load.hole-saw":
					assert.True(t, may[bitOf], o.ID)
				case id == "load.blade", id == "load.cross-blade":
					assert.True(t, may[sawGuide], o.ID)
				case id == pilot: // of the hinges' screws, or of the lock
					assert.True(t, may[driver], o.ID)
				case id == glue: // for an old hole too
				default:
					assert.True(t, may[id], "%s: no step uses %s", o.ID, id)
				}
			}
		}
	}
	for _, uses := range stepUses {
		for _, u := range uses {
			seen[u.item] = true
		}
	}
	for id := range usedUp {
		assert.True(t, seen[id], id)
	}
}

// The tools of both demo houses, and what is used up, counted by hand from their cards. The linen room hangs; the boot
// room is signed off.
func TestTheToolsOfTheDemoHouses(t *testing.T) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	list := func(j job.Job) (names []string) {
		var all []Opening
		for _, o := range j.Openings {
			all = append(all, Opening{Opening: o, Plan: plan.Solve(j, o)})
		}
		for _, i := range Of(j, all).Items {
			if i.Kind == Tools || usedUp[i.Name.ID] {
				names = append(names, british.Say(i.Name)+": "+strings.Join(i.Openings, ", "))
			}
		}
		slices.Sort(names)
		return names
	}
	for i, want := range [][]string{
		{
			"Sliding rods, carried to the slab: Chart room", "Square: Galley", "Straightedge and feelers: Chart room",
			"abrasive paper: Chart room, Under the beam, Galley, Saloon",
			"bevel gauge: Chart room, Saloon",
			"bit, 12 mm: Saloon",
			"bit, 16 mm: Galley",
			"bit, 22 mm: Linen room, Saloon",
			"bit, 25 mm: Linen room, Under the beam, Saloon",
			"bit, 32 mm: Chart room",
			"bit, 8 mm: Linen room",
			"brush, dust sheet: Chart room, Under the beam, Galley, Saloon",
			"card, in thicknesses: Linen room, Chart room, Under the beam, Galley, Saloon",
			"chisels and mallet: Linen room, Chart room, Under the beam, Galley, Saloon",
			"clamps: Chart room, Under the beam, Galley, Saloon",
			"drill, driver and spare battery: Linen room, Chart room, Under the beam, Galley, Saloon",
			"eyes, ears, dust mask, extraction: Linen room, Chart room, Under the beam, Galley, Saloon",
			"fine-toothed cross-cut blade: Under the beam",
			"fine-toothed saw blade: Chart room",
			"foot lever or air bag: Chart room, Galley, Saloon",
			"hacksaw and file: Linen room, Chart room, Under the beam, Galley, Saloon",
			"hammer: Linen room, Chart room, Under the beam, Galley, Saloon",
			"hand plane: Linen room, Chart room, Under the beam, Galley, Saloon",
			"low-tack tape: Linen room, Under the beam, Saloon",
			"marking gauges, two: Linen room, Chart room, Under the beam, Galley, Saloon",
			"nail puller: Linen room, Chart room, Under the beam, Galley, Saloon",
			"nail punch: Linen room, Chart room, Under the beam, Galley, Saloon",
			"packers and feelers for the gaps: Linen room, Chart room, Under the beam, Galley, Saloon",
			"pencil, knife, tape, square: Linen room, Chart room, Under the beam, Galley, Saloon",
			"pilot bit, 2 mm: Linen room, Under the beam, Galley, Saloon",
			"pilot bit, 2.5 mm: Under the beam",
			"pilot bit, 3 mm: Linen room, Chart room, Galley, Saloon",
			"pilot bit, 3.5 mm: Chart room",
			"pins: Linen room, Chart room, Under the beam, Galley, Saloon",
			"power plane: Chart room, Under the beam, Galley, Saloon",
			"router, cutter and guide bush: Linen room, Chart room, Under the beam, Galley, Saloon",
			"saw and guide: Chart room, Under the beam",
			"scrap blocks and battens: Under the beam, Galley", // its architrave is on
			"sealer or primer: Chart room, Under the beam, Galley, Saloon",
			"self-centring bit: Chart room, Under the beam, Galley, Saloon",
			"stand or trestles: Linen room, Chart room, Under the beam, Galley, Saloon",
			"story rod: Under the beam, Galley, Saloon",
			"the yellow tape: Chart room, Under the beam, Galley, Saloon",
			"thread lock: Linen room, Galley",
			"wood glue: Under the beam",
		},
		{
			"Straightedge and feelers: Pantry",
			"Tape, inside: Pantry",
			"abrasive paper: Pantry",
			"bit, 25.4 mm: Pantry",
			"brush, dust sheet: Pantry",
			"card, in thicknesses: Pantry",
			"chisels and mallet: Pantry",
			"clamps: Pantry",
			"drill, driver and spare battery: Pantry",
			"eyes, ears, dust mask, extraction: Pantry",
			"hammer: Pantry",
			"hand plane: Pantry",
			"hole saw, 54 mm: Pantry",
			"low-tack tape: Pantry",
			"marking gauges, two: Pantry",
			"nail puller: Pantry",
			"nail punch: Pantry",
			"packers and feelers for the gaps: Pantry",
			"pencil, knife, tape, square: Pantry",
			"pilot bit, 2 mm: Pantry",
			"pilot bit, 2.8 mm: Pantry",
			"pilot bit, 3 mm: Pantry",
			"pins: Pantry",
			"power plane: Pantry",
			"router, cutter and guide bush: Pantry",
			"sealer or primer: Pantry",
			"self-centring bit: Pantry",
			"stand or trestles: Pantry",
			"story rod: Pantry",
		},
	} {
		assert.Equal(t, want, list(jobs[i]), jobs[i].Name)
	}
}
