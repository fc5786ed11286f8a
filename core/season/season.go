// Package season is the movement of wood with the air: its equilibrium moisture content, how far that swells or shrinks
// a slab through the year, and the margin to set today so that the least is kept in the wettest month and the driest
// still looks right. Movements are in mm, positive where wood has swollen; moisture contents are in %.
package season

import (
	"math"
	"slices"
	"time"

	"kindmargin/core/field"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/slab"
	"kindmargin/core/trade"
)

// Choice is what is known of a slab's wood and its air. Without a climate the seasons are left out.
type Choice struct {
	Climate string `json:"climate,omitempty"` // ID of a trade.Climate
	Wood    string `json:"wood,omitempty"`    // ID of a trade.Wood; empty for a softwood not known
	Sawn    Sawn   `json:"sawn,omitempty"`
	// Across is the width of timber across the grain; 0 is the construction's.
	Across measure.Length `json:"across,omitempty"`
	// The slab's present state, by the best source: a moisture meter, then the air that it was stored in, then the
	// climate's month.
	Moisture Percent        `json:"moisture,omitempty"` // %; nought not read
	Air      *Air           `json:"air,omitempty"`
	Month    int            `json:"month,omitempty"`  // 1 to 12; nought January
	Sealed   bool           `json:"sealed,omitempty"` // all six sides
	School   School         `json:"school,omitempty"`
	Widest   measure.Length `json:"widest,omitempty"` // margin that still looks right; nought trade.WidestLight
}

// Sawn is how boards were sawn from the log, which decides how far they move.
type Sawn string

// Boards with rings along the face move most; unknown ones count as those.
const (
	SawnUnknown Sawn = ""
	SawnFlat    Sawn = "flat"
	SawnQuarter Sawn = "quarter"
)

// School is a method of predicting movement.
type School string

// By the wood's moisture content, or by the rule of thumb.
const (
	ByMoisture School = ""
	ByThumb    School = "thumb"
)

// Sawns and Schools list the valid values.
var (
	Sawns   = []Sawn{SawnUnknown, SawnFlat, SawnQuarter}
	Schools = []School{ByMoisture, ByThumb}
)

// Check reports invalid fields, as field.Errors.
func (c Choice) Check() error {
	var bad field.Errors
	if _, ok := trade.ClimateByID(c.Climate); !ok && c.Climate != "" {
		bad.Add("/climate", "refused.no-climate", message.Args{"given": message.Quote(c.Climate)})
	}
	if _, ok := trade.WoodByID(c.Wood); !ok && c.Wood != "" {
		bad.Add("/wood", "refused.no-wood", message.Args{"given": message.Quote(c.Wood)})
	}
	if !slices.Contains(Sawns, c.Sawn) {
		bad.Add("/sawn", "refused.sawn", message.Args{
			"flat": string(SawnFlat), "quarter": string(SawnQuarter), "given": string(c.Sawn),
		})
	}
	if !slices.Contains(Schools, c.School) {
		bad.Add("/school", "refused.season-school", message.Args{"thumb": string(ByThumb), "given": string(c.School)})
	}
	bad.Under("", field.Range{
		Pointer: "/across", Is: "size.width-of-timber-across-the-grain", Value: c.Across, Most: 2 * measure.Metre,
	}.Check())
	bad.Under("", field.Range{
		Pointer: "/widest", Is: "size.widest-gap-that-looks-right", Value: c.Widest, Most: 20 * measure.Millimetre,
	}.Check())
	bad.Under("", CheckMoisture("/moisture", c.Moisture))
	if c.Air != nil {
		bad.Under("/air", c.Air.Check())
	}
	if c.Month < 0 || c.Month > 12 {
		bad.Add("/month", "refused.no-month", message.Args{"given": message.Number(c.Month)})
	}
	return bad.Err()
}

// Source is the source of a slab's present state.
type Source string

// The sources, the best first.
const (
	FromMeter   Source = "meter"
	FromAir     Source = "air"
	FromClimate Source = "climate"
)

// Month is a month of a slab's year.
type Month struct {
	Air
	Moisture float64 // that the slab comes to
	Slab     float64 // mm of its width at its middle that it has grown by, against now
	Jambs    float64 // mm that both jambs have grown into the opening
}

// Closes is how far the gap at the lock edge has closed, in mm, against now.
func (m Month) Closes() float64 { return m.Slab + m.Jambs }

// Year is the movement of a slab through a year.
type Year struct {
	Wood     trade.Wood
	Climate  trade.Climate
	Movement trade.Movement
	Across   float64 // mm that move
	Rate     float64 // mm for each 1 % of moisture content
	Now      float64 // moisture content
	Room     float64 // and that which the room's air makes of wood
	From     Source
	Months   [12]Month
	Wet, Dry time.Month // in which the light is narrowest and widest
	mean     float64    // moisture content that the year's air makes
	sealed   bool
	jamb     float64 // thickness, mm
	thumb    float64 // mm of the slab's width for each 1 % of humidity, where the rule of thumb predicts; else nought
	humidity Percent // that the rule of thumb starts from
}

// Of is the year of a slab between jambs of a thickness, 0 where theirs do not count; ok is false where the seasons are
// left out, or the slab's width is not known. The wall does not move: masonry is stable, and studs move along their
// grain.
func Of(s slab.Slab, c Choice, jamb measure.Length) (y Year, ok bool) {
	climate, ok := trade.ClimateByID(c.Climate)
	if !ok || s.Width == 0 {
		return Year{}, false
	}
	y = Year{Climate: climate, Movement: trade.MovementOf(s.Construction)}
	y.Wood, ok = trade.WoodByID(c.Wood)
	if !ok {
		y.Wood = trade.Woods[0]
	}
	y.Across, y.Rate = across(s, c, y.Movement, y.Wood)

	room := c.room(climate)
	y.Room, y.From = room.Moisture(), FromClimate
	y.Now = y.Room
	switch {
	case c.Moisture > 0:
		y.Now, y.From = float64(c.Moisture), FromMeter
		room.Humidity = humidityFor(y.Now, room.Celsius) // what the rule of thumb goes by
	case c.Air != nil:
		y.From = FromAir
	}

	y.sealed, y.jamb, y.humidity = c.Sealed, jamb.MM(), room.Humidity
	if c.School == ByThumb {
		y.thumb = trade.ThumbRate * s.Width.MM()
	}
	for _, m := range climate.Months {
		y.mean += airOf(m).Moisture() / 12
	}
	y.Wet, y.Dry = time.January, time.January
	for i, m := range climate.Months {
		y.Months[i] = y.With(airOf(m))
		if y.Months[i].Closes() > y.In(y.Wet).Closes() {
			y.Wet = time.Month(i + 1)
		}
		if y.Months[i].Closes() < y.In(y.Dry).Closes() {
			y.Dry = time.Month(i + 1)
		}
	}
	return y, true
}

// Comes is the moisture content of the slab in the air of a month: sealed, it moves only a part of the way from its
// mean through the year.
func (y Year) Comes(a Air) float64 {
	m := a.Moisture()
	if y.sealed {
		m = y.mean + trade.SealedMoves*(m-y.mean)
	}
	return m
}

// With is the month of a slab and jambs in equilibrium with some air.
func (y Year) With(a Air) Month {
	m := Month{Air: a, Moisture: y.Comes(a)}
	if y.thumb > 0 {
		m.Slab = y.thumb * float64(a.Humidity-y.humidity)
		return m
	}
	m.Slab = y.At(m.Moisture)
	m.Jambs = 2 * y.jamb * trade.JambWood.Tangential * (a.Moisture() - y.Room)
	return m
}

// In is a month of the year.
func (y Year) In(m time.Month) Month { return y.Months[m-1] }

func airOf(m trade.Month) Air { return Air{Celsius(m.Celsius), Percent(m.Humidity)} }

// room is the air of the room now.
func (c Choice) room(climate trade.Climate) Air {
	if c.Air != nil {
		return *c.Air
	}
	return airOf(climate.Months[max(c.Month, 1)-1])
}

// across is the width across the grain, in mm, and its movement for each 1 % of moisture content.
func across(s slab.Slab, c Choice, m trade.Movement, w trade.Wood) (mm, rate float64) {
	coefficient := w.Tangential
	if c.Sawn == SawnQuarter {
		coefficient = w.Radial
	}
	switch {
	case c.Across > 0:
		mm = c.Across.MM()
	case m.Planks:
		mm = s.Width.MM()
	case m.Stiles && s.Stile > 0:
		mm = 2 * s.Stile.MM()
	case m.Stiles:
		mm = 2 * trade.UsualStile.MM()
	default:
		return s.Width.MM(), s.Width.MM() * m.Board
	}
	return mm, mm * coefficient
}

// Middle is how far the gap has closed in the middle of the year, in mm, against now.
func (y Year) Middle() float64 { return (y.In(y.Wet).Closes() + y.In(y.Dry).Closes()) / 2 }

// Today is the margin to set today, in mm: the one wanted holds in the middle of the year, and more is set (raised)
// where the least would not hold in the wettest month, or today. The least holds even where the wood moves more than
// predicted: deviate times trade.MoveUnsure of the movement is added, so that OneSided keeps it nineteen times in
// twenty, 0 every other time.
func (y Year) Today(wanted, least, unsure float64) (today, raised float64) {
	today = wanted + y.Middle()
	raised = max(least+max(y.In(y.Wet).Closes(), 0)*(1+unsure)-today, 0)
	return today + raised, raised
}

// OneSided is the normal deviate of a one-sided 5 %.
const OneSided = 1.645

// At is how far the slab has grown, in mm, at a moisture content.
func (y Year) At(moisture float64) float64 { return y.Rate * (moisture - y.Now) }

// ByTable reports whether the coefficients hold for all its moisture contents.
func (y Year) ByTable() bool {
	for _, m := range append(y.Months[:], Month{Moisture: y.Now}) {
		if m.Moisture < trade.ByTable.Least || m.Moisture > trade.ByTable.Most {
			return false
		}
	}
	return true
}

// Lie is how many days a slab has to acclimatise before it is fitted, until its moisture content is within
// trade.LieNear of the room's: it moves half way in trade.LieDays, scaled with the square of its thickness. 0 where it
// need not, or where either is not known.
func (y Year) Lie(s slab.Slab) float64 {
	off := math.Abs(y.Room - y.Now)
	if off <= trade.LieNear {
		return 0
	}
	thick := 1.0
	if s.Thickness > 0 {
		thick = s.Thickness.MM() / trade.LieThick.MM()
	}
	return trade.LieDays * thick * thick * math.Log2(off/trade.LieNear)
}

// Why gives the terms of a slab's movement.
func (y Year) Why() message.Message {
	if !y.Movement.Planks && !y.Movement.Stiles {
		return message.Message{ID: y.Movement.Note()}
	}
	id := message.ID("season.across")
	if y.Movement.Held < 1 {
		id = "season.across-held"
	}
	return message.Message{ID: id, Args: message.Args{"wood": y.Wood.Name(), "across": measure.FromMM(y.Across)}}
}

// Since is the predicted movement of a slab since it was fitted.
type Since struct {
	Was, Is float64 // moisture content then and now, %
	Closed  float64 // how far the light at the lock edge has closed, mm
}
