package api

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/job"
	"kindmargin/store"
)

// JobPath is the job in an address.
type JobPath struct {
	Job string `path:"job"`
}

// Precondition is the version that a change was made from.
type Precondition struct {
	IfMatch string `header:"If-Match" doc:"The ETag that the change was made from."`
}

// Once is an idempotency key: the same request sent again with it has no further effect and gets the same answer; a
// different request with it is refused.
type Once struct {
	Key string `header:"Idempotency-Key" doc:"A key of your own: the same request sent again makes nothing more; another one with it is refused."`

	asks string // the method and the address
}

// Resolve digests the request.
func (o *Once) Resolve(c huma.Context) []error {
	at := c.URL()
	o.asks = c.Method() + " " + at.RequestURI()
	return nil
}

// of is the key of a request with a body.
func (o Once) of(body []byte) (store.Once, error) {
	if len(o.Key) > 80 {
		return store.Once{}, refusalOf(422, "api.key-long", nil)
	}
	if o.Key == "" {
		return store.Once{}, nil
	}
	asked := sha256.Sum256(append([]byte(o.asks+"\n"), body...))
	return store.Once{Key: o.Key, Asked: hex.EncodeToString(asked[:])}, nil
}

type raw struct {
	RawBody []byte `contentType:"application/json"`
}

type body[T any] struct {
	ETag string `header:"ETag"`
	Body T
}

func (s server) jobs(ctx context.Context, _ *struct{}) (*body[[]JobHead], error) {
	heads, err := s.store.Jobs(ctx)
	if err != nil {
		return nil, problem(ctx, err)
	}
	out := &body[[]JobHead]{Body: []JobHead{}}
	for _, h := range heads {
		out.Body = append(out.Body, headView(h))
	}
	return out, nil
}

func (s server) addJob(ctx context.Context, in *struct {
	Once
	raw
},
) (*body[JobHead], error) {
	asked, err := read[NewJob](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	j := job.NewJob("", strings.TrimSpace(asked.Name), asked.Unit)
	if err := j.CheckHead(); err != nil {
		return nil, problem(ctx, err)
	}
	h, err := s.store.AddJob(ctx, j, once)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return headBody(h), nil
}

func (s server) changeJob(ctx context.Context, in *struct {
	JobPath
	Precondition
	Once
	raw
},
) (*body[JobHead], error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	asked, err := read[JobChange](job.RenameJob(in.RawBody))
	if err != nil {
		return nil, problem(ctx, err)
	}
	head, err := s.store.Head(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if asked.Name != nil {
		head.Name = strings.TrimSpace(*asked.Name)
	}
	if asked.Unit != nil {
		head.Unit = *asked.Unit
		head.Tape = head.Tape.In(head.Unit)
	}
	if asked.Tape != nil {
		head.Tape = *asked.Tape
	}
	if asked.Language != nil {
		head.Language = *asked.Language
	}
	if asked.Presets != nil {
		head.Presets = *asked.Presets
	}
	was := head.Kit
	if asked.Kit != nil {
		head.Kit = *asked.Kit
	}
	if asked.Usual != nil {
		if head.Usual, err = s.usual(ctx, head, *asked.Usual); err != nil {
			return nil, problem(ctx, err)
		}
	}
	if err := head.Job().CheckHead(); err != nil {
		return nil, problem(ctx, err)
	}
	if !head.Kit.Holds(was) { // else no opening can miss anything
		if err := s.keepsKit(ctx, head); err != nil {
			return nil, problem(ctx, err)
		}
	}
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	if head, err = s.store.SetHead(ctx, head, version, once); err != nil {
		return nil, problem(ctx, err)
	}
	s.tell(ctx, Changed{Job: in.Job, Label: s.label(ctx, "label.job", nil)})
	return headBody(head), nil
}

// usual makes some parts of an opening's choices the job's defaults.
func (s server) usual(ctx context.Context, head store.Head, set SetUsual) (job.Usual, error) {
	if set.From == "" {
		return head.Usual.Without(set.Parts), nil
	}
	k, err := s.store.Opening(ctx, head.ID, set.From)
	if err != nil {
		return head.Usual, err
	}
	return head.Usual.Set(head.Unit, k.Opening, set.Parts), nil
}

type jobIn struct {
	JobPath
	Precondition
	Once
}

func (s server) removeJob(ctx context.Context, in *jobIn) (*body[JobHead], error) {
	return s.takeJob(ctx, in, true)
}

func (s server) restoreJob(ctx context.Context, in *jobIn) (*body[JobHead], error) {
	return s.takeJob(ctx, in, false)
}

func (s server) takeJob(ctx context.Context, in *jobIn, off bool) (*body[JobHead], error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	once, err := in.of(nil)
	if err != nil {
		return nil, err
	}
	h, err := s.store.SetJobRemoved(ctx, in.Job, version, off, once)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return headBody(h), nil
}

func (s server) addOpening(ctx context.Context, in *struct {
	JobPath
	Once
	raw
},
) (*body[OpeningView], error) {
	asked, err := read[NewOpening](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	head, err := s.store.Head(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	o := head.Job().Begin("", strings.TrimSpace(asked.Name))
	o.Room = strings.TrimSpace(asked.Room)
	if asked.Hangs {
		o.Service = &job.Service{}
	}
	if err := o.Check(); err != nil {
		return nil, problem(ctx, err)
	}
	k, err := s.store.AddOpening(ctx, in.Job, o, once)
	if err != nil {
		return nil, problem(ctx, err)
	}
	s.tell(ctx, Changed{
		Job: in.Job, Opening: k.Opening.ID, Version: k.Version, Label: s.label(ctx, "label.added", nil),
	})
	return openingBody(k), nil
}

type fileOut struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte `contentType:"application/json"`
}

func (s server) export(ctx context.Context, in *JobPath) (*fileOut, error) {
	if err := s.atMost(ctx, in.Job, nil, mostFiled); err != nil {
		return nil, problem(ctx, err)
	}
	j, err := s.whole(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	b, err := jobFile(j)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &fileOut{typeJSON, attached(fileStem(j.Name) + ".job.json"), b}, nil
}

// mostFiled is the largest number of openings in a job file that is sent in a request.
const mostFiled = 1000

// jobFile is a job as an open job file.
func jobFile(j job.Job) ([]byte, error) {
	b, err := job.Encode(j)
	if err == nil && len(b) > largestFile {
		err = refusalOf(http.StatusInsufficientStorage, "api.file-large", nil)
	}
	return b, err
}

// whole is a job with all its openings, none left out: a partial file would pass for the whole.
func (s server) whole(ctx context.Context, id string) (job.Job, error) {
	head, list, _, err := s.store.Job(ctx, id)
	if err != nil {
		return job.Job{}, err
	}
	return jobOf(head, list)
}

// jobOf is a job with some openings.
func jobOf(head store.Head, list []store.Kept) (job.Job, error) {
	j := head.Job()
	for _, k := range list {
		if k.Broken != nil {
			return j, k.Broken
		}
		j.Openings = append(j.Openings, k.Opening)
	}
	return j, nil
}

// fileStem makes a name valid on every file system.
func fileStem(name string) string {
	plain := strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z', r >= '0' && r <= '9':
			return r
		case r >= 'A' && r <= 'Z':
			return r + 'a' - 'A'
		}
		return '-'
	}, name)
	return strings.Trim(plain, "-")
}

func (s server) importFile(ctx context.Context, in *struct {
	Once
	raw
},
) (*body[JobHead], error) {
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	if isZip(in.RawBody) {
		return nil, refusalOf(422, "api.import-zip", nil)
	}
	j, err := job.Decode(in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	h, err := s.store.AddJob(ctx, j, once)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return headBody(h), nil
}
