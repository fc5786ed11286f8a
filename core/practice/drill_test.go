package practice

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/measure"
)

// The right answer of each drill, worked out from what it asks by another way.
func TestDrillsAreRight(t *testing.T) {
	for seed := range uint64(300) {
		for _, k := range Drills {
			d, err := Ask(k.ID, seed)
			require.NoError(t, err)
			again, _ := Ask(k.ID, seed)
			require.Equal(t, d, again)
			require.GreaterOrEqual(t, len(d.Answers), 2, d.Asks)
			assert.NotEmpty(t, d.Why)
			sorted := slices.Sorted(slices.Values(d.Answers))
			require.Len(t, slices.Compact(sorted), len(d.Answers), "no answer twice: %s", d.Asks)
			right := d.Answers[d.Right]
			var a, b, c int
			switch k.ID {
			case "width":
				_, err := fmt.Sscanf(d.Asks, "The opening reads %d at the head, %d in the middle and %d at the foot.", &a, &b, &c)
				require.NoError(t, err)
				assert.Equal(t, fmt.Sprintf("%d mm", max(a, b, c)-6), right)
			case "slip":
				var v [5]int
				for i, p := range []int{200, 600, 1000, 1400, 1800} {
					_, err := fmt.Sscanf(d.Asks[strings.Index(d.Asks, fmt.Sprintf("%d mm up: ", p)):], fmt.Sprintf("%d mm up: %%d;", p), &v[i])
					require.NoError(t, err)
				}
				sorted := slices.Sorted(slices.Values(v[:]))
				far := 0
				for i := range v {
					if abs(v[i]-sorted[2]) > abs(v[far]-sorted[2]) {
						far = i
					}
				}
				assert.Equal(t, fmt.Sprintf("%d mm up", []int{200, 600, 1000, 1400, 1800}[far]), right, d.Asks)
			case "fractions":
				parts := strings.SplitN(strings.TrimSuffix(d.Asks, "."), " less two margins of ", 2)
				w, err := measure.Parse(parts[0], measure.Inches)
				require.NoError(t, err)
				m, err := measure.Parse(parts[1], measure.Inches)
				require.NoError(t, err)
				got, err := measure.Parse(right, measure.Inches)
				require.NoError(t, err)
				assert.InDelta(t, w.MM()/25.4-2*m.MM()/25.4, got.MM()/25.4, 1e-9, d.Asks)
			case "pocket":
				var closed, want, each float64
				_, err := fmt.Sscanf(d.Asks, "A hinge, shut with its leaves parallel, is %f mm over all. A hinge margin of %f mm is wanted.", &closed, &want)
				require.NoError(t, err)
				_, err = fmt.Sscanf(right, "%f mm", &each)
				require.NoError(t, err)
				assert.InDelta(t, want, closed-2*each, 1e-9, d.Asks)
			case "hand":
				on := map[bool]string{true: "left", false: "right"}[strings.Contains(d.Asks, "on your left")]
				other := map[string]string{"left": "right", "right": "left"}[on]
				toward := strings.Contains(d.Asks, "opens toward you")
				switch {
				case strings.Contains(d.Asks, "lock block"):
					assert.Equal(t, "To the "+other, right, d.Asks)
				case toward:
					assert.Equal(t, "On the "+on, right, d.Asks)
				default:
					assert.Equal(t, "On the "+other, right, d.Asks)
				}
			case "order":
				next := map[string]string{"The head.": "The hinge edge.", "The hinge edge.": "The lock edge.", "The lock edge.": "The foot."}
				for done, after := range next {
					if strings.Contains(d.Asks, done+" is done") {
						assert.Equal(t, after, right)
					}
				}
			}
		}
	}
	_, err := Ask("juggling", 1)
	assert.ErrorContains(t, err, "no drill called")
}

func abs(v int) int { return max(v, -v) }

// What to practise next: an opening first, then what goes worst, then what was not tried.
func TestWhatToPractiseNext(t *testing.T) {
	kind, _ := Next(nil)
	assert.Equal(t, "opening", kind)
	runs := []Run{{Kind: "opening", Right: true, Learn: "A harder opening."}}
	kind, why := Next(runs)
	assert.Equal(t, "hand", kind, why)
	runs = append(runs, Run{Kind: "cure"}, Run{Kind: "cure", Right: true}, Run{Kind: "hand", Right: true})
	kind, why = Next(runs)
	assert.Equal(t, "cure", kind)
	assert.Contains(t, why, "1 of 2 right")
	for _, d := range Drills {
		for range 9 {
			runs = append(runs, Run{Kind: d.ID, Right: true})
		}
	}
	kind, why = Next(runs)
	assert.Equal(t, "opening", kind)
	assert.Contains(t, why, "A harder opening.")
}
