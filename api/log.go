package api

import (
	"context"
	"errors"
	"net/http"
	"reflect"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/photo"
	"kindmargin/store"
)

// LogView is the record of an opening.
type LogView struct {
	Changes []Change           `json:"changes" doc:"What led to where it stands, the first first."`
	Photos  []PhotoView        `json:"photos"`
	Minutes map[string]float64 `json:"minutes" doc:"Spent on each step, where they were counted."`
}

// Change is one change of an opening.
type Change struct {
	At    string `json:"at" doc:"RFC 3339; empty where it was made before times were kept."`
	By    string `json:"by"`
	Label string `json:"label"`
}

// PhotoView is a photograph without its picture.
type PhotoView struct {
	ID      string   `json:"id"`
	Step    job.Step `json:"step"`
	At      string   `json:"at"`
	By      string   `json:"by"`
	Caption string   `json:"caption"`
	Width   int      `json:"width"`
	Height  int      `json:"height"`
}

func photoView(p store.Photo) PhotoView {
	return PhotoView{ID: p.ID, Step: p.Step, At: p.At, By: p.By, Caption: p.Caption, Width: p.Width, Height: p.Height}
}

func (s server) log(ctx context.Context, in *OpeningPath) (*body[LogView], error) {
	changes, err := s.store.Changes(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(ctx, err)
	}
	photos, err := s.store.Photos(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(ctx, err)
	}
	spent, err := s.store.Spent(ctx, in.Job, in.Opening)
	if err != nil {
		return nil, problem(ctx, err)
	}
	v := LogView{Changes: []Change{}, Photos: []PhotoView{}, Minutes: map[string]float64{}}
	for _, c := range changes {
		v.Changes = append(v.Changes, Change{c.At, c.By, c.Label})
	}
	for _, p := range photos {
		v.Photos = append(v.Photos, photoView(p))
	}
	for step, seconds := range spent {
		v.Minutes[string(step)] = float64(seconds) / 60
	}
	return &body[LogView]{Body: v}, nil
}

func (s server) addPhoto(ctx context.Context, in *struct {
	OpeningPath
	Step    job.Step `query:"step" doc:"That it belongs to."`
	Caption string   `query:"caption" doc:"At most 200 letters."`
	By      string   `query:"by" doc:"Who took it."`
	Once
	raw
},
) (*body[PhotoView], error) {
	if !slices.Contains(job.Steps, in.Step) {
		return nil, refusalOf(422, "api.photo-step", nil)
	}
	if err := byHand(in.By, in.Caption); err != nil {
		return nil, err
	}
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	kept, err := photo.Keep(in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	p, err := s.store.AddPhoto(ctx, in.Job, store.Photo{
		Opening: in.Opening, Step: in.Step, By: in.By, Caption: in.Caption, Width: kept.Width, Height: kept.Height,
		Data: kept.Data,
	}, once)
	if errors.Is(err, store.ErrPhotos) {
		return nil, refusalOf(422, "api.photos-full", message.Args{"most": message.Number(store.MostPhotos)})
	}
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &body[PhotoView]{Body: photoView(p)}, nil
}

type photoPath struct {
	OpeningPath
	Photo       string `path:"photo"`
	IfNoneMatch string `header:"If-None-Match" doc:"The ETag last read."`
}

type photoOut struct {
	ETag        string `header:"ETag"`
	ContentType string `header:"Content-Type"`
	Cache       string `header:"Cache-Control"`
	Body        []byte `contentType:"image/jpeg"`
}

func (s server) photo(ctx context.Context, in *photoPath) (*photoOut, error) {
	// A picture never changes, but each request checks that the client still has a pass.
	tag := `"` + in.Photo + `"`
	if in.IfNoneMatch == tag {
		return nil, huma.Status304NotModified()
	}
	b, err := s.store.PhotoData(ctx, in.Job, in.Opening, in.Photo)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return &photoOut{tag, "image/jpeg", "private, no-cache", b}, nil
}

func (s server) removePhoto(ctx context.Context, in *photoPath) (*struct{}, error) {
	return nil, problem(ctx, s.store.SetPhotoRemoved(ctx, in.Job, in.Opening, in.Photo, true))
}

func (s server) restorePhoto(ctx context.Context, in *photoPath) (*struct{}, error) {
	return nil, problem(ctx, s.store.SetPhotoRemoved(ctx, in.Job, in.Opening, in.Photo, false))
}

// TimeSpent is time spent on a step.
type TimeSpent struct {
	Step    job.Step `json:"step"`
	Seconds int      `json:"seconds" doc:"At most an hour at once."`
}

func (s server) spend(ctx context.Context, in *struct {
	OpeningPath
	Once
	raw
},
) (*struct{}, error) {
	t, err := read[TimeSpent](in.RawBody)
	if err != nil {
		return nil, problem(ctx, err)
	}
	once, err := in.of(in.RawBody)
	if err != nil {
		return nil, err
	}
	if !slices.Contains(job.Steps, t.Step) || t.Seconds < 1 || t.Seconds > 3600 {
		return nil, refusalOf(422, "api.time-spent", nil)
	}
	if _, err := s.store.Opening(ctx, in.Job, in.Opening); err != nil {
		return nil, problem(ctx, err)
	}
	return nil, problem(ctx, s.store.Spend(ctx, in.Job, in.Opening, t.Step, t.Seconds, once))
}

// signed rejects a change of a signed opening, except reopening it with a reason, and notes.
func signed(before, after job.Opening) error {
	if before.Signed == nil {
		return nil
	}
	n := len(before.Reopened)
	if after.Signed == nil && len(after.Reopened) == n+1 && reflect.DeepEqual(after.Reopened[n].Was, *before.Signed) {
		return nil
	}
	after.Notes = before.Notes
	if reflect.DeepEqual(before, after) {
		return nil
	}
	return refusalOf(http.StatusConflict, "api.signed", message.Args{"by": before.Signed.By})
}
