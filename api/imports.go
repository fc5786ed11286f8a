package api

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"runtime/debug"
	"slices"
	"strconv"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/photo"
	"kindmargin/store"
)

// Import is a file that comes in: a job, or one with its photographs. It comes in whole or not at all.
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

// What there is of imports at most: underway at once, and of those that have ended, how many are told of.
const (
	mostImports = 2
	mostEnded   = 20
)

// imports are the files that come in, and those that came in of late.
type imports struct {
	sync.Mutex
	list []*importing
}

// importing is one of them. Its view is changed under the lock of all.
type importing struct {
	view  Import
	pass  string // of the device that sent it; empty for this machine
	once  store.Once
	ended bool
	stop  context.CancelFunc
}

var errManyImports = huma.NewError(http.StatusTooManyRequests, "Two files are coming in already: wait until one of them is in, or stop it.")

// begin takes one up; begun is false where the same one was taken up before.
func (l *imports) begin(pass string, once store.Once, stop context.CancelFunc) (i *importing, begun bool, err error) {
	l.Lock()
	defer l.Unlock()
	underway := 0
	for _, x := range l.list {
		if !x.ended {
			underway++
		}
		if once.Key == "" || x.once.Key != once.Key || x.view.State == importStopped || x.view.State == importRefused {
			continue
		}
		if x.once.Asked != once.Asked {
			return nil, false, store.ErrKey
		}
		i = x
	}
	switch {
	case i != nil:
		return i, false, nil
	case underway >= mostImports:
		return nil, false, errManyImports
	}
	i = &importing{view: Import{ID: store.NewID(), State: importReading}, pass: pass, once: once, stop: stop}
	l.list = append(l.list, i)
	for n := len(l.list) - underway - 1; n > mostEnded; n-- { // the oldest that has ended goes
		at := slices.IndexFunc(l.list, func(x *importing) bool { return x.ended })
		l.list = slices.Delete(l.list, at, at+1)
	}
	return i, true, nil
}

// end stops those of a device whose pass was ended.
func (l *imports) end(pass string) {
	l.Lock()
	defer l.Unlock()
	for _, i := range l.list {
		if i.pass == pass {
			i.stop()
		}
	}
}

// find is one of them, as it stands.
func (l *imports) find(id string) (view Import, stop context.CancelFunc, ok bool) {
	l.Lock()
	defer l.Unlock()
	for _, i := range l.list {
		if i.view.ID == id {
			return i.view, i.stop, true
		}
	}
	return view, nil, false
}

// set changes how one of them stands.
func (l *imports) set(i *importing, change func(*Import)) {
	l.Lock()
	defer l.Unlock()
	change(&i.view)
	if i.view.State != importReading && i.view.State != importKeeping {
		i.ended = true
	}
}

// ImportIn is a file that is brought in.
type ImportIn struct {
	Once
	Large
}

// bringIn takes a file and reads it on its own: the answer says under which ID it is found.
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
	i, begun, err := s.imports.begin(deviceOf(ctx).id, once, stop)
	if err != nil || !begun {
		stop()
		_ = os.RemoveAll(dir)
		if err != nil {
			return nil, problem(ctx, err)
		}
		view, _, _ := s.imports.find(i.view.ID)
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
	view, _, _ := s.imports.find(i.view.ID)
	return &importOut{http.StatusAccepted, view}, nil
}

type importOut struct {
	Status int
	Body   Import
}

// readImport reads a file and keeps what is in it.
func (s server) readImport(ctx context.Context, i *importing, dir string) {
	defer func() {
		if p := recover(); p != nil {
			s.logs.Error("an import panicked", "import", i.view.ID, "cause", fmt.Sprintf("%v\n%s", p, debug.Stack()))
			s.imports.set(i, func(v *Import) { v.State, v.Problem = importRefused, wentWrong })
		}
	}()
	head, err := s.importFrom(ctx, i, dir)
	s.imports.set(i, func(v *Import) {
		switch {
		case err == nil:
			h := headView(head)
			v.State, v.Job = importDone, &h
		case errors.Is(err, context.Canceled):
			v.State = importStopped
		default:
			v.State, v.Problem = importRefused, s.sayImport(ctx, i, err)
		}
	})
	if err == nil {
		s.tell(ctx, Changed{Job: head.ID, Label: "a job came in"})
	}
}

// sayImport is why a file was refused, in a sentence; what went wrong inside goes to the log.
func (s server) sayImport(ctx context.Context, i *importing, err error) string {
	said := problem(ctx, err)
	var status huma.StatusError
	if errors.As(said, &status) && status.GetStatus() >= 500 {
		s.logs.Error("an import failed", "import", i.view.ID, "cause", err.Error())
	}
	return said.Error()
}

func (s server) importFrom(ctx context.Context, i *importing, dir string) (h store.Head, err error) {
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
	// Each picture waits in a file of its own, so that there is never more than a few of them in memory.
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
	return s.store.AddJob(ctx, b.Job, i.once, b.Photos(func(n int) ([]byte, error) { return os.ReadFile(picture(n)) })...)
}

// ImportPath is an import in an address.
type ImportPath struct {
	Import string `path:"import"`
}

var errNoImport = huma.Error404NotFound("There is no such import, or it ended long ago: see whether the job is on the list.")

func (s server) imported(_ context.Context, in *ImportPath) (*body[Import], error) {
	view, _, ok := s.imports.find(in.Import)
	if !ok {
		return nil, errNoImport
	}
	return &body[Import]{Body: view}, nil
}

// stopImport stops one; where it was in already, the answer says so.
func (s server) stopImport(_ context.Context, in *ImportPath) (*body[Import], error) {
	view, stop, ok := s.imports.find(in.Import)
	if !ok {
		return nil, errNoImport
	}
	stop()
	return &body[Import]{Body: view}, nil
}
