// Package demo holds two invented houses as open job files.
package demo

import (
	"embed"
	"fmt"

	"kindmargin/core/job"
	"kindmargin/core/plan"
)

//go:embed *.json
var files embed.FS

// Jobs reads the demo jobs, the main one first.
func Jobs() ([]job.Job, error) {
	var jobs []job.Job
	for _, name := range []string{"tern-house.json", "alder-cottage.json"} {
		b, err := files.ReadFile(name)
		if err != nil {
			return nil, err
		}
		j, err := job.Decode(b)
		if err != nil {
			return nil, fmt.Errorf("demo %s: %w", name, err)
		}
		jobs = append(jobs, j)
	}
	// The linen room is in the middle of its tries; the chart room is measured; the boot room was signed off, and
	// reopened in its first autumn.
	finish(jobs[0], 0, job.StepMeasure, job.StepSlab, job.StepMargins, job.StepCut, job.StepHinges, job.StepSwing)
	finish(jobs[0], 2, job.Steps...)
	finish(jobs[0], 1, job.StepMeasure)
	return jobs, nil
}

// finish marks steps as done.
func finish(j job.Job, opening int, steps ...job.Step) {
	o := &j.Openings[opening]
	o.Done = map[job.Step]string{}
	for _, n := range plan.Solve(j, *o).Steps {
		for _, s := range steps {
			if n.Step == s {
				o.Done[s] = n.Mark
			}
		}
	}
}
