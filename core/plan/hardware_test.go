package plan

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// withHardware is a square door with hardware of one's own.
func withHardware(d trade.Hardware) (job.Job, job.Opening) {
	j, o := house, square()
	d.ID = "own-1"
	j.Kit.Hardware = []trade.Hardware{d}
	o.Lock.Hardware = d.ID
	return j, o
}

// The latch's line is 1029 down the slab (2032 − 1000 − 3): a lever on rose has its bolts 19
// above and below it, and is bored in the order of its holes.
func TestHardwareOnTheSlab(t *testing.T) {
	o := square()
	o.Lock.Hardware = "lever-rose"
	l := Solve(house, o).Leaves[0]
	require.Len(t, l.Hardware, 1)
	d := l.Hardware[0]
	assert.InDelta(t, 1029-19, d.Holes[1].Down.Value.MM(), 0.51)
	steps := ""
	for _, s := range d.Steps {
		for _, m := range s {
			steps += saying(m) + "\n"
		}
	}
	for _, says := range []string{
		"Square one line round", "Drill 3 mm right through first, then 22 mm from both faces",
		"Cut the spindle to 90 mm",
	} {
		assert.Contains(t, steps, says)
	}
	assert.NotContains(t, steps, "veneer", "solid core, but not a flush one")
	assert.Contains(t, all(l.Strikes, " "), "17.5 mm from the pull-side corner of the jamb")

	o.Lock.Second = "bolt-60"
	l = Solve(house, o).Leaves[0]
	require.Len(t, l.Hardware, 2)
	assert.Equal(t, mm(150), l.Hardware[0].Holes[0].Down.Value-l.Hardware[1].Holes[0].Down.Value, "by its rule")
	o.Lock.Above = mm(30)
	assert.NotEmpty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.HolesMeet), "32 and 22 wide, 30 apart")
}

func TestWhatOfHardwareDoesNotGoIn(t *testing.T) {
	base := trade.Hardware{
		Name: "lock", Kind: "latch", Holes: []trade.Hole{{What: "spindle", Dia: mm(22), From: trade.FromBoth}},
		Edge: trade.Edge{Bore: mm(22), Deep: mm(78)}, Case: trade.Case{Deep: mm(76)},
		Plate:  trade.Plate{Long: mm(57), Wide: mm(25), Thick: mm(3)},
		Strike: trade.Strike{Plate: trade.Plate{Long: mm(57), Wide: mm(25), Thick: mm(2)}, Bolt: mm(25), Deep: mm(12)},
	}
	tell := func(code site.Code, gravity site.Gravity, change func(*trade.Hardware, *job.Opening)) string {
		d := base
		d.Holes = append([]trade.Hole{}, base.Holes...)
		j, o := withHardware(d)
		change(&j.Kit.Hardware[0], &o)
		require.NoError(t, j.Check())
		return saidOf(t, Solve(j, o).Leaves[0].Findings, code, gravity)
	}
	assert.Contains(
		t, tell(site.BoreThrough, site.Stop, func(d *trade.Hardware, _ *job.Opening) { d.Edge.Bore = mm(38) }),
		"A hole or slot 38 mm wide breaks through the faces of a slab 35 mm thick. 25 mm is the most.",
	)
	assert.Contains(
		t, tell(site.WallsUsual, site.Note, func(d *trade.Hardware, _ *job.Opening) { d.Edge.Bore = mm(25.4) }),
		"leaves 5 mm each side", "4.8, on the tape: as usual sets do",
	)
	assert.Contains(
		t, tell(site.ThinWalls, site.Care, func(d *trade.Hardware, _ *job.Opening) { d.Edge.Bore = mm(28) }),
		"A hole of 28 mm leaves 3.5 mm each side", "(35 − 28) / 2",
	)
	assert.Contains(
		t, tell(site.CoverThin, site.Care, func(d *trade.Hardware, _ *job.Opening) { d.Edge.Bore = mm(23) }),
		"A forend 25 mm wide hides only 0.5 mm each side of a 24 mm hole. Bore 22 mm or less and square its ends.",
		"22 rather than 25: common practice",
	)
	assert.Contains(
		t, tell(site.NoBit, site.Care, func(d *trade.Hardware, _ *job.Opening) { d.Holes[0].Dia = mm(19) }),
		"You have no bit of 19 mm for the spindle.",
	)
	assert.Contains(
		t, tell(site.HoleAtEdge, site.Stop, func(d *trade.Hardware, _ *job.Opening) { d.Holes[0].Off = mm(13) }),
		"The spindle leaves 2 mm of wood to the edge and would break out. Its middle must be at least 15 mm "+
			"from the edge.",
	)
	assert.Contains(t, tell(site.HolesMeet, site.Stop, func(d *trade.Hardware, _ *job.Opening) {
		d.Holes = append(d.Holes, trade.Hole{What: "bolt", Up: mm(14), Dia: mm(8), From: trade.FromBoth})
	}), "The bolt and the spindle run into each other")
	assert.Contains(t, tell(site.HolesNear, site.Care, func(d *trade.Hardware, _ *job.Opening) {
		d.Holes = append(d.Holes, trade.Hole{What: "bolt", Up: mm(17), Dia: mm(8), From: trade.FromBoth})
	}), "Only 2 mm of wood is left between the bolt and the spindle.", "17 − 11 − 4")
	assert.Contains(
		t, tell(site.HardwareOfOtherHand, site.Stop, func(d *trade.Hardware, _ *job.Opening) { d.Handed = "right" }),
		"The lock is made for hinges on the right, and this door has them on the left.",
	)
	assert.Contains(
		t, tell(site.FaceScrewLong, site.Stop, func(d *trade.Hardware, _ *job.Opening) { d.Screw = mm(38) }),
		"Screws 38 mm long come through a slab 35 mm thick.",
	)
	assert.Contains(
		t, tell(site.StrikeOutside, site.Stop, func(_ *trade.Hardware, o *job.Opening) { o.Lock.Jamb = mm(28) }),
		"A keep 25 mm wide, its middle 17.5 mm from the corner, runs off a jamb 28 mm wide.", "17.5 + 12.5 is 30",
	)
	assert.Contains(
		t, tell(site.PastStile, site.Stop, func(_ *trade.Hardware, o *job.Opening) { o.Slab.Stile = mm(65) }),
		"The spindle reaches 71 mm from the edge, and the stile ends at 65 mm. Take a backset of 54 mm at most.",
		"60 + 11; 65 − 11",
	)
	assert.Contains(t, tell(site.CasePastStile, site.Stop, func(_ *trade.Hardware, o *job.Opening) {
		o.Slab.Stile, o.Lock.Backset = mm(72), mm(50)
	}), "The case is 76 mm deep and the stile 72 mm wide")
}

// The usual sets go into the usual slabs without a warning: cross bore 2 1/8 in, edge bore 1 in, backsets 2 3/8 and
// 2 3/4 in, in slabs 1 3/8 and 1 3/4 in thick (BHMA A156.115, from memory), whatever unit the bits are in.
func TestUsualSetsPass(t *testing.T) {
	const in = measure.Inch
	for _, unit := range []measure.Unit{measure.Millimetres, measure.Inches} {
		for _, thick := range []measure.Length{11 * in / 8, 7 * in / 4} {
			for _, backset := range []measure.Length{19 * in / 8, 11 * in / 4} {
				for _, hardware := range []string{"knob-54", "latch-22", "lever-rose"} {
					j := job.NewJob("sets", "Sets", unit)
					o := square()
					o.Lock.Hardware, o.Lock.Backset, o.Slab.Thickness = hardware, backset, thick
					for _, f := range Solve(j, o).Leaves[0].Findings {
						assert.False(t, f.Step == job.StepLock && f.Gravity != site.Note, "%s: %s", hardware, saying(f.Message()))
					}
				}
			}
		}
	}
}

// A case wants its slot before its cross holes, a tubular latch its edge, a knob set its faces first: common practice.
func TestEachKindIsBoredInItsOrder(t *testing.T) {
	for hardware, edgeFirst := range map[string]bool{"knob-54": false, "lever-rose": true, "mortise-64": true} {
		o := square()
		o.Lock.Hardware = hardware
		edge, face := -1, -1
		for i, s := range Solve(house, o).Leaves[0].Hardware[0].Steps {
			switch s[0].ID {
			case "bore.edge", "bore.slot":
				edge = i
			case "hole.both":
				if face < 0 {
					face = i
				}
			}
		}
		require.GreaterOrEqual(t, min(edge, face), 0, hardware)
		assert.Equal(t, edgeFirst, edge < face, hardware)
	}
}

// stepIDs are the first messages of a leaf's first piece of hardware's steps.
func stepIDs(l Leaf) (list []message.ID) {
	for _, s := range l.Hardware[0].Steps {
		list = append(list, s[0].ID)
	}
	return list
}

// A surface lock has nothing bored in edge or jamb: a cylinder from its backset, a plate set back, a case let in, and its
// keep scribed from it. It may sit at the shoulder, or above another lock. Common practice.
func TestASurfaceLockWhole(t *testing.T) {
	o := square()
	o.Lock.Hardware, o.Lock.Handle = "surface-60", mm(1400)
	l := Solve(house, o).Leaves[0]
	ids := stepIDs(l)
	for _, id := range []message.ID{"hole.both", "surface.plate", "surface.edge", "surface.tried"} {
		assert.Contains(t, ids, id)
	}
	for _, id := range []message.ID{"bore.edge", "bore.middle", "bore.plate", "bore.tried"} {
		assert.NotContains(t, ids, id)
	}
	strikes := all(l.Strikes, " ")
	assert.Contains(t, strikes, "scribe the keep from the case")
	assert.NotContains(t, strikes, "Hole for the bolt")
	assert.Empty(t, ofCode(l.Findings, site.HandleUnusual), "at the shoulder")
	o.Lock.Hardware = "lever-rose"
	assert.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.HandleUnusual), 1)
	o.Lock.Handle, o.Lock.Second = mm(1000), "surface-60"
	l = Solve(house, o).Leaves[0]
	require.Len(t, l.Hardware, 2)
	assert.Equal(t, mm(400), l.Hardware[0].Holes[0].Down.Value-l.Hardware[1].Holes[0].Down.Value)
	o.Slab.Thickness = mm(26)
	assert.Contains(
		t, saidOf(t, Solve(house, o).Leaves[0].Findings, site.FaceScrewLong, site.Stop), "25 mm", "through 26, less 2",
	)
}

// Bored once it fits, nothing is left on; bored first, each distance is from the edge as it stands, and the forend waits.
func TestWhenALockIsBored(t *testing.T) {
	o := square()
	o.Lock.Hardware, o.Cut.LeaveOn = "lever-rose", job.Always3
	late := Solve(house, o)
	o.Lock.When = lock.First
	early := Solve(house, o)
	before := func(p Plan) bool {
		at := map[job.Step]int{}
		for i, s := range p.Steps {
			at[s.Step] = i
		}
		return at[job.StepLock] < at[job.StepTry]
	}
	assert.False(t, before(late))
	assert.True(t, before(early))
	holes := func(p Plan) measure.Length { return p.Leaves[0].Hardware[0].Holes[0].In.Value }
	assert.Equal(t, o.Lock.Backset, holes(late))
	assert.Equal(t, o.Lock.Backset+mm(3), holes(early), "3 mm is left on the lock edge")
	assert.Contains(t, stepIDs(early.Leaves[0]), message.ID("bore.plate-waits"))
	assert.NotContains(t, stepIDs(late.Leaves[0]), message.ID("bore.plate-waits"))
	assert.Len(t, ofCode(early.Leaves[0].Findings, site.LockLeftOn), 1)
	assert.Empty(t, ofCode(late.Leaves[0].Findings, site.LockLeftOn))
}

// A slab that came bored is bored no more: its case and its keep are fitted.
func TestASlabThatCameBored(t *testing.T) {
	o := square()
	o.Lock.Hardware, o.Slab.Machined, o.Slab.Handle = "lever-rose", []frame.Side{frame.Lock}, mm(1035)
	ids := stepIDs(Solve(house, o).Leaves[0])
	assert.Equal(t, message.ID("bore.there"), ids[0])
	for _, id := range []message.ID{"hole.both", "bore.edge", "bore.plate-round", "bore.line"} {
		assert.NotContains(t, ids, id)
	}
}

// From opposite faces, and neither right through, two holes do not meet.
func TestHolesFromOppositeFaces(t *testing.T) {
	j, o := withHardware(trade.Hardware{Name: "code lock", Kind: "code", Holes: []trade.Hole{
		{What: "chamber", Dia: mm(30), From: trade.FromPull, Deep: mm(12)},
		{What: "screw", Up: mm(10), Dia: mm(8), From: trade.FromPush, Deep: mm(12)},
	}})
	assert.Empty(t, ofCode(Solve(j, o).Leaves[0].Findings, site.HolesMeet))
	j.Kit.Hardware[0].Holes[1].Deep = mm(24)
	assert.Len(t, ofCode(Solve(j, o).Leaves[0].Findings, site.HolesMeet), 1, "12 and 24 come to each other in 35")
	j.Kit.Hardware[0].Holes[1].Deep = 0
	assert.Len(t, ofCode(Solve(j, o).Leaves[0].Findings, site.HolesMeet), 1, "and so does one right through")
	j.Kit.Hardware[0].Holes[1].From = trade.FromBoth
	assert.Len(t, ofCode(Solve(j, o).Leaves[0].Findings, site.HolesMeet), 1)
}

// A reach of 34 to 48 in: ADA 404.2.7 and ICC A117.1, from memory.
func TestAHandleHeldToARule(t *testing.T) {
	o := square()
	o.Lock.Reach = "ada"
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.OutOfReach), "1000 is 39 in")
	o.Lock.Handle = mm(1250)
	assert.Contains(
		t, saidOf(t, Solve(house, o).Leaves[0].Findings, site.OutOfReach, site.Stop), "863.6 mm to 1219.2 mm",
	)
	o.Lock.Reach, o.Lock.Lowest, o.Lock.Highest = lock.LocalRule, mm(900), mm(1250)
	require.NoError(t, o.Check())
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.OutOfReach))
	o.Lock.Highest = mm(1200)
	assert.Contains(
		t, saidOf(t, Solve(house, o).Leaves[0].Findings, site.OutOfReach, site.Stop),
		"The handle comes 1250 mm above the floor: outside the local rule, 900 mm to 1200 mm.",
	)
	o.Lock.Lowest = mm(1300)
	assert.ErrorContains(t, o.Check(), "/lock/highest:")
	o.Lock.Reach = "none"
	assert.ErrorContains(t, o.Check(), "/lock/reach:")
}

// The strike rules, whatever old holes stay uncovered: of three in the jamb the plate, 57
// long about 1032, covers one; a small one is dowelled and a long one patched.
func TestOldHolesInTheJamb(t *testing.T) {
	o := square()
	o.Lock.Hardware = "latch-22"
	o.Lock.Old = []lock.OldHole{
		{What: "old screw", Jamb: true, Down: mm(1040), Dia: mm(5)},
		{What: "stray screw", Jamb: true, Down: mm(1070), Dia: mm(5)},
		{What: "old strike", Jamb: true, Down: mm(940), Dia: mm(60)},
	}
	require.NoError(t, o.Check())
	found := ofCode(Solve(house, o).Leaves[0].Findings, site.OldHoleLeft)
	require.Len(t, found, 2)
	assert.Contains(
		t, wordsOf(found[0], house.Unit, house.Tape), "The stray screw, 5 mm, stays uncovered. Glue in a dowel",
	)
	assert.Contains(
		t, wordsOf(found[1], house.Unit, house.Tape), "The old strike, 60 mm, stays uncovered. Glue in a block",
	)
	o.Lock.Hardware = "pull-dummy"
	assert.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.OldHoleLeft), 3, "a pull has no strike to cover any")
	o.Lock.Hardware = "latch-22"
	o.Lock.Old = []lock.OldHole{{What: "old spindle", Down: mm(1020), Off: mm(60), Dia: mm(20)}}
	assert.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.OldHoleNear), 1)
	o.Lock.Old[0].What = ""
	assert.ErrorContains(t, o.Check(), "/lock/old/0/what:")
}

func TestAStrikeThatIsMissed(t *testing.T) {
	o := square()
	o.Lock.Missed = &lock.Missed{Up: mm(1), In: mm(0.5)}
	f := Solve(house, o).Leaves[0].Findings
	assert.Contains(t, saidOf(t, f, site.StrikeFiled, site.Care), "1 mm too high. File its opening there by 1 mm.")
	assert.Contains(t, saidOf(t, f, site.StrikeIn, site.Care), "stops 0.5 mm short")
	o.Lock.Missed = &lock.Missed{Up: mm(-3), In: mm(-0.5)}
	f = Solve(house, o).Leaves[0].Findings
	assert.Contains(t, saidOf(t, f, site.StrikeMoved, site.Care), "Move the plate down by 3 mm")
	assert.Contains(t, saidOf(t, f, site.StrikeRattles, site.Care), "rattles by 0.5 mm")
	o.Lock.Missed = &lock.Missed{Up: mm(40)}
	assert.ErrorContains(t, o.Check(), "/lock/missed:")
}

// The fixed leaf of a pair is bolted top and bottom: keeps half a bolt's slot and half the
// meeting margin from the meeting line.
func TestBoltsOfAPair(t *testing.T) {
	o := square()
	o.Slab = slab.Slab{Width: mm(420), Length: mm(2040), Thickness: mm(37)}
	o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(3), Fixed: frame.Lock, Bolts: "flush-bolt-150"}
	p := Solve(house, o)
	assert.Contains(t, all(p.Leaves[1].Strikes, " "), "9 mm from the meeting line", "15/2 and 3/2")
	assert.Empty(t, p.Leaves[0].Strikes)
	o.Pair.Bolts = "nothing"
	assert.ErrorContains(t, o.CheckKit(house.Kit), "/pair/bolts:")
}

// Devices of one's own are kept with the job, and each needs its own id.
func TestOwnHardwareOfAJob(t *testing.T) {
	j, o := withHardware(trade.Hardware{
		Name: "old lock", Kind: "mortise", Holes: []trade.Hole{{What: "spindle", From: trade.FromBoth}},
	})
	assert.ErrorContains(t, j.Check(), "/kit/hardware/0/holes/0/dia:")
	j.Kit.Hardware[0].Holes[0].Dia = mm(16)
	require.NoError(t, j.Check())
	require.NoError(t, o.CheckKit(j.Kit))
	j.Kit.Hardware = append(j.Kit.Hardware, trade.AllHardware[0])
	assert.ErrorContains(t, j.Check(), "/kit/hardware/1/id:")
	assert.ErrorContains(t, o.CheckKit(job.Kit{}), "/lock/hardware:")
}

// Shut, the slab is sprung 0.5 onto the head stop at its hinge end: that goes back by 0.5 and
// a card; and its corners cross by 5.5, of which the stops take half.
func TestStopsThatAreThere(t *testing.T) {
	o := square()
	l := Solve(house, o).Leaves[0]
	require.NotNil(t, l.Stops)
	assert.Equal(t, mm(36), l.Stops.From.Value)
	assert.Empty(t, l.Stops.Moves)
	o.Stops.Stand = &lock.Stand{HingeHead: mm(-0.5), LockHead: mm(3), HingeFoot: mm(2), LockFoot: 0}
	require.NoError(t, o.Check())
	l = Solve(house, o).Leaves[0]
	held := ofCode(l.Findings, site.StopHolds)
	require.Len(t, held, 2, "the head stop and the hinge leg meet there")
	assert.Contains(
		t, wordsOf(held[0], house.Unit, house.Tape),
		"The head stop holds the slab off at its hinge end. Move it back, or plane it there, by 1.5 mm.",
	)
	assert.Contains(t, saidOf(t, l.Findings, site.JambsCross, site.Care), "the corners cross by 5.5 mm")
}

// Of a pair each leaf has the stops of its own jamb: the second's hinge leg is the opening's
// lock leg.
func TestStopsOfAPair(t *testing.T) {
	o := square()
	o.Slab = slab.Slab{Width: mm(420), Length: mm(2040), Thickness: mm(37)}
	o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(3), Fixed: frame.Lock}
	o.Stops.Stand = &lock.Stand{HingeHead: mm(2), LockHead: mm(3), HingeFoot: mm(4), LockFoot: mm(5)}
	p := Solve(house, o)
	for i, want := range [][]float64{{1, 1, 3}, {2, 2, 4}} { // a millimetre of play
		var by []float64
		for _, m := range p.Leaves[i].Stops.Moves {
			assert.NotContains(t, []frame.Side{m.Stop, m.End}, frame.Lock)
			by = append(by, m.By.Value.MM())
		}
		assert.Equal(t, want, by)
		assert.NotContains(t, all(p.Leaves[i].Stops.Steps, " "), "lock leg")
	}
}

// A rail's joint from 1070 to 1160 of the uncut slab; the head loses nothing here, so the
// latch's 22 about 1029 end 30 above it, and a bathroom lock's slot, 1012 to 1102, runs into
// it: It stands clear 44 higher or 160 lower, its spindle's top 1021 the first of it.
func TestHardwareInARailsJoint(t *testing.T) {
	o := square()
	o.Slab.Thickness = mm(44)
	o.Lock.Hardware = "latch-22"
	o.Lock.Avoid = []hinge.Avoid{{What: "rail's joint", Slab: true, At: mm(1070), Long: mm(90)}}
	require.NoError(t, o.Check())
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.HardwareInTheWay))
	o.Lock.Hardware = "bathroom-64"
	l := Solve(house, o).Leaves[0]
	line := l.Latch.Slab.Value.MM()
	words := saidOf(t, l.Findings, site.HardwareInTheWay, site.Care)
	// From 17 above the line, the slot's end, to 73 under it: 90, and 12 of wood.
	assert.Contains(
		t, words,
		fmt.Sprintf("It stands clear %.4g mm higher or %.4g mm lower", line-17-(1070-12-90), 1160+12-(line-17)),
	)
	o.Lock.Avoid[0].What = ""
	assert.ErrorContains(t, o.Check(), "/lock/avoid/0/what:")
}

// The fixed leaf of a pair has two bolts, one, or none, and show handles where they are wanted; the bead stands before any
// bolt is chosen.
func TestWhatHoldsTheFixedLeaf(t *testing.T) {
	o := square()
	o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(3), Fixed: frame.Lock}
	o.Slab.Width, o.Pair.Slab.Width = mm(420), mm(420)
	steps := func() (ids []message.ID) {
		for _, s := range Solve(house, o).Leaves[1].Strikes {
			ids = append(ids, s.ID)
		}
		return ids
	}
	assert.Equal(t, []message.ID{"bolting.bead"}, steps(), "before a bolt is chosen")
	o.Pair.Bolts = "flush-bolt-150"
	assert.Equal(t, []message.ID{"bolting.bead", "bolting.where", "bolting.slot", "bolting.keeps"}, steps())
	o.Pair.Holds, o.Pair.Pulls = job.TopBolt, true
	assert.Equal(
		t, []message.ID{"bolting.bead", "bolting.where-top", "bolting.slot", "bolting.keep-top", "bolting.pulls"}, steps(),
	)
	o.Pair.Holds, o.Pair.Pulls = job.NoBolt, false
	assert.Equal(t, []message.ID{"bolting.bead", "bolting.none"}, steps())
	assert.Contains(
		t, saidOf(t, Solve(house, o).Leaves[1].Findings, site.Bolted, site.Note), "This leaf has no bolt and carries the keep.",
	)
	o.Pair.Holds = "glue"
	assert.ErrorContains(t, o.Check(), "refused.holds")
}

// A folding leaf has no latch, no strike and no bore; a steel slab is told nothing that cannot be done to it.
func TestOnlyWhatASlabHas(t *testing.T) {
	o := square()
	o.Lock.Hardware, o.Slab.Pivot = "lever-rose", mm(40)
	l := Solve(house, o).Leaves[0]
	assert.Nil(t, l.Latch)
	assert.Empty(t, l.Hardware)
	assert.Empty(t, l.Strikes)
	assert.Len(t, ofCode(l.Findings, site.Folding), 1)
	assert.True(t, progressOf(t, Solve(house, o), job.StepLock).Ready)

	o.Slab.Pivot, o.Slab.Construction = 0, "steel"
	l = Solve(house, o).Leaves[0]
	ids := stepIDs(l)
	for _, s := range l.Hanging.Steps {
		ids = append(ids, s.ID)
	}
	for _, id := range []message.ID{"bore.edge", "hole.both", "bore.plate-round", "bore.tape", "hang.pockets", "hang.arris"} {
		assert.NotContains(t, ids, id)
	}
	assert.Contains(t, ids, message.ID("bore.steel"))
	assert.Contains(t, ids, message.ID("hang.steel"))
}
