package api

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strconv"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/message"
	"kindmargin/photo"
	"kindmargin/store"
)

// Import is the import of a job file or bundle, with its progress. It is atomic.
type Import struct {
	ID      string   `json:"id"`
	State   string   `json:"state" enum:"reading,keeping,done,stopped,refused" doc:"It is read, then kept; or it was stopped, or refused."`
	Done    int      `json:"done" doc:"How many pictures were read."`
	Of      int      `json:"of" doc:"Of how many; nought while that is not known."`
	Problem string   `json:"problem" doc:"Why it was refused."`
	Job     *JobHead `json:"job,omitempty" doc:"What came in."`
}

// The states of an import.
const (
	importReading = "reading"
	importKeeping = "keeping"
	importDone    = "done"
	importStopped = "stopped"
	importRefused = "refused"
)

func newImports() *background[Import] {
	return &background[Import]{
		most: 2, kept: 20,
		many: refusalOf(http.StatusTooManyRequests, "api.imports-busy", nil),
	}
}

// ImportIn is an imported file.
type ImportIn struct {
	Once
	Large
}

// bringIn begins an import and answers with its ID.
func (s server) bringIn(ctx context.Context, in *ImportIn) (*importOut, error) {
	dir, err := s.store.Scratch()
	if err != nil {
		return nil, problem(ctx, err)
	}
	name := filepath.Join(dir, "file")
	digest := sha256.New()
	if err := receive(io.TeeReader(in.body, digest), name, largestZip); err != nil {
		_ = os.RemoveAll(dir)
		return nil, problem(ctx, err)
	}
	once, err := in.of(nil)
	if err != nil {
		_ = os.RemoveAll(dir)
		return nil, err
	}
	once.Asked = hex.EncodeToString(digest.Sum(nil))
	on, stop := context.WithCancel(context.WithoutCancel(ctx))
	id := store.NewID()
	i, begun, err := s.imports.begin(&task[Import]{
		id: id, pass: clientOf(ctx).id, once: once, stop: stop, drop: func() {},
		view: Import{ID: id, State: importReading},
	})
	if err != nil || !begun {
		stop()
		_ = os.RemoveAll(dir)
		if err != nil {
			return nil, problem(ctx, err)
		}
		_, view := s.imports.find(i.id)
		return &importOut{http.StatusAccepted, view}, nil
	}
	if s.underway.over(i.pass) { // ended since the file began to come in
		stop()
	}
	go func() {
		defer os.RemoveAll(dir)
		defer stop()
		s.readImport(on, i, dir)
	}()
	_, view := s.imports.find(i.id)
	return &importOut{http.StatusAccepted, view}, nil
}

type importOut struct {
	Status int
	Body   Import
}

// readImport reads a file and stores its content.
func (s server) readImport(ctx context.Context, i *task[Import], dir string) {
	var head store.Head
	err := recovered(func() (err error) {
		head, err = s.importFrom(ctx, i, dir)
		return err
	})
	s.imports.end(i, err != nil, func(v *Import) {
		switch {
		case err == nil:
			h := headView(head)
			v.State, v.Job = importDone, &h
		case errors.Is(err, context.Canceled):
			v.State = importStopped
		default:
			v.State, v.Problem = importRefused, s.saidOf(ctx, "import", i.id, err)
		}
	})
	if err == nil {
		s.tell(ctx, Changed{Job: head.ID, Label: s.label(ctx, "label.came-in", nil)})
	}
}

// saidOf is why a task failed, in a sentence; internal errors go to the log.
func (s server) saidOf(ctx context.Context, what, id string, err error) string {
	said := problem(ctx, err)
	var status huma.StatusError
	if errors.As(said, &status) && status.GetStatus() >= 500 {
		s.logs.Error("an "+what+" failed", what, id, "cause", err.Error())
	}
	if m, ok := message.Of(said); ok {
		return s.voice(ctx).Say(m)
	}
	return said.Error()
}

func (s server) importFrom(ctx context.Context, i *task[Import], dir string) (h store.Head, err error) {
	f, err := os.Open(filepath.Join(dir, "file"))
	if err != nil {
		return h, err
	}
	defer f.Close()
	at, err := f.Stat()
	if err != nil {
		return h, err
	}
	b, err := Bring(f, at.Size())
	if err != nil {
		return h, err
	}
	s.imports.set(i, func(v *Import) { v.Of = len(b.files) })
	// Each picture waits in a file of its own, so that only a few are in memory.
	picture := func(n int) string { return filepath.Join(dir, strconv.Itoa(n)) }
	err = b.Pictures(ctx, func(n int, k photo.Kept) error {
		if err := os.WriteFile(picture(n), k.Data, 0o600); err != nil {
			return errors.Join(store.ErrDisk, err)
		}
		return nil
	}, func(done int) { s.imports.set(i, func(v *Import) { v.Done = max(v.Done, done) }) })
	if err != nil {
		return h, err
	}
	s.imports.set(i, func(v *Import) { v.State = importKeeping })
	return s.store.AddJob(
		ctx, b.Job, i.once, b.Photos(func(n int) ([]byte, error) { return os.ReadFile(picture(n)) })...,
	)
}

// ImportPath is an import in an address.
type ImportPath struct {
	Import string `path:"import"`
}

var errNoImport = refusalOf(404, "api.no-import", nil)

func (s server) imported(_ context.Context, in *ImportPath) (*body[Import], error) {
	t, view := s.imports.find(in.Import)
	if t == nil {
		return nil, errNoImport
	}
	return &body[Import]{Body: view}, nil
}

// stopImport stops an import; for one that was done already, the answer says so.
func (s server) stopImport(_ context.Context, in *ImportPath) (*body[Import], error) {
	t, view := s.imports.find(in.Import)
	if t == nil {
		return nil, errNoImport
	}
	t.stop()
	return &body[Import]{Body: view}, nil
}
