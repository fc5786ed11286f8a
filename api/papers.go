package api

import (
	"bytes"
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/job"
	"kindmargin/core/load"
	"kindmargin/core/plan"
	"kindmargin/sheet/paper"
)

// largestBook is the most that a book's pictures come to.
const largestBook = 200 << 20

// papers puts some doors of a job on paper.
func (s server) papers(ctx context.Context, in *struct {
	DoorsIn
	Large
	Kind  string `query:"kind" required:"true" doc:"card, book, order or load."`
	Paper string `query:"paper" default:"a4" doc:"a4, a3, letter or tabloid."`
},
) (*sheetOut, error) {
	j, doors, end, err := s.planned(ctx, in.Job, in.Doors)
	defer end()
	if err != nil {
		return nil, problem(ctx, err)
	}
	var b bytes.Buffer
	if err := paper.Write(ctx, &b, in.Kind, in.Paper, j, doors, s.pictures(ctx, in.Job)); err != nil {
		return nil, problem(ctx, err)
	}
	name := fileStem(j.Name)
	if len(doors) == 1 {
		name += "-" + fileStem(doors[0].Name)
	}
	return &sheetOut{"application/pdf", fmt.Sprintf(`attachment; filename="%s-%s.pdf"`, name, in.Kind), b.Bytes()}, nil
}

// pictures are the photographs of a job's doors, as a book asks for them.
func (s server) pictures(ctx context.Context, jobID string) paper.Pictures {
	total := 0
	return func(opening string) (list []paper.Photo, err error) {
		photos, err := s.store.Photos(ctx, jobID, opening)
		if err != nil {
			return nil, err
		}
		for _, p := range photos {
			b, err := s.store.PhotoData(ctx, jobID, opening, p.ID)
			if err != nil {
				return nil, err
			}
			if total += len(b); total > largestBook {
				return nil, huma.Error422UnprocessableEntity("The pictures of these doors come to more than 200 MB, which no book holds: choose fewer doors, and make two books.")
			}
			list = append(list, paper.Photo{Opening: opening, Step: p.Step, At: p.At, By: p.By, Caption: p.Caption, Data: b})
		}
		return list, nil
	}
}

// oneDoor is a door of a job with its plan.
func oneDoor(j job.Job, o job.Opening) []load.Door {
	return []load.Door{{Opening: o, Plan: plan.Solve(j, o)}}
}
