package plan

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/hinge"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/slab"
	"kindmargin/core/swing"
	"kindmargin/core/trade"
)

// saidOf is the one finding of a code, in words.
func saidOf(t *testing.T, list []site.Finding, code site.Code, gravity site.Gravity) string {
	found := ofCode(list, code)
	require.Len(t, found, 1, "%v", code)
	assert.Equal(t, gravity, found[0].Gravity)
	return wordsOf(found[0], measure.Millimetres, house.Tape)
}

// A jamb that bellies in by 3 is 1.5 either side of the best straight edge: where 3 is wanted
// the light falls to 1.5, and hollowing takes so much more off in the middle, between the
// pockets, and nothing at them.
func TestTheEdgeIsHollowedBetweenThePockets(t *testing.T) {
	o := bowed(3)
	o.Hinges.Count = 2 // the middle is free
	p := Solve(house, o)
	words := saidOf(t, p.Findings, site.JambHollows, site.Note)
	assert.Contains(t, words, "The hinge jamb bellies in, and the gap between the hinges falls to 1.5 mm.")
	assert.Contains(t, words, "by 1.5 mm at most, would ease it")
	straight := depths(p.Leaves[0].Cut.Edges[frame.Hinge])

	o.Hinges.Hollow = true
	p = Solve(house, o)
	saidOf(t, p.Findings, site.JambHollowed, site.Note)
	hollowed := depths(p.Leaves[0].Cut.Edges[frame.Hinge])
	assert.InDelta(t, straight[2]+1.5, hollowed[2], 0.6, "in the middle")
	assert.Equal(t, straight[0], hollowed[0], "the top pocket's end stays on the line")
	assert.Contains(t, p.Leaves[0].Cut.Edges[frame.Hinge].Says, message.Message{ID: "cut.hollowed"})
	for _, l := range p.Leaves[0].Light {
		if l.Side == frame.Hinge && l.Where == 1 {
			assert.InDelta(t, 3, l.Margin.Value.MM(), 0.1)
		}
	}
	assert.Equal(
		t, Solve(house, bowedBy(o, 0.3)).Leaves[0].Cut.Edges[frame.Hinge].Means,
		Solve(house, bowedBy(o, 0)).Leaves[0].Cut.Edges[frame.Hinge].Means, "a straight jamb is not hollowed",
	)

	o.Slab.Machined = []frame.Side{frame.Hinge}
	assert.Empty(t, ofCode(Solve(house, o).Findings, site.JambHollowed), "nor is a machined edge")
}

func bowedBy(o job.Opening, belly float64) job.Opening {
	o.Readings = bowed(belly).Readings
	return o
}

func TestWhatSpeaksAgainstAHinge(t *testing.T) {
	leaf := func(change func(*job.Opening)) []site.Finding {
		o := square()
		change(&o)
		return Solve(house, o).Leaves[0].Findings
	}
	assert.Contains(
		t, saidOf(t, leaf(func(o *job.Opening) { o.Hinges.Width = mm(36) }), site.HingeTooWide, site.Stop),
		"A leaf 36 mm wide goes right through a slab 35 mm thick. Take one of 32 mm or less.",
	)
	assert.Contains(
		t, saidOf(t, leaf(func(o *job.Opening) { o.Swing.Pin = mm(2) }), site.PinInSlab, site.Stop),
		"The knuckle is about 7 mm thick, so its middle stands out 3.5 mm at least.", "half of 7",
	)
	assert.Contains(
		t, saidOf(t, leaf(func(o *job.Opening) { o.Margins.Hinge = length(8) }), site.MarginTooWide, site.Stop),
		"You want a hinge gap of 8 mm, and the hinge closes to 7 mm.",
	)
	assert.Contains(
		t, saidOf(t, leaf(func(o *job.Opening) { o.Swing.Bevel = length(8) }), site.BevelTooMuch, site.Stop),
		"7 mm is the most", "a fifth of 35",
	)

	// The hinge gives 3 and 2 is wanted: each jamb pocket is 1 deeper than the leaf's 2.
	o := square()
	o.Margins.Hinge, o.Hinges.Jamb = length(2), mm(7.5)
	found := ofCode(Solve(house, o).Leaves[0].Findings, site.PocketTooDeep)
	require.Len(t, found, 2)
	assert.Contains(
		t, wordsOf(found[0], measure.Millimetres, house.Tape),
		"The recess of the top hinge in the jamb would be 3 mm deep, and the jamb is 7.5 mm thick. Leave 5 "+
			"mm behind it.",
	)
	o.Hinges.Jamb = mm(8.5)
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.PocketTooDeep))

	o = square()
	o.Slab.Construction = "hollow"
	o.Hinges.Size = "butt-75"
	assert.Contains(
		t, saidOf(t, Solve(house, o).Leaves[0].Findings, site.ScrewTooLong, site.Care),
		"Screws 32 mm long go past the stile. Only 12 mm of it is left, and the slab is hollow behind.",
		"30 less the 18 that come off",
	)
	o.Cut.Registration = "keep-hinge"
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.ScrewTooLong), "2 past 30 hold as well")
}

// The rail of a hollow slab is 30 and more than half of it comes off the head: the insert closes the end, and a leaf 20
// below its top hangs on the stile as before. What lay in the offcut is in nobody's way either.
func TestAClosedEndIsNotInTheWay(t *testing.T) {
	o := square()
	o.Slab.Construction, o.Cut.Ends = "hollow", "keep-foot"
	o.Slab.Length = mm(2050) // 2023 finished: 27 off
	o.Hinges.From, o.Hinges.Places = hinge.OwnPlaces, []measure.Length{mm(20), mm(1700)}
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.HingeInTheWay))
	o.Hinges.Avoid = []hinge.Avoid{{What: "the rail", Slab: true, At: mm(0), Long: mm(27)}}
	assert.Empty(t, ofCode(Solve(house, o).Leaves[0].Findings, site.HingeInTheWay), "27 come off")
	o.Hinges.Avoid[0].Long = mm(40)
	assert.Len(t, ofCode(Solve(house, o).Leaves[0].Findings, site.HingeInTheWay), 1, "13 of it stay")
}

func TestANewLeafOfAnotherCorner(t *testing.T) {
	o := square()
	o.Hinges.From, o.Hinges.Pockets = hinge.FromPockets, []measure.Length{mm(163), mm(1700)}
	o.Hinges.Old = []hinge.Pocket{{Long: mm(75)}, {Long: mm(75), Round: mm(6)}}
	assert.Contains(
		t, saidOf(t, Solve(house, o).Leaves[0].Findings, site.PocketCorners, site.Note),
		"The old recess of the bottom hinge has round corners and the leaf has square ones.",
	)
	o.Hinges.Size = "radius-100"
	assert.Contains(
		t, saidOf(t, Solve(house, o).Leaves[0].Findings, site.PocketCorners, site.Note),
		"The old recess of the top hinge has square corners and the leaf has round ones.",
	)
}

// A continuous hinge lies along the whole edge and is packed at three places of it.
func TestAContinuousHinge(t *testing.T) {
	o := bowed(2)
	o.Hinges = hinge.Choice{
		From: hinge.WholeEdge, Count: 2, Size: "continuous-32", Leaf: mm(100), Width: mm(13), Plate: mm(0.7),
		Closed: mm(2.5),
	}
	require.NoError(t, o.Check())
	l := Solve(house, o).Leaves[0]
	require.Len(t, l.Hinges, 3)
	assert.Equal(t, message.ID("hinge.whole-middle"), l.Hinges[1].Name)
	assert.Zero(t, l.Hinges[0].Slab.Value)
	length := l.Finished.Length.Value.MM()
	assert.InDelta(t, length-100, l.Hinges[2].Slab.Value.MM(), 1)
	assert.InDelta(t, (length-100)/2, l.Hinges[1].Slab.Value.MM(), 1)
	assert.InDelta(t, 2, (l.Hinges[0].Pack.Value - l.Hinges[1].Pack.Value).MM(), 0.5, "the belly between")
	assert.Contains(t, l.Hanging.Steps, message.Message{ID: "hang.whole-edge"})
	assert.Empty(t, ofCode(l.Findings, site.HingeShort))
}

// Rising hinges lift the free corner by 12 at a right angle: over a floor 9 higher there, no
// foot goes up for it, and let go it falls shut. Its top, near the pins, is under the head
// until it stands open by atan(41/1.5) less asin(6/41), 79.5°, and 10.6 higher: so it is
// eased by 10.6, 1 to clear, less the 3 of margin.
func TestRisingHinges(t *testing.T) {
	o := square()
	o.Swing.Floor = []swing.Floor{{At: mm(750), Angle: 90, Up: mm(9)}}
	fixed := Solve(house, o).Leaves[0].Wanted[frame.Foot].Value
	assert.Equal(t, mm(12), fixed)
	o.Hinges.Size, o.Hinges.Count, o.Swing.Pin = "rising-100", 3, mm(6)
	p := Solve(house, o)
	l := p.Leaves[0]
	assert.Equal(t, mm(6), l.Wanted[frame.Foot].Value)
	assert.InDelta(t, 6+12-9, l.Hanging.Open.Value.MM(), 0.5)
	saidOf(t, l.Findings, site.RisingShuts, site.Note)
	assert.Zero(t, l.Swing.Rests)
	// 35.9 kg × 9.81 × 12 mm over a quarter turn.
	assert.InDelta(t, 35.9*9.81*0.012/(math.Pi/2), l.Swing.Drift.Shuts, 0.1)
	at := math.Atan2(41, 1.5) - math.Asin(6/math.Hypot(41, 1.5))
	words := saidOf(t, l.Findings, site.RisingHead, site.Care)
	assert.Contains(
		t, words,
		"Ease the push side of the top by 8.5 mm at the hinge corner, running out over 126.5 mm, or it binds.",
	)
	assert.InDelta(t, 8.6, 12*at/(math.Pi/2)+1-3, 0.1)
	assert.Contains(t, all(l.Hanging.Goes, " "), "It is handed: buy it for hinges on the left.")
}

// The pins lean by 40 a metre: the corner of a slab 820 wide sinks by 33 at a right angle.
func TestALeanThatNoFootMarginClears(t *testing.T) {
	o := square()
	o.Swing.Floor = []swing.Floor{{At: mm(750), Angle: 80, Up: mm(30)}}
	assert.Contains(t, saidOf(t, Solve(house, o).Findings, site.SinksTooFar, site.Stop), "33 mm over the floor")
}

// A stop that presses by half a millimetre 12 from the jamb bears 10.5 from the pins of a
// slab whose lock edge is 821.5 from them: that stands 39 off.
func TestAStopThatSprings(t *testing.T) {
	o := square()
	o.Swing.Stop, o.Swing.Play = mm(12), length(1)
	l := Solve(house, o).Leaves[0]
	assert.Len(t, l.Swing.Stop, 4)
	assert.Empty(t, ofCode(l.Findings, site.StopSprings))
	o.Swing.Play = length(-0.5)
	assert.Contains(
		t, saidOf(t, Solve(house, o).Leaves[0].Findings, site.StopSprings, site.Stop),
		"The doorstop presses 0.5 mm on the push face beside the hinges before the door is home. The door stands 39 "+
			"mm off at the lock edge and springs open.",
	)
}

func TestMeetingEdgesOfAPair(t *testing.T) {
	o := square()
	o.Slab = slab.Slab{Width: mm(420), Length: mm(2040), Thickness: mm(37)}
	o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(3), Fixed: frame.Lock, Edges: swing.Rebated}
	require.NoError(t, o.Check())
	p := Solve(house, o)
	first, bolted := p.Leaves[0], p.Leaves[1]
	assert.Contains(
		t, saidOf(t, first.Findings, site.MeetingEdges, site.Note),
		"Take about 8 mm altogether off the two meeting edges, so that they pass.", "common practice",
	)
	assert.False(t, first.Swing.Second)
	require.Len(t, first.Swing.Parts, 2)
	assert.Greater(t, first.Swing.Clear.Value, mm(1.4), "the least of a pair is half its meeting margin")
	assert.True(t, bolted.Swing.Second)
	saidOf(t, bolted.Findings, site.OpensSecond, site.Note)
	assert.InDelta(t, 3, bolted.Swing.Clear.Value.MM(), 0.1, "as it is closed")
	assert.Zero(t, bolted.Swing.Bevel.Value)

	o.Pair.Edges = swing.Rounded
	p = Solve(house, o)
	for _, l := range p.Leaves {
		// √(411² + 6²) about the pins, to the push face 43 behind them.
		assert.InDelta(t, 411-math.Sqrt(411*411+36-43*43), l.Swing.Bevel.Value.MM(), 0.5)
		assert.Greater(t, l.Swing.Clear.Value, mm(2.5))
		assert.Empty(t, ofCode(l.Findings, site.OpensSecond), "either opens first")
	}
	o.Pair.Edges, o.Pair.Lip = "glued", mm(50)
	assert.ErrorContains(t, o.Check(), "/pair/edges:")
	assert.ErrorContains(t, o.Check(), "/pair/lip:")
}

// Of the hinges that are sold, those with nothing against them for a slab 35 thick and 36 kg
// on two: not those too light, too wide or too small.
func TestWhatElseASlabCouldHangOn(t *testing.T) {
	o := square()
	j := house
	j.Kit.Hinges = []job.OwnHinge{
		{ID: "old-brass", Name: "old brass", Kind: "butt", Leaf: mm(100), Width: mm(40), Plate: mm(2.5), Closed: mm(8)},
	}
	ways := map[string][]site.Finding{}
	for _, w := range HingeWays(j, o, 0) {
		ways[w.ID] = w.Against
	}
	assert.Len(t, ways, len(trade.Hinges)+1)
	assert.Empty(t, ways["butt-75"])
	assert.Empty(t, ways["butt-100"])
	assert.Len(t, ofCode(ways["lift-100"], site.HingeTooLight), 1, "35 kg")
	assert.Len(t, ofCode(ways["ball-100"], site.ThinSetback), 0)
	assert.Len(t, ofCode(ways["ball-4half"], site.HingeTooWide), 1, "1 1/2 in through 35")
	assert.Len(t, ofCode(ways["old-brass"], site.HingeTooWide), 1)
	o.Swing.Casing, o.Swing.Open = mm(14), 180
	for _, w := range HingeWays(j, o, 0) {
		if w.ID == "butt-75" {
			assert.Contains(
				t, saidOf(t, w.Against, site.PinBehindCasing, site.Care),
				"With its pin 6 mm out, this hinge does not fold back over an architrave 14 mm thick. It takes 8 mm.",
				"half of it and a millimetre",
			)
		}
	}
	assert.Nil(t, HingeWays(j, o, 1), "there is no second leaf")
}

func TestOwnHingesOfAJob(t *testing.T) {
	o := square()
	o.Hinges.Size = "old-brass"
	own := job.OwnHinge{
		ID: "old-brass", Name: "old brass", Kind: "rising", Leaf: mm(75), Width: mm(29), Plate: mm(2), Closed: mm(7),
		Rise: mm(10), Screws: 3, Gauge: 8, Screw: mm(32), Load: 30,
	}
	assert.ErrorContains(t, o.CheckKit(job.Kit{}), "/hinges/size:")
	j := house
	j.Kit.Hinges = []job.OwnHinge{own}
	require.NoError(t, j.Check())
	require.NoError(t, o.CheckKit(j.Kit))
	l := Solve(j, o).Leaves[0]
	saidOf(t, l.Findings, site.HingeTooLight, site.Care)
	saidOf(t, l.Findings, site.RisingShuts, site.Note)
	assert.Equal(
		t, "3 a leaf, no. 8 × 32 mm. Drill 2.5 mm for softwood, 3 mm for hardwood, as deep as the screw is long.",
		saying(l.Hanging.Screws[0]),
	)
	bad := own
	bad.Kind, bad.Closed, bad.Name, bad.Screws = "magic", mm(3), "", 90
	j.Kit.Hinges = []job.OwnHinge{own, bad}
	err := j.Check()
	for _, at := range []string{
		"/kit/hinges/1/id", "/kit/hinges/1/kind", "/kit/hinges/1/closed", "/kit/hinges/1/name", "/kit/hinges/1",
	} {
		assert.ErrorContains(t, err, at+":")
	}
}

// The screws and pilots of a hinge, and which of them are for the trial.
func TestScrewsForTheTrial(t *testing.T) {
	o := square()
	o.Hinges.Size = "butt-75"
	h := Solve(house, o).Leaves[0].Hanging
	require.Len(t, h.Screws, 5)
	assert.Contains(t, saying(h.Screws[2]), "the middle one and the lowest")
	assert.Contains(t, saying(h.Screws[3]), "75 mm into the stud")
	o.Hinges.Size = ""
	assert.Empty(t, Solve(house, o).Leaves[0].Hanging.Screws)
}

// Why it opens so far and rests where it does, and what pulls at the top hinge.
func TestWhyInSentences(t *testing.T) {
	o := square()
	o.Swing.Casing, o.Swing.Lean = mm(20), length(-8)
	l := Solve(house, o).Leaves[0]
	// 1.5 sin φ + 14 cos φ = −6, of the casing's corner from the pin.
	assert.Equal(t, "It would meet the architrave at 121°.", all(l.Swing.OpensWhy(), "; "))
	rests := all(l.Swing.RestsWhy(), "; ")
	assert.Contains(t, rests, "It leans 4 mm in a metre away from you.", "8 over 2.02 m")
	// 35.9 kg × 9.81 × 0.00395 × (0.412 cos 45° + 0.0235 sin 45°).
	assert.Contains(t, rests, "That swings 36 kg shut with 0.43 N·m at 45°.")
	assert.Equal(
		t,
		"The door weighs about 36 kg. Its middle hangs 419 mm from the pins. The outer hinges are 1573 mm apart. "+
			"Pull = weight × half width / distance (statics).",
		all(l.Gauges.Pull.Why(), " "),
	)
	assert.Equal(t, message.ID("why.folds-back"), Solve(house, square()).Leaves[0].Swing.OpensWhy()[0].ID)
}
