package plan

import (
	"fmt"
	"strconv"

	"kindmargin/core/figure"
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/trade"
)

// mostUnsure is what is left between latch and strike, 2σ in mm, past which one is marked
// from the other with the door shut.
const mostUnsure = 0.5

// agree says where latch and strike are not sure to meet: they differ by the head margin at
// the lock corner as the door hangs.
func agree(d door, b bay, corner figure.Figure) (said findings) {
	if figure.Coverage*corner.Sigma > mostUnsure && (d.Lock.From != lock.FromStrike || b.slab.Handle == 0) {
		said.say(Note, job.StepLock, "/lock/from", StrikeFromLatch, Args{"sure": message.Sure(corner.Sigma)})
	}
	return said
}

// heights holds a handle to the rule that was chosen for it.
func heights(d door, p lock.Plan) (said findings) {
	rule, ok := d.Lock.HeldTo()
	if !ok {
		return nil
	}
	args := Args{"at": p.Floor.Value, "rule": rule.Name, "least": message.Exact(rule.Least), "most": message.Exact(rule.Most)}
	if p.Floor.Value < rule.Least || p.Floor.Value > rule.Most {
		said.say(Stop, job.StepLock, "/lock/"+d.Lock.From, OutOfReach, args)
	}
	return said
}

// oldHoles says what becomes of the holes that are there: covered by a plate, or filled.
func oldHoles(d door, list []Device) (said findings) {
	for i, o := range d.Lock.Old {
		args := Args{"what": o.What, "size": message.Exact(o.Dia)}
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
		said.say(Note, job.StepLock, "/lock/old/"+strconv.Itoa(i), OldHoleLeft, args)
		for _, v := range list {
			for _, h := range v.Holes {
				if gap := (h.Down.Value - o.Down).Abs() - (h.Dia+o.Dia)/2; !o.Jamb && o.Off > 0 && (h.In.Value-o.Off).Abs() < (h.Dia+o.Dia)/2+trade.HoleApart && gap < trade.HoleApart {
					said.say(Care, job.StepLock, "/lock/old/"+strconv.Itoa(i), OldHoleNear, Args{"what": o.What, "hole": h.What})
				}
			}
		}
	}
	return said
}

// missed says how a strike that the latch misses is moved, and whether filing does.
func missed(d door) (said findings) {
	m := d.Lock.Missed
	if m == nil {
		return nil
	}
	if m.Up != 0 {
		code := StrikeMoved
		if m.Up.Abs() <= trade.MostFiled {
			code = StrikeFiled
		}
		said.say(Care, job.StepLock, "/lock/missed", code, Args{"by": message.Exact(m.Up.Abs()), "way": way(m.Up.MM(), "up", "down"), "too": way(m.Up.MM(), "high", "low"), "most": message.Exact(trade.MostFiled)})
	}
	if m.In != 0 {
		code := StrikeIn
		if m.In < 0 {
			code = StrikeRattles
		}
		said.say(Care, job.StepLock, "/lock/missed", code, Args{"by": message.Exact(m.In.Abs())})
	}
	return said
}

// striking tells how the strike is let in.
func striking(d door, w lock.Work) []string {
	s := w.Strike
	if s == nil {
		return nil
	}
	say := func(l measure.Length) string { return measure.Fine(l, measure.Nearest, d.unit) + " " + string(d.unit) }
	list := []string{
		fmt.Sprintf("Strike: middle of the latch %s down from the head; shut the door on a dab of paint, or prick the latch through, and see that it meets the figure.", d.tape.Show(s.Bolt.Value)),
		fmt.Sprintf("Its hole's middle %s in from the jamb's pull-side arris, as the closed slab lies: where the slab stands proud or back, so much more or less. The latch's flat bears on the plate with the slab on its stop: a card of play, no more.", say(s.In.Value)),
		fmt.Sprintf("Plate: %s by %s, %s deep, from %s down.", say(s.Plate.Long), say(s.Plate.Wide), say(s.Plate.Thick), d.tape.Show(s.Top.Value)),
	}
	if s.Hole > 0 {
		box := ""
		if s.Box {
			box = " Its box goes in behind."
		}
		list = append(list, fmt.Sprintf("Hole for the bolt: %s bit, %s deep.%s One long screw through the plate into the stud.", say(s.Hole), say(s.Deep), box))
	}
	return list
}

// bolting tells how the fixed leaf of a pair is bolted, top and bottom.
func bolting(d door, b bay) []string {
	if !b.bolted {
		return nil
	}
	known, ok := d.kit.Device(d.Pair.Bolts)
	if !ok {
		return nil
	}
	say := func(l measure.Length) string { return measure.Fine(l, measure.Nearest, d.unit) + " " + string(d.unit) }
	half := b.slab.Thickness / 2
	list := []string{fmt.Sprintf("A %s at the top and one at the foot of this leaf, on its meeting side.", known.Name)}
	if known.Edge.Deep > 0 {
		list = append(list, fmt.Sprintf("Slot in the meeting edge: %s by %s, %s deep, its middle %s from either face; its plate flush.", say(known.Edge.Long), say(known.Edge.Wide), say(known.Edge.Deep), say(half)))
	}
	back := known.Edge.Deep/2 + d.Pair.Meeting/2
	list = append(
		list,
		fmt.Sprintf("Keeps: in the head and in the floor, %s from the meeting line toward this leaf's hinges, %s behind the pull face's line; hole %s, %s deep. Prick each from the bolt with the leaf shut.", say(back), say(half), say(known.Strike.Bolt), say(known.Strike.Deep)),
		"Then the meeting bead goes on the leaf that opens first, and the strike is marked from its latch.",
	)
	return list
}
