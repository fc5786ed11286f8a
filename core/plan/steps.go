package plan

import (
	"slices"

	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/site"
)

// State is the state of a step.
type State string

// A step waits for earlier ones, is open, is done, or is done with inputs that changed since.
const (
	Waits   State = "waits"
	Open    State = "open"
	Done    State = "done"
	Changed State = "changed"
)

// States lists the states.
var States = []State{Waits, Open, Done, Changed}

// Progress is one step with its state.
type Progress struct {
	Step  job.Step
	State State
	Ready bool       // it can be finished: its answer is there and nothing stops it
	Says  message.ID // what it waits for or what to do, in a few words
	Mark  string     // what Opening.Done holds when it is finished as it now is
}

// Done reports whether a step is finished by its present inputs.
func (p Plan) Done(s job.Step) bool {
	return slices.ContainsFunc(p.Steps, func(n Progress) bool { return n.Step == s && n.State == Done })
}

// progress gives each step's state; next is the first step that is not done.
func progress(d site.Opening, p Plan) (list []Progress, next job.Step) {
	var before *Plan // by the rules that steps were finished by, worked out where it is asked for
	clash := len(p.Clashes) > 0
	// earlier reports whether a step was finished by earlier rules that would mark it the same now: none of its inputs
	// has changed.
	earlier := func(step job.Step, done string) bool {
		by := site.RulesOfMark(done)
		if by >= d.Rules {
			return false
		}
		if before == nil {
			p := solve(d.By(by))
			before = &p
		}
		return mark(d.By(by), *before, step) == done
	}
	for _, step := range d.Steps() {
		stopped := slices.ContainsFunc(p.All(), func(f site.Finding) bool {
			return f.Gravity == site.Stop && f.Step == step
		})
		answered := has(d, p, step)
		if clash && step != job.StepMeasure { // all that follows hangs on the readings
			answered = false
		}
		n := Progress{Step: step, State: Open, Ready: answered && !stopped, Mark: mark(d, p, step)}
		if step == job.StepTry && !fitsAll(p) {
			n.Ready = false
		}
		done, was := d.Done[step]
		switch {
		case !answered:
			n.State, n.Says = Waits, "step-waits."+message.ID(step)
			if d.Service != nil && step != job.StepLog {
				n.Says = "step-now.hung-sizes"
			}
			if clash && step != job.StepMeasure {
				n.Says = "step-now.clash"
			}
			if c := d.Framed(); c != nil && step == job.StepMeasure {
				n.Says = "step-now.frame"
			}
			if step == job.StepMeasure || step == job.StepSlab && !clash {
				n.State = Open // nothing before them to wait for
			}
		case was && (done == n.Mark || earlier(step, done)) && !stopped:
			n.State, n.Says = Done, "step-now.done"
		case was:
			n.State, n.Says = Changed, "step-now.changed"
		case step == job.StepMeasure && len(p.ToRead) > 0:
			n.Says = "step-now.more"
		default:
			n.Says = "step-open." + message.ID(step)
			if d.Service != nil && step == job.StepTry {
				n.Says = "step-now.hung-gaps"
			}
		}
		if stopped && answered {
			n.Says = "step-now.wrong"
		}
		list = append(list, n)
		if next == "" && n.State != Done {
			next = step
		}
	}
	return list, next
}

// fitsAll reports whether every leaf fits.
func fitsAll(p Plan) bool {
	return !slices.ContainsFunc(p.Leaves, func(l Leaf) bool { return !l.Try.Done() })
}

// All are the findings of the opening and of its leaves.
func (p Plan) All() []site.Finding {
	list := slices.Clone(p.Findings)
	for _, l := range p.Leaves {
		list = append(list, l.Findings...)
	}
	return list
}

// has reports whether a step has its answer, for every leaf.
func has(d site.Opening, p Plan, step job.Step) bool {
	if c := d.Framed(); c != nil && !c.Stands && step == job.StepMeasure {
		return false
	}
	bays := site.Bays(d)
	for i, l := range p.Leaves {
		measured := len(bays[i].Slab.Missing()) == 0
		ok := l.Drawing != nil
		switch step {
		case job.StepSlab:
			ok = measured
		case job.StepCut:
			ok = l.Cut != nil
		case job.StepHinges:
			ok = len(l.Hinges) > 0
		case job.StepSwing:
			ok = l.Swing != nil
		case job.StepStops:
			ok = l.Stops != nil
		case job.StepTry:
			ok = l.Try != nil
		case job.StepLog:
			ok = l.Try.Done()
		case job.StepLock:
			// The bolted leaf of a pair is marked from the other, once that hangs.
			ok = l.Latch != nil || bays[i].Folds || bays[i].Meets && len(l.Hinges) > 0 && bays[i].Slab.Thickness > 0
		}
		if !ok && (step != job.StepMeasure || !answers(p)) {
			return false
		}
	}
	return true
}

// answers reports whether the readings gave an answer at all.
func answers(p Plan) bool {
	return !slices.ContainsFunc(p.ToRead, func(s site.Suggestion) bool { return s.Needed })
}

// signed takes each leaf as it was signed off: one that was said to fit still does where its gaps are those that it was
// signed with, whatever a later version asks for.
func signed(d site.Opening, p *Plan) {
	if _, was := d.Done[job.StepLog]; !was || fitsAll(*p) {
		return
	}
	then := *p
	then.Leaves = slices.Clone(p.Leaves)
	for i, l := range then.Leaves {
		if l.Try == nil {
			return
		}
		fits := *l.Try
		fits.Fits, fits.Slide, fits.ToRead, fits.Ways, fits.Near = true, false, nil, nil, nil
		then.Leaves[i].Try = &fits
	}
	if d.Done[job.StepLog] == mark(d, then, job.StepLog) {
		p.Leaves = then.Leaves
	}
}
