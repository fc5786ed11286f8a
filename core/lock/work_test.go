package lock

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/figure"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// bench is a slab of a thickness, and the usual bits.
func bench(thickness float64) Into {
	return Into{Thickness: mm(thickness), Bits: trade.Bits[measure.Millimetres]}
}

func line(slab, jamb, backset float64) Plan {
	f := func(v float64) figure.Figure { return figure.Sum(0, figure.Term{Value: mm(v)}) }
	return Plan{Slab: f(slab), Jamb: f(jamb), Backset: f(backset)}
}

// Lever on rose, 35 thick, latch line 980 down: bolts 19 above and below, all at the backset;
// gauge half of 35 less a quarter of a pencil; 22 of bore leaves 6.5 a side, and 2 of a 26
// plate over it; its round-ended plate of 60 begins 30 above the line.
func TestWorkOfALeverOnRose(t *testing.T) {
	d, ok := trade.HardwareByID("lever-rose")
	require.True(t, ok)
	w := Fit(line(980, 983, 60), d, bench(35))
	assert.Equal(t, mm(17.25), w.Gauge.Value)
	require.Len(t, w.Holes, 3)
	assert.Equal(t, []measure.Length{mm(980), mm(961), mm(999)}, []measure.Length{
		w.Holes[0].Down.Value, w.Holes[1].Down.Value, w.Holes[2].Down.Value,
	})
	for _, h := range w.Holes {
		assert.Equal(t, mm(60), h.In.Value)
		assert.Equal(t, h.Dia, h.Bit)
	}
	assert.Equal(t, mm(6.5), w.Edge.Wall.Value)
	assert.Equal(t, mm(2), w.Edge.Cover)
	assert.Equal(t, mm(78), w.Edge.Deep.Value, "76 of case and 2 behind it")
	assert.Equal(t, mm(950), w.Plate.Top.Value)
	assert.Equal(t, mm(953), w.Strike.Top.Value)
	assert.Equal(t, mm(17.5), w.Strike.In.Value, "half the thickness: common practice")
	assert.Equal(t, mm(4), Gap(w.Holes[0], w.Holes[1]), "19 less 11 and 4")
	assert.Equal(
		t, []measure.Length{mm(90), mm(30)}, []measure.Length{w.Lengths[0].Cut.Value, w.Lengths[1].Cut.Value},
		"35 + 55, 35 − 5",
	)
}

// With 2 still on the lock edge every distance from it is 2 more, and so is what goes into it: 60 + 2 and 78 + 2. What
// runs down the edge stays.
func TestBoredFromAnEdgeThatStillComesDown(t *testing.T) {
	d, _ := trade.HardwareByID("lever-rose")
	into := bench(35)
	into.LeftOn = mm(2)
	w, finished := Fit(line(980, 983, 60), d, into), Fit(line(980, 983, 60), d, bench(35))
	for i, h := range w.Holes {
		assert.Equal(t, mm(62), h.In.Value)
		assert.Equal(t, finished.Holes[i].Down.Value, h.Down.Value)
	}
	assert.Equal(t, mm(80), w.Edge.Deep.Value)
	assert.Equal(t, finished.Plate, w.Plate)
	d.Holes[1].Off = mm(45)
	assert.Equal(t, mm(47), Fit(line(980, 983, 60), d, into).Holes[1].In.Value, "its own distance off the edge too")
	for _, c := range []struct {
		id                        string
		backset, left, hole, edge float64 // edge: how deep it is cut; nought where it is not
	}{
		{"knob-54", 60.325, 1.5, 61.825, 90.4}, // 3 1/2 in and 1.5
		{"mortise-64", 44, 3, 47, 69},          // a case of 64, 2 behind it, and 3
		{"surface-60", 60, 2.5, 62.5, 0},       // nothing in the edge
	} {
		d, _ := trade.HardwareByID(c.id)
		into := bench(44)
		into.LeftOn = mm(c.left)
		w := Fit(line(1000, 1003, c.backset), d, into)
		assert.InDelta(t, c.hole, w.Holes[0].In.Value.MM(), 1e-6, c.id)
		if c.edge > 0 {
			assert.InDelta(t, c.edge, w.Edge.Deep.Value.MM(), 1e-6, c.id)
		} else {
			assert.Nil(t, w.Edge, c.id)
		}
	}
}

// A case 21 thick and 24 high is bored with 22 instead of 25, and the ends are squared to 24. Common practice.
func TestBoredAsNarrowAsItsCase(t *testing.T) {
	d := trade.Hardware{
		Edge: trade.Edge{Bore: mm(25), Deep: mm(78)}, Case: trade.Case{Deep: mm(76), High: mm(24), Thick: mm(21)},
	}
	into := bench(35)
	assert.Equal(t, mm(25), Fit(line(980, 983, 60), d, into).Edge.Wide)
	assert.Zero(t, Fit(line(980, 983, 60), d, into).Edge.Square)
	into.Tight = true
	w := Fit(line(980, 983, 60), d, into)
	assert.Equal(t, [2]measure.Length{mm(22), mm(24)}, [2]measure.Length{w.Edge.Wide, w.Edge.Square})
	assert.Equal(t, mm(6.5), w.Edge.Wall.Value, "(35 − 22) / 2")
}

// A mortise lock of an 80 case: the slot is 5 longer at each end and 2 deeper, its middle 28
// under the line; the keyhole 57 under it. Common practice.
func TestWorkOfAMortiseLock(t *testing.T) {
	d, _ := trade.HardwareByID("mortise-64")
	w := Fit(line(1000, 1003, 44), d, bench(44))
	assert.Equal(t, d.Case.High+2*trade.SlotEnds, w.Edge.Long)
	assert.Equal(t, d.Case.Deep+trade.DeeperBy, w.Edge.Deep.Value)
	assert.Equal(t, mm(1028), w.Edge.Down.Value)
	assert.Equal(t, mm(1057), w.Holes[1].Down.Value)
	assert.Equal(t, mm(16), w.Edge.Bit, "the widest that goes into a slot of 16")
	assert.Equal(t, mm(14), w.Edge.Wall.Value, "(44 − 16) / 2")
}

// BHMA A156.115, from memory: cross bore 2 1/8 in, edge bore 1 in, faceplate 1 × 2 1/4 in,
// backsets 2 3/8 and 2 3/4 in.
func TestThePublishedKnobSet(t *testing.T) {
	const in = measure.Inch
	d, _ := trade.HardwareByID("knob-54")
	assert.Equal(t, 17*in/8, d.Holes[0].Dia)
	assert.Equal(t, in, d.Edge.Bore)
	assert.Equal(t, [2]measure.Length{9 * in / 4, in}, [2]measure.Length{d.Plate.Long, d.Plate.Wide})
	assert.Equal(t, []measure.Length{19 * in / 8, 11 * in / 4}, d.Backsets)
	assert.Equal(t, 9*in/4, d.Strike.Plate.Long)
	second, _ := trade.HardwareByID("bolt-60")
	assert.InDelta(t, 6*25.4, second.Above.MM(), 3, "a second bolt 6 in (150 mm) above: common practice")
}

// Common practice: a 12 mm cutter in a 16 mm bush adds 4, so 24 × 60 becomes 28 × 64.
func TestTemplateSum(t *testing.T) {
	r := Router{Bush: mm(16), Cutter: mm(12)}
	assert.Equal(t, mm(28), r.Opening(mm(24)))
	assert.Equal(t, mm(64), r.Opening(mm(60)))
}

// The bit is the smallest at hand that is no smaller, within a tenth.
func TestTheBitAtHand(t *testing.T) {
	bits := []measure.Length{mm(8), mm(22), mm(25)}
	assert.Equal(t, mm(22), bit(bits, mm(22)))
	assert.Equal(t, mm(25), bit(bits, mm(24)))
	assert.Equal(t, mm(25), bit(bits, mm(25.4)), "an inch set, bored with a metric bit")
	assert.Zero(t, bit(bits, mm(12)))
	assert.Zero(t, bit(bits, mm(54)))
}

// owned is a piece of hardware of the list as one begins one's own with it: in words.
func owned(d trade.Hardware) trade.Hardware {
	d.Name, d.Holes = d.ID, slices.Clone(d.Holes)
	for i, h := range d.Holes {
		d.Holes[i].What = h.Part
	}
	return d
}

// All hardware of the list is hardware that can be, bored as it says in a slab 44 thick.
func TestHardwareOfTheList(t *testing.T) {
	seen := map[string]bool{}
	for _, d := range trade.AllHardware {
		assert.NoError(t, CheckHardware(owned(d)), d.ID)
		assert.False(t, seen[d.ID])
		seen[d.ID] = true
		assert.NotEmpty(t, d.Source)
		backset := 60.0
		if len(d.Backsets) > 0 {
			backset = d.Backsets[0].MM()
		}
		w := Fit(line(1000, 1003, backset), d, bench(44))
		for i, a := range w.Holes {
			for _, b := range w.Holes[:i] {
				assert.GreaterOrEqual(t, Gap(a, b), trade.HoleApart, "%s: %s and %s", d.ID, a.Part, b.Part)
			}
		}
		if w.Edge != nil {
			assert.Greater(t, w.Edge.Wall.Value, trade.ThinWall, d.ID)
		}
	}
}

func TestCheckHardwareNamesTheField(t *testing.T) {
	good := trade.Hardware{
		Name: "code lock", Kind: "code", Holes: []trade.Hole{{What: "spindle", Dia: mm(12), From: trade.FromBoth}},
	}
	require.NoError(t, CheckHardware(good))
	for at, change := range map[string]func(*trade.Hardware){
		"/name":         func(d *trade.Hardware) { d.Name = " " },
		"/kind":         func(d *trade.Hardware) { d.Kind = "magic" },
		"/handed":       func(d *trade.Hardware) { d.Handed = "up" },
		"/holes/0/dia":  func(d *trade.Hardware) { d.Holes[0].Dia = 0 },
		"/holes/0/from": func(d *trade.Hardware) { d.Holes[0].From = "inside" },
		"/holes/0/what": func(d *trade.Hardware) { d.Holes[0].What = "" },
		"/plate/radius": func(d *trade.Hardware) { d.Plate = trade.Plate{Long: mm(57), Wide: mm(25), Radius: mm(20)} },
		"/edge/deep":    func(d *trade.Hardware) { d.Edge.Deep = mm(900) },
	} {
		d := good
		d.Holes = append([]trade.Hole{}, good.Holes...)
		change(&d)
		assert.ErrorContains(t, CheckHardware(d), at+":", at)
	}
}
