package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/document"
	"kindmargin/document/paper"
	"kindmargin/store"
)

// The exports besides papers and tables.
const (
	exportLoad       = "load-list"
	exportRod        = "story-rod"
	exportBook       = "book"
	exportTables     = "tables"
	exportFile       = "file"
	exportBundle     = "bundle"
	exportEverything = "everything"
)

// NewExport is the request for an export.
type NewExport struct {
	What     string   `json:"what" doc:"A paper: card, book, order, load. A table as CSV: schedule, measured, slabs, hardware, margins; tables for a workbook of all. load-list or story-rod as JSON. file or bundle: the open job file, alone or with its photographs. everything: all jobs as a zip."`
	Job      string   `json:"job" doc:"The job's ID; none for everything."`
	Openings []string `json:"openings,omitempty" doc:"IDs; all of the job's where none is given."`
	From     string   `json:"from,omitempty" doc:"The opening that a story rod is marked from."`
	Paper    string   `json:"paper,omitempty" doc:"For a paper: a4, a3, letter or tabloid; a4 where none is given."`
}

// Export is a file that is made in the background, with its progress.
type Export struct {
	ID      string `json:"id"`
	State   string `json:"state" enum:"waiting,making,done,stopped,failed" doc:"One is made at a time: it waits, is made, is done; or it was stopped, or failed."`
	Done    int    `json:"done" doc:"How much is made, of what of says."`
	Of      int    `json:"of" doc:"Nought while that is not known."`
	Problem string `json:"problem" doc:"Why it failed."`
	File    string `json:"file" doc:"What the file is called."`

	path, kind string // where it is on this machine, and its media type
}

// The states of an export.
const (
	exportWaiting = "waiting"
	exportMaking  = "making"
	exportDone    = "done"
	exportStopped = "stopped"
	exportFailed  = "failed"
)

func newExports() *background[Export] {
	return &background[Export]{
		most: 10, kept: 5,
		many: refusalOf(http.StatusTooManyRequests, "api.exports-busy", nil),
	}
}

// made is a function that writes an export.
type made struct {
	file, kind string // its name and media type
	of         int    // how often write calls told
	write      func(ctx context.Context, w io.Writer, told func()) error
}

// makes is the function for a requested export; openings are read in turn.
func (s server) makes(ctx context.Context, in NewExport) (made, error) {
	if in.What == exportEverything {
		return s.makesEverything(ctx)
	}
	head, err := s.store.Head(ctx, in.Job)
	if err != nil {
		return made{}, err
	}
	stem, count := fileStem(head.Name), head.Openings
	if len(in.Openings) > 0 {
		count = len(in.Openings)
	}
	if count == 1 {
		j, err := s.chosen(ctx, in.Job, in.Openings)
		if err != nil {
			return made{}, err
		}
		stem += "-" + fileStem(j.Openings[0].Name)
	}
	f, err := s.fileOf(in)
	if err != nil {
		return made{}, err
	}
	return made{file: stem +
		f.ends, kind: f.kind, of: count * f.passes, write: func(ctx context.Context, w io.Writer, told func()) error {
		j, err := s.chosen(ctx, in.Job, in.Openings)
		if err != nil {
			return err
		}
		return f.write(ctx, w, j, told)
	}}, nil
}

// fileOf is a file of a job: its name's ending, its media type, and how often write calls told for each opening.
type fileOf struct {
	ends, kind string
	passes     int
	write      func(ctx context.Context, w io.Writer, j job.Job, told func()) error
}

// fileOf finds the requested file.
func (s server) fileOf(in NewExport) (fileOf, error) {
	switch {
	case slices.ContainsFunc(paper.Kinds, func(k paper.Kind) bool { return k.ID == in.What }):
		if in.Paper == "" {
			in.Paper = "a4"
		}
		return fileOf{"-" + in.What + ".pdf", typePDF, paper.Passes(
			in.What,
		), func(ctx context.Context, w io.Writer, j job.Job, told func()) error {
			log, err := s.ownPace(ctx, j.ID)
			if err != nil {
				return err
			}
			return paper.Write(ctx, w, paper.Asked{
				Kind: in.What, Paper: in.Paper, Job: j, Log: log, Pictures: s.pictures(ctx, j.ID), Told: told,
			})
		}}, nil
	case slices.ContainsFunc(document.ScheduleTables, func(t document.ScheduleTable) bool { return t.ID == in.What }):
		return fileOf{"-" + in.What +
			".csv", typeCSV, 1, func(ctx context.Context, w io.Writer, j job.Job, told func()) error {
			return writeTable(ctx, w, j, in.What, told)
		}}, nil
	}
	switch in.What {
	case exportTables:
		return fileOf{".xlsx", typeXLSX, 1, writeTables}, nil
	case exportLoad:
		return fileOf{"-load.json", typeJSON, 1, s.writeLoad}, nil
	case exportRod:
		return fileOf{"-rod.json", typeJSON, 1, func(ctx context.Context, w io.Writer, j job.Job, told func()) error {
			return writeRod(ctx, w, j, in.From, told)
		}}, nil
	case exportFile:
		return fileOf{".job.json", typeJSON, 0, writeFile}, nil
	case exportBundle:
		return fileOf{".job.zip", typeZip, 0, s.writeBundle}, nil
	}
	return fileOf{}, refusalOf(422, "api.no-export-kind", message.Args{"given": message.Quote(in.What)})
}

func (s server) writeLoad(ctx context.Context, w io.Writer, j job.Job, told func()) error {
	log, err := s.ownPace(ctx, j.ID)
	if err != nil {
		return err
	}
	v, err := document.LoadFor(ctx, j, log, told)
	if err != nil {
		return err
	}
	return json.NewEncoder(w).Encode(v)
}

func writeRod(ctx context.Context, w io.Writer, j job.Job, from string, told func()) error {
	v, ok, err := document.Rod(ctx, j, from, told)
	if err != nil {
		return err
	}
	if !ok {
		return errNoRod
	}
	return json.NewEncoder(w).Encode(v)
}

func writeFile(_ context.Context, w io.Writer, j job.Job, _ func()) error {
	doc, err := jobFile(j)
	if err != nil {
		return err
	}
	_, err = w.Write(doc)
	return err
}

type exportOut struct {
	Status int
	Body   Export
}

// makeExport begins an export and answers with its ID.
func (s server) makeExport(ctx context.Context, in *struct {
	Once
	raw
},
) (*exportOut, error) {
	asked, err := read[NewExport](job.Rename(in.RawBody, keysNow))
	if err != nil {
		return nil, problem(ctx, err)
	}
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	m, err := s.makes(ctx, asked)
	if err != nil {
		return nil, problem(ctx, err)
	}
	dir, err := s.store.Scratch()
	if err != nil {
		return nil, problem(ctx, err)
	}
	on, stop := context.WithCancel(context.WithoutCancel(ctx))
	id, drop := store.NewID(), func() { _ = os.RemoveAll(dir) }
	e, begun, err := s.exports.begin(&task[Export]{
		id: id, pass: clientOf(ctx).id, once: once, stop: stop, drop: drop,
		view: Export{
			ID: id, State: exportWaiting, Of: m.of, File: m.file, path: filepath.Join(dir, "file"), kind: m.kind,
		},
	})
	if err != nil || !begun {
		stop()
		drop()
		if err != nil {
			return nil, problem(ctx, err)
		}
		_, view := s.exports.find(e.id)
		return &exportOut{http.StatusAccepted, view}, nil
	}
	if s.underway.over(e.pass) { // ended since it was asked for
		stop()
	}
	go func() {
		defer stop()
		s.writeExport(on, e, m)
	}()
	_, view := s.exports.find(e.id)
	return &exportOut{http.StatusAccepted, view}, nil
}

// writeExport writes an export when its turn comes.
func (s server) writeExport(ctx context.Context, e *task[Export], m made) {
	path := e.view.path // which is set for good
	err := recovered(func() error {
		if err := s.making.Acquire(ctx, 1); err != nil {
			return err
		}
		defer s.making.Release(1)
		s.exports.set(e, func(v *Export) { v.State = exportMaking })
		f, err := os.Create(path)
		if err != nil {
			return errors.Join(store.ErrDisk, err)
		}
		err = m.write(ctx, onDisk{f}, func() { s.exports.set(e, func(v *Export) { v.Done++ }) })
		if cerr := f.Close(); cerr != nil && err == nil {
			err = errors.Join(store.ErrDisk, cerr)
		}
		return err
	})
	if err != nil {
		_ = os.Remove(path)
	}
	s.exports.end(e, err != nil, func(v *Export) {
		switch {
		case err == nil:
			v.State = exportDone
		case errors.Is(err, context.Canceled):
			v.State = exportStopped
		default:
			v.State, v.Problem = exportFailed, s.saidOf(ctx, "export", e.id, err)
		}
	})
}

// onDisk tells errors of the disk from errors of the content.
type onDisk struct{ w io.Writer }

func (d onDisk) Write(b []byte) (int, error) {
	n, err := d.w.Write(b)
	if err != nil {
		err = errors.Join(store.ErrDisk, err)
	}
	return n, err
}

// ExportPath is an export in an address.
type ExportPath struct {
	Export string `path:"export"`
}

var errNoExport = refusalOf(404, "api.no-export", nil)

func (s server) exported(_ context.Context, in *ExportPath) (*body[Export], error) {
	t, view := s.exports.find(in.Export)
	if t == nil {
		return nil, errNoExport
	}
	return &body[Export]{Body: view}, nil
}

// stopExport stops an export; for one that was done already, the answer says so.
func (s server) stopExport(_ context.Context, in *ExportPath) (*body[Export], error) {
	t, view := s.exports.find(in.Export)
	if t == nil {
		return nil, errNoExport
	}
	t.stop()
	return &body[Export]{Body: view}, nil
}

// sendExport sends the file, once it is made.
func (s server) sendExport(_ context.Context, in *struct {
	ExportPath
	Large
},
) (*huma.StreamResponse, error) {
	t, view := s.exports.find(in.Export)
	switch {
	case t == nil:
		return nil, errNoExport
	case view.State != exportDone:
		return nil, refusalOf(http.StatusConflict, "api.not-made-yet", nil)
	}
	f, err := os.Open(view.path)
	if err != nil { // told of no more since
		return nil, errNoExport
	}
	return sends(f, view.kind, view.File, func() {}), nil
}

// sends is an answer with an open file; it closes it, then calls gone.
func sends(f *os.File, kind, name string, gone func()) *huma.StreamResponse {
	return &huma.StreamResponse{Body: func(c huma.Context) {
		defer gone()
		defer f.Close()
		c.SetHeader("Content-Type", kind)
		c.SetHeader("Content-Disposition", attached(name))
		if at, err := f.Stat(); err == nil {
			c.SetHeader("Content-Length", fmt.Sprint(at.Size()))
		}
		_, _ = io.Copy(c.BodyWriter(), f) // who has gone is not told
	}}
}

// today is the date in a file's name.
func today() string { return time.Now().Format(time.DateOnly) }
