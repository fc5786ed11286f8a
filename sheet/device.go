package sheet

import (
	"kindmargin/core/lock"
	"kindmargin/core/plan"
)

func (p printer) devices(list []plan.Device) []DeviceWork {
	out := []DeviceWork{}
	for _, d := range list {
		v := DeviceWork{Name: p.voice.Say(d.Device.Title()), Second: d.Second, Gauge: p.fine(d.Gauge), Holes: []HoleOf{}, Lengths: []LengthOf{}, Steps: []string{}}
		for _, s := range d.Steps {
			v.Steps = append(v.Steps, p.voice.Word(s))
		}
		for _, h := range d.Holes {
			v.Holes = append(v.Holes, HoleOf{p.voice.Say(h.Title()), p.figure(h.Down), p.figure(h.In), p.exact(h.Dia), p.exact(h.Bit), h.Up.MM(), h.From, p.exact(h.Deep)})
		}
		if e := d.Edge; e != nil {
			v.Edge = &EdgeOf{p.figure(e.Down), p.fine(e.Deep), p.fine(e.Wall), p.exact(e.Long), p.exact(e.Wide), p.exact(e.Cover)}
		}
		if d.Plate != nil {
			r := p.recess(*d.Plate)
			v.Plate = &r
		}
		if s := d.Strike; s != nil {
			v.Strike = &StrikeOf{p.recess(s.Recess), p.figure(s.Bolt), p.fine(s.In), p.exact(s.Hole), p.exact(s.Deep)}
		}
		for _, l := range d.Lengths {
			v.Lengths = append(v.Lengths, LengthOf{p.voice.Say(l.Part), p.fine(l.Cut)})
		}
		out = append(out, v)
	}
	return out
}

func (p printer) stops(s *plan.Stops) *StopsOf {
	if s == nil {
		return nil
	}
	v := &StopsOf{From: p.view(s.From, p.markedUp(s.From.Value)), Moves: []StopMoveOf{}, Cross: p.fine(s.Cross), Steps: p.say(s.Steps)}
	for _, m := range s.Moves {
		v.Moves = append(v.Moves, StopMoveOf{m.Stop, m.End, p.voice.Text(m.StopName()), p.voice.Text(m.EndName()), p.fine(m.By)})
	}
	return v
}

func (p printer) recess(r lock.Recess) RecessOf {
	return RecessOf{p.figure(r.Top), p.exact(r.Plate.Long), p.exact(r.Plate.Wide), p.exact(r.Plate.Thick), p.exact(r.Plate.Radius)}
}
