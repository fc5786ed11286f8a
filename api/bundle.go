package api

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/job"
	"kindmargin/store"
)

// A bundle is a job with its photographs: a zip that holds the open job file and, listed in
// photos.json, each photograph as a JPEG.
const (
	bundleJob    = "job.json"
	bundlePhotos = "photos.json"
	largestZip   = 256 << 20
)

// BundledPhoto is one photograph as photos.json lists it.
type BundledPhoto struct {
	File    string   `json:"file"`
	Opening string   `json:"opening"`
	Step    job.Step `json:"step"`
	At      string   `json:"at"`
	By      string   `json:"by"`
	Caption string   `json:"caption"`
}

type zipOut struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte `contentType:"application/zip"`
}

func (s server) bundle(ctx context.Context, in *JobPath) (*zipOut, error) {
	j, err := s.whole(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	var buf bytes.Buffer
	z := zip.NewWriter(&buf)
	if err := errors.Join(s.bundleInto(ctx, z, "", j, largestZip), z.Close()); err != nil {
		return nil, problem(ctx, err)
	}
	return &zipOut{"application/zip", `attachment; filename="` + fileStem(j.Name) + `.job.zip"`, buf.Bytes()}, nil
}

// bundleInto puts a job and its photographs in a zip, under a folder; no more of them than
// most bytes, nought for any.
func (s server) bundleInto(ctx context.Context, z *zip.Writer, dir string, j job.Job, most int) error {
	put := func(name string, b []byte) error {
		w, err := z.Create(dir + name)
		if err == nil {
			_, err = w.Write(b)
		}
		return err
	}
	doc, err := job.Encode(j)
	if err != nil {
		return err
	}
	if err := put(bundleJob, doc); err != nil {
		return err
	}
	photos, err := s.store.Photos(ctx, j.ID, "")
	if err != nil {
		return err
	}
	list, total := []BundledPhoto{}, len(doc)
	for i, p := range photos {
		if !slices.ContainsFunc(j.Openings, func(o job.Opening) bool { return o.ID == p.Opening }) {
			continue // of a door that was taken off
		}
		b, err := s.store.PhotoData(ctx, j.ID, p.Opening, p.ID)
		if err != nil {
			return err
		}
		if total += len(b); most > 0 && total > most {
			return huma.NewError(http.StatusInsufficientStorage, "The photographs are more than a bundle holds (256 MB): keep them by kindmargin backup, which holds any size.")
		}
		file := fmt.Sprintf("photos/%s-%s-%d.jpg", p.Opening, p.Step, i+1)
		if err := put(file, b); err != nil {
			return err
		}
		list = append(list, BundledPhoto{file, p.Opening, p.Step, p.At, p.By, p.Caption})
	}
	b, err := json.MarshalIndent(list, "", "  ")
	if err != nil {
		return err
	}
	return put(bundlePhotos, b)
}

// isZip reports whether a file begins as a zip does.
func isZip(b []byte) bool { return bytes.HasPrefix(b, []byte("PK\x03\x04")) }

// unbundle reads a bundle: the job file in it, and its photographs.
func unbundle(b []byte) (doc []byte, photos []store.Photo, err error) {
	fail := func(format string, a ...any) ([]byte, []store.Photo, error) {
		return nil, nil, &job.ErrFile{Problem: fmt.Sprintf(format, a...) + " Nothing was changed: take another copy of it."}
	}
	z, err := zip.NewReader(bytes.NewReader(b), int64(len(b)))
	if err != nil {
		return fail("This is not a whole zip.")
	}
	read := func(name string, most int64) ([]byte, error) {
		f, err := z.Open(name)
		if err != nil {
			return nil, err
		}
		defer f.Close()
		b, err := io.ReadAll(io.LimitReader(f, most+1))
		if err == nil && int64(len(b)) > most {
			err = fmt.Errorf("%s is larger than it may be", name)
		}
		return b, err
	}
	if doc, err = read(bundleJob, largestFile); err != nil {
		return fail("This zip holds no whole job.json.")
	}
	raw, err := read(bundlePhotos, largestChange)
	if err != nil {
		return doc, nil, nil // a job without photographs
	}
	var list []BundledPhoto
	if err := json.Unmarshal(raw, &list); err != nil || len(list) > 10000 {
		return fail("The list of photographs in this zip cannot be read.")
	}
	for _, p := range list {
		data, err := read(p.File, largestPhoto)
		if err != nil || !slices.Contains(job.Steps, p.Step) {
			return fail("The photograph %.80q in this zip cannot be read.", p.File)
		}
		data, width, height, err := picture(data)
		if err != nil {
			return fail("The photograph %.80q in this zip is damaged, or is none.", p.File)
		}
		photos = append(photos, store.Photo{Opening: p.Opening, Step: p.Step, At: p.At, By: p.By, Caption: p.Caption, Width: width, Height: height, Data: data})
	}
	return doc, photos, nil
}

// Brought reads what was brought in: an open job file, or a bundle with its photographs.
func Brought(b []byte) (j job.Job, photos []store.Photo, err error) {
	doc := b
	if isZip(b) {
		if doc, photos, err = unbundle(b); err != nil {
			return j, nil, err
		}
	}
	if j, err = job.Decode(doc); err != nil {
		return j, nil, err
	}
	for _, p := range photos {
		if !slices.ContainsFunc(j.Openings, func(o job.Opening) bool { return o.ID == p.Opening }) {
			return j, nil, &job.ErrFile{Problem: fmt.Sprintf("A photograph in this zip belongs to a door %.40q that the job does not have. Nothing was changed.", p.Opening)}
		}
	}
	return j, photos, nil
}
