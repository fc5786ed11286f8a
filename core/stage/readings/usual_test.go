package readings

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/site"
	"kindmargin/core/survey"
)

// Common practice: three widths from the top down, a height beside either jamb, both jambs plumb, the head level, then
// what is straight, and the corners across. Places by hand: of an opening of 800 by 2020 in mm, of 30 by 80 in inches.
func TestUsual(t *testing.T) {
	asked := func(j job.Job, o job.Opening) (list []string) {
		for _, s := range Usual(site.New(j, o)) {
			list = append(list, fmt.Sprint(s.Reading.Kind, " ", s.Reading.Side, " ", s.Reading.At.MM()))
		}
		return list
	}
	j := job.NewJob("j", "House", measure.Millimetres)
	o := job.NewOpening("o", "Study", measure.Millimetres)
	all := []string{
		"width  1800", "width  1000", "width  100", "height  50", "height  750", "plumb hinge 1800",
		"plumb lock 1800", "level head 750", "straight hinge 1000", "straight lock 1000",
		"diagonal hinge 0", "diagonal lock 0",
	}
	assert.Equal(t, all, asked(j, o))
	mm := measure.Millimetre
	o.Readings = []survey.Reading{{ID: "r1", Kind: survey.Width, At: 1800 * mm, Value: 826 * mm}}
	assert.Equal(t, all[1:], asked(j, o)[:len(all)-1], "what was read is not asked for again")
	o.Measuring = job.OfferedUp
	assert.Empty(t, asked(j, o), "gaps are read round the slab")

	in := job.NewJob("j", "House", measure.Inches)
	o = job.NewOpening("o", "Study", measure.Inches)
	o.Readings = []survey.Reading{
		{ID: "r1", Kind: survey.Width, At: 70 * measure.Inch, Value: 30 * measure.Inch},
		{ID: "r2", Kind: survey.Height, At: 2 * measure.Inch, Value: 80 * measure.Inch},
	}
	assert.Equal(t, []string{
		fmt.Sprint("width  ", 40*25.4), fmt.Sprint("width  ", 4*25.4), fmt.Sprint("height  ", 28*25.4),
	}, asked(in, o)[:3])
}
