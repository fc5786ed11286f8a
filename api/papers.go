package api

import (
	"bytes"
	"context"
	"iter"

	"kindmargin/core/job"
	"kindmargin/document/paper"
)

// papers writes some openings of a job as PDF.
func (s server) papers(ctx context.Context, in *struct {
	OpeningsIn
	Large
	Kind  string `query:"kind" required:"true" doc:"card, book, order or load."`
	Paper string `query:"paper" default:"a4" doc:"a4, a3, letter or tabloid."`
},
) (*sheetOut, error) {
	j, err := s.few(ctx, in.Job, in.Openings)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if in.Kind == exportBook {
		if err := s.shortBook(ctx, j); err != nil {
			return nil, problem(ctx, err)
		}
	}
	log, err := s.ownPace(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	var b bytes.Buffer
	asked := paper.Asked{Kind: in.Kind, Paper: in.Paper, Job: j, Log: log, Pictures: s.pictures(ctx, in.Job)}
	if err := paper.Write(ctx, &b, asked); err != nil {
		return nil, problem(ctx, err)
	}
	name := fileStem(j.Name)
	if len(j.Openings) == 1 {
		name += "-" + fileStem(j.Openings[0].Name)
	}
	return &sheetOut{typePDF, attached(name + "-" + in.Kind + ".pdf"), b.Bytes()}, nil
}

// Bounds on a book that is made in a request: each opening is planned twice, each photograph scaled down.
const (
	mostPictured = 8
	mostBooked   = mostAtOnce / 2
)

// shortBook rejects openings that are too many for such a book.
func (s server) shortBook(ctx context.Context, j job.Job) error {
	if len(j.Openings) > mostBooked {
		return errExport
	}
	n := 0
	for _, o := range j.Openings {
		list, err := s.store.Photos(ctx, j.ID, o.ID)
		if err != nil {
			return err
		}
		n += len(list)
	}
	if n > mostPictured {
		return errExport
	}
	return nil
}

// attached is the Content-Disposition of a download.
func attached(name string) string { return `attachment; filename="` + name + `"` }

// pictures reads the photographs of a job's openings for a book.
func (s server) pictures(ctx context.Context, jobID string) paper.Pictures {
	return func(opening string) iter.Seq2[paper.Photo, error] {
		return func(yield func(paper.Photo, error) bool) {
			photos, err := s.store.Photos(ctx, jobID, opening)
			if err != nil {
				yield(paper.Photo{}, err)
			}
			for _, p := range photos {
				b, err := s.store.PhotoData(ctx, jobID, opening, p.ID)
				shot := paper.Photo{Opening: opening, Step: p.Step, At: p.At, By: p.By, Caption: p.Caption, Data: b}
				if !yield(shot, err) {
					return
				}
			}
		}
	}
}
