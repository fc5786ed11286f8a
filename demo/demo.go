// Package demo holds two invented houses as open job files.
package demo

import (
	"embed"
	"fmt"

	"kindmargin/core/job"
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
	return jobs, nil
}
