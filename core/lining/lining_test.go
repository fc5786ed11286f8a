package lining

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kindmargin/core/field"
	"kindmargin/core/frame"
	"kindmargin/core/measure"
)

const mm = measure.Millimetre

func wall(v measure.Length) [6]measure.Length { return [6]measure.Length{v, v, v, v, v, v} }

// A frame of 28 mm boards for 762 by 1981 with 3.5 mm round it and 6 under it, by hand: 769 clear,
// 1990.5 high.
func TestAFrameByHand(t *testing.T) {
	c := Choice{
		Thick: 28 * mm, Board: 140 * mm, Wall: wall(124 * mm), Width: [3]measure.Length{840 * mm, 841 * mm, 838 * mm},
		Height: [2]measure.Length{2030 * mm, 2032 * mm},
	}
	clear := Clear{769 * mm, 3981 * mm / 2, 35 * mm}
	f := Make(c, clear)
	assert.Equal(t, 9*mm, f.House, "a third of the board")
	assert.Equal(t, 3999*mm/2, f.Jamb[frame.Hinge], "1990.5 and 9 of housing")
	assert.Equal(t, 825*mm, f.Head)
	assert.Equal(t, 769*mm, f.Brace)
	assert.Equal(t, [3]measure.Length{15 * mm / 2, 8 * mm, 13 * mm / 2}, f.Pack, "(840 − 825) / 2, and so on")
	assert.Equal(t, 23*mm/2, f.Above, "2030 − 2018.5")
	assert.False(t, f.Taper)
	assert.Zero(t, f.Narrow+f.Low+f.Thin+f.Board+f.PackedMore)

	c.Joint = Over
	f = Make(c, clear)
	assert.Equal(t, 3981*mm/2, f.Jamb[frame.Lock])
	assert.Equal(t, 825*mm, f.Head)
	c.Joint = Between
	f = Make(c, clear)
	assert.Equal(t, 4037*mm/2, f.Jamb[frame.Lock])
	assert.Equal(t, 769*mm, f.Head)
}

// A wall that is not one thickness, and a floor that is not one height.
func TestTheWallIsRarelyOneThickness(t *testing.T) {
	four := 4 * mm
	c := Choice{
		Thick: 28 * mm, Board: 140 * mm,
		Wall: [6]measure.Length{124 * mm, 126 * mm, 128 * mm, 123 * mm, 123 * mm, 125 * mm}, Floor: &four,
	}
	f := Make(c, Clear{769 * mm, 1990 * mm, 35 * mm})
	assert.True(t, f.Taper)
	assert.Equal(t, [3]measure.Length{124 * mm, 126 * mm, 128 * mm}, f.Rip[frame.Hinge])
	assert.Equal(t, [2]measure.Length{128 * mm, 125 * mm}, f.RipEnd)
	assert.Equal(t, 4*mm, f.Jamb[frame.Hinge]-f.Jamb[frame.Lock], "the floor is higher there")
	c.Wall = [6]measure.Length{124 * mm, 125 * mm, 124 * mm, 124 * mm, 124 * mm, 124 * mm}
	f = Make(c, Clear{769 * mm, 1990 * mm, 35 * mm})
	assert.False(t, f.Taper)
	assert.Equal(t, 125*mm, f.Rip[frame.Lock][0], "all to the thickest")
	c.Wall[4] = 0
	f = Make(c, Clear{769 * mm, 1990 * mm, 35 * mm})
	assert.False(t, f.Walls, "it waits for the sixth")
}

// What is in its way is told with its numbers.
func TestWhatIsInItsWay(t *testing.T) {
	c := Choice{
		Thick: 28 * mm, Board: 115 * mm,
		Wall:  [6]measure.Length{124 * mm, 124 * mm, 124 * mm, 60 * mm, 124 * mm, 124 * mm},
		Width: [3]measure.Length{840 * mm, 841 * mm, 812 * mm}, Height: [2]measure.Length{2000 * mm, 2030 * mm},
	}
	f := Make(c, Clear{769 * mm, 1990 * mm, 35 * mm})
	assert.Equal(t, 17*mm, f.Narrow, "825 and 2 a side, in 812")
	assert.Equal(t, 2, f.NarrowAt)
	assert.Equal(t, 18*mm, f.Low, "2018 in 2000")
	assert.Equal(t, 60*mm, f.Thin, "35 of slab and 32 of stop want 67")
	assert.Equal(t, 3, f.ThinAt)
	assert.Equal(t, 9*mm, f.Board)
	c.Width = [3]measure.Length{900 * mm, 900 * mm, 900 * mm}
	assert.Equal(t, 75*mm/2, Make(c, Clear{769 * mm, 1990 * mm, 35 * mm}).PackedMore)

	steep := 90 * mm
	for at, c := range map[string]Choice{
		"/thick": {Thick: -mm}, "/wall/2": {Wall: [6]measure.Length{0, 0, 900 * mm}}, "/joint": {Joint: "glue"},
		"/housing": {Thick: 20 * mm, Housing: 12 * mm}, "/floor": {Floor: &steep}, "/high": {High: &steep},
		"/width/1": {Width: [3]measure.Length{0, 9000 * mm}}, "/height/0": {Height: [2]measure.Length{-mm}},
	} {
		var bad field.Errors
		require.True(t, errors.As(c.Check(), &bad), at)
		assert.Equal(t, at, bad[0].Pointer)
	}
}

// However it is joined: put together, the boards leave what they must.
func TestPutTogetherItLeavesWhatItMust(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		length := func(name string, least, most int) measure.Length {
			return measure.Length(rapid.IntRange(least*2, most*2).Draw(t, name)) * mm / 2
		}
		floor := length("floor", -10, 10)
		c := Choice{Thick: length("thick", 18, 45), Joint: rapid.SampledFrom(Joints).Draw(t, "joint"), Floor: &floor}
		clear := Clear{length("width", 400, 1800), length("height", 1800, 2400), length("slab", 30, 50)}
		f := Make(c, clear)
		// Stood on the floor under the hinge jamb: where the underside of the head comes, and how far apart
		// the jambs stand.
		var under, apart measure.Length
		switch c.Joint {
		case Housed:
			under, apart = f.Jamb[frame.Hinge]-f.House, f.Head-2*c.Thick
		case Over:
			under, apart = f.Jamb[frame.Hinge], f.Head-2*c.Thick
		case Between:
			under, apart = f.Jamb[frame.Hinge]-c.Thick, f.Head
		}
		assert.Equal(t, clear.Height, under)
		assert.Equal(t, clear.Width, apart)
		assert.Equal(t, f.Jamb[frame.Hinge], f.Jamb[frame.Lock]+floor, "both tops are level")
		assert.Equal(t, apart, f.Brace)
	})
}
