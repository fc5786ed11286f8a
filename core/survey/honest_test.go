package survey

import (
	"cmp"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distmv"

	"kindmargin/core/frame"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// house draws openings that do not come from this package's prior: sides that
// lean by normal chance and belly in one of four forms.
type house struct {
	name  string
	lean  float64 // mm per m, standard deviation, of every side
	jamb  float64 // mm, a jamb's belly: evenly up to a third more than this, either way
	head  float64 // mm, of head and floor
	walls func(width, height float64) Prior
}

var houses = []house{
	{"square new frames", 0.3, 0.3, 0.2, NewFrame},
	{"old openings", 4, 2, 1, OldOpening},
	{"half again as crooked", 6, 3.5, 1.8, OldOpening},
}

func (h house) draw(rng *rand.Rand) truth {
	side := func(mean, reach, belly float64) func(float64) float64 {
		lean := rng.NormFloat64() * h.lean / 1000
		by := belly * (2*rng.Float64() - 1) * 4 / 3
		form, top := rng.IntN(4), 0.3+0.4*rng.Float64()
		return func(s float64) float64 {
			f := s / reach
			bow := 0.0
			switch form {
			case 0: // an arch
				bow = math.Sin(math.Pi * f)
			case 1: // a kink
				bow = min(f/top, (1-f)/(1-top))
			case 2: // one way below, the other above
				bow = 0.7 * math.Sin(2*math.Pi*f)
			case 3: // a flat belly high or low
				bow = math.Exp(-0.5 * math.Pow((f-top)/0.22, 2))
			}
			return mean + lean*s + by*bow
		}
	}
	pin := func(f func(float64) float64) func(float64) float64 {
		at0 := f(0)
		return func(s float64) float64 { return f(s) - at0 }
	}
	return truth{
		h: pin(side(0, 2030, h.jamb)), f: pin(side(0, 826, h.head)),
		l: side(826+rng.NormFloat64()*5, 2030, h.jamb), t: side(2030+rng.NormFloat64()*5, 826, h.head),
	}
}

// edgesOf are figures of each edge as a slab hung on the hinge jamb sees it.
func edgesOf(h, w float64) (rows []Row, side []frame.Side) {
	top, bottom := h-190, 262.0
	pins := func(v float64) Row {
		f := (v - bottom) / (top - bottom)
		return Row{{Of(frame.Hinge), bottom, f - 1}, {Of(frame.Hinge), top, -f}}
	}
	for i := range 7 {
		v := h * float64(i) / 6
		rows, side = append(rows, append(pins(v), Term{Of(frame.Lock), v, 1})), append(side, frame.Lock)
		rows, side = append(rows, append(pins(v), Term{Of(frame.Hinge), v, 1})), append(side, frame.Hinge)
	}
	for i := range 5 {
		u := w * float64(i) / 4
		turn := u / (top - bottom)
		rows, side = append(rows, Row{{Of(frame.Head), u, 1}, {Of(frame.Head), 0, -1}, {Of(frame.Hinge), top, turn}, {Of(frame.Hinge), bottom, -turn}}), append(side, frame.Head)
		rows, side = append(rows, Row{{Of(frame.Head), 0, 1}, {Of(frame.Foot), u, -1}, {Of(frame.Hinge), top, -turn}, {Of(frame.Hinge), bottom, turn}}), append(side, frame.Foot)
	}
	return rows, side
}

// full is a survey with the redundancy that catches a slip.
var full = append(append([]Reading{}, fullTape...), []Reading{
	{Kind: Straight, Side: frame.Hinge, At: mm(1000), From: mm(200), To: mm(1800)},
	{Kind: Straight, Side: frame.Lock, At: mm(1000), From: mm(200), To: mm(1800)},
	{Kind: Square, Side: frame.Lock, At: mm(600)},
}...)

var tapes = []float64{0.1, 0.5, 1, 25.4 / 64, 25.4 / 32, 25.4 / 16}

// survey reads a house as a person with a tape of that step would, with a tool of
// each kind that is as wrong as such tools are.
func (o truth) survey(what []Reading, tape float64, rng *rand.Rand) []Reading {
	rs := make([]Reading, len(what))
	bias := map[string]float64{}
	for _, i := range trade.Instruments {
		bias[i.ID] = rng.NormFloat64() * i.Bias
	}
	for i, r := range what {
		r = o.read(r, Offer{})
		r.ID = fmt.Sprint(i)
		hand, _ := Kit(nil).with(r)
		r.Value = (r.Value + mm(rng.NormFloat64()*Kit(nil).Sigma(r)+bias[hand.instrument]*hand.lever(r))).Round(mm(tape), measure.Nearest)
		rs[i] = r
	}
	return rs
}

// Two standard deviations hold the truth 93 to 98 times in a hundred over all
// edges, and on no edge less than 90 times, in square, in old and in crooked
// houses that this package's prior does not draw, on each tape and by each
// survey; sound readings are accused in under 2 surveys of 100, in crooked
// houses under 3. (In a frame that is truer than the readings, ± is wider than
// it need be: a width read to 0.8 mm of a frame true to 0.3 is held to 99.)
func TestSurenessIsHonest(t *testing.T) {
	rows, sides := edgesOf(2030, 826)
	surveys := map[string][]Reading{
		"full": full, "no straightedge": fullTape,
		"tape and square": {
			{Kind: Width, At: mm(200)},
			{Kind: Width, At: mm(1000)},
			{Kind: Width, At: mm(1800)},
			{Kind: Height, At: mm(50)},
			{Kind: Height, At: mm(770)},
			{Kind: Square, Side: frame.Hinge, At: mm(600)},
		},
	}
	for _, h := range houses {
		for name, what := range surveys {
			var in, all frame.Each[int]
			alarms, surveyed := 0, 0
			for _, tape := range tapes {
				rng := rand.New(rand.NewPCG(5, 3))
				for range 150 {
					o := h.draw(rng)
					p := h.walls(826, 2030)
					p.Tape = tape
					s, err := Learn(o.survey(what, tape, rng), nil, p)
					require.NoError(t, err)
					mean, cov := s.Joint(rows)
					for i, row := range rows {
						m, sd := mean[i], math.Sqrt(max(cov.At(i, i), 0))
						if sd < 0.02 { // where the pins hold the slab to the jamb itself
							continue
						}
						var want float64
						for _, c := range row {
							want += c.By * o.side(frame.Side(c.Of), c.At)
						}
						all[sides[i]]++
						if math.Abs(want-m) <= 2*sd {
							in[sides[i]]++
						}
					}
					surveyed++
					if len(s.Suspects()) > 0 {
						alarms++
					}
				}
			}
			total, held, says := 0, 0, ""
			for _, side := range frame.Sides {
				share := float64(in[side]) / float64(all[side])
				says += fmt.Sprintf(" %v %.3f", side, share)
				total, held = total+all[side], held+in[side]
				assert.GreaterOrEqual(t, share, 0.90, "%s, %s: %v", h.name, name, side)
			}
			share, accused := float64(held)/float64(total), float64(alarms)/float64(surveyed)
			t.Logf("%-22s %-16s inside ±2σ %.3f (%s), sound readings accused %.3f", h.name, name, share, says[1:], accused)
			assert.GreaterOrEqual(t, share, 0.93, "%s, %s", h.name, name)
			if h.jamb >= 2 && name != "tape and square" {
				assert.LessOrEqual(t, share, 0.985, "%s, %s", h.name, name)
			}
			most := 0.02
			if h.jamb > 3 {
				most = 0.03
			}
			assert.Less(t, accused, most, "%s, %s", h.name, name)
		}
	}
}

// A slip large enough to be told (five and a half times as large as the other
// readings foretell that one to) is found, and the right reading, or a group
// with it, is named, in 95 of 100 surveys.
func TestSlipsAreFoundAndTheRightReadingNamed(t *testing.T) {
	slips := map[string]func(rs []Reading, i, j int) (by float64){
		"10 mm":  func(rs []Reading, i, _ int) float64 { rs[i].Value += mm(10); return 10 },
		"1 in":   func(rs []Reading, i, _ int) float64 { rs[i].Value -= mm(25.4); return 25.4 },
		"100 mm": func(rs []Reading, i, _ int) float64 { rs[i].Value += mm(100); return 100 },
		"sign": func(rs []Reading, i, _ int) float64 {
			if k := rs[i].Kind; k == Width || k == Height {
				return 0
			}
			v := rs[i].Value
			rs[i].Value = -v
			return 2 * v.Abs().MM()
		},
		"swapped": func(rs []Reading, i, j int) float64 {
			if rs[i].Kind != rs[j].Kind || rs[i].Side.Upright() != rs[j].Side.Upright() {
				return 0
			}
			rs[i].Value, rs[j].Value = rs[j].Value, rs[i].Value
			return (rs[i].Value - rs[j].Value).Abs().MM()
		},
	}
	for _, h := range houses {
		for name, slip := range slips {
			rng := rand.New(rand.NewPCG(9, 4))
			told, found, named, group, said := 0, 0, 0, 0, 0
			for trial := 0; told < 150 && trial < 6000; trial++ {
				o := h.draw(rng)
				p := h.walls(826, 2030)
				p.Tape = tapes[trial%len(tapes)]
				rs := o.survey(full, p.Tape, rng)
				sound, err := Learn(rs, nil, p)
				require.NoError(t, err)
				i, j := rng.IntN(len(rs)), rng.IntN(len(rs))
				foretold := sound.foretells(t, i, i)
				if name == "swapped" { // neither of the two helps to foretell the other
					foretold = max(sound.foretells(t, i, j), sound.foretells(t, j, i))
				}
				if i == j || len(sound.Suspects()) > 0 {
					continue
				}
				if by := slip(rs, i, j); by < 5.5*foretold || rs[i].Check(measure.Millimetres) != nil {
					continue // it cannot be told, or is refused outright
				}
				told++
				s, err := Learn(rs, nil, p)
				require.NoError(t, err)
				list := s.Suspects()
				if len(list) == 0 {
					continue
				}
				found++
				x := list[0]
				wrong := func(r Reading) bool { return r.ID == rs[i].ID || name == "swapped" && r.ID == rs[j].ID }
				right := wrong(x.Reading) || slices.ContainsFunc(x.Or, wrong)
				if x.Swapped != nil {
					right = right || wrong(*x.Swapped)
					said++
				} else if x.Slip() != "" {
					said++
				}
				if right {
					named++
				}
				group += len(x.Or)
			}
			if told < 20 {
				continue // in a square frame a sign or a swap changes nothing
			}
			t.Logf("%-22s %-8s told %d: found %.3f, named %.3f, others in the group %.2f, slip said %.2f", h.name, name, told,
				float64(found)/float64(told), float64(named)/float64(told), float64(group)/float64(told), float64(said)/float64(told))
			assert.GreaterOrEqual(t, float64(named)/float64(told), 0.95, "%s, %s", h.name, name)
		}
	}
}

// foretells is how well the readings but i and j foretell reading i, mm, worked
// out anew from a survey without them.
func (s *Shape) foretells(t *testing.T, i, j int) float64 {
	var rest []Reading
	for k, r := range s.given {
		if k != i && k != j {
			rest = append(rest, r)
		}
	}
	without, err := Estimate(rest, nil, s.prior)
	require.NoError(t, err)
	_, sd := without.Of(s.rows[i])
	return math.Hypot(sd, math.Sqrt(s.noise[i]))
}

// The levels learnt, against plain summing over them of the densities that
// gonum's distmv gives the readings, with their covariance written out here.
func TestCrookednessAgainstPlainIntegration(t *testing.T) {
	rng := rand.New(rand.NewPCG(2, 8))
	for _, h := range houses {
		o := h.draw(rng)
		p := OldOpening(826, 2030)
		var rs []Reading // jambs alone
		for _, r := range full {
			if r.Kind == Width || r.Kind == Plumb || r.Kind == Straight {
				rs = append(rs, r)
			}
		}
		s, err := Estimate(o.survey(rs, 0.5, rng), nil, p)
		require.NoError(t, err)
		n := len(s.given)
		var sum, lean, bow float64
		type weighed struct{ l, b, log float64 }
		var all []weighed
		for i, l := range levels {
			for j, b := range levels {
				cov := mat.NewSymDense(n+1, nil)
				y, mu := make([]float64, n+1), make([]float64, n+1)
				for a := range n + 1 {
					for c := a; c <= n; c++ {
						v := 0.0
						for _, x := range s.rows[a] {
							for _, z := range s.rows[c] {
								if _, ok := x.Of.Side(); x.Of == z.Of && !ok { // the tape's hook, and so on
									_, spread := p.biasFor(x.Of)
									v += x.By * z.By * spread * spread
								} else if x.Of == z.Of {
									d := (x.At - z.At) / 700
									v += x.By * z.By * (2500 + 0.004*0.004*l*l*x.At*z.At + 1.5*1.5*b*b*math.Exp(-d*d/2))
								}
							}
						}
						if a == c && a < n {
							v += Kit(nil).Sigma(s.given[a]) * Kit(nil).Sigma(s.given[a])
						}
						cov.SetSym(a, c, v)
					}
					if a < n {
						y[a] = s.given[a].Value.MM()
						if s.given[a].Kind == Width {
							mu[a] = 826
						}
					}
				}
				normal, ok := distmv.NewNormal(mu, cov, nil)
				require.True(t, ok)
				all = append(all, weighed{l, b, math.Log(believe[i]*believe[j]) + normal.LogProb(y)})
			}
		}
		top := slices.MaxFunc(all, func(a, b weighed) int { return cmp.Compare(a.log, b.log) }).log
		for _, w := range all {
			f := math.Exp(w.log - top)
			sum, lean, bow = sum+f, lean+f*w.l*w.l, bow+f*w.b*w.b
		}
		got := s.learn(nil)
		assert.InDelta(t, 0.004*math.Sqrt(lean/sum), got.Lean, 1e-6, h.name)
		assert.InDelta(t, 1.5*math.Sqrt(bow/sum), got.JambBow, 1e-4, h.name)
	}
}

// Several readings that close one loop explain a clash equally well: they are
// named together, with the reading that would split them.
func TestALoopThatDoesNotCloseIsAGroupWithTheReadingThatSplitsIt(t *testing.T) {
	rs := []Reading{
		{ID: "w1", Kind: Width, At: mm(200), Value: mm(826)},
		{ID: "w2", Kind: Width, At: mm(1800), Value: mm(826)},
		{ID: "h1", Kind: Height, At: mm(50), Value: mm(2030)},
		{ID: "h2", Kind: Height, At: mm(770), Value: mm(2030)},
		{ID: "head", Kind: Level, Side: frame.Head, At: mm(770), From: mm(50), Value: mm(9)}, // the sign slipped: the floor falls as much
		{ID: "floor", Kind: Level, Side: frame.Foot, At: mm(770), From: mm(50), Value: mm(-9)},
	}
	s, err := Learn(rs, nil, OldOpening(826, 2030))
	require.NoError(t, err)
	list := s.Suspects()
	require.NotEmpty(t, list)
	x := list[0]
	ids := []string{x.Reading.ID}
	for _, r := range x.Or {
		ids = append(ids, r.ID)
	}
	best, ok := s.Split(x, Candidates(mm(826), mm(2030), measure.Millimetres))
	require.True(t, ok)
	// Head and floor parallel, as two of the four have it, a middle height is 2030;
	// with the first height wrong 9 mm more, with the second 9 less: it parts five
	// pairs of the six, and a level read again only three.
	assert.ElementsMatch(t, []string{"head", "floor", "h1", "h2"}, ids)
	assert.Equal(t, Reading{Kind: Height, At: best.At}, best, "a new height")
	assert.InDelta(t, 410, best.At.MM(), 260, "somewhere between the two")
}

func TestTwoValuesWrittenTheWrongWayRound(t *testing.T) {
	o := houses[2].draw(rand.New(rand.NewPCG(1, 4)))
	rs := o.survey(full, 0.5, rand.New(rand.NewPCG(3, 3)))
	i, j := -1, -1 // two widths that differ enough
	for a := range rs {
		for b := range a {
			if rs[a].Kind == Width && rs[b].Kind == Width && (rs[a].Value-rs[b].Value).Abs() > mm(6) {
				i, j = a, b
			}
		}
	}
	require.GreaterOrEqual(t, i, 0, "this house has a width that differs")
	rs[i].Value, rs[j].Value = rs[j].Value, rs[i].Value
	s, err := Learn(rs, nil, OldOpening(826, 2030))
	require.NoError(t, err)
	list := s.Suspects()
	require.NotEmpty(t, list)
	require.NotNil(t, list[0].Swapped)
	assert.ElementsMatch(t, []string{rs[i].ID, rs[j].ID}, []string{list[0].Reading.ID, list[0].Swapped.ID})
}

// No survey that the checks let through takes long: a thousand readings, three
// hundred of them slips.
func TestAThousandReadingsWithThreeHundredSlips(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 9))
	o := houses[1].draw(rng)
	var what []Reading
	for i := range 1000 {
		what = append(what, Reading{Kind: Width, At: mm(float64(20 + 2*i))})
	}
	rs := o.survey(what, 0.5, rng)
	learn := func() (list []Suspect, took time.Duration) {
		took = time.Hour
		for range 3 { // the least of three, so that a busy machine does not count
			start := time.Now()
			s, err := Learn(rs, nil, OldOpening(826, 2030))
			require.NoError(t, err)
			list = s.Suspects()
			took = min(took, time.Since(start))
		}
		return list, took
	}
	_, sound := learn()
	for i := range 300 {
		rs[3*i].Value += mm(float64(30 + i%50))
	}
	list, slips := learn()
	assert.Len(t, list, mostSuspects, "the first hundred are named")
	for _, x := range list {
		var i int
		_, err := fmt.Sscan(x.Reading.ID, &i)
		require.NoError(t, err)
		assert.True(t, i%3 == 0 && i < 900 || x.Swapped != nil, "%s is sound", x.Reading.ID)
	}
	t.Log(sound, slips)
	assert.Less(t, slips, 30*sound, "hundreds of estimates when each suspect costs one")
}
