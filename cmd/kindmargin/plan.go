package main

import (
	"fmt"
	"io"
	"strings"
	"text/tabwriter"

	"kindmargin/api"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/core/trade"
)

// printPlans prints every opening's plan for a person, in the order of the
// work, with the same figures as the screen.
func printPlans(out io.Writer, j job.Job) error {
	w := tabwriter.NewWriter(out, 0, 4, 2, ' ', 0)
	show := func(t api.Text) string {
		if j.Unit == measure.Inches {
			return t.In
		}
		return t.MM
	}
	sure := func(f api.Figure) string {
		if s := show(f.Sure); s != "" {
			return "± " + s
		}
		return ""
	}
	leaf := func(p api.Plan) {
		for _, f := range p.Findings {
			fmt.Fprintf(w, "  %s: %s\n", strings.ToUpper(string(f.Weight)), f.Text)
		}
		if s := p.Slab; s != nil {
			fmt.Fprintf(w, "  Finished slab\t%s %s\tby %s %s\n", show(s.Width.Text), sure(s.Width), show(s.Length.Text), sure(s.Length))
		}
		if c := p.Cut; c != nil {
			fmt.Fprintf(w, "  %s\n", strings.Join(c.Why, " "))
			for _, e := range c.Edges {
				fmt.Fprintf(w, "  Cut the %s\t%s\n", e.Side, e.Says)
				for _, m := range e.Marks {
					fmt.Fprintf(w, "    at %s\toff %s\t%s\n", show(m.At.Text), show(m.Depth.Text), sure(m.Depth))
				}
			}
		}
		for _, h := range p.Hinges {
			fmt.Fprintf(w, "  %s\tslab %s\tjamb %s\n", strings.ToUpper(h.Name[:1])+h.Name[1:], show(h.Slab.Text), show(h.Jamb.Text))
		}
		if l := p.Latch; l != nil {
			fmt.Fprintf(w, "  Latch\tslab %s\tstrike in the jamb %s\n", show(l.Slab.Text), show(l.Jamb.Text))
			fmt.Fprintf(w, "    backset %s\tbore %s from either face\thandle %s above the floor\n", show(l.Backset.Text), show(l.Centre.Text), show(l.Floor.Text))
		}
	}
	fmt.Fprintf(w, "%s, in %s\n", j.Name, j.Unit)
	for _, o := range j.Openings {
		p := api.NewPlan(j, o)
		fmt.Fprintf(w, "\n%s", strings.ToUpper(o.Name))
		if o.Room != "" {
			fmt.Fprintf(w, ", %s", o.Room)
		}
		fmt.Fprintf(w, "; hinges on the %s, seen from the pull face\n", o.Hand)
		leaf(p)
		if p.Second != nil {
			fmt.Fprintf(w, "  -- the leaf on the lock jamb; its own jamb is called its hinge jamb --\n")
			leaf(*p.Second)
		}
	}
	fmt.Fprintf(w, "\n± is one standard deviation. %s\n", trade.CodeFirst)
	return w.Flush()
}
