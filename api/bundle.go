package api

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"reflect"
	"slices"
	"strings"
	"sync/atomic"
	"time"
	"unicode"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"

	"kindmargin/core/job"
	"kindmargin/core/message"
	"kindmargin/document"
	"kindmargin/photo"
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

func (s server) bundle(ctx context.Context, in *struct {
	JobPath
	Large
},
) (*huma.StreamResponse, error) {
	if err := s.atMost(ctx, in.Job, nil, mostFiled); err != nil {
		return nil, problem(ctx, err)
	}
	j, err := s.whole(ctx, in.Job)
	if err != nil {
		return nil, problem(ctx, err)
	}
	return s.wholeFile(ctx, typeZip, fileStem(j.Name)+".job.zip", func(w io.Writer) error {
		return s.writeBundle(ctx, w, j, untold)
	})
}

// writeBundle writes a job with its photographs as a zip.
func (s server) writeBundle(ctx context.Context, w io.Writer, j job.Job, _ func()) error {
	z := zip.NewWriter(w)
	return errors.Join(s.bundleInto(ctx, z, "", j, largestZip), z.Close())
}

// bundleInto adds a job and its photographs to a zip, in a folder; at most most bytes of photographs, 0 for any.
func (s server) bundleInto(ctx context.Context, z *zip.Writer, dir string, j job.Job, most int) error {
	put := func(name string, method uint16, b []byte, at time.Time) error {
		w, err := z.CreateHeader(&zip.FileHeader{Name: dir + name, Method: method, Modified: at})
		if err == nil {
			_, err = w.Write(b)
		}
		return err
	}
	doc, err := job.Encode(j)
	if err != nil {
		return err
	}
	if err := put(bundleJob, zip.Deflate, doc, time.Now()); err != nil {
		return err
	}
	photos, err := s.store.Photos(ctx, j.ID, "")
	if err != nil {
		return err
	}
	list, total := []BundledPhoto{}, len(doc)
	for i, p := range photos {
		if !slices.ContainsFunc(j.Openings, func(o job.Opening) bool { return o.ID == p.Opening }) {
			continue // of an opening that was taken off
		}
		b, err := s.store.PhotoData(ctx, j.ID, p.Opening, p.ID)
		if err != nil {
			return err
		}
		if total += len(b); most > 0 && total > most {
			return refusalOf(http.StatusInsufficientStorage, "api.bundle-large", nil)
		}
		file := fmt.Sprintf("photos/%s-%s-%d.jpg", p.Opening, p.Step, i+1)
		if err := put(file, zip.Store, b, taken(p.At)); err != nil {
			return err
		}
		list = append(list, BundledPhoto{
			File: file, Opening: p.Opening, Step: p.Step, At: p.At, By: p.By, Caption: p.Caption,
		})
	}
	b, err := json.MarshalIndent(list, "", "  ")
	if err != nil {
		return err
	}
	return put(bundlePhotos, zip.Deflate, b, time.Now())
}

// taken is when a photograph was taken; now where that is not known.
func taken(at string) time.Time {
	if t, err := time.Parse(time.RFC3339, at); err == nil {
		return t
	}
	return time.Now()
}

// isZip reports whether a file begins as a zip does.
func isZip(b []byte) bool { return bytes.HasPrefix(b, []byte("PK\x03\x04")) }

// Brought is an imported file: an open job file, or a bundle with its photographs, which are not read yet.
type Brought struct {
	Job    job.Job
	photos []store.Photo // their pictures apart
	files  []*zip.File   // the pictures, each once
	of     []int         // the file of each photograph
}

// Bounds on a bundle.
const (
	largestList = 16 << 20
	mostPhotos  = 10_000
	longestBy   = 120 // letters
	longestText = 200
)

// damagedBundle is why a bundle was refused.
func damagedBundle(id message.ID, args message.Args) error {
	return &job.ErrFile{Problem: message.Message{ID: id, Args: args}}
}

// Bring reads an imported file without its pictures; those are read by Pictures.
func Bring(r io.ReaderAt, size int64) (*Brought, error) {
	head := make([]byte, 4)
	if _, err := r.ReadAt(head, 0); err != nil && !errors.Is(err, io.EOF) {
		return nil, err
	}
	if !isZip(head) {
		if size > largestFile {
			return nil, damagedBundle("bundle.file-large", nil)
		}
		doc, err := io.ReadAll(io.NewSectionReader(r, 0, size))
		if err != nil {
			return nil, err
		}
		j, err := job.Decode(doc)
		return &Brought{Job: j}, err
	}
	z, err := zip.NewReader(r, size)
	if err != nil {
		return nil, damagedBundle("bundle.no-zip", nil)
	}
	doc, ok, err := part(z, bundleJob, largestFile)
	if err != nil || !ok {
		return nil, damagedBundle("bundle.no-job", nil)
	}
	b := &Brought{}
	if b.Job, err = job.Decode(doc); err != nil {
		return nil, err
	}
	list, ok, err := part(z, bundlePhotos, largestList)
	switch {
	case err != nil:
		return nil, damagedBundle("bundle.list-damaged", nil)
	case ok:
		return b, b.list(z, list)
	}
	return b, nil // a job without photographs
}

// part reads one entry of a zip; ok is false where it is not there. A damaged or too large one is an error.
func part(z *zip.Reader, name string, most int64) (b []byte, ok bool, err error) {
	f, err := z.Open(name)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, false, nil
	}
	if err != nil {
		return nil, true, err
	}
	defer f.Close()
	if b, err = io.ReadAll(io.LimitReader(f, most+1)); err == nil && int64(len(b)) > most {
		err = fmt.Errorf("too large: %s", name)
	}
	return b, true, err
}

// list reads the list of photographs: each of an opening of the job, at a step, in an entry that exists.
func (b *Brought) list(z *zip.Reader, raw []byte) error {
	var list []BundledPhoto
	if err := job.CheckJSON(raw, reflect.TypeFor[[]BundledPhoto]()); err != nil {
		return damagedBundle("bundle.list-unread", nil)
	}
	if err := json.Unmarshal(raw, &list); err != nil || len(list) > mostPhotos {
		return damagedBundle("bundle.list-long", message.Args{"most": message.Number(mostPhotos)})
	}
	files, at, of := map[string]*zip.File{}, map[string]int{}, map[string]int{}
	for _, f := range z.File {
		files[f.Name] = f
	}
	for _, p := range list {
		f, ok := files[p.File]
		switch {
		case !ok || f.UncompressedSize64 > photo.Largest:
			return damagedBundle("bundle.photo-missing", message.Args{"file": message.Quote(p.File)})
		case !slices.ContainsFunc(b.Job.Openings, func(o job.Opening) bool { return o.ID == p.Opening }):
			return damagedBundle("bundle.photo-door", message.Args{"door": message.Quote(p.Opening)})
		case !slices.Contains(job.Steps, p.Step):
			return damagedBundle("bundle.photo-step", message.Args{"file": message.Quote(p.File)})
		case !onOneLine(p.Caption, longestText) || !onOneLine(p.By, longestBy):
			return damagedBundle("bundle.photo-text", message.Args{"file": message.Quote(p.File)})
		case !isTime(p.At):
			return damagedBundle("bundle.photo-time", message.Args{"file": message.Quote(p.File)})
		}
		if of[p.Opening]++; of[p.Opening] > store.MostPhotos {
			return damagedBundle("bundle.photo-many", message.Args{
				"most": message.Number(store.MostPhotos), "door": message.Quote(p.Opening),
			})
		}
		n, known := at[p.File]
		if !known {
			n = len(b.files)
			at[p.File], b.files = n, append(b.files, f)
		}
		b.photos, b.of = append(b.photos, store.Photo{
			Opening: p.Opening, Step: p.Step, At: p.At, By: p.By, Caption: p.Caption,
		}), append(b.of, n)
	}
	return nil
}

// onOneLine reports whether a text has at most so many letters and no control characters.
func onOneLine(s string, most int) bool {
	return utf8.RuneCountInString(s) <= most && !strings.ContainsFunc(s, unicode.IsControl)
}

// byHand rejects a name or caption that is too long or has several lines.
func byHand(by, said string) error {
	if !onOneLine(by, longestBy) || !onOneLine(said, longestText) {
		return refusalOf(422, "api.by-and-text", message.Args{
			"by": message.Number(longestBy), "text": message.Number(longestText),
		})
	}
	return nil
}

// isTime reports whether a text is a time in the stored form, or empty.
func isTime(s string) bool {
	_, err := time.Parse(time.RFC3339, s)
	return s == "" || err == nil
}

// Pictures reads the pictures, once each and in parallel, passes each to keep, and then reports how many were read; it
// stops when the context ends. It sets the photographs' sizes.
func (b *Brought) Pictures(ctx context.Context, keep func(n int, k photo.Kept) error, told func(done int)) error {
	sizes, errs := make([]photo.Kept, len(b.files)), make([]error, len(b.files))
	ctx, stop := context.WithCancelCause(ctx)
	defer stop(nil)
	var done, bytes atomic.Int64
	err := document.Together(ctx, len(b.files), func(n int) {
		if errs[n] = b.picture(n, &bytes, &sizes[n], keep); errs[n] != nil {
			stop(errs[n])
			return
		}
		told(int(done.Add(1)))
	})
	for _, own := range errs { // what is wrong with a picture, before that the rest was stopped
		if own != nil {
			return own
		}
	}
	if err != nil {
		return err
	}
	for i, n := range b.of {
		b.photos[i].Width, b.photos[i].Height = sizes[n].Width, sizes[n].Height
	}
	return nil
}

func (b *Brought) picture(n int, bytes *atomic.Int64, size *photo.Kept, keep func(int, photo.Kept) error) error {
	f, err := b.files[n].Open()
	if err != nil {
		return damagedBundle("bundle.photo-unread", message.Args{"file": message.Quote(b.files[n].Name)})
	}
	defer f.Close()
	raw, err := io.ReadAll(io.LimitReader(f, photo.Largest))
	if err != nil {
		return damagedBundle("bundle.photo-unread", message.Args{"file": message.Quote(b.files[n].Name)})
	}
	k, err := photo.Keep(raw)
	if err != nil {
		return damagedBundle("bundle.photo-damaged", message.Args{"file": message.Quote(b.files[n].Name)})
	}
	times := 0
	for _, m := range b.of {
		if m == n {
			times++
		}
	}
	if bytes.Add(int64(times*len(k.Data))) > largestZip {
		return damagedBundle("bundle.photos-large", nil)
	}
	*size = photo.Kept{Width: k.Width, Height: k.Height}
	return keep(n, k)
}

// Photos are the photographs, each with a function that reads its picture.
func (b *Brought) Photos(load func(n int) ([]byte, error)) []store.Photo {
	for i, n := range b.of {
		b.photos[i].Load = func() ([]byte, error) { return load(n) }
	}
	return b.photos
}
