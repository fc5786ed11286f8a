package practice

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/message"
)

// number is the figure of a length in an argument, as it is written.
func number(t *testing.T, arg any, u measure.Unit) float64 {
	t.Helper()
	l, err := measure.Parse(arg.(message.Message).Args["length"].(string), u)
	require.NoError(t, err)
	return l.MM()
}

// The right answer of each drill, worked out from what it asks by another way.
func TestDrillsAreRight(t *testing.T) {
	const mm, in = measure.Millimetres, measure.Inches
	for seed := range uint64(300) {
		for _, k := range Drills {
			d, err := Ask(k.ID, seed)
			require.NoError(t, err)
			again, _ := Ask(k.ID, seed)
			require.Equal(t, d, again)
			require.GreaterOrEqual(t, len(d.Answers), 2, d.Asks)
			assert.NotEmpty(t, d.Why)
			once := map[string]bool{}
			for _, a := range d.Answers {
				once[a.String()] = true
			}
			require.Len(t, once, len(d.Answers), "no answer twice: %s", d.Asks)
			right, asks := d.Answers[d.Right], d.Asks.Args
			switch k.ID {
			case "width":
				longest := max(
					asks["head"].(message.Number), asks["middle"].(message.Number), asks["foot"].(message.Number),
				)
				assert.InDelta(
					t, float64(longest)-2*number(t, asks["margin"], mm), number(t, right.Args["length"], mm), 1e-9,
				)
			case "slip":
				read := asks["read"].(message.And)
				var v []float64
				for _, r := range read {
					v = append(v, number(t, r.(message.Message).Args["value"], mm))
				}
				middle := slices.Sorted(slices.Values(v))[2]
				far := 0
				for i := range v {
					if math.Abs(v[i]-middle) > math.Abs(v[far]-middle) {
						far = i
					}
				}
				assert.Equal(t, read[far].(message.Message).Args["at"], right.Args["at"], d.Asks)
			case "fractions":
				assert.InDelta(
					t, number(t, asks["width"], in)-2*number(t, asks["margin"], in),
					number(t, right.Args["length"], in), 1e-9, d.Asks,
				)
			case "pocket":
				assert.InDelta(
					t, number(t, asks["want"], mm), number(t, asks["closed"], mm)-2*number(t, right.Args["length"], mm),
					1e-9, d.Asks,
				)
			case "hand":
				on := asks["seen"].(frame.Hand)
				want := on
				if d.Asks.ID == "drill-hand.asks-block" || asks["stand"] == message.ID("drill-hand.away") {
					want = map[frame.Hand]frame.Hand{frame.Left: frame.Right, frame.Right: frame.Left}[on]
				}
				assert.Equal(t, want, right.Args["hand"], d.Asks)
			case "order":
				next := map[message.ID]message.ID{
					"drill-order.head": "drill-order.hinge", "drill-order.hinge": "drill-order.lock",
					"drill-order.lock": "drill-order.foot",
				}
				if asks["first"] == message.ID("drill-order.hinge") { // the other school
					next["drill-order.hinge"], next["drill-order.head"] = "drill-order.head", "drill-order.lock"
				}
				assert.Equal(t, next[asks["done"].(message.ID)], right.ID)
			}
		}
	}
	_, err := Ask("juggling", 1)
	assert.ErrorContains(t, err, "refused.no-drill")
}

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
	assert.Equal(t, []any{message.Number(1), message.Number(2)}, []any{why.Args["right"], why.Args["tried"]})
	for _, d := range Drills {
		for range 9 {
			runs = append(runs, Run{Kind: d.ID, Right: true})
		}
	}
	kind, why = Next(runs)
	assert.Equal(t, "opening", kind)
	assert.Equal(t, "A harder opening.", why.Args["learn"])
}
