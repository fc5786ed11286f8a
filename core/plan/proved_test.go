package plan_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/oracle"
	"kindmargin/core/plan"
	"kindmargin/core/survey"
	"kindmargin/thorough"
)

// A tape whose hook is bent by 0.8 mm reads the slab as it reads the opening: proved or not, either way, what
// is left of the slab fits as well.
func TestABentHookReadsTheSlabToo(t *testing.T) {
	n := thorough.Count(30, 400)
	for _, proved := range []bool{false, true} {
		var middle [2]float64
		for i, bias := range []float64{-0.8, 0.8} {
			kit := slices.Clone(plainKit)
			if proved {
				kit[0].Proved = &survey.Proved{Bias: bias, Sure: 0.1, Sigma: 0.8, Readings: 8}
			}
			over := make([]float64, n)
			each(n, func(k int) {
				s := newHidden(oracle.Houses[1+k%8], kit, measure.HalfMillimetre, rand.New(rand.NewPCG(uint64(k), 29)))
				s.hands.Bias["tape"] = bias
				limits := s.door.Slab.Limits
				s.door.Slab = s.board.Measured(s.hands, "tape", 0.5, s.rng)
				s.door.Slab.Limits = limits
				p, _ := s.asked(60)
				over[k] = s.tooSmall(p)
			})
			slices.Sort(over)
			small := 0
			for _, v := range over {
				if v > 1 {
					small++
				}
			}
			middle[i] = over[n/2]
			assert.LessOrEqual(
				t, float64(small)/float64(n), 0.005+thorough.Chance(0.005, n), "hook %v, proved %v", bias, proved,
			)
		}
		t.Logf("proved %v: what is over the best in the middle of %d, %.2f and %.2f", proved, n, middle[0], middle[1])
		assert.InDelta(t, middle[0], middle[1], 0.25, "it makes no difference which way")
	}
}

// By hand: a tape that reads 0.8 too much, proved, finds 826 where 825.2 is, and a slab of 839.2 to be 840. As
// much comes off as with a true tape, and the finished slab reads 0.8 more.
func TestWhatATapeReadsTooMuchIsTakenOffTheSlabToo(t *testing.T) {
	mm := measure.FromMM
	solve := func(reads float64) (off, stands measure.Length, terms []string) {
		s := newHidden(oracle.Houses[1], slices.Clone(plainKit), measure.Tenths, rand.New(rand.NewPCG(1, 1)))
		s.job.Kit.Tools[0].Proved = &survey.Proved{Bias: reads, Sure: 0.01, Sigma: 0.1, Readings: 20}
		add := func(r survey.Reading) {
			r.ID = r.Side.String() + string(r.Kind) + r.At.String()
			s.door.Readings = append(s.door.Readings, r)
		}
		for _, at := range []float64{50, 300, 600, 1000, 1400, 1700, 1980} {
			add(survey.Reading{Kind: survey.Width, At: mm(at), Value: mm(825.2 + reads)})
		}
		for _, at := range []float64{50, 200, 400, 600, 770} {
			add(survey.Reading{Kind: survey.Height, At: mm(at), Value: mm(2031.2 + reads)})
		}
		for _, side := range []frame.Side{frame.Hinge, frame.Lock} {
			add(survey.Reading{Kind: survey.Plumb, Side: side, At: mm(1850), From: mm(150)})
		}
		l := s.door.Slab.Limits
		s.door.Slab.Width, s.door.Slab.WidthMid, s.door.Slab.WidthFoot = mm(839.2+reads), 0, 0
		s.door.Slab.Length, s.door.Slab.LengthLock, s.door.Slab.Square = mm(2060+reads), 0, 0
		s.door.Slab.Limits = l
		s.door.Cut.LeaveOn = "to-line"
		p := plan.Solve(s.job, s.door)
		require.NotNil(t, p.Leaves[0].Cut)
		hinge, lock := p.Leaves[0].Cut.Edges[frame.Hinge].Marks[2].Depth, p.Leaves[0].Cut.Edges[frame.Lock].Marks[2].Depth
		for _, x := range lock.Terms {
			terms = append(terms, string(x.Label))
		}
		return hinge.Value + lock.Value, p.Leaves[0].Cut.Width[1].Value, terms
	}
	straight, fits, plain := solve(0)
	bent, reads, said := solve(0.8)
	assert.InDelta(t, straight.MM(), bent.MM(), 0.21, "to a mark on either edge")
	assert.InDelta(t, fits.MM()+0.8, reads.MM(), 0.21, "what that tape reads of the finished slab")
	assert.NotContains(t, plain, "term.reads-long")
	assert.Contains(t, said, "term.reads-long")
}
