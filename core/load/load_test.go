package load

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
	"kindmargin/demo"
	"kindmargin/words"
)

func tern(t *testing.T) (job.Job, map[string]Opening) {
	jobs, err := demo.Jobs()
	require.NoError(t, err)
	doors := map[string]Opening{}
	for _, o := range jobs[0].Openings {
		doors[o.ID] = Opening{Opening: o, Plan: plan.Solve(jobs[0], o)}
	}
	return jobs[0], doors
}

// british is how lists are read here: lengths to a tenth of a millimetre.
var british = words.In(job.British, measure.Millimetres, measure.HalfMillimetre)

func count(l List, name string) int {
	for _, i := range l.Items {
		if british.Say(i.Name) == name {
			return i.Count
		}
	}
	return -1
}

// Counted by hand from the demo's doors. The linen room hangs already and the boot room is
// signed off: neither needs a slab, a hinge or a screw.
//
//	100 mm butts: chart room 2, galley 3, saloon 2 leaves of 3: 11, on 4 slabs.
//	Their screws: 11 of 2 leaves of 4, less one long one a slab: 88 − 4 = 84.
//	Under the beam: 2 butts of 75 mm, 2 of 2 leaves of 3 less one: 11.
//	Latches of 22 mm: under the beam 1, the saloon's live leaf 1. Bolts: its fixed leaf, top and bottom.
//	Under the beam 73 and 68.5 mm come off a rail of 30 at both ends: 2 inserts, 762 − 2 × 30 wide and 35 − 2 × 3 thick.
func TestTheHouseIsCounted(t *testing.T) {
	j, doors := tern(t)
	var all []Opening
	for _, o := range j.Openings {
		all = append(all, doors[o.ID])
	}
	l := Of(j, all)
	for name, n := range map[string]int{
		"Planked, ledged or framed, 838 × 2040 × 40 mm":             1,
		"Solid core, flush, 826 × 2040 × 40 mm":                     1,
		"Hollow core, flush, 762 × 1981 × 35 mm":                    1,
		"Engineered or veneered stile and rail, 762 × 2040 × 40 mm": 2,
		"Solid core, flush, 726 × 1981 × 35 mm":                     -1, // the linen room's
		"100 mm (4 in) butt":                                        11,
		"75 mm (3 in) butt":                                         2,
		"no. 10 × 38 mm":                                            84,
		"no. 10 × 75 mm":                                            4,
		"no. 8 × 32 mm":                                             11,
		"no. 8 × 75 mm":                                             1,
		"tubular latch, 22 mm":                                      2,
		"flush bolt, 150 mm":                                        2,
		"rim lock, cylinder":                                        1,
		"bathroom lock, 64 mm case":                                 1,
		"insert, 702 × 30 × 29 mm":                                  -1, // their rails are freed from the offcuts
		"wedge":                                                     15,
		// two a leaf; heads hang tighter at the hinge corner by what their slope is unsure of
		"packer, 3 mm":      -1,
		"packer, 2.5 mm":    2,
		"packer, 2 mm":      6,
		"pilot bit, 3.5 mm": 0, // planked oak: hardwood
		"bit, 32 mm":        0, // the surface lock's cylinder
		"hole saw, 54 mm":   -1,
		// 11.5 and 10 mm off the chart room's long edges
		"fine-toothed saw blade":            0,
		"stand or trestles":                 0,
		"bevel gauge":                       0,
		"marking gauges, two":               0,
		"sealer or primer":                  0,
		"the boot room's old brass butt":    -1,
		"lever set on roses, tubular latch": -1,
	} {
		assert.Equal(t, n, count(l, name), name)
	}
	assert.Len(t, l.Cutting, 5)
	assert.Empty(t, l.Open)
	for i := 1; i < len(l.Items); i++ {
		assert.LessOrEqual(t, place(l.Items[i-1].Kind), place(l.Items[i].Kind), "kind after kind")
	}
}

// What is set once: the gauge for the pockets goes by the hinge, and the template's hole is
// the plate and 16 − 12 each way.
func TestWhatIsSetOnce(t *testing.T) {
	j, doors := tern(t)
	l := Of(j, []Opening{doors["chart"], doors["galley"], doors["beam"]})
	by := map[string]string{}
	for _, s := range l.Settings {
		by[british.Say(s.What)+": "+british.Say(s.To)] = strings.Join(s.Openings, ", ")
	}
	for what, who := range map[string]string{
		"Marking gauge and depth of a router: hinge recesses: 2.5 mm deep": "Chart room, Galley",
		"Marking gauge and depth of a router: hinge recesses: 2 mm deep":   "Under the beam",
		"Marking gauge: hinge recesses, from the pull face: 32 mm wide":    "Chart room, Galley",
		// 40 / 2 − 0.25, to a tenth
		"Gauge: centre of the lock edge, from both faces: 19.8 mm":                                           "Chart room, Galley",
		"Router: forend of 25 × 57 mm, cutter 12 mm, bush 16 mm: 3 mm deep, hole of the template 29 × 61 mm": "Under the beam",
		"Story rod: marked from Chart room":                                                                  "Chart room",
		"Story rod: marked from Under the beam":                                                              "Under the beam",
	} {
		assert.Equal(t, who, by[what], what)
	}
}

// Two doors that are alike share a rod, and a list of both is the two lists together.
func TestTwoDoorsAlike(t *testing.T) {
	j, doors := tern(t)
	a := doors["galley"]
	b := a
	b.ID, b.Name = "scullery", "Scullery"
	one, two := Of(j, []Opening{a}), Of(j, []Opening{a, b})
	for _, i := range one.Items {
		assert.Equal(t, 2*i.Count, count(two, british.Say(i.Name)), i.Name)
	}
	rods := 0
	for _, s := range two.Settings {
		assert.Equal(t, []string{"Galley", "Scullery"}, s.Openings, s.What)
		if s.What.ID == "load.story-rod" {
			rods++
		}
	}
	assert.Equal(t, 1, rods)
	b.Hinges.From, b.Hinges.Places = hinge.OwnPlaces, []measure.Length{
		measure.FromMM(300), measure.FromMM(900), measure.FromMM(1700),
	}
	b.Plan = plan.Solve(j, b.Opening)
	rods = 0
	for _, s := range Of(j, []Opening{a, b}).Settings {
		if s.What.ID == "load.story-rod" {
			rods++
		}
	}
	assert.Equal(t, 2, rods)
}

// What is bought is the list without what a carpenter has.
func TestTheOrder(t *testing.T) {
	j, doors := tern(t)
	o := Of(j, []Opening{doors["beam"]}).Order()
	assert.Equal(t, 2, count(o, "75 mm (3 in) butt"))
	assert.Equal(t, -1, count(o, "insert, 702 × 30 × 29 mm"), "the rails are freed from the offcuts")
	beam := doors["beam"]
	beam.Opening.Cut.Insert.New = true
	assert.Equal(t, 2, count(Of(j, []Opening{beam}).Order(), "insert, 702 × 30 × 29 mm"))
	assert.Equal(t, -1, count(o, "wedge"))
	assert.Equal(t, -1, count(o, "hand plane"))
	assert.Empty(t, o.Cutting)
	assert.Empty(t, o.Settings)
}

// A door that hangs already needs no slab, hinges or lock.
func TestADoorThatHangsIsNotBought(t *testing.T) {
	j, doors := tern(t)
	o := doors["galley"].Opening
	o.Service, o.Pair = &job.Service{}, nil
	assert.Empty(t, Of(j, []Opening{{Opening: o, Plan: plan.Solve(j, o)}}).Order().Items)
}

// A door without a slab gets the stock size that its opening wants; what cannot be counted
// yet says why.
func TestWhatIsStillOpen(t *testing.T) {
	mm := measure.FromMM
	j := job.NewJob("house", "House", measure.Millimetres)
	bare := job.NewOpening("a", "Attic", j.Unit)
	read := job.NewOpening("b", "Bath", j.Unit)
	read.Readings = []survey.Reading{
		{ID: "w", Kind: survey.Width, At: mm(1000), Value: mm(764)},
		{ID: "h", Kind: survey.Height, At: mm(400), Value: mm(1986)},
	}
	lift := read
	lift.ID, lift.Name, lift.Hand = "c", "Cellar", frame.Right
	lift.Hinges.Size, lift.Hinges.Leaf, lift.Hinges.Width, lift.Hinges.Plate, lift.Hinges.Closed = "lift-100", mm(
		100,
	), mm(32), mm(2.5), mm(8)
	wide := read
	wide.ID, wide.Name, wide.Readings = "d", "Drive", append([]survey.Reading{}, read.Readings...)
	wide.Readings[0].Value = mm(1290)
	strip := read
	strip.ID, strip.Name = "e", "Eaves"
	strip.Hinges.From, strip.Hinges.Size, strip.Hinges.Width = hinge.WholeEdge, "continuous-32", mm(13)
	strip.Slab = slab.Slab{Width: mm(762), Length: mm(1981), Thickness: mm(35)}
	var all []Opening
	for _, o := range []job.Opening{bare, read, lift, wide, strip} {
		all = append(all, Opening{Opening: o, Plan: plan.Solve(j, o)})
	}
	l := Of(j, all)
	// 764 less 2 × 3 and 1986 less 3 and 6: 758 by 1977, the nearest size up is 762 by 1981.
	assert.Equal(t, 3, count(l, "Solid core, flush, 762 × 1981 × 35 mm"), "bath and cellar, and the slab of the eaves")
	assert.Equal(t, 2, count(l, "100 mm (4 in) lift-off, for hinges on the right"), "handed ones by hand")
	assert.Equal(t, 1, count(l, "continuous, 32 mm open"), "one along the edge")
	assert.Equal(t, 64, count(l, "no. 4 × 16 mm"), "32 in each leaf")
	assert.Contains(t, l.Open, Open{message.Own("Attic"), text("load.slab-waits")})
	assert.Contains(t, l.Open, Open{message.Own("Drive"), text("load.no-stock")})
	assert.Contains(t, l.Open, Open{message.Own("Attic"), text("load.screws-unknown")}, "a hinge of no known size")
}

// Doors off to be sprayed: those that hang. The boot room's slab of 762 × 1995 × 44 in solid timber of 620 kg/m³ weighs
// 41 kg, so two take it down first, though the linen room's, hollow here, comes before it on the walk; a rated door stays; a bathroom's
// comes off last.
func TestDoorsOffToBeSprayed(t *testing.T) {
	j, doors := tern(t)
	names := func(l List) (list []string) {
		for _, o := range l.Off {
			list = append(list, british.Say(o.Opening))
		}
		return list
	}
	light := doors["linen"]
	light.Opening.Slab.Construction = "hollow"
	l := Of(j, []Opening{light, doors["chart"], doors["boots"]})
	assert.Equal(t, []string{"Boot room", "Linen room"}, names(l), "the chart room does not hang yet")
	assert.Equal(t, []int{1, 2}, []int{l.Off[0].Number, l.Off[1].Number})
	assert.InDelta(t, 0.762*1.995*0.044*620, l.Off[0].Weight, 0.5)
	assert.NotEmpty(t, l.Spray)
	bath := doors["boots"]
	bath.Opening.Lock.Hardware = "bathroom-64"
	assert.Equal(t, []string{"Linen room", "Boot room"}, names(Of(j, []Opening{bath, doors["linen"]})))
	rated := doors["boots"]
	rated.Opening.Slab.Construction = "rated"
	assert.Equal(t, []string{"Linen room"}, names(Of(j, []Opening{rated, doors["linen"]})))
	assert.Empty(t, Of(j, []Opening{doors["chart"]}).Spray)
}

// A set comes hung in its frame: no gauge, rod, hinge screw's pilot or jig goes along for its hinges, and it is no line of
// the cutting list. Its two long screws into the studs do.
func TestASetNeedsNoHingesLetIn(t *testing.T) {
	mm := measure.FromMM
	j := job.NewJob("house", "House", measure.Millimetres)
	o := job.NewOpening("s", "Study", j.Unit)
	o.Measuring, o.Hinges.Size = job.ToFrame, "butt-75"
	o.Slab = slab.Slab{Width: mm(762), Length: mm(1981), Thickness: mm(35)}
	o.Lining = &lining.Choice{Thick: mm(28), Comes: lining.AsSet}
	l := Of(j, []Opening{{Opening: o, Plan: plan.Solve(j, o)}})
	for _, s := range l.Settings {
		assert.NotContains(t, []message.ID{"load.set-depth", "load.set-width", "load.story-rod"}, s.What.ID)
	}
	for _, s := range l.Saves {
		assert.NotEqual(t, "rail", s.ID)
	}
	assert.Empty(t, l.Cutting)
	assert.Equal(t, -1, count(l, "75 mm (3 in) butt"))
	assert.Equal(t, -1, count(l, "pilot bit, 2.5 mm"))
	assert.Equal(t, 2, count(l, "no. 10 × 75 mm"))
}
