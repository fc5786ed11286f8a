package measure

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestParseWhatPeopleWrite(t *testing.T) {
	// Wanted values worked out by hand in micrometres.
	cases := []struct {
		text string
		unit Unit
		um   int64
	}{
		{"778", Millimetres, 778_000},
		{"777.5mm", Inches, 777_500},
		{"77.8 cm", Inches, 778_000},
		{"0.778 m", Inches, 778_000},
		{"777,5", Millimetres, 777_500},
		{",5", Millimetres, 500},
		{"30 5/8", Inches, 777_875},
		{`30-5/8"`, Millimetres, 777_875},
		{"30 5/8 in", Millimetres, 777_875},
		{"30 5/8 in.", Millimetres, 777_875},
		{`2' 6 5/8"`, Millimetres, 777_875},
		{"2' 6 5/8", Millimetres, 777_875},
		{"2ft 6 5/8in", NoUnit, 777_875},
		{`2'-6 5/8"`, NoUnit, 777_875},
		{"3/4", Inches, 19_050},
		{"-1/16", Inches, -1_587},
		{"2ft", NoUnit, 609_600},
		{"6' 8\"", NoUnit, 2_032_000},
		{"30⅝", Inches, 777_875},
		{"30.625", Inches, 777_875},
		{"30 ⅝″", Millimetres, 777_875},
		{" 826 ", Millimetres, 826_000},
		{"1 3/16", Millimetres, 1_187}, // a bare fraction takes the job's unit
		{"0", Millimetres, 0},
		{"+3", Millimetres, 3_000},
		{"−2", Millimetres, -2_000},
	}
	for _, c := range cases {
		got, err := Parse(c.text, c.unit)
		if assert.NoError(t, err, c.text) {
			assert.Equal(t, c.um, int64(got/Micrometre), c.text)
		}
	}
}

func TestParseSaysWhatIsWrong(t *testing.T) {
	cases := []struct{ text, says string }{
		{"", "unread.empty"},
		{"wide", "unread.no-number"},
		{"8e2", "unread.word"},
		{"778 30", "unread.two-lengths"},
		{"2' 778mm", "unread.two-lengths"},
		{"12mm 3", "unread.two-lengths"},
		{"1,234.5", "unread.two-points"},
		{"35.", "unread.point-at-end"},
		{"35 3/", "unread.nothing-under"},
		{"35 3/0", "unread.over-nought"},
		{"35 5/4", "unread.fraction-over-one"},
		{"30 5/8/2", "unread.two-lines"},
		{"1.5/2", "unread.point-in-fraction"},
		{"826 km", "unread.word"},
		{"9000000", "unread.far"},
		{"--3", "unread.no-number"},
		{"123456789012345678901234567890123456789012", "unread.long"},
	}
	for _, c := range cases {
		_, err := Parse(c.text, Millimetres)
		var pe *ParseError
		if assert.ErrorAs(t, err, &pe, c.text) {
			assert.Equal(t, c.text, pe.Text)
			assert.Contains(t, pe.Problem, c.says, c.text)
		}
	}
	_, err := Parse("778", NoUnit)
	assert.ErrorContains(t, err, "unread.no-unit")
}

func TestEverySixtyFourthRoundTrips(t *testing.T) {
	for n := Length(0); n <= 120*64; n++ {
		l := n * 396_875 // 1/64 in in nanometres
		back, err := Parse(Exact(l, Inches), Inches)
		require.NoError(t, err)
		require.Equal(t, l, back)
		jsonRoundTrip(t, l)
	}
}

func TestEveryHundredthOfAMillimetreRoundTrips(t *testing.T) {
	for n := Length(0); n <= 3000*100; n++ {
		l := n * 10 * Micrometre
		back, err := Parse(Exact(l, Millimetres), Millimetres)
		require.NoError(t, err)
		require.Equal(t, l, back)
	}
}

func jsonRoundTrip(t require.TestingT, l Length) {
	b, err := json.Marshal(l)
	require.NoError(t, err)
	var back Length
	require.NoError(t, json.Unmarshal(b, &back))
	require.Equal(t, l, back)
}

func TestAnyLengthRoundTrips(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := Length(rapid.Int64Range(-int64(Longest), int64(Longest)).Draw(t, "nm"))
		back, err := Parse(l.String(), NoUnit)
		require.NoError(t, err)
		require.Equal(t, l, back)
		jsonRoundTrip(t, l)
	})
}

func TestRoundIsWithinAStepAndOnTheRightSide(t *testing.T) {
	every := append(Tapes(Millimetres), Tapes(Inches)...)
	rapid.Check(t, func(t *rapid.T) {
		l := Length(rapid.Int64Range(-int64(Metre), int64(Metre)).Draw(t, "nm"))
		step := rapid.SampledFrom(every).Draw(t, "tape").Step()
		down, up, near := l.Round(step, Down), l.Round(step, Up), l.Round(step, Nearest)
		require.Zero(t, down%step)
		require.Zero(t, up%step)
		require.LessOrEqual(t, down, l)
		require.GreaterOrEqual(t, up, l)
		require.Less(t, l-down, step)
		require.Less(t, up-l, step)
		require.LessOrEqual(t, 2*(near-l).Abs(), step)
	})
}

func TestShow(t *testing.T) {
	cases := []struct {
		tape Tape
		mm   float64
		want string
	}{
		{HalfMillimetre, 168.5, "168.5"},
		{HalfMillimetre, 168.24, "168"},
		{WholeMillimetre, 168.5, "169"},
		{Sixteenths, 777.875, "30 5/8"},
		{ThirtySeconds, 3.175, "1/8"},
		{ThirtySeconds, -3.175, "-1/8"},
		{Sixteenths, 0.1, "0"},
		{Sixteenths, 25.3, "1"},
	}
	for _, c := range cases {
		assert.Equal(t, c.want, c.tape.Show(FromMM(c.mm)), "%v on %s", c.mm, c.tape)
	}
	assert.Equal(t, "777.3 mm", Exact(FromMM(777.3), Inches), "no 64th meets it")
}

func TestSayAndDecimal(t *testing.T) {
	assert.Equal(t, "11 13/16 in", Say(FromMM(300), Inches)) // 11.811
	assert.Equal(t, "300 mm", Say(FromMM(300), Millimetres))
	assert.Equal(t, "30.625", Decimal(FromMM(777.875), Inches))
	assert.Equal(t, "0.015625", Decimal(396_875, Inches))
	assert.Equal(t, "-0.001", Decimal(-25_400, Inches))
	assert.Equal(t, "-1.24", Decimal(FromMM(-1.24), Millimetres))
}

func TestJSON(t *testing.T) {
	var l Length
	require.NoError(t, json.Unmarshal([]byte(`"30 5/8 in"`), &l))
	assert.Equal(t, FromMM(777.875), l)
	assert.Error(t, json.Unmarshal([]byte(`"30 5/8"`), &l), "text in a file names its unit")
	assert.Error(t, json.Unmarshal([]byte(`1e300`), &l))
	assert.Error(t, json.Unmarshal([]byte(`true`), &l))
}

func TestEveryTapeHasItsLikeInTheOtherUnit(t *testing.T) {
	for _, u := range []Unit{Millimetres, Inches} {
		for _, tape := range Tapes(u) {
			assert.Equal(t, u, tape.Unit())
			for _, other := range []Unit{Millimetres, Inches} {
				assert.Contains(t, Tapes(other), tape.In(other))
				assert.Equal(t, tape, tape.In(other).In(u))
			}
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, s := range []string{"777.5mm", `2' 6 5/8"`, "30-5/8", "-1/16", "½", "1,5", "3 / 4 in."} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		l, err := Parse(s, Inches)
		if err != nil {
			var pe *ParseError
			require.ErrorAs(t, err, &pe)
			return
		}
		require.LessOrEqual(t, l.Abs(), Longest)
		back, err := Parse(l.String(), Millimetres)
		require.NoError(t, err)
		require.Equal(t, l, back)
	})
}

func BenchmarkParse(b *testing.B) {
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Parse(`2' 6 5/8"`, Inches); err != nil {
			b.Fatal(err)
		}
	}
}

// The marks of a tape are halves, quarters and so on by doubling, to 64ths: no other fraction is a reading.
func TestFractionsThatNoTapeHas(t *testing.T) {
	for _, s := range []string{"30 1/2", "30 3/4", "30 5/8", "30 15/16", "30 31/32", "30 63/64", "5/1", "3 / 04"} {
		_, err := Parse(s, Inches)
		assert.NoError(t, err, s)
	}
	for _, s := range []string{"30 5/7", "30 1/3", "1/10", "2' 6 5/12\"", "1/128", "1/0"} {
		_, err := Parse(s, Inches)
		assert.Error(t, err, s)
	}
}
