package plan

import (
	"slices"

	"kindmargin/core/frame"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/message"
	"kindmargin/core/site"
	"kindmargin/core/survey"
	"kindmargin/core/trade"
)

// hungUnsure is how far, as ±, an opening may be from the size that its door and its wanted margins add up to: the gaps
// that are read tell the rest. Assumed: a door in use is hardly further off.
const hungUnsure = 10 * measure.Millimetre

// service plans a door that hangs already: nothing is measured, cut or marked before it. It is planned as a slab of its
// own size in an opening that is about that size and its margins, and its gaps are worked out as at any try.
func service(d site.Opening) Plan {
	as := d
	as.Slab.Machined, as.Slab.Pivot, as.Cut.LeaveOn = d.Slab.Machined, 0, job.ToLine
	if missing := d.Slab.Missing(); len(missing) > 0 {
		p := Plan{Leaves: []Leaf{{Strike: true}}}
		p.Findings = append(p.Findings, looked(d)...)
		var said site.Findings
		said.Say(site.Care, job.StepTry, "/slab/"+missing[0], site.ServiceSizes, nil)
		p.Findings = append(p.Findings, said...)
		p.Steps, p.Next = progress(d, p)
		return p
	}
	o, _ := begin(as)
	size := func(kind survey.Kind, own measure.Length, near, far frame.Side) survey.Reading {
		return survey.Reading{
			ID: "hung-" + string(kind), Kind: kind, At: d.Slab.Length / 2, PlusMinus: hungUnsure,
			Value: own + o.wanted[near].Value + o.wanted[far].Value,
		}
	}
	width, height := size(survey.Width, d.Slab.Width, frame.Hinge, frame.Lock), size(
		survey.Height, d.Slab.Length, frame.Head, frame.Foot,
	)
	height.At = d.Slab.Width / 2
	as.Readings, as.Offers = []survey.Reading{width, height}, nil
	p := work(as)
	l := &p.Leaves[0]
	l.Cut, l.Hinges, l.Hanging, l.Rod, l.Finished, l.Season = nil, nil, nil, nil, nil, nil
	keep := func(list []site.Finding) []site.Finding {
		return slices.DeleteFunc(list, func(f site.Finding) bool {
			return !slices.Contains(d.Steps(), f.Step) || f.Step == job.StepLock && d.Lock.Missed == nil
		})
	}
	l.Findings = keep(l.Findings)
	p.Findings = append(looked(d), keep(p.Findings)...)
	p.ToRead, p.OfferUp, p.Places, p.Trip = nil, message.Message{}, nil, 0
	signed(d, &p)
	p.Steps, p.Next = progress(d, p)
	return p
}

// asItHangs is a door of its own size, its edges straight and square, hung by its hinges as they were placed.
func asItHangs(d site.Opening, hinges []job.MadeHinge, margin measure.Length) *job.Made {
	w, l := d.Slab.Width, d.Slab.Length
	return &job.Made{
		Hand: d.Hand, Margin: margin, Hinges: hinges, Rules: int(d.Rules),
		Lock: []measure.Length{w, w, w}, Head: []measure.Length{0, 0, 0}, Foot: []measure.Length{l, l, l},
	}
}

// looked is what is looked at on a door that hangs, before its gaps are read, by what is wrong with it. Common practice:
// screws and leaves first, and a hinge before wood.
func looked(d site.Opening) (said site.Findings) {
	say := func(code site.Code) { said.Say(site.Note, job.StepTry, "/service", code, nil) }
	say(site.LookFirst)
	for _, c := range d.Service.Wrong {
		say("service-" + site.Code(c))
	}
	if d.Service.Says(job.PaintedShut) {
		said.Say(site.Care, job.StepTry, "/service", site.OldPaint, nil)
	}
	return said
}

// beforePlaning is what comes before a plane at a door in use. Common practice.
func beforePlaning(l *Leaf) {
	if l.Try == nil {
		return
	}
	for i := range l.Try.Ways {
		if w := &l.Try.Ways[i]; len(w.Planed) > 0 {
			w.Does = append([]message.Message{{ID: "do.service-plane", Args: message.Args{
				"deep": message.Exact(trade.MostHanging),
			}}}, w.Does...)
		}
	}
}
