package locks

import (
	"strconv"

	"kindmargin/core/figure"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// mostUnsure is the greatest difference between latch and strike, 2σ in mm; above it one is marked from the other with
// the slab shut.
const mostUnsure = 0.5

// agree reports where latch and strike may not meet: they differ by the head margin at the lock corner of the hung
// slab.
func agree(d site.Opening, b site.Bay, corner figure.Figure) (said site.Findings) {
	if figure.Coverage*corner.Sigma > mostUnsure && (d.Lock.From != lock.FromStrike || b.Slab.Handle == 0) {
		code, levels := site.StrikeFromLatch, 0
		for _, r := range d.Readings {
			if r.Struck == "" && r.Kind == survey.Level && r.Side == frame.Head {
				levels++
			}
		}
		if levels > 1 { // another level tells hardly more
			code = site.StrikeFromLatchRead
		}
		said.Say(site.Note, job.StepLock, "/lock/from", code, message.Args{
			"sure": message.Sure(corner.Sigma),
		})
	}
	return said
}

// heights checks a handle against the chosen rule.
func heights(d site.Opening, p lock.Plan) (said site.Findings) {
	rule, ok := d.Lock.HeldTo()
	if !ok {
		return nil
	}
	args := message.Args{
		"at": p.Floor.Value, "rule": rule.Name(), "least": message.Exact(rule.Least), "most": message.Exact(rule.Most),
	}
	if p.Floor.Value < rule.Least || p.Floor.Value > rule.Most {
		said.Say(site.Stop, job.StepLock, "/lock/"+string(d.Lock.From), site.OutOfReach, args)
	}
	// ADA Standards 2010, 404.2.7 and 309.4 (from memory): worked with one hand, without grasping or turning the wrist.
	if known, _ := d.Kit.HardwareByID(d.Lock.Hardware); known.Kind == "knob" && rule.ID != lock.LocalRule {
		said.Say(site.Care, job.StepLock, "/lock/hardware", site.KnobToGrasp, message.Args{"rule": rule.Name()})
	}
	return said
}

// OldHoles reports what becomes of the existing holes: covered by a plate, or filled.
func OldHoles(d site.Opening, list []Work) (said site.Findings) {
	for i, o := range d.Lock.Old {
		args := message.Args{"what": o.What, "size": message.Exact(o.Dia)}
		covered := false
		for _, v := range list {
			plate := v.Plate
			switch {
			case o.Jamb && v.Strike != nil:
				plate = &v.Strike.Recess
			case o.Jamb || o.Off > 0: // no plate lies on it
				plate = nil
			}
			if plate == nil {
				continue
			}
			top, end := plate.Top.Value, plate.Top.Value+plate.Plate.Long
			covered = covered || o.Down-o.Dia/2 >= top && o.Down+o.Dia/2 <= end
		}
		if covered {
			continue
		}
		args["cure"] = message.ID("fill.block")
		if o.Dia <= trade.Dowelled {
			args["cure"] = message.ID("fill.dowel")
		}
		said.Say(site.Note, job.StepLock, "/lock/old/"+strconv.Itoa(i), site.OldHoleLeft, args)
		for _, v := range list {
			for _, h := range v.Holes {
				if gap := (h.Down.Value - o.Down).Abs() - (h.Dia+o.Dia)/2; !o.Jamb && o.Off > 0 &&
					(h.In.Value-o.Off).Abs() < (h.Dia+o.Dia)/2+trade.HoleApart && gap < trade.HoleApart {
					said.Say(site.Care, job.StepLock, "/lock/old/"+strconv.Itoa(i), site.OldHoleNear, message.Args{
						"what": o.What, "hole": h.Title(),
					})
				}
			}
		}
	}
	return said
}

// missed is how a strike that the latch misses is moved, and whether filing is enough.
func missed(d site.Opening) (said site.Findings) {
	m := d.Lock.Missed
	if m == nil {
		return nil
	}
	if m.Up != 0 {
		code := site.StrikeMoved
		if m.Up.Abs() <= trade.MostFiled {
			code = site.StrikeFiled
		}
		said.Say(site.Care, job.StepLock, "/lock/missed", code, message.Args{
			"by": message.Exact(m.Up.Abs()), "way": message.Way(m.Up.MM(), "up", "down"),
			"too": message.Way(m.Up.MM(), "high", "low"), "most": message.Exact(trade.MostFiled),
		})
	}
	if m.In != 0 {
		code := site.StrikeIn
		if m.In < 0 {
			code = site.StrikeRattles
		}
		said.Say(site.Care, job.StepLock, "/lock/missed", code, message.Args{"by": message.Exact(m.In.Abs())})
	}
	return said
}

// Striking is how the strike is let in.
func Striking(w lock.Work) (list []message.Message) {
	s := w.Strike
	if s == nil {
		return nil
	}
	say := func(id message.ID, args message.Args) { list = append(list, message.Message{ID: id, Args: args}) }
	if w.Hardware.Surface() {
		say("surface.keep-scribe", message.Args{"down": message.At(s.Bolt.Value)})
		say("surface.keep-in", message.Args{
			"long": message.Near(s.Plate.Long), "wide": message.Near(s.Plate.Wide), "thick": message.Near(s.Plate.Thick),
		})
		say("surface.keep-screw", nil)
		return list
	}
	say("strike.middle", message.Args{"down": message.At(s.Bolt.Value)})
	say("strike.in", message.Args{"in": message.Near(s.In.Value)})
	if w.Hardware.Strike.Pressed {
		say("strike.pressed", message.Args{"bit": message.Near(s.Hole), "deep": message.Near(s.Deep)})
		return list
	}
	say("strike.plate", message.Args{
		"long": message.Near(s.Plate.Long), "wide": message.Near(s.Plate.Wide), "thick": message.Near(s.Plate.Thick),
		"top": message.At(s.Top.Value),
	})
	if s.Hole > 0 {
		hole := message.ID("strike.hole")
		if s.Box {
			hole = "strike.hole-box"
		}
		say(hole, message.Args{"bit": message.Near(s.Hole), "deep": message.Near(s.Deep)})
	}
	say("strike.pilots", message.Args{"pilot": message.Near(trade.PlatePilot)})
	return list
}

// Bolting is how the fixed leaf of a pair is held: the bead or rebate of its meeting edge first, since it decides where a
// bolt can go, then what bolts it, and its show handles.
func Bolting(d site.Opening, b site.Bay) (list []message.Message) {
	if !b.Bolted {
		return nil
	}
	say := func(id message.ID, args message.Args) { list = append(list, message.Message{ID: id, Args: args}) }
	say("bolting.bead", nil)
	known, ok := d.Kit.HardwareByID(d.Pair.Bolts)
	half := b.Slab.Thickness / 2
	switch {
	case d.Pair.Holds == job.NoBolt:
		say("bolting.none", nil)
	case ok:
		where, keeps := message.ID("bolting.where"), message.ID("bolting.keeps")
		if d.Pair.Holds == job.TopBolt {
			where, keeps = "bolting.where-top", "bolting.keep-top"
		}
		say(where, message.Args{"bolt": known.Title()})
		if known.Edge.Deep > 0 {
			say("bolting.slot", message.Args{
				"long": message.Near(known.Edge.Long), "wide": message.Near(known.Edge.Wide),
				"deep": message.Near(known.Edge.Deep), "half": message.Near(half),
			})
		}
		say(keeps, message.Args{
			"back": message.Near(known.Edge.Deep/2 + d.Pair.Meeting/2), "half": message.Near(half),
			"hole": message.Near(known.Strike.Bolt), "deep": message.Near(known.Strike.Deep),
		})
	}
	if d.Pair.Pulls {
		say("bolting.pulls", nil)
	}
	return list
}
