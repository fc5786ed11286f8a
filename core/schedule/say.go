package schedule

import (
	"kindmargin/core/job"
	"kindmargin/core/lock"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// Say is an opening as a row of an exported schedule, by column: text, a number, a measure.Length, or a message.Message
// that names it; unknown values are left out. Read gives the same opening back, as far as a schedule holds one.
func Say(j job.Job, o job.Opening) map[string]any {
	out := map[string]any{"name": o.Name, "hand": string(o.Hand), "hinges": o.Hinges.Number()}
	text := func(id, s string) {
		if s != "" {
			out[id] = s
		}
	}
	length := func(id string, l measure.Length) {
		if l != 0 {
			out[id] = l
		}
	}
	named := func(id string, m message.Message) { out[id] = m }
	text("room", o.Room)
	if c, ok := trade.ConstructionByID(o.Slab.Construction); ok && o.Slab.Construction != "" {
		named("construction", message.Message{ID: c.Name()})
	}
	length("width", o.Slab.Width)
	length("length", o.Slab.Length)
	length("thickness", o.Slab.Thickness)
	if s, ok := trade.SchoolByID(o.Margins.School); ok {
		named("school", message.Message{ID: s.Name()})
	}
	if h, ok := j.Kit.Hinge(o.Hinges.Size); ok {
		named("hinge", h.Title())
	}
	if d, ok := j.Kit.HardwareByID(o.Lock.Hardware); ok {
		named("lock", d.Title())
	}
	length("backset", o.Lock.Backset)
	if o.Lock.From == lock.FromHandle {
		length("handle", o.Lock.Handle)
	}
	at := placesOf(j.Unit)
	for _, r := range o.Readings {
		if r.Struck != "" {
			continue
		}
		for id, is := range map[string]struct {
			kind survey.Kind
			at   measure.Length
		}{
			"width-head": {survey.Width, at.head}, "width-mid": {survey.Width, at.mid},
			"width-foot":   {survey.Width, at.foot},
			"height-hinge": {survey.Height, at.hinge}, "height-lock": {survey.Height, at.lock},
		} {
			if r.Kind == is.kind && r.At == is.at {
				length(id, r.Value)
			}
		}
	}
	if len(o.Notes) > 0 {
		text("note", o.Notes[0].Text)
	}
	return out
}
