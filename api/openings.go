package api

import (
	"context"
	"reflect"

	"kindmargin/core/job"
	"kindmargin/document"
	"kindmargin/store"
)

// OpeningPath is the opening in an address.
type OpeningPath struct {
	JobPath
	Opening string `path:"opening"`
}

func (s server) opening(ctx context.Context, in *OpeningPath) (*body[OpeningView], error) {
	k, err := s.store.Opening(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return openingBody(k), nil
}

func (s server) change(ctx context.Context, in *struct {
	OpeningPath
	Precondition
	Once
	Label string `query:"label" doc:"What undo will call it, in at most 200 letters."`
	By    string `query:"by" doc:"Who makes it, in at most 120 letters."`
	raw
},
) (*body[OpeningView], error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	if err := byHand(in.By, in.Label); err != nil {
		return nil, err
	}
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	k, err := s.store.Opening(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if k.Once = once; once.Key != "" {
		switch sent, err := s.store.SentBefore(ctx, k); {
		case err != nil:
			return nil, problem(ctx, err)
		case sent: // its answer was lost on the way, and it may have been made since the opening was read
			if k, err = s.store.Opening(ctx, in.Job, in.Opening); err != nil {
				return nil, problem(ctx, err)
			}
			return openingBody(k), nil
		}
	}
	if k.Version != version {
		return nil, problem(ctx, store.ErrStale)
	}
	ops, err := readOps(in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	o, err := patched(k.Opening, ops, k.Job.Unit)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if err := o.Check(); err != nil {
		return nil, problem(ctx, err)
	}
	if err := o.CheckKit(k.Job.Kit); err != nil {
		return nil, problem(ctx, err)
	}
	if reflect.DeepEqual(o, k.Opening) {
		return openingBody(k), nil // nothing for undo to take back
	}
	if err := signed(k.Opening, o); err != nil {
		return nil, err
	}
	k.By = in.By
	if in.Label == "" {
		in.Label = s.label(ctx, "label.change", nil)
	}
	// The plan is computed while the disk is written to.
	unit := k.Job.Job()
	planned := async(func() document.Plan { return document.Of(unit, o) })
	k, again, err := s.store.Save(ctx, k, in.Label, o)
	if err != nil {
		planned()
		return nil, problem(ctx, err)
	}
	if again { // sent twice at once, and perhaps another change came after it
		planned()
		return openingBody(k), nil
	}
	s.tell(ctx, Changed{Job: in.Job, Opening: in.Opening, Version: k.Version, Label: in.Label, By: in.By})
	return openingWith(k, planned), nil
}

// async runs f in a goroutine; the returned function waits for its result, and repeats its panic.
func async[T any](work func() T) func() T {
	type result struct {
		v        T
		panicked any
	}
	done := make(chan result, 1)
	go func() {
		var r result
		defer func() {
			r.panicked = recover()
			done <- r
		}()
		r.v = work()
	}()
	return func() T {
		r := <-done
		if r.panicked != nil {
			panic(r.panicked)
		}
		return r.v
	}
}

type historyIn struct {
	OpeningPath
	Precondition
	Once
}

func (s server) undo(ctx context.Context, in *historyIn) (*body[OpeningView], error) {
	return s.history(ctx, in, s.store.Undo)
}

func (s server) redo(ctx context.Context, in *historyIn) (*body[OpeningView], error) {
	return s.history(ctx, in, s.store.Redo)
}

func (s server) history(
	ctx context.Context, in *historyIn,
	move func(context.Context, string, string, int64, store.Once) (store.Kept, error),
) (*body[OpeningView], error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	now, err := s.store.Opening(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if err := signed(now.Opening, job.Opening{}); err != nil {
		return nil, err
	}
	once, err := in.of(nil)
	if err != nil {
		return nil, err
	}
	k, err := move(ctx, in.Job, in.Opening, version, once)
	if err != nil {
		return nil, problem(ctx, err)
	}
	s.tell(ctx, Changed{Job: in.Job, Opening: in.Opening, Version: k.Version, Label: s.label(ctx, "label.undo", nil)})
	return openingBody(k), nil
}

// LeafIn is a leaf of an opening in an address.
type LeafIn struct {
	Leaf int `query:"leaf" minimum:"1" maximum:"2" default:"1" doc:"Of a pair, the leaf: 1 is the one on the hinge jamb."`
}

// of is the leaf's index, checked against an opening.
func (l LeafIn) of(o job.Opening) (int, error) {
	if l.Leaf != 1 && (l.Leaf != 2 || o.Pair == nil) {
		return 0, unreadable("query.leaf", "api.leaf")
	}
	return l.Leaf - 1, nil
}

func (s server) stock(ctx context.Context, in *struct {
	OpeningPath
	LeafIn
},
) (*body[[]document.StockFit], error) {
	k, err := s.store.Opening(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(ctx, err)
	}
	leaf, err := in.of(k.Opening)
	if err != nil {
		return nil, err
	}
	return &body[[]document.StockFit]{etag(k.Version), document.Stock(k.Job.Job(), k.Opening, leaf)}, nil
}

func (s server) storyRod(ctx context.Context, in *OpeningPath) (*body[document.StoryRod], error) {
	j, err := s.few(ctx, in.Job, nil)
	if err != nil {
		return nil, problem(ctx, err)
	}
	r, ok, err := document.Rod(ctx, j, in.Opening, untold)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if !ok {
		return nil, errNoRod
	}
	return &body[document.StoryRod]{Body: r}, nil
}

var errNoRod = refusalOf(422, "api.no-rod", nil)

// hingeWays are the hinges that could be used.
func (s server) hingeWays(ctx context.Context, in *struct {
	OpeningPath
	LeafIn
},
) (*body[[]document.HingeWay], error) {
	k, err := s.store.Opening(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(ctx, err)
	}
	leaf, err := in.of(k.Opening)
	if err != nil {
		return nil, err
	}
	return &body[[]document.HingeWay]{Body: document.HingeWays(k.Job.Job(), k.Opening, leaf)}, nil
}

func (s server) remove(ctx context.Context, in *historyIn) (*struct{}, error) {
	version, err := in.version()
	if err != nil {
		return nil, err
	}
	return nil, s.told(
		ctx, s.store.Remove(ctx, in.Job, in.Opening, version), in.Job, in.Opening, s.label(ctx, "label.taken-off", nil),
	)
}

func (s server) restore(ctx context.Context, in *OpeningPath) (*struct{}, error) {
	return nil, s.told(
		ctx, s.store.PutBack(ctx, in.Job, in.Opening), in.Job, in.Opening, s.label(ctx, "label.put-back", nil),
	)
}

// told publishes a change of the walk to every page.
func (s server) told(ctx context.Context, err error, job, opening, label string) error {
	if err != nil {
		return problem(ctx, err)
	}
	s.tell(ctx, Changed{Job: job, Opening: opening, Label: label})
	return nil
}
