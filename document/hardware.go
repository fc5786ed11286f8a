package document

import (
	"kindmargin/core/lock"
	"kindmargin/core/stage/locks"
	"kindmargin/core/stage/stops"
)

// hardware is each piece of hardware in words.
func (p printer) hardware(list []locks.Work) []HardwareWork {
	out := []HardwareWork{}
	for _, d := range list {
		v := HardwareWork{
			Name: p.voice.Say(d.Hardware.Title()), Second: d.Second, Gauge: p.fine(d.Gauge), Holes: []HoleOf{},
			Lengths: []LengthOf{}, Steps: []string{},
		}
		for _, s := range d.Steps {
			v.Steps = append(v.Steps, p.voice.Word(s))
		}
		for _, h := range d.Holes {
			v.Holes = append(v.Holes, HoleOf{
				What: p.voice.Say(h.Title()), Down: p.figure(h.Down), In: p.figure(h.In), Dia: p.exact(h.Dia),
				Bit: p.exact(h.Bit), Up: h.Up.MM(), From: string(h.From), Deep: p.exact(h.Deep),
			})
		}
		if e := d.Edge; e != nil {
			v.Edge = &EdgeOf{
				Down: p.figure(e.Down), Deep: p.fine(e.Deep), Wall: p.fine(e.Wall), Long: p.exact(e.Long),
				Wide: p.exact(e.Wide), Cover: p.exact(e.Cover),
			}
		}
		if d.Plate != nil {
			r := p.recess(*d.Plate)
			v.Plate = &r
		}
		if s := d.Strike; s != nil {
			v.Strike = &StrikeOf{
				Plate: p.recess(s.Recess), Bolt: p.figure(s.Bolt), In: p.fine(s.In), Hole: p.exact(s.Hole),
				Deep: p.exact(s.Deep),
			}
		}
		for _, l := range d.Lengths {
			v.Lengths = append(v.Lengths, LengthOf{p.voice.Say(l.Part), p.fine(l.Cut)})
		}
		out = append(out, v)
	}
	return out
}

func (p printer) stops(s *stops.Stops) *StopsOf {
	if s == nil {
		return nil
	}
	v := &StopsOf{
		From: p.view(s.From, p.markedUp(s.From.Value)), Moves: []StopMoveOf{}, Cross: p.fine(s.Cross),
		Steps: p.say(s.Steps),
	}
	for _, m := range s.Moves {
		v.Moves = append(v.Moves, StopMoveOf{
			Of: m.Stop, At: m.End, Stop: p.voice.Text(m.StopName()), End: p.voice.Text(m.EndName()),
			By: p.fine(m.By),
		})
	}
	return v
}

func (p printer) recess(r lock.Recess) RecessOf {
	return RecessOf{
		Top: p.figure(r.Top), Long: p.exact(r.Plate.Long), Wide: p.exact(r.Plate.Wide),
		Thick: p.exact(r.Plate.Thick), Radius: p.exact(r.Plate.Radius),
	}
}
