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
	"kindmargin/core/slab"
	"kindmargin/core/survey"
)

// toFrame is a slab with no frame yet: 28 mm boards in a wall of 124.
func toFrame(change func(*job.Opening)) job.Opening {
	o := job.NewOpening("o", "Study", measure.Millimetres)
	o.Measuring = job.ToFrame
	o.Margins.School = "newframe"
	o.Slab = slab.Slab{Width: mm(762), Length: mm(1981), Thickness: mm(35)}
	o.Lining = &lining.Choice{Thick: mm(28), Board: mm(140), Width: [3]measure.Length{mm(838), mm(838), mm(838)}, Height: [2]measure.Length{mm(2030), mm(2030)}}
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
		{"paint of half a millimetre on slab and jamb", func(o *job.Opening) { o.Margins.Paint = mm(0.5) }, 769 + 1, 1981 + 4 + 6},
		{"a slab wider at its foot, longer on the lock edge", func(o *job.Opening) { o.Slab.WidthFoot, o.Slab.LengthLock = mm(763.5), mm(1982) }, 763.5 + 7, 1982 + 9.5},
		{"a pair", func(o *job.Opening) {
			o.Pair = &job.Pair{Slab: o.Slab, Meeting: mm(4), Fixed: frame.Lock}
		}, 762*2 + 7 + 4, 1981 + 9.5},
	} {
		t.Run(c.name, func(t *testing.T) {
			o := toFrame(c.change)
			require.NoError(t, o.Check(measure.Millimetres))
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
	assert.Equal(t, Open, p.Notches[0].State)
	assert.Equal(t, makeFrame, p.Notches[0].Says)
	l := p.Leaves[0]
	require.Len(t, l.Hinges, 2)
	for _, h := range l.Hinges {
		assert.Equal(t, mm(3.5), h.Jamb.Value-h.Slab.Value)
	}
	assert.Equal(t, mm(150), l.Hinges[0].Slab.Value)
	require.NotNil(t, l.Latch)
	for _, e := range l.Cut.Edges {
		for _, m := range e.Marks {
			assert.Zero(t, m.Depth.Value, "%v", e.Side)
		}
	}
	assert.Empty(t, ofCode(l.Findings, TooNarrow))
	assert.Len(t, p.Lining.Packs, 3+3, "foot and two hinges; foot, strike and head")
	assert.Equal(t, mm(6.5), p.Lining.Packs[0].Thick, "(838 − 825) / 2")

	o.Lining.Stands = true
	p = Solve(house, o)
	assert.NotEmpty(t, p.ToRead)
	assert.Equal(t, Open, p.Notches[0].State)
}

// Gone about another way after all, the opening is as little known as before, and the habit of leaving on holds.
func TestNoFrameAfterAll(t *testing.T) {
	o := toFrame(func(o *job.Opening) { o.Measuring = job.ByTape })
	p := Solve(house, o)
	assert.Nil(t, p.Lining)
	assert.Nil(t, p.Leaves[0].Drawing)
	assert.Equal(t, job.WhenSure, door{Opening: o}.leaveOn())
}

// A frame that stands wide is read so, and is moved rather than the slab bought again.
func TestAFrameThatStandsWide(t *testing.T) {
	for _, c := range []struct {
		wide float64
		want Gravity
	}{{0.8, Note}, {3, Stop}} {
		o := toFrame(func(o *job.Opening) { o.Lining.Stands = true })
		for i, at := range []float64{200, 600, 1000, 1400, 1800} {
			for n := range 4 {
				o.Readings = append(o.Readings, survey.Reading{ID: string(rune('a'+i)) + string(rune('0'+n)), Kind: survey.Width, At: mm(at), Value: mm(769 + c.wide)})
			}
		}
		said := ofCode(Solve(house, o).Leaves[0].Findings, FrameWide)
		require.NotEmpty(t, said, "%v", c.wide)
		assert.Equal(t, c.want, said[0].Gravity)
	}
}

// What is in its way is said with its numbers, and with what would work.
func TestWhatIsInAFramesWay(t *testing.T) {
	for _, c := range []struct {
		change func(*lining.Choice)
		want   Gravity
		says   string
	}{
		{func(l *lining.Choice) { l.Width[1] = mm(815) }, Stop, "The rough opening is 815 mm wide at its middle, and the frame 825 mm over all: with 2 mm of packing a side it is 14 mm too narrow. Boards of 21 mm"},
		{func(l *lining.Choice) { l.Height[1] = mm(2000) }, Stop, "too low by 18.5 mm for a frame 2018.5 mm high"},
		{func(l *lining.Choice) { l.Wall[4] = mm(60) }, Stop, "The wall is 60 mm thick at the middle of the lock side, and a lining for a slab 35 mm thick with its stop is 67 mm at least: pack the wall out there by 7 mm"},
		{func(l *lining.Choice) { l.Wall[2] = mm(148) }, Stop, "The boards are 140 mm wide and the wall 148 mm at the head of the hinge side: take wider ones, or glue a strip of 8 mm on."},
		{func(l *lining.Choice) { l.Wall[2] = mm(128) }, Note, "The wall is 124 mm to 128 mm thick: rip each lining to a taper"},
		{func(l *lining.Choice) { l.Width = [3]measure.Length{mm(900), mm(880), mm(880)} }, Care, "Each side would be packed by 37.5 mm; past 20 mm"},
	} {
		p := Solve(house, toFrame(func(o *job.Opening) { c.change(o.Lining) }))
		assert.NotNil(t, find(p, c.want, c.says), "%s\n%v", c.says, p.Findings)
	}
}
