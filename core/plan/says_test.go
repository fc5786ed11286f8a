package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// What an edge would lose is what it may, and so much more, as the three are shown.
func TestWhatIsTooMuchAddsUp(t *testing.T) {
	found := 0
	for tenths := range 200 {
		o := square()
		o.Slab.Construction, o.Slab.Width = "hollow", mm(826)+measure.Length(tenths)*mm(1)/5
		p := Solve(house, o)
		for _, f := range p.All() {
			if f.Code != site.OverLimit {
				continue
			}
			off, _ := message.LengthOf(f.Args["off"])
			more, _ := message.LengthOf(f.Args["more"])
			most, _ := message.LengthOf(f.Args["most"])
			if off > most {
				assert.Equal(t, off, most+more, "%s of a slab of %s", f.Args["edge"], o.Slab.Width)
				found++
			}
		}
	}
	assert.Greater(t, found, 10)
}

// Where the head was levelled twice no note asks for its level once more.
func TestALevelThatWasReadIsNotAskedFor(t *testing.T) {
	codes := func(levels int) (list []site.Code) {
		o := square()
		o.Readings = o.Readings[:0:0]
		for _, at := range []float64{200, 1000, 1800} {
			o.Readings = append(o.Readings, survey.Reading{Kind: survey.Width, At: mm(at), Value: mm(826)})
		}
		o.Readings = append(o.Readings, survey.Reading{Kind: survey.Height, At: mm(50), Value: mm(2032)})
		for i := range levels {
			o.Readings = append(o.Readings, survey.Reading{
				Kind: survey.Level, Side: frame.Head, At: mm(760 - float64(i)), From: mm(50),
			})
		}
		for _, f := range Solve(house, o).All() {
			if f.Code == site.StrikeFromLatch || f.Code == site.StrikeFromLatchRead {
				list = append(list, f.Code)
			}
		}
		return list
	}
	assert.Equal(t, []site.Code{site.StrikeFromLatch}, codes(0))
	assert.NotContains(t, codes(2), site.StrikeFromLatch)
	assert.NotContains(t, codes(3), site.StrikeFromLatch)
}
