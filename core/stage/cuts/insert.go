package cuts

import (
	"kindmargin/core/fit"
	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/trade"
)

// Insert closes one edge of a hollow slab again, or two that are closed alike.
type Insert struct {
	fit.Insert
	Ends  []frame.Side
	Steps []message.Message // how it is done, in its order
}

// inserts are the edges of a hollow slab that the cuts open, each with how it is closed. Common practice: the rail that
// came off is freed while the offcut is long, or a new piece of MDF or softwood goes in.
func inserts(d site.Opening, b site.Bay, laid fit.Laid, sheet List) (list []Insert) {
	for _, in := range laid.Inserts(b.Slab) {
		if n := len(list); n > 0 && list[n-1].as(in) {
			list[n-1].Ends = append(list[n-1].Ends, in.End)
			continue
		}
		v := Insert{Insert: in, Ends: []frame.Side{in.End}}
		put := func(id message.ID, args message.Args) {
			v.Steps = append(v.Steps, message.Message{ID: id, Args: args})
		}
		if sheet.Edges[in.End].Sawing == nil { // else its own steps say how
			put("insert.saw", nil)
		}
		if in.Freed && !d.Cut.Insert.New {
			put("insert.free", message.Args{"part": message.ID("insert-part." + part(in.End)), "deep": in.Deep})
		} else {
			put("insert.new", message.Args{"width": in.Width, "deep": in.Deep, "thickness": in.Thickness})
		}
		put("insert.core", message.Args{"deep": in.Deep})
		put("insert.glue", nil)
		put("insert.clamp", message.Args{"minutes": message.Count(trade.TapeMinutes)})
		list = append(list, v)
	}
	return list
}

// as reports whether an insert is like another one, but for its end.
func (v Insert) as(in fit.Insert) bool {
	in.End = v.End
	return v.Insert == in
}

// closed reports the edges that the cuts open, and a piece at hand that does not go in.
func closed(d site.Opening, b site.Bay, laid fit.Laid) (said site.Findings) {
	for _, in := range laid.Inserts(b.Slab) {
		code := site.RailWeak
		if in.Left == 0 {
			code = site.RailGone
		}
		said.Say(site.Care, job.StepCut, "/cut/ends", code, message.Args{
			"end": message.Edge(in.End), "part": message.ID("insert-part." + part(in.End)), "left": in.Left,
			"width": in.Width, "thickness": in.Thickness, "deep": in.Deep,
		})
		for _, own := range []struct {
			at         string
			is         message.ID
			have, room measure.Length
		}{
			{"width", "insert-size.width", d.Cut.Insert.Width, in.Width},
			{"thickness", "insert-size.thickness", d.Cut.Insert.Thickness, in.Thickness},
		} {
			if own.have > own.room {
				said.Say(site.Stop, job.StepCut, "/cut/insert/"+own.at, site.InsertLarge, message.Args{
					"is": own.is, "have": message.Exact(own.have), "room": message.Exact(own.room),
				})
			}
		}
	}
	return said
}

// part is the ID of what an edge of a hollow slab is closed by.
func part(side frame.Side) string {
	if side.Upright() {
		return "stile"
	}
	return "rail"
}

// mouldings reports cuts that come to the moulding of moulded skins, whose place only a look tells.
func mouldings(b site.Bay, way fit.Judged) (said site.Findings) {
	if b.Slab.Construction != "moulded" {
		return nil
	}
	said.Say(site.Note, job.StepCut, "", site.KeepFromMoulding, message.Args{"by": moulding})
	kind, _ := trade.ConstructionByID(b.Slab.Construction)
	for _, side := range frame.Sides {
		if off := measure.FromMM(way.Deepest[side]); off > kind.Most[side] {
			said.Say(site.Care, job.StepCut, b.At+"/construction", site.CutsMoulding, message.Args{
				"edge": message.Edge(side), "off": off, "clear": off + moulding,
			})
		}
	}
	return said
}
