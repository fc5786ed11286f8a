package main

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"iter"
	"os"
	"slices"
	"strings"
	"sync"

	"kindmargin/api"
	"kindmargin/core/job"
	"kindmargin/core/measure"
	"kindmargin/document"
	"kindmargin/document/paper"
	"kindmargin/document/table"
	"kindmargin/document/template"
	"kindmargin/photo"
)

// jobFile is a job file to draw or print, and where the result goes.
type jobFile struct {
	File  string `arg:"" help:"A job file, or a zip with its photographs; - for standard input."`
	Out   string `help:"File to write; standard output where it is not given." type:"path"`
	Force bool   `help:"Write over a file that is there; never over the one that is read."`
}

func (c jobFile) read() (*api.Brought, error) {
	b, err := readFile(c.File)
	if err != nil {
		return nil, err
	}
	return api.Bring(bytes.NewReader(b), int64(len(b)))
}

// pictures are the photographs that came with a job, for a book.
func pictures(ctx context.Context, b *api.Brought) (paper.Pictures, error) {
	var mu sync.Mutex
	data := map[int][]byte{}
	err := b.Pictures(ctx, func(n int, k photo.Kept) error {
		mu.Lock()
		defer mu.Unlock()
		data[n] = k.Data
		return nil
	}, func(int) {})
	photos := b.Photos(func(n int) ([]byte, error) { return data[n], nil })
	return func(opening string) iter.Seq2[paper.Photo, error] {
		return func(yield func(paper.Photo, error) bool) {
			for _, p := range photos {
				if p.Opening != opening {
					continue
				}
				b, err := p.Load()
				if !yield(
					paper.Photo{Opening: opening, Step: p.Step, At: p.At, By: p.By, Caption: p.Caption, Data: b}, err,
				) {
					return
				}
			}
		}
	}, err
}

func (c jobFile) write(out io.Writer, b []byte) error {
	if c.Out == "" {
		_, err := out.Write(b)
		return err
	}
	was, err := os.Stat(c.Out)
	switch {
	case errors.Is(err, fs.ErrNotExist):
	case err != nil:
		return err
	case c.File != "-":
		if in, err := os.Stat(c.File); err == nil && os.SameFile(in, was) {
			return fmt.Errorf("%s is the file that was read: it is not written over. Give --out another name", c.Out)
		}
		fallthrough
	default:
		if !c.Force {
			return fmt.Errorf("%s is there already: give another name, or --force to write over it", c.Out)
		}
	}
	return os.WriteFile(c.Out, b, 0o644)
}

// find finds an opening by its name or its ID.
func find(j job.Job, name string) (job.Opening, error) {
	i := slices.IndexFunc(j.Openings, func(o job.Opening) bool {
		return o.ID == name || strings.EqualFold(o.Name, name)
	})
	if i < 0 {
		return job.Opening{}, fmt.Errorf("there is no opening %q in that job", name)
	}
	return j.Openings[i], nil
}

type paperCmd struct {
	jobFile
	Kind    string   `help:"Which paper." enum:"card,book,order,load" required:""`
	Opening []string `help:"The openings, by name or id; all of them where none is given."`
	Paper   string   `help:"What it is printed on." enum:"a4,a3,letter,tabloid" default:"a4"`
}

func (c paperCmd) Run(ctx context.Context, out io.Writer) error {
	brought, err := c.read()
	if err != nil {
		return err
	}
	asked := paper.Asked{Kind: c.Kind, Paper: c.Paper, Job: brought.Job}
	if len(c.Opening) > 0 {
		asked.Job.Openings = nil
	}
	for _, name := range c.Opening {
		o, err := find(brought.Job, name)
		if err != nil {
			return err
		}
		asked.Job.Openings = append(asked.Job.Openings, o)
	}
	if c.Kind == "book" {
		if asked.Pictures, err = pictures(ctx, brought); err != nil {
			return err
		}
	}
	var b bytes.Buffer
	if err := paper.Write(ctx, &b, asked); err != nil {
		return err
	}
	return c.write(out, b.Bytes())
}

type scheduleCmd struct {
	jobFile
	Format string `help:"How to write it: xlsx with all tables, or csv with one." enum:"xlsx,csv" default:"xlsx"`
	Table  string `help:"For csv, which table." enum:"schedule,measured,slabs,hardware,margins" default:"schedule"`
}

func (c scheduleCmd) Run(ctx context.Context, out io.Writer) error {
	brought, err := c.read()
	if err != nil {
		return err
	}
	tables, err := document.Schedule(ctx, brought.Job, func() {})
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if c.Format == "xlsx" {
		err = table.XLSX(&b, tables)
	} else {
		err = tables[slices.IndexFunc(tables, func(t table.Sheet) bool { return t.ID == c.Table })].CSV(&b)
	}
	if err != nil {
		return err
	}
	return c.write(out, b.Bytes())
}

type templateCmd struct {
	jobFile
	Opening  string  `help:"The opening, by its name or its id." required:""`
	Template string  `help:"What to draw." enum:"card,lock,plate,strike,case,block,hinge,rail,rod" required:""`
	Leaf     int     `help:"Of a pair, the leaf." default:"1"`
	Format   string  `help:"How to write it." enum:"pdf,svg,dxf,stl" default:"pdf"`
	Paper    string  `help:"What it is printed on." enum:"a4,a3,letter,tabloid" default:"a4"`
	Bush     string  `help:"The router's guide bush, in mm or with its unit; the kit's where it is not given."`
	Cutter   string  `help:"Its cutter."`
	Printed  float64 `help:"At what percent of full size the printer prints." default:"100"`
}

func (c templateCmd) Run(ctx context.Context, out io.Writer) error {
	if c.Template == "card" {
		return paperCmd{c.jobFile, "card", []string{c.Opening}, c.Paper}.Run(ctx, out)
	}
	brought, err := c.read()
	if err != nil {
		return err
	}
	j := brought.Job
	o, err := find(j, c.Opening)
	if err != nil {
		return err
	}
	r := j.Kit.Router()
	for text, to := range map[string]*measure.Length{c.Bush: &r.Bush, c.Cutter: &r.Cutter} {
		if text == "" {
			continue
		}
		if *to, err = measure.Parse(text, measure.Millimetres); err != nil {
			return err
		}
	}
	var buf bytes.Buffer
	asked := template.Asked{
		Template: c.Template, Format: c.Format, Paper: c.Paper, Leaf: c.Leaf - 1, Printed: c.Printed / 100, Router: r,
	}
	if err := template.Write(&buf, j, o, asked); err != nil {
		return err
	}
	return c.write(out, buf.Bytes())
}
