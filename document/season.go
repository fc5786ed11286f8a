package document

import (
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/season"
	"kindmargin/core/stage/seasons"
)

// SeasonOf is a leaf's movement through the year.
type SeasonOf struct {
	Today    Figure        `json:"today" doc:"The lock margin to set now."`
	Tightest Figure        `json:"tightest" doc:"The margin then, with what it is made of."`
	Widest   Figure        `json:"widest" doc:"The margin when it is widest."`
	Tight    MonthOf       `json:"tight" doc:"The month in which the light is narrowest."`
	Wide     MonthOf       `json:"wide" doc:"The month in which it is widest."`
	Months   []MonthOf     `json:"months" doc:"January first."`
	Jambs    *Length       `json:"jambs,omitempty" doc:"How far both jambs grow into the opening by the tightest month; absent where their thickness was not given. The wall behind them does not move."`
	Other    Text          `json:"other" doc:"What the other school would set."`
	Lie      int           `json:"lie" doc:"Days that the slab lies in the room first; nought where it need not."`
	Now      string        `json:"now" doc:"The moisture that it holds."`
	From     season.Source `json:"from" doc:"What tells that."`
	Why      string        `json:"why" doc:"What of it moves."`
	Sources  []string      `json:"sources"`
}

// MonthOf is one month of a slab's year.
type MonthOf struct {
	Name     string `json:"name"`
	Air      string `json:"air" doc:"Of the room."`
	Moisture string `json:"moisture" doc:"Of the slab."`
	Light    Length `json:"light" doc:"The margin at the lock edge."`
}

func (p printer) season(s seasons.Season) *SeasonOf {
	v := &SeasonOf{
		Today: p.fine(s.Today), Tightest: p.fine(s.Wettest), Widest: p.fine(s.Driest),
		Months: make([]MonthOf, len(s.Months)), Lie: s.Lie, Other: Fine(s.Other),
		Now: p.voice.Word(message.Percent(s.Now)), From: s.From, Why: p.voice.Say(s.Why()),
		Sources: []string{
			s.Wood.Source, s.Movement.Source,
			p.voice.Say(message.Message{ID: "season.climate-source", Args: message.Args{"source": s.Climate.Source}}),
		},
	}
	today := s.Today.Value.MM()
	for i, m := range s.Months {
		light := measure.FromMM(today-m.Closes()).Round(measure.Millimetre/100, measure.Nearest)
		v.Months[i] = MonthOf{
			p.voice.Word(message.Month(i + 1)), m.Air.Text(p.unit), p.voice.Word(message.Percent(m.Moisture)),
			Length{light.MM(), Fine(light)},
		}
	}
	if j := s.In(s.Wet).Jambs; j != 0 {
		grown := p.exact(measure.FromMM(j).Round(measure.Millimetre/100, measure.Nearest))
		v.Jambs = &grown
	}
	v.Tight, v.Wide = v.Months[s.Wet-1], v.Months[s.Dry-1]
	return v
}
