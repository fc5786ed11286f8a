package document

import (
	"bytes"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
)

func decoded(t *testing.T, name string) job.Job {
	b, err := os.ReadFile(filepath.Join("..", "demo", name+".json"))
	require.NoError(t, err)
	j, err := job.Decode(b)
	require.NoError(t, err)
	return j
}

// Every figure and word of the demo's doors, in the order of the work. After a
// change that is meant: kindmargin plan demo/NAME.json > document/testdata/NAME.txt,
// and read the difference.
func TestThePrintedPlanOfTheDemo(t *testing.T) {
	for _, name := range []string{"tern-house", "alder-cottage"} {
		want, err := os.ReadFile(filepath.Join("testdata", name+".txt"))
		require.NoError(t, err)
		var got bytes.Buffer
		require.NoError(t, Print(&got, decoded(t, name)))
		assert.Equal(t, string(want), got.String(), name)
	}
}

// Added up by hand, the terms of every figure give it: in mm and in inches, to what
// the terms are shown to.
func TestShownTermsAddUp(t *testing.T) {
	for _, name := range []string{"tern-house", "alder-cottage"} {
		for _, d := range Plans(decoded(t, name)).Openings {
			for _, l := range d.Plan.Leaves {
				require.NotNil(t, l.Cut)
				for _, e := range l.Cut.Edges {
					for _, m := range e.Marks {
						var sum measure.Length
						for _, term := range m.Depth.Terms {
							v, err := measure.Parse(term.Text.MM, measure.Millimetres)
							require.NoError(t, err, term.Text.MM)
							sum += v
						}
						assert.InDelta(t, m.Depth.MM, sum.MM(), 0.0005, "%s, %v: %v", d.Name, e.Side, m.Depth.Terms)
					}
				}
			}
		}
	}
}

func TestControlCharactersAreNotPrinted(t *testing.T) {
	j := decoded(t, "alder-cottage")
	j.Openings[0].Name = "Pantry\x1b[2J\u202eyrtnaP"
	var out bytes.Buffer
	require.NoError(t, Print(&out, j))
	assert.False(t, strings.ContainsAny(out.String(), "\x1b\u202e"))
	assert.Contains(t, strings.ToUpper(out.String()), "PANTRY\uFFFD[2J")
}

// A frame that is made to a slab is printed with its cut list, by hand: 762 and twice 3.5, and so on.
func TestAFrameIsPrinted(t *testing.T) {
	j := job.NewJob("j", "House", measure.Millimetres)
	o := job.NewOpening("o", "Pantry", measure.Millimetres)
	o.Measuring, o.Margins.School = job.ToFrame, "newframe"
	mm := measure.FromMM
	o.Slab = slab.Slab{Width: mm(762), Length: mm(1981), Thickness: mm(35)}
	o.Lining = &lining.Choice{
		Thick: mm(28), Width: [3]measure.Length{mm(838), mm(838), mm(838)},
		Height: [2]measure.Length{mm(2030), mm(2030)},
	}
	j.Openings = []job.Opening{o}
	var b bytes.Buffer
	require.NoError(t, Print(&b, j))
	for _, says := range []string{
		"769 wide", "1990.5 high", "1 hinge jamb", "1999.5 × 28", "1 brace across the bottom", "6.5 behind the keep",
		"Frame: Check the slab first",
	} {
		assert.Contains(t, b.String(), says)
	}
}

// A job speaks the English that its unit suggests, or the one that was chosen: its figures stay as they are.
func TestAJobSpeaksItsEnglish(t *testing.T) {
	j := decoded(t, "tern-house")
	print := func(l job.Language) string {
		j.Language = l
		require.NoError(t, j.Check())
		var b bytes.Buffer
		require.NoError(t, Print(&b, j))
		return b.String()
	}
	british, american := print(""), print(job.American)
	assert.Equal(t, british, print(job.British))
	assert.Contains(t, british, "the latch and the keep could miss by that")
	assert.Contains(t, american, "the latch and the strike plate could miss by that")
	figures := regexp.MustCompile(`\d+(\.\d+)?`)
	assert.Equal(t, figures.FindAllString(british, -1), figures.FindAllString(american, -1))
	j.Language = "fr"
	assert.ErrorContains(t, j.Check(), "/language")
}
