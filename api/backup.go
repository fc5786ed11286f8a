package api

import (
	"archive/zip"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"

	"kindmargin/core/message"
	"kindmargin/store"
)

// mostBackup is the largest backup that is accepted, in bytes.
const mostBackup = 4 << 30

// slow is the time limit for transferring a whole data file.
const slow = 10 * time.Minute

// RestoredView is what a restore changed.
type RestoredView struct {
	Jobs     int    `json:"jobs"`
	Openings int    `json:"openings"`
	Changes  int    `json:"changes"`
	Before   string `json:"before" doc:"The file's name that holds what was there before, beside the data file."`
}

// backup sends a consistent copy of the data file, read back first.
func (s server) backup(ctx context.Context, _ *Large) (*huma.StreamResponse, error) {
	dir, err := s.store.Scratch()
	if err != nil {
		return nil, problem(ctx, err)
	}
	name := filepath.Join(dir, "backup.db")
	if _, err := s.store.Backup(ctx, name); err != nil {
		_ = os.RemoveAll(dir)
		return nil, problem(ctx, err)
	}
	f, err := os.Open(name)
	if err != nil {
		_ = os.RemoveAll(dir)
		return nil, problem(ctx, err)
	}
	return sends(f, typeDB, "kindmargin-backup-"+today()+".db", func() { _ = os.RemoveAll(dir) }), nil
}

// Large is a request without the usual time limit; its body is streamed, since it is too large for memory.
type Large struct{ body io.Reader }

// Resolve keeps the body and sets the time limit.
func (l *Large) Resolve(c huma.Context) []error {
	_, w := humachi.Unwrap(c)
	until, conn := time.Now().Add(slow), http.NewResponseController(w)
	_ = errors.Join(conn.SetReadDeadline(until), conn.SetWriteDeadline(until)) // where it cannot be set there is none
	l.body = c.BodyReader()
	return nil
}

// restoreFrom replaces all data by a backup in the body.
func (s server) restoreFrom(ctx context.Context, in *Large) (*body[RestoredView], error) {
	dir, err := s.store.Scratch()
	if err != nil {
		return nil, problem(ctx, err)
	}
	defer os.RemoveAll(dir)
	name := filepath.Join(dir, "sent.db")
	if err := receive(in.body, name, mostBackup); err != nil {
		return nil, problem(ctx, err)
	}
	r, err := s.store.Restore(ctx, name)
	switch {
	case errors.Is(err, store.ErrDisk), errors.Is(err, store.ErrBusy):
		return nil, problem(ctx, err)
	case err != nil:
		traceOf(ctx).cause = err
		return nil, refusalOf(http.StatusUnprocessableEntity, notRestored(err), nil)
	}
	s.plans.forget()
	s.tell(ctx, Changed{Label: s.label(ctx, "label.restored", nil)})
	return &body[RestoredView]{Body: RestoredView{r.Jobs, r.Openings, r.Changes, filepath.Base(r.Before)}}, nil
}

// notRestored is why a file was not restored, without paths of this machine.
func notRestored(err error) message.ID {
	switch {
	case errors.Is(err, store.ErrDamaged):
		return "api.backup-damaged"
	case errors.Is(err, store.ErrNewer):
		return "api.backup-newer"
	}
	return "api.backup-none"
}

// receive writes the body to a file, up to a number of bytes.
func receive(r io.Reader, name string, most int64) error {
	f, err := os.Create(name)
	if err != nil {
		return errors.Join(store.ErrDisk, err)
	}
	sent := &cutShort{r: io.LimitReader(r, most+1)}
	n, err := io.Copy(f, sent)
	if cerr := f.Close(); cerr != nil && err == nil {
		err = errors.Join(store.ErrDisk, cerr)
	}
	switch {
	case n > most:
		return refusalOf(http.StatusRequestEntityTooLarge, "api.too-large", nil)
	case sent.err != nil:
		return refusalOf(http.StatusBadRequest, "api.unreadable", nil)
	}
	return err
}

// cutShort records read errors of the body, to tell them from write errors of the disk.
type cutShort struct {
	r   io.Reader
	err error
}

func (c *cutShort) Read(b []byte) (int, error) {
	n, err := c.r.Read(b)
	if err != nil && !errors.Is(err, io.EOF) {
		c.err = err
	}
	return n, err
}

// wholeFile sends a file that is written completely first, so that a failure half-way is not taken for success.
func (s server) wholeFile(
	ctx context.Context, kind, name string, write func(io.Writer) error,
) (*huma.StreamResponse, error) {
	dir, err := s.store.Scratch()
	if err != nil {
		return nil, problem(ctx, err)
	}
	f, err := os.Create(filepath.Join(dir, "file"))
	if err != nil {
		_ = os.RemoveAll(dir)
		return nil, problem(ctx, errors.Join(store.ErrDisk, err))
	}
	if err = write(onDisk{f}); err == nil {
		_, err = f.Seek(0, io.SeekStart)
	}
	if err != nil {
		_, _ = f.Close(), os.RemoveAll(dir)
		return nil, problem(ctx, err)
	}
	return sends(f, kind, name, func() { _ = os.RemoveAll(dir) }), nil
}

// everything sends all jobs, where they have few openings.
func (s server) everything(ctx context.Context, _ *Large) (*huma.StreamResponse, error) {
	m, err := s.makesEverything(ctx)
	if err == nil && m.of > mostAtOnce {
		err = errExport
	}
	if err != nil {
		return nil, problem(ctx, err)
	}
	return s.wholeFile(ctx, m.kind, m.file, func(w io.Writer) error { return m.write(ctx, w, untold) })
}

// makesEverything writes all jobs as one zip of open files: of each its job file, its photographs and its tables as a
// workbook.
func (s server) makesEverything(ctx context.Context) (made, error) {
	heads, err := s.store.Jobs(ctx)
	m := made{file: "kindmargin-everything-" + today() + ".zip", kind: typeZip}
	for _, h := range heads {
		if !h.Removed && h.Broken == nil {
			m.of += h.Openings
		}
	}
	m.write = func(ctx context.Context, w io.Writer, told func()) error {
		z := zip.NewWriter(w)
		return errors.Join(s.putJobs(ctx, z, heads, told), z.Close())
	}
	return m, err
}

func (s server) putJobs(ctx context.Context, z *zip.Writer, heads []store.Head, told func()) error {
	used := map[string]bool{}
	var unread []string
	for _, h := range heads {
		if h.Removed {
			continue
		}
		if h.Broken != nil {
			unread = append(unread, h.Name+" ("+h.ID+")")
			continue
		}
		dir := fileStem(h.Name)
		for n := 2; used[dir] || dir == ""; n++ {
			dir = fmt.Sprintf("%s-%d", fileStem(h.Name), n)
		}
		used[dir] = true
		if err := s.putJob(ctx, z, dir+"/", h.ID, told); err != nil {
			return err
		}
	}
	if len(unread) == 0 {
		return nil
	}
	return readMe(z, s.label(ctx, "api.zip-without", nil)+"\n\n"+strings.Join(unread, "\n")+"\n")
}

// readMe adds a text on the zip's content.
func readMe(z *zip.Writer, text string) error {
	w, err := z.CreateHeader(&zip.FileHeader{Name: "READ-ME.txt", Method: zip.Deflate, Modified: time.Now()})
	if err == nil {
		_, err = io.WriteString(w, text)
	}
	return err
}

// putJob adds one job to a zip, in a folder, and calls told after each opening of its tables.
func (s server) putJob(ctx context.Context, z *zip.Writer, dir, id string, told func()) error {
	j, err := s.whole(ctx, id)
	if err != nil {
		return err
	}
	if err := s.bundleInto(ctx, z, dir, j, 0); err != nil {
		return err
	}
	w, err := z.CreateHeader(&zip.FileHeader{Name: dir + "tables.xlsx", Method: zip.Deflate, Modified: time.Now()})
	if err != nil {
		return err
	}
	return writeTables(ctx, w, j, told)
}
