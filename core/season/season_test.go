package season

import (
	"errors"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

const mm = measure.Millimetre

// Equilibrium moisture contents of the Wood Handbook (FPL-GTR-190), table 4-2, from memory: °F down,
// relative humidity across, to the 0.1 % that the table is printed to and half as much again.
func TestMoistureAsTheHandbookHasIt(t *testing.T) {
	humidity := []float64{10, 20, 30, 40, 50, 60, 65, 70, 80, 90}
	for fahrenheit, row := range map[float64][]float64{
		30: {2.6, 4.6, 6.3, 7.9, 9.5, 11.3, 12.4, 13.5, 16.5, 21.0},
		50: {2.6, 4.6, 6.3, 7.9, 9.5, 11.2, 12.3, 13.4, 16.4, 20.9},
		70: {2.5, 4.5, 6.2, 7.7, 9.2, 11.0, 12.0, 13.1, 16.0, 20.5},
		90: {2.3, 4.3, 5.9, 7.4, 8.9, 10.5, 11.5, 12.6, 15.4, 19.8},
	} {
		for i, want := range row {
			air := Air{Celsius((fahrenheit - 32) / 1.8), Percent(humidity[i])}
			assert.InDelta(t, want, air.Moisture(), 0.15, "%v °F, %v %%", fahrenheit, humidity[i])
			assert.InDelta(t, humidity[i], float64(humidityFor(air.Moisture(), air.Celsius)), 1e-4, "and back")
		}
	}
}

// Coefficients as table 13-5 has them, from memory.
func TestWoodsAsTheHandbookHasThem(t *testing.T) {
	for id, want := range map[string][2]float64{
		"white-oak": {180, 365}, "red-oak": {158, 369}, "sugar-maple": {165, 353}, "black-walnut": {190, 274},
		"yellow-poplar": {158, 289},
		"douglas-fir":   {165, 267}, "white-pine": {71, 212}, "redcedar": {111, 234}, "ponderosa": {133, 216},
		"white-fir": {112, 245},
	} {
		w, ok := trade.WoodByID(id)
		require.True(t, ok, id)
		assert.InDelta(t, want[0], w.Radial*1e5, 1e-9, id)
		assert.InDelta(t, want[1], w.Tangential*1e5, 1e-9, id)
	}
}

func planked(width float64) slab.Slab {
	return slab.Slab{Width: measure.FromMM(width), Length: 2000 * mm, Thickness: 40 * mm, Construction: "planked"}
}

func year(t require.TestingT, s slab.Slab, c Choice) Year {
	y, ok := Of(s, c, 0)
	require.True(t, ok)
	return y
}

// The worked example of the Wood Handbook, chapter 13, from memory: a flat-sawn white fir board
// 232 mm wide goes from 8 to 11 % and is 1.705 mm wider.
func TestTheHandbooksWorkedExample(t *testing.T) {
	y := year(t, planked(232), Choice{Climate: "heated", Wood: "white-fir", Sawn: SawnFlat, Moisture: 8})
	assert.InDelta(t, 1.705, y.At(11), 0.001)
}

// Common practice: a solid 800 mm door takes up 4 mm between a dry summer and a heated winter.
func TestASolidDoorTakesUpFourMillimetres(t *testing.T) {
	summer, winter := Air{24, 45}, Air{20, 30}
	y := year(t, planked(800), Choice{Climate: "dry", Air: &winter})
	assert.InDelta(t, 4, y.At(summer.Moisture()), 0.8)
}

// What a revisit's air does is predicted by the school that predicted the year, jambs and all.
func TestTheSameSchoolForetellsARevisit(t *testing.T) {
	damp := Air{20, 60}
	thumb := year(t, planked(800), Choice{Climate: "heated", School: ByThumb, Air: &Air{20, 40}})
	assert.InDelta(t, 0.001*800*2, thumb.With(damp).Closes(), 1e-9)
	y, ok := Of(planked(800), Choice{Climate: "heated", Air: &Air{20, 40}}, 25*mm)
	require.True(t, ok)
	// 7.7 to 11.0 % (table 4-2, 70 °F): the slab, and two jambs of 25 mm.
	assert.InDelta(t, (800+2*25)*0.00216*3.3, y.With(damp).Closes(), 0.2)
}

// The rule of thumb: 0.1 % of the width for each 10 % of humidity. Common practice.
func TestTheRuleOfThumb(t *testing.T) {
	c, _ := trade.ClimateByID("heated")
	y := year(t, planked(800), Choice{Climate: "heated", School: ByThumb, Air: &Air{20, 30}})
	for i, m := range c.Months {
		assert.InDelta(t, 0.001*800*(m.Humidity-30)/10, y.Months[i].Slab, 1e-9)
	}
	// A meter tells the humidity that the slab lay in: 9.2 % at 70 °F is 50 % (table 4-2).
	by := year(t, planked(800), Choice{Climate: "heated", School: ByThumb, Moisture: 9.2, Month: 4})
	assert.InDelta(t, 0.001*800*(60-50)/10, by.In(7).Slab, 0.1)
}

// Sealed on six sides a slab makes six tenths of the way from what it holds through the year.
func TestASealedSlabMovesLess(t *testing.T) {
	open := year(t, planked(800), Choice{Climate: "coast", Moisture: 11})
	sealed := year(t, planked(800), Choice{Climate: "coast", Moisture: 11, Sealed: true})
	swing := func(y Year) float64 { return y.In(y.Wet).Slab - y.In(y.Dry).Slab }
	assert.InDelta(t, 0.6, swing(sealed)/swing(open), 1e-9)
	damp := Air{20, 70} // 13.1 % (table 4-2)
	assert.InDelta(t, 13.1, open.Comes(damp), 0.15)
	assert.InDelta(
		t, 0.6, (sealed.Comes(damp)-sealed.Comes(Air{20, 50}))/(open.Comes(damp)-open.Comes(Air{20, 50})), 1e-9,
	)
}

// What runs across the grain: planks whole, a framed slab's stiles, hardly anything else.
func TestWhatRunsAcross(t *testing.T) {
	c := Choice{Climate: "heated", Air: &Air{20, 40}}
	at := func(construction string, stile measure.Length, c Choice) float64 {
		s := planked(800)
		s.Construction, s.Stile = construction, stile
		return year(t, s, c).At(c.Air.Moisture() + 1)
	}
	assert.InDelta(t, 800*0.00216, at("planked", 0, c), 1e-9)
	assert.InDelta(t, 2*120*0.00216, at("solid", 120*mm, c), 1e-9)
	assert.InDelta(t, 2*110*0.00216, at("solid", 0, c), 1e-9, "a usual stile")
	assert.InDelta(t, 0.16, at("hollow", 30*mm, c), 1e-9)
	assert.InDelta(t, 0.08, at("engineered", 0, c), 1e-9)
	assert.Zero(t, at("steel", 0, c))
	framed := planked(800)
	framed.Construction = "solid"
	assert.Equal(t, "season.across-held", string(year(t, framed, c).Why().ID))
	assert.Equal(t, "season.across", string(year(t, planked(800), c).Why().ID))
	quarter := c
	quarter.Sawn, quarter.Wood = SawnQuarter, "white-oak"
	assert.InDelta(t, 800*0.00180, at("planked", 0, quarter), 1e-9)
	quarter.Across = 500 * mm
	assert.InDelta(t, 500*0.00180, at("planked", 0, quarter), 1e-9)
}

// Two materials: the slab has the yard's moisture in it, the jambs have the room's, and the wall
// does not move.
func TestJambsMoveByThemselves(t *testing.T) {
	c := Choice{Climate: "heated", Moisture: 14, Air: &Air{20, 50}}
	y, ok := Of(planked(800), c, 25*mm)
	require.True(t, ok)
	wet := y.In(y.Wet)
	assert.InDelta(t, 2*25*0.00216*(wet.Moisture-(Air{20, 50}).Moisture()), wet.Jambs, 1e-9)
	assert.InDelta(t, 800*0.00216*(wet.Moisture-14), wet.Slab, 1e-9)
	assert.Positive(t, wet.Jambs)
	assert.Negative(t, wet.Slab, "it dries for good")
}

// Whatever is chosen: in no month, nor today, is the least not kept, and where nothing has to be
// raised the margin wanted is half way between the narrowest and the widest.
func TestTheLeastIsKeptAllTheYear(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := planked(rapid.Float64Range(300, 1200).Draw(t, "width"))
		s.Construction = rapid.SampledFrom(trade.Movements).Draw(t, "construction").Construction
		c := Choice{
			Climate: rapid.SampledFrom(trade.Climates).Draw(t, "climate").ID,
			Wood:    rapid.SampledFrom(trade.Woods).Draw(t, "wood").ID,
			Sawn:    rapid.SampledFrom(Sawns).Draw(t, "sawn"),
			School:  rapid.SampledFrom(Schools).Draw(t, "school"),
			Sealed:  rapid.Bool().Draw(t, "sealed"),
			Month:   rapid.IntRange(0, 12).Draw(t, "month"),
		}
		if rapid.Bool().Draw(t, "meter") {
			c.Moisture = Percent(rapid.Float64Range(4, 25).Draw(t, "moisture"))
		}
		require.NoError(t, c.Check())
		wanted, least := rapid.Float64Range(2, 5).Draw(t, "wanted"), rapid.Float64Range(0.5, 2).Draw(t, "least")
		y := year(t, s, c)
		today, raised := y.Today(wanted, least, 0)
		narrowest, widest := today, today
		for i, m := range y.Months {
			light := today - m.Closes()
			assert.GreaterOrEqual(t, light, least-1e-9, "month %d", i+1)
			if i == 0 || light < narrowest {
				narrowest = light
			}
			if i == 0 || light > widest {
				widest = light
			}
		}
		assert.GreaterOrEqual(t, today, least-1e-9)
		if raised == 0 {
			assert.InDelta(t, wanted, (narrowest+widest)/2, 1e-9)
		}
	})
}

// A slab from a damp yard lies in the room: half way in LieDays, three quarters in twice that.
func TestItLiesInTheRoomFirst(t *testing.T) {
	s := planked(800)
	s.Thickness = 35 * mm
	room := Air{20, 45}
	lie := func(moisture float64) float64 {
		return year(t, s, Choice{Climate: "heated", Air: &room, Moisture: Percent(moisture)}).Lie(s)
	}
	assert.InDelta(t, 8, lie(room.Moisture()+2), 1e-9)
	assert.InDelta(t, 16, lie(room.Moisture()-4), 1e-9)
	assert.Zero(t, lie(room.Moisture()+1))
	s.Thickness = 70 * mm
	assert.InDelta(t, 32, lie(room.Moisture()+2), 1e-9, "four times as long at twice the thickness")
	assert.Zero(t, year(t, s, Choice{Climate: "heated", Air: &room}).Lie(s), "it lay there")
}

// What cannot be is named, with its numbers and what would work.
func TestAirAndWoodThatCannotBe(t *testing.T) {
	for _, c := range []struct {
		choice Choice
		at     string
		says   string
	}{
		{Choice{Air: &Air{20, 130}}, "/air/humidity", "refused.humidity given=130 least=1 most=100"},
		{Choice{Air: &Air{-60, 50}}, "/air/celsius", "refused.celsius given=-60 least=-30 most=60"},
		{Choice{Wood: "ironbark"}, "/wood", "refused.no-wood given=ironbark"},
		{Choice{Moisture: 34}, "/moisture", "refused.moisture-high given=34 most=30"},
		{Choice{Moisture: 1.5}, "/moisture", "refused.moisture-low given=1.5 most=30"},
		{Choice{Climate: "moon"}, "/climate", "refused.no-climate given=moon"},
		{Choice{Month: 13}, "/month", "refused.no-month given=13"},
		{Choice{Across: -mm}, "/across", ""},
		{Choice{Widest: 50 * mm}, "/widest", ""},
		{Choice{Sawn: "round"}, "/sawn", ""},
		{Choice{School: "guess"}, "/school", ""},
	} {
		var bad field.Errors
		require.True(t, errors.As(c.choice.Check(), &bad), "%+v", c.choice)
		assert.Equal(t, c.at, bad[0].Pointer)
		if c.says != "" {
			assert.Equal(t, c.says, bad[0].Error())
		}
	}
	_, ok := Of(planked(800), Choice{}, 0)
	assert.False(t, ok, "no climate, no seasons")
	_, ok = Of(slab.Slab{Construction: "planked"}, Choice{Climate: "heated"}, 0)
	assert.False(t, ok, "no slab yet")
}

// Every construction moves in a way that is told.
func TestEveryConstructionMoves(t *testing.T) {
	for _, c := range trade.Constructions {
		assert.Equal(t, c.ID, trade.MovementOf(c.ID).Construction)
	}
	assert.Equal(t, "flush", trade.MovementOf("").Construction)
}

// Degrees and percentages are read as people write them.
func TestAirAsPeopleWriteIt(t *testing.T) {
	for text, want := range map[string]Celsius{
		"20": 20, " 20 °C ": 20, "20c": 20, "68F": 20, "68 °F": 20, "-5,5": -5.5, "−4": -4, "21.5°": 21.5,
	} {
		got, err := ParseCelsius(text, measure.Millimetres)
		require.NoError(t, err, text)
		assert.InDelta(t, float64(want), float64(got), 1e-9, text)
	}
	got, err := ParseCelsius("68", measure.Inches)
	require.NoError(t, err)
	assert.InDelta(t, 20, float64(got), 1e-9)
	assert.Equal(t, "68", got.Text(measure.Inches))
	assert.Equal(t, "20", got.Text(measure.Millimetres))
	for text, want := range map[string]Percent{"54": 54, "54 %": 54, "54,5%": 54.5} {
		got, err := ParsePercent(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got)
	}
	for _, text := range []string{"", "warm", "1e9", "NaN", "5 4", "--3", "20 K", "%"} {
		_, err := ParseCelsius(text, measure.Millimetres)
		assert.Error(t, err, text)
		_, err = ParsePercent(text)
		assert.Error(t, err, text)
	}
}

// Wood is not sure to move by its coefficient: drawn a quarter more or less (one standard deviation, assumed),
// the margin set today keeps the least in the wettest month nineteen times in twenty.
func TestTheLeastIsKeptNineteenTimesInTwenty(t *testing.T) {
	rng := rand.New(rand.NewPCG(6, 1))
	s := planked(838)
	y := year(t, s, Choice{Climate: "heated", Month: 1})
	wood, _ := trade.WoodByID("")
	if wood.ID == "" {
		wood = trade.Woods[0]
	}
	// By hand: 838 mm across, from January's moisture content to July's, by the coefficient; the jambs are left out.
	moves := 838 * wood.Tangential * (y.In(time.July).Moisture - y.Now)
	today, raised := y.Today(3, 1.5, OneSided*trade.MoveUnsure)
	require.Positive(t, raised)
	const trials = 20000
	kept := 0
	for range trials {
		if today-moves*(1+0.25*rng.NormFloat64()) >= 1.5 {
			kept++
		}
	}
	assert.InDelta(t, 0.95, float64(kept)/trials, 0.01)
	mean, _ := y.Today(3, 1.5, 0)
	kept = 0
	for range trials {
		if mean-moves*(1+0.25*rng.NormFloat64()) >= 1.5 {
			kept++
		}
	}
	assert.Less(
		t, float64(kept)/trials, 0.75, "in the mean only, every other time, and where more was wanted a little oftener",
	)
}
