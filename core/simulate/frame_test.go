package simulate

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lining"
	"kindmargin/core/measure"
	"kindmargin/core/plan"
	"kindmargin/core/slab"
)

// A frame made to a slab by the plan's figures, its boards cut and set as true as a careful hand does,
// takes the slab at the first hang: head and brace are cut to each end's true, the brace and the head
// hold the jambs apart, and the jambs are straight to a fifth of a millimetre.
func TestASlabFitsTheFrameThatWasMadeToIt(t *testing.T) {
	o := job.NewOpening("o", "Study", measure.Millimetres)
	o.Measuring, o.Walls = job.ToFrame, job.New
	o.Slab = slab.Slab{
		Width: measure.FromMM(width - 2*margin), Length: measure.FromMM(height - margin - under),
		Thickness: measure.FromMM(35),
	}
	o.Lining = &lining.Choice{Thick: measure.FromMM(28)}
	j := job.NewJob("h", "House", measure.Millimetres)
	made := plan.Solve(j, o).Lining
	require.NotNil(t, made)
	require.Equal(t, measure.FromMM(width), made.Frame.Width)
	require.Equal(t, measure.FromMM(height), made.Frame.Height)

	const tries = 4000
	hung := func(cut, straight float64) (fits, goesIn int) {
		for seed := range uint64(tries) {
			rng := rand.New(rand.NewPCG(seed, 3))
			n := func(sigma float64) float64 { return sigma * rng.NormFloat64() }
			at := func(nominal, foot, head float64) (side []float64) {
				bow := n(straight)
				for i := range grid {
					f := float64(i) / (grid - 1)
					side = append(side, nominal+foot+(head-foot)*f+4*f*(1-f)*bow)
				}
				return side
			}
			var open opening
			open.side[frame.Hinge] = at(0, 0, n(2*cut)) // out of plumb takes the whole frame with it
			lean := open.side[frame.Hinge][grid-1]
			open.side[frame.Lock] = at(
				made.Brace.MM(), n(cut), lean+(made.Head-2*o.Lining.Thick-made.Brace).MM()+n(cut),
			)
			// The jambs' lengths are the head's two ends; turned with the frame it stays square to it.
			jambs := (made.Jamb[frame.Hinge] - made.House).MM()
			open.side[frame.Head] = at(jambs, n(cut), n(cut)-lean*width/height)
			open.side[frame.Foot] = at(0, 0, n(straight))
			slabAt := func() float64 { return o.Slab.Width.MM() + n(cut) }
			d := hungSlab{
				pin: [2]float64{margin + n(cut), margin + n(cut)}, top: slabAt(), foot: slabAt(),
				length: o.Slab.Length.MM() + n(cut), headGap: margin + n(cut),
			}
			if open.fits(d) {
				fits++
			}
			if open.goesIn(d) {
				goesIn++
			}
		}
		return fits, goesIn
	}
	fits, _ := hung(0, 0)
	assert.Equal(t, tries, fits, "cut and set to the figures, its light is what was wanted")
	fits, goesIn := hung(0.15, 0.2)
	t.Logf("%d of %d fit at the first hang, %d go in", fits, tries, goesIn)
	assert.Greater(t, float64(fits), 0.95*tries)
	assert.Equal(t, tries, goesIn)
	fits, goesIn = hung(cutNoise, cutNoise)
	t.Logf("as true as edges are planed: %d of %d, %d go in", fits, tries, goesIn)
	assert.Greater(t, float64(goesIn), 0.999*tries)
}
