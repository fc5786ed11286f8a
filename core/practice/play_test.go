package practice

import (
	"encoding/json"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/simulate"
	"kindmargin/core/survey"
	"kindmargin/thorough"
	"kindmargin/words"
)

var british = words.In(job.British, measure.Millimetres, measure.HalfMillimetre)

func exercise(t *testing.T, seed uint64, level string) Exercise {
	t.Helper()
	e, err := New(seed, level)
	require.NoError(t, err)
	return e
}

// advised plays an exercise as the plan would have it: it reads what is asked for until no more is, reads
// again what clashes, takes the right slab, cuts by the sheet and does the plan's first way until it fits.
func advised(t *testing.T, e Exercise) (State, []Move) {
	t.Helper()
	var moves []Move
	s := begin(e)
	play := func(m Move) State {
		require.NoError(t, s.step(len(moves), m))
		moves = append(moves, m)
		return s
	}
	play(Move{Do: DoMargins, School: "painted"})
	best, _ := s.rightSlab()
	require.GreaterOrEqual(t, best, 0)
	play(Move{Do: DoSlab, Slab: best})
	play(Move{Do: DoEdge, Edge: "keep-lock"})
	for range 60 {
		p := plan.Solve(s.job, s.opening)
		switch {
		case len(p.Clashes) > 0:
			again := p.Clashes[0].Again
			play(Move{Do: DoRead, Reading: &again})
			continue
		case len(p.ToRead) == 0:
		default:
			r := p.ToRead[0].Reading
			play(Move{Do: DoRead, Reading: &r})
			continue
		}
		break
	}
	play(Move{Do: DoCut, Plan: true})
	for range 8 {
		if s.step(len(moves), Move{Do: DoAdjust, Plan: true}) != nil {
			break
		}
		moves = append(moves, Move{Do: DoAdjust, Plan: true})
	}
	return s, moves
}

// A learner who takes the plan's advice scores no worse than simulate says, with a tape, a level and a square as they
// come: as many fit at the first hang and in the end, with as few trips. The simulation's hands slip, and half of its
// openings are of forms that no exercise has.
func TestThePlansAdviceScoresAsTheSimulationSays(t *testing.T) {
	tries, drawn := thorough.Count(10, 30), thorough.Count(16, 50)
	want, err := simulate.Run(drawn, 5, "plain")
	require.NoError(t, err)
	first, fits, trips, small := 0.0, 0.0, 0.0, 0
	for seed := range uint64(tries) {
		e := exercise(t, seed, "usual")
		e.Level = "even" // no slips
		s, _ := advised(t, e)
		if s.hidden.Fits(s.first) {
			first++
		}
		if s.hidden.Fits(s.hung) {
			fits++
		}
		trips += float64(s.Trips)
		small += len(s.hidden.Small(s.hung))
	}
	n, m := float64(tries), float64(drawn)
	apart := func(p float64) float64 { return 3 * math.Sqrt(p*(1-p)*(1/n+1/m)) }
	t.Logf(
		"first hang %.2f, simulated %.2f; in the end %.2f, %.2f; trips %.2f, %.2f; too small %d", first/n,
		want.Ways[0].Fits, fits/n, want.Ways[0].Finished, trips/n, want.Ways[0].TripsMean, small,
	)
	// Three binomial deviations between two shares: of about one in eight, of nine in ten, and of trips of 0.6 each
	// way.
	assert.GreaterOrEqual(t, first/n, want.Ways[0].Fits-apart(0.125))
	assert.LessOrEqual(t, trips/n, want.Ways[0].TripsMean+3*0.58*math.Sqrt(1/n+1/m))
	assert.GreaterOrEqual(t, fits/n, want.Ways[0].Finished-apart(0.6))
	assert.LessOrEqual(t, small, 2)
}

// The same exercise and the same moves give the same, whatever hand plays them; and grading is by the true
// opening, which readings come near to.
func TestTheSameMovesGiveTheSame(t *testing.T) {
	e := exercise(t, 7, "usual")
	s, moves := advised(t, e)
	require.NoError(t, s.step(len(moves), Move{Do: DoDone}))
	e.Moves = append(moves, Move{Do: DoDone})
	back, err := Read(e.Write())
	require.NoError(t, err)
	again, err := Play(back, back.Moves)
	require.NoError(t, err)
	assert.Equal(t, s.Grade, again.Grade)
	assert.Equal(t, s.Readings, again.Readings)
	truth := e.Sides["lock"]
	for _, r := range s.Readings {
		if r.Kind == survey.Width && r.Slip == "" {
			assert.InDelta(t, truth[14], r.Value.MM(), 15, "near the opening's own width")
		}
	}
}

// Played badly, the grade says why: one width, a slab that is too big, the bored edge, other margins, and
// cut to the widest reading by rule of thumb.
func TestABadGameSaysWhy(t *testing.T) {
	e := exercise(t, 3, "crooked")
	for seed := uint64(3); !e.Bored; seed++ {
		e = exercise(t, seed, "crooked")
	}
	cut := Sizes{Head: 805 * mm, Foot: 805 * mm, Length: 2000 * mm}
	s, err := Play(e, []Move{
		{Do: DoRead, Reading: &survey.Reading{Kind: survey.Width, At: 1000 * mm}},
		{Do: DoMargins, School: "prefinished"},
		{Do: DoSlab, Slab: 5},
		{Do: DoEdge, Edge: "keep-hinge"},
		{Do: DoCut, Cut: &cut},
		{Do: DoDone},
	})
	require.NoError(t, err)
	g := s.Grade
	assert.False(t, g.Fits)
	assert.NotEmpty(t, g.Small)
	assert.Equal(t, 1, g.Readings)
	assert.GreaterOrEqual(t, g.Minutes, 60.0, "another slab")
	var said []string
	for _, x := range g.Said {
		said = append(said, british.Say(x.Text))
	}
	for _, m := range g.Unchecked {
		said = append(said, british.Say(m))
	}
	all := strings.Join(said, "\n")
	for _, says := range []string{
		"over a millimetre. Wood does not go back on",
		"the width at three places or more, since jambs belly: it was at 1", "floor to head beside both jambs",
		"the lock jamb, for plumb or straight",
		"The slab is still to be painted", "914 × 2083 mm was more than it took",
		"what comes off there shrinks the backset",
	} {
		assert.Contains(t, all, says)
	}
	assert.False(t, g.Plan.Answers)
	assert.Contains(t, british.Say(g.Plan.Why[len(g.Plan.Why)-1]), "It would read next: the floor to head")
	assert.Greater(t, g.Waste, g.Least)
}

// A slip is told once all is done, and whether it was read again.
func TestSlipsAreTold(t *testing.T) {
	found := false
	for seed := uint64(1); seed < 40 && !found; seed++ {
		e := exercise(t, seed, "crooked")
		var moves []Move
		for _, at := range []measure.Length{200, 600, 1000, 1400, 1800} {
			moves = append(moves, Move{Do: DoRead, Reading: &survey.Reading{Kind: survey.Width, At: at * mm}})
		}
		s, err := Play(e, moves)
		require.NoError(t, err)
		for i, r := range s.Readings {
			if r.Slip == "" {
				continue
			}
			found = true
			end := []Move{
				{Do: DoMargins, School: "painted"},
				{Do: DoSlab, Slab: 4},
				{Do: DoEdge, Edge: "keep-lock"},
				{Do: DoCut, Cut: &Sizes{Head: 820 * mm, Foot: 820 * mm, Length: 2021 * mm}},
				{Do: DoDone},
			}
			done, err := Play(e, append(moves, end...))
			require.NoError(t, err)
			b, _ := json.Marshal(done.Grade.Said)
			assert.Contains(t, string(b), "grade.slip-left")
			assert.Equal(t, "learn.slip", string(done.Grade.Learn.ID))
			done, err = Play(e, append(
				append(moves, Move{Do: DoRead, Reading: &survey.Reading{Kind: survey.Width, At: moves[i].Reading.At}}),
				end...,
			))
			require.NoError(t, err)
			require.Len(t, done.Readings, 6)
			b, _ = json.Marshal(done.Grade.Said)
			assert.Equal(t, done.Readings[5].Slip == "", strings.Contains(string(b), "grade.slip-found"))
		}
	}
	assert.True(t, found)
}

// What cannot be done is named, with what would work.
func TestMovesThatCannotBe(t *testing.T) {
	e := exercise(t, 1, "even")
	cut := func(head, foot, length measure.Length) Move {
		return Move{Do: DoCut, Cut: &Sizes{Head: head, Foot: foot, Length: length}}
	}
	ready := []Move{{Do: DoMargins, School: "painted"}, {Do: DoSlab, Slab: 3}, {Do: DoEdge, Edge: "keep-lock"}}
	hung := append(ready[:3:3], cut(820*mm, 820*mm, 2020*mm))
	for _, c := range []struct {
		before []Move
		move   Move
		says   string
	}{
		{nil, Move{Do: "fly"}, "There is no move “fly”"},
		{nil, Move{Do: DoRead}, "Say what is read"},
		{nil, Move{Do: DoRead, Reading: &survey.Reading{Kind: survey.Gap}}, "There is no “gap” to read here"},
		{nil, Move{Do: DoRead, Reading: &survey.Reading{Kind: survey.Width, At: 2500 * mm}}, "outside the opening"},
		{nil, Move{Do: DoMargins, School: "loose"}, "There is no set of margins"},
		{nil, Move{Do: DoSlab, Slab: 9}, "no slab 9: 0 to 5"},
		{nil, Move{Do: DoEdge, Edge: "all"}, "the hinge edge, the lock edge or both"},
		{nil, cut(820*mm, 820*mm, 2020*mm), "Choose a slab first"},
		{ready[1:2], cut(820*mm, 820*mm, 2020*mm), "Set the margins first"},
		{
			ready, cut(850*mm, 820*mm, 2020*mm),
			"A width at the top of 850 mm cannot be cut from a slab of 838 mm. Wood does not go back on.",
		},
		{ready, Move{Do: DoCut, Plan: true}, "The plan has no answer yet"},
		{ready, Move{Do: DoDone}, "Nothing hangs yet"},
		{ready, Move{Do: DoAdjust, Plan: true}, "Nothing hangs yet"},
		{hung, Move{Do: DoSlab, Slab: 1}, "The slab is cut already"},
		{hung, Move{Do: DoRead, Reading: &survey.Reading{Kind: survey.Width, At: 1000 * mm}}, "A slab hangs there"},
		{hung, Move{Do: DoAdjust, Adjust: &job.Did{Pack: []measure.Length{9 * mm}}}, "packed out by at most 5 mm"},
		{
			hung,
			Move{Do: DoAdjust, Adjust: &job.Did{Planed: []job.Planed{{Side: frame.Lock, Off: [3]measure.Length{-mm}}}}},
			"Wood does not go back on",
		},
		{append(hung[:4:4], Move{Do: DoDone}), Move{Do: DoDone}, "It is done. Begin another"},
	} {
		_, err := Play(e, append(c.before[:len(c.before):len(c.before)], c.move))
		m, ok := message.Of(err)
		require.True(t, ok)
		assert.Contains(t, british.Say(m), c.says)
	}
}

// An exercise that was altered, or is of a newer version, is named.
// A file that another program has read and written again, in its own order, is the same exercise.
func TestAFileThatWasRewritten(t *testing.T) {
	for _, seed := range []uint64{7, mostSeed} {
		e, err := New(seed, "usual")
		require.NoError(t, err)
		var any map[string]any // numbers as float64, as JavaScript has them
		require.NoError(t, json.Unmarshal(e.Write(), &any))
		b, err := json.Marshal(any)
		require.NoError(t, err)
		again, err := Read(b)
		require.NoError(t, err)
		assert.Equal(t, e.Sides, again.Sides)
		assert.Equal(t, seed, again.Seed)
	}
	_, err := New(mostSeed+1, "usual")
	assert.ErrorContains(t, err, "refused.seed")
}

func TestFilesThatCannotBe(t *testing.T) {
	e := exercise(t, 11, "usual")
	file := string(e.Write())
	_, err := Read([]byte(file))
	require.NoError(t, err)
	same, err := New(11, "usual")
	require.NoError(t, err)
	assert.Equal(t, e, same, "a seed gives the same")
	for says, b := range map[string]string{
		"refused.exercise-newer most=3 version=4": strings.Replace(file, `"version": 2`, `"version": 4`, 1),
		"refused.exercise-altered":                strings.Replace(file, `"level": "usual"`, `"level": "even"`, 1),
		"exercise-altered":                        strings.Replace(file, `"bored"`, `"boring"`, 1),
		"refused.exercise-format":                 `{"format": "kindmargin job"}`,
		"exercise-format":                         "nothing",
	} {
		_, err := Read([]byte(b))
		assert.ErrorContains(t, err, says)
	}
	_, err = New(1, "hellish")
	assert.ErrorContains(t, err, "refused.no-level")
}

// An attempt of the first version is hung as it was then: its slab is as wide as it was cut. Since the second
// what the tape reads too much is missing.
func TestAnOldAttemptIsHungAsItWas(t *testing.T) {
	wide := func(version int) float64 {
		e := exercise(t, 3, "crooked")
		e.Version, e.Biases["tape"] = version, 0.75
		cut := Sizes{Head: 805 * mm, Foot: 805 * mm, Length: 2000 * mm}
		s, err := Play(e, []Move{
			{Do: DoRead, Reading: &survey.Reading{Kind: survey.Width, At: 1000 * mm}},
			{Do: DoMargins, School: "prefinished"},
			{Do: DoSlab, Slab: 5},
			{Do: DoEdge, Edge: "keep-hinge"},
			{Do: DoCut, Cut: &cut},
		})
		require.NoError(t, err)
		top, _, _ := s.hung.Size()
		return top
	}
	assert.InDelta(t, 0.75, wide(1)-wide(2), 1e-9)
}

// Two readings of a place that lie far apart: the first is struck, as the plan leaves it out; two that agree both count.
func TestAReadingThatWasReadAgainIsStruck(t *testing.T) {
	for seed := range uint64(300) {
		e, err := New(seed, Levels[len(Levels)-1].ID)
		require.NoError(t, err)
		r := survey.Reading{Kind: survey.Width, At: 1000 * mm}
		s, err := Play(e, []Move{{Do: DoRead, Reading: &r}, {Do: DoRead, Reading: &r}})
		require.NoError(t, err)
		apart := (s.Readings[0].Value - s.Readings[1].Value).Abs() > 5*mm
		assert.Equal(t, apart, s.Readings[0].Struck)
		assert.False(t, s.Readings[1].Struck)
		if apart {
			return
		}
	}
	require.Fail(t, "no seed misreads")
}
