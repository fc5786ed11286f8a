package api

import (
	"context"
	"errors"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/choice"
	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/core/plan"
	"kindmargin/core/site"
	"kindmargin/document"
	"kindmargin/store"
)

func (s server) walk(ctx context.Context, in *struct {
	JobPath
	IfNoneMatch string `header:"If-None-Match" doc:"The ETag last read: 304 where nothing has changed since."`
},
) (*body[Walk], error) {
	head, err := s.store.Head(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	if in.IfNoneMatch == walkTag(head) {
		return nil, huma.Status304NotModified()
	}
	head, list, off, err := s.store.Walk(ctx, in.Job, func(id string, version int64) bool {
		return s.plans.has(planKey{in.Job, id, version, head.Version})
	})
	if err != nil {
		return nil, problem(ctx, err)
	}
	out := &body[Walk]{
		ETag: walkTag(head), Body: Walk{Job: headView(head), Openings: make([]OpeningRow, len(list)), Off: []OffWalk{}},
	}
	for i, d := range s.plans.of(list, patience) {
		out.Body.Openings[i] = d.OpeningRow
		if d.Working {
			out.Body.Working++
			out.ETag = "" // it will be another in a moment
		}
	}
	for _, k := range off {
		out.Body.Off = append(out.Body.Off, OffWalk{k.ID, k.Name, k.Room})
	}
	return out, nil
}

func walkTag(h store.Head) string { return `"walk-` + strings.Trim(etag(h.Walk), `"`) + `"` }

// OpeningsIn are some openings in an address.
type OpeningsIn struct {
	JobPath
	Openings []string `query:"openings" doc:"IDs, set apart by commas; all of them where none is given."`
}

// mostDrawn is the largest number of drawings in one answer.
const mostDrawn = 60

// drawings are the daylight drawings of openings that are in view on the walk.
func (s server) drawings(ctx context.Context, in *OpeningsIn) (*body[[]OpeningDrawing], error) {
	if len(in.Openings) == 0 || len(in.Openings) > mostDrawn {
		return nil, refusalOf(422, "api.drawings", message.Args{"most": message.Number(mostDrawn)})
	}
	out := &body[[]OpeningDrawing]{Body: []OpeningDrawing{}}
	for _, id := range in.Openings {
		k, err := s.store.Opening(ctx, in.Job, id)
		if errors.Is(err, store.ErrNotFound) || errors.Is(err, store.ErrDamaged) {
			continue // it went off the walk meanwhile
		}
		if err != nil {
			return nil, problem(ctx, err)
		}
		if d := s.plans.one(k); d.drawing != nil {
			out.Body = append(out.Body, OpeningDrawing{d.ID, d.Version, d.drawing})
		}
	}
	return out, nil
}

// place moves an opening on the walk.
func (s server) place(ctx context.Context, in *struct {
	OpeningPath
	raw
},
) (*struct{}, error) {
	to, err := read[WalkPlace](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return nil, s.told(
		ctx, s.store.Place(ctx, in.Job, in.Opening, to.Before), in.Job, "", s.label(ctx, "label.put-elsewhere", nil),
	)
}

// chosen are some openings of a job, in the order of the walk; all where none is named.
func (s server) chosen(ctx context.Context, id string, ids []string) (job.Job, error) {
	if len(ids) == 0 {
		return s.whole(ctx, id)
	}
	head, list, err := s.store.Some(ctx, id, ids)
	if err != nil {
		return job.Job{}, err
	}
	j, err := jobOf(head, list)
	for _, d := range ids {
		if err == nil && !slices.ContainsFunc(j.Openings, func(o job.Opening) bool { return o.ID == d }) {
			err = store.ErrNotFound
		}
	}
	return j, err
}

// mostAtOnce is the largest number of openings planned in a request; more need an export, with progress.
const mostAtOnce = 40

var errExport = refusalOf(422, "api.too-many-at-once", nil)

// few are chosen openings, at most mostAtOnce.
func (s server) few(ctx context.Context, id string, ids []string) (job.Job, error) {
	if err := s.atMost(ctx, id, ids, mostAtOnce); err != nil {
		return job.Job{}, err
	}
	return s.chosen(ctx, id, ids)
}

// atMost rejects more openings than a limit; all of the job's where none is named.
func (s server) atMost(ctx context.Context, id string, ids []string, most int) error {
	n := len(ids)
	if n == 0 {
		head, err := s.store.Head(ctx, id)
		if err != nil {
			return err
		}
		n = head.Openings
	}
	if n > most {
		return errExport
	}
	return nil
}

// untold ignores progress.
func untold() {}

func (s server) load(ctx context.Context, in *OpeningsIn) (*body[document.Load], error) {
	j, err := s.few(ctx, in.Job, in.Openings)
	if err != nil {
		return nil, problem(ctx, err)
	}
	log, err := s.ownPace(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	v, err := document.LoadFor(ctx, j, log, untold)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &body[document.Load]{Body: v}, nil
}

// mostCopied is the largest number of openings that choices are copied to at once: each is planned before and after.
const mostCopied = 200

// copyChoices copies an opening's choices to others, or previews that.
func (s server) copyChoices(ctx context.Context, in *struct {
	JobPath
	Once
	raw
},
) (*body[Copied], error) {
	asked, err := read[CopyChoices](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	if err := byHand(asked.By, ""); err != nil {
		return nil, err
	}
	if len(asked.Parts) == 0 ||
		slices.ContainsFunc(asked.Parts, func(p job.Part) bool { return !slices.Contains(job.Parts, p) }) {
		return nil, refusalOf(422, "api.which-choices", nil)
	}
	if len(asked.To) > mostCopied {
		return nil, refusalOf(422, "api.copied-most", message.Args{"most": message.Number(mostCopied)})
	}
	ids := []string{asked.From}
	for _, to := range asked.To {
		ids = append(ids, to.ID)
	}
	head, list, err := s.store.Some(ctx, in.Job, ids)
	if err != nil {
		return nil, problem(ctx, err)
	}
	// after the openings were read: see store.SentBefore
	if at, ok, err := s.store.SavedAll(ctx, in.Job, once); err != nil || ok {
		return copiedBefore(at), problem(ctx, err)
	}
	at := map[string]store.Kept{}
	for _, k := range list {
		at[k.Opening.ID] = k
	}
	from, ok := at[asked.From]
	if !ok || from.Broken != nil {
		return nil, problem(ctx, store.ErrNotFound)
	}
	j := head.Job()
	copied := make([]copiedOpening, len(asked.To))
	for i, to := range asked.To {
		k, ok := at[to.ID]
		delete(at, to.ID) // named again, it is refused
		switch {
		case !ok || k.Broken != nil:
			return nil, problem(ctx, store.ErrNotFound)
		case k.Version != to.Version:
			return nil, problem(ctx, store.ErrStale)
		}
		k.By = asked.By
		copied[i] = copiedOpening{kept: k, to: k.Opening.Takes(from.Opening, asked.Parts)}
	}
	if err := document.Together(ctx, len(copied), func(i int) { copied[i].judge(j, asked.Parts) }); err != nil {
		return nil, problem(ctx, err)
	}

	out := &body[Copied]{Body: Copied{Openings: []CopiedOpening{}, Standing: []Standing{}}}
	var saved []store.Kept
	var to []job.Opening
	for _, c := range copied {
		out.Body.Openings = append(out.Body.Openings, c.view)
		if len(c.view.Changes) > 0 && c.view.Refused == "" {
			saved, to = append(saved, c.kept), append(to, c.to)
		}
	}
	if asked.Preview {
		return out, nil
	}
	label := s.label(ctx, "label.choices", message.Args{"door": from.Opening.Name})
	now, err := s.store.SaveAll(ctx, in.Job, label, saved, to, once)
	if err != nil {
		return nil, problem(ctx, err)
	}
	s.tell(ctx, Changed{Job: in.Job, Label: label, By: asked.By})
	for _, at := range now {
		out.Body.Standing = append(out.Body.Standing, Standing(at))
	}
	return out, nil
}

// copiedBefore is the answer of a copy that was made before.
func copiedBefore(at []store.Standing) *body[Copied] {
	v := Copied{Openings: []CopiedOpening{}, Standing: []Standing{}}
	for _, d := range at {
		v.Standing = append(v.Standing, Standing(d))
	}
	return &body[Copied]{Body: v}
}

// copiedOpening is an opening that choices are copied to.
type copiedOpening struct {
	kept store.Kept
	to   job.Opening
	view CopiedOpening
}

// judge reports what would change, why it cannot, and what would then stop the work.
func (c *copiedOpening) judge(j job.Job, parts []job.Part) {
	was := c.kept.Opening
	c.view = CopiedOpening{ID: was.ID, Name: was.Name, Room: was.Room, Changes: []string{}, Brings: []string{}}
	for _, p := range parts {
		c.view.Changes = append(c.view.Changes, inWords(document.Voice(j), choice.Differs(j, p, was, c.to))...)
	}
	if len(c.view.Changes) == 0 {
		return
	}
	if err := signed(was, c.to); err != nil {
		c.view.Refused = document.Voice(j).Text("api.copy-signed")
		return
	}
	if err := errors.Join(c.to.Check(), c.to.CheckKit(j.Kit)); err != nil {
		c.view.Refused = document.Voice(j).Say(problemOf(err))
		return
	}
	stops := func(o job.Opening) (list []string) {
		for _, f := range plan.Solve(j, o).All() {
			if f.Gravity == site.Stop {
				list = append(list, document.Voice(j).Say(f.Message()))
			}
		}
		return list
	}
	before := stops(was)
	for _, s := range stops(c.to) {
		if !slices.Contains(before, s) {
			c.view.Brings = append(c.view.Brings, s)
		}
	}
	if len(was.Tried) > 0 || was.Done[job.StepCut] != "" {
		c.view.Brings = append(c.view.Brings, document.Voice(j).Text("api.copy-cut"))
	}
}

// undoMany undoes one change each of several openings.
func (s server) undoMany(ctx context.Context, in *struct {
	JobPath
	Once
	raw
},
) (*struct{}, error) {
	asked, err := read[UndoMany](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	var list []store.Standing
	for _, d := range asked.Openings {
		list = append(list, store.Standing(d))
	}
	err = s.store.UndoAll(ctx, in.Job, list, once)
	if stale, ok := errors.AsType[store.StaleOpening](err); ok {
		return nil, refusalOf(http.StatusPreconditionFailed, "api.undo-stale", message.Args{"door": stale.Name})
	}
	return nil, s.told(ctx, err, in.Job, "", s.label(ctx, "label.several-back", nil))
}
