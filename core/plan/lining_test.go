package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/slab"
	"kindmargin/core/survey"
)

// toFrame is a slab with no frame yet: 28 mm boards in a wall of 124.
func toFrame(change func(*job.Opening)) job.Opening {
	o := job.NewOpening("o", "Study", measure.Millimetres)
	o.Measuring = job.ToFrame
	o.Margins.School = "newframe"
	o.Slab = slab.Slab{Width: mm(762), Length: mm(1981), Thickness: mm(35)}
	o.Lining = &lining.Choice{
		Thick: mm(28), Board: mm(140), Width: [3]measure.Length{mm(838), mm(838), mm(838)},
		Height: [2]measure.Length{mm(2030), mm(2030)},
	}
	for i := range o.Lining.Wall {
		o.Lining.Wall[i] = mm(124)
	}
	if change != nil {
		change(&o)
	}
	return o
}

// Common practice: clear width is the slab and two margins of 3.5, clear height the slab, 3.5 at the head
// and 6 at the foot; and others. Every term says where it comes from.
func TestClearSizesOfAFrame(t *testing.T) {
	for _, c := range []struct {
		name          string
		change        func(*job.Opening)
		width, height float64
	}{
		{"3.5 round it, 6 under it", nil, 762 + 7, 1981 + 3.5 + 6},
		{"still to be painted, 3", func(o *job.Opening) { o.Margins.School = "painted" }, 762 + 6, 1981 + 3 + 6},
		{"and a floor of 12 to come", func(o *job.Opening) { o.Margins.Floor = mm(12) }, 769, 1981 + 3.5 + 6 + 12},
		{
			"paint of half a millimetre on slab and jamb", func(o *job.Opening) { o.Margins.Paint = mm(0.5) }, 769 + 1,
			1981 + 4 + 6,
		},
		{
			"a slab wider at its foot, longer on the lock edge",
			func(o *job.Opening) { o.Slab.WidthFoot, o.Slab.LengthLock = mm(763.5), mm(1982) }, 763.5 + 7, 1982 + 9.5,
		},
		{"a pair", func(o *job.Opening) {
			o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(4), Fixed: frame.Lock}
		}, 762*2 + 7 + 4, 1981 + 9.5},
	} {
		t.Run(c.name, func(t *testing.T) {
			o := toFrame(c.change)
			require.NoError(t, o.Check())
			l := Solve(house, o).Lining
			require.NotNil(t, l)
			assert.InDelta(t, c.width, l.Width.Value.MM(), 1e-6)
			assert.InDelta(t, c.height, l.Height.Value.MM(), 1e-6)
			for _, f := range []figure.Figure{l.Width, l.Height} {
				var sum measure.Length
				for _, term := range f.Terms {
					sum += term.Value
				}
				assert.Equal(t, f.Value, sum)
			}
		})
	}
}

// Before it stands, the rod's marks are there to cut its pockets by: slab and jamb differ by the head
// margin. Measure waits until it stands, and then asks like for any opening; nothing comes off the slab.
func TestAFrameIsMarkedBeforeItStands(t *testing.T) {
	o := toFrame(nil)
	p := Solve(house, o)
	assert.Empty(t, p.ToRead)
	assert.Equal(t, Open, p.Steps[0].State)
	assert.Equal(t, message.ID("step-now.frame"), p.Steps[0].Says)
	l := p.Leaves[0]
	require.Len(t, l.Hinges, 2)
	for _, h := range l.Hinges {
		assert.Equal(t, mm(3.5), h.Jamb.Value-h.Slab.Value)
	}
	assert.Equal(t, mm(150), l.Hinges[0].Slab.Value)
	require.NotNil(t, l.Latch)
	for e := range l.Cut.InOrder() {
		for _, m := range e.Marks {
			assert.Zero(t, m.Depth.Value, "%v", e.Side)
		}
	}
	assert.Empty(t, ofCode(l.Findings, site.TooNarrow))
	assert.Len(t, p.Lining.Packs, 3+3, "foot and two hinges; foot, strike and head")
	assert.Equal(t, mm(6.5), p.Lining.Packs[0].Thick, "(838 − 825) / 2")

	o.Lining.Stands = true
	p = Solve(house, o)
	assert.NotEmpty(t, p.ToRead)
	assert.Equal(t, Open, p.Steps[0].State)
}

// Gone about another way after all, the opening is as little known as before, and the habit of leaving on holds.
func TestNoFrameAfterAll(t *testing.T) {
	o := toFrame(func(o *job.Opening) { o.Measuring = job.ByTape })
	p := Solve(house, o)
	assert.Nil(t, p.Lining)
	assert.Nil(t, p.Leaves[0].Drawing)
	assert.Equal(t, job.WhenSure, site.Opening{Opening: o}.Habit())
}

// A frame that stands wide is read so, and is moved rather than the slab bought again.
func TestAFrameThatStandsWide(t *testing.T) {
	for _, c := range []struct {
		wide float64
		want site.Gravity
	}{{0.8, site.Note}, {3, site.Stop}} {
		o := toFrame(func(o *job.Opening) { o.Lining.Stands = true })
		for i, at := range []float64{200, 600, 1000, 1400, 1800} {
			for n := range 4 {
				o.Readings = append(o.Readings, survey.Reading{
					ID: string(rune('a'+i)) + string(rune('0'+n)), Kind: survey.Width, At: mm(at),
					Value: mm(769 + c.wide),
				})
			}
		}
		said := ofCode(Solve(house, o).Leaves[0].Findings, site.FrameWide)
		require.NotEmpty(t, said, "%v", c.wide)
		assert.Equal(t, c.want, said[0].Gravity)
	}
}

// What is in its way is said with its numbers, and with what would work.
func TestWhatIsInAFramesWay(t *testing.T) {
	for _, c := range []struct {
		change func(*lining.Choice)
		want   site.Gravity
		says   string
	}{
		{
			func(l *lining.Choice) { l.Width[1] = mm(815) }, site.Stop,
			"The rough opening is 815 mm wide at its middle. The frame is 825 mm overall, and 2 mm of packing a side " +
				"makes it 14 mm too wide. Use boards of 21 mm",
		},
		{func(l *lining.Choice) { l.Height[1] = mm(2000) }, site.Stop, "18.5 mm too low for a frame 2018.5 mm high"},
		{
			func(l *lining.Choice) { l.Wall[4] = mm(60) }, site.Stop,
			"The wall is 60 mm thick at the middle of the lock side. A lining for a slab 35 mm thick needs 67 mm. " +
				"Pad the wall out there by 7 mm",
		},
		{
			func(l *lining.Choice) { l.Wall[2] = mm(148) }, site.Stop,
			"The boards are 140 mm wide and the wall is 148 mm at the top of the hinge side. Take wider boards, or " +
				"glue on a strip of 8 mm.",
		},
		{
			func(l *lining.Choice) { l.Wall[2] = mm(128) }, site.Note,
			"The wall is 124 mm to 128 mm thick. Rip each lining to a taper",
		},
		{
			func(l *lining.Choice) { l.Width = [3]measure.Length{mm(900), mm(880), mm(880)} }, site.Care,
			"Each side needs 37.5 mm of packing. Over 20 mm",
		},
	} {
		p := Solve(house, toFrame(func(o *job.Opening) { c.change(o.Lining) }))
		assert.NotNil(t, find(p, c.want, c.says), "%s\n%v", c.says, p.Findings)
	}
}

// The floor of a frame by hand: 10 higher under the lock jamb, 14 where the door swings. The clear height
// is over its highest place, each jamb stands on its own floor, the slab clears it by what is wanted, and
// handle and strike are told from the floor that the hand stands on.
func TestAFrameStandsOnTheFloorThatIsThere(t *testing.T) {
	level := Solve(house, toFrame(nil))
	for _, c := range []struct {
		name             string
		floor, high      float64
		height, lockJamb float64 // clear height from the floor under the hinge jamb; how much shorter the lock jamb is
		hinge, lock      float64 // foot margins at the two corners
	}{
		{"level", 0, 0, 1990.5, 0, 6, 6},
		{"10 higher under the lock jamb", 10, 10, 2000.5, 10, 16, 6},
		{"10 lower there", -10, 0, 1990.5, -10, 6, 16},
		{"and 14 where the door swings", 10, 14, 2004.5, 10, 20, 10},
		{"8 higher between level jambs", 0, 8, 1998.5, 0, 14, 14},
	} {
		t.Run(c.name, func(t *testing.T) {
			o := toFrame(func(o *job.Opening) {
				floor, high := mm(c.floor), mm(c.high)
				o.Lining.Floor, o.Lining.High = &floor, &high
			})
			p := Solve(house, o)
			assert.InDelta(t, c.height, p.Lining.Height.Value.MM(), 1e-6)
			assert.InDelta(t, c.lockJamb, (p.Lining.Jamb[frame.Hinge] - p.Lining.Jamb[frame.Lock]).MM(), 1e-6)
			foot := map[int]float64{}
			for _, l := range p.Leaves[0].Light {
				if l.Side == frame.Foot {
					foot[l.Where] = l.Margin.Value.MM()
				}
			}
			assert.InDelta(t, c.hinge, foot[0], 0.02)
			assert.InDelta(t, c.lock, foot[2], 0.02)
			for _, code := range []site.Code{
				site.FrameHigh, site.FrameLow, site.FrameFloorUnread, site.FrameHighUnread,
			} {
				assert.Empty(t, ofCode(p.Findings, code), "%v", code)
			}
			// 1000 above the floor under the lock jamb, told down from the head.
			l := p.Leaves[0].Latch
			assert.InDelta(t, c.height-c.floor-1000, l.Jamb.Value.MM(), 0.3, "the strike, down from the head")
			strike := p.Lining.Packs[len(p.Lining.Packs)-2]
			require.Equal(t, message.ID("packed.strike"), strike.What)
			assert.InDelta(
				t, 1000, strike.Up.MM(), 5, "packed where the strike comes, from the floor under its own jamb",
			)
			for i, h := range p.Leaves[0].Hinges {
				assert.Equal(t, level.Leaves[0].Hinges[i].Jamb, h.Jamb, "hinges are told from the head")
			}
		})
	}
}

// A floor that was read at one place only, or not at all, is asked for; nought is a reading. A frame that
// already stands is not reopened.
func TestAFramesFloorIsAskedFor(t *testing.T) {
	nought := measure.Length(0)
	for _, c := range []struct {
		name        string
		floor, high *measure.Length
		asks        []site.Code
	}{
		{"nothing read", nil, nil, []site.Code{site.FrameFloorUnread, site.FrameHighUnread}},
		{"under the lock jamb only", &nought, nil, []site.Code{site.FrameHighUnread}},
		{"its highest only", nil, &nought, []site.Code{site.FrameFloorUnread}},
		{"both", &nought, &nought, nil},
	} {
		o := toFrame(func(o *job.Opening) { o.Lining.Floor, o.Lining.High = c.floor, c.high })
		var asks []site.Code
		for _, f := range Solve(house, o).Findings {
			if f.Code == site.FrameFloorUnread || f.Code == site.FrameHighUnread {
				assert.Equal(t, site.Stop, f.Gravity)
				asks = append(asks, f.Code)
			}
		}
		assert.Equal(t, c.asks, asks, c.name)
		o.Lining.Stands = true
		for _, f := range Solve(house, o).Findings {
			assert.NotContains(
				t, []site.Code{site.FrameFloorUnread, site.FrameHighUnread}, f.Code, "%s: it stands", c.name,
			)
		}
	}
}

// A frame that stands too low over its floor, or too high, is cured at its feet.
func TestAFrameThatStandsHighOrLow(t *testing.T) {
	for _, c := range []struct {
		off  float64
		code site.Code
		want site.Gravity
		by   float64
	}{{-4, site.FrameLow, site.Stop, 4}, {-0.8, site.FrameLow, site.Note, 0.8}, {5, site.FrameHigh, site.Stop, 5}} {
		o := toFrame(func(o *job.Opening) {
			nought := measure.Length(0)
			o.Lining.Stands, o.Lining.Floor, o.Lining.High = true, &nought, &nought
		})
		for i, at := range []float64{50, 400, 700} {
			for n := range 6 {
				o.Readings = append(o.Readings, survey.Reading{
					ID: string(rune('a'+i)) + string(rune('0'+n)), Kind: survey.Height, At: mm(at),
					Value: mm(1990.5 + c.off), PlusMinus: mm(0.2),
				})
			}
		}
		p := Solve(house, o)
		said := ofCode(p.Findings, c.code)
		require.Len(t, said, 1, "%v: %v", c.off, p.Findings)
		assert.Equal(t, c.want, said[0].Gravity)
		assert.InDelta(t, c.by, measure.Length(said[0].Args["by"].(message.Fine)).MM(), 0.5)
	}
}
